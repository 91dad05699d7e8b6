"""Two states of a show laid against one another, and the way back from one to the other."""

import math
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass
from functools import cache, partial
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..casting import fitting_name
from ..catalogue import Address, Thing, of_kind, option_text, parameter_at, thing_of
from ..edit import is_safe_key
from ..flow import Flow, State, listener_name, listeners, source_name, sources, strip_name
from ..show import INNER_SOURCES, SIDE_WORDS, Change, Show, socket_name
from ..together import leaving_as_it_is
from ..values import (
    Asked,
    Choice,
    Maybe,
    NoSuchFitting,
    Number,
    Packed,
    Reference,
    Switch,
    Value,
    bare,
    said,
    said_hz,
    said_pan,
)
from .describe import leaf_words, whose

__all__ = [
    "HEARD_HOW",
    "Difference",
    "HeardOtherwise",
    "belongs_to",
    "compared",
    "differences",
    "heard_otherwise",
    "in_one",
    "narrowed",
    "restored",
    "value_text",
]

HEARD_HOW: Final = ("opens", "falls_silent", "moves")
_LEAST_DB: Final = 0.05  # a smaller step reads the same on a screen


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """An address that holds something else. `strip`: what it is of; the rest as people read it."""

    address: str
    strip: str
    whose: str
    what: str
    was: str
    now: str


@dataclass(frozen=True, slots=True, kw_only=True)
class HeardOtherwise:
    """A cell of who hears what that differs: heard or not, or at another level (dB; -inf: not)."""

    source: str
    listener: str
    source_name: str
    listener_name: str
    was_db: float
    now_db: float

    @property
    def how(self) -> str:
        """What becomes of it: one of HEARD_HOW."""
        if self.was_db == -math.inf:
            return "opens"
        return "falls_silent" if self.now_db == -math.inf else "moves"


def value_text(show: Show, address: str, value: Value, *, places: int = 2) -> str:
    """A value as people read it: "-6 dB", "Quay 7", "before fader". Raises UnknownAddress."""
    kind = parameter_at(address).kind
    if isinstance(kind, Maybe):
        if value is None:
            return "nothing"
        kind = kind.of
    if isinstance(kind, Switch):
        return "on" if value else "off"
    if isinstance(kind, Reference):
        return _reference_text(show, value) if isinstance(value, str) else "nothing"
    if isinstance(kind, Number) and isinstance(value, int | float):
        if value == -math.inf:
            return "off"
        if kind.unit == "Hz":
            return said_hz(value)
        if kind.unit == "pan":
            return said_pan(value)
        text = bare(said(value, 0 if kind.whole else places))
        unit = "" if kind.unit == "Q" else kind.unit
        return f"{text} {unit}".rstrip()
    if isinstance(kind, Packed):
        return f"{len(str(value))} letters of values" if value else "nothing"
    if isinstance(kind, Choice):
        return option_text(str(value))
    return str(value) or "nothing"


def in_one(show: Show, change: Change) -> tuple[str, str] | None:
    """What the one value that a change moved was and became, as people read it; `show` names what

    it refers to. None where several moved, or what no few words tell.
    """
    moved = [address for address in change.new if Address.at(address).last != "kept"]
    if len(moved) != 1 or isinstance(parameter_at(moved[0]).kind, Packed):
        return None
    was, now = (value_text(show, moved[0], side[moved[0]]) for side in (change.old, change.new))
    return was, now


def _reference_text(show: Show, reference: str) -> str:
    if of_kind(reference) == "fitting":
        try:
            return fitting_name(show, reference)
        except NoSuchFitting:
            return "a fitting that was removed"
    if of_kind(reference) in ("input", "output") or reference in INNER_SOURCES:
        return socket_name(show.desk, reference)
    return f"{strip_name(show, thing_of(reference))}{SIDE_WORDS[Thing.at(reference).side]}"


def differences(
    before: Show, after: Show, addresses: Iterable[str] | None = None
) -> list[Difference]:
    """Every address (of some, or of all) at which two shows of one desk differ, in their order."""
    found = []
    for address in sorted({*before.values, *after.values} if addresses is None else addresses):
        was, now = before[address], after[address]
        if was == now:
            continue
        was_text, now_text = value_text(before, address, was), value_text(after, address, now)
        if was_text == now_text:  # closer than is shown as a rule
            was_text = value_text(before, address, was, places=6)
            now_text = value_text(after, address, now, places=6)
        found.append(
            Difference(
                address=address,
                strip=thing_of(address),
                whose=whose(after, address),
                what=leaf_words(address),
                was=was_text,
                now=now_text,
            )
        )
    return found


