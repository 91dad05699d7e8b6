"""Typing what is to arrive: the moves after which sources arrive at listeners as somebody typed."""

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Final

from ..catalogue import Address, kind_on, of_kind, thing_of
from ..edit import EXACT_DB, edited, opening_at, solved_db
from ..flow import Flow, Network, OpenedWay, Path, State, listener_name, source_name, strip_name
from ..patching import patch_missing
from ..show import Show
from ..together import Carry, closers_of, opened_rulers
from ..values import (
    Asked,
    GangInTheWay,
    NothingLeft,
    Number,
    OneFaderTwoPlaces,
    OutOfReach,
    SeveralPaths,
    UnreadableText,
    Value,
    is_step,
    said,
)

__all__ = ["hear", "typed_level_db"]

# A level that arrives may lie anywhere; what the control can do is checked afterwards.
_ANY_LEVEL: Final = Number(unit="dB", lowest=-math.inf, highest=200.0, step=0.1)
_MOST_WAYS: Final = 8


def typed_level_db(text: str) -> float:
    """A level as typed where there is nothing to be relative to. Raises UnreadableText."""
    return _ANY_LEVEL.typed(text or "off", -math.inf, "level")


@dataclass(frozen=True, slots=True)
class _Cell:
    """A cell and its own feed: what rides it, and what switches it; "" where it has none."""

    source: str
    listener: str
    row: int
    column: int
    control: str
    switch: str

    def names(self, show: Show) -> tuple[str, str]:
        return source_name(show, self.source), listener_name(show, self.listener)


def _cell(show: Show, flow: Flow, source: str, listener: str) -> _Cell:
    """A mix is ridden by its send; house, mono and groups by the source's fader; a direct out by

    the trim of its socket.
    """
    row, column = flow.layout.row(source), flow.layout.column(listener)
    control = switch = ""
    if of_kind(listener) == "output":
        carried = show[f"{listener}/source"]
        if isinstance(carried, str) and thing_of(carried) == source:
            control = f"{listener}/trim"
    elif f"{source}/send/{listener}/level" in flow.homes:
        control, switch = f"{source}/send/{listener}/level", f"{source}/send/{listener}/on"
    elif f"{source}/{listener}/on" in flow.homes:
        control, switch = f"{source}/fader", f"{source}/{listener}/on"
    return _Cell(source, listener, row, column, control, switch)


def hear(show: Show, flow: Flow, cells: Iterable[tuple[str, str]], text: str) -> dict[str, Asked]:
    """Moves after which each (source, listener) of `cells` arrives as typed: "-6", "up 2", "off".

    A level is what arrives, with all that stands behind the control, so what is typed is what is
    read; in a cell that is silent the rest of its path counts as it will be once it is open. "Off"
    takes a source out of the house, mono or a group by its assignment, so that nothing else falls
    silent with it. A relative move needs something that arrives. Raises UnreadableText, OutOfReach,
    UnknownAddress; OneFaderTwoPlaces where cells want one control at two places; SeveralPaths, with
    the ways to do it, where a source does not arrive by its own feed alone; GangInTheWay where what
    follows by gangs would bear on it. The moves are a hand's: gangs follow them.
    """
    asked = [_cell(show, flow, source, listener) for source, listener in cells]
    # From the show as it was seen: what one cell's move brings along must not count as the next's.
    targets = _targets(show, flow, asked, text)
    moves: dict[str, Asked] = {}
    # Faders first: sends behind them are then worked out as they will stand.
    for of_fader in (True, False):
        some = {
            cell: wanted_db
            for cell, wanted_db in targets.items()
            if (cell.control == f"{cell.source}/fader") == of_fader
        }
        if some:
            moves.update(_moves_of(show, flow, some, opens=not is_step(text)))
        if of_fader and moves and len(some) < len(targets):
            after = edited(show, flow, moves, Carry())
            show, flow = after.show, after.flow
    return moves


def _targets(show: Show, flow: Flow, cells: Iterable[_Cell], text: str) -> dict[_Cell, float]:
    """What is to arrive in each cell, in dB; a relative move never opens what is off."""
    targets: dict[_Cell, float] = {}
    opened = _opened_way(show, flow)
    for cell in cells:
        now_db = -math.inf
        if is_step(text):
            now_db = _now_db(show, flow, opened, cell, text)
            if now_db == -math.inf:
                continue
        targets[cell] = _ANY_LEVEL.typed(text, now_db, " at ".join(cell.names(show)))
    return targets


