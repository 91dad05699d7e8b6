"""The log of a show, read back: who changed what and when, and how the show stood at a revision."""

from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import chain
from uuid import UUID

from django.db.models import QuerySet

from ombrel.core import (
    NoSuchPoint,
    Show,
    Value,
    bearing,
    bears,
    belongs_to,
    strips_in,
)

from .. import models
from .live import live_of
from .states import State, for_pages, from_wire, to_wire

__all__ = [
    "Gesture",
    "gestures",
    "last_hand",
    "moved_among",
    "moved_by_others",
    "newest_first",
    "renumbered_since",
    "setters_of",
    "show_at",
    "shown_at",
    "values_after",
    "who_changed",
    "whose_last",
]

PAGE = 60  # gestures told at once
LOOKED_AT = 20_000  # entries that one request goes through for them


def newest_first(
    entries: QuerySet[models.Change], *, most: int | None = None, page: int = 500
) -> Iterator[models.Change]:
    """Entries from the newest on, read a page at a time, and only as far as somebody looks.

    Not by a cursor of the database: one that is left half read is closed by whatever thread frees
    it, and that may just be asking the same connection for something else; then both wait for good.
    """
    before: int | None = None
    while most is None or most > 0:
        found = entries if before is None else entries.filter(revision__lt=before)
        rows = list(found.order_by("-revision")[: page if most is None else min(page, most)])
        yield from rows
        if len(rows) < page:
            return
        before = rows[-1].revision
        most = None if most is None else most - len(rows)


def show_at(show_id: UUID, now: Show, revision: int, at: int) -> Show:
    """The show as it stood after `at`, given that it stands as `now` at `revision`.

    What came after is turned back, the newest first. Raises NoSuchPoint.
    """
    if not 0 <= at <= revision:
        raise NoSuchPoint(at, revision)
    later = models.Change.objects.filter(show_id=show_id, revision__gt=at, revision__lte=revision)
    values: dict[str, object] = {}
    for entry in newest_first(later.only("revision", "old")):
        values.update(entry.old)
    return now.with_values(from_wire(values))


def shown_at(show_id: UUID, at: int | None) -> Show:
    """The show after a revision; None: as it stands. Raises NoSuchPoint."""
    state = live_of(show_id).now()
    return state.show if at is None else show_at(show_id, state.show, state.revision, at)


def setters_of(show_id: UUID, addresses: Iterable[str]) -> dict[str, dict[str, str]]:
    """Who moved each of these addresses last, and when. Longer ago than one request looks nobody is

    named: it says so by an empty time.
    """
    found: dict[str, dict[str, str]] = {}
    newest = live_of(show_id).now().revision
    log = models.Change.objects.filter(show_id=show_id, revision__gt=newest - LOOKED_AT)
    for address in addresses:
        last = log.filter(new__has_key=address).order_by("-revision").select_related("author")
        for entry in last[:1]:
            by = entry.author.get_username() if entry.author else ""
            found[address] = {"by": by, "at": entry.made_at.isoformat()}
        if address not in found and newest > LOOKED_AT:
            found[address] = {"by": "", "at": ""}
    return found


@dataclass(frozen=True, slots=True)
class LastHand:
    """Who moved a value last, when, by an edit, an undo or a redo; and what stood there before the

    gesture, as the store has it. `renumbered`: its strip had another number until then.
    """

    by: str
    at: datetime
    kind: str
    was: object
    renumbered: bool = False


def last_hand(show_id: UUID, address: str) -> LastHand | None:
    """Who moved an address last; None: nobody, as far back as one request looks."""
    newest = live_of(show_id).now().revision
    log = models.Change.objects.filter(show_id=show_id, revision__gt=newest - LOOKED_AT)
    log = log.select_related("author")
    last = log.filter(new__has_key=address).order_by("-revision").first()
    after = last.revision if last else 0
    things = set(strips_in(address))
    for entry in log.exclude(renumbered={}).filter(revision__gte=after).order_by("-revision"):
        if not things.isdisjoint({*entry.renumbered, *entry.renumbered.values()}):
            return LastHand(_by(entry), entry.made_at, entry.kind, None, renumbered=True)
    if last is None:
        return None
    gesture = log.filter(author_id=last.author_id, gesture=last.gesture, new__has_key=address)
    first = gesture.order_by("revision").first() or last
    return LastHand(_by(last), last.made_at, last.kind, first.old[address])


def _by(entry: models.Change) -> str:
    return entry.author.get_username() if entry.author else ""


def values_after(show_id: UUID, since: int, state: State) -> dict[str, object] | None:
    """What stands now at all that changed since a revision; None where something else may lie over

    own values by now: then only all values tell.
    """
    entries = models.Change.objects.filter(
        show_id=show_id, revision__gt=since, revision__lte=state.revision
    )
    moved: set[str] = set()
    for new in entries.values_list("new", flat=True):
        if any(not at.in_fitting for at in bearing("layers", new)):
            return None
        moved.update(new)
    below = {a for a in map(state.show.stands_at, moved) if a is not None}
    if bears("fitted_preamp", moved):  # another may hold the socket now
        below |= {f"{at}/{leaf}" for at in state.show.layers.holder for leaf in ("gain", "pad")}
    return for_pages(to_wire({a: state.show[a] for a in moved | below}))


def moved_by_others(
    show_id: UUID,
    author_id: int | None,
    since: int,
    pending: Sequence[models.Change],
    among: Collection[str] | None = None,
) -> set[str]:
    """Addresses (`among` some; None: all) that others moved after a revision, and have not turned

    back themselves; however long ago that revision was.
    """
    log = models.Change.objects.filter(show_id=show_id, revision__gt=since)
    if author_id is not None:
        log = log.exclude(author_id=author_id)
    if among is not None:
        log = log.filter(new__has_any_keys=sorted(among))
    kept = newest_first(log.only("revision", "author_id", "kind", "gesture", "turns", "new"))
    after = (entry for entry in reversed(pending) if entry.revision > since)
    return _moved(chain(after, kept), author_id)


