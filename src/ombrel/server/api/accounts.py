"""The HTTP side of accounts, for administrators: made, closed, opened, unlocked, handed over."""

from datetime import datetime
from typing import Annotated, Any

from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.http import Http404, HttpRequest
from ninja import Router, Schema
from pydantic import Field

from ombrel.core import UnreadableText

from ..access.accounts import (
    account,
    accounts,
    give_password,
    hand_over_all,
    make_account,
    set_account,
    tried_for,
    unlock,
)
from ..access.visits import end_visits, visits_of
from ..messages.replies import ErrorReply

__all__ = ["router"]

router = Router(tags=["accounts"])

_Name = Annotated[str, Field(max_length=60)]
_Password = Annotated[str, Field(max_length=200)]


class AccountRow(Schema):
    """An account. `owns`: how many shows; `tried`: wrong passwords since the last right one;

    `visits`: at how many places it is signed in.
    """

    id: int
    name: str
    is_open: bool
    administrator: bool
    made_at: datetime
    seen_at: datetime | None
    owns: int
    tried: int
    locked: bool
    visits: int


class NewAccount(Schema):
    """An account to be made."""

    name: _Name
    password: _Password
    administrator: bool = False


class AccountChange(Schema):
    """What is to be otherwise; null: stays."""

    is_open: bool | None = None
    administrator: bool | None = None


class NewPassword(Schema):
    """A password that an administrator gives."""

    password: _Password


class To(Schema):
    """By name, who gets something."""

    name: _Name


def _row(person: Any) -> dict[str, Any]:
    tried, locked = tried_for(person)
    return {
        "id": person.pk,
        "name": person.get_username(),
        "is_open": person.is_active,
        "administrator": person.is_staff,
        "made_at": person.date_joined,
        "seen_at": person.seen_at,
        "owns": person.owns,
        "tried": tried,
        "locked": locked,
        "visits": visits_of(person.pk).count(),
    }


def _one(account_id: int) -> User:
    person = account(account_id)
    if person is None:
        raise Http404
    return person


def _list() -> list[dict[str, Any]]:
    return [_row(one) for one in accounts()]


@router.get("/accounts", response=list[AccountRow])
def list_accounts(request: HttpRequest) -> list[dict[str, Any]]:
    """Everybody who can sign in, or could."""
    return _list()


@router.post("/accounts", response={200: list[AccountRow], 422: ErrorReply})
def new_account(request: HttpRequest, new: NewAccount) -> list[dict[str, Any]]:
    """Make an account."""
    make_account(new.name, new.password, administrator=new.administrator)
    return _list()


@router.patch("/accounts/{int:account_id}", response={200: list[AccountRow], 409: ErrorReply})
def change_account(
    request: HttpRequest, account_id: int, change: AccountChange
) -> list[dict[str, Any]]:
    """Close or open an account; let it administrate, or not."""
    person = _one(account_id)
    set_account(person, is_open=change.is_open, administrator=change.administrator)
    return _list()


@router.post(
    "/accounts/{int:account_id}/password", response={200: list[AccountRow], 422: ErrorReply}
)
def set_password(request: HttpRequest, account_id: int, new: NewPassword) -> list[dict[str, Any]]:
    """Another password for somebody; they are signed out everywhere."""
    give_password(_one(account_id), new.password)
    return _list()


@router.post("/accounts/{int:account_id}/unlock", response=list[AccountRow])
def unlock_account(request: HttpRequest, account_id: int) -> list[dict[str, Any]]:
    """Let somebody try their password again."""
    unlock(_one(account_id))
    return _list()


@router.post("/accounts/{int:account_id}/sign-out", response=list[AccountRow])
def sign_out_account(request: HttpRequest, account_id: int) -> list[dict[str, Any]]:
    """Sign somebody out, wherever they are signed in."""
    end_visits(_one(account_id).pk)
    return _list()


@router.post(
    "/accounts/{int:account_id}/hand-over", response={200: list[AccountRow], 422: ErrorReply}
)
def hand_over_account(request: HttpRequest, account_id: int, to: To) -> list[dict[str, Any]]:
    """Give all shows of an account to another, which nobody has to know by name for it."""
    person = _one(account_id)
    other = get_user_model().objects.filter(username=to.name, is_active=True).first()
    if other is None or other.pk == person.pk:
        raise UnreadableText(to.name, "the name of another open account")
    hand_over_all(person, other)
    return _list()
