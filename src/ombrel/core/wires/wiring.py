"""Strips and feeds as gains: what a strip's taps pass, and what each feed adds of it to a bus."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from .arrays import Arrays, Floats
from .layout import Layout
from .sides import side_gains
from .stages import AFTER_FADER, CLOSES, Cause, running

__all__ = [
    "WEIGHTS",
    "Wiring",
    "at_taps",
    "cause_of_weight",
    "either",
    "into_matrices",
    "reweighed",
    "rewired",
    "spread",
    "wired",
]

Indices = NDArray[np.intp]

# The weight of a path's causes orders paths as the table's states want it: fewer causes first, and
# among equals those with the cause that names the state first. As one number, it can be added.
_MANY: Final = 4096.0  # more causes than any path has; its fourth power is still exact
_EACH: Final = _MANY**3
WEIGHTS: Final = {
    Cause.NO_SOURCE: _EACH - _MANY**2,
    Cause.MUTED: _EACH - _MANY,
    Cause.DOWN: _EACH - 1.0,
    Cause.NO_OUTPUT: _EACH,
}
_STAGE_WEIGHTS: Final = np.array([0.0 if c < 0 else WEIGHTS[Cause(c)] for c in CLOSES])


def either(sides: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Whether one of two sides, the last axis, is so (numpy's `any` is slow over so few)."""
    found: NDArray[np.bool_] = sides[..., 0] | sides[..., 1]
    return found


def at_taps(values: Floats, tap: Floats) -> Floats:
    """Values of strips at the taps of their feeds: of (n, taps) what `tap` (n, buses) names."""
    found: Floats = values[np.arange(tap.shape[0])[:, None], tap.astype(np.intp)]
    return found


def cause_of_weight(weight: Floats) -> NDArray[np.int8]:
    """The `Cause` that names a path of this weight (0.0 and inf name none: any answer)."""
    finite = np.where(np.isfinite(weight), weight, 0.0)
    first = np.ceil(finite / _EACH) * _EACH - finite
    steps = (first < _MANY**2).astype(np.int8) + (first < _MANY) + (first < 1.0)
    return steps.astype(np.int8)


@dataclass(frozen=True, slots=True, eq=False)
class Wiring:
    """Gains of strips and feeds. `tap` and `closed`, shape (strips, taps): gain from the strip's

    input to each tap, and the weight of the closed stages before it. `share`, shape (feeding, 2,
    buses, 2): the part of each side that a feed takes to each side. `of_buses`, shape (buses but
    matrices, 2, buses, 2): gain from a bus's input to what it feeds, all in all; `on_of_buses`: 1.0
    where such a feed is on, `weight_of_buses`: of what is closed before it, inf where it is off.
    What is needed of a few strips only is worked out when it is asked for: fresh memory costs more
    than sums.
    """

    arrays: Arrays
    layout: Layout
    tap: Floats
    closed: Floats
    share: Floats
    of_buses: Floats
    on_of_buses: Floats
    weight_of_buses: Floats

    def live(self, strips: slice | Indices) -> Floats:
        """Each feed's own gain, 0.0 when it is off; shape (n, buses)."""
        return self.arrays.amp[strips] * self.arrays.on[strips]

    def on(self, strips: slice | Indices) -> NDArray[np.bool_]:
        """Which sides of some strips feed which sides of the buses, whatever the strips pass."""
        return (self.share[strips] > 0.0) & (self.live(strips) > 0.0)[:, None, :, None]

    def leads(self, strips: slice | Indices) -> NDArray[np.bool_]:
        """Which buses some strips feed, by any side, whatever they pass; shape (n, buses)."""
        on = self.on(strips)
        return either(on[:, 0] | on[:, 1])

    def straight_on(self, nodes: Indices) -> Floats:
        """Which sides of the buses the sides of channels and returns feed: 1.0, a row a node."""
        strips, sides = self.layout.row_of_node[nodes], self.layout.side_of_node[nodes]
        on = (self.share[strips, sides] > 0.0) & (self.live(strips) > 0.0)[:, :, None]
        return on.astype(np.float32)

    def gain(self, strips: slice | Indices) -> Floats:
        """Gain from a strip's input by each feed to the bus, shape (n, 2, buses, 2)."""
        return self.share[strips] * self._passed(strips)[:, None, :, None]

    def weight(self, strips: slice | Indices, columns: Indices | None = None) -> Floats:
        """Weight of what is closed in each strip before the tap of each feed, shape (n, buses);

        `columns`: of the feeds to some buses.
        """
        tap = self.arrays.tap[strips]
        taps = tap if columns is None else tap[:, columns]
        return at_taps(self.closed[: self.layout.feeding][strips], taps)

    def behind_buses(self) -> Floats:
        """Weight of what is closed in each bus before the tap behind its fader, shape (buses,)."""
        return self.closed[self.layout.first_bus :, AFTER_FADER]

    def straight(self, nodes: Indices) -> Floats:
        """What the sides of channels and returns feed straight to buses, a row a node (fresh)."""
        strips, sides = self.layout.row_of_node[nodes], self.layout.side_of_node[nodes]
        shares: Floats = self.share[strips, sides]
        shares *= self._passed(strips)[:, :, None]
        return shares

    def _passed(self, strips: slice | Indices) -> Floats:
        passed = at_taps(self.tap[: self.layout.feeding][strips], self.arrays.tap[strips])
        passed *= self.live(strips)
        return passed


