"""Levels and states of parts of the table, out of what arrives at the buses."""

from typing import Final

import numpy as np

from ..values import sides_to_level_db
from ..wires import (
    AFTER_FADER,
    DIRECT,
    WEIGHTS,
    Cause,
    Floats,
    Indices,
    cause_of_weight,
    direct_out,
    either,
    rounds,
    settled,
)
from .naming import Names
from .paths import Network
from .table import CANCELS, HALF, STATE_OF, Bools, Flow, State

__all__ = ["direct_sockets", "fill", "fill_direct", "fill_levels"]

_HEARD: Final = np.int8(State.HEARD)


def fill(flow: Flow, names: Names, rows: Indices, columns: Indices) -> None:
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
        heard = ((at != 0.0)[:, :, :, None] & (gain > 0.0)).any(axis=(2, 3))
    heard &= flow.sourced[rows, None]
    state = np.where(heard, _HEARD, np.int8(State.UNROUTED))
    silent = on & ~heard
    level_db[~heard] = -np.inf
    if silent.any():
        _name_silent(flow, names, rows, columns, silent, state)
    flow.level_db[part], flow.state[part] = level_db, state
    if flow.mixed:
        _find_cancelled(flow, rows, columns, at, heard)


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
    flow: Flow,
    names: Names,
    rows: Indices,
    columns: Indices,
    silent: Bools,
    state: np.ndarray,
) -> None:
    """States of silent cells whose feeds are on, by the lightest path of each."""
    many = silent.sum(axis=0) * 2 > rows.size  # where a bus is closed, not to ask so of all others
    for asked in (silent & many, silent & ~many):
        some_rows, some = np.flatnonzero(asked.any(axis=1)), np.flatnonzero(asked.any(axis=0))
        if not some_rows.size:
            continue
        at_rows, at = rows[some_rows], columns[some]
        lightest = names.at_listeners(at_rows, at)
        lightest += np.where(flow.sourced[at_rows], 0.0, WEIGHTS[Cause.NO_SOURCE])[:, None]
        where = (some_rows[:, None], some)
        state[where] = np.where(asked[where], STATE_OF[cause_of_weight(lightest)], state[where])


def _find_cancelled(flow: Flow, rows: Indices, columns: Indices, at: Floats, heard: Bools) -> None:
    """Cells whose open paths may take one another away, each looked at path by path."""
    gain = flow.ears.gain[columns]
    real = np.abs(np.einsum("rcs,cse->rce", at, gain))
    most = np.einsum("rcs,cse->rce", _sizes(flow, rows, columns), gain) * CANCELS
    may = heard & (most > 0.0).any(axis=2) & ~(real > most).any(axis=2)
    for row, column in np.argwhere(may):
        r, c = int(rows[row]), int(columns[column])
        if Network(flow, r, c).cancels(CANCELS):
            flow.state[r, c], flow.level_db[r, c] = State.CANCELLED, -np.inf


def _sizes(flow: Flow, rows: Indices, columns: Indices) -> Floats:
    """Amplitudes at some buses with every path counted by its size, detours too."""
    fed, every = flow.fed, flow.layout.every_row
    found = flow.by_row(flow.sizes[:, columns], rows)
    if not fed.dry:
        return found
    behind = flow.wiring.tap[flow.layout.first_bus :, AFTER_FADER]
    onward = flow.sizes[fed.node[: fed.dry]]
    around = rounds(fed.taken(onward, behind, fed.dry))
    at_fed = settled(flow.by_row(fed.taken(flow.sizes, behind, fed.dry), every), around)
    return found + np.tensordot(at_fed[rows], onward[:, columns], axes=1)


def direct_sockets(out_source: Floats) -> Indices:
    """Places of the sockets that carry a direct out, ascending."""
    return np.flatnonzero(out_source <= DIRECT)


def fill_direct(flow: Flow, names: Names, rows: Indices) -> None:
    """Sockets that carry a direct out: its channel alone, and what a bus feeds to it; of a return

    either side, or both as a sum, which has half of the power too.
    """
    arrays, sockets, fed, wiring = flow.arrays, flow.sockets, flow.fed, flow.wiring
    if not sockets.size or not rows.size:
        return
    channel, _ = direct_out(arrays.out_source[sockets])
    tap = arrays.out_tap[sockets].astype(np.intp)
    own = rows[:, None] == channel
    amount = own * np.where(channel < flow.layout.channels, 1.0, HALF)
    on = opens = own
    place_of = {int(row): place for place, row in enumerate(fed.row[: fed.dry])}
    through = [n for n, one in enumerate(channel.tolist()) if one in place_of]
    weight = np.where(own, wiring.closed[channel, tap], np.inf)
    if through:
        places = np.array([place_of[int(channel[n])] for n in through], dtype=np.intp)
        part = np.ix_(rows, places)
        by_way = names.at_taps_of_fed(rows, places, tap[through])
        weight[:, through] = np.minimum(weight[:, through], by_way)
        amount[:, through] += flow.at_fed[part]
        on, opens = own.copy(), own.copy()
        on[:, through] |= flow.on_at_fed()[part]
        opens[:, through] |= flow.open_at_fed()[part]
    closed = wiring.closed[channel, tap]
    weight += np.where(flow.sourced[rows], 0.0, WEIGHTS[Cause.NO_SOURCE])[:, None]
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
