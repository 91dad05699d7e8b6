"""A Festival 128 as wide as it gets: every line, channel and mix called with forty letters."""

import math
import tempfile
import uuid

from ombrel.core import Show, cells_by_preset, check_next, choose_cast, made, show_of, store_scene
from ombrel.formats.show_file import write_show
from ombrel.server.keeping.desks import desk_of

__all__ = ["long_show"]

MIXES = 60
WORDS = (
    "\u0643\u0645\u0627\u0646",
    "\u0637\u0628\u0644",
    "\u05ea\u05d5\u05e3",
    "\u0635\u0648\u062a",
    "\u05e7\u05d5\u05dc",
)  # fiddle, drum, voice


def forty(what, number):
    """A name of forty letters: every third holds no space where it could be broken, every fifth

    runs from right to left, and of lines and channels every seventh has none.
    """
    if number % 7 == 0 and what in ("Line", "Channel"):
        return ""
    if number % 5 == 0:
        return f"{WORDS[number % len(WORDS)]} {number} {' '.join(WORDS)}"[:40].strip()
    name = f"{what} {number} with a name as long as they get"
    return (name.replace(" ", "-") if number % 3 == 0 else name)[:40].ljust(40, "x")


def with_scenes(show: Show) -> Show:
    """Eight scenes of all faders, mutes and sends."""
    cells = cells_by_preset(show, "balance")
    for number in range(1, 9):
        show = made(show, {f"channel/{number}/mute": True, "channel/9/fader": -2.0 * number})[0]
        show = made(show, store_scene(show, forty("Scene", number), cells))[0]
        show = made(show, {f"scene/{number}/notes": forty("Notes", number) * 3})[0]
    stands = {f"channel/{number}/mute": False for number in range(1, 9)}
    return made(show, {**stands, "channel/9/fader": -math.inf})[0]


def with_company(show: Show) -> Show:
    """Everybody on, with something loose; a mic check by the one who looks, and by another."""
    on = made(show, choose_cast(show, "cast/1", since_s=1_781_000_000.0).moves, own=True)[0]
    moved = {
        f"channel/{n}/{leaf}": 3.0 for n in range(1, 21) for leaf in ("eq/1/gain", "eq/2/gain")
    }
    show = made(on, moved)[0]
    for by in (forty("Operator", 1), "engineer"):
        show = made(show, check_next(show, by=by, at_s=1_781_000_100.0), own=True)[0]
    return show


