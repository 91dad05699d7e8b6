"""The HTTP side: who I am, which shows there are, what a desk has, and sample lists."""

from datetime import datetime
from functools import cache
from importlib.resources import files
from typing import Any, Literal
from uuid import UUID, uuid4

from django.db.models import OuterRef, Subquery
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import aget_object_or_404, get_object_or_404
from django.utils.timezone import now
from ninja import Router, Schema

from ombrel import core
from ombrel.core import Typed

from .. import models
from ..access.visits import seen_now
from ..asks.plans import Planned
from ..keeping.desks import desk_keys, desk_of
from ..keeping.exchange import exchange
from ..keeping.people import roles_of, shows_of
from ..keeping.request import Refused, Request
from ..keeping.shows import copy_of
from ..messages.replies import ErrorReply, ShowRow
from ..screen.rooms import open_by, open_room
from ..screen.ticker import ticker_of
from .habits import Habits, habits_of

__all__ = ["DeskReply", "router", "told_of"]

router = Router()


class DeskChoice(Schema):
    """A desk profile that a new show can be made on."""

    key: str
    name: str


class MyShow(ShowRow):
    """A show in which somebody has a role."""

    role: core.Role


class Me(Schema):
    """Who is signed in, how they like it, the shows in which they have a role, the desks for a new

    one. `administrator`: they make accounts.
    """

    name: str
    administrator: bool
    habits: Habits
    shows: list[MyShow]
    desks: list[DeskChoice]


@router.get("/me", response=Me)
def me(request: HttpRequest) -> dict[str, Any]:
    """Who is signed in."""
    user: Any = request.user
    seen_now(request.session.session_key)
    return {
        "name": str(user),
        "administrator": user.is_staff,
        "habits": habits_of(user.pk),
        "shows": [
            {"id": row.pk, "name": row.name, "desk": row.desk, "role": role}
            for row, role in roles_of(user.pk)
        ],
        "desks": [{"key": key, "name": desk_of(key).name} for key in desk_keys()],
    }


class ShowCard(Schema):
    """A show in the view of all shows: its desk, and who changed it last."""

    id: UUID
    name: str
    desk: str
    revision: int
    made_at: datetime
    changed_at: datetime | None
    changed_by: str
    removed_at: datetime | None
    role: core.Role
    owner: str


@router.get("/shows", response=list[ShowCard])
def shows(request: HttpRequest) -> list[dict[str, Any]]:
    """The shows in which whoever asks has a role, the one that changed last first; those that were

    removed too, for who may bring them back.
    """
    newest = models.Change.objects.filter(show=OuterRef("pk")).order_by("-revision")
    rows = shows_of(request.user.pk, removed=True).annotate(
        changed_at=Subquery(newest.values("made_at")[:1]),
        changed_by=Subquery(newest.values("author__username")[:1]),
    )
    roles = {row.pk: role for row, role in roles_of(request.user.pk, removed=True)}
    cards = [
        {
            "id": row.pk,
            "name": row.name,
            "desk": desk_of(row.desk).name,
            "revision": row.revision,
            "made_at": row.made_at,
            "changed_at": row.changed_at,
            "changed_by": row.changed_by or "",
            "removed_at": row.removed_at,
            "role": roles[row.pk],
            "owner": row.owner.get_username() if row.owner else "",
        }
        for row in rows
        if row.pk in roles and (row.removed_at is None or core.may(roles[row.pk], "engineer"))
    ]
    return sorted(cards, key=lambda card: card["changed_at"] or card["made_at"], reverse=True)


class NewName(Schema):
    """What a show is to be called."""

    name: str


