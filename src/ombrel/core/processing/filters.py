"""Filters as sections of second order, and what they do to a sine of a frequency.

Coefficients of bells and shelves: R. Bristow-Johnson, "Audio EQ Cookbook" (W3C note, 2021). Low
cuts: Butterworth high-passes by the bilinear transform with the cutoff where it is asked for.
"""

import math
from typing import Any, Final, Literal

import numpy as np
from numpy.typing import NDArray

__all__ = ["Band", "Sections", "bandwidth_to_q", "eq_band", "low_cut", "q_to_bandwidth",
           "response_db"]  # fmt: skip

Band = Literal["bell", "low_shelf", "high_shelf"]
Sections = NDArray[np.float64]  # shape (sections, 6): b0, b1, b2, a0, a1, a2

# Sections of a Butterworth filter by order: its Q each; None is one of first order.
_BUTTERWORTH: Final[dict[int, tuple[float | None, ...]]] = {
    2: (1 / math.sqrt(2),),
    3: (None, 1.0),
    4: (1 / (2 * math.cos(math.pi / 8)), 1 / (2 * math.cos(3 * math.pi / 8))),
}


def q_to_bandwidth(q: float) -> float:
    """Bandwidth in octaves of a bell of this Q, between its points of half the gain in dB.

    1/Q = 2 sinh(ln 2 / 2 * BW): Audio EQ Cookbook, the analogue form.
    """
    return 2.0 / math.log(2.0) * math.asinh(0.5 / q)


def bandwidth_to_q(octaves: float) -> float:
    """The Q of a bell of this bandwidth in octaves; the inverse of `q_to_bandwidth`."""
    return 0.5 / math.sinh(math.log(2.0) / 2.0 * octaves)


def eq_band(kind: Band, frequency_hz: float, gain_db: float, q: float, rate_hz: float) -> Sections:
    """One band of an equaliser, shape (1, 6). `frequency_hz`: below half the `rate_hz`."""
    amplitude = 10.0 ** (gain_db / 40.0)
    turn = 2.0 * math.pi * frequency_hz / rate_hz
    alpha, cosine = math.sin(turn) / (2.0 * q), math.cos(turn)
    if kind == "bell":
        b = (1 + alpha * amplitude, -2 * cosine, 1 - alpha * amplitude)
        a = (1 + alpha / amplitude, -2 * cosine, 1 - alpha / amplitude)
        return np.array([[*b, *a]])
    # a high shelf is a low shelf with the sign of the cosine turned, and b1 and a1 with it
    sign = 1.0 if kind == "low_shelf" else -1.0
    more, less, cosine = amplitude + 1, amplitude - 1, sign * cosine
    wide = 2 * math.sqrt(amplitude) * alpha
    b = (
        amplitude * (more - less * cosine + wide),
        sign * 2 * amplitude * (less - more * cosine),
        amplitude * (more - less * cosine - wide),
    )
    a = (more + less * cosine + wide, -sign * 2 * (less + more * cosine),
         more + less * cosine - wide)  # fmt: skip
    return np.array([[*b, *a]])


def low_cut(frequency_hz: float, slope: int, rate_hz: float) -> Sections:
    """A Butterworth high-pass of 12, 18 or 24 dB per octave (`slope`), shape (sections, 6).

    It is 3.01 dB down at its frequency. KeyError for another slope.
    """
    turn = 2.0 * math.pi * frequency_hz / rate_hz
    cosine, sections = math.cos(turn), []
    for q in _BUTTERWORTH[slope // 6]:
        if q is None:
            warped = math.tan(turn / 2.0)
            sections.append([1.0, -1.0, 0.0, 1.0 + warped, warped - 1.0, 0.0])
            continue
        alpha = math.sin(turn) / (2.0 * q)
        half = (1 + cosine) / 2
        sections.append([half, -2 * half, half, 1 + alpha, -2 * cosine, 1 - alpha])
    return np.array(sections)


def response_db(
    sections: Sections, frequencies_hz: NDArray[np.floating[Any]], rate_hz: float
) -> NDArray[np.float64]:
    """Gain in dB of sections in a row at some frequencies, shape (frequencies,)."""
    z = np.exp(-2j * np.pi * np.asarray(frequencies_hz, dtype=np.float64) / rate_hz)
    found = np.zeros(z.shape)
    for b0, b1, b2, a0, a1, a2 in sections:
        gain = np.abs((b0 + b1 * z + b2 * z * z) / (a0 + a1 * z + a2 * z * z))
        found += 20.0 * np.log10(np.maximum(gain, 1e-12))
    return found