def moved_among(
    entries: Sequence[models.Change], author_id: int | None, among: Collection[str]
) -> set[str]:
    """As `moved_by_others`, of entries in their order that are at hand."""
    wanted = set(among)
    if all(wanted.isdisjoint(one.new) for one in entries if one.author_id != author_id):
        return set()  # as nearly always: many phones move, each its own
    return _moved(reversed(entries), author_id) & wanted


def _moved(newest_first: Iterable[models.Change], author_id: int | None) -> set[str]:
    undone: set[str] = set()
    found: set[str] = set()
    for entry in newest_first:
        if entry.author_id == author_id:
            continue
        gesture = entry.turns or entry.gesture
        if gesture in undone:
            continue
        if entry.kind == models.Change.Kind.UNDO:
            undone.add(gesture)
        else:
            found.update(entry.new)
    return found


def who_changed(
    show_id: UUID,
    since: int,
    kept: int,
    pending: Sequence[models.Change],
    addresses: Sequence[str],
) -> dict[str, set[Value]]:
    """Which of these addresses, that say who is on, moved after a revision, with what they had."""
    olds = [entry.old for entry in pending]
    if since < kept:
        log = models.Change.objects.filter(show_id=show_id, revision__gt=since)
        olds += log.filter(new__has_any_keys=list(addresses)).values_list("old", flat=True)
    found: dict[str, set[Value]] = {}
    for old in olds:
        for address in old.keys() & set(addresses):
            found.setdefault(address, set()).add(old[address])
    return found


def renumbered_since(
    show_id: UUID, since: int, kept: int, pending: Sequence[models.Change]
) -> set[str]:
    """The names that mean another strip than they did at a revision. What was turned back since

    counts for nothing.
    """
    entries = list(pending)
    if since < kept:
        log = models.Change.objects.filter(show_id=show_id, revision__gt=since)
        leaves = ("revision", "kind", "gesture", "turns", "renumbered")
        entries = [*log.exclude(renumbered={}).only(*leaves).order_by("revision"), *entries]
    acts: dict[str, list[models.Change]] = {}
    for entry in entries:
        if entry.renumbered:
            acts.setdefault(entry.turns or entry.gesture, []).append(entry)
    undo = models.Change.Kind.UNDO
    # an undo of what was before counts as well as an edit that stands
    whole = acts.values()
    standing = [found for found in whole if (found[-1].kind == undo) == (found[0].kind == undo)]
    return {
        name
        for found in standing
        for pair in found[-1].renumbered.items()
        for name in pair
        if name is not None
    }


@dataclass(slots=True)
class Gesture:
    """What one hand did at a time: entries of one gesture that follow one another.

    `first` and `last`: its revisions. `old` and `new`: what it moved, as the store has it.
    """

    first: int
    last: int
    made_at: datetime
    author: str
    kind: str
    says: str
    gesture: str
    old: dict[str, object]
    new: dict[str, object]


def gestures(
    show_id: UUID,
    *,
    before: int | None = None,
    author: str = "",
    strip: str = "",
    words: str = "",
    since: datetime | None = None,
    until: datetime | None = None,
) -> tuple[list[Gesture], int | None]:
    """A page of gestures, newest first, and the revision to go on before (None: that was all).

    `strip`: only what moved something that belongs to it; `words`: only what says them.
    """
    entries = models.Change.objects.filter(show_id=show_id).select_related("author")
    if before is not None:
        entries = entries.filter(revision__lt=before)
    if author:
        entries = entries.filter(author__username=author)
    if since:
        entries = entries.filter(made_at__gte=since)
    if until:
        entries = entries.filter(made_at__lte=until)
    found: list[Gesture] = []
    last = None
    for one in _gathered(newest_first(entries, most=LOOKED_AT)):
        if len(found) == PAGE:
            return found, last
        last = one.first
        if words and words.lower() not in one.says.lower():
            continue
        if strip and not any(belongs_to(address, strip) for address in one.new):
            continue
        found.append(one)
    ended = last is None or not entries.filter(revision__lt=last).exists()
    return found, None if ended else last


def _gathered(entries: Iterator[models.Change]) -> Iterator[Gesture]:
    """Entries of one gesture as one, newest first."""
    current: Gesture | None = None
    for entry in entries:
        name = entry.author.get_username() if entry.author else "Ombrel"
        if current and (current.gesture, current.author) == (entry.gesture, name):
            current.first = entry.revision
            current.old.update(entry.old)
            for address, value in entry.new.items():
                current.new.setdefault(address, value)
            continue
        if current:
            yield current
        current = Gesture(
            first=entry.revision,
            last=entry.revision,
            made_at=entry.made_at,
            author=name,
            kind=entry.kind,
            says=entry.says,
            gesture=entry.gesture,
            old=dict(entry.old),
            new=dict(entry.new),
        )
    if current:
        yield current


def whose_last(
    show_id: UUID,
    author_id: int | None,
    since: int,
    pending: Sequence[models.Change],
    addresses: Collection[str],
) -> str:
    """Who else moved one of some addresses last after a revision, in a word."""
    log = models.Change.objects.filter(show_id=show_id, revision__gt=since)
    kept = log.filter(new__has_any_keys=sorted(addresses)).order_by("-revision")
    for entry in chain(reversed(pending), kept.select_related("author")[:20]):
        if entry.author_id != author_id and not entry.new.keys().isdisjoint(addresses):
            return entry.author.get_username() if entry.author else "somebody"
    return "somebody"
