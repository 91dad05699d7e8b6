"""The paths of one cell: every way from a source to a listener, side by side, as a small network.

The table answers for all cells at once by sums; here one cell is walked edge by edge, for what sums
cannot tell: the paths themselves, every cause on each, and which are the fewest to open.
"""

import heapq
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import count
from typing import TYPE_CHECKING, Final

import numpy as np

from .homes import DIRECT, feed_address, feed_kind
from .layout import Layout
from .stages import AFTER_FADER, CLOSES, STAGES, Cause, passed, stage_of

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Edge", "Network", "Node", "Path"]

Node = tuple[int, int]  # a strip and its side
Closed = tuple[Cause, str]  # what stands in the way, and its address
_POLARITY: Final = stage_of("polarity")
_MOST: Final = 4_000  # steps of a search before it gives the best that it has found


@dataclass(frozen=True, slots=True)
class Edge:
    """One step of a path: from a strip's side, at a tap, to a strip's side or, at the end, an ear.

    `gain`: of the feed or socket alone. `off`: addresses of what is off there. `to` None: it ends
    at `ear`, through `socket` ("" where none is needed, None where one is missing).
    """

    start: Node
    to: Node | None
    tap: int
    gain: float
    off: tuple[str, ...] = ()
    ear: int = 0
    socket: str | None = ""


@dataclass(frozen=True, slots=True)
class Path:
    """Edges from the source to an ear. `causes`: what is closed on it, in order, each once."""

    edges: tuple[Edge, ...]
    causes: tuple[Closed, ...]
    gain: float

    @property
    def strips(self) -> tuple[int, ...]:
        return tuple(edge.start[0] for edge in self.edges)

    @property
    def off(self) -> tuple[str, ...]:
        return tuple(dict.fromkeys(address for edge in self.edges for address in edge.off))


