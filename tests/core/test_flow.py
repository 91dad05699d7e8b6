"""Levels and states, judged by the independent walk, by following, and by known sums."""

import collections
import itertools
import math
import random
from functools import partial

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from ombrel.core import (
    ConsoleError,
    EditRefused,
    EngineTaken,
    FeedbackLoop,
    NotAnEffectMix,
    State,
    Value,
    blank_show,
    edited,
    findings,
    flow_of,
    made,
    preview,
    show_of,
    table_heads,
    why,
)
from ombrel.core.edit.edits import check_edit
from ombrel.core.flow import loudest_loop
from tests.core.walk import Referee
from tests.desks import TINY, TOURING
from tests.shows import (
    SEEDS,
    SHOW_SEEDS,
    edit_of_seed,
    often,
    raw_edit_of_seed,
    show_of_seed,
    shows,
    tangled_of_seed,
)


def rows_and_columns(flow):
    """Addresses of every source and every listener that there can be."""
    layout = flow.layout
    columns = [layout.listener(column) for column in range(layout.buses)]
    columns += [layout.outputs[socket] for socket in flow.sockets]
    return [layout.source(row) for row in range(layout.rows)], columns


def cells(flow):
    sources, listeners = rows_and_columns(flow)
    return [(source, listener) for source in sources for listener in listeners]


def whole(flow):
    """Levels and states of every cell; levels as dB with silence far below everything."""
    layout = flow.layout
    levels, states = flow.part(list(range(layout.rows)), list(range(layout.columns)))
    return np.maximum(levels, -1e6), states


# in these some cause stands twice on the way that names a cell, and sums alone would name another
TWICE = (84, 214, 428, 484, 492, 696, 734, 744, 748, 800, 806, 1132, 1152)


