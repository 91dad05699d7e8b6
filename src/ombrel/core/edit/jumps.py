"""What a typed value does to the others of a gang: far enough, it is shown before it is made."""

import math
from collections.abc import Mapping
from typing import Final

from ..catalogue import Address, kind_on, of_kind, thing_of
from ..flow import Flow, State, listener_name, listeners, source_name, sources, strip_name
from ..show import Show
from ..together import strips_behind
from ..values import Asked, GangJumps, Number, RemedyMoves, Value
from .edits import Edited, Expanded

__all__ = ["FAR_DB", "check_jumps", "check_remedy"]

FAR_DB: Final = 6.0  # twice as loud, nearly: what an audience turns its head for


def check_jumps(show: Show, moves: Mapping[str, Asked], after: Expanded) -> None:
    """Raise GangJumps if an edit of a hand that does not stay moves another strip of its gangs by

    more than FAR_DB, or to or from off. `show`: where it sounds before.
    """
    carried = {a: after.show[a] for a in after.carried.values if Address.at(a).last != "kept"}
    steps = [(a, _step_db(show, a, value)) for a, value in carried.items()]
    far = [(a, db) for a, db in steps if db is not None and abs(db) > FAR_DB + 1e-6]
    if not far:
        return
    far.sort(key=lambda one: -abs(one[1]))
    others = [(_name(show, address), db) for address, db in far]
    named = next(iter(moves))
    gangs = ", ".join(strip_name(show, gang) for gang in after.carried.gangs(show)) or "taken along"
    typed: dict[str, Asked] = {address: after.show[address] for address in moves}
    raise GangJumps(typed, others, _name(show, named), gangs)


def check_remedy(show: Show, flow: Flow, moves: Mapping[str, Asked], after: Edited) -> None:
    """Raise RemedyMoves if a remedy moves what listeners in use hear already by more than FAR_DB:

    what it opens it says, that it does not.
    """
    layout = flow.layout
    columns = {layout.column(one) for one in listeners(show)}
    rows = {layout.row(one) for one in sources(show)}
    found = []
    for row, column in after.cells.tolist():
        if row not in rows or column not in columns:
            continue
        was, now = flow.cell(row, column), after.flow.cell(row, column)
        if was.state is now.state is State.HEARD:
            far_db = now.level_db - was.level_db
            found += [(row, column, far_db)] if abs(far_db) > FAR_DB + 1e-6 else []
    if found:
        found.sort(key=lambda one: -abs(one[2]))
        heard = [
            (source_name(show, layout.source(r)), listener_name(show, layout.listener(c)), db)
            for r, c, db in found
        ]
        raise RemedyMoves(moves, heard)


def _step_db(show: Show, address: str, value: Value) -> float | None:
    """How far an address that holds dB goes; None for one that holds something else, or stays."""
    kind = kind_on(show.desk, address)
    was = show[address]
    if not isinstance(kind, Number) or kind.unit != "dB" or was == value:
        return None
    assert isinstance(was, float)
    assert isinstance(value, float)
    if math.isinf(was) or math.isinf(value):
        return math.inf
    return value - was


def _name(show: Show, address: str) -> str:
    strips = strips_behind(show, address) if of_kind(address) == "input" else [thing_of(address)]
    return strip_name(show, strips[0]) if strips else address
