"""Loops: found where strips feed one another, refused at 0 dB and above, named as they close.

The gain once around is what comes back to a strip of what it gives, by all its sides and all ways
together: cut at that strip, each way back counts once, whatever turns within it on the way. It
reaches 0 dB at all strips of a loop at once; what feeds that strip rises by 1 / (1 - gain).
"""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

import numpy as np
from scipy.sparse import csr_array
from scipy.sparse.csgraph import connected_components

from ..values import FeedbackLoop, gain_to_db
from ..wires import AFTER_FADER, Arrays, Fed, Floats, Indices, Layout, Wiring, spread

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Loop", "has_loop", "loudest_loop", "refuse_howling"]

UNITY: Final = 1.0 - 1e-9  # within 10^-9 of unity counts as 0 dB
_MOST: Final = 20_000  # steps of the search for the loudest loop before the best so far is named


@dataclass(frozen=True, slots=True)
class Loop:
    """A loop, walked from a strip by the loudest way back to it: `nodes`, which end where they

    began. `beside`: the other strips by which something of it comes back there. `gain_db`: once
    around, all these ways together.
    """

    nodes: tuple[str, ...]
    beside: tuple[str, ...]
    gain_db: float


def _bound(around: Floats) -> float:
    """No spectral radius is above the largest sum of a row, or of a column (of sizes)."""
    return min(float(around.sum(axis=0).max()), float(around.sum(axis=1).max()))


def _sets(around: Floats) -> list[Indices]:
    """Nodes that feed one another, and single ones that feed themselves."""
    count, label = connected_components(csr_array(around > 0.0), directed=True, connection="strong")
    if count == around.shape[0]:
        return [np.array([one]) for one in np.flatnonzero(np.diagonal(around) > 0.0)]
    found = (np.flatnonzero(label == one) for one in range(count))
    return [some for some in found if some.size > 1 or around[some[0], some[0]] > 0.0]


def _howls(around: Floats) -> bool:
    """Whether what nodes pass to one another reaches 0 dB, in all. `around`: sizes, shape (n, n).

    Sizes of spectral radius below 1 are those for which (1 - around) x = 1 has a positive solution.
    """
    if not around.size or _bound(around) < UNITY:
        return False
    inside = np.eye(around.shape[0]) - around / UNITY
    try:
        return bool((np.linalg.solve(inside, np.ones(around.shape[0])) <= 0.0).any())
    except np.linalg.LinAlgError:  # exactly at 0 dB
        return True


def refuse_howling(
    around: Floats, fed: Fed, arrays: Arrays, wiring: Wiring, layout: Layout
) -> None:
    """Raise FeedbackLoop if any loop, or all of a set together, reaches 0 dB.

    `around`, shape (K, K): sizes of what each fed node passes to each other (sizes count, so that
    no loop is held down by polarity alone). Wet ways count too.
    """
    if not fed.node.size or _bound(around) < UNITY:
        return
    for some in _sets(around):
        if not _howls(around[np.ix_(some, some)]):
            continue
        rows = _needed(around, fed, some)
        gain, start = _most_around(around, fed, rows)
        loop = _named(fed, arrays, wiring, layout, rows, start, gain)
        raise FeedbackLoop(loop.nodes, loop.beside, loop.gain_db)


def _nodes_of(fed: Fed, rows: list[int]) -> Indices:
    return np.flatnonzero(np.isin(fed.row, rows))


def _needed(around: Floats, fed: Fed, some: Indices) -> list[int]:
    """Of the strips of a set that howls the fewest that do so: without any of them it would not.

    Those that have the least part in it are left out first.
    """
    inside = around[np.ix_(some, some)]
    part = np.ones(some.size)
    for _ in range(64):  # what comes around in the long run, both ways
        part = part @ (inside @ inside.T + inside.T @ inside)
        part /= part.max()
    rows = sorted(set(fed.row[some].tolist()))
    weight = {row: float(part[fed.row[some] == row].max()) for row in rows}
    for row in sorted(rows, key=lambda one: (weight[one], -one)):
        left = [other for other in rows if other != row]
        nodes = _nodes_of(fed, left)
        if _howls(around[np.ix_(nodes, nodes)]):
            rows = left
    return rows


def _most_around(around: Floats, fed: Fed, rows: list[int]) -> tuple[float, int]:
    """The largest gain once around of some strips (rows) that feed one another, and whose it is."""
    best = (0.0, rows[0])
    for row in rows:
        here, there = _nodes_of(fed, [row]), _nodes_of(fed, [one for one in rows if one != row])
        back = around[np.ix_(here, here)]
        if there.size:
            beyond = np.eye(there.size) - around[np.ix_(there, there)]
            back = back + around[np.ix_(here, there)] @ np.linalg.solve(
                beyond, around[np.ix_(there, here)]
            )
        gain = float(np.abs(np.linalg.eigvals(back)).max())
        if gain > best[0] * (1.0 + 1e-12):
            best = (gain, row)
    return best


def _around(flow: "Flow") -> Floats:
    """Sizes of what each fed node passes to each other, shape (K, K)."""
    behind = flow.wiring.tap[flow.layout.first_bus :, AFTER_FADER]
    straight = np.abs(flow.wiring.straight(flow.fed.node))
    return flow.fed.taken(spread(straight, flow.wiring.of_buses, flow.layout), behind)


def has_loop(flow: "Flow") -> bool:
    """Whether any strips of a show truly feed one another, however faintly."""
    return bool(flow.fed.node.size) and bool(_sets(_around(flow)))


