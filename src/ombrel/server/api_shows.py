"""The HTTP side: who I am, which shows there are, what a desk has, and the import of files.

Everything that changes a show goes over the websocket, save the import, which brings a file.
"""

import json
from importlib.resources import files
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import aget_object_or_404, get_object_or_404
from ninja import File, Form, Router, Schema, UploadedFile

from ombrel import core
from ombrel.core import BadFile, ConsoleError
from ombrel.formats.input_list import ROLES, Columns, Role, Row, read_rows, recognised
from ombrel.formats.tables import LONGEST_FILE, read_table

from . import models
from .desks import desk_keys, desk_of
from .door import Refused, Request
from .live import live_of
from .plans import Planned, Turn
from .replies import ErrorReply, ShowRow
from .ticker import ticker_of
from .work import in_database

__all__ = ["router"]

router = Router()


class DeskChoice(Schema):
    """A desk profile that a new show can be made on."""

    key: str
    name: str


class Me(Schema):
    """Who is signed in, the shows that they may open, and the desks for a new one."""

    name: str
    shows: list[ShowRow]
    desks: list[DeskChoice]


@router.get("/me", response=Me)
def me(request: HttpRequest) -> dict[str, Any]:
    """Who is signed in."""
    return {
        "name": str(request.user),
        "shows": list(models.Show.objects.all()),
        "desks": [{"key": key, "name": desk_of(key).name} for key in desk_keys()],
    }


class NewShow(Schema):
    """A show to be made, blank, on a desk profile."""

    name: str
    desk: str


@router.post("/shows", response={200: ShowRow, 422: ErrorReply})
def make_show(request: HttpRequest, new: NewShow) -> models.Show:
    """Make a blank show."""
    name = core.parameter_at("show/name").kind.typed(new.name, "", "show/name")
    if not name:
        raise core.UnreadableText(new.name, "a name for the show")
    return models.Show.objects.create(name=str(name), desk=desk_of(new.desk).key)


class BoxReply(Schema):
    """A box of sockets."""

    key: str
    name: str
    short: str
    inputs: int
    outputs: int
    preamps: bool
    output_block: int


class ParameterReply(Schema):
    """One entry of the catalogue. Numbers have unit, range (lowest null: off) and step."""

    key: str
    label: str
    says: str
    aspect: str
    kind: Literal["number", "switch", "choice", "text", "reference"]
    default: float | bool | str | None
    unit: str = ""
    lowest: float | None = None
    highest: float | None = None
    step: float | None = None
    law: Literal["straight", "fader"] = "straight"
    options: list[str] = []
    longest: int | None = None


class DeskReply(Schema):
    """What a screen must know of a show's desk before it draws anything."""

    show: ShowRow
    name: str
    channels: int
    returns: int
    groups: int
    mixes: int
    matrices: int
    effect_engines: int
    lines: int
    full_scale_dbu: float
    boxes: list[BoxReply]
    parameters: list[ParameterReply]
    fader_marks: list[tuple[float, float]]


def _parameter(parameter: core.Parameter, profile: core.Desk) -> dict[str, Any]:
    kind = core.kind_of(profile, parameter)
    reply: dict[str, Any] = {
        "key": parameter.key,
        "label": parameter.label,
        "says": parameter.says,
        "aspect": parameter.aspect,
        "kind": type(kind).__name__.lower(),
        "default": kind.to_wire(parameter.default),
    }
    if isinstance(kind, core.Number):
        reply |= {"unit": kind.unit, "lowest": kind.to_wire(kind.lowest), "highest": kind.highest,
                  "step": kind.step, "law": kind.law}  # fmt: skip
    elif isinstance(kind, core.Choice):
        reply["options"] = list(kind.options)
    elif isinstance(kind, core.Text):
        reply["longest"] = kind.longest
    return reply


@router.get("/shows/{uuid:show_id}/desk", response=DeskReply)
def desk(request: HttpRequest, show_id: UUID) -> dict[str, Any]:
    """The desk, the catalogue and the marks of the fader's travel."""
    show = get_object_or_404(models.Show, pk=show_id)
    profile = desk_of(show.desk)
    return {
        "show": show,
        "name": profile.name,
        "channels": profile.channels,
        "returns": profile.returns,
        "groups": profile.groups,
        "mixes": profile.mixes,
        "matrices": profile.matrices,
        "effect_engines": profile.effect_engines,
        "lines": core.LINES,
        "full_scale_dbu": profile.full_scale_dbu,
        "boxes": list(profile.boxes),
        "parameters": [_parameter(parameter, profile) for parameter in core.CATALOGUE.values()],
        "fader_marks": list(core.FADER_MARKS),
    }


class RowReply(Schema):
    """One row of the file and what becomes of it."""

    number: int
    cells: list[str]
    says: str
    problem: str | None
    lines: int


class ListReply(Schema):
    """What an input list would become."""

    said: str
    roles: list[Role]
    choices: list[Role]
    heading: int | None
    rows: list[RowReply]
    lines: int
    problems: int
    patch_problem: str | None


