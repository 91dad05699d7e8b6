"""All screens of this process that have a show open: what is done once for all of them."""

import asyncio
import json
import logging
import time
from collections.abc import Awaitable, Callable
from typing import Any, Protocol, TypeVar
from uuid import UUID

from django.db import DatabaseError

from ..access.signed_in import who_left
from ..keeping.ear_calls import calls_of
from ..keeping.ear_links import who_ended
from ..keeping.exchange import exchange
from ..keeping.frames import Frame
from ..keeping.live import forget, live_of
from ..keeping.passing import Renewed
from ..keeping.people import Acting, acting_in
from ..keeping.work import in_database, in_thread
from ..messages.cues import cues_here_text
from ..messages.here import calls_text
from ..messages.phone import finger_text
from ..operating.metrics import FIGURES
from .noticing import Noticing
from .sharing import SharedGain

__all__ = ["Room", "Screen", "open_by", "open_room", "room_of", "tell_links", "tell_roles"]

_LOG = logging.getLogger(__name__)
_T = TypeVar("_T")
_BEAT_S = 5.0  # so often it is asked who is still signed in, and hands are said to be there
_LOOK_S = 1.0  # so often the database is asked while other processes cannot be heard
_PRESENT_S = 0.25  # who comes, goes and changes views within it is told as one
_MOST_NAMED = 60  # screens that are told of one by one
LINGER_S = 120.0  # so long a show that nobody has open stays in memory
_GONE_S = 30.0  # another process that said nothing for so long is no more
_ONCE = 48  # answers that are kept for who asks the same


class Screen(Protocol):
    """One open screen, as its room knows it. `session`: of its sign-in ("": it has none); `phone`:

    of a performer, with the digest of its cookie (None: it is none); `user_id`: its person's
    (None: it is nobody's).
    """

    channel_name: str
    user_id: int | None
    name: str
    view: str
    session: str
    phone: tuple[UUID, str] | None

    def woken(self) -> None:
        """The show has moved on."""

    def post(self, what: str, text: str) -> None:
        """Something to tell: the newest of its kind replaces what was not told yet."""

    def role_is(self, acting: Acting) -> None:
        """What its person may do in the show just now."""

    async def signed_out(self) -> None:
        """Its person signed out elsewhere: it ends."""

    async def gone(self) -> None:
        """The show is no more: it ends."""


def _kind(screen: Screen) -> str:
    return "phone" if screen.phone is not None else "screen" if screen.name else "cues"


