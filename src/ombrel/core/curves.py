"""The curves of a strip's processors: magnitude over frequency, levels out over levels in."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, cast

import numpy as np
from numpy.typing import NDArray

from .addresses import check_strip
from .crossover import Crossover, crossover_at
from .flow import Flow
from .headroom import expected_at
from .keys import keyed
from .preamps import source_dbfs
from .processing import compressed_db, eq_band, gated_db, low_cut, response_db
from .processing.filters import Band
from .processing_parameters import BANDS
from .show import Show

Levels = NDArray[np.float64]

__all__ = ["FREQUENCIES_HZ", "LEVELS_DB", "Curves", "Static", "curves", "expected_dbfs"]

# ten points an octave over what is heard; levels to where a gate has closed
FREQUENCIES_HZ: Final = tuple(float(f) for f in np.geomspace(20.0, 20_000.0, 121))
LEVELS_DB: Final = tuple(float(level) for level in np.arange(-80.0, 0.5, 1.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class Static:
    """A static curve over LEVELS_DB; `stands_db`: the level expected at it, `comes_db`: what then

    comes out of it (None where no line's level is known).
    """

    out_db: tuple[float, ...]
    stands_db: float | None
    comes_db: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Curves:
    """Over FREQUENCIES_HZ in dB: `total_db` of what is on, and `bands_db` of each, on or off, by

    "low_cut" and "1" to "4". `gate`: of channels alone; `crossover`: of house and mono.
    """

    strip: str
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
    heard, rate_hz = np.array(FREQUENCIES_HZ), show.desk.sample_rate_hz
    cut = low_cut(
        show.number(f"{strip}/low_cut/frequency"), int(show.text(f"{strip}/low_cut/slope")), rate_hz
    )
    bands = {"low_cut": response_db(cut, heard, rate_hz)}
    for band in BANDS:
        at = f"{strip}/eq/{band}"
        section = eq_band(
            cast(Band, show.text(f"{at}/kind")),
            show.number(f"{at}/frequency"),
            show.number(f"{at}/gain"),
            show.number(f"{at}/q"),
            rate_hz,
        )
        bands[str(band)] = response_db(section, heard, rate_hz)
    total: Levels = np.zeros(heard.shape)
    if show.on(f"{strip}/low_cut/on"):
        total = total + bands["low_cut"]
    if show.on(f"{strip}/eq/on"):
        for band in BANDS:
            total = total + bands[str(band)]
    crossover = crossover_at(show, heard) if strip in ("house", "mono") else None
    if crossover is not None and show.on("mono/crossover/on"):
        total = total + np.array(crossover.house_db if strip == "house" else crossover.mono_db)
    stands_db = expected_dbfs(show, strip)
    if flow is not None and not strip.startswith(("channel/", "return/")):
        in_dbfs = expected_at(show, flow, strip).in_dbfs
        stands_db = in_dbfs if in_dbfs > -math.inf else None
    # a gate that another strip opens stands where that stands
    by = keyed(show, flow, strip) if flow is not None and strip.startswith("channel/") else None
    gate_db = by.dbfs if by is not None and by.dbfs != -math.inf else None if by else stands_db
    gate = _gate(show, strip, gate_db) if strip.startswith("channel/") else None
    behind_gate = stands_db
    if by is not None and stands_db is not None:
        behind_gate = None if by.takes_db is None else stands_db - by.takes_db
    elif gate is not None and show.on(f"{strip}/gate/on"):
        behind_gate = gate.comes_db
    return Curves(
        strip=strip,
        total_db=tuple(total.tolist()),
        bands_db={band: tuple(db.tolist()) for band, db in bands.items()},
        gate=gate,
        compressor=_compressor(show, strip, behind_gate),
        crossover=crossover,
    )


def expected_dbfs(show: Show, strip: str) -> float | None:
    """The level expected behind a channel's trim; None where no line's is known."""
    if not strip.startswith("channel/"):
        return None
    source = show.source_of(int(strip.split("/")[1]))
    dbfs = source_dbfs(show, source) if source is not None else None
    return None if dbfs is None else dbfs + show.number(f"{strip}/trim")


def _static(of: Callable[[Levels], Levels], stands_db: float | None) -> Static:
    levels = np.array([*LEVELS_DB, 0.0 if stands_db is None else stands_db])
    out = of(levels).tolist()
    comes_db = None if stands_db is None else float(out[-1])
    return Static(out_db=tuple(out[:-1]), stands_db=stands_db, comes_db=comes_db)


def _gate(show: Show, strip: str, stands_db: float | None) -> Static:
    at = f"{strip}/gate"
    return _static(
        lambda levels: gated_db(
            levels,
            threshold_db=show.number(f"{at}/threshold"),
            ratio=show.number(f"{at}/ratio"),
            range_db=show.number(f"{at}/range"),
        ),
        stands_db,
    )


def _compressor(show: Show, strip: str, stands_db: float | None) -> Static:
    at = f"{strip}/compressor"
    return _static(
        lambda levels: compressed_db(
            levels,
            threshold_db=show.number(f"{at}/threshold"),
            ratio=show.number(f"{at}/ratio"),
            knee_db=show.number(f"{at}/knee"),
            make_up_db=show.number(f"{at}/make_up"),
            blend=show.number(f"{at}/blend") / 100.0,
        ),
        stands_db,
    )
