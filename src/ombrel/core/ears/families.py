"""Sends of a mix moved as one: distances kept, past the ends of ranges as gangs keep them.

Each send has a place: where it would stand if its range had no end. A move goes as far as the last
send meets the end, so that no place runs away; a phone's as far as the first meets its limit.
"""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Final

from ..catalogue import SENDERS, Address, Thing, kind_on, of_kind, parameter_at, strips_of
from ..show import Show
from ..together import NOT_KEPT, place_of, stood_at
from ..values import Asked, Number, UnreadableText
from .selves import selves_of

__all__ = [
    "EVERYTHING",
    "ME",
    "Placed",
    "families_of",
    "is_shown",
    "family_to",
    "is_off_to_return",
    "limits_of",
    "moved_levels",
    "place_db",
    "position_db",
    "read_step",
    "sends_into",
]

ME: Final = "me"  # the family of self
GROUPS: Final = "groups"
EVERYTHING: Final = "everything"  # all that a phone shows of a mix, as one
_NO_START_DB: Final = -12.0  # what a limit counts from where a send has no start
_STEP: Final = Number(unit="dB", lowest=-150.0, highest=150.0, step=0.1)


def _level() -> Number:
    kind = parameter_at("channel/1/send/mix/1/level").kind
    assert isinstance(kind, Number)  # a send's level is one, by the catalogue
    return kind


_LEVEL: Final = _level()


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


def _way(kind: Number, members: Iterable[tuple[Placed, float]], by_db: float) -> float:
    """How far members, each with its limit, really go of `by_db`.

    Up until the last meets the top, or the first its limit; down until the last meets the bottom.
    Those that fell below the bottom count: so whatever went down comes up again.
    """
    going = [(one.place_db, limit) for one, limit in members if one.moves(kind)]
    if not going:
        return 0.0
    if by_db > 0.0:
        free = min(limit - place for place, limit in going)
        top = kind.highest - min(place for place, _ in going)
        return min(by_db, max(0.0, min(free, top)))
    return max(by_db, min(0.0, kind.lowest_finite - max(place for place, _ in going)))


def moved_levels(
    show: Show,
    addresses: Iterable[str],
    by_db: float,
    limits: Mapping[str, float] | None = None,
) -> dict[str, Asked]:
    """Levels with their kept places after a move together by `by_db`, as far as it goes.

    What is off, and did not fall below the bottom, stays off. `limits`: above which a phone raises
    none of them, by address. Raises UnknownAddress.
    """
    members = {address: Placed.of(show, address) for address in addresses}
    if not members:
        return {}
    kind = parameter_at(next(iter(members))).kind
    assert isinstance(kind, Number)  # levels and faders are
    ends = limits or {}
    with_ends = [(one, ends.get(address, math.inf)) for address, one in members.items()]
    way_db = _way(kind, with_ends, by_db)
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


# ---- families, as phones have them


def families_of(show: Show, mix: str) -> dict[str, list[str]]:
    """What a phone shows of a mix: the strips that are sent to it, by family, self as `ME` first.

    Shown is what is switched on and open, has a start, or keeps a place to come back to; and whose
    family the mix shows. Returns are of effects, groups by themselves.
    """
    own = set(selves_of(show, mix))
    found: dict[str, list[str]] = {ME: []}
    for strip in strips_of(show.desk, *SENDERS):
        if _is_sent(show, mix, strip) and (strip in own or _is_of_shown(show, mix, strip)):
            found.setdefault(ME if strip in own else _family(show, strip), []).append(strip)
    return {family: strips for family, strips in found.items() if strips}


def is_shown(show: Show, mix: str, strip: str) -> bool:
    """Whether a phone shows a strip of a mix, as `families_of` has it."""
    return _is_sent(show, mix, strip) and (
        _is_of_shown(show, mix, strip) or strip in selves_of(show, mix)
    )


def _is_sent(show: Show, mix: str, strip: str) -> bool:
    send = f"{strip}/send/{mix}"
    known = (f"{send}/{leaf}" for leaf in ("level", "start", "level/kept"))
    return show.on(f"{send}/on") and any(show.number(one) > -math.inf for one in known)


def _is_of_shown(show: Show, mix: str, strip: str) -> bool:
    family = _family(show, strip)
    return family == GROUPS or show.on(f"{mix}/shows_{family}")


def _family(show: Show, strip: str) -> str:
    """A strip's family: of several lines that feed it the first's."""
    kind = of_kind(strip)
    if kind == "return":
        return "effects"
    if kind == "group":
        return GROUPS
    lines = show.plugged.get(show.source_of(Thing.at(strip).number) or "")
    return show.text(f"line/{lines[0]}/family") if lines else "unsorted"


