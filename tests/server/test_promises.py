"""Promises over the wire: told beforehand, judged after every edit that bears on them, mended."""

import uuid

import pytest

from .conftest import make
from .test_rulers import asked, moving
from .test_socket import Screen


@pytest.fixture
def band(show):
    make(
        show,
        {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle", "channel/1/fader": 0.0,
         "channel/2/source": "input/a/2", "channel/2/name": "Kick", "channel/2/fader": 0.0,
         "channel/3/source": "input/a/3", "channel/3/name": "Click", "channel/3/house/on": False},
    )  # fmt: skip
    return show


BETWEEN = {"action": "put_between", "strips": "1-3", "name": "Band", "limit": "-6"}


async def judged(screen, when):
    """The promises as they are told once `when` holds of them."""
    while True:
        told = (await screen.next("noticed"))["promises"]
        if when(told):
            return told


async def test_a_group_in_between_is_shown_first_made_in_one_and_watched(band, ann, ben):
    one, two = Screen(band, ann), Screen(band, ben)
    await one.open()
    await two.open()
    await one.say(type="try", id=str(uuid.uuid4()), ask=BETWEEN)
    shown = await one.next("preview")
    assert shown["says"].endswith("left out: 3")
    assert (shown["silenced"], shown["opened"], shown["breaks"]) == ([], [], [])
    await asked(one, BETWEEN)
    (kept,) = await judged(two, lambda told: told)
    assert (kept["breaking"], kept["passing"], kept["vain"]) == (0, 2, "")
    # what would break it says so, and who did is told to everybody
    ask = {"action": "moves", "moves": moving("channel/2/house/on", True)}
    await one.say(type="try", id=str(uuid.uuid4()), ask=ask)
    (breaks,) = (await one.next("preview"))["breaks"]
    assert breaks.endswith("Kick reaches House directly, past Band.")
    await asked(one, ask)
    (broken,) = await judged(two, lambda told: told and told[0]["breaking"])
    assert [breach["open"] for breach in broken["breaches"]] == [True]
    assert (await two.next("set_by"))["keys"]["channel/2/house/on"]["by"] == "ann"
    await asked(two, {"action": "mend_promise", "promise": "promise/1"})
    await judged(one, lambda told: told and not told[0]["breaking"])
    await one.say(type="undo", id=str(uuid.uuid4()))  # ann's own: the breach, mended since
    while not (says := (await one.next("done"))["says"]).startswith("Undone"):
        pass
    assert "left as somebody set them" in says


async def test_a_promise_is_made_typed_anew_and_taken_back(band, ann):
    screen = Screen(band, ann)
    await screen.open()
    await asked(screen, {"action": "make_promise", "sources": "3", "listeners": "house, mono"})
    (made,) = await judged(screen, lambda told: told)
    assert made["says"] == "Click: never in House or Mono"
    await asked(
        screen,
        {"action": "members", "ruler": "promise/1", "strips": "1, 3, house", "exactly": True},
    )
    (broken,) = await judged(screen, lambda told: told and told[0]["breaking"])
    assert broken["breaches"][0]["source"] == "channel/1"
    await asked(screen, {"action": "clear_ruler", "ruler": "promise/1"})
    assert await judged(screen, lambda told: not told) == []
    await asked(screen, {"action": "make_promise", "sources": "3", "listeners": "4"})
    assert "the house, mono, mixes or matrices" in (await screen.next("refused"))["message"]
    await asked(screen, {"action": "pan_strips", "strips": "1-2", "place": "L30"})
    while "channel/2/pan" not in (moved := (await screen.next("moved"))["values"]):
        pass
    assert (moved["channel/1/pan"], moved["channel/2/pan"]) == (-0.3, -0.3)
