"""A show's values as arrays, read whole or one move at a time.

Each parameter that bears on a level has one reader below: it puts one value into the arrays and
says which part of the table that value touches. Reading a whole show is putting every value that
differs from its default into blank arrays; following a move is putting one. So both agree by
construction, and a new parameter is one new reader.
"""

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, fields, replace
from enum import IntEnum
from typing import Any, Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ..addresses import indices_of, parameter_at
from ..desk import Desk
from ..errors import UnknownAddress
from ..kinds import Value
from ..parameters import TAPS
from ..show import Show
from .strips import bus_count, bus_index, house_index, mono_index

__all__ = ["AFTER_FADER", "Arrays", "Block", "Touched", "followed", "read_arrays"]

AFTER_FADER: Final = TAPS.index("after_fader")
FIRST_TAP_AFTER_MUTE: Final = TAPS.index("before_fader_after_mute")
_TAP_NUMBER: Final = {tap: number for number, tap in enumerate(TAPS)}
_FORMAT_SIDES: Final[dict[Value, int]] = {"unused": 0, "mono": 1, "stereo": 2}
_SIDE_ROW: Final = {"left": 0, "right": 1, "whole": 2}


class Touched(NamedTuple):
    """Part of the table: all of a row (column None), all of a column (row None), or one cell."""

    row: int | None
    column: int | None


class Block(IntEnum):
    """What stands in the way of a signal, the strongest last; 0: nothing does."""

    DOWN = 1  # a fader is off
    NO_OUTPUT = 2
    NO_SOURCE = 3
    MUTED = 4
    NOT_IN_USE = 5


@dataclass(frozen=True, slots=True, eq=False)
class Arrays:
    """What the levels of a show depend on; C channels, B buses (see `strips`), T taps.

    All gains are linear. Switches are gains too, 0.0 or 1.0: they multiply without a conversion.

    Set by the readers. Rows, shape (C,): `trim` signed by polarity, `fader`, `unmuted`, `source`
    and `spare` (there is one), `on_spare`, `source_bus` and `spare_bus` (column * 3 + side of the
    bus that it is, -1: none). Cells, shape (C, B): `send` (0.0 = off), `on`, `tap` (place in
    `at_tap`'s flat order: row * T + index into TAPS), `left`, `right` (the pan's gains into a
    stereo bus). Columns, shape (B,): `sides` (0 not in use, 1, 2), `master`, `open` (not muted).
    Output sockets, shape (O,), in the desk's order: `out_column` (-1: no bus), `out_side` (0 left,
    1 right, 2 the whole as a mono sum), `out_trim`, `out_tap` (index into TAPS).

    Derived for whole rows and columns: `fed_by`, shape (C,): the bus that feeds the channel now,
    as `source_bus`. `at_tap`, shape (C, T): gain of the channel from its source to each tap.
    `row_block` (C, T) and `column_block` (B,): the strongest `Block` on either part. `heard`, shape
    (4, B): what the outputs carry of a panned signal, as the left listener = left * heard[0] +
    right * heard[1] + heard[2] (the last where a bus has one side and no pan), and the right
    listener = right * heard[3].
    """

    trim: NDArray[np.float64]
    fader: NDArray[np.float64]
    unmuted: NDArray[np.float64]
    source: NDArray[np.float64]
    spare: NDArray[np.float64]
    on_spare: NDArray[np.float64]
    source_bus: NDArray[np.intp]
    spare_bus: NDArray[np.intp]
    send: NDArray[np.float64]
    on: NDArray[np.float64]
    tap: NDArray[np.intp]
    left: NDArray[np.float64]
    right: NDArray[np.float64]
    sides: NDArray[np.int8]
    master: NDArray[np.float64]
    open: NDArray[np.float64]
    out_column: NDArray[np.intp]
    out_side: NDArray[np.intp]
    out_trim: NDArray[np.float64]
    out_tap: NDArray[np.intp]
    fed_by: NDArray[np.intp]
    at_tap: NDArray[np.float64]
    row_block: NDArray[np.int8]
    column_block: NDArray[np.int8]
    heard: NDArray[np.float64]


