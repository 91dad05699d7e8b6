"""Entries of the catalogue for fittings, parts, casts and the mic check.

A fitting's values stand at `fitting/<fitting>/value/<leaf>`, with the leaves of a channel: None
where it has none of its own. So a hand's move under a fitting is an address like any other.
"""

from collections.abc import Iterable
from dataclasses import replace
from typing import Final

from ..values import Choice, Maybe, Number, Packed, Reference, Switch, Text
from .desk import MICROPHONES
from .strip_parameters import Parameter
from .strip_parameters import entry as _p

__all__ = ["CARRIED", "CHECKS", "OF_CHANNELS_ON", "OF_FITTINGS", "USUAL", "values_of_fittings"]

# What a fitting can carry of a channel, and what it carries unless somebody chooses otherwise.
CARRIED: Final = {
    "preamp": "Preamp",
    "low_cut": "Low cut",
    "eq": "EQ",
    "gate": "Gate",
    "compressor": "Compressor",
    "trim": "Trim",
    "inserts": "Inserts",
    "delay": "Delay",
    "fader": "Fader",
    "mute": "Mute",
    "pan": "Pan",
    "sends": "Sends",
    "routing": "Assignments",
    "members": "Memberships",
}
USUAL: Final = ("preamp", "low_cut", "eq", "gate", "compressor")
# What the mic check knows of a fitting.
CHECKS: Final = ("waiting", "on", "done", "skipped")

_SECONDS = Number(unit="s", lowest=0.0, highest=1e11, step=0.001)
_PERFORMER: Final = Reference(to=("performer/<performer>",))
_PART: Final = Reference(to=("part/<part>",))
_STEM: Final = "channel/<channel>/"
_MICROPHONE = Number(unit="", lowest=1, highest=MICROPHONES, step=1, whole=True)
_ASPECTS: Final = (
    "low_cut", "eq", "gate", "compressor", "inserts", "delay", "fader", "mute", "pan", "sends",
    "routing", "dcas", "mute_groups",
)  # fmt: skip


def values_of_fittings(parameters: Iterable[Parameter]) -> tuple[Parameter, ...]:
    """What a fitting can have of what channels and preamps have. Never a tap or a key: they name

    other strips, and a fitting knows no channel.
    """
    found = []
    for one in parameters:
        leaf = one.key.removeprefix(_STEM)
        if one.key in ("input/<box>/<input>/gain", "input/<box>/<input>/pad"):
            leaf = f"preamp/{one.key.rpartition('/')[2]}"
        elif leaf == one.key or not _may_carry(one, leaf):
            continue
        key = f"fitting/<fitting>/value/{leaf}"
        says = f"In the fitting. {one.says}"
        found.append(
            replace(
                one, key=key, kind=Maybe(of=one.kind), default=None, aspect="fitted", says=says,
                gang="", tie="own",
            )
        )  # fmt: skip
    return tuple(found)


def _may_carry(parameter: Parameter, leaf: str) -> bool:
    if leaf.endswith(("/kept", "/tap", "/key_tap", "/key")):
        return False
    return parameter.aspect in _ASPECTS or leaf in ("trim", "polarity")


OF_CHANNELS_ON: Final[tuple[Parameter, ...]] = (
    _p(f"{_STEM}part", _PART, None, "part", "Part", "Which part is on the channel."),
    _p(
        f"{_STEM}fitting",
        Reference(to=("fitting/<fitting>",)),
        None,
        "fittings",
        "Fitting",
        "Whose settings lie over the channel's own.",
    ),
    _p(
        f"{_STEM}fitted_s",
        _SECONDS,
        0.0,
        "fittings",
        "Fitting since",
        "When it was put on, in seconds since 1970 (UTC).",
    ),
    _p(
        f"{_STEM}attached",
        Reference(to=("input/<box>/<input>",)),
        None,
        "fittings",
        "Preamp of the fitting",
        "The socket whose preamp the fitting sets: the source's when it was put on.",
    ),
    _p(
        f"{_STEM}held_back",
        Text(longest=6_000),
        "",
        "fittings",
        "Held back",
        "Cells of the fitting that a pin kept away.",
    ),
    _p(
        f"{_STEM}name_typed",
        Switch(),
        False,
        "fittings",
        "Name typed",
        "Its name does not follow who is on.",
    ),
    _p(
        "mix/<mix>/name_typed",
        Switch(),
        False,
        "fittings",
        "Name typed",
        "Its name does not follow who is on.",
    ),
)

