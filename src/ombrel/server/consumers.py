"""One open screen: thin, asynchronous, with all work done by the door and the core."""

import asyncio
import json
import logging
import time
from collections.abc import Coroutine
from functools import partial
from typing import Any
from uuid import UUID

from channels.generic.websocket import AsyncWebsocketConsumer
from django.db import DatabaseError
from pydantic import ValidationError

from ombrel import core
from ombrel.core import ConsoleError

from . import from_screen, holding, models, tellings
from .asking import moves_from_wire
from .asks_of_scenes import SetInScenes
from .door import Refused, Request
from .explaining import Explainer
from .hearing import Hearing
from .live import State, live_of
from .log import show_at, values_after
from .news import (
    Told,
    cells_text,
    drawn_text,
    fading_text,
    loudest_text,
    ruled_again_text,
    ruled_text,
    snapshot_text,
    table_text,
    text_of,
)
from .plans import Turn
from .presence import Here
from .previews import tried
from .stage import stage_link
from .ticker import fade_to_layer, group_of, ticker_of
from .work import in_database, in_thread

__all__ = ["ShowConsumer"]

_LOG = logging.getLogger(__name__)
_LARGE = 500  # values in a frame: more are put into text in a thread
_CATCH_UP = 500  # more revisions behind than this: a snapshot is smaller
METER_S = 0.15
NOT_SIGNED_IN, NO_SUCH_SHOW = 4401, 4404


