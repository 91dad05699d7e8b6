"""What a screen is told, made from a state of the show: messages of `wire`, filled in."""

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import cast
from uuid import UUID

from ombrel import core

from .asking import moves_to_wire
from .casting_to_screen import PreviewCompany
from .live import State, for_pages, to_wire
from .scenes_to_screen import PreviewScene
from .to_screen import (
    BreachMessage,
    CellState,
    FindingMessage,
    FollowsMessage,
    KeepingMessage,
    LossMessage,
    Loudest,
    LoudSource,
    Noticed,
    PreampMessage,
    Preview,
    PromiseMessage,
    ReachListener,
    ReachMessage,
    RefusedMessage,
    RuledMessage,
    RuledStrip,
    WhyAnswer,
    WhyReason,
    WhyRemedy,
    WhyStep,
    WhyWay,
)

__all__ = [
    "cells_message",
    "level_to_wire",
    "levels_message",
    "loudest_message",
    "meters_message",
    "noticed_message",
    "preview_message",
    "reach_message",
    "refused_message",
    "ruled_message",
    "snapshot_message",
    "table_message",
    "unfolded_message",
    "why_message",
]


_MOST_BREACHES = 40  # of a promise that are told one by one


def level_to_wire(level_db: float) -> float | None:
    return None if math.isinf(level_db) else round(level_db, 2)


def _state(state: int) -> CellState:
    return cast(CellState, core.State(state).name.lower())


def snapshot_message(state: State) -> dict:
    """All values of a show."""
    values = for_pages(to_wire(state.show.values))
    return {"type": "snapshot", "revision": state.revision, "values": values}


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


def why_message(state: State, source: str, listener: str) -> dict:
    """The explanation of one cell. Raises UnknownAddress."""
    answer = core.why(state.show, source, listener, flow=state.flow)
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
        reasons=[
            WhyReason(
                code=one.code,
                says=one.says,
                remedy=remedy_to_wire(one.remedy),
                instead=remedy_to_wire(one.instead),
                ruler=one.ruler,
            )
            for one in answer.reasons
        ],
        opening=remedy_to_wire(answer.opening),
    ).model_dump(mode="json")


def refused_message(message_id: UUID | str | None, error: core.ConsoleError) -> dict:
    """A refusal, with the other edits that would do what was asked for, where there are some."""
    ways = error.ways if isinstance(error, core.SeveralPaths) else ()
    return RefusedMessage(
        type="refused",
        id=message_id,  # type: ignore[arg-type]
        code=error.code,
        message=str(error),
        ways=[WhyRemedy(says=says, moves=moves_to_wire(moves)) for says, moves in ways],
    ).model_dump(mode="json")


def noticed_message(state: State) -> dict:
    """Findings, promises and preamps of a show."""
    return Noticed(
        type="noticed",
        revision=state.revision,
        promises=[_promise(one) for one in core.promises(state.show, state.flow)],
        findings=[
            FindingMessage(
                rule=finding.rule,
                tone=finding.tone,
                says=finding.says,
                about=finding.about,
                remedy=WhyRemedy(says=finding.remedy, moves=moves_to_wire(finding.moves))
                if finding.remedy
                else None,
                careful=finding.careful,
            )
            for finding in core.findings(state.show, state.flow)
        ],
        preamps=[
            PreampMessage(
                socket=p.socket, dbfs=round(p.dbfs, 1), over=p.over, suggested_db=p.suggested_db
            )
            for p in core.preamps(state.show)
        ],
    ).model_dump(mode="json")


def _promise(judged: core.Judged) -> PromiseMessage:
    return PromiseMessage(
        promise=judged.promise,
        says=judged.says,
        vain=judged.vain,
        passing=judged.passing,
        breaking=len(judged.breaches),
        breaches=[
            BreachMessage(
                source=one.source,
                listener=one.listener,
                says=one.says,
                open=one.open,
                feeds=list(one.feeds),
                remedies=[
                    WhyRemedy(says=r.says, moves=moves_to_wire(r.moves)) for r in one.remedies
                ],
            )
            for one in judged.breaches[:_MOST_BREACHES]
        ],
    )


