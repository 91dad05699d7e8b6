"""One open phone of a performer: told of its own mixes, and moving these alone."""

import asyncio
import logging
import time
from collections.abc import Hashable
from dataclasses import replace
from functools import partial
from http.cookies import CookieError, SimpleCookie
from typing import Any, Final
from uuid import UUID, uuid4

from channels.exceptions import StopConsumer
from channels.generic.websocket import AsyncWebsocketConsumer
from django.db import DatabaseError
from pydantic import ValidationError

from ombrel import core
from ombrel.core import ConsoleError

from .. import models
from ..keeping.door import Done, Outcome, Refused, Request, kept_of
from ..keeping.ear_calls import call, call_of
from ..keeping.ear_links import Held, cookie_name, digest_of, held_by, seen_by
from ..keeping.live import live_of
from ..keeping.work import at_leisure, in_database
from ..messages import phone as wire
from ..messages.edits import refused_message
from ..messages.news import phone_text, text_of
from ..messages.phone import called_message
from .rooms import room_of
from .ticker import ticker_of

__all__ = ["PhoneConsumer"]

LINK_ENDED: Final = 4403
MOST_WAITING: Final = 64
_LOG = logging.getLogger(__name__)
_REST_S: Final = 0.12  # between two that it is told: quicker than one looks from row to row


