"""Input lists over HTTP: a file brought once, looked at until it is right, then taken as shown."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from functools import lru_cache
from hashlib import sha256
from typing import Annotated, Any, Literal
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import aget_object_or_404, get_object_or_404
from django.utils import timezone
from ninja import File, Router, Schema, UploadedFile
from pydantic import Field

from ombrel import core
from ombrel.core import BadFile, ConsoleError
from ombrel.formats.lists import (
    LONGEST_FILE,
    MOST_ROWS,
    ROLES,
    Book,
    Choices,
    ListRead,
    Reading,
    Role,
    read_book,
    read_lists,
)

from .. import models
from ..asks.plans import Planned, Turn
from ..keeping.live import live_of
from ..keeping.request import Refused, Request
from ..keeping.work import in_database
from ..messages.replies import ErrorReply
from ..screen.ticker import ticker_of

__all__ = ["router"]

router = Router()

_KEPT = timedelta(days=1)
_LONGEST_CELL = 120  # as much of a cell as a screen shows
Key = Annotated[str, Field(max_length=40)]


class ColumnRole(Schema):
    """What a person says a column of a list is."""

    list: int
    column: int
    role: Role


class ListChoices(Schema):
    """All that a person put right, and how the list is to be taken."""

    sheet: int | None = None
    heading: int | None = None
    roles: list[ColumnRole] = Field(default_factory=list, max_length=200)
    boxes: dict[Key, Key] = Field(default_factory=dict, max_length=60)
    out: list[Key] = Field(default_factory=list, max_length=MOST_ROWS)
    kept: list[Key] = Field(default_factory=list, max_length=MOST_ROWS)
    patch: bool = True
    numbered: bool | None = None
    odd_pairs: bool = False
    leaving: list[int] | None = Field(default=None, max_length=core.LINES)


class ListTaking(Schema):
    """A list to be taken as it was shown."""

    edit_id: UUID
    choices: ListChoices
    shown: str


class SheetName(Schema):
    """A sheet of a workbook that holds text, by its place in the file."""

    place: int
    name: str
    hidden: bool


class BoxName(Schema):
    """A box as the list calls it ("": numbers alone), and the desk's box that it is taken for."""

    name: str
    title: str
    sockets: int
    box: str | None


class DraftReply(Schema):
    """A line that a row becomes, and what becomes of it in this show."""

    name: str
    kind: str
    stereo: bool
    phantom: bool
    state: Literal["new", "changed", "same"]
    changes: list[str]
    channels: list[int]
    sockets: list[str]
    told: list[str]


class RowReply(Schema):
    """One row of a list and what it is."""

    key: str
    number: int
    cells: list[str]
    section: str
    what: str
    says: str
    told: list[str]
    lines: list[DraftReply]


class OneListReply(Schema):
    """One list of the sheet."""

    heading: int | None
    titles: list[str]
    columns: list[int]
    roles: list[Role]
    rows: list[RowReply]


class GoneReply(Schema):
    """A line of the show that the list does not name, and what it becomes if it leaves."""

    line: int
    name: str
    leaves: bool
    says: str


class ListReply(Schema):
    """What a file would become. `shown`: send it back to take just this."""

    file: UUID
    name: str
    said: str
    sheets: list[SheetName]
    sheet: int
    lists: list[OneListReply]
    role_choices: list[Role]
    boxes: list[BoxName]
    gone: list[GoneReply]
    new: int
    changed: int
    same: int
    problems: int
    unpatched: list[str]
    even_pairs: int
    numbered: bool
    has_numbers: bool
    refused: str | None
    shown: str


class TakenReply(Schema):
    """What was taken."""

    revision: int
    says: str


@dataclass(frozen=True, slots=True)
class _Laid:
    """A file read, and laid against a show (or why it cannot be)."""

    reading: Reading
    merge: core.Merge | None
    refused: str | None

    @property
    def shown(self) -> str:
        """What a person was shown, as one short text: equal only for equal fates."""
        parts = (self.merge.fates, sorted(self.merge.leaving.items())) if self.merge else ()
        drafts = [draft for _, draft in self.reading.drafts()]
        return sha256(repr((parts, [d.name for d in drafts])).encode()).hexdigest()


@lru_cache(maxsize=8)
def _book(file_id: UUID) -> Book:
    return read_book(bytes(models.ListFile.objects.get(pk=file_id).content))


def _laid(show: core.Show, book: Book, choices: ListChoices) -> _Laid:
    reading = read_lists(
        book,
        show.desk,
        Choices(
            sheet=choices.sheet,
            heading=choices.heading,
            roles={(one.list, one.column): one.role for one in choices.roles},
            boxes=choices.boxes,
            out=frozenset(choices.out),
            kept=frozenset(choices.kept),
        ),
    )
    ways = core.Ways(
        patch=choices.patch,
        numbered=choices.numbered,
        odd_pairs=choices.odd_pairs,
        leaving=None if choices.leaving is None else frozenset(choices.leaving),
    )
    try:
        merge = core.merge(show, [draft for _, draft in reading.drafts()], ways)
        core.made(show, merge.moves, own=True)
    except ConsoleError as refusal:
        return _Laid(reading, None, str(refusal))
    return _Laid(reading, merge, None)


