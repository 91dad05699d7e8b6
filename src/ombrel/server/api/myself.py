"""The HTTP side of one's own account: its password, and where one is signed in."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from django.contrib.auth import update_session_auth_hash
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from ..access.accounts import change_password
from ..access.visits import end_visits, moved_on, visits_of
from ..messages.replies import ErrorReply

__all__ = ["router"]

router = Router(tags=["people"])

_Password = Annotated[str, Field(max_length=200)]


class Visit(Schema):
    """One place at which somebody is signed in; `here`: the one that asks."""

    id: UUID
    address: str
    agent: str
    began_at: datetime
    seen_at: datetime
    here: bool


class PasswordChange(Schema):
    """One's own password, and another."""

    old: _Password
    new: _Password


def _visits(request: HttpRequest) -> list[dict[str, Any]]:
    here = request.session.session_key
    return [
        {
            "id": one.pk,
            "address": one.address,
            "agent": one.agent,
            "began_at": one.began_at,
            "seen_at": one.seen_at,
            "here": one.session == here,
        }
        for one in visits_of(request.user.pk or 0)
    ]


@router.get("/me/visits", response=list[Visit])
def visits(request: HttpRequest) -> list[dict[str, Any]]:
    """Where I am signed in, the one seen last first."""
    return _visits(request)


@router.delete("/me/visits/{uuid:visit_id}", response=list[Visit])
def end_visit(request: HttpRequest, visit_id: UUID) -> list[dict[str, Any]]:
    """Sign out at one place; its screens end."""
    end_visits(request.user.pk or 0, visit_id)
    return _visits(request)


@router.delete("/me/visits", response=list[Visit])
def end_other_visits(request: HttpRequest) -> list[dict[str, Any]]:
    """Sign out everywhere but here."""
    end_visits(request.user.pk or 0, but=request.session.session_key)
    return _visits(request)


@router.post(
    "/me/password",
    response={200: list[Visit], 403: ErrorReply, 422: ErrorReply, 429: ErrorReply},
)
def new_password(request: HttpRequest, change: PasswordChange) -> list[dict[str, Any]]:
    """Another password for oneself; whoever is signed in elsewhere is signed out there."""
    user: Any = request.user
    before = request.session.session_key
    change_password(user, change.old, change.new, before)
    update_session_auth_hash(request, user)  # it gives this sign-in another session
    moved_on(before, request.session.session_key)
    return _visits(request)
