"""The one door for change: a batch of edits, one transaction, one entry of the log for each."""

import logging
import time
from collections.abc import Sequence
from dataclasses import replace
from functools import partial
from uuid import UUID

from django.db import Error, transaction

from ombrel.core import (
    CLOSING,
    Broken,
    ConsoleError,
    Expanded,
    Followed,
    Renumbered,
    begun,
    carried_with,
    check_hands_only,
    check_jumps,
    check_remedy,
    check_same_person,
    described,
    edited,
    expanded,
    fading,
    hand_after,
    next_told,
    standing_at,
    strip_name,
    strips_in,
)
from ombrel.core import Show as CoreShow

from .. import models
from ..asks.plans import Planned, Turn
from .frames import Frame, frame_between
from .judge import Judge
from .live import live_of
from .log import renumbered_since, show_at, who_changed
from .packing import as_kept
from .passing import Ended, Passing, Renewed
from .request import Done, Outcome, Refused, Request
from .states import State, from_wire, to_wire
from .undoing import turned

__all__ = ["commit", "kept_of"]

_LOG = logging.getLogger(__name__)
_COUNTED = ("edit_id", "revision")


def commit(
    show_id: UUID, asked: Sequence[Request | Ended | Renewed]
) -> tuple[list[Outcome], Frame, State]:
    """Make edits, each whole or not at all, all in one transaction; what is returned is kept.

    An edit that the core refuses does not stop the others; hands end where they stand among them.
    The database's own errors pass through: then nothing of the batch is kept and nothing in memory
    has moved.
    """
    live = live_of(show_id)
    with live.lock, transaction.atomic(durable=True):
        row = models.Show.objects.select_for_update().get(pk=show_id)
        start = live.caught_up(row)
        was = live.passing
        batch = _Batch(show_id, start, was.copy(), _known(show_id, asked))
        state = batch.made(asked)
        stored = _keep(row, batch, state, live.stored)
        for one, outcome in zip(asked, batch.outcomes, strict=True):
            if isinstance(one, Request) and one.beside is not None:
                one.beside(outcome)
        frame = None
        if batch.entries:
            before = was.fading.values()
            setting_out = (f for f in batch.passing.fading.values() if f not in before)
            fades = [fade for fade in setting_out if fade.law != CLOSING]
            frame = frame_between(start, state, batch.own, batch.stood, batch.followed.cells, fades)
        # Lock and transaction end together: memory moves on only if the commit below succeeds.
        transaction.on_commit(
            lambda: live.moved_on(state, batch.passing, stored, frame, batch.entries)
        )
    return batch.outcomes, frame or Frame(start.revision, start.revision), state


def _known(show_id: UUID, asked: Sequence[Request | Ended | Renewed]) -> dict[UUID, int]:
    """Revisions of the edits among these that are kept already: an id counts once."""
    requests = [one for one in asked if isinstance(one, Request)]
    return kept_of(show_id, [id for one in requests for id in (one.edit_id, *one.overtook)])


def kept_of(show_id: UUID, ids: Sequence[UUID]) -> dict[UUID, int]:
    """Of the edits with these ids those that are kept, with their revisions."""
    if not ids:
        return {}
    log, beside = (
        kept.objects.filter(show_id=show_id, edit_id__in=ids).order_by().values_list(*_COUNTED)
        for kept in (models.Change, models.Overtaken)
    )
    return dict(log.union(beside, all=True))


