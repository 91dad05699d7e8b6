"""How a person likes to be told things: kept for them, whichever machine they sit at."""

from typing import Annotated, Literal

from django.db import transaction
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import ConfigDict, Field, ValidationError

from .. import models

__all__ = ["Habits", "habits_of", "router"]

router = Router(tags=["people"])

MOST_FOLDED = 40  # views of which a choice is kept: more than there are
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
    why_folded: Annotated[dict[View, bool], Field(max_length=MOST_FOLDED)] = {}


def habits_of(user_id: int | None) -> Habits:
    """What a person chose, or what everybody has at first; also for what an older build kept."""
    row = models.Habits.objects.filter(person_id=user_id).first()
    try:
        return Habits.model_validate(row.values if row else {})
    except ValidationError:
        return Habits()


@router.patch("/me/habits", response=Habits)
def keep_habits(request: HttpRequest, habits: Habits) -> Habits:
    """Keep what is named; all else stays as it was, whichever machine it was chosen at."""
    user_id = request.user.pk
    with transaction.atomic():
        models.Habits.objects.get_or_create(person_id=user_id)
        row = models.Habits.objects.select_for_update().get(person_id=user_id)
        known = habits_of(user_id).model_dump(mode="json")
        named = habits.model_dump(mode="json", exclude_unset=True)
        folded = list({**known["why_folded"], **named.get("why_folded", {})}.items())
        row.values = {**known, **named, "why_folded": dict(folded[-MOST_FOLDED:])}
        row.save(update_fields=["values"])
    return habits_of(user_id)
