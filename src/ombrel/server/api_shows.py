"""The HTTP side: who I am, which shows there are, what a desk has, and sample lists."""

from importlib.resources import files
from typing import Any, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Schema

from ombrel import core

from . import models
from .desks import desk_keys, desk_of
from .replies import ErrorReply, ShowRow

__all__ = ["router"]

router = Router()


class DeskChoice(Schema):
    """A desk profile that a new show can be made on."""

    key: str
    name: str


class Me(Schema):
    """Who is signed in, the shows that they may open, and the desks for a new one."""

    name: str
    shows: list[ShowRow]
    desks: list[DeskChoice]


@router.get("/me", response=Me)
def me(request: HttpRequest) -> dict[str, Any]:
    """Who is signed in."""
    return {
        "name": str(request.user),
        "shows": list(models.Show.objects.all()),
        "desks": [{"key": key, "name": desk_of(key).name} for key in desk_keys()],
    }


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
    return models.Show.objects.create(name=str(name), desk=desk_of(new.desk).key)


class BoxReply(Schema):
    """A box of sockets."""

    key: str
    name: str
    short: str
    inputs: int
    outputs: int
    preamps: bool
    output_block: int


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
    law: Literal["straight", "fader"] = "straight"
    options: list[str] = []
    longest: int | None = None


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
    lines: int
    full_scale_dbu: float
    boxes: list[BoxReply]
    parameters: list[ParameterReply]
    fader_marks: list[tuple[float, float]]


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
    profile = desk_of(show.desk)
    return {
        "show": show,
        "name": profile.name,
        "channels": profile.channels,
        "returns": profile.returns,
        "groups": profile.groups,
        "mixes": profile.mixes,
        "matrices": profile.matrices,
        "effect_engines": profile.effect_engines,
        "lines": core.LINES,
        "full_scale_dbu": profile.full_scale_dbu,
        "boxes": list(profile.boxes),
        "parameters": [_parameter(parameter, profile) for parameter in core.CATALOGUE.values()],
        "fader_marks": list(core.FADER_MARKS),
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
