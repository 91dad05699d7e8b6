"""The evening of the demo: 24 scenes in three acts, made by the same core functions as a screen's.

Each says who is open, and how far some stand from where they stand at first. One hides a mistake
for a visitor to find: scene 17 takes the click to the house.
"""

from collections.abc import Mapping
from typing import Final, NamedTuple

from ombrel.core import Asked, Show, cells_by_preset, made, of_kind, store_scene

from .company import parts_of_scenes

__all__ = ["scenes_of"]


class _Scene(NamedTuple):
    number: str
    name: str
    opens: str  # who is open, by groups of `_WHO`, " "; the rest is muted
    by_db: Mapping[str, float] = {}
    seconds: float = 0.0
    notes: str = ""


_WHO: Final = {
    "host": ("Ring host",),
    "a": ("Teller, part A",),
    "b": ("Teller, part B",),
    "aerialist": ("Aerialist",),
    "keeper": ("Lighthouse keeper",),
    "master": ("Harbour master",),
    "gulls": ("Choir of gulls",),
    "drums": ("Kick", "Snare", "Cajón", "Frame drum 1", "Frame drum 2", "Tin and chain",
              "Overheads L", "Overheads R"),
    "frames": ("Frame drum 1", "Frame drum 2"),
    "bass": ("Double bass DI", "Double bass mic"),
    "strings": ("Fiddle", "Kora", "Accordion L", "Accordion R"),
    "fiddle": ("Fiddle",),
    "brass": ("Trumpet", "Trombone"),
    "foley": ("Foley table near", "Foley table far", "Foley floor", "Rope creak"),
    "bell": ("Ship's bell",),
    "playback": ("Playback L", "Playback R"),
    "sung": ("Fiddle voice", "Bass voice", "Drum voice"),
}  # fmt: skip
_BAND: Final = "drums bass strings brass"

_EVENING: Final = (
    _Scene("1", "Doors", "playback", {"Playback L": -8.0, "Playback R": -8.0}, 0.0,
           "Music from tape; the ring is empty."),
    _Scene("2", "The host comes on", "host playback", {"Playback L": -16.0, "Playback R": -16.0},
           4.0, "The music goes down while he walks."),
    _Scene("3", "Salt Road theme", f"host sung {_BAND}", {}, 2.0, "Band in on his last word."),
    _Scene("4", "Two tellers", "a b strings bass", {"Fiddle": -4.0}, 3.0),
    _Scene("5", "The harbour wakes", "master foley bell fiddle", {"Foley table near": 3.0}, 1.0,
           "Bell on the fourth rope."),
    _Scene("6", "Gulls", "gulls foley brass", {"Choir of gulls": 2.0}),
    _Scene("7", "Up the mast", f"aerialist {_BAND}", {"Kick": 2.0, "Trumpet": -3.0}, 2.0,
           "She speaks from the rope: watch her gain."),
    _Scene("8", "Curtain of rain", "playback frames", {"Playback L": 3.0, "Playback R": 3.0}, 6.0,
           "End of the first act."),
    _Scene("9", "Interval", "playback", {"Playback L": -10.0, "Playback R": -10.0}, 8.0),
    _Scene("10", "Lamp room", "keeper fiddle bass", {"Lighthouse keeper": 2.0}, 3.0,
           "Second act. He whispers."),
    _Scene("11", "Letters", "a keeper strings", {"Kora": -5.0}, 2.0),
    _Scene("12", "Storm glass", f"keeper foley {_BAND}", {"Frame drum 1": 3.0}, 1.0),
    _Scene("13", "The wreck", f"master gulls foley bell {_BAND}", {"Ship's bell": 4.0}, 0.0,
           "On the crash: no fade."),
    _Scene("14", "Silence after", "a", {"Teller, part A": -2.0}, 5.0),
    _Scene("15", "Lament", "sung strings bass", {"Fiddle voice": 5.0, "Fiddle": -3.0}, 4.0),
    _Scene("16", "Roll of names", "a b host frames", {"Frame drum 2": 2.0}, 2.0),
    _Scene("17", "Rope dance", f"aerialist sung {_BAND}", {"Snare": 2.0}, 0.0,
           "Click from bar one."),
    _Scene("18", "Second interval", "playback", {"Playback L": -10.0, "Playback R": -10.0}, 8.0,
           "End of the second act."),
    _Scene("19", "Market day", f"a b master foley {_BAND}", {"Accordion L": 2.0,
           "Accordion R": 2.0}, 2.0),
    _Scene("20", "Bargain", "b master bass frames", {"Harbour master": 2.0}, 1.0),
    _Scene("20.5", "Bargain, spare ending", "b fiddle", {"Teller, part B": 1.0}, 1.0,
           "Only if the rope is wet: by its number."),
    _Scene("21", "Homecoming", f"host a b keeper sung {_BAND}", {"Trombone": 2.0}, 3.0),
    _Scene("22", "All hands", f"host a b aerialist keeper master gulls sung {_BAND}",
           {"Kick": 2.0, "Choir of gulls": -2.0}, 0.0),
    _Scene("23", "Bows", f"host playback {_BAND}", {"Playback L": -6.0, "Playback R": -6.0}, 2.0),
)  # fmt: skip
_MISTAKEN: Final = "17"


def scenes_of(show: Show) -> Mapping[str, Asked]:
    """Values of all scenes, as stored from a show that stands as `show` does; it stays as it is."""
    channels = {show.text(f"channel/{n}/name"): f"channel/{n}" for n in show.channels()}
    known = {name for names in _WHO.values() for name in names}
    ruled = {name: channels[name] for name in channels if name in known}
    cells = {
        strip: [cell for cell in held if cell in ("mute", "fader", "pan")]
        for strip, held in cells_by_preset(show, "balance").items()
        if strip in ruled.values() or of_kind(strip) == "return"
    }
    stored = show
    for scene in _EVENING:
        opened = {name for who in scene.opens.split() for name in _WHO[who]}
        moves: dict[str, Asked] = {
            f"{strip}/mute": name not in opened for name, strip in ruled.items()
        }
        moves |= {
            f"{ruled[name]}/fader": round(show.number(f"{ruled[name]}/fader") + by_db, 1)
            for name, by_db in scene.by_db.items()
        }
        then, carried = made(show.with_values({}), moves)[0], dict(cells)
        on = parts_of_scenes(show, scene.number)
        then = then.with_values({f"{channel}/part": part for channel, part in on.items()})
        carried |= {channel: [*cells[channel], "part"] for channel in on}
        if scene.number == _MISTAKEN:
            then = made(then, {f"{channels['Click']}/house/on": True})[0]
            carried[channels["Click"]] = ["house"]
        held = store_scene(
            then.with_values({a: v for a, v in stored.own.items() if of_kind(a) == "scene"}),
            scene.name, carried, number=scene.number,
        )  # fmt: skip
        stored = made(stored, held)[0]
        made_of = stored.scenes[-1]
        terms: dict[str, Asked] = {
            f"{made_of}/seconds": scene.seconds,
            f"{made_of}/notes": scene.notes,
        }
        if "." in scene.number:
            terms[f"{made_of}/skipped"] = True
        stored = made(stored, terms)[0]
    first = stored.scenes[0]
    found: dict[str, Asked] = {
        address: value for address, value in stored.own.items() if of_kind(address) == "scene"
    }
    return {**found, "run/next": first, f"{channels['Click']}/pinned_fader": True}
