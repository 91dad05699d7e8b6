"""Who hears what: the level of every source at every listener, computed as arrays.

`Flow` is the evaluated state of one show. It is a value: following a change gives a new Flow and
the cells that differ, and evaluates only the rows, columns or cells that the change touches.
"""

from dataclasses import dataclass, replace
from enum import IntEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..desk import Desk
from ..edits import Change
from ..laws import sides_to_level_db
from ..parameters import TAPS
from ..show import Show
from .arrays import AFTER_FADER, Arrays, Touched, followed, read_arrays
from .strips import bus_of
from .through import Through, through_buses

__all__ = ["Cell", "Flow", "State", "evaluated", "flow_of", "who_hears_what"]

_ALL: Final = slice(None)


class State(IntEnum):
    """What a cell of the table says. Anything but HEARD arrives at -inf dB."""

    UNROUTED = 0  # nobody asked for it: no send, not assigned
    HEARD = 1
    MUTED = 2  # asked for, and a mute on the way stops it
    NO_SOURCE = 3  # asked for, and the channel has no source
    NO_OUTPUT = 4  # asked for, and the listener's bus is patched to no output
    DOWN = 5  # asked for, and a fader on the way is off


@dataclass(frozen=True, slots=True)
class Cell:
    """One cell of the table. `level_db` is relative to the source behind its preamp."""

    source: str
    listener: str
    level_db: float
    state: State
    after_fader: bool


@dataclass(frozen=True, slots=True, eq=False)
class Flow:
    """The table of a show. `level_db` float64 and `state` int8, both of shape (C, B).

    Row c is channel c+1; column b is the bus `strips.bus_of(desk, b)`.
    """

    desk: Desk
    arrays: Arrays
    level_db: NDArray[np.float64]
    state: NDArray[np.int8]
    through: Through | None = None

    def cell(self, row: int, column: int) -> Cell:
        """One cell as a value, by row and column."""
        return Cell(
            source=f"channel/{row + 1}",
            listener=bus_of(self.desk, column),
            level_db=float(self.level_db[row, column]),
            state=State(int(self.state[row, column])),
            after_fader=bool(self.arrays.tap[row, column] % len(TAPS) == AFTER_FADER),
        )

    def after(self, change: Change) -> tuple["Flow", list[tuple[int, int]]]:
        """The flow after a change, and (row, column) of each cell that differs, in order."""
        arrays, touched = followed(self.arrays, self.desk, change.old, change.new)
        if not touched:
            return self, []
        through = through_buses(arrays, self.desk)
        if through is not None or self.through is not None:
            return self._anew(arrays, through)
        level_db, state = self.level_db.copy(), self.state.copy()
        differing: set[tuple[int, int]] = set()
        for rows, columns in _regions(touched):
            levels, states = evaluated(arrays, rows, columns)
            old_levels, old_states = level_db[rows, columns], state[rows, columns]
            tap = arrays.tap[rows, columns] != self.arrays.tap[rows, columns]
            changed = (levels != old_levels) | (states != old_states) | tap
            level_db[rows, columns], state[rows, columns] = levels, states
            first_row, first_column = rows.start or 0, columns.start or 0
            differing.update(
                (first_row + int(r), first_column + int(c)) for r, c in np.argwhere(changed)
            )
        return replace(self, arrays=arrays, level_db=level_db, state=state), sorted(differing)

    def _anew(
        self, arrays: Arrays, through: Through | None
    ) -> tuple["Flow", list[tuple[int, int]]]:
        """Where buses feed channels a move may reach anywhere: all is evaluated, and compared."""
        after = _flow(self.desk, arrays, through)
        changed = (after.level_db != self.level_db) | (after.state != self.state)
        changed |= arrays.tap != self.arrays.tap
        return after, [(int(row), int(column)) for row, column in np.argwhere(changed)]


def _regions(touched: frozenset[Touched]) -> list[tuple[slice, slice]]:
    """The slices of the table to evaluate again, whole rows first; cells within them left out."""
    rows = {row for row, column in touched if row is not None and column is None}
    columns = {column for row, column in touched if row is None and column is not None}
    cells = {(row, column) for row, column in touched if row not in rows}
    cells = {(row, column) for row, column in cells if row is not None and column not in columns}
    if len(rows) + len(columns) + len(cells) > 64:
        return [(_ALL, _ALL)]  # quicker at once than in so many pieces
    regions = [(slice(row, row + 1), _ALL) for row in sorted(rows)]
    regions += [(_ALL, slice(column, column + 1)) for column in sorted(columns)]
    for row, column in cells:
        if row is not None and column is not None:
            regions.append((slice(row, row + 1), slice(column, column + 1)))
    return regions


def evaluated(
    arrays: Arrays, rows: slice = _ALL, columns: slice = _ALL
) -> tuple[NDArray[np.float64], NDArray[np.int8]]:
    """Levels in dB and states of a part of the table, both of the part's shape.

    A cell's power is its row's gain at the tap, times its send, times what its column's outputs
    carry of the pan, squared and added over the two sides.
    """
    tap, right = arrays.tap[rows, columns], arrays.right[rows, columns]
    of_left, of_right, of_mono, right_only = arrays.heard[:, columns]
    gain = arrays.at_tap.ravel().take(tap)
    send = arrays.send[rows, columns] * arrays.on[rows, columns]
    gain *= send
    left_side = arrays.left[rows, columns] * of_left
    left_side += right * of_right
    left_side += of_mono
    right_side = right * right_only
    left_side *= left_side
    right_side *= right_side
    left_side += right_side
    gain *= gain
    gain *= left_side  # now the power
    with np.errstate(divide="ignore"):  # log10(0) = -inf is the answer we want
        level_db = np.log10(gain)
    level_db *= 10.0
    heard = gain > 0.0
    state = heard.view(np.int8)  # HEARD is 1, UNROUTED is 0
    silent = np.flatnonzero(np.logical_not(heard))
    if silent.size:
        in_row = arrays.row_block.ravel().take(tap.take(silent))
        in_column = arrays.column_block[columns].take(silent % tap.shape[1])
        silent_states = _OF_BLOCK.take(np.maximum(in_row, in_column))
        silent_states *= send.take(silent) > 0.0
        state.put(silent, silent_states)
    return level_db, state


# The state of a silent cell that is asked for, by the strongest Block on its way. With none, it is
# panned to a side that no output carries.
_OF_BLOCK: Final = np.array(
    [
        State.NO_OUTPUT,
        State.DOWN,
        State.NO_OUTPUT,
        State.NO_SOURCE,
        State.MUTED,
        State.UNROUTED,
    ],
    dtype=np.int8,
)


def _flow(desk: Desk, arrays: Arrays, through: Through | None) -> Flow:
    level_db, state = evaluated(arrays)
    if through is not None:
        level_db = sides_to_level_db(through.left, through.right)
        heard = level_db > -np.inf
        cancelled = ~heard & (state == State.HEARD)
        state = np.where(heard, np.int8(State.HEARD), state)
        state[cancelled] = State.DOWN  # two paths that cancel exactly
    return Flow(desk, arrays, level_db, state, through)


def flow_of(show: Show) -> Flow:
    """The whole table of a show, read and evaluated. Raises FeedbackLoop."""
    arrays = read_arrays(show)
    return _flow(show.desk, arrays, through_buses(arrays, show.desk))


def who_hears_what(show: Show) -> tuple[NDArray[np.float64], NDArray[np.int8]]:
    """Level in dB and `State` of every channel (rows) at every bus (columns) of a show's desk."""
    flow = flow_of(show)
    return flow.level_db, flow.state
