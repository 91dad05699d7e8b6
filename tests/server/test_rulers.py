"""DCAs and mute groups over the wire: true levels are told when they move, and only then."""

import uuid
from datetime import datetime

import pytest
from asgiref.sync import sync_to_async

from .conftest import make
from .test_socket import Screen


@pytest.fixture
def band(show):
    make(
        show,
        {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle", "channel/1/fader": -5.0,
         "channel/2/source": "input/a/2", "channel/2/fader": 0.0,
         "output/local/1/source": "house/left", "dca/1/name": "Strings", "dca/2/name": "Band",
         "channel/1/dca/1/on": True, "dca/1/dca/2/on": True},
    )  # fmt: skip
    return show


def moving(address, value):
    return [{"address": address, "value": value}]


async def asked(screen, ask):
    """The answer to an edit: done or refused."""
    edit_id = str(uuid.uuid4())
    await screen.say(type="do", id=edit_id, gesture=edit_id, ask=ask)
    return edit_id


async def test_true_levels_come_with_the_show_and_again_when_a_dca_moves(band, ann, ben):
    one, two = Screen(band, ann), Screen(band, ben)
    await one.open()
    await two.open()
    whole = await two.next("ruled")
    assert whole["whole"]
    by_both = {"by": ["dca/1", "dca/2"], "level_db": -5.0, "parts": [], "muted": []}
    assert whole["strips"]["channel/1"] == by_both
    assert "channel/2" not in whole["strips"]
    await one.do(moving("dca/2/fader", -3.0))
    moved = await two.next("ruled")
    assert not moved["whole"]
    assert moved["strips"]["channel/1"]["level_db"] == -8.0
    assert moved["strips"]["channel/1"]["parts"] == [["dca/2", -3.0]]
    assert moved["strips"]["dca/1"]["level_db"] == -3.0
    await one.do(moving("channel/2/fader", -20.0))  # nothing rules it: nothing is told of it
    await one.do(moving("dca/1/mute", True))
    muted = await two.next("ruled")
    assert muted["strips"]["channel/1"]["muted"] == ["dca/1/mute"]
    assert "channel/2" not in muted["strips"]


async def test_a_group_is_named_filled_looked_at_and_cleared_by_its_asks(band, ann):
    screen = Screen(band, ann)
    await screen.open()
    await asked(screen, {"action": "make_rulers", "kind": "mute_group", "names": ["Plug in"]})
    await screen.next("done")
    fill = {"action": "members", "ruler": "mute_group/1", "strips": "1-2", "exactly": True}
    await asked(screen, fill)
    assert (await screen.next("done"))["says"] == "1-2 into Plug in"
    await screen.say(type="watch", ruler="mute_group/1")
    reach = await screen.next("reach")
    assert reach["closed"] == 2
    assert [one["closes"] for one in reach["listeners"]] == [2]
    await screen.say(type="watch", closing=True)
    closes = await screen.next("closing")
    assert closes["cells"]["mute_group/1"] == 2
    await screen.say(type="watch", silent=True)
    assert (await screen.next("silent"))["count"] == 0
    await screen.say(type="watch", ruler="mute_group/1")
    await asked(screen, {**fill, "strips": "2"})
    await screen.next("done")
    while reach["closed"] != 1:  # explanations that came before are passed over
        reach = await screen.next("reach")
    await asked(screen, {"action": "clear_ruler", "ruler": "mute_group/1"})
    assert (await screen.next("done"))["says"] == "Plug in cleared"
    await asked(screen, {"action": "mute_all", "what": "ears"})
    assert (await screen.next("refused"))["code"] == "nothing_left"


async def test_joining_is_shown_first_with_what_keeps_the_levels(band, ann):
    await sync_to_async(make)(band, {"dca/2/fader": -3.0})
    screen = Screen(band, ann)
    await screen.open()
    ask = {"action": "members", "ruler": "dca/2", "strips": "2", "on": True}
    await screen.say(type="try", id=str(uuid.uuid4()), ask=ask)
    compensation = (await screen.next("preview"))["compensation"]
    assert compensation["jumps"] == [["channel/2", 0.0, -3.0]]
    (keep,) = compensation["keep"]
    assert (keep["address"], keep["value"]) == ("channel/2/fader", 3.0)
    await asked(screen, {**ask, "also": compensation["keep"]})
    await screen.next("done")
    again = await screen.next("ruled")
    while "channel/2" not in again["strips"]:
        again = await screen.next("ruled")
    assert again["strips"]["channel/2"]["level_db"] == 0.0


