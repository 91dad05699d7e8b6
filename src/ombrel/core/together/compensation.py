"""Joining and leaving a DCA that is away from 0 dB: what jumps, and what keeps every level."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from ..catalogue import Address, is_in_dca, of_kind
from ..flow import strip_name
from ..show import Show
from ..values import Asked
from ..wires import layout_of
from .rulers import dcas_of, ruled

__all__ = ["Compensation", "compensation"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Compensation:
    """What it takes to leave every true level as it is. `moves`: faders, and own mutes of what

    leaves a muted DCA. `jumps`: strips by address whose true level would move, from and to, in dB.
    `lacking`: why it cannot be kept: strips by name, with where their faders would have to stand.
    `silenced`: names of strips that a muted DCA would mute: told, never made up for.
    """

    moves: Mapping[str, Asked]
    jumps: tuple[tuple[str, float, float], ...]
    lacking: tuple[tuple[str, float], ...]
    silenced: tuple[str, ...]


_LOWEST_DB: Final = -120.0
_HIGHEST_DB: Final = 6.0


def compensation(before: Show, after: Show) -> Compensation:
    """What would keep every true level when memberships change from `before` to `after`.

    First the fader of a DCA that joins or leaves is tried, if that suffices; else each strip's own.
    DCAs that are off before and after count 0; only before: the fader goes to off; only after, or
    beyond the fader's ends: it cannot be kept.
    """
    strips = layout_of(before.desk).strips
    moved = {Address.at(a).thing for a in _memberships_moved(before, after)}
    levels = {
        s: (ruled(before, s), ruled(after, s)) for s in strips if _may_jump(s, moved, before, after)
    }
    jumps = {
        s: (old.level_db, new.level_db)
        for s, (old, new) in levels.items()
        if old.level_db != new.level_db
    }
    silenced = tuple(
        strip_name(after, s) for s, (old, new) in levels.items() if not old.muted and new.muted
    )
    moves: dict[str, Asked] = {
        f"{s}/mute": True for s, (old, new) in levels.items() if old.muted and not new.muted
    }
    was_db = {s: old.level_db for s, (old, _) in levels.items()}
    by_own = _by_own_faders(before, after, moved, was_db)
    lacking: list[tuple[str, float]] = []
    if by_own is not None:
        moves.update(by_own)
    else:
        for strip in jumps:
            needed = _needed(before, after, strip)
            if needed is None or not (needed == -math.inf or _LOWEST_DB <= needed <= _HIGHEST_DB):
                lacking.append((strip_name(after, strip), math.inf if needed is None else needed))
            else:
                moves[f"{strip}/fader"] = needed
    return Compensation(
        moves=moves,
        jumps=tuple((s, *jumps[s]) for s in jumps),
        lacking=tuple(lacking),
        silenced=silenced,
    )


def _memberships_moved(before: Show, after: Show) -> set[str]:
    return {
        address
        for address in {*before.values, *after.values}
        if is_in_dca(address) and before[address] != after[address]
    }


def _may_jump(strip: str, moved: set[str], before: Show, after: Show) -> bool:
    if strip in moved:
        return True
    return any(dca in moved for show in (before, after) for dca in dcas_of(show, strip))


def _sum_db(show: Show, thing: str) -> tuple[float, bool]:
    """Levels of the DCAs that rule a thing added, those that are off left out; whether any is."""
    levels = [show.number(f"{dca}/fader") for dca in dcas_of(show, thing)]
    return sum(one for one in levels if one > -math.inf), any(one == -math.inf for one in levels)


def _needed(before: Show, after: Show, thing: str) -> float | None:
    """Where a thing's fader would have to stand; None where no place would do."""
    (old_db, old_off), (new_db, new_off) = _sum_db(before, thing), _sum_db(after, thing)
    fader_db = before.number(f"{thing}/fader")
    if old_off and not new_off:
        return -math.inf
    if new_off and not old_off:
        return fader_db if fader_db == -math.inf else None
    return round(fader_db + old_db - new_db, 9)


def _by_own_faders(
    before: Show, after: Show, moved: set[str], was_db: Mapping[str, float]
) -> dict[str, float] | None:
    """The faders of the DCAs that join or leave, where moving these alone keeps every level: of

    strips that do not jump too, which a DCA may rule by another way already.
    """
    dcas = {thing for thing in moved if of_kind(thing) == "dca"}
    if not dcas:
        return None
    moves: dict[str, float] = {}
    for dca in dcas:
        needed = _needed(before, after, dca)
        if needed is None or not _LOWEST_DB <= needed <= _HIGHEST_DB:
            return None
        if needed != after.number(f"{dca}/fader"):  # else it stands there: nothing to make up for
            moves[f"{dca}/fader"] = needed
    tried = after.with_values(moves)
    for strip, level_db in was_db.items():
        now_db = ruled(tried, strip).level_db
        if now_db != level_db and abs(now_db - level_db) > 1e-6:
            return None
    return moves
