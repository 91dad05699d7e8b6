"""A strip's path and curves over the wire: told when they move, and drawn ahead of an edit."""

import uuid

import pytest
from asgiref.sync import sync_to_async

from .conftest import make, stored
from .test_socket import Screen


@pytest.fixture
def fiddle(show):
    make(
        show,
        {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle", "channel/1/fader": 0.0,
         "output/local/1/source": "house/left", "channel/1/eq/2/gain": -6.0},
    )  # fmt: skip
    return show


async def test_a_strip_is_told_as_it_stands_and_again_when_something_bears_on_it(fiddle, ann):
    screen = Screen(fiddle, ann)
    await screen.open()
    await screen.say(type="watch", strip="channel/1")
    path, curves = await screen.next("strip"), await screen.next("curves")
    assert [bead["key"] for bead in path["beads"]][:2] == ["line", "preamp"]
    assert [one["name"] for one in path["reaches"]] == ["House"]
    assert len(curves["total_db"]) == len(curves["frequencies_hz"])
    assert min(curves["total_db"]) == pytest.approx(-6.0, abs=0.1)
    await screen.do([{"address": "channel/1/eq/2/gain", "value": -12.0}])
    while min(curves["total_db"]) > -11.0:
        curves = await screen.next("curves")
    while "\u221212.0 at 400 Hz" not in [bead["says"] for bead in path["beads"]]:
        path = await screen.next("strip")


async def test_curves_are_drawn_ahead_of_the_edit_and_keep_nothing(fiddle, ann):
    screen = Screen(fiddle, ann)
    await screen.open()
    move = {"address": "channel/1/eq/3/gain", "value": 9.0}
    await screen.say(type="draw", strip="channel/1", moves=[move])
    drawn = await screen.next("curves")
    assert max(drawn["total_db"]) == pytest.approx(9.0, abs=0.3)
    assert (await sync_to_async(stored)(fiddle))["channel/1/eq/3/gain"] == 0.0
    await screen.say(type="draw", strip="channel/1", moves=[{**move, "value": 99.0}])
    assert (await screen.next("refused"))["code"] in ("edit_refused", "out_of_range")
    await screen.say(type="draw", strip="dca/1", moves=[])
    assert (await screen.next("refused"))["code"] == "unknown_address"


async def test_settings_are_copied_and_made_neutral_by_asks(fiddle, ann):
    screen = Screen(fiddle, ann)
    await screen.open()
    ask = {"action": "copy_strip", "strip": "channel/1", "to": "2-3", "aspects": ["eq"]}
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="copy", ask=ask)
    assert (await screen.next("done"))["says"] == "eq of Fiddle to 2-3"
    assert (await sync_to_async(stored)(fiddle))["channel/3/eq/2/gain"] == -6.0
    ask = {"action": "neutral", "strips": ["channel/1"], "aspects": ["eq"]}
    await screen.say(type="do", id=str(uuid.uuid4()), gesture="clear", ask=ask)
    await screen.next("done")
    assert (await sync_to_async(stored)(fiddle))["channel/1/eq/2/gain"] == 0.0


async def test_a_bus_tells_what_it_expects_and_levels_alone_bring_the_finding(fiddle, ann):
    await sync_to_async(make)(
        fiddle,
        {"line/1/place": 1.0, "line/1/name": "Fiddle", "line/1/socket": "input/a/1",
         "line/1/level_dbu": -20.0, "input/a/1/gain": 40.0, "channel/1/pan": -1.0},
    )  # fmt: skip
    screen = Screen(fiddle, ann)
    await screen.open()
    await screen.say(type="watch", strip="house")
    path = await screen.next("strip")
    assert path["expected"]["dbfs"] == pytest.approx(-1.0, abs=0.01)
    assert [one["name"] for one in path["expected"]["loudest"]] == ["Fiddle"]
    await screen.do([{"address": "channel/1/fader", "value": 6.0}])
    while (await screen.next("strip"))["expected"]["dbfs"] < 3.9:
        pass
    rules: set[str] = set()
    while "bus_past_full_scale" not in rules:
        rules = {finding["rule"] for finding in (await screen.next("noticed"))["findings"]}
