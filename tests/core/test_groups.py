"""Groups into groups: one that all go through, with a lift inside it, whichever was made first."""

import math
import random

import pytest
from hypothesis import given, settings

from ombrel.core import (
    Circle,
    State,
    UnreadableText,
    Value,
    edited,
    findings,
    flow_of,
    lift_singers,
    lifts,
    made,
    make_lift,
    promises,
    put_between,
    recall,
    show_of,
    store_scene,
    why,
)
from ombrel.core.together import unfolded
from tests.desks import TINY, TOURING
from tests.shows import SEEDS

from .walk import Referee

SINGERS = [f"channel/{n}" for n in range(1, 7)]


def evening(seed):
    """Thirty channels in the house, six of them singers, with pans and faders; a click is not."""
    draw = random.Random(seed)
    values: dict[str, Value] = {"output/local/1/source": "house/left",
                                "output/local/2/source": "house/right"}  # fmt: skip
    for n in range(1, 31):
        values |= {
            f"channel/{n}/source": f"input/a/{n}",
            f"channel/{n}/name": f"Source {n}",
            f"channel/{n}/fader": draw.uniform(-20.0, 0.0),
            f"channel/{n}/pan": round(draw.uniform(-1.0, 1.0), 2),
        }
    return show_of(TOURING, values | {"channel/30/name": "Click", "channel/30/house/on": False})


def at_house(show):
    """Level in dB of each channel of thirty in the house."""
    flow = flow_of(show)
    return [flow.level(f"channel/{n}", "house") for n in range(1, 31)]


def volunteers(show, **more):
    """All that the house has through one limited group."""
    every = [f"channel/{n}" for n in range(1, 31)]
    return made(show, put_between(show, every, name="All", limit_dbfs=-6.0, **more).moves)[0]


def singing(show):
    return made(show, make_lift(show, SINGERS, name="Voices"))[0]


@settings(max_examples=4)
@given(seed=SEEDS)
@pytest.mark.parametrize("order", [(volunteers, singing), (singing, volunteers)])
def test_a_lift_inside_a_group_that_all_go_through_whichever_came_first(order, seed):
    show = evening(seed)
    before = at_house(show)
    for job in order:
        show = job(show)
        assert at_house(show) == pytest.approx(before, abs=1e-9)
    outer = next(g for g in show.in_use("group") if show.text(f"{g}/name") == "All")
    flow = flow_of(show)
    (promise,) = promises(show, flow)
    assert (promise.kept, promise.passing, promise.vain) == (True, 29, "")
    (lift,) = lifts(show, flow)
    assert [one.strip for one in lift.singers] == SINGERS
    for singer in SINGERS:
        up = made(show, lift_singers(show, "lift/1", [singer], on=True))[0]
        (still,) = promises(up, flow_of(up))
        assert still.kept
        at = at_house(up)[SINGERS.index(singer)]
        assert at - before[SINGERS.index(singer)] == pytest.approx(20 * math.log10(2), abs=1e-9)
    # and the one fader rides them all: backing, lead and what is beside
    down = made(up, {f"{outer}/fader": -10.0})[0]
    assert at_house(down) == pytest.approx([one - 10.0 for one in at_house(up)], abs=1e-9)
    assert {g for g in show.in_use("group") if show.on(f"{g}/{outer}/on")} == {
        show.text("lift/1/backing"), show.text("lift/1/lead"),
    }  # fmt: skip
    assert set(unfolded(show, outer)) >= {show.text("lift/1/backing"), "channel/7"}


def test_a_singer_keeps_the_level_and_the_place_at_which_they_went_into_the_outer_group():
    """Into a group of one side, too: a backing of two would take 3 dB off at the centre."""
    values: dict[str, Value] = {
        "output/local/1/source": "house/left", "group/1/format": "mono",
              "output/local/2/source": "house/right", "group/1/name": "All"}  # fmt: skip
    for n, level_db in ((1, -4.0), (2, 0.0)):
        values |= {f"channel/{n}/source": f"input/a/{n}", f"channel/{n}/fader": 0.0,
                   f"channel/{n}/house/on": False, f"channel/{n}/group/1/on": True,
                   f"channel/{n}/group/1/level": level_db}  # fmt: skip
    show = show_of(TOURING, values)
    after = made(show, make_lift(show, ["channel/1", "channel/2"], name="Voices"))[0]
    assert after["channel/1/group/2/level"] == after["channel/1/group/3/level"] == -4.0
    assert at_house(after) == pytest.approx(at_house(show), abs=1e-9)
    steps = [one.step_db for s in lifts(after, flow_of(after))[0].singers for one in s.steps]
    assert steps == pytest.approx([20 * math.log10(2)] * len(steps))
    assert len(steps) >= 2


def test_singers_who_come_into_the_house_by_other_ways_are_refused_by_names():
    show = volunteers(evening(1))
    apart = made(show, {"channel/2/group/1/on": False, "channel/2/house/on": True})[0]
    with pytest.raises(UnreadableText, match=r"Source 2.*Source 1 does: by All"):
        make_lift(apart, ["channel/1", "channel/2"], name="Voices")
    lifted = singing(show)
    with pytest.raises(UnreadableText, match=r"Source 1.*no singer of Voices"):
        make_lift(lifted, ["channel/1"], name="More")


