"""How loud each bus is expected to be, against full scale, and who makes it so.

Powers of different sources add; in the worst case all of them peak together and amplitudes add.
Microphones that share one gain count as one.
Gates count as open, compressors as below their threshold: a limiter is what then remains to hold.
"""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import TAPS, Thing
from ..flow import Flow, source_name
from ..sharing import Levels, level_db
from ..show import Show

__all__ = [
    "Contributor",
    "Expected",
    "expected_at",
    "expected_into",
    "expected_on",
    "over_full_scale",
]

Floats = NDArray[np.float64]
_SHOWN: Final = 5


@dataclass(frozen=True, slots=True, kw_only=True)
class Contributor:
    """A source and its own level at a bus, in dBFS."""

    source: str
    name: str
    dbfs: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Expected:
    """Levels of a bus's louder side in dBFS: `in_dbfs` at its input, `dbfs` behind its fader,

    `worst_dbfs` there when all peaks meet; -inf where nothing is expected. `loudest` first.
    `unknown`: sources that arrive and of which no level is known, by name.
    """

    bus: str
    in_dbfs: float
    dbfs: float
    worst_dbfs: float
    loudest: tuple[Contributor, ...]
    unknown: tuple[str, ...]


def expected_at(show: Show, flow: Flow, bus: str) -> Expected:
    """What is expected at a bus. Raises UnknownAddress for what is none."""
    levels, layout = Levels(show, flow), flow.layout
    column = layout.column(bus)
    power = levels.power()[column]
    side = int(power.argmax())
    each = levels.own * levels.at[:, column, side]
    behind = float(levels.behind[column])
    order = np.argsort(-each, kind="stable")
    unknown = np.flatnonzero(~levels.known & levels.at[:, column].any(axis=1))
    return Expected(
        bus=bus,
        in_dbfs=level_db(float(power[side])),
        dbfs=level_db(float(power[side]) * behind**2),
        worst_dbfs=level_db(float((levels.peaks()[column, side] * behind) ** 2)),
        loudest=tuple(
            Contributor(
                source=layout.source(int(row)),
                name=source_name(show, layout.source(int(row))),
                dbfs=level_db(float(each[row] * behind) ** 2),
            )
            for row in order[:_SHOWN]
            if each[row] * behind > 0.0
        ),
        unknown=tuple(source_name(show, layout.source(int(row))) for row in unknown),
    )


def expected_into(show: Show, flow: Flow, strip: str) -> float | None:
    """The level in dBFS at the input of a strip: of its own source, or of all that a bus brings it.

    -inf where nothing is expected, None where no level is known. Raises UnknownAddress.
    """
    layout = flow.layout
    if strip not in layout.index or layout.index[strip] >= layout.rows:
        return expected_at(show, flow, strip).in_dbfs
    row = layout.row(strip)
    levels = Levels(show, flow)
    (fed,) = np.nonzero(flow.fed.row[: flow.fed.dry] == row)
    if fed.size:
        arriving = levels.own * np.abs(flow.at_fed[:, int(fed[0])])
        arriving[row] = 0.0  # it brings nothing of its own
        return level_db(float((arriving**2).sum()))
    if not flow.sourced[row]:
        return -math.inf
    return level_db(float(levels.own[row] ** 2)) if levels.known[row] else None


def expected_on(show: Show, levels: Levels, socket: str) -> float | None:
    """The level in dBFS that an output carries, its trim counted; -inf where nothing is expected,

    None where no level is known or it carries what no source of the table brings.
    """
    flow, carried = levels.flow, show[f"{socket}/source"]
    layout = flow.layout
    if not isinstance(carried, str) or Thing.at(carried).thing not in layout.index:
        return None
    at, tap = Thing.at(carried), TAPS.index(show.text(f"{socket}/tap"))
    strip = layout.index[at.thing]
    tapped = float(flow.wiring.tap[strip, tap])
    if strip >= layout.first_bus:
        column = layout.column(at.thing)
        sides = levels.power()[column]
        power = float(sides[_SIDE[at.side]]) if at.side in _SIDE else _of_the_whole(levels, column)
    else:
        into = expected_into(show, flow, at.thing)
        if into is None:
            return None
        power = 10.0 ** (into / 10.0)
    trim = 10.0 ** (show.number(f"{socket}/trim") / 20.0)
    return level_db(power * (tapped * trim) ** 2)


_SIDE: Final = {"left": 0, "right": 1}


def _of_the_whole(levels: Levels, column: int) -> float:
    """Power of a bus on one socket: (L+R)/2 of what arrives of each source."""
    each = levels.own * levels.at[:, column].sum(axis=1) / 2.0
    return float((each**2).sum())


def over_full_scale(show: Show, flow: Flow) -> tuple[tuple[str, float], ...]:
    """Buses expected past full scale behind their faders, with their levels in dBFS."""
    levels, layout = Levels(show, flow), flow.layout
    power = levels.power().max(axis=1) * levels.behind**2
    return tuple(
        (layout.listener(int(column)), level_db(float(power[column])))
        for column in np.flatnonzero(power > 1.0)
    )
