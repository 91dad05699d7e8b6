"""What a screen is explained at leisure: Why, reach, what unfolds, a strip, lifts, scenes."""

import asyncio
import logging
import time
from collections.abc import Awaitable, Callable, Mapping, Sequence
from uuid import UUID

from django.db import DatabaseError

from ombrel import core
from ombrel.core import CheckOrder, ConsoleError

from ..keeping.live import live_of
from ..keeping.log import setters_of
from ..keeping.states import State
from ..keeping.work import at_leisure, in_database
from ..messages.edits import refused_message
from ..messages.from_screen import Watch, WatchedCell
from ..messages.news import (
    Update,
    bears_on_why,
    beside_text,
    closing_text,
    company_text,
    cue_list_text,
    curves_text,
    ears_text,
    fitting_text,
    held_text,
    lifts_text,
    mic_check_text,
    reach_text,
    scene_text,
    scenes_text,
    sharing_text,
    silent_text,
    strip_text,
    text_of,
    tracks_text,
    unfolded_text,
    why_told,
)

__all__ = ["Explainer"]

_LOG = logging.getLogger(__name__)
_MOST_REST_S = 0.2
_WATCHED = (
    "reach", "unfolded", "lifts", "sharing", "tracks", "cue_list", "closing", "silent", "ears",
    "beside", "scenes", "company", "mic_check", "fitting", "why", "strip", "curves", "scene",
    "held",
)  # fmt: skip