def _derive_rows(a: Arrays, rows: slice) -> None:
    """`at_tap` and `row_block` of some rows, from what the readers set."""
    fed = np.where(a.on_spare[rows] == 0.0, a.source[rows], a.spare[rows])
    a.fed_by[rows] = np.where(a.on_spare[rows] == 0.0, a.source_bus[rows], a.spare_bus[rows])
    unmuted, fader = a.unmuted[rows], a.fader[rows]
    a.at_tap[rows, 0] = fed  # the input tap lies before polarity and trim
    a.at_tap[rows, 1:] = (fed * a.trim[rows])[:, None]
    a.at_tap[rows, FIRST_TAP_AFTER_MUTE] *= unmuted
    a.at_tap[rows, AFTER_FADER] *= unmuted * fader
    block = np.zeros((fed.size, len(TAPS)), dtype=np.int8)
    block[fader == 0.0, AFTER_FADER] = Block.DOWN
    block[fed == 0.0] = Block.NO_SOURCE
    block[unmuted == 0.0, FIRST_TAP_AFTER_MUTE:] = Block.MUTED
    a.row_block[rows] = block


def _derive_columns(a: Arrays, columns: slice) -> None:
    """`heard` and `column_block` of some columns.

    A side that several sockets carry counts with the loudest of them. When only the mono sum
    (L+R)/2 of a stereo bus is patched, that sum is what its listener hears, on the left.
    """
    count = a.sides.size
    used = a.out_column >= 0
    bus, tap = a.out_column[used], a.out_tap[used]
    gain = a.out_trim[used] * np.where(tap >= FIRST_TAP_AFTER_MUTE, a.open[bus], 1.0)
    gain *= np.where(tap == AFTER_FADER, a.master[bus], 1.0)
    carried, patched = np.zeros((3, count)), np.zeros((3, count), dtype=np.bool_)
    np.maximum.at(carried, (a.out_side[used], bus), gain)
    patched[a.out_side[used], bus] = True
    sides, is_patched = a.sides[columns], patched[:, columns].any(axis=0)
    left, right, whole = carried[:, columns] * (sides > 0)
    stereo = sides == 2
    half_sum = whole * (stereo & ~(patched[0, columns] | patched[1, columns])) * 0.5
    a.heard[0, columns] = left * stereo + half_sum
    a.heard[1, columns] = half_sum
    a.heard[2, columns] = np.maximum(np.maximum(left, right), whole) * (sides == 1)
    a.heard[3, columns] = right * stereo
    block = np.zeros(sides.size, dtype=np.int8)
    silent = a.heard[:, columns].max(axis=0) == 0.0
    block[silent & (a.master[columns] == 0.0)] = Block.DOWN
    block[~is_patched] = Block.NO_OUTPUT
    block[silent & (a.open[columns] == 0.0)] = Block.MUTED
    block[sides == 0] = Block.NOT_IN_USE
    a.column_block[columns] = block


def _gain(level_db: Value) -> float:
    return 10.0 ** (level_db / 20.0) if isinstance(level_db, float) else 0.0


def _set_pan(arrays: Arrays, row: int, column: int, pan: Value) -> None:
    theta = (float(pan or 0.0) + 1.0) * (math.pi / 4.0)
    arrays.left[row, column] = 0.0 if theta >= math.pi / 2.0 else math.cos(theta)
    arrays.right[row, column] = math.sin(theta)


# numbers from 0 and box keys, as they come in the address; each reader knows which it has
_At = tuple[Any, ...]
_Reader = Callable[[Arrays, Desk, _At, Value, Value], Iterable[Touched]]


