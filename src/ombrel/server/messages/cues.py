"""Cues from outside: the list of a show, and what came, as they go over the wire."""

from typing import Literal
from uuid import UUID

from pydantic import BaseModel

from ombrel import core
from ombrel.formats.cue_bytes import sheet_text

from .. import models
from ..keeping.states import State
from ..links.machine import MachineStands

__all__ = [
    "CueList",
    "CuesHere",
    "MachineHere",
    "cue_list_message",
    "cues_here_text",
    "machine_text",
    "standing",
]

_TOLD = 45  # of the newest that screens draw
_DROPPED = 15  # and of what was dropped


class CueRow(BaseModel):
    """A cue: what comes and what it does, as they could be typed, and what is wrong with it."""

    cue: str
    comes: str
    does: str
    kind: str
    wrong: str


class CueList(BaseModel):
    """The cues of a show, what a machine could play of its scenes (CSV), and how many scenes have

    no cue.
    """

    type: Literal["cue_list"]
    cues: list[CueRow]
    sheet: str
    scenes_without: int


class WayHere(BaseModel):
    """A way in. `listens`: its port is open; `trouble`: why it is not though it is on, or ""."""

    kind: Literal["osc_udp", "osc_tcp", "midi_tcp"]
    on: bool
    host: str
    port: int
    senders: str
    answers: bool
    listens: bool
    trouble: str


class CueToldRow(BaseModel):
    """A message that came: when (ISO 8601), from whom, what, and what became of it."""

    id: int
    at: str
    way: str
    sender: str
    came: str
    what: Literal["done", "rehearsed", "refused", "unknown", "dropped"]
    says: str
    note: bool
    revision: int | None
    undone: bool
    ms: float
    times: int


class CuesHere(BaseModel):
    """Whether cues do something, who said so, how they come in, and the newest that came."""

    type: Literal["cues"]
    mode: Literal["rehearse", "armed"]
    by: str
    since: str
    once_ms: int
    ways: list[WayHere]
    told: list[CueToldRow]


class MachineHere(BaseModel):
    """How the stand-in cue machine stands: since how many seconds it plays (null: it does not)."""

    type: Literal["machine"]
    at_s: float | None
    sent: int
    lines: int
    last: str


_PORTS = {"osc_udp": 9200, "osc_tcp": 9201, "midi_tcp": 9202}


def cue_list_message(state: State) -> dict:
    """The list of a show's cues."""
    show = state.show
    wrong = core.faults_of_cues(show, state.flow)
    every = core.cues(show)
    called = {one.deed.what for one in every if one.deed.does == "scene"}
    return CueList(
        type="cue_list",
        cues=[
            CueRow(
                cue=one.cue,
                comes=one.comes,
                does=core.deed_text(show, one.deed),
                kind=one.deed.does,
                wrong=wrong.get(one.cue, ""),
            )
            for one in every
        ],
        sheet=sheet_text(core.machine_sheet(show)),
        scenes_without=sum(scene not in called for scene in show.scenes),
    ).model_dump(mode="json")


def standing(state: State) -> tuple[str, str]:
    """Now and next of a show, each by number and name, "" for none."""
    found = []
    for address in ("run/now", "run/next"):
        scene = state.show[address]
        there = isinstance(scene, str) and scene in state.show.scenes
        found.append(core.scene_named(state.show, str(scene)) if there else "")
    return found[0], found[1]


def cues_here_text(show_id: UUID) -> str:
    """What stands beside the show of its cues, from the database."""
    desk = models.CueDesk.objects.filter(show_id=show_id).first() or models.CueDesk()
    told = models.CueTold.objects.filter(show_id=show_id)
    # what was dropped stands between the rest, and never instead of it
    rows = [*told.exclude(what="dropped")[:_TOLD], *told.filter(what="dropped")[:_DROPPED]]
    rows.sort(key=lambda one: -one.pk)
    ways = {one.kind: one for one in models.CueWay.objects.filter(show_id=show_id)}
    ids = [str(one.edit_id) for one in rows if one.revision]
    turns = models.Change.objects.filter(show_id=show_id, turns__in=ids) if ids else []
    last = {one.turns: one.kind for one in turns}  # in the order of the log
    return CuesHere(
        type="cues",
        mode=desk.mode,  # type: ignore[arg-type]
        by=desk.by,
        since=desk.at.isoformat() if desk.at else "",
        once_ms=desk.once_ms,
        ways=[_way(kind, ways.get(kind)) for kind in _PORTS],
        told=[_row(one, undone=last.get(str(one.edit_id)) == "undo") for one in rows],
    ).model_dump_json()


def machine_text(stands: MachineStands) -> str:
    """How the stand-in cue machine stands."""
    return MachineHere(
        type="machine",
        at_s=None if stands.at_s is None else round(stands.at_s, 1),
        sent=stands.sent,
        lines=stands.lines,
        last=stands.last,
    ).model_dump_json()


def _way(kind: str, row: models.CueWay | None) -> WayHere:
    if row is None:
        row = models.CueWay(kind=kind, host="0.0.0.0", port=_PORTS[kind])
    return WayHere(
        kind=kind,  # type: ignore[arg-type]
        on=row.on,
        host=row.host,
        port=row.port,
        senders=", ".join(row.senders),
        answers=row.answers,
        listens=row.on and bool(row.heard_by) and not row.trouble,
        trouble=row.trouble,
    )


def _row(row: models.CueTold, *, undone: bool) -> CueToldRow:
    return CueToldRow(
        id=row.pk,
        at=row.at.isoformat(),
        way=row.way,
        sender=row.sender,
        came=row.came,
        what=row.what,  # type: ignore[arg-type]
        says=row.says,
        note=row.note,
        revision=row.revision,
        undone=undone,
        ms=row.ms,
        times=row.times,
    )
