"""The curves of a strip's processors: magnitude over frequency, levels out over levels in."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Final, cast

import numpy as np
from numpy.typing import NDArray

from ..catalogue import BANDS, CROSSED, SOURCES, Address, Thing, check_strip, of_kind
from ..flow import Flow
from ..patching import Crossover, crossover_at, source_dbfs
from ..processing import (
    Band,
    Sections,
    compressed_db,
    eq_band,
    gated_db,
    low_cut,
    refined,
    response_db,
    turning_hz,
)
from ..show import Show
from .headroom import expected_at
from .keys import key_dbfs, keyed

Levels = NDArray[np.float64]

__all__ = [
    "HIGHEST_HZ",
    "LOWEST_HZ",
    "Curves",
    "Static",
    "bears_on_curves",
    "curves",
    "expected_dbfs",
]

# as wide as is heard, and as deep as levels are drawn: what lies beyond is cut off there
LOWEST_HZ: Final = 20.0
HIGHEST_HZ: Final = 20_000.0
_DEEP_DB, _HIGH_DB = -60.0, 60.0
_FLOOR_DB: Final = -80.0
_OCTAVE_PARTS: Final = 6  # places in an octave at which one starts to look


@dataclass(frozen=True, slots=True, kw_only=True)
class Static:
    """A static curve: what comes out, `out_db`, at levels `in_db`, joined by straight lines.

    `stands_db`: the level expected at it, or of what keys it; `comes_db`: what then comes out (None
    where no line's level is known).
    """

    in_db: tuple[float, ...]
    out_db: tuple[float, ...]
    stands_db: float | None
    comes_db: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Curves:
    """In dB at `frequencies_hz`, joined by lines that are straight over octaves: `total_db` of what

    is on, and `bands_db` of each, on or off, by "low_cut" and "1" to "4". `gate`: of channels;
    `crossover`: of house and mono.
    """

    strip: str
    frequencies_hz: tuple[float, ...]
    total_db: tuple[float, ...]
    bands_db: dict[str, tuple[float, ...]]
    gate: Static | None
    compressor: Static
    crossover: Crossover | None = None


def curves(show: Show, strip: str, flow: Flow | None = None) -> Curves:
    """The curves of a strip as its values stand. Raises UnknownAddress.

    `flow`: of the show, for the level expected at a bus; without it a bus has none.
    """
    check_strip(show.desk, strip, "low_cut/frequency")
    octaves, drawn = refined(
        partial(_magnitudes, show, strip), _looked_at_first(show, strip),
        low_db=_DEEP_DB, high_db=_HIGH_DB,
    )  # fmt: skip
    hertz = 2.0**octaves
    stands_db = expected_dbfs(show, strip)
    if flow is not None and of_kind(strip) not in SOURCES:
        in_dbfs = expected_at(show, flow, strip).in_dbfs
        stands_db = in_dbfs if in_dbfs > -math.inf else None
    # a gate that another strip opens stands where that stands
    by = keyed(show, flow, strip) if flow is not None and of_kind(strip) == "channel" else None
    gate_db = by.dbfs if by is not None and by.dbfs != -math.inf else None if by else stands_db
    gate = _gate(show, strip, gate_db) if of_kind(strip) == "channel" else None
    behind_gate = stands_db
    if by is not None and stands_db is not None:
        behind_gate = None if by.takes_db is None else stands_db - by.takes_db
    elif gate is not None:
        behind_gate = gate.comes_db
    key = show[f"{strip}/compressor/key"]
    if isinstance(key, str) and flow is not None:
        by_key = key_dbfs(show, flow, key, show.text(f"{strip}/compressor/key_tap"))
        behind_gate = by_key if by_key is not None and by_key > -math.inf else None
    return Curves(
        strip=strip,
        frequencies_hz=tuple(hertz.tolist()),
        total_db=tuple(drawn[0].tolist()),
        bands_db={
            band: tuple(db.tolist())
            for band, db in zip(("low_cut", *map(str, BANDS)), drawn[1:], strict=False)
        },
        gate=gate,
        compressor=_compressor(show, strip, behind_gate),
        crossover=crossover_at(show, hertz) if strip in CROSSED else None,
    )


def _filters(show: Show, strip: str) -> list[Sections]:
    """The low cut and the bands, on or off."""
    rate_hz = show.desk.sample_rate_hz
    slope = int(show.text(f"{strip}/low_cut/slope"))
    return [
        low_cut(show.number(f"{strip}/low_cut/frequency"), slope, rate_hz),
        *(
            eq_band(
                cast(Band, show.text(f"{at}/kind")),
                show.number(f"{at}/frequency"),
                show.number(f"{at}/gain"),
                show.number(f"{at}/q"),
                rate_hz,
            )
            for at in (f"{strip}/eq/{band}" for band in BANDS)
        ),
    ]


def _magnitudes(show: Show, strip: str, octaves: Levels) -> Levels:
    """In dB at frequencies of 2^octaves Hz: all that is on, the low cut, the bands; and of house

    and mono the crossover's two sides and their sum. Shape (curves, n).
    """
    hertz, rate_hz = 2.0**octaves, show.desk.sample_rate_hz
    found = [response_db(one, hertz, rate_hz) for one in _filters(show, strip)]
    total: Levels = np.zeros(hertz.shape)
    if show.on(f"{strip}/low_cut/on"):
        total = total + found[0]
    if show.on(f"{strip}/eq/on"):
        total = total + np.sum(found[1:], axis=0)
    if strip not in CROSSED:
        return np.array([total, *found])
    both = crossover_at(show, hertz)
    if show.on("mono/crossover/on"):
        total = total + np.array(both.house_db if strip == "house" else both.mono_db)
    return np.array([total, *found, both.house_db, both.mono_db, both.sum_db])


def _looked_at_first(show: Show, strip: str) -> Levels:
    """Octaves (of 1 Hz): evenly over what is heard, and where filters have their peaks."""
    low, high = math.log2(LOWEST_HZ), math.log2(HIGHEST_HZ)
    evenly = np.linspace(low, high, round((high - low) * _OCTAVE_PARTS) + 1)
    turning = [turning_hz(one, show.desk.sample_rate_hz) for one in _filters(show, strip)]
    tuned = np.array([show.number("mono/crossover/frequency"), *np.concatenate(turning)])
    tuned = tuned.clip(LOWEST_HZ, HIGHEST_HZ)
    found: Levels = np.concatenate((evenly, np.log2(tuned)))
    return found


def expected_dbfs(show: Show, strip: str) -> float | None:
    """The level expected behind a channel's trim; None where no line's is known."""
    if of_kind(strip) != "channel":
        return None
    source = show.source_of(Thing.at(strip).number)
    dbfs = source_dbfs(show, source) if source is not None else None
    return None if dbfs is None else dbfs + show.number(f"{strip}/trim")


def _static(
    of: Callable[[Levels], Levels], corners: list[float], stands_db: float | None, *, on: bool
) -> Static:
    evenly = np.arange(_FLOOR_DB, 0.5, 5.0)
    start = np.concatenate((evenly, np.clip(corners, _FLOOR_DB, 0.0)))
    levels, drawn = refined(lambda at: of(at)[None], start, low_db=_FLOOR_DB - 5.0, high_db=5.0)
    comes_db = stands_db
    if stands_db is not None and on:
        comes_db = float(of(np.array([stands_db]))[0])
    return Static(
        in_db=tuple(levels.tolist()),
        out_db=tuple(drawn[0].tolist()),
        stands_db=stands_db,
        comes_db=comes_db,
    )


def _gate(show: Show, strip: str, stands_db: float | None) -> Static:
    at = f"{strip}/gate"
    threshold, ratio = show.number(f"{at}/threshold"), show.number(f"{at}/ratio")
    range_db = show.number(f"{at}/range")
    closed = [threshold - range_db / (ratio - 1.0)] if ratio > 1.0 else []
    return _static(
        lambda levels: gated_db(levels, threshold_db=threshold, ratio=ratio, range_db=range_db),
        [threshold, *closed],
        stands_db,
        on=show.on(f"{at}/on"),
    )


def _compressor(show: Show, strip: str, stands_db: float | None) -> Static:
    at = f"{strip}/compressor"
    threshold, knee = show.number(f"{at}/threshold"), show.number(f"{at}/knee")
    return _static(
        lambda levels: compressed_db(
            levels,
            threshold_db=threshold,
            ratio=show.number(f"{at}/ratio"),
            knee_db=knee,
            make_up_db=show.number(f"{at}/make_up"),
            blend=show.number(f"{at}/blend") / 100.0,
        ),
        [threshold - knee / 2.0, threshold, threshold + knee / 2.0],
        stands_db,
        on=show.on(f"{at}/on"),
    )


def bears_on_curves(address: str, strip: str) -> bool:
    """Whether a value may move the curves of a strip: its own, or those that feed it; of house and

    mono the crossover, and how their outputs turn it.
    """
    at = Address.at(address)
    if strip in CROSSED and at.bears_on("crossover"):
        return True
    return (at.thing == strip and not at.of_send) or at.bears_on("curves")
