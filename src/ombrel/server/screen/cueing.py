"""Cues as they come: each show's in one queue in order, those that may, once, and never late."""

import asyncio
import logging
import time
from collections import OrderedDict, defaultdict
from collections.abc import Callable
from functools import partial
from typing import Final
from uuid import UUID, uuid4

from django.db import DatabaseError

from ombrel.core import Gate
from ombrel.formats.osc import write_message

from ..keeping.cues import (
    BEAT_S,
    Came,
    Way,
    do_cue,
    in_trouble,
    still_heard,
    tell_dropped,
    told_of,
    ways_on,
)
from ..keeping.live import live_of
from ..keeping.people import Acting
from ..keeping.work import in_database
from ..links.cues import CuePort, Heard, open_port
from ..messages.cues import standing
from ..models import CueTold
from .rooms import room_of
from .ticker import ticker_of

__all__ = ["Cueing", "cueing"]

_LOG = logging.getLogger(__name__)
LOOK_S: Final = 1.0  # so often it is looked which ways are on
_LATE_S: Final = 2.0  # what waited longer is not done any more
_AHEAD_S: Final = 0.05  # a time tag farther ahead is for later: nothing is done later
_MOST_WAITING: Final = 200
_MOST_LINES: Final = 8  # of what is dropped within a second
_MOST_HEARING: Final = 16  # senders who are told what is now and next
_HEARING_S: Final = 3_600.0
Answer = Callable[[bytes], None]


class _Desk:
    """The cues of one show in this process. It is a screen of the show's room, which nobody sees:

    so it is told of every move, by whomever.
    """

    name, view, session = "", "", ""
    phone: tuple[UUID, str] | None = None

    def __init__(self, show_id: UUID, once_s: float) -> None:
        self.show_id, self.channel_name = show_id, f"cues:{uuid4().hex}"
        self.user_id: int | None = None
        self.gate = Gate(once_s)
        self.ways: dict[str, tuple[Way, CuePort]] = {}
        self._queue: asyncio.Queue[tuple[Came, Answer | None]] = asyncio.Queue(_MOST_WAITING)
        self._dropped: dict[tuple[str, str, str], int] = defaultdict(int)
        self._flush: asyncio.Task[None] | None = None
        self._hearing: OrderedDict[tuple[str, str], tuple[Answer, float]] = OrderedDict()
        self._stands: tuple[str, str] | None = None
        self.room = room_of(show_id, partial(ticker_of(show_id).heard, None))
        self.room.come(self)
        self._task = asyncio.create_task(self._run())

    def end(self) -> None:
        for _, port in self.ways.values():
            port.close()
        self._task.cancel()
        if self._flush is not None:
            self._flush.cancel()
        self.room.go(self)

    # ---- from a port

    def told(self, way: Way) -> "_ByWay":
        return _ByWay(self, way)

    def heard(self, way: Way, sender: str, heard: Heard, answer: Answer | None) -> None:
        """A message of somebody who may send."""
        came = Came(way.kind, sender, heard.text, heard.arguments)
        verdict = self.gate.judge(sender, heard.text, came.clock_s)
        if verdict == "flood":
            self.drop(way, sender, "More than 20 a second: dropped.")
            return
        if verdict == "once":
            self.drop(way, sender, f"The same again within {way.once_s * 1000:.0f} ms: once.")
            return
        if heard.at_s is not None and heard.at_s > came.at_s + _AHEAD_S:
            self.drop(way, sender, "Meant for later: cues are done when they come.")
            return
        hears = answer if way.answers else None
        if hears is not None:
            self._hears(way, sender, hears)
        try:
            self._queue.put_nowait((came, hears))
        except asyncio.QueueFull:
            self.drop(way, sender, "Too many wait: dropped.")

    def drop(self, way: Way, sender: str, why: str) -> None:
        """Count something that is not taken; told as one line a second."""
        key = (way.kind, sender, why)
        if key not in self._dropped and len(self._dropped) >= _MOST_LINES:
            key = (way.kind, "others", why)  # whoever forges senders fills no list
        if key in self._dropped or len(self._dropped) < 2 * _MOST_LINES:
            self._dropped[key] += 1
        if self._flush is None or self._flush.done():
            self._flush = asyncio.create_task(self._tell_dropped())

    async def _tell_dropped(self) -> None:
        while self._dropped:
            await asyncio.sleep(1.0)
            dropped, self._dropped = self._dropped, defaultdict(int)
            try:
                for (way, sender, why), times in dropped.items():
                    await in_database(tell_dropped, self.show_id, way, sender, why, times)
            except DatabaseError:
                _LOG.warning("what was dropped could not be told")
            self.room.cues_moved()

    # ---- what is done

    async def _run(self) -> None:
        while True:
            came, answer = await self._queue.get()
            try:
                await self._done(came, answer)
            except Exception:
                _LOG.exception("a cue failed")

    async def _done(self, came: Came, answer: Answer | None) -> None:
        if time.monotonic() - came.clock_s > _LATE_S:
            await self._not_done(came, answer, "It waited too long: nothing is done late.")
            return
        try:
            told = await in_database(do_cue, self.show_id, came)
        except DatabaseError:
            await self._not_done(came, answer, "The show's store did not answer: not done.")
            return
        self._tell(came, answer, told)

    def _tell(self, came: Came, answer: Answer | None, told: CueTold) -> None:
        self.room.cues_moved()
        if answer is not None:
            done = told.what in ("done", "rehearsed")
            verb = {"done": "done", "rehearsed": "would"}.get(told.what, "refused")
            number = [told.revision] if done and told.revision else []
            answer(write_message(f"/ombrel/{verb}", came.heard, told.says, *number))

    async def _not_done(self, came: Came, answer: Answer | None, why: str) -> None:
        """Tell it once the store is back; never do it then. It may have been done all the same:

        the store's answer can be lost on its way.
        """
        words = f"{came.heard}: {why}"
        for _ in range(60):
            try:
                told = await in_database(told_of, self.show_id, came.edit_id, again=True)
                if told is not None:
                    self._tell(came, answer, told)
                    return
                await in_database(
                    tell_dropped, self.show_id, came.way, came.sender, words, 1, again=True
                )
                break
            except DatabaseError:
                await asyncio.sleep(1.0)
        self.room.cues_moved()
        if answer is not None:
            answer(write_message("/ombrel/refused", came.heard, why))

    # ---- who is told what is now and next

    def _hears(self, way: Way, sender: str, answer: Answer) -> None:
        known = (way.kind, sender)
        new = known not in self._hearing
        self._hearing[known] = (answer, time.monotonic())
        self._hearing.move_to_end(known)
        while len(self._hearing) > _MOST_HEARING:
            self._hearing.popitem(last=False)
        if new:
            self._say_standing([answer])

    def woken(self) -> None:
        """The show has moved on: who listens is told, if what is now or next did."""
        if self._hearing:
            self._say_standing(None)

    def _say_standing(self, to: list[Answer] | None) -> None:
        state = live_of(self.show_id).state
        if state is None:
            return
        stands = standing(state)
        if to is None and stands == self._stands:
            return
        self._stands = stands
        since = time.monotonic() - _HEARING_S
        for answer in to or [one for one, at in self._hearing.values() if at > since]:
            for what, scene in zip(("now", "next"), stands, strict=True):
                number, _, name = scene.partition(" ")
                answer(write_message(f"/ombrel/{what}", number, name))

    # ---- as a screen of the room

    def post(self, what: str, text: str) -> None:
        """It draws nothing."""

    def role_is(self, acting: Acting) -> None:
        """It is nobody's."""

    async def signed_out(self) -> None:
        """Nobody signs in by it."""

    async def gone(self) -> None:
        """The show was taken off the list: its ways close at the next look."""


