"""Why a cell is silent, for the whole table at once: of each silent cell the path, among those

whose feeds are on, with the fewest causes. A walk like that of the levels, in which weights are
added and the lightest counts (see `wiring.WEIGHTS`).
"""

from functools import cached_property
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..wires import WEIGHTS, Cause, Fed, Floats, Indices, Wiring
from .ears import Ears

__all__ = ["Weighing", "lightest_at_ears", "sides_led_to"]

Bools = NDArray[np.bool_]

_AT_ONCE: Final = 100_000


class Weighing:
    """Weights of the lightest paths of one show, worked out only for what is asked.

    `leads`: `sides_led_to` of the wiring, where it is at hand.
    """

    def __init__(self, wiring: Wiring, fed: Fed, leads: Bools | None) -> None:
        self.layout, self.fed = wiring.layout, fed
        self.leads = leads
        self.wiring = wiring
        self.behind = wiring.behind_buses()

    def to_buses(self, rows: Indices, columns: Indices, *, detours: bool = False) -> Floats:
        """Weight of the lightest path from each row's input to each side of some buses.

        Shape (n, columns, 2); inf where no path has its feeds on. `detours`: only paths that pass
        channels which buses feed are asked for.
        """
        if not self.fed.dry:
            return self._without_detours(rows, columns)
        arriving, kind = _alike(self.at_fed[rows])
        by_way = _sums(arriving, self._onward_from_fed[:, columns].reshape(self.fed.dry, -1))
        found: Floats = by_way.reshape(-1, columns.size, 2)[kind]
        if not detours:
            found = np.minimum(found, self._without_detours(rows, columns))
        return found

    @cached_property
    def at_fed(self) -> Floats:
        """Weight of the lightest path from each row to each channel that a bus feeds, (rows, K)."""
        dry = self.fed.dry
        direct = self._without_detours(self.layout.every_row, self.fed.bus[:dry])
        arriving, kind = _alike(self._taken(direct))
        around = self._taken(self._onward_from_fed[:, self.fed.bus[:dry]])
        while True:
            further = np.minimum(arriving, _sums(arriving, around))
            if (further == arriving).all():
                return arriving[kind]
            arriving = further

    @cached_property
    def _onward_from_fed(self) -> Floats:
        return self._without_detours(self.fed.row[: self.fed.dry], self.layout.every_bus)

    def _taken(self, at: Floats) -> Floats:
        """What fed channels take of weights at the buses that feed them, `at` (n, K, 2)."""
        part = slice(0, self.fed.dry)
        sides = np.where(self.fed.share[part] > 0.0, 0.0, np.inf)
        return _lighter(at + sides) + self.behind[self.fed.bus[part]]

    def _without_detours(self, rows: Indices, columns: Indices) -> Floats:
        """Weights at some buses, shape (n, columns, 2), by no channel that a bus feeds."""
        layout = self.layout
        into_last = columns[columns >= layout.matrices.start]
        before = np.arange(layout.matrices.start if into_last.size else layout.groups.stop)
        needed = np.union1d(before, columns)
        middle = needed[(needed >= layout.middle.start) & (needed < layout.middle.stop)]
        if self.leads is None:
            leads = sides_led_to(self.wiring, rows)[:, needed]
        else:
            leads = self.leads[rows[:, None], needed]
        found = np.where(leads, self.wiring.weight(rows, needed)[:, :, None], np.inf)
        self._among_groups(found)
        self._onward(found, needed, layout.groups.stop, middle)
        self._onward(found, needed, layout.matrices.start, np.unique(into_last))
        return found[:, np.searchsorted(needed, columns)]

    def _among_groups(self, found: Floats) -> None:
        """Let what arrives at the groups, the first in `found`, go on from one to another."""
        many = self.layout.groups.stop
        step = self.wiring.weight_of_buses[:many, :, :many].reshape(2 * many, 2 * many)
        if not np.isfinite(step).any():
            return
        at, kind = _alike(found[:, :many].reshape(found.shape[0], -1))
        passed = at
        for _ in range(many):  # in a show that is yet to be refused they may lead back
            passed = _sums(passed, step)
            if not np.isfinite(passed).any():
                break
            at = np.minimum(at, passed)
        found[:, :many] = at[kind].reshape(-1, many, 2)

    def _onward(self, found: Floats, needed: Indices, before: int, to: Indices) -> None:
        """Let what arrives at the first `before` buses go on to others; `found` is of `needed`."""
        if not to.size or not before:
            return
        step = self.wiring.weight_of_buses[:before, :, to].reshape(2 * before, 2 * to.size)
        at, kind = _alike(found[:, :before].reshape(found.shape[0], -1))
        by_way = _sums(at, step).reshape(-1, to.size, 2)
        places = np.searchsorted(needed, to)
        found[:, places] = np.minimum(found[:, places], by_way[kind])


def sides_led_to(wiring: Wiring, rows: Indices | None = None) -> Bools:
    """Which sides of buses some channels and returns feed, whatever they pass; (n, buses, 2)."""
    on = wiring.on(slice(0, wiring.layout.rows) if rows is None else rows)
    found: Bools = on[:, 0] | on[:, 1]
    return found


def _sums(at: Floats, step: Floats) -> Floats:
    """The lightest sums, shape (n, k): from `at` (n, m) by way of any of m, `step` (m, k)."""
    found = np.full((at.shape[0], step.shape[1]), np.inf)
    used = np.isfinite(step).any(axis=1) & np.isfinite(at).any(axis=0)
    ends = np.isfinite(step[used]).any(axis=0)
    if not ends.any():
        return found
    at, step = at[:, used], step[np.ix_(used, ends)]
    some = max(1, _AT_ONCE // step.size)  # so many rows at once as stay near the processor
    for start in range(0, at.shape[0], some):
        rows = slice(start, start + some)
        found[rows, ends] = (at[rows, :, None] + step).min(axis=1)
    return found


def _alike(rows: Floats) -> tuple[Floats, Indices]:
    """The rows that differ, each once, and which of these each row is: most strips of a show are

    closed and fed alike.
    """
    whole = np.ascontiguousarray(rows)
    keys = whole.view(np.dtype((np.void, whole.dtype.itemsize * whole.shape[1]))).ravel()
    _, first, kind = np.unique(keys, return_index=True, return_inverse=True)
    return whole[first], kind.ravel()


def _lighter(sides: Floats) -> Floats:
    """Of two sides, the last axis, the lighter (numpy's `min` is slow over so short an axis)."""
    return np.minimum(sides[..., 0], sides[..., 1])


def lightest_at_ears(at: Floats, ears: Ears, behind: Floats, columns: Indices) -> Floats:
    """Weight of the lightest path to each listener, shape (n, columns), from `at` its sides.

    A side that no socket carries counts only where no path leads to one that a socket does; what
    would be patched is taken as patched behind the fader, `behind` (buses,).
    """
    carried = _lighter(at + ears.weight[columns])
    lacking = _lighter(at) + (behind[columns] + WEIGHTS[Cause.NO_OUTPUT])
    found: Floats = np.where(np.isfinite(carried), carried, lacking)
    return found
