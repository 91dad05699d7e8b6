"""An open connection to a show, whoever holds it: messages read one by one, edits on their way."""

import asyncio
import json
import logging
from functools import partial
from typing import Any
from uuid import UUID

from channels.exceptions import StopConsumer
from channels.generic.websocket import AsyncWebsocketConsumer
from django.db import DatabaseError
from pydantic import TypeAdapter, ValidationError

from ombrel import core
from ombrel.core import ConsoleError

from ..keeping.live import live_of
from ..keeping.request import Done, Outcome, Refused, Request
from ..messages.edits import refused_message
from ..messages.news import text_of
from .ticker import Ticker

__all__ = ["MOST_WAITING", "Line"]

_LOG = logging.getLogger(__name__)
MOST_WAITING = 256  # edits of one connection that are not answered yet


class Line(AsyncWebsocketConsumer):
    """What a screen and a phone have in common. `reads`: the messages that it takes."""

    reads: TypeAdapter
    show_id: UUID
    ticker: Ticker
    started = left = False
    session = ""  # of its sign-in
    phone: tuple[UUID, str] | None = None  # a performer's, with the digest of its cookie

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        """As Channels does it, short of what this server does not use: layers, and looking after

        database connections at every message; those are of the threads in `work`.
        """
        self.scope, self.base_send = scope, send
        self.waiting: set[UUID] = set()  # its edits that are not answered yet
        self.answered = asyncio.Event()
        try:
            while True:
                await self.dispatch(await receive())
        except StopConsumer:
            pass
        finally:  # however it ends, it leaves the show and its own work
            await self._leave()

    async def dispatch(self, message: dict[str, Any]) -> None:
        handler = getattr(self, message["type"].replace(".", "_"))
        await handler(message)

    async def disconnect(self, code: int) -> None:
        await self._leave()

    async def _leave(self) -> None:
        """Take it out of everything; once, however often it is called."""
        raise NotImplementedError

    async def _answer(self, message: Any) -> None:
        """Do what a message asks."""
        raise NotImplementedError

    def answer(self, text: str) -> None:
        """Tell it what became of an edit, at the pace at which it takes what it is told."""
        raise NotImplementedError

    async def receive(self, text_data: str | None = None, bytes_data: bytes | None = None) -> None:
        if not self.started:
            return  # a stranger, or no such show: closed already, and nothing is answered
        # who left meanwhile is told nothing more, and what they sent before counts all the same
        if len(self.waiting) >= MOST_WAITING:  # whoever sends more is read no further meanwhile
            await self._answered()
        try:
            message = self.reads.validate_json(text_data or "")
        except ValidationError as error:
            first = error.errors()[0]
            place = ".".join(str(part) for part in first["loc"])
            await self._refuse(_id_in(text_data), "bad_message", f"{place}: {first['msg']}")
            return
        await self._taken(message)

    async def _taken(self, message: Any) -> None:
        await self._tried(message)

    async def _tried(self, message: Any) -> None:
        """Answer a message; its fault stays its own."""
        try:
            await self._answer(message)
        except ConsoleError as error:
            await self.say(refused_message(getattr(message, "id", None), error, self._known()))
        except DatabaseError:
            await self.say({"type": "trouble", "message": "The show's store does not answer."})
            await self.close(code=1013)  # try again later: the page says hello again by itself
        except Exception:  # a bug in one answer is no reason to end the screen that asked
            _LOG.exception("a message was not answered: %s", message.type)
            await self.say(refused_message(getattr(message, "id", None), core.Broken()))

    async def say(self, message: dict) -> None:
        await self.tell(text_of(message))

    async def tell(self, text: str) -> None:
        """Send a text, if any ("": nothing is to tell). Who has gone meanwhile hears of it when

        they come back.
        """
        if self.left or not text:
            return
        try:
            await self.base_send({"type": "websocket.send", "text": text})
        except (OSError, RuntimeError):  # closed: by the network, or by a close that came first
            await self._leave()

    async def _refuse(self, message_id: UUID | str | None, code: str, message: str) -> None:
        shown = str(message_id) if message_id else None
        await self.say({"type": "refused", "id": shown, "code": code, "message": message})

    def _known(self) -> core.Show | None:
        """The show as this process knows it just now, for the names of things."""
        state = live_of(self.show_id).state
        return state.show if state else None

    def _submit(self, request: Request) -> None:
        """Edits wait for their tick without holding up what comes behind them."""
        self.waiting.add(request.edit_id)
        self.ticker.ask(request, partial(self._outcome, request.edit_id))

    def _outcome(self, edit_id: UUID, outcome: Outcome | Exception) -> None:
        """One of its edits is kept, or refused."""
        self.waiting.discard(edit_id)
        self.answered.set()
        if isinstance(outcome, Done):
            done = {"type": "done", "id": str(edit_id), "revision": outcome.revision}
            self.answer(text_of({**done, "says": outcome.says}))
            return
        error = outcome.error if isinstance(outcome, Refused) else core.Broken()
        self.answer(text_of(refused_message(edit_id, error, self._known())))

    async def _answered(self, ids: set[UUID] | None = None) -> None:
        """Wait until some edits are answered; None: until any is."""
        while self.waiting & ids if ids is not None else len(self.waiting) >= MOST_WAITING:
            self.answered.clear()
            await self.answered.wait()


def _id_in(text: str | None) -> str | None:
    """The id of a message that could not be read, so that its sender learns what became of it."""
    try:
        found = json.loads(text or "")
        return str(UUID(found["id"]))
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError):
        return None
