"""What hangs on an address: one table, by keys of the catalogue. An edit asks it of every move.

A key may have `*` for any run of letters; a pattern with `!` before it takes keys out again. A
pattern that fits no key is an error: a name that changes cannot leave its rule behind.
"""

from collections.abc import Iterable, Mapping
from fnmatch import fnmatchcase
from typing import Final, Literal

__all__ = ["BEARINGS", "Bearing", "bearings_of", "check_bearings"]

Bearing = Literal[
    "assisting", "blocks", "circles", "closes", "company", "crossover", "cue_list", "cues",
    "curves", "delays", "effects", "fills", "findings", "fitted_preamp", "fitting_on", "fittings",
    "gangs", "heads", "house",
    "inserts", "layers", "loops", "member", "muting", "named_only", "nets", "opens", "pairs",
    "person", "pins", "places", "plugs", "promised", "promises", "return_pairs", "routes", "run",
    "safe", "scenes", "settling", "shares", "solo", "solo_in_place", "switches_on", "taps",
]  # fmt: skip

_WHO: Final = tuple(
    f"channel/<channel>/{leaf}" for leaf in ("fitting", "part", "attached", "held_back", "fitted_s")
)
_FED: Final = tuple(f"channel/<channel>/{leaf}" for leaf in ("source", "spare", "on_spare"))
_LAYERS: Final = (
    *(f"channel/<channel>/{leaf}" for leaf in ("part", "fitting", "attached", "held_back")),
    *(f"channel/<channel>/{leaf}" for leaf in ("name_typed", "pinned", "pinned_name")),
    *(f"mix/<mix>/{leaf}" for leaf in ("name_typed", "pinned", "pinned_name")),
    "fitting/*", "!fitting/<fitting>/value/*", "fitting/<fitting>/value/preamp/*",
    "tonight/*", "part/*", "performer/*",
)  # fmt: skip
_PINS: Final = ("*/pinned*", "line/<line>/family")

