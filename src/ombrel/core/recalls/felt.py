"""What a change does that no level tells: preamps, settings that only sound otherwise, who comes on

without anything kept. Whoever stands at the desk would notice it, so every preview says it.
"""

from collections.abc import Collection
from dataclasses import dataclass
from typing import Final

from ..casting import fitting_name, values_of
from ..catalogue import Address, of_kind, parameter_at, thing_of
from ..flow import strip_name
from ..show import Show
from ..words import Difference, differences

__all__ = ["NOTHING_FELT", "Felt", "felt", "felt_in_words", "moved_between"]

_SETTINGS: Final = ("low_cut", "gate", "eq", "compressor", "inserts", "delay", "effects", "sharing")
_MOST_NAMES: Final = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Felt:
    """`preamps`: gains, pads and 48 V that move at sockets; `settings`: how many of a strip, by its

    name, in the desk's order; `empty`: who comes on with nothing kept for them.
    """

    preamps: tuple[Difference, ...] = ()
    settings: tuple[tuple[str, int], ...] = ()
    empty: tuple[str, ...] = ()


NOTHING_FELT: Final = Felt()


def moved_between(show: Show, after: Show) -> list[str]:
    """The addresses at which two shows stand otherwise, ascending."""
    return sorted(
        address
        for address in {*show.values, *after.values}
        if show.values.get(address) != after.values.get(address)
    )


def felt(show: Show, after: Show, moved: Collection[str]) -> Felt:
    """What is noticed beside levels where these addresses move from one show to another."""
    preamps = [a for a in moved if of_kind(a) == "input" and Address.at(a).last != "kept"]
    count: dict[str, int] = {}
    for address in moved:
        if of_kind(address) != "input" and parameter_at(address).aspect in _SETTINGS:
            strip = "show" if of_kind(address) == "show" else thing_of(address)
            count[strip] = count.get(strip, 0) + 1
    empty = [
        fitting_name(after, one.fitting)
        for channel, one in after.layers.on.items()
        if (was := show.layers.on.get(channel)) is None or was.fitting != one.fitting
        if not show.number(f"{one.fitting}/newest") and not values_of(after, one.fitting)
    ]
    return Felt(
        preamps=tuple(differences(show, after, preamps)),
        settings=tuple(
            ("the tempo" if strip == "show" else strip_name(after, strip), number)
            for strip, number in count.items()
        ),
        empty=tuple(empty),
    )


def felt_in_words(found: Felt) -> list[str]:
    """All that, each matter in a few words."""
    said = [f"{one.whose} {one.what.lower()} {one.was} \u2192 {one.now}" for one in found.preamps]
    if len(said) > _MOST_NAMES:
        said = [*said[:_MOST_NAMES], f"{len(said) - _MOST_NAMES} more preamp values move"]
    settings = sum(number for _, number in found.settings)
    if settings:
        names = [name for name, _ in found.settings]
        more = f" and {len(names) - _MOST_NAMES} more" if len(names) > _MOST_NAMES else ""
        verb = "setting moves" if settings == 1 else "settings move"
        said.append(f"{settings} {verb} on {', '.join(names[:_MOST_NAMES])}{more}")
    if found.empty:
        said.append(f"nothing is kept yet for {', '.join(found.empty)}")
    return said
