"""Links of performers' phones: made, exchanged for a cookie, renewed, ended; and who holds one.

A token has 128 bits and stands in an address's fragment, so that no log and no referrer has it;
what is kept of it, and of a phone's cookie, is a digest.
"""

import hashlib
import secrets
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import timedelta
from typing import Final
from uuid import UUID

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.db.models import OuterRef, QuerySet, Subquery
from django.utils import timezone

from ombrel.core import LinkEnded, of_kind

from .. import models

__all__ = [
    "Held",
    "cookie_for",
    "cookie_name",
    "digest_of",
    "end_links",
    "entered",
    "follow_renumbered",
    "held_by",
    "leave_mixes",
    "make_link",
    "renew_link",
    "still_held",
    "with_last_moves",
    "who_ended",
]

_MOST_TRIES: Final = 4
_MOST_PHONES: Final = 12  # of one link: the oldest goes for a new one


@dataclass(frozen=True, slots=True)
class Held:
    """A phone that holds a link: whose, of which show, and which mixes it moves at a `revision` of

    it.
    """

    phone_id: UUID
    link_id: UUID
    show_id: UUID
    person_id: int
    name: str
    mixes: tuple[str, ...]
    revision: int


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def _new_token() -> str:
    return secrets.token_urlsafe(16)  # 128 bits


def make_link(
    show_id: UUID, who: str, mixes: Sequence[str], days: int | None = None
) -> tuple[models.EarLink, str]:
    """A new link, and its token, which is told this once."""
    token = _new_token()
    ends = timezone.now() + timedelta(days=days) if days else None
    link = models.EarLink.objects.create(
        show_id=show_id, who=who, mixes=list(mixes), token_hash=_digest(token), ends_at=ends
    )
    return link, token


def renew_link(link: models.EarLink, days: int | None = None) -> str:
    """Give a link another token: whoever has the old one, and each phone by it, is out."""
    token = _new_token()
    with transaction.atomic():
        link.token_hash, link.revoked_at, link.code_ends_at = _digest(token), None, None
        link.ends_at = timezone.now() + timedelta(days=days) if days else None
        link.save(update_fields=["token_hash", "revoked_at", "ends_at", "code_ends_at"])
        _let_go(link)
    return token


def end_links(links: Collection[models.EarLink]) -> None:
    """Revoke links: from now on nothing moves by them."""
    with transaction.atomic():
        for link in links:
            link.revoked_at = timezone.now()
            link.save(update_fields=["revoked_at"])
            _let_go(link)


def _let_go(link: models.EarLink) -> None:
    """Its phones hold nothing any more; whom the log names stays, for the log."""
    for phone in link.phones.all():
        phone.cookie_hash = _digest(secrets.token_urlsafe(32))
        phone.save(update_fields=["cookie_hash"])


def cookie_name(link_id: UUID) -> str:
    """What a phone's cookie of a link is called: each has its own."""
    return f"ombrel_phone_{link_id.hex}"


def entered(token: str, cookies: Mapping[str, str]) -> tuple[models.EarLink, str]:
    """The link of a token, and a cookie for the phone that has it: the one that it has already, or

    a new one. Raises LinkEnded.
    """
    links = models.EarLink.objects.select_related("show")
    link = links.filter(token_hash=_digest(token), show__removed_at=None).first()
    if link is None or link.is_over:
        raise LinkEnded
    return link, cookie_for(link, cookies)


def cookie_for(link: models.EarLink, cookies: Mapping[str, str]) -> str:
    """A cookie for a phone that may open a link: the one that it has already, or a new one."""
    known = cookies.get(cookie_name(link.pk), "")
    if link.phones.filter(cookie_hash=_digest(known)).exists():
        return known
    cookie = secrets.token_urlsafe(32)
    with transaction.atomic():
        models.EarLink.objects.select_for_update().get(pk=link.pk)
        for oldest in link.phones.order_by("-made_at")[_MOST_PHONES - 1 :]:
            oldest.delete()  # another device is another hand, with nothing of this one's to undo
        models.Phone.objects.create(
            link=link, person=_new_person(link.who), cookie_hash=_digest(cookie)
        )
    return cookie


