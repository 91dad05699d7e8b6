"""Who hears what: the level and state of every source at every listener.

`Flow` is the evaluated state of one show, a value: following a change gives a new Flow and the
cells that differ, and computes again only what the change made stale (`following`).
"""

import math
from collections.abc import Collection
from dataclasses import dataclass
from enum import IntEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import Address, of_kind
from ..show import Change, Show, is_of_bus
from ..values import sides_to_level_db
from ..wires import (
    AFTER_FADER,
    Arrays,
    Cause,
    Fed,
    Floats,
    Home,
    Indices,
    Layout,
    Round,
    Wiring,
    direct_out,
    followed,
    homes_of,
    layout_of,
    reached,
    read_arrays,
    stage_of,
)
from .ears import Ears

__all__ = [
    "CANCELS",
    "HALF",
    "STATE_OF",
    "Cell",
    "Flow",
    "State",
    "feeds_back",
    "flow_of",
    "who_hears_what",
]

HALF: Final = np.sqrt(0.5)  # a return's row is of unit power, in phase, shared by its sides
# So far below its largest path, what several paths leave of one another counts as nothing.
CANCELS: Final = 1e-6  # -120 dB
_TRIM: Final = stage_of("trim")
Bools = NDArray[np.bool_]


class State(IntEnum):
    """What a cell of the table says. Anything but HEARD arrives at -inf dB."""

    UNROUTED = 0  # each path has a feed that is off
    HEARD = 1
    MUTED = 2
    NO_SOURCE = 3
    NO_OUTPUT = 4
    DOWN = 5  # a fader on the way is off
    CANCELLED = 6  # paths that take one another away


STATE_OF: Final = np.array([State[cause.name] for cause in Cause], dtype=np.int8)


@dataclass(frozen=True, slots=True)
class Cell:
    """One cell of the table. `level_db` is relative to the source behind its preamp. `way`: how

    its own feed taps ("before" or "after" the fader), or "through" where it comes by other strips.
    """

    source: str
    listener: str
    level_db: float
    state: State
    way: str


