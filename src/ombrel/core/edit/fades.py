"""Moves that take their time: planned as levels over time, never kept.

An edit commits where it leads at once; what sounds until then is a function of the plan and the
clock. A feed that is switched on rises from off and one that is switched off falls to it. Faders
and sends move evenly in travel, since dB has no way to off; other numbers evenly, frequencies and
ratios by equal ratios. Switches open at the start and close at the end.
"""

import math
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Final

from ..catalogue import Address, kind_on
from ..show import Change, Show
from ..values import Number, Switch, Value, fader_db_to_travel, fader_travel_to_db

__all__ = ["CLOSING", "Fade", "Fading", "fading", "standing_at"]

CLOSING: Final = "closing"  # the law of a switch that closes at the end of its time
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
        if self.law == CLOSING:
            return self.start
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
    before: Show,
    change: Change,
    now: Fading,
    *,
    seconds: float | Mapping[str, float],
    at_s: float,
    after: Show | None = None,
    taken: Collection[str] = (),
) -> dict[str, Fade]:
    """What is on its way after a change of what stands. `now`: what was before it.

    What the change moves goes on from where it sounds, over `seconds`, by address or all alike;
    with 0, or not named, it jumps: a hand, an undo or another edit takes its addresses out. The
    others finish as they were planned. `after`: the show then, where it is at hand; `taken`: what a
    hand has put where it is, though that may be where it was going.
    """
    after = after or before.with_values(change.new)
    moved = {_number_of(address) for address in (*change.new, *taken)}
    found = {a: one for a, one in now.items() if a not in moved and not one.ended(at_s)}
    if not seconds:
        return found
    times = dict.fromkeys(moved, seconds) if isinstance(seconds, float) else _by_number(seconds)
    for address in sorted(moved & set(times) & {_number_of(a) for a in change.new}):
        if Address.at(address).last == "kept" or times[address] <= 0.0:
            continue
        kind = kind_on(before.desk, address)
        if isinstance(kind, Switch):
            target = float(after.on(address))
            start = now[address].at(at_s) if address in now else 1.0 - target
            if _closes(address, after) and start != target:
                found[address] = Fade(
                    address=address, start=start, target=target, begun_s=at_s,
                    seconds=times[address], law=CLOSING,
                )  # fmt: skip
            continue
        if not isinstance(kind, Number):
            continue
        start, target = _sounding(before, address), _sounding(after, address)
        if address in now:
            start = now[address].at(at_s)
        if start != target:
            found[address] = Fade(
                address=address, start=start, target=target, begun_s=at_s, seconds=times[address],
                law=kind.law,
            )  # fmt: skip
    return found


def _by_number(seconds: Mapping[str, float]) -> dict[str, float]:
    """Times by what is heard: a feed's switch has its level's."""
    found: dict[str, float] = {}
    for address, time in seconds.items():
        number = _number_of(address)
        found[number] = max(time, found.get(number, 0.0))
    return found


def _closes(address: str, after: Show) -> bool:
    """Whether a switch as it stands now silences something that sounded."""
    at = Address.at(address)
    closed = at.last == "mute" or at.kind == "mute_group"
    return at.bears_on("closes") and after.on(address) == closed


def standing_at(show: Show, now: Fading, at_s: float) -> Show:
    """The show with all that is on its way where it sounds at a time."""
    sounding: dict[str, Value] = {
        address: fade.at(at_s)
        for address, fade in now.items()
        if fade.law != CLOSING and not fade.ended(at_s)
    }
    return show.sounding(sounding) if sounding else show


def _number_of(address: str) -> str:
    """A feed's switch is heard by its level."""
    at = Address.at(address)
    return at.beside("level") if at.bears_on("routes") else address


def _sounding(show: Show, address: str) -> float:
    """A number as it sounds: a feed that is switched off is off."""
    at = Address.at(address)
    switch = at.beside("on")
    if at.last == "level" and _number_of(switch) == address and not show.on(switch):
        return -math.inf
    value: Value = show[address]
    assert isinstance(value, float)  # asked for numbers alone
    return value
