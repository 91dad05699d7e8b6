"""How loud each bus is expected to be, against full scale, and who makes it so.

Powers of different sources add; in the worst case all of them peak together and amplitudes add.
Gates count as open, compressors as below their threshold: a limiter is what then remains to hold.
"""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import Thing
from ..flow import Flow, source_name
from ..patching import source_dbfs
from ..show import Show
from ..wires import AFTER_FADER

__all__ = ["Contributor", "Expected", "Levels", "expected_at", "expected_into", "over_full_scale"]

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


class Levels:
    """Amplitudes of a show's sources where they enter, and at the buses; full scale is 1.

    `own`, `known` (rows,): of each source, and whether its level is known; `at` (rows, buses, 2):
    its ways into the buses; `behind` (buses,): what these make of it up to behind their faders.
    """

    def __init__(self, show: Show, flow: Flow) -> None:
        layout = flow.layout
        rows = np.arange(layout.rows)
        self.flow = flow
        self.at = np.abs(flow.arriving(rows, np.arange(layout.buses)))
        self.at[~flow.sourced] = 0.0
        self.behind = np.abs(flow.wiring.tap[layout.first_bus :, AFTER_FADER])
        self.own: Floats = np.zeros(layout.rows)
        in_force = flow.arrays.in_force()
        self.known = np.zeros(layout.rows, dtype=np.bool_)
        for row in np.flatnonzero(flow.sourced).tolist():
            strip = layout.source(row)
            if row < layout.channels:
                source = show.source_of(Thing.at(strip).number)
            else:
                value = show[f"{strip}/source"]
                source = value if isinstance(value, str) else None
            dbfs = source_dbfs(show, source) if source is not None else None
            if dbfs is not None:
                self.own[row] = 10.0 ** (dbfs / 20.0)
            # what a bus feeds brings nothing of its own: the ways of others lead through it
            self.known[row] = dbfs is not None or int(in_force[row]) >= 0
        self._bring_effects()

    def _bring_effects(self) -> None:
        """What effects' returns bring: what arrives at their mixes, of other returns and of

        themselves too, all rounds counted: p = given + p passed on, in powers.
        """
        fed = self.flow.fed
        bus_of = dict(zip(fed.row[fed.dry :].tolist(), fed.bus[fed.dry :].tolist(), strict=True))
        rows, buses = np.array([*bus_of], np.intp), np.array([*bus_of.values()], np.intp)
        if not rows.size:
            return
        behind = self.behind[buses] ** 2
        given = self.power()[buses].sum(axis=1) * behind
        passed_on = (self.at[np.ix_(rows, buses)] ** 2).sum(axis=2) * behind
        # amplitudes of sizes stay below 0 dB once around, and so do their squares: it has an end
        self.own[rows] = np.sqrt(np.linalg.solve(np.eye(rows.size) - passed_on.T, given).clip(0.0))
        self.known[rows] = True

    def power(self) -> Floats:
        """Of all sources together at the buses' inputs, shape (buses, 2)."""
        found: Floats = ((self.own[:, None, None] * self.at) ** 2).sum(axis=0)
        return found


def _db(power: float) -> float:
    return 10.0 * math.log10(power) if power > 0.0 else -math.inf


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
        in_dbfs=_db(float(power[side])),
        dbfs=_db(float(power[side]) * behind**2),
        worst_dbfs=_db(float((each.sum() * behind) ** 2)),
        loudest=tuple(
            Contributor(
                source=layout.source(int(row)),
                name=source_name(show, layout.source(int(row))),
                dbfs=_db(float(each[row] * behind) ** 2),
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
        return _db(float((arriving**2).sum()))
    if not flow.sourced[row]:
        return -math.inf
    return _db(float(levels.own[row] ** 2)) if levels.known[row] else None


def over_full_scale(show: Show, flow: Flow) -> tuple[tuple[str, float], ...]:
    """Buses expected past full scale behind their faders, with their levels in dBFS."""
    levels, layout = Levels(show, flow), flow.layout
    power = levels.power().max(axis=1) * levels.behind**2
    return tuple(
        (layout.listener(int(column)), _db(float(power[column])))
        for column in np.flatnonzero(power > 1.0)
    )
