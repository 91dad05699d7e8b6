"""One open page of a volunteer: told of what they ride, and moving that alone."""

from collections.abc import Hashable
from functools import partial
from typing import Final
from uuid import UUID, uuid4

from django.db import DatabaseError

from ombrel.core import ConsoleError, Given

from ..keeping.door import kept_of
from ..keeping.live import live_of
from ..keeping.passing import Ended
from ..keeping.people import Acting, rider_in
from ..keeping.request import Request
from ..keeping.states import State
from ..keeping.work import in_database, in_thread
from ..messages import rides as wire
from ..messages.news import rides_told
from .paced import Paced
from .rooms import room_of
from .ticker import ticker_of

__all__ = ["RideConsumer"]

NOT_SIGNED_IN: Final = 4401
NOTHING_GIVEN: Final = 4403  # no volunteer of this show, or no more


class RideConsumer(Paced):
    """Speaks the messages of `messages.rides`."""

    reads = wire.FROM_RIDER
    ended = NOTHING_GIVEN

    async def connect(self) -> None:
        self.user = self.scope["user"]
        self.show_id: UUID = self.scope["url_route"]["kwargs"]["show_id"]
        self.channel_name = uuid4().hex
        self.user_id, self.name, self.view = self.user.pk, self.user.get_username(), "ride"
        session = self.scope.get("session")
        self.session = (session and session.session_key) or ""
        self.page = f"{self.user_id}:{self.channel_name}"
        self.told: dict | None = None
        self.stale = False
        self.begin()
        await self.accept()
        if not self.user.is_authenticated:
            await self.close(code=NOT_SIGNED_IN)
            return
        try:
            self.rider = await in_database(rider_in, self.show_id, self.user_id, again=True)
        except ConsoleError:
            await self.close(code=NOTHING_GIVEN)
            return
        except DatabaseError:
            await self.close(code=1013)
            return
        self.started = True
        self.ticker = ticker_of(self.show_id)
        self.room = room_of(self.show_id, partial(self.ticker.heard, None))
        self.room.come(self)
        self.room.people_moved()

    async def _leave(self) -> None:
        if self.started and not self.left:
            self._ended(Ended(page=self.page, connection=self.channel_name))
        await super()._leave()

    async def _answer(self, message: wire.FromRider) -> None:
        match message:
            case wire.RideHello():
                if message.page:
                    self.page = f"{self.user_id}:{message.page}"
                    self._ended(Ended(page=self.page))
                self.told = None
                self.tells()
            case wire.RidePing():
                await self.say({"type": "pong"})
            case wire.RideLetGo():
                self._ended(Ended(page=self.page, gesture=message.gesture))
            case wire.RideKept():
                await self.ticker.behind(self.user_id)
                kept = await in_database(kept_of, self.show_id, message.ids, again=True)
                await self.say({"type": "kept", "ids": [str(one) for one in kept]})
            case wire.RideDo():
                self._submit(self._request(message))

    def _ended(self, ended: Ended) -> None:
        if self.ticker.may_end(ended):
            self.ticker.heard(self.user_id, ended)

    def _request(self, message: wire.RideDo) -> Request:
        alike: Hashable = message.ask.joins()
        return Request(
            edit_id=message.id,
            author_id=self.user_id,
            gesture=message.gesture,
            plan=partial(message.ask.plan, given=self.rider.given),
            author=self.name,
            seen=message.seen,
            page=self.page,
            connection=self.channel_name,
            joins=None if alike is None else (self.page, message.gesture, alike),
        )

    async def _tell_news(self) -> None:
        """What they ride, if it is something else than they were told, and what came of moves."""
        mail = self.taken_mail()
        try:
            told, text = await in_thread(rides_told, *await self._seen())
            if told != self.told:
                self.told = told
                await self.tell(text)
        finally:
            for one in mail:
                await self.tell(one)

    async def _seen(self) -> tuple[State, tuple[Given, ...]]:
        """The show and what is ridden of it, of one moment: where strips get other numbers, a

        number means another's fader a moment later. Raises LinkEnded.
        """
        live = live_of(self.show_id)
        state = live.state
        if state is None:
            state = await in_database(live.now, again=True)
        while self.stale or not state.revision >= self.rider.revision >= live.links_at:
            self.stale = False
            self.rider = await in_database(rider_in, self.show_id, self.user_id, again=True)
            state = await in_database(live.now, again=True)
        return state, self.rider.given

    # ---- from its room

    def post(self, what: str, text: str) -> None:
        """What engineers' screens are told is not for volunteers."""

    def role_is(self, acting: Acting) -> None:
        """What they ride is looked up before anything else is told, where it is something else."""
        if acting.role != "volunteer" or acting.given != self.rider.given:
            self.stale = True
            self.woken()

    async def signed_out(self) -> None:
        await self.close(code=NOT_SIGNED_IN)

    async def gone(self) -> None:
        """The show was taken off the list, or is shared with them no more."""
        await self.close(code=NOTHING_GIVEN)