class ShowConsumer(AsyncWebsocketConsumer):
    """Speaks the messages of `from_screen`; an unknown one is answered as an error."""

    started = left = False

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        try:
            await super().__call__(scope, receive, send)
        finally:  # however a screen ends, it leaves the show, the stage and its own work
            await self._leave()

    async def connect(self) -> None:
        self.user = self.scope["user"]
        self.show_id: UUID = self.scope["url_route"]["kwargs"]["show_id"]
        self.here = Here(self.show_id, self.channel_name, self.user.get_username())
        self.table = False
        self.check: int | None = None
        self.levels = False
        self.page: holding.Page = (self.show_id, self.user.pk, self.channel_name)
        self.metered_at = 0.0
        self.metering: asyncio.Task | None = None
        self.meters_failed = False
        self.work: set[asyncio.Task] = set()
        self.explainer = Explainer(
            self.show_id, self.tell, partial(self.close, code=1013), self.user.get_username()
        )
        self.hearing = Hearing(self.tell)
        await self.accept()
        if not self.user.is_authenticated:
            await self.close(code=NOT_SIGNED_IN)
        elif not await in_database(_exists, self.show_id, again=True):
            await self.close(code=NO_SUCH_SHOW)
        else:
            self.started = True
            await self.channel_layer.group_add(group_of(self.show_id), self.channel_name)
            await self.here.come()

    async def disconnect(self, code: int) -> None:
        await self._leave()

    async def _leave(self) -> None:
        """Take this screen out of everything; once, however often it is called."""
        if self.left or not self.started:
            return
        self.left = True
        stage_link().enough(self._measured)
        ticker_of(self.show_id).let_go(holding.lost(self.page, self.channel_name))
        # the work that found the screen gone must live to leave for it
        if self.metering is not None and self.metering is not asyncio.current_task():
            self.metering.cancel()
        self.explainer.end()
        self.hearing.end()
        await self.channel_layer.group_discard(group_of(self.show_id), self.channel_name)
        await self.here.go()

    async def receive(self, text_data: str | None = None, bytes_data: bytes | None = None) -> None:
        if not self.started:
            return  # a stranger, or no such show: closed already, and nothing is answered
        try:
            message = from_screen.FROM_SCREEN.validate_json(text_data or "")
        except ValidationError as error:
            first = error.errors()[0]
            place = ".".join(str(part) for part in first["loc"])
            await self._refuse(_id_in(text_data), "bad_message", f"{place}: {first['msg']}")
            return
        if isinstance(message, from_screen.Try) and self.work:
            self._later(self._behind(set(self.work), message))
        else:
            await self._answer(message)

    async def _behind(self, before: set[asyncio.Task], message: from_screen.Try) -> None:
        """Edits that wait for their tick count in what this hand is shown behind them."""
        await asyncio.wait(before)
        if not self.left:
            await self._answer(message)

    async def _answer(self, message: from_screen.FromScreen) -> None:
        try:
            match message:
                case from_screen.Hello():
                    await self._hello(message)
                case from_screen.Watch():
                    await self._watch(message)
                case from_screen.Ping():
                    await self.say({"type": "pong"})
                    await self.here.still()
                case from_screen.Do():
                    self._hold(message)
                    self._later(self._do(message))
                case from_screen.LetGo():
                    gone = holding.let_go(self.page, message.gesture)
                    ticker_of(self.show_id).let_go(gone)
                case from_screen.Turn():
                    self._later(self._turn(message))
                case from_screen.Try():
                    await self._try(message)
                case from_screen.Draw():
                    await self._draw(message)
                case from_screen.FeedLine():
                    await self._feed(message)
                case from_screen.SwapCables():
                    await self._swap_cables(message)
                case from_screen.StraightCables():
                    stage_link().straight(self.show_id)
        except ConsoleError as error:
            await self.say(tellings.refused_message(getattr(message, "id", None), error))
        except DatabaseError:
            await self.say({"type": "trouble", "message": "The show's store does not answer."})
            await self.close(code=1013)  # try again later: the page says hello again by itself
        except Exception:  # a bug in one answer is no reason to end the screen that asked
            _LOG.exception("a message was not answered: %s", message.type)
            await self.say(tellings.refused_message(getattr(message, "id", None), core.Broken()))

    def _later(self, work: Coroutine[Any, Any, None]) -> None:
        """Edits wait for their tick without holding up what comes behind them."""
        task = asyncio.create_task(work)
        self.work.add(task)
        task.add_done_callback(self.work.discard)

    async def say(self, message: dict) -> None:
        await self.tell(text_of(message))

    async def tell(self, text: str) -> None:
        """Send a text to this screen. Who has gone meanwhile hears of it when they come back."""
        if self.left:
            return
        try:
            await self.send(text_data=text)
        except (OSError, RuntimeError):  # closed: by the network, or by a close that came first
            await self._leave()

    async def _refuse(self, message_id: UUID | str | None, code: str, message: str) -> None:
        shown = str(message_id) if message_id else None
        await self.say({"type": "refused", "id": shown, "code": code, "message": message})

    async def _now(self) -> State:
        return await in_database(live_of(self.show_id).now, again=True)

    async def _hello(self, message: from_screen.Hello) -> None:
        if message.page:
            self.page = (self.show_id, self.user.pk, message.page)
            ticker_of(self.show_id).let_go(holding.anew(self.page))
        state = await self._now()
        since = message.since
        values = None
        if since is not None and 0 <= state.revision - since <= _CATCH_UP:
            values = await in_database(values_after, self.show_id, since, state, again=True)
        if values is not None:
            await self.say(
                {"type": "moved", "before": since, "revision": state.revision, "values": values}
            )
        else:
            await self.tell(await in_thread(snapshot_text, state))
        await self.tell(await in_thread(ruled_text, state))
        now_s = time.monotonic()
        fades = [
            fade_to_layer(fade, now_s - fade.begun_s)
            for fade in live_of(self.show_id).fading.values()
            if fade.law != core.CLOSING and not fade.ended(now_s)
        ]
        if fades:
            await self.say({"type": "fading", "fades": fades})
        self.explainer.owe("noticed")

    async def _watch(self, message: from_screen.Watch) -> None:
        began = message.table and not self.table
        self.table, self.check, self.meters_failed = message.table, message.check, False
        self.levels = message.levels
        if message.held != self.explainer.held:
            self.hearing.end()
        self.explainer.watch(message)
        if self.check is None and not self.levels:
            stage_link().enough(self._measured)
        else:
            await stage_link().want(self._measured)
        await self.here.moved(message.view)
        if began:
            await self.tell(await in_thread(table_text, await self._now()))
        if why := message.why:
            state = await self._now()
            try:
                await self.tell(await in_thread(loudest_text, state, why.source, why.listener))
            except ConsoleError:  # no such cell: refused in answer to this message, and forgotten
                self.explainer.why = None
                raise
            self.explainer.owe("why")

    def _hold(self, message: from_screen.Do) -> None:
        """Hands that this page holds end with it; of too many the oldest ends now."""
        by_hand = getattr(message.ask, "by_hand", None)
        if by_hand is None or not by_hand.held:
            return
        ended = holding.hold(self.page, message.gesture, self.channel_name)
        ticker_of(self.show_id).let_go(ended)

    async def _do(self, message: from_screen.Do) -> None:
        if isinstance(message.ask, SetInScenes):
            self.hearing.end()  # it is made: nobody looks at it beforehand any more
        await self._submit(
            Request(
                edit_id=message.id,
                author_id=self.user.pk,
                gesture=message.gesture,
                plan=message.ask.plan,
                author=self.user.get_username(),
                seen=message.seen,
            )
        )

    async def _turn(self, message: from_screen.Turn) -> None:
        undo = message.type == "undo"
        await self._submit(
            Request(
                edit_id=message.id,
                author_id=self.user.pk,
                gesture=str(message.id),
                kind=models.Change.Kind.UNDO if undo else models.Change.Kind.REDO,
                author=self.user.get_username(),
            )
        )

    async def _submit(self, request: Request) -> None:
        try:
            outcome = await ticker_of(self.show_id).submit(request)
        except Exception:
            _LOG.exception("an edit failed")
            await self.say(tellings.refused_message(request.edit_id, core.Broken()))
            return
        if isinstance(outcome, Refused):
            await self.say(tellings.refused_message(request.edit_id, outcome.error))
        else:
            await self.say(
                {
                    "type": "done",
                    "id": str(request.edit_id),
                    "revision": outcome.revision,
                    "says": outcome.says,
                }
            )

    async def _draw(self, message: from_screen.Draw) -> None:
        state = live_of(self.show_id).state or await self._now()
        moves = moves_from_wire(message.moves)
        await self.tell(await in_thread(drawn_text, state, message.strip, moves))

    async def _try(self, message: from_screen.Try) -> None:
        state = await self._now()
        at = partial(show_at, self.show_id, state.show, state.revision)
        turn = Turn(
            self.show_id, self.user.pk, state.show, state.flow, at, self.user.get_username()
        )
        reads_log = getattr(message.ask, "reads_log", False)
        try_it = in_database if reads_log else in_thread
        shown, many = await try_it(tried, turn, message)
        await self.say(shown)
        if many is not None and isinstance(message.ask, SetInScenes) and not self.left:
            self.hearing.begin(message.id, turn, message.ask, many)

    # ---- the stage

    def _measured(self, levels_dbu: dict[str, float]) -> None:
        """Levels from the stage: told on at most every METER_S, by the show as it stands.

        A screen that does not take what it is sent is sent no more until it does.
        """
        now, state = time.monotonic(), live_of(self.show_id).state
        wanted = self.levels or self.check is not None
        if not wanted or state is None or now - self.metered_at < METER_S:
            return
        if self.metering is not None and not self.metering.done():
            return
        self.metered_at = now
        fed = frozenset(stage_link().fed)
        self.metering = asyncio.create_task(self._meters(state, self.check, levels_dbu, fed))

    async def _meters(
        self, state: State, line: int | None, levels_dbu: dict[str, float], fed: frozenset[int]
    ) -> None:
        found: dict | None
        try:
            if line is None:
                found = await in_thread(tellings.levels_message, state, levels_dbu)
            else:
                found = await in_thread(tellings.meters_message, state, line, levels_dbu, fed)
        except Exception:  # told once: meters come seven times a second
            _LOG.exception("meters failed")
            found = None if self.meters_failed else tellings.refused_message(None, core.Broken())
            self.meters_failed = True
        if found is not None:
            await self.say(found)

    async def _feed(self, message: from_screen.FeedLine) -> None:
        show = (await self._now()).show
        dbu = show.number(f"line/{message.line}/level_dbu")
        sockets = core.sockets_of_line(show, message.line)
        plugs = stage_link().plugs(self.show_id, message.line, sockets)
        stage_link().feed(message.line, plugs, message.signal, dbu)

    async def _swap_cables(self, message: from_screen.SwapCables) -> None:
        show = (await self._now()).show
        one, other = (
            stage_link().plugs(self.show_id, line, core.sockets_of_line(show, line))
            for line in message.lines
        )
        for here, there in zip(one, other, strict=False):
            stage_link().swap(here, there)

    # ---- from the channel layer

    async def show_moved(self, event: dict) -> None:
        told = Told(event["frame"])
        if len(told.values) > _LARGE:
            await self.tell(await in_thread(getattr, told, "text"))
        else:
            await self.tell(told.text)
        if told.fades:
            await self.tell(fading_text(told))
        state = live_of(self.show_id).state
        if state is None or state.revision < told.revision:  # another process moved it on
            state = await self._now()
        if told.may_rule(in_place=state.show["show/solo"] == "in_place"):
            ruled = await in_thread(ruled_again_text, state, told)
            if ruled:
                await self.tell(ruled)
        if self.table and told.layout:
            await self.tell(await in_thread(table_text, state))
        elif self.table and told.cells:
            await self.tell(await in_thread(cells_text, state, told))
        if why := self.explainer.why:
            column = state.flow.layout.column(why.listener)
            if told.noticed or told.layout or any(at == column for _, at in told.cells):
                await self.tell(await in_thread(loudest_text, state, why.source, why.listener))
        self.explainer.moved(told, state)

    async def show_gone(self, event: dict) -> None:
        await self.close(code=NO_SUCH_SHOW)

    async def show_here(self, event: dict) -> None:
        await self.say(self.here.heard(event))

    async def show_who(self, event: dict) -> None:
        await self.here.answer(event["screen"])

    async def show_trouble(self, event: dict) -> None:
        await self.say({"type": "trouble", "message": event["message"]})


def _exists(show_id: UUID) -> bool:
    return models.Show.objects.filter(pk=show_id).exists()


def _id_in(text: str | None) -> str | None:
    """The id of a message that could not be read, so that its sender learns what became of it."""
    try:
        found = json.loads(text or "")
        return str(UUID(found["id"]))
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError):
        return None
