"""Typing what is to arrive: what is typed is what is then read."""

import math
import random

import pytest

from ombrel.core import (
    Carry,
    ConsoleError,
    OneFaderTwoPlaces,
    OutOfReach,
    SeveralPaths,
    State,
    UnreadableText,
    Value,
    blank_show,
    edited,
    flow_of,
    hear,
    made,
    show_of,
    why,
)
from tests.core.test_flow import FED, HOUSE, cells
from tests.desks import TOURING
from tests.shows import often, show_of_seed

MIX: dict[str, Value] = {"mix/1/format": "mono", "output/local/3/source": "mix/1"}


def typed(values, cells_typed, text):
    """The show after typing, and its flow."""
    show = show_of(TOURING, values)
    after = edited(show, flow_of(show), hear(show, flow_of(show), cells_typed, text))
    return after.show, after.flow


@pytest.mark.parametrize("first", range(0, 90, 30))
def test_what_is_typed_arrives_also_in_cells_that_were_silent(first):
    """Silent ones once the fewest actions have let them be heard."""
    heard = opened = refused = 0
    for seed in range(first, first + often(30)):
        show = show_of_seed(seed)
        flow = flow_of(show)
        for source, listener in random.Random(seed).sample(cells(flow), 10):
            try:
                asked = hear(show, flow, [(source, listener)], "-9.5")
                after = edited(show, flow, asked)
                by_hand = edited(show, flow, asked, Carry())  # gangs may move what passes it too
            except ConsoleError:  # out of reach, by several ways, a loop: told, nothing changed
                refused += 1
                continue
            answer = why(after.show, source, listener, flow=after.flow)
            if by_hand.flow.state_of(source, listener) is State.HEARD:
                level_db = by_hand.flow.level(source, listener)
                assert level_db == pytest.approx(-9.5, abs=0.01), (seed, source, listener)
                heard += 1
            elif answer.opening is not None:
                then = edited(after.show, after.flow, answer.opening.moves)
                if by_its_own_feed_alone(then, source, listener):
                    level_db = then.flow.level(source, listener)
                    assert level_db == pytest.approx(-9.5, abs=0.01), (seed, source, listener)
                    opened += 1
    assert heard >= often(20)
    assert opened > often(8)
    assert refused > often(15)


def by_its_own_feed_alone(after, source, listener):
    ways = why(after.show, source, listener, flow=after.flow).ways
    return [way.says for way in ways if not way.wet] == [""]


def test_the_rest_of_the_path_counts_as_it_will_be():
    """Trim +5, master -4, output trim -3: -6 is a send of -4; it arrives at -6."""
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1",
        **MIX,
        "mix/1/fader": -4.0,
        "channel/1/trim": 5.0,
        "output/local/3/trim": -3.0,
    }
    show, flow = typed(values, [("channel/1", "mix/1")], "-6")
    assert show["channel/1/send/mix/1/level"] == pytest.approx(-4.0)
    assert flow.level("channel/1", "mix/1") == pytest.approx(-6.0)


def test_off_and_a_level_again_arrives_as_typed_in_the_house():
    values: dict[str, Value] = {**FED, **HOUSE, "house/fader": -8.0}
    off, _ = typed(values, [("channel/1", "house")], "off")
    assert (off["channel/1/house/on"], off["channel/1/fader"]) == (False, 0.0)
    _, flow = typed(dict(off.values), [("channel/1", "house")], "-8")
    assert flow.level("channel/1", "house") == pytest.approx(-8.0)


def test_the_sum_of_a_mono_socket_counts():
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1",
        "mix/1/format": "stereo",
        "output/local/3/source": "mix/1",
    }
    _, flow = typed(values, [("channel/1", "mix/1")], "-10")
    assert flow.level("channel/1", "mix/1") == pytest.approx(-10.0)


def test_one_fader_that_would_stand_at_two_places_is_refused_with_both_cells():
    values: dict[str, Value] = {
        **FED,
        **HOUSE,
        "channel/1/mono/on": True,
        "output/local/3/source": "mono",
        "mono/fader": -4.0,
    }
    with pytest.raises(OneFaderTwoPlaces, match=r"House.*Mono") as caught:
        typed(values, [("channel/1", "house"), ("channel/1", "mono")], "-6")
    assert {cell[1] for cell in caught.value.cells} == {"House", "Mono"}
    same = {**values, "mono/fader": 0.0}  # both want the same place
    _, flow = typed(same, [("channel/1", "house"), ("channel/1", "mono")], "-6")
    assert flow.level("channel/1", "mono") == pytest.approx(-6.0)


