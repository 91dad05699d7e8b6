"""Moves that arrive within one short tick become one transaction and one broadcast."""

import asyncio
import logging
import time
from collections.abc import Iterable
from uuid import UUID

from channels.layers import get_channel_layer
from django.db import InterfaceError, OperationalError

from ombrel.core import Fade, parameter_at

from .door import Done, Frame, Refused, Request, commit
from .live import live_of
from .work import in_database, in_thread

__all__ = ["Ticker", "group_of", "fade_to_layer", "ticker_of"]

TICK_S = 0.025
RETRY_S = 0.4
_LOG = logging.getLogger(__name__)


def group_of(show_id: UUID) -> str:
    """The channel-layer group of all screens of a show."""
    return f"show.{show_id}"


Waiting = tuple[Request, asyncio.Future[Done | Refused]]


class Ticker:
    """Gathers one show's edits and takes them through the door, a tick at a time, in order."""

    def __init__(self, show_id: UUID) -> None:
        self.show_id = show_id
        self._waiting: list[Waiting] = []
        self._gone: list[str] = []
        self._task: asyncio.Task[None] | None = None
        self._in_trouble = False

    async def submit(self, request: Request) -> Done | Refused:
        """Make one edit; returns once it is kept, or refused."""
        future: asyncio.Future[Done | Refused] = asyncio.get_running_loop().create_future()
        self._waiting.append((request, future))
        self._go()
        return await future

    def let_go(self, gestures: Iterable[str]) -> None:
        """Hands that end: behind all that they moved before."""
        self._gone += gestures
        if self._gone:
            self._go()

    def _go(self) -> None:
        if self._task is None or self._task.done():
            self._task = asyncio.create_task(self._run())

    async def _run(self) -> None:
        while self._waiting or self._gone:
            await asyncio.sleep(TICK_S)
            batch, self._waiting = self._waiting, []
            gone, self._gone = self._gone, []
            if batch:
                await self._taken(batch)
            if gone:
                await in_thread(live_of(self.show_id).let_go, gone)

    async def _taken(self, batch: list[Waiting]) -> None:
        """Take edits through the door. What the door cannot keep together it is given singly:

        one request's fault stays its own.
        """
        try:
            outcomes, frame = await self._kept([request for request, _ in batch])
        except Exception as error:  # a bug, a value that cannot be stored, a show that is gone
            if len(batch) > 1:
                for one in batch:
                    await self._taken([one])
                return
            _LOG.exception("an edit failed")
            _, future = batch[0]
            if not future.done():
                future.set_exception(error)
            return
        if frame.revision != frame.before:
            await self._tell({"type": "show.moved", "frame": frame_to_layer(frame)})
        for (_, future), outcome in zip(batch, outcomes, strict=True):
            if not future.done():
                future.set_result(outcome)

    async def _kept(self, requests: list[Request]) -> tuple[list[Done | Refused], Frame]:
        """Commit, however often the database has to be asked: no move is lost."""
        started = time.monotonic()
        while True:
            try:
                outcomes, frame, _ = await in_database(commit, self.show_id, requests)
            except (OperationalError, InterfaceError):
                if time.monotonic() - started > 120:
                    raise
                if not self._in_trouble:
                    _LOG.warning("the database does not answer; edits wait")
                    self._in_trouble = True
                    await self._trouble("The show's store does not answer. Your moves wait.")
                await asyncio.sleep(RETRY_S)
                continue
            if self._in_trouble:
                self._in_trouble = False
                await self._trouble("")
            return outcomes, frame

    async def _trouble(self, message: str) -> None:
        await self._tell({"type": "show.trouble", "message": message})

    async def _tell(self, event: dict) -> None:
        layer = get_channel_layer()
        assert layer is not None  # settings always configure one
        await layer.group_send(group_of(self.show_id), event)


def frame_to_layer(frame: Frame) -> dict:
    """A frame as the channel layer carries it (plain lists and dicts)."""
    return {
        "before": frame.before,
        "revision": frame.revision,
        "values": frame.values,
        "cells": [list(cell) for cell in frame.cells],
        "layout": frame.layout,
        "noticed": frame.noticed,
        "held": frame.held,
        "fades": [fade_to_layer(fade) for fade in frame.fades],
    }


def fade_to_layer(fade: Fade, since_s: float = 0.0) -> dict:
    """A plan as points, each (ms from now, what it is then): no clock is shared with a screen.

    `since_s`: how long ago it began.
    """
    wire = parameter_at(fade.address).kind.to_wire
    points = [(round((s - since_s) * 1000), wire(round(value, 2))) for s, value in fade.points()]
    return {"address": fade.address, "points": points}


_TICKERS: dict[tuple[int, UUID], Ticker] = {}


def ticker_of(show_id: UUID) -> Ticker:
    """The one ticker of a show in this process (for each event loop, since tests have several)."""
    key = (id(asyncio.get_running_loop()), show_id)
    if key not in _TICKERS:
        _TICKERS[key] = Ticker(show_id)
    return _TICKERS[key]
