"""Why: reasons judged by the independent walk, remedies by what they do, steps by their sum."""

import math
import random
import re

import numpy as np
import pytest

from ombrel.core import (
    State,
    UnknownAddress,
    Value,
    edited,
    flow_of,
    made,
    show_of,
    silent,
    why,
)
from ombrel.core.flow import listeners, sources
from tests.core.test_flow import EFFECT, FED, HOUSE, cells
from tests.core.walk import Referee
from tests.desks import FESTIVAL, TOURING
from tests.shows import often, show_of_seed

WITHOUT_ADDRESS = {"not_in_use", "no_way"}  # where no path is possible, words say why


def sampled(seed, count):
    show = show_of_seed(seed)
    flow = flow_of(show)
    return show, flow, random.Random(seed).sample(cells(flow), count)


@pytest.mark.parametrize("first", range(0, 45, 15))
def test_reasons_are_every_cause_that_the_walk_finds(first):
    silent = 0
    for seed in range(first, first + often(15)):
        show, flow, some = sampled(seed, 12)
        referee = Referee(show)
        for source, listener in some:
            _, _, expected = referee.answer(source, listener)
            found = why(show, source, listener, flow=flow).reasons
            told = {(one.code, one.address) for one in found if one.code not in WITHOUT_ADDRESS}
            assert told == expected, (seed, source, listener)
            silent += bool(found)
    assert silent > often(80)


@pytest.mark.parametrize("first", range(0, 45, 15))
def test_each_remedy_removes_its_cause_and_the_fewest_actions_open_the_cell(first):
    taken = opened = 0
    for seed in range(first, first + often(15)):
        show, flow, some = sampled(seed, 8)
        for source, listener in some:
            answer = why(show, source, listener, flow=flow)
            for reason in answer.reasons:
                if reason.remedy is None:
                    continue
                after = edited(show, flow, reason.remedy.moves)  # and it is not refused
                left = why(after.show, source, listener, flow=after.flow).reasons
                # another cause may then show, of this strip too: its spare is a silent bus
                assert reason not in left
                taken += 1
                if reason.instead is not None:  # the other way takes it away as well
                    after = edited(show, flow, reason.instead.moves)
                    left = why(after.show, source, listener, flow=after.flow).reasons
                    assert reason not in left
            if answer.opening is not None:
                after = edited(show, flow, answer.opening.moves)
                assert after.flow.state_of(source, listener) is State.HEARD, (
                    seed,
                    source,
                    listener,
                )
                opened += 1
    assert taken > often(20)
    assert opened > often(15)


@pytest.mark.parametrize("first", range(0, 45, 15))
def test_the_steps_of_each_way_add_to_its_level_and_one_way_alone_is_the_cells(first):
    told = several = 0
    for seed in range(first, first + often(15)):
        show = show_of_seed(seed)
        flow = flow_of(show)
        heard = [c for c in cells(flow) if flow.state_of(*c) is State.HEARD]
        for source, listener in heard[:12]:
            answer = why(show, source, listener, flow=flow)
            dry = [way for way in answer.ways if not way.wet]
            for way in answer.ways:
                gains = [step.gain_db for step in way.steps if step.gain_db is not None]
                assert sum(gains) == pytest.approx(way.level_db, abs=1e-9)
                assert all(step.open for step in way.steps)
            if len(dry) == 1:
                assert dry[0].level_db == pytest.approx(answer.level_db, abs=1e-9)
            told, several = told + 1, several + (len(dry) > 1)
    assert told > often(80)
    assert several > often(5)


def test_ways_are_told_by_what_they_pass():
    """0 dB straight and -3.0 by way of the group: 20 log10(1 + 0.7079) = +4.65 together."""
    group: dict[str, Value] = {
        "group/1/name": "Band",
        "group/1/format": "stereo",
        "group/1/fader": -3.0,
        "channel/1/group/1/on": True,
        "channel/1/pan": -1.0,
    }
    answer = why(show_of(TOURING, {**FED, **HOUSE, **group}), "channel/1", "house")
    assert answer.level_db == pytest.approx(20 * math.log10(1 + 10 ** (-3 / 20)))
    assert [(way.says, round(way.level_db, 6)) for way in answer.ways] == [
        ("", 0.0),
        ("by way of the group Band", -3.0),
    ]
    assert "by 2 ways" in answer.says


