"""Static curves of gates and compressors: what comes out for a level that stays as it is."""

from typing import Any

import numpy as np
from numpy.typing import NDArray

__all__ = ["compressed_db", "gated_db"]

Levels = NDArray[np.floating[Any]]


def gated_db(
    levels_db: Levels, *, threshold_db: float, ratio: float, range_db: float
) -> NDArray[np.float64]:
    """Levels behind a gate (a downward expander), in dB. Above the threshold nothing changes.

    Below it each dB in becomes `ratio` dB out (at least 1), and never more than `range_db` (at
    least 0) is taken away.
    """
    levels = np.asarray(levels_db, dtype=np.float64)
    below = np.minimum(levels - threshold_db, 0.0)
    return levels + np.maximum((ratio - 1.0) * below, -range_db)


def compressed_db(
    levels_db: Levels,
    *,
    threshold_db: float,
    ratio: float,
    knee_db: float = 0.0,
    make_up_db: float = 0.0,
    blend: float = 1.0,
) -> NDArray[np.float64]:
    """Levels behind a compressor, in dB. `ratio`: dB in for each dB out above the threshold, at

    least 1. `knee_db`: the width over which it sets in, around the threshold, as a parabola
    (D. Giannoulis, M. Massberg, J. D. Reiss, "Digital Dynamic Range Compressor Design", J. Audio
    Eng. Soc. 60, 2012, eq. 4). `blend`: share of the compressed signal beside the plain one, 0 to
    1; the two add in amplitude.
    """
    levels = np.asarray(levels_db, dtype=np.float64)
    over = levels - threshold_db
    slope = 1.0 / ratio - 1.0
    taken = slope * np.maximum(over, 0.0)
    if knee_db > 1e-6:
        inside = np.abs(over) <= knee_db / 2.0
        taken = np.where(inside, slope * (over + knee_db / 2.0) ** 2 / (2.0 * knee_db), taken)
    gain = (1.0 - blend) + blend * 10.0 ** ((taken + make_up_db) / 20.0)
    return levels + 20.0 * np.log10(gain)
