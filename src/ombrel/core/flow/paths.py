"""The paths of one cell: every way from a source to a listener, searched along its edges.

The table answers for all cells at once by sums; here one cell is walked edge by edge, for what sums
cannot tell: the paths themselves, every cause on each, and which are the fewest to open.
"""

import heapq
from collections.abc import Callable, Iterator
from itertools import count
from typing import Final, NamedTuple, TypeVar

import numpy as np

from ..catalogue import thing_of
from ..wires import Cause, direct_out, passed, stage_of
from .edges import Closed, Edge, Edges, Node

__all__ = ["Edge", "Network", "Node", "Path"]

_POLARITY: Final = stage_of("polarity")
_Thing = TypeVar("_Thing")
_MOST: Final = 4_000  # steps of a search before it gives the best that it has found


class Path(NamedTuple):
    """Edges from the source to an ear. `causes`: what is closed on it, and `off`: addresses of

    feeds that are off on it; both in order, each once.
    """

    edges: tuple[Edge, ...]
    causes: tuple[Closed, ...]
    off: tuple[str, ...]
    gain: float

    @property
    def strips(self) -> tuple[int, ...]:
        return tuple(edge.start[0] for edge in self.edges)


def _joined(some: tuple[_Thing, ...], more: tuple[_Thing, ...]) -> tuple[_Thing, ...]:
    """Both, each thing once; as a rule there is nothing more."""
    return tuple(dict.fromkeys((*some, *more))) if more else some


