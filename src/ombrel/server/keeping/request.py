"""What goes through the door: one edit that somebody asks for, and what becomes of it."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from uuid import UUID

from ombrel.core import ConsoleError

from .. import models
from ..asks.plans import Plan

__all__ = ["Done", "Outcome", "Refused", "Request"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Request:
    """One edit that somebody asks for. `edit_id`: sent again it counts once.

    `plan`: what it wants; an undo or redo has none: it is found in the log. `author`: their name;
    `seen`: the revision that a hand's screen had when the hand began (None: nothing is known);
    `page`, `connection`: whose hand it is (see `passing`). `joins`: what is alike in places of one
    hand of which a later one does for an earlier one (None: it is no such place); `overtook`: the
    ids of those that this one does for. `phone`, with the digest of its `cookie`: a performer's,
    which moves what its link names and nothing else. `turned_by`: who undoes for somebody else;
    `turns`: the gesture that is undone, whatever was done since ("": the newest). `beside`: what is
    written with it, in the same transaction, whatever became of it. `trusted`: nobody's role judges
    it: the server's own, or of who was judged when they let it (cues, which somebody armed). What
    has no author is the server's own too.
    """

    edit_id: UUID
    author_id: int | None
    gesture: str
    plan: Plan | None = None
    kind: models.Change.Kind = models.Change.Kind.EDIT
    author: str = ""
    seen: int | None = None
    page: str = ""
    connection: str = ""
    joins: Hashable | None = None
    overtook: tuple[UUID, ...] = ()
    phone: UUID | None = None
    cookie: str = ""
    turned_by: str = ""
    turns: str = ""
    beside: "Callable[[Outcome], None] | None" = None
    trusted: bool = False

    @property
    def is_undo(self) -> bool:
        return self.kind != models.Change.Kind.EDIT

    @property
    def judged(self) -> int | None:
        """The person whose role in the show judges it."""
        return None if self.trusted or self.phone is not None else self.author_id


@dataclass(frozen=True, slots=True)
class Done:
    """An edit that is kept: its revision, what it did in words, and what it left alone."""

    revision: int
    says: str


@dataclass(frozen=True, slots=True)
class Refused:
    """An edit that changed nothing, and why."""

    error: ConsoleError


Outcome = Done | Refused
