"""Links for performers' phones: listed, made, renewed and ended by whoever runs the desk."""

from datetime import datetime
from functools import partial
from typing import Annotated, Any, Literal
from uuid import UUID, uuid4

from django.http import HttpRequest
from django.shortcuts import aget_object_or_404, get_object_or_404
from ninja import Router, Schema
from pydantic import ConfigDict, Field

from ombrel import core
from ombrel.formats.qr import qr_picture

from .. import models
from ..access.short_codes import give_codes
from ..asks.asking import STORABLE
from ..asks.asking import Address as Mix
from ..keeping.ear_links import end_links, make_link, renew_link, with_last_moves
from ..keeping.live import live_of
from ..keeping.request import Refused, Request
from ..keeping.undoing import whose_turn
from ..keeping.work import in_database
from ..screen.rooms import open_by, tell_links
from ..screen.ticker import ticker_of

__all__ = ["router"]

router = Router(tags=["phones"])

MOST_MIXES = 200
Days = Annotated[int, Field(ge=1, le=400)]


class LinkRow(Schema):
    """A link: whose, of which mixes, until when (null: no end), whether it stands, how many phones

    have opened it and have it open now, and when one moved something last (null: never).
    """

    id: UUID
    who: str
    mixes: list[str]
    made_at: datetime
    ends_at: datetime | None
    ended: bool
    phones: int
    open: int
    moved_at: datetime | None


class NewCode(Schema):
    """A short code for whoever picks this name on the phones' page, told this once."""

    link: UUID
    who: str
    code: str
    ends_at: datetime


class Turned(Schema):
    """What was turned back, or done again, in words."""

    revision: int
    says: str


class NewLink(Schema):
    """A link and its token, which is told this once; the page's address is /mine#token, and `code`

    a picture of it for a phone's camera.
    """

    link: LinkRow
    token: str
    code: str


class LinkAsk(Schema):
    """Make a link of some mixes. `who`: whose phone it is for; "": as the first mix says."""

    model_config = ConfigDict(extra="forbid")

    mixes: Annotated[list[Mix], Field(min_length=1, max_length=MOST_MIXES)]
    who: Annotated[str, Field(max_length=60, pattern=STORABLE)] = ""
    days: Days | None = None


class LinksAsk(Schema):
    """Links that are meant."""

    model_config = ConfigDict(extra="forbid")

    links: Annotated[list[UUID], Field(min_length=1, max_length=MOST_MIXES)]
    days: Days | None = None


def _row(link: models.EarLink, here: list[str], phones: list[Any]) -> LinkRow:
    return LinkRow(
        id=link.pk,
        who=link.who,
        mixes=link.mixes,
        made_at=link.made_at,
        ends_at=link.ends_at,
        ended=link.is_over,
        phones=len(phones),
        open=sum(phone.person.get_username() in here for phone in phones),
        moved_at=max((one.moved_at for one in phones if one.moved_at), default=None),
    )


def _rows(show_id: UUID, here: list[str]) -> list[LinkRow]:
    show = get_object_or_404(models.Show, pk=show_id)
    found: dict[UUID, list[Any]] = {}
    for phone in with_last_moves().filter(link__show_id=show_id):
        found.setdefault(phone.link_id, []).append(phone)
    return [_row(link, here, found.get(link.pk, [])) for link in show.ear_links.all()]


def _links(show_id: UUID, ids: list[UUID]) -> list[models.EarLink]:
    return [get_object_or_404(models.EarLink, pk=one, show_id=show_id) for one in ids]


@router.get("/shows/{uuid:show_id}/links", response=list[LinkRow])
async def links(request: HttpRequest, show_id: UUID) -> list[LinkRow]:
    """The links of a show, as they were made."""
    return await in_database(_rows, show_id, open_by(show_id), again=True)


def _new(request: HttpRequest, link: models.EarLink, token: str) -> NewLink:
    address = f"{request.build_absolute_uri('/mine')}#{token}"
    return NewLink(link=_row(link, [], []), token=token, code=qr_picture(address))