class Network(Edges):
    """What can be asked of one cell's paths."""

    def _search(
        self, cost_of: Callable[[Path], tuple[float, ...]], passes: Callable[[Edge], bool]
    ) -> Iterator[Path]:
        """Paths by rising cost, none of which passes a side of a strip twice."""
        turn = count()
        queue: list[tuple[tuple[float, ...], int, Node, Path]] = []
        for start in self.starts:
            if start in self.onward:
                path = Path((), self.source_cause(), (), self.start_gain)
                heapq.heappush(queue, (cost_of(path), next(turn), start, path))
        steps = 0
        while queue and steps < _MOST:
            steps += 1
            _, _, node, path = heapq.heappop(queue)
            if path.edges and path.edges[-1].to is None:
                yield path
                continue
            been = {edge.start for edge in path.edges}
            for edge in self.onward.get(node, ()):
                if edge.to in been or edge.to == node or not passes(edge):
                    continue
                further = Path(
                    (*path.edges, edge),
                    _joined(path.causes, self.closed_at(edge)),
                    _joined(path.off, edge.off),
                    path.gain * self.gain_at(edge),
                )
                heapq.heappush(queue, (cost_of(further), next(turn), edge.to or node, further))
        self.exhausted = not queue

    def fewest(self) -> Iterator[Path]:
        """Paths with the fewest causes (and feeds off) first, among equals the fewest strips."""
        return self._search(
            lambda path: (len(path.causes) + len(path.off), len(path.edges)),
            lambda edge: True,
        )

    def loudest(self) -> Iterator[Path]:
        """Open paths, the loudest first."""
        beyond = self._most_beyond()

        def cost(path: Path) -> tuple[float, ...]:
            if not path.edges:
                ahead = max((beyond.get(s, 0.0) for s in self.starts), default=0.0)
            else:
                to = path.edges[-1].to
                ahead = 1.0 if to is None else beyond.get(to, 0.0)
            return (-abs(path.gain) * ahead,)

        return self._search(
            cost, lambda edge: self.gain_at(edge) != 0.0 and edge.socket is not None
        )

    def _most_beyond(self) -> dict[Node, float]:
        """Gain of the loudest way from each node to an ear (no loop reaches 0 dB, so it ends)."""
        most: dict[Node, float] = {}
        moved = True
        while moved:
            moved = False
            for node, edges in self.onward.items():
                for edge in edges:
                    ahead = 1.0 if edge.to is None else most.get(edge.to, 0.0)
                    gain = abs(self.gain_at(edge)) * ahead if edge.socket is not None else 0.0
                    if gain > most.get(node, 0.0) * (1.0 + 1e-12):
                        most[node], moved = gain, True
        return most

    # ---- answers

    def cancels(self, limit: float) -> bool:
        """Whether in each ear that open paths reach, the sum lies `limit` below the largest."""
        real = np.abs(self.amplitudes())
        largest: dict[int, float] = {}
        for path in self.loudest():
            ear = path.edges[-1].ear
            largest.setdefault(ear, abs(path.gain))
            if len(largest) == 2:
                break
        return bool(largest) and all(
            real[ear] <= limit * most * (1.0 + 1e-9) for ear, most in largest.items()
        )

    def amplitudes(self) -> np.ndarray:
        """What arrives at each ear, all paths and rounds together."""
        flow = self.flow
        if self.column < self.layout.buses:
            at = flow.arriving(np.array([self.row]), np.array([self.column]))[0, 0]
            ears: np.ndarray = at @ flow.ears.gain[self.column]
            return ears
        place = self.column - self.layout.buses  # an output socket
        channel = int(direct_out(flow.arrays.out_source[place])[0])
        amount = self.start_gain if channel == self.row else 0.0
        for fed in np.flatnonzero(flow.fed.row[: flow.fed.dry] == channel):
            amount += float(flow.at_fed[self.row, fed])
        gain = flow.wiring.tap[channel, int(flow.arrays.out_tap[place])]
        return np.array([amount * float(gain) * float(flow.arrays.out_trim[place]), 0.0])

    def turned(self) -> tuple[str, ...]:
        """Addresses of the polarities that turn an open path over."""
        found: dict[str, None] = {}
        for path in self.loudest():
            for edge in path.edges:
                strip = edge.start[0]
                if self.flow.arrays.stage[strip, _POLARITY] < 0.0 and passed(edge.tap) > _POLARITY:
                    found[f"{self.layout.strips[strip]}/polarity"] = None
        return tuple(sorted(found, key=self._order))

    def causes(self) -> tuple[Closed, ...]:
        """Every cause on every path whose feeds are on, in the order of the strips."""
        found = dict.fromkeys(self.source_cause() if self.onward else ())
        for edge in self.edges_of_paths():
            found.update(dict.fromkeys(self.closed_at(edge)))
        return tuple(
            sorted(found, key=lambda one: (one[0] != Cause.NO_SOURCE, self._order(one[1])))
        )

    def _order(self, address: str) -> tuple[int, str]:
        strip = thing_of(address)
        return self.layout.index.get(strip, len(self.layout.strips)), address

    def edges_of_paths(self) -> list[Edge]:
        """The edges that lie on some path. Where strips feed one another, paths are walked; past a

        bound, every edge between the source and the listener counts.
        """
        every = [edge for edges in self.onward.values() for edge in edges]
        ahead = self._leads_on()
        every = [edge for edge in every if edge.to is None or edge.to in ahead]
        if not self._turns_back():
            return every
        found: dict[Edge, None] = {}
        for path in self._search(lambda path: (float(len(path.edges)),), lambda edge: True):
            found.update(dict.fromkeys(path.edges))
        return list(found) if self.exhausted else every

    def _leads_on(self) -> set[Node]:
        """Nodes from which an end is reached."""
        found = {n for n, edges in self.onward.items() if any(e.to is None for e in edges)}
        while True:
            more = {
                node for node, edges in self.onward.items() if any(e.to in found for e in edges)
            } | found
            if more == found:
                return found
            found = more

    def _turns_back(self) -> bool:
        """Whether some walk comes back to where it was."""
        waiting = {node: 0 for node in self.onward}
        for edges in self.onward.values():
            for edge in edges:
                if edge.to is not None:
                    waiting[edge.to] += 1
        ready = [node for node, left in waiting.items() if left == 0]
        done = 0
        while ready:
            done += 1
            for edge in self.onward[ready.pop()]:
                if edge.to is not None:
                    waiting[edge.to] -= 1
                    if waiting[edge.to] == 0:
                        ready.append(edge.to)
        return done < len(waiting)

    def feeds_off(self) -> tuple[str, ...]:
        """What is off on the paths with the fewest feeds off and, among equals, fewest strips.

        For a network of possible feeds. Addresses in the order of the strips.
        """

        def cost(edge: Edge) -> int:
            return (10_000 if edge.off else 0) + 1

        least: dict[Node, int] = {start: 0 for start in self.starts if start in self.onward}
        queue = [(0, start) for start in least]
        ends: list[tuple[int, Edge]] = []
        while queue:
            so_far, node = heapq.heappop(queue)
            if so_far > least[node]:
                continue
            for edge in self.onward.get(node, ()):
                if edge.to is None:
                    ends.append((so_far, edge))
                elif so_far + cost(edge) < least.get(edge.to, 1 << 60):
                    least[edge.to] = so_far + cost(edge)
                    heapq.heappush(queue, (least[edge.to], edge.to))
        if not ends:
            return ()
        best = min(so_far for so_far, _ in ends)
        into: dict[Node, list[Edge]] = {}
        for edges in self.onward.values():
            for edge in edges:
                so_far = least.get(edge.start, 1 << 60) + cost(edge)
                if edge.to is not None and so_far == least.get(edge.to):
                    into.setdefault(edge.to, []).append(edge)
        waiting = [edge.start for so_far, edge in ends if so_far == best]
        seen, found = set(waiting), dict[str, None]()
        while waiting:
            for edge in into.get(waiting.pop(), ()):
                found.update(dict.fromkeys(edge.off))
                if edge.start not in seen:
                    seen.add(edge.start)
                    waiting.append(edge.start)
        return tuple(found)
