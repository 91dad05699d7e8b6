"""How late a signal arrives: converters, processing, insert trips and delays along each path.

Figures are the desk profile's, in samples. Where one source arrives by ways that differ, the sum
combs: the first notch lies at 1/(2 dt) (two equal signals, dt apart, are against one another where
dt is half a period). Ways through channels that buses feed are told in Why, and not compared.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import TAPS, Thing, kind_on, named_kind, of_kind
from ..flow import Flow, Network, Path
from ..show import Show
from ..values import Number

__all__ = ["Apart", "aligned", "apart", "comb_hz", "path_ms", "strip_ms"]

Floats = NDArray[np.float64]
# Ways closer than this comb above 5 kHz only, where few hear it (value of our own).
_LEAST_MS: Final = 0.1
_BEFORE_EQ, _BEFORE_FADER = TAPS.index("before_eq"), TAPS.index("before_fader")
_LOOKED_AT: Final = 24  # paths of a cell, the loudest


@dataclass(frozen=True, slots=True, kw_only=True)
class Apart:
    """A source that reaches a bus by ways that differ by `by_ms`. `comb_hz`: the first notch."""

    source: str
    bus: str
    by_ms: float
    comb_hz: float


def comb_hz(by_ms: float) -> float:
    """The first notch of a signal and itself so much later, in Hz: 1/(2 dt).

    >>> comb_hz(1.0)
    500.0
    """
    return 1_000.0 / (2.0 * by_ms)


def strip_ms(show: Show, strip: str, tap: int) -> float:
    """What a strip adds before one of its taps (an index into TAPS), in milliseconds."""
    figures, rate = show.desk.latency, show.desk.sample_rate_hz
    samples = 0
    if tap >= _BEFORE_EQ:
        samples += figures.strip + figures.insert * _in_use(show, strip, 1)
    if tap >= _BEFORE_FADER:
        samples += figures.insert * _in_use(show, strip, 2)
    delay_ms = show.number(f"{strip}/delay/ms") if show.on(f"{strip}/delay/on") else 0.0
    return samples * 1_000.0 / rate + (delay_ms if tap >= _BEFORE_FADER else 0.0)


def _in_use(show: Show, strip: str, place: int) -> bool:
    insert = f"{strip}/insert_{place}"
    return f"{insert}/device" in show.values and show.on(f"{insert}/on")


def path_ms(show: Show, flow: Flow, path: Path) -> float:
    """How late a path arrives, from the socket that it comes in by to the one that it leaves by."""
    layout, figures = flow.layout, show.desk.latency
    source = layout.strips[path.edges[0].start[0]]
    came_in: object = show[f"{source}/source"]
    if of_kind(source) == "channel":
        came_in = show.source_of(Thing.at(source).number)
    samples = figures.converter_in if named_kind(came_in) == "input" else 0
    late_ms = sum(strip_ms(show, layout.strips[e.start[0]], e.tap) for e in path.edges)
    socket = path.edges[-1].socket
    if socket:
        samples += figures.converter_out
        late_ms += show.number(f"{socket}/delay_ms")
    return late_ms + samples * 1_000.0 / show.desk.sample_rate_hz


def apart(show: Show, flow: Flow) -> tuple[Apart, ...]:
    """Sources that reach a bus by open ways of different latency, the furthest apart first.

    Ways straight, through groups, and from what these feed to the matrices.
    """
    layout = flow.layout
    lates: Floats = np.array(
        [[strip_ms(show, strip, tap) for tap in range(len(TAPS))] for strip in layout.strips]
    )
    soonest, latest = _ways(flow, lates, np.minimum), _ways(flow, lates, np.maximum)
    found = np.argwhere(np.isfinite(soonest) & (np.abs(latest - soonest) > _LEAST_MS))
    every = [
        Apart(
            source=layout.source(int(row)),
            bus=layout.listener(int(column)),
            by_ms=float(latest[row, column] - soonest[row, column]),
            comb_hz=comb_hz(float(latest[row, column] - soonest[row, column])),
        )
        for row, column in found
        if flow.sourced[row]
    ]
    return tuple(sorted(every, key=lambda one: -one.by_ms))


def _ways(flow: Flow, lates: Floats, best: np.ufunc) -> Floats:
    """The soonest (np.minimum) or latest (np.maximum) open way of each row to each bus, in ms;

    shape (rows, buses), without bound where there is none. Side by side: what a pan leads away from
    one side arrives on the other alone.
    """
    layout, wiring = flow.layout, flow.wiring
    none = np.inf if best is np.minimum else -np.inf
    feeding = slice(0, layout.feeding)
    taps = flow.arrays.tap[feeding].astype(np.intp)
    passed = np.take_along_axis(wiring.tap[feeding], taps, axis=1) != 0.0
    late = np.take_along_axis(lates[feeding], taps, axis=1)
    is_open = wiring.on(feeding) & passed[:, None, :, None]
    steps = np.where(is_open, late[:, None, :, None], none)
    arriving: Floats = best.reduce(steps[: layout.rows], axis=1)
    of_buses = steps[layout.first_bus :]

    def by_way_of(start: slice, onward: slice) -> bool:
        """Let what arrives at some buses go on to others; whether that was another way for any."""
        rows, by = arriving.shape[0], arriving[:, start].reshape(arriving.shape[0], -1)
        further = of_buses[start, :, onward].reshape(by.shape[1], -1)
        if not np.isfinite(further).any():
            return False
        through = best.reduce(by[:, :, None] + further[None], axis=1).reshape(rows, -1, 2)
        found = best(arriving[:, onward], through)
        differs = not np.array_equal(found, arriving[:, onward])
        arriving[:, onward] = found
        return differs

    for _ in range(layout.groups.stop):  # as many groups as one way can pass
        if not by_way_of(layout.groups, layout.groups):
            break
    by_way_of(layout.groups, layout.middle)
    by_way_of(slice(0, layout.matrices.start), layout.matrices)
    ways: Floats = best.reduce(arriving, axis=2)
    return ways


def aligned(show: Show, flow: Flow, source: str, bus: str) -> tuple[str, float] | None:
    """The strip whose delay brings the soonest way to the latest, and what it is then, in ms.

    None where the soonest way has no strip of its own that could wait so long.
    Raises UnknownAddress.
    """
    layout = flow.layout
    network = Network(flow, layout.row(source), layout.column(bus))
    ways: list[tuple[float, tuple[str, ...]]] = []
    for turn, path in enumerate(network.loudest()):
        if turn == _LOOKED_AT:
            break
        strips = tuple(layout.strips[strip] for strip in path.strips)
        ways.append((path_ms(show, flow, path), strips))
    if len(ways) < 2:
        return None
    soonest, latest = min(ways), max(ways)
    own = [strip for strip in soonest[1] if strip not in latest[1]]
    if not own or latest[0] - soonest[0] <= _LEAST_MS:
        return None
    strip = own[-1]
    address = f"{strip}/delay/ms"
    now = show.number(address) if show.on(f"{strip}/delay/on") else 0.0
    wait_ms = now + latest[0] - soonest[0]
    kind = kind_on(show.desk, address)
    if not isinstance(kind, Number) or wait_ms > kind.highest:
        return None
    return strip, kind.suggested(wait_ms)