def test_rounds_of_a_loop_are_told_beside_the_way():
    loop: dict[str, Value] = {
        "channel/1/send/mix/1/level": 0.0,
        "channel/1/house/on": False,
        "mix/1/format": "mono",
        "channel/2/source": "mix/1",
        "channel/2/fader": 0.0,
        "channel/2/send/mix/1/level": -6.0,
    }
    answer = why(show_of(TOURING, {**FED, **HOUSE, **loop}), "channel/1", "house")
    assert [way.says for way in answer.ways] == [
        "by way of Mix 1 and Channel 2",
        "by more ways and rounds",
    ]


def test_an_absolute_level_is_told_where_a_line_and_its_preamp_are_known():
    """-40 dBu + 42 dB - 21 dBu at full scale = -19 dBFS."""
    line: dict[str, Value] = {
        "line/1/place": 1.0,
        "line/1/name": "Fiddle",
        "line/1/socket": "input/a/1",
        "line/1/level_dbu": -40.0,
        "input/a/1/gain": 42.0,
        "channel/1/source": "input/a/1",
    }
    head = why(show_of(TOURING, line), "channel/1", "house").head
    assert [step.title for step in head] == ["Fiddle", "Preamp"]
    assert (head[0].dbu, head[1].dbfs) == (-40.0, pytest.approx(-19.0))


def test_an_effect_without_its_engine_says_what_is_missing():
    show = show_of(TOURING, {**EFFECT, "engine/1/source": None, **HOUSE})
    (reason,) = why(show, "return/1", "house").reasons
    assert (reason.code, reason.address) == ("no_source", "return/1")
    assert [step.open for step in why(show, "return/1", "house").head] == [False]
    assert "no mix feeds" in reason.says


def test_a_return_that_takes_nothing_begins_with_what_is_missing():
    show = show_of(TOURING, {**EFFECT, "return/1/source": None, **HOUSE})
    (head,) = why(show, "return/1", "house").head
    assert (head.open, head.address) == (False, "return/1/source")
    assert "neither an engine nor sockets" in head.detail


def test_a_desk_without_free_outputs_offers_no_remedy_and_says_so():
    outputs: dict[str, Value] = {
        f"output/{box.key}/{n}/source": "house"
        for box in TOURING.boxes
        if box.preamps
        for n in range(1, box.outputs + 1)
    }
    show = show_of(TOURING, {**FED, **outputs, "mix/1/format": "mono",
                             "channel/1/send/mix/1/level": 0.0})  # fmt: skip
    (reason,) = why(show, "channel/1", "mix/1").reasons
    assert reason.remedy is None
    assert "0 left" in reason.says
    assert why(show, "channel/1", "mix/1").opening is None


def test_sources_and_listeners_that_the_desk_has_not_are_refused():
    show, _ = made(show_of(TOURING, {}), {})
    for source, listener in (("channel/49", "house"), ("house", "house"), ("channel/1", "mix/23"),
                             ("channel/1", "output/local/99")):  # fmt: skip
        with pytest.raises(UnknownAddress):
            why(show, source, listener)


@pytest.mark.parametrize("first", [300, 360])
def test_the_fewest_actions_are_as_few_as_a_walk_of_every_path_finds(first):
    """The referee counts, path by path, what is closed or off; keys that are held are nobody's."""
    counted = several = 0
    for seed in range(first, first + 30, 3):  # of these seeds no bus feeds a channel
        show, _ = made(show_of_seed(seed), {"engine/1/source": None, "engine/2/source": None})
        flow = flow_of(show)
        assert not flow.fed.node.size  # what feeds itself may be refused
        some = random.Random(seed).sample(cells(flow), 18)
        referee = Referee(show)
        held = {
            ("muted", f"mute_group/{n}/on")
            for n in range(1, show.desk.mute_groups + 1)
            if show[f"mute_group/{n}/hard"] or show[f"mute_group/{n}/safe"]
        }
        for source, listener in some:
            answer = why(show, source, listener, flow=flow)
            if answer.opening is None or answer.state is State.CANCELLED:
                continue
            words = re.search(r"(\d+) actions", answer.opening.says)
            actions = int(words[1]) if words else 1
            # what is sent there is opened where it is closed, not led round by other feeds
            unrouted = answer.state is State.UNROUTED
            paths = referee.paths(source, listener, off=unrouted)
            paths = [path for path in paths if not path[1] & held]
            every = [len(p[1]) + len(set(p[2])) for p in paths]
            plain = [
                len(p[1]) + len(set(p[2]))
                for p in paths
                if {code for code, _ in p[1]} <= {"muted", "down"}
            ]
            assert actions >= min(every), (seed, source, listener)
            # of a feed that is off, the walk does not tell whether it is panned away as well
            assert unrouted or not plain or actions <= min(plain), (seed, source, listener)
            counted, several = counted + 1, several + (actions > 1)
    assert counted > often(10)
    assert several > often(3)


