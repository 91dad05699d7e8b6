"""Levels and states of parts of the table, out of what arrives at the buses."""

from typing import Final

import numpy as np

from ..laws import sides_to_level_db
from .arrays import Floats
from .fed import rounds, settled
from .homes import DIRECT
from .paths import Network
from .rulers import shared
from .stages import AFTER_FADER, CLOSES, Cause
from .states import Weighing, lightest_at_ears
from .table import CANCELS, STATE_OF, Bools, Flow, State
from .wiring import WEIGHTS, Indices, cause_of_weight, either, spread

__all__ = ["direct_sockets", "fill", "fill_direct", "fill_levels"]

_HEARD: Final = np.int8(State.HEARD)
# Cells looked at path by path in one move: others keep the name that sums give, so that no key
# holds up the show.
_MOST_CLOSELY: Final = 40
_NONE: Final = np.zeros((0, 2), dtype=np.intp)


def fill(flow: Flow, rows: Indices, columns: Indices) -> None:
    """Put levels and states of some rows at some buses into a flow that is being made."""
    if not rows.size or not columns.size:
        return
    part = (rows[:, None], columns)
    gain = flow.ears.gain[columns]
    at = flow.arriving(rows, columns)
    level_db = _levels(at, gain)
    on = either(flow.sides_on(rows, columns))
    if flow.fed.dry or flow.mixed:
        opens = flow.sides_open(rows, columns)
        heard = (opens[:, :, :, None] & (gain > 0.0)).any(axis=(2, 3))
    else:
        heard = level_db > -np.inf
    heard &= flow.sourced[rows, None]
    state = np.where(heard, _HEARD, np.int8(State.UNROUTED))
    silent = on & ~heard
    level_db[~heard] = -np.inf
    any_silent = bool(silent.any())
    if any_silent:
        _name_silent(flow, rows, columns, silent, state)
    flow.level_db[part], flow.state[part] = level_db, state
    if flow.mixed:
        _find_cancelled(flow, rows, columns, at, heard)
    if any_silent:
        for row, column in _looked_at_closely(flow, rows, columns, silent):
            _name_closely(flow, int(rows[row]), int(columns[column]))


def fill_levels(flow: Flow, rows: Indices, columns: Indices) -> None:
    """As `fill`, where no cause of silence has come or gone: every state stands as it is."""
    if not rows.size or not columns.size:
        return
    part = (rows[:, None], columns)
    level_db = _levels(flow.arriving(rows, columns), flow.ears.gain[columns])
    flow.level_db[part] = np.where(flow.state[part] == _HEARD, level_db, -np.inf)


def _levels(at: Floats, gain: Floats) -> Floats:
    """Levels in dB of what arrives at buses, shape (n, columns, 2), by the gains of their ears."""
    left = at[:, :, 0] * gain[:, 0, 0] + at[:, :, 1] * gain[:, 1, 0]
    right = at[:, :, 0] * gain[:, 0, 1] + at[:, :, 1] * gain[:, 1, 1]
    return sides_to_level_db(left, right)


def _name_silent(
    flow: Flow, rows: Indices, columns: Indices, silent: Bools, state: np.ndarray
) -> None:
    """States of silent cells whose feeds are on, by the lightest path of each."""
    some_rows, some = np.flatnonzero(silent.any(axis=1)), np.flatnonzero(silent.any(axis=0))
    weighing = Weighing(flow.wiring, flow.fed)
    weights = weighing.to_buses(rows[some_rows], columns[some])
    lightest = lightest_at_ears(weights, flow.ears, weighing.behind, columns[some])
    lightest += np.where(flow.sourced[rows[some_rows]], 0.0, WEIGHTS[Cause.NO_SOURCE])[:, None]
    where = (some_rows[:, None], some)
    state[where] = np.where(silent[where], STATE_OF[cause_of_weight(lightest)], state[where])


