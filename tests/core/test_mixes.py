import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    NothingLeft,
    State,
    UnknownAddress,
    UnreadableText,
    Value,
    blank_show,
    duplicate_bus,
    fill_mix,
    flow_of,
    listener_name,
    made,
    make_buses,
    make_effect,
    make_mixes,
    move_bus,
    remove_bus,
)
from ombrel.core.flow import listeners, sources
from tests.desks import TOURING

BLANK = blank_show(TOURING)
CHANNELS = list(range(1, 25))


def six_ears():
    fed, _ = made(BLANK, {f"channel/{n}/source": f"input/a/{n}" for n in CHANNELS})
    names = [f"Ears {n}" for n in range(1, 7)]
    return made(fed, make_mixes(fed, names, stereo=True, channels=CHANNELS, level_db=-10.0))


def test_six_stereo_mixes_of_24_channels_are_made_in_one_edit():
    show, change = six_ears()
    flow = flow_of(show)
    heard = [flow.level(f"channel/{c}", f"mix/{m}") for c in CHANNELS for m in range(1, 7)]
    assert heard == pytest.approx([-10.0] * 144)
    assert show["output/local/11/source"] == "mix/6/left"
    taps = {show[f"channel/{c}/send/mix/{m}/tap"] for c in CHANNELS for m in range(1, 7)}
    assert taps == {"before_fader_after_mute"}
    assert made(show, change.old)[0]["mix/1/format"] == "unused"


def test_a_mix_given_up_leaves_nothing_behind():
    fed, _ = made(BLANK, {"channel/1/source": "input/a/1"})
    asked = make_mixes(fed, ["Wedge"], stereo=False, serves="wedge", channels=[1], level_db=0.0)
    show, _ = made(fed, asked)
    assert made(show, remove_bus(show, "mix/1"))[0] == fed


def test_more_mixes_than_the_desk_has_and_mixes_without_a_name_are_refused():
    with pytest.raises(NothingLeft, match="25 mixes wanted, 22 left"):
        make_mixes(BLANK, [f"m{n}" for n in range(25)], stereo=False)
    with pytest.raises(UnreadableText):
        make_mixes(BLANK, ["a", " "], stereo=False)


def test_groups_and_matrices_are_made_named_and_patched_alike():
    asked = make_buses(BLANK, "matrix", ["Foyer", "Stream"], stereo=True, patch=True)
    show, _ = made(BLANK, asked)
    assert show.in_use("matrix") == ["matrix/1", "matrix/2"]
    assert show["output/local/4/source"] == "matrix/2/right"
    group, _ = made(BLANK, make_buses(BLANK, "group", ["Band"], stereo=False))
    assert group["group/1/format"] == "mono"
    with pytest.raises(NothingLeft, match="13 groups wanted, 12 left"):
        make_buses(BLANK, "group", ["g"] * 13, stereo=False)


def test_a_shared_effect_is_made_in_one_edit_and_a_channel_joins_it_by_one_send():
    show, _ = made(BLANK, make_effect(BLANK, "Hall", engine=2))
    fed: dict[str, Value] = {
        "channel/3/source": "input/a/1",
        "channel/3/fader": -5.0,
        "channel/3/send/mix/1/level": -8.0,
    }
    joined, _ = made(show, fed)
    flow = flow_of(joined)
    assert flow.level("channel/3", "mix/1") == pytest.approx(-13.0)  # it follows the fader
    assert flow.state_of("return/1", "house") != State.NO_SOURCE
    assert joined["return/1/name"] == joined["engine/2/name"] == "Hall"
    assert made(joined, remove_bus(joined, "mix/1"))[0]["engine/2/source"] is None


def heard_by_name(show):
    """Level of every source at every listener, by the listener's name."""
    flow = flow_of(show)
    return {
        (source, listener_name(show, listener)): flow.level(source, listener)
        for source in sources(show)
        for listener in listeners(show)
    }


@given(st.permutations([1, 2, 3, 4]))
@settings(max_examples=12)
def test_a_mix_that_moves_takes_everything_along(order):
    names = ["One", "Two", "Three", "Four"]
    fed, _ = made(BLANK, {f"channel/{n}/source": f"input/a/{n}" for n in range(1, 5)})
    show, _ = made(fed, make_mixes(fed, names, stereo=True))
    sends: dict[str, Value] = {
        f"channel/{n}/send/mix/{m}/level": -float(n * m) for n in range(1, 5) for m in range(1, 5)
    }
    feeds: dict[str, Value] = {
        "channel/5/source": "mix/2/left",
        "mix/3/send/matrix/1/level": -2.0,
        "matrix/1/format": "mono",
        "mix/4/fader": -7.0,
    }
    show, _ = made(show, {**sends, **feeds})
    before = heard_by_name(show)
    for number in order:
        before_one = f"mix/{order[0]}" if number != order[0] else None
        show, _ = made(show, move_bus(show, f"mix/{number}", before_one))
    assert heard_by_name(show) == before
    assert show.text(show.text("channel/5/source").replace("/left", "/name")) == "Two"


