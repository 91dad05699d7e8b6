"""Processors against the published: analogue prototypes, scipy's filters, hand-worked levels."""

import math
from typing import Literal

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import signal

from ombrel.core import UnreadableText, parameter_at
from ombrel.core.processing.crossovers import crossover_side
from ombrel.core.processing.dynamics import compressed_db, gated_db
from ombrel.core.processing.filters import (
    bandwidth_to_q,
    butterworth,
    eq_band,
    low_cut,
    q_to_bandwidth,
    response_db,
)
from ombrel.core.values.delays import delay_ms, speed_of_sound

RATE = 96_000.0
SIDES: tuple[Literal["low", "high"], ...] = ("low", "high")
HEARD = np.geomspace(20.0, 20_000.0, 200)
FREQUENCIES = st.floats(20.0, 20_000.0)
GAINS = st.floats(-18.0, 18.0)
QS = st.floats(0.1, 16.0)


def analogue(kind, gain_db, q, s):
    """The prototypes of the Audio EQ Cookbook in the Laplace domain, at s normalised to 1."""
    a = 10 ** (gain_db / 40)
    if kind == "bell":
        return (s * s + s * (a / q) + 1) / (s * s + s / (a * q) + 1)
    root = math.sqrt(a) / q
    low = a * (s * s + root * s + a) / (a * s * s + root * s + 1)
    high = a * (a * s * s + root * s + 1) / (s * s + root * s + a)
    return low if kind == "low_shelf" else high


@given(st.sampled_from(["bell", "low_shelf", "high_shelf"]), FREQUENCIES, GAINS, QS)
@settings(max_examples=150)
def test_a_band_is_its_analogue_prototype_by_the_bilinear_transform(kind, frequency, gain, q):
    s = 1j * np.tan(np.pi * HEARD / RATE) / math.tan(math.pi * frequency / RATE)
    wanted = 20 * np.log10(np.abs(analogue(kind, gain, q, s)))
    sections = eq_band(kind, frequency, gain, q, RATE)
    assert response_db(sections, HEARD, RATE) == pytest.approx(wanted, abs=0.01)
    _, by_scipy = signal.sosfreqz(sections / sections[:, [3]], 2 * np.pi * HEARD / RATE)
    assert response_db(sections, HEARD, RATE) == pytest.approx(
        20 * np.log10(np.abs(by_scipy)), abs=0.01
    )


