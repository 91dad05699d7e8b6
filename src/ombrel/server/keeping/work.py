"""Database work off the event loop, in a few threads that each keep their connection."""

import asyncio
import sys
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from threading import Barrier
from typing import TypeVar

from django.db import DatabaseError, InterfaceError, OperationalError, connections

__all__ = ["at_leisure", "in_database", "in_thread", "let_go", "planned"]

# A thread that computes gives way so soon to one that answers a hand (Python's own is 5 ms: a third
# of a display frame, at every step of an answer), and to the loop: a big show's explanations do not
# hold up what another screen moves.
sys.setswitchinterval(0.001)
_THREADS = 4  # one would do for one show; a few let shows pass one another
_WORKERS = ThreadPoolExecutor(max_workers=_THREADS, thread_name_prefix="database")
_THINKERS = ThreadPoolExecutor(max_workers=1, thread_name_prefix="core")
_EXPLAINERS = ThreadPoolExecutor(max_workers=1, thread_name_prefix="explaining")
_PLANNERS = ThreadPoolExecutor(max_workers=1, thread_name_prefix="planning")
_T = TypeVar("_T")


async def in_database(work: Callable[..., _T], *args: object, again: bool = False) -> _T:
    """Run database work in a thread of its own.

    A restarted database leaves threads with dead connections: after an error the thread's is
    closed, and with `again` (for work that only reads) the work is tried once more on a new one.
    """
    loop = asyncio.get_running_loop()
    try:
        return await loop.run_in_executor(_WORKERS, partial(_guarded, work, args))
    except (OperationalError, InterfaceError):
        if not again:
            raise
    return await loop.run_in_executor(_WORKERS, partial(_guarded, work, args))


async def in_thread(work: Callable[..., _T], *args: object) -> _T:
    """Run work of the core off the event loop, in one thread: it never outnumbers the cores."""
    loop = asyncio.get_running_loop()
    return await loop.run_in_executor(_THINKERS, partial(work, *args))


async def at_leisure(work: Callable[..., _T], *args: object) -> _T:
    """Run work that may take long and for which no hand waits: it holds up nothing but itself."""
    loop = asyncio.get_running_loop()
    return await loop.run_in_executor(_EXPLAINERS, partial(work, *args))


async def planned(work: Callable[..., _T], *args: object) -> _T:
    """Run a search that may take seconds, in a thread of its own: its solver lets others run."""
    loop = asyncio.get_running_loop()
    return await loop.run_in_executor(_PLANNERS, partial(work, *args))


def _guarded(work: Callable[..., _T], args: tuple[object, ...]) -> _T:
    try:
        return work(*args)
    except (DatabaseError, InterfaceError):
        connections.close_all()
        raise


def let_go() -> None:
    """Close the connection of every thread; a test database can be dropped only then."""
    barrier = Barrier(_THREADS)

    def close() -> None:
        barrier.wait(timeout=5)  # so that each thread takes exactly one of these
        connections.close_all()

    for done in [_WORKERS.submit(close) for _ in range(_THREADS)]:
        done.result()
