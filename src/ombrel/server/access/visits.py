"""Sign-ins: from where and by what somebody is signed in, and how such a sign-in ends."""

from datetime import timedelta
from typing import Any, Final
from uuid import UUID

from django.contrib.auth.models import User
from django.contrib.auth.signals import user_logged_in
from django.contrib.sessions.models import Session
from django.db.models import QuerySet
from django.dispatch import receiver
from django.http import HttpRequest
from django.utils import timezone

from .. import models

__all__ = ["end_visits", "moved_on", "seen_now", "visits_of"]

_SEEN_EVERY: Final = timedelta(minutes=1)


@receiver(user_logged_in)
def _began(sender: Any, request: HttpRequest, user: User, **more: Any) -> None:
    if not request.session.session_key:
        request.session.create()
    models.Visit.objects.update_or_create(
        session=request.session.session_key,
        defaults={
            "person": user,
            "address": request.META.get("REMOTE_ADDR", "")[:45],
            "agent": request.META.get("HTTP_USER_AGENT", "")[:200],
            "seen_at": timezone.now(),
        },
    )


def visits_of(person_id: int) -> QuerySet[models.Visit]:
    """Where a person is signed in just now, the newest first; what ran out is forgotten."""
    living = Session.objects.filter(expire_date__gt=timezone.now()).values("session_key")
    mine = models.Visit.objects.filter(person_id=person_id)
    mine.exclude(session__in=living).delete()
    return mine


def end_visits(person_id: int, visit_id: UUID | None = None, *, but: str | None = None) -> int:
    """Sign a person out: by one sign-in, or everywhere (`but` by a session). Gives how many."""
    visits = visits_of(person_id).exclude(session=but or "")
    if visit_id is not None:
        visits = visits.filter(id=visit_id)
    sessions = list(visits.values_list("session", flat=True))
    Session.objects.filter(session_key__in=sessions).delete()
    visits.delete()
    return len(sessions)


def seen_now(session: str | None) -> None:
    """Somebody is here by a sign-in: kept at most once a minute."""
    now = timezone.now()
    stale = models.Visit.objects.filter(session=session or "", seen_at__lt=now - _SEEN_EVERY)
    stale.update(seen_at=now)


def moved_on(before: str | None, session: str | None) -> None:
    """A sign-in goes on under another session."""
    models.Visit.objects.filter(session=before or "").update(session=session or "")
