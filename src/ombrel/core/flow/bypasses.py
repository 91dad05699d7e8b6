"""Ways to a listener that pass round a strip: a shortest one of each source, by feeds that are on.

Whatever sources, mutes and faders do: this is the patch. Where a way is open now, that is told.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..values import UnknownAddress
from ..wires import AFTER_FADER, at_taps, feed_address
from .table import Flow

__all__ = ["Bypass", "Bypasses", "behind_faders", "same_ways"]

Node = tuple[int, int]
_Onward = dict[Node, Node | None]


@dataclass(frozen=True, slots=True)
class Bypass:
    """A way from a source to a listener: its strips in order, both ends included, and for each step

    the address of the feed that it takes ("" where a strip is fed as its source). `open`: the
    source is there, and nothing is closed on the way up to the listener. `wet`: it goes through an
    effect.
    """

    strips: tuple[str, ...]
    feeds: tuple[str, ...]
    open: bool
    wet: bool


class Bypasses:
    """All ways to one strip that pass round some others, searched backwards from it once."""

    def __init__(
        self, flow: Flow, listener: str, around: Iterable[str] = (), *, wet: bool = True
    ) -> None:
        """`listener`: a bus, or a channel or return, to whose input ways then lead. `wet`: ways

        through effects count. Raises UnknownAddress for a strip that the desk has not.
        """
        self._wet = wet
        self._flow, self._layout = flow, flow.layout
        if listener not in flow.layout.index:
            raise UnknownAddress(listener, f"{flow.layout.desk.name} has no such strip")
        self._listener = flow.layout.index[listener]
        self._barred = {flow.layout.index[strip] for strip in around}
        feeding = slice(0, flow.layout.feeding)
        on = flow.wiring.on(feeding)
        passed = at_taps(flow.wiring.tap[feeding], flow.arrays.tap[feeding]) != 0.0
        behind = flow.wiring.tap[flow.layout.first_bus :, AFTER_FADER] != 0.0
        self._open = self._searched(on & passed[:, None, :, None], behind)
        self._every = self._searched(on, np.ones_like(behind))

    def _searched(self, on: NDArray[np.bool_], behind: NDArray[np.bool_]) -> _Onward:
        """From each node that leads to the listener the next one, breadth first: so the shortest.

        `on`, shape (feeding, 2, buses, 2): feeds to walk by; `behind` (buses,): buses that pass on
        what they feed as a source.
        """
        sides = range(int(self._flow.arrays.sides[self._listener]))
        here: list[Node] = [(self._listener, side) for side in sides]
        if self._listener in self._barred:
            return {}
        onward: _Onward = dict.fromkeys(here)
        while here:
            further: list[Node] = []
            for node in here:
                for before in self._leading_to(node, on, behind):
                    if before not in onward and before[0] not in self._barred:
                        onward[before] = node
                        further.append(before)
            here = further
        return onward

    def _leading_to(
        self, node: Node, on: NDArray[np.bool_], behind: NDArray[np.bool_]
    ) -> list[Node]:
        strip, side = node
        first = self._layout.first_bus
        if strip >= first:
            return [(int(s), int(f)) for s, f in np.argwhere(on[:, :, strip - first, side])]
        fed, channels = self._flow.fed, self._layout.channels
        found: list[Node] = []
        for place in np.flatnonzero(fed.row == strip):
            if fed.wet[place] and not self._wet:
                continue
            if strip >= channels and int(fed.node[place] - channels) % 2 != side:
                continue
            bus = int(fed.bus[place])
            sides = np.flatnonzero(fed.share[place] > 0.0) if behind[bus] else ()
            found += [(first + bus, int(from_side)) for from_side in sides]
        return found

    def of(self, source: str) -> Bypass | None:
        """A way of a source, or None. A strip is no way to itself. Raises KeyError for no strip."""
        strip = self._layout.index[source]
        if strip == self._listener:
            return None
        there = strip >= self._layout.rows or bool(self._flow.sourced[strip])
        for onward, is_open in ((self._open, True), (self._every, False)):
            ways = [_walked(onward, (strip, s)) for s in (0, 1) if (strip, s) in onward]
            if ways and (there or not is_open):
                return self._told(min(ways, key=len), is_open)
        return None

    def _told(self, way: list[Node], is_open: bool) -> Bypass:
        names = [self._layout.strips[strip] for strip, _ in way]
        feeds = [
            feed_address(names[place], names[place + 1], "on")
            if way[place + 1][0] >= self._layout.first_bus
            else ""
            for place in range(len(way) - 1)
        ]
        wet = any(
            way[p][0] >= self._layout.channels and not feed for p, feed in enumerate(feeds, 1)
        )
        return Bypass(tuple(names), tuple(feeds), is_open, wet)


def _walked(onward: _Onward, start: Node) -> list[Node]:
    way, node = [start], onward[start]
    while node is not None:
        way.append(node)
        node = onward[node]
    return way


def behind_faders(flow: Flow) -> NDArray[np.bool_]:
    """Which strips lie behind the faders of which, by feeds that are on: shape (strips, strips),

    [a, b] is true where what leaves a's fader goes into b, through whatever lies between.
    """
    layout, wiring = flow.layout, flow.wiring
    strips, first = len(layout.strips), layout.first_bus
    feeding = slice(0, layout.feeding)
    on = wiring.on(feeding)
    onward = np.zeros((strips, strips), dtype=bool)
    onward[: layout.feeding, first:] = on.any(axis=(1, 3))
    leaving = onward.copy()
    at_fader = flow.arrays.tap[feeding] == AFTER_FADER
    leaving[: layout.feeding, first:] = (on.any(axis=(1, 3))) & at_fader
    for place, row in enumerate(flow.fed.row):  # what a bus feeds as a source, effects too
        if (flow.fed.share[place] > 0.0).any():
            bus = first + int(flow.fed.bus[place])
            onward[bus, row] = leaving[bus, row] = True
    reached = onward | np.eye(strips, dtype=bool)
    while True:
        further = (reached.astype(np.float32) @ reached.astype(np.float32)) > 0.0
        if np.array_equal(further, reached):
            break
        reached = further
    found = (leaving.astype(np.float32) @ reached.astype(np.float32)) > 0.0
    np.fill_diagonal(found, False)
    return found


def same_ways(before: Flow, after: Flow) -> bool:
    """Whether the same feeds are on and the same strips fed: all that ways hang on."""
    one, other = before.wiring, after.wiring
    every = slice(0, before.layout.feeding)
    return (
        before.layout is after.layout
        and np.array_equal(one.live(every) > 0.0, other.live(every) > 0.0)
        and (one.share is other.share or np.array_equal(one.share > 0.0, other.share > 0.0))
        and np.array_equal(before.fed.node, after.fed.node)
        and np.array_equal(before.fed.bus, after.fed.bus)
        and np.array_equal(before.fed.share, after.fed.share)
    )
