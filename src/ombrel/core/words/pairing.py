"""Two strips that become one pair: what of either changes by it, told as of a pair."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

from ..catalogue import FORMATTED, Address, of_kind
from ..flow import strip_name
from ..show import Change, Show
from ..together import in_pairs
from ..values import in_sentence
from .compare import Difference, differences

__all__ = ["Paired", "paired"]

_MOST_SAYS: Final = 10  # of a pair; beyond, how many more
_KINDS: Final[Mapping[str, str]] = {
    "mix": "mixes",
    "group": "groups",
    "matrix": "matrices",
    "dca": "DCAs",
    "mute_group": "mute groups",
    "gang": "gangs",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Paired:
    """A pair that an edit links. `says`: what changes of its sides, alike feeds told together."""

    odd: str
    name: str
    says: tuple[str, ...]


def paired(before: Show, change: Change, after: Show) -> Iterator[tuple[Paired, frozenset[str]]]:
    """Each pair that a change links, ascending, with the addresses that are told with it.

    What goes to a mix or a group that nobody uses is said of none.
    """
    odds = sorted(
        (
            Address.at(address).thing
            for address, value in change.new.items()
            if value is True and Address.at(address).last == "linked"
        ),
        key=lambda odd: (of_kind(odd), Address.at(f"{odd}/linked").number),
    )
    sides = {side: odd for odd in odds for side in in_pairs(odd) or ()}
    held: dict[str, list[str]] = {odd: [] for odd in odds}
    for address in change.new:
        odd = sides.get(Address.at(address).thing)
        if odd is not None:
            held[odd].append(address)
    for odd, addresses in held.items():
        told = [one for one in addresses if _matters(after, one)]
        yield _told(before, after, odd, told), frozenset(addresses)


def _matters(show: Show, address: str) -> bool:
    at = Address.at(address)
    if at.last in ("linked", "kept"):
        return False
    return of_kind(at.target) not in FORMATTED or show.uses(at.target) if at.target else True


def _told(before: Show, after: Show, odd: str, addresses: list[str]) -> Paired:
    left, right = (strip_name(after, side) for side in in_pairs(odd) or (odd, odd))
    by_leaf: dict[str, list[Difference]] = {}
    for one in differences(before, after, addresses):
        by_leaf.setdefault(Address.at(one.address).leaf, []).append(one)
    # feeds of one kind that change alike are told once
    alike: dict[tuple[str, str, str], list[str]] = {}
    for found in by_leaf.values():
        at = Address.at(found[0].address)
        how = ", ".join(
            f"{left if one.strip == odd else right} {one.was} \u2192 {one.now}" for one in found
        )
        kind = of_kind(at.target) if at.target else ""
        alike.setdefault((in_sentence(found[0].what), how, kind), []).append(at.target)
    says = [
        f"{what}{_to(after, kind, targets)}: {how}" for (what, how, kind), targets in alike.items()
    ]
    more = len(says) - _MOST_SAYS
    if more > 0:
        says = [*says[:_MOST_SAYS], f"and {more} more"]
    return Paired(odd=odd, name=f"{left} and {right}", says=tuple(says))


def _to(show: Show, kind: str, targets: list[str]) -> str:
    if not kind:
        return ""
    if len(targets) == 1:
        return f" to {strip_name(show, targets[0])}"
    return f" to {len(targets)} {_KINDS.get(kind, kind)}"
