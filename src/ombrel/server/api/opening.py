"""Show files opened in a process of their own: no hand waits for one, and it can be stopped."""

import asyncio
import json
import os
import sys
from dataclasses import dataclass
from uuid import UUID, uuid4

from django.db import connection

from ombrel.core import BadFile

__all__ = ["Opening", "opened_apart", "opening_of", "stop"]

_AT_ONCE = 1  # processes: the cores are for the show
_MOST = 8  # files that are opened or wait for it
_LONGEST_S = 300.0
_WAY_OUT = "Mend the file, or take it again from the show that it came from."


@dataclass(slots=True)
class Opening:
    """A file on its way: what is done with it just now, and which part of all is done."""

    id: UUID
    doing: str = "waiting for another file"
    part: float = 0.0
    stopped: bool = False
    process: asyncio.subprocess.Process | None = None
    show: str = ""
    fault: BadFile | None = None


_OPENING: dict[UUID, Opening] = {}
_TURNS: dict[asyncio.AbstractEventLoop, asyncio.Semaphore] = {}


def _turn() -> asyncio.Semaphore:
    for other in [one for one in _TURNS if one.is_closed()]:
        del _TURNS[other]
    return _TURNS.setdefault(asyncio.get_running_loop(), asyncio.Semaphore(_AT_ONCE))


def opening_of(opening_id: UUID) -> Opening | None:
    """A file on its way, or None for one that there is not (any more)."""
    return _OPENING.get(opening_id)


def stop(opening: Opening) -> None:
    """End it; nothing of it is kept."""
    opening.stopped = True
    if opening.process is not None and opening.process.returncode is None:
        opening.process.kill()


async def opened_apart(
    content: bytes, name: str, author_id: int | None, opening_id: UUID | None = None
) -> UUID:
    """The id of the new show that a file makes. Raises BadFile with its faults, or why it ended."""
    opening = Opening(opening_id or uuid4())
    if len(_OPENING) >= _MOST or opening.id in _OPENING:
        raise BadFile("Too many files are being opened at once.", "Wait until one is done.")
    _OPENING[opening.id] = opening
    try:
        async with _turn():
            if not opening.stopped:
                await asyncio.wait_for(_run(opening, content, name, author_id), _LONGEST_S)
    except TimeoutError as error:
        raise BadFile("The file takes too long to read.", _WAY_OUT) from error
    finally:
        stop(opening)
        del _OPENING[opening.id]
    if opening.fault is not None:
        raise opening.fault
    if not opening.show:
        raise BadFile("It was stopped.", "Open it again.")
    return UUID(opening.show)


async def _run(opening: Opening, content: bytes, name: str, author_id: int | None) -> None:
    """Have a process open it, and hear what it says."""
    store = connection.settings_dict  # of a test, a database of its own
    process = opening.process = await asyncio.create_subprocess_exec(
        sys.executable, "-m", "ombrel.server.api.opened", str(author_id or ""), name,
        stdin=asyncio.subprocess.PIPE, stdout=asyncio.subprocess.PIPE,
        env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path),
             "OMBREL_DB_NAME": str(store["NAME"])},
    )  # fmt: skip
    assert process.stdin is not None  # both were asked for
    assert process.stdout is not None
    feeding = asyncio.ensure_future(_fed(process.stdin, content))
    try:
        async for line in process.stdout:
            told = json.loads(line)
            opening.doing = told.get("doing", opening.doing)
            opening.part = told.get("part", opening.part)
            opening.show = told.get("show", "")
            if "what" in told:
                opening.fault = BadFile(told["what"], told["way_out"])
        await process.wait()
    finally:
        feeding.cancel()
        if process.returncode is None:
            process.kill()
            await process.wait()
    if not (opening.show or opening.fault or opening.stopped):
        opening.fault = BadFile(
            "The file asks for more memory or time than a show takes.", _WAY_OUT
        )


async def _fed(pipe: asyncio.StreamWriter, content: bytes) -> None:
    try:
        pipe.write(content)
        await pipe.drain()
        pipe.close()
    except (BrokenPipeError, ConnectionResetError):
        return  # it ended before it had read all: it says why