class Room:
    """The screens of one show, for one event loop."""

    def __init__(self, show_id: UUID, beat: Callable[[Renewed], None]) -> None:
        self.show_id = show_id
        self.live = live_of(show_id)
        self.screens: dict[str, Screen] = {}
        self.noticing = Noticing(show_id, self._post)
        self.shared = SharedGain(show_id)
        self._renew = beat
        self._loop = asyncio.get_running_loop()
        self._told: int | None = None  # the revision that was told of last
        self._elsewhere: dict[str, tuple[float, list[list[str]]]] = {}
        self._once: dict[Any, asyncio.Task[Any]] = {}
        self._present: asyncio.TimerHandle | None = None
        self._beat: asyncio.Task[None] | None = None
        self._cues: asyncio.Future[None] | None = None
        self._cues_again = False

    # ---- who is here

    def come(self, screen: Screen) -> None:
        """A screen opens the show."""
        if not self.screens:
            self.live.watching = self._moved
            exchange().hear(self.show_id, self._heard)
            exchange().say(self.show_id, {"what": "who"})
            self._beat = asyncio.create_task(self._beating())
        self.screens[screen.channel_name] = screen
        FIGURES.screens(_kind(screen), 1)

    def go(self, screen: Screen) -> None:
        """A screen is no more; after the last one the show goes from memory, some time later."""
        if self.screens.pop(screen.channel_name, None) is not None:
            FIGURES.screens(_kind(screen), -1)
        self.people_moved()
        if self.screens:
            return
        if self._beat is not None:
            self._beat.cancel()
        self.noticing.end()
        self.shared.end()
        if self._present is not None:
            self._present.cancel()
        self._say_people()
        exchange().enough(self.show_id)
        if self.live.watching == self._moved:
            self.live.watching = None
        _ROOMS.pop((id(self._loop), self.show_id), None)
        # not at once: whoever loads the page anew is back in a moment
        self._loop.call_later(LINGER_S, forget, self.show_id)

    def people_moved(self) -> None:
        """Somebody came, went, or looks at another view: told to all, soon and together."""
        if self._present is None and self.screens:
            self._present = self._loop.call_later(_PRESENT_S, self._tell_people)

    def _people(self) -> list[list[str]]:
        # what listens for cues is nobody's
        people = (one for one in self.screens.values() if one.name)
        return [[one.channel_name, one.name, one.view] for one in people]

    def _tell_people(self) -> None:
        self._present = None
        self._say_people()
        self._tell_people_here()

    def _tell_people_here(self) -> None:
        now = time.monotonic()
        for process, (heard_at, _) in list(self._elsewhere.items()):
            if now - heard_at > _GONE_S:
                del self._elsewhere[process]
        people = self._people()
        for _, others in self._elsewhere.values():
            people += others
        named = [
            {"screen": screen, "name": name, "view": view}
            for screen, name, view in people[: _MOST_NAMED + 1]
        ]
        # the same for all but its first words, so that many screens cost one text
        rest = f',"others":{json.dumps(named)},"more":{max(0, len(people) - len(named))}}}'
        for screen in self.screens.values():
            you = json.dumps(screen.channel_name)
            screen.post("present", f'{{"type":"present","you":{you}{rest}')

    def _say_people(self) -> None:
        exchange().say(self.show_id, {"what": "here", "people": self._people()})

    # ---- what moves

    def _moved(self) -> None:
        """The show has moved on, in some thread."""
        try:
            self._loop.call_soon_threadsafe(self._woken)
        except RuntimeError:  # its loop has ended: nobody is here
            _LOG.debug("a room outlived its loop")

    def _woken(self) -> None:
        state = self.live.state
        if state is None or state.revision == self._told:
            return
        frame = None if self._told is None else self.live.since(self._told)
        self._told = state.revision
        for screen in self.screens.values():
            screen.woken()
        self.noticing.moved(frame or Frame(0, state.revision, noticed=True))
        exchange().say(self.show_id, {"what": "moved", "revision": state.revision})

    def _heard(self, said: dict[str, Any]) -> None:
        """What another process said; `{}`: something may have been missed."""
        match said.get("what"):
            case "here":
                self._elsewhere[said["from"]] = (time.monotonic(), said["people"])
                self._tell_people_here()
            case "who":
                self._say_people()
            case "gone":
                self._ends()
            case "finger":
                mix, of, who = said["finger"]
                self._show_finger("", mix, finger_text(mix, of, who))
            case "calls":
                self._soon(self.tell_calls())
            case "cues":
                self._tell_cues_soon()
            case "links":
                self._soon(self._check_links())
            case "roles":
                self._soon(self._check_roles())
            case "moved":
                state = self.live.state
                if state is None or state.revision < said["revision"]:
                    self._soon(self._look())
            case _:
                self._soon(self._look())
                self._say_people()

    async def _look(self) -> None:
        """Follow what the database has."""
        try:
            await in_database(self.live.now, again=True)
        except DatabaseError:
            _LOG.debug("the database does not answer; it is asked again")
        except Exception:
            _LOG.exception("a show could not be followed")

    def trouble(self, message: str) -> None:
        """Tell all screens of trouble with the store; "": it has passed."""
        text = json.dumps({"type": "trouble", "message": message})
        self._post("trouble", text)

    def removed(self) -> None:
        """The show was taken off the list: here and elsewhere its screens end."""
        exchange().say(self.show_id, {"what": "gone"})
        self._ends()

    def _ends(self) -> None:
        for screen in list(self.screens.values()):
            self._soon(screen.gone())

    def _post(self, what: str, text: str) -> None:
        for screen in self.screens.values():
            screen.post(what, text)

    async def once(self, work: Callable[..., _T], *args: Any) -> _T:
        """Work of the core done in its thread, once for all who ask the same while it is new."""
        key = (work, *args)
        task = self._once.get(key)
        if task is None or (task.done() and (task.cancelled() or task.exception())):
            task = self._once[key] = asyncio.create_task(in_thread(work, *args))
            while len(self._once) > _ONCE:
                del self._once[next(iter(self._once))]
        return await asyncio.shield(task)

    # ---- again and again

    async def _beating(self) -> None:
        beat_at = time.monotonic()
        while True:
            await asyncio.sleep(_LOOK_S)
            if exchange().shared and not exchange().connected:
                await self._look()
            if time.monotonic() - beat_at < _BEAT_S:
                continue
            beat_at = time.monotonic()
            if exchange().shared:
                self._tell_people()
            if any(held.connection in self.screens for held in self.live.hands.values()):
                self._renew(Renewed(frozenset(self.screens)))
            await self._check_signed_in()

    async def _check_signed_in(self) -> None:
        sessions = {one.session for one in self.screens.values() if one.session}
        try:
            left = await in_database(who_left, sessions, again=True)
        except DatabaseError:
            return  # asked again at the next beat
        except Exception:
            _LOG.exception("nobody knows who is signed in")
            return
        for screen in list(self.screens.values()):
            if screen.session in left:
                self._soon(screen.signed_out())
        await self._check_links()
        await self._check_roles()

    def finger(self, sender: str, mix: str, of: str, who: str) -> None:
        """A finger is on something: other phones of the mix are told, here and elsewhere."""
        self._show_finger(sender, mix, finger_text(mix, of, who))
        if exchange().shared:
            exchange().say(self.show_id, {"what": "finger", "finger": [mix, of, who]})

    def _show_finger(self, sender: str, mix: str, text: str) -> None:
        for screen in self.screens.values():
            if screen.phone and screen.channel_name != sender:
                screen.post(f"finger {mix}", text)

    def calls_moved(self) -> None:
        """A performer called, or was seen: told here and elsewhere."""
        exchange().say(self.show_id, {"what": "calls"})
        self._soon(self.tell_calls())

    async def tell_calls(self) -> None:
        """All screens are told the calls that stand; each phone looks after its own."""
        try:
            calls = await in_database(calls_of, self.show_id, again=True)
        except DatabaseError:
            return  # told again with the next, and to who comes
        self._post("calls", calls_text(calls))

    def cues_moved(self) -> None:
        """A cue came, or they were armed: told here and elsewhere."""
        exchange().say(self.show_id, {"what": "cues"})
        self._tell_cues_soon()

    def _tell_cues_soon(self) -> None:
        if self._cues is None or self._cues.done():
            self._cues = asyncio.ensure_future(self._telling_cues())
        else:
            self._cues_again = True

    async def _telling_cues(self) -> None:
        self._cues_again = True
        while self._cues_again:  # what comes while it is told is told as one
            self._cues_again = False
            await self.tell_cues()

    async def tell_cues(self) -> None:
        """All screens are told whether cues are armed, and what came."""
        try:
            text = await in_database(cues_here_text, self.show_id, again=True)
        except DatabaseError:
            return  # told again with the next, and to who comes
        self._post("cues", text)

    def links_moved(self) -> None:
        """A link ended or was renewed: here and elsewhere phones are looked at at once."""
        exchange().say(self.show_id, {"what": "links"})
        self._soon(self._check_links())

    async def _check_links(self) -> None:
        phones = {one.phone[0]: one.phone[1] for one in self.screens.values() if one.phone}
        if not phones:
            return
        try:
            ended = await in_database(who_ended, phones, again=True)
        except DatabaseError:
            return  # asked again at the next beat; what it moves is judged at the door
        for screen in list(self.screens.values()):
            if screen.phone and screen.phone[0] in ended:
                self._soon(screen.signed_out())

    def roles_moved(self) -> None:
        """The show is shared otherwise: here and elsewhere screens learn it at once."""
        exchange().say(self.show_id, {"what": "roles"})
        self._soon(self._check_roles())

    async def _check_roles(self) -> None:
        people = {one.user_id for one in self.screens.values() if one.user_id and not one.phone}
        try:
            acting = await in_database(acting_in, self.show_id, people, again=True)
        except DatabaseError:
            return  # asked again at the next beat; what they change is judged at the door
        for screen in list(self.screens.values()):
            if screen.user_id in people:
                screen.role_is(acting.get(screen.user_id, Acting(None)))

    def _soon(self, work: Awaitable[None]) -> None:
        task = asyncio.ensure_future(work)
        _SOON.add(task)
        task.add_done_callback(_SOON.discard)