@router.patch("/shows/{uuid:show_id}", response={200: ShowRow, 422: ErrorReply})
async def rename_show(request: HttpRequest, show_id: UUID, new: NewName) -> models.Show:
    """Call a show otherwise: an edit like any other, which its undo takes back."""
    user = await request.auser()
    await aget_object_or_404(models.Show, pk=show_id)
    edit_id = uuid4()
    plan = Planned({"show/name": Typed(new.name)}, "Show renamed")
    outcome = await ticker_of(show_id).submit(
        Request(edit_id=edit_id, author_id=user.pk, gesture=str(edit_id), plan=lambda turn: plan)
    )
    if isinstance(outcome, Refused):
        raise outcome.error
    return await models.Show.objects.aget(pk=show_id)


@router.post("/shows/{uuid:show_id}/copy", response=ShowRow)
def copy_show(request: HttpRequest, show_id: UUID) -> models.Show:
    """A new show with all that stands in this one."""
    return copy_of(get_object_or_404(models.Show, pk=show_id), request.user.pk)


@router.delete("/shows/{uuid:show_id}", response={200: ShowRow, 409: ErrorReply})
async def remove_show(request: HttpRequest, show_id: UUID, sure: bool = False) -> models.Show:
    """Take a show off the list; it can be brought back. Others who have it open are named first,

    unless whoever asks is `sure`; then they are told.
    """
    row = await aget_object_or_404(models.Show, pk=show_id)
    user = await request.auser()
    check_nobody_else(show_id, user.get_username(), sure=sure)
    return await taken_off(row)


def check_nobody_else(show_id: UUID, name: str, *, sure: bool) -> None:
    """Raises ShowOpen where others than this person have a show open, unless they are `sure`."""
    others = [one for one in open_by(show_id) if one != name]
    if others and not sure:
        raise core.ShowOpen(others)


async def taken_off(row: models.Show) -> models.Show:
    """Take a show off the list, and tell who has it open."""
    show_id = row.pk
    row.removed_at = now()
    await row.asave(update_fields=["removed_at"])
    room = open_room(show_id)
    if room is not None:
        room.removed()
    else:
        exchange().say(show_id, {"what": "gone"})
    return row


@router.post("/shows/{uuid:show_id}/back", response=ShowRow)
def bring_back_show(request: HttpRequest, show_id: UUID) -> models.Show:
    """Put a removed show back on the list, as it was."""
    row = get_object_or_404(models.Show.everything, pk=show_id)
    row.removed_at = None
    row.save(update_fields=["removed_at"])
    return row


class NewShow(Schema):
    """A show to be made, blank, on a desk profile."""

    name: str
    desk: str


@router.post("/shows", response={200: ShowRow, 422: ErrorReply})
def make_show(request: HttpRequest, new: NewShow) -> models.Show:
    """Make a blank show."""
    name = core.parameter_at("show/name").kind.typed(new.name, "", "show/name")
    if not name:
        raise core.UnreadableText(new.name, "a name for the show")
    desk = desk_of(new.desk).key
    return models.Show.objects.create(name=str(name), desk=desk, owner_id=request.user.pk)


class ParameterReply(Schema):
    """One entry of the catalogue. Numbers have unit, range (lowest null: off) and step."""

    key: str
    label: str
    says: str
    aspect: str
    kind: Literal["number", "switch", "choice", "text", "reference"]
    default: float | bool | str | None
    unit: str = ""
    lowest: float | None = None
    highest: float | None = None
    step: float | None = None
    law: Literal["straight", "fader", "octaves"] = "straight"
    options: list[str] = []
    longest: int | None = None


@cache
def _recipes() -> list[tuple[str, str]]:
    """The recipes that ship, by role: plain files, a line each."""
    folder = files("ombrel") / "recipes"
    found = sorted((one.name, one.read_text("utf-8").strip()) for one in folder.iterdir())
    return [(name.removesuffix(".txt").replace("-", " "), text) for name, text in found]


class NewMixReply(Schema):
    """What a mix is made as unless told otherwise."""

    serves: str
    level_db: float
    tap: str


