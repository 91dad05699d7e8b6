"""What an edit wants, told when its turn comes: apart from models, so the wire needs no ORM."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from uuid import UUID

from ombrel.core import (
    Asked,
    Carry,
    Flow,
    Followed,
    NoSuchPoint,
    Show,
    TypedStrips,
    strips_text,
)

__all__ = ["Plan", "Planned", "Turn", "saying"]


def _no_history(revision: int) -> Show:
    raise NoSuchPoint(revision, 0)


@dataclass(frozen=True, slots=True)
class Turn:
    """What a plan may look at when its turn comes."""

    show_id: UUID
    author_id: int | None
    show: Show
    followed: Followed
    # the show as it stood after a revision; what cannot read the log has no history
    at: Callable[[int], Show] = _no_history
    author: str = ""
    in_hand: frozenset[str] = frozenset()  # what hands are on just now
    left_s: Mapping[str, float] = field(default_factory=dict)  # of what is on its way, how long

    @property
    def flow(self) -> Flow:
        """The flow of the show, as it stands when the turn comes."""
        return self.followed.flow

    def still(self, addresses: Iterable[str]) -> Mapping[str, float]:
        """How long what is on its way among some addresses still takes: a step goes with it."""
        return {one: self.left_s[one] for one in addresses if one in self.left_s}


@dataclass(frozen=True, slots=True)
class Planned:
    """The moves of an edit and its words ("": they are found). `turns`: for an undo or redo, the

    gesture that it turns back. `carry`: a hand's, which gangs follow; `in_hand`: and there it
    stays; `sure`: and gangs may jump by it, since that was shown. `remedy`: one of Ombrel's own.
    `own`: it names own values, beneath what fittings lay over them. `seconds`: how long what it
    moves takes to get there, all alike or by address; 0: it jumps. `renumbered`: new names of
    strips by their old ones, where it gives them other numbers (None: one is gone). `begins`: a
    show that was checked when it was made, for one that is blank. `told`: what cannot be as asked,
    for who looks at it beforehand. `cued`: asked for from outside, where some things take a hand.
    """

    moves: Mapping[str, Asked]
    says: str = ""
    turns: str = ""
    carry: Carry | None = None
    in_hand: bool = False
    sure: bool = False
    remedy: bool = False
    own: bool = False
    seconds: float | Mapping[str, float] = 0.0
    renumbered: Mapping[str, str | None] = field(default_factory=dict)
    begins: Show | None = None
    told: tuple[str, ...] = ()
    cued: bool = False


Plan = Callable[[Turn], Planned]


def saying(says: str, *typed: TypedStrips, most: int = 200) -> str:
    """Words of an edit, with what of typed ranges is not in use and was not taken."""
    unused = [strip for one in typed for strip in one.unused]
    left_out = f"; not in use, left out: {strips_text(unused)}" if unused else ""
    return f"{says[: most - len(left_out)]}{left_out}"[:most]