BEARINGS: Final[Mapping[Bearing, tuple[str, ...]]] = {
    # who is on a channel: one matter for undo, a recall, a hand
    "person": _WHO,
    # what no plain move may touch: only actions that say whose it is
    "named_only": ("fitting/*", "!fitting/<fitting>/carries_*", *_WHO, "tonight/*"),
    # what lies over what, and what an edit settles for it
    "layers": _LAYERS,
    "fitting_on": ("channel/<channel>/fitting",),
    "fitted_preamp": ("fitting/<fitting>/value/preamp/*",),  # another may hold the socket by it
    "pins": _PINS,
    "settling": (
        *_LAYERS, *_PINS, "*/source", "*/family", "!fitting/<fitting>/value/*",
    ),
    # that a strip is a member of something
    "member": ("*/dca/<dca>/on", "*/mute_group/<mute_group>/on", "*/gang/<gang>/on",
               "*/promise/<promise>/on", "*/lift/<lift>/on", "!fitting/*"),
    # what who assists changes: what the line check finds, who came, notes
    "assisting": ("line/<line>/check", "line/<line>/check_note", "line/<line>/notes",
                  "scene/<scene>/notes", "performer/<performer>/arrived_s"),
    # what brings sources into a show, into the house, or under a rule that takes what comes
    "fills": ("channel/<channel>/source",),
    "house": (*_FED, "channel/<channel>/house/on", "*/group/<group>/on", "group/<group>/house/on",
              "group/<group>/format", "!return/*"),
    "nets": ("*/source", "*/spare", "*/on_spare", "*/kind", "*/family", "*/socket",
             "*/socket_right", "*/place", "*/format", "*/serves", "*/name", "*/takes"),
    # what gangs carry may end by it
    "gangs": ("gang/*", "*/gang/<gang>/on", "*/linked", *_FED),
    # the ways of signals
    "loops": (*_FED, "channel/<channel>/solo", "channel/<channel>/solo_proof"),
    "heads": ("*/source", "*/spare", "*/name", "*/format", "*/label", "*/mono/on", "*/level",
              "*/on", "!fitting/<fitting>/value/*",
              # what is sent of a source to buses is in the cells
              "!channel/<channel>/send/*", "!return/<return>/send/*"),
    # what promises watch, and what their words hang on too
    "promised": ("promise/*", "*/promise/<promise>/on", *_FED),
    "promises": ("promise/*", "*/promise/<promise>/on", "*/name", *_FED),
    # what a strip truly comes to
    "muting": ("*/fader", "*/mute", "*/on", "*/hard", "*/solo", "*/solo_proof", "!fitting/*"),
    "solo": ("*/solo", "*/solo_proof"),
    "solo_in_place": ("*/on", "*/level", "*/source", "*/spare", "*/on_spare", "!fitting/*"),
    # what closes a way by a switch
    "closes": ("*/mute", "*/house/on", "*/mono/on", "mute_group/<mute_group>/on",
               "mute_group/<mute_group>/hard"),
    # what a fade of a level switches with it
    "routes": ("*/send/mix/<mix>/on", "*/send/matrix/<matrix>/on", "*/group/<group>/on"),
    # what first opens a send has a start by it; where a place is kept without a gang too
    "opens": ("*/send/mix/<mix>/level", "*/send/mix/<mix>/on", "!fitting/*"),
    "places": ("*/send/mix/<mix>/level/kept", "mix/<mix>/fader/kept"),
    "plugs": ("line/<line>/socket", "line/<line>/socket_right", "line/<line>/place"),
    # whoever types it wants its processor on
    "switches_on": ("*/low_cut/frequency", "!fitting/*", "!preset/*"),
    "delays": ("*/delay/ms", "*/delay_ms"),
    "crossover": ("mono/crossover/*", "output/*"),
    "curves": ("input/*", "line/*"),
    # the run of a show
    "run": ("scene/*", "!scene/<scene>/holds/*", "!scene/<scene>/name", "!scene/<scene>/notes",
            "!scene/<scene>/seconds*", "run/*", "tonight/*"),
    # what cues from outside are called, and what they may not do
    "cue_list": ("cue/*", "scene/*", "cast/*", "part/*", "performer/*", "fitting/*", "lift/*",
                 "*/name", "*/source", "*/spare", "*/pinned*", "!fitting/<fitting>/value/*"),
    "cues": ("scene/*", "tonight/*", "*/pinned*"),
    "company": ("*/name", "part/*", "cast/*", "tonight/*", "performer/*", "fitting/*"),
    # beside whole aspects, which findings name themselves; whether any line was checked is of the
    # first steps
    "findings": ("*/tap", "line/<line>/check", "*/gate/on", "*/gate/key",
                 "*/compressor/on", "*/compressor/key",
                 "!fitting/*", "!preset/*"),
    # the rules of a desk
    "blocks": ("output/<box>/<output>/source",),
    "taps": ("output/<box>/<output>/source", "output/<box>/<output>/tap"),
    "effects": ("engine/<engine>/source", "return/<return>/source", "mix/<mix>/serves"),
    "return_pairs": ("return/<return>/source",),
    "circles": ("dca/<dca>/dca/<dca>/on", "group/<group>/group/<group>/on"),
    "safe": ("mute_group/<mute_group>/on", "mute_group/<mute_group>/safe"),
    "pairs": ("*/linked",),
    "inserts": ("*/insert_1/device", "*/insert_2/device"),
    # what takes places among those that share gain, or must have one side for it
    "shares": ("*/sharing/group", "*/format"),
    "scenes": ("scene/*",),
    "fittings": ("fitting/*", "!fitting/<fitting>/value/*", "performer/<performer>/name",
                 "channel/<channel>/fitting", "channel/<channel>/linked", "mix/<mix>/linked"),
}  # fmt: skip


def bearings_of(key: str) -> frozenset[Bearing]:
    """What hangs on the addresses of a key."""
    return frozenset(what for what, patterns in BEARINGS.items() if _fits(key, patterns))


def _fits(key: str, patterns: Iterable[str]) -> bool:
    """Whether the last pattern that matches takes a key in."""
    found = False
    for pattern in patterns:
        if fnmatchcase(key, pattern.removeprefix("!")):
            found = not pattern.startswith("!")
    return found


def check_bearings(keys: Iterable[str]) -> None:
    """ValueError for a pattern of the table that no key fits."""
    keys = tuple(keys)
    for what, patterns in BEARINGS.items():
        for pattern in patterns:
            if not any(fnmatchcase(key, pattern.removeprefix("!")) for key in keys):
                raise ValueError(f"{what}: no address of the catalogue fits {pattern}")
