"""The one door for change: a batch of edits, one transaction, one entry of the log for each."""

import logging
import time
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import partial
from uuid import UUID

from django.db import Error, transaction
from django.db.models import QuerySet

from ombrel.core import (
    CLOSING,
    Asked,
    Broken,
    Change,
    ConsoleError,
    Edited,
    Entry,
    Fade,
    Fading,
    Hand,
    Renumbered,
    SocketTaken,
    bearing_on_undo,
    bears_on_findings,
    carried_with,
    check_jumps,
    check_remedy,
    check_same_person,
    described,
    edited,
    fading,
    hand_after,
    joined,
    next_redo,
    next_told,
    next_undo,
    standing_at,
    strip_name,
    strips_in,
    table_heads,
    undoing,
    undoing_renumbered,
)
from ombrel.core import Show as CoreShow

from . import models
from .live import State, fading_to_store, for_pages, from_wire, live_of, to_wire
from .log import moved_by_others, newest_first, renumbered_since, show_at, who_changed
from .packing import as_kept
from .plans import Plan, Planned, Turn

__all__ = ["Done", "Frame", "Refused", "Request", "commit"]

_LOG = logging.getLogger(__name__)
# Values at these leaves decide which rows and columns the table has, and what their heads say.
_LAYOUT = ("/source", "/spare", "/name", "/format", "/label", "/mono/on", "/level", "/send", "/on")