def _new_person(who: str) -> User:
    """Whom the log names for a phone, and nobody signs in as."""
    for _ in range(_MOST_TRIES):
        try:
            with transaction.atomic():
                return get_user_model().objects.create_user(_free_name(who), is_active=False)
        except IntegrityError:  # somebody else's phone took the name just now
            continue
    return get_user_model().objects.create_user(f"phone {secrets.token_hex(8)}", is_active=False)


def _free_name(who: str) -> str:
    """What the log calls a phone: whose it is, with a number where there are several."""
    people = get_user_model().objects
    stem = get_user_model().normalize_username(f"{who[:60]}\u2019s phone")[:120]
    taken = set(people.filter(username__startswith=stem).values_list("username", flat=True))
    names = (stem if n == 1 else f"{stem} {n}" for n in range(1, len(taken) + 2))
    return next(name for name in names if name not in taken)


def held_by(link_id: UUID, cookie: str) -> Held:
    """The phone of a cookie, for one link. Raises LinkEnded: forged, revoked, over, another's."""
    phones = models.Phone.objects.select_related("link", "person", "link__show")
    phone = phones.filter(cookie_hash=_digest(cookie), link_id=link_id).first()
    if phone is None or phone.link.is_over or phone.link.show.removed_at is not None:
        raise LinkEnded
    return Held(
        phone_id=phone.pk,
        link_id=phone.link_id,
        show_id=phone.link.show_id,
        person_id=phone.person_id,
        name=phone.person.get_username(),
        mixes=tuple(phone.link.mixes),
        revision=phone.link.show.revision,
    )


def still_held(phones: Mapping[UUID, str], show_id: UUID) -> dict[UUID, tuple[str, ...]]:
    """The mixes that phones, with the digests of their cookies, move just now: asked in the

    transaction of their edits. Those whose link ended are not among them.
    """
    known = models.Phone.objects.filter(pk__in=list(phones), link__show_id=show_id)
    standing = known.filter(link__revoked_at=None).exclude(link__ends_at__lte=timezone.now())
    rows = standing.values_list("pk", "cookie_hash", "link__mixes")
    return {pk: tuple(mixes) for pk, cookie, mixes in rows if phones[pk] == cookie}


def who_ended(phones: Mapping[UUID, str]) -> set[UUID]:
    """Those of some phones, with the digests of their cookies, that hold no link any more."""
    known = models.Phone.objects.select_related("link").filter(pk__in=list(phones))
    return set(phones) - {phone.pk for phone in known if _holds(phone, phones)}


def _holds(phone: models.Phone, phones: Mapping[UUID, str]) -> bool:
    return phones[phone.pk] == phone.cookie_hash and not phone.link.is_over


def follow_renumbered(show_id: UUID, to: Mapping[str, str | None]) -> None:
    """Let links go on with their mixes, where these get other numbers; one that is gone is left."""
    if not any(of_kind(of) == "mix" for of in to):
        return
    # a mix whose number another takes is gone, unless it has another itself
    whole = {**{new: None for new in to.values() if new is not None}, **to}
    for call in models.EarCall.objects.filter(phone__link__show_id=show_id, seen_at=None):
        call.mix = whole.get(call.mix, call.mix) or call.mix
        call.save(update_fields=["mix"])
    for link in models.EarLink.objects.filter(show_id=show_id):
        mixes = [new for one in link.mixes if (new := whole.get(one, one))]
        if mixes != link.mixes:
            link.mixes = mixes
            link.save(update_fields=["mixes"])


def leave_mixes(show_id: UUID, mixes: Collection[str]) -> None:
    """Take mixes out of links that are made anew: a link is of the one that had the number before,

    which was removed.
    """
    for link in models.EarLink.objects.filter(show_id=show_id) if mixes else ():
        if not set(mixes).isdisjoint(link.mixes):
            link.mixes = [one for one in link.mixes if one not in mixes]
            link.save(update_fields=["mixes"])


def with_last_moves() -> QuerySet[models.Phone]:
    """Phones, each with when it moved something last as `moved_at` (None: never)."""
    log = models.Change.objects.filter(
        show_id=OuterRef("link__show_id"), author_id=OuterRef("person_id")
    )
    newest = log.order_by("-revision").values("made_at")[:1]
    return models.Phone.objects.select_related("person").annotate(moved_at=Subquery(newest))


def digest_of(cookie: str) -> str:
    """What is kept of a cookie."""
    return _digest(cookie)
