"""Undo and redo, for each person apart: which of the log's entries is the next one to turn back."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ..values import NothingToRedo, NothingToUndo

__all__ = ["Entry", "next_redo", "next_undo"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """One person's change in the log. `gesture`: what was one movement of the hand shares it.

    `turns`: for an undo or a redo, the gesture that it turned back.
    """

    kind: Literal["edit", "undo", "redo"]
    gesture: str
    turns: str = ""


def next_undo(newest_first: Iterable[Entry]) -> str:
    """The gesture that this person's undo turns back: the newest that stands.

    `newest_first`: their entries; no more of them are taken than it needs. Raises NothingToUndo.

    >>> next_undo([Entry(kind="undo", gesture="u", turns="b"), Entry(kind="edit", gesture="b"),
    ...            Entry(kind="edit", gesture="a")])
    'a'
    """
    undone: set[str] = set()
    for entry in newest_first:
        gesture = entry.turns or entry.gesture
        if gesture in undone:
            continue
        if entry.kind != "undo":
            return gesture
        undone.add(gesture)
    raise NothingToUndo


def next_redo(newest_first: Iterable[Entry]) -> str:
    """The gesture that this person's redo makes again: the newest undone, with no edit since.

    Raises NothingToRedo.
    """
    made_again: set[str] = set()
    for entry in newest_first:
        if entry.kind == "edit":
            break  # a new move starts a new future
        if entry.kind == "redo":
            made_again.add(entry.turns)
        elif entry.turns not in made_again:
            return entry.turns
    raise NothingToRedo
