"""Who is here, what is measured, and that the line is alive: messages, and what fills them."""

from collections.abc import Sequence
from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel

from ombrel import core

from ..keeping.ear_calls import Called
from ..keeping.states import State
from .hears import (
    level_to_wire,
)

__all__ = [
    "CallHere",
    "Calls",
    "Levels",
    "Meters",
    "PersonHere",
    "Pong",
    "Present",
    "Trouble",
    "You",
    "calls_text",
    "levels_message",
    "meters_message",
    "you_text",
]


class Levels(BaseModel):
    """Input meters in dBFS by channel number, from the stage."""

    type: Literal["levels"]
    channels: dict[str, float]


class You(BaseModel):
    """What whoever looks is in the show; told first, and when it is another."""

    type: Literal["you"]
    role: core.Role


class Pong(BaseModel):
    """Somebody is there."""

    type: Literal["pong"]


class PersonHere(BaseModel):
    """Somebody with the show open, and the view that they are in."""

    screen: str
    name: str
    view: str


class Present(BaseModel):
    """Who is in the show, by their persons' names. `you`: this screen, which is among them; `more`:

    how many screens there are beside those that are named.
    """

    type: Literal["present"]
    you: str
    others: list[PersonHere]
    more: int


class Meters(BaseModel):
    """Input meters in dBFS by channel number, and what arrives of the line being checked."""

    type: Literal["meters"]
    channels: dict[str, float]
    line: int
    dbfs: float | None
    expected_dbfs: float | None
    suspect: int | None
    good: bool
    says: str


class CallHere(BaseModel):
    """A performer calls: `who`, about which `mix`, in their words, since `at`."""

    id: UUID
    who: str
    mix: str
    text: str
    at: datetime


class Calls(BaseModel):
    """The calls of performers that nobody has seen yet, the oldest first."""

    type: Literal["calls"]
    calls: list[CallHere]


class Trouble(BaseModel):
    """The store cannot be reached just now; moves wait, none is lost. Empty text: it is over."""

    type: Literal["trouble"]
    message: str


def meters_message(
    state: State, line: int, levels_dbu: dict[str, float], fed: frozenset[int]
) -> dict:
    """Meters, and what arrives of a line while the lines `fed` are fed."""
    arrival = core.arrival_of(state.show, line, levels_dbu, fed=fed)
    meters = core.channel_meters(state.show, levels_dbu)
    return {
        "type": "meters",
        "channels": {str(channel): round(dbfs, 1) for channel, dbfs in sorted(meters.items())},
        "line": line,
        "dbfs": level_to_wire(arrival.dbfs),
        "expected_dbfs": arrival.expected_dbfs,
        "suspect": arrival.suspect,
        "good": arrival.good,
        "says": arrival.says,
    }


def levels_message(state: State, levels_dbu: dict[str, float]) -> dict:
    """Input meters of all channels."""
    meters = core.channel_meters(state.show, levels_dbu)
    return {
        "type": "levels",
        "channels": {str(channel): round(dbfs, 1) for channel, dbfs in sorted(meters.items())},
    }


def you_text(role: core.Role) -> str:
    """What a screen is told of its person's role."""
    return You(type="you", role=role).model_dump_json()


def calls_text(calls: Sequence[Called]) -> str:
    """What engineers' screens are told of calls."""
    rows = [
        CallHere(id=one.id, who=one.who, mix=one.mix, text=one.text, at=one.at) for one in calls
    ]
    return Calls(type="calls", calls=rows).model_dump_json()