async def test_what_a_hand_did_just_before_counts_in_what_it_is_shown(band, ann):
    screen = Screen(band, ann)
    await screen.open()
    join = {"action": "members", "ruler": "dca/2", "strips": "2", "on": True}
    down = {"action": "moves", "moves": moving("dca/2/fader", -3.0)}

    async def jumps(**before):
        """What joining would do, asked right behind something else: nothing is awaited between."""
        await screen.say(id=str(uuid.uuid4()), **before)
        await screen.say(type="try", id=str(uuid.uuid4()), ask=join)
        return (await screen.next("preview"))["compensation"]["jumps"]

    assert await jumps(type="do", gesture="down", ask=down) == [["channel/2", 0.0, -3.0]]
    assert await jumps(type="undo") == []
    assert await jumps(type="redo") == [["channel/2", 0.0, -3.0]]


async def test_a_safe_key_and_a_circle_are_refused_by_name(band, ann):
    await sync_to_async(make)(band, {"mute_group/1/name": "Plug in", "mute_group/1/safe": True})
    screen = Screen(band, ann)
    await screen.open()
    await screen.do(moving("mute_group/1/on", True))
    refused = await screen.next("refused")
    assert (refused["code"], "Plug in" in refused["message"]) == ("mute_group_safe", True)
    await asked(screen, {"action": "members", "ruler": "dca/1", "strips": "dca 2"})
    refused = await screen.next("refused")
    assert refused["code"] == "circle"
    assert "Band in Strings in Band" in refused["message"]


async def test_what_is_unfolded_is_told_again_when_its_members_change(band, ann):
    screen = Screen(band, ann)
    await screen.open()
    await screen.say(type="watch", unfold=["dca/2"])
    assert (await screen.next("unfolded"))["strips"] == {"dca/2": ["dca/1"]}
    await asked(screen, {"action": "members", "ruler": "dca/2", "strips": "2"})
    strips = []
    while "channel/2" not in strips:
        strips = (await screen.next("unfolded"))["strips"]["dca/2"]
    assert strips == ["dca/1", "channel/2"]
    await screen.say(type="watch", unfold=["input/a/1"])  # nothing that unfolds: said, and no more
    assert (await screen.next("refused"))["code"] == "unknown_address"


async def test_banks_are_made_filled_and_refused_by_their_asks(band, ann):
    screen = Screen(band, ann)
    await screen.open()
    await asked(screen, {"action": "make_banks", "names": ["Strings"]})
    await screen.next("done")
    await asked(screen, {"action": "fill_bay", "bank": 1, "bay": 1, "strips": "1-2, dca 1"})
    assert (await screen.next("done"))["says"] == "Bank 1: 1-2, dca 1"
    await asked(screen, {"action": "fill_bay", "bank": 1, "bay": 9, "strips": "1"})
    assert (await screen.next("refused"))["code"] == "unknown_address"
    await asked(screen, {"action": "clear_bank", "bank": 1})
    await screen.next("done")


async def test_why_tells_who_holds_a_key_that_no_remedy_may_move_and_since_when(band, ann, ben):
    await sync_to_async(make)(
        band,
        {
            "mute_group/1/hard": True,
            "mute_group/1/name": "Plug in",
            "channel/1/mute_group/1/on": True,
        },
    )
    other = Screen(band, ben)
    await other.open()
    await other.do(moving("mute_group/1/on", True))
    await other.next("done")
    screen = Screen(band, ann)
    await screen.open()
    await screen.say(type="watch", why={"source": "channel/1", "listener": "house"})
    told = await screen.next("set_by")
    assert told["keys"]["mute_group/1/on"]["by"] == "ben"
    assert datetime.fromisoformat(told["keys"]["mute_group/1/on"]["at"])


async def test_solo_in_place_is_told_strip_by_strip_and_cleared_by_one_ask(band, ann):
    screen = Screen(band, ann)
    await screen.open()
    await screen.next("ruled")
    await screen.do(moving("show/solo", "in_place"))
    await screen.do(moving("channel/1/solo", True))
    told = await screen.next("ruled")
    while "channel/2" not in told["strips"]:
        told = await screen.next("ruled")
    assert told["strips"]["channel/2"]["muted"] == ["show/solo"]
    assert told["strips"]["channel/1"]["muted"] == []
    await asked(screen, {"action": "clear_solos"})
    told = await screen.next("ruled")
    while "channel/2" in told["strips"]:
        told = await screen.next("ruled")
    assert told["whole"]
