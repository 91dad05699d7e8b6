"""One open screen: thin, asynchronous, with all work done by the door and the core."""

import asyncio
import logging
import time
from collections.abc import Coroutine, Hashable
from functools import partial
from typing import Any
from uuid import UUID, uuid4

from channels.generic.websocket import AsyncWebsocketConsumer
from django.db import DatabaseError

from ombrel import core
from ombrel.core import Followed

from .. import models
from ..access.needs import MESSAGES
from ..access.visits import seen_now
from ..asks.asking import moves_from_wire
from ..asks.moves import Moves
from ..asks.plans import Turn
from ..asks.scenes import SetInScenes
from ..keeping.door import kept_of
from ..keeping.ear_calls import seen_call
from ..keeping.live import live_of
from ..keeping.log import show_at
from ..keeping.passing import Ended
from ..keeping.people import Acting, role_in
from ..keeping.request import Request
from ..keeping.states import State
from ..keeping.work import in_database, in_thread
from ..links.machine import MachineStands, machine_link
from ..links.stage import stage_link
from ..messages import from_screen
from ..messages.cues import machine_text
from ..messages.edits import refused_message
from ..messages.here import levels_message, meters_message, you_text
from ..messages.news import drawn_text, loudest_text
from ..messages.previews import tried
from .cue_keys import CUE_MESSAGES, CueKeys
from .explaining import Explainer
from .finder import Finder
from .hearing import Hearing
from .line import Line
from .planner import Planner
from .rooms import room_of
from .teller import Teller
from .ticker import ticker_of

__all__ = ["Nowhere", "ShowConsumer"]

_LOG = logging.getLogger(__name__)
METER_S = 0.15
NOT_SIGNED_IN, NO_SUCH_SHOW = 4401, 4404


