"""What a typed value does to the others of a gang: far enough, it is shown before it is made."""

import math
from collections.abc import Mapping
from typing import Final

from .addresses import kind_on
from .asked import Asked
from .edits import Edited
from .errors import GangJumps
from .flow import strip_name
from .gangs import strips_behind
from .kinds import Number, Value
from .show import Show
from .sockets import strip_of

__all__ = ["FAR_DB", "check_jumps"]

FAR_DB: Final = 6.0  # twice as loud, nearly: what an audience turns its head for


def check_jumps(show: Show, moves: Mapping[str, Asked], after: Edited) -> None:
    """Raise GangJumps if an edit of a hand that does not stay moves another strip of its gangs by

    more than FAR_DB, or to or from off. `show`: where it sounds before.
    """
    carried = {a: after.show[a] for a in after.carried.values if not a.endswith("/kept")}
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
    strips = strips_behind(show, address) if address.startswith("input/") else [strip_of(address)]
    return strip_name(show, strips[0]) if strips else address
