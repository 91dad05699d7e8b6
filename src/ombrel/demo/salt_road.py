"""How the demo show is made: its input list as a band would send it, then the patch, the house,

six stereo ears, two wedges, groups, effects and feeds, by the same core functions as the screens.
"""

from collections.abc import Callable, Iterator, Mapping
from importlib.resources import files
from typing import Final

from ombrel.core import (
    Address,
    Asked,
    Desk,
    Show,
    Thing,
    Ways,
    add_wishes,
    blank_show,
    cues_for_scenes,
    ear_mixes,
    flow_of,
    lines_on,
    made,
    make_buses,
    make_effect,
    make_lift,
    make_minus,
    make_mixes,
    make_sharing,
    merge,
    named_kind,
    of_kind,
    set_self,
    take_starts,
    trim_lift,
)
from ombrel.formats.lists import read_book, read_lists

from .company import company
from .families import FAMILIES, family_of
from .hands import hands
from .processing import processing
from .promises import promised
from .scenes import scenes_of

__all__ = ["DEMO_DESK", "DEMO_NAME", "demo_show"]

DEMO_DESK = "touring-48"
DEMO_NAME = "The Salt Road"
_TARGET_DBFS = -18.0  # where each preamp puts its line: common practice

# families as lines have them, where the demo's own are finer
_LINE_FAMILY = {"foley": "effects", "room": "effects", "talkback": "cues", "band voices": "voices"}
# who wears ears, and the start of the names of what is theirs
_EARS = (
    ("Ears host", ("Ring host",)),
    ("Ears tellers", ("Teller",)),
    ("Ears fiddle", ("Fiddle", "Band talkback")),
    ("Ears accordion", ("Accordion",)),
    ("Ears bass", ("Double bass", "Bass voice")),
    ("Ears drums", ("Kick", "Snare", "Caj", "Frame", "Tin", "Overheads", "Drum voice")),
)
# whose the band's ears are, by the performers of lines, and their recipes
_PLAYERS = {
    "Ears fiddle": ("Aoife Merrin", "self +7, strings +2, drums -4, click = -14, guide off"),
    "Ears accordion": ("Greta Holm", "self +7, strings +2, bass +1, click = -12"),
    "Ears bass": ("Ruben Castellar", "self +6, drums +2, click = -10, guide = -16"),
    "Ears drums": ("Tove Lindqvay", "self +4, bass +4, click = -8, guide = -12, voices -3"),
}
# send of each family into ears, before the fader
_EAR_DB = {
    "voices": -11.0,
    "drums": -16.5,
    "bass": -12.5,
    "strings": -13.0,
    "brass": -19.0,
    "playback": -14.0,
    "cues": -9.5,
    "talkback": -8.0,
    "room": -22.0,
    "band voices": -14.0,
}
_SELF_DB = -4.0
# what is sent to which shared effect, behind the fader: of each family, level
_EFFECT_DB = {
    "Hall": {"voices": -8.0, "strings": -12.0, "brass": -10.0, "band voices": -9.0},
    "Harbour echo": {"voices": -20.0, "brass": -16.0},
}
# matrices: what each takes of the house, of mono, and of the ambience or effects
_MATRICES = {
    "Foyer boat": {"house": -3.0, "mono": -6.0},
    "Stream": {"house": 0.0, "group/2": -4.0},
    "Relay": {"house": -8.0, "group/2": -2.0},
}


def _turn(channel: int, name: str) -> int:
    """A number to vary levels by: both sides of a stereo pair share it."""
    return channel - 1 if name.endswith(" R") else channel


def demo_show(desk: Desk) -> Show:
    """The demo show on a desk with at least what "Touring 48" has."""
    show = blank_show(desk)
    for step in _steps(show):
        show, _ = made(show, step(show))
    return show


def _steps(show: Show) -> Iterator[Callable[[Show], Mapping[str, Asked]]]:
    yield lambda now: {"show/name": DEMO_NAME}
    yield _lines
    yield _strips
    yield _preamps
    yield _house
    yield _ears
    yield _wedges
    yield _groups
    yield lambda now: make_effect(now, "Hall", engine=1, fader_db=-6.0)
    yield lambda now: make_effect(now, "Harbour echo", engine=2, fader_db=-9.0)
    yield _into_effects
    yield lambda now: make_buses(now, "matrix", ["Foyer boat", "Stream", "Relay"], stereo=False)
    yield _matrices
    yield _tracks
    yield processing
    yield from hands()
    yield _labels
    yield promised
    yield _radio
    yield _council
    yield _lift
    yield lambda now: trim_lift(now, flow_of(now), "lift/1", "4")
    yield _left_for_a_visitor
    yield from company()
    yield _players
    yield lambda now: take_starts(now, ear_mixes(now, "ears"))
    yield scenes_of
    yield lambda now: add_wishes(now, _WISHES)
    yield cues_for_scenes


def _lines(show: Show) -> Mapping[str, Asked]:
    content = (files("ombrel") / "demo" / "salt-road-full.xlsx").read_bytes()
    reading = read_lists(read_book(content), show.desk)
    return merge(show, [draft for _, draft in reading.drafts()], Ways()).moves


