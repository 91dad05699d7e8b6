"""The only ways in which a show changes.

An edit asks for values at addresses: a value, a typed text ("+2"), or a place of a fader's travel.
It is checked whole and made whole, and yields a Change: address, old value, new value. The inverse
of a Change is a Change; undo, redo and live screens live on that alone. All that makes a show valid
is asked for here: values, what the desk can do, and that nothing feeds back.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from immutables import Map
from numpy.typing import NDArray

from .addresses import check_on_desk, kind_on
from .asked import Asked, Travel, Typed
from .changes import Change
from .desk import Desk
from .desk_rules import check_desk_rules, is_held
from .errors import ConsoleError, EditRefused, WrongValue
from .flow import Flow, feeds_back, flow_of
from .kinds import Number, Value
from .show import Show, blank_show

__all__ = ["Edited", "check_edit", "edited", "made", "show_of", "undoing"]


@dataclass(frozen=True, slots=True, eq=False)
class Edited:
    """A show after an edit: what the edit changed, the flow that follows, and the cells that

    differ, (row, column) each, shape (n, 2).
    """

    show: Show
    change: Change
    flow: Flow
    cells: NDArray[np.intp]


def _answered(show: Show, address: str, asked: Asked) -> Value:
    if isinstance(asked, Typed):
        asked = kind_on(show.desk, address).typed(asked.text, show[address], address)
    elif isinstance(asked, Travel):
        kind = kind_on(show.desk, address)
        if not isinstance(kind, Number):
            raise WrongValue(address, "a value, since it has no travel", asked.fraction)
        asked = kind.at_travel(asked.fraction, address)
    return check_on_desk(show.desk, address, asked)


def _changed(show: Show, moves: Mapping[str, Asked]) -> tuple[Show, Change]:
    """The show after an edit as far as values and the desk's rules tell."""
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


def made(show: Show, moves: Mapping[str, Asked]) -> tuple[Show, Change]:
    """The show after an edit, and what the edit changed.

    Raises EditRefused with every fault (UnknownAddress, WrongValue, OutOfRange, UnreadableText),
    each naming its address; what `check_desk_rules` refuses; or FeedbackLoop. Nothing is changed
    then.
    """
    after, change = _changed(show, moves)
    if feeds_back(after):
        flow_of(after)
    return after, change


def edited(show: Show, flow: Flow, moves: Mapping[str, Asked]) -> Edited:
    """As `made`, where the show's flow is at hand: it is followed. Raises what `made` raises."""
    after, change = _changed(show, moves)
    following, cells = flow.after(change)
    return Edited(after, change, following, cells)


def check_edit(show: Show, flow: Flow, moves: Mapping[str, Asked]) -> None:
    """Raise what `edited` would raise, without working out what would then be heard."""
    flow.check(_changed(show, moves)[1])


def show_of(desk: Desk, values: Mapping[str, Value]) -> Show:
    """A show from all its values, checked as an edit is. Raises what `made` raises."""
    return made(blank_show(desk), values)[0]


def undoing(show: Show, change: Change) -> tuple[dict[str, Asked], tuple[str, ...]]:
    """The moves that take `change` back in today's show, and the addresses left alone.

    An address that somebody moved since stands as they put it: undo never undoes another person.
    So does the key of a mute group that is safe.
    """
    moves: dict[str, Asked] = {}
    left: list[str] = []
    for address, value in change.new.items():
        if show[address] == value and not (
            is_held(show, address) and f"{address.removesuffix('on')}safe" not in change.new
        ):
            moves[address] = change.old[address]
        else:
            left.append(address)
    return moves, tuple(sorted(left))
