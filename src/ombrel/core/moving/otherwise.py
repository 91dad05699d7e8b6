"""One value as another desk has it: its address, what it names, and how far it goes there."""

from collections.abc import Callable, Mapping
from typing import Final

from ..catalogue import (
    COUNTED,
    Address,
    Box,
    Desk,
    Thing,
    check_on_desk,
    is_on_desk,
    kind_on,
    of_kind,
)
from ..edit import Said, said_otherwise, value_otherwise
from ..values import ConsoleError, Number, UnknownAddress, UnreadableText, Value

__all__ = ["carried", "checked_boxes", "default_boxes", "said_there"]

_BOUND = (*COUNTED, "bay")  # a profile says how many there are


def default_boxes(origin: Desk, desk: Desk) -> dict[str, str]:
    """The box of another desk that stands for each of one's own, where one does: the one of the

    same key, else of the same name, else the next with preamps, or without, as it has them.
    """
    free = {box.key: box for box in desk.boxes}
    found: dict[str, str] = {}
    for alike in _ALIKE:
        for box in origin.boxes:
            other = next((one for one in free.values() if alike(box, one)), None)
            if box.key not in found and other is not None:
                found[box.key] = other.key
                del free[other.key]
    return found


_ALIKE: Final[tuple[Callable[[Box, Box], bool], ...]] = (
    lambda one, other: one.key == other.key,
    lambda one, other: one.short.casefold() == other.short.casefold(),
    lambda one, other: one.preamps == other.preamps,
)


def checked_boxes(origin: Desk, desk: Desk, boxes: Mapping[str, str]) -> dict[str, str]:
    """What stands for which box ("": nothing), checked. Raises UnreadableText for a box that there

    is not, and where two would stand on one.
    """
    found = {key: to for key, to in boxes.items() if to}
    for key, to in found.items():
        if origin.box(key) is None:
            raise UnreadableText(key, f"a box of {origin.name}")
        if desk.box(to) is None:
            raise UnreadableText(to, f"a box of {desk.name}")
    if len(set(found.values())) < len(found):
        raise UnreadableText(", ".join(sorted(found.values())), "each box once: two cannot be one")
    return found


def said_there(origin: Desk, desk: Desk, boxes: Mapping[str, str]) -> Said:
    """What names of strips and sockets become on another desk; None for what it has not."""
    beyond: dict[str, str | None] = {
        f"{kind}/{number}": None
        for kind in _BOUND
        for number in range(desk.count(kind) + 1, origin.count(kind) + 1)
    }
    strips = said_otherwise(beyond)

    def said(text: str) -> str | None:
        return _socket(text, desk, boxes) if of_kind(text) in ("input", "output") else strips(text)

    return said


def _socket(text: str, desk: Desk, boxes: Mapping[str, str]) -> str | None:
    """A socket, or an address of one, on the box that stands for its own."""
    try:
        at, leaf = Thing.at(text), ""
    except UnknownAddress:
        whole = Address.at(text)
        at, leaf = Thing.at(whole.thing), f"/{whole.leaf}"
    box = desk.box(boxes.get(at.box, ""))
    if box is None or at.number > (box.inputs if at.kind == "input" else box.outputs):
        return None
    return f"{at.kind}/{box.key}/{at.number}{leaf}"


def carried(desk: Desk, address: str, value: Value, said: Said) -> tuple[str, Value] | None:
    """An address and its value as another desk has them, a number held to the ends that it has

    there; None where there is no such address, or no such value.
    """
    there = said(address)
    if there is None or not is_on_desk(desk, there):
        return None
    stands = value_otherwise(address, value, said)
    kind = kind_on(desk, there)
    if isinstance(kind, Number) and isinstance(stands, float):
        stands = kind.nearest(stands)
    try:
        return there, check_on_desk(desk, there, stands)
    except ConsoleError:
        return None
