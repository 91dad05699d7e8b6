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
from ..show import Show
from .arrays import AFTER_FADER, FIRST_TAP_AFTER_MUTE, Arrays, Touched, followed, read_arrays
from .strips import bus_of

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

    def cell(self, row: int, column: int) -> Cell:
        """One cell as a value, by row and column."""
        return Cell(
            source=f"channel/{row + 1}",
            listener=bus_of(self.desk, column),
            level_db=float(self.level_db[row, column]),
            state=State(int(self.state[row, column])),
            after_fader=bool(self.arrays.tap[row, column] == AFTER_FADER),
        )

    def after(self, change: Change) -> tuple["Flow", list[tuple[int, int]]]:
        """The flow after a change, and (row, column) of each cell that differs, in order."""
        arrays, touched = followed(self.arrays, self.desk, change.old, change.new)
        if not touched:
            return self, []
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
    """Levels in dB and states of a part of the table, both of the part's shape."""
    trim, fader = arrays.trim[rows, None], arrays.fader[rows, None]
    unmuted, fed = arrays.unmuted[rows, None], arrays.fed[rows, None]
    send, on, tap = arrays.send[rows, columns], arrays.on[rows, columns], arrays.tap[rows, columns]
    sides, master, is_open = arrays.sides[columns], arrays.master[columns], arrays.open[columns]
    left_outs, right_outs, whole_outs = arrays.outputs[:, columns]

    hears_mute = tap >= FIRST_TAP_AFTER_MUTE
    asked = on & (send > 0.0) & (sides > 0)
    silenced = (hears_mute & ~unmuted) | ~is_open
    patched = (left_outs + right_outs + whole_outs) > 0
    gain = np.where(tap == AFTER_FADER, fader, 1.0)
    gain *= send
    gain *= np.where(tap > 0, trim, 1.0)  # the input tap lies before polarity and trim
    gain *= master
    gain *= asked & ~silenced & fed

    # What the outputs carry of each side. A bus of one side has it on "left"; when only the mono
    # sum (L+R)/2 of a stereo bus is patched, that sum is what its listener hears.
    stereo = sides == 2
    one_side = ~stereo & patched
    carries_left = np.where(stereo, left_outs > 0, one_side)
    carries_right = stereo & (right_outs > 0)
    only_sum = stereo & (whole_outs > 0) & (left_outs == 0) & (right_outs == 0)
    pan_left = np.where(stereo, arrays.left[rows, columns], 1.0)
    pan_right = arrays.right[rows, columns]
    into_left = np.where(only_sum, (pan_left + pan_right) / 2.0, carries_left * pan_left)
    into_right = carries_right * pan_right
    level_db = sides_to_level_db(gain * into_left, gain * into_right)

    state = np.full(level_db.shape, State.HEARD, dtype=np.int8)
    nothing = level_db == -np.inf
    state[nothing & (gain == 0.0)] = State.DOWN
    state[nothing & (gain != 0.0)] = State.NO_OUTPUT  # panned to a side that no output carries
    state[np.broadcast_to(~patched, state.shape)] = State.NO_OUTPUT
    state[np.broadcast_to(~fed, state.shape)] = State.NO_SOURCE
    state[silenced] = State.MUTED
    state[~asked] = State.UNROUTED
    return level_db, state


def flow_of(show: Show) -> Flow:
    """The whole table of a show, read and evaluated."""
    arrays = read_arrays(show)
    level_db, state = evaluated(arrays)
    return Flow(show.desk, arrays, level_db, state)


def who_hears_what(show: Show) -> tuple[NDArray[np.float64], NDArray[np.int8]]:
    """Level in dB and `State` of every channel (rows) at every bus (columns) of a show's desk."""
    flow = flow_of(show)
    return flow.level_db, flow.state
