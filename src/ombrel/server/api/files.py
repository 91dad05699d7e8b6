"""The HTTP side of files: sheets for paper, and a whole show out and in."""

import re
from collections.abc import Sequence
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from django.utils.formats import date_format
from django.utils.http import content_disposition_header
from ninja import File, Router, Schema, UploadedFile

from ombrel import core
from ombrel.core import BadFile
from ombrel.formats.sheets import sheet_to_csv, sheets_to_xlsx
from ombrel.formats.show_file import LONGEST_SHOW, write_show

from .. import models
from ..keeping.live import live_of
from ..keeping.shows import asides_of
from ..keeping.work import in_database
from ..messages.replies import ErrorReply, ShowRow
from .opening import Opening, opened_apart, opening_of, stop
from .printing import Job, job_of, start_job, stop_job

__all__ = ["router"]

router = Router()


class SheetReply(Schema):
    """One table for paper, as it is printed. `filled`: its rows are here, not its title alone."""

    key: str
    title: str
    about: str
    filled: bool
    columns: list[str]
    rows: list[list[str]]


class OpeningReply(Schema):
    """A show file on its way: what is done with it now, and which part of all is done (0 to 1)."""

    doing: str
    part: float


class JobReply(Schema):
    """A PDF in the making: pages laid out of about so many; `done`: it can be fetched."""

    job: UUID
    pages: int
    about: int
    done: bool
    fault: str


_TYPES = {
    "csv": "text/csv; charset=utf-8",
    "pdf": "application/pdf",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}
_NOT_IN_NAMES = re.compile(r'[<>:"/\\|?*\x00-\x1f\x7f]+')


def _download(content: bytes, name: str, kind: str) -> HttpResponse:
    """A file under the show's own name, in whatever script (RFC 6266)."""
    plain = _NOT_IN_NAMES.sub("-", name).strip(" .-") or "show"
    header = content_disposition_header(as_attachment=True, filename=f"{plain}.{kind}")
    return HttpResponse(
        content, content_type=_TYPES[kind], headers={"Content-Disposition": header or "attachment"}
    )


def _show_now(show_id: UUID) -> core.Show:
    get_object_or_404(models.Show, pk=show_id)
    return live_of(show_id).now().show


def _name_of(show_id: UUID, show: core.Show) -> str:
    return show.text("show/name") or models.Show.objects.get(pk=show_id).name


def _sheets(show_id: UUID, keys: Sequence[str]) -> tuple[core.Show, str, list[core.Sheet]]:
    """A show, its name, and some of its sheets ("all": all). Raises UnreadableText for others."""
    get_object_or_404(models.Show, pk=show_id)
    now = live_of(show_id).now()
    known = core.sheet_keys(now.show)
    wanted = known if list(keys) == ["all"] else keys
    found = [core.sheet_of(now.show, key, now.flow) for key in wanted]
    if None in found:
        raise core.UnreadableText(wanted[found.index(None)], f"one of {', '.join(known)}, or all")
    return now.show, _name_of(show_id, now.show), [sheet for sheet in found if sheet]


@router.get("/shows/{uuid:show_id}/paper", response=list[SheetReply])
def paper(request: HttpRequest, show_id: UUID, only: str = "") -> list[dict[str, object]]:
    """All sheets, for the view that prints; with `only` the rows of one, the others by title."""
    if not only:
        return [_printed(sheet) for sheet in _sheets(show_id, ["all"])[2]]
    show, _, (sheet,) = _sheets(show_id, [only])
    return [
        _printed(sheet) if key == only else _by_title(key, core.sheet_title(show, key))
        for key in core.sheet_keys(show)
    ]


def _by_title(key: str, title: str) -> dict[str, object]:
    return {"key": key, "title": title, "about": "", "filled": False, "columns": [], "rows": []}


def _printed(sheet: core.Sheet) -> dict[str, object]:
    shown = [place for place, column in enumerate(sheet.columns) if column.paper]
    return {
        "key": sheet.key,
        "title": sheet.title,
        "about": sheet.about,
        "filled": True,
        "columns": [sheet.columns[place].title for place in shown],
        "rows": [
            [core.datum_text(sheet.columns[place], row[place]) for place in shown]
            for row in sheet.rows
        ],
    }