def _find_cancelled(flow: Flow, rows: Indices, columns: Indices, at: Floats, heard: Bools) -> None:
    """Cells whose open paths may take one another away, each looked at path by path."""
    gain = flow.ears.gain[columns]
    real = np.abs(np.einsum("rcs,cse->rce", at, gain))
    most = np.einsum("rcs,cse->rce", _sizes(flow)[np.ix_(rows, columns)], gain) * CANCELS
    may = heard & (most > 0.0).any(axis=2) & ~(real > most).any(axis=2)
    for row, column in np.argwhere(may):
        r, c = int(rows[row]), int(columns[column])
        if Network(flow, r, c).cancels(CANCELS):
            flow.state[r, c], flow.level_db[r, c] = State.CANCELLED, -np.inf


def sizes_of(flow: Flow) -> Floats:
    """As `Flow.plain`, with every path counted by its size."""
    straight = flow.wiring.straight(flow.layout.every_node)
    return spread(np.abs(straight), flow.wiring.of_buses, flow.layout)


def _sizes(flow: Flow) -> Floats:
    """Amplitudes with every path counted by its size, detours too; shape (rows, buses, 2)."""
    layout, fed = flow.layout, flow.fed
    rows = layout.every_row
    of_nodes = sizes_of(flow)
    found = flow.by_row(of_nodes, rows)
    if not fed.dry:
        return found
    behind = flow.wiring.tap[layout.first_bus :, AFTER_FADER]
    around = rounds(fed.taken(of_nodes[fed.node[: fed.dry]], behind, fed.dry))
    at_fed = settled(flow.by_row(fed.taken(of_nodes, behind, fed.dry), rows), around)
    return found + np.tensordot(at_fed, of_nodes[fed.node[: fed.dry]], axes=1)


def _passed_twice(flow: Flow) -> bool:
    """Whether a path may pass a closed bus by one side and come back by the other, so that one

    cause would be counted twice by sums of weights.
    """
    first = flow.layout.first_bus
    closed = flow.wiring.closed[first:, AFTER_FADER] > 0.0
    stereo = flow.arrays.sides[first:] == 2
    of_side = flow.fed.share[: flow.fed.dry].min(axis=1) == 0.0
    return bool((closed & stereo).any() and of_side.any())


def _looked_at_closely(flow: Flow, rows: Indices, columns: Indices, silent: Bools) -> Indices:
    """Silent cells that sums may name wrong, (row, column) as places in `rows` and `columns`."""
    if flow.fed.dry and _passed_twice(flow):
        return np.argwhere(silent)
    twice = _counted_twice(flow, rows, columns)
    return _NONE if twice is None else np.argwhere(silent & twice)[:_MOST_CLOSELY]


def _counted_twice(flow: Flow, rows: Indices, columns: Indices) -> Bools | None:
    """Cells whose name sums of weights may get wrong, because a DCA or mute group closes two strips

    of a path and is one cause: those with several ways, on which causes of several kinds stand.
    None: there is nothing that could.
    """
    layout = flow.layout
    along, buses = shared(flow.arrays, layout, flow.fed.row[: flow.fed.dry])
    detours = np.zeros(rows.size, dtype=np.bool_)
    if flow.fed.dry and (along or buses):
        detours = np.asarray(flow.on_at_fed()[rows].any(axis=1))
    if not along and not detours.any():
        return None
    first, groups, last = layout.first_bus, layout.groups.stop, layout.matrices
    feeds = flow.wiring.leads(slice(0, layout.feeding)).astype(np.float32)
    of_rows, of_buses = feeds[rows], feeds[first:]

    def led_on(at: Floats) -> Floats:
        found = at.copy()
        found[:, layout.middle] += at[:, :groups] @ of_buses[:groups, layout.middle]
        found[:, last] += found[:, : last.start] @ of_buses[: last.start, last]
        return found

    ways = led_on(of_rows)[:, columns]
    # a path of which all causes are of one kind is named by that, however often it is counted
    kinds = np.zeros((rows.size, columns.size), dtype=np.int8)
    closed = flow.arrays.stage == 0.0
    for cause in (Cause.MUTED, Cause.DOWN):
        has = closed[:, cause == CLOSES].any(axis=1)
        passes = led_on(of_rows * has[first:])[:, columns] > 0.0  # by a closed group, or at the end
        leads = of_buses[: last.start, last].T @ has[first : first + last.start]
        before: Bools = np.asarray(leads > 0.0)
        here = has[first + columns]
        here[columns >= last.start] |= before[columns[columns >= last.start] - last.start]
        kinds += has[rows][:, None] | passes | here[None, :]
    kinds += either(~np.isfinite(flow.ears.weight[columns]))[None, :]
    several = flow.sourced[rows][:, None] & (ways > 1.0) & (kinds > 1)
    found: Bools = (several & along) | detours[:, None]
    return found


