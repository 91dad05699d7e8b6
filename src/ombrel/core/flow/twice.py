"""Causes that may stand on one way twice and are one all the same.

A DCA or mute group may close two strips of a way; a way may pass a stereo bus by its left side,
feed a channel, and come back to its right. Sums of weights count such a cause twice. So ways are
weighed once more with each of these paid for beforehand and free wherever it stands: the lightest
of all is exact, since on its own way just those count that stand on it.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations
from typing import TYPE_CHECKING, Final

import numpy as np
from numpy.typing import NDArray

from ..wires import (
    CLOSES,
    STAGES,
    WEIGHTS,
    Arrays,
    Cause,
    Indices,
    Wiring,
    closure,
    reached_dcas,
    reweighed,
    stage_of,
)

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Paid", "paid"]

Bools = NDArray[np.bool_]
_MOST: Final = (
    64  # weighings of one table: with more, ways past several such causes count them twice
)
_OWN: Final = np.array([one.closes is not None and not one.ruled for one in STAGES])


@dataclass(frozen=True, slots=True, eq=False)
class Twice:
    """A cause: the `strips` that it closes, each at a stage; its `weight`; and, shape (rows,), from

    which `rows` a way may meet it twice. `own`: one strip's, which only a way back to it meets so.
    """

    strips: Indices
    stages: Indices
    weight: float
    rows: Bools
    own: bool


def twice(flow: "Flow") -> list[Twice]:
    """The causes of a show that may stand on one way twice."""
    arrays, layout, fed = flow.arrays, flow.layout, flow.fed
    ruled = list(_ruled(arrays))
    if not ruled and not fed.dry:
        return []
    onward, fed_rows = _leads_to(flow)
    again = np.zeros(len(layout.strips), dtype=np.bool_)  # stereo buses that lead to themselves
    buses = np.arange(layout.first_bus, len(layout.strips))
    again[buses] = onward[buses, np.arange(buses.size)] & (arrays.sides[buses] == 2)
    onward[buses, np.arange(buses.size)] &= again[buses]
    onward[fed_rows, buses.size + np.arange(fed_rows.size)] = False
    own = np.argwhere((arrays.stage == 0.0) & _OWN & again[:, None])
    found = []
    for strips, stages in [*ruled, *((one[:1], one[1:]) for one in own)]:
        there = np.isin(np.concatenate((buses, fed_rows)), strips)
        starts = np.zeros(len(layout.strips), dtype=np.bool_)
        starts[strips] = onward[strips][:, there].any(axis=1)
        if not starts.any():
            continue
        of_rows = starts[: layout.rows].copy()
        from_here = starts[np.concatenate((buses, fed_rows))]
        of_rows |= onward[: layout.rows, from_here].any(axis=1)
        weight = WEIGHTS[Cause(int(CLOSES[stages[0]]))]
        found.append(Twice(strips, stages, weight, of_rows, strips.size == 1))
    return found


@dataclass(frozen=True, slots=True, eq=False)
class Paid:
    """Some causes paid for beforehand: which, what they cost together, and for which rows that can

    make a way lighter, shape (rows,). `detours`: only such ways that pass a channel which a bus
    feeds.
    """

    causes: tuple[Twice, ...]
    cost: float
    rows: Bools
    detours: bool

    def wiring(self, whole: Wiring) -> Wiring:
        """The wiring with these causes free wherever they stand."""
        if not self.causes:
            return whole
        closing = whole.arrays.closing.copy()
        for one in self.causes:
            closing[one.strips, one.stages] -= 1.0
        return reweighed(whole, closing)


def paid(flow: "Flow") -> Iterator[Paid]:
    """How ways of a flow are to be weighed: as it stands, for every row, and with causes paid."""
    yield Paid((), 0.0, np.ones(flow.layout.rows, dtype=np.bool_), detours=False)
    causes = twice(flow)
    done = 1
    for size in range(1, len(causes) + 1):
        for some in combinations(causes, size):
            concerned = np.logical_and.reduce([one.rows for one in some])
            if not concerned.any():
                continue
            if done == _MOST:
                return
            done += 1
            cost = sum(one.weight for one in some)
            yield Paid(some, cost, concerned, any(one.own for one in some))


def _ruled(arrays: Arrays) -> Iterator[tuple[Indices, Indices]]:
    """What closes several strips: which, and at which stage."""
    members = []
    if arrays.group_on.any():
        on = (arrays.group_of > 0.0) & (arrays.group_on > 0.0)
        hard = arrays.group_hard > 0.0
        members += [(on[:, hard], "hard_mute"), (on[:, ~hard], "mute_group")]
    muted, off = arrays.dca_mute > 0.0, ~np.isfinite(arrays.dca_db)
    if muted.any() or off.any():
        reached = reached_dcas(arrays)
        members += [(reached[:, muted], "dca_mute"), (reached[:, off], "dca")]
    if arrays.solo_in_place.any():
        members.append((arrays.stage[:, [stage_of("solo")]] == 0.0, "solo"))
    for closed, leaf in members:
        for strips in (np.flatnonzero(one) for one in closed.T):
            if strips.size:
                yield strips, np.full(strips.size, stage_of(leaf))


def _leads_to(flow: "Flow") -> tuple[Bools, Indices]:
    """From which strips feeds that are on lead to which buses, and behind these to which channels

    that buses feed; shape (strips, buses + K). And the K channels.
    """
    layout, fed = flow.layout, flow.fed
    buses, dry = layout.buses, fed.dry
    fed_rows = fed.row[:dry]
    step = np.zeros((len(layout.strips), buses + dry), dtype=np.bool_)
    step[: layout.feeding, :buses] = flow.wiring.leads(slice(0, layout.feeding))
    step[layout.first_bus + fed.bus[:dry], buses + np.arange(dry)] = True
    among = np.concatenate((np.arange(layout.first_bus, len(layout.strips)), fed_rows))
    further = closure(step[among]).astype(np.float32)
    onward: Bools = step | (step.astype(np.float32) @ further > 0.0)
    return onward, fed_rows