def meters_message(
    state: State, line: int, levels_dbu: dict[str, float], fed: frozenset[int]
) -> dict:
    """Meters, and what arrives of a line while the lines `fed` are fed."""
    arrival = core.arrival_of(state.show, line, levels_dbu, fed=fed)
    meters = core.channel_meters(state.show, levels_dbu)
    return {
        "type": "meters",
        "channels": {str(channel): round(dbfs, 1) for channel, dbfs in sorted(meters.items())},
        "line": line,
        "dbfs": level_to_wire(arrival.dbfs),
        "expected_dbfs": arrival.expected_dbfs,
        "suspect": arrival.suspect,
        "good": arrival.good,
        "says": arrival.says,
    }


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


def preview_message(
    message_id: UUID,
    preview: core.Preview,
    says: str = "",
    scenes: Sequence[PreviewScene] = (),
    company: PreviewCompany | None = None,
) -> dict:
    """What an edit would do, and its words; `scenes`: what it does to those that hold something."""
    return Preview(
        type="preview",
        id=message_id,
        says=says,
        changes=len(preview.change.new),
        losses=[LossMessage(who=x.who, loses=x.loses, to=x.to) for x in preview.losses],
        silenced=list(preview.silenced),
        opened=list(preview.opened),
        moved=preview.moved,
        leaving=list(preview.leaving),
        keeping=_keeping(preview.keeping),
        follows=[_difference(one) for one in preview.follows],
        following=preview.following,
        breaks=list(preview.breaks),
        values=[_difference(one) for one in preview.values],
        scenes=list(scenes),
        company=company,
    ).model_dump(mode="json")


def _difference(one: core.Difference) -> FollowsMessage:
    return FollowsMessage(whose=one.whose, what=one.what, was=one.was, now=one.now)


def _keeping(keeping: core.Keeping | None) -> KeepingMessage | None:
    if keeping is None:
        return None
    return KeepingMessage(
        jumps=[(s, level_to_wire(was), level_to_wire(will)) for s, was, will in keeping.jumps],
        keep=[] if keeping.lacking else moves_to_wire(keeping.moves),
        lacking=[(name, level_to_wire(db)) for name, db in keeping.lacking],
        silenced=list(keeping.silenced),
    )


def ruled_message(state: State, strips: Sequence[str] | None = None) -> dict:
    """What ruled strips come to: some of them, or all (None)."""
    show = state.show
    silenced = set(core.silenced_by_solo(show, state.flow))
    ruled = core.ruled_strips(show) if strips is None else strips
    every = [*ruled, *silenced.difference(ruled)] if strips is None else ruled
    found: dict[str, RuledStrip | None] = {}
    for strip in every:
        by = core.ruled(show, strip)
        found[strip] = RuledStrip(
            by=list(by.by),
            level_db=level_to_wire(by.level_db),
            parts=[(dca, level_to_wire(level_db)) for dca, level_db in by.parts],
            muted=[*by.muted, *(["show/solo"] if strip in silenced else [])],
        )
    return RuledMessage(
        type="ruled", revision=state.revision, whole=strips is None, strips=found
    ).model_dump(mode="json")


def reach_message(state: State, ruler: str) -> dict:
    """How far a DCA or mute group reaches. Raises UnknownAddress."""
    found = core.reach(state.show, state.flow, ruler)
    sends = f"{found.sends} send{'s' if found.sends != 1 else ''}"
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
    ).model_dump(mode="json")


def levels_message(state: State, levels_dbu: dict[str, float]) -> dict:
    """Input meters of all channels."""
    meters = core.channel_meters(state.show, levels_dbu)
    return {
        "type": "levels",
        "channels": {str(channel): round(dbfs, 1) for channel, dbfs in sorted(meters.items())},
    }


def unfolded_message(state: State, things: Sequence[str]) -> dict:
    """What unfolds of some DCAs, groups and mixes. Raises UnknownAddress."""
    return {
        "type": "unfolded",
        "revision": state.revision,
        "strips": {thing: core.unfolded(state.show, thing) for thing in things},
    }
