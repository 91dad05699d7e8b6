"""What the flow once told wrongly, each with the least that shows it. Levels in dB."""

import math

import pytest

from ombrel.core import (
    EditRefused,
    FeedbackLoop,
    State,
    Value,
    WrongValue,
    edited,
    flow_of,
    made,
    show_of,
    why,
)
from ombrel.core.flow import sources
from tests.desks import TOURING

ONE: dict[str, Value] = {"channel/1/source": "input/local/1"}
MONO_MIX: dict[str, Value] = {"mix/1/format": "mono", "output/local/1/source": "mix/1"}


def built(**values):
    return show_of(TOURING, values)


def codes(show, source, listener):
    return [(reason.code, reason.address) for reason in why(show, source, listener).reasons]


def test_a_remedy_that_would_close_a_loop_is_not_offered_and_says_why():
    show = built(**{
        "channel/4/source": "mix/3", "mix/3/format": "mono", "channel/4/fader": 0.0,
        "channel/4/send/mix/3/level": 0.0, "channel/4/send/mix/3/on": False,
        "output/local/1/source": "mix/3", **ONE, "channel/1/send/mix/3/level": 0.0,
    })  # fmt: skip
    (reason,) = why(show, "channel/4", "mix/3").reasons
    assert (reason.code, reason.address) == ("unrouted", "channel/4/send/mix/3/on")
    assert reason.remedy is None
    assert "close a loop" in reason.says
    assert why(show, "channel/4", "mix/3").opening is None


def test_an_edit_to_an_output_that_carries_no_bus_is_not_lost():
    show = built(**ONE, **{"mix/1/format": "mono", "channel/1/send/mix/1/level": 0.0})
    flow = flow_of(show)
    for asked in ({"output/local/1/trim": -10.0}, {"output/local/1/source": "mix/1"}):
        after = edited(show, flow, asked)
        show, flow = after.show, after.flow
    assert flow.level("channel/1", "mix/1") == pytest.approx(-10.0)


def test_a_source_without_a_path_is_silent_beside_a_solved_loop():
    show = built(**ONE, **{
        "mix/1/format": "mono", "channel/1/send/mix/1/level": 0.0, "channel/2/source": "mix/1",
        "channel/2/send/mix/1/level": -3.0, "channel/2/fader": 0.0, "channel/3/source": "mix/2",
        "mix/2/format": "mono", "channel/3/send/mix/2/level": -3.0, "channel/3/fader": 0.0,
        "output/local/1/source": "mix/2", "channel/4/source": "input/local/4",
        "channel/4/send/mix/2/level": 0.0,
    })  # fmt: skip
    flow = flow_of(show)
    assert flow.level("channel/1", "mix/2") == -math.inf
    assert flow.state_of("channel/1", "mix/2") is State.UNROUTED
    assert flow.state_of("channel/4", "mix/2") is State.HEARD


def test_a_side_without_its_own_socket_is_served_by_the_whole():
    show = built(**ONE, **{
        "mix/1/format": "stereo", "channel/1/send/mix/1/level": 0.0,
        "channel/1/send/mix/1/pan": 1.0, "output/local/1/source": "mix/1/left",
        "output/local/2/source": "mix/1",
    })  # fmt: skip
    assert flow_of(show).level("channel/1", "mix/1") == pytest.approx(-6.0206, abs=1e-4)


@pytest.mark.parametrize(
    ("values", "words"),
    [
        ({"mix/1/format": "unused"}, "not in use"),
        ({"mix/1/mute": True}, "is muted"),
        ({"mix/1/fader": -math.inf}, "fader off"),
        ({"channel/1/send/mix/1/level": -math.inf}, "nothing arrives"),
    ],
    ids=["unused", "muted", "off", "empty"],
)
def test_a_channel_whose_bus_brings_nothing_has_no_source_for_the_buss_reason(values, words):
    fed: dict[str, Value] = {
        **ONE,
        "mix/1/format": "mono",
        "channel/1/send/mix/1/level": 0.0,
        "channel/2/source": "mix/1",
        "channel/2/fader": 0.0,
        "output/local/1/source": "house/left",
        "output/local/2/source": "house/right",
    }
    assert flow_of(built(**fed)).state_of("channel/2", "house") is State.HEARD
    show = built(**{**fed, **values})
    assert flow_of(show).state_of("channel/2", "house") is State.NO_SOURCE
    (reason,) = why(show, "channel/2", "house").reasons
    assert words in reason.says


def test_a_refused_loop_is_named_as_it_closes_with_its_own_gain():
    values: dict[str, Value] = {
        "channel/1/source": "mix/1",
        "channel/2/source": "mix/2",
        "mix/1/format": "mono",
        "mix/2/format": "mono",
        "channel/1/send/mix/2/level": 6.0,
        "channel/1/trim": 20.0,
        "channel/2/send/mix/2/level": 0.0,
    }
    with pytest.raises(FeedbackLoop) as caught:
        built(**values)
    assert caught.value.nodes == ("channel/2", "mix/2", "channel/2")
    assert caught.value.gain_db == pytest.approx(0.0)
    two = {
        "channel/1/source": "mix/1", "channel/2/source": "mix/2", "mix/1/format": "mono",
        "mix/2/format": "mono", "channel/1/send/mix/2/level": 3.0,
        "channel/2/send/mix/1/level": 3.0,
    }  # fmt: skip
    with pytest.raises(FeedbackLoop) as caught:
        built(**two)
    assert caught.value.gain_db == pytest.approx(6.0)  # two stages of +3, not their mean


