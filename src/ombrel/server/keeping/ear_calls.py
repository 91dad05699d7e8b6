"""Calls of performers to the desk: made, seen, and what of them is told to whom."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from ombrel.core import LinkEnded

from .. import models

__all__ = ["Called", "call", "call_of", "calls_of", "seen_call"]


@dataclass(frozen=True, slots=True)
class Called:
    """A call: whose, about which mix, in which words, since when; and who has seen it (None: nobody

    yet).
    """

    id: UUID
    who: str
    mix: str
    text: str
    at: datetime
    seen_by: str | None


def _called(row: models.EarCall) -> Called:
    by = row.seen_by.get_username() if row.seen_by else ""
    return Called(
        id=row.pk,
        who=row.phone.link.who,
        mix=row.mix,
        text=row.text,
        at=row.made_at,
        seen_by=None if row.seen_at is None else by,
    )


def call(phone_id: UUID, call_id: UUID, mix: str, text: str) -> None:
    """A phone calls: one call of it stands at a time, the newest; sent again it counts once. Raises

    LinkEnded for a phone whose link ended meanwhile, or that has no such mix.
    """
    with transaction.atomic():
        phone = models.Phone.objects.select_for_update().select_related("link").get(pk=phone_id)
        if phone.link.is_over or mix not in phone.link.mixes:
            raise LinkEnded
        if models.EarCall.objects.filter(pk=call_id).exists():
            return
        phone.calls.filter(seen_at=None).delete()
        models.EarCall.objects.create(pk=call_id, phone=phone, mix=mix, text=text)


def seen_call(show_id: UUID, call_id: UUID, person_id: int) -> None:
    """Somebody at the desk has seen a call; the first who says so."""
    models.EarCall.objects.filter(
        pk=call_id, phone__link__show_id=show_id, seen_at=None
    ).update(seen_at=timezone.now(), seen_by_id=person_id)  # fmt: skip


def calls_of(show_id: UUID) -> list[Called]:
    """The calls of a show that nobody has seen, the oldest first; none by a link that ended."""
    rows = models.EarCall.objects.select_related("phone__link", "seen_by")
    found = rows.filter(phone__link__show_id=show_id, seen_at=None).order_by("made_at")[:100]
    return [_called(row) for row in found if not row.phone.link.is_over]


def call_of(phone_id: UUID) -> Called | None:
    """The last call of a phone."""
    rows = models.EarCall.objects.select_related("phone__link", "seen_by")
    row = rows.filter(phone_id=phone_id).order_by("-made_at").first()
    return _called(row) if row else None