def loudest_loop(flow: "Flow") -> Loop | None:
    """The loop of a show that stands with the largest gain; None where nothing feeds itself."""
    fed = flow.fed
    if not fed.node.size:
        return None
    best = (0.0, -1, [-1])
    around = _around(flow)
    for some in _sets(around):
        rows = sorted(set(fed.row[some].tolist()))
        gain, start = _most_around(around, fed, rows)
        best = max(best, (gain, start, rows), key=lambda one: one[0])
    gain, start, rows = best
    return (
        None if start < 0 else _named(fed, flow.arrays, flow.wiring, flow.layout, rows, start, gain)
    )


def _graph(fed: Fed, wiring: Wiring, layout: Layout) -> tuple[list[tuple[int, int]], Floats]:
    """Sides of strips that can be in a loop, and the size of what each passes to each."""
    rows = sorted(set(fed.row.tolist()))
    nodes = [(r, s) for r in rows for s in ((0, 1) if r >= layout.channels else (0,))]
    nodes += [(b, s) for b in range(layout.first_bus, len(layout.strips)) for s in (0, 1)]
    place = {node: number for number, node in enumerate(nodes)}
    size = np.zeros((len(nodes), len(nodes)))
    first = place[layout.first_bus, 0]
    feeding = [node for node in nodes if node[0] < layout.feeding]
    gain = np.abs(wiring.gain(np.array([strip for strip, _ in feeding], dtype=np.intp)))
    for number, (node, of_node) in enumerate(zip(feeding, gain, strict=True)):
        size[number, first:] = of_node[node[1]].reshape(-1)
    for number in range(fed.node.size):
        row, bus = int(fed.row[number]), int(fed.bus[number])
        side = int(fed.node[number] - layout.channels) % 2 if row >= layout.channels else 0
        behind = float(wiring.tap[layout.first_bus + bus, AFTER_FADER])
        for from_side in (0, 1):
            passed = float(fed.share[number, from_side]) * behind
            size[place[layout.first_bus + bus, from_side], place[row, side]] = passed
    return nodes, size


def _named(
    fed: Fed,
    arrays: Arrays,
    wiring: Wiring,
    layout: Layout,
    rows: list[int],
    start: int,
    gain: float,
) -> Loop:
    """The loop by which so much comes back to a strip, by way of it and some other fed ones."""
    strips, size = _between(fed, wiring, layout, rows)
    inside = _sets(size)
    at = next(some for some in inside if strips.index(start) in some)
    part = size[np.ix_(at, at)]
    walk = _loudest_cycle(part, int(np.flatnonzero(at == strips.index(start))[0]))
    walked = [strips[int(at[step])] for step in (*walk, walk[0])]
    beside = [strips[int(one)] for one in at if strips[int(one)] not in walked]
    return Loop(
        tuple(layout.strips[strip] for strip in walked),
        tuple(layout.strips[strip] for strip in beside),
        float(gain_to_db(gain)),
    )


def _between(fed: Fed, wiring: Wiring, layout: Layout, rows: list[int]) -> tuple[list[int], Floats]:
    """Strips that can be in a loop of some fed ones, and the size of what each passes to each."""
    nodes, size = _graph(fed, wiring, layout)
    keeps = np.array([row in rows or row >= layout.first_bus for row, _ in nodes])
    places, size = np.flatnonzero(keeps), size[np.ix_(keeps, keeps)]
    of_strip = np.array([nodes[int(place)][0] for place in places])
    strips = sorted(set(of_strip.tolist()))
    found = np.zeros((len(strips), len(strips)))
    at = np.searchsorted(strips, of_strip)
    np.add.at(found, (at[:, None], at[None, :]), size * size)
    return strips, np.sqrt(found)


def _loudest_cycle(size: Floats, start: int) -> list[int]:
    """The simple cycle through one node of the largest product, in a set where all reach one

    another. A walk over all of them, as far as a bound on the steps; where the set is too large for
    that, the loudest for its length, which a shortest-path search finds.
    """
    best = _loudest_for_its_length(size, start)
    best_gain = math.prod(float(size[a, b]) for a, b in zip(best, [*best[1:], start], strict=True))
    onward: list[list[int]] = [
        [int(to) for to in np.argsort(-row, kind="stable") if row[to] > 0.0] for row in size
    ]
    trail, on_trail = [start], {start}
    gains, choices = [1.0], [iter(onward[start])]
    for _ in range(_MOST):
        to = next(choices[-1], None)
        if to is None:
            on_trail.discard(trail.pop())
            gains.pop()
            choices.pop()
            if not trail:
                break
            continue
        gain = gains[-1] * float(size[trail[-1], to])
        if to == start and gain > best_gain * (1.0 + 1e-12):
            best_gain, best = gain, list(trail)
        elif to not in on_trail:
            trail.append(to)
            on_trail.add(to)
            gains.append(gain)
            choices.append(iter(onward[to]))
    return best


def _loudest_for_its_length(size: Floats, start: int) -> list[int]:
    """Floyd and Warshall over sizes scaled so that no cycle rises: the loudest but for length."""
    count = size.shape[0]
    radius = float(np.abs(np.linalg.eigvals(size)).max())
    scaled = size / (max(radius, 1e-300) * (1.0 + 1e-9))
    with np.errstate(divide="ignore"):  # no feed is -inf, which never wins
        most = np.log(scaled)
    onward = np.where(size > 0.0, np.arange(count)[None, :], -1)
    for via in range(count):
        through = most[:, via, None] + most[None, via, :]
        better = through > most + 1e-12
        most = np.where(better, through, most)
        onward = np.where(better, onward[:, via, None], onward)
    walk, here = [start], int(onward[start, start])
    while here != start:
        if here in walk:  # rounding made it turn within itself: the turn is left out
            del walk[walk.index(here) + 1 :]
        else:
            walk.append(here)
        here = int(onward[here, start])
    return walk
