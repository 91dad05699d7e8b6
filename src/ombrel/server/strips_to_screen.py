"""What a screen is sent that looks at strips: a path, levels and curves, lifts, what moves."""

from typing import Literal

from pydantic import BaseModel

from .asking import AskedMove

__all__ = ["CurvesMessage", "FadingMessage", "LiftsMessage", "StripMessage"]


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
    """Levels out over levels in; where the expected level stands, and what then comes out."""

    in_db: list[float]
    out_db: list[float]
    stands_db: float | None
    comes_db: float | None


class CrossoverMessage(BaseModel):
    """The crossover between house and mono, over `frequencies_hz` of the curves.

    `turning`: moves that turn mono over at its outputs.
    """

    house_db: list[float]
    mono_db: list[float]
    sum_db: list[float]
    says: str
    turning: list[AskedMove]


class LiftStepMessage(BaseModel):
    """What lifting a singer does for a listener, in dB; null is silence, and a step out of it."""

    listener: str
    name: str
    back_db: float | None
    lead_db: float | None
    step_db: float | None


class SingerMessage(BaseModel):
    """Who can be lifted: whether they are, and their step for whom it makes a difference."""

    strip: str
    lifted: bool
    trim_db: float | None
    steps: list[LiftStepMessage]
    says: str


class LiftMessage(BaseModel):
    """A lift and its singers. `vain`: what it lacks; `named`: who can be lifted, as typed."""

    lift: str
    vain: str
    named: str
    singers: list[SingerMessage]


class LiftsMessage(BaseModel):
    """Every lift in use."""

    type: Literal["lifts"]
    lifts: list[LiftMessage]


class FadeMessage(BaseModel):
    """A number on its way: (ms from the message, value) each; null is silence."""

    address: str
    points: list[tuple[int, float | None]]


class FadingMessage(BaseModel):
    """What sets out for where it stands now; the values themselves are there already."""

    type: Literal["fading"]
    fades: list[FadeMessage]


class CurvesMessage(BaseModel):
    """The curves of a strip: over frequencies that lie closer where they bend."""

    type: Literal["curves"]
    strip: str
    frequencies_hz: list[float]
    total_db: list[float]
    bands_db: dict[str, list[float]]
    gate: StaticMessage | None
    compressor: StaticMessage
    crossover: CrossoverMessage | None


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
