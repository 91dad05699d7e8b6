"""Answers to the wishes that a person types: the newest alone, and no hand waits for it."""

import asyncio
import logging
from collections.abc import Awaitable, Callable
from uuid import UUID

from ombrel import core

from ..keeping.live import live_of
from ..keeping.states import State
from ..keeping.work import at_leisure, in_database
from ..messages.edits import refused_message
from ..messages.finding import found_message
from ..messages.from_screen import Find
from ..messages.news import text_of

__all__ = ["Finder"]

_LOG = logging.getLogger(__name__)


class Finder:
    """Of one screen. While one wish is being answered only the newest behind it is kept."""

    def __init__(self, show_id: UUID, tell: Callable[[str], Awaitable[None]]) -> None:
        self._show_id, self._tell = show_id, tell
        self._wish: Find | None = None
        self._task: asyncio.Task[None] | None = None

    def wish(self, message: Find) -> None:
        """Answer this one next."""
        self._wish = message
        if self._task is None or self._task.done():
            self._task = asyncio.create_task(self._work())

    def end(self) -> None:
        """Nobody types any more."""
        if self._task is not None and self._task is not asyncio.current_task():
            self._task.cancel()

    async def _work(self) -> None:
        while (wish := self._wish) is not None:
            self._wish = None
            try:
                state = await in_database(live_of(self._show_id).now, again=True)
                text = await at_leisure(_found_text, state, wish)
            except Exception:  # one wish that cannot be answered is no reason to answer no other
                _LOG.exception("a wish was not answered")
                text = text_of(refused_message(wish.id, core.Broken()))
            await self._tell(text)


def _found_text(state: State, wish: Find) -> str:
    found = core.find(state.show, state.flow, wish.text, view=wish.view)
    return text_of(found_message(wish.id, wish.text, found).model_dump(mode="json"))
