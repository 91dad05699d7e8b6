"""Shows in memory, each with its evaluated flow, by revision.

A process reads a show once and then follows what is kept: its own commits, and the log, whoever
wrote it: another process, or this one in a transaction whose COMMIT nobody answered. Whichever way
a move became known, it leaves a frame here, and who watches is woken.
"""

import logging
import threading
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any
from uuid import UUID

from ombrel.core import (
    CLOSING,
    Address,
    ConsoleError,
    Fade,
    Fading,
    blank_show,
    check_on_desk,
    flow_of,
    parameter_at,
)

from .. import models
from .desks import desk_of
from .frames import Frame, frame_between, one_frame
from .packing import unpacked
from .passing import KnownHand, Passing
from .states import State, from_wire

__all__ = ["Live", "forget", "live_of", "moves_links"]

_LOG = logging.getLogger(__name__)
_FOLLOWED = 200  # more revisions behind than this: reading the show anew is quicker
_RECENT = 2_000  # entries of the log in memory: seconds of a whole band
_FRAMES = 64  # so many are kept for screens that take their time,
_VALUES = 50_000  # and no more than have so many values together


@dataclass(slots=True)
class Live:
    """One show in memory. `lock` is held by whoever moves it on.

    `passing`: hands and what is on its way, `stored`: as the row has them. `frames`: the newest
    moves, each beginning where the one before it ends, and `joined`: what is known of them as one,
    by where it begins; `watching`: called after each, in whatever thread made it. `links_at`: the
    last revision with which a number of a mix may mean another's, so that who has a link to one
    looks it up again; `recent`: the last entries of the log, without a gap.
    """

    show_id: UUID
    lock: threading.Lock = field(default_factory=threading.Lock)
    state: State | None = None
    passing: Passing = field(default_factory=Passing)
    stored: tuple[Sequence[Any], Sequence[Any]] = ((), ())
    frames: tuple[Frame, ...] = ()
    joined: dict[int, Frame] = field(default_factory=dict)
    watching: Callable[[], None] | None = None
    links_at: int = 0
    recent: list[models.Change] = field(default_factory=list)

    @property
    def hands(self) -> dict[str, KnownHand]:
        """What hold something now, by their gestures."""
        return self.passing.hands

    @property
    def fading(self) -> Fading:
        """What is on its way to where it stands."""
        return self.passing.fading

    @property
    def may_go(self) -> bool:
        """Whether nobody has it open, and nobody is just moving it."""
        return self.watching is None and not self.lock.locked()

    def moved_on(
        self,
        state: State,
        passing: Passing,
        stored: tuple[Sequence[Any], Sequence[Any]],
        frame: Frame | None,
        entries: Sequence[models.Change] = (),
    ) -> None:
        """What was kept is what stands; by whoever holds the lock."""
        was = self.state
        if len(self.recent) > 2 * _RECENT:
            self.recent = self.recent[-_RECENT:]
        self.recent.extend(entries)
        if any(moves_links(one) for one in entries):
            self.links_at = state.revision  # ahead of the state: who has that one knows
        self.state, self.passing, self.stored = state, passing, stored
        if frame is not None:
            frames = (*self.frames[1 - _FRAMES :], frame)
            while len(frames) > 1 and sum(len(one.values) for one in frames) > _VALUES:
                frames = frames[1:]
            self.frames = frames
        self.joined = {}
        if was is not None and was.revision == state.revision:
            return
        if self.watching is not None:
            self.watching()

    def since(self, revision: int) -> Frame | None:
        """What moved the show on from a revision, as one frame; None: that is known no more."""
        joined, frames = self.joined, self.frames
        if revision not in joined:
            places = (at for at, frame in enumerate(frames) if frame.before == revision)
            place = next(places, None)
            if place is None:
                return None
            joined[revision] = one_frame(frames[place:])  # one for all who ask
        return joined[revision]

    def entries_since(self, revision: int) -> list[models.Change] | None:
        """The entries of the log after a revision, as far as they are in memory; None: not all."""
        state, recent = self.state, self.recent
        if state is not None and state.revision <= revision:
            return []
        if not recent or recent[0].revision > revision + 1:
            return None
        return recent[revision + 1 - recent[0].revision :]  # each has the next revision

    def caught_up(self, row: models.Show) -> State:
        """The state at the revision of a row as the database holds it, read or followed as needed;

        hands and what is on its way as they are kept with it.
        """
        state = self.state
        known = state is not None and state.revision == row.revision
        passing, stored = self.passing, (row.hands, row.fading)
        if not known or self.stored != stored:
            passing = Passing.from_store(*stored)
        if known:
            self.passing, self.stored = passing, stored
            assert state is not None
            return state
        followed = None if state is None else self._followed(state, row.revision)
        if followed is not None:
            was, (state, frame, entries) = self.stored[1], followed
            fades = _setting_out(passing.fading, was, row.fading)
            self.moved_on(state, passing, stored, _with_fades(frame, fades), entries)
            return state
        state = self._read(row)
        self.frames = ()  # nobody can go on from what they have
        self.recent = []
        self.links_at = row.revision
        self.moved_on(state, passing, stored, None)
        return state

    def _followed(
        self, start: State, revision: int
    ) -> tuple[State, Frame, list[models.Change]] | None:
        """The state after what the log has, the frame of all of it, and its entries; None: it is

        too much.
        """
        if not 0 < revision - start.revision <= _FOLLOWED:
            return None
        entries = models.Change.objects.filter(
            show_id=self.show_id, revision__gt=start.revision, revision__lte=revision
        ).order_by("revision")
        state, own, stood = start, set[str](), set[str]()
        cells: set[tuple[int, int]] = set()
        known = list(entries)
        for entry in known:
            state, change, differ = state.after(from_wire(entry.new), entry.revision)
            own.update(entry.new)
            stood.update(change.new)
            cells |= differ
        if state.revision != revision:
            return None
        return state, frame_between(start, state, own, stood, cells, ()), known

    def _read(self, row: models.Show) -> State:
        desk = desk_of(row.desk)
        values = {}
        for address, wire in unpacked(dict(row.settings.values_list("address", "value"))).items():
            try:
                value = parameter_at(address).kind.from_wire(wire, address)
                values[address] = check_on_desk(desk, address, value)
            except ConsoleError as error:  # kept before its desk's profile was changed
                _LOG.warning("left out of %s: %s", row.name, error)
        show = blank_show(desk).with_values(values)
        return State(row.revision, show, flow_of(show))

    def now(self) -> State:
        """The state as the database has it now."""
        with self.lock:
            return self.caught_up(models.Show.objects.get(pk=self.show_id))


