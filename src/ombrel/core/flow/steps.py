"""The steps and reasons of an explanation, and the walk that notes them along one path."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from ..edits import Asked
from ..kinds import Value
from ..laws import db_to_gain, sides_to_level_db
from ..parameters import TAPS

__all__ = ["START_LEVEL_DB", "TAP_WORDS", "Reason", "Remedy", "Step", "Walk", "setting"]

START_LEVEL_DB: Final = -20.0  # where a remedy opens a fader or send: audible, never a surprise

TAP_WORDS: Final = dict(
    zip(
        TAPS,
        ("at the input", "before EQ", "before fader", "before fader, after mute", "after fader"),
        strict=True,
    )
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One stage of the path. `gain_db`: what it adds (None: it adds nothing to tell).

    `dbu`, `dbfs`: absolute level predicted behind it, where that is known. `in_path` False: the
    stage exists, and this path does not pass it. `open` False: nothing gets through it.
    `address`: what to move there, or None.
    """

    kind: str
    title: str
    detail: str
    gain_db: float | None = None
    dbu: float | None = None
    dbfs: float | None = None
    in_path: bool = True
    open: bool = True
    address: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """The one action that takes a reason away: what its button says, and its moves."""

    says: str
    moves: Mapping[str, Asked] = field(hash=False)


@dataclass(frozen=True, slots=True, kw_only=True)
class Reason:
    """One reason for silence. `code` is stable: muted, no_source, no_output, down, unrouted."""

    code: str
    says: str
    remedy: Remedy | None


class Walk:
    """Goes along one path, carrying the gain of each side, and notes steps and reasons."""

    def __init__(self) -> None:
        self.left, self.right = 1.0, 0.0
        self.bus = (0.0, 0.0)  # the sides as they stand in the bus, before its mute and master
        self.steps: list[Step] = []
        self.reasons: list[Reason] = []

    def level_db(self) -> float:
        return float(sides_to_level_db(self.left, self.right))

    def stage(
        self, kind: str, title: str, detail: str, sides: tuple[float, float], address: str | None
    ) -> None:
        """A stage behind which the sides stand at new gains. Its step tells the difference."""
        before = self.level_db()
        self.left, self.right = sides
        gain_db = self.level_db() - before if math.isfinite(before) else None
        self.steps.append(
            Step(kind=kind, title=title, detail=detail, gain_db=gain_db, address=address)
        )

    def scale(
        self, kind: str, title: str, detail: str, level_db: float, address: str | None
    ) -> None:
        gain = float(db_to_gain(level_db))
        self.left *= gain
        self.right *= gain
        self.steps.append(
            Step(
                kind=kind,
                title=title,
                detail=detail,
                gain_db=level_db,
                open=gain > 0.0,
                address=address,
            )
        )

    def passed_by(self, kind: str, title: str, detail: str, address: str) -> None:
        self.steps.append(
            Step(kind=kind, title=title, detail=detail, in_path=False, address=address)
        )

    def stop(self, code: str, says: str, remedy: Remedy | None) -> None:
        self.left = self.right = 0.0
        self.reasons.append(Reason(code=code, says=says, remedy=remedy))


def setting(says: str, address: str, value: Value) -> Remedy:
    """The remedy that sets one address."""
    return Remedy(says=says, moves={address: value})
