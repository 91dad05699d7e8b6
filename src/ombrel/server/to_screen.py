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
CellState = Literal["unrouted", "heard", "muted", "no_source", "no_output", "down", "cancelled"]
CellWay = Literal["before", "after", "through"]


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


class TableCell(BaseModel):
    """One cell of who hears what; level in dB, null for silence. `way`: how its own feed taps, or

    "through" where it comes by other strips.
    """

    source: str
    listener: str
    level_db: float | None
    state: CellState
    way: CellWay


class TableHead(BaseModel):
    """Head of a column: where the listener stands, whether it goes anywhere, and what it serves.

    `listens` false: a stage in between, drawn apart.
    """

    about: str
    patched: bool
    serves: str
    listens: bool


class Table(BaseModel):
    """The whole of who hears what: one list of cells a source, in the order of the listeners."""

    type: Literal["table"]
    revision: int
    sources: list[str]
    listeners: list[str]
    heads: list[TableHead]
    level_db: list[list[float | None]]
    state: list[list[CellState]]
    way: list[list[CellWay]]


class Cells(BaseModel):
    """Cells of the table that changed."""

    type: Literal["cells"]
    revision: int
    cells: list[TableCell]


class WhyStep(BaseModel):
    """One stage of the path."""

    kind: str
    title: str
    detail: str
    gain_db: float | None
    dbu: float | None
    dbfs: float | None
    in_path: bool
    open: bool
    has_gain: bool
    address: str | None


class WhyRemedy(BaseModel):
    """What a button says, and the moves it makes."""

    says: str
    moves: list[AskedMove]


class Setter(BaseModel):
    """Who moved something last, and when (ISO 8601)."""

    by: str
    at: str


class SetBy(BaseModel):
    """Who holds the keys of hard or safe mute groups that the explanation names, by address."""

    type: Literal["set_by"]
    keys: dict[str, Setter]


class WhyReason(BaseModel):
    """One reason for silence."""

    code: str
    says: str
    remedy: WhyRemedy | None
    instead: WhyRemedy | None
    ruler: str | None  # the DCA or mute group that silences


class WhyWay(BaseModel):
    """One way from the source to the listener; `says`: by way of what, "" for its own feed.

    `late_ms`: how late it arrives; null where that is not one number.
    """

    says: str
    level_db: float | None
    wet: bool
    steps: list[WhyStep]
    late_ms: float | None


class WhyAnswer(BaseModel):
    """The explanation of one cell. `opening`: the fewest actions that let it be heard, as one."""

    type: Literal["why"]
    revision: int
    source: str
    listener: str
    source_name: str
    listener_name: str
    level_db: float | None
    state: CellState
    says: str
    head: list[WhyStep]
    ways: list[WhyWay]
    reasons: list[WhyReason]
    opening: WhyRemedy | None


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


class LoudSource(BaseModel):
    """A source that is heard at a listener; `rank` 1 is the loudest."""

    rank: int
    source: str
    name: str
    level_db: float


class Loudest(BaseModel):
    """The loudest sources at the listener of the cell that Why answers for, its own among them."""

    type: Literal["loudest"]
    revision: int
    listener: str
    sources: list[LoudSource]


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


class ReachListener(BaseModel):
    """What a DCA or mute group does at a listener, in numbers of sources; `still`: who is heard."""

    listener: str
    name: str
    closes: int
    follows: int
    still: list[str]


class ReachMessage(BaseModel):
    """How far a DCA or mute group reaches. `behind`: the action that taps sends behind the mute."""

    type: Literal["reach"]
    revision: int
    ruler: str
    closed: int
    alone: list[str]
    listeners: list[ReachListener]
    behind: WhyRemedy | None


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
    """Who else is in the show: every other screen, by its person's name."""

    type: Literal["present"]
    others: list[PersonHere]


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
    | Preview
    | Loudest
    | RuledMessage
    | ReachMessage
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