def moves_links(entry: models.Change) -> bool:
    """Whether mixes have other numbers by an entry, or come to be in use."""
    return bool(entry.renumbered) or any(
        Address.at(address).is_at("mix", "format") for address in entry.new
    )


def _with_fades(frame: Frame, fades: Sequence[Fade]) -> Frame:
    return Frame(
        frame.before, frame.revision, frame.values, frame.cells, frame.layout, frame.noticed,
        tuple(fades), frame.held,
    )  # fmt: skip


def _setting_out(fading: Fading, was: Sequence[Any], now: Sequence[Any]) -> list[Fade]:
    """What set out between two stored plans."""
    new = {one[0] for one in now if one not in was}
    return [f for address, f in fading.items() if address in new and f.law != CLOSING]


_LIVE: dict[UUID, Live] = {}
_LIVE_LOCK = threading.Lock()
_MOST_UNWATCHED = 4  # shows in memory that nobody has open: what a reply was made of lately


def live_of(show_id: UUID) -> Live:
    """The one `Live` of a show in this process."""
    with _LIVE_LOCK:
        live = _LIVE.pop(show_id, None) or Live(show_id)
        idle = [one for one, other in _LIVE.items() if other.may_go]
        for one in idle[: max(0, len(idle) - _MOST_UNWATCHED)]:
            del _LIVE[one]
        _LIVE[show_id] = live  # the last that was asked for stands last
        return live


def forget(show_id: UUID) -> None:
    """Let a show go from memory that nobody has open, unless somebody is just moving it."""
    with _LIVE_LOCK:
        live = _LIVE.get(show_id)
        if live is not None and live.may_go:
            del _LIVE[show_id]
