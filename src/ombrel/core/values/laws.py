"""The arithmetic of levels: dB, pan and balance, the travel of a fader, predicted levels.

Arrays in, arrays out, same shape; a plain float works too. Silence is -inf dB and gain 0.0; what
arrives below -600 dB is silence too, so that no square ever falls out of the numbers. NaN must not
get in: the catalogue refuses it at the door.
"""

import math
from typing import Final

import numpy as np
from numpy.typing import ArrayLike, NDArray

__all__ = [
    "FADER_MARKS",
    "SILENCE_DB",
    "balance",
    "constant_power_pan",
    "db_to_gain",
    "fader_db_to_travel",
    "fader_travel_to_db",
    "gain_to_db",
    "predicted_dbfs",
    "sides_to_level_db",
]

SILENCE_DB: Final = -600.0  # nobody hears what lies below, nor any part of it
Array = NDArray[np.float64]


def db_to_gain(level_db: ArrayLike) -> Array:
    """Amplitude gain (1.0 = unity) of a level in dB: 10^(dB/20). -inf dB is 0.0.

    Source: the definition of the level of a field quantity, ISO 80000-3 / IEC 60027-3.

    >>> db_to_gain([0.0, -np.inf, 20.0]).tolist()
    [1.0, 0.0, 10.0]
    """
    return np.power(10.0, np.asarray(level_db, dtype=np.float64) / 20.0)


def gain_to_db(gain: ArrayLike) -> Array:
    """Level in dB of an amplitude gain; its sign (polarity) does not matter; 0.0 is -inf dB.

    >>> gain_to_db([1.0, -10.0, 0.0]).tolist()
    [0.0, 20.0, -inf]
    """
    with np.errstate(divide="ignore"):  # log10(0) = -inf is the answer we want
        return 20.0 * np.log10(np.abs(np.asarray(gain, dtype=np.float64)))


def sides_to_level_db(left_gain: ArrayLike, right_gain: ArrayLike) -> Array:
    """Level shown for a stereo listener, in dB: 10 log10(gL^2 + gR^2). Panning does not change it.

    -inf below `SILENCE_DB`.

    >>> bool(abs(sides_to_level_db(*constant_power_pan(0.3))) < 1e-12)
    True
    """
    left, right = np.asarray(left_gain, np.float64), np.asarray(right_gain, np.float64)
    with np.errstate(divide="ignore"):  # log10(0) = -inf is the answer we want
        level_db = 10.0 * np.log10(left * left + right * right)
    return np.where(level_db < SILENCE_DB, -np.inf, level_db)


def constant_power_pan(pan: ArrayLike) -> tuple[Array, Array]:
    """Gains (left, right) of a mono signal panned into stereo. `pan`: -1 left, 0 centre, +1 right.

    cos and sin of (p+1)*pi/4: -3.01 dB each at the centre (constant power, common practice).

    >>> [round(float(g), 3) for g in constant_power_pan(0.0)]
    [0.707, 0.707]
    """
    theta = (np.asarray(pan, dtype=np.float64) + 1.0) * (math.pi / 4.0)
    # cos(pi/2) is 6e-17 in floating point; a hard-panned signal is truly absent on the other side.
    left = np.where(theta >= math.pi / 2.0, 0.0, np.cos(theta))
    right = np.where(theta <= 0.0, 0.0, np.sin(theta))
    return left, right


def balance(pan: ArrayLike) -> tuple[Array, Array]:
    """Gains (left, right) of a stereo signal balanced into stereo. `pan`: -1 left, +1 right.

    Both sides at 0 dB in the centre; towards one side the other falls by cos(|p| * pi/2) (Ombrel's
    own choice among the common ones: a mix at the centre passes unchanged).

    >>> balance(0.0)[0].item(), balance(1.0)[0].item(), balance(-1.0)[1].item()
    (1.0, 0.0, 0.0)
    """
    place = np.asarray(pan, dtype=np.float64)
    falling = np.where(np.abs(place) >= 1.0, 0.0, np.cos(np.abs(place) * (math.pi / 2.0)))
    return np.where(place > 0.0, falling, 1.0), np.where(place < 0.0, falling, 1.0)


# Ombrel's own law: straight lines in dB between these marks, so the inverse is exact; half of the
# travel lies between -15 and +6 dB, where mixing is done; below the lowest mark the gain itself
# falls in proportion to the travel, which is strictly rising and reaches "off" only at the end.
FADER_MARKS: Final[tuple[tuple[float, float], ...]] = (
    (-80.0, 0.02),
    (-60.0, 0.10),
    (-40.0, 0.22),
    (-25.0, 0.36),
    (-15.0, 0.50),
    (6.0, 1.0),
)
_MARK_DB = np.array([mark[0] for mark in FADER_MARKS])
_MARK_TRAVEL = np.array([mark[1] for mark in FADER_MARKS])


def fader_travel_to_db(travel: float) -> float:
    """Level in dB at a place of the fader's travel, 0.0 (off) to 1.0 (+6 dB). ValueError outside.

    >>> fader_travel_to_db(0.5), fader_travel_to_db(1.0), fader_travel_to_db(0.0)
    (-15.0, 6.0, -inf)
    """
    if not 0.0 <= travel <= 1.0:
        raise ValueError(f"travel runs from 0 to 1, found {travel}")
    if travel == 0.0:
        return -math.inf
    if travel < _MARK_TRAVEL[0]:
        return float(_MARK_DB[0] + 20.0 * math.log10(travel / _MARK_TRAVEL[0]))
    return float(np.interp(travel, _MARK_TRAVEL, _MARK_DB))


def fader_db_to_travel(level_db: float) -> float:
    """Place of a level on the fader's travel, 0.0 to 1.0. Inverse of `fader_travel_to_db`.

    >>> fader_db_to_travel(-15.0), fader_db_to_travel(-math.inf)
    (0.5, 0.0)
    """
    if level_db < _MARK_DB[0]:
        return float(_MARK_TRAVEL[0] * 10.0 ** ((level_db - _MARK_DB[0]) / 20.0))
    return float(np.interp(level_db, _MARK_DB, _MARK_TRAVEL))


def predicted_dbfs(
    *, line_dbu: float, gain_db: float, pad_db: float, full_scale_dbu: float
) -> float:
    """Level in dBFS behind a preamp that a line of `line_dbu` is expected to reach.

    `pad_db`: how much the pad takes away, 0 or more; `full_scale_dbu`: the profile's dBu at 0 dBFS.

    >>> predicted_dbfs(line_dbu=-38.0, gain_db=38.0, pad_db=0.0, full_scale_dbu=22.0)
    -22.0
    """
    return line_dbu + gain_db - pad_db - full_scale_dbu
