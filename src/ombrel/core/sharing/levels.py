"""What is expected where, with groups that share gain counted as one microphone."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ..catalogue import Thing
from ..flow import Flow, with_stages
from ..patching import source_dbfs
from ..processing import shared_gains
from ..show import Show
from ..wires import AFTER_FADER
from .groups import Sharer, Sharing, sharings, stages_of

__all__ = ["Levels", "level_db", "own_levels", "powers_behind"]

Floats = NDArray[np.float64]


def level_db(power: float) -> float:
    """A power in dB; -inf for none."""
    return 10.0 * math.log10(power) if power > 0.0 else -math.inf


def own_levels(show: Show, flow: Flow) -> tuple[Floats, NDArray[np.bool_]]:
    """Amplitudes that sources bring of their own where they enter, and whether that is known, both

    (rows,); what effects send back is left out.
    """
    layout, in_force = flow.layout, flow.arrays.in_force()
    own, known = np.zeros(layout.rows), np.zeros(layout.rows, dtype=np.bool_)
    for row in np.flatnonzero(flow.sourced).tolist():
        strip = layout.source(row)
        if row < layout.channels:
            source = show.source_of(Thing.at(strip).number)
        else:
            value = show[f"{strip}/source"]
            source = value if isinstance(value, str) else None
        dbfs = source_dbfs(show, source) if source is not None else None
        if dbfs is not None:
            own[row] = 10.0 ** (dbfs / 20.0)
        # what a bus feeds brings nothing of its own: the ways of others lead through it
        known[row] = dbfs is not None or int(in_force[row]) >= 0
    return own, known


def powers_behind(
    flow: Flow, own: Floats, members: Sequence[Sharer], ways: Flow | None = None
) -> Floats:
    """Mean power of members behind their faders, of a pair both sides together, shape (members,).

    `own` (rows,): the amplitude of each source where it enters; full scale is 1. `ways`: by which
    it comes to members that are buses, if not by those of `flow`.
    """
    layout, fed, ways = flow.layout, flow.fed, ways or flow
    behind = flow.wiring.tap[:, AFTER_FADER]
    fed_at = {int(row): place for place, row in enumerate(fed.row[: fed.dry])}
    buses = [layout.index[side] - layout.first_bus for one in members for side in one.sides]
    columns = np.array(sorted({n for n in buses if n >= 0}), dtype=np.intp)
    arriving = ways.arriving(layout.every_row, columns) if columns.size else np.zeros((0, 0, 2))
    found = np.zeros(len(members))
    for place, one in enumerate(members):
        for side in one.sides:
            strip = layout.index[side]
            if strip >= layout.first_bus:
                at = arriving[:, int(np.searchsorted(columns, strip - layout.first_bus)), 0]
            elif strip in fed_at:
                at = ways.at_fed[:, fed_at[strip]]
            else:
                at = np.zeros(layout.rows)
                at[strip] = 1.0
            found[place] += float(((own * at) ** 2).sum() * behind[strip] ** 2)
    return found


@dataclass(frozen=True, slots=True)
class _Case:
    """Rows whose gains go together in a group, and what these are in each case: the amplitudes of

    their stages, shape (cases, rows). In each case but the last one speaks, `speaking` (cases,
    rows), and the rest are silent; in the last all do.
    """

    rows: NDArray[np.intp]
    gains: Floats

    @property
    def speaking(self) -> NDArray[np.bool_]:
        who: NDArray[np.bool_] = np.equal(self.gains, 1.0)
        who[-1] = True
        return who


class Levels:
    """Amplitudes of a show's sources where they enter, and at the buses; full scale is 1.

    `own`, `known` (rows,): of each source, and whether its level is known; `at` (rows, buses, 2):
    its ways into the buses, who shares gain as if alone; `behind` (buses,): what these make of it
    up to behind their faders.
    """

    def __init__(self, show: Show, flow: Flow) -> None:
        layout = flow.layout
        self.flow = flow
        self.at = _into_buses(flow)
        self.behind = np.abs(flow.wiring.tap[layout.first_bus :, AFTER_FADER])
        self.own, self.known = own_levels(show, flow)
        self._sharing = [one for one in sharings(show) if len(one.in_sum(flow)) > 1]
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
        self.__dict__.pop("_stands", None)  # what buses bring to members may be more now
        self.own[rows] = np.sqrt(np.linalg.solve(np.eye(rows.size) - passed_on.T, given).clip(0.0))
        self.known[rows] = True

    def power(self) -> Floats:
        """Of all sources together at the buses' inputs, shape (buses, 2): of a group that shares

        gain the loudest alone, or all of them with their shares, whichever is more.
        """
        return self._together(2, np.ones(self.own.size, dtype=np.bool_))

    def power_of(self, rows: NDArray[np.bool_], column: int) -> float:
        """Of some sources together at a bus's input, both sides; `rows` (rows,): which."""
        if not self._sharing:
            return float(((self.own[rows, None] * self.at[rows, column]) ** 2).sum())
        return float(self._together(2, rows)[column].sum())

    def peaks(self) -> Floats:
        """The amplitude at the buses' inputs when all peaks meet, shape (buses, 2)."""
        return self._together(1, np.ones(self.own.size, dtype=np.bool_))

    def _together(self, power: int, rows: NDArray[np.bool_]) -> Floats:
        """Amplitudes or powers of sources added; of the worst case where gain is shared."""
        every = self._stands
        found: Floats = self._added(power, rows, *every[0])
        for at, cases in every[1:]:
            found = np.maximum(found, self._added(power, rows, at, cases))
        return found

    def _added(
        self, power: int, rows: NDArray[np.bool_], at: "_Ways", cases: Sequence[_Case]
    ) -> Floats:
        plain = rows.copy()
        for case in cases:
            plain[case.rows] = False
        own = (self.own * rows)[:, None, None]
        found: Floats = (np.abs(own[plain] * at.opened[plain]) ** power).sum(axis=0)
        for case in cases:
            closed = own[case.rows] * at.closed[case.rows]
            through = own[case.rows] * at.opened[case.rows] - closed
            each = [
                np.abs((closed + gains[:, None, None] * through)[who]) ** power
                for gains, who in zip(case.gains, case.speaking, strict=True)
            ]
            found = found + np.maximum.reduce([one.sum(axis=0) for one in each])
        return found

    @cached_property
    def _stands(self) -> list[tuple["_Ways", list[_Case]]]:
        """Ways into the buses, each with the cases of the rows that share gain.

        A group with members that are buses, or that buses feed, changes the ways themselves: its
        cases are taken one by one, the other such groups with all of their members speaking.
        """
        cases, ways = [], []
        for group in self._sharing:
            members = group.in_sum(self.flow)
            strips, stages = stages_of(self.flow, members)
            plain = not group.is_fed(self.flow)
            counted = np.repeat(self._cases(group, members), [len(m.sides) for m in members], 1)
            if plain:
                cases.append((_Case(strips, counted), stages))
            else:
                ways.append((strips, stages, counted))
        usual = [(strips, stages, counted[-1]) for strips, stages, counted in ways]
        closing, of_rows = [(case.rows, stages) for case, stages in cases], [c for c, _ in cases]
        found = [(self._ways(usual, closing), of_rows)]
        for place, (strips, stages, counted) in enumerate(ways):
            for gains in counted[:-1]:
                some = [*usual[:place], (strips, stages, gains), *usual[place + 1 :]]
                found.append((self._ways(some, closing), of_rows))
        return found

    def _cases(self, group: Sharing, members: Sequence[Sharer]) -> Floats:
        """Amplitudes of members' stages: each alone, and all at the levels expected of them."""
        together = np.sqrt(self.all_speaking(group, members))
        return np.concatenate((np.eye(len(members)), together[None, :]))

    def all_speaking(self, group: Sharing, members: Sequence[Sharer]) -> Floats:
        """Gains of members, in power, when all of them speak at the levels expected of them."""
        weights = np.array([one.weight_db for one in members])
        powers = powers_behind(self.flow, self.own, members)
        return np.asarray(shared_gains(powers, weights, limit_db=group.limit_db))

    def _ways(
        self,
        through: Sequence[tuple[NDArray[np.intp], NDArray[np.intp], Floats]],
        closing: Sequence[tuple[NDArray[np.intp], NDArray[np.intp]]],
    ) -> "_Ways":
        """Ways with gains in the stages of some strips; open and closed in those of others."""
        opened = self._at(through)
        if not closing:
            return _Ways(opened, opened)
        shut = [(strips, stages, np.zeros(strips.size)) for strips, stages in closing]
        return _Ways(opened, self._at([*through, *shut]))

    def _at(self, gains: Sequence[tuple[NDArray[np.intp], NDArray[np.intp], Floats]]) -> Floats:
        if not gains:
            return self._signed
        stage = np.array(self.flow.arrays.stage, dtype=np.float64)
        for strips, stages, amplitudes in gains:
            stage[strips, stages] = amplitudes
        return _into_buses(with_stages(self.flow, stage), signed=True)

    @cached_property
    def _signed(self) -> Floats:
        return _into_buses(self.flow, signed=True)


@dataclass(frozen=True, slots=True)
class _Ways:
    """Amplitudes of ways into the buses (rows, buses, 2), with some stages open and closed."""

    opened: Floats
    closed: Floats


def _into_buses(flow: Flow, *, signed: bool = False) -> Floats:
    """Amplitude of each row at each bus's input, nothing for one without a source."""
    layout = flow.layout
    found = np.asarray(flow.arriving(layout.every_row, np.arange(layout.buses)), dtype=np.float64)
    found[~flow.sourced] = 0.0
    return found if signed else np.abs(found)