class PhoneConsumer(AsyncWebsocketConsumer):
    """Speaks the messages of `messages.phone`."""

    started = left = False
    session = ""
    phone: tuple[UUID, str] = (UUID(int=0), "")

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        self.scope, self.base_send = scope, send
        try:
            while True:
                await self.dispatch(await receive())
        except StopConsumer:
            pass
        finally:
            await self._leave()

    async def dispatch(self, message: dict[str, Any]) -> None:
        handler = getattr(self, message["type"].replace(".", "_"))
        await handler(message)

    async def connect(self) -> None:
        self.channel_name = uuid4().hex
        self.view = "phone"
        self.waiting: set[UUID] = set()
        self.told, self.called, self.asks_call = "", "", True
        self.wake = asyncio.Event()
        self.task: asyncio.Task[None] | None = None
        await self.accept()
        link_id: UUID = self.scope["url_route"]["kwargs"]["link_id"]
        self.cookie = _cookie_of(self.scope, cookie_name(link_id))
        try:
            self.held: Held = await in_database(held_by, link_id, self.cookie, again=True)
        except ConsoleError:
            await self.close(code=LINK_ENDED)
            return
        except DatabaseError:
            await self.close(code=1013)
            return
        self.phone = self.held.phone_id, digest_of(self.cookie)
        self.name, self.user_id = self.held.name, self.held.person_id
        self.started = True
        self.ticker = ticker_of(self.held.show_id)
        self.room = room_of(self.held.show_id, partial(self.ticker.heard, None))
        self.room.come(self)
        self.room.people_moved()

    async def disconnect(self, code: int) -> None:
        await self._leave()

    async def _leave(self) -> None:
        if self.left or not self.started:
            return
        self.left = True
        if self.task is not None and self.task is not asyncio.current_task():
            self.task.cancel()
        self.room.go(self)

    async def receive(self, text_data: str | None = None, bytes_data: bytes | None = None) -> None:
        if not self.started or self.left:
            return
        try:
            message = wire.FROM_PHONE.validate_json(text_data or "")
        except ValidationError as error:
            first = error.errors()[0]
            place = ".".join(str(part) for part in first["loc"])
            await self._say({"type": "refused", "id": None, "code": "bad_message",
                             "message": f"{place}: {first['msg']}"})  # fmt: skip
            return
        try:
            await self._answer(message)
        except DatabaseError:
            await self.close(code=1013)
        except Exception:  # a bug in one answer is no reason to end the phone that asked
            _LOG.exception("a phone was not answered: %s", message.type)
            await self._say(refused_message(getattr(message, "id", None), core.Broken()))

    async def _answer(self, message: wire.FromPhone) -> None:
        match message:
            case wire.PhoneHello():
                self.told, self.called, self.asks_call = "", "", True
                if self.task is None:
                    self.task = asyncio.create_task(self._telling())
                self.woken()
            case wire.PhonePing():
                await self._say({"type": "pong"})
            case wire.PhoneKept():
                await self.ticker.behind(self.user_id)
                kept = await in_database(kept_of, self.held.show_id, message.ids, again=True)
                await self._say({"type": "kept", "ids": [str(one) for one in kept]})
            case wire.PhoneCall():
                await self._call(message)
            case wire.PhoneDo():
                mix, of = message.ask.mix, getattr(message.ask, "of", core.EVERYTHING)
                if mix in self.held.mixes:
                    self.room.finger(self.channel_name, mix, of, self.name)
                self._submit(self._request(message.id, message.gesture, message))
            case wire.PhoneTurn():
                undo = message.type == "undo"
                kind = models.Change.Kind.UNDO if undo else models.Change.Kind.REDO
                self._submit(self._request(message.id, str(message.id), None, kind))

    async def _call(self, message: wire.PhoneCall) -> None:
        try:
            phone_id = self.held.phone_id
            await in_database(call, phone_id, message.id, message.mix, message.text)
        except ConsoleError as error:
            await self._say(refused_message(message.id, error))
            return
        self.room.calls_moved()

    async def _tell_call(self) -> None:
        """What became of its last call."""
        last = await in_database(call_of, self.held.phone_id, again=True)
        text = text_of(called_message(last)) if last else ""
        if text != self.called:
            self.called = text
            await self._tell(text)

    def _request(
        self,
        edit_id: UUID,
        gesture: str,
        message: wire.PhoneDo | None,
        kind: models.Change.Kind = models.Change.Kind.EDIT,
    ) -> Request:
        phone_id, cookie = self.phone
        joins: Hashable = message.ask.joins() if message else None
        return Request(
            edit_id=edit_id,
            author_id=self.user_id,
            gesture=gesture,
            plan=message.ask.plan if message else None,
            kind=kind,
            author=self.name,
            seen=message.seen if message else None,
            joins=None if joins is None else (self.channel_name, gesture, joins),
            phone=phone_id,
            cookie=cookie,
        )

    def _submit(self, request: Request) -> None:
        if len(self.waiting) >= MOST_WAITING:
            refused = refused_message(request.edit_id, core.TooManyMoves())
            self._later(refused)
            return
        self.waiting.add(request.edit_id)
        self.ticker.ask(request, partial(self._outcome, request.edit_id))

    def _outcome(self, edit_id: UUID, outcome: Outcome | Exception) -> None:
        self.waiting.discard(edit_id)
        if isinstance(outcome, Done):
            done = {"type": "done", "id": str(edit_id), "revision": outcome.revision}
            self._later({**done, "says": outcome.says})
            return
        error = outcome.error if isinstance(outcome, Refused) else core.Broken()
        state = live_of(self.held.show_id).state
        self._later(refused_message(edit_id, error, state.show if state else None))

    def _later(self, message: dict) -> None:
        self._soon(text_of(message))

    def _soon(self, text: str) -> None:
        task = asyncio.ensure_future(self._tell(text))
        _SAYING.add(task)
        task.add_done_callback(_SAYING.discard)

    async def _say(self, message: dict) -> None:
        await self._tell(text_of(message))

    async def _tell(self, text: str) -> None:
        if self.left:
            return
        try:
            await self.base_send({"type": "websocket.send", "text": text})
        except (OSError, RuntimeError):
            await self._leave()

    async def _telling(self) -> None:
        """Its mixes, whenever they are others than it was told; the newest, at its own pace."""
        while True:
            await self.wake.wait()
            self.wake.clear()
            try:
                began = time.monotonic()
                state, mixes = await in_database(
                    seen_by, *self.phone, self.held.show_id, again=True
                )
                self.held = replace(self.held, mixes=mixes)
                text = await at_leisure(phone_text, state, mixes)
                if text != self.told:
                    self.told = text
                    await self._tell(text)
                if self.asks_call:
                    self.asks_call = False
                    await self._tell_call()
                await asyncio.sleep(max(_REST_S, time.monotonic() - began))
            except ConsoleError:  # its link ended
                await self.close(code=LINK_ENDED)
                return
            except DatabaseError:
                await self.close(code=1013)
                return
            except Exception:
                _LOG.exception("a phone could not be told of a move")
                await asyncio.sleep(1.0)

    # ---- from its room

    def woken(self) -> None:
        self.wake.set()

    def post(self, what: str, text: str) -> None:
        """What engineers' screens are told is not for phones; of calls each has its own."""
        if what == "calls":
            self.asks_call = True
            self.woken()
        elif what.partition(" ")[0] == "finger" and what.partition(" ")[2] in self.held.mixes:
            self._soon(text)

    async def signed_out(self) -> None:
        """Its link ended."""
        await self.close(code=LINK_ENDED)

    async def gone(self) -> None:
        """The show was taken off the list."""
        await self.close(code=LINK_ENDED)


_SAYING: set[asyncio.Future[None]] = set()


def _cookie_of(scope: Any, name: str) -> str:
    """A phone's cookie among those that came along; "": it has none."""
    headers = dict(scope["headers"])
    try:
        found = SimpleCookie(headers.get(b"cookie", b"").decode("latin-1")).get(name)
    except CookieError:
        return ""
    return found.value if found is not None and len(found.value) <= 64 else ""
