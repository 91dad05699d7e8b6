"""Every message of the websocket that a screen is sent, each a named type; with `from_screen` the

TypeScript types are made from these.
"""

from typing import Literal
from uuid import UUID

from pydantic import BaseModel

from .asking import AskedMove
from .casting_to_screen import (
    CompanyMessage,
    FittingMessage,
    MicCheckMessage,
    PreviewCompany,
)
from .hears_to_screen import (
    Cells,
    ClosingMessage,
    Loudest,
    ReachMessage,
    SetBy,
    Table,
    WhyAnswer,
    WhyRemedy,
)
from .scenes_to_screen import (
    HearingMessage,
    HeldMessage,
    PreviewScene,
    SceneMessage,
    ScenesMessage,
)
from .strips_to_screen import CurvesMessage, FadingMessage, LiftsMessage, StripMessage

__all__ = ["ToScreen"]

WireValue = float | bool | str | None


class Snapshot(BaseModel):
    """All values that differ from their defaults."""

    type: Literal["snapshot"]
    revision: int
    values: dict[str, WireValue]


class Moved(BaseModel):
    """Values that changed between two revisions; after a gap the screen says hello again."""

    type: Literal["moved"]
    before: int
    revision: int
    values: dict[str, WireValue]


class DoneMessage(BaseModel):
    """An edit is kept."""

    type: Literal["done"]
    id: UUID
    revision: int
    says: str


class RefusedMessage(BaseModel):
    """An edit, or a question, was refused; nothing changed. `ways`: edits that would do it."""

    type: Literal["refused"]
    id: UUID | None
    code: str
    message: str
    ways: list[WhyRemedy] = []


class KeptMessage(BaseModel):
    """Of the edits that a page asked about, those that are kept."""

    type: Literal["kept"]
    ids: list[UUID]


class LossMessage(BaseModel):
    """Who loses a socket or source, and to whom."""

    who: str
    loses: str
    to: str


class KeepingMessage(BaseModel):
    """Where strips join or leave DCAs: true levels that would jump, from and to in dB (null: off),

    by address; `keep`: what would keep them all, or `lacking`: by name, where faders would have to
    stand. `silenced`: whom a muted DCA would mute.
    """

    jumps: list[tuple[str, float | None, float | None]]
    keep: list[AskedMove]
    lacking: list[tuple[str, float | None]]
    silenced: list[str]


class FollowsMessage(BaseModel):
    """A value that a gang or pair would move beside what was asked for, as people read it."""

    whose: str
    what: str
    was: str
    now: str


class Preview(BaseModel):
    """What an edit would do, and its words where it has some. `follows`: the first of all that are

    `following`. `breaks`: promises that it would break. `values`: the first that move.
    """

    type: Literal["preview"]
    id: UUID
    says: str
    changes: int
    losses: list[LossMessage]
    silenced: list[tuple[str, str]]
    opened: list[tuple[str, str]]
    moved: int
    leaving: list[tuple[str, str]]
    keeping: KeepingMessage | None
    follows: list[FollowsMessage]
    following: int
    breaks: list[str]
    values: list[FollowsMessage]
    scenes: list[PreviewScene]
    company: PreviewCompany | None


class FindingMessage(BaseModel):
    """Something that Ombrel noticed. `careful`: its remedy asks for a second press."""

    rule: str
    tone: Literal["settle", "note"]
    says: str
    about: str
    remedy: WhyRemedy | None
    careful: bool


class BreachMessage(BaseModel):
    """One way by which a promise is broken. `open`: nothing on the way is shut now."""

    source: str
    listener: str
    says: str
    open: bool
    feeds: list[str]
    remedies: list[WhyRemedy]


class PromiseMessage(BaseModel):
    """A promise in words. `vain`: why it watches nothing. `passing`: sources that arrive as it has

    them. `breaking`: in how many ways it is broken; `breaches`: the first of them.
    """

    promise: str
    says: str
    vain: str
    passing: int
    breaking: int
    breaches: list[BreachMessage]


class PreampMessage(BaseModel):
    """What is expected behind a socket's preamp, in dBFS, and the gain that would suit, in dB."""

    socket: str
    dbfs: float
    over: bool
    suggested_db: float


class RuledStrip(BaseModel):
    """What a strip or DCA truly comes to: the DCAs that rule it, by way of others too; its level in

    dB (null: off); the DCAs that are away from 0 dB with what they add; addresses of what mutes it.
    """

    by: list[str]
    level_db: float | None
    parts: list[tuple[str, float | None]]
    muted: list[str]


class RuledMessage(BaseModel):
    """What strips come to that something rules; null: nothing rules it any more.

    `whole`: these are all; else only those that moved.
    """

    type: Literal["ruled"]
    revision: int
    whole: bool
    strips: dict[str, RuledStrip | None]


class Unfolded(BaseModel):
    """What unfolds of a DCA, group or mix: the strips that lie on the bay then."""

    type: Literal["unfolded"]
    revision: int
    strips: dict[str, list[str]]


class Levels(BaseModel):
    """Input meters in dBFS by channel number, from the stage."""

    type: Literal["levels"]
    channels: dict[str, float]


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


class Noticed(BaseModel):
    """Findings, promises, and what the preamps make of the lines on them."""

    type: Literal["noticed"]
    revision: int
    promises: list[PromiseMessage]
    findings: list[FindingMessage]
    preamps: list[PreampMessage]


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


class Trouble(BaseModel):
    """The store cannot be reached just now; moves wait, none is lost. Empty text: it is over."""

    type: Literal["trouble"]
    message: str


ToScreen = (
    Snapshot
    | Moved
    | Table
    | Cells
    | WhyAnswer
    | SetBy
    | DoneMessage
    | RefusedMessage
    | KeptMessage
    | Preview
    | Loudest
    | RuledMessage
    | ReachMessage
    | ClosingMessage
    | Unfolded
    | StripMessage
    | CurvesMessage
    | FadingMessage
    | LiftsMessage
    | ScenesMessage
    | HearingMessage
    | SceneMessage
    | CompanyMessage
    | MicCheckMessage
    | FittingMessage
    | HeldMessage
    | Levels
    | Noticed
    | Pong
    | Present
    | Meters
    | Trouble
)
