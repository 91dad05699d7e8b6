"""Shares of one gain on the wire: told to who looks, by the stage's levels, on every screen."""

import asyncio

import pytest
from asgiref.sync import sync_to_async

from ombrel.server.links.stage import stage_link
from ombrel.server.screen import rooms

from .conftest import make
from .test_socket import Screen

pytestmark = pytest.mark.django_db(transaction=True)

LOUD = {"input/a/1": -20.0, "input/a/2": -20.0}


@pytest.fixture
def panel(show):
    """Two who share gain, on open faders."""
    moves: dict[str, object] = {f"channel/{n}/sharing/group": "sharing/1" for n in (1, 2)}
    moves |= {f"channel/{n}/fader": 0.0 for n in (1, 2)}
    moves |= {f"channel/{n}/source": f"input/a/{n}" for n in (1, 2)}
    moves |= {"output/local/1/source": "house/left", "output/local/2/source": "house/right"}
    make(show, moves | {"sharing/1/name": "Panel"})
    return show


class Looking(Screen):
    """A screen that draws shares. `past`: the minute that it was told first."""

    past: dict


async def looking(show, person, **more):
    screen = Looking(show, person)
    await screen.open()
    await screen.say(type="watch", sharing=True, view="sharing", **more)
    screen.past = await screen.next("shares_past")  # from here on the stage is listened to
    return screen


def measured(levels):
    for told in list(stage_link()._wanting):
        told(levels)


async def told(screen, levels, until=lambda now: True):
    """Shares after levels of the stage, once they are as awaited."""
    for _ in range(400):
        measured(levels)
        now = await screen.next("shares")
        await asyncio.sleep(0.01)  # means take their time
        if until(now):
            return {one["strip"]: one["share"] for one in now["groups"][0]["members"]}
    raise AssertionError("shares never came to it")


async def test_how_groups_stand_is_told_and_follows(panel, ann):
    screen = await looking(panel, ann, tried={"sharing/1": "all at -20, 2 at -26"})
    stands = await screen.next("sharing")
    (group,) = stands["groups"]
    assert group["says"] == "Channel 1 wins by 6.0 dB."
    assert stands["places"] == [2, 24]
    assert [row["needs_db"] for row in group["members"]] == [None, 6.0]
    await screen.do([{"address": "channel/2/sharing/weight", "value": 9.0}])
    while (await screen.next("sharing"))["groups"][0]["wins"] != "channel/2":
        pass
    await screen.say(type="watch", sharing=True, tried={"sharing/1": "nobody at -3"})
    while not (now := (await screen.next("sharing"))["groups"][0])["refused"]:
        pass
    assert now["says"] == ""


async def test_shares_follow_the_stage_on_every_screen_and_end_with_the_last(panel, ann, ben):
    one = await looking(panel, ann)
    assert one.past["shares"] == []
    both = await told(one, LOUD, lambda now: now["groups"][0]["floor"] != "")
    assert both == pytest.approx({"channel/1": 0.5, "channel/2": 0.5}, abs=1e-3)
    # one falls silent: the other has all of it, a few time constants later
    alone = await told(
        one, {"input/a/1": -20.0}, lambda now: now["groups"][0]["members"][0]["share"] > 0.99
    )
    assert sum(alone.values()) == pytest.approx(1.0, abs=1e-3)
    # who comes later has the minute so far
    other = await looking(panel, ben)
    past = other.past
    assert [sum(part.values()) for part in past["shares"]] == pytest.approx(
        [1.0] * len(past["shares"]), abs=1e-3
    )
    assert past["shares"]
    await one.socket.disconnect()
    await told(other, LOUD)
    await other.say(type="watch", sharing=False)
    for _ in range(100):
        if not stage_link()._wanting:
            break
        await asyncio.sleep(0.02)
    assert not stage_link()._wanting


async def test_a_mute_takes_its_share_at_once(panel, ann):
    screen = await looking(panel, ann)
    await told(screen, LOUD, lambda now: now["groups"][0]["members"][0]["share"] > 0.4)
    await screen.do([{"address": "channel/1/mute", "value": True}])
    now = await told(
        screen, LOUD, lambda now: now["groups"][0]["members"][0]["standing"] == "muted"
    )
    assert now == pytest.approx({"channel/1": 0.0, "channel/2": 1.0})


async def test_why_says_the_share_of_the_moment_while_it_is_measured(panel, ann):
    screen = Screen(panel, ann)
    await screen.open()
    await screen.say(type="watch", why={"source": "channel/1", "listener": "house"}, view="hears")
    said = await _share_in_why(screen)
    assert said == "shares gain in Panel: 0 dB alone, \N{MINUS SIGN}3.0 when both speak"
    for _ in range(200):
        measured(LOUD)
        await asyncio.sleep(0.05)
        if rooms.open_room(panel.pk).shared.now:
            break
    for _ in range(100):
        measured(LOUD)
        if "dB now, 0 alone" in (said := await _share_in_why(screen)):
            break
    assert "dB now, 0 alone" in said
    # another cell hangs on no shares: nothing is asked of the stage any more
    await screen.say(type="watch", why={"source": "channel/9", "listener": "house"}, view="hears")
    await screen.next("why")
    assert not stage_link()._wanting


async def _share_in_why(screen):
    why = await screen.next("why")
    (step,) = [one for way in why["ways"] for one in way["steps"] if one["kind"] == "sharing"]
    return step["detail"]


async def test_who_talks_is_the_group_and_no_other(panel, ann, monkeypatch):
    said = []
    monkeypatch.setattr(stage_link(), "_say", said.append)
    await sync_to_async(make)(
        panel,
        {
            f"line/{n}/{leaf}": value
            for n in (1, 2, 3)
            for leaf, value in (("place", float(n)), ("socket", f"input/a/{n}"))
        },
    )
    screen = await looking(panel, ann)
    await screen.say(type="talk", group="sharing/1", on=True)
    await told(screen, LOUD, lambda now: now["talking"] == ["sharing/1"])
    assert stage_link().fed == {1, 2}
    await screen.say(type="talk", group="sharing/1", on=False)
    await told(screen, LOUD, lambda now: now["talking"] == [])
    assert stage_link().fed == set()
    assert any(b"speech" in one for one in said)
