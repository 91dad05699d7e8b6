"""A page in the hand, told at its own pace: nothing piles up for one that takes its time."""

import asyncio
import logging
import time
from typing import Final

from django.db import DatabaseError

from ombrel.core import ConsoleError

from .line import Line
from .rooms import Room

__all__ = ["Paced"]

_LOG = logging.getLogger(__name__)
_REST_S: Final = 0.2  # the beat at which it is told: its own finger does not wait for that


class Paced(Line):
    """What a performer's phone and a volunteer's page have in common. `ended`: the code with which

    it is closed when it is nobody's any more.
    """

    room: Room
    ended: int

    def begin(self) -> None:
        """Before it is accepted: nothing is told yet."""
        self.mail: dict[str, str] = {}  # the newest of each kind
        self.answers: list[str] = []
        self.wake = asyncio.Event()
        self.task: asyncio.Task[None] | None = None

    async def _leave(self) -> None:
        if self.left or not self.started:
            return
        self.left = True
        if self.task is not None and self.task is not asyncio.current_task():
            self.task.cancel()
        self.room.go(self)

    def tells(self) -> None:
        """Tell from now on: its page said hello."""
        if self.task is None:
            self.task = asyncio.create_task(self._telling())
        self.woken()

    def answer(self, text: str) -> None:
        self.answers.append(text)
        self.woken()

    def woken(self) -> None:
        self.wake.set()

    def taken_mail(self) -> list[str]:
        """What is to be told behind the news, once."""
        taken = [*self.answers, *self.mail.values()]
        self.answers, self.mail = [], {}
        return taken

    async def _tell_news(self) -> None:
        """What it is told of the show, if that is something else than it was told."""
        raise NotImplementedError

    async def _telling(self) -> None:
        while True:
            await self.wake.wait()
            self.wake.clear()
            try:
                began = time.monotonic()
                await self._tell_news()
                now = time.monotonic()
                # on one beat with the others: what phones of a mix are told is worked out once
                await asyncio.sleep(max(_REST_S - now % _REST_S, now - began))
            except ConsoleError:  # its link ended
                await self.close(code=self.ended)
                return
            except DatabaseError:
                await self.close(code=1013)
                return
            except Exception:
                _LOG.exception("a phone could not be told of a move")
                await asyncio.sleep(1.0)
