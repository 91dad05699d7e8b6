"""Microphones that share one gain: each one's share of their power is its gain, in power.

After D. Dugan's gain sharing (51st AES Convention, 1975; by the published rule, from memory).
"""

import math
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

__all__ = ["FLOOR_DB", "shared_gains", "smoothed_power", "sum_db"]

Powers = NDArray[np.floating[Any]]

FLOOR_DB: Final = -100.0  # dBFS: no mean power counts below it
_FLOOR: Final = 10.0 ** (FLOOR_DB / 10.0)


def smoothed_power(mean: Powers, power: Powers, *, elapsed_s: float, time_s: float) -> Powers:
    """Mean powers after powers stood for some seconds, exact for any step: P <- p + (P - p)e^(-t/T)

    All in units of full scale, never below the floor. `elapsed_s`: at least 0; `time_s`: above 0.
    """
    kept = math.exp(-elapsed_s / time_s)
    found: Powers = np.maximum(power + (np.maximum(mean, _FLOOR) - power) * kept, _FLOOR)
    return found


def shared_gains(power: Powers, weight_db: Powers, *, limit_db: float = -math.inf) -> Powers:
    """The gain of each of n that share, in power: w P / sum(w P), w = 10^(weight/10).

    Their sum is one. `limit_db`: no gain is below it, and the rest stay as they are: then the sum
    is more than one (`sum_db`), by at most 1 + (n - 1) 10^(limit/10). Shapes (..., n) all.
    """
    parts = np.power(10.0, np.asarray(weight_db) / 10.0) * np.maximum(power, _FLOOR)
    found: Powers = parts / parts.sum(axis=-1, keepdims=True)
    found = np.maximum(found, 10.0 ** (limit_db / 10.0))
    return found


def sum_db(gains: Powers) -> float:
    """By how much gains together exceed those of one open microphone, in dB; 0 without a limit."""
    return max(0.0, 10.0 * math.log10(float(gains.sum()))) if gains.size else 0.0