def wired(arrays: Arrays, layout: Layout) -> Wiring:
    """The wiring of a whole show."""
    share = side_gains(arrays, layout, slice(0, layout.feeding))
    return _with_gains(
        arrays, layout, *running(arrays.stage, _STAGE_WEIGHTS * arrays.closing), share
    )


def _with_gains(
    arrays: Arrays, layout: Layout, tap: Floats, closed: Floats, share: Floats
) -> Wiring:
    buses = slice(layout.first_bus, layout.feeding)
    bare = Wiring(arrays, layout, tap, closed, share, share[:0], share[:0], share[:0])
    on, weight = bare.on(buses), bare.weight(buses)
    return replace(
        bare,
        of_buses=bare.gain(buses),
        on_of_buses=on.astype(np.float32),
        weight_of_buses=np.where(on, weight[:, None, :, None], np.inf),
    )


def reweighed(wiring: Wiring, closing: Floats) -> Wiring:
    """A wiring in which so many things close each stage, shape (strips, stages): for weights."""
    _, closed = running(wiring.arrays.stage, _STAGE_WEIGHTS * closing)
    buses = slice(wiring.layout.first_bus, wiring.layout.feeding)
    found = replace(wiring, closed=closed)
    weight = np.where(wiring.on_of_buses > 0.0, found.weight(buses)[:, None, :, None], np.inf)
    return replace(found, weight_of_buses=weight)


def rewired(
    old: Wiring, arrays: Arrays, *, stages: Indices, feeds: Indices, pans: Indices
) -> Wiring:
    """The wiring after moves in the stages, the feeds and the pans of some strips."""
    layout, tap, closed, share = old.layout, old.tap, old.closed, old.share
    if stages.size:
        tap, closed = tap.copy(), closed.copy()
        tap[stages], closed[stages] = running(
            arrays.stage[stages], _STAGE_WEIGHTS * arrays.closing[stages]
        )
    if pans.size:
        share = share.copy()
        share[pans] = side_gains(arrays, layout, pans)
    if any(strips.size and strips[-1] >= layout.first_bus for strips in (stages, feeds, pans)):
        return _with_gains(arrays, layout, tap, closed, share)
    return replace(old, arrays=arrays, tap=tap, closed=closed, share=share)


def spread(direct: Floats, of_buses: Floats, layout: Layout) -> Floats:
    """What arrives at each bus's sides: groups pass on to groups, then to what else they feed, and

    these to the matrices. `direct`: what arrives straight, shape (n, buses, 2), overwritten and
    given back; `of_buses`: as in `Wiring`, of amplitudes, or of 0.0 and 1.0 to count paths.
    """
    count, groups, middle, last = direct.shape[0], layout.groups, layout.middle, layout.matrices
    if groups.stop and count:
        among_groups(direct, of_buses, layout)
        of_groups = of_buses[: groups.stop, :, middle].reshape(2 * groups.stop, -1)
        by_groups = direct[:, groups].reshape(count, -1) @ of_groups
        direct[:, middle] += by_groups.reshape(count, -1, 2)
    if last.stop > last.start and count:
        direct[:, last] += into_matrices(direct, of_buses, layout)
    return direct


def among_groups(arriving: Floats, of_buses: Floats, layout: Layout) -> None:
    """Let groups pass on to groups, in place: no group leads back to itself, so it has an end."""
    groups = layout.groups
    step = of_buses[: groups.stop, :, groups].reshape(2 * groups.stop, -1)
    if not step.any():
        return
    passed = arriving[:, groups].reshape(arriving.shape[0], -1)
    for _ in range(groups.stop):  # in a show that is yet to be refused they may lead back
        passed = passed @ step
        if not passed.any():
            return
        arriving[:, groups] += passed.reshape(arriving.shape[0], -1, 2)


def into_matrices(arriving: Floats, of_buses: Floats, layout: Layout) -> Floats:
    """What groups, mixes, house and mono pass on to the matrices, shape (n, matrices, 2)."""
    count, last = arriving.shape[0], layout.matrices
    passed = arriving[:, : last.start].reshape(count, -1) @ of_buses[:, :, last].reshape(
        2 * last.start, -1
    )
    return passed.reshape(count, -1, 2)