OF_FITTINGS: Final[tuple[Parameter, ...]] = (
    _p("performer/<performer>/name", Text(), "", "cast", "Performer", "Who it is."),
    _p(
        "performer/<performer>/arrived_s",
        _SECONDS,
        0.0,
        "cast",
        "Arrived",
        "When they came tonight, in seconds since 1970 (UTC); 0: not yet.",
    ),
    _p("part/<part>/name", Text(), "", "cast", "Part", "What it is called."),
    _p(
        "part/<part>/place",
        Number(unit="", lowest=0, highest=9_999, step=1, whole=True),
        0.0,
        "cast",
        "Place",
        "Its place in the list; 0: there is no such part.",
    ),
    _p("part/<part>/mix", Reference(to=("mix/<mix>",)), None, "cast", "Mix", "What they hear."),
    _p(
        "part/<part>/microphone/<microphone>/channel",
        Reference(to=("channel/<channel>",)),
        None,
        "cast",
        "Channel",
        "Where this microphone of the part comes in.",
    ),
    _p(
        "part/<part>/microphone/<microphone>/name",
        Text(longest=30),
        "",
        "cast",
        "Microphone",
        "What it is called, where a part has several.",
    ),
    _p(
        "part/<part>/player/<player>/performer",
        _PERFORMER,
        None,
        "cast",
        "Plays it",
        "Who plays the part; understudies come last.",
    ),
    _p("cast/<cast>/name", Text(), "", "cast", "Cast", "What it is called."),
    _p(
        "cast/<cast>/part/<part>",
        _PERFORMER,
        None,
        "cast",
        "Plays",
        "Who plays the part in this cast; nobody: it is vacant.",
    ),
    _p("tonight/cast", Reference(to=("cast/<cast>",)), None, "cast", "Cast", "Chosen for tonight."),
    _p(
        "tonight/part/<part>",
        _PERFORMER,
        None,
        "cast",
        "Tonight",
        "Who plays the part tonight; nobody: it is vacant.",
    ),
    _p("fitting/<fitting>/performer", _PERFORMER, None, "fittings", "Whose", "Whose settings."),
    _p("fitting/<fitting>/part", _PART, None, "fittings", "For", "In which part."),
    _p(
        "fitting/<fitting>/microphone",
        _MICROPHONE,
        1.0,
        "fittings",
        "Microphone",
        "By which microphone of the part.",
    ),
    *(
        _p(
            f"fitting/<fitting>/carries_{aspect}",
            Switch(),
            aspect in USUAL,
            "fittings",
            label,
            "The fitting lies over this of a channel.",
        )
        for aspect, label in CARRIED.items()
    ),
    _p(
        "fitting/<fitting>/newest",
        Number(unit="", lowest=0, highest=99_999, step=1, whole=True),
        0.0,
        "fittings",
        "Newest version",
        "How many were kept; the last ten can be brought back.",
    ),
    _p(
        "fitting/<fitting>/version/<version>",
        Packed(of="fitting"),
        "",
        "fittings",
        "Version",
        "What was kept.",
    ),
    _p(
        "fitting/<fitting>/removed",
        Switch(),
        False,
        "fittings",
        "Removed",
        "Taken out of the show; what it holds is kept, and nobody else gets its place.",
    ),
    _p(
        "fitting/<fitting>/dropped_s",
        _SECONDS,
        0.0,
        "fittings",
        "Dropped",
        "When moves were last dropped, in seconds since 1970 (UTC).",
    ),
    _p(
        "fitting/<fitting>/check",
        Choice(options=CHECKS),
        "waiting",
        "mic_check",
        "Mic check",
        "How far the mic check is with it.",
    ),
    _p("fitting/<fitting>/checker", Text(), "", "mic_check", "Checked by", "Whose entry it is."),
)
