"""Short codes, by which performers who picked their name get in without a link; few are guessed.

A code has six digits and stands for an hour. While it does, whose it is, is told to whoever opens
the phones' page: they pick their name there. Nothing else is told before the code is right.
"""

import secrets
from collections.abc import Collection, Mapping
from datetime import datetime, timedelta
from typing import Final

from django.db.models import QuerySet
from django.utils import timezone
from django.utils.crypto import constant_time_compare, salted_hmac
from limits import RateLimitItemPerMinute

from ombrel.core import TooManyTries, WrongCode

from .. import models
from ..keeping.ear_links import cookie_for
from .limiter import LIMITER

__all__ = ["entered_by_code", "give_codes", "names_with_codes"]

_DIGITS: Final = 6
_STANDS: Final = timedelta(hours=1)
_MOST_NAMES: Final = 200
_NAMESAKES: Final = 8
# one in two hundred thousand that somebody guesses a code while it stands
_OF_NAME: Final = RateLimitItemPerMinute(5, 10)
_OF_ADDRESS: Final = RateLimitItemPerMinute(60, 10)  # a whole band comes by one, behind a proxy
_LIMITER: Final = LIMITER


def give_codes(links: Collection[models.EarLink]) -> tuple[dict[models.EarLink, str], datetime]:
    """A new code for each of some links, told this once, and until when they stand."""
    ends = timezone.now() + _STANDS
    codes = {one: f"{secrets.randbelow(10**_DIGITS):0{_DIGITS}}" for one in links}
    for link, code in codes.items():
        link.code_hash, link.code_ends_at = _kept(link, code), ends
        link.save(update_fields=["code_hash", "code_ends_at"])
        _LIMITER.clear(_OF_NAME, link.who)
    return codes, ends


def names_with_codes() -> list[str]:
    """Whose codes stand now, by the alphabet."""
    names = {link.who for link in _with_codes()[:_MOST_NAMES]}
    return sorted(names, key=str.casefold)


def entered_by_code(
    name: str, code: str, cookies: Mapping[str, str], address: str
) -> tuple[models.EarLink, str]:
    """The link of whoever is called so and has this code, and a cookie for their phone.

    Raises TooManyTries before it looks, once a name or an address was tried too often; WrongCode.
    """
    for item, whose in ((_OF_ADDRESS, address), (_OF_NAME, name)):
        if not _LIMITER.hit(item, whose):
            raise TooManyTries
    for link in _with_codes().filter(who=name).order_by("-code_ends_at")[:_NAMESAKES]:
        if not link.is_over and constant_time_compare(_kept(link, code), link.code_hash):
            _LIMITER.clear(_OF_NAME, name)
            return link, cookie_for(link, cookies)
    raise WrongCode


def _kept(link: models.EarLink, code: str) -> str:
    """What is kept of a code: with the server's key in it, or a million tries would find it out."""
    return salted_hmac("ombrel.short_code", f"{link.pk} {code}", algorithm="sha256").hexdigest()


def _with_codes() -> QuerySet[models.EarLink]:
    links = models.EarLink.objects.select_related("show")
    return links.filter(
        code_ends_at__gt=timezone.now(), revoked_at=None, show__removed_at=None
    ).exclude(ends_at__lte=timezone.now())  # fmt: skip
