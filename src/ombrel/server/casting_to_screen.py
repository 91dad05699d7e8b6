"""What a screen is told of the company: parts, casts, the mic check, a fitting on a channel."""

from typing import Literal

from pydantic import BaseModel

__all__ = [
    "CompanyMessage",
    "FittingMessage",
    "MicCheckMessage",
    "PreviewCompany",
]


class Person(BaseModel):
    """A performer, by name."""

    performer: str
    name: str


class PlayerRow(BaseModel):
    """Who can play a part; `kept`: whether settings of theirs are kept for all its microphones."""

    performer: str
    name: str
    kept: bool


class MicrophoneRow(BaseModel):
    """A microphone of a part and the channel that it comes in on."""

    number: int
    name: str
    channel: str
    channel_name: str


class PartRow(BaseModel):
    """A part. `tonight`: None where it is vacant; `late`: otherwise than in tonight's cast;

    `plays`: who plays it in each cast, in the casts' order.
    """

    part: str
    name: str
    mix: str | None
    mix_name: str
    microphones: list[MicrophoneRow]
    players: list[PlayerRow]
    tonight: Person | None
    late: bool
    plays: list[Person | None]


class CastRow(BaseModel):
    """A cast, by name."""

    cast: str
    name: str


class CompanyMessage(BaseModel):
    """The parts in their order, the casts, everybody, and which cast is tonight's."""

    type: Literal["company"]
    parts: list[PartRow]
    casts: list[CastRow]
    performers: list[Person]
    tonight: str | None


class CheckRow(BaseModel):
    """An entry of the mic check. `loose`: how many values moved and not kept; `version`: how many

    were kept; `line`: number of the line on the channel's source, to be fed from the stage.
    """

    entry: str
    fitting: str | None
    name: str
    part_name: str
    channel: str
    channel_name: str
    phase: Literal["waiting", "on", "done", "skipped"]
    by: str
    arrived_s: float
    performer: str
    barred: str
    loose: int
    version: int
    line: int | None


class MicCheckMessage(BaseModel):
    """Every entry of tonight in an order. `yours`: the one that this person has; `next`: whom next

    would bring them; `target_dbfs`: where a voice is to be.
    """

    type: Literal["mic_check"]
    order: Literal["list", "arrival", "channel"]
    entries: list[CheckRow]
    yours: str | None
    next: str | None
    target_dbfs: float


class FittingValueRow(BaseModel):
    """A value where a fitting and what stands differ, in words."""

    leaf: str
    label: str
    kept: str
    now: str
    why: str


class VersionRow(BaseModel):
    """What was kept once."""

    number: int
    at_s: float
    by: str
    how: str


class FittingChoice(BaseModel):
    """What can be put on a channel: a part or a fitting; `performer`: whose it is, or ""."""

    what: str
    name: str
    performer: str


class FittingMessage(BaseModel):
    """Who is on a channel, and all of their fitting; without one, whom it could be.

    `says`: in one line, whose, and what is loose. `carries`: what the fitting lies over of what it
    could (`carried`: keys and words).
    """

    type: Literal["fitting"]
    channel: str
    on: str
    fitting: str | None
    performer: str
    since_s: float
    says: str
    carries: list[str]
    carried: list[tuple[str, str]]
    loose: list[FittingValueRow]
    altered: list[FittingValueRow]
    beneath: list[FittingValueRow]
    versions: list[VersionRow]
    choices: list[FittingChoice]
    others: list[FittingChoice]


class WhoChanges(BaseModel):
    """Who is on a channel before and after, "" for nobody."""

    channel: str
    name: str
    was: str
    now: str


class PreviewCompany(BaseModel):
    """Who comes on and goes off, what pins keep, which parts nobody plays, what cannot be done, and

    what is noticed at the desk beside levels, in words.
    """

    on: list[WhoChanges]
    felt: list[str]
    held: list[tuple[str, str]]
    vacant: list[str]
    left: list[tuple[str, str]]
