"""The messages of a volunteer's page, both ways: what they ride and nothing else of the show."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field, TypeAdapter

from ombrel import core
from ombrel.core import Given

from ..asks.asking import STORABLE, Strict
from ..asks.rides import RideAsk
from ..keeping.states import State
from .hears import level_to_wire

__all__ = [
    "FROM_RIDER",
    "FromRider",
    "RideDo",
    "RideHello",
    "RideKept",
    "RideLetGo",
    "RidePing",
    "Rides",
    "rides_message",
]

MOST_KEPT = 1024
_Gesture = Annotated[str, Field(min_length=1, max_length=60, pattern=STORABLE)]


class RideHello(Strict):
    """First message of a connection. `page`: which page it is, by whatever connection."""

    type: Literal["hello"]
    page: Annotated[str, Field(max_length=60, pattern=STORABLE)] = ""


class RideDo(Strict):
    """Make a move. `id` counts once however often it is sent; `seen`: the revision that the page

    had when the finger moved.
    """

    type: Literal["do"]
    id: UUID
    gesture: _Gesture
    ask: RideAsk
    seen: int


class RideLetGo(Strict):
    """A finger leaves a fader."""

    type: Literal["let_go"]
    gesture: _Gesture


class RideKept(Strict):
    """Which of these moves are kept? A page asks that was away."""

    type: Literal["kept"]
    ids: Annotated[list[UUID], Field(max_length=MOST_KEPT)]


class RidePing(Strict):
    """Is anybody there?"""

    type: Literal["ping"]


FromRider = Annotated[
    RideHello | RideDo | RideLetGo | RideKept | RidePing, Field(discriminator="type")
]
FROM_RIDER: TypeAdapter = TypeAdapter(FromRider)


class RideFaderRow(BaseModel):
    """A fader, in dB (null: off); `silent`: nothing of it arrives in the house."""

    what: str
    name: str
    colour: str
    level_db: float | None
    lowest_db: float | None
    highest_db: float
    muted: bool
    silent: bool


class RideKeyRow(BaseModel):
    """A key: of a mute, or of a singer (`strip`) of a lift."""

    what: str
    strip: str
    name: str
    of: str
    colour: str
    on: bool


class Rides(BaseModel):
    """All that a volunteer is told of a show, after a revision."""

    type: Literal["rides"]
    revision: int
    show: str
    faders: list[RideFaderRow]
    keys: list[RideKeyRow]


def rides_message(state: State, given: tuple[Given, ...]) -> dict:
    """What a volunteer's page is told."""
    faders, keys = core.ridden(state.show, state.flow, given)
    return Rides(
        type="rides",
        revision=state.revision,
        show=state.show.text("show/name"),
        faders=[
            RideFaderRow(
                what=one.what,
                name=one.name,
                colour=one.colour,
                level_db=level_to_wire(one.level_db),
                lowest_db=level_to_wire(one.lowest_db),
                highest_db=one.highest_db,
                muted=one.muted,
                silent=one.silent,
            )
            for one in faders
        ],
        keys=[
            RideKeyRow(
                what=one.what, strip=one.strip, name=one.name, of=one.of, colour=one.colour,
                on=one.on,
            )
            for one in keys
        ],
    ).model_dump(mode="json")  # fmt: skip