def _reply(file: models.ListFile, show: core.Show, layers: _Laid) -> dict[str, Any]:
    reading, merge = layers.reading, layers.merge
    drafts = [draft for _, draft in reading.drafts()]
    fates = iter(merge.fates if merge else ())
    rows = [row for one in reading.lists for row in one.rows]
    states = [fate.state for fate in merge.fates] if merge else []
    leaving = merge.leaving if merge else {}
    return {
        "file": file.pk,
        "name": file.name,
        "said": reading.said,
        "sheets": [
            {"place": n, "name": name, "hidden": hidden} for n, name, hidden in reading.sheets
        ],
        "sheet": reading.sheet,
        "lists": [_one_list(show, one, fates) for one in reading.lists],
        "role_choices": list(ROLES),
        "boxes": list(reading.boxes),
        "gone": [
            {
                "line": line,
                "name": show.text(f"line/{line}/name"),
                "leaves": line in leaving,
                "says": leaving.get(line, "It stays as it is."),
            }
            for line in (merge.gone if merge else ())
        ],
        "new": states.count("new"),
        "changed": states.count("changed"),
        "same": states.count("same"),
        "problems": sum(row.what == "problem" for row in rows),
        "unpatched": [drafts[turn].name for turn in (merge.unpatched if merge else ())],
        "even_pairs": merge.even_pairs if merge else 0,
        "numbered": bool(merge and merge.ways.numbered),
        "has_numbers": any(draft.channel for draft in drafts),
        "refused": layers.refused,
        "shown": layers.shown,
    }


def _one_list(show: core.Show, one: ListRead, fates: Any) -> dict[str, Any]:
    return {
        "heading": one.heading,
        "titles": list(one.titles),
        "columns": list(one.columns),
        "roles": list(one.roles),
        "rows": [
            {
                "key": row.key,
                "number": row.number,
                "cells": [cell[:_LONGEST_CELL] for cell in row.cells],
                "section": row.section,
                "what": row.what,
                "says": row.says,
                "told": list(row.told),
                "lines": [_line(show, draft, next(fates, None)) for draft in row.drafts],
            }
            for row in one.rows
        ],
    }


def _line(show: core.Show, draft: core.LineDraft, fate: core.Fate | None) -> dict[str, Any]:
    sockets = [core.socket_name(show.desk, s) for s in (fate.sockets if fate else ()) if s]
    return {
        "name": draft.name,
        "kind": draft.kind,
        "stereo": draft.stereo,
        "phantom": draft.phantom,
        "state": fate.state if fate else "new",
        "changes": list(fate.changes) if fate else [],
        "channels": [number for number in fate.channels if number] if fate else [],
        "sockets": sockets,
        "told": list(fate.told) if fate else [],
    }


_REFUSALS = {409: ErrorReply, 422: ErrorReply}


@router.post("/shows/{uuid:show_id}/lists", response={200: ListReply, **_REFUSALS})
def bring_list(request: HttpRequest, show_id: UUID, file: File[UploadedFile]) -> dict[str, Any]:
    """Bring a file, and see what it would become. Changes nothing in the show."""
    get_object_or_404(models.Show, pk=show_id)
    if (file.size or 0) > LONGEST_FILE:
        size = (file.size or 0) / 1024 / 1024
        raise BadFile(
            f"The file has {size:.0f} MB; an input list may have {LONGEST_FILE // 1024 // 1024}.",
            "Take out pictures and other sheets.",
        )
    content = file.read()
    book = read_book(content)
    models.ListFile.objects.filter(made_at__lt=timezone.now() - _KEPT).delete()
    kept = models.ListFile.objects.create(
        show_id=show_id,
        author=request.user,  # type: ignore[misc]
        name=(file.name or "a list")[:200],
        content=content,
    )
    show = live_of(show_id).now().show
    return _reply(kept, show, _laid(show, book, ListChoices()))


@router.post("/shows/{uuid:show_id}/lists/{uuid:file_id}", response={200: ListReply, **_REFUSALS})
def look_at_list(
    request: HttpRequest, show_id: UUID, file_id: UUID, choices: ListChoices
) -> dict[str, Any]:
    """What the file would become with these choices. Changes nothing."""
    file = get_object_or_404(models.ListFile.objects.defer("content"), pk=file_id, show=show_id)
    show = live_of(show_id).now().show
    return _reply(file, show, _laid(show, _book(file_id), choices))


@router.post(
    "/shows/{uuid:show_id}/lists/{uuid:file_id}/take", response={200: TakenReply, **_REFUSALS}
)
async def take_list(
    request: HttpRequest, show_id: UUID, file_id: UUID, taking: ListTaking
) -> dict[str, Any]:
    """Take the list just as it was shown, in one edit, which one undo takes back."""
    await aget_object_or_404(models.ListFile.objects.defer("content"), pk=file_id, show=show_id)
    user = await request.auser()
    book = await in_database(_book, file_id)

    def plan(turn: Turn) -> Planned:
        layers = _laid(turn.show, book, taking.choices)
        if layers.merge is None or layers.shown != taking.shown:
            raise core.ListMovedOn
        says = _says(layers.merge.fates, layers.merge.leaving)
        renumbered = layers.merge.renumbered
        return Planned(layers.merge.moves, says, own=True, renumbered=renumbered)

    outcome = await ticker_of(show_id).submit(
        Request(edit_id=taking.edit_id, author_id=user.pk, gesture=str(taking.edit_id), plan=plan)
    )
    if isinstance(outcome, Refused):
        raise outcome.error
    return {"revision": outcome.revision, "says": outcome.says}


def _says(fates: Sequence[core.Fate], leaving: Any) -> str:
    states = [fate.state for fate in fates]
    parts = [
        f"{count} {word}"
        for count, word in (
            (states.count("new"), "new"),
            (states.count("changed"), "changed"),
            (len(leaving), "gone"),
        )
        if count
    ]
    if not parts:
        return "The list is in the show already"
    return f"Imported {len(fates)} lines: {', '.join(parts)}"
