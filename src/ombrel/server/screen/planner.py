"""The search for a track plan, for one screen: in a thread of its own, with how far it is."""

import asyncio
import logging
from collections.abc import Awaitable, Callable
from uuid import UUID

from django.db import DatabaseError

from ombrel import core

from ..keeping.live import live_of
from ..keeping.work import in_database, planned
from ..messages.tracks import PlanningMessage, no_plan_found, plan_found

__all__ = ["Planner"]

_LOG = logging.getLogger(__name__)


class Planner:
    """Plans by the show as it stands when its turn comes; of several asked the newest is answered.

    `tell` sends a text to the screen.
    """

    def __init__(self, show_id: UUID, tell: Callable[[str], Awaitable[None]]) -> None:
        self._show_id, self._tell = show_id, tell
        self._newest: UUID | None = None
        self._task: asyncio.Task[None] | None = None

    def plan(self, asked: UUID) -> None:
        """Look for the best plan."""
        self._newest = asked
        if self._task is None or self._task.done():
            self._task = asyncio.create_task(self._plan())

    def end(self) -> None:
        """The screen is gone: what is found is told nobody."""
        self._newest = None
        if self._task is not None:
            self._task.cancel()

    async def _plan(self) -> None:
        while (asked := self._newest) is not None:
            try:
                state = live_of(self._show_id).state
                if state is None:
                    state = await in_database(live_of(self._show_id).now, again=True)
                found = await planned(plan_found, state.show, asked, self._hearing(asked))
            except DatabaseError:
                return
            except Exception:
                _LOG.exception("a track plan failed")
                found = no_plan_found(asked, str(core.Broken()))
            if self._newest != asked:
                continue
            self._newest = None
            await self._tell(found.model_dump_json())

    def _hearing(self, asked: UUID) -> Callable[[str, int, int], None]:
        """Called in the thread that plans: how far it is goes to the screen from the loop."""
        loop = asyncio.get_running_loop()

        def told(what: str, at: int, of: int) -> None:
            message = PlanningMessage(type="planning", id=asked, what=what, at=at, of=of)
            loop.call_soon_threadsafe(self._say, asked, message.model_dump_json())

        return told

    def _say(self, asked: UUID, text: str) -> None:
        if self._newest == asked:
            self._telling = asyncio.ensure_future(self._tell(text))
