"""Sends of a mix moved as one: distances kept, past the ends of ranges as gangs keep them.

Each send has a place: where it would stand if its range had no end. A move goes as far as the last
send meets the end, so that no place runs away.
"""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Final

from ..catalogue import SENDERS, kind_on, parameter_at, strips_of
from ..show import Show
from ..together import NOT_KEPT, place_of, stood_at
from ..values import Asked, Number, UnreadableText

__all__ = ["Placed", "moved_levels", "read_step", "sends_into", "way_of"]

_STEP: Final = Number(unit="dB", lowest=-150.0, highest=150.0, step=0.1)


def read_step(text: str) -> float:
    """How far, in dB, as typed: "+2", "-1.5", "up 2", "down 2". Raises UnreadableText for a number

    without a sign, which could be meant as a level, and for what is none.
    """
    if text.strip()[:1].isdigit():
        raise UnreadableText(text.strip(), 'a step with its sign, such as "+2" or "down 2"')
    return _STEP.checked(_STEP.typed(text, 0.0, "step"), "step")


def sends_into(show: Show, mix: str) -> list[str]:
    """The levels of a mix's sends that are switched on, in the order of the desk."""
    sends = (f"{strip}/send/{mix}" for strip in strips_of(show.desk, *SENDERS))
    return [f"{send}/level" for send in sends if show.on(f"{send}/on")]


@dataclass(frozen=True, slots=True)
class Placed:
    """A level and its kept place, in dB; -inf: off, or none kept."""

    level_db: float
    kept_db: float = NOT_KEPT

    @classmethod
    def of(cls, show: Show, address: str) -> "Placed":
        return cls(show.number(address), show.number(place_of(address)))

    @property
    def is_open(self) -> bool:
        return self.level_db > -math.inf

    @property
    def place_db(self) -> float:
        """Where it would stand if its range had no end; -inf: nobody knows."""
        return self.level_db if self.kept_db == NOT_KEPT else self.kept_db

    def moves(self, kind: Number) -> bool:
        """Whether it goes with the others: it is open, or fell below the bottom. What is off by a

        hand, or with all of a gang, stays off.
        """
        return self.is_open or -math.inf < self.place_db < kind.lowest_finite


def way_of(kind: Number, members: Iterable[Placed], by_db: float) -> float:
    """How far members really go of `by_db`: up until the last meets the top, down until the last

    meets the bottom. Those that fell below the bottom count: so whatever went down comes up again.
    """
    places = [one.place_db for one in members if one.moves(kind)]
    if not places:
        return 0.0
    if by_db > 0.0:
        return min(by_db, max(0.0, kind.highest - min(places)))
    return max(by_db, min(0.0, kind.lowest_finite - max(places)))


def moved_levels(show: Show, addresses: Iterable[str], by_db: float) -> dict[str, Asked]:
    """Levels with their kept places after a move together by `by_db`, as far as it goes.

    What is off, and did not fall below the bottom, stays off. Raises UnknownAddress.
    """
    members = {address: Placed.of(show, address) for address in addresses}
    if not members:
        return {}
    kind = parameter_at(next(iter(members))).kind
    assert isinstance(kind, Number)  # levels and faders are
    way_db = way_of(kind, list(members.values()), by_db)
    return _settled(show, members, way_db) if way_db else {}


def _settled(show: Show, members: Mapping[str, Placed], way_db: float) -> dict[str, Asked]:
    found: dict[str, Asked] = {}
    for address, one in members.items():
        kind = kind_on(show.desk, address)
        assert isinstance(kind, Number)
        if not one.moves(kind):
            continue
        level_db, kept_db = stood_at(kind, one.place_db + way_db)
        if (level_db, kept_db) != (one.level_db, one.kept_db):
            found |= {address: level_db, place_of(address): kept_db}
    return found