def narrowed(
    found: Sequence[Difference], heard: Sequence[HeardOtherwise], strips: Collection[str]
) -> tuple[list[Difference], list[HeardOtherwise]]:
    """Of what differs that which is about some strips or DCAs: of them, or of their feeds, and what

    is heard of them or where they listen.
    """
    return (
        [
            one
            for one in found
            if not {one.strip, *Address.at(one.address).things}.isdisjoint(strips)
        ],
        [one for one in heard if one.source in strips or one.listener in strips],
    )


def compared(
    before: Show, after: Show, flow_before: Flow, flow_after: Flow
) -> list[HeardOtherwise]:
    """Every cell of who hears what that differs between two shows of one desk, loudest first.

    By the larger of its two levels. A level that differs by less than a screen shows is the same.
    """
    layout = flow_after.layout
    rows = sorted({layout.row(one) for show in (before, after) for one in sources(show)})
    columns = sorted({layout.column(one) for show in (before, after) for one in listeners(show)})
    if not rows or not columns:
        return []
    cells = np.stack(np.meshgrid(rows, columns, indexing="ij"), axis=-1).reshape(-1, 2)
    found = heard_otherwise(before, after, flow_before, flow_after, cells)
    return sorted(found, key=lambda one: -max(one.was_db, one.now_db))


def heard_otherwise(
    before: Show, after: Show, flow_before: Flow, flow_after: Flow, cells: NDArray[np.intp]
) -> list[HeardOtherwise]:
    """Those of some cells ((row, column), shape (n, 2)) that differ, in their order."""
    if not len(cells):
        return []
    rows, at_rows = np.unique(cells[:, 0], return_inverse=True)
    columns, at_columns = np.unique(cells[:, 1], return_inverse=True)
    sides = []
    for flow in (flow_before, flow_after):
        level_db, state = flow.part(rows.tolist(), columns.tolist())
        heard = state[at_rows, at_columns] == State.HEARD
        sides.append(np.where(heard, level_db[at_rows, at_columns], -math.inf))
    was, now = sides
    with np.errstate(invalid="ignore"):
        telling = (was != now) & ~(np.abs(now - was) < _LEAST_DB)
    layout = flow_after.layout
    # a recall moves thousands of cells, of few strips: each is named once
    names = [
        (cache(partial(source_name, show)), cache(partial(listener_name, show)))
        for show in (before, after)
    ]
    found = []
    for (row, column), was_db, now_db in zip(
        cells[telling].tolist(), was[telling].tolist(), now[telling].tolist(), strict=True
    ):
        source, listener = layout.source(row), layout.listener(column)
        source_called, listener_called = names[now_db > -math.inf]
        found.append(
            HeardOtherwise(
                source=source,
                listener=listener,
                source_name=source_called(source),
                listener_name=listener_called(listener),
                was_db=was_db,
                now_db=now_db,
            )
        )
    return found


def belongs_to(address: str, strip: str) -> bool:
    """Whether an address is a strip's own, or of what feeds it ("channel/1/send/mix/2/level" is
    of both channel 1 and mix 2)."""
    at = Address.at(address)
    return at.thing == strip or (at.target == strip and not at.in_scene)


def restored(now: Show, then: Show, strips: Collection[str] = ()) -> dict[str, Asked]:
    """Moves of own values that bring a show back: whole, or only what belongs to some strips.

    The key of a mute group that is safe now stays.
    """
    moves: dict[str, Asked] = {
        address: then.own_value(address)
        for address in {*now.own, *then.own}
        if now.own_value(address) != then.own_value(address)
        and not is_safe_key(now, address)
        and (not strips or any(belongs_to(address, strip) for strip in strips))
    }
    # an edit that names a value ends the place that its gang keeps, if it does not name that too
    kept = [f"{address}/kept" for address in moves if f"{address}/kept" in then.own]
    return leaving_as_it_is(now, moves | {place: then[place] for place in kept})
