"""Loops: found where strips feed one another, refused at 0 dB and above, named as they close."""

import math
from typing import TYPE_CHECKING, Final

import numpy as np
from scipy.sparse import csr_array
from scipy.sparse.csgraph import connected_components

from ..errors import FeedbackLoop
from ..laws import gain_to_db
from .arrays import Arrays, Floats
from .fed import Fed
from .layout import Layout
from .stages import AFTER_FADER
from .wiring import Wiring, spread

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Loop", "has_loop", "loudest_loop", "refuse_howling"]

UNITY: Final = 1.0 - 1e-9  # within 10^-9 of unity counts as 0 dB
_MOST: Final = 20_000  # steps of the search for the loudest loop before the best so far is named


class Loop:
    """A loop: the strips that it passes, ending where it began, and its gain once around in dB.

    `together_db`: of all loops of its set together.
    """

    def __init__(self, nodes: tuple[str, ...], gain_db: float, together_db: float) -> None:
        self.nodes, self.gain_db, self.together_db = nodes, gain_db, together_db


def _strongest(around: Floats) -> float:
    """Spectral radius of what fed nodes pass to one another (sizes): all loops together.

    Below 0 dB an upper bound of it may stand for it, since nothing is refused there.
    """
    most = min(float(around.sum(axis=0).max()), float(around.sum(axis=1).max()))
    if most < UNITY:  # no radius is above the largest sum
        return most
    count, label = connected_components(csr_array(around > 0.0), directed=True, connection="strong")
    if count == around.shape[0]:
        return float(np.diagonal(around).max())
    strongest = float(np.diagonal(around).max())
    for one in range(count):
        inside = np.flatnonzero(label == one)
        if inside.size > 1:
            values = np.linalg.eigvals(around[np.ix_(inside, inside)])
            strongest = max(strongest, float(np.abs(values).max()))
    return strongest


def refuse_howling(
    around: Floats, fed: Fed, arrays: Arrays, wiring: Wiring, layout: Layout
) -> None:
    """Raise FeedbackLoop if any loop, or all of a set together, reaches 0 dB.

    `around`, shape (K, K): sizes of what each fed node passes to each other (sizes count, so that
    no loop is held down by polarity alone). Wet ways count too.
    """
    if not fed.node.size or _strongest(around) < UNITY:
        return
    loop = _named(fed, arrays, wiring, layout)
    raise FeedbackLoop(loop.nodes, loop.gain_db, loop.together_db)


def has_loop(flow: "Flow") -> bool:
    """Whether any strips of a show truly feed one another, however faintly."""
    if not flow.fed.node.size:
        return False
    behind = flow.wiring.tap[flow.layout.first_bus :, AFTER_FADER]
    straight = np.abs(flow.wiring.straight(flow.fed.node))
    around = flow.fed.taken(spread(straight, flow.wiring.of_buses, flow.layout), behind)
    if not around.any():
        return False
    count, _ = connected_components(csr_array(around > 0.0), directed=True, connection="strong")
    return bool(count < around.shape[0] or np.diagonal(around).any())


def loudest_loop(flow: "Flow") -> Loop | None:
    """The loudest loop of a show that stands, or None where nothing feeds itself."""
    if not has_loop(flow):
        return None
    return _named(flow.fed, flow.arrays, flow.wiring, flow.layout)


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


def _named(fed: Fed, arrays: Arrays, wiring: Wiring, layout: Layout) -> Loop:
    """The loudest loop over all sets, with its own gain, and that of its set together."""
    nodes, size = _graph(fed, wiring, layout)
    _, label = connected_components(csr_array(size > 0.0), directed=True, connection="strong")
    best: tuple[float, list[int]] = (0.0, [])
    strongest = 0.0
    for one in np.unique(label):
        inside = np.flatnonzero(label == one)
        if inside.size < 2:
            continue
        part = size[np.ix_(inside, inside)]
        gain, walk = _loudest_cycle(part)
        if gain > best[0] * (1.0 + 1e-12):
            best = (gain, [int(inside[step]) for step in walk])
        length = len(walk)
        strongest = max(strongest, _once_around(part, length, gain))
    strips = [nodes[step][0] for step in best[1]]
    start = strips.index(min(strips))
    walked = [*strips[start:], *strips[:start]]
    named = tuple(layout.strips[strip] for strip in (*walked, walked[0]))
    gain_db = float(gain_to_db(best[0]))
    return Loop(named, gain_db, max(gain_db, float(gain_to_db(strongest))))


def _once_around(part: Floats, length: int, gain: float) -> float:
    """What all loops of a set amount to, put as the gain of one round of the loudest's length."""
    radius = float(np.abs(np.linalg.eigvals(part)).max())
    return max(gain, radius**length)


def _loudest_cycle(size: Floats) -> tuple[float, list[int]]:
    """The simple cycle of the largest product, in a set where all reach one another.

    A walk over all simple cycles, each from its lowest node, as far as a bound on the steps; where
    the set is too large for that, the loudest for its length, which a shortest-path search finds.
    """
    best_gain, best = _loudest_for_its_length(size)
    onward: list[list[int]] = [
        [int(to) for to in np.argsort(-row, kind="stable") if row[to] > 0.0] for row in size
    ]
    steps = 0
    for start in range(size.shape[0]):
        trail, on_trail = [start], {start}
        gains, choices = [1.0], [iter(onward[start])]
        while trail and steps < _MOST:
            steps += 1
            to = next(choices[-1], None)
            if to is None:
                on_trail.discard(trail.pop())
                gains.pop()
                choices.pop()
                continue
            gain = gains[-1] * float(size[trail[-1], to])
            if to == start and gain > best_gain * (1.0 + 1e-12):
                best_gain, best = gain, list(trail)
            elif to > start and to not in on_trail:
                trail.append(to)
                on_trail.add(to)
                gains.append(gain)
                choices.append(iter(onward[to]))
    return best_gain, best


def _loudest_for_its_length(size: Floats) -> tuple[float, list[int]]:
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
    start = int(np.argmax(np.diagonal(most)))
    walk, here = [start], int(onward[start, start])
    while here != start and len(walk) <= count and here >= 0:
        if here in walk:  # rounding made it turn within itself: that turn is a loop too
            walk = walk[walk.index(here) :]
            break
        walk.append(here)
        here = int(onward[here, start])
    gain = math.prod(float(size[a, b]) for a, b in zip(walk, [*walk[1:], walk[0]], strict=True))
    return gain, walk
