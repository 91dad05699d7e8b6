"""The table, its cells, why and reach: their messages, and what fills them."""

import math
from collections.abc import Mapping
from functools import lru_cache
from types import MappingProxyType
from typing import Literal, cast

from pydantic import BaseModel

from ombrel import core

from ..asks.asking import AskedMove, moves_to_wire
from ..keeping.states import State

__all__ = [
    "CellState",
    "Cells",
    "ClosingMessage",
    "LoudSource",
    "Loudest",
    "ReachListener",
    "ReachMessage",
    "SetBy",
    "Table",
    "WhyAnswer",
    "WhyReason",
    "WhyRemedy",
    "WhyStep",
    "WhyWay",
    "cells_message",
    "level_to_wire",
    "loudest_message",
    "reach_message",
    "table_message",
    "why_message",
]


CellState = Literal["unrouted", "heard", "muted", "no_source", "no_output", "down", "cancelled"]


CellWay = Literal["before", "after", "through"]


class TableCell(BaseModel):
    """One cell of who hears what; level in dB, null for silence. `way`: how its own feed taps, or

    "through" where it comes by other strips.
    """

    source: str
    listener: str
    level_db: float | None
    state: CellState
    way: CellWay


class TableHead(BaseModel):
    """Head of a column: where the listener stands, whether it goes anywhere, and what it serves.

    `listens` false: a stage in between, drawn apart.
    """

    about: str
    patched: bool
    serves: str
    listens: bool


class Table(BaseModel):
    """The whole of who hears what: one list of cells a source, in the order of the listeners."""

    type: Literal["table"]
    revision: int
    sources: list[str]
    listeners: list[str]
    heads: list[TableHead]
    level_db: list[list[float | None]]
    state: list[list[CellState]]
    way: list[list[CellWay]]


class Cells(BaseModel):
    """Cells of the table that changed."""

    type: Literal["cells"]
    revision: int
    cells: list[TableCell]


class WhyStep(BaseModel):
    """One stage of the path."""

    kind: str
    title: str
    detail: str
    gain_db: float | None
    dbu: float | None
    dbfs: float | None
    in_path: bool
    open: bool
    has_gain: bool
    address: str | None


class WhyRemedy(BaseModel):
    """What a button says, and the moves it makes; `by_hand`: gangs follow them, as was shown."""

    says: str
    moves: list[AskedMove]
    by_hand: bool = False


class Setter(BaseModel):
    """Who moved something last, and when (ISO 8601); both "": longer ago than is looked through."""

    by: str
    at: str


class SetBy(BaseModel):
    """Who holds the keys of hard or safe mute groups that the explanation names, by address."""

    type: Literal["set_by"]
    keys: dict[str, Setter]


class WhyReason(BaseModel):
    """One reason for silence. `address`: of the value that is in the way, where one is."""

    code: str
    says: str
    address: str | None
    remedy: WhyRemedy | None
    instead: WhyRemedy | None
    ruler: str | None  # the DCA or mute group that silences


class WhyWay(BaseModel):
    """One way from the source to the listener; `says`: by way of what, "" for its own feed.

    `late_ms`: how late it arrives; null where that is not one number.
    """

    says: str
    level_db: float | None
    wet: bool
    steps: list[WhyStep]
    late_ms: float | None


class WhyAnswer(BaseModel):
    """The explanation of one cell. `opening`: the fewest actions that let it be heard, as one;

    `also`: what else would silence what is not sent.
    """

    type: Literal["why"]
    revision: int
    source: str
    listener: str
    source_name: str
    listener_name: str
    level_db: float | None
    state: CellState
    says: str
    head: list[WhyStep]
    ways: list[WhyWay]
    reasons: list[WhyReason]
    also: list[WhyReason]
    opening: WhyRemedy | None


class LoudSource(BaseModel):
    """A source that is heard at a listener; `rank` 1 is the loudest."""

    rank: int
    source: str
    name: str
    level_db: float


