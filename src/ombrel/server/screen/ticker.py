"""Moves that arrive within one short tick become one transaction; the show's screens are told."""

import asyncio
import logging
import time
from collections.abc import Hashable, Iterable
from dataclasses import replace
from uuid import UUID

from django.db import InterfaceError, OperationalError

from ..keeping.door import commit
from ..keeping.exchange import exchange
from ..keeping.live import live_of
from ..keeping.passing import Ended, Renewed
from ..keeping.request import Outcome, Refused, Request
from ..keeping.work import in_database
from ..operating.metrics import FIGURES
from . import rooms
from .queue import Answer, Item, Queue

__all__ = ["Ticker", "ticker_of"]

TICK_S = 0.025
_REST_S = 0.005  # for telling what a batch moved, before the next is taken
RETRY_S = 0.4
PATIENCE_S = 120.0  # so long edits wait for a database that does not answer
MOST_ASKED = 4096
_LOG = logging.getLogger(__name__)

Taken = list[tuple[Hashable, Item]]


class Ticker:
    """Gathers one show's edits and takes them through the door, a tick at a time."""

    def __init__(self, show_id: UUID) -> None:
        self.show_id = show_id
        self._queue = Queue()
        self._asked: dict[UUID, None] = {}  # ids of the last edits: which are sent again
        self._task: asyncio.Task[None] | None = None
        self._in_trouble = False

    @property
    def idle(self) -> bool:
        """Whether nothing waits and nothing is being made."""
        return not self._queue and (self._task is None or self._task.done())

    async def submit(self, request: Request) -> Outcome:
        """Make one edit; returns once it is kept, or refused. Raises what it met as a bug."""
        future: asyncio.Future[Outcome] = asyncio.get_running_loop().create_future()

        def answered(outcome: Outcome | Exception) -> None:
            if future.done():
                return
            if isinstance(outcome, Exception):
                future.set_exception(outcome)
            else:
                future.set_result(outcome)

        self.ask(request, answered)
        return await future

    def ask(self, request: Request, answer: Answer) -> None:
        """Make one edit; `answer` is called once it is kept, or refused."""
        if request.edit_id in self._asked:
            # sent again: an older place than those behind it, for which it must not do
            request = replace(request, joins=None)
        self._asked[request.edit_id] = None
        if len(self._asked) > MOST_ASKED:
            del self._asked[next(iter(self._asked))]
        self._queue.add(request.author_id, request, _counted(answer))
        self._go()

    def may_end(self, ended: Ended) -> bool:
        """Whether this may end a hand; in doubt it may."""
        live = live_of(self.show_id)
        if exchange().shared or not self.idle or live.state is None:  # a restart knows none yet
            return True
        return any(ended.ends(*one) for one in live.hands.items())

    def heard(self, whose: Hashable, news: Ended | Renewed, answer: Answer | None = None) -> None:
        """Hands that end, behind all that they moved before, or are there still."""
        self._queue.add(whose, news, answer)
        self._go()

    async def behind(self, whose: Hashable) -> None:
        """Wait until all is answered that somebody asked for before."""
        done = asyncio.Event()
        self.heard(whose, Renewed(frozenset()), lambda _: done.set())
        await done.wait()

    def _go(self) -> None:
        if self._task is None or self._task.done():
            self._task = asyncio.create_task(self._run())

    async def _run(self) -> None:
        rest_s = TICK_S
        while self._queue:
            await asyncio.sleep(rest_s)
            began = time.monotonic()
            await self._taken(self._queue.take())
            # what came while a long batch was made has waited for its tick already
            rest_s = max(_REST_S, TICK_S - (time.monotonic() - began))

    async def _taken(self, batch: Taken) -> None:
        """Take edits through the door. What the door cannot keep together it is given singly:

        one request's fault stays its own.
        """
        try:
            outcomes = await self._kept([item.request() for _, item in batch])
        except Exception as error:  # a bug, a value that cannot be stored, a show that is gone
            if len(batch) > 1:
                for one in batch:
                    await self._taken([one])
                return
            _LOG.exception("an edit failed")
            batch[0][1].answered(error)
            return
        for (whose, item), outcome in zip(batch, outcomes, strict=True):
            if isinstance(outcome, Refused) and item.overtaken:
                self._queue.again(whose, item.apart())  # of its earlier places none was refused
            else:
                item.answered(outcome)

    async def _kept(self, asked: Iterable[Request | Ended | Renewed]) -> list[Outcome]:
        """Commit, however often the database has to be asked: no move is lost."""
        started = time.monotonic()
        while True:
            try:
                began = time.monotonic()
                outcomes, _, _ = await in_database(commit, self.show_id, list(asked))
                FIGURES.tick(time.monotonic() - began)
            except (OperationalError, InterfaceError):
                if time.monotonic() - started > PATIENCE_S:
                    raise
                if not self._in_trouble:
                    _LOG.warning("the database does not answer; edits wait")
                    self._in_trouble = True
                    self._trouble("The show's store does not answer. Your moves wait.")
                await asyncio.sleep(RETRY_S)
                continue
            if self._in_trouble:
                self._in_trouble = False
                self._trouble("")
            return outcomes

    def _trouble(self, message: str) -> None:
        if (room := rooms.open_room(self.show_id)) is not None:
            room.trouble(message)


def _counted(answer: Answer) -> Answer:
    """An answer that is counted, with how long it took to come."""
    began = time.monotonic()

    def answered(outcome: Outcome | Exception) -> None:
        refused = outcome.error if isinstance(outcome, Refused) else None
        code = "bug" if isinstance(outcome, Exception) else refused.code if refused else None
        FIGURES.edit(code, time.monotonic() - began)
        answer(outcome)

    return answered


_TICKERS: dict[tuple[int, UUID], Ticker] = {}


def ticker_of(show_id: UUID) -> Ticker:
    """The one ticker of a show in this process (for each event loop, since tests have several)."""
    here = id(asyncio.get_running_loop())
    for key in [key for key, ticker in _TICKERS.items() if key[0] == here and ticker.idle]:
        if key[1] != show_id:
            del _TICKERS[key]
    return _TICKERS.setdefault((here, show_id), Ticker(show_id))