def _strips(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for number in show.channels():
        name = show.text(f"channel/{number}/name")
        _, colour, house_db = FAMILIES[family_of(name)]
        moves[f"channel/{number}/colour"] = colour
        if house_db is None:
            moves[f"channel/{number}/house/on"] = False
            moves[f"channel/{number}/fader"] = 0.0
        else:
            # a spread within the family, so that no two strips look mixed by rote
            turn = _turn(number, name)
            moves[f"channel/{number}/fader"] = round(house_db - (turn * 7 % 5) * 0.9, 1)
        if name in ("Kick", "Double bass DI") or name.startswith("Frame drum 1"):
            moves[f"channel/{number}/mono/on"] = True
        for line in lines_on(show, show.text(f"channel/{number}/source")):
            moves[f"line/{line}/colour"] = colour
            moves[f"line/{line}/family"] = _LINE_FAMILY.get(family_of(name), family_of(name))
    places = {"Fiddle": -0.15, "Kora": 0.35, "Trumpet": 0.45, "Trombone": 0.6, "Cajón": 0.1}
    for number in show.channels():
        if (name := show.text(f"channel/{number}/name")) in places:
            moves[f"channel/{number}/pan"] = places[name]
        if name in ("Spare radio", "Ship's bell", "Foley floor"):
            moves[f"channel/{number}/mute"] = True  # waiting for their cue
    return moves


def _preamps(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for line in show.lines():
        for side in ("socket", "socket_right"):
            socket = show[f"line/{line}/{side}"]
            box = show.desk.box(Thing.at(socket).box) if isinstance(socket, str) else None
            if box is None or not box.preamps:
                continue
            wanted_db = (
                _TARGET_DBFS + show.desk.full_scale_dbu - show.number(f"line/{line}/level_dbu")
            )
            lowest_db, highest_db = show.desk.gain_db
            moves[f"{socket}/gain"] = min(max(float(round(wanted_db)), lowest_db), highest_db)
            moves[f"{socket}/phantom"] = show.on(f"line/{line}/phantom")
    return moves


def _house(show: Show) -> Mapping[str, Asked]:
    return {
        "output/local/1/source": "house/left",
        "output/local/2/source": "house/right",
        "output/local/3/source": "mono",
        "house/fader": -1.0,
        "mono/fader": -4.0,
    }


def _ears(show: Show) -> Mapping[str, Asked]:
    moves = dict(make_mixes(show, [name for name, _ in _EARS], stereo=True, serves="ears"))
    for mix, (_, own) in enumerate(_EARS, start=1):
        for channel in show.channels():
            name = show.text(f"channel/{channel}/name")
            family = family_of(name)
            is_self = name.startswith(own)
            level_db = _SELF_DB if is_self else _EAR_DB.get(family)
            if level_db is None or name == "Spare radio":
                continue
            if not is_self:
                turn = _turn(channel, name)
                level_db = round(level_db - ((turn * 5 + mix * 3) % 7) * 0.6, 1)
            send = f"channel/{channel}/send/mix/{mix}"
            moves[f"{send}/level"] = level_db
            moves[f"{send}/pan"] = show[f"channel/{channel}/pan"]
    for mix in (4, 6):
        moves[f"mix/{mix}/fader"] = -3.0
    return moves


def _wedges(show: Show) -> Mapping[str, Asked]:
    names = ["Wedge ring", "Wedge quay"]
    moves = dict(make_mixes(show, names, stereo=False, serves="wedge", patch=False))
    moves["output/a/1/source"], moves["output/a/2/source"] = "mix/7", "mix/8"
    for channel in show.channels():
        family = family_of(show.text(f"channel/{channel}/name"))
        for mix, level_db in ((7, -9.0), (8, -13.0)):
            if family in ("voices", "playback") or (mix == 8 and family == "strings"):
                send = f"channel/{channel}/send/mix/{mix}"
                turn = _turn(channel, show.text(f"channel/{channel}/name"))
                moves[f"{send}/level"] = round(level_db - (turn * 3 % 4) * 0.7, 1)
    return moves


def _groups(show: Show) -> Mapping[str, Asked]:
    """The band rides on one group, the voices on another; both stand between channels and house."""
    moves = dict(make_buses(show, "group", ["Band", "Voices"], stereo=True))
    moves |= {"group/1/fader": -1.5, "group/1/colour": "rose", "group/2/colour": "amber"}
    of_group = {1: ("drums", "bass", "strings", "brass"), 2: ("voices", "band voices")}
    for channel in show.channels():
        family = family_of(show.text(f"channel/{channel}/name"))
        for group, families in of_group.items():
            if family in families:
                moves[f"channel/{channel}/group/{group}/on"] = True
                moves[f"channel/{channel}/house/on"] = False
    return moves


def _into_effects(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {}
    for mix in show.in_use("mix"):
        sends = _EFFECT_DB.get(show.text(f"{mix}/name"), {})
        for channel in show.channels():
            name = show.text(f"channel/{channel}/name")
            level_db = sends.get(family_of(name))
            if level_db is not None and name != "Spare radio":
                turn = _turn(channel, name)
                level = round(level_db - (turn * 3 % 4) * 0.5, 1)
                moves[f"channel/{channel}/send/{mix}/level"] = level
                moves[f"channel/{channel}/send/{mix}/pan"] = show[f"channel/{channel}/pan"]
    return moves


def _matrices(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {
        "output/a/3/source": "matrix/1",
        "output/b/3/source": "matrix/2/left",
        "output/b/4/source": "matrix/2/right",
        "output/b/1/source": "matrix/3",
        "matrix/2/format": "stereo",
        "matrix/1/fader": -2.0,
    }
    for matrix in show.in_use("matrix"):
        for bus, level_db in _MATRICES[show.text(f"{matrix}/name")].items():
            moves[f"{bus}/send/{matrix}/level"] = level_db
    return moves


# One track more than the recorder has, for a visitor to settle.
_WISHES: Final = """\
House as heard to 1
Hall as heard to 3
1-7, 9-28 raw
Fiddle voice, Drum voice
Ambience if there is room"""


def _tracks(show: Show) -> Mapping[str, Asked]:
    """The voices on recorder tracks, as they leave their channels before the fader."""
    moves: dict[str, Asked] = {}
    for channel in range(1, 9):
        track = f"output/recorder/{channel}"
        moves[f"{track}/source"] = f"channel/{channel}/direct"
        moves[f"{track}/tap"] = "before_fader"
        moves[f"{track}/label"] = f"{show.text(f'channel/{channel}/name')} track"[:40]
        moves[f"{track}/device"] = "recorder"
    return moves


def _radio(show: Show) -> Mapping[str, Asked]:
    """The harbour's radio takes the evening; its own reporter is the ring host, who is left out."""
    moves = dict(make_minus(show, ["channel/1"], name="Harbour radio"))
    sockets = [Address.at(a).thing for a in moves if of_kind(a) == "output"]
    for socket, side in zip(sockets, ("left", "right"), strict=True):
        moves |= {f"{socket}/label": f"Radio {side}", f"{socket}/device": "stream_encoder"}
    return moves


def _council(show: Show) -> Mapping[str, Asked]:
    """The Council of gulls: five who talk across one another, and the host, who always wins."""
    return {
        **make_sharing(show, "1-6", "Council of gulls"),
        "channel/1/sharing/weight": 10.0,
        "sharing/1/time": 150.0,
    }


def _lift(show: Show) -> Mapping[str, Asked]:
    """Any voice can lead; what is below 90 Hz belongs to the sub."""
    moves = dict(make_lift(show, [], name="Voices", backing="group/2"))
    return moves | {"mono/crossover/on": True, "lift/1/seconds": 1.5}


def _players(show: Show) -> Mapping[str, Asked]:
    """Whose each mix for ears is, what they want to hear, and what their phones may do."""
    moves: dict[str, Asked] = {}
    for mix in ear_mixes(show, "ears"):
        who, recipe = _PLAYERS.get(show.text(f"{mix}/name"), ("", "self +7, rest -8"))
        if who:
            moves |= set_self(show, mix, who)
        moves |= {f"{mix}/recipe": recipe, f"{mix}/ceiling": 4.0, f"{mix}/limit": 12.0}
    return moves


def _labels(show: Show) -> Mapping[str, Asked]:
    moves: dict[str, Asked] = {
        "output/local/1/label": "Tent left",
        "output/local/2/label": "Tent right",
        "output/local/3/label": "Sub",
        "output/a/1/label": "Wedge ring",
        "output/a/2/label": "Wedge quay",
        "output/a/1/device": "wedge",
        "output/a/2/device": "wedge",
    }
    moves |= {f"output/local/{number}/device": "amplifier" for number in (1, 2, 3)}
    moves |= {
        "output/a/3/label": "Foyer boat",
        "output/a/3/device": "amplifier",
        "output/b/3/label": "Stream left",
        "output/b/4/label": "Stream right",
        "output/b/3/device": "stream_encoder",
        "output/b/4/device": "stream_encoder",
        "output/b/1/label": "Relay backstage",
    }
    for socket in show.outputs():
        source = show[f"{socket}/source"]
        if named_kind(source) == "mix" and Thing.at(socket).box == "local":
            moves[f"{socket}/label"] = f"Ear pack {Thing.at(str(source)).number}"
            moves[f"{socket}/device"] = "ear_transmitter"
    return moves


def _left_for_a_visitor(show: Show) -> Mapping[str, Asked]:
    """What an engineer would still have to settle: Findings tells of each."""
    moves: dict[str, Asked] = {"channel/1/spare": "input/local/8"}
    for line in show.lines():
        name, socket = show.text(f"line/{line}/name"), show[f"line/{line}/socket"]
        if name == "Tin and chain":
            moves[f"{socket}/phantom"] = False
        if name == "Trombone":
            moves[f"{socket}/gain"] = 58.0
    moves["channel/32/send/mix/9/level"] = -20.0  # the guide is in the hall, and so in the house
    moves["output/a/4/label"] = "Side fill"
    moves["output/a/4/device"] = "amplifier"
    return moves
