"""What a screen is told of a strip from top to bottom: messages filled in."""

from collections.abc import Sequence

from ombrel import core

from .live import State
from .strips_to_screen import (
    BeadMessage,
    CurvesMessage,
    ExpectedMessage,
    LeavesMessage,
    LoudestMessage,
    PresetMessage,
    ReachedMessage,
    StaticMessage,
    StripMessage,
)
from .tellings import level_to_wire

__all__ = ["curves_message", "strip_message"]


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
        frequencies_hz=list(core.FREQUENCIES_HZ),
        levels_db=list(core.LEVELS_DB),
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
        total_db=_rounded(found.total_db),
        bands_db={band: _rounded(db) for band, db in found.bands_db.items()},
        gate=_static(found.gate) if found.gate else None,
        compressor=_static(found.compressor),
    ).model_dump(mode="json")


def _static(static: core.Static) -> StaticMessage:
    return StaticMessage(
        out_db=_rounded(static.out_db), stands_db=static.stands_db, comes_db=static.comes_db
    )


def _rounded(values: Sequence[float]) -> list[float]:
    """Finer than a screen can draw is not sent."""
    return [round(value, 2) for value in values]
