"""Who of those who have a screen open is not signed in any more."""

from collections.abc import Collection

from django.contrib.auth import HASH_SESSION_KEY, SESSION_KEY, get_user_model
from django.contrib.sessions.models import Session
from django.utils import timezone
from django.utils.crypto import constant_time_compare

__all__ = ["who_left"]


def who_left(sessions: Collection[str]) -> set[str]:
    """Those of some sessions that ended: signed out, run out, their person gone or not active, or

    with another password since.
    """
    if not sessions:
        return set()
    rows = Session.objects.filter(session_key__in=sessions, expire_date__gt=timezone.now())
    found = {row.session_key: row.get_decoded() for row in rows}
    ids = [data[SESSION_KEY] for data in found.values() if SESSION_KEY in data]
    people = {str(one.pk): one for one in get_user_model().objects.filter(pk__in=ids)}
    staying = set()
    for session, data in found.items():
        person = people.get(str(data.get(SESSION_KEY)))
        if person is None or not person.is_active:
            continue
        if constant_time_compare(data.get(HASH_SESSION_KEY, ""), person.get_session_auth_hash()):
            staying.add(session)
    return set(sessions) - staying
