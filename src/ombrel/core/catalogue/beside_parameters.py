"""Entries of the catalogue beside those of strips: gangs, presets, promises, lifts."""

from typing import Final

from ..values import Choice, Number, Reference, Switch, Text
from .choices import FAMILIES, PROMISE_KINDS
from .processing_parameters import preset_of
from .strip_parameters import Parameter, gang_carries, named, takes_of
from .strip_parameters import entry as _p

__all__ = ["BESIDE_STRIPS"]

BESIDE_STRIPS: Final[tuple[Parameter, ...]] = (
    # what moves strips together
    *named("gang/<gang>", "gang"),
    _p(
        "gang/<gang>/suspended",
        Switch(),
        False,
        "gangs",
        "Resting",
        "It carries nothing for a while, and forgets nothing.",
    ),
    *gang_carries(),
    # processing kept by a name
    _p("preset/<preset>/name", Text(), "", "presets", "Preset", "Name of the preset."),
    _p(
        "preset/<preset>/family",
        Choice(options=FAMILIES),
        "unsorted",
        "presets",
        "Family",
        "What it was kept from, and suits.",
    ),
    *(
        _p(f"preset/<preset>/has_{one}", Switch(), False, "presets", f"Has {word}", "It holds it.")
        for one, word in (
            ("low_cut", "a low cut"),
            ("gate", "a gate"),
            ("eq", "EQ"),
            ("compressor", "a compressor"),
        )
    ),
    *preset_of("preset/<preset>"),
    # what must hold of who reaches whom
    _p("promise/<promise>/name", Text(), "", "promises", "Name", "What it is about."),
    takes_of("promise/<promise>"),
    _p(
        "promise/<promise>/kind",
        Choice(options=PROMISE_KINDS),
        "never",
        "promises",
        "Kind",
        "Its sources never reach where it looks, only through a group, or alone do not.",
    ),
    _p(
        "promise/<promise>/through",
        Reference(to=("group/<group>",)),
        None,
        "promises",
        "Through",
        "The group that they go through.",
    ),
    _p(
        "promise/<promise>/wet",
        Switch(),
        True,
        "promises",
        "Effects count",
        "What arrives through an effect counts too.",
    ),
    # who leads of a backing group
    _p("lift/<lift>/name", Text(), "", "lifts", "Name", "Whose lift it is."),
    _p(
        "lift/<lift>/backing",
        Reference(to=("group/<group>",)),
        None,
        "lifts",
        "Backing group",
        "What goes into it can be lifted.",
    ),
    _p(
        "lift/<lift>/lead",
        Reference(to=("group/<group>",)),
        None,
        "lifts",
        "Lead group",
        "Who is lifted goes into it as well.",
    ),
    _p(
        "lift/<lift>/seconds",
        Number(unit="s", lowest=0.0, highest=20.0, step=0.1),
        0.5,
        "lifts",
        "Takes",
        "How long a lift takes, and a return.",
    ),
    _p(
        "lift/<lift>/alone",
        Switch(),
        True,
        "lifts",
        "One at a time",
        "Who is lifted takes the place of whoever was.",
    ),
)
