"""Gangs over the wire: who leads, what a hand holds, and when it has let go."""

import asyncio
import uuid

import pytest
from asgiref.sync import sync_to_async

from ombrel.server.asks.scenes import StoreScene
from ombrel.server.keeping.live import live_of

from .conftest import make, stored
from .test_socket import Screen


@pytest.fixture
def toms(show):
    values = {f"channel/{n}/gang/1/on": True for n in (1, 2, 3)}
    make(show, values | {f"channel/{n}/fader": -10.0 for n in (1, 2, 3)})
    return show


async def lead(screen, channel, value, gesture, **hand):
    """A hand moves a fader; gives what was kept or why not."""
    ask = {
        "action": "moves",
        "moves": [{"address": f"channel/{channel}/fader", "value": value}],
        "by_hand": {"stays": True, **hand},
    }
    await screen.say(type="do", id=str(uuid.uuid4()), gesture=gesture, ask=ask)
    return await screen.next("done")


async def let_go(show, screen, gesture):
    await screen.say(type="let_go", gesture=gesture)
    await no_hand(show, gesture)


async def no_hand(show, gesture):
    for _ in range(100):
        if gesture not in live_of(show.pk).hands:
            return
        await asyncio.sleep(0.02)
    raise AssertionError(f"{gesture} still holds something")


async def faders(show):
    kept = await sync_to_async(stored)(show)
    return [kept[f"channel/{n}/fader"] for n in (1, 2, 3)]


async def test_gangs_follow_the_hand_and_an_edit_without_one_is_complete_in_itself(toms, ann):
    screen = Screen(toms, ann)
    await screen.open()
    await lead(screen, 1, -8.0, "one")
    assert await faders(toms) == [-8.0, -8.0, -8.0]
    await screen.do([{"address": "channel/1/fader", "value": -20.0}])
    await screen.next("done")
    assert await faders(toms) == [-20.0, -8.0, -8.0]


async def test_the_first_hand_leads_and_nothing_moves_what_the_second_holds(toms, ann, ben):
    one, two = Screen(toms, ann), Screen(toms, ben)
    await one.open()
    await two.open()
    await lead(one, 1, -8.0, "first")
    await lead(
        two, 2, -5.0, "second"
    )  # begun while the first leads: alone, for as long as it lasts
    assert await faders(toms) == [-8.0, -5.0, -8.0]
    await lead(one, 1, -9.0, "first")
    assert await faders(toms) == [-9.0, -5.0, -9.0]  # the second's is held
    await let_go(toms, one, "first")
    await lead(two, 2, -4.0, "second")
    assert await faders(toms) == [-9.0, -4.0, -9.0]
    await let_go(toms, two, "second")
    await lead(one, 1, -10.0, "third")
    assert await faders(toms) == [-10.0, -5.0, -10.0]  # its offset is a new one


async def test_both_hands_on_one_member_carry_and_a_screen_that_goes_lets_go(toms, ann, ben):
    one, two = Screen(toms, ann), Screen(toms, ben)
    await one.open()
    await two.open()
    await lead(one, 1, -8.0, "first")
    await lead(two, 1, -7.0, "second")
    assert await faders(toms) == [-7.0, -7.0, -7.0]
    await two.say(type="let_go", gesture="first")  # not its own: nothing comes of it
    await lead(two, 1, -6.0, "second")
    assert set(live_of(toms.pk).hands) == {"first", "second"}
    await one.socket.disconnect()
    await no_hand(toms, "first")
    await two.socket.disconnect()
    await no_hand(toms, "second")


async def test_a_page_that_comes_back_by_another_connection_has_no_ghost_hands(toms, ann, ben):
    """Nobody has noticed yet that the first connection is dead."""
    dead, other = Screen(toms, ann), Screen(toms, ben)
    await dead.open()
    await dead.say(type="hello", since=None, page="tab")
    await dead.next("snapshot")
    await other.open()
    await lead(dead, 1, -8.0, "ghost")
    assert "ghost" in live_of(toms.pk).hands
    back = Screen(toms, ann)
    await back.socket.connect()
    await back.say(type="hello", since=None, page="tab")
    await back.next("snapshot")
    await no_hand(toms, "ghost")
    await lead(other, 2, -5.0, "other")  # leads the gang at once
    assert await faders(toms) == [-5.0, -5.0, -5.0]
    await let_go(toms, other, "other")
    # a hand that goes on by the new connection is let go by it, and outlives the old one's end
    await lead(back, 1, -6.0, "same")
    await dead.socket.disconnect()
    await asyncio.sleep(0.2)
    assert "same" in live_of(toms.pk).hands
    await other.say(type="let_go", gesture="same")  # another person's page: nothing comes of it
    await let_go(toms, back, "same")


async def test_who_moves_alone_keeps_nobody_from_leading_and_is_passed_by(toms, ann, ben):
    one, two = Screen(toms, ann), Screen(toms, ben)
    await one.open()
    await two.open()
    await lead(one, 1, -8.0, "alone", alone=True)
    assert await faders(toms) == [-8.0, -10.0, -10.0]
    await lead(two, 2, -5.0, "leads")
    assert await faders(toms) == [-8.0, -5.0, -5.0]


