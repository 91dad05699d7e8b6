"""Whole mixes shaped: trimmed, swapped, copied, joined later; their starts, and back to these."""

import math
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

from ..answers import typed_level_db
from ..catalogue import SENDERS, Address, of_kind, strips_of
from ..ears import moved_levels, sends_into
from ..flow import strip_name
from ..show import Show
from ..together import clear_solos, member_for
from ..values import Asked, UnknownAddress, UnreadableText

__all__ = [
    "Joined",
    "copy_mix",
    "ear_mixes",
    "join_mixes",
    "listen_as",
    "lock_mixes",
    "start_over",
    "swap_mixes",
    "take_starts",
    "trim_ears",
    "trim_mixes",
]

_OF_SENDS: Final = ("level", "level/kept", "on", "tap", "pan", "pan/kept", "start", "start_pan")
_OF_MIX: Final = ("fader", "fader/kept", "started", "start_fader")


def ear_mixes(show: Show, *serving: str) -> list[str]:
    """The mixes in use that serve ears or wedges, or what is named; of a pair the odd."""
    wanted = serving or ("ears", "wedge")
    return [
        mix
        for mix in show.in_use("mix")
        if show[f"{mix}/serves"] in wanted and member_for(show, mix) == mix
    ]


def _in_use(show: Show, mixes: Iterable[str]) -> list[str]:
    """Mixes, of each pair one. Raises UnknownAddress for what is none that is in use."""
    found = dict.fromkeys(mixes)
    for mix in found:
        if of_kind(mix) != "mix" or mix not in show.in_use("mix"):
            raise UnknownAddress(mix, "no such mix is in use")
    return list(dict.fromkeys(member_for(show, mix) for mix in found))


def _sends(show: Show, mix: str) -> list[str]:
    return [f"{strip}/send/{mix}" for strip in strips_of(show.desk, *SENDERS)]


def trim_mixes(
    show: Show, mixes: Sequence[str], by_db: float, strips: Collection[str] = ()
) -> dict[str, Asked]:
    """Moves of all that is sent to each of some mixes (`strips`: of these alone) by `by_db`,

    distances kept past the ends of the range; each goes as far as its last send. Raises
    UnknownAddress.
    """
    moves: dict[str, Asked] = {}
    for mix in _in_use(show, mixes):
        sends = [
            one for one in sends_into(show, mix) if not strips or Address.at(one).thing in strips
        ]
        moves |= moved_levels(show, sends, by_db)
    return moves


def trim_ears(show: Show, by_db: float) -> dict[str, Asked]:
    """Moves of the faders of all mixes for ears by `by_db`, their distances kept."""
    return moved_levels(show, [f"{mix}/fader" for mix in ear_mixes(show, "ears")], by_db)


def copy_mix(show: Show, source: str, mixes: Sequence[str]) -> dict[str, Asked]:
    """Moves that give mixes the sends of another, its level and start; never its name, outputs or

    locks. Raises UnknownAddress; UnreadableText for a mix and its own pair.
    """
    (source,) = _in_use(show, [source])
    moves: dict[str, Asked] = {}
    for mix in _in_use(show, mixes):
        _check_apart(show, source, mix)
        moves |= _as(show, source, mix)
    return moves


def swap_mixes(show: Show, one: str, other: str) -> dict[str, Asked]:
    """Moves that give each of two mixes what the other has of `copy_mix`. Twice is as before.

    Raises UnknownAddress, UnreadableText as it does.
    """
    (one,), (other,) = _in_use(show, [one]), _in_use(show, [other])
    _check_apart(show, one, other)
    return _as(show, one, other) | _as(show, other, one)


def _check_apart(show: Show, one: str, other: str) -> None:
    if one == other:
        raise UnreadableText(strip_name(show, one), "two mixes that are not one")


def _as(show: Show, source: str, mix: str) -> dict[str, Asked]:
    moves: dict[str, Asked] = {
        f"{there}/{leaf}": show[f"{here}/{leaf}"]
        for here, there in zip(_sends(show, source), _sends(show, mix), strict=True)
        for leaf in _OF_SENDS
    }
    return moves | {f"{mix}/{leaf}": show[f"{source}/{leaf}"] for leaf in _OF_MIX}