@dataclass(frozen=True, slots=True, kw_only=True)
class Request:
    """One edit that somebody asks for. `edit_id`: sent again it counts once.

    `plan`: what it wants; an undo or redo has none: it is found in the log. `author`: their name;
    `seen`: the revision that a hand's screen had when the hand began (None: nothing is known).
    """

    edit_id: UUID
    author_id: int | None
    gesture: str
    plan: Plan | None = None
    kind: models.Change.Kind = models.Change.Kind.EDIT
    author: str = ""
    seen: int | None = None


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
    whether rows or columns worth drawing changed; `noticed`: whether findings may have;
    `fades`: what sets out for where it stands now; `held`: whether scenes hold something else.
    """

    before: int
    revision: int
    values: dict[str, object] = field(default_factory=dict)
    cells: tuple[tuple[int, int], ...] = ()
    layout: bool = False
    noticed: bool = False
    fades: tuple[Fade, ...] = ()
    held: bool = False


@dataclass(slots=True)
class _Passing:
    """What a batch hands on that is no part of the show: hands, and what is on its way."""

    hands: dict[str, Hand]
    fading: Fading

    def held_beside(self, gesture: str) -> frozenset[str]:
        """All that other hands are on."""
        others = (hand.holds for other, hand in self.hands.items() if other != gesture)
        return frozenset[str]().union(*others)

    def let_go_of(self, to: Mapping[str, str | None]) -> None:
        """No hand holds, and nothing is on its way, by a name that means another strip now."""
        renumbered = {*to, *to.values()}
        if renumbered:
            self.hands = {
                gesture: hand
                for gesture, hand in self.hands.items()
                if all(renumbered.isdisjoint(strips_in(address)) for address in hand.leads)
            }
            self.fading = {
                address: fade
                for address, fade in self.fading.items()
                if renumbered.isdisjoint(strips_in(address))
            }


def commit(show_id: UUID, requests: list[Request]) -> tuple[list[Done | Refused], Frame, State]:
    """Make edits, each whole or not at all, all in one transaction; what is returned is kept.

    An edit that the core refuses does not stop the others. The database's own errors pass through:
    then nothing of the batch is kept and nothing in memory has moved.
    """
    live = live_of(show_id)
    with live.lock, transaction.atomic(durable=True):
        row = models.Show.objects.select_for_update().get(pk=show_id)
        start = state = live.caught_up(row.revision)
        live_fading = live.fading
        pass_on = _Passing(dict(live.hands), live.fading)
        known = dict(
            models.Change.objects.filter(
                show_id=show_id, edit_id__in=[request.edit_id for request in requests]
            ).values_list("edit_id", "revision")
        )
        outcomes: list[Done | Refused] = []
        entries: list[models.Change] = []
        cells: set[tuple[int, int]] = set()
        stood: set[str] = set()  # what stands otherwise, where fittings lie over own values too
        for request in requests:
            if request.edit_id in known:
                outcomes.append(Done(known[request.edit_id], ""))
                continue
            try:
                state, entry, after = _made(show_id, state, request, tuple(entries), pass_on)
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
            cells.update(map(tuple, after.cells.tolist()))
            stood.update(after.stood.new)
            known[request.edit_id] = state.revision
            outcomes.append(Done(state.revision, entry.says))
        values: dict[str, object] = {}
        for entry in entries:
            values.update(entry.new)
        shown = for_pages(to_wire({a: state.show[a] for a in {*values, *stood}}))
        if entries:
            if pass_on.fading or row.fading:
                row.fading = fading_to_store(pass_on.fading)
            _keep(row, entries, values, state)
        # Lock and transaction end together: memory moves on only if the commit below succeeds.
        transaction.on_commit(lambda: live.moved_on(state, pass_on.hands, pass_on.fading))
    moved = {*values, *stood}
    layout = any(address.endswith(_LAYOUT) for address in moved) and (
        table_heads(start.show, start.flow) != table_heads(state.show, state.flow)
    )
    noticed = bears_on_findings(moved, start.flow, state.flow)
    before = live_fading.values()
    setting_out = (fade for fade in pass_on.fading.values() if fade not in before)
    fades = tuple(fade for fade in setting_out if fade.law != CLOSING)
    frame = Frame(
        start.revision, state.revision, shown, tuple(sorted(cells)), layout, noticed,
        fades, held=any("/holds/" in address for address in values),
    )  # fmt: skip
    return outcomes, frame, state


def _made(
    show_id: UUID,
    state: State,
    request: Request,
    pending: tuple[models.Change, ...],
    pass_on: "_Passing",
) -> tuple[State, models.Change | None, Edited]:
    # of entries in the same tick, not yet in the log, none is a point to go back to
    kept = state.revision - len(pending)
    at = partial(_shown_at, show_id, state.show, kept, pending)
    held = pass_on.held_beside(request.gesture)
    turn = Turn(show_id, request.author_id, state.show, state.flow, at, request.author, held)
    if request.plan is not None:
        planned = request.plan(turn)
    else:
        planned = _turned(turn, pending, redo=request.kind == models.Change.Kind.REDO)
    carry, asked = planned.carry, planned.moves
    now_s = time.monotonic()
    sounding = None
    if carry is not None:
        carry = carried_with(state.show, pass_on.hands, request.gesture, planned.moves, carry)
        sounding = standing_at(state.show, pass_on.fading, now_s)
    after = edited(state.show, state.flow, planned.moves, carry, own=planned.own, sounding=sounding)
    if carry is not None and not planned.held and not planned.sure:
        check_jumps(sounding or state.show, planned.moves, after)
    if planned.remedy:
        check_remedy(state.show, state.flow, planned.moves, after)
    if request.seen is not None and not planned.own:
        named = {one for address in {*asked, *after.stood.new} for one in strips_in(address)}
        if others := named & renumbered_since(show_id, request.seen, kept, pending):
            raise Renumbered({strip_name(state.show, one) for one in others})
        changed = partial(who_changed, show_id, request.seen, kept, pending)
        check_same_person(state.show, {*asked, *after.stood.new}, changed)
    if carry is not None and planned.held:
        pass_on.hands[request.gesture] = hand_after(state.show, planned.moves, carry, after.carried)
    if not after.change and request.kind == models.Change.Kind.EDIT:
        return state, None, after
    pass_on.let_go_of(planned.renumbered)
    pass_on.fading = fading(
        state.show, after.stood, pass_on.fading, seconds=planned.seconds, at_s=now_s,
        after=after.show, taken=after.written if carry is not None else (),
    )  # fmt: skip
    old, new = as_kept(to_wire(after.change.old), to_wire(after.change.new))  # type: ignore[arg-type]
    entry = models.Change(
        show_id=show_id,
        revision=state.revision + 1,
        edit_id=request.edit_id,
        author_id=request.author_id,
        kind=request.kind,
        gesture=request.gesture,
        turns=planned.turns,
        says=_said(state.show, after, planned),
        old=old,
        new=new,
        renumbered=dict(planned.renumbered),
    )
    return State(entry.revision, after.show, after.flow), entry, after


def _said(before: CoreShow, after: Edited, planned: Planned) -> str:
    says = planned.says or described(after.show, after.change, planned.moves)
    return "; ".join(filter(None, (says, next_told(before, after.show))))[:200]


def _shown_at(
    show_id: UUID, show: CoreShow, kept: int, pending: tuple[models.Change, ...], at: int
) -> CoreShow:
    """The show as it stood after a revision that is in the log. Raises NoSuchPoint."""
    for entry in reversed(pending):
        show = show.with_values(from_wire(entry.old))
    return show_at(show_id, show, kept, at)


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
    row.save(update_fields=["revision", "name", "fading"])


def _own(turn: Turn) -> QuerySet[models.Change]:
    return models.Change.objects.filter(show_id=turn.show_id, author_id=turn.author_id)


def _newest_first(turn: Turn, pending: tuple[models.Change, ...]) -> Iterator[Entry]:
    """The log of a person, read only as far as somebody looks."""
    for entry in reversed(pending):
        if entry.author_id == turn.author_id:
            yield Entry(kind=entry.kind, gesture=entry.gesture, turns=entry.turns)  # type: ignore[arg-type]
    for entry in newest_first(_own(turn).only("revision", "kind", "gesture", "turns"), page=200):
        yield Entry(kind=entry.kind, gesture=entry.gesture, turns=entry.turns)  # type: ignore[arg-type]


def _turned(turn: Turn, pending: tuple[models.Change, ...], *, redo: bool) -> Planned:
    """The plan of an undo or redo: a person's gesture, back, as far as nobody moved on since."""
    log = _newest_first(turn, pending)
    gesture = next_redo(log) if redo else next_undo(log)
    ahead = [entry for entry in pending if entry.author_id == turn.author_id]
    edits = [*_own(turn).filter(kind="edit", gesture=gesture).order_by("revision")]
    edits += [entry for entry in ahead if entry.kind == "edit" and entry.gesture == gesture]
    turned = [*_own(turn).filter(turns=gesture).order_by("-revision")[:1]]
    turned += [entry for entry in ahead if entry.turns == gesture]
    # What stands in the show for this gesture: its edits, or its newest undo or redo.
    acts = turned[-1:] if turned else edits
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
    moves, left, refused = _permitted(turn, *found)
    verb = "Again" if redo else "Undone"
    words = f"{verb}: {edits[-1].says if edits else 'an earlier change'}"
    if refused:
        words = f"Passed by, it stays as it is: {refused}"
    elif left:
        words += f" ({left} left as somebody set them since)"
    back = {new: old for old, new in to.items() if new is not None} if moves else {}
    return Planned(moves, words, gesture, own=True, renumbered=back)


def _permitted(
    turn: Turn, moves: dict[str, Asked], left: tuple[str, ...]
) -> tuple[Mapping[str, Asked], int, ConsoleError | None]:
    """The moves without those into sockets that somebody has taken since, and how many are left.

    What the show as it stands now refuses otherwise (it would close a loop) is passed by whole,
    with the refusal: it bars nobody from what they did before it.
    """
    count = len(left)
    while True:
        try:
            edited(turn.show, turn.flow, moves, own=True)
        except SocketTaken as taken:
            held = [one for one in (taken.address, taken.held_at) if one in moves]
            if not held:
                return {}, count + len(moves), taken
            del moves[held[0]]
            count += 1
        except ConsoleError as refused:
            return {}, count + len(moves), refused
        else:
            return moves, count, None
