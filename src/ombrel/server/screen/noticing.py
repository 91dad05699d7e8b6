"""Findings and promises of a show, found at leisure and once for all its screens."""

import asyncio
import logging
import time
from collections.abc import Callable
from contextlib import nullcontext
from uuid import UUID
from weakref import WeakKeyDictionary

from django.db import DatabaseError

from ..keeping.frames import Frame
from ..keeping.live import live_of
from ..keeping.log import setters_of
from ..keeping.states import State
from ..keeping.work import at_leisure, in_database
from ..messages.news import found_by_levels, noticed_told, text_of

__all__ = ["Noticing"]

_LOG = logging.getLogger(__name__)
_MOST_REST_S = 0.2
_AGAIN_S = 1.0

# One show at a time in a process, each with its rest: four that move at once would leave nothing
# between their findings for the hands on them.
_TURNS: WeakKeyDictionary[asyncio.AbstractEventLoop, asyncio.Lock] = WeakKeyDictionary()

Post = Callable[[str, str], None]  # what it is, and the text


def _turn() -> asyncio.Lock:
    return _TURNS.setdefault(asyncio.get_running_loop(), asyncio.Lock())


class Noticing:
    """Finds by the show as it stands when its turn comes; moves that come meanwhile are one."""

    def __init__(self, show_id: UUID, post: Post) -> None:
        self._show_id, self._post = show_id, post
        self._found: dict[str, str] = {}
        self._found_of: State | None = None
        self._by_levels: tuple[str, ...] | None = None
        self._all = self._over = False
        self._task: asyncio.Task[None] | None = None

    def wanted(self, post: Post) -> None:
        """A screen has come: it is told what was found, if that is still so, or all are anew."""
        if self._found_of is not None and self._found_of is live_of(self._show_id).state:
            for what, text in self._found.items():
                post(what, text)
        else:
            self._owe(everything=True)

    def moved(self, frame: Frame) -> None:
        """What a move may bear on is found again."""
        if frame.noticed:
            self._owe(everything=True)
        elif frame.cells:
            self._owe(everything=False)

    def end(self) -> None:
        if self._task is not None:
            self._task.cancel()

    def _owe(self, *, everything: bool) -> None:
        self._all, self._over = self._all or everything, True
        if self._task is None or self._task.done():
            self._task = asyncio.create_task(self._notice())

    async def _notice(self) -> None:
        while self._all or self._over:
            # who has just come is not kept waiting by what moves elsewhere
            first = self._found_of is None
            async with nullcontext() if first else _turn():
                await self._once()

    async def _once(self) -> None:
        everything, self._all, self._over = self._all, False, False
        began = time.monotonic()
        try:
            state = live_of(self._show_id).state
            if state is None:
                state = await in_database(live_of(self._show_id).now, again=True)
            over = await at_leisure(found_by_levels, state)
            if everything or self._by_levels is None or over != self._by_levels:
                await self._tell(state)
            elif self._found_of is not None:
                self._found_of = state  # nothing that was found hangs on what moved
            self._by_levels = over
        except DatabaseError:
            self._all = True
            await asyncio.sleep(_AGAIN_S)
        except Exception:
            _LOG.exception("what is wrong could not be found out")
        # while moves come in, on whichever show, three quarters of the time are theirs
        await asyncio.sleep(min(3.0 * (time.monotonic() - began), _MOST_REST_S))

    async def _tell(self, state: State) -> None:
        text, feeds = await at_leisure(noticed_told, state)
        found = {"noticed": text}
        if feeds:
            keys = await in_database(setters_of, self._show_id, feeds, again=True)
            found["set_by"] = text_of({"type": "set_by", "keys": keys})
        self._found, self._found_of = found, state
        for what, words in found.items():
            self._post(what, words)
