"""Accounts: made, closed and opened by an administrator; passwords; guessing held back.

An account is never removed, so that the log names who did what. Phones and cues have names in the
log too; they have no password, and are no accounts.
"""

from typing import Final

from axes.models import AccessAttempt
from axes.utils import reset
from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.db.models import Count, Max, Q, QuerySet
from django.utils import timezone
from limits import RateLimitItemPerMinute

from ombrel.core import LastAdministrator, TooManyTries, UnreadableText, WrongPassword

from .. import models
from .limiter import LIMITER
from .visits import end_visits

__all__ = [
    "account",
    "accounts",
    "change_password",
    "check_guessing_from",
    "give_password",
    "guessed_from",
    "hand_over_all",
    "make_account",
    "set_account",
    "tried_for",
    "unlock",
]

_OF_OWN: Final = RateLimitItemPerMinute(5, 10, namespace="own-password")
_OF_ADDRESS: Final = RateLimitItemPerMinute(60, 10, namespace="sign-in")


def accounts() -> QuerySet[User]:
    """Everybody who can sign in or could, each with `seen_at` and how many shows they `owns`."""
    people = get_user_model().objects.exclude(password__startswith="!").exclude(password="")
    return people.annotate(
        seen_at=Max("visits__seen_at"),
        owns=Count("own_shows", filter=Q(own_shows__removed_at=None), distinct=True),
    ).order_by("username")


def account(account_id: int) -> User | None:
    """One of `accounts`."""
    return accounts().filter(pk=account_id).first()


def make_account(name: str, password: str, *, administrator: bool = False) -> User:
    """A new account. Raises UnreadableText for a name that is taken or none, a weak password."""
    people = get_user_model().objects
    name = get_user_model().normalize_username(" ".join(name.split()))
    if not name or len(name) > 60 or not name.isprintable():
        raise UnreadableText(name[:60], "a name of up to 60 letters")
    if people.filter(username__iexact=name).exists():
        raise UnreadableText(name, "another name: somebody is called so already")
    person = get_user_model()(username=name, is_staff=administrator)
    _check_password(password, person)
    person.set_password(password)
    try:
        with transaction.atomic():
            person.save()
    except IntegrityError:  # somebody else made it just now
        raise UnreadableText(name, "another name: somebody is called so already") from None
    return person


def set_account(
    person: User, *, is_open: bool | None = None, administrator: bool | None = None
) -> None:
    """Close or open an account, let it administrate or not. Raises LastAdministrator where nobody

    would be left who can.
    """
    with transaction.atomic():
        every = get_user_model().objects.select_for_update().filter(is_staff=True, is_active=True)
        others = [one.pk for one in every if one.pk != person.pk]
        stays = is_open is not False and administrator is not False
        if person.is_staff and person.is_active and not others and not stays:
            raise LastAdministrator
        if is_open is not None:
            person.is_active = is_open
        if administrator is not None:
            person.is_staff = administrator
        person.save(update_fields=["is_active", "is_staff"])
    if is_open is False:
        end_visits(person.pk)


def give_password(person: User, password: str) -> None:
    """Another password for somebody who forgot theirs; they are signed out everywhere. Raises

    UnreadableText for a weak one.
    """
    _check_password(password, person)
    person.set_password(password)
    person.save(update_fields=["password"])
    end_visits(person.pk)
    unlock(person)


def change_password(person: User, old: str, new: str, session: str | None) -> None:
    """One's own, by the one before; other sign-ins end. Raises WrongPassword, TooManyTries,

    UnreadableText for a weak one.
    """
    if not LIMITER.hit(_OF_OWN, str(person.pk)):
        raise TooManyTries("passwords", "ask an administrator")
    if not person.check_password(old):
        raise WrongPassword
    _check_password(new, person)
    LIMITER.clear(_OF_OWN, str(person.pk))
    person.set_password(new)
    person.save(update_fields=["password"])
    end_visits(person.pk, but=session)


def _check_password(password: str, person: User) -> None:
    if "\x00" in password:
        raise UnreadableText("that password", "a longer one, without control characters")
    try:
        validate_password(password, person)
    except ValidationError as error:
        raise UnreadableText("that password", "another: " + " ".join(error.messages)) from None


def check_guessing_from(address: str) -> None:
    """Raises TooManyTries where too many wrong passwords came from one address, whoever they were

    for.
    """
    if not LIMITER.test(_OF_ADDRESS, address):
        raise TooManyTries("passwords", "sign in from elsewhere")


def guessed_from(address: str) -> None:
    """A wrong password came from an address."""
    LIMITER.hit(_OF_ADDRESS, address)


def tried_for(person: User) -> tuple[int, bool]:
    """How many wrong passwords were tried for an account lately, and whether it is held back."""
    since = timezone.now() - settings.AXES_COOLOFF_TIME
    tried = AccessAttempt.objects.filter(username=person.get_username(), attempt_time__gt=since)
    failures = [one.failures_since_start for one in tried]
    return sum(failures), max(failures, default=0) >= settings.AXES_FAILURE_LIMIT


def unlock(person: User) -> None:
    """Forget wrong passwords that were tried for an account."""
    reset(username=person.get_username())


def hand_over_all(person: User, to: User) -> int:
    """Give all shows of an account to another; who had them stays an engineer of them. Gives how

    many.
    """
    with transaction.atomic():
        shows = list(models.Show.everything.select_for_update().filter(owner=person))
        for show in shows:
            hand_over(show, to)
    return len(shows)


def hand_over(show: models.Show, to: User) -> None:
    """Another owner; the one before stays an engineer of it."""
    before = show.owner_id
    with transaction.atomic():
        show.owner = to
        show.save(update_fields=["owner"])
        models.Share.objects.filter(show=show, person=to).delete()
        if before is not None and before != to.pk:
            models.Share.objects.update_or_create(
                show=show, person_id=before, defaults={"role": models.Share.Role.ENGINEER}
            )