async def test_a_recall_under_a_finger_leaves_it_that_and_its_gang_goes_on_from_there(toms, ann):
    store = StoreScene.model_validate({"action": "store_scene", "name": "One"})
    named = {f"channel/{n}/name": f"Tom {n}" for n in (1, 2, 3)}
    await sync_to_async(make)(toms, named)
    await sync_to_async(make)(toms, {f"channel/{n}/fader": -30.0 for n in (1, 2, 3)})
    await sync_to_async(make)(toms, store.plan)
    await sync_to_async(make)(toms, {f"channel/{n}/fader": -10.0 for n in (1, 2, 3)})
    screen = Screen(toms, ann)
    await screen.open()
    await lead(screen, 1, -9.5, "finger")
    recall = {"action": "recall_scene", "scene": "scene/1"}
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="recall", ask=recall)
    assert "1 under a hand" in (await screen.next("done"))["says"]
    assert await faders(toms) == [-9.5, -30.0, -30.0]
    await lead(screen, 1, -9.0, "finger")
    assert await faders(toms) == [-9.0, -29.5, -29.5]


async def test_a_selection_keeps_its_places_while_the_hand_is_down(toms, ann):
    screen = Screen(toms, ann)
    await screen.open()
    await screen.do([{"address": "channel/3/gang/1/on", "value": False}])
    await screen.next("done")
    beside = ["channel/1", "channel/3"]
    await lead(screen, 1, 6.0, "up", beside=beside)
    await lead(screen, 1, 0.0, "up", beside=beside)
    assert await faders(toms) == [0.0, 0.0, 0.0]
    await screen.do([{"address": "channel/3/fader", "value": 3.0}])
    await screen.next("done")
    await let_go(toms, screen, "up")
    await lead(screen, 1, 6.0, "again", beside=beside)
    assert await faders(toms) == [6.0, 6.0, 6.0]
    await lead(screen, 1, 0.0, "again", beside=beside)
    assert await faders(toms) == [0.0, 0.0, 3.0]
    assert not [a for a in (await sync_to_async(stored)(toms)).values if a.endswith("/kept")]


async def test_a_hand_that_the_show_refuses_holds_nothing_and_undo_takes_a_gesture_back(toms, ann):
    screen = Screen(toms, ann)
    await screen.open()
    ask = {
        "action": "moves",
        "moves": [{"address": "channel/1/fader", "value": 20.0}],
        "by_hand": {"stays": True},
    }
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="far", ask=ask)
    assert (await screen.next("refused"))["code"] == "out_of_range"
    assert live_of(toms.pk).hands == {}
    for level in (0.0, 6.0, 2.0):
        await lead(screen, 1, level, "ride")
    await screen.say(type="undo", id=str(uuid.uuid4()))
    assert (await screen.next("done"))["says"].startswith("Undone")
    assert await faders(toms) == [-10.0, -10.0, -10.0]
    await screen.say(type="redo", id=str(uuid.uuid4()))
    await screen.next("done")
    assert await faders(toms) == [2.0, 2.0, 2.0]


async def test_pairs_are_linked_by_an_ask_and_shown_beforehand(show, ann):
    await sync_to_async(make)(show, {"channel/1/fader": -7.0, "channel/2/fader": -3.0})
    screen = Screen(show, ann)
    await screen.open()
    ask = {"action": "link_pairs", "kind": "channel", "strips": "1-2", "spread": True}
    await screen.say(type="try", id=str(uuid.uuid4()), ask=ask)
    shown = await screen.next("preview")
    (pair,) = shown["pairs"]
    assert (pair["odd"], pair["name"]) == ("channel/1", "Channel 1 and Channel 2")
    assert "fader: Channel 2 \u22123 dB \u2192 \u22127 dB" in pair["says"]
    assert shown["following"] == 0  # all that changes is told with the pair
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="link", ask=ask)
    assert (await screen.next("done"))["says"] == "Channel 1-2 linked"
    kept = await sync_to_async(stored)(show)
    assert [kept[f"channel/2/{leaf}"] for leaf in ("fader", "pan")] == [-7.0, 1.0]


async def test_what_is_typed_for_one_shows_first_how_far_its_gang_jumps(toms, ann):
    """Of three at -10 one is typed to -30: the others would fall by 20 dB."""
    screen = Screen(toms, ann)
    await screen.open()

    async def typed(text, **hand):
        ask = {
            "action": "moves",
            "moves": [{"address": "channel/1/fader", "typed": text}],
            "by_hand": hand,
        }
        await screen.say(type="do", id=str(uuid.uuid4()), gesture=text, ask=ask)

    await typed("-16")  # 6 dB: as far as nobody turns a head
    await screen.next("done")
    assert await faders(toms) == [-16.0, -16.0, -16.0]
    await typed("-30")
    refused = await screen.next("refused")
    assert refused["code"] == "gang_jumps"
    assert "by \u221214.0 dB" in refused["message"]
    assert await faders(toms) == [-16.0, -16.0, -16.0]
    alone, all_of_them = refused["ways"]
    ask = {"action": "moves", "moves": all_of_them["moves"], "by_hand": {"sure": True}}
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="all", ask=ask)
    await screen.next("done")
    assert await faders(toms) == [-30.0, -30.0, -30.0]
    await typed("off")
    assert "off" in (await screen.next("refused"))["message"]
    ask = {"action": "moves", "moves": alone["moves"]}
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="one", ask=ask)
    await screen.next("done")
    assert not alone["by_hand"]