class Loudest(BaseModel):
    """The loudest sources at the listener of the cell that Why answers for, its own among them."""

    type: Literal["loudest"]
    revision: int
    listener: str
    sources: list[LoudSource]


class ReachListener(BaseModel):
    """What a DCA or mute group does at a listener, in numbers of sources; `still`: who is heard."""

    listener: str
    name: str
    closes: int
    follows: int
    still: list[str]


class ClosingMessage(BaseModel):
    """How many cells the key of each mute group closes, or opens where it is on."""

    type: Literal["closing"]
    cells: dict[str, int]


class SilentSource(BaseModel):
    """A source that the house does not hear, why, and where Why answers for it. `together`: words

    for all that are silent for the same.
    """

    source: str
    name: str
    listener: str
    says: str
    together: str


class SilentMessage(BaseModel):
    """The first of all that are silent in the house; `count`: how many there are."""

    type: Literal["silent"]
    count: int
    sources: list[SilentSource]


class ReachTail(BaseModel):
    """A return that rings on when it mutes; `others` feed its effect too."""

    strip: str
    name: str
    others: list[str]


class ReachMessage(BaseModel):
    """How far a DCA or mute group reaches. `behind`: the action that taps sends behind the mute.

    `along`: the one by which those of `tails` that nobody else feeds are muted with it.
    """

    type: Literal["reach"]
    revision: int
    ruler: str
    closed: int
    alone: list[str]
    listeners: list[ReachListener]
    behind: WhyRemedy | None
    tails: list[ReachTail]
    along: WhyRemedy | None


def level_to_wire(level_db: float) -> float | None:
    """A level in dB; null is silence."""
    return None if math.isinf(level_db) else round(level_db, 2)


def _state(state: int) -> CellState:
    return cast(CellState, core.State(state).name.lower())


def table_message(state: State) -> dict:
    """The whole table, in the rows and columns worth drawing."""
    show, flow = state.show, state.flow
    sources, heads = core.table_heads(show, flow)
    rows = [flow.layout.row(source) for source in sources]
    columns = [flow.layout.column(head.listener) for head in heads]
    levels, states = flow.part(rows, columns)
    return {
        "type": "table",
        "revision": state.revision,
        "sources": sources,
        "listeners": [head.listener for head in heads],
        "heads": [
            {
                "about": head.about,
                "patched": head.patched,
                "serves": head.serves,
                "listens": head.listens,
            }
            for head in heads
        ],
        "level_db": [[level_to_wire(level_db) for level_db in row] for row in levels.tolist()],
        "state": [[_state(cell) for cell in row] for row in states.tolist()],
        "way": flow.ways(rows, columns),
    }


@lru_cache(maxsize=8)
def _drawn(state: State) -> tuple[frozenset[int], frozenset[int]]:
    """Rows and columns worth drawing."""
    sources, heads = core.table_heads(state.show, state.flow)
    layout = state.flow.layout
    rows = frozenset(layout.row(source) for source in sources)
    return rows, frozenset(layout.column(head.listener) for head in heads)


def cells_message(state: State, cells: tuple[tuple[int, int], ...]) -> dict:
    """Cells that changed, as many as are drawn."""
    flow, layout = state.flow, state.flow.layout
    rows, columns = _drawn(state)
    drawn = [cell for cell in cells if cell[0] in rows and cell[1] in columns]
    some_rows = sorted({row for row, _ in drawn})
    some_columns = sorted({column for _, column in drawn})
    levels, states = flow.part(some_rows, some_columns)
    ways = flow.ways(some_rows, some_columns)
    at_row = {row: place for place, row in enumerate(some_rows)}
    at_column = {column: place for place, column in enumerate(some_columns)}
    found = [
        {
            "source": layout.source(row),
            "listener": layout.listener(column),
            "level_db": level_to_wire(float(levels[at_row[row], at_column[column]])),
            "state": _state(int(states[at_row[row], at_column[column]])),
            "way": ways[at_row[row]][at_column[column]],
        }
        for row, column in drawn
    ]
    return {"type": "cells", "revision": state.revision, "cells": found}


