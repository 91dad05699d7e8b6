"""The HTTP side of files: sheets for paper, and a whole show out and in."""

from uuid import UUID, uuid4

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Router, Schema, UploadedFile

from ombrel import core
from ombrel.core import BadFile
from ombrel.formats.sheets import sheet_to_csv, sheets_to_pdf, sheets_to_xlsx
from ombrel.formats.show_file import LONGEST_SHOW, read_show, write_show

from . import models
from .desks import desk_of
from .door import Refused, Request
from .live import live_of
from .plans import Planned
from .replies import ErrorReply, ShowRow
from .ticker import ticker_of
from .work import in_database

__all__ = ["router"]

router = Router()


class SheetReply(Schema):
    """One table for paper."""

    key: str
    title: str
    columns: list[str]
    rows: list[list[str]]


_TYPES = {
    "csv": "text/csv; charset=utf-8",
    "pdf": "application/pdf",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}


def _download(content: bytes, name: str, kind: str) -> HttpResponse:
    """A file under a name of plain letters, whatever the show is called."""
    plain = "".join(c if c.isalnum() and c.isascii() else "-" for c in name.lower()).strip("-")
    headers = {"Content-Disposition": f'attachment; filename="{plain or "show"}.{kind}"'}
    return HttpResponse(content, content_type=_TYPES[kind], headers=headers)


def _show_now(show_id: UUID) -> core.Show:
    get_object_or_404(models.Show, pk=show_id)
    return live_of(show_id).now().show


@router.get("/shows/{uuid:show_id}/paper", response=list[SheetReply])
def paper(request: HttpRequest, show_id: UUID) -> list[core.Sheet]:
    """All sheets, for the view that prints."""
    show = _show_now(show_id)
    return [make(show) for make in core.SHEETS.values()]


@router.get("/shows/{uuid:show_id}/paper/{name}")
def paper_file(request: HttpRequest, show_id: UUID, name: str) -> HttpResponse:
    """One sheet (`input-list.csv`), or all of them (`all.pdf`, `all.xlsx`)."""
    show = _show_now(show_id)
    key, _, kind = name.rpartition(".")
    one = core.sheet_of(show, key)
    sheets = [one] if one else [make(show) for make in core.SHEETS.values()]
    show_name = show.text("show/name") or models.Show.objects.get(pk=show_id).name
    if (one is None and key != "all") or kind not in ("csv", "pdf", "xlsx"):
        known = ", ".join([*core.SHEETS, "all"])
        raise core.UnreadableText(name, f"one of {known}, as .csv, .pdf or .xlsx")
    if kind == "csv":
        if one is None:
            raise core.UnreadableText(name, "one sheet: a CSV holds one table")
        return _download(sheet_to_csv(one), f"{show_name} {key}", kind)
    if kind == "xlsx":
        content = sheets_to_xlsx(sheets, show_name=show_name)
    else:
        content = sheets_to_pdf(sheets, show_name=show_name, desk_name=show.desk.name)
    return _download(content, f"{show_name} {key}", kind)


@router.get("/shows/{uuid:show_id}/file")
def show_file(request: HttpRequest, show_id: UUID) -> HttpResponse:
    """The whole show as one JSON file."""
    show = _show_now(show_id)
    name = show.text("show/name") or models.Show.objects.get(pk=show_id).name
    return _download(write_show(show), name, "json")


@router.post("/shows/file", response={200: ShowRow, 422: ErrorReply})
async def open_show_file(request: HttpRequest, file: File[UploadedFile]) -> models.Show:
    """A new show from a file; a file with any fault makes none."""
    user = await request.auser()
    if (file.size or 0) > LONGEST_SHOW:
        raise BadFile(f"The file has {(file.size or 0) // 1024 // 1024} MB.", "Choose a show file.")
    show = await in_database(read_show, file.read(), desk_of)
    name = show.text("show/name") or (file.name or "").rpartition(".")[0][:60] or "A show"
    row = await models.Show.objects.acreate(name=name, desk=show.desk.key)
    edit_id = uuid4()
    opening = Request(
        edit_id=edit_id,
        author_id=user.pk,
        gesture=str(edit_id),
        plan=lambda turn: Planned(show.values, "Opened from a file"),
    )
    try:
        outcome = await ticker_of(row.pk).submit(opening)
    except Exception:
        await row.adelete()  # no half-made show stays behind
        raise
    if isinstance(outcome, Refused):
        await row.adelete()
        raise outcome.error
    return row
