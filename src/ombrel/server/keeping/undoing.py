"""Undo and redo: a person's gesture found in the log, and the plan that turns it back."""

from collections.abc import Collection, Iterator
from contextlib import suppress
from functools import partial
from uuid import UUID

from django.db.models import Max, Q, QuerySet

from ombrel.core import (
    Change,
    Entry,
    NothingToRedo,
    NothingToUndo,
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

__all__ = ["turned", "whose_turn"]


def _log_of(show_id: UUID, person_id: int | None) -> QuerySet[models.Change]:
    return models.Change.objects.filter(show_id=show_id, author_id=person_id)


def _own(turn: Turn) -> QuerySet[models.Change]:
    return _log_of(turn.show_id, turn.author_id)


def _kept(log: QuerySet[models.Change]) -> Iterator[Entry]:
    for entry in newest_first(log.only("revision", "kind", "gesture", "turns"), page=200):
        yield Entry(kind=entry.kind, gesture=entry.gesture, turns=entry.turns)  # type: ignore[arg-type]


def whose_turn(show_id: UUID, people: Collection[int], *, redo: bool) -> int:
    """Of some people the one whose gesture would be turned back (or made again) and is the newest.

    Raises NothingToUndo, NothingToRedo.
    """
    found: list[tuple[int, int]] = []
    for one in people:
        log = _log_of(show_id, one)
        with suppress(NothingToUndo, NothingToRedo):
            gesture = next_redo(_kept(log)) if redo else next_undo(_kept(log))
            acts = log.filter(Q(gesture=gesture) | Q(turns=gesture))
            found.append((acts.aggregate(last=Max("revision"))["last"], one))
    if not found:
        raise NothingToRedo if redo else NothingToUndo
    return max(found)[1]


def _newest_first(turn: Turn, pending: tuple[models.Change, ...]) -> Iterator[Entry]:
    """The log of a person, read only as far as somebody looks."""
    for entry in reversed(pending):
        if entry.author_id == turn.author_id:
            yield Entry(kind=entry.kind, gesture=entry.gesture, turns=entry.turns)  # type: ignore[arg-type]
    yield from _kept(_own(turn))


def turned(
    turn: Turn,
    pending: tuple[models.Change, ...],
    *,
    redo: bool,
    by: str = "",
    gesture: str = "",
) -> Planned:
    """The plan of an undo or redo: a person's gesture, back, as far as nobody moved on since.

    `by`: who does it for them, at the desk ("": they do it themselves); `gesture`: which one is
    undone, whatever the same person did since ("": the newest).
    """
    whose = turn.author_id
    if gesture:
        whose = None  # what the same one did since counts as others' moves
        done = _own(turn).filter(Q(gesture=gesture) | Q(turns=gesture)).order_by("-revision")
        if done.values_list("kind", flat=True).first() in (None, models.Change.Kind.UNDO):
            raise NothingToUndo
    else:
        log = _newest_first(turn, pending)
        gesture = next_redo(log) if redo else next_undo(log)
    ahead = [entry for entry in pending if entry.author_id == turn.author_id]
    edits = [*_own(turn).filter(kind="edit", gesture=gesture).order_by("revision")]
    edits += [entry for entry in ahead if entry.kind == "edit" and entry.gesture == gesture]
    acted = [*_own(turn).filter(turns=gesture).order_by("-revision")[:1]]
    acted += [entry for entry in ahead if entry.turns == gesture]
    # What stands in the show for this gesture: its edits, or its newest undo or redo.
    acts = acted[-1:] if acted else edits
    others = partial(moved_by_others, turn.show_id, whose, acts[-1].revision, pending)
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
    verb = ("Again" if redo else "Undone") + (f" by {by} at the desk" if by else "")
    words = f"{verb}: {edits[-1].says if edits else 'an earlier change'}"
    if refused:
        words = f"Left out, it stays as it is: {refusal(refused, turn.show)}"
    elif left:
        words += f" ({left} left as somebody set them since)"
    back = {new: old for old, new in to.items() if new is not None} if moves else {}
    return Planned(moves, words, gesture, own=True, renumbered=back)
