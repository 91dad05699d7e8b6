"""Lifts over the wire: their steps told, what is on its way planned once for all screens."""

import uuid

import pytest

from ombrel.server.keeping.live import live_of

from .conftest import make
from .test_rulers import asked
from .test_socket import Screen


@pytest.fixture
def choir(show):
    voices = {f"channel/{n}/{leaf}": value for n in (1, 2)
              for leaf, value in (("source", f"input/a/{n}"), ("fader", 0.0))}  # fmt: skip
    groups = {f"group/{n}/format": "stereo" for n in (1, 2)}
    into = {f"channel/{n}/group/1/on": True for n in (1, 2)}
    lift = {"lift/1/backing": "group/1", "lift/1/lead": "group/2", "lift/1/seconds": 2.0}
    make(show, {**voices, **groups, **into, **lift})
    return show


def lift(strip, *, on=True):
    return {"action": "lift", "lift": "lift/1", "strips": [strip], "on": on}


async def test_a_lift_stands_at_once_and_every_screen_gets_its_plan(choir, ann, ben):
    one, two = Screen(choir, ann), Screen(choir, ben)
    await one.open()
    await two.open()
    await one.say(type="watch", lifts=True)
    [told] = (await one.next("lifts"))["lifts"]
    assert [singer["lifted"] for singer in told["singers"]] == [False, False]
    assert [step["step_db"] for step in told["singers"][0]["steps"]] == []  # no output: no step
    await asked(one, lift("channel/1"))
    assert (await two.next("moved"))["values"] == {"channel/1/group/2/on": True}
    for screen in (one, two):
        [fade] = (await screen.next("fading"))["fades"]
        assert fade["address"] == "channel/1/group/2/level"
        (begun_ms, start), (ended_ms, target) = fade["points"][0], fade["points"][-1]
        assert (start, target, ended_ms - begun_ms) == (None, 0.0, 2000)
        assert begun_ms <= 0  # from now on: it has been on its way for that long
    assert (await one.next("lifts"))["lifts"][0]["singers"][0]["lifted"] is True
    # another takes its place: one sinks from where it sounds, the other rises; an undo jumps
    await asked(one, lift("channel/2"))
    fades = {fade["address"]: fade["points"] for fade in (await two.next("fading"))["fades"]}
    assert set(fades) == {f"channel/{n}/group/2/level" for n in (1, 2)}
    assert fades["channel/1/group/2/level"][-1][1] is None
    turn = str(uuid.uuid4())
    await one.say(type="undo", id=turn)
    while (await one.next("done"))["id"] != turn:
        pass
    assert live_of(choir.pk).fading == {}


async def test_who_is_no_singer_is_refused_and_nothing_is_on_its_way(choir, ann):
    screen = Screen(choir, ann)
    await screen.open()
    await asked(screen, lift("channel/3"))
    assert "one of its singers" in (await screen.next("refused"))["message"]
    much = {"action": "trim_lift", "lift": "lift/1", "typed": "much", "strip": None}
    await asked(screen, much)
    await screen.next("refused")
    assert live_of(choir.pk).fading == {}
