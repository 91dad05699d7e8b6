"""The HTTP side of sharing: who has which role in a show, and what volunteers ride."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from pydantic import Field

from ombrel import core
from ombrel.core import UnreadableText

from .. import models
from ..access.accounts import hand_over
from ..keeping.live import live_of
from ..keeping.people import given_of, given_to_wire, others_than, role_in
from ..keeping.work import in_database
from ..messages.replies import ErrorReply
from ..screen.rooms import tell_roles

__all__ = ["router"]

router = Router(tags=["sharing"])

MOST_SHARES = 200  # people of one show
MOST_GIVEN = 64  # of one volunteer
_Name = Annotated[str, Field(max_length=60)]
_Typed = Annotated[str, Field(max_length=200)]
_Role = Literal["engineer", "assistant", "volunteer", "onlooker"]


class GivenRow(Schema):
    """Something that a volunteer rides; a fader between its ends, in dB (null: off, or its own)."""

    what: str
    kind: Literal["fader", "mute", "lift"]
    name: str
    lowest_db: float | None
    highest_db: float | None


class ShareRow(Schema):
    """Somebody's role in a show."""

    id: int
    name: str
    role: _Role
    given: list[GivenRow]
    made_at: datetime


class People(Schema):
    """Whose a show is, with whom it is shared, with whom it could be; and what `mine` is in it."""

    owner: str
    mine: str
    shares: list[ShareRow]
    others: list[str]
    mute_groups: list[str]
    lifts: list[str]


class NewShare(Schema):
    """Somebody who is to have a role."""

    name: _Name
    role: _Role


class NewRole(Schema):
    """Another role."""

    role: _Role


class NewGiven(Schema):
    """What a volunteer is to ride, as typed; the ends of a fader, as typed ("": its own)."""

    kind: Literal["fader", "mute", "mute_group", "lift"]
    typed: _Typed
    lowest: Annotated[str, Field(max_length=20)] = ""
    highest: Annotated[str, Field(max_length=20)] = ""


def _people(person_id: int, show_id: UUID) -> dict[str, Any]:
    row = get_object_or_404(models.Show.objects.select_related("owner"), pk=show_id)
    show = live_of(show_id).now().show
    role = role_in(show_id, person_id)
    shares = list(row.shares.select_related("person"))
    named = {share.person_id for share in shares}
    mute_groups, lifts = core.to_give(show)
    return {
        "owner": row.owner.get_username() if row.owner else "",
        "mine": role or "",
        "shares": [_share(show, share) for share in shares],
        # whoever shares picks from a list; others learn no names by it
        "others": [str(one) for one in others_than(row) if one.pk not in named]
        if core.may(role, "own")
        else [],
        "mute_groups": mute_groups,
        "lifts": lifts,
    }


def _share(show: core.Show, share: models.Share) -> dict[str, Any]:
    given = core.given_there(show, given_of(share.given))
    return {
        "id": share.pk,
        "name": share.person.get_username(),
        "role": share.role,
        "made_at": share.made_at,
        "given": [
            {
                "what": one.what,
                "kind": "lift" if one.is_lift else "fader" if one.is_fader else "mute",
                "name": core.given_name(show, one),
                "lowest_db": lowest_db,
                "highest_db": highest_db,
            }
            for one, (_, lowest_db, highest_db) in zip(given, given_to_wire(given), strict=True)
        ],
    }


async def _told(
    request: HttpRequest, show_id: UUID, change: Callable[..., object], *about: Any
) -> dict[str, Any]:
    """Make a change of roles, tell open screens, and give how it stands now."""
    user = await request.auser()
    await in_database(change, show_id, *about)
    tell_roles(show_id)
    return await in_database(_people, user.pk, show_id, again=True)


@router.get("/shows/{uuid:show_id}/people", response=People)
async def people(request: HttpRequest, show_id: UUID) -> dict[str, Any]:
    """Whose the show is, and who has a role in it."""
    user = await request.auser()
    return await in_database(_people, user.pk, show_id, again=True)


@router.post("/shows/{uuid:show_id}/people", response={200: People, 422: ErrorReply})
async def share(request: HttpRequest, show_id: UUID, new: NewShare) -> dict[str, Any]:
    """Share the show with somebody; who has a role in it gets the other one."""
    return await _told(request, show_id, _shared, new)


