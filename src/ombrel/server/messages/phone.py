"""The messages of a performer's phone, both ways: its own mixes and nothing else of the show."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field, TypeAdapter

from ombrel import core

from ..asks.asking import STORABLE, Address, Strict
from ..asks.phone import PhoneAsk
from ..keeping.ear_calls import Called
from ..keeping.states import State
from .hears import level_to_wire

__all__ = [
    "FROM_PHONE",
    "FromPhone",
    "PhoneMixes",
    "called_message",
    "finger_text",
    "phone_message",
]

MOST_KEPT = 1024


class PhoneHello(Strict):
    """First message of a connection. `page`: which page it is, by whatever connection."""

    type: Literal["hello"]
    page: Annotated[str, Field(max_length=60, pattern=STORABLE)] = ""


class PhoneDo(Strict):
    """Make a move. `id` counts once however often it is sent; `seen`: the revision that the page

    had when the finger moved.
    """

    type: Literal["do"]
    id: UUID
    gesture: Annotated[str, Field(min_length=1, max_length=60, pattern=STORABLE)]
    ask: PhoneAsk
    seen: int


class PhoneTurn(Strict):
    """Undo or redo this phone's last gesture."""

    type: Literal["undo", "redo"]
    id: UUID


class PhoneKept(Strict):
    """Which of these moves are kept? A page asks that was away."""

    type: Literal["kept"]
    ids: Annotated[list[UUID], Field(max_length=MOST_KEPT)]


class PhoneCall(Strict):
    """Call the desk, about a mix, in words; `id` counts once."""

    type: Literal["call"]
    id: UUID
    mix: Address
    text: Annotated[str, Field(min_length=1, max_length=80, pattern=STORABLE)]


class PhonePing(Strict):
    """Is anybody there?"""

    type: Literal["ping"]


FromPhone = Annotated[
    PhoneHello | PhoneDo | PhoneTurn | PhoneKept | PhoneCall | PhonePing,
    Field(discriminator="type"),
]
FROM_PHONE: TypeAdapter = TypeAdapter(FromPhone)


class PhoneStrip(BaseModel):
    """A strip: where it stands in dB over its start, or over 0 dB where it has none (null: off);

    its place past the ends of its range, and its highest. `silent`: why nothing arrives, in a word.
    """

    strip: str
    name: str
    colour: str
    started: bool
    position_db: float | None
    place_db: float | None
    end_db: float
    pan: float
    silent: str


class PhoneFamilyRow(BaseModel):
    """A family: where its fader stands against the start (null: it has none, or none is open)."""

    family: str
    started: bool
    position_db: float | None
    place_db: float | None
    strips: list[PhoneStrip]


class PhoneMixRow(BaseModel):
    """A mix of the link."""

    mix: str
    name: str
    who: str
    stereo: bool
    fader_db: float | None
    ceiling_db: float | None
    start_fader_db: float | None
    started: bool
    locked: bool
    lock_reason: str
    families: list[PhoneFamilyRow]


class PhoneCalled(BaseModel):
    """What became of a phone's last call: it stands at the desk, or was seen by somebody."""

    type: Literal["called"]
    id: UUID
    text: str
    seen: bool
    by: str


class Finger(BaseModel):
    """Another phone's finger is on something of a mix just now."""

    type: Literal["finger"]
    mix: str
    of: str
    who: str


class PhoneMixes(BaseModel):
    """All that a phone is told of a show, after a revision."""

    type: Literal["mixes"]
    revision: int
    mixes: list[PhoneMixRow]


def phone_message(state: State, mixes: tuple[str, ...]) -> dict:
    """What a phone of these mixes is told; one that is no more in use is left out."""
    there = [mix for mix in mixes if mix in state.show.in_use("mix")]
    return PhoneMixes(
        type="mixes",
        revision=state.revision,
        mixes=[_mix(core.phone_mix(state.show, state.flow, mix)) for mix in there],
    ).model_dump(mode="json")


def finger_text(mix: str, of: str, who: str) -> str:
    """What phones of a mix are told of another's finger."""
    return Finger(type="finger", mix=mix, of=of, who=who).model_dump_json()


def called_message(call: Called) -> dict:
    """What a phone is told of its last call."""
    return PhoneCalled(
        type="called", id=call.id, text=call.text, seen=call.seen_by is not None,
        by=call.seen_by or "",
    ).model_dump(mode="json")  # fmt: skip


def _mix(told: core.PhoneMix) -> PhoneMixRow:
    start = told.start_fader_db
    return PhoneMixRow(
        mix=told.mix,
        name=told.name,
        who=told.who,
        stereo=told.stereo,
        fader_db=level_to_wire(told.fader_db),
        ceiling_db=None if told.ceiling_db is None else level_to_wire(told.ceiling_db),
        start_fader_db=None if start is None else level_to_wire(start),
        started=start is not None,
        locked=told.locked,
        lock_reason=told.lock_reason,
        families=[
            PhoneFamilyRow(
                family=one.family,
                started=one.position_db is not None,
                position_db=None if one.position_db is None else level_to_wire(one.position_db),
                place_db=level_to_wire(one.place_db),
                strips=[_strip(strip) for strip in one.sends],
            )
            for one in told.families
        ],
    )


def _strip(told: core.PhoneSend) -> PhoneStrip:
    return PhoneStrip(
        strip=told.strip,
        name=told.name,
        colour=told.colour,
        started=told.started,
        position_db=level_to_wire(told.position_db),
        place_db=level_to_wire(told.place_db),
        end_db=round(told.end_db, 2),
        pan=told.pan,
        silent=told.silent,
    )
