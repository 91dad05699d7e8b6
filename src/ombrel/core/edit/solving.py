"""Where a control has to stand for a source to arrive at a listener at a level."""

import math
from contextlib import suppress
from typing import Final

import numpy as np

from ..catalogue import Address, kind_on
from ..flow import Flow, Network
from ..show import Show
from ..values import Asked, ConsoleError, Number, db_to_gain, gain_to_db
from .edits import edited

__all__ = ["EXACT_DB", "opening_at", "solved_db"]

_ROUNDS: Final = 6  # a control that no loop passes is there at the first
_BESIDE: Final = 0.7  # the second place at which is looked, as a part of the first
EXACT_DB = 0.01  # what is read is what was typed, as far as a screen shows it


def opening_at(control: str, level_db: float) -> dict[str, Asked]:
    """Moves that bring a control to a level; a feed is switched on with it."""
    moves: dict[str, Asked] = {control: level_db}
    if Address.at(control).last == "level":
        moves[Address.at(control).beside("on")] = True
    return moves


def solved_db(
    show: Show, flow: Flow, row: int, column: int, control: str, wanted_db: float
) -> float | None:
    """Where a control would have to stand, in dB; None where it cannot bring the level about.

    What arrives at each ear is b + k a / (1 - k c), with k the control's gain and c what a loop
    brings back to it (0 outside of loops): known from three places, solved for k, and tried. A
    stereo strip in a loop brings back from side to side too; then it is looked for again near by.
    """
    kind = kind_on(show.desk, control)
    try:
        without = _amplitudes(show, flow, row, column, opening_at(control, -math.inf))
        gain = _that_is_taken(show, flow, control)
        for _ in range(_ROUNDS):
            places = (gain, gain * _BESIDE)
            arriving = [
                _amplitudes(show, flow, row, column, opening_at(control, float(gain_to_db(one))))
                for one in places
            ]
            gain = _gain_for(without, places, arriving, 10.0 ** (wanted_db / 20.0))
            level_db = round(float(gain_to_db(gain)), 6) + 0.0  # never -0
            if isinstance(kind, Number) and not kind.lowest_finite <= level_db <= kind.highest:
                return None
            after = edited(show, flow, opening_at(control, level_db)).flow
            if abs(after.cell(row, column).level_db - wanted_db) <= EXACT_DB:
                return level_db
    except (ConsoleError, _NoSuchGain):
        return None
    return None


class _NoSuchGain(ValueError):
    """No place of the control brings the level about."""


def _that_is_taken(show: Show, flow: Flow, control: str) -> float:
    """A gain of the control at which nothing howls: where it stands, or low enough. Raises

    ConsoleError where there is none.
    """
    standing_db = show.number(control)
    tries = (standing_db,) if standing_db > -math.inf else (0.0, -20.0, -40.0, -60.0)
    for level_db in tries[:-1]:
        with suppress(ConsoleError):
            edited(show, flow, opening_at(control, level_db))
            return float(db_to_gain(level_db))
    return float(db_to_gain(tries[-1]))


def _gain_for(
    without: np.ndarray, places: tuple[float, float], arriving: list[np.ndarray], wanted: float
) -> float:
    """The gain k > 0 for which |b + k a / (1 - k c)| = wanted, with b what arrives without it."""
    slope = [(one - without) / k for k, one in zip(places, arriving, strict=True)]
    ear = int(np.abs(slope[0]).argmax())
    bent = float(slope[0][ear] * places[0] - slope[1][ear] * places[1])
    c = float(slope[0][ear] - slope[1][ear]) / bent if bent else 0.0
    a = slope[0] * (1.0 - c * places[0])
    # |b + k (a - c b)|^2 = wanted^2 (1 - k c)^2
    turned = a - c * without
    square = float(turned @ turned) - (wanted * c) ** 2
    middle = float(turned @ without) + wanted * wanted * c
    rest = float(without @ without) - wanted * wanted
    inside = middle * middle - square * rest
    if inside < 0.0:
        raise _NoSuchGain
    root = math.sqrt(inside)
    # as quotients that lose no figures where the two nearly cancel
    ends = [-rest / (middle + root)] if middle >= 0.0 and middle + root else []
    if square:
        ends += [(-middle + root) / square, (-middle - root) / square]
    found = [k for k in ends if k > 0.0 and k * c < 1.0 and math.isfinite(k)]
    if not found:
        raise _NoSuchGain
    return min(found)


def _amplitudes(
    show: Show, flow: Flow, row: int, column: int, moves: dict[str, Asked]
) -> np.ndarray:
    return Network(edited(show, flow, moves).flow, row, column).amplitudes()
