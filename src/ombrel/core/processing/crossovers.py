"""Crossovers: one signal parted in two at a frequency, so that both sides together are whole.

Butterworth: both sides 3.01 dB down where they meet. Linkwitz-Riley: each side is two Butterworth
filters of half the order in a row, 6.02 dB down there, so that both in phase make 0 dB (S. H.
Linkwitz, "Active Crossover Networks for Noncoincident Drivers", JAES 24, 1976).
"""

from typing import Final

import numpy as np

from .filters import Sections, Side, butterworth

__all__ = ["CROSSOVERS", "crossover_side"]

# name -> order of the Butterworth filter, and how many of it stand in a row
CROSSOVERS: Final = {
    "linkwitz_riley_12": (1, 2),
    "linkwitz_riley_24": (2, 2),
    "linkwitz_riley_48": (4, 2),
    "butterworth_12": (2, 1),
    "butterworth_24": (4, 1),
    "butterworth_48": (8, 1),
}


def crossover_side(kind: str, side: Side, frequency_hz: float, rate_hz: float) -> Sections:
    """One side of a crossover, shape (sections, 6). KeyError for a kind not in CROSSOVERS."""
    order, times = CROSSOVERS[kind]
    return np.concatenate([butterworth(order, side, frequency_hz, rate_hz)] * times)
