import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core.values import (
    constant_power_pan,
    db_to_gain,
    fader_db_to_travel,
    fader_travel_to_db,
    gain_to_db,
    predicted_dbfs,
    sides_to_level_db,
)

LEVELS_DB = st.floats(-120.0, 60.0)
PANS = st.floats(-1.0, 1.0)


@pytest.mark.parametrize(
    ("level_db", "gain"),
    [(0.0, 1.0), (20.0, 10.0), (-20.0, 0.1), (6.0, 1.9953), (-3.0, 0.7079), (-math.inf, 0.0)],
)
def test_gain_of_a_level(level_db, gain):
    """ISO 80000-3 / IEC 60027-3: L = 20 lg(gain) dB; 6 dB and -3 dB from any table of decibels."""
    assert float(db_to_gain(level_db)) == pytest.approx(gain, abs=5e-5)


@given(LEVELS_DB, LEVELS_DB)
def test_levels_add_along_a_path(first_db, second_db):
    both = float(gain_to_db(db_to_gain(first_db) * db_to_gain(second_db)))
    assert both == pytest.approx(first_db + second_db, abs=1e-9)


@given(PANS)
def test_panning_changes_neither_power_nor_level_shown(pan):
    left, right = constant_power_pan(pan)
    assert float(left**2 + right**2) == pytest.approx(1.0, abs=1e-12)
    assert float(sides_to_level_db(left, right)) == pytest.approx(0.0, abs=1e-9)


def test_centre_is_3_db_down_on_each_side():
    """Constant-power pan, common practice: 20 lg cos 45 degrees = -3.0103 dB."""
    left, right = constant_power_pan(0.0)
    assert float(gain_to_db(left)) == pytest.approx(-3.0103, abs=1e-4)
    assert float(gain_to_db(right)) == pytest.approx(-3.0103, abs=1e-4)


def test_hard_panned_means_absent_from_the_other_side():
    assert [float(side) for side in constant_power_pan(1.0)] == [0.0, 1.0]
    assert [float(side) for side in constant_power_pan(-1.0)] == [1.0, 0.0]


@given(st.floats(0.0, 1.0), st.floats(0.0, 1.0))
def test_fader_law_rises_strictly(first, second):
    low, high = sorted((first, second))
    if high - low > 1e-9:
        assert fader_travel_to_db(low) < fader_travel_to_db(high)


@given(st.floats(-120.0, 6.0))
def test_fader_law_has_an_exact_inverse(level_db):
    """design: inverse exact to 0.01 dB; straight lines between marks give far better."""
    assert fader_travel_to_db(fader_db_to_travel(level_db)) == pytest.approx(level_db, abs=1e-6)


def test_fader_law_ends_at_off_and_plus_6_with_half_its_travel_above_minus_15():
    assert fader_travel_to_db(0.0) == -math.inf
    assert fader_travel_to_db(1.0) == 6.0
    assert fader_db_to_travel(6.0) - fader_db_to_travel(-15.0) == pytest.approx(0.5)


@pytest.mark.parametrize("travel", [-0.01, 1.01, math.nan])
def test_fader_law_refuses_a_place_outside_its_travel(travel):
    with pytest.raises(ValueError, match="0 to 1"):
        fader_travel_to_db(travel)


@pytest.mark.parametrize("shape", [(), (3,), (2, 3)])
def test_conversions_keep_the_shape_they_are_given(shape):
    level_db = np.full(shape, -6.0)
    assert db_to_gain(level_db).shape == shape
    assert gain_to_db(db_to_gain(level_db)).shape == shape


def test_predicted_level_of_a_line_behind_its_preamp():
    """Sum shown: -38 dBu + 34 dB gain - 0 dB pad - 22 dBu full scale = -26 dBFS."""
    assert predicted_dbfs(
        line_dbu=-38.0, gain_db=34.0, pad_db=0.0, full_scale_dbu=22.0
    ) == pytest.approx(-26.0)


def test_published_values_of_levels():
    """0 dBu is sqrt(0.6) V (IEC 60268-17, from memory): +4 dBu 1.22765 V; -10 dBV is 0.31623 V."""
    volts = math.sqrt(0.6) * db_to_gain(4.0)
    assert volts == pytest.approx(1.22765, abs=1e-5)
    assert gain_to_db(db_to_gain(-10.0) / math.sqrt(0.6)) == pytest.approx(-7.782, abs=1e-3)
    # powers of 2, 4 and 10 equal sources: 3.01, 6.02 and 10 dB (common practice)
    for many, more_db in ((2, 3.0103), (4, 6.0206), (10, 10.0)):
        assert 10 * math.log10(many) == pytest.approx(more_db, abs=1e-4)
        assert sides_to_level_db(math.sqrt(many), 0.0) == pytest.approx(more_db, abs=1e-4)
    # constant power at half right: 20 log10 of cos and sin of 3/8 pi (by hand)
    left, right = constant_power_pan(0.5)
    assert [gain_to_db(left), gain_to_db(right)] == pytest.approx([-8.343, -0.688], abs=1e-3)
