"""Who may make an edit: judged in the transaction that keeps it, by all that it changes.

A role or a link that was withdrawn a moment ago counts as withdrawn for what waits in the queue.
"""

from collections.abc import Iterable, Mapping, Sequence
from uuid import UUID

from ombrel.core import (
    Address,
    Asked,
    Expanded,
    LinkEnded,
    MovedMeanwhile,
    Show,
    check_access,
    check_phone,
    whose,
)

from .. import models
from .ear_links import follow_renumbered, leave_mixes, still_held
from .live import live_of, moves_links
from .log import moved_among, moved_by_others, whose_last
from .people import Acting, acting_in, follow_given
from .request import Request

__all__ = ["Judge"]


class Judge:
    """Of one batch: what its people and phones may do is asked for once, and again behind what

    moves it.
    """

    def __init__(self, show_id: UUID) -> None:
        self._show_id = show_id
        self._people: dict[int, Acting] = {}
        self._phones: dict[UUID, str] = {}
        self._held: dict[UUID, tuple[str, ...]] | None = None
        self._waiting: set[int] = set()

    def hears(self, requests: Iterable[Request]) -> None:
        """What a batch asks for, so that all its people are looked up as one."""
        for one in requests:
            if one.phone is not None:
                self._phones[one.phone] = one.cookie
            elif one.judged is not None:
                self._waiting.add(one.judged)

    def check(
        self,
        request: Request,
        show: Show,
        asked: Mapping[str, Asked],
        after: Expanded,
        entries: Sequence[models.Change],
    ) -> None:
        """Refuse what its phone's link or its person's role does not make. Raises NotAllowed,

        LinkEnded, PhonesLocked, NotYours, MovedMeanwhile.
        """
        if request.phone is not None:
            self._check_phone(request, show, asked, after, entries)
        elif request.judged is not None:
            acting = self._acting(request.judged)
            named = () if request.is_undo else asked
            changed = {*after.change.new, *after.stood.new}
            check_access(acting.role, acting.given, show, after.show, named, changed)

    def made(self, request: Request, entry: models.Change, before: Show, show: Show) -> None:
        """Links and what is given go on with their strips, at once: what comes behind in the batch

        is held by them.
        """
        if moves_links(entry):
            self._held = None
        if entry.renumbered:
            follow_renumbered(self._show_id, entry.renumbered)
            follow_given(self._show_id, entry.renumbered)
            self._waiting |= self._people.keys()
            self._people = {}
        elif not request.is_undo and any(Address.at(a).is_at("mix", "format") for a in entry.new):
            leave_mixes(self._show_id, set(show.in_use("mix")).difference(before.in_use("mix")))

    def _acting(self, person_id: int) -> Acting:
        if person_id in self._waiting:
            found = acting_in(self._show_id, self._waiting)
            self._people |= {one: found.get(one, Acting(None)) for one in self._waiting}
            self._waiting = set()
        return self._people[person_id]

    def _check_phone(
        self,
        request: Request,
        show: Show,
        asked: Mapping[str, Asked],
        after: Expanded,
        entries: Sequence[models.Change],
    ) -> None:
        """Refuse what a phone's link does not move, at the moment at which it would be kept; and

        what somebody else moved since its page saw it.
        """
        assert request.phone is not None
        mixes = self._mixes_of(request.phone)
        named = {one for one in asked if Address.at(one).last != "kept"}
        named = named if not request.is_undo else set()
        changed = {*after.change.new, *after.stood.new}
        check_phone(show, mixes, named, after.show, changed)
        if request.seen is None or request.is_undo:
            return
        seen, addresses = request.seen, {*named, *changed}
        pending = tuple(one for one in entries if one.revision > seen)
        known = live_of(self._show_id).entries_since(seen)
        if known is not None:  # as nearly always: nothing is asked of the database
            others = moved_among((*known, *pending), request.author_id, addresses)
        else:
            others = moved_by_others(self._show_id, request.author_id, seen, pending, addresses)
        if moved := sorted(others & addresses):
            by = whose_last(self._show_id, request.author_id, seen, pending, moved)
            raise MovedMeanwhile(by, whose(show, moved[0]))

    def _mixes_of(self, phone: UUID) -> tuple[str, ...]:
        """The mixes of a phone's link. Raises LinkEnded."""
        if self._held is None:
            self._held = still_held(self._phones, self._show_id)
        if phone not in self._held:
            raise LinkEnded
        return self._held[phone]
