"""Filters as sections of second order, and what they do to a sine of a frequency.

Coefficients of bells and shelves: R. Bristow-Johnson, "Audio EQ Cookbook" (W3C note, 2021). Low
cuts and the sides of a crossover: Butterworth filters by the bilinear transform with the cutoff
where it is asked for.
"""

import math
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

__all__ = ["Band", "Sections", "Side", "bandwidth_to_q", "butterworth", "eq_band", "gain_db",
           "low_cut", "q_to_bandwidth", "response", "response_db"]  # fmt: skip

Band = Literal["bell", "low_shelf", "high_shelf"]
Side = Literal["low", "high"]  # what passes
Sections = NDArray[np.float64]  # shape (sections, 6): b0, b1, b2, a0, a1, a2


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


def butterworth(order: int, side: Side, frequency_hz: float, rate_hz: float) -> Sections:
    """A Butterworth filter of an order from 1, shape (sections, 6), 3.01 dB down at its frequency.

    The Q of its k-th pair of poles is 1 / (2 sin((2k-1) pi / 2n)): S. Butterworth, "On the Theory
    of Filter Amplifiers" (1930), in the form that text books give (value from memory).
    """
    turn = 2.0 * math.pi * frequency_hz / rate_hz
    cosine, sections = math.cos(turn), []
    for k in range(1, order // 2 + 1):
        alpha = math.sin(turn) * math.sin((2 * k - 1) * math.pi / (2 * order))  # sin / 2Q
        whole = 1 - cosine if side == "low" else -(1 + cosine)
        ends = abs(whole) / 2
        sections.append([ends, whole, ends, 1 + alpha, -2 * cosine, 1 - alpha])
    if order % 2:
        warped = math.tan(turn / 2.0)
        above = [warped, warped] if side == "low" else [1.0, -1.0]
        sections.append([*above, 0.0, 1.0 + warped, warped - 1.0, 0.0])
    return np.array(sections)


def low_cut(frequency_hz: float, slope: int, rate_hz: float) -> Sections:
    """A Butterworth high-pass of 12, 18 or 24 dB per octave (`slope`), shape (sections, 6)."""
    return butterworth(slope // 6, "high", frequency_hz, rate_hz)


def response(
    sections: Sections, frequencies_hz: NDArray[np.floating[Any]], rate_hz: float
) -> NDArray[np.complex128]:
    """Gain of sections in a row at some frequencies, with its phase, shape (frequencies,)."""
    z = np.exp(-2j * np.pi * np.asarray(frequencies_hz, dtype=np.float64) / rate_hz)
    found = np.ones(z.shape, dtype=np.complex128)
    for b0, b1, b2, a0, a1, a2 in sections:
        found *= (b0 + b1 * z + b2 * z * z) / (a0 + a1 * z + a2 * z * z)
    return found


def gain_db(gain: NDArray[np.complex128]) -> NDArray[np.float64]:
    """The size of gains in dB, with a floor of -240 dB for what is nothing."""
    found: NDArray[np.float64] = 20.0 * np.log10(np.maximum(np.abs(gain), 1e-12))
    return found


def turning_hz(sections: Sections, rate_hz: float) -> NDArray[np.float64]:
    """Frequencies of the poles and zeros: a narrow peak or dip of the magnitude lies at one."""
    roots = [np.roots(half) for section in sections for half in (section[:3], section[3:])]
    found: NDArray[np.float64] = np.abs(np.angle(np.concatenate(roots))) * rate_hz / (2 * np.pi)
    return found


def response_db(
    sections: Sections, frequencies_hz: NDArray[np.floating[Any]], rate_hz: float
) -> NDArray[np.float64]:
    """Gain in dB of sections in a row at some frequencies, shape (frequencies,)."""
    return gain_db(response(sections, frequencies_hz, rate_hz))