def _now_db(show: Show, flow: Flow, opened: OpenedWay, cell: _Cell, text: str) -> float:
    """What arrives in a cell; of one that is silent what would, were the rest of its way open."""
    state = flow.cell(cell.row, cell.column)
    if state.state is State.HEARD:
        return state.level_db
    wanted = partial(_wanted_db, show, flow, cell, text)
    rest_db = _rest_db(show, flow, opened, cell, wanted)
    return show.number(cell.control) + rest_db


def _wanted_db(show: Show, flow: Flow, cell: _Cell, text: str) -> float | None:
    """What a text asks of what arrives in a cell now; None where it asks more of nothing."""
    now_db = flow.cell(cell.row, cell.column).level_db
    if is_step(text) and now_db == -math.inf:
        return None
    return _ANY_LEVEL.typed(text, now_db, " at ".join(cell.names(show)))


def _moves_of(
    show: Show, flow: Flow, targets: Mapping[_Cell, float], *, opens: bool
) -> dict[str, Asked]:
    """Moves after which the cells arrive at these levels, in dB; `opens` switches feeds on."""
    moves: dict[str, Asked] = {}
    set_by: dict[str, tuple[_Cell, float]] = {}
    wanted: dict[_Cell, float] = {}
    opened = _opened_way(show, flow)
    for cell, wanted_db in targets.items():
        rest_db = _rest_db(show, flow, opened, cell, partial(float, wanted_db))
        if wanted_db == -math.inf:
            moves.update(_off(show, flow, cell))
            continue
        needed_db = round(wanted_db - rest_db, 6)
        _in_reach(show, cell, needed_db)
        if cell.control in set_by and abs(set_by[cell.control][1] - needed_db) > 1e-5:
            other = set_by[cell.control][0]
            raise OneFaderTwoPlaces(_control(show, cell), other.names(show), cell.names(show))
        set_by[cell.control] = (cell, needed_db)
        moves[cell.control] = needed_db
        if opens and cell.switch:
            moves |= _opening(show, cell)
        wanted[cell] = wanted_db
    _check(show, flow, moves, wanted)
    return moves


def _opened_way(show: Show, flow: Flow) -> OpenedWay:
    return OpenedWay(flow, lambda bus: _as_patched(show, bus))


def _opening(show: Show, cell: _Cell) -> dict[str, Asked]:
    """Moves that open a cell's own feed; into a group it has a level, which may be off."""
    moves: dict[str, Asked] = {cell.switch: True}
    level = Address.at(cell.switch).beside("level")
    if of_kind(cell.listener) == "group" and show.number(level) == -math.inf:
        moves[level] = 0.0
    return moves


def _control(show: Show, cell: _Cell) -> str:
    name = source_name(show, cell.source)
    if Address.at(cell.control).last == "fader":
        return f"The fader of {name}"
    if Address.at(cell.control).last == "trim":
        return f"The trim of {listener_name(show, cell.listener)}"
    return f"The send of {name} to {listener_name(show, cell.listener)}"


def _in_reach(show: Show, cell: _Cell, needed_db: float) -> None:
    kind = kind_on(show.desk, cell.control)
    if isinstance(kind, Number) and needed_db > kind.highest:
        raise OutOfReach(_control(show, cell), needed_db, kind.highest)


def _off(show: Show, flow: Flow, cell: _Cell) -> dict[str, Asked]:
    if Address.at(cell.control).last == "trim":
        raise UnreadableText("off", "a level; to silence a direct out, free its socket in Outputs")
    if Address.at(cell.control).last != "fader":
        return {cell.control: -math.inf}
    return {cell.switch: False} if show.on(cell.switch) else {}


def _rest_db(
    show: Show, flow: Flow, opened: OpenedWay, cell: _Cell, wanted: Callable[[], float | None]
) -> float:
    """What the rest of the cell's own path adds to its control, in dB.

    Raises SeveralPaths where something reaches the listener otherwise, with the ways to `wanted`.
    """
    if not cell.control:
        raise _several(show, flow, cell, wanted())
    heard = flow.cell(cell.row, cell.column)
    if heard.state in (State.HEARD, State.CANCELLED):
        standing_db = show.number(cell.control)
        switched_on = not cell.switch or show.on(cell.switch)
        if not switched_on or standing_db == -math.inf:
            raise _several(show, flow, cell, wanted())
        if abs(heard.level_db - standing_db - opened.now_db(cell.row, cell.column)) > 1e-6:
            raise _several(show, flow, cell, wanted())
        return heard.level_db - standing_db
    both = closers_of(show, cell.source) & closers_of(show, cell.listener)
    if both:  # one action opens the strip and its listener: what carries that is then another
        moves = opened_rulers(both)
        after = edited(show, flow, moves)
        opened = _opened_way(after.show, after.flow)
    return opened.opened_db(cell.row, cell.column)


