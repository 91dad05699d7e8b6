"""Where a control has to stand for a source to arrive at a listener at a level."""

import math

import numpy as np

from .addresses import kind_on
from .asked import Asked
from .edits import edited
from .errors import ConsoleError
from .flow import Flow, Network
from .kinds import Number
from .laws import gain_to_db
from .show import Show

__all__ = ["EXACT_DB", "opening_at", "solved_db"]

EXACT_DB = 0.01  # what is read is what was typed, as far as a screen shows it


def opening_at(control: str, level_db: float) -> dict[str, Asked]:
    """Moves that bring a control to a level; a feed is switched on with it."""
    moves: dict[str, Asked] = {control: level_db}
    if control.endswith("/level"):
        moves[control.removesuffix("level") + "on"] = True
    return moves


def solved_db(
    show: Show, flow: Flow, row: int, column: int, control: str, wanted_db: float
) -> float | None:
    """Where a control would have to stand, in dB; None where it cannot bring the level about.

    What arrives at each ear is b + k a, with k the control's gain: |b + k a|^2 = wanted^2 is solved
    for k, and the answer tried (a control that a loop passes twice is not so simple).
    """
    kind = kind_on(show.desk, control)
    try:
        without = _amplitudes(show, flow, row, column, opening_at(control, -math.inf))
        whole = _amplitudes(show, flow, row, column, opening_at(control, 0.0))
    except ConsoleError:
        return None
    a, b = whole - without, without
    square, middle = float(a @ a), float(a @ b)
    rest = float(b @ b) - 10.0 ** (wanted_db / 10.0)
    inside = middle * middle - square * rest
    if square <= 0.0 or inside < 0.0:
        return None
    gain = (-middle + math.sqrt(inside)) / square
    if gain <= 0.0:
        return None
    level_db = round(float(gain_to_db(gain)), 6)
    if isinstance(kind, Number) and not kind.lowest_finite <= level_db <= kind.highest:
        return None
    try:
        after = edited(show, flow, opening_at(control, level_db)).flow
    except ConsoleError:
        return None
    if abs(after.cell(row, column).level_db - wanted_db) > EXACT_DB:
        return None
    return level_db


def _amplitudes(
    show: Show, flow: Flow, row: int, column: int, moves: dict[str, Asked]
) -> np.ndarray:
    return Network(edited(show, flow, moves).flow, row, column).amplitudes()
