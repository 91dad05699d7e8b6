"""What is no part of a show and passes: hands that hold something, and what is on its way.

It is kept with the show's row in the transaction of the edit that it comes from, so every process
that serves the show, a server that starts again, and one whose COMMIT was not answered all know it.
A hand is known by person and page: a page that lost its network comes back by another connection
while nobody has noticed yet that the first is dead, and its hands are its own all the same. What
nobody renews ends by itself: with its process, which cannot say that it died.
"""

import math
import time
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from ombrel.core import Fade, Fading, Hand, strips_in

__all__ = ["LEASE_S", "Ended", "KnownHand", "Passing", "Renewed"]

LEASE_S = 45.0  # so long a hand lives of which its process says nothing
_MOST_HANDS = 24  # on one page at once: more than it has fingers


@dataclass(frozen=True, slots=True)
class KnownHand:
    """A hand on a show: whose page brought it, by which connection last, and until when it is

    believed without another word (by the clock of the world).
    """

    hand: Hand
    page: str
    connection: str
    until_s: float


@dataclass(frozen=True, slots=True)
class Ended:
    """Hands that end: those that match all that is named."""

    page: str | None = None
    gesture: str | None = None
    connection: str | None = None

    def ends(self, gesture: str, held: KnownHand) -> bool:
        return (
            self.page in (None, held.page)
            and self.gesture in (None, gesture)
            and self.connection in (None, held.connection)
        )


@dataclass(frozen=True, slots=True)
class Renewed:
    """Connections that are alive: what their hands hold they go on holding."""

    connections: frozenset[str]


@dataclass(slots=True)
class Passing:
    """Hands by their gestures, in the order in which they came, and fades by address.

    `hands_moved`: whether the hands are others than they were when this was begun.
    """

    hands: dict[str, KnownHand] = field(default_factory=dict)
    fading: Fading = field(default_factory=dict)
    hands_moved: bool = False

    def copy(self) -> "Passing":
        return Passing(dict(self.hands), self.fading)

    def by_gesture(self) -> dict[str, Hand]:
        """The hands, as the core knows them."""
        return {gesture: held.hand for gesture, held in self.hands.items()}

    def held_beside(self, gesture: str) -> frozenset[str]:
        """All that other hands are on."""
        others = (held.hand.holds for other, held in self.hands.items() if other != gesture)
        return frozenset[str]().union(*others)

    def holds(self, gesture: str, hand: Hand, page: str, connection: str) -> None:
        """A hand is on something; of too many on a page the oldest ends by that."""
        now_s, known = time.time(), self.hands.get(gesture)
        until_s = known.until_s if known else 0.0
        if until_s > now_s + LEASE_S / 2 and known == KnownHand(hand, page, connection, until_s):
            return  # nothing of it is new, and it is written seldom
        self.hands_moved = True
        self.hands[gesture] = KnownHand(hand, page, connection, now_s + LEASE_S)
        same = [one for one, held in self.hands.items() if page and held.page == page]
        for oldest in same[:-_MOST_HANDS]:
            del self.hands[oldest]

    def let_go_of(self, to: Mapping[str, str | None]) -> None:
        """No hand holds, and nothing is on its way, by a name that means another strip now."""
        renumbered = {*to, *to.values()}
        if not renumbered:
            return
        self._keep(
            lambda _, held: all(
                renumbered.isdisjoint(strips_in(address)) for address in held.hand.leads
            )
        )
        self.fading = {
            address: fade
            for address, fade in self.fading.items()
            if renumbered.isdisjoint(strips_in(address))
        }

    def heard(self, news: Ended | Renewed) -> None:
        """Hands end, or are said to be there still."""
        if isinstance(news, Ended):
            self._keep(lambda gesture, held: not news.ends(gesture, held))
            return
        until_s = time.time() + LEASE_S
        for gesture, held in self.hands.items():
            if held.connection in news.connections:
                self.hands_moved = True
                self.hands[gesture] = replace(held, until_s=until_s)

    def lapsed(self) -> None:
        """Hands of which nothing was heard for too long end."""
        now_s = time.time()
        self._keep(lambda _, held: held.until_s >= now_s)

    def _keep(self, stays: Callable[[str, KnownHand], bool]) -> None:
        """Only those hands stay."""
        kept = {gesture: held for gesture, held in self.hands.items() if stays(gesture, held)}
        self.hands_moved = self.hands_moved or len(kept) < len(self.hands)
        self.hands = kept

    # ---- in the store

    def stored_hands(self) -> list[Any]:
        """The hands as JSON: a list, since their order counts."""
        return [
            [gesture, sorted(held.hand.leads), held.hand.alone, sorted(held.hand.holds),
             {a: _stored(place) for a, place in held.hand.places.items()},
             held.page, held.connection, held.until_s, sorted(held.hand.opened)]
            for gesture, held in self.hands.items()
        ]  # fmt: skip

    def stored_fading(self) -> list[Any]:
        """What is on its way, by the clock of the world."""
        ahead_s = time.time() - time.monotonic()
        return [
            [one.address, _stored(one.start), _stored(one.target),
             one.begun_s + ahead_s, one.seconds, one.law]
            for one in self.fading.values()
        ]  # fmt: skip

    @classmethod
    def from_store(cls, hands: Sequence[Any], fading: Sequence[Any]) -> "Passing":
        """As it was stored, without what has ended since."""
        found = cls({one[0]: _known(one) for one in hands}, _fades(fading))
        found.lapsed()
        return found


def _known(stored: Sequence[Any]) -> KnownHand:
    _, leads, alone, holds, places, page, connection, until_s, *opened = stored
    hand = Hand(
        leads=frozenset(leads),
        alone=alone,
        holds=frozenset(holds),
        places={address: _number(place) for address, place in places.items()},
        opened=frozenset(*opened),  # of a hand that was stored before they were, none
    )
    return KnownHand(hand, page, connection, float(until_s))


def _fades(stored: Iterable[Sequence[Any]]) -> dict[str, Fade]:
    now_s, ahead_s = time.monotonic(), time.monotonic() - time.time()
    fades = (
        Fade(address=address, start=_number(start), target=_number(target),
             begun_s=float(begun) + ahead_s, seconds=float(seconds), law=law)
        for address, start, target, begun, seconds, law in stored
    )  # fmt: skip
    return {fade.address: fade for fade in fades if not fade.ended(now_s)}


def _stored(number: float) -> float | None:
    return None if math.isinf(number) else number


def _number(stored: float | None) -> float:
    return -math.inf if stored is None else float(stored)
