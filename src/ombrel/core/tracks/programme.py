"""A programme of yes and no: columns that are taken or not, rows that bind them, aims in order."""

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import csr_array, vstack

from ..values import PlanTooHard

__all__ = ["Programme"]

Costs = Mapping[int, int]
_LONGEST_S: Final = 30.0  # of one step; what is not proven best by then is not told as best
_WHOLE: Final = 1e-6
_INFEASIBLE: Final = 2  # as scipy numbers it


@dataclass(slots=True)
class Programme:
    """Columns of 0 or 1, by number; rows `lowest <= sum(coefficient * column) <= highest`."""

    columns: int = 0
    _rows: list[Mapping[int, int]] = field(default_factory=list)
    _lowest: list[float] = field(default_factory=list)
    _highest: list[float] = field(default_factory=list)
    _settled: dict[int, int] = field(default_factory=dict)

    def column(self) -> int:
        """A new column."""
        self.columns += 1
        return self.columns - 1

    def bind(self, row: Mapping[int, int], lowest: float, highest: float) -> None:
        """Bind columns: each counts as often as `row` says."""
        self._rows.append(row)
        self._lowest.append(lowest)
        self._highest.append(highest)

    def settle(self, columns: Iterable[int], taken: Sequence[bool]) -> None:
        """Hold columns at what an answer has."""
        self._settled |= {column: int(taken[column]) for column in columns}

    def best(
        self, aims: Sequence[Costs], told: Callable[[int, int], None] = lambda at, of: None
    ) -> tuple[list[bool], list[int]] | None:
        """Which columns are taken, and what each aim costs: the first as little as can be, the

        next as little as that allows, and so on. The same programme gives the same answer. `told`
        hears which aim is at work, of how many. None: nothing fits. Raises PlanTooHard.
        """
        if not self.columns:
            return ([], [0] * len(aims)) if self._fits_empty() else None
        taken: NDArray[np.float64] | None = None
        costs: list[int] = []
        for turn, aim in enumerate(aims or [{}]):
            told(turn, len(aims))
            cost = np.zeros(self.columns)
            cost[list(aim)] = list(aim.values())
            taken = self._least(cost)
            if taken is None:
                return None  # only at the first aim: what was found goes on to fit
            reached = round(float(cost @ taken))
            costs.append(reached)
            if turn + 1 < len(aims):
                self.bind({c: v for c, v in aim.items() if v}, -np.inf, reached)
        assert taken is not None  # there is at least one aim
        return [bool(one) for one in taken], costs[: len(aims)]

    def _fits_empty(self) -> bool:
        pairs = zip(self._lowest, self._highest, strict=True)
        return all(lowest <= 0 <= highest for lowest, highest in pairs)

    def _matrix(self) -> csr_array:
        at = [(row, column, value) for row, some in enumerate(self._rows)
              for column, value in some.items()]  # fmt: skip
        rows, columns, values = (list(one) for one in zip(*at, strict=True)) if at else ([], [], [])
        shape = (len(self._rows), self.columns)
        return csr_array((np.array(values, float), (rows, columns)), shape=shape)

    def _least(self, cost: NDArray[np.float64]) -> NDArray[np.float64] | None:
        """The cheapest that fits, proven.

        First without wholeness, which bounds the cost from below. A column whose reduced cost is
        above what is allowed over that bound is in no whole answer within it, so only the others
        are searched; an answer within what was allowed is the best of all (reduced-cost fixing).
        """
        matrix, lowest, highest = self._matrix(), np.array(self._lowest), np.array(self._highest)
        even = lowest == highest
        floor, ceiling = np.zeros(self.columns), np.ones(self.columns)
        for column, value in self._settled.items():
            floor[column] = ceiling[column] = value
        below, above = ~even & np.isfinite(highest), ~even & np.isfinite(lowest)
        loose = linprog(
            cost,
            A_eq=matrix[even] if even.any() else None,
            b_eq=lowest[even] if even.any() else None,
            A_ub=vstack([matrix[below], -matrix[above]]) if (below | above).any() else None,
            b_ub=np.concatenate([highest[below], -lowest[above]])
            if (below | above).any()
            else None,
            bounds=np.column_stack([floor, ceiling]),
            method="highs-ds",  # a vertex, and the same one each time
            options={"time_limit": _LONGEST_S},
        )
        if loose.status == _INFEASIBLE:
            return None
        if loose.status != 0:
            raise PlanTooHard(_LONGEST_S)
        if np.all(np.abs(loose.x - loose.x.round()) < _WHOLE):
            found: NDArray[np.float64] = loose.x.round()
            return found
        reduced = loose.lower.marginals
        reduced = np.where(floor == 1.0, 0.0, reduced)  # what is held at 1 is kept
        allowed = 16.0
        while True:
            kept = reduced <= allowed
            whole = self._whole(cost, kept, (matrix, lowest, highest), (floor, ceiling))
            if whole is not None and cost @ whole <= loose.fun + allowed + _WHOLE:
                return whole
            if kept.all():
                return whole
            allowed = math.inf if 2 * kept.sum() > self.columns else allowed * 16.0

    def _whole(
        self,
        cost: NDArray[np.float64],
        kept: NDArray[np.bool_],
        rows: tuple[csr_array, NDArray[np.float64], NDArray[np.float64]],
        ends: tuple[NDArray[np.float64], NDArray[np.float64]],
    ) -> NDArray[np.float64] | None:
        """The cheapest whole answer of the kept columns, or None."""
        if not kept.any():
            return None
        result = milp(
            cost[kept],
            constraints=LinearConstraint(rows[0][:, kept], rows[1], rows[2]),
            integrality=np.ones(int(kept.sum())),
            bounds=Bounds(ends[0][kept], ends[1][kept]),
            options={"time_limit": _LONGEST_S, "mip_rel_gap": 0.0},
        )
        if result.status == _INFEASIBLE:
            return None
        if result.status != 0:
            raise PlanTooHard(_LONGEST_S)
        found = np.zeros(len(kept))
        found[kept] = result.x.round()
        return found
