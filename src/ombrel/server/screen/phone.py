"""One open phone of a performer: told of its own mixes, and moving these alone."""

import logging
import time
from collections.abc import Hashable
from functools import partial
from http.cookies import CookieError, SimpleCookie
from typing import Any, Final
from uuid import UUID, uuid4

from django.db import DatabaseError

from ombrel import core
from ombrel.core import ConsoleError

from .. import models
from ..keeping.door import kept_of
from ..keeping.ear_calls import call, call_of
from ..keeping.ear_links import Held, cookie_name, digest_of, held_by
from ..keeping.live import live_of
from ..keeping.people import Acting
from ..keeping.request import Done, Outcome, Request
from ..keeping.states import State
from ..keeping.work import in_database, in_thread
from ..messages import phone as wire
from ..messages.news import phone_told, text_of
from ..messages.phone import called_message
from .paced import Paced
from .rooms import room_of
from .ticker import ticker_of

__all__ = ["PhoneConsumer"]

LINK_ENDED: Final = 4403
MOST_WAITING: Final = 64
_LOG = logging.getLogger(__name__)
_FINGER_S: Final = 0.5  # a page shows another's finger for longer


class PhoneConsumer(Paced):
    """Speaks the messages of `messages.phone`."""

    reads = wire.FROM_PHONE
    ended = LINK_ENDED

    async def connect(self) -> None:
        self.channel_name = uuid4().hex
        self.view = "phone"
        self.told: list[dict] | None = None
        self.called, self.asks_call = "", True
        self.finger, self.finger_until = ("", ""), 0.0
        self.begin()
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
        self.show_id = self.held.show_id
        self.started = True
        self.ticker = ticker_of(self.show_id)
        self.room = room_of(self.show_id, partial(self.ticker.heard, None))
        self.room.come(self)
        self.room.people_moved()

    def _outcome(self, edit_id: UUID, outcome: Outcome | Exception) -> None:
        if not isinstance(outcome, Done):
            self.told = None  # told anew: it goes on from what stands now
        super()._outcome(edit_id, outcome)

    async def _answer(self, message: wire.FromPhone) -> None:
        match message:
            case wire.PhoneHello():
                self.told, self.called, self.asks_call = None, "", True
                self.tells()
            case wire.PhonePing():
                await self.say({"type": "pong"})
            case wire.PhoneKept():
                await self.ticker.behind(self.user_id)
                kept = await in_database(kept_of, self.show_id, message.ids, again=True)
                await self.say({"type": "kept", "ids": [str(one) for one in kept]})
            case wire.PhoneCall():
                await in_database(call, self.held.phone_id, message.id, message.mix, message.text)
                self.room.calls_moved()
            case wire.PhoneDo():
                mix, of = message.ask.mix, getattr(message.ask, "of", core.EVERYTHING)
                self._finger(mix, of)
                self._submit(self._request(message.id, message.gesture, message))
            case wire.PhoneTurn():
                undo = message.type == "undo"
                kind = models.Change.Kind.UNDO if undo else models.Change.Kind.REDO
                self._submit(self._request(message.id, str(message.id), None, kind))

    def _finger(self, mix: str, of: str) -> None:
        """Others see where its finger is; while it stays there, that is said now and then."""
        now = time.monotonic()
        if mix not in self.held.mixes or (self.finger == (mix, of) and now < self.finger_until):
            return
        self.finger, self.finger_until = (mix, of), now + _FINGER_S
        self.room.finger(self.channel_name, mix, of, self.name)

    async def _tell_call(self) -> None:
        """What became of its last call."""
        last = await in_database(call_of, self.held.phone_id, again=True)
        text = text_of(called_message(last)) if last else ""
        if text != self.called:
            self.called = text
            await self.tell(text)

    def _request(
        self,
        edit_id: UUID,
        gesture: str,
        message: wire.PhoneDo | None,
        kind: models.Change.Kind = models.Change.Kind.EDIT,
    ) -> Request:
        assert self.phone is not None  # it came in by one
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

    async def _seen(self) -> tuple[State, tuple[str, ...]]:
        """The show and the mixes that it has of it, of one moment: where mixes get other

        numbers, a number means another's mix a moment later. Raises LinkEnded.
        """
        live = live_of(self.show_id)
        state = live.state
        if state is None:
            state = await in_database(live.now, again=True)
        while not state.revision >= self.held.revision >= live.links_at:
            self.held = await in_database(held_by, self.held.link_id, self.cookie, again=True)
            state = await in_database(live.now, again=True)
        return state, self.held.mixes

    async def _tell_news(self) -> None:
        """Its mixes, if they are others than it was told, and then what came of its edits."""
        mail = self.taken_mail()
        try:
            told, text = await in_thread(phone_told, *await self._seen())
            if told != self.told:  # of moves elsewhere it learns nothing
                self.told = told
                await self.tell(text)
        finally:  # a link that ended is told so
            for one in mail:
                await self.tell(one)
        if self.asks_call:
            self.asks_call = False
            await self._tell_call()

    # ---- from its room

    def post(self, what: str, text: str) -> None:
        """What engineers' screens are told is not for phones; of calls each has its own."""
        if what == "calls":
            self.asks_call = True
            self.woken()
        elif what.partition(" ")[0] == "finger" and what.partition(" ")[2] in self.held.mixes:
            self.mail[what] = text
            self.woken()

    def role_is(self, acting: Acting) -> None:
        """A phone has a link, and no role."""

    async def signed_out(self) -> None:
        """Its link ended."""
        await self.close(code=LINK_ENDED)

    async def gone(self) -> None:
        """The show was taken off the list."""
        await self.close(code=LINK_ENDED)


def _cookie_of(scope: Any, name: str) -> str:
    """A phone's cookie among those that came along; "": it has none."""
    headers = dict(scope["headers"])
    try:
        found = SimpleCookie(headers.get(b"cookie", b"").decode("latin-1")).get(name)
    except CookieError:
        return ""
    return found.value if found is not None and len(found.value) <= 64 else ""
