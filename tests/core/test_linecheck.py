import math

import pytest
from hypothesis import given, settings

from ombrel.core import (
    LineDraft,
    add_lines,
    arrival_of,
    blank_show,
    channel_meters,
    made,
    patch_lines,
    swap_lines,
)
from tests.desks import TINY
from tests.shows import shows

A1, A2, A3 = (f"input/a/{n}" for n in (1, 2, 3))


@pytest.fixture(scope="module")
def stage():
    drafts = [LineDraft(name="Fiddle", level_dbu=-35.0), LineDraft(name="Kora", level_dbu=-30.0)]
    show, _ = made(blank_show(TINY), add_lines(blank_show(TINY), drafts))
    show, _ = made(show, patch_lines(show, show.lines()))
    return made(show, {f"{A1}/gain": 39.0, f"{A2}/gain": 34.0})[0]


def test_a_line_that_arrives_where_it_should_is_as_expected(stage):
    """Sum shown: -35 dBu + 39 dB - 22 dBu at full scale = -18 dBFS."""
    arrival = arrival_of(stage, 1, {A1: -35.0})
    assert arrival.dbfs == arrival.expected_dbfs == pytest.approx(-18.0)
    assert arrival.good
    assert channel_meters(stage, {A1: -35.0}) == {1: pytest.approx(-18.0)}


@pytest.mark.parametrize(
    ("levels_dbu", "suspect", "says"),
    [
        ({}, None, "Nothing arrives at A 1"),
        ({A1: -80.0}, None, "Nothing arrives"),
        ({A2: -35.0}, 2, "arrives at A 2, where Kora should be. Swapped cables?"),
        ({A3: -35.0}, None, "it arrives at A 3"),
        ({A1: -50.0}, None, "15 dB quieter than expected"),
        ({A1: -20.0}, None, "15 dB louder than expected"),
        ({A1: 0.0}, None, "past full scale"),
    ],
)
def test_what_is_wrong_is_said(stage, levels_dbu, suspect, says):
    arrival = arrival_of(stage, 1, levels_dbu)
    assert (arrival.good, arrival.suspect) == (False, suspect)
    assert says in arrival.says


def test_what_another_line_explains_is_not_put_down_to_this_one(stage):
    """Two people check at once: what the other feeds is no sign of a swapped cable here."""
    both = {A1: -35.0, A2: -30.0}
    assert arrival_of(stage, 1, {A2: -30.0}, fed={2}).suspect is None
    assert arrival_of(stage, 1, both, fed={1, 2}).good
    assert arrival_of(stage, 1, {A2: -30.0}, fed={1, 2}).suspect is None
    assert arrival_of(stage, 1, {A2: -35.0}, fed={1}).suspect == 2


def test_a_line_without_socket_says_so(stage):
    show, _ = made(stage, {"line/1/socket": None})
    arrival = arrival_of(show, 1, {})
    assert (arrival.dbfs, arrival.expected_dbfs) == (-math.inf, None)
    assert "no socket yet" in arrival.says


def test_swapped_cables_are_swapped_in_the_patch_and_each_channel_hears_its_line_again(stage):
    fixed, change = made(stage, swap_lines(stage, 1, 2))
    assert (fixed["line/1/socket"], fixed["line/2/socket"]) == (A2, A1)
    assert (fixed["channel/1/source"], fixed["channel/2/source"]) == (A2, A1)
    assert (fixed[f"{A2}/gain"], fixed[f"{A1}/gain"]) == (39.0, 34.0)
    assert arrival_of(fixed, 1, {A2: -35.0}).good
    assert made(fixed, change.old)[0] == stage


@settings(max_examples=50)
@given(shows())
def test_swapping_twice_is_the_identity(show):
    show, _ = made(
        show,
        {"line/1/place": 1.0, "line/2/place": 2.0, "line/3/place": 0.0, "line/1/socket": A1,
         "line/2/socket": A2, "line/1/socket_right": None, "line/2/socket_right": None},
    )  # fmt: skip
    once, _ = made(show, swap_lines(show, 1, 2))
    assert made(once, swap_lines(once, 1, 2))[0] == show


def test_a_line_that_left_the_list_is_said_to_have():
    for line in (7, 9_999):
        arrival = arrival_of(blank_show(TINY), line, {"input/a/1": -20.0}, fed=frozenset({line}))
        assert (arrival.good, arrival.dbfs) == (False, -math.inf)
        assert "no longer in the list" in arrival.says
