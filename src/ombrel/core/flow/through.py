"""Buses that feed channels: what arrives that way; loops below 0 dB solved, others refused."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..desk import Desk
from ..errors import FeedbackLoop
from ..laws import gain_to_db, sides_to_level_db
from .arrays import Arrays
from .strips import bus_of

__all__ = ["Through", "through_buses"]

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False)
class Through:
    """The whole table with all detours; C channels, B buses. `rows`: the F channels fed by buses.

    `reach`, shape (C, F): amplitude of each channel's source at the input of each fed channel.
    `left`, `right`, shape (C, B): amplitude at each listener's sides, all paths added with sign.
    `own_left`, `own_right`: the same by the channel's own path alone.
    """

    rows: NDArray[np.intp]
    reach: Array
    left: Array
    right: Array
    own_left: Array
    own_right: Array

    def detours(self, row: int, column: int) -> list[tuple[int, float]]:
        """Rows by way of which a source arrives at a listener, and at which level in dB."""
        found = []
        for turn, fed in enumerate(self.rows):
            left = self.reach[row, turn] * self.own_left[fed, column]
            right = self.reach[row, turn] * self.own_right[fed, column]
            level_db = float(sides_to_level_db(left, right))
            if level_db > -np.inf:
                found.append((int(fed), level_db))
        return found


def through_buses(arrays: Arrays, desk: Desk) -> Through | None:
    """Detours of a show; None when no bus feeds a channel. Raises FeedbackLoop.

    With K the gains from channel inputs to the inputs of fed channels, what arrives at those is
    K + K*K + ... = K (1 - K)^-1, which has a sum when every loop is below 0 dB.
    """
    rows = np.flatnonzero(arrays.fed_by >= 0)
    if rows.size == 0:
        return None
    stereo = arrays.sides == 2
    gain = arrays.at_tap.ravel().take(arrays.tap) * arrays.send * arrays.on
    into_left = gain * np.where(stereo, arrays.left, 1.0)
    into_right = gain * np.where(stereo, arrays.right, 0.0)
    column, side = np.divmod(arrays.fed_by[rows], 3)
    whole = np.where(stereo[column], 0.5, 1.0) * (into_left + into_right)[:, column]
    right = np.where(stereo[column], into_right[:, column], into_left[:, column])
    carried = np.select([side == 0, side == 1], [into_left[:, column], right], default=whole)
    bus = arrays.master * arrays.open * (arrays.sides > 0)
    fed = carried * bus[column]
    around = fed[rows]
    _refuse_howling(around, rows, column, desk)
    reach = fed @ np.linalg.inv(np.eye(rows.size) - around)
    first, second, third, fourth = arrays.heard
    own_left = into_left * (first + third) + into_right * second
    own_right = into_right * fourth
    return Through(
        rows,
        reach,
        own_left + reach @ own_left[rows],
        own_right + reach @ own_right[rows],
        own_left,
        own_right,
    )


def _refuse_howling(
    around: Array, rows: NDArray[np.intp], column: NDArray[np.intp], desk: Desk
) -> None:
    """Sizes count: polarity may make a loop die out by cancelling, and nobody should rely on it."""
    size = np.abs(around)
    values, vectors = np.linalg.eig(size)
    loudest = int(np.argmax(np.abs(values)))
    radius = float(np.abs(values[loudest]))
    if radius < 1.0 - 1e-9:
        return
    # Walk back along the strongest feeds from the channel that takes most part in the loop.
    here = int(np.argmax(np.abs(vectors[:, loudest])))
    walked = [here]
    while True:
        here = int(np.argmax(size[:, here]))
        if here in walked:
            loop = [*walked[walked.index(here) :], here]
            break
        walked.append(here)
    nodes: list[str] = []
    for turn in reversed(loop):
        if nodes:
            nodes.append(bus_of(desk, int(column[turn])))
        nodes.append(f"channel/{int(rows[turn]) + 1}")
    raise FeedbackLoop(tuple(nodes), float(gain_to_db(radius)))