def _as_patched(show: Show, bus: str) -> Mapping[str, Value]:
    """What the remedy for a missing output would patch; nothing where no output is left."""
    try:
        return {address: str(source) for address, source in patch_missing(show, bus).items()}
    except NothingLeft:
        return {}


def _check(show: Show, flow: Flow, moves: dict[str, Asked], wanted: dict[_Cell, float]) -> None:
    """Every cell that is heard after the moves must arrive as typed: two may bear on each other."""
    if len(wanted) == 0:
        return
    by_hand = edited(show, flow, moves, Carry())
    after, follows = by_hand.flow, by_hand.carried
    for cell, wanted_db in wanted.items():
        found = after.cell(cell.row, cell.column)
        if found.state is State.HEARD and abs(found.level_db - wanted_db) > EXACT_DB:
            if follows.values:
                names = [strip_name(show, gang) for gang in follows.gangs(show)]
                raise GangInTheWay(*cell.names(show), names)
            others = [other for other in wanted if other is not cell]
            if not others:
                raise _several(show, after, cell, wanted_db)
            other = next((o for o in others if o.source == cell.source), others[0])
            raise OneFaderTwoPlaces(_control(show, cell), cell.names(show), other.names(show))


# ---- the ways where several paths arrive


def _several(show: Show, flow: Flow, cell: _Cell, wanted_db: float | None) -> SeveralPaths:
    name, listener = cell.names(show)
    if wanted_db is None:
        return SeveralPaths(name, listener, ())
    paths = list(_paths(flow, cell))
    if wanted_db == -math.inf:
        return SeveralPaths(name, listener, _ways_off(show, flow, cell, paths))
    ways = []
    for control in _controls(show, flow, cell, paths):
        level_db = solved_db(show, flow, cell.row, cell.column, control, wanted_db)
        if level_db is not None:
            others = "" if Address.at(control).thing == cell.source else ", with all that passes it"
            words = f"{_words(show, control)} to {said(level_db, signed=True)} dB{others}"
            ways.append((words, opening_at(control, level_db)))
    return SeveralPaths(name, listener, ways[:_MOST_WAYS])


def _paths(flow: Flow, cell: _Cell) -> Iterable[Path]:
    network = Network(flow, cell.row, cell.column)
    for turn, path in enumerate(network.loudest()):
        if turn == 32:
            return
        yield path


def _controls(show: Show, flow: Flow, cell: _Cell, paths: Sequence[Path]) -> list[str]:
    """Faders and sends that the paths pass, the cell's own feed first."""
    found = dict.fromkeys([cell.control] if "/send/" in cell.control else [])
    layout = flow.layout
    for path in paths:
        for edge in path.edges:
            strip = layout.strips[edge.start[0]]
            if show.text(f"{strip}/fader") or f"{strip}/fader" in flow.homes:
                found[f"{strip}/fader"] = None
            if edge.to is not None:
                send = f"{strip}/send/{layout.strips[edge.to[0]]}/level"
                if send in flow.homes:
                    found[send] = None
    return list(found)


def _words(show: Show, control: str) -> str:
    at = Address.at(control)
    strip = at.thing
    if not at.of_send:
        return f"The fader of {strip_name(show, strip)}"
    to = strip_name(show, at.target)
    return f"The send of {strip_name(show, strip)} to {to}"


def _ways_off(
    show: Show, flow: Flow, cell: _Cell, paths: Sequence[Path]
) -> list[tuple[str, dict[str, Asked]]]:
    """One way: the source's own feeds on all these paths switched off."""
    moves: dict[str, Asked] = {}
    for path in paths:
        if len(path.edges) < 2 or path.edges[0].to is None:
            continue
        strip = flow.layout.strips[path.edges[0].start[0]]
        bus = flow.layout.strips[path.edges[0].to[0]]
        for switch in (f"{strip}/send/{bus}/on", f"{strip}/{bus}/on"):
            if switch in flow.homes:
                moves[switch] = False
    if not moves:
        return []
    return [(f"Take {source_name(show, cell.source)} out of all that leads there", moves)]