@given(st.sampled_from([12, 18, 24]), st.floats(20.0, 2_000.0))
@settings(max_examples=60)
def test_a_low_cut_is_scipys_butterworth_and_3_db_down_at_its_frequency(slope, frequency):
    sections = low_cut(frequency, slope, RATE)
    sos = signal.butter(slope // 6, frequency, "highpass", fs=RATE, output="sos")
    _, wanted = signal.sosfreqz(sos, 2 * np.pi * HEARD / RATE)
    found = response_db(sections, HEARD, RATE)
    audible = 20 * np.log10(np.abs(wanted)) > -150.0
    assert found[audible] == pytest.approx(20 * np.log10(np.abs(wanted[audible])), abs=0.01)
    at = response_db(sections, np.array([frequency]), RATE)
    assert at[0] == pytest.approx(-3.0103, abs=1e-3)


@given(st.floats(0.05, 6.0))
def test_q_and_bandwidth_are_one_another_undone(octaves):
    assert q_to_bandwidth(bandwidth_to_q(octaves)) == pytest.approx(octaves)


def test_an_octave_is_a_q_of_1_414():
    """1/(2 sinh(ln 2 / 2)) = 1/(sqrt 2 - 1/sqrt 2) = sqrt 2, worked by hand."""
    assert bandwidth_to_q(1.0) == pytest.approx(math.sqrt(2))


LEVELS = np.linspace(-100.0, 20.0, 601)


@given(st.floats(-80.0, 0.0), st.floats(1.0, 100.0), st.floats(0.0, 80.0))
def test_a_gate_is_continuous_changes_nothing_above_and_takes_no_more_than_its_range(
    threshold, ratio, depth
):
    out = gated_db(LEVELS, threshold_db=threshold, ratio=ratio, range_db=depth)
    above = threshold <= LEVELS
    assert out[above] == pytest.approx(LEVELS[above])
    taken = LEVELS - out
    assert (taken >= -1e-9).all()
    assert (taken <= depth + 1e-9).all()
    assert (np.diff(out) <= ratio * 0.2 + 1e-9).all()
    assert (np.diff(taken) <= 1e-9).all()  # the louder, the less


def test_a_gate_worked_by_hand():
    """10 dB below -30 at 3:1 come out 30 below; 40 dB below would be 80 more, but 25 is all."""
    out = gated_db(np.array([-20.0, -40.0, -70.0]), threshold_db=-30.0, ratio=3.0, range_db=25.0)
    assert out == pytest.approx([-20.0, -60.0, -95.0])


@given(st.floats(-60.0, 0.0), st.floats(1.0, 20.0), st.floats(0.0, 24.0), st.floats(0.0, 1.0))
def test_a_compressor_is_continuous_never_louder_than_its_input_and_its_knee_has_its_width(
    threshold, ratio, knee, blend
):
    def out_of(levels, blended=1.0):
        return compressed_db(
            levels, threshold_db=threshold, ratio=ratio, knee_db=knee, blend=blended
        )

    out = out_of(LEVELS, blend)
    assert (out <= LEVELS + 1e-9).all()
    assert (np.diff(out) >= -1e-9).all()
    assert (np.diff(out) <= 0.2 + 1e-9).all()
    below, above = threshold - knee / 2, threshold + knee / 2
    assert out_of(np.array([below - 0.5, below])) == pytest.approx([below - 0.5, below])
    straight = threshold + (above + np.array([0.0, 5.0]) - threshold) / ratio
    assert out_of(above + np.array([0.0, 5.0])) == pytest.approx(straight)


def test_a_compressor_worked_by_hand():
    """12 dB over -24 at 4:1 is 3 over: -21; at the threshold inside a knee of 8 dB: (1/4 - 1) *

    4^2 / 16 = -0.75; half of it beside the plain signal: 20 log10((1 + 10^(-9/20)) / 2) = -3.38.
    """
    usual = {"threshold_db": -24.0, "ratio": 4.0}
    assert compressed_db(np.array([-12.0]), **usual)[0] == pytest.approx(-21.0)
    assert compressed_db(np.array([-24.0]), knee_db=8.0, **usual)[0] == pytest.approx(-24.75)
    assert compressed_db(np.array([-40.0]), make_up_db=6.0, **usual)[0] == pytest.approx(-34.0)
    half = compressed_db(np.array([-12.0]), blend=0.5, **usual)[0]
    assert half == pytest.approx(-12.0 - 3.383, abs=1e-3)


@pytest.mark.parametrize(
    ("temperature", "speed"),
    # 343.2 sqrt((273.15 + t) / 293.15), ISO 9613-1:1993 annex A (from memory), worked by hand
    [(-20.0, 318.93), (-10.0, 325.16), (0.0, 331.29), (20.0, 343.20), (30.0, 349.00),
     (40.0, 354.71)],
)  # fmt: skip
def test_the_speed_of_sound(temperature, speed):
    assert speed_of_sound(temperature) == pytest.approx(speed, abs=0.01)
    linear = 331.3 + 0.606 * temperature  # common practice: within 0.1 % to 25 degrees, no further
    near = speed_of_sound(temperature) == pytest.approx(linear, rel=1e-3)
    assert near == (temperature <= 25.0)


def test_a_bands_coefficients_are_the_cookbooks():
    """Audio EQ Cookbook, bell: 1 kHz, Q 1, +6 dB at 48 kHz; its formulas worked to nine places."""
    a, w = 10 ** (6 / 40), 2 * math.pi / 48
    alpha = math.sin(w) / 2
    b = np.array([1 + alpha * a, -2 * math.cos(w), 1 - alpha * a])
    wanted = np.array([*b, 1 + alpha / a, -2 * math.cos(w), 1 - alpha / a]) / (1 + alpha / a)
    found = eq_band("bell", 1_000.0, 6.0, 1.0, 48_000.0)[0]
    assert found / found[3] == pytest.approx(wanted, abs=1e-9)
    assert (found / found[3]).tolist() == pytest.approx(
        [1.043953087, -1.895320724, 0.867722285, 1.0, -1.895320724, 0.911675372], abs=2e-9
    )


def test_what_filters_take_at_their_corner_and_an_octave_off():
    """Butterworth: 10 log10(1 + 2^2n) an octave off; Linkwitz-Riley is two of them: LR24 passes

    -0.527 and -24.609 dB an octave to either side of its corner, -6.021 there (by hand).
    """
    rate, corner = 10_000_000.0, 1_000.0  # so far above that the warping is nothing
    at = np.array([corner, 2 * corner, corner / 2])
    for order in (1, 2, 3, 4):
        off = -10 * math.log10(1 + 4**order)
        passed = -10 * math.log10(1 + 4**-order)
        low, high = (butterworth(order, side, corner, rate) for side in SIDES)
        assert response_db(low, at, rate) == pytest.approx([-3.0103, off, passed], abs=1e-3)
        assert response_db(high, at, rate) == pytest.approx([-3.0103, passed, off], abs=1e-3)
    low = crossover_side("linkwitz_riley_24", "low", corner, rate)
    high = crossover_side("linkwitz_riley_24", "high", corner, rate)
    assert response_db(low, at, rate) == pytest.approx([-6.0206, -24.609, -0.527], abs=1e-3)
    assert response_db(high, at, rate) == pytest.approx([-6.0206, -0.527, -24.609], abs=1e-3)


def test_bands_have_the_edges_of_iec_61260():
    """IEC 61260-1:2014, octave ratio 10^0.3: edges of the octave and of the third at 1 kHz (from

    memory). A bell so wide, between the points of half its gain, has them very nearly.
    """
    ratio = 10**0.3
    octave = [1_000 * ratio ** (side / 2) for side in (-1, 1)]
    third = [1_000 * ratio ** (side / 6) for side in (-1, 1)]
    assert octave == pytest.approx([707.946, 1_412.538], abs=1e-3)
    assert third == pytest.approx([891.251, 1_122.018], abs=1e-3)
    for edges, octaves in ((octave, 1.0), (third, 1.0 / 3.0)):
        bell = eq_band("bell", 1_000.0, 12.0, bandwidth_to_q(octaves), 10_000_000.0)
        assert response_db(bell, np.array(edges), 10_000_000.0) == pytest.approx(
            [6.0, 6.0], abs=0.03
        )


# ISO 266:1997, preferred frequencies (from memory): 10^(n/10) as they are written
ISO_266 = [20, 25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1_000,
           1_250, 1_600, 2_000, 2_500, 3_150, 4_000, 5_000, 6_300, 8_000, 10_000, 12_500, 16_000,
           20_000]  # fmt: skip


def test_preferred_frequencies_can_be_typed_and_are_kept():
    kind = parameter_at("channel/1/eq/2/frequency").kind
    for place, hertz in enumerate(ISO_266, start=13):
        assert hertz == pytest.approx(10 ** (place / 10), rel=0.02)
        assert kind.typed(f"{hertz:g}", 0.0, "x") == hertz
        assert kind.typed(f"{hertz / 1000:g} kHz", 0.0, "x") == hertz


def test_delays_are_typed_as_distances_and_samples():
    usual = {"temperature_c": 20.0, "rate_hz": 96_000.0}
    assert delay_ms("3.432 m", **usual) == pytest.approx(10.0)
    assert delay_ms("10 ft", **usual) == pytest.approx(3.048 / 343.2 * 1000)
    assert delay_ms("96 samples", **usual) == pytest.approx(1.0)
    assert delay_ms("1.4 ms", **usual) is None
    assert delay_ms("2 m", temperature_c=0.0, rate_hz=96_000.0) > delay_ms("2 m", **usual)
    with pytest.raises(UnreadableText):
        delay_ms("99999999 m", **usual)
