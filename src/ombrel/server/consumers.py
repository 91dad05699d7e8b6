"""One open screen: thin, asynchronous, with all work done by the door and the core."""

import asyncio
import json
import logging
import time
from collections.abc import Coroutine
from contextlib import suppress
from functools import lru_cache
from typing import Any
from uuid import UUID

from channels.generic.websocket import AsyncWebsocketConsumer
from django.db import DatabaseError
from pydantic import ValidationError

from ombrel import core
from ombrel.core import ConsoleError

from . import models, tellings, wire
from .door import Refused, Request
from .live import State, live_of
from .plans import Turn
from .stage import stage_link
from .ticker import group_of, ticker_of
from .work import in_database, in_thread

__all__ = ["ShowConsumer"]

_LOG = logging.getLogger(__name__)
_CATCH_UP = 500  # more revisions behind than this: a snapshot is smaller
METER_S = 0.15
NOT_SIGNED_IN, NO_SUCH_SHOW = 4401, 4404


class ShowConsumer(AsyncWebsocketConsumer):
    """Speaks the messages of `wire`; an unknown one is answered as an error."""

    async def connect(self) -> None:
        self.user = self.scope["user"]
        self.show_id: UUID = self.scope["url_route"]["kwargs"]["show_id"]
        self.table = False
        self.why: wire.WatchedCell | None = None
        self.check: int | None = None
        self.metered_at = 0.0
        self.work: set[asyncio.Task] = set()
        await self.accept()
        if not self.user.is_authenticated:
            await self.close(code=NOT_SIGNED_IN)
        elif not await in_database(_exists, self.show_id, again=True):
            await self.close(code=NO_SUCH_SHOW)
        else:
            await self.channel_layer.group_add(group_of(self.show_id), self.channel_name)

    async def disconnect(self, code: int) -> None:
        stage_link().enough(self._measured)
        await self.channel_layer.group_discard(group_of(self.show_id), self.channel_name)

    async def receive(self, text_data: str | None = None, bytes_data: bytes | None = None) -> None:
        try:
            message = wire.FROM_SCREEN.validate_json(text_data or "")
        except ValidationError as error:
            first = error.errors()[0]
            place = ".".join(str(part) for part in first["loc"])
            await self._refuse(_id_in(text_data), "bad_message", f"{place}: {first['msg']}")
            return
        try:
            match message:
                case wire.Hello():
                    await self._hello(message)
                case wire.Watch():
                    await self._watch(message)
                case wire.Do():
                    self._later(self._do(message))
                case wire.Turn():
                    self._later(self._turn(message))
                case wire.Try():
                    await self._try(message)
                case wire.FeedLine():
                    await self._feed(message)
                case wire.SwapCables():
                    await self._swap_cables(message)
                case wire.StraightCables():
                    stage_link().straight(self.show_id)
        except ConsoleError as error:
            await self.say(tellings.refused_message(getattr(message, "id", None), error))
        except DatabaseError:
            await self.say({"type": "trouble", "message": "The show's store does not answer."})
            await self.close(code=1013)  # try again later: the page says hello again by itself

    def _later(self, work: Coroutine[Any, Any, None]) -> None:
        """Edits wait for their tick without holding up what comes behind them."""
        task = asyncio.create_task(work)
        self.work.add(task)
        task.add_done_callback(self.work.discard)

    async def say(self, message: dict) -> None:
        # who has gone meanwhile hears of it when they come back
        with suppress(OSError):
            await self.send(text_data=json.dumps(message, allow_nan=False, separators=(",", ":")))

    async def _refuse(self, message_id: UUID | str | None, code: str, message: str) -> None:
        shown = str(message_id) if message_id else None
        await self.say({"type": "refused", "id": shown, "code": code, "message": message})

    async def _now(self) -> State:
        return await in_database(live_of(self.show_id).now, again=True)

    async def _hello(self, message: wire.Hello) -> None:
        state = await self._now()
        since = message.since
        if since is not None and 0 <= state.revision - since <= _CATCH_UP:
            values = await in_database(
                _values_after, self.show_id, since, state.revision, again=True
            )
            await self.say(
                {"type": "moved", "before": since, "revision": state.revision, "values": values}
            )
        else:
            await self.say(await in_thread(tellings.snapshot_message, state))
        await self.say(await in_thread(_noticed, state))

    async def _watch(self, message: wire.Watch) -> None:
        began = message.table and not self.table
        self.table, self.why, self.check = message.table, message.why, message.check
        if self.check is None:
            stage_link().enough(self._measured)
        else:
            await stage_link().want(self._measured)
        state = await self._now()
        if began:
            await self.say(await in_thread(tellings.table_message, state))
        if self.why:
            source, listener = self.why.source, self.why.listener
            await self.say(await in_thread(tellings.why_message, state, source, listener))

    async def _do(self, message: wire.Do) -> None:
        await self._submit(
            Request(
                edit_id=message.id,
                author_id=self.user.pk,
                gesture=message.gesture,
                plan=message.ask.plan,
            )
        )

    async def _turn(self, message: wire.Turn) -> None:
        undo = message.type == "undo"
        await self._submit(
            Request(
                edit_id=message.id,
                author_id=self.user.pk,
                gesture=str(message.id),
                kind=models.Change.Kind.UNDO if undo else models.Change.Kind.REDO,
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

    async def _try(self, message: wire.Try) -> None:
        state = await self._now()
        turn = Turn(self.show_id, self.user.pk, state.show, state.flow)
        await self.say(await in_thread(_tried, turn, message))

    # ---- the stage

    def _measured(self, levels_dbu: dict[str, float]) -> None:
        """Levels from the stage: told on at most every METER_S, by the show as it stands."""
        now, state = time.monotonic(), live_of(self.show_id).state
        if self.check is None or state is None or now - self.metered_at < METER_S:
            return
        self.metered_at = now
        fed = frozenset(stage_link().fed)
        self._later(self.say(tellings.meters_message(state, self.check, levels_dbu, fed)))

    async def _feed(self, message: wire.FeedLine) -> None:
        show = (await self._now()).show
        dbu = show.number(f"line/{message.line}/level_dbu")
        sockets = core.sockets_of_line(show, message.line)
        plugs = stage_link().plugs(self.show_id, message.line, sockets)
        stage_link().feed(message.line, plugs, message.signal, dbu)

    async def _swap_cables(self, message: wire.SwapCables) -> None:
        show = (await self._now()).show
        one, other = (
            stage_link().plugs(self.show_id, line, core.sockets_of_line(show, line))
            for line in message.lines
        )
        for here, there in zip(one, other, strict=False):
            stage_link().swap(here, there)

    # ---- from the channel layer

    async def show_moved(self, event: dict) -> None:
        frame = event["frame"]
        await self.say(
            {
                "type": "moved",
                "before": frame["before"],
                "revision": frame["revision"],
                "values": frame["values"],
            }
        )
        state = live_of(self.show_id).state
        if state is None or state.revision < frame["revision"]:  # another process moved it on
            state = await self._now()
        for message in await in_thread(_news, state, _Frame(frame), self.table, self.why):
            await self.say(message)

    async def show_trouble(self, event: dict) -> None:
        await self.say({"type": "trouble", "message": event["message"]})


class _Frame:
    """A frame of the channel layer, as a key: all screens share the messages made for it."""

    def __init__(self, frame: dict) -> None:
        self.cells = tuple((row, column) for row, column in frame["cells"])
        self.layout: bool = frame["layout"]
        self.noticed: bool = frame["noticed"]
        self.revision: int = frame["revision"]

    def __hash__(self) -> int:
        return hash(self.revision)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Frame) and (self.revision, self.cells, self.layout) == (
            other.revision,
            other.cells,
            other.layout,
        )


def _news(
    state: State, frame: _Frame, table: bool, why: wire.WatchedCell | None
) -> list[dict[str, Any]]:
    """What a screen is told after a move, in a thread: no core work runs in the event loop."""
    news = []
    if frame.noticed:
        news.append(_noticed(state))
    if table and frame.layout:
        news.append(_table(state))
    elif table and frame.cells:
        news.append(_cells(state, frame))
    if why:
        news.append(_why(state, why.source, why.listener))
    return news


@lru_cache(maxsize=8)
def _table(state: State) -> dict[str, Any]:
    return tellings.table_message(state)


@lru_cache(maxsize=8)
def _cells(state: State, frame: _Frame) -> dict[str, Any]:
    return tellings.cells_message(state, frame.cells)


@lru_cache(maxsize=64)
def _why(state: State, source: str, listener: str) -> dict[str, Any]:
    return tellings.why_message(state, source, listener)


def _tried(turn: Turn, message: wire.Try) -> dict[str, Any]:
    shown = core.preview(turn.show, turn.flow, message.ask.plan(turn).moves)
    return tellings.preview_message(message.id, shown)


@lru_cache(maxsize=8)
def _noticed(state: State) -> dict[str, Any]:
    """Found once for a state, however many screens are told (a State is compared by identity)."""
    return tellings.noticed_message(state)


def _exists(show_id: UUID) -> bool:
    return models.Show.objects.filter(pk=show_id).exists()


def _values_after(show_id: UUID, since: int, until: int) -> dict[str, object]:
    """The newest values of all that changed in (since, until]."""
    values: dict[str, object] = {}
    entries = models.Change.objects.filter(
        show_id=show_id, revision__gt=since, revision__lte=until
    ).order_by("revision")
    for new in entries.values_list("new", flat=True):
        values.update(new)
    return values


def _id_in(text: str | None) -> str | None:
    """The id of a message that could not be read, so that its sender learns what became of it."""
    try:
        found = json.loads(text or "")
        return str(UUID(found["id"]))
    except (ValueError, KeyError, TypeError, AttributeError):
        return None
