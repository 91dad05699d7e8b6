"""Where the value of each address lives in the flow's arrays: one home a parameter.

A home is an array, a place in it (flat), and how a value becomes a number. Reading a show whole
writes all values of a home at once; following a move writes one. So both agree by construction,
and a new parameter of the signal path is one line below.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import FORMATTED, KINDS, SHARERS, SOURCES, TAPS, Desk, Thing, of_kind, thing_of
from ..show import side_of
from ..values import Value
from .layout import SIDES, Layout, layout_of
from .stages import STAGES, gain_of

__all__ = [
    "DIRECT",
    "ENGINE",
    "NOTHING",
    "ORIGIN",
    "Home",
    "direct_out",
    "homes_of",
    "side_code",
]

# What feeds a strip, or what a socket carries, as a number: a bus and side from 0 up, else these.
NOTHING: Final = -1
ORIGIN: Final = -2  # a socket, the oscillator, talkback: something that makes sound
ENGINE: Final = -10  # -10 - n: engine n, from 0
DIRECT: Final = -1000  # -1000 - (row * 3 + side): the direct out of a channel or return

_TAP_NUMBER: Final = {tap: number for number, tap in enumerate(TAPS)}
_FORMAT_SIDES: Final = {"unused": 0, "mono": 1, "stereo": 2}


@dataclass(frozen=True, slots=True, eq=False)
class Home:
    """An array of `Arrays` by name, and how values become its numbers (one, or many at once)."""

    array: str
    one: Callable[[Layout, Value], float]
    many: Callable[[Layout, list[Value]], NDArray[np.float64]] | None = None

    def numbers(self, layout: Layout, values: list[Value]) -> NDArray[np.float64]:
        if self.many is not None:
            return self.many(layout, values)
        # values repeat (switches, taps, sources): each is worked out once
        known = {value: self.one(layout, value) for value in set(values)}
        return np.array([known[value] for value in values])


def _levels(_: Layout, values: list[Value]) -> NDArray[np.float64]:
    return np.power(10.0, np.array(values, dtype=np.float64) / 20.0)


def _plain(_: Layout, values: list[Value]) -> NDArray[np.float64]:
    return np.array(values, dtype=np.float64)


def side_code(layout: Layout, value: Value) -> int:
    """A bus and its side as a number: column * 3 + side (left, right, whole)."""
    text = str(value)
    return layout.column(thing_of(text)) * 3 + SIDES[side_of(text)]


def _source(layout: Layout, value: Value) -> float:
    if not isinstance(value, str):
        return NOTHING
    kind = of_kind(value)
    if kind == "engine":
        return ENGINE - (Thing.at(value).number - 1)
    if kind in ("input", "oscillator", "talkback"):
        return ORIGIN
    return side_code(layout, value)


def _carried(layout: Layout, value: Value) -> float:
    if not isinstance(value, str):
        return NOTHING
    kind = of_kind(value)
    if kind in SOURCES:
        return DIRECT - (layout.row(thing_of(value)) * 3 + SIDES[side_of(value)])
    # what is soloed, talkback and the oscillator are no rows of the table
    return side_code(layout, value) if kind in KINDS else NOTHING


def direct_out(
    codes: NDArray[np.floating[Any]],
) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
    """Rows and sides (0 left, 1 right, 2 both) of sockets' sources that are direct outs."""
    return np.divmod((DIRECT - codes).astype(np.intp), 3)


def _engine_source(layout: Layout, value: Value) -> float:
    return side_code(layout, value) if isinstance(value, str) else NOTHING


def _flag(_: Layout, value: Value) -> float:
    return float(bool(value))


def _tap(_: Layout, value: Value) -> float:
    return float(_TAP_NUMBER[str(value)])


def _number_of(_: Layout, value: Value) -> float:
    return Thing.at(value).number - 1 if isinstance(value, str) else NOTHING


def _one_level(_: Layout, value: Value) -> float:
    return gain_of(value)


def _one_number(_: Layout, value: Value) -> float:
    return float(value or 0.0)


def _one_db(_: Layout, value: Value) -> float:
    return float(value)  # type: ignore[arg-type]  # a level, which may be off


_STAGE_HOMES: Final = tuple(
    Home("stage", lambda _, value, of=stage.of: of(value))  # type: ignore[misc]
    for stage in STAGES
)
SIDES_HOME: Final = Home("sides", lambda _, value: _FORMAT_SIDES[str(value)])
ON: Final = Home("on", _flag)
AMP: Final = Home("amp", _one_level, _levels)
TAP: Final = Home("tap", _tap)
PAN: Final = Home("pan", _one_number, _plain)
STRIP_PAN: Final = Home("strip_pan", _one_number, _plain)
SOURCE: Final = Home("source", _source)
SPARE: Final = Home("spare", _source)
ON_SPARE: Final = Home("on_spare", _flag)
ENGINE_SOURCE: Final = Home("engine", _engine_source)
OUT_SOURCE: Final = Home("out_source", _carried)
OUT_TAP: Final = Home("out_tap", _tap)
OUT_TRIM: Final = Home("out_trim", _one_level, _levels)
DCA_OF: Final = Home("dca_of", _flag)
DCA_IN: Final = Home("dca_in", _flag)
DCA_DB: Final = Home("dca_db", _one_db, _plain)
DCA_MUTE: Final = Home("dca_mute", _flag)
COMPRESSING: Final = Home("compressing", _flag)
MAKE_UP: Final = Home("make_up", _one_level, _levels)
BLEND: Final = Home("blend", lambda _, value: float(value or 0.0) / 100.0)
DCA_SOLO: Final = Home("dca_solo", _flag)
SOLO_OF: Final = Home("solo_of", _flag)
SOLO_PROOF: Final = Home("solo_proof", _flag)
SOLO_IN_PLACE: Final = Home("solo_in_place", lambda _, value: float(value == "in_place"))
GROUP_OF: Final = Home("group_of", _flag)
GROUP_ON: Final = Home("group_on", _flag)
GROUP_HARD: Final = Home("group_hard", _flag)
SHARING_OF: Final = Home("sharing_of", _number_of)
SHARING_OUT: Final = Home("sharing_out", _flag)
SHARING_BEFORE: Final = Home("sharing_before", lambda _, value: float(value == "before_fader"))

