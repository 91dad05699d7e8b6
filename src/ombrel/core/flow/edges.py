"""The edges of one cell: what leads from its source towards its listener, as a small network."""

from collections.abc import Iterator
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ..catalogue import of_kind
from ..wires import (
    AFTER_FADER,
    CLOSES,
    STAGES,
    Cause,
    Layout,
    closers,
    direct_out,
    feed_address,
    feed_kind,
    passed,
)

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Closed", "Edge", "Edges", "Node"]

Node = tuple[int, int]  # a strip and its side
Closed = tuple[Cause, str]  # what stands in the way, and its address


class Edge(NamedTuple):
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


class Edges:
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
        # strips that may feed a bus, and how loud their feeds are: the same for every node
        feeding = [row, *range(self.layout.first_bus, self.layout.feeding)]
        feeding += [int(r) for r in dict.fromkeys(flow.fed.row.tolist()) if r != row]
        self._feeding = np.array(feeding)
        self._live = flow.wiring.live(self._feeding)
        self._fed: dict[int, list[int]] = {}
        for place, strip in enumerate(flow.fed.row.tolist()):
            self._fed.setdefault(strip, []).append(place)
        self._closed: dict[tuple[int, int], tuple[Closed, ...]] = {}
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
            of_rows, of_sides = direct_out(arrays.out_source[place : place + 1])
            row, side = int(of_rows[0]), int(of_sides[0])
            if not 0 <= row < layout.rows:
                return []
            trim = float(arrays.out_trim[place])
            tap = int(arrays.out_tap[place])
            socket = layout.outputs[place]
            if row >= layout.channels and side == 2:  # half of each of a return's sides
                ends = [(one, trim * 0.5) for one in (0, 1)]
            else:
                ends = [(side % 2, trim)]
            return [Edge((row, one), None, tap, gain, socket=socket) for one, gain in ends]
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
            for place in self._fed.get(strip, ()):
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
        at = self._feeding
        if self.possible:
            sides = flow.arrays.sides[at]
            possible = _possible_feeds(self.layout)[at, column] & (sides > 0)
            for candidate in at[possible]:
                yield from self._possible_edges(int(candidate), node)
            return
        shares = flow.wiring.share[at, :, column, side] * self._live[:, column, None]
        for place, from_side in np.argwhere(shares > 0.0):
            start = int(at[place])
            tap = int(flow.arrays.tap[start, column])
            yield Edge((start, int(from_side)), node, tap, float(shares[place, from_side]))

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
        strip, tap = edge.start[0], edge.tap
        found = self._closed.get((strip, tap))
        if found is None:  # asked of every edge of every path, and the same for all from here
            found = self._closed[strip, tap] = self._closed_before(strip, tap)
        if edge.to is None and edge.socket is None:
            lacking = self.layout.strips[strip]
            if self.flow.ears.patched[self.column].any():
                lacking += ("/left", "/right")[edge.start[1]]
            return (*found, (Cause.NO_OUTPUT, lacking))
        return found

    def _closed_before(self, strip: int, tap: int) -> tuple[Closed, ...]:
        gains = self.flow.arrays.stage[strip, : passed(tap)]
        name = self.layout.strips[strip]
        found: list[Closed] = []
        for place in np.flatnonzero(gains == 0.0).tolist():
            at = [f"{name}/{STAGES[place].leaf}"]
            if STAGES[place].ruled:
                at = closers(self.flow.arrays, self.layout, strip, place)
            found += [(Cause(int(CLOSES[place])), address) for address in at]
        return tuple(found)

    def gain_at(self, edge: Edge) -> float:
        """Gain from the strip's input through the edge."""
        return float(self.flow.wiring.tap[edge.start[0], edge.tap]) * edge.gain

    def source_cause(self) -> tuple[Closed, ...]:
        if self.flow.sourced[self.row]:
            return ()
        return ((Cause.NO_SOURCE, self.layout.strips[self.row]),)


@lru_cache(maxsize=16)
def _possible_feeds(layout: Layout) -> np.ndarray:
    """Which strips may feed which buses, by their kinds; shape (feeding, buses)."""
    kinds = [of_kind(strip) for strip in layout.strips]
    return np.array(
        [
            [
                bool(feed_kind(one, other)) and place != at
                for at, other in enumerate(kinds[layout.first_bus :], layout.first_bus)
            ]
            for place, one in enumerate(kinds[: layout.feeding])
        ]
    )