@dataclass(frozen=True, slots=True, eq=False)
class Flow:
    """The table of a show and what it was computed from. Rows and columns as in `Layout`.

    `level_db` float64 and `state` int8, shape (rows, buses); `direct_db`, `direct_state`, shape
    (rows, D), for the D `sockets` that carry a direct out. `plain`, shape (nodes, buses, 2):
    amplitude of each node at each bus's input without detours; `sizes` counts paths by their sizes;
    `around` and `at_fed` (rows, K):
    what arrives at channels that buses feed. `open_to`, `on_to`, shape of `plain`: where an open
    path leads, and how many whose feeds are on, without detours. `mixed`: some paths are turned
    over against others, so that sums may cancel. `sourced` (rows,): who has a source.
    """

    wiring: Wiring
    fed: Fed
    around: Round
    ears: Ears
    plain: Floats
    sizes: Floats
    open_to: Bools
    on_to: Floats
    at_fed: Floats
    mixed: bool
    sourced: Bools
    sockets: Indices
    level_db: Floats
    state: NDArray[np.int8]
    direct_db: Floats
    direct_state: NDArray[np.int8]

    @property
    def layout(self) -> Layout:
        return self.wiring.layout

    @property
    def arrays(self) -> Arrays:
        return self.wiring.arrays

    @property
    def homes(self) -> dict[str, tuple[Home, int]]:
        """The addresses that bear on this flow."""
        return homes_of(self.layout.desk)

    # ---- asked by address

    def level(self, source: str, listener: str) -> float:
        """Level in dB of a source at a listener, by their addresses. Raises UnknownAddress."""
        cell = self.cell(self.layout.row(source), self.layout.column(listener))
        return cell.level_db

    def state_of(self, source: str, listener: str) -> State:
        """State of a source at a listener, by their addresses. Raises UnknownAddress."""
        return self.cell(self.layout.row(source), self.layout.column(listener)).state

    def at_input_db(self, row: int, column: int) -> float:
        """Level in dB at a bus's input, without polarity and trim of the source's own: how it is

        mixed. -inf where nothing that has a source, or no open path, leads there.
        """
        rows, columns = np.array([row]), np.array([column])
        if not self.sourced[row] or not self.sides_open(rows, columns).any():
            return -math.inf
        sides = self.arriving(rows, columns)[0, 0]
        trim = float(self.arrays.stage[row, _TRIM])
        return float(sides_to_level_db(sides[0] / trim, sides[1] / trim))

    def cell(self, row: int, column: int) -> Cell:
        """One cell as a value, by row and column."""
        levels, states = self.part([row], [column])
        return Cell(
            source=self.layout.source(row),
            listener=self.layout.listener(column),
            level_db=float(levels[0, 0]),
            state=State(int(states[0, 0])),
            way=self.ways([row], [column])[0][0],
        )

    def part(self, rows: list[int], columns: list[int]) -> tuple[Floats, NDArray[np.int8]]:
        """Levels in dB and states of some rows and columns, both of shape (rows, columns)."""
        at_rows = np.array(rows, dtype=np.intp)
        levels = np.full((len(rows), len(columns)), -np.inf)
        states = np.zeros(levels.shape, dtype=np.int8)
        at = np.array(columns, dtype=np.intp)
        bus = at < self.layout.buses
        levels[:, bus] = self.level_db[np.ix_(at_rows, at[bus])]
        states[:, bus] = self.state[np.ix_(at_rows, at[bus])]
        place_of = {int(s): place for place, s in enumerate(self.sockets)}
        for here, column in enumerate(columns):
            place = place_of.get(column - self.layout.buses)
            if place is not None:
                levels[:, here] = self.direct_db[rows, place]
                states[:, here] = self.direct_state[rows, place]
        return levels, states

    def ways(self, rows: list[int], columns: list[int]) -> list[list[str]]:
        """How each cell's own feed taps: "before" or "after" the fader; "through" for none."""
        at = np.array(rows, dtype=np.intp)
        own = self.wiring.leads(at)
        taps = self.arrays.tap[at]
        buses = self.layout.buses
        carried, _ = direct_out(self.arrays.out_source)
        found: list[list[str]] = []
        for place, row in enumerate(rows):
            words = []
            for column in columns:
                if column < buses:
                    is_own, tap = own[place, column], taps[place, column]
                else:
                    is_own = carried[column - buses] == row
                    tap = self.arrays.out_tap[column - buses]
                words.append(
                    "through" if not is_own else "after" if tap == AFTER_FADER else "before"
                )
            found.append(words)
        return found

    def sockets_of(self, column: int) -> list[tuple[int, str, int, float]]:
        """What carries a bus: side (2: whole), socket ("" for what counts as one), tap, trim."""
        arrays = self.arrays
        found = []
        for place in np.flatnonzero(arrays.out_source >= 0):
            bus, side = divmod(int(arrays.out_source[place]), 3)
            if bus == column:
                tap, trim = int(arrays.out_tap[place]), float(arrays.out_trim[place])
                found.append((side, self.layout.outputs[place], tap, trim))
        engine = (arrays.engine >= 0) & (arrays.engine // 3 == column)
        if engine.any() or self.ears.by_matrix[column] or self.ears.inner[column]:
            found += [(side, "", AFTER_FADER, 1.0) for side in (0, 1)]
        return found

    # ---- what arrives, by rows

    def by_row(self, of_nodes: Floats, rows: Indices) -> Floats:
        """Rows out of values by node, shape (n, ...): a return's sides together."""
        first = self.layout.first_node[rows]
        found = of_nodes[first]
        beyond = np.flatnonzero(rows >= self.layout.channels)
        if beyond.size:
            found[beyond] = (found[beyond] + of_nodes[first[beyond] + 1]) * HALF
        return found

    def arriving(self, rows: Indices, columns: Indices) -> Floats:
        """Amplitude at some buses' inputs, all paths and rounds together; (n, columns, 2)."""
        plain = self._at(self.plain, columns)
        found = self.by_row(plain, rows)
        dry = self.fed.dry
        if dry:
            found += np.tensordot(self.at_fed[rows], plain[self.fed.node[:dry]], axes=1)
        return found

    def sides_on(self, rows: Indices, columns: Indices) -> Bools:
        """Which sides of buses each row reaches by paths whose feeds are on; (n, columns, 2)."""
        on_to = self._at(self.on_to, columns)
        return self._reaching(on_to, rows, self.on_at_fed() if self.fed.dry else None)

    def sides_open(self, rows: Indices, columns: Indices) -> Bools:
        """Which sides of buses each row reaches by open paths; shape (n, columns, 2)."""
        opened = self._at(self.open_to.astype(np.float32), columns)
        return self._reaching(opened, rows, self.open_at_fed() if self.fed.dry else None)

    def _at(self, of_nodes: Floats, columns: Indices) -> Floats:
        return of_nodes if columns.size == self.layout.buses else of_nodes[:, columns]

    def _reaching(self, of_nodes: Floats, rows: Indices, at_fed: Bools | None) -> Bools:
        found = self.by_row(of_nodes, rows) > 0.0
        if at_fed is None:
            return found
        onward = of_nodes[self.fed.node[: self.fed.dry]]
        further: Bools = np.tensordot(at_fed[rows].astype(np.float32), onward, axes=1) > 0.0
        return found | further

    def on_at_fed(self) -> Bools:
        """From which rows feeds that are on lead to which fed channels, shape (rows, K)."""
        return self._at_fed(self.on_to, np.ones(self.layout.buses))

    def open_at_fed(self) -> Bools:
        """From which rows open paths lead to which fed channels, shape (rows, K)."""
        passes = self.wiring.tap[self.layout.first_bus :, AFTER_FADER] > 0.0
        return self._at_fed(self.open_to.astype(np.float32), passes.astype(np.float64))

    def _at_fed(self, of_nodes: Floats, passes: Floats) -> Bools:
        dry = self.fed.dry
        steps = self.fed.taken(of_nodes[self.fed.node[:dry]], passes, dry) > 0.0
        taken = self.fed.taken(of_nodes, passes, dry)
        return reached(self.by_row(taken, self.layout.every_row) > 0.0, steps)

    # ---- changes

    def after(self, change: Change) -> tuple["Flow", Indices]:
        """The flow after a change, and (row, column) of each cell that differs, shape (n, 2).

        Raises FeedbackLoop where the change closes a loop of 0 dB or more.
        """
        arrays, moved = followed(self.arrays, self.layout.desk, change.new)
        if not moved.places:
            return self, np.zeros((0, 2), dtype=np.intp)
        from .following import followed_flow  # a Flow follows by what computes Flows

        after, rows, columns = followed_flow(self, arrays, moved)
        return after, _differing(self, after, rows, columns)

    def may_close(self, change: Change) -> bool:
        """Whether a change might close a loop; in doubt it might. What stands at a channel that no

        bus feeds does not: no loop passes it.
        """
        fed = {self.layout.source(row) for row in self.fed.row.tolist()}
        return any(_may_close(address, fed) for address in change.new)

    def check(self, change: Change) -> None:
        """Raise FeedbackLoop if the change would close a loop of 0 dB or more; no more is done."""
        arrays, moved = followed(self.arrays, self.layout.desk, change.new)
        if moved.places:
            from .following import check_howling

            check_howling(self, arrays, moved)


def _may_close(address: str, fed: Collection[str]) -> bool:
    at = Address.at(address)  # a source or a solo opens what others feed too
    return at.kind != "channel" or at.bears_on("loops") or at.thing in fed


def _differing(before: Flow, after: Flow, rows: Indices, columns: Indices) -> Indices:
    """(row, column) of the cells that differ, among some whole rows and columns; shape (n, 2)."""
    layout = before.layout
    differs = np.zeros((layout.rows, layout.buses), dtype=np.bool_)
    for part in ((rows, slice(None)), (slice(None), columns)):
        differs[part] = (after.level_db[part] != before.level_db[part]) | (
            after.state[part] != before.state[part]
        )
    found = np.argwhere(differs)
    if before.sockets.size or after.sockets.size:
        found = np.concatenate((found, _direct_differing(before, after)))
    return found


def _direct_differing(before: Flow, after: Flow) -> Indices:
    sockets = after.sockets
    old_db, old_state = before.direct_db, before.direct_state
    new_db, new_state = after.direct_db, after.direct_state
    if not np.array_equal(before.sockets, sockets):  # what a socket carries has changed
        sockets = np.union1d(before.sockets, sockets)
        rows, columns = list(range(before.layout.rows)), (sockets + before.layout.buses).tolist()
        old_db, old_state = before.part(rows, columns)
        new_db, new_state = after.part(rows, columns)
    found = np.argwhere((old_db != new_db) | (old_state != new_state))
    found[:, 1] = sockets[found[:, 1]] + before.layout.buses
    return found


def flow_of(show: Show) -> Flow:
    """The whole table of a show, read and evaluated. Raises FeedbackLoop."""
    from .following import evaluated

    return evaluated(read_arrays(show), layout_of(show.desk))


def feeds_back(show: Show) -> bool:
    """Whether any bus feeds a channel or an effect a return, so that loops can be at all."""
    strips = [f"channel/{n}" for n in range(1, show.desk.channels + 1)]
    strips += [f"return/{n}" for n in range(1, show.desk.returns + 1)]
    return any(
        is_of_bus(source) or of_kind(source) == "engine"
        for strip in strips
        for leaf in ("source", "spare")
        for source in [str(show.values.get(f"{strip}/{leaf}", ""))]
    )


def who_hears_what(show: Show) -> tuple[Floats, NDArray[np.int8]]:
    """Level in dB and `State` of every source (rows) at every bus (columns) of a show's desk."""
    flow = flow_of(show)
    return flow.level_db, flow.state
