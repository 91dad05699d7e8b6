"""Buses that feed channels, and effects that feed returns: what arrives by those ways."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_array
from scipy.sparse.csgraph import connected_components

from .arrays import Arrays, Floats
from .homes import ENGINE, NOTHING, ORIGIN
from .layout import Layout
from .stages import AFTER_FADER
from .wiring import Indices, Wiring, either

__all__ = ["Fed", "Round", "fed_by", "settled"]

_CENTRE: Final = math.cos(math.pi / 4.0)  # a mix of one side stands in the centre of its return


@dataclass(frozen=True, slots=True, eq=False)
class Fed:
    """Sides of channels and returns that a bus feeds, K of them, in the order of the nodes.

    `node`, `row`: which they are. `bus` (a column) and `share`, shape (K, 2): what they take of its
    sides, behind its fader. `wet`: through an effect engine; those come last. `dry`: how many
    are not: channels, which the dry table goes through.
    """

    node: Indices
    row: Indices
    bus: Indices
    share: Floats
    wet: NDArray[np.bool_]
    dry: int

    def taken(self, arriving: Floats, gain: Floats, count: int | None = None) -> Floats:
        """What each takes of what arrives at the buses. `arriving` (n, buses, 2) gives (n, K).

        `gain` (buses,): of each bus from its input to behind its fader.
        """
        part = slice(0, count)
        bus = self.bus[part]
        sides = self.share[part] * gain[bus][:, None]
        return arriving[:, bus, 0] * sides[:, 0] + arriving[:, bus, 1] * sides[:, 1]


def fed_by(arrays: Arrays, layout: Layout) -> Fed:
    """What is fed by a bus in use, now."""
    in_force = arrays.in_force()
    node: list[int] = []
    row: list[int] = []
    bus: list[int] = []
    share: list[tuple[float, float]] = []
    channels = layout.channels
    for channel in np.flatnonzero(in_force[:channels] >= 0):
        column, side = divmod(int(in_force[channel]), 3)
        sides = arrays.sides[layout.first_bus + column]
        if sides == 0:
            continue
        if sides == 1:
            parts = (1.0, 0.0)
        else:
            parts = ((1.0, 0.0), (0.0, 1.0), (0.5, 0.5))[side]
        node.append(int(channel))
        row.append(int(channel))
        bus.append(column)
        share.append(parts)
    dry = len(node)
    for number in np.flatnonzero(in_force[channels:] <= ENGINE):
        code = arrays.engine[ENGINE - in_force[channels + number]]
        if code == NOTHING:
            continue
        column = int(code) // 3
        sides = arrays.sides[layout.first_bus + column]
        for side in (0, 1) if sides else ():
            node.append(int(channels + 2 * number + side))
            row.append(int(channels + number))
            bus.append(column)
            share.append((_CENTRE, 0.0) if sides == 1 else (1.0 - side, float(side)))
    return Fed(
        np.array(node, dtype=np.intp),
        np.array(row, dtype=np.intp),
        np.array(bus, dtype=np.intp),
        np.array(share, dtype=np.float64).reshape(-1, 2),
        np.arange(len(node)) >= dry,
        dry,
    )


@dataclass(frozen=True, slots=True, eq=False)
class Round:
    """How fed nodes feed one another. `around`, shape (K, K): from the input of one to that of

    another. `sets`: those that truly feed each other, and single ones, in topological order.
    `loops`: whether a set feeds itself.
    """

    around: Floats
    sets: tuple[Indices, ...]
    loops: tuple[bool, ...]


def rounds(around: Floats, before: Round | None = None) -> Round:
    """The sets of fed nodes; found again only when who feeds whom is another than `before`."""
    size = around.shape[0]
    shape = around != 0.0
    if before is not None and np.array_equal(shape, before.around != 0.0):
        return Round(around, before.sets, before.loops)
    if not shape.any():
        return Round(around, tuple(np.arange(size)[:, None]), (False,) * size)
    count, label = connected_components(csr_array(shape), directed=True, connection="strong")
    ahead = np.zeros((count, count), dtype=np.bool_)
    first, second = np.nonzero(shape)
    ahead[label[first], label[second]] = True
    np.fill_diagonal(ahead, False)
    order: list[int] = []
    waiting = ahead.sum(axis=0)
    ready = [int(one) for one in np.flatnonzero(waiting == 0)]
    while ready:
        here = ready.pop(0)
        order.append(here)
        for other in np.flatnonzero(ahead[here]):
            waiting[other] -= 1
            if waiting[other] == 0:
                ready.append(int(other))
    sets = tuple(np.flatnonzero(label == one) for one in order)
    loops = tuple(bool(len(one) > 1 or shape[one[0], one[0]]) for one in sets)
    return Round(around, sets, loops)


def settled(given: Floats, way: Round) -> Floats:
    """What arrives at the fed nodes, all rounds counted: u = given + u * around, set by set.

    `given`, shape (n, K). Only inside a set that loops is a small system solved; what nothing
    leads to stays exactly 0. One step of refinement, since elimination alone loses digits.
    """
    found = given.copy()
    for nodes, loops in zip(way.sets, way.loops, strict=True):
        if not loops:
            passed_on = way.around[nodes[0]]
            if passed_on.any():
                found += found[:, nodes[0], None] * passed_on
            continue
        inside = np.eye(len(nodes)) - way.around[np.ix_(nodes, nodes)]
        start = found[:, nodes]
        solved = np.linalg.solve(inside.T, start.T).T
        solved += np.linalg.solve(inside.T, (start - solved @ inside).T).T
        onward = way.around[nodes].copy()
        onward[:, nodes] = 0.0
        found[:, nodes] = solved
        found += solved @ onward
    return found


def reached(given: NDArray[np.bool_], steps: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Which fed nodes are reached, by any number of steps. `given` (n, K), `steps` (K, K)."""
    found = given
    while True:
        further = found | ((found.astype(np.float32) @ steps.astype(np.float32)) > 0.0)
        if (further == found).all():
            return found
        found = further


def has_source(
    arrays: Arrays, layout: Layout, wiring: Wiring, fed: Fed, open_to: NDArray[np.bool_]
) -> NDArray[np.bool_]:
    """Which rows have a source. `open_to` (nodes, buses, 2): what each node's signal reaches.

    What a bus feeds has one when an open path leads from an origin to the side that it takes; wet
    paths count.
    """
    found: NDArray[np.bool_] = arrays.in_force() == ORIGIN
    if not fed.node.size:
        return found
    nodes = np.flatnonzero(found[layout.row_of_node])
    behind = wiring.tap[layout.first_bus + fed.bus, AFTER_FADER]
    passes = (fed.share > 0.0) & (behind[:, None] > 0.0)
    at_buses = np.asarray(open_to[nodes].any(axis=0))
    left = np.ones(fed.node.size, dtype=np.bool_)
    while True:
        arrives = left & either(at_buses[fed.bus] & passes)
        if not arrives.any():
            return found
        left &= ~arrives
        found[fed.row[arrives]] = True
        at_buses = at_buses | open_to[fed.node[arrives]].any(axis=0)
