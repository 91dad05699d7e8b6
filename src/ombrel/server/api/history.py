"""The HTTP side of a show's history: what was changed, points kept, two points compared."""

import math
from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from django.db import IntegrityError
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from immutables import Map
from ninja import Query, Router, Schema
from pydantic import Field

from ombrel import core

from .. import models
from ..asks.asking import STORABLE
from ..keeping.log import Gesture, gestures, last_hand, shown_at
from ..keeping.states import from_wire
from ..messages.replies import ErrorReply

__all__ = ["router"]

router = Router()
TOLD = 400  # differences of a kind told at once
About = Annotated[str, Query(max_length=200, pattern=STORABLE)]


class GestureReply(Schema):
    """What one hand did at a time. `first`, `last`: its revisions; `values`: addresses moved.

    `was` and `now`: of the one value that it moved; "" where it moved several.
    """

    first: int
    last: int
    made_at: datetime
    author: str
    kind: str
    says: str
    values: int
    was: str
    now: str


class PointReply(Schema):
    """A revision kept under a name."""

    id: int
    revision: int
    name: str
    author: str
    made_at: datetime


class HistoryReply(Schema):
    """A page of a show's history. `more`: the revision to ask on before; null when that was all."""

    revision: int
    gestures: list[GestureReply]
    more: int | None
    points: list[PointReply]
    people: list[str]


class Wanted(Schema):
    """Which part of the history."""

    before: int | None = None
    author: Annotated[str, Field(max_length=150, pattern=STORABLE)] = ""
    strip: Annotated[str, Field(max_length=60, pattern=STORABLE)] = ""
    words: Annotated[str, Field(max_length=100, pattern=STORABLE)] = ""
    since: datetime | None = None
    until: datetime | None = None


def _point(point: models.Point) -> dict[str, Any]:
    author = point.author.get_username() if point.author else "Ombrel"
    return {"id": point.pk, "revision": point.revision, "name": point.name, "author": author,
            "made_at": point.made_at}  # fmt: skip


def _told(stands: core.Show, one: Gesture) -> dict[str, Any]:
    told = None
    values = (*one.old.values(), *one.new.values())
    # a value, and the place that its gang keeps; no text of a scene, which would be fetched
    if len(one.new) <= 2 and not any(isinstance(value, dict) for value in values):
        change = core.Change(Map(from_wire(one.old)), Map(from_wire(one.new)))
        told = core.in_one(stands, change)
    was, now = told or ("", "")
    return {"first": one.first, "last": one.last, "made_at": one.made_at, "author": one.author,
            "kind": one.kind, "says": one.says, "values": len(one.new), "was": was,
            "now": now}  # fmt: skip


@router.get("/shows/{uuid:show_id}/history", response=HistoryReply)
def history(request: HttpRequest, show_id: UUID, wanted: Query[Wanted]) -> dict[str, Any]:
    """Who changed what and when, newest first."""
    show = get_object_or_404(models.Show, pk=show_id)
    found, more = gestures(show_id, **wanted.dict())
    stands = shown_at(show_id, None)
    people = models.Change.objects.filter(show=show).exclude(author=None).order_by()
    return {
        "revision": show.revision,
        "gestures": [_told(stands, one) for one in found],
        "more": more,
        "points": [_point(point) for point in show.points.select_related("author")],
        "people": sorted(people.values_list("author__username", flat=True).distinct()),
    }  # fmt: skip


class NewPoint(Schema):
    """A point to keep; of the revision that the screen showed."""

    name: str
    revision: int


@router.post("/shows/{uuid:show_id}/points", response={200: PointReply, 422: ErrorReply})
def keep_point(request: HttpRequest, show_id: UUID, new: NewPoint) -> dict[str, Any]:
    """Keep a revision under a name."""
    show = get_object_or_404(models.Show, pk=show_id)
    name = str(core.parameter_at("show/name").kind.typed(new.name, "", "the name of a point"))
    if not name:
        raise core.UnreadableText(new.name, "a name for the point")
    if not 0 <= new.revision <= show.revision:
        raise core.NoSuchPoint(new.revision, show.revision)
    try:
        point = models.Point.objects.create(
            show=show, revision=new.revision, name=name, author_id=request.user.pk
        )
    except IntegrityError as error:
        raise core.UnreadableText(name, "a name that no other point of this show has") from error
    return _point(point)


@router.delete("/shows/{uuid:show_id}/points/{point_id}", response=PointReply)
def remove_point(request: HttpRequest, show_id: UUID, point_id: int) -> dict[str, Any]:
    """Forget a point; the history itself stays."""
    point = get_object_or_404(models.Point, show_id=show_id, pk=point_id)
    told = _point(point)
    point.delete()
    return told


class DifferenceReply(Schema):
    """An address that holds something else, as people read it."""

    address: str
    strip: str
    whose: str
    what: str
    was: str
    now: str


class HeardReply(Schema):
    """A cell of who hears what that differs; a level in dB, null where nothing is heard."""

    source: str
    listener: str
    source_name: str
    listener_name: str
    was_db: float | None
    now_db: float | None


class ComparedReply(Schema):
    """Two revisions laid against one another; of many differences the first are told."""

    differences: list[DifferenceReply]
    differing: int
    heard: list[HeardReply]
    heard_otherwise: int
    strips: list[tuple[str, str, int]]


def _db(level_db: float) -> float | None:
    return None if math.isinf(level_db) else round(level_db, 2)


