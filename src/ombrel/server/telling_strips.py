"""What a screen is told of a strip from top to bottom: messages filled in."""

import math
from collections.abc import Sequence

import numpy as np

from ombrel import core

from .asking import moves_to_wire
from .states import State
from .strips_to_screen import (
    BeadMessage,
    CrossoverMessage,
    CurvesMessage,
    ExpectedMessage,
    LeavesMessage,
    LiftMessage,
    LiftsMessage,
    LiftStepMessage,
    LoudestMessage,
    PresetMessage,
    ReachedMessage,
    SingerMessage,
    StaticMessage,
    StripMessage,
)
from .telling_hears import level_to_wire

__all__ = ["curves_message", "lifts_message", "strip_message"]


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