def _trim(a: Arrays, _: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
    sign = math.copysign(1.0, a.trim[at[0]])
    a.trim[at[0]] = sign * _gain(new)
    return (Touched(at[0], None),)


def _polarity(a: Arrays, _: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
    size = abs(a.trim[at[0]])
    a.trim[at[0]] = -size if new else size
    return (Touched(at[0], None),)


def _row(name: str, of: Callable[[Value], float | bool]) -> _Reader:
    def read(a: Arrays, _: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
        getattr(a, name)[at[0]] = of(new)
        return (Touched(at[0], None),)

    return read


def _fed(name: str) -> _Reader:
    def read(a: Arrays, desk: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
        getattr(a, name)[at[0]] = new is not None
        bus = -1
        if isinstance(new, str) and new.split("/")[0] in ("mix", "house", "mono"):
            bus = bus_index(desk, new) * 3 + _SIDE_ROW.get(new.rsplit("/", 1)[-1], 2)
        getattr(a, f"{name}_bus")[at[0]] = bus
        return (Touched(at[0], None),)

    return read


def _cell(name: str, of: Callable[[Value], float | bool]) -> _Reader:
    def read(a: Arrays, _: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
        getattr(a, name)[at[0], at[1]] = of(new)
        return (Touched(at[0], at[1]),)

    return read


def _tap(a: Arrays, _: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
    a.tap[at[0], at[1]] = at[0] * len(TAPS) + _TAP_NUMBER[str(new)]
    return (Touched(at[0], at[1]),)


def _send_pan(a: Arrays, _: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
    _set_pan(a, at[0], at[1], new)
    return (Touched(at[0], at[1]),)


def _channel_pan(a: Arrays, desk: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
    _set_pan(a, at[0], house_index(desk), new)
    return (Touched(at[0], house_index(desk)),)


def _assigned(column_of: Callable[[Desk], int]) -> _Reader:
    def read(a: Arrays, desk: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
        a.on[at[0], column_of(desk)] = bool(new)
        return (Touched(at[0], column_of(desk)),)

    return read


def _bus(
    name: str, of: Callable[[Value], float | bool], column_of: Callable[[Desk], int] | None = None
) -> _Reader:
    def read(a: Arrays, desk: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
        column = column_of(desk) if column_of else at[0]
        getattr(a, name)[column] = of(new)
        return (Touched(None, column),)

    return read


def _output_place(desk: Desk, box_key: str, number: int) -> int:
    """Place of an output socket in the desk's order."""
    place = 0
    for box in desk.boxes:
        if box.key == box_key:
            return place + number - 1
        place += box.outputs
    raise UnknownAddress(f"output/{box_key}/{number}")


def _bus_touched(a: Arrays, place: int) -> list[Touched]:
    column = int(a.out_column[place])
    return [Touched(None, column)] if column >= 0 else []


def _output_source(a: Arrays, desk: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
    place = _output_place(desk, str(at[0]), int(at[1]) + 1)
    touched = _bus_touched(a, place)
    a.out_column[place] = -1
    if isinstance(new, str) and not new.startswith("channel/"):
        a.out_column[place] = bus_index(desk, new)
        a.out_side[place] = _SIDE_ROW.get(new.rsplit("/", 1)[-1], 2)
    return [*touched, *_bus_touched(a, place)]


def _output_value(name: str, of: Callable[[Value], float]) -> _Reader:
    def read(a: Arrays, desk: Desk, at: _At, _old: Value, new: Value) -> Iterable[Touched]:
        place = _output_place(desk, str(at[0]), int(at[1]) + 1)
        getattr(a, name)[place] = of(new)
        return _bus_touched(a, place)

    return read


_READERS: Final[dict[str, _Reader]] = {
    "channel/<channel>/source": _fed("source"),
    "channel/<channel>/spare": _fed("spare"),
    "channel/<channel>/on_spare": _row("on_spare", bool),
    "channel/<channel>/trim": _trim,
    "channel/<channel>/polarity": _polarity,
    "channel/<channel>/fader": _row("fader", _gain),
    "channel/<channel>/mute": _row("unmuted", lambda value: not value),
    "channel/<channel>/pan": _channel_pan,
    "channel/<channel>/house/on": _assigned(house_index),
    "channel/<channel>/mono/on": _assigned(mono_index),
    "channel/<channel>/send/mix/<mix>/level": _cell("send", _gain),
    "channel/<channel>/send/mix/<mix>/on": _cell("on", bool),
    "channel/<channel>/send/mix/<mix>/tap": _tap,
    "channel/<channel>/send/mix/<mix>/pan": _send_pan,
    "mix/<mix>/format": _bus("sides", lambda value: _FORMAT_SIDES[value]),
    "mix/<mix>/fader": _bus("master", _gain),
    "mix/<mix>/mute": _bus("open", lambda value: not value),
    "house/fader": _bus("master", _gain, house_index),
    "house/mute": _bus("open", lambda value: not value, house_index),
    "mono/fader": _bus("master", _gain, mono_index),
    "mono/mute": _bus("open", lambda value: not value, mono_index),
    "output/<box>/<output>/source": _output_source,
    "output/<box>/<output>/trim": _output_value("out_trim", _gain),
    "output/<box>/<output>/tap": _output_value("out_tap", lambda tap: _TAP_NUMBER[str(tap)]),
}


def _blank_arrays(desk: Desk) -> Arrays:
    """Every address at its default, by the catalogue's defaults."""
    rows, columns = desk.channels, bus_count(desk)
    house, mono = house_index(desk), mono_index(desk)
    sockets = sum(box.outputs for box in desk.boxes)
    arrays = Arrays(
        trim=np.ones(rows),
        fader=np.zeros(rows),
        unmuted=np.ones(rows),
        source=np.zeros(rows),
        spare=np.zeros(rows),
        on_spare=np.zeros(rows),
        source_bus=np.full(rows, -1, dtype=np.intp),
        spare_bus=np.full(rows, -1, dtype=np.intp),
        send=np.zeros((rows, columns)),
        on=np.ones((rows, columns)),
        tap=np.full((rows, columns), _TAP_NUMBER["before_fader"], dtype=np.intp)
        + len(TAPS) * np.arange(rows)[:, None],
        left=np.full((rows, columns), math.cos(math.pi / 4.0)),
        right=np.full((rows, columns), math.sin(math.pi / 4.0)),
        sides=np.zeros(columns, dtype=np.int8),
        master=np.ones(columns),
        open=np.ones(columns),
        out_column=np.full(sockets, -1, dtype=np.intp),
        out_side=np.zeros(sockets, dtype=np.intp),
        out_trim=np.ones(sockets),
        out_tap=np.full(sockets, AFTER_FADER, dtype=np.intp),
        fed_by=np.full(rows, -1, dtype=np.intp),
        at_tap=np.zeros((rows, len(TAPS))),
        row_block=np.zeros((rows, len(TAPS)), dtype=np.int8),
        column_block=np.zeros(columns, dtype=np.int8),
        heard=np.zeros((4, columns)),
    )
    # The house and mono take every channel behind its fader, at unity; a switch assigns it.
    arrays.send[:, [house, mono]] = 1.0
    arrays.tap[:, [house, mono]] += AFTER_FADER - _TAP_NUMBER["before_fader"]
    arrays.on[:, mono] = False
    arrays.sides[house], arrays.sides[mono] = 2, 1
    return arrays


def _zero_based(indices: tuple[str | int, ...]) -> tuple[Any, ...]:
    return tuple(index - 1 if isinstance(index, int) else index for index in indices)


def read_arrays(show: Show) -> Arrays:
    """The arrays of a whole show."""
    arrays = _blank_arrays(show.desk)
    for address, value in show.values.items():
        parameter = parameter_at(address)
        reader = _READERS.get(parameter.key)
        if reader is not None:
            indices = _zero_based(indices_of(address))
            reader(arrays, show.desk, indices, parameter.default, value)
    _derive_rows(arrays, slice(None))
    _derive_columns(arrays, slice(None))
    return arrays


def followed(
    arrays: Arrays, desk: Desk, old: Mapping[str, Value], new: Mapping[str, Value]
) -> tuple[Arrays, frozenset[Touched]]:
    """The arrays after a change, and the parts of the table that it touches.

    The given arrays stay as they were. A change that bears on no level gives them back untouched.
    """
    bearing = [a for a in new if parameter_at(a).key in _READERS]
    if not bearing:
        return arrays, frozenset()
    copies = {field.name: getattr(arrays, field.name).copy() for field in fields(Arrays)}
    after = replace(arrays, **copies)
    touched: set[Touched] = set()
    for address in bearing:
        reader = _READERS[parameter_at(address).key]
        indices = _zero_based(indices_of(address))
        touched.update(reader(after, desk, indices, old[address], new[address]))
    for row, column in touched:
        if column is None and row is not None:
            _derive_rows(after, slice(row, row + 1))
        elif row is None and column is not None:
            _derive_columns(after, slice(column, column + 1))
    return after, frozenset(touched)