@router.get("/shows/{uuid:show_id}/compared", response=ComparedReply)
def compare(
    request: HttpRequest, show_id: UUID, was: int, now: int | None = None, of: About = ""
) -> dict[str, Any]:
    """What differs between the revision `was` and `now` (left out: the show as it stands); `of`:

    only about strips as typed: a listener, a strip, a family.
    """
    get_object_or_404(models.Show, pk=show_id)
    before, after = shown_at(show_id, was), shown_at(show_id, now)
    found = core.differences(before, after)
    heard = core.compared(before, after, core.flow_of(before), core.flow_of(after))
    if of.strip():
        strips = core.read_strips(after, of, unused=True)
        found, heard = core.narrowed(found, heard, strips)
    counts: dict[str, int] = {}
    for one in found:
        counts[one.strip] = counts.get(one.strip, 0) + 1
    return {
        "differences": [_difference(one) for one in found[:TOLD]],
        "differing": len(found),
        "heard": [
            {"source": one.source, "listener": one.listener,
             "source_name": one.source_name, "listener_name": one.listener_name,
             "was_db": _db(one.was_db), "now_db": _db(one.now_db)}
            for one in heard[:TOLD]
        ],
        "heard_otherwise": len(heard),
        "strips": [
            (strip, core.strip_name(after, strip), count) for strip, count in counts.items()
            if core.of_kind(strip) in _STRIPS
        ],
    }  # fmt: skip


_STRIPS = (*core.STRIP_KINDS, "line")


def _difference(one: core.Difference) -> dict[str, str]:
    return {"address": one.address, "strip": one.strip, "whose": one.whose, "what": one.what,
            "was": one.was, "now": one.now}  # fmt: skip


class LastReply(Schema):
    """Who moved a value last, and when; "" and null: nobody, as far as is looked through. `kind`:

    an edit, an undo or a redo. `was`: what stood there before that gesture, in words; null where it
    was another strip's, since renumbered. `back`: it can be so again, by `was_value` as moves have
    it.
    """

    by: str
    at: datetime | None
    kind: str
    now: str
    was: str | None
    was_value: float | bool | str | None
    back: bool


@router.get("/shows/{uuid:show_id}/last", response=LastReply)
def last(request: HttpRequest, show_id: UUID, address: About) -> dict[str, Any]:
    """Who moved the value that stands at an address, when, and what it was before."""
    get_object_or_404(models.Show, pk=show_id)
    show = shown_at(show_id, None)
    stands = core.value_text(show, address, show[address])
    over = core.layer_at(show.desk, show.layers, address)
    # what a fitting has stands at the channel: a hand's move goes there by the channel's address
    set_at = over if over is not None and over in show.own else address
    found = last_hand(show_id, set_at)
    told: dict[str, Any] = {"by": "", "at": None, "kind": "", "now": stands, "was": None,
                            "was_value": None, "back": False}  # fmt: skip
    if found is None:
        return told
    told |= {"by": found.by, "at": found.at, "kind": found.kind}
    if found.renumbered:
        return told
    was = from_wire({set_at: found.was})[set_at]
    back = was != show[set_at] and (set_at == address or was is not None)
    return {**told, "was": core.value_text(show, set_at, was), "was_value": found.was,
            "back": back}  # fmt: skip


class SceneDifferenceReply(Schema):
    """A value that two scenes hold otherwise, in words."""

    holder: str
    name: str
    label: str
    one: str
    other: str


class ScenesComparedReply(Schema):
    """Two scenes laid against one another; of many differences the first are told."""

    differences: list[SceneDifferenceReply]
    differing: int


@router.get("/shows/{uuid:show_id}/scenes/compared", response=ScenesComparedReply)
def compare_scenes(request: HttpRequest, show_id: UUID, one: int, other: int) -> dict[str, Any]:
    """What two scenes (by their ids) hold otherwise."""
    get_object_or_404(models.Show, pk=show_id)
    show = shown_at(show_id, None)
    found = list(core.compare_scenes(show, f"scene/{one}", f"scene/{other}"))
    return {
        "differences": [
            {"holder": d.holder, "name": d.name, "label": d.label, "one": d.one, "other": d.other}
            for d in found[:TOLD]
        ],
        "differing": len(found),
    }


class FittingSideReply(Schema):
    """A value that two fittings have otherwise, in words."""

    label: str
    one: str
    other: str


class FittingCurveReply(Schema):
    """What a fitting makes of a channel, in dB: the magnitude of its low cut and EQ at frequencies,

    and what goes into and comes out of its gate and compressor, point by point.
    """

    name: str
    frequencies_hz: list[float]
    total_db: list[float]
    gate: list[tuple[float, float]]
    compressor: list[tuple[float, float]]


class FittingsComparedReply(Schema):
    """Two fittings side by side, and their curves over one another."""

    curves: list[FittingCurveReply]
    sides: list[FittingSideReply]


@router.get("/shows/{uuid:show_id}/fittings/compared", response=FittingsComparedReply)
def compare_fittings(request: HttpRequest, show_id: UUID, one: int, other: int) -> dict[str, Any]:
    """What two fittings (by their ids) have otherwise."""
    get_object_or_404(models.Show, pk=show_id)
    show = shown_at(show_id, None)
    both = f"fitting/{one}", f"fitting/{other}"
    return {
        "curves": [
            {
                "name": one.name,
                "frequencies_hz": [round(hertz, 3) for hertz in one.frequencies_hz],
                "total_db": [round(db, 2) for db in one.total_db],
                "gate": [(round(at, 2), round(out, 2)) for at, out in one.gate],
                "compressor": [(round(at, 2), round(out, 2)) for at, out in one.compressor],
            }
            for one in core.laid_together(show, *both)
        ],
        "sides": [
            {"label": label, "one": here, "other": there}
            for label, here, there in core.side_by_side(show, *both)
        ],
    }