def test_an_exception_that_shares_a_group_with_who_is_chosen_is_told():
    show = singing(evening(2))
    with pytest.raises(UnreadableText, match=r"Source 1.*do not come into the house by Voices"):
        volunteers(show, exceptions=["channel/1"])
    assert volunteers(show, exceptions=["channel/9"])["channel/9/house/on"] is True


def test_a_group_that_would_feed_itself_is_refused_by_the_names_of_the_circle():
    chain: dict[str, Value] = {
        f"group/{n}/{leaf}": value
        for n, name in ((1, "In"), (2, "Mid"), (3, "Out"))
        for leaf, value in (("name", name), ("format", "stereo"))
    }
    show = show_of(TINY, chain)
    show, _ = made(show, {"group/1/group/2/on": True, "group/2/group/3/on": True})
    with pytest.raises(Circle, match="A group cannot feed itself: Out into In into Mid into Out"):
        made(show, {"group/3/group/1/on": True})
    with pytest.raises(Circle, match="In into In"):
        made(show, {"group/1/group/1/on": True})
    # whatever levels and formats are: somebody opens them later
    quiet, _ = made(show, {"group/2/group/3/level": -math.inf, "group/2/format": "unused"})
    with pytest.raises(Circle):
        made(quiet, {"group/3/group/1/on": True})


def test_a_scene_that_would_close_a_circle_is_refused_whole_and_found_beforehand():
    groups: dict[str, Value] = {f"group/{n}/format": "stereo" for n in (1, 2)}
    show = show_of(TINY, groups | {"channel/1/source": "input/local/1", "group/1/group/2/on": True})
    show, _ = made(show, store_scene(show, "One way", {"group/1": ["group/2"]}))
    show, _ = made(show, {"group/1/group/2/on": False})
    show, _ = made(show, {"group/2/group/1/on": True})
    [told] = [f.says for f in findings(show, flow_of(show)) if f.rule == "scene_passed_by"]
    assert "A group cannot feed itself: Group 1 into Group 2 into Group 1" in told
    with pytest.raises(Circle):
        made(show, recall(show, "scene/1").moves, own=True)


def test_a_lift_whose_lead_goes_past_the_outer_group_is_found_before_anybody_is_lifted():
    show = volunteers(singing(evening(3)))
    lead = show.text("lift/1/lead")
    assert not [f for f in findings(show) if f.rule == "lift_breaks_promise"]
    show, _ = made(show, {f"{lead}/house/on": True, f"{lead}/group/3/on": False})
    silent, _ = made(show, {f"{one}/{lead}/level": -math.inf for one in SINGERS})
    assert [f for f in findings(silent) if f.rule == "lift_breaks_promise"]  # a key opens these too
    [found] = [f for f in findings(show) if f.rule == "lift_breaks_promise"]
    assert found.about == "lift/1"
    assert "Source 1 reaches House by Voices lead, past All" in found.says
    up, _ = made(show, lift_singers(show, "lift/1", ["channel/2"], on=True))
    (broken,) = promises(up, flow_of(up))
    first, *_ = broken.breaches[0].remedies  # nobody else goes by it: the group as a whole
    assert first.says == "Put Voices lead into All instead of House"
    assert promises(mended := made(up, first.moves)[0], flow_of(mended))[0].kept


def test_why_walks_through_both_groups_and_names_each_cause():
    values: dict[str, Value] = {
        "channel/1/source": "input/local/1", "channel/1/fader": 0.0, "channel/1/house/on": False,
        "channel/1/group/1/on": True, "group/1/format": "mono", "group/2/format": "stereo",
        "group/1/house/on": False, "group/1/group/2/on": True, "group/1/group/2/level": -3.0,
        "group/1/name": "Voices", "group/2/name": "All", "output/local/1/source": "house/left",
    }  # fmt: skip
    show = show_of(TINY, values)
    flow = flow_of(show)
    assert flow.level("channel/1", "house") == pytest.approx(
        Referee(show).answer("channel/1", "house")[1]
    )
    (way,) = why(show, "channel/1", "house", flow=flow).ways
    assert [step.address for step in way.steps if step.address] == [
        "channel/1/fader", "channel/1/group/1/on", "group/1/fader", "group/1/group/2/level",
        "group/2/fader", "group/2/house/on", "house/fader", "output/local/1/trim",
    ]  # fmt: skip
    shut = edited(show, flow, {"group/1/mute": True, "group/2/fader": -math.inf})
    assert shut.flow.state_of("channel/1", "house") is State.MUTED
    reasons = [one.address for one in why(shut.show, "channel/1", "house", flow=shut.flow).reasons]
    assert reasons == ["group/1/mute", "group/2/fader"]
    off = edited(show, flow, {"group/1/group/2/level": -math.inf})
    assert off.flow.state_of("channel/1", "house") is State.UNROUTED
