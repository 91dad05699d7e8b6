"""Why a cell is silent, for the whole table at once: of each silent cell the path, among those

whose feeds are on, with the fewest causes. A walk like that of the levels, in which weights are
added and the lightest counts (see `wiring.WEIGHTS`).
"""

from typing import Final

import numpy as np

from .arrays import Floats
from .ears import Ears
from .fed import Fed
from .stages import Cause
from .wiring import WEIGHTS, Indices, Wiring

__all__ = ["Weighing", "lightest_at_ears"]

_AT_ONCE: Final = 100_000


class Weighing:
    """Weights of the lightest paths of one show, worked out only for what is asked."""

    def __init__(self, wiring: Wiring, fed: Fed) -> None:
        layout = wiring.layout
        self.layout, self.fed = layout, fed
        self.wiring = wiring
        self.behind = wiring.behind_buses()
        self.at_fed: Floats = np.zeros((0, 0))  # of the rows that were asked for last

    def to_buses(self, rows: Indices, columns: Indices) -> Floats:
        """Weight of the lightest path from each row's input to each side of some buses.

        Shape (n, buses, 2); inf where no path has its feeds on; only `columns` are filled in.
        """
        layout = self.layout
        if self.fed.dry:
            columns = layout.every_bus  # a detour may go by way of any
        elif (columns >= layout.matrices.start).any():
            before = np.arange(layout.matrices.start)
            columns = np.union1d(before, columns)
        found = self._without_detours(rows, columns)
        if not self.fed.dry:
            return found
        fed_rows = self.fed.row[: self.fed.dry]
        onward = self._without_detours(fed_rows, columns)
        arriving, around = self._taken(found), self._taken(onward)
        while True:
            further = np.minimum(arriving, (arriving[:, :, None] + around[None]).min(axis=1))
            if (further == arriving).all():
                break
            arriving = further
        for place in range(self.fed.dry):
            reach = np.flatnonzero(np.isfinite(arriving[:, place]))
            if reach.size:
                by_way = arriving[reach, place, None, None] + onward[place]
                found[reach] = np.minimum(found[reach], by_way)
        self.at_fed = arriving
        return found

    def _taken(self, weights: Floats) -> Floats:
        part = slice(0, self.fed.dry)
        bus = self.fed.bus[part]
        sides = np.where(self.fed.share[part] > 0.0, 0.0, np.inf)
        return _lighter(weights[:, bus] + sides) + self.behind[bus]

    def _without_detours(self, rows: Indices, columns: Indices) -> Floats:
        layout = self.layout
        on = self.wiring.on(rows)
        weight = self.wiring.weight(rows)[:, :, None]
        found = np.where(on[:, 0] | on[:, 1], weight, np.inf)
        middle = columns[(columns >= layout.middle.start) & (columns < layout.middle.stop)]
        last = columns[columns >= layout.matrices.start]
        self._onward(found, layout.groups.stop, middle)
        self._onward(found, layout.matrices.start, last)
        return found

    def _onward(self, found: Floats, before: int, to: Indices) -> None:
        """Let what arrives at the first `before` buses go on to others."""
        if not to.size or not before:
            return
        step = self.wiring.weight_of_buses[:before, :, to].reshape(2 * before, 2 * to.size)
        at = found[:, :before].reshape(found.shape[0], -1)
        used = np.isfinite(step).any(axis=1) & np.isfinite(at).any(axis=0)
        if not used.any():
            return
        step, at = step[used], at[:, used]
        some = max(1, _AT_ONCE // step.size)  # so many rows at once as stay near the processor
        for start in range(0, found.shape[0], some):
            rows = slice(start, start + some)
            by_way = (at[rows, :, None] + step).min(axis=1).reshape(-1, to.size, 2)
            found[rows, to] = np.minimum(found[rows, to], by_way)


def _lighter(sides: Floats) -> Floats:
    """Of two sides, the last axis, the lighter (numpy's `min` is slow over so short an axis)."""
    return np.minimum(sides[..., 0], sides[..., 1])


def lightest_at_ears(weights: Floats, ears: Ears, behind: Floats, columns: Indices) -> Floats:
    """Weight of the lightest path to each listener, shape (n, columns), from that to its sides.

    A side that no socket carries counts only where no path leads to one that a socket does; what
    would be patched is taken as patched behind the fader, `behind` (buses,).
    """
    at = weights[:, columns]
    carried = _lighter(at + ears.weight[columns])
    lacking = _lighter(at) + (behind[columns] + WEIGHTS[Cause.NO_OUTPUT])
    found: Floats = np.where(np.isfinite(carried), carried, lacking)
    return found