def _made(request: HttpRequest, show_id: UUID, asked: LinkAsk) -> NewLink:
    get_object_or_404(models.Show, pk=show_id)
    show = live_of(show_id).now().show
    for mix in asked.mixes:
        if mix not in show.in_use("mix"):
            raise core.UnknownAddress(mix, "no such mix is in use")
    who = asked.who.strip() or core.who_hears(show, asked.mixes[0])[:60]
    who = who or core.strip_name(show, asked.mixes[0])[:60]
    link, token = make_link(show_id, who, asked.mixes, asked.days)
    return _new(request, link, token)


@router.post("/shows/{uuid:show_id}/links", response=NewLink)
async def make(request: HttpRequest, show_id: UUID, asked: LinkAsk) -> NewLink:
    """Make a link. Refused for what is no mix in use."""
    return await in_database(_made, request, show_id, asked)


def _renewed(request: HttpRequest, show_id: UUID, asked: LinksAsk) -> list[NewLink]:
    found = [(link, renew_link(link, asked.days)) for link in _links(show_id, asked.links)]
    return [_new(request, link, token) for link, token in found]


@router.post("/shows/{uuid:show_id}/links/renew", response=list[NewLink])
async def renew(request: HttpRequest, show_id: UUID, asked: LinksAsk) -> list[NewLink]:
    """Give links other tokens: the old ones, and each phone by them, are out at once."""
    new = await in_database(_renewed, request, show_id, asked)
    tell_links(show_id)
    return new


def _for_all(request: HttpRequest, show_id: UUID) -> list[NewLink]:
    get_object_or_404(models.Show, pk=show_id)
    show = live_of(show_id).now().show
    links = models.EarLink.objects.filter(show_id=show_id)
    having = {mix for link in links if not link.is_over for mix in link.mixes}
    lacking = [mix for mix in core.ear_mixes(show) if mix not in having]
    return [_made(request, show_id, LinkAsk(mixes=[mix])) for mix in lacking]


@router.post("/shows/{uuid:show_id}/links/all", response=list[NewLink])
async def make_for_all(request: HttpRequest, show_id: UUID) -> list[NewLink]:
    """Make a link for every mix for ears or a wedge that has none that stands."""
    return await in_database(_for_all, request, show_id)


def _coded(show_id: UUID, asked: LinksAsk) -> list[NewCode]:
    links = [one for one in _links(show_id, asked.links) if not one.is_over]
    codes, ends = give_codes(links)
    return [NewCode(link=o.pk, who=o.who, code=code, ends_at=ends) for o, code in codes.items()]


@router.post("/shows/{uuid:show_id}/links/codes", response=list[NewCode])
async def codes(request: HttpRequest, show_id: UUID, asked: LinksAsk) -> list[NewCode]:
    """Give links short codes, which stand for an hour; those that ended get none."""
    return await in_database(_coded, show_id, asked)


@router.post("/shows/{uuid:show_id}/links/{uuid:link_id}/{turn}", response=Turned)
async def turn(
    request: HttpRequest, show_id: UUID, link_id: UUID, turn: Literal["undo", "redo"]
) -> Turned:
    """Turn back the last gesture of a link's phones, or do it again; nobody else's move goes.

    It stands in the log as the phone's own, with who did it at the desk. Refused where there is
    nothing to turn.
    """
    link = await aget_object_or_404(models.EarLink, pk=link_id, show_id=show_id)
    user = await request.auser()
    people = [phone.person_id async for phone in link.phones.all()]
    whose = await in_database(partial(whose_turn, show_id, people, redo=turn == "redo"))
    edit_id, by = uuid4(), user.get_username()
    ask = Request(
        edit_id=edit_id, author_id=whose, gesture=str(edit_id),
        kind=models.Change.Kind(turn), author=by, turned_by=by,
        trusted=True,  # for a phone, by an engineer
    )  # fmt: skip
    outcome = await ticker_of(show_id).submit(ask)
    if isinstance(outcome, Refused):
        raise outcome.error
    return Turned(revision=outcome.revision, says=outcome.says)


def _ended(show_id: UUID, asked: LinksAsk, here: list[str]) -> list[LinkRow]:
    end_links(_links(show_id, asked.links))
    return _rows(show_id, here)


@router.post("/shows/{uuid:show_id}/links/end", response=list[LinkRow])
async def end(request: HttpRequest, show_id: UUID, asked: LinksAsk) -> list[LinkRow]:
    """End links: from now on nothing moves by them, and open pages close."""
    found = await in_database(_ended, show_id, asked, open_by(show_id))
    tell_links(show_id)
    return found
