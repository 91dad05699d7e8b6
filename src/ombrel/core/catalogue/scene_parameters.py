"""Entries of the catalogue for scenes, what holds against them, and where the run stands."""

from typing import Final

from ..values import Number, Packed, Reference, Switch, Text
from .choices import FAMILIES
from .strip_kinds import SENT_TO
from .strip_parameters import Parameter
from .strip_parameters import entry as _p

__all__ = ["FADED", "HOLDERS", "OF_SCENES", "PINNED", "pins_of"]

# What can stand in a scene, by the patterns of its address: strips, and what goes with the music.
HOLDERS: Final = (
    "channel/<channel>",
    "return/<return>",
    "group/<group>",
    "mix/<mix>",
    "matrix/<matrix>",
    "house",
    "mono",
    "dca/<dca>",
    "mute_group/<mute_group>",
    "engine/<engine>",
    "sharing/<sharing>",
    "show",
)
# What of a strip a pin holds; by the aspects of `scenes.cells`.
PINNED: Final = {
    "fader": "Fader",
    "mute": "Mute",
    "pan": "Pan",
    "sends": "Sends",
    "routing": "Assignments",
    "members": "Memberships",
    "name": "Name",
    "trim": "Trim",
    "low_cut": "Low cut",
    "gate": "Gate",
    "eq": "EQ",
    "compressor": "Compressor",
    "inserts": "Inserts",
    "delay": "Delay",
    "effects": "Effect",
    "preamp": "Preamp",
    "source": "Source",
    "part": "Who is on",
    "sharing": "Shared gain",
}
# What may take a time of its own in a recall.
FADED: Final = {
    "faders": "Faders",
    "sends": "Sends",
    "pans": "Pans",
    "processing": "Processing",
}
_NUMBER = Number(unit="", lowest=0.0, highest=9_999.999, step=0.001)
_SECONDS = Number(unit="s", lowest=0.0, highest=120.0, step=0.1)
_OWN_SECONDS = Number(unit="s", lowest=-1.0, highest=120.0, step=0.1)
_SCENE: Final = Reference(to=("scene/<scene>",))
# the pins of each kind of strip: what it has
_SOUND: Final = ("eq", "compressor", "low_cut", "inserts", "delay", "fader", "mute", "members")
_PINS: Final = {
    "channel": (
        "name",
        "source",
        "preamp",
        "trim",
        *_SOUND,
        "gate",
        "pan",
        "sends",
        "routing",
        "part",
        "sharing",
    ),
    "return": ("name", "source", "trim", *_SOUND, "pan", "sends", "routing"),
    "group": ("name", *_SOUND, "pan", "sends", "routing", "sharing"),
    "mix": ("name", *_SOUND, "sends", "sharing"),
    "matrix": ("name", *_SOUND, "sharing"),
    "house": (*_SOUND, "sends"),
    "mono": (*_SOUND, "sends", "sharing"),
    "dca": ("name", "fader", "mute", "members"),
    "mute_group": ("name", "mute"),
    "engine": ("name", "effects"),
    "sharing": ("name", "sharing"),
}


def pins_of(kind: str) -> tuple[str, ...]:
    """The aspects of a kind of strip that a pin can hold."""
    return _PINS.get(kind, ())


def _pins(pattern: str) -> tuple[Parameter, ...]:
    kind = pattern.split("/")[0]
    says = "No recall moves it."
    found = [
        _p(f"{pattern}/pinned", Switch(), False, "pins", "Pinned", "No recall moves the strip.")
    ]
    found += [
        _p(f"{pattern}/pinned_{aspect}", Switch(), False, "pins", f"{PINNED[aspect]} pinned", says)
        for aspect in PINNED
        if aspect in _PINS[kind]
    ]
    if kind in SENT_TO:
        into = "No recall moves what it gets: the sends into it, its fader and mute."
        found.append(_p(f"{pattern}/pinned_whole", Switch(), False, "pins", "Mix pinned", into))
    return tuple(found)


OF_SCENES: Final[tuple[Parameter, ...]] = (
    _p(
        "scene/<scene>/number",
        _NUMBER,
        0.0,
        "scenes",
        "Number",
        "Its place in the order; 0: there is no such scene.",
    ),
    _p("scene/<scene>/name", Text(), "", "scenes", "Scene", "Name of the scene."),
    _p("scene/<scene>/notes", Text(longest=400), "", "scenes", "Notes", "What happens in it."),
    _p(
        "scene/<scene>/removed",
        Switch(),
        False,
        "scenes",
        "Removed",
        "Taken out of the order; what it holds is kept.",
    ),
    _p(
        "scene/<scene>/skipped",
        Switch(),
        False,
        "scenes",
        "Skipped",
        "Go skips it; its number still recalls it.",
    ),
    _p(
        "scene/<scene>/cast/<cast>",
        Switch(),
        False,
        "scenes",
        "With this cast",
        "Go skips it with other casts, if any is named.",
    ),
    _p(
        "scene/<scene>/performer/<performer>",
        Switch(),
        False,
        "scenes",
        "With this performer",
        "Go skips it unless one of those named plays tonight.",
    ),
    _p("scene/<scene>/seconds", _SECONDS, 0.0, "scenes", "Takes", "How long its recall takes."),
    *(
        _p(
            f"scene/<scene>/seconds_{aspect}",
            _OWN_SECONDS,
            -1.0,
            "scenes",
            f"{label} take",
            "A time of their own; -1: as the scene.",
        )
        for aspect, label in FADED.items()
    ),
    *(
        _p(
            f"scene/<scene>/holds/{pattern}",
            Packed(of=pattern),
            "",
            "scenes",
            "Held",
            "What the scene holds of it, cell by cell.",
        )
        for pattern in HOLDERS
    ),
    *(one for pattern in HOLDERS if pattern != "show" for one in _pins(pattern)),
    *(
        _p(
            f"show/pinned_{family}",
            Switch(),
            False,
            "pins",
            f"{family.capitalize()} pinned",
            "No recall moves channels whose lines are of this family now.",
        )
        for family in FAMILIES
    ),
    _p("run/now", _SCENE, None, "run", "Now", "The scene that was recalled last."),
    _p("run/next", _SCENE, None, "run", "Next", "The scene that go recalls."),
    _p("run/chosen", Switch(), False, "run", "Next chosen", "Somebody chose the one that is next."),
    _p("run/gone", Switch(), False, "run", "Gone to", "The scene now was next as it was recalled."),
    _p(
        "run/since",
        Number(unit="s", lowest=0.0, highest=1e11, step=0.001),
        0.0,
        "run",
        "Since",
        "When the scene now was recalled, in seconds since 1970 (UTC).",
    ),
)
