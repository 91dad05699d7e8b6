"""What a screen is sent that looks at a strip from top to bottom: its path, levels and curves."""

from typing import Literal

from pydantic import BaseModel

__all__ = ["CurvesMessage", "StripMessage"]


class BeadMessage(BaseModel):
    """One stage of a strip at a glance."""

    key: str
    word: str
    look: Literal["on", "neutral", "off", "shut"]
    says: str


class LeavesMessage(BaseModel):
    """Who takes a strip at a tap, behind which of its beads."""

    tap: str
    behind: str
    names: list[str]


class ReachedMessage(BaseModel):
    """A listener that hears the strip, and the level that arrives, in dB."""

    listener: str
    name: str
    level_db: float


class StaticMessage(BaseModel):
    """Levels out over `levels_db`; where the expected level stands, and what then comes out."""

    out_db: list[float]
    stands_db: float | None
    comes_db: float | None


class CurvesMessage(BaseModel):
    """The curves of a strip: over `frequencies_hz` and `levels_db` of the strip's message."""

    type: Literal["curves"]
    strip: str
    total_db: list[float]
    bands_db: dict[str, list[float]]
    gate: StaticMessage | None
    compressor: StaticMessage


class LoudestMessage(BaseModel):
    """A source and its own level at a bus, in dBFS."""

    source: str
    name: str
    dbfs: float


class ExpectedMessage(BaseModel):
    """How loud a bus is expected to be behind its fader, in dBFS; null: nothing is.

    `unknown`: names of sources that arrive and of which no level is known.
    """

    dbfs: float | None
    worst_dbfs: float | None
    loudest: list[LoudestMessage]
    unknown: list[str]


class PresetMessage(BaseModel):
    """A preset to choose: its key, or its address where it is the show's own; what it holds."""

    preset: str
    name: str
    own: bool
    aspects: list[str]
    suits: bool


class StripMessage(BaseModel):
    """A strip from top to bottom."""

    type: Literal["strip"]
    strip: str
    beads: list[BeadMessage]
    leaves: list[LeavesMessage]
    reaches: list[ReachedMessage]
    expected: ExpectedMessage | None
    keyed: str  # what opens its gate, where another strip does; "": none
    presets: list[PresetMessage]
    frequencies_hz: list[float]
    levels_db: list[float]