@dataclass(frozen=True, slots=True, kw_only=True)
class Joined:
    """`moves`: the sends that open; `told`: what stands open already, and stays."""

    moves: Mapping[str, Asked] = field(default_factory=dict)
    told: tuple[str, ...] = ()


def join_mixes(show: Show, strips: Sequence[str], mixes: Sequence[str], level: str) -> Joined:
    """Open the sends of strips to mixes, at a level as typed, as wide as the strips stand; sends

    that are open stay. No mixes: all for ears and wedges. Raises UnknownAddress, UnreadableText.
    """
    level_db = typed_level_db(level)
    moves: dict[str, Asked] = {}
    told = []
    for strip in dict.fromkeys(strips):
        if of_kind(strip) not in SENDERS:
            raise UnreadableText(strip.replace("/", " "), "channels, returns or groups")
        had = []
        for mix in _in_use(show, mixes or ear_mixes(show)):
            send = f"{strip}/send/{mix}"
            if show.on(f"{send}/on") and show.number(f"{send}/level") > -math.inf:
                had.append(strip_name(show, mix))
                continue
            moves |= {f"{send}/level": level_db, f"{send}/on": True}
            moves[f"{send}/pan"] = show[f"{strip}/pan"]
        if had:
            told.append(f"{strip_name(show, strip)} is open already in {_listed(had)}.")
    return Joined(moves=moves, told=tuple(told[:12]))


def _listed(names: Sequence[str], most: int = 6) -> str:
    more = f" and {len(names) - most} more" if len(names) > most else ""
    return ", ".join(names[:most]) + more


def take_starts(show: Show, mixes: Sequence[str]) -> dict[str, Asked]:
    """Moves that make what mixes are now their start: level and pan of each open send, and the

    fader. Raises UnknownAddress.
    """
    moves: dict[str, Asked] = {}
    for mix in _in_use(show, mixes):
        for send in _sends(show, mix):
            is_open = show.on(f"{send}/on") and show.number(f"{send}/level") > -math.inf
            moves[f"{send}/start"] = show[f"{send}/level"] if is_open else -math.inf
            moves[f"{send}/start_pan"] = show[f"{send}/pan"] if is_open else 0.0
        moves |= {f"{mix}/started": True, f"{mix}/start_fader": show[f"{mix}/fader"]}
    return moves


def start_over(show: Show, mixes: Sequence[str]) -> dict[str, Asked]:
    """Moves that bring mixes back to their starts: levels, pans, the fader no higher than the

    ceiling; what has no start goes off, what is switched off at the desk stays so. Raises
    UnknownAddress; UnreadableText for a mix of which no start was taken.
    """
    moves: dict[str, Asked] = {}
    for mix in _in_use(show, mixes):
        if not show.on(f"{mix}/started"):
            raise UnreadableText(strip_name(show, mix), "mixes of which a start was taken")
        for send in _sends(show, mix):
            if not show.on(f"{send}/on"):
                continue
            level_db = show.number(f"{send}/start")
            moves[f"{send}/level"] = level_db
            if level_db > -math.inf:
                moves[f"{send}/pan"] = show[f"{send}/start_pan"]
        start_db, ceiling_db = show.number(f"{mix}/start_fader"), show.number(f"{mix}/ceiling")
        moves[f"{mix}/fader"] = min(start_db, ceiling_db)
    return moves


def listen_as(show: Show, mix: str, *, on: bool = True) -> dict[str, Asked]:
    """Moves that let the engineer hear a mix and nothing else, or end it; no listener but the

    engineer hears anything else by it, and solo in place ends. Raises UnknownAddress.
    """
    (mix,) = _in_use(show, [mix])
    return clear_solos(show) | {f"{mix}/solo": on}


def lock_mixes(
    show: Show, mixes: Sequence[str], *, locked: bool, reason: str = ""
) -> dict[str, Asked]:
    """Moves that lock mixes for phones with a reason, or open them; no mixes: all at once.

    Raises UnknownAddress.
    """
    if not mixes:
        reason = reason if locked else ""
        return {"show/ears_locked": locked, "show/ears_lock_reason": reason}
    moves: dict[str, Asked] = {}
    for mix in _in_use(show, mixes):
        moves |= {f"{mix}/locked": locked, f"{mix}/lock_reason": reason if locked else ""}
    return moves
