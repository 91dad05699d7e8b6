"""PDF made in processes of their own, so that a long one holds nobody up, with their progress."""

import asyncio
import os
import sys
import time
from collections.abc import AsyncIterator, Callable, Sequence
from contextlib import asynccontextmanager
from dataclasses import dataclass, field
from uuid import UUID, uuid4

from ombrel.core import Sheet
from ombrel.formats.paper import pages_guessed, sheets_to_json

__all__ = ["Job", "job_of", "made_pdf", "start_job", "stop_job"]

_MOST = 20  # jobs kept; the oldest that are done go first
_AT_ONCE = 6  # processes, each behind everything else: the cores are for the show
_LONGEST_S = 600.0


@dataclass(slots=True)
class Job:
    """One PDF in the making: pages laid out, about how many there will be, and what came of it."""

    show_id: UUID
    name: str
    about: int
    id: UUID = field(default_factory=uuid4)
    pages: int = 0
    content: bytes | None = None
    fault: str = ""
    begun_at: float = field(default_factory=time.monotonic)
    task: "asyncio.Task[None] | None" = None


@dataclass(slots=True)
class _Turns:
    """Whose turn it is, in one event loop: one PDF of a show at a time, and so many in all."""

    every: asyncio.Semaphore = field(default_factory=lambda: asyncio.Semaphore(_AT_ONCE))
    of_show: dict[UUID, asyncio.Semaphore] = field(default_factory=dict)


_JOBS: dict[UUID, Job] = {}
_TURNS: dict[asyncio.AbstractEventLoop, _Turns] = {}


@asynccontextmanager
async def _turn(show_id: UUID) -> AsyncIterator[None]:
    """A show's next PDF waits for its own, never for another show's while few are made."""
    loop = asyncio.get_running_loop()
    for other in [one for one in _TURNS if one.is_closed()]:
        del _TURNS[other]
    turns = _TURNS.setdefault(loop, _Turns())
    own = turns.of_show.setdefault(show_id, asyncio.Semaphore(1))
    async with own, turns.every:
        yield
    if not own.locked() and show_id in turns.of_show:
        del turns.of_show[show_id]


def job_of(show_id: UUID, job_id: UUID) -> Job | None:
    """A job of a show, or None for one that there is not (any more)."""
    job = _JOBS.get(job_id)
    return job if job and job.show_id == show_id else None


def stop_job(show_id: UUID, job_id: UUID) -> bool:
    """Give a PDF up, with its process; False for one that there is not (any more)."""
    job = job_of(show_id, job_id)
    if job is None:
        return False
    del _JOBS[job_id]
    if job.task is not None:
        job.task.cancel()
    return True


def start_job(
    show_id: UUID, name: str, sheets: Sequence[Sheet], *, show_name: str, desk_name: str, date: str
) -> Job | None:
    """A PDF begun, or None while too many are under way."""
    done = [job.id for job in _JOBS.values() if job.content or job.fault]
    for job_id in done[: max(0, len(_JOBS) - _MOST + 1)]:
        del _JOBS[job_id]
    if len(_JOBS) >= _MOST:
        return None
    job = Job(show_id, name, pages_guessed(sheets))
    _JOBS[job.id] = job
    document = sheets_to_json(sheets, show_name=show_name, desk_name=desk_name, date=date)
    job.task = asyncio.get_running_loop().create_task(_run(job, document))
    return job


async def _run(job: Job, document: bytes) -> None:
    def on_page(page: int) -> None:
        job.pages = page
        job.about = max(job.about, page)

    try:
        job.content = await made_pdf(document, on_page, of=job.show_id)
    except (OSError, RuntimeError, TimeoutError) as error:
        job.fault = f"The PDF could not be made: {error}. Try again, or print from the browser."


async def made_pdf(
    document: bytes, on_page: Callable[[int], None] | None = None, *, of: UUID
) -> bytes:
    """A PDF of what `sheets_to_json` gives, in a show's turn. Raises RuntimeError with what the

    process said last.
    """
    async with _turn(of):
        process = await asyncio.create_subprocess_exec(
            *("nice", "-n", "10"),
            sys.executable,
            "-m",
            "ombrel.formats.paper",
            stdin=asyncio.subprocess.PIPE,
            stdout=asyncio.subprocess.PIPE,
            stderr=asyncio.subprocess.PIPE,
            env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)},
        )
        try:
            content, said = await asyncio.wait_for(
                _spoken_with(process, document, on_page), _LONGEST_S
            )
        finally:
            if process.returncode is None:
                process.kill()
                await process.wait()
    if process.returncode or not content:
        raise RuntimeError(said or "it ended without a word")
    return content


async def _spoken_with(
    process: asyncio.subprocess.Process, document: bytes, on_page: Callable[[int], None] | None
) -> tuple[bytes, str]:
    if not (process.stdin and process.stdout and process.stderr):
        raise RuntimeError("it has no pipes")
    reading = asyncio.ensure_future(process.stdout.read())
    process.stdin.write(document)
    process.stdin.close()
    last = ""
    async for line in process.stderr:
        text = line.decode(errors="replace").strip()
        if text.isdigit():
            if on_page:
                on_page(int(text))
        elif text:
            last = text
    content = await reading
    await process.wait()
    return content, last
