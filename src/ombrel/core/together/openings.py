"""Starts of sends that the desk opens: where a mix has a start, what joins it later has one too."""

import math
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field

from ..catalogue import Address, check_on_desk
from ..show import Show
from ..values import ConsoleError, Value

__all__ = ["Openings", "openings", "unbegun"]


@dataclass(slots=True)
class Openings:
    """`values`: starts that an edit brings with it; `opened`: the sends that have them by it."""

    values: dict[str, Value] = field(default_factory=dict)
    opened: frozenset[str] = frozenset()


def openings(
    show: Show,
    after: Show,
    whole: Mapping[str, Value],
    stood: Mapping[str, Value],
    opened: Collection[str],
) -> Openings:
    """The starts of sends that an edit opens for the first time, in mixes that have a start: the

    level and pan that they open at. A hand on its way takes the starts of what it `opened` along
    until it rests. `whole`: what the edit says, which goes before; `stood`: what stands otherwise
    after it.
    """
    found = Openings(opened=frozenset(opened))
    mixes = range(1, show.desk.mixes + 1)
    started = {f"mix/{n}" for n in mixes if f"mix/{n}/started" in after.values}
    if not started:
        return found
    new = set()
    for send in dict.fromkeys(_sends(stood)):
        start = f"{send}/start"
        is_open = after.on(f"{send}/on") and after.number(f"{send}/level") > -math.inf
        was_open = show.on(f"{send}/on") and show.number(f"{send}/level") > -math.inf
        first = is_open and not was_open and after.number(start) == -math.inf
        mix = Address.at(f"{send}/level").target
        if start in whole or not (first or send in opened) or mix not in started:
            continue
        new.add(send)
        found.values[start] = after[f"{send}/level"] if is_open else -math.inf
        found.values[f"{send}/start_pan"] = after[f"{send}/pan"] if is_open else 0.0
    found.opened |= new
    found.values = {a: value for a, value in found.values.items() if value != after[a]}
    return found


def unbegun(show: Show, values: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit of plain values would give starts to, as it has none: for one that brings back

    what was.
    """
    mixes = (f"mix/{n}/started" for n in range(1, show.desk.mixes + 1))
    if not any(values.get(one, show.values.get(one)) is True for one in mixes):
        return {}
    whole = {address: value for address, value in values.items() if _stands(show, address, value)}
    after, stood = show.moved(whole)
    return {a: after[a] for a in openings(show, after, whole, stood.new, ()).values}


def _stands(show: Show, address: str, value: Value) -> bool:
    """Whether a value can stand there; one that cannot is refused by whoever makes the edit."""
    try:
        check_on_desk(show.desk, address, value)
    except ConsoleError:
        return False
    return True


def _sends(stood: Mapping[str, Value]) -> Iterator[str]:
    return (at.stem for a in stood if (at := Address.at(a)).bears_on("opens"))