_SEND_HOMES: Final = {"level": AMP, "on": ON, "tap": TAP, "pan": PAN}


def feed_kind(source: str, bus: str) -> str:
    """How a strip may feed a bus: "assign", "send", or "" when it never can (by their kinds)."""
    kind = KINDS.get(source)
    return kind.feeds.get(bus, "") if kind else ""


def feed_address(source: str, bus: str, leaf: str) -> str:
    """Address of a feed's level, on, tap or pan; an assignment has no tap, the strip's pan, and a

    level only into a group.
    """
    if feed_kind(of_kind(source), of_kind(bus)) == "send":
        return f"{source}/send/{bus}/{leaf}"
    return f"{source}/pan" if leaf == "pan" else f"{source}/{bus}/{leaf}"


@lru_cache(maxsize=16)
def homes_of(desk: Desk) -> dict[str, tuple[Home, int]]:
    """Home and flat place of every address that bears on the flow of a desk."""
    layout = layout_of(desk)
    found: dict[str, tuple[Home, int]] = {}
    kinds = [of_kind(strip) for strip in layout.strips]
    for number, (strip, kind) in enumerate(zip(layout.strips, kinds, strict=True)):
        for place, stage in enumerate(STAGES):
            if kind in stage.strips and not (stage.ruled or stage.worked_out):
                at = number * len(STAGES) + place
                found[f"{strip}/{stage.leaf}"] = (_STAGE_HOMES[place], at)
        if kind in FORMATTED:
            found[f"{strip}/format"] = (SIDES_HOME, number)
        if "house" in KINDS[kind].feeds:
            found[f"{strip}/pan"] = (STRIP_PAN, number)
        found[f"{strip}/compressor/on"] = (COMPRESSING, number)
        found[f"{strip}/compressor/make_up"] = (MAKE_UP, number)
        found[f"{strip}/compressor/blend"] = (BLEND, number)
        found[f"{strip}/solo"] = (SOLO_OF, number)
        if kind in SHARERS:
            found[f"{strip}/sharing/group"] = (SHARING_OF, number)
            found[f"{strip}/sharing/out"] = (SHARING_OUT, number)
        if kind in SOURCES:
            found[f"{strip}/solo_proof"] = (SOLO_PROOF, number)
        for dca in range(desk.dcas):
            found[f"{strip}/dca/{dca + 1}/on"] = (DCA_OF, number * desk.dcas + dca)
        for group in range(desk.mute_groups):
            at = number * desk.mute_groups + group
            found[f"{strip}/mute_group/{group + 1}/on"] = (GROUP_OF, at)
        if number >= layout.feeding:
            continue
        for column in range(layout.buses):
            bus = layout.strips[layout.first_bus + column]
            way = feed_kind(kind, kinds[layout.first_bus + column]) if bus != strip else ""
            at = number * layout.buses + column
            if way == "assign":
                found[f"{strip}/{bus}/on"] = (ON, at)
                if of_kind(bus) == "group":
                    found[f"{strip}/{bus}/level"] = (AMP, at)
            elif way == "send":
                for leaf, home in _SEND_HOMES.items():
                    found[f"{strip}/send/{bus}/{leaf}"] = (home, at)
    for dca in range(desk.dcas):
        found[f"dca/{dca + 1}/fader"] = (DCA_DB, dca)
        found[f"dca/{dca + 1}/mute"] = (DCA_MUTE, dca)
        found[f"dca/{dca + 1}/solo"] = (DCA_SOLO, dca)
        for other in range(desk.dcas):
            found[f"dca/{dca + 1}/dca/{other + 1}/on"] = (DCA_IN, dca * desk.dcas + other)
    for group in range(desk.mute_groups):
        found[f"mute_group/{group + 1}/on"] = (GROUP_ON, group)
        found[f"mute_group/{group + 1}/hard"] = (GROUP_HARD, group)
    for sharing in range(desk.sharing_groups):
        found[f"sharing/{sharing + 1}/place"] = (SHARING_BEFORE, sharing)
    found["show/solo"] = (SOLO_IN_PLACE, 0)
    for row in range(layout.rows):
        found[f"{layout.strips[row]}/source"] = (SOURCE, row)
    for channel in range(layout.channels):
        found[f"channel/{channel + 1}/spare"] = (SPARE, channel)
        found[f"channel/{channel + 1}/on_spare"] = (ON_SPARE, channel)
    for engine in range(desk.effect_engines):
        found[f"engine/{engine + 1}/source"] = (ENGINE_SOURCE, engine)
    for place, socket in enumerate(layout.outputs):
        found[f"{socket}/source"] = (OUT_SOURCE, place)
        found[f"{socket}/tap"] = (OUT_TAP, place)
        found[f"{socket}/trim"] = (OUT_TRIM, place)
    return found
