"""Moves that take their time: planned as levels over time, never kept.

An edit commits where it leads at once; what sounds until then is a function of the plan and the
clock. A feed that is switched on rises from off and one that is switched off falls to it. Faders
and sends move evenly in travel, since dB has no way to off; other numbers evenly, frequencies and
ratios by equal ratios.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from .addresses import kind_on
from .changes import Change
from .kinds import Number, Value
from .laws import fader_db_to_travel, fader_travel_to_db
from .show import Show

__all__ = ["Fade", "Fading", "fading"]

_POINTS: Final = 24  # of a plan as it is told: a line between two is shorter than a hand's width


@dataclass(frozen=True, slots=True, kw_only=True)
class Fade:
    """A number on its way. `start`, `target`: in its own unit; `begun_s`: by a clock that only

    rises; `seconds`: above 0. `law`: of its control.
    """

    address: str
    start: float
    target: float
    begun_s: float
    seconds: float
    law: str

    def at(self, now_s: float) -> float:
        """Where it stands at a time; at its start before it begins, at its target once it ended."""
        part = min(max((now_s - self.begun_s) / self.seconds, 0.0), 1.0)
        if part in (0.0, 1.0):  # exactly: what rests is what was typed
            return self.target if part else self.start
        if self.law == "fader":
            here, there = _travel(self.start), _travel(self.target)
            return float(fader_travel_to_db(here + part * (there - here)))
        if self.law == "octaves":
            return self.start * math.pow(self.target / self.start, part)
        return self.start + part * (self.target - self.start)

    def ended(self, now_s: float) -> bool:
        """Whether it stands at its target for good."""
        return now_s >= self.begun_s + self.seconds

    def points(self) -> list[tuple[float, float]]:
        """The plan as (seconds from its begin, value), first and last included."""
        times = [self.seconds * n / _POINTS for n in range(_POINTS + 1)]
        return [(time, self.at(self.begun_s + time)) for time in times]


Fading = Mapping[str, Fade]  # what is on its way, by address


def _travel(level_db: float) -> float:
    return float(fader_db_to_travel(level_db))


def fading(
    before: Show, change: Change, now: Fading, *, seconds: float, at_s: float
) -> dict[str, Fade]:
    """What is on its way after a change at a time. `now`: what was before it.

    What the change moves goes on from where it sounds, over `seconds`; with 0 it jumps: a hand, an
    undo or another edit takes its addresses out. The others finish as they were planned.
    """
    after = before.with_values(change.new)
    moved = {_number_of(address) for address in change.new}
    found = {a: one for a, one in now.items() if a not in moved and not one.ended(at_s)}
    if seconds <= 0.0:
        return found
    for address in sorted(moved):
        kind = kind_on(before.desk, address)
        if not isinstance(kind, Number) or address.endswith("/kept"):
            continue
        start, target = _sounding(before, address), _sounding(after, address)
        if address in now:
            start = now[address].at(at_s)
        if start != target:
            found[address] = Fade(
                address=address, start=start, target=target, begun_s=at_s, seconds=seconds,
                law=kind.law,
            )  # fmt: skip
    return found


def _number_of(address: str) -> str:
    """A feed's switch is heard by its level."""
    if address.endswith("/on") and ("/send/" in address or "/group/" in address):
        return f"{address.removesuffix('on')}level"
    return address


def _sounding(show: Show, address: str) -> float:
    """A number as it sounds: a feed that is switched off is off."""
    switch = f"{address.removesuffix('level')}on"
    if _number_of(switch) == address and not show.on(switch):
        return -math.inf
    value: Value = show[address]
    assert isinstance(value, float)  # asked for numbers alone
    return value
