"""The HTTP side of a show on another desk: looked at before, and taken there."""

from typing import Annotated, Any, Literal
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import aget_object_or_404
from ninja import Router, Schema
from pydantic import Field

from ombrel import core

from .. import models
from ..keeping.desks import desk_of
from ..keeping.people import goes_on_as
from ..keeping.shows import elsewhere, made_from, whole_of
from ..keeping.work import at_leisure, in_database
from ..messages.replies import ErrorReply, ShowRow
from .shows import check_nobody_else, taken_off

__all__ = ["router"]

router = Router()

_Key = Annotated[str, Field(max_length=60)]
_Boxes = Annotated[dict[_Key, _Key], Field(max_length=64)]


class Elsewhere(Schema):
    """Another desk. `boxes`: which box there stands for which of the show's ("": none); null: as

    Ombrel finds them.
    """

    desk: _Key
    boxes: _Boxes | None = None


class BoxThere(Schema):
    """A box of the show's desk, and what stands for it there ("": none)."""

    key: str
    name: str
    to: str


class BoxChoice(Schema):
    """A box of the other desk."""

    key: str
    name: str


class LeftReply(Schema):
    """Something that the move means: heard, kept aside, or back from aside."""

    tone: Literal["heard", "aside", "back"]
    says: str


class ElsewhereReply(Schema):
    """What a show would be on another desk, in words."""

    desk: str
    boxes: list[BoxThere]
    choices: list[BoxChoice]
    told: list[LeftReply]


@router.post(
    "/shows/{uuid:show_id}/elsewhere/look", response={200: ElsewhereReply, 422: ErrorReply}
)
async def look_elsewhere(
    request: HttpRequest, show_id: UUID, there: Elsewhere
) -> dict[str, object]:
    """What would not fit on another desk, what would be heard of it, and what would come back."""
    await aget_object_or_404(models.Show, pk=show_id)
    desk = desk_of(there.desk)
    show, asides = await in_database(whole_of, show_id, again=True)
    found, told = await at_leisure(_looked, show, asides, desk, there.boxes)
    return {
        "desk": desk.name,
        "boxes": [
            {"key": box.key, "name": box.name, "to": found.boxes.get(box.key, "")}
            for box in show.desk.boxes
        ],
        "choices": [{"key": box.key, "name": box.name} for box in desk.boxes],
        "told": [{"tone": one.tone, "says": one.says} for one in told],
    }


def _looked(show: core.Show, *about: Any) -> tuple[core.Moved, list[core.Left]]:
    """What a show would be elsewhere, and what that means in words."""
    found = elsewhere(show, *about)
    return found, core.left_words(show, found)


class TakenElsewhere(Elsewhere):
    """`move`: the show on the desk before is taken off the list, to be brought back; `sure`: though

    others have it open.
    """

    move: bool = False
    sure: bool = False


@router.post(
    "/shows/{uuid:show_id}/elsewhere", response={200: ShowRow, 409: ErrorReply, 422: ErrorReply}
)
async def take_elsewhere(request: HttpRequest, show_id: UUID, there: TakenElsewhere) -> models.Show:
    """The show on another desk, as a new one; what does not fit is kept aside with it."""
    row = await aget_object_or_404(models.Show, pk=show_id)
    user = await request.auser()
    if there.move:
        check_nobody_else(show_id, user.get_username(), sure=there.sure)
    show, asides = await in_database(whole_of, show_id, again=True)
    found = await at_leisure(elsewhere, show, asides, desk_of(there.desk), there.boxes)
    says = f"From {row.name}, on {show.desk.name}"[:200]
    new = await in_database(made_from, row.name, found.show, user.pk, says, found.asides)
    if there.move:
        await in_database(goes_on_as, show_id, new)
        await taken_off(row)
    return new
