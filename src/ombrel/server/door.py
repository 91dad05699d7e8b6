"""The one door for change: a batch of edits, one transaction, one entry of the log for each."""

import logging
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from uuid import UUID

from django.db import Error, transaction

from ombrel.core import (
    Asked,
    Broken,
    Change,
    ConsoleError,
    Entry,
    Flow,
    described,
    joined,
    listeners,
    made,
    next_redo,
    next_undo,
    sources,
    undoing,
)
from ombrel.core import Show as CoreShow

from . import models
from .live import State, from_wire, live_of, to_wire

__all__ = ["Done", "Frame", "Plan", "Refused", "Request", "commit", "redo_of", "undo_of"]

# What an edit wants, told when its turn comes: moves for the show as it then stands, and words.
Plan = Callable[["Turn"], tuple[Mapping[str, Asked], str]]
_LOG = logging.getLogger(__name__)
_LOOK_BACK = 400  # entries of a person's own that undo can reach


@dataclass(frozen=True, slots=True)
class Turn:
    """What a plan may look at when its turn comes."""

    show_id: UUID
    author_id: int | None
    show: CoreShow
    flow: Flow
    pending: tuple[models.Change, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Request:
    """One edit that somebody asks for. `edit_id`: sent again it counts once."""

    edit_id: UUID
    author_id: int | None
    gesture: str
    plan: Plan
    kind: models.Change.Kind = models.Change.Kind.EDIT


@dataclass(frozen=True, slots=True)
class Done:
    """An edit that is kept: its revision, what it did in words, and what it left alone."""

    revision: int
    says: str


@dataclass(frozen=True, slots=True)
class Refused:
    """An edit that changed nothing, and why."""

    error: ConsoleError


@dataclass(frozen=True, slots=True)
class Frame:
    """What one transaction changed, for every open screen.

    `values`: new values on the wire; `cells`: (row, column) that differ in the table; `layout`:
    whether rows or columns worth drawing changed.
    """

    before: int
    revision: int
    values: dict[str, object] = field(default_factory=dict)
    cells: tuple[tuple[int, int], ...] = ()
    layout: bool = False


def commit(show_id: UUID, requests: list[Request]) -> tuple[list[Done | Refused], Frame, State]:
    """Make edits, each whole or not at all, all in one transaction; what is returned is kept.

    An edit that the core refuses does not stop the others. The database's own errors pass through:
    then nothing of the batch is kept and nothing in memory has moved.
    """
    live = live_of(show_id)
    with live.lock, transaction.atomic(durable=True):
        row = models.Show.objects.select_for_update().get(pk=show_id)
        start = state = live.caught_up(row.revision)
        known = dict(
            models.Change.objects.filter(
                show_id=show_id, edit_id__in=[request.edit_id for request in requests]
            ).values_list("edit_id", "revision")
        )
        outcomes: list[Done | Refused] = []
        entries: list[models.Change] = []
        cells: set[tuple[int, int]] = set()
        for request in requests:
            if request.edit_id in known:
                outcomes.append(Done(known[request.edit_id], ""))
                continue
            try:
                state, entry, differing = _made(show_id, state, request, tuple(entries))
            except ConsoleError as error:
                outcomes.append(Refused(error))
                continue
            except Error:  # the database's: none of the batch is kept, and it is tried again
                raise
            except Exception:  # a bug in one plan is no reason to lose what others moved
                _LOG.exception("an edit failed")
                outcomes.append(Refused(Broken()))
                continue
            if entry is None:
                outcomes.append(Done(state.revision, "Nothing to change."))
                continue
            entries.append(entry)
            cells.update(differing)
            known[request.edit_id] = state.revision
            outcomes.append(Done(state.revision, entry.says))
        values: dict[str, object] = {}
        for entry in entries:
            values.update(entry.new)
        if entries:
            _keep(row, entries, values, state)
        # Lock and transaction end together: memory moves on only if the commit below succeeds.
        transaction.on_commit(lambda: setattr(live, "state", state))
    layout = sources(start.show) != sources(state.show)
    layout = layout or listeners(start.show) != listeners(state.show)
    frame = Frame(start.revision, state.revision, values, tuple(sorted(cells)), layout)
    return outcomes, frame, state


def _made(
    show_id: UUID, state: State, request: Request, pending: tuple[models.Change, ...]
) -> tuple[State, models.Change | None, list[tuple[int, int]]]:
    turn = Turn(show_id, request.author_id, state.show, state.flow, pending)
    turns = ""
    moves, says = request.plan(turn)
    if request.kind != models.Change.Kind.EDIT:
        turns, says = says.split("\n", 1)
    show, change = made(state.show, moves)
    if not change and request.kind == models.Change.Kind.EDIT:
        return state, None, []
    after, cells = state.after(change, state.revision + 1)
    entry = models.Change(
        show_id=show_id,
        revision=after.revision,
        edit_id=request.edit_id,
        author_id=request.author_id,
        kind=request.kind,
        gesture=request.gesture,
        turns=turns,
        says=(says or described(show, change))[:200],
        old=to_wire(change.old),
        new=to_wire(change.new),
    )
    return after, entry, cells


def _keep(
    row: models.Show, entries: list[models.Change], values: dict[str, object], state: State
) -> None:
    models.Change.objects.bulk_create(entries)
    models.Setting.objects.bulk_create(
        [models.Setting(show=row, address=a, value=value) for a, value in sorted(values.items())],
        update_conflicts=True,
        unique_fields=["show", "address"],
        update_fields=["value"],
        batch_size=2_000,
    )
    row.revision = state.revision
    if "show/name" in values:
        row.name = state.show.text("show/name") or row.name
    row.save(update_fields=["revision", "name"])


def _own_entries(turn: Turn) -> list[models.Change]:
    kept = models.Change.objects.filter(show_id=turn.show_id, author_id=turn.author_id)
    newest = list(kept.order_by("-revision")[:_LOOK_BACK])
    pending = [entry for entry in turn.pending if entry.author_id == turn.author_id]
    return [*reversed(newest), *pending]


def _turned(turn: Turn, *, redo: bool) -> tuple[Mapping[str, Asked], str]:
    own = _own_entries(turn)
    log = [Entry(kind=e.kind, gesture=e.gesture, turns=e.turns) for e in own]  # type: ignore[arg-type]
    gesture = next_redo(log) if redo else next_undo(log)
    # What stands in the show for this gesture: its edits, or its newest undo or redo.
    edits = [e for e in own if e.kind == "edit" and e.gesture == gesture]
    turned = [e for e in own if e.turns == gesture]
    acts = turned[-1:] if turned else edits
    whole = joined([Change(from_wire(e.old), from_wire(e.new)) for e in acts])  # type: ignore[arg-type]
    moves, left = undoing(turn.show, whole)
    verb = "Again" if redo else "Undone"
    words = f"{verb}: {edits[-1].says if edits else 'an earlier change'}"
    if left:
        words += f" ({len(left)} left as somebody set them since)"
    return moves, f"{gesture}\n{words}"


def undo_of(turn: Turn) -> tuple[Mapping[str, Asked], str]:
    """The plan of an undo: this person's last gesture, back, as far as nobody moved on since."""
    return _turned(turn, redo=False)


def redo_of(turn: Turn) -> tuple[Mapping[str, Asked], str]:
    """The plan of a redo."""
    return _turned(turn, redo=True)
