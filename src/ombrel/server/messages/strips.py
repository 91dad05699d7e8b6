"""A strip, its curves, lifts and fades: their messages, and what fills them."""

import math
from collections.abc import Sequence
from typing import Literal

import numpy as np
from pydantic import BaseModel

from ombrel import core

from ..asks.asking import AskedMove, moves_to_wire
from ..keeping.states import State
from .hears import level_to_wire

__all__ = [
    "CurvesMessage",
    "FadingMessage",
    "LiftsMessage",
    "StripMessage",
    "curves_message",
    "lifts_message",
    "strip_message",
]


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


def strip_message(state: State, strip: str) -> dict:
    """A strip from top to bottom. Raises UnknownAddress."""
    path = core.strip_path(state.show, state.flow, strip)
    return StripMessage(
        type="strip",
        strip=path.strip,
        beads=[BeadMessage(key=b.key, word=b.word, look=b.look, says=b.says) for b in path.beads],
        leaves=[
            LeavesMessage(tap=one.tap, behind=one.behind, names=list(one.names))
            for one in path.leaves
        ],
        reaches=[
            ReachedMessage(listener=listener, name=name, level_db=level_db)
            for listener, name, level_db in path.reaches
        ],
        expected=_expected(path.expected),
        keyed=path.keyed.says if path.keyed else "",
        presets=[
            PresetMessage(
                preset=one.preset,
                name=one.name,
                own=one.own,
                aspects=list(one.aspects),
                suits=one.suits,
            )
            for one in core.presets(state.show, strip)
        ],
    ).model_dump(mode="json")


def _expected(expected: core.Expected | None) -> ExpectedMessage | None:
    if expected is None:
        return None
    return ExpectedMessage(
        dbfs=level_to_wire(expected.dbfs),
        worst_dbfs=level_to_wire(expected.worst_dbfs),
        loudest=[
            LoudestMessage(source=one.source, name=one.name, dbfs=round(one.dbfs, 1))
            for one in expected.loudest
        ],
        unknown=list(expected.unknown),
    )


def curves_message(show: core.Show, strip: str, flow: core.Flow) -> dict:
    """The curves of a strip. Raises UnknownAddress."""
    found = core.curves(show, strip, flow)
    return CurvesMessage(
        type="curves",
        strip=strip,
        frequencies_hz=_rounded(found.frequencies_hz, 3),
        total_db=_rounded(found.total_db),
        bands_db={band: _rounded(db) for band, db in found.bands_db.items()},
        gate=_static(found.gate) if found.gate else None,
        compressor=_static(found.compressor),
        crossover=_crossover(show, found.crossover) if found.crossover else None,
    ).model_dump(mode="json")


def _crossover(show: core.Show, found: core.Crossover) -> CrossoverMessage:
    return CrossoverMessage(
        house_db=_rounded(found.house_db),
        mono_db=_rounded(found.mono_db),
        sum_db=_rounded(found.sum_db),
        says=found.says,
        turning=moves_to_wire(core.turn_mono(show)),
    )


def lifts_message(state: State) -> dict:
    """Every lift, with the step of every singer for every listener."""
    return LiftsMessage(
        type="lifts",
        lifts=[
            LiftMessage(
                lift=one.lift,
                named=one.named,
                vain=one.vain,
                singers=[_singer(singer) for singer in one.singers],
            )
            for one in core.lifts(state.show, state.flow)
        ],
    ).model_dump(mode="json")


def _singer(singer: core.Singer) -> SingerMessage:
    return SingerMessage(
        strip=singer.strip,
        lifted=singer.lifted,
        trim_db=level_to_wire(singer.trim_db),
        steps=[
            LiftStepMessage(
                listener=one.listener,
                name=one.name,
                back_db=level_to_wire(one.back_db),
                lead_db=level_to_wire(one.lead_db),
                step_db=round(one.step_db, 2) if math.isfinite(one.step_db) else None,
            )
            for one in singer.steps
        ],
        says=singer.says,
    )


def _static(static: core.Static) -> StaticMessage:
    return StaticMessage(
        in_db=_rounded(static.in_db),
        out_db=_rounded(static.out_db),
        stands_db=static.stands_db,
        comes_db=static.comes_db,
    )


def _rounded(values: Sequence[float], places: int = 2) -> list[float]:
    """Finer than a screen can draw is not sent."""
    found: list[float] = np.round(np.array(values, dtype=np.float64), places).tolist()
    return found
