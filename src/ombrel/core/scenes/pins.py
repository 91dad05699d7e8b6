"""Pins: what no recall may move. They stand at a strip's aspect, a strip, a mix, a family."""

from collections.abc import Callable
from functools import lru_cache
from typing import Final

from ..catalogue import (
    FAMILIES,
    HOLDERS,
    PAIRED,
    PINNED,
    SENT_TO,
    Address,
    Desk,
    Thing,
    aspect_of,
    cells_of,
    of_kind,
    pins_of,
    strips_of,
    target_of_cell,
)
from ..flow import strip_name
from ..show import Show, strips_of_family

PINNED_KINDS: Final = tuple(kind for kind in map(of_kind, HOLDERS) if pins_of(kind))

_PINNED: Final = "pinned_"

__all__ = ["pin_for", "pin_name", "pin_of_cell", "pin_of_preamp", "pins_in"]


def pin_of_cell(show: Show) -> Callable[[str, str], str | None]:
    """A function that tells which pin holds a cell of a strip: the pin's address, or None.

    What is linked as a pair is held as one: a recall cannot move one side alone.
    """
    values = show.values
    of_family: dict[str, str] = {}
    for family in FAMILIES:
        if f"show/pinned_{family}" in values:
            of_family |= {
                strip: f"show/pinned_{family}" for strip in strips_of_family(show, family)
            }
    if not of_family and not any(pins_in(show)):
        return lambda holder, cell: None

    def of_one(holder: str, cell: str) -> str | None:
        aspect = aspect_of(cell)
        if f"{holder}/pinned" in values:
            return f"{holder}/pinned"
        if f"{holder}/pinned_{aspect}" in values:
            return f"{holder}/pinned_{aspect}"
        if aspect in ("fader", "mute") and f"{holder}/pinned_whole" in values:
            return f"{holder}/pinned_whole"
        if aspect == "sends" and f"{target_of_cell(cell)}/pinned_whole" in values:
            return f"{target_of_cell(cell)}/pinned_whole"
        return of_family.get(holder)

    def pinned(holder: str, cell: str) -> str | None:
        found = of_one(holder, cell)
        if found is None and (mate := _mate(show, holder)):
            found = of_one(mate, cell)
        return found

    return pinned


def pin_of_preamp(show: Show) -> Callable[[str], str | None]:
    """A function that tells which pin holds the preamp of a socket: that of any channel whose

    source it is, by whatever other channel it is reached; None: none does.
    """
    pinned = pin_of_cell(show)
    held: dict[str, str] = {}
    for number in show.channels():
        channel = f"channel/{number}"
        source = show[f"{channel}/source"]
        if isinstance(source, str) and (pin := pinned(channel, "preamp")):
            held.setdefault(source, pin)
    return held.get


def _mate(show: Show, holder: str) -> str | None:
    """The other one of a linked pair."""
    at = Thing.at(holder)
    if at.kind not in PAIRED:
        return None
    odd = (at.number - 1) // 2 * 2 + 1
    if not show.on(f"{at.kind}/{odd}/linked"):
        return None
    return f"{at.kind}/{odd if at.number != odd else odd + 1}"


def pins_in(show: Show) -> list[str]:
    """The addresses of all pins that are set, in their order."""
    return sorted(address for address in _pin_addresses(show.desk) if address in show.values)


@lru_cache(maxsize=16)
def _pin_addresses(desk: Desk) -> tuple[str, ...]:
    found = [f"show/pinned_{family}" for family in FAMILIES]
    for kind in PINNED_KINDS:
        strips = strips_of(desk, kind)
        leaves = ["pinned", *(f"pinned_{aspect}" for aspect in pins_of(kind))]
        leaves += ["pinned_whole"] if kind in SENT_TO else []
        found += [f"{strip}/{leaf}" for strip in strips for leaf in leaves]
    return tuple(found)


def pin_for(show: Show, address: str) -> str:
    """The pin that would hold a value against recalls; "" for what none can."""
    at = Address.at(address)
    kind, holder = at.kind, at.thing
    if kind == "show" or kind not in PINNED_KINDS:
        return ""
    leaf = at.leaf
    for cell, leaves in cells_of(show.desk, kind).items():
        if leaf in leaves:
            return f"{holder}/pinned_{aspect_of(cell)}"
    return ""


def pin_name(show: Show, pin: str) -> str:
    """What a pin holds, in words: "Voice 2, EQ", "all drums"."""
    holder, leaf = Address.at(pin).thing, Address.at(pin).leaf
    if holder == "show":
        return f"all {leaf.removeprefix(_PINNED)}"
    if leaf == "pinned":
        return strip_name(show, holder)
    if leaf == "pinned_whole":
        return f"{strip_name(show, holder)} with its sends"
    return f"{strip_name(show, holder)}, {PINNED[leaf.removeprefix(_PINNED)]}"