_SOON: set[asyncio.Future[None]] = set()  # so that nothing that was begun is collected
_ROOMS: dict[tuple[int, UUID], Room] = {}


def room_of(show_id: UUID, beat: Callable[[Renewed], None]) -> Room:
    """The room of a show in this process (for each event loop); `beat`: renews hands."""
    key = (id(asyncio.get_running_loop()), show_id)
    if key not in _ROOMS:
        _ROOMS[key] = Room(show_id, beat)
    return _ROOMS[key]


def open_room(show_id: UUID) -> Room | None:
    """The room of a show that is open here."""
    return _ROOMS.get((id(asyncio.get_running_loop()), show_id))


def open_by(show_id: UUID) -> list[str]:
    """The names of those who have a show open, as far as this process knows, in order."""
    room = open_room(show_id)
    if room is None:
        return []
    elsewhere = [one[1] for _, people in room._elsewhere.values() for one in people]
    return sorted({one.name for one in room.screens.values() if one.name} | set(elsewhere))


def tell_roles(show_id: UUID) -> None:
    """A show is shared otherwise: screens that are open here or elsewhere are told."""
    room = open_room(show_id)
    if room is not None:
        room.roles_moved()
    else:
        exchange().say(show_id, {"what": "roles"})


def tell_links(show_id: UUID) -> None:
    """A link ended or was renewed: phones that are open here or elsewhere are looked at."""
    room = open_room(show_id)
    if room is not None:
        room.links_moved()
    else:
        exchange().say(show_id, {"what": "links"})