class Network:
    """The edges that lie between a row and a column. `possible`: feeds that are off count too.

    `wet`: through effect engines as well.
    """

    def __init__(
        self, flow: "Flow", row: int, column: int, *, possible: bool = False, wet: bool = False
    ) -> None:
        self.flow, self.row, self.column = flow, row, column
        self.layout: Layout = flow.layout
        self.possible = possible
        self.wet = wet
        sides = (0, 1) if row >= self.layout.channels else (0,)
        self.starts: tuple[Node, ...] = tuple((row, side) for side in sides)
        half = float(np.sqrt(0.5)) if len(sides) == 2 else 1.0
        self.start_gain = half
        self.into: dict[Node, list[Edge]] = {}
        self.onward: dict[Node, list[Edge]] = {}
        self._build()

    # ---- the edges

    def _build(self) -> None:
        """Backwards from the listener, then only what the source reaches."""
        ends = self._ends()
        waiting = list(dict.fromkeys(edge.start for edge in ends))
        seen = set(waiting)
        back: dict[Node, list[Edge]] = {}
        while waiting:
            node = waiting.pop()
            for edge in self._leading_to(node):
                back.setdefault(edge.start, []).append(edge)
                if edge.start not in seen:
                    seen.add(edge.start)
                    waiting.append(edge.start)
        forward, reached = [s for s in self.starts if s in seen], set()
        while forward:
            node = forward.pop()
            if node in reached:
                continue
            reached.add(node)
            self.onward[node] = back.get(node, [])
            forward += [edge.to for edge in self.onward[node] if edge.to is not None]
        ends = [edge for edge in ends if edge.start in reached]
        # a side that lacks a socket counts only where no path leads to one that has
        served = [edge for edge in ends if edge.socket is not None]
        for edge in served if served and not self.possible else ends:
            self.onward[edge.start] = [*self.onward[edge.start], edge]

    def _strip_sides(self, strip: int) -> int:
        return int(self.flow.arrays.sides[strip])

    def _ends(self) -> list[Edge]:
        flow, layout = self.flow, self.layout
        arrays, column = flow.arrays, self.column
        if column >= layout.buses:
            place = column - layout.buses
            channel = DIRECT - int(arrays.out_source[place])
            if not 0 <= channel < layout.channels:
                return []
            trim = float(arrays.out_trim[place])
            tap = int(arrays.out_tap[place])
            return [Edge((channel, 0), None, tap, trim, socket=layout.outputs[place])]
        strip = layout.first_bus + column
        sides = self._strip_sides(strip)
        carrying = flow.sockets_of(column)
        own = {side for side, *_ in carrying if side < 2}
        found = []
        for side in range(sides):
            for which, socket, tap, trim in carrying:
                if sides == 1:
                    found.append(Edge((strip, side), None, tap, trim, (), 0, socket))
                elif which == side:
                    found.append(Edge((strip, side), None, tap, trim, (), side, socket))
                elif which == 2:
                    # the sum serves each ear that has no socket of its own; one if both lack it
                    ears = [ear for ear in (0, 1) if ear not in own][: 1 if not own else 2]
                    found += [Edge((strip, side), None, tap, trim * 0.5, (), e, socket)
                              for e in ears]  # fmt: skip
            if not any(edge.start == (strip, side) for edge in found):
                found.append(Edge((strip, side), None, AFTER_FADER, 1.0, (), side, None))
        return found

    def _leading_to(self, node: Node) -> Iterator[Edge]:
        strip, side = node
        flow, layout = self.flow, self.layout
        if strip < layout.first_bus:
            fed = flow.fed
            for place in np.flatnonzero(fed.row == strip):
                if fed.wet[place] and not self.wet:
                    continue
                if strip >= layout.channels and int(fed.node[place] - layout.channels) % 2 != side:
                    continue
                bus = layout.first_bus + int(fed.bus[place])
                for from_side in (0, 1):
                    share = float(fed.share[place, from_side])
                    if share > 0.0:
                        yield Edge((bus, from_side), node, AFTER_FADER, share)
            return
        column = strip - layout.first_bus
        candidates = [self.row, *range(layout.first_bus, layout.feeding)]
        candidates += [int(r) for r in dict.fromkeys(flow.fed.row.tolist()) if r != self.row]
        at = np.array(candidates)
        if self.possible:
            sides = flow.arrays.sides[at]
            possible = self._possible_kinds()[at, column] & (sides > 0)
            for candidate in at[possible]:
                yield from self._possible_edges(int(candidate), node)
            return
        shares = flow.wiring.share[at, :, column, side] * flow.wiring.live(at)[:, column, None]
        for place, from_side in np.argwhere(shares > 0.0):
            start = int(at[place])
            tap = int(flow.arrays.tap[start, column])
            yield Edge((start, int(from_side)), node, tap, float(shares[place, from_side]))

    def _possible_kinds(self) -> np.ndarray:
        return possible_feeds(self.layout)

    def _possible_edges(self, start: int, node: Node) -> Iterator[Edge]:
        flow, layout = self.flow, self.layout
        strip, side = node
        column = strip - layout.first_bus
        first, second = self._strip_sides(start), self._strip_sides(strip)
        source, bus = layout.strips[start], layout.strips[strip]
        switches = []
        if flow.arrays.amp[start, column] == 0.0:
            switches.append(feed_address(source, bus, "level"))
        if flow.arrays.on[start, column] == 0.0:
            switches.append(feed_address(source, bus, "on"))
        tap = int(flow.arrays.tap[start, column])
        for from_side in range(first):
            if first == 2 and second == 2 and from_side != side:
                continue
            share = float(flow.wiring.share[start, from_side, column, side])
            off = tuple(switches)
            if not off and share == 0.0:
                off = (feed_address(source, bus, "pan"),)
            live = float(flow.arrays.amp[start, column] * flow.arrays.on[start, column])
            yield Edge((start, from_side), node, tap, share * live, off)

    # ---- what a search needs

    def closed_at(self, edge: Edge) -> tuple[Closed, ...]:
        """What is closed in the strip before an edge's tap, and a socket that is missing."""
        strip = edge.start[0]
        gains = self.flow.arrays.stage[strip, : passed(edge.tap)]
        name = self.layout.strips[strip]
        found = [
            (Cause(int(CLOSES[place])), f"{name}/{STAGES[place].leaf}")
            for place in np.flatnonzero(gains == 0.0)
        ]
        if edge.to is None and edge.socket is None:
            lacking = name
            if self.flow.ears.patched[self.column].any():
                lacking += ("/left", "/right")[edge.start[1]]
            found.append((Cause.NO_OUTPUT, lacking))
        return tuple(found)

    def gain_at(self, edge: Edge) -> float:
        """Gain from the strip's input through the edge."""
        return float(self.flow.wiring.tap[edge.start[0], edge.tap]) * edge.gain

    def source_cause(self) -> tuple[Closed, ...]:
        if self.flow.sourced[self.row]:
            return ()
        return ((Cause.NO_SOURCE, self.layout.strips[self.row]),)

    # ---- searches

    def _search(
        self, cost_of: Callable[[Path], tuple[float, ...]], passes: Callable[[Edge], bool]
    ) -> Iterator[Path]:
        """Paths by rising cost, none of which passes a side of a strip twice."""
        turn = count()
        queue: list[tuple[tuple[float, ...], int, Node, Path]] = []
        for start in self.starts:
            if start in self.onward:
                path = Path((), self.source_cause(), self.start_gain)
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
                causes = dict.fromkeys((*path.causes, *self.closed_at(edge)))
                gain = path.gain * self.gain_at(edge)
                further = Path((*path.edges, edge), tuple(causes), gain)
                heapq.heappush(queue, (cost_of(further), next(turn), edge.to or node, further))
        self.exhausted = not queue

    def fewest(self) -> Iterator[Path]:
        """Paths with the fewest causes (and feeds off) first, among equals the fewest strips."""
        return self._search(
            lambda path: (float(len(path.causes) + len(path.off)), float(len(path.edges))),
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

    def first_name(self) -> Cause | None:
        """The cause that names the state: of the path with the fewest, the first in order."""
        least: int | None = None
        name: Cause | None = None
        for path in self.fewest():
            if least is not None and len(path.causes) > least:
                break
            least = len(path.causes)
            for cause, _ in path.causes:
                name = cause if name is None else min(name, cause)
        return name

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
        channel = DIRECT - int(flow.arrays.out_source[place])
        amount = 1.0 if channel == self.row else 0.0
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
        strip = address.rpartition("/")[0] if address not in self.layout.index else address
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


_POSSIBLE: dict[str, np.ndarray] = {}


def possible_feeds(layout: Layout) -> np.ndarray:
    """Which strips may feed which buses, by their kinds; shape (feeding, buses)."""
    known = _POSSIBLE.get(layout.desk.key)
    if known is None or known.shape != (layout.feeding, layout.buses):
        kinds = [strip.split("/")[0] for strip in layout.strips]
        known = np.array(
            [
                [bool(feed_kind(one, other)) for other in kinds[layout.first_bus :]]
                for one in kinds[: layout.feeding]
            ]
        )
        _POSSIBLE[layout.desk.key] = known
    return known
