"""Crossovers against scipy's filters and their known sums; one setting for house and mono."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import signal

from ombrel.core import Value, curves, flow_of, made, show_of, strip_path, turn_mono
from ombrel.core.patching.crossover import crossover_at
from ombrel.core.processing.crossovers import CROSSOVERS, crossover_side
from ombrel.core.processing.filters import response
from tests.desks import TOURING

RATE = 48_000.0
HEARD = np.geomspace(20.0, 20_000.0, 200)
MEETING = st.floats(30.0, 400.0)
PATCH: dict[str, Value] = {"output/local/1/source": "house/left",
                           "output/local/2/source": "house/right",
                           "output/local/3/source": "mono"}  # fmt: skip


def both(kind, frequency, at=HEARD):
    return [
        response(crossover_side(kind, side, frequency, RATE), at, RATE) for side in ("low", "high")
    ]


@settings(max_examples=60)
@given(st.sampled_from(sorted(CROSSOVERS)), MEETING)
def test_each_side_is_scipys_filter_to_a_hundredth_of_a_db(kind, frequency):
    order, times = CROSSOVERS[kind]
    assert order * times * 6 == int(kind.rpartition("_")[2])  # dB per octave, 6 for each order
    for found, side in zip(both(kind, frequency), ("lowpass", "highpass"), strict=True):
        sos = signal.butter(order, frequency, side, fs=RATE, output="sos")
        wanted = signal.sosfreqz(sos, 2 * np.pi * HEARD / RATE)[1] ** times
        heard = np.abs(wanted) > 1e-7
        assert 20 * np.log10(np.abs(found[heard])) == pytest.approx(
            20 * np.log10(np.abs(wanted[heard])), abs=0.01
        )


@settings(max_examples=60)
@given(st.sampled_from([12, 24, 48]), MEETING)
def test_linkwitz_riley_is_6_02_db_down_where_it_meets_and_flat_together(slope, frequency):
    """In phase for 24 and 48; at 12 dB per octave one side is turned over (Linkwitz 1976)."""
    low, high = both(f"linkwitz_riley_{slope}", frequency)
    whole = low - high if slope == 12 else low + high
    assert np.abs(whole) == pytest.approx(1.0, abs=1e-6)
    for side in both(f"linkwitz_riley_{slope}", frequency, np.array([frequency])):
        assert 20 * math.log10(abs(side[0])) == pytest.approx(-6.0206, abs=1e-3)


@settings(max_examples=60)
@given(st.sampled_from([12, 24, 48]), MEETING)
def test_butterworth_keeps_the_power_and_makes_3_01_db_where_it_meets(slope, frequency):
    """|low|^2 + |high|^2 = 1 (the filter's definition); amplitudes of 0.707 in phase make 1.414."""
    low, high = both(f"butterworth_{slope}", frequency)
    assert np.abs(low) ** 2 + np.abs(high) ** 2 == pytest.approx(1.0, abs=1e-6)
    one, other = both(f"butterworth_{slope}", frequency, np.array([frequency]))
    whole = one - other if slope == 12 else one + other
    assert 20 * math.log10(abs(whole[0])) == pytest.approx(3.0103, abs=1e-3)
    if slope == 12:  # in phase they cancel there
        assert abs(one[0] + other[0]) < 1e-9


def crossed(**more):
    on: dict[str, Value] = {"mono/crossover/on": True}
    return show_of(TOURING, PATCH | on | more)


def test_one_setting_is_the_low_cut_of_the_house_and_the_high_cut_of_mono():
    show = crossed(**{"mono/crossover/frequency": 100.0})
    house, mono = curves(show, "house"), curves(show, "mono")
    assert house.crossover == mono.crossover
    assert house.crossover is not None
    assert house.total_db == pytest.approx(house.crossover.house_db)
    assert mono.total_db == pytest.approx(house.crossover.mono_db)
    beads = {
        strip: {bead.key: bead.says for bead in strip_path(show, flow_of(show), strip).beads}
        for strip in ("house", "mono")
    }
    assert beads["house"]["crossover"] == "above 100 Hz"
    assert beads["mono"]["crossover"] == "below 100 Hz"
    off = curves(made(show, {"mono/crossover/on": False})[0], "house")
    assert off.total_db == pytest.approx([0.0] * len(off.total_db))
    assert curves(show, "mix/1").crossover is None


@pytest.mark.parametrize(
    ("kind", "meeting", "better"),
    [("linkwitz_riley_12", -240.0, 0.0), ("linkwitz_riley_24", 0.0, -240.0),
     ("butterworth_12", -240.0, 3.0103), ("butterworth_48", 3.0103, -240.0)],
)  # fmt: skip
def test_the_sum_is_told_as_the_outputs_turn_it_and_turned_over_in_one_action(
    kind, meeting, better
):
    show = crossed(**{"mono/crossover/kind": kind})
    found = crossover_at(show, HEARD)
    assert max(found.meeting_db, -200.0) == pytest.approx(max(meeting, -200.0), abs=1e-3)
    turned = crossover_at(made(show, turn_mono(show))[0], HEARD)
    assert turned.turned
    assert max(turned.meeting_db, -200.0) == pytest.approx(max(better, -200.0), abs=1e-3)
    assert turned.better_db == pytest.approx(found.meeting_db)
    assert ("cancel" in found.says) == (meeting < -100.0)
    assert ("inverted" in found.says) == (abs(better) < abs(meeting))
    back = made(show, turn_mono(show))[0]
    assert made(back, turn_mono(back))[0] == show