def long_show(server):
    """Make it, and give its id."""
    desk = desk_of("festival-128")
    inputs = [f"input/{box.key}/{n}" for box in desk.boxes for n in range(1, box.inputs + 1)]
    values = {"show/name": forty("Festival", 1)}
    for number in range(1, desk.channels + 1):
        values |= {
            f"line/{number}/place": float(number),
            f"line/{number}/name": forty("Line", number),
            f"line/{number}/performer": forty("Player", number),
            f"line/{number}/microphone": forty("Microphone", number),
            f"line/{number}/stereo": number % 5 == 0,
            f"line/{number}/socket": inputs[number],
            f"channel/{number}/name": forty("Channel", number),
            f"channel/{number}/source": inputs[number],
        }
    for number in range(1, MIXES + 1):
        values[f"mix/{number}/format"] = "stereo"
        values[f"mix/{number}/name"] = forty("Mix", number)
        for channel in range(1, desk.channels + 1):
            values[f"channel/{channel}/send/mix/{number}/level"] = -12.0
    for number in range(1, desk.dcas + 1):
        values[f"dca/{number}/name"] = forty("DCA", number)
        for channel in range(number, desk.channels + 1, 7):
            values[f"channel/{channel}/dca/{number}/on"] = True
    for number in range(1, desk.mute_groups + 1):
        values[f"mute_group/{number}/name"] = forty("Mute group", number)
        for mix in range(1, MIXES + 1, number):
            values[f"mix/{mix}/mute_group/{number}/on"] = True
    for number in range(1, 13):
        values[f"gang/{number}/name"] = forty("Gang", number)
        values |= {f"gang/{number}/carries_{what}": True for what in ("pan", "gain", "sends")}
        for channel in range(number, desk.channels + 1, 9):
            values[f"channel/{channel}/gang/{number}/on"] = True
    values |= {f"channel/{number}/linked": True for number in range(21, 61, 2)}
    for number in range(1, desk.sharing_groups + 1):
        values[f"sharing/{number}/name"] = forty("Panel", number)
        for channel in range(number, 65, desk.sharing_groups):
            values[f"channel/{channel}/sharing/group"] = f"sharing/{number}"
            values[f"channel/{channel}/sharing/weight"] = -12.5
    for number in range(1, 61):  # tracks of a plan that was taken, and come back
        values |= {
            f"wish/{number}/place": float(number),
            f"wish/{number}/source": f"channel/{number + 64}",
            f"wish/{number}/on_track": float(number),
            f"output/recorder/{number}/source": f"channel/{number + 64}/direct",
            f"output/recorder/{number}/tap": "input",
            f"channel/{number + 64}/spare": f"input/recorder/{number}",
            f"channel/{number + 64}/on_spare": number < 20,
            f"channel/{number + 64}/played": number < 20,
        }  # fmt: skip
    for number in range(1, 21):  # cues of long messages and long names
        values |= {
            f"cue/{number}/comes": f'/{forty("show", number).replace(" ", "_")}/go "{number}"',
            f"cue/{number}/does": "mute",
            f"cue/{number}/what": f"dca/{(number - 1) % desk.dcas + 1}",
        }
    values |= {"cue/21/comes": "/gone 1", "cue/21/does": "scene", "cue/21/what": "scene/900"}
    for number in range(1, 13):
        values[f"bank/{number}/name"] = forty("Bank", number)
        for place in range(1, desk.bays[0].faders + 1):
            values[f"bank/{number}/1/{place}"] = f"channel/{(number - 1) * 8 + place}"
    values["bay/1/fixed/12"] = "dca/1"
    for number in range(1, 21):
        names = (("performer", f"performer/{number}"), ("Part", f"part/{number}"))
        values |= {f"{thing}/name": forty(word.capitalize(), number) for word, thing in names}
        values |= {
            f"part/{number}/place": float(number),
            f"part/{number}/microphone/1/channel": f"channel/{number}",
            f"part/{number}/player/1/performer": f"performer/{number}",
            f"part/{number}/mix": f"mix/{number}",
        }
    for number in range(1, 4):
        values[f"cast/{number}/name"] = forty("Cast", number)
        values |= {f"cast/{number}/part/{n}": f"performer/{n}" for n in range(1, 21)}
    with tempfile.NamedTemporaryFile(suffix=".json") as file:
        file.write(write_show(with_company(with_scenes(show_of(desk, values)))))
        file.flush()
        show = server.manage("open_show", file.name, "--engineer", "monitors")
    with_cues_told(server, show)
    return show


def with_cues_told(server, show):
    """Cues that came, of each outcome, with words as long as they get; armed by somebody long."""
    with server.sql() as link:
        link.execute(
            "insert into server_cuedesk (show_id, mode, by, at, once_ms) values"
            " (%s, 'armed', %s, now(), 200)",
            [show, forty("Engineer", 1)],
        )
        for what in ("done", "rehearsed", "refused", "unknown", "dropped"):
            came = "" if what == "dropped" else f"/{'long_part/' * 12}go"
            link.execute(
                "insert into server_cuetold (show_id, at, way, sender, came, what, says, note,"
                " edit_id, revision, ms, times) values"
                " (%s, now(), 'osc_tcp', %s, %s, %s, %s, %s, %s, %s, 12.5, 999)",
                [show, "fe80:0000:0000:0000:0202:b3ff:fe1e:8329", came, what,
                 "Stand by for the word that comes behind the bell " * 5, what == "done",
                 uuid.uuid4() if what == "done" else None, 3 if what == "done" else None],
            )  # fmt: skip