def _power(levels_db: Iterable[float]) -> float:
    return math.fsum(math.pow(10.0, level_db / 10.0) for level_db in levels_db)


def _ratio_db(power: float, start: float) -> float:
    if power <= 0.0:
        return -math.inf
    return 10.0 * math.log10(power / start) if start > 0.0 else 10.0 * math.log10(power)


def _sends(mix: str, strips: Iterable[str]) -> list[str]:
    return [f"{strip}/send/{mix}" for strip in strips]


def _start(show: Show, mix: str, strips: Iterable[str]) -> float:
    return _power(show.number(f"{send}/start") for send in _sends(mix, strips))


def position_db(show: Show, mix: str, strips: Iterable[str]) -> float | None:
    """How much more or less arrives of a family than at its start, by its sends' own levels: ten

    times the logarithm of the sums of their powers; -inf: none is open; None: it has no start.
    """
    strips = list(strips)
    start = _start(show, mix, strips)
    levels = [show.number(f"{send}/level") for send in _sends(mix, strips)]
    return _ratio_db(_power(levels), start) if start > 0.0 else None


def place_db(show: Show, mix: str, strips: Iterable[str]) -> float:
    """Where a family's fader stands by the places of its sends, past the ends of their range; over

    0 dB where it has no start. -inf: none has any. It moves by as much as they do.
    """
    strips = list(strips)
    members = [Placed.of(show, f"{send}/level") for send in _sends(mix, strips)]
    if any(one.is_open for one in members):
        members = [one for one in members if one.moves(_LEVEL)]
    return _ratio_db(_power(one.place_db for one in members), _start(show, mix, strips))


def limits_of(show: Show, mix: str, strips: Iterable[str]) -> dict[str, float]:
    """Above which no phone raises each send, by its level's address: start plus limit."""
    limit_db = show.number(f"{mix}/limit")
    found = {}
    for send in _sends(mix, strips):
        start_db = show.number(f"{send}/start")
        base_db = _NO_START_DB if start_db == -math.inf else start_db
        found[f"{send}/level"] = base_db + limit_db
    return found


def is_off_to_return(show: Show, mix: str, strips: Iterable[str]) -> bool:
    """Whether none of a family is open, and some keep a place or have a start to come back to."""
    levels = [f"{send}/level" for send in _sends(mix, strips)]
    return bool(levels) and not any(show.number(one) > -math.inf for one in levels)


def family_to(show: Show, mix: str, strips: Iterable[str], to_db: float) -> dict[str, Asked]:
    """Moves of a family as one to a place of its fader (see `place_db`), as a phone makes them.

    Every open send goes as far as the others, the whole way as far as limits let it. To off
    (-inf): all go off and keep their places; what was off before loses its own. From off: what has
    a place returns, so that the fader stands there; without any, the starts do.
    """
    strips = list(strips)
    addresses = [f"{send}/level" for send in _sends(mix, strips)]
    members = {address: Placed.of(show, address) for address in addresses}
    anything = any(one.is_open for one in members.values())
    if to_db == -math.inf:
        return _to_off(members) if anything else {}
    limits = limits_of(show, mix, strips)
    if anything:
        by_db = to_db - place_db(show, mix, strips)
        return moved_levels(show, addresses, round(by_db, 6), limits)
    return _from_off(show, mix, strips, members, limits, to_db)


def _to_off(members: Mapping[str, Placed]) -> dict[str, Asked]:
    found: dict[str, Asked] = {}
    for address, one in members.items():
        if one.moves(_LEVEL):
            found |= {address: -math.inf, place_of(address): one.place_db}
        elif one.kept_db != NOT_KEPT:
            found[place_of(address)] = NOT_KEPT
    return found


def _from_off(
    show: Show,
    mix: str,
    strips: list[str],
    members: Mapping[str, Placed],
    limits: Mapping[str, float],
    to_db: float,
) -> dict[str, Asked]:
    places = {a: one.kept_db for a, one in members.items() if one.kept_db != NOT_KEPT}
    if not places:
        starts = {a: show.number(f"{Address.at(a).stem}/start") for a in members}
        places = {a: start_db for a, start_db in starts.items() if start_db > -math.inf}
    if not places:
        return {}
    by_db = to_db - _ratio_db(_power(places.values()), _start(show, mix, strips))
    back = [(Placed(place), limits[a]) for a, place in places.items()]
    way_db = _way(_LEVEL, back, by_db)
    found: dict[str, Asked] = {}
    for address, place in places.items():
        level_db, kept_db = stood_at(_LEVEL, place + way_db)
        found |= {address: level_db, place_of(address): kept_db}
    return found