def _name_closely(flow: Flow, row: int, column: int) -> None:
    first = Network(flow, row, column).first_name()
    if first is None:
        return
    if column < flow.layout.buses:
        flow.state[row, column] = STATE_OF[first]
    else:
        place = int(np.searchsorted(flow.sockets, column - flow.layout.buses))
        flow.direct_state[row, place] = STATE_OF[first]


def direct_sockets(out_source: Floats) -> Indices:
    """Places of the sockets that carry a direct out, ascending."""
    return np.flatnonzero(out_source <= DIRECT)


def fill_direct(flow: Flow, rows: Indices) -> None:
    """Sockets that carry a direct out: its channel alone, and what a bus feeds to it."""
    arrays, sockets, fed, wiring = flow.arrays, flow.sockets, flow.fed, flow.wiring
    if not sockets.size or not rows.size:
        return
    channel = DIRECT - arrays.out_source[sockets].astype(np.intp)
    tap = arrays.out_tap[sockets].astype(np.intp)
    own = rows[:, None] == channel
    amount, weight = own.astype(np.float64), np.where(own, 0.0, np.inf)
    on = opens = own
    place_of = {int(row): place for place, row in enumerate(fed.row[: fed.dry])}
    through = [n for n, one in enumerate(channel.tolist()) if one in place_of]
    if through:
        places = np.array([place_of[int(channel[n])] for n in through], dtype=np.intp)
        part = np.ix_(rows, places)
        weighing = Weighing(wiring, fed)
        weighing.to_buses(rows, np.arange(flow.layout.buses))
        amount[:, through] += flow.at_fed[part]
        weight[:, through] = np.minimum(weight[:, through], weighing.at_fed[:, places])
        on, opens = own.copy(), own.copy()
        on[:, through] |= flow.on_at_fed()[part]
        opens[:, through] |= flow.open_at_fed()[part]
    closed = wiring.closed[channel, tap]
    weight = weight + closed + np.where(flow.sourced[rows], 0.0, WEIGHTS[Cause.NO_SOURCE])[:, None]
    heard = opens & flow.sourced[rows, None] & (closed == 0.0)
    gain = amount * (wiring.tap[channel, tap] * arrays.out_trim[sockets])
    flow.direct_db[rows] = np.where(heard, sides_to_level_db(gain, 0.0), -np.inf)
    silent = np.where(on, STATE_OF[cause_of_weight(weight)], np.int8(State.UNROUTED))
    flow.direct_state[rows] = np.where(heard, _HEARD, silent)
    if not through:
        return
    column = flow.layout.buses + sockets
    if flow.mixed:
        fed_too = np.isin(np.arange(sockets.size), through)
        for row, place in np.argwhere(heard & fed_too):
            r = int(rows[row])
            if Network(flow, r, int(column[place])).cancels(CANCELS):
                flow.direct_state[r, place], flow.direct_db[r, place] = State.CANCELLED, -np.inf
    if _passed_twice(flow):
        for row, place in np.argwhere(on & ~heard):
            _name_closely(flow, int(rows[row]), int(column[place]))
