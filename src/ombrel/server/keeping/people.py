"""Who has which role in a show: its owner, and those with whom it is shared."""

import math
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from typing import cast
from uuid import UUID

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q, QuerySet

from ombrel.core import Given, Role, RoleTooSmall, renumbered_given

from .. import models

__all__ = [
    "Acting",
    "acting_in",
    "follow_given",
    "given_of",
    "given_to_wire",
    "goes_on_as",
    "others_than",
    "rider_in",
    "role_in",
    "roles_of",
    "shows_of",
]


@dataclass(frozen=True, slots=True)
class Acting:
    """A person's role in a show, and what they ride of it as a volunteer."""

    role: Role | None
    given: tuple[Given, ...] = ()


@dataclass(frozen=True, slots=True)
class Rider:
    """What somebody rides of a show as a volunteer, at a `revision` of it."""

    given: tuple[Given, ...]
    revision: int


def rider_in(show_id: UUID, person_id: int) -> Rider:
    """What somebody rides in a show. Raises RoleTooSmall: they are no volunteer of it."""
    shares = models.Share.objects.filter(
        show_id=show_id, person_id=person_id, role="volunteer", show__removed_at=None,
        person__is_active=True,
    )  # fmt: skip
    row = shares.values_list("given", "show__revision").first()
    if row is None:
        raise RoleTooSmall("stranger")
    return Rider(given_of(row[0]), row[1])


def acting_in(show_id: UUID, people: Collection[int]) -> dict[int, Acting]:
    """Of some people those who may do anything in a show just now; closed accounts may not.

    Whose a removed show is, is theirs still: to bring it back.
    """
    if not people:
        return {}
    found: dict[int, Acting] = {}
    shares = models.Share.objects.filter(show_id=show_id, person__in=people, person__is_active=True)
    for person, role, given in shares.values_list("person_id", "role", "given"):
        found[person] = Acting(cast(Role, role), given_of(given))
    owns = models.Show.everything.filter(pk=show_id, owner__in=people, owner__is_active=True)
    return found | {owner: Acting("owner") for owner in owns.values_list("owner_id", flat=True)}


def role_in(show_id: UUID, person_id: int | None) -> Role | None:
    """A person's role in a show; None: it is nothing of theirs."""
    if person_id is None:
        return None
    return acting_in(show_id, [person_id]).get(person_id, Acting(None)).role


def shows_of(person_id: int | None, *, removed: bool = False) -> QuerySet[models.Show]:
    """The shows in which a person has a role; with those that were removed, if asked."""
    every = models.Show.everything if removed else models.Show.objects
    if person_id is None:
        return every.none()
    shared = models.Share.objects.filter(person_id=person_id).values("show_id")
    return every.filter(Q(owner_id=person_id) | Q(pk__in=shared)).select_related("owner")


def roles_of(person_id: int | None, *, removed: bool = False) -> list[tuple[models.Show, Role]]:
    """The shows of `shows_of`, with the person's role in each."""
    shares = models.Share.objects.filter(person_id=person_id)
    roles = dict(shares.values_list("show_id", "role"))
    return [
        (row, "owner" if row.owner_id == person_id else cast(Role, roles[row.pk]))
        for row in shows_of(person_id, removed=removed)
        if row.owner_id == person_id or row.pk in roles
    ]


def goes_on_as(show_id: UUID, new: models.Show) -> None:
    """A show goes on as another one: whose it was, and who had a role in it."""
    row = models.Show.everything.get(pk=show_id)
    with transaction.atomic():
        models.Show.everything.filter(pk=new.pk).update(owner=row.owner_id)
        for share in row.shares.all():
            models.Share.objects.create(
                show=new, person_id=share.person_id, role=share.role, given=share.given
            )


def others_than(show: models.Show) -> QuerySet[User]:
    """Whom a show can be shared with: accounts that are open, its owner aside."""
    people = get_user_model().objects.filter(is_active=True)
    return people.exclude(pk=show.owner_id or 0).order_by("username")


def given_of(rows: Iterable[tuple[str, float | None, float | None]]) -> tuple[Given, ...]:
    """What is given, as it is kept: silence is null, and so is a fader without an upper end."""
    return tuple(
        Given(what, -math.inf if low is None else low, math.inf if high is None else high)
        for what, low, high in rows
    )


def given_to_wire(given: Iterable[Given]) -> list[tuple[str, float | None, float | None]]:
    """As `given_of` reads it."""
    return [
        (
            one.what,
            one.lowest_db if math.isfinite(one.lowest_db) else None,
            one.highest_db if math.isfinite(one.highest_db) else None,
        )
        for one in given
    ]


def follow_given(show_id: UUID, to: Mapping[str, str | None]) -> None:
    """Let what volunteers ride go on with its strips, where these get other numbers."""
    volunteers = models.Share.objects.filter(show_id=show_id).exclude(given=[])
    for share in volunteers:
        given = given_to_wire(renumbered_given(given_of(share.given), to))
        if given != share.given:
            share.given = given
            share.save(update_fields=["given"])