def _shared(show_id: UUID, new: NewShare) -> None:
    with transaction.atomic():
        row = get_object_or_404(models.Show.objects.select_for_update(), pk=show_id)
        person = _person(row, new.name)
        if row.shares.exclude(person=person).count() >= MOST_SHARES:
            raise UnreadableText(new.name, f"one of {MOST_SHARES} people at most")
        row.shares.update_or_create(person=person, defaults={"role": new.role})


def _person(row: models.Show, name: str) -> User:
    person = others_than(row).filter(username=name).first()
    if person is None:
        raise UnreadableText(name, "the name of an account that is open, and not the owner's")
    return person


@router.patch(
    "/shows/{uuid:show_id}/people/{int:share_id}", response={200: People, 422: ErrorReply}
)
async def change_role(
    request: HttpRequest, show_id: UUID, share_id: int, new: NewRole
) -> dict[str, Any]:
    """Another role for somebody; what a volunteer rode is kept for when they are one again."""
    return await _told(request, show_id, _changed, share_id, new.role)


def _changed(show_id: UUID, share_id: int, role: str) -> None:
    one = get_object_or_404(models.Share, pk=share_id, show=show_id)
    one.role = role
    one.save(update_fields=["role"])


@router.delete("/shows/{uuid:show_id}/people/{int:share_id}", response=People)
async def unshare(request: HttpRequest, show_id: UUID, share_id: int) -> dict[str, Any]:
    """Share the show with somebody no more: their screens end, what waits of theirs is refused."""
    return await _told(request, show_id, _unshared, share_id)


def _unshared(show_id: UUID, share_id: int) -> None:
    get_object_or_404(models.Share, pk=share_id, show=show_id).delete()


@router.post(
    "/shows/{uuid:show_id}/people/{int:share_id}/given", response={200: People, 422: ErrorReply}
)
async def give(request: HttpRequest, show_id: UUID, share_id: int, new: NewGiven) -> dict[str, Any]:
    """Give a volunteer faders between their ends, mutes or a lift; what they have gets the new

    ends.
    """
    return await _told(request, show_id, _given, share_id, new)


def _given(show_id: UUID, share_id: int, new: NewGiven) -> None:
    get_object_or_404(models.Show, pk=show_id)
    show = live_of(show_id).now().show
    more = core.read_given(show, new.kind, new.typed, new.lowest, new.highest)
    with _held(show_id, share_id) as one:
        given = {was.what: was for was in given_of(one.given)} | {it.what: it for it in more}
        if len(given) > MOST_GIVEN:
            raise UnreadableText(new.typed, f"{MOST_GIVEN} things for one volunteer at most")
        one.given = given_to_wire(given.values())


@router.delete("/shows/{uuid:show_id}/people/{int:share_id}/given", response=People)
async def take_back(
    request: HttpRequest, show_id: UUID, share_id: int, what: str
) -> dict[str, Any]:
    """Take something back that a volunteer rides."""
    return await _told(request, show_id, _taken_back, share_id, what)


def _taken_back(show_id: UUID, share_id: int, what: str) -> None:
    with _held(show_id, share_id) as one:
        one.given = [row for row in one.given if row[0] != what]


@contextmanager
def _held(show_id: UUID, share_id: int) -> Iterator[models.Share]:
    """What a volunteer rides, while it is changed: no edit renumbers it meanwhile."""
    with transaction.atomic():
        get_object_or_404(models.Show.objects.select_for_update(), pk=show_id)
        one = get_object_or_404(models.Share, pk=share_id, show=show_id)
        yield one
        one.save(update_fields=["given"])


class NewOwner(Schema):
    """By name, whose a show is to be."""

    name: _Name


@router.post("/shows/{uuid:show_id}/owner", response={200: People, 422: ErrorReply})
async def give_away(request: HttpRequest, show_id: UUID, new: NewOwner) -> dict[str, Any]:
    """Give the show to somebody else; who had it stays an engineer of it."""
    return await _told(request, show_id, _given_away, new.name)


def _given_away(show_id: UUID, name: str) -> None:
    row = get_object_or_404(models.Show.objects, pk=show_id)
    hand_over(row, _person(row, name))
