import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ombrel.core import (
    FeedbackLoop,
    SeveralPaths,
    State,
    UnknownAddress,
    blank_show,
    bus_of,
    flow_of,
    hear,
    made,
    who_hears_what,
    why,
)
from tests.core.walk import walked_table
from tests.desks import TINY
from tests.shows import fed_by_itself, moves, shows

CHANNELS = range(1, TINY.channels + 1)
BUSES = [bus_of(TINY, column) for column in range(TINY.mixes + 2)]


@given(shows())
def test_the_table_is_what_a_walk_of_the_graph_finds(show):
    level_db, state = who_hears_what(show)
    walked = walked_table(show)
    for row, channel in enumerate(CHANNELS):
        for column, bus in enumerate(BUSES):
            expected = walked.get((f"channel/{channel}", bus), -math.inf)
            assert level_db[row, column] == pytest.approx(expected, abs=1e-9)
            assert (state[row, column] == State.HEARD) == (expected > -math.inf)


@given(shows(), moves(most=8))
def test_following_a_change_gives_what_evaluating_the_whole_gives(show, asked):
    before = flow_of(show)
    kept = before.level_db.copy()
    after_show, change = made(show, asked)
    assume(not fed_by_itself(after_show))
    after, cells = before.after(change)
    whole = flow_of(after_show)
    np.testing.assert_allclose(after.level_db, whole.level_db, atol=1e-9)
    np.testing.assert_array_equal(after.state, whole.state)
    differs = (before.state != whole.state) | ~np.isclose(before.level_db, whole.level_db)
    assert set(map(tuple, np.argwhere(differs).tolist())) <= set(cells)
    np.testing.assert_array_equal(before.level_db, kept)


@given(shows(), st.sampled_from(CHANNELS), st.floats(-60.0, 6.0))
def test_a_tap_before_the_fader_never_changes_with_the_fader(show, channel, fader_db):
    before, _ = who_hears_what(show)
    moved, _ = made(show, {f"channel/{channel}/fader": fader_db})
    after, _ = who_hears_what(moved)
    by_detour = flow_of(show).through is not None  # then the fader may count on the way back
    for mix in range(1, TINY.mixes + 1):
        if show[f"channel/{channel}/send/mix/{mix}/tap"] != "after_fader" and not by_detour:
            assert after[channel - 1, mix - 1] == before[channel - 1, mix - 1]


@given(shows(), st.sampled_from([f"channel/{n}" for n in CHANNELS] + BUSES))
def test_muting_only_ever_lowers(show, strip):
    turned = any(show.on(f"channel/{n}/polarity") for n in CHANNELS)
    assume(not turned or flow_of(show).through is None)  # two paths that cancel: muting one raises
    before, _ = who_hears_what(show)
    after, _ = who_hears_what(made(show, {f"{strip}/mute": True})[0])
    assert (after <= before + 1e-9).all()


@given(shows(), st.sampled_from(CHANNELS), st.sampled_from(BUSES))
def test_why_ends_at_the_level_of_the_table_and_its_steps_add_up_to_it(show, channel, bus):
    level_db, state = who_hears_what(show)
    answer = why(show, f"channel/{channel}", bus)
    expected = level_db[channel - 1, BUSES.index(bus)]
    assert answer.level_db == pytest.approx(expected, abs=1e-9)
    assert answer.state == state[channel - 1, BUSES.index(bus)]
    if answer.state is State.HEARD:
        if not any(step.kind == "detour" for step in answer.steps):
            own = [step for step in answer.steps if step.in_path]
            gains = [step.gain_db for step in own if step.gain_db is not None]
            assert sum(gains) == pytest.approx(expected, abs=1e-6)
        assert answer.reasons == ()
        assert answer.rank == 1 + int((level_db[:, BUSES.index(bus)] > expected).sum())
    else:
        assert answer.reasons


@given(shows(), st.sampled_from(CHANNELS), st.sampled_from(BUSES))
def test_taking_every_remedy_opens_the_way(show, channel, bus):
    answer = why(show, f"channel/{channel}", bus)
    if not answer.reasons or any(reason.remedy is None for reason in answer.reasons):
        return
    for reason in answer.reasons:
        show, _ = made(show, reason.remedy.moves)
    assert why(show, f"channel/{channel}", bus).state is State.HEARD


def one_channel(**extra):
    """Channel 1 fed, mix 1 mono and patched, house patched."""
    asked = {
        "channel/1/source": "input/local/1",
        "mix/1/format": "mono",
        "output/local/1/source": "mix/1",
        "output/local/7/source": "house/left",
        "output/local/8/source": "house/right",
    }
    return made(blank_show(TINY), {**asked, **extra})[0]