def test_a_fader_and_a_send_behind_it_are_set_together():
    after_fader = {"channel/1/send/mix/1/tap": "after_fader", "channel/1/send/mix/1/level": -3.0}
    cells_typed = [("channel/1", "mix/1"), ("channel/1", "house")]
    _, flow = typed({**FED, **HOUSE, **MIX, **after_fader}, cells_typed, "-12")
    assert [flow.level(*cell) for cell in cells_typed] == pytest.approx([-12.0, -12.0])


def _at_fader(listener):
    return listener in ("house", "mono") or "group" in listener


def _at_send(listener):
    return listener.startswith(("mix", "matrix"))


@pytest.mark.parametrize("first", range(0, 120, 40))
def test_a_relative_move_moves_each_of_its_cells_by_what_was_typed(first):
    """Whatever lies behind whatever: faders, sends behind them, several sources at once."""
    moved = behind = refused = 0
    for seed in range(first, first + often(40)):
        show, draw = show_of_seed(seed), random.Random(seed)
        flow = flow_of(show)
        heard = [c for c in cells(flow) if flow.level(*c) > -math.inf]
        sources = sorted({cell[0] for cell in heard})
        own = {source: [cell for cell in heard if cell[0] == source] for source in sources}
        tries = [
            [*draw.sample(own[source], min(2, len(own[source]))), *draw.sample(heard, more)]
            for source in draw.choices(sources, k=5 if sources else 0)
            for more in [draw.choice([0, 1])]
        ]
        for source in sources:  # by chance alone both are too seldom reached by one way each
            by_fader, by_send = (
                [c for c in own[source] if at(c[1])] for at in (_at_fader, _at_send)
            )
            if by_fader and by_send:
                tries.append([draw.choice(by_fader), draw.choice(by_send)])
        for some in tries:
            step_db = draw.choice([-7.3, -2.0, 1.4])
            typed = f"{'up' if step_db > 0 else 'down'} {abs(step_db)}"
            try:
                after = edited(show, flow, hear(show, flow, some, typed), Carry()).flow
            except ConsoleError:  # by several ways, one fader for two places, past its end
                refused += 1
                continue
            for cell in some:
                wanted_db = flow.level(*cell) + step_db
                assert after.level(*cell) == pytest.approx(wanted_db, abs=0.01), (seed, cell)
            moved += 1
            faders = {c[0] for c in some if _at_fader(c[1])}
            sends = {c[0] for c in some if _at_send(c[1])}
            behind += bool(faders & sends)
    assert min(moved, 8 * behind, 4 * refused) > often(20), (moved, behind, refused)


def test_two_up_in_the_house_and_in_a_send_behind_its_fader_is_two_up_in_both():
    sent = {"channel/1/send/mix/1/tap": "after_fader", "channel/1/send/mix/1/level": -6.0}
    both = [("channel/1", "house"), ("channel/1", "mix/1")]
    values = {**FED, **HOUSE, **MIX, **sent, "channel/1/fader": -10.0}
    for order in (both, both[::-1]):
        _, flow = typed(values, order, "up 2")
        assert [flow.level(*cell) for cell in order] == pytest.approx(
            [{"house": -8.0, "mix/1": -14.0}[listener] for _, listener in order]
        )


GROUPED: dict[str, Value] = {
    **FED,
    **HOUSE,
    "group/1/name": "Band",
    "group/1/format": "stereo",
    "group/1/fader": -3.0,
    "channel/1/group/1/on": True,
}


def test_where_several_paths_arrive_the_ways_are_offered_and_each_arrives():
    show = show_of(TOURING, GROUPED)
    flow = flow_of(show)
    with pytest.raises(SeveralPaths) as caught:
        hear(show, flow, [("channel/1", "house")], "-2")
    says = [words for words, _ in caught.value.ways]
    assert any("Channel 1" in words for words in says)
    assert all("Band" not in words for words in says)  # straight it is at 0 dB: -2 is out of reach
    for _, moves in caught.value.ways:
        after = edited(show, flow, moves).flow
        assert after.level("channel/1", "house") == pytest.approx(-2.0, abs=0.01)
    with pytest.raises(SeveralPaths) as caught:
        hear(show, flow, [("channel/1", "house")], "off")
    ((_, moves),) = caught.value.ways
    assert edited(show, flow, moves).flow.state_of("channel/1", "house") is State.UNROUTED