def _steps(steps: tuple[core.Step, ...]) -> list[WhyStep]:
    return [
        WhyStep(
            kind=step.kind,
            title=step.title,
            detail=step.detail,
            gain_db=None if step.gain_db is None else level_to_wire(step.gain_db),
            dbu=step.dbu,
            dbfs=step.dbfs,
            in_path=step.in_path,
            open=step.open,
            has_gain=step.gain_db is not None,
            address=step.address,
        )
        for step in steps
    ]


def remedy_to_wire(remedy: core.Remedy | None) -> WhyRemedy | None:
    """A remedy for its button."""
    if remedy is None:
        return None
    return WhyRemedy(says=remedy.says, moves=moves_to_wire(remedy.moves))


def why_message(
    state: State, source: str, listener: str, shares: Mapping[str, float] = MappingProxyType({})
) -> dict:
    """The explanation of one cell; `shares`: what is measured of who shares gain, in dB by strip.

    Raises UnknownAddress.
    """
    answer = core.why(state.show, source, listener, flow=state.flow, shares_now=shares)
    return WhyAnswer(
        type="why",
        revision=state.revision,
        source=answer.source,
        listener=answer.listener,
        source_name=answer.source_name,
        listener_name=answer.listener_name,
        level_db=level_to_wire(answer.level_db),
        state=_state(answer.state),
        says=answer.says,
        head=_steps(answer.head),
        ways=[
            WhyWay(
                says=way.says,
                level_db=level_to_wire(way.level_db),
                wet=way.wet,
                steps=_steps(way.steps),
                late_ms=None if way.late_ms is None else round(way.late_ms, 3),
            )
            for way in answer.ways
        ],
        reasons=[_reason(state, one) for one in answer.reasons],
        also=[_reason(state, one) for one in answer.also],
        opening=remedy_to_wire(answer.opening),
    ).model_dump(mode="json")


def loudest_message(state: State, source: str, listener: str) -> dict:
    """Who is loudest at a listener. Raises UnknownAddress."""
    return Loudest(
        type="loudest",
        revision=state.revision,
        listener=listener,
        sources=[
            LoudSource(rank=x.rank, source=x.source, name=x.name, level_db=round(x.level_db, 2))
            for x in core.loudest(state.show, state.flow, source, listener)
        ],
    ).model_dump(mode="json")


def silent_message(state: State) -> dict:
    """Who is silent in the house, and why."""
    found = core.silent(state.show, state.flow)
    return SilentMessage(
        type="silent",
        count=found.count,
        sources=[
            SilentSource(
                source=x.source,
                name=x.name,
                listener=x.listener,
                says=x.why.says,
                together=x.together,
            )
            for x in found.told
        ],
    ).model_dump(mode="json")


def reach_message(state: State, ruler: str) -> dict:
    """How far a DCA or mute group reaches. Raises UnknownAddress."""
    found = core.reach(state.show, state.flow, ruler)
    sends = core.counted(found.sends, "send")
    behind = core.Remedy(says=f"Tap {sends} behind the mute", moves=found.behind)
    return ReachMessage(
        type="reach",
        revision=state.revision,
        ruler=ruler,
        closed=found.closed,
        alone=list(found.alone),
        listeners=[
            ReachListener(
                listener=one.listener,
                name=one.name,
                closes=one.closes,
                follows=one.follows,
                still=list(one.still),
            )
            for one in found.listeners
        ],
        behind=remedy_to_wire(behind if found.sends else None),
        tails=[
            ReachTail(strip=x.strip, name=x.name, others=list(x.others[:6])) for x in found.tails
        ],
        along=remedy_to_wire(found.along),
    ).model_dump(mode="json")


def _reason(state: State, one: core.Reason) -> WhyReason:
    return WhyReason(
        code=one.code,
        says=one.says,
        address=one.address if core.is_on_desk(state.show.desk, one.address) else None,
        remedy=remedy_to_wire(one.remedy),
        instead=remedy_to_wire(one.instead),
        ruler=one.ruler,
    )
