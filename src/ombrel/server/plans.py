"""What an edit wants, told when its turn comes: apart from models, so the wire needs no ORM."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from uuid import UUID

from ombrel.core import Asked, Flow, Show

__all__ = ["Plan", "Planned", "Turn"]


@dataclass(frozen=True, slots=True)
class Turn:
    """What a plan may look at when its turn comes."""

    show_id: UUID
    author_id: int | None
    show: Show
    flow: Flow


@dataclass(frozen=True, slots=True)
class Planned:
    """The moves of an edit and its words ("": they are found). `turns`: for an undo or redo, the

    gesture that it turns back.
    """

    moves: Mapping[str, Asked]
    says: str = ""
    turns: str = ""


Plan = Callable[[Turn], Planned]