class ShowConsumer(Line):
    """Speaks the messages of `from_screen`; an unknown one is answered as an error."""

    reads = from_screen.FROM_SCREEN

    async def connect(self) -> None:
        self.user = self.scope["user"]
        self.show_id = self.scope["url_route"]["kwargs"]["show_id"]
        self.channel_name = uuid4().hex  # this screen, among all of them
        # asked for once: it is looked up anew each time
        self.user_id, self.name, self.view = self.user.pk, self.user.get_username(), ""
        session = self.scope.get("session")
        self.session = (session and session.session_key) or ""
        self.check: int | None = None
        self.levels = False
        self.role: core.Role | None = None
        self.page = f"{self.user_id}:{self.channel_name}"
        self.metered_at = 0.0
        self.metering: asyncio.Task | None = None
        self.meters_failed = False
        self.work: set[asyncio.Task] = set()
        await self.accept()
        if not self.user.is_authenticated:
            await self.close(code=NOT_SIGNED_IN)
            return
        self.role = await in_database(_role, self.show_id, self.session, self.user_id)
        if not core.may(self.role, "look"):
            await self.close(code=NO_SUCH_SHOW)  # as if there were none: not even its name
        else:
            self._come()

    def _come(self) -> None:
        """Join those who have the show open."""
        self.started = True
        self.ticker = ticker_of(self.show_id)
        self.room = room_of(self.show_id, partial(self.ticker.heard, None))
        end = partial(self.close, code=1013)  # try again later: the page says hello by itself
        self.explainer = Explainer(
            self.show_id, self.tell, end, self.name, lambda: self.room.shared.now
        )
        self.explainer.follow = self._follow_shares
        self.hearing = Hearing(self.tell)
        self.finder = Finder(self.show_id, self.tell)
        self.planner = Planner(self.show_id, self.tell)
        self.cue_keys = CueKeys(self.room, self.ticker, self.name, self._outcome)
        self.teller = Teller(self.room, self.explainer, self.tell, end)
        self.room.come(self)
        self.room.people_moved()

    async def _leave(self) -> None:
        """Take this screen out of everything; once, however often it is called."""
        if self.left or not self.started:
            return
        self.left = True
        stage_link().enough(self._measured)
        machine_link().enough(self._machine_stands)
        self.room.shared.enough(self)
        self._ended(Ended(page=self.page, connection=self.channel_name))
        # the work that found the screen gone must live to leave for it
        if self.metering is not None and self.metering is not asyncio.current_task():
            self.metering.cancel()
        self.explainer.end()
        self.hearing.end()
        self.finder.end()
        self.planner.end()
        self.teller.end()
        self.room.go(self)

    def answer(self, text: str) -> None:
        self.teller.answer(text)

    async def _taken(self, message: from_screen.FromScreen) -> None:
        if isinstance(message, from_screen.Try) and self.waiting:
            self._later(self._behind(set(self.waiting), message))
        else:
            await self._tried(message)

    async def _behind(self, before: set[UUID], message: from_screen.Try) -> None:
        """Edits that wait for their tick count in what this hand is shown behind them."""
        await self._answered(before)
        if not self.left:
            await self._tried(message)

    async def _answer(self, message: from_screen.FromScreen) -> None:
        if not core.may(self.role, MESSAGES[type(message)]):
            raise core.RoleTooSmall(self.role or "stranger")
        match message:
            case from_screen.Hello():
                await self._hello(message)
            case from_screen.Watch():
                await self._watch(message)
            case from_screen.Ping():
                await self.say({"type": "pong"})
            case from_screen.Do():
                self._do(message)
            case from_screen.LetGo():
                self._ended(Ended(page=self.page, gesture=message.gesture))
            case from_screen.Kept():
                self._later(self._kept(message))
            case from_screen.Turn():
                self._turn(message)
            case from_screen.Try():
                await self._try(message)
            case from_screen.Find():
                self.finder.wish(message)
            case from_screen.PlanTracks():
                self.planner.plan(message.id)
            case from_screen.SeenCall():
                await in_database(seen_call, self.show_id, message.call, self.user_id)
                self.room.calls_moved()
            case from_screen.Draw():
                await self._draw(message)
            case from_screen.FeedLine():
                await self._feed(message)
            case from_screen.Talk():
                await self._talk(message)
            case from_screen.RunRecorder():
                await self._recorder(message)
            case from_screen.SwapCables():
                await self._swap_cables(message)
            case from_screen.StraightCables():
                stage_link().straight(self.show_id)
            case from_screen.UndoCue():
                self._later(self.cue_keys.undo(message))
            case _ if isinstance(message, CUE_MESSAGES):
                await self.cue_keys.pressed(message)

    def _machine_stands(self, stands: MachineStands) -> None:
        self.teller.post("machine", machine_text(stands))

    def _later(self, work: Coroutine[Any, Any, None]) -> None:
        """Work that does not hold up what comes behind it."""
        task = asyncio.create_task(work)
        self.work.add(task)
        task.add_done_callback(self.work.discard)

    async def _now(self) -> State:
        return await in_database(live_of(self.show_id).now, again=True)

    async def _hello(self, message: from_screen.Hello) -> None:
        if message.page:
            self.page = f"{self.user_id}:{message.page}"
            self._ended(Ended(page=self.page))
        if self.role is not None:
            self.teller.post("you", you_text(self.role))
        self.teller.hello(message.since)
        self._later(self.room.tell_calls())
        self._later(self.room.tell_cues())

    async def _watch(self, message: from_screen.Watch) -> None:
        self.check, self.meters_failed = message.check, False
        self.levels = message.levels
        if message.held != self.explainer.held:
            self.hearing.end()
        self.explainer.watch(message)
        self.teller.draws_table(message.table)
        if self.check is None and not self.levels:
            stage_link().enough(self._measured)
        else:
            await stage_link().want(self._measured)
        if message.cue_list:
            await machine_link().want(self._machine_stands)
        else:
            machine_link().enough(self._machine_stands)
        await self._follow_shares()
        if self.view != message.view:
            self.view = message.view
            self.room.people_moved()
        if why := message.why:
            state = await self._now()
            # no such cell: refused in answer to this message, and never explained
            text = await self.room.once(loudest_text, state, why.source, why.listener)
            self.explainer.why = why
            await self.tell(text)
            self.explainer.owe("why")

    async def _follow_shares(self) -> None:
        """Shares are measured while they are drawn, or what is explained hangs on them."""
        if self.explainer.sharing or self.explainer.why_shares:
            await self.room.shared.want(self)
        else:
            self.room.shared.enough(self)

    def shares_moved(self) -> None:
        """New shares: what is explained by them is told anew."""
        if self.explainer.why_shares:
            self.explainer.owe("why")

    def _ended(self, ended: Ended) -> None:
        """Hands end, if any are known: behind all that they moved before."""
        if self.ticker.may_end(ended):
            self.ticker.heard(self.user_id, ended)

    def _do(self, message: from_screen.Do) -> None:
        if isinstance(message.ask, SetInScenes):
            self.hearing.end()  # it is made: nobody looks at it beforehand any more
        self._submit(
            Request(
                edit_id=message.id,
                author_id=self.user_id,
                gesture=message.gesture,
                plan=message.ask.plan,
                author=self.name,
                seen=message.seen,
                page=self.page,
                connection=self.channel_name,
                joins=self._joins(message),
            )
        )

    def _joins(self, message: from_screen.Do) -> Hashable | None:
        """What places of this hand have in common of which a later one does for an earlier one."""
        alike = message.ask.joins() if isinstance(message.ask, Moves) else None
        return None if alike is None else (self.page, message.gesture, message.seen, alike)

    def _turn(self, message: from_screen.Turn) -> None:
        undo = message.type == "undo"
        self._submit(
            Request(
                edit_id=message.id,
                author_id=self.user_id,
                gesture=str(message.id),
                kind=models.Change.Kind.UNDO if undo else models.Change.Kind.REDO,
                author=self.name,
            )
        )

    async def _kept(self, message: from_screen.Kept) -> None:
        """Of a page's edits those that are kept: told behind all that its person sent before."""
        await self.ticker.behind(self.user_id)
        try:
            kept = await in_database(kept_of, self.show_id, message.ids, again=True)
        except DatabaseError:
            await self.close(code=1013)  # the page asks again when it is back
        else:
            await self.say({"type": "kept", "ids": [str(one) for one in kept]})

    async def _draw(self, message: from_screen.Draw) -> None:
        state = live_of(self.show_id).state or await self._now()
        moves = moves_from_wire(message.moves)
        await self.tell(await in_thread(drawn_text, state, message.strip, moves))

    async def _try(self, message: from_screen.Try) -> None:
        state = await self._now()
        at = partial(show_at, self.show_id, state.show, state.revision)
        followed = Followed(state.flow)
        turn = Turn(self.show_id, self.user_id, state.show, followed, at, self.name)
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
                found = await in_thread(levels_message, state, levels_dbu)
            else:
                found = await in_thread(meters_message, state, line, levels_dbu, fed)
        except Exception:  # told once: meters come seven times a second
            _LOG.exception("meters failed")
            found = None if self.meters_failed else refused_message(None, core.Broken())
            self.meters_failed = True
        if found is not None:
            await self.say(found)

    async def _feed(self, message: from_screen.FeedLine) -> None:
        show = (await self._now()).show
        dbu = show.number(f"line/{message.line}/level_dbu")
        sockets = core.sockets_of_line(show, message.line)
        plugs = stage_link().plugs(self.show_id, message.line, sockets)
        stage_link().feed(message.line, plugs, message.signal, dbu)

    async def _talk(self, message: from_screen.Talk) -> None:
        show = (await self._now()).show
        for line in core.speaking_lines(show, message.group):
            plugs = stage_link().plugs(self.show_id, line, core.sockets_of_line(show, line))
            dbu = show.number(f"line/{line}/level_dbu")
            stage_link().feed(line, plugs, "speech" if message.on else "nothing", dbu)

    async def _recorder(self, message: from_screen.RunRecorder) -> None:
        await stage_link().open()
        if message.do == "record":
            state = await self._now()
            takes = await in_thread(core.takes, state.show, state.flow)
            stage_link().record(takes, state.show.desk.full_scale_dbu)
        else:
            stage_link().play(message.do == "play")

    async def _swap_cables(self, message: from_screen.SwapCables) -> None:
        show = (await self._now()).show
        one, other = (
            stage_link().plugs(self.show_id, line, core.sockets_of_line(show, line))
            for line in message.lines
        )
        for here, there in zip(one, other, strict=False):
            stage_link().swap(here, there)

    # ---- from its room

    def woken(self) -> None:
        self.teller.woken()

    def post(self, what: str, text: str) -> None:
        self.teller.post(what, text)

    def role_is(self, acting: Acting) -> None:
        if not core.may(acting.role, "look"):
            self._later(self.gone())
        elif acting.role is not None and acting.role != self.role:
            self.role = acting.role
            self.teller.post("you", you_text(acting.role))

    async def signed_out(self) -> None:
        """Its person signed out elsewhere."""
        await self.close(code=NOT_SIGNED_IN)

    async def gone(self) -> None:
        """The show was taken off the list."""
        await self.close(code=NO_SUCH_SHOW)


class Nowhere(AsyncWebsocketConsumer):
    """A websocket at a path where nothing is."""

    async def connect(self) -> None:
        await self.close()  # before it is taken: answered as HTTP's 403


def _role(show_id: UUID, session: str, person_id: int) -> core.Role | None:
    """The role of who comes, in a show that is on the list; they are here by that sign-in."""
    seen_now(session)
    if not models.Show.objects.filter(pk=show_id).exists():
        return None
    return role_in(show_id, person_id)