@pytest.mark.parametrize("fader_db", [1.0, -2.9])
def test_a_send_at_0_after_the_fader_arrives_at_the_faders_level(fader_db):
    """Common practice: fader +1 arrives at +1; fader -2.9 at -2.9."""
    send = "channel/1/send/mix/1"
    show = one_channel(
        **{"channel/1/fader": fader_db, f"{send}/level": 0.0, f"{send}/tap": "after_fader"}
    )
    assert who_hears_what(show)[0][0, 0] == pytest.approx(fader_db)


def test_every_cause_of_silence_is_reported_not_the_first():
    show = one_channel(
        **{"channel/1/mute": True, "house/mute": True, "output/local/7/source": None,
           "output/local/8/source": None}
    )  # fmt: skip
    answer = why(show, "channel/1", "house")
    assert [reason.code for reason in answer.reasons] == ["muted", "down", "muted", "no_output"]
    assert answer.state is State.MUTED


def test_a_stereo_mix_with_only_its_left_patched_loses_what_is_panned_right():
    send = "channel/1/send/mix/1"
    show = one_channel(
        **{"mix/1/format": "stereo", "output/local/1/source": "mix/1/left",
           f"{send}/level": 0.0, f"{send}/pan": 1.0}
    )  # fmt: skip
    assert who_hears_what(show)[1][0, 0] == State.NO_OUTPUT
    assert "right side" in why(show, "channel/1", "mix/1").reasons[0].says


def test_a_stereo_mix_patched_as_a_whole_is_heard_as_half_the_sum():
    """Stereo into mono is (L+R)/2: a centred source, 2 * 0.7071 / 2, arrives at -3.01 dB."""
    show = one_channel(**{"mix/1/format": "stereo", "channel/1/send/mix/1/level": 0.0})
    assert who_hears_what(show)[0][0, 0] == pytest.approx(-3.0103, abs=1e-4)


@pytest.mark.parametrize(
    ("source", "listener"),
    [("channel/5", "house"), ("mix/1", "house"), ("channel/1", "mix/4"), ("channel/x", "mono")],
)
def test_why_refuses_who_is_not_on_the_desk(source, listener):
    with pytest.raises(UnknownAddress):
        why(blank_show(TINY), source, listener)


def bus_fed(**extra):
    """Channel 1 into mono mix 1 at 0 dB; mix 1 feeds channel 2, which is in the house at -6 dB."""
    return one_channel(
        **{"channel/1/send/mix/1/level": 0.0, "channel/1/house/on": False,
           "channel/2/source": "mix/1", "channel/2/fader": -6.0, "mix/1/fader": -4.0, **extra}
    )  # fmt: skip


def test_a_source_arrives_by_way_of_a_channel_that_its_bus_feeds():
    """Sum shown: send 0, mix -4, fader -6; centre of the house keeps the power: -10 dB."""
    show = bus_fed()
    level_db, state = who_hears_what(show)
    assert level_db[0, 3] == pytest.approx(-10.0)
    assert state[0, 3] == State.HEARD
    answer = why(show, "channel/1", "house")
    assert answer.level_db == pytest.approx(-10.0)
    assert answer.reasons == ()
    assert answer.steps[-1].title == "By way of Channel 2"
    with pytest.raises(SeveralPaths):
        hear(show, flow_of(show), [("channel/1", "house")], "-6")


def test_two_paths_of_one_source_add_with_their_signs():
    """Both at 0 dB into the house: +6.02 dB; with one turned over they cancel to nothing."""
    both = {"channel/1/house/on": True, "channel/1/fader": 0.0, "mix/1/fader": 0.0,
            "channel/2/fader": 0.0}  # fmt: skip
    assert who_hears_what(bus_fed(**both))[0][0, 3] == pytest.approx(6.0206, abs=1e-4)
    level_db, state = who_hears_what(bus_fed(**both, **{"channel/2/polarity": True}))
    assert level_db[0, 3] < -200.0 or state[0, 3] == State.DOWN


def test_a_loop_below_0_db_is_solved_and_one_at_0_db_is_refused_by_name():
    """Once around the loop is -6 dB: 1 / (1 - 10^(-6/20)) = 2.0047, so +6.04 dB is added."""
    loop = {"channel/2/send/mix/1/level": -6.0, "channel/2/fader": -6.0, "mix/1/fader": 0.0}
    level_db, _ = who_hears_what(bus_fed(**loop))
    assert level_db[0, 3] == pytest.approx(-6.0 + 6.0405, abs=1e-3)
    with pytest.raises(FeedbackLoop) as caught:
        who_hears_what(bus_fed(**{**loop, "channel/2/send/mix/1/level": 0.5}))
    assert caught.value.nodes == ("channel/2", "mix/1", "channel/2")
    assert caught.value.gain_db == pytest.approx(0.5)


def test_an_empty_show_is_silent_everywhere_and_says_so():
    level_db, state = who_hears_what(blank_show(TINY))
    assert np.isneginf(level_db).all()
    assert not (state == State.HEARD).any()