def test_outputs_that_tap_at_different_places_each_give_their_reasons_and_steps():
    show = built(**ONE, **{
        "mix/1/format": "stereo", "mix/1/fader": -math.inf, "channel/1/send/mix/1/level": 0.0,
        "channel/1/send/mix/1/pan": -1.0, "output/local/1/source": "mix/1/left",
        "output/local/2/source": "mix/1/right", "output/local/2/tap": "before_fader",
    })  # fmt: skip
    assert codes(show, "channel/1", "mix/1") == [("down", "mix/1/fader")]
    centred, _ = made(show, {"channel/1/send/mix/1/pan": 0.0})
    answer = why(centred, "channel/1", "mix/1")
    assert answer.level_db == pytest.approx(-3.0103, abs=1e-4)
    (way,) = answer.ways
    assert sum(step.gain_db for step in way.steps if step.gain_db is not None) == pytest.approx(
        answer.level_db
    )


def test_every_cause_is_told_and_all_remedies_together_open_the_cell():
    show = built(**ONE, **{
        "channel/1/mute": True, "channel/1/fader": 0.0, "mix/1/format": "stereo",
        "channel/1/send/mix/1/level": 0.0, "channel/1/send/mix/1/pan": 1.0,
        "output/local/1/source": "mix/1/left",
    })  # fmt: skip
    assert codes(show, "channel/1", "mix/1") == [
        ("muted", "channel/1/mute"),
        ("no_output", "mix/1/right"),
    ]
    opening = why(show, "channel/1", "mix/1").opening
    after, _ = made(show, opening.moves)
    assert flow_of(after).state_of("channel/1", "mix/1") is State.HEARD
    # the side that was carried is carried once, as before
    carried = [after[socket + "/source"] for socket in after.outputs()]
    assert carried.count("mix/1/left") == carried.count("mix/1/right") == 1


def test_paths_that_cancel_say_so_and_name_the_polarity():
    """One way before the polarity and one behind it, both at 0 dB: their sum is nothing."""
    show = built(**ONE, **MONO_MIX, **{
        "channel/1/polarity": True, "channel/1/fader": 0.0, "channel/1/send/mix/1/level": 0.0,
        "channel/1/send/mix/1/tap": "input", "channel/1/group/1/on": True,
        "group/1/format": "mono", "group/1/send/mix/1/level": 0.0,
    })  # fmt: skip
    assert flow_of(show).state_of("channel/1", "mix/1") is State.CANCELLED
    assert codes(show, "channel/1", "mix/1") == [("turned", "channel/1/polarity")]
    assert "take one another away" in why(show, "channel/1", "mix/1").says
    turned_back, _ = made(show, why(show, "channel/1", "mix/1").reasons[0].remedy.moves)
    assert flow_of(turned_back).level("channel/1", "mix/1") == pytest.approx(6.0206, abs=1e-4)


def test_a_channel_with_only_a_spare_has_a_row():
    show = built(**{"channel/3/spare": "input/local/3", "channel/3/on_spare": True})
    assert sources(show) == ["channel/3"]


def test_a_bus_has_no_tap_before_its_fader_strip():
    for tap in ("input", "before_eq"):
        with pytest.raises(WrongValue, match="output/local/1/tap"):
            built(**MONO_MIX, **{"output/local/1/tap": tap})
    built(**{"output/local/1/source": "channel/1/direct", "output/local/1/tap": "input"})


def test_a_source_that_comes_only_by_way_of_a_muted_bus_is_muted_not_unsent():
    show = built(**ONE, **{
        "mix/1/format": "mono", "mix/1/mute": True, "channel/1/send/mix/1/level": 0.0,
        "channel/1/house/on": False, "channel/2/source": "mix/1", "channel/2/fader": 0.0,
        "output/local/1/source": "house/left", "output/local/2/source": "house/right",
    })  # fmt: skip
    assert flow_of(show).state_of("channel/1", "house") is State.MUTED
    assert codes(show, "channel/1", "house") == [("muted", "mix/1/mute")]


def test_a_preamp_keeps_to_its_own_desks_range():
    with pytest.raises(EditRefused, match=r"0 to 62"):
        built(**{"input/a/1/gain": 63.0})


def test_a_cause_that_closes_two_strips_of_a_way_is_one_cause():
    """By group and house, both muted by one DCA; or by a mix that is down: one cause either way."""
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1", "channel/1/fader": 0.0, "channel/1/house/on": False,
        "channel/1/group/1/on": True, "group/1/format": "mono", "group/1/house/on": True,
        "group/1/fader": 0.0, "house/send/matrix/1/level": 0.0, "mix/1/format": "mono",
        "channel/1/send/mix/1/level": 0.0, "mix/1/fader": -math.inf,
        "mix/1/send/matrix/1/level": 0.0, "mix/1/send/matrix/1/tap": "after_fader",
        "matrix/1/format": "mono", "output/local/1/source": "matrix/1",
        "dca/1/mute": True, "group/1/dca/1/on": True, "house/dca/1/on": True,
    }  # fmt: skip
    show = built(**values)
    assert flow_of(show).state_of("channel/1", "matrix/1") is State.MUTED
