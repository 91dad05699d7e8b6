"""The log of a show, read back: who changed what and when, and how the show stood at a revision."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from django.db.models import QuerySet

from ombrel.core import NoSuchPoint, Show, belongs_to

from . import models
from .live import for_pages, from_wire, live_of

__all__ = [
    "Gesture",
    "gestures",
    "newest_first",
    "setters_of",
    "show_at",
    "shown_at",
    "values_after",
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
    """Who moved each of these addresses last, and when, as far back as one request looks."""
    found: dict[str, dict[str, str]] = {}
    newest = live_of(show_id).now().revision
    log = models.Change.objects.filter(show_id=show_id, revision__gt=newest - LOOKED_AT)
    for address in addresses:
        last = log.filter(new__has_key=address).order_by("-revision").select_related("author")
        for entry in last[:1]:
            by = entry.author.get_username() if entry.author else ""
            found[address] = {"by": by, "at": entry.made_at.isoformat()}
    return found


def values_after(show_id: UUID, since: int, until: int) -> dict[str, object]:
    """The newest values of all that changed in (since, until]."""
    values: dict[str, object] = {}
    entries = models.Change.objects.filter(
        show_id=show_id, revision__gt=since, revision__lte=until
    ).order_by("revision")
    for new in entries.values_list("new", flat=True):
        values.update(for_pages(new))
    return values


@dataclass(slots=True)
class Gesture:
    """What one hand did at a time: entries of one gesture that follow one another.

    `first` and `last`: its revisions. `values`: how many addresses it moved.
    """

    first: int
    last: int
    made_at: datetime
    author: str
    kind: str
    says: str
    gesture: str
    addresses: set[str]


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
        if strip and not any(belongs_to(address, strip) for address in one.addresses):
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
            current.addresses.update(entry.new)
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
            addresses=set(entry.new),
        )
    if current:
        yield current