class _ByWay:
    """What comes by one way of a show (`links.cues.Told`)."""

    def __init__(self, desk: _Desk, way: Way) -> None:
        self._desk, self._way = desk, way

    def may(self, sender: str) -> bool:
        allowed = self._way.takes(sender)
        if not allowed:
            self._desk.drop(self._way, sender, "Not among those who may send.")
        return allowed

    def heard(self, sender: str, heard: Heard, answer: Answer | None) -> None:
        self._desk.heard(self._way, sender, heard, answer)

    def damaged(self, sender: str, why: str) -> None:
        # a flood of damaged ones is no less of one
        verdict = self._desk.gate.judge(sender, "", time.monotonic())
        self._desk.drop(self._way, sender, "More than 20 a second: dropped."
                        if verdict == "flood" else why)  # fmt: skip


class Cueing:
    """All ways of this process: opened and closed as they are switched, here or elsewhere."""

    def __init__(self) -> None:
        self._desks: dict[UUID, _Desk] = {}
        self._task: asyncio.Task[None] | None = None
        self._look = asyncio.Event()

    def begin(self) -> None:
        """Listen from now on."""
        if self._task is None or self._task.done():
            self._task = asyncio.create_task(self._run())

    async def end(self) -> None:
        """Close every way."""
        if self._task is not None:
            self._task.cancel()
        for desk in self._desks.values():
            desk.end()
        self._desks.clear()

    def look(self) -> None:
        """A way was switched: do not wait to see it."""
        self._look.set()

    async def _run(self) -> None:
        beat_at = 0.0
        while True:
            try:
                await self._follow(await in_database(ways_on, again=True))
                if time.monotonic() - beat_at > BEAT_S:
                    beat_at = time.monotonic()
                    await in_database(still_heard, self._open())
            except DatabaseError:
                _LOG.debug("the database does not answer; it is asked again")
            except Exception:
                _LOG.exception("the ways of cues could not be followed")
            try:
                await asyncio.wait_for(self._look.wait(), LOOK_S)
            except TimeoutError:
                continue
            self._look.clear()
            beat_at = 0.0

    def _open(self) -> list[Way]:
        return [way for desk in self._desks.values() for way, _ in desk.ways.values()]

    async def _follow(self, wanted: list[Way]) -> None:
        for show_id, desk in list(self._desks.items()):
            for kind, (way, port) in list(desk.ways.items()):
                if way not in wanted:
                    port.close()
                    del desk.ways[kind]
            if not any(way.show_id == show_id for way in wanted):
                desk.end()
                del self._desks[show_id]
        for way in wanted:
            desk = self._desks.get(way.show_id) or _Desk(way.show_id, way.once_s)
            self._desks[way.show_id] = desk
            desk.gate.once_s = way.once_s
            if way.kind not in desk.ways:
                await self._listen(desk, way)

    async def _listen(self, desk: _Desk, way: Way) -> None:
        try:
            port = await open_port(way.kind, way.host, way.port, desk.told(way))
        except OSError as error:
            why = error.strerror or str(error)
            await in_database(in_trouble, way, f"Port {way.port} cannot be opened: {why}"[:200])
        else:
            desk.ways[way.kind] = way, port
            await in_database(still_heard, [way])
        desk.room.cues_moved()


_CUEING: dict[int, Cueing] = {}


def cueing() -> Cueing:
    """The one of this process (for each event loop, since tests have several)."""
    here = id(asyncio.get_running_loop())
    if here not in _CUEING:
        _CUEING[here] = Cueing()
    return _CUEING[here]