class Explainer:
    """Explains by the show as it stands when its turn comes; moves that come meanwhile are one.

    `tell` sends a text to the screen, `fail` ends it when the store does not answer; `who`: the
    name of its person; `shares`: what is measured of who shares gain.
    """

    def __init__(
        self,
        show_id: UUID,
        tell: Callable[[str], Awaitable[None]],
        fail: Callable[[], Awaitable[None]],
        who: str,
        shares: Callable[[], Mapping[str, float]],
    ) -> None:
        self.show_id, self._tell, self._fail, self.who = show_id, tell, fail, who
        self.why: WatchedCell | None = None
        self.ruler: str | None = None
        self.strip: str | None = None
        self._shares = shares
        self.sharing = False
        self.tried: Mapping[str, str] = {}
        self.why_shares = False  # what Why tells hangs on shares as they are measured
        self.follow: Callable[[], Awaitable[None]] | None = None  # that may have come or gone
        self.tracks = False
        self.cue_list = False
        self.lifts = False
        self.closing = False
        self.silent = False
        self.ears = False
        self.beside: tuple[str, str] | None = None
        self.scenes = False
        self.scene: str | None = None
        self.held: str | None = None
        self.company = False
        self.mic_check: CheckOrder | None = None
        self.fitting: str | None = None
        self.unfold: tuple[str, ...] = ()
        self.task: asyncio.Task | None = None
        self._owed: set[str] = set()
        self._over = False

    def watch(self, message: Watch) -> None:
        """What the screen draws from now on; what is new there is explained.

        A cell is explained from when somebody knows that there is such a cell (`why`).
        """
        self.why, self.ruler, self.why_shares = None, message.ruler, False
        if self.ruler:
            self.owe("reach")
        if self.strip != message.strip:
            self.strip = message.strip
            self.owe("strip", "curves")
        if self.closing != message.closing:
            self.closing = message.closing
            self.owe("closing")
        if self.silent != message.silent:
            self.silent = message.silent
            self.owe("silent")
        for what in ("ears", "beside"):
            if getattr(self, what) != (wanted := getattr(message, what)):
                setattr(self, what, wanted)
                self.owe(what)
        if (self.sharing, self.tried) != (message.sharing, message.tried):
            self.sharing, self.tried = message.sharing, message.tried
            self.owe("sharing")
        if self.tracks != message.tracks:
            self.tracks = message.tracks
            self.owe("tracks")
        if self.cue_list != message.cue_list:
            self.cue_list = message.cue_list
            self.owe("cue_list")
        if self.lifts != message.lifts:
            self.lifts = message.lifts
            self.owe("lifts")
        if self.scenes != message.scenes:
            self.scenes = message.scenes
            self.owe("scenes")
        if (self.scene, self.held) != (message.scene, message.held):
            self.owe("held", *(["scene"] if self.scene != message.scene else []))
            self.scene, self.held = message.scene, message.held
        for what in ("company", "mic_check", "fitting"):
            if getattr(self, what) != (wanted := getattr(message, what)):
                setattr(self, what, wanted)
                self.owe(what)
        if self.unfold != (unfold := tuple(message.unfold)):
            self.unfold = unfold
            self.owe("unfolded")

    def moved(self, told: Update, state: State) -> None:
        """What a move may bear on is explained again."""
        if self.ruler:
            self.owe("reach")
        if self.unfold:
            self.owe("unfolded")
        if self.lifts:
            self.owe("lifts")
        if self.sharing:
            self.owe("sharing")
        if self.tracks:
            self.owe("tracks")
        if self.cue_list and core.bears("cue_list", told.values):
            self.owe("cue_list")
        if self.silent:
            self.owe("silent")
        if self.ears:
            self.owe("ears")
        if self.beside:
            self.owe("beside")
        if self.closing and (told.cells or told.layout or told.noticed):
            self.owe("closing")
        if self.scenes and (told.held or core.bears("cues", told.values)):
            self.owe("scenes")
        if self.scene:
            self.owe("scene", "held")
        if self.company and core.bears("company", told.values):
            self.owe("company")
        if self.mic_check:
            self.owe("mic_check")
        if self.fitting:
            self.owe("fitting")
        if self.strip:
            self.owe("strip")
            of_bus = core.of_kind(self.strip) not in core.SOURCES and told.cells
            if of_bus or any(core.bears_on_curves(a, self.strip) for a in told.values):
                self.owe("curves")
        if self.why and bears_on_why(told, state, self.why):
            self.owe("why")

    def anew(self) -> None:
        """Nobody knows what moved: all that the screen draws is explained again."""
        self.owe(*_WATCHED)  # what it does not draw costs nothing

    def owe(self, *what: str) -> None:
        self._owed.update(what)
        if self._owed and not self._over and (self.task is None or self.task.done()):
            self.task = asyncio.create_task(self._explain())

    def end(self) -> None:
        """The screen is gone. The work that found it gone must live to leave for it."""
        self._over = True
        if self.task is not None and self.task is not asyncio.current_task():
            self.task.cancel()

    async def _explain(self) -> None:
        while self._owed and not self._over:
            what = self._owed.pop()
            try:
                state = live_of(self.show_id).state
                if state is None:
                    state = await in_database(live_of(self.show_id).now, again=True)
                began = time.monotonic()
                for text in await self._texts(what, state):
                    await self._tell(text)
                # while moves come in, three quarters of the time are theirs
                await asyncio.sleep(min(3.0 * (time.monotonic() - began), _MOST_REST_S))
            except ConsoleError as error:  # the cell went with its strip
                await self._tell(text_of(refused_message(None, error)))
            except DatabaseError:
                await self._fail()
                return
            except Exception:
                _LOG.exception("an explanation failed")

    async def _texts(self, what: str, state: State) -> list[str]:
        match what:
            case "unfolded" if self.unfold:
                return [await at_leisure(unfolded_text, state, self.unfold)]
            case "closing" if self.closing:
                return [await at_leisure(closing_text, state)]
            case "silent" if self.silent:
                return [await at_leisure(silent_text, state)]
            case "ears" if self.ears:
                return [await at_leisure(ears_text, state)]
            case "beside" if self.beside:
                return [await at_leisure(beside_text, state, *self.beside)]
            case "lifts" if self.lifts:
                return [await at_leisure(lifts_text, state)]
            case "sharing" if self.sharing:
                return [await at_leisure(sharing_text, state, tuple(self.tried.items()))]
            case "tracks" if self.tracks:
                return [await at_leisure(tracks_text, state)]
            case "cue_list" if self.cue_list:
                return [await at_leisure(cue_list_text, state)]
            case "scenes" if self.scenes:
                return [await at_leisure(scenes_text, state)]
            case "scene" if self.scene in state.show.scenes:
                assert self.scene is not None  # a scene of the show is some
                return [await at_leisure(scene_text, state, self.scene)]
            case "held" if self.held and self.scene in state.show.scenes:
                assert self.scene is not None
                return [await at_leisure(held_text, state, self.scene, self.held)]
            case "company" if self.company:
                return [await at_leisure(company_text, state)]
            case "mic_check" if self.mic_check:
                return [await at_leisure(mic_check_text, state, self.mic_check, self.who)]
            case "fitting" if self.fitting:
                return [await at_leisure(fitting_text, state, self.fitting)]
            case "strip" if self.strip:
                return [await at_leisure(strip_text, state, self.strip)]
            case "curves" if self.strip:
                return [await at_leisure(curves_text, state, self.strip)]
            case "reach" if self.ruler:
                return [await at_leisure(reach_text, state, self.ruler)]
            case "why" if self.why:
                cell = self.why.source, self.why.listener
                told = await at_leisure(why_told, state, *cell, tuple(self._shares().items()))
                if self.why_shares != told.shares and self.follow is not None:
                    self.why_shares = told.shares
                    await self.follow()
                return await self._with_setters(told.text, told.feeds)
        return []

    async def _with_setters(self, text: str, addresses: Sequence[str]) -> list[str]:
        """A text, and who set some addresses last."""
        if not addresses:
            return [text]
        keys = await in_database(setters_of, self.show_id, addresses, again=True)
        return [text, text_of({"type": "set_by", "keys": keys})]
