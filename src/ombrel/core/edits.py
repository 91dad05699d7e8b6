"""The only ways in which a show changes.

An edit asks for values at addresses: a value, a typed text ("+2"), or a place of a fader's travel.
It is checked whole and made whole, and yields a Change: address, old value, new value. The inverse
of a Change is a Change; undo, redo and live screens live on that alone.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from immutables import Map

from .addresses import check_on_desk, parameter_at
from .desk_rules import check_desk_rules
from .errors import ConsoleError, EditRefused, WrongValue
from .kinds import Number, Value
from .show import Show

__all__ = ["Asked", "Change", "Travel", "Typed", "joined", "made", "undoing"]


@dataclass(frozen=True, slots=True)
class Typed:
    """A value as a person typed it, read by the kind of its address; may be relative."""

    text: str


@dataclass(frozen=True, slots=True)
class Travel:
    """A place of a control's travel, 0.0 to 1.0."""

    fraction: float


Asked = Value | Typed | Travel


@dataclass(frozen=True, slots=True)
class Change:
    """What an edit did: for each address that it moved, the old and the new value, never equal."""

    old: "Map[str, Value]"
    new: "Map[str, Value]"

    def inverse(self) -> "Change":
        """The change that takes this one back."""
        return Change(self.new, self.old)

    def __bool__(self) -> bool:
        return len(self.new) > 0


def _answered(show: Show, address: str, asked: Asked) -> Value:
    parameter = parameter_at(address)
    if isinstance(asked, Typed):
        asked = parameter.kind.typed(asked.text, show[address], address)
    elif isinstance(asked, Travel):
        if not isinstance(parameter.kind, Number):
            raise WrongValue(address, "a value, since it has no travel", asked.fraction)
        asked = parameter.kind.at_travel(asked.fraction, address)
    return check_on_desk(show.desk, address, asked)


def made(show: Show, moves: Mapping[str, Asked]) -> tuple[Show, Change]:
    """The show after an edit, and what the edit changed.

    Raises EditRefused with every fault (UnknownAddress, WrongValue, OutOfRange, UnreadableText),
    each naming its address, or OnlyInBlocks; nothing is changed then.
    """
    faults: list[ConsoleError] = []
    new: dict[str, Value] = {}
    for address, asked in moves.items():
        try:
            value = _answered(show, address, asked)
            if value != show[address]:
                new[address] = value
        except ConsoleError as fault:
            faults.append(fault)
    if faults:
        raise EditRefused(faults)
    old = {address: show[address] for address in new}
    after = show.with_values(new)
    check_desk_rules(after, new)
    return after, Change(Map(old), Map(new))


def joined(changes: list[Change]) -> Change:
    """Several changes, in the order in which they were made, as one. Empty list: no change."""
    old: dict[str, Value] = {}
    new: dict[str, Value] = {}
    for change in changes:
        for address, value in change.new.items():
            old.setdefault(address, change.old[address])
            new[address] = value
    moved = [address for address in new if old[address] != new[address]]
    return Change(Map({a: old[a] for a in moved}), Map({a: new[a] for a in moved}))


def undoing(show: Show, change: Change) -> tuple[dict[str, Asked], tuple[str, ...]]:
    """The moves that take `change` back in today's show, and the addresses left alone.

    An address that somebody moved since stands as they put it: undo never undoes another person.
    """
    moves: dict[str, Asked] = {}
    left: list[str] = []
    for address, value in change.new.items():
        if show[address] == value:
            moves[address] = change.old[address]
        else:
            left.append(address)
    return moves, tuple(sorted(left))
