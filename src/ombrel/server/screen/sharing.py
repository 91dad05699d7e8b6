"""The shares of who shares one gain, by the stage's levels; once for all screens of a show."""

import asyncio
import logging
import time
from collections import deque
from collections.abc import Mapping
from typing import Final, NamedTuple, Protocol
from uuid import UUID

from ombrel import core

from ..keeping.live import live_of
from ..keeping.states import State
from ..keeping.work import in_thread
from ..links.stage import stage_link
from ..messages.sharing import SharesPast, shares_message

__all__ = ["SharedGain"]

_LOG = logging.getLogger(__name__)
_SLOT_S: Final = 0.5  # the last minute in parts
_SLOTS: Final = 120
_FRESH_S: Final = 2.0  # what was measured longer ago is not now
_AGAIN_S: Final = 1.0  # so often explanations are told with new shares
_LONGEST_S: Final = 60.0  # a pause of the stage that counts as one step


class Watcher(Protocol):
    """A screen that draws shares, or explains with them."""

    def post(self, what: str, text: str) -> None: ...

    def shares_moved(self) -> None: ...


class _Step(NamedTuple):
    """What one step of the core gave: means to go on from, shares (gain in dB, and in power) by

    strip, and what screens are told.
    """

    means: Mapping[str, core.Mean]
    gains_db: dict[str, float]
    shares: dict[str, float]
    text: str


class SharedGain:
    """Steps by every set of levels while a screen wants it; what comes meanwhile is passed by.

    Time is counted here: the core is told how long levels stood.
    """

    def __init__(self, show_id: UUID) -> None:
        self._show_id = show_id
        self._watching: set[Watcher] = set()
        self._means = core.AT_REST
        self._stepped_at = self._again_at = 0.0
        self._slot = 0  # by the clock of this process
        self._failed = False
        self._now: dict[str, float] = {}
        self._past: deque[dict[str, float]] = deque(maxlen=_SLOTS)
        self._task: asyncio.Task[None] | None = None

    @property
    def now(self) -> Mapping[str, float]:
        """The gain of each that shares, in dB by strip; empty where nothing is measured."""
        return self._now if time.monotonic() - self._stepped_at < _FRESH_S else {}

    async def want(self, screen: Watcher) -> None:
        """A screen draws shares from now on: it is told the last minute, and what comes."""
        if screen not in self._watching:
            self._watching.add(screen)
            past = SharesPast(
                type="shares_past", step_s=_SLOT_S, slot=self._slot, shares=[*self._past]
            )
            screen.post("shares_past", past.model_dump_json())
        await stage_link().want(self._measured)

    def enough(self, screen: Watcher) -> None:
        """It draws them no more; after the last one nothing is followed."""
        self._watching.discard(screen)
        if not self._watching:
            stage_link().enough(self._measured)

    def end(self) -> None:
        """Nobody has the show open."""
        self._watching.clear()
        stage_link().enough(self._measured)
        if self._task is not None:
            self._task.cancel()

    def _measured(self, levels_dbu: dict[str, float]) -> None:
        state = live_of(self._show_id).state
        if state is None or (self._task is not None and not self._task.done()):
            return
        self._task = asyncio.create_task(self._step(state, levels_dbu))

    async def _step(self, state: State, levels_dbu: dict[str, float]) -> None:
        began = time.monotonic()
        elapsed_s, slot = min(began - self._stepped_at, _LONGEST_S), int(began / _SLOT_S)
        fed = frozenset(stage_link().fed)
        try:
            step = await in_thread(_stepped, state, self._means, levels_dbu, elapsed_s, fed, slot)
        except Exception:
            if not self._failed:  # told once: levels come ten times a second
                _LOG.exception("shares could not be followed")
            self._failed = True
            return
        self._failed = False
        self._means, self._now, self._stepped_at = step.means, step.gains_db, began
        self._keep(slot, step.shares)
        again = began - self._again_at >= _AGAIN_S
        if again:
            self._again_at = began
        for screen in list(self._watching):
            screen.post("shares", step.text)
            if again:
                screen.shares_moved()

    def _keep(self, slot: int, shares: dict[str, float]) -> None:
        """The last minute with what stands now; parts in which nobody looked are empty."""
        if slot == self._slot:
            return
        missed = slot - self._slot - 1 if self._past else 0
        self._past.extend({} for _ in range(min(missed, _SLOTS)))
        self._slot = slot
        self._past.append(shares)


def _stepped(
    state: State,
    means: Mapping[str, core.Mean],
    levels_dbu: Mapping[str, float],
    elapsed_s: float,
    fed: frozenset[int],
    slot: int,
) -> _Step:
    after, groups = core.after_step(state.show, state.flow, means, levels_dbu, elapsed_s)
    lines = {one.group: core.speaking_lines(state.show, one.group) for one in groups}
    talking = [group for group, some in lines.items() if some and fed.issuperset(some)]
    members = [one for group in groups for one in group.members if one.standing == "shares"]
    return _Step(
        after,
        {one.strip: one.gain_db for one in members},
        {one.strip: round(one.share, 4) for one in members},
        shares_message(groups, talking, slot).model_dump_json(),
    )
