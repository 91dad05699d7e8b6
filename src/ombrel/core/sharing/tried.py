"""Who wins, and by how much, at levels expected or typed: weights tried before anybody comes."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from ..flow import Flow
from ..processing import FLOOR_DB, shared_gains, sum_db
from ..show import Show, read_strips
from ..together import member_for
from ..values import Number, UnreadableText, counted, said
from .groups import Sharing, sharings, standing_of
from .levels import Levels, level_db, own_levels, powers_behind

__all__ = ["Chair", "Tried", "TriedSharer", "chairs_in_vain", "expected_shares", "tried"]

_LEVEL: Final = Number(unit="dB", lowest=-math.inf, highest=24.0, step=0.1)
_MOST_PARTS: Final = 200
_HELP: Final = 'levels of members, such as "all at -20, 6 at -26", in dBFS'


@dataclass(frozen=True, slots=True, kw_only=True)
class TriedSharer:
    """A member at a level. `level_dbfs`: behind its fader; -inf where none is known.

    `gain_db`: its share when all speak so, `needs_db`: the weight from which it wins; None for the
    one that does.
    """

    strip: str
    level_dbfs: float
    gain_db: float
    needs_db: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Tried:
    """What comes of levels. `wins`: who is first, "" where two are; `says`: by how much."""

    group: str
    members: tuple[TriedSharer, ...]
    wins: str
    over_db: float
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Chair:
    """The member that weighs most and still does not win; `needs_db`: the weight that would do."""

    group: str
    strip: str
    needs_db: float


def tried(show: Show, flow: Flow, group: Sharing, text: str = "") -> Tried:
    """A group at the levels that lines are expected to bring, or at typed ones: "all at -20, 6 at

    -26", later parts before earlier ones; who is not named stays as expected. Those that are held
    open, out or muted are in no sum. Raises UnreadableText.
    """
    levels = _expected(show, flow, group) | _typed(show, group, text)
    return _told(group, flow, levels)


def expected_shares(show: Show, flow: Flow, group: Sharing) -> dict[str, float]:
    """The share of each member, in dB, when all speak at the levels expected of them."""
    some = _told(group, flow, _expected(show, flow, group))
    return {one.strip: one.gain_db for one in some.members}


def chairs_in_vain(show: Show, flow: Flow) -> tuple[Chair, ...]:
    """Of each group the one of the most weight, above all others, that others still drown."""
    found = []
    for group in sharings(show):
        sharing = group.in_sum(flow)
        top = max((one.weight_db for one in sharing), default=0.0)
        chairs = [one for one in sharing if one.weight_db == top]
        if top <= 0.0 or len(chairs) != 1 or len(sharing) < 2:
            continue
        some = {m.strip: m for m in _told(group, flow, _expected(show, flow, group)).members}
        its = some[chairs[0].strip]
        if its.needs_db is not None and its.level_dbfs > FLOOR_DB and its.needs_db > top + 1e-6:
            found.append(Chair(group=group.group, strip=its.strip, needs_db=its.needs_db))
    return tuple(found)


def _expected(show: Show, flow: Flow, group: Sharing) -> dict[str, float]:
    """Levels expected behind the faders, in dBFS, by member."""
    own = Levels(show, flow).own if group.is_fed(flow) else own_levels(show, flow)[0]
    powers = powers_behind(flow, own, group.members)
    return {m.strip: level_db(p) for m, p in zip(group.members, powers.tolist(), strict=True)}


def _typed(show: Show, group: Sharing, text: str) -> dict[str, float]:
    """Levels typed for members, in dBFS."""
    found: dict[str, float] = {}
    strips = {one.strip for one in group.members}
    parts = _parts(text)
    for who, level in parts:
        level_dbfs = _LEVEL.typed(level, -math.inf, f"the level of {who}")
        if who.casefold() in ("all", "everybody"):
            found |= dict.fromkeys(strips, level_dbfs)
            continue
        named = [member_for(show, one) for one in read_strips(show, who, dcas=False)]
        others = [one for one in named if one not in strips]
        if others:
            raise UnreadableText(who, f"members of {group.name}")
        found |= dict.fromkeys(named, level_dbfs)
    return found


def _parts(text: str) -> list[tuple[str, str]]:
    """Who and level of each part: a part without a level goes with the next that has one."""
    found: list[tuple[str, str]] = []
    waiting = ""
    pieces = text.replace(";", ",").replace("\n", ",").split(",")
    if len(pieces) > _MOST_PARTS:
        raise UnreadableText(f"{text[:40]}\N{HORIZONTAL ELLIPSIS}", f"at most {_MOST_PARTS} parts")
    for piece in pieces:
        whole = f"{waiting}, {piece.strip()}" if waiting else piece.strip()
        who, at, level = whole.rpartition(" at ")
        if not at:
            waiting = whole
            continue
        found.append((who.strip(), level.strip()))
        waiting = ""
    if waiting:
        raise UnreadableText(waiting, _HELP)
    return found


def _told(group: Sharing, flow: Flow, levels: Mapping[str, float]) -> Tried:
    sharing = group.in_sum(flow)
    heard = {one.strip: max(levels[one.strip], FLOOR_DB) for one in sharing}
    counts = {one.strip: one.weight_db + heard[one.strip] for one in sharing}
    powers = np.array([10.0 ** (level / 10.0) for level in heard.values()])
    weights = np.array([one.weight_db for one in sharing])
    gains = shared_gains(powers, weights, limit_db=group.limit_db)
    gain_db = dict(zip(heard, (level_db(gain) for gain in gains.tolist()), strict=True))
    held = {one.strip for one in group.members if standing_of(flow, one) == "held"}
    order = sorted(counts.values(), reverse=True)
    first = [strip for strip, count in counts.items() if order and count > order[0] - 1e-9]
    wins = first[0] if len(first) == 1 else ""

    def needs(strip: str) -> float | None:
        others = [count for other, count in counts.items() if other != strip]
        if strip == wins or strip not in counts or not others:
            return None
        return max(others) - heard[strip]

    return Tried(
        group=group.group,
        members=tuple(
            TriedSharer(
                strip=one.strip,
                level_dbfs=levels[one.strip],
                gain_db=gain_db.get(one.strip, 0.0 if one.strip in held else -math.inf),
                needs_db=needs(one.strip),
            )
            for one in group.members
        ),
        wins=wins,
        over_db=sum_db(gains),
        says=_says(group, wins, order, sum_db(gains)),
    )


def _says(group: Sharing, wins: str, order: list[float], over_db: float) -> str:
    if not order:
        return "Nobody shares: all are held open, out or silent."
    name = next((one.name for one in group.members if one.strip == wins), "")
    if len(order) == 1:
        return f"{name} is alone, at 0 dB."
    if wins:
        says = f"{name} wins by {said(order[0] - order[1])} dB."
    else:
        level = sum(count > order[0] - 1e-9 for count in order)
        says = f"Nobody wins: {counted(level, 'member')} are level."
    if over_db >= 0.05:
        says += f" With its limit all together are {said(over_db, signed=True)} dB above one."
    return says
