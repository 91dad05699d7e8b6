"""How far whoever hears a mix stands above the rest of it, and how loud it is expected to be.

10*log10(sum of self / sum of the rest), powers of what is expected to arrive: each source's
10^(dBFS/10), as its line and preamp bring it, times gL^2 + gR^2, the amplitudes of its ways into
the mix with nothing muted.
"""

import math
from collections.abc import Collection
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from ..flow import Flow
from ..sharing import Levels
from ..show import Show

__all__ = ["Balance", "Balances", "Stands"]

# "over": by so many dB; "alone": nothing else arrives; "missing": self does not; "nothing" does;
# "unknown": self arrives, at a level that nobody knows; "none": nobody is heard by a channel
Stands = Literal["over", "alone", "missing", "nothing", "unknown", "none"]
_LEAST: Final = 1e-30  # a power that counts: 300 dB below full scale


@dataclass(frozen=True, slots=True, kw_only=True)
class Balance:
    """Self against the rest at one mix. `over_db`: meant where `stands` is "over". `arriving`,

    `missing`: self's channels that arrive and that do not. `unknown`: sources that arrive at
    levels that nobody knows. `loudest`: sources with their levels at the mix, in dBFS behind its
    fader, the loudest first. `in_dbfs`, `dbfs`: of the louder side, ahead of and behind the fader.
    """

    stands: Stands
    over_db: float
    arriving: tuple[str, ...]
    missing: tuple[str, ...]
    unknown: tuple[str, ...]
    loudest: tuple[tuple[str, float], ...]
    in_dbfs: float
    dbfs: float


class Balances:
    """The balances of a show's mixes, from what is heard with nothing muted (`opened`)."""

    def __init__(self, show: Show, flow: Flow) -> None:
        self.flow, self._levels = flow, Levels(show, flow)
        self._power: NDArray[np.float64] = self._levels.power()

    def of(self, mix: str, selves: Collection[str], most: int = 3) -> Balance:
        """The balance of a mix whose self is these channels. Raises UnknownAddress."""
        layout, levels = self.flow.layout, self._levels
        column = layout.column(mix)
        sides = (levels.own[:, None] * levels.at[:, column]) ** 2
        arrives = (levels.at[:, column] > 0.0).sum(axis=1) > 0
        rows = [layout.row(one) for one in selves]
        own = np.zeros(layout.rows, dtype=np.bool_)
        own[rows] = True
        there, missing = [r for r in rows if arrives[r]], [r for r in rows if not arrives[r]]
        unknown = np.flatnonzero(arrives & ~levels.known)
        of_self, of_rest = levels.power_of(own, column), levels.power_of(~own, column)
        stands, over_db = _stands(rows, there, of_self, of_rest)
        behind = float(levels.behind[column]) ** 2
        side = int(self._power[column].argmax())
        order = np.argsort(-sides[:, side], kind="stable")[:most]
        in_dbfs = _db(float(self._power[column, side]))
        return Balance(
            stands=stands,
            over_db=over_db,
            arriving=tuple(layout.source(r) for r in there),
            missing=tuple(layout.source(r) for r in missing),
            unknown=tuple(layout.source(int(r)) for r in unknown),
            loudest=tuple(
                (layout.source(int(r)), _db(float(sides[r, side]) * behind))
                for r in order
                if sides[r, side] * behind > _LEAST
            ),
            in_dbfs=in_dbfs,
            dbfs=_db(float(self._power[column, side]) * behind),
        )


def _stands(
    rows: list[int], there: list[int], of_self: float, of_rest: float
) -> tuple[Stands, float]:
    if not rows:
        return "none", 0.0
    if not there:
        return ("missing", 0.0) if of_rest > _LEAST else ("nothing", 0.0)
    if of_self <= _LEAST:
        return "unknown", 0.0
    if of_rest <= _LEAST:
        return "alone", 0.0
    return "over", 10.0 * math.log10(of_self / of_rest)


def _db(power: float) -> float:
    return 10.0 * math.log10(power) if power > _LEAST else -math.inf
