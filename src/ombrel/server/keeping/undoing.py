"""Undo and redo: a person's gesture found in the log, and the plan that turns it back."""

from collections.abc import Iterator
from functools import partial

from django.db.models import QuerySet

from ombrel.core import (
    Change,
    Entry,
    bearing_on_undo,
    joined,
    next_redo,
    next_undo,
    permitted,
    refusal,
    strips_in,
    undoing,
    undoing_renumbered,
)

from .. import models
from ..asks.plans import Planned, Turn
from .log import moved_by_others, newest_first, renumbered_since
from .states import from_wire

__all__ = ["turned"]


def _own(turn: Turn) -> QuerySet[models.Change]:
    return models.Change.objects.filter(show_id=turn.show_id, author_id=turn.author_id)


def _newest_first(turn: Turn, pending: tuple[models.Change, ...]) -> Iterator[Entry]:
    """The log of a person, read only as far as somebody looks."""
    for entry in reversed(pending):
        if entry.author_id == turn.author_id:
            yield Entry(kind=entry.kind, gesture=entry.gesture, turns=entry.turns)  # type: ignore[arg-type]
    for entry in newest_first(_own(turn).only("revision", "kind", "gesture", "turns"), page=200):
        yield Entry(kind=entry.kind, gesture=entry.gesture, turns=entry.turns)  # type: ignore[arg-type]


def turned(turn: Turn, pending: tuple[models.Change, ...], *, redo: bool) -> Planned:
    """The plan of an undo or redo: a person's gesture, back, as far as nobody moved on since."""
    log = _newest_first(turn, pending)
    gesture = next_redo(log) if redo else next_undo(log)
    ahead = [entry for entry in pending if entry.author_id == turn.author_id]
    edits = [*_own(turn).filter(kind="edit", gesture=gesture).order_by("revision")]
    edits += [entry for entry in ahead if entry.kind == "edit" and entry.gesture == gesture]
    acted = [*_own(turn).filter(turns=gesture).order_by("-revision")[:1]]
    acted += [entry for entry in ahead if entry.turns == gesture]
    # What stands in the show for this gesture: its edits, or its newest undo or redo.
    acts = acted[-1:] if acted else edits
    others = partial(moved_by_others, turn.show_id, turn.author_id, acts[-1].revision, pending)
    to: dict[str, str | None] = {}
    if len(acts) == 1 and acts[0].renumbered and acts[0] not in pending:
        to = acts[0].renumbered
        around = turn.at(acts[0].revision - 1), turn.at(acts[0].revision)
        found = undoing_renumbered(turn.show, *around, to, others())
    else:
        whole = joined([Change(from_wire(e.old), from_wire(e.new)) for e in acts])  # type: ignore[arg-type]
        last = acts[-1].revision
        other = renumbered_since(turn.show_id, last, last + 1, pending)
        elsewhere = {a for a in whole.new if other and not other.isdisjoint(strips_in(a))}
        found = undoing(turn.show, whole, others(bearing_on_undo(whole)) | elsewhere)
    moves, left_out, refused = permitted(turn.show, turn.flow, found[0])
    left = len(found[1]) + left_out
    verb = "Again" if redo else "Undone"
    words = f"{verb}: {edits[-1].says if edits else 'an earlier change'}"
    if refused:
        words = f"Left out, it stays as it is: {refusal(refused, turn.show)}"
    elif left:
        words += f" ({left} left as somebody set them since)"
    back = {new: old for old, new in to.items() if new is not None} if moves else {}
    return Planned(moves, words, gesture, own=True, renumbered=back)