class _Batch:
    """Edits one after another, from a state on, as far as they are neither refused nor known.

    `known`: ids that count already; `own`, `stood`: the addresses at which own values moved, and
    where something else stands.
    """

    def __init__(
        self, show_id: UUID, start: State, passing: Passing, known: dict[UUID, int]
    ) -> None:
        self.show_id, self.passing, self.known = show_id, passing, known
        self.revision, self.show = start.revision, start.show
        self.kept = start.revision
        self.followed = Followed(start.flow)
        self.outcomes: list[Outcome] = []
        self.entries: list[models.Change] = []
        self.overtaken: list[models.Overtaken] = []
        self.own: dict[str, object] = {}
        self.stood: set[str] = set()
        self.judge = Judge(show_id)

    def made(self, asked: Sequence[Request | Ended | Renewed]) -> State:
        """The state after all of them."""
        self.passing.lapsed()
        self.judge.hears(one for one in asked if isinstance(one, Request))
        for one in asked:
            if isinstance(one, Request):
                self.outcomes.append(self._outcome(one))
            else:
                self.passing.heard(one)
                self.outcomes.append(Done(self.revision, ""))
        return State(self.revision, self.show, self.followed.flow)

    def _outcome(self, request: Request) -> Outcome:
        if request.edit_id in self.known:
            return Done(self.known[request.edit_id], "")
        try:
            entry = self._entry(request)
        except ConsoleError as error:
            return Refused(error)
        except Error:  # the database's: none of the batch is kept, and it is tried again
            raise
        except Exception:  # a bug in one plan is no reason to lose what others moved
            _LOG.exception("an edit failed")
            return Refused(Broken())
        if entry is None:
            return Done(self.revision, "Nothing to change.")
        self.known[request.edit_id] = self.revision
        for edit_id in request.overtook:
            if edit_id not in self.known:
                self.known[edit_id] = self.revision
                self.overtaken.append(
                    models.Overtaken(show_id=self.show_id, edit_id=edit_id, revision=self.revision)
                )
        return Done(self.revision, entry.says)

    def _planned(self, request: Request) -> Planned:
        # of entries in the same tick, not yet in the log, none is a point to go back to
        pending = tuple(self.entries)
        at = partial(_shown_at, self.show_id, self.show, self.kept, pending)
        held = self.passing.held_beside(request.gesture)
        now_s = time.monotonic()
        left_s = {
            one.address: one.begun_s + one.seconds - now_s for one in self.passing.fading.values()
        }
        turn = Turn(
            self.show_id, request.author_id, self.show, self.followed, at, request.author, held,
            {address: left for address, left in left_s.items() if left > 0.0},
        )  # fmt: skip
        if request.plan is not None:
            return request.plan(turn)
        redo = request.kind == models.Change.Kind.REDO
        return turned(turn, pending, redo=redo, by=request.turned_by, gesture=request.turns)

    def _entry(self, request: Request) -> models.Change | None:
        show, passing = self.show, self.passing
        planned = self._planned(request)
        carry, asked = planned.carry, planned.moves
        now_s = time.monotonic()
        sounding = None
        if carry is not None:
            hands = passing.by_gesture()
            carry = carried_with(show, hands, request.gesture, asked, carry)
            sounding = standing_at(show, passing.fading, now_s)
        if planned.begins is not None and not self.revision:
            after = begun(show, planned.begins)
        else:
            after = expanded(
                show, asked, carry, own=planned.own, sounding=sounding,
                begins=request.phone is None and not request.is_undo,
            )  # fmt: skip
        self.judge.check(request, show, asked, after, self.entries)
        if carry is not None and not planned.in_hand and not planned.sure:
            check_jumps(sounding or show, asked, after)
        if planned.cued:
            check_hands_only(after.change.new)
        if planned.remedy:
            flow = self.followed.flow
            check_remedy(show, flow, asked, edited(show, flow, asked, own=planned.own))
        if request.seen is not None and not planned.own:
            self._check_seen(request.seen, {*asked, *after.stood.new})
        passing = replace(passing, hands=dict(passing.hands))  # its own, until it is made
        if carry is not None and planned.in_hand:
            hand = hand_after(show, asked, carry, after.carried)
            passing.holds(request.gesture, hand, request.page, request.connection)
        entry = None
        if after.change or request.kind != models.Change.Kind.EDIT:
            passing.let_go_of(planned.renumbered)
            passing.fading = fading(
                show, after.stood, passing.fading, seconds=planned.seconds, at_s=now_s,
                after=after.show, taken=after.written if carry is not None else (),
            )  # fmt: skip
            entry = self._written(request, planned, after)
        # last, since it is the one thing that cannot be taken back: all or nothing of an edit
        self.followed.moved(after.stood)
        self.passing = passing
        if entry is not None:
            self.revision, self.show = entry.revision, after.show
            self.entries.append(entry)
            self.own.update(entry.new)
            self.stood.update(after.stood.new)
            self.judge.made(request, entry, show, self.show)
        return entry

    def _check_seen(self, seen: int, addresses: set[str]) -> None:
        """Raise Renumbered or another's refusal if a hand's screen saw something else there."""
        since, entries = seen, tuple(self.entries)
        known = live_of(self.show_id).entries_since(seen)
        if known is not None:  # as nearly always: nothing is asked of the database
            since, entries = self.kept, (*known, *entries)
        named = {one for address in addresses for one in strips_in(address)}
        if others := named & renumbered_since(self.show_id, since, self.kept, entries):
            raise Renumbered({strip_name(self.show, one) for one in others})
        changed = partial(who_changed, self.show_id, since, self.kept, entries)
        check_same_person(self.show, addresses, changed)

    def _written(self, request: Request, planned: Planned, after: Expanded) -> models.Change:
        """The entry of the log."""
        old, new = as_kept(to_wire(after.change.old), to_wire(after.change.new))  # type: ignore[arg-type]
        return models.Change(
            show_id=self.show_id,
            revision=self.revision + 1,
            edit_id=request.edit_id,
            author_id=request.author_id,
            kind=request.kind,
            gesture=request.gesture,
            turns=planned.turns,
            says=_said(self.show, after, planned),
            old=old,
            new=new,
            renumbered=dict(planned.renumbered),
        )


def _said(before: CoreShow, after: Expanded, planned: Planned) -> str:
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
    row: models.Show, batch: _Batch, state: State, stored: tuple[Sequence[object], Sequence[object]]
) -> tuple[Sequence[object], Sequence[object]]:
    """Write what a batch made; gives hands and fades as the row has them now."""
    hands, fades = stored
    written = []
    if batch.passing.hands_moved:
        hands = row.hands = batch.passing.stored_hands()
        written.append("hands")
    if batch.entries and (batch.passing.fading or row.fading):
        fades = row.fading = batch.passing.stored_fading()
        written.append("fading")
    if not batch.entries:
        if written:
            row.save(update_fields=written)
        return hands, fades
    models.Change.objects.bulk_create(batch.entries)
    models.Overtaken.objects.bulk_create(batch.overtaken)
    models.Setting.objects.bulk_create(
        [
            models.Setting(show_id=row.pk, address=address, value=value)
            for address, value in sorted(batch.own.items())
        ],
        update_conflicts=True,
        unique_fields=["show", "address"],
        update_fields=["value"],
        batch_size=2_000,
    )
    row.revision = state.revision
    if "show/name" in batch.own:
        row.name = state.show.text("show/name") or row.name
    row.save(update_fields=["revision", "name", *written])
    return hands, fades
