"""What a screen is told of ears and wedges: a row for each mix, and two mixes side by side."""

from typing import Literal

from pydantic import BaseModel

from ombrel import core

from ..keeping.states import State
from .hears import level_to_wire

__all__ = ["BesideMessage", "EarsMessage", "beside_message", "ears_message"]


class EarLoud(BaseModel):
    """One of the loudest sources of a mix, at its expected level. `self`: it is one's own."""

    source: str
    name: str
    dbfs: float | None
    own: bool


class EarRow(BaseModel):
    """A mix for ears or a wedge; see `Ear` of the core. Names stand where people read them."""

    mix: str
    name: str
    who: str
    serves: str
    outputs: list[str]
    packs: list[str]
    selves: list[str]
    self_names: list[str]
    stands: str
    over_db: float
    aim_db: float
    short_db: float
    bad: bool
    missing: list[str]
    cues: list[str]
    silent_now: list[str]
    unknown: list[str]
    loudest: list[EarLoud]
    dbfs: float | None
    ceiling_dbfs: float | None
    ceiling_db: float | None
    taps: list[str]
    late_ms: float | None
    started: bool
    locked: bool
    lock_reason: str


class EarsMessage(BaseModel):
    """All mixes for ears and wedges, the worst first. `locked`: all of them for phones."""

    type: Literal["ears"]
    rows: list[EarRow]
    locked: bool
    lock_reason: str


class BesideRow(BaseModel):
    """A source in two mixes: level (null: off) and pan in each, and how far the second is above."""

    strip: str
    name: str
    one_db: float | None
    other_db: float | None
    by_db: float | None
    one_pan: float
    other_pan: float


class BesideMessage(BaseModel):
    """Two mixes side by side, what differs most first."""

    type: Literal["beside"]
    one: str
    other: str
    rows: list[BesideRow]


def ears_message(state: State) -> dict:
    """All mixes for ears and wedges."""
    show = state.show
    return EarsMessage(
        type="ears",
        rows=[_row(show, one) for one in core.ears(show, state.flow)],
        locked=show.on("show/ears_locked"),
        lock_reason=show.text("show/ears_lock_reason"),
    ).model_dump(mode="json")


def _row(show: core.Show, one: core.Ear) -> EarRow:
    def names(sources: tuple[str, ...]) -> list[str]:
        return [core.source_name(show, source) for source in sources]

    balance = one.balance
    return EarRow(
        mix=one.mix,
        name=one.name,
        who=one.who,
        serves=one.serves,
        outputs=list(one.outputs),
        packs=list(one.packs),
        selves=list(one.selves),
        self_names=names(one.selves),
        stands=balance.stands,
        over_db=round(balance.over_db, 2),
        aim_db=one.aim_db,
        short_db=round(one.short_db, 2),
        bad=one.is_bad,
        missing=names(balance.missing),
        cues=names(one.cues),
        silent_now=names(one.silent_now),
        unknown=names(balance.unknown),
        loudest=[
            EarLoud(
                source=source,
                name=core.source_name(show, source),
                dbfs=level_to_wire(dbfs),
                own=source in one.selves,
            )
            for source, dbfs in balance.loudest
        ],
        dbfs=level_to_wire(balance.dbfs),
        ceiling_dbfs=None if one.ceiling_dbfs is None else level_to_wire(one.ceiling_dbfs),
        ceiling_db=level_to_wire(one.ceiling_db),
        taps=names(one.taps),
        late_ms=None if one.late_ms is None else round(one.late_ms, 2),
        started=one.started,
        locked=one.locked,
        lock_reason=one.lock_reason,
    )


def beside_message(state: State, one: str, other: str) -> dict:
    """Two mixes side by side. Raises UnknownAddress."""
    show = state.show
    return BesideMessage(
        type="beside",
        one=one,
        other=other,
        rows=[
            BesideRow(
                strip=row.strip,
                name=core.source_name(show, row.strip),
                one_db=level_to_wire(row.one_db),
                other_db=level_to_wire(row.other_db),
                by_db=row.by_db,
                one_pan=row.one_pan,
                other_pan=row.other_pan,
            )
            for row in core.beside(show, one, other)
        ],
    ).model_dump(mode="json")
