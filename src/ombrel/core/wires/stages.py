"""What a strip does to a signal, stage by stage: one list, read by the levels and by Why alike.

The running product over the stages is the gain at each tap; a stage whose gain is 0 is closed, and
says as what it silences. What rules strips together (DCAs, mute groups) is a stage of each of its
members, worked out by `rulers`; of processing only a compressor's make-up counts (`processed`). Who
shares gain with others counts as alone, at 0 dB, unless it is out (`shared`).
"""

from collections.abc import Callable
from dataclasses import dataclass
from enum import IntEnum
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import SHARERS, SOURCES, STRIP_KINDS, TAPS
from ..values import SILENCE_DB, Value

__all__ = [
    "AFTER_FADER",
    "STAGES",
    "START_LEVEL_DB",
    "Cause",
    "Stage",
    "gain_of",
    "running",
    "stage_of",
]

_LEAST: Final = 10.0 ** (SILENCE_DB / 20.0)  # no open strip passes less
START_LEVEL_DB: Final = -20.0  # where a remedy opens a fader or send: audible, never a surprise
AFTER_FADER: Final = TAPS.index("after_fader")


class Cause(IntEnum):
    """What a closed stage makes of a cell; the first in this order names it among equals."""

    NO_SOURCE = 0
    MUTED = 1
    DOWN = 2
    NO_OUTPUT = 3


def gain_of(level_db: Value) -> float:
    """Linear gain of a level as a show holds it; off is 0.0."""
    return 10.0 ** (level_db / 20.0) if isinstance(level_db, float) else 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """One stage. `leaf`: its address behind the strip's. `before`: the first tap that lies behind

    it. `of`: its linear gain for a value. `closes`: as what it silences when its gain is 0.
    `ruled`: by what rules its strip; its leaf is a name only, and its gain comes from `rulers`.
    `worked_out`: from several values, by `processed` or `shared`; its leaf is a name only too.
    `opened`: the value that its remedy gives it. `strips`: kinds that have it.
    """

    leaf: str
    title: str
    before: str
    of: Callable[[Value], float]
    closes: Cause | None = None
    opened: Value = None
    strips: tuple[str, ...] = STRIP_KINDS
    ruled: bool = False
    worked_out: bool = False


STAGES: Final = (
    Stage(
        leaf="hard_mute",
        title="Seal",
        before="input",
        of=gain_of,
        closes=Cause.MUTED,
        opened=0.0,
        ruled=True,
    ),
    Stage(
        leaf="polarity",
        title="Polarity",
        before="before_eq",
        of=lambda turned: -1.0 if turned else 1.0,
        strips=SOURCES,
    ),
    Stage(leaf="trim", title="Trim", before="before_eq", of=gain_of, strips=SOURCES),
    Stage(
        leaf="compressor", title="Compressor", before="before_fader", of=gain_of, worked_out=True
    ),
    Stage(
        leaf="sharing/out",
        title="Shared gain",
        before="before_fader",
        of=gain_of,
        closes=Cause.MUTED,
        opened=0.0,
        strips=SHARERS,
        worked_out=True,
    ),
    Stage(
        leaf="mute",
        title="Mute",
        before="before_fader_after_mute",
        of=lambda muted: 0.0 if muted else 1.0,
        closes=Cause.MUTED,
        opened=False,
    ),
    Stage(
        leaf="mute_group",
        title="Mute group",
        before="before_fader_after_mute",
        of=gain_of,
        closes=Cause.MUTED,
        opened=0.0,
        ruled=True,
    ),
    Stage(
        leaf="dca_mute",
        title="Muted DCA",
        before="before_fader_after_mute",
        of=gain_of,
        closes=Cause.MUTED,
        opened=0.0,
        ruled=True,
    ),
    Stage(
        leaf="solo",
        title="Solo in place",
        before="before_fader_after_mute",
        of=gain_of,
        closes=Cause.MUTED,
        opened=0.0,
        strips=SOURCES,
        ruled=True,
    ),
    Stage(
        leaf="fader",
        title="Fader",
        before="after_fader",
        of=gain_of,
        closes=Cause.DOWN,
        opened=START_LEVEL_DB,
    ),
    Stage(
        leaf="dca",
        title="DCA",
        before="after_fader",
        of=gain_of,
        closes=Cause.DOWN,
        opened=0.0,
        ruled=True,
    ),
    Stage(
        leaf="sharing/out",
        title="Shared gain",
        before="after_fader",
        of=gain_of,
        closes=Cause.MUTED,
        opened=0.0,
        strips=SHARERS,
        worked_out=True,
    ),
)
# How many stages lie before each tap.
_BEFORE_TAP: Final = np.array(
    [sum(TAPS.index(stage.before) <= tap for stage in STAGES) for tap in range(len(TAPS))]
)
CLOSES: Final = np.array([-1 if s.closes is None else s.closes for s in STAGES])
_OPENED: Final = np.array([s.of(s.opened) if s.closes is not None else 1.0 for s in STAGES])


def stage_of(leaf: str) -> int:
    """The place of a stage in the list, by its leaf; the first of it. ValueError for none."""
    return [stage.leaf for stage in STAGES].index(leaf)


def passed(tap: int) -> int:
    """How many of the stages a signal has passed at a tap (an index into TAPS)."""
    return int(_BEFORE_TAP[tap])


def running(
    gains: NDArray[np.floating[Any]], weights: NDArray[np.floating[Any]]
) -> tuple[NDArray[np.floating[Any]], NDArray[np.floating[Any]]]:
    """Gain at each tap and weight of the closed stages before it, shape (..., taps) both.

    `gains`: of each stage, shape (..., stages). `weights`: of each stage when it is closed.
    """
    so_far = np.ones((*gains.shape[:-1], gains.shape[-1] + 1))
    np.cumprod(gains, axis=-1, out=so_far[..., 1:])
    far_down = (np.abs(so_far) < _LEAST) & (so_far != 0.0)
    if far_down.any():  # many DCAs far down: open all the same, and still a number
        so_far[far_down] = np.copysign(_LEAST, so_far[far_down])
    closed = np.zeros(so_far.shape)
    np.cumsum((gains == 0.0) * weights, axis=-1, out=closed[..., 1:])
    return so_far[..., _BEFORE_TAP], closed[..., _BEFORE_TAP]


def as_opened(
    gains: NDArray[np.floating[Any]], dca: NDArray[np.floating[Any]]
) -> NDArray[np.floating[Any]]:
    """The stages (strips, stages) with each closed one as its remedy would open it.

    `dca` (strips,): the gain of the strip's DCAs with those that are off so opened.
    """
    opened = np.where(gains == 0.0, _OPENED, gains)
    opened[:, stage_of("dca")] = dca
    return opened