@pytest.mark.parametrize("back", [{"mix/1/format": "mono"}, {"mix/1/format": "stereo"}])
def test_a_control_in_a_loop_brings_a_level_about_too(back):
    """Channel 2 is fed by the mix that it feeds; its fader and its send both stand in the loop."""
    looped: dict[str, Value] = {
        **FED, **HOUSE, "channel/1/house/on": False, "channel/1/send/mix/1/level": 0.0,
        "channel/2/source": "mix/1", "channel/2/fader": -4.0, "channel/2/send/mix/1/level": -6.0,
        "channel/2/send/mix/1/tap": "after_fader", "channel/2/pan": 0.4,
        "output/local/3/source": "mix/1", **back,
    }  # fmt: skip
    show = show_of(TOURING, looped)
    for text in ("-9", "1.5"):
        with pytest.raises(SeveralPaths) as caught:
            hear(show, flow_of(show), [("channel/1", "house")], text)
        words = [says for says, _ in caught.value.ways]
        assert any("fader of Channel 2" in says for says in words), words
        assert any("fader of Mix 1" in says for says in words), words
        for says, moves in caught.value.ways:
            level_db = edited(show, flow_of(show), moves).flow.level("channel/1", "house")
            assert level_db == pytest.approx(float(text), abs=0.01), says


def test_a_matrix_is_ridden_by_one_of_the_ways_that_lead_there():
    matrix: dict[str, Value] = {
        "house/send/matrix/1/level": -5.0,
        "matrix/1/format": "stereo",
        "output/local/5/source": "matrix/1/left",
        "output/local/6/source": "matrix/1/right",
    }
    show = show_of(TOURING, {**FED, **HOUSE, **matrix})
    flow = flow_of(show)
    with pytest.raises(SeveralPaths) as caught:
        hear(show, flow, [("channel/1", "matrix/1")], "-9")
    moved = {address for _, moves in caught.value.ways for address in moves}
    assert {"channel/1/fader", "house/send/matrix/1/level", "matrix/1/fader"} <= moved


def test_a_direct_out_is_ridden_by_its_sockets_trim():
    out: dict[str, Value] = {"output/recorder/1/source": "channel/1/direct"}
    show, flow = typed({**FED, **out}, [("channel/1", "output/recorder/1")], "-7")
    assert show["output/recorder/1/trim"] == pytest.approx(-7.0)
    assert flow.level("channel/1", "output/recorder/1") == pytest.approx(-7.0)
    with pytest.raises(UnreadableText, match="Outputs"):
        typed({**FED, **out}, [("channel/1", "output/recorder/1")], "off")


def test_a_level_beyond_the_end_of_its_control_is_refused_with_both_figures():
    with pytest.raises(OutOfReach) as caught:
        typed({"channel/1/source": "input/local/1", **MIX, "mix/1/fader": -10.0},
              [("channel/1", "mix/1")], "0")  # fmt: skip
    assert (caught.value.needed_db, caught.value.highest_db) == (10.0, 6.0)


def test_several_cells_move_by_relative_steps_and_off():
    values: dict[str, Value] = {
        f"channel/{n}/{leaf}": value
        for n in (1, 2)
        for leaf, value in (("source", f"input/local/{n}"), ("send/mix/1/level", -10.0))
    }
    both = [("channel/1", "mix/1"), ("channel/2", "mix/1")]
    louder, _ = typed({**values, **MIX}, both, "up 3")
    assert louder["channel/2/send/mix/1/level"] == pytest.approx(-7.0)
    off, flow = typed(dict(louder.values), both, "off")
    assert flow.state_of("channel/2", "mix/1") is State.UNROUTED
    assert hear(off, flow_of(off), both, "up 3") == {}  # a relative move never opens what is off


def test_unreadable_text_is_refused():
    show, _ = made(blank_show(TOURING), {"channel/1/source": "input/local/1", **MIX})
    with pytest.raises(UnreadableText):
        hear(show, flow_of(show), [("channel/1", "mix/1")], "loud")
    assert math.isinf(show.number("channel/1/send/mix/1/level"))