class TakenReply(Schema):
    """What was taken."""

    revision: int
    says: str
    lines: int


def _read(show: core.Show, file: UploadedFile, columns: str) -> tuple[str, Columns, list[Row]]:
    if (file.size or 0) > LONGEST_FILE:
        size = (file.size or 0) / 1024 / 1024
        raise BadFile(
            f"The file has {size:.0f} MB; an input list may have {LONGEST_FILE // 1024 // 1024}.",
            "Take out pictures and other sheets.",
        )
    table = read_table(file.read())
    found = recognised(table)
    if columns:
        found = Columns(_corrected(columns, len(table.rows[0])), found.heading)
    return table.said, found, read_rows(show, table, found)


def _corrected(columns: str, width: int) -> tuple[Role, ...]:
    """Roles that a person set by hand. Raises BadFile for anything else."""
    try:
        roles = json.loads(columns)
    except ValueError:
        roles = None
    if not isinstance(roles, list) or len(roles) != width or not set(roles) <= set(ROLES):
        raise BadFile("The columns do not fit the file.", "Choose the file again.")
    used = [role for role in roles if role != "ignore"]
    if len(set(used)) != len(used):
        twice = next(role for role in used if used.count(role) > 1)
        raise BadFile(f"Two columns are both {twice}.", "Ignore one of them.")
    return tuple(roles)


def _drafts(rows: list[Row]) -> list[core.LineDraft]:
    return [draft for row in rows for draft in row.drafts]


@router.post(
    "/shows/{uuid:show_id}/input-list",
    response={200: ListReply, 409: ErrorReply, 422: ErrorReply},
)
def preview_input_list(
    request: HttpRequest, show_id: UUID, file: File[UploadedFile], columns: Form[str] = ""
) -> dict[str, Any]:
    """What would become of each row. Changes nothing."""
    get_object_or_404(models.Show, pk=show_id)
    show = live_of(show_id).now().show
    said, found, rows = _read(show, file, columns)
    drafts = _drafts(rows)
    patch_problem = None
    try:
        core.import_lines(show, drafts, patch=True)
    except ConsoleError as error:
        patch_problem = str(error)
    return {
        "said": said,
        "roles": list(found.roles),
        "choices": list(ROLES),
        "heading": found.heading,
        "rows": [
            {"number": row.number, "cells": list(row.cells), "says": row.says,
             "problem": row.problem, "lines": len(row.drafts)}
            for row in rows
        ],
        "lines": len(drafts),
        "problems": sum(row.problem is not None for row in rows),
        "patch_problem": patch_problem,
    }  # fmt: skip


@router.post(
    "/shows/{uuid:show_id}/input-list/take",
    response={200: TakenReply, 409: ErrorReply, 422: ErrorReply},
)
async def take_input_list(
    request: HttpRequest,
    show_id: UUID,
    file: File[UploadedFile],
    edit_id: Form[UUID],
    columns: Form[str] = "",
    patch: Form[bool] = False,
) -> dict[str, Any]:
    """Take every row that can be taken, in one edit, which one undo takes back."""
    await aget_object_or_404(models.Show, pk=show_id)
    user = await request.auser()
    show = (await in_database(live_of(show_id).now, again=True)).show
    _, _, rows = await in_database(_read, show, file, columns)
    drafts = _drafts(rows)
    if not drafts:
        raise BadFile("No row of this file can be taken.", "Set the columns right, or mend it.")

    def plan(turn: Turn) -> Planned:
        moves = core.import_lines(turn.show, drafts, patch=patch)
        return Planned(moves, f"Imported {len(drafts)} lines")

    outcome = await ticker_of(show_id).submit(
        Request(edit_id=edit_id, author_id=user.pk, gesture=str(edit_id), plan=plan)
    )
    if isinstance(outcome, Refused):
        raise outcome.error
    return {"revision": outcome.revision, "says": outcome.says, "lines": len(drafts)}


class Sample(Schema):
    """An input list that ships with Ombrel, to try."""

    name: str
    about: str


_SAMPLES = {
    "quay-band.csv": "six players, plain CSV",
    "harbour-choir.csv": "semicolons, Windows letters, a title above the headings",
    "salt-road-full.xlsx": "a whole evening as a spreadsheet, with ranges and stereo pairs",
}


@router.get("/samples", response=list[Sample])
def samples(request: HttpRequest) -> list[dict[str, str]]:
    """The sample input lists."""
    return [{"name": name, "about": about} for name, about in _SAMPLES.items()]


@router.get("/samples/{name}")
def sample(request: HttpRequest, name: str) -> HttpResponse:
    """One sample, as a download."""
    if name not in _SAMPLES:
        return JsonResponse(
            {"code": "unknown", "message": f"There is no sample {name!r}."}, status=404
        )
    content = (files("ombrel") / "demo" / name).read_bytes()
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return HttpResponse(content, content_type="application/octet-stream", headers=headers)