@router.get("/shows/{uuid:show_id}/paper/{name}")
def paper_file(request: HttpRequest, show_id: UUID, name: str) -> HttpResponse:
    """One sheet or all of them for a spreadsheet: `input-list.csv`, `mix-3.xlsx`, `all.xlsx`."""
    key, _, kind = name.rpartition(".")
    if kind not in ("csv", "xlsx"):
        raise core.UnreadableText(name, "a sheet as .csv or .xlsx, or all.xlsx")
    _, show_name, sheets = _sheets(show_id, [key])
    title = show_name if key == "all" else f"{show_name}, {sheets[0].title}"
    if kind == "xlsx":
        return _download(sheets_to_xlsx(sheets, show_name=show_name), title, kind)
    if key == "all":
        raise core.UnreadableText(name, "one sheet: a CSV holds one table")
    return _download(sheet_to_csv(sheets[0]), title, kind)


@router.post("/shows/{uuid:show_id}/paper/{key}/pdf", response={200: JobReply, 422: ErrorReply})
async def begin_pdf(request: HttpRequest, show_id: UUID, key: str) -> dict[str, object]:
    """Begin a PDF of one sheet, or of `all`; it is made apart, and asked for until it is done."""
    show, show_name, sheets = await in_database(_sheets, show_id, [key])
    job = start_job(
        show_id,
        show_name if key == "all" else f"{show_name}, {sheets[0].title}",
        sheets,
        show_name=show_name,
        desk_name=show.desk.name,
        date=date_format(timezone.localdate(), "j F Y"),
    )
    if job is None:
        raise BadFile("Too many PDFs are being made at once.", "Wait until one is done.")
    return _of_job(job)


@router.get("/shows/{uuid:show_id}/pdf/{uuid:job_id}", response=JobReply)
async def pdf_progress(request: HttpRequest, show_id: UUID, job_id: UUID) -> dict[str, object]:
    """How far a PDF has come."""
    return _of_job(_job_or_404(show_id, job_id))


@router.delete("/shows/{uuid:show_id}/pdf/{uuid:job_id}", response=bool)
async def stop_pdf(request: HttpRequest, show_id: UUID, job_id: UUID) -> bool:
    """Give a PDF up; whether there was one."""
    return stop_job(show_id, job_id)


@router.get("/shows/{uuid:show_id}/pdf/{uuid:job_id}/file")
async def pdf_file(request: HttpRequest, show_id: UUID, job_id: UUID) -> HttpResponse:
    """A PDF that is done."""
    job = _job_or_404(show_id, job_id)
    if job.content is None:
        raise Http404
    return _download(job.content, job.name, "pdf")


def _job_or_404(show_id: UUID, job_id: UUID) -> Job:
    job = job_of(show_id, job_id)
    if job is None:
        raise Http404
    return job


def _of_job(job: Job) -> dict[str, object]:
    done = job.content is not None
    return {"job": job.id, "pages": job.pages, "about": job.about, "done": done, "fault": job.fault}


@router.get("/shows/{uuid:show_id}/file")
def show_file(request: HttpRequest, show_id: UUID) -> HttpResponse:
    """The whole show as one JSON file."""
    show = _show_now(show_id)
    content = write_show(show, asides_of(show_id))
    return _download(content, _name_of(show_id, show), "json")


@router.post("/shows/file", response={200: ShowRow, 422: ErrorReply})
async def open_show_file(
    request: HttpRequest, file: File[UploadedFile], opening: UUID | None = None
) -> models.Show:
    """A new show from a file; a file with any fault makes none. `opening`: a name that its sender

    gives it, by which it can be asked how far it is, and stopped.
    """
    user = await request.auser()
    if (file.size or 0) > LONGEST_SHOW:
        raise BadFile(f"The file has {(file.size or 0) // 1024 // 1024} MB.", "Choose a show file.")
    name = (file.name or "").rpartition(".")[0].replace("\0", "")[:60] or "A show"
    show_id = await opened_apart(file.read(), name, user.pk, opening)
    return await models.Show.objects.aget(pk=show_id)


@router.get("/shows/opening/{uuid:opening_id}", response=OpeningReply | None)
async def opening_progress(request: HttpRequest, opening_id: UUID) -> Opening | None:
    """How far a show file has come; null for one that is not here yet, or not any more."""
    return opening_of(opening_id)


@router.delete("/shows/opening/{uuid:opening_id}", response=OpeningReply | None)
async def stop_opening(request: HttpRequest, opening_id: UUID) -> Opening | None:
    """Open a show file no further; nothing of it is kept."""
    opening = opening_of(opening_id)
    if opening is not None:
        stop(opening)
    return opening
