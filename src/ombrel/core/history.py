"""Undo and redo, for each person apart: which of the log's entries is the next one to turn back."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from .errors import NothingToRedo, NothingToUndo

__all__ = ["Entry", "next_redo", "next_undo"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """One person's change in the log. `gesture`: what was one movement of the hand shares it.

    `turns`: for an undo or a redo, the gesture that it turned back.
    """

    kind: Literal["edit", "undo", "redo"]
    gesture: str
    turns: str = ""


def _stacks(entries: Iterable[Entry]) -> tuple[list[str], list[str]]:
    """Gestures that can be undone and redone, the next one last."""
    done: list[str] = []
    undone: list[str] = []
    for entry in entries:
        if entry.kind == "undo":
            if entry.turns in done:
                done.remove(entry.turns)
                undone.append(entry.turns)
        elif entry.kind == "redo":
            if entry.turns in undone:
                undone.remove(entry.turns)
                done.append(entry.turns)
        else:
            if entry.gesture not in done:
                done.append(entry.gesture)
            undone.clear()  # a new move starts a new future
    return done, undone


def next_undo(entries: Iterable[Entry]) -> str:
    """The gesture that this person's undo turns back. `entries`: theirs, oldest first.

    Raises NothingToUndo.

    >>> next_undo([Entry(kind="edit", gesture="a"), Entry(kind="edit", gesture="b"),
    ...            Entry(kind="undo", gesture="u", turns="b")])
    'a'
    """
    done, _ = _stacks(entries)
    if not done:
        raise NothingToUndo
    return done[-1]


def next_redo(entries: Iterable[Entry]) -> str:
    """The gesture that this person's redo makes again. Raises NothingToRedo."""
    _, undone = _stacks(entries)
    if not undone:
        raise NothingToRedo
    return undone[-1]
