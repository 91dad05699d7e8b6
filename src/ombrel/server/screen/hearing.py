"""Who hears an update of many scenes, told scene by scene behind its preview."""

import asyncio
import logging
import time
from collections import deque
from collections.abc import Awaitable, Callable
from typing import Final
from uuid import UUID

from ombrel import core

from ..asks.plans import Turn
from ..asks.scenes import SetInScenes
from ..keeping.work import at_leisure
from ..messages.news import text_of
from ..messages.scenes import HearingMessage, HearingThere

__all__ = ["Hearing"]

_LOG = logging.getLogger(__name__)
# Each scene is recalled to find out: on a large desk a tenth of a second. So much of it at a time,
# and between them whatever else is explained has its turn.
_AT_ONCE_S: Final = 0.2

_Waiting = deque[tuple[str, core.Value]]


class Hearing:
    """Of the update that a screen looked at last; by the show as it stood then."""

    def __init__(self, tell: Callable[[str], Awaitable[None]]) -> None:
        self._tell = tell
        self._task: asyncio.Task[None] | None = None

    def begin(self, asked: UUID, turn: Turn, ask: SetInScenes, many: core.Many) -> None:
        """Find out for every scene that an update changes; what was looked at before is let go."""
        self.end()
        waiting: _Waiting = deque((scene, now) for scene, _, now in many.changed)
        self._task = asyncio.create_task(self._work(asked, turn, ask, waiting))

    def end(self) -> None:
        """Nobody looks any more."""
        if self._task is not None and self._task is not asyncio.current_task():
            self._task.cancel()

    async def _work(self, asked: UUID, turn: Turn, ask: SetInScenes, waiting: _Waiting) -> None:
        try:
            while waiting:
                found = await at_leisure(_some, turn, ask, waiting)
                message = HearingMessage(type="hearing", id=asked, scenes=found)
                await self._tell(text_of(message.model_dump(mode="json")))
        except Exception:
            _LOG.exception("who hears an update could not be told")


def _some(turn: Turn, ask: SetInScenes, waiting: _Waiting) -> list[HearingThere]:
    """The next scenes, taken from those that wait, for as long as it may take."""
    found: list[HearingThere] = []
    end_s = time.monotonic() + _AT_ONCE_S
    while waiting and (not found or time.monotonic() < end_s):
        scene, now = waiting.popleft()
        there = core.hearing_there(turn.show, turn.flow, scene, ask.holder, ask.leaf, now)
        found.append(HearingThere(scene=scene, hearing=None if there is None else list(there)))
    return found
