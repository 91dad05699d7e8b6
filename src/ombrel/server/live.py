"""Shows in memory, each with its evaluated flow, by revision.

A process reads a show once and then follows its own commits; when another process has moved the
show on, it follows that process's entries of the log.
"""

import logging
import math
import threading
import time
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from uuid import UUID

from immutables import Map

from ombrel.core import (
    Change,
    ConsoleError,
    Fade,
    Fading,
    Flow,
    Hand,
    Value,
    Wire,
    blank_show,
    check_on_desk,
    flow_of,
    parameter_at,
)
from ombrel.core import Show as CoreShow

from . import models
from .desks import desk_of
from .packing import unpacked

__all__ = ["Live", "State", "fading_to_store", "for_pages", "from_wire", "live_of", "to_wire"]

_LOG = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True, eq=False)
class State:
    """A show as it stands at a revision."""

    revision: int
    show: CoreShow
    flow: Flow

    def after(self, change: Change, revision: int) -> "State":
        """The state after a change that is kept already."""
        show, stood = self.show.moved(change.new)
        flow, _ = self.flow.after(stood)
        return State(revision, show, flow)


@dataclass(slots=True)
class Live:
    """One show in memory. `lock` is held by whoever moves it on.

    `hands`: what hold something now, by their gestures; `fading`: what is on its way to where it
    stands. Both are of this process alone, and no part of the show.
    """

    show_id: UUID
    lock: threading.Lock = field(default_factory=threading.Lock)
    state: State | None = None
    hands: Mapping[str, Hand] = field(default_factory=dict)
    fading: Fading = field(default_factory=dict)

    def moved_on(self, state: State, hands: Mapping[str, Hand], fading: Fading) -> None:
        """What was kept is what stands; by whoever holds the lock."""
        self.state, self.hands, self.fading = state, hands, fading

    def let_go(self, gestures: Iterable[str]) -> None:
        """These hands hold nothing any more."""
        gone = set(gestures)
        with self.lock:
            self.hands = {one: hand for one, hand in self.hands.items() if one not in gone}

    def caught_up(self, revision: int) -> State:
        """The state at the revision that the database holds, read or followed as needed."""
        state = self.state
        if state is not None and state.revision == revision:
            return state
        if state is not None and 0 < revision - state.revision <= 200:
            entries = models.Change.objects.filter(
                show_id=self.show_id, revision__gt=state.revision, revision__lte=revision
            ).order_by("revision")
            for entry in entries:
                change = Change(Map(from_wire(entry.old)), Map(from_wire(entry.new)))
                state = state.after(change, entry.revision)
            if state.revision == revision:
                self.state = state
                return state
        self.state = self._read(revision)
        self.fading = self._still_fading()
        return self.state

    def _read(self, revision: int) -> State:
        row = models.Show.objects.get(pk=self.show_id)
        desk = desk_of(row.desk)
        values = {}
        for address, wire in unpacked(dict(row.settings.values_list("address", "value"))).items():
            try:
                value = parameter_at(address).kind.from_wire(wire, address)
                values[address] = check_on_desk(desk, address, value)
            except ConsoleError as error:  # kept before its desk's profile was changed
                _LOG.warning("left out of %s: %s", row.name, error)
        show = blank_show(desk).with_values(values)
        return State(revision, show, flow_of(show))

    def _still_fading(self) -> Fading:
        """What was on its way when this was kept, and still is: a restart follows the clock."""
        kept = models.Show.objects.values_list("fading", flat=True).get(pk=self.show_id)
        now_s, ahead_s = time.monotonic(), time.monotonic() - time.time()
        fades = (
            Fade(address=address, start=_number(start), target=_number(target),
                 begun_s=begun + ahead_s, seconds=seconds, law=law)
            for address, start, target, begun, seconds, law in kept
        )  # fmt: skip
        return {fade.address: fade for fade in fades if not fade.ended(now_s)}

    def now(self) -> State:
        """The state as the database has it now."""
        with self.lock:
            revision = models.Show.objects.values_list("revision", flat=True).get(pk=self.show_id)
            return self.caught_up(revision)


def _number(wire: float | None) -> float:
    return -math.inf if wire is None else wire


def fading_to_store(fading: Fading) -> list[list[object]]:
    """What is on its way, by the clock of the world."""
    ahead_s = time.time() - time.monotonic()
    return [
        [one.address, *(None if math.isinf(v) else v for v in (one.start, one.target)),
         one.begun_s + ahead_s, one.seconds, one.law]
        for one in fading.values()
    ]  # fmt: skip


_LIVE: dict[UUID, Live] = {}
_LIVE_LOCK = threading.Lock()


def live_of(show_id: UUID) -> Live:
    """The one `Live` of a show in this process."""
    with _LIVE_LOCK:
        return _LIVE.setdefault(show_id, Live(show_id))


def to_wire(values: Mapping[str, Value]) -> dict[str, Wire]:
    """Values by address as JSON can hold them: silence is null."""
    return {address: parameter_at(address).kind.to_wire(value) for address, value in values.items()}


def for_pages(values: Mapping[str, object]) -> dict[str, object]:
    """Values without what scenes and fittings hold: that is told in words, to whoever looks."""
    return {a: value for a, value in values.items() if not _is_held(a)}


def _is_held(address: str) -> bool:
    if address.startswith("fitting/"):
        return "/value/" in address or "/version/" in address
    return "/holds/" in address


def from_wire(values: Mapping[str, object]) -> dict[str, Value]:
    """Values by address as the core holds them, from how the store has them."""
    return {a: parameter_at(a).kind.from_wire(value, a) for a, value in unpacked(values).items()}
