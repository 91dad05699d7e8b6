"""What a screen is sent of who hears what: the table, its cells, Why, how far a ruler reaches."""

from typing import Literal

from pydantic import BaseModel

from .asking import AskedMove

__all__ = [
    "CellState",
    "Cells",
    "ClosingMessage",
    "LoudSource",
    "Loudest",
    "ReachListener",
    "ReachMessage",
    "SetBy",
    "Table",
    "WhyAnswer",
    "WhyReason",
    "WhyRemedy",
    "WhyStep",
    "WhyWay",
]

CellState = Literal["unrouted", "heard", "muted", "no_source", "no_output", "down", "cancelled"]
CellWay = Literal["before", "after", "through"]


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
    """What a button says, and the moves it makes; `by_hand`: gangs follow them, as was shown."""

    says: str
    moves: list[AskedMove]
    by_hand: bool = False


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
    """The explanation of one cell. `opening`: the fewest actions that let it be heard, as one;

    `also`: what else would silence what is not sent.
    """

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
    also: list[WhyReason]
    opening: WhyRemedy | None


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


class ReachListener(BaseModel):
    """What a DCA or mute group does at a listener, in numbers of sources; `still`: who is heard."""

    listener: str
    name: str
    closes: int
    follows: int
    still: list[str]


class ClosingMessage(BaseModel):
    """How many cells the key of each mute group closes, or opens where it is on."""

    type: Literal["closing"]
    cells: dict[str, int]


class ReachMessage(BaseModel):
    """How far a DCA or mute group reaches. `behind`: the action that taps sends behind the mute."""

    type: Literal["reach"]
    revision: int
    ruler: str
    closed: int
    alone: list[str]
    listeners: list[ReachListener]
    behind: WhyRemedy | None