@pytest.mark.parametrize("first", range(0, 40, 10))
def test_levels_and_states_are_what_the_walk_finds(first):
    """On random shows over all strips, with loops, spares, mixed taps, one-sided sockets; and on

    tangled ones, in which buses feed channels and one thing closes many strips.
    """
    told = collections.Counter()
    tangled = (*range(first, first + often(10)), *TWICE[first // 10 :: 4])
    shows = [show_of_seed(seed) for seed in range(first, first + often(10))]
    for seed, show in enumerate(shows + [tangled_of_seed(seed) for seed in tangled]):
        flow, referee = flow_of(show), Referee(show)
        for source, listener in cells(flow):
            state, level_db, _ = referee.answer(source, listener)
            told[state] += 1
            assert flow.state_of(source, listener).name.lower() == state, (seed, source, listener)
            assert flow.level(source, listener) == pytest.approx(level_db, abs=1e-6)
    assert told["heard"] > often(50)
    assert sum(told.values()) - told["heard"] - told["unrouted"] > sum(told.values()) / 4
    assert all(told[state] for state in ("muted", "no_source", "no_output", "down", "cancelled"))


def raw_values(seed):
    """A show whose loops nobody has looked at yet: sends up, channels fed by buses."""
    draw = random.Random(seed)
    values = dict(show_of_seed(seed).values)
    for channel in (1, 2, 3, 4):
        values[f"channel/{channel}/source"] = draw.choice(
            ["mix/1", "mix/2/left", "group/1", "house/right", "matrix/1", "input/local/1"]
        )
        values[f"channel/{channel}/fader"] = draw.choice([0.0, -3.0, -9.0])
    # pairs would make the values of two channels one
    return {a: value for a, value in values.items() if not a.endswith(("/spare", "/linked"))}


def test_a_loop_is_refused_from_0_db_on_and_named_by_what_together_closes_it():
    """Against the spectral radius, and signals that are sent around, of a networkx graph."""
    refused = allowed = several = 0
    for seed in range(often(150)):
        values = raw_values(seed)
        referee = Referee(blank_show(TINY).with_values(values))
        if referee.radius() < 1.0 - 1e-9:
            allowed += 1
            show_of(TINY, values)
            continue
        refused += 1
        with pytest.raises(FeedbackLoop) as caught:
            show_of(TINY, values)
        told = caught.value
        named = {*told.nodes, *told.beside}
        assert told.nodes[0] == told.nodes[-1]
        assert referee.radius(named) >= 1.0 - 1e-9
        gain = referee.once_around(told.nodes[0], named)  # and without it nothing howls
        assert told.gain_db == pytest.approx(20 * math.log10(gain), abs=1e-6)
        assert told.gain_db >= -1e-8
        for strip in named & referee.fed():  # nor without any other
            assert referee.radius(named - {strip}) < 1.0, (seed, strip)
        several += bool(told.beside)
    assert min(refused, allowed, 4 * several) > often(20), (refused, allowed, several)


def test_the_loop_that_is_watched_is_the_one_nearest_to_howling():
    """All that comes back to a strip, by all its sides and ways, of every strip that is fed."""
    found = beside = 0
    for seed in range(300, 300 + often(120)):
        referee = Referee(blank_show(TINY).with_values(values := raw_values(seed)))
        if referee.radius() >= 1.0 - 1e-9:
            continue
        loop = loudest_loop(flow_of(show_of(TINY, values)))
        most = max(map(referee.once_around, sorted(referee.fed())), default=0.0)
        if most < 1e-12:
            assert loop is None or loop.gain_db < -230.0
            continue
        assert loop.gain_db == pytest.approx(20 * math.log10(most), abs=1e-6)
        named = {*loop.nodes, *loop.beside}
        assert referee.once_around(loop.nodes[0], named) == pytest.approx(most, rel=1e-6)
        found += 1
        beside += bool(loop.beside)
    assert min(found, 2 * beside) > often(12), (found, beside)


@pytest.mark.parametrize("first", range(0, 40, 10))
def test_following_random_edits_is_evaluating_anew(first):
    """1 600 edits in all: cell by cell after each, and the cells that differ are all told."""
    shows = [(seed, show_of_seed(seed), 30) for seed in range(first, first + often(10))]
    shows += [(seed, tangled_of_seed(seed), 10) for seed in range(first, first + often(10))]
    for seed, show, many in shows:
        flow, done = flow_of(show), 0
        for turn in itertools.count():
            if done == many:
                break
            asked = raw_edit_of_seed(show, seed * 1000 + turn)
            try:
                after = edited(show, flow, asked)
            except ConsoleError:
                continue
            before, done = whole(flow), done + 1
            anew = whole(flow_of(after.show))
            now = whole(after.flow)
            np.testing.assert_allclose(now[0], anew[0], atol=1e-9, rtol=0)
            np.testing.assert_array_equal(now[1], anew[1])
            differs = (before[1] != anew[1]) | ~np.isclose(before[0], anew[0], atol=1e-9, rtol=0)
            missed = set(map(tuple, np.argwhere(differs).tolist()))
            assert missed <= set(map(tuple, after.cells.tolist())), (seed, turn, asked)
            np.testing.assert_array_equal(whole(flow)[0], before[0])  # a Flow is a value
            show, flow = after.show, after.flow


def test_an_edit_is_refused_beforehand_as_it_is_when_it_is_made():
    refused = collections.Counter()
    for seed in range(60):
        draw, show = random.Random(seed), tangled_of_seed(seed)
        flow = flow_of(show)
        for turn in range(12):
            asked = raw_edit_of_seed(show, seed * 1000 + turn)
            if turn % 2:  # up, and perhaps back into what feeds it
                rows = flow.fed.row.tolist()
                fed = flow.layout.source(draw.choice(rows)) if rows else "channel/1"
                asked[f"{fed}/trim"] = draw.choice([0.0, 9.0])
                for bus in ("mix/1", "mix/2", "mix/3"):
                    asked[f"{fed}/send/{bus}/level"] = draw.choice([-math.inf, 6.0])
                    asked |= {f"{fed}/send/{bus}/tap": "input", f"{bus}/fader": 6.0}
                    asked |= {f"{fed}/send/{bus}/on": True, f"{bus}/mute": False}
            told: list = []
            for ask in (made, partial(check_edit, flow=flow)):
                try:
                    ask(show, moves=asked)
                    told.append(None)
                except ConsoleError as error:
                    told.append((type(error), str(error)))
            assert told[0] == told[1], (seed, turn, asked)
            refused[told[0] and told[0][0]] += 1
    assert min(refused[FeedbackLoop], refused[None]) > 20, refused


@given(SHOW_SEEDS, SEEDS)
@settings(max_examples=25)
def test_following_gives_the_same_reasons_as_evaluating_anew(seed, other):
    show = show_of_seed(seed)
    after = edited(show, flow_of(show), edit_of_seed(show, other))
    anew = flow_of(after.show)
    for source, listener in random.Random(seed).sample(cells(anew), 8):
        followed = why(after.show, source, listener, flow=after.flow)
        fresh = why(after.show, source, listener, flow=anew)
        assert followed.state == fresh.state
        assert followed.reasons == fresh.reasons
        assert [way.says for way in followed.ways] == [way.says for way in fresh.ways]


@given(SHOW_SEEDS, SEEDS)
@settings(max_examples=30)
def test_a_preview_tells_what_then_happens(seed, other):
    show = show_of_seed(seed)
    flow, asked = flow_of(show), edit_of_seed(show, other)
    shown = preview(show, flow, asked)
    after, change = made(show, asked)
    assert shown.change == change
    old, new = whole(flow)[1] == State.HEARD, whole(flow_of(after))[1] == State.HEARD
    drawn = [
        flow.layout.column(head.listener)
        for head in {*table_heads(show, flow)[1], *table_heads(after, flow_of(after))[1]}
        if head.listens or head.serves == "effect"
    ]
    some = sorted(set(drawn))
    assert len(shown.silenced) == (old & ~new)[:, some].sum()
    assert len(shown.opened) == (new & ~old)[:, some].sum()


@given(shows(), st.sampled_from(["channel/1", "return/1", "group/1", "mix/1", "house", "matrix/1"]))
def test_muting_only_ever_lowers(show, strip):
    turned = any(show.on(f"{kind}/{n}/polarity") for kind in ("channel", "return") for n in (1, 2))
    turned = turned or any(show.on(f"channel/{n}/polarity") for n in (3, 4))
    assume(not turned)  # of two ways that cancel, muting one may raise
    before, _ = whole(flow_of(show))
    after, _ = whole(flow_of(made(show, {f"{strip}/mute": True})[0]))
    assert (after <= before + 1e-9).all()


# ---- known sums


def level(values, source, listener, desk=TOURING):
    return flow_of(show_of(desk, values)).level(source, listener)


FED: dict[str, Value] = {"channel/1/source": "input/local/1", "channel/1/fader": 0.0}
HOUSE: dict[str, Value] = {
    "output/local/1/source": "house/left",
    "output/local/2/source": "house/right",
}


@pytest.mark.parametrize(
    ("fader_db", "arrives_db"), [(1.0, 1.0), (-2.9, -2.9)], ids=["plus-1", "minus-2.9"]
)
def test_a_send_at_0_db_after_the_fader_arrives_as_the_fader_stands(fader_db, arrives_db):
    """Common practice: 0 dB after a fader at +1 arrives at +1; with the fader at -2.9 at -2.9."""
    send: dict[str, Value] = {
        "channel/1/send/mix/1/level": 0.0,
        "channel/1/send/mix/1/tap": "after_fader",
        "mix/1/format": "mono",
        "output/local/3/source": "mix/1",
    }
    values: dict[str, Value] = {**FED, **send, "channel/1/fader": fader_db}
    assert level(values, "channel/1", "mix/1") == pytest.approx(arrives_db)
    before = {**values, "channel/1/send/mix/1/tap": "before_fader"}
    assert level(before, "channel/1", "mix/1") == pytest.approx(0.0)


def test_a_way_through_a_group_adds_in_db_and_panning_does_not_change_a_stereo_listener():
    """0 + (-3) through a stereo group; cos^2 + sin^2 = 1 whatever the pan."""
    group: dict[str, Value] = {
        "group/1/format": "stereo",
        "group/1/fader": -3.0,
        "channel/1/group/1/on": True,
        "channel/1/house/on": False,
        "channel/1/pan": 0.4,
    }
    assert level({**FED, **HOUSE, **group}, "channel/1", "house") == pytest.approx(-3.0)


def test_two_ways_add_with_their_sign():
    """Twice the same at 0 dB is +6.02 dB: 20 log10 2."""
    both = {"group/1/format": "stereo", "channel/1/group/1/on": True, "channel/1/pan": 1.0}
    assert level({**FED, **HOUSE, **both}, "channel/1", "house") == pytest.approx(6.0206, abs=1e-4)


def test_a_return_shows_0_db_at_unity_and_minus_3_in_mono():
    """Unit power in phase shared by two sides: each 0.7071, their half sum 0.7071 = -3.01 dB."""
    back: dict[str, Value] = {
        "return/1/source": "input/a/1",
        "return/1/fader": 0.0,
        "return/1/mono/on": True,
    }
    values: dict[str, Value] = {**HOUSE, **back, "output/local/3/source": "mono"}
    assert level(values, "return/1", "house") == pytest.approx(0.0, abs=1e-12)
    assert level(values, "return/1", "mono") == pytest.approx(-3.0103, abs=1e-4)


def test_balance_leaves_one_side_and_lowers_the_other():
    """At half to the right the left falls by cos(pi/4): (1/2 + 1/4) of the power is -1.25 dB."""
    back: dict[str, Value] = {
        "return/1/source": "input/a/1",
        "return/1/fader": 0.0,
        "return/1/pan": 0.5,
    }
    expected_db = 10 * math.log10(0.5 + 0.25)
    assert level({**HOUSE, **back}, "return/1", "house") == pytest.approx(expected_db)


EFFECT: dict[str, Value] = {
    "mix/5/format": "mono",
    "mix/5/serves": "effect",
    "engine/1/source": "mix/5",
    "return/1/source": "engine/1",
    "return/1/fader": -6.0,
    "channel/1/send/mix/5/level": -8.0,
    "channel/1/send/mix/5/tap": "after_fader",
}


def test_the_dry_table_leaves_an_effect_out_and_why_tells_it_beside():
    values: dict[str, Value] = {**FED, **HOUSE, **EFFECT}
    show = show_of(TOURING, values)
    assert flow_of(show).level("channel/1", "house") == pytest.approx(0.0)
    assert flow_of(show).state_of("channel/1", "mix/5") is State.HEARD  # its engine is its output
    wet = [way for way in why(show, "channel/1", "house").ways if way.wet]
    assert [way.says for way in wet] == ["by way of Return 1, wet"]
    assert wet[0].level_db == pytest.approx(-14.0)


def test_a_house_without_a_socket_is_heard_by_way_of_a_matrix_that_has_one():
    values: dict[str, Value] = {
        **FED,
        "channel/1/fader": -2.0,
        "house/fader": -1.0,
        "house/send/matrix/1/level": -5.0,
        "matrix/1/format": "mono",
        "output/local/1/source": "matrix/1",
    }
    flow = flow_of(show_of(TOURING, values))
    assert flow.level("channel/1", "house") == pytest.approx(-3.0)
    head = next(
        one for one in table_heads(show_of(TOURING, values), flow)[1] if one.serves == "house"
    )
    assert head.about == "by matrix"
    # at the matrix: (0.7071 + 0.7071) / 2 of what was panned to the centre, 3.01 dB below it
    assert flow.level("channel/1", "matrix/1") == pytest.approx(-2.0 - 1.0 - 5.0 - 3.0103, abs=1e-4)
    down = flow_of(show_of(TOURING, {**values, "house/send/matrix/1/level": -math.inf}))
    assert down.state_of("channel/1", "house") is State.NO_OUTPUT


def test_a_direct_out_listens_to_its_channel_alone_at_its_tap():
    values: dict[str, Value] = {**FED, "channel/1/trim": 4.0, "channel/1/fader": -9.0}
    out: dict[str, Value] = {
        "output/recorder/1/source": "channel/1/direct",
        "output/recorder/1/tap": "before_fader",
        "output/recorder/1/trim": -1.0,
    }
    flow = flow_of(show_of(TOURING, {**values, **out, "channel/2/source": "input/local/2"}))
    assert flow.level("channel/1", "output/recorder/1") == pytest.approx(3.0)
    assert flow.state_of("channel/2", "output/recorder/1") is State.UNROUTED


def test_a_direct_out_of_a_bus_fed_channel_carries_what_feeds_it_in_table_and_why_alike():
    """Channel 1 by its send of -2 dB and mix 1 at 0 dB to channel 2, whose fader stands at -7."""
    show = bus_fed(**{
        "channel/1/send/mix/1/level": -2.0, "channel/1/send/mix/1/tap": "before_fader",
        "mix/1/fader": 0.0, "channel/2/fader": -7.0,
        "output/recorder/1/source": "channel/2/direct", "output/recorder/1/tap": "after_fader",
    })  # fmt: skip
    out = "output/recorder/1"
    assert flow_of(show).level("channel/1", out) == pytest.approx(-9.0)
    for source, level_db in (("channel/1", -9.0), ("channel/2", -7.0)):
        [way] = why(show, source, out).ways  # and nothing is left of the sum
        assert way.level_db == pytest.approx(level_db)


def test_a_pan_that_takes_a_side_away_is_followed_and_back():
    """Only the right of the house is patched: all left, nothing of the channel gets there."""
    show = show_of(
        TOURING,
        {**FED, "channel/1/fader": 0.0, "output/local/2/source": "house/right"},
    )
    flow, states = flow_of(show), []
    for pan in (-1.0, 0.5, -1.0, 1.0):
        after = edited(show, flow, {"channel/1/pan": pan})
        show, flow = after.show, after.flow
        anew = flow_of(show)
        assert np.array_equal(flow.state, anew.state)
        assert np.array_equal(flow.level_db, anew.level_db)
        states.append(flow.state_of("channel/1", "house"))
    assert states == [State.NO_OUTPUT, State.HEARD, State.NO_OUTPUT, State.HEARD]


def bus_fed(**values):
    """Channel 1 into mono mix 1, which feeds channel 2; both would go to the house."""
    wired: dict[str, Value] = {
        **FED,
        **HOUSE,
        "channel/1/send/mix/1/level": 0.0,
        "channel/1/house/on": False,
        "mix/1/format": "mono",
        "channel/2/source": "mix/1",
        "channel/2/fader": 0.0,
    }
    return show_of(TOURING, {**wired, **values})


def test_a_source_arrives_by_way_of_a_channel_that_a_bus_feeds():
    assert flow_of(bus_fed()).level("channel/1", "house") == pytest.approx(0.0)


def test_a_loop_below_0_db_is_solved_and_one_at_0_db_is_refused_by_name():
    """Once around the loop is -6 dB: 1 / (1 - 10^(-6/20)) = 2.0047, so +6.04 dB is added."""
    loop: dict[str, Value] = {"channel/2/send/mix/1/level": -6.0}
    assert flow_of(bus_fed(**loop)).level("channel/1", "house") == pytest.approx(6.0405, abs=1e-3)
    with pytest.raises(FeedbackLoop) as caught:
        bus_fed(**{"channel/2/send/mix/1/level": 0.5})
    assert caught.value.nodes == ("channel/2", "mix/1", "channel/2")
    assert caught.value.gain_db == pytest.approx(0.5)


def test_a_loop_at_1_db_below_unity_raises_its_source_by_19_db():
    """Amplitudes: 1 / (1 - 10^(-1/20)) is +19.27 dB (geometric series, by hand)."""
    near: dict[str, Value] = {"channel/2/send/mix/1/level": -1.0}
    rise = flow_of(bus_fed(**near)).level("channel/1", "house")
    assert rise - flow_of(bus_fed()).level("channel/1", "house") == pytest.approx(19.27, abs=0.005)


def test_loops_that_reach_0_db_only_together_say_so():
    """Two loops of one set at -4 dB each: 2 * 0.631 > 1 together; neither does it alone."""
    both = {
        "channel/2/send/mix/1/level": -4.0,
        "channel/3/source": "mix/1",
        "channel/3/send/mix/1/level": -4.0,
    }
    with pytest.raises(FeedbackLoop, match="together with what comes back by channel 3") as caught:
        bus_fed(**both)
    assert (caught.value.nodes[0], caught.value.beside) == ("channel/2", ("channel/3",))
    # cut at channel 2: its own way back, past channel 3's round: k / (1 - k)
    k = 10 ** (-4.0 / 20)
    assert caught.value.gain_db == pytest.approx(20 * math.log10(k / (1 - k)))


def test_a_loop_by_both_sides_of_a_bus_is_told_by_both_together():
    """Channel 2 in the centre of a stereo mix that it takes whole: each side alone is 6 dB lower.

    A fraction below 0 dB, 89 dB are added, and a finding says so.
    """
    near = 20 * math.log10(math.sqrt(2.0)) - 0.0003
    values = {"mix/1/format": "stereo", "channel/2/source": "mix/1"}
    show = bus_fed(**values, **{"channel/2/send/mix/1/level": near})
    flow = flow_of(show)
    loop = loudest_loop(flow)
    assert loop.gain_db == pytest.approx(-0.0003, abs=1e-9)
    rise = -20 * math.log10(1 - 10 ** (-0.0003 / 20))
    assert flow.level("channel/2", "house") - rise == pytest.approx(
        flow_of(bus_fed(**values, **{"channel/2/send/mix/1/level": -math.inf})).level(
            "channel/2", "house"
        ),
        abs=1e-4,
    )
    says = [one.says for one in findings(show, flow) if one.rule == "loop_near_howling"]
    assert "just below 0 dB once around" in says[0]
    with pytest.raises(FeedbackLoop) as caught:
        bus_fed(**values, **{"channel/2/send/mix/1/level": near + 0.1003})
    assert caught.value.gain_db == pytest.approx(0.1)


def test_an_effect_that_hears_its_own_return_is_a_loop_too():
    howling: dict[str, Value] = {**EFFECT, "return/1/send/mix/5/level": 6.0, "return/1/fader": 0.0}
    with pytest.raises(FeedbackLoop) as caught:
        show_of(TOURING, howling)
    assert set(caught.value.nodes) == {"return/1", "mix/5"}


def test_what_may_feed_what_is_kept_by_name():
    with pytest.raises(NotAnEffectMix, match="mix 5"):
        show_of(TOURING, {**EFFECT, "mix/5/serves": "ears"})
    with pytest.raises(EngineTaken, match="return 1"):
        show_of(TOURING, {**EFFECT, "return/2/source": "engine/1"})
    with pytest.raises(EditRefused, match="matrix/1/send"):
        show_of(TOURING, {"matrix/1/send/matrix/2/level": 0.0})


def test_an_empty_show_is_silent_everywhere_and_says_so():
    flow = flow_of(blank_show(TINY))
    assert np.isneginf(flow.level_db).all()
    assert not (flow.state == State.HEARD).any()
