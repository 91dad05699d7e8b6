"""What a screen is told, made from a state of the show: messages of `wire`, filled in."""

import math
from typing import cast
from uuid import UUID

from ombrel import core

from .asks import moves_to_wire
from .live import State, to_wire
from .wire import (
    CellState,
    FindingMessage,
    LossMessage,
    Noticed,
    PreampMessage,
    Preview,
    WhyAnswer,
    WhyReason,
    WhyRemedy,
    WhyStep,
)

__all__ = [
    "cells_message",
    "meters_message",
    "noticed_message",
    "preview_message",
    "snapshot_message",
    "table_message",
    "why_message",
]


def _level(level_db: float) -> float | None:
    return None if math.isinf(level_db) else round(level_db, 2)


def _state(state: int) -> CellState:
    return cast(CellState, core.State(state).name.lower())


def snapshot_message(state: State) -> dict:
    """All values of a show."""
    values = to_wire(state.show.values)
    return {"type": "snapshot", "revision": state.revision, "values": values}


def table_message(state: State) -> dict:
    """The whole table, in the rows and columns worth drawing."""
    show, flow = state.show, state.flow
    rows = [int(source.split("/")[1]) - 1 for source in core.sources(show)]
    listeners = core.listeners(show)
    columns = [core.bus_index(show.desk, listener) for listener in listeners]
    return {
        "type": "table",
        "revision": state.revision,
        "sources": core.sources(show),
        "listeners": listeners,
        "level_db": [[_level(float(flow.level_db[r, c])) for c in columns] for r in rows],
        "state": [[_state(int(flow.state[r, c])) for c in columns] for r in rows],
        "after_fader": [[flow.cell(r, c).after_fader for c in columns] for r in rows],
    }


def cells_message(state: State, cells: tuple[tuple[int, int], ...]) -> dict:
    """Cells that changed, as many as are drawn."""
    show = state.show
    rows = {int(source.split("/")[1]) - 1 for source in core.sources(show)}
    columns = {core.bus_index(show.desk, listener) for listener in core.listeners(show)}
    found = []
    for row, column in cells:
        if row in rows and column in columns:
            cell = state.flow.cell(row, column)
            found.append(
                {
                    "source": cell.source,
                    "listener": cell.listener,
                    "level_db": _level(cell.level_db),
                    "state": _state(cell.state),
                    "after_fader": cell.after_fader,
                }
            )
    return {"type": "cells", "revision": state.revision, "cells": found}


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
        level_db=_level(answer.level_db),
        state=_state(answer.state),
        says=answer.says,
        steps=[
            WhyStep(
                kind=step.kind,
                title=step.title,
                detail=step.detail,
                gain_db=None if step.gain_db is None else _level(step.gain_db),
                dbu=step.dbu,
                dbfs=step.dbfs,
                in_path=step.in_path,
                open=step.open,
                has_gain=step.gain_db is not None,
                address=step.address,
            )
            for step in answer.steps
        ],
        reasons=[
            WhyReason(
                code=reason.code,
                says=reason.says,
                remedy=WhyRemedy(says=reason.remedy.says, moves=moves_to_wire(reason.remedy.moves))
                if reason.remedy
                else None,
            )
            for reason in answer.reasons
        ],
    ).model_dump(mode="json")


def noticed_message(state: State) -> dict:
    """Findings and preamps of a show."""
    return Noticed(
        type="noticed",
        revision=state.revision,
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
            for finding in core.findings(state.show)
        ],
        preamps=[
            PreampMessage(
                socket=p.socket, dbfs=round(p.dbfs, 1), over=p.over, suggested_db=p.suggested_db
            )
            for p in core.preamps(state.show)
        ],
    ).model_dump(mode="json")


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
        "dbfs": _level(arrival.dbfs),
        "expected_dbfs": arrival.expected_dbfs,
        "suspect": arrival.suspect,
        "good": arrival.good,
        "says": arrival.says,
    }


def preview_message(message_id: UUID, preview: core.Preview) -> dict:
    """What an edit would do."""
    return Preview(
        type="preview",
        id=message_id,
        changes=len(preview.change.new),
        losses=[LossMessage(who=x.who, loses=x.loses, to=x.to) for x in preview.losses],
        silenced=list(preview.silenced),
        opened=list(preview.opened),
        moved=preview.moved,
    ).model_dump(mode="json")
