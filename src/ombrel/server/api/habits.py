"""How a person likes to be told things: kept for them, whichever machine they sit at."""

from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import ConfigDict, Field, ValidationError

from .. import models

__all__ = ["Habits", "habits_of", "router"]

router = Router(tags=["people"])

View = Annotated[str, Field(max_length=20, pattern=r"^[a-z]+$")]


class Habits(Schema):
    """`start`: the view that opens first. `text`: its size in hundredths. `letters`: keys of a

    single letter do something. `why_side`: where Why stands; `why_folded`: by view, where a person
    chose otherwise than it is at first.
    """

    model_config = ConfigDict(extra="forbid")

    start: View = "hears"
    theme: Literal["dusk", "daylight", "system"] = "dusk"
    text: Literal[90, 100, 115, 130, 150] = 100
    clock: Literal["24", "12"] = "24"
    date: Literal["iso", "day_first", "month_first"] = "iso"
    letters: bool = True
    why_side: Literal["right", "left"] = "right"
    why_folded: Annotated[dict[View, bool], Field(max_length=40)] = {}


def habits_of(user_id: int) -> Habits:
    """What a person chose, or what everybody has at first; also for what an older build kept."""
    row = models.Habits.objects.filter(person_id=user_id).first()
    try:
        return Habits.model_validate(row.values if row else {})
    except ValidationError:
        return Habits()


@router.put("/me/habits", response=Habits)
def keep_habits(request: HttpRequest, habits: Habits) -> Habits:
    """Keep them, whole: what is not named is as at first."""
    models.Habits.objects.update_or_create(
        person_id=request.user.pk, defaults={"values": habits.model_dump(mode="json")}
    )
    return habits
