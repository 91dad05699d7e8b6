"""What rules strips together: DCAs and mute groups, as stages of each strip.

A strip's DCAs are all that it reaches, directly or through DCAs, each once. Their levels add in dB
behind its fader, their mutes stand beside its own; a mute group that is on does so too, and a hard
one closes the strip at its input. What is soloed is worked out in `solo`.
"""

from typing import TYPE_CHECKING, Any, Final

import numpy as np
from numpy.typing import NDArray

from .layout import Layout
from .stages import START_LEVEL_DB, stage_of

if TYPE_CHECKING:
    from .arrays import Arrays

__all__ = ["RULING", "closers", "closure", "reached_dcas", "with_rulers"]

Bools = NDArray[np.bool_]
Floats = NDArray[np.floating[Any]]

# the arrays that the stages of members are worked out from
RULING: Final = frozenset(
    (
        "dca_of",
        "dca_in",
        "dca_db",
        "dca_mute",
        "group_of",
        "group_on",
        "group_hard",
    )
)
_HARD: Final = stage_of("hard_mute")
_SOFT: Final = stage_of("mute_group")
_MUTED: Final = stage_of("dca_mute")
_SOLO: Final = stage_of("solo")
_LEVEL: Final = stage_of("dca")


def closure(step: Bools) -> Bools:
    """What is reached in any number of steps, at least one; `step` (n, n): in one."""
    found: Bools = step
    while True:
        further: Bools = found | ((found.astype(np.float32) @ found.astype(np.float32)) > 0.0)
        if (further == found).all():
            return found
        found = further


def reached_dcas(arrays: "Arrays") -> Bools:
    """Which DCAs rule each strip, directly or through DCAs; shape (strips, dcas)."""
    direct: Bools = arrays.dca_of > 0.0
    if not arrays.dca_in.any():
        return direct
    onward = closure(np.greater(arrays.dca_in, 0.0)).astype(np.float32)
    found: Bools = direct | (direct.astype(np.float32) @ onward > 0.0)
    return found


def _sum_db(reached: Bools, level_db: Floats) -> Floats:
    """Levels of the DCAs of each strip added, in dB, those that are off left out."""
    added: Floats = reached.astype(np.float64) @ np.where(np.isfinite(level_db), level_db, 0.0)
    return added


def with_rulers(arrays: "Arrays") -> "Arrays":
    """The arrays with the stages that DCAs and mute groups are to their strips.

    `closing` counts what closes each of these stages; `dca_opened` is the gain of the DCAs with
    each that is off at the level to which its remedy brings it.
    """
    stage, closing = arrays.stage.copy(), arrays.closing.copy()
    reached = reached_dcas(arrays)
    off = ~np.isfinite(arrays.dca_db)
    down = (reached & off).sum(axis=1)
    muted = (reached & (arrays.dca_mute > 0.0)).sum(axis=1)
    on = (arrays.group_of > 0.0) & (arrays.group_on > 0.0)
    hard = (on & (arrays.group_hard > 0.0)).sum(axis=1)
    soft = on.sum(axis=1) - hard
    gain = np.power(10.0, _sum_db(reached, arrays.dca_db) / 20.0)
    for place, count in ((_HARD, hard), (_SOFT, soft), (_MUTED, muted)):
        stage[:, place], closing[:, place] = count == 0, np.maximum(count, 1)
    stage[:, _LEVEL] = np.where(down > 0, 0.0, gain)
    closing[:, _LEVEL] = np.maximum(down, 1)
    opened = gain * np.power(10.0, START_LEVEL_DB * down / 20.0)
    return arrays._replace(stage=stage, closing=closing, dca_opened=opened)


def closers(arrays: "Arrays", layout: Layout, strip: int, place: int) -> list[str]:
    """Addresses of what closes a ruled stage of a strip."""
    if place in (_HARD, _SOFT):
        hard = arrays.group_hard > 0.0
        on = (arrays.group_of[strip] > 0.0) & (arrays.group_on > 0.0)
        numbers = np.flatnonzero(on & (hard if place == _HARD else ~hard))
        return [f"mute_group/{number + 1}/on" for number in numbers]
    if place == _SOLO:
        return ["show/solo"]
    reached = reached_dcas(arrays)[strip]
    if place == _MUTED:
        return [f"dca/{n + 1}/mute" for n in np.flatnonzero(reached & (arrays.dca_mute > 0.0))]
    return [f"dca/{n + 1}/fader" for n in np.flatnonzero(reached & ~np.isfinite(arrays.dca_db))]