def test_a_mix_is_put_ahead_of_another():
    fed, _ = made(BLANK, make_mixes(BLANK, ["A", "B", "C"], stereo=False))
    show, _ = made(fed, move_bus(fed, "mix/3", "mix/1"))
    assert [show.text(f"mix/{n}/name") for n in (1, 2, 3)] == ["C", "A", "B"]


def test_a_mix_is_duplicated_whole():
    show, _ = six_ears()
    copied, _ = made(show, duplicate_bus(show, "mix/2"))
    before, after = flow_of(show), flow_of(copied)
    for channel in CHANNELS:
        source = f"channel/{channel}"
        assert after.level(source, "mix/7") == pytest.approx(before.level(source, "mix/2"))
    assert copied["mix/7/name"] == "Ears 2 copy"
    assert copied["output/local/13/source"] == "mix/7/left"


def test_a_mix_is_filled_from_the_houses_true_levels_and_from_another_mix():
    """From the house: the fader, and what a group takes away on the only way there."""
    show, _ = six_ears()
    house: dict[str, Value] = {
        "channel/1/fader": -5.0,
        "channel/2/fader": -2.0,
        "channel/2/house/on": False,
        "channel/2/group/1/on": True,
        "group/1/format": "mono",
        "group/1/fader": -3.0,
        "channel/1/trim": 6.0,
        "channel/1/pan": -0.5,
    }
    show, _ = made(show, house)
    filled, _ = made(show, fill_mix(show, flow_of(show), "mix/1", "house", offset_db=-1.0))
    levels = [filled[f"channel/{n}/send/mix/1/level"] for n in (1, 2, 3)]
    assert levels == pytest.approx([-6.0, -6.0, -math.inf])
    assert filled["channel/1/send/mix/1/pan"] == -0.5
    copied, _ = made(filled, fill_mix(filled, flow_of(filled), "mix/2", "mix/1", offset_db=+20.0))
    levels = [copied[f"channel/{n}/send/mix/2/level"] for n in (1, 3)]
    assert levels == [6.0, -math.inf]  # it ends where a fader ends, and off stays off


def test_a_mix_that_is_filled_leaves_alone_what_is_named():
    show, _ = six_ears()
    show, _ = made(show, {"return/1/source": "input/a/17", "return/1/send/mix/1/level": -9.0,
                          "channel/1/send/mix/1/level": -33.0})  # fmt: skip
    moves = fill_mix(show, flow_of(show), "mix/1", "house", but=["return/1", "channel/1"])
    after, _ = made(show, moves)
    assert after["return/1/send/mix/1/level"] == -9.0
    assert after["channel/1/send/mix/1/level"] == -33.0
    assert len({a.split("/send/")[0] for a in moves}) == 48 + show.desk.returns - 2


@pytest.mark.parametrize("bus", ["house", "channel/1", "mix/99"])
def test_only_mixes_groups_and_matrices_are_given_up_copied_or_moved(bus):
    for action in (remove_bus, duplicate_bus):
        with pytest.raises(UnknownAddress):
            action(BLANK, bus)
    with pytest.raises(UnknownAddress):
        move_bus(BLANK, bus, None)


def test_a_mix_is_for_what_its_name_says_and_a_wedge_is_mono_on_one_output():
    names = ["Ears Ada", "Wedge ring", "Side fill", "Stream"]
    show, _ = made(BLANK, make_mixes(BLANK, names, stereo=True))
    found = [(show[f"mix/{n}/serves"], show[f"mix/{n}/format"]) for n in (1, 2, 3, 4)]
    assert found == [("ears", "stereo"), ("wedge", "mono"), ("wedge", "mono"), ("feed", "stereo")]
    carried = [show[f"{one}/source"] for one in show.outputs() if show[f"{one}/source"]]
    assert sorted(map(str, carried)) == [
        "mix/1/left", "mix/1/right", "mix/2", "mix/3", "mix/4/left", "mix/4/right",
    ]  # fmt: skip
    kept, _ = made(BLANK, make_mixes(BLANK, ["Wedge ring"], stereo=True, serves="ears"))
    assert (kept["mix/1/serves"], kept["mix/1/format"]) == ("ears", "stereo")
