"""What one screen is told of a show: by one task, in order, at the pace at which it takes it.

A screen is a cursor over the show's moves. One that takes its time gets what came meanwhile as one
move, and of anything else the newest: nothing piles up for it.
"""

import asyncio
import logging
import time
from collections.abc import Awaitable, Callable
from typing import Final

from django.db import DatabaseError

from ombrel.core import CLOSING, ConsoleError

from ..keeping.log import values_after
from ..keeping.states import State
from ..keeping.work import in_database
from ..messages.news import (
    Update,
    cells_text,
    fading_text,
    loudest_text,
    ruled_again_text,
    ruled_text,
    snapshot_text,
    table_text,
    text_of,
)
from .explaining import Explainer
from .rooms import Room

__all__ = ["Teller"]

_LOG = logging.getLogger(__name__)
_CATCH_UP: Final = 500  # more revisions behind than this: a snapshot is smaller
_AGAIN_S = 1.0


class Teller:
    """Tells a screen. `tell` sends a text; `fail` ends it, where the store does not answer."""

    def __init__(
        self,
        room: Room,
        explainer: Explainer,
        tell: Callable[[str], Awaitable[None]],
        fail: Callable[[], Awaitable[None]],
    ) -> None:
        self.room, self._explainer, self._tell, self._fail = room, explainer, tell, fail
        self._revision: int | None = None
        self._greeted: tuple[int | None] | None = None  # the revision that it said hello with
        self._table = self._owes_table = False
        self._mail: dict[str, str] = {}
        self._answers: list[str] = []
        self._wake = asyncio.Event()
        self._task = asyncio.create_task(self._run())

    def hello(self, since: int | None) -> None:
        """The screen has what stood at a revision (None: nothing)."""
        self._greeted = (since,)
        self.woken()

    def draws_table(self, wanted: bool) -> None:
        """Whether it draws who hears what: all of it first, then what moves."""
        self._owes_table = self._owes_table or (wanted and not self._table)
        self._table = wanted
        self.woken()

    def post(self, what: str, text: str) -> None:
        """Something to tell; the newest of its kind is told."""
        self._mail.pop(what, None)
        self._mail[what] = text
        self.woken()

    def answer(self, text: str) -> None:
        """An answer: each is told, behind what moved."""
        self._answers.append(text)
        self.woken()

    def woken(self) -> None:
        """There may be something to tell."""
        self._wake.set()

    def end(self) -> None:
        if self._task is not asyncio.current_task():
            self._task.cancel()

    async def _run(self) -> None:
        while True:
            await self._wake.wait()
            self._wake.clear()
            try:
                await self._told()
            except DatabaseError:
                await self._fail()
                return
            except Exception:  # a bug in one answer is no reason to end the screen
                _LOG.exception("a screen could not be told of a move")
                self._owes_table = self._table  # some of it may be missing there now
                await asyncio.sleep(_AGAIN_S)

    async def _told(self) -> None:
        """All that there is to tell now, the values first."""
        if self._greeted is not None:
            await self._greet()
        elif self._revision is not None:
            await self._moves()
        answers, self._answers = self._answers, []
        for text in answers:
            await self._tell(text)
        for what in list(self._mail):
            await self._tell(self._mail.pop(what))

    async def _greet(self) -> None:
        assert self._greeted is not None
        (since,), self._greeted = self._greeted, None
        # as the store has it: it may have been moved on while nobody here had it open
        state = await in_database(self.room.live.now, again=True)
        values = None
        if since is not None and 0 <= state.revision - since <= _CATCH_UP:
            values = await in_database(values_after, self.room.show_id, since, state, again=True)
        self._revision = state.revision
        if values is not None:
            told = {"before": since, "revision": state.revision, "values": values}
            await self._tell(text_of({"type": "moved", **told}))
        else:
            await self._tell(await self.room.once(snapshot_text, state))
        await self._tell(await self.room.once(ruled_text, state))
        now_s = time.monotonic()
        fades = [
            fade
            for fade in self.room.live.fading.values()
            if fade.law != CLOSING and not fade.ended(now_s)
        ]
        if fades:
            await self._tell(fading_text(fades, now_s))
        self.room.noticing.wanted(self.post)
        self.woken()  # what moved meanwhile

    async def _moves(self) -> None:
        """What moved since the screen was told last, as one move."""
        state = self.room.live.state
        assert state is not None
        assert self._revision is not None
        if state.revision == self._revision:
            await self._owed_table(state)
            return
        frame = self.room.live.since(self._revision)
        if frame is None:  # too far behind, or read anew
            self._greeted = (self._revision,)
            self._owes_table = self._table
            await self._greet()
            self._explainer.anew()
            return
        told = Update.of(frame)
        self._revision = told.revision
        await self._tell(told.text)
        if told.fades:
            await self._tell(fading_text(told.fades, time.monotonic()))
        await self._derived(told, state)
        self.woken()  # what moved meanwhile

    async def _derived(self, told: Update, state: State) -> None:
        """What hangs on the values that moved, by the newest state."""
        once = self.room.once
        in_place = state.show["show/solo"] == "in_place"
        if told.may_rule(in_place=in_place):
            await self._tell(await once(ruled_again_text, state, told))
        if self._table and told.layout:
            self._owes_table = True
        elif self._table and told.cells and not self._owes_table:
            await self._tell(await once(cells_text, state, told))
        await self._owed_table(state)
        if why := self._explainer.why:
            try:
                column = state.flow.layout.column(why.listener)
                if told.noticed or told.layout or any(at == column for _, at in told.cells):
                    await self._tell(await once(loudest_text, state, why.source, why.listener))
            except ConsoleError:  # it went with its strip, or never was: Why says so
                _LOG.debug("a cell that is looked at is not there")
        self._explainer.moved(told, state)

    async def _owed_table(self, state: State) -> None:
        if self._owes_table and self._table:
            self._owes_table = False
            await self._tell(await self.room.once(table_text, state))