def test_what_lies_below_600_db_is_silence_and_no_number_is_lost():
    """Sixteen DCAs at -90 dB on each of four strips: open all the way, and nothing arrives."""
    strips = ["channel/1", "group/1", "mix/1", "matrix/1"]
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1", "channel/1/group/1/on": True,
        "group/1/format": "stereo",
        "group/1/send/mix/1/level": -90.0, "mix/1/format": "stereo",
        "mix/1/send/matrix/1/level": -90.0, "matrix/1/format": "mono",
        "output/local/1/source": "matrix/1", "channel/2/source": "mix/1",
        "output/local/2/source": "channel/2/direct", "channel/2/fader": 0.0,
        "channel/1/polarity": True,
        **{f"{strip}/fader": -90.0 for strip in strips},
        **{f"dca/{n}/fader": -90.0 for n in range(1, FESTIVAL.dcas + 1)},
        **{f"{strip}/dca/{n}/on": True for strip in strips for n in range(1, FESTIVAL.dcas + 1)},
    }  # fmt: skip
    show = show_of(FESTIVAL, values)
    flow = flow_of(show)
    for listener in ("group/1", "matrix/1", "output/local/2"):
        answer = why(show, "channel/1", listener, flow=flow)
        assert (answer.state, answer.level_db) == (State.HEARD, -math.inf)
        for way in answer.ways:
            assert way.level_db == -math.inf
            assert not any(math.isnan(s.gain_db) for s in way.steps if s.gain_db is not None)
    assert not np.isnan(flow.level_db).any()


def test_a_way_by_both_sides_of_a_strip_is_told_once():
    """The house feeds channel 2, which goes back into it: left by way of right and right by way of

    left are one way, and its level is what both bring: by hand from the pans.
    """
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1", "channel/1/fader": 0.0, "channel/1/pan": -0.3,
        "channel/2/source": "house", "channel/2/fader": -12.0, "channel/2/pan": 0.3,
        "output/local/1/source": "house/left", "output/local/2/source": "house/right",
    }  # fmt: skip
    answer = why(show_of(TOURING, values), "channel/1", "house")
    assert [way.says for way in answer.ways] == [
        "", "by way of Channel 2", "by more ways and rounds"
    ]  # fmt: skip
    left, right = math.cos(0.7 * math.pi / 4), math.sin(0.7 * math.pi / 4)
    back = 0.5 * 10 ** (-12 / 20)  # the whole of a stereo bus is half of each side
    by_right, by_left = left * back * left, right * back * right  # channel 2 pans the other way
    level_db = 10 * math.log10(by_right**2 + by_left**2)
    way = answer.ways[1]
    assert way.level_db == pytest.approx(level_db)
    assert sum(step.gain_db or 0.0 for step in way.steps) == pytest.approx(level_db)


@pytest.mark.parametrize("first", range(0, 12, 6))
def test_who_is_silent_in_the_house_is_who_the_walk_finds_so_each_with_a_cause_of_it(first):
    """Left out: who is heard elsewhere and goes to neither house nor mono."""
    told = left_out = 0
    for seed in range(first, first + 6):
        show = show_of_seed(seed)
        flow = flow_of(show)
        referee = Referee(show)
        found = {one.source: one for one in silent(show, flow).told}
        for source in sources(show):
            at = {one: referee.answer(source, one) for one in ("house", "mono")}
            states = {one: state for one, (state, _, _) in at.items()}
            if "heard" in states.values():
                assert source not in found
            elif set(states.values()) == {"unrouted"}:
                elsewhere = any(
                    referee.answer(source, one)[0] == "heard" for one in listeners(show)
                )
                assert (source in found) is not elsewhere, (seed, source)
                left_out += elsewhere
            else:
                one = found[source]
                assert states[one.listener] != "unrouted"
                assert (one.why.code, one.why.address) in at[one.listener][2], (seed, source)
                told += 1
    assert told > often(10)
    assert left_out