class DeskReply(Schema):
    """What a screen must know of a show's desk before it draws anything."""

    show: ShowRow
    name: str
    channels: int
    returns: int
    groups: int
    mixes: int
    matrices: int
    effect_engines: int
    dcas: int
    mute_groups: int
    sharing_groups: int
    sharing_inserts: int
    direct_channels: list[str]
    direct_returns: list[str]
    gangs: int
    promises: int
    lifts: int
    inserts: int
    lines: int
    full_scale_dbu: float
    boxes: list[core.Box]
    bays: list[core.Bay]
    parameters: list[ParameterReply]
    fader_marks: list[tuple[float, float]]
    bank_places: int
    scene_presets: list[tuple[str, str]]
    new_mix: NewMixReply
    unfolding: list[str]
    recipes: list[tuple[str, str]]


def _parameter(parameter: core.Parameter, profile: core.Desk) -> dict[str, Any]:
    kind = core.kind_of(profile, parameter)
    reply: dict[str, Any] = {
        "key": parameter.key,
        "label": parameter.label,
        "says": parameter.says,
        "aspect": parameter.aspect,
        "kind": type(kind).__name__.lower(),
        "default": kind.to_wire(parameter.default),
    }
    if isinstance(kind, core.Number):
        reply |= {"unit": kind.unit, "lowest": kind.to_wire(kind.lowest), "highest": kind.highest,
                  "step": kind.step, "law": kind.law}  # fmt: skip
    elif isinstance(kind, core.Choice):
        reply["options"] = list(kind.options)
    elif isinstance(kind, core.Text):
        reply["longest"] = kind.longest
    return reply


@router.get("/shows/{uuid:show_id}/desk", response=DeskReply)
def desk(request: HttpRequest, show_id: UUID) -> dict[str, Any]:
    """The desk, the catalogue and the marks of the fader's travel."""
    show = get_object_or_404(models.Show, pk=show_id)
    return {"show": show, **told_of(desk_of(show.desk))}


def told_of(profile: core.Desk) -> dict[str, Any]:
    """All of `DeskReply` that is of the desk alone."""
    return {
        **{
            field: getattr(profile, field)
            for field in (
                "name",
                "inserts",
                "sharing_inserts",
                "full_scale_dbu",
                "direct_channels",
                "direct_returns",
            )
        },
        **{field: profile.count(kind) for kind, field in core.COUNTED.items()},
        "gangs": profile.count("gang"),
        "promises": profile.count("promise"),
        "lifts": profile.count("lift"),
        "lines": core.LINES,
        "boxes": list(profile.boxes),
        "bays": list(profile.bays),
        "parameters": [
            _parameter(parameter, profile)
            for parameter in core.CATALOGUE.values()
            if not isinstance(
                parameter.kind, core.Packed | core.Maybe
            )  # pages are told it in words
        ],
        "fader_marks": list(core.FADER_MARKS),
        "bank_places": core.BANK_PLACES,
        "scene_presets": list(core.PRESETS_OF_CELLS.items()),
        "new_mix": core.NEW_MIX,
        "unfolding": list(core.UNFOLDING),
        "recipes": _recipes(),
    }


class Sample(Schema):
    """An input list that ships with Ombrel, to try."""

    name: str
    about: str


_SAMPLES = {
    "quay-band.csv": "six players, plain CSV",
    "harbour-choir.csv": "semicolons, Windows letters, a title above the headings",
    "salt-road-full.xlsx": "a whole evening as a spreadsheet, with ranges and stereo pairs",
}


@router.get("/samples", response=list[Sample])
def samples(request: HttpRequest) -> list[dict[str, str]]:
    """The sample input lists."""
    return [{"name": name, "about": about} for name, about in _SAMPLES.items()]


@router.get("/samples/{name}")
def sample(request: HttpRequest, name: str) -> HttpResponse:
    """One sample, as a download."""
    if name not in _SAMPLES:
        return JsonResponse(
            {"code": "unknown", "message": f"There is no sample {name!r}."}, status=404
        )
    content = (files("ombrel") / "demo" / name).read_bytes()
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return HttpResponse(content, content_type="application/octet-stream", headers=headers)
