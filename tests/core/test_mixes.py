import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ombrel.core import (
    NothingLeft,
    OutOfReach,
    State,
    UnreadableText,
    blank_show,
    flow_of,
    hear,
    made,
    make_mixes,
    remove_mix,
)
from tests.desks import TINY, TOURING
from tests.shows import shows

BLANK = blank_show(TOURING)
CHANNELS = list(range(1, 25))


def six_ears():
    fed, _ = made(BLANK, {f"channel/{n}/source": f"input/a/{n}" for n in CHANNELS})
    names = [f"Ears {n}" for n in range(1, 7)]
    return made(fed, make_mixes(fed, names, stereo=True, channels=CHANNELS, level_db=-10.0))


def test_six_stereo_mixes_of_24_channels_are_made_in_one_edit():
    show, change = six_ears()
    flow = flow_of(show)
    assert (flow.state[:24, :6] == State.HEARD).all()
    assert flow.level_db[:24, :6] == pytest.approx(-10.0)
    assert show["output/local/11/source"] == "mix/6/left"
    before_fader = {show[f"channel/{c}/send/mix/{m}/tap"] for c in CHANNELS for m in range(1, 7)}
    assert before_fader == {"before_fader"}
    assert made(show, change.old)[0]["mix/1/format"] == "unused"


def test_a_mix_given_up_leaves_nothing_behind():
    fed, _ = made(BLANK, {"channel/1/source": "input/a/1"})
    asked = make_mixes(fed, ["Wedge"], stereo=False, serves="wedge", channels=[1], level_db=0.0)
    show, _ = made(fed, asked)
    assert made(show, remove_mix(show, 1))[0] == fed


def test_more_mixes_than_the_desk_has_and_mixes_without_a_name_are_refused():
    with pytest.raises(NothingLeft, match="25 mixes wanted, 24 left"):
        make_mixes(BLANK, [f"m{n}" for n in range(25)], stereo=False)
    with pytest.raises(UnreadableText):
        make_mixes(BLANK, ["a", " "], stereo=False)


@given(
    shows(),
    st.integers(1, TINY.channels),
    st.sampled_from(["house", "mono", "mix/1", "mix/2", "mix/3"]),
    st.floats(-80.0, 0.0).map(lambda x: round(x, 1)),
)
def test_what_is_typed_into_a_heard_cell_is_what_is_then_read(show, channel, listener, wanted_db):
    source = f"channel/{channel}"
    flow = flow_of(show)
    column = {"house": 3, "mono": 4}.get(listener, int(listener[-1]) - 1 if "/" in listener else 0)
    assume(flow.state[channel - 1, column] == State.HEARD)
    assume(not (flow.through and flow.through.detours(channel - 1, column)))
    control = f"{source}/{'fader' if column > 2 else f'send/{listener}/level'}"
    needed_db = show.number(control) + wanted_db - float(flow.level_db[channel - 1, column])
    if needed_db > 6.0 + 1e-6:
        with pytest.raises(OutOfReach) as caught:
            hear(show, flow, [(source, listener)], f"{wanted_db}")
        assert caught.value.needed_db == pytest.approx(needed_db, abs=1e-5)
        return
    assume(-120.0 < needed_db <= 6.0)  # what the control itself cannot take, made() refuses
    asked = hear(show, flow, [(source, listener)], f"{wanted_db}")
    after, _ = made(show, asked)
    assert flow_of(after).level_db[channel - 1, column] == pytest.approx(wanted_db, abs=1e-5)


def test_several_cells_move_together_by_relative_steps_and_off():
    show, _ = six_ears()
    cells = [("channel/1", "mix/1"), ("channel/2", "mix/2")]
    louder, _ = made(show, hear(show, flow_of(show), cells, "+3"))
    assert louder["channel/2/send/mix/2/level"] == pytest.approx(-7.0)
    off, change = made(louder, hear(louder, flow_of(louder), cells, "off"))
    assert set(change.new.values()) == {-math.inf}
    assert hear(off, flow_of(off), cells, "+3") == {}  # a relative move never opens what is off


def test_off_in_the_house_takes_the_channel_out_of_the_house_and_leaves_its_fader():
    show, _ = made(BLANK, {"channel/1/source": "input/a/1", "channel/1/fader": -5.0})
    assert hear(show, flow_of(show), [("channel/1", "house")], "off") == {
        "channel/1/house/on": False
    }
