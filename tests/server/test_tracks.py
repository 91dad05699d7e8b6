"""The track plan on the wire: looked for, taken, refused when it comes late, seen by all."""

import uuid

import pytest
from asgiref.sync import sync_to_async

from ombrel.server.models import Setting

from .conftest import make
from .test_socket import Screen

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def band(show):
    """Two channels to be recorded, and the house, which nobody may leave out."""
    moves: dict[str, object] = {f"channel/{n}/source": f"input/a/{n}" for n in (1, 2)}
    moves |= {f"wish/{n}/place": float(n) for n in (1, 2, 3)}
    moves |= {f"wish/{n}/source": f"channel/{n}" for n in (1, 2)}
    make(show, moves | {"wish/3/source": "house", "wish/3/tap": "after_fader"})
    make(show, {"wish/3/stereo": True, "channel/1/name": "Kick"})
    return show


class Person(Screen):
    async def ask(self, ask, answer="done"):
        edit = str(uuid.uuid4())
        await self.say(type="do", id=edit, gesture=edit, ask=ask)
        return await self.next(answer)


async def planned(screen):
    """The newest plan that is asked for; how far it is comes before."""
    asked = str(uuid.uuid4())
    await screen.say(type="plan_tracks", id=asked)
    while (told := await screen.next("planning"))["id"] != asked:
        pass  # of the search before
    assert told["of"] >= 1
    found = await screen.next("plan_found")
    assert found["id"] == asked
    return found


def given(found):
    return [{key: row[key] for key in ("wish", "track", "mix")} for row in found["rows"]]


async def test_a_plan_is_found_taken_as_one_and_seen_by_all(band, ann, ben):
    one, other = Person(band, ann), Person(band, ben)
    for screen in (one, other):
        await screen.open()
        await screen.say(type="watch", tracks=True, view="tracks")
        assert (await screen.next("tracks"))["wishes"][0]["name"] == "Kick"
    found = await planned(one)
    assert [row["track"] for row in found["rows"]] == [1, 2, 3]
    assert found["changes"] == 4
    done = await one.ask({"action": "take_plan", "given": given(found)})
    assert done["says"] == "Track plan: 3 of 3 wishes"
    while not (stands := await other.next("tracks"))["tracks"][0]["carries"]:
        pass
    assert [row["name"] for row in stands["tracks"]][:4] == ["Kick", "Channel 2", "House L",
                                                             "House R"]  # fmt: skip
    assert all(row["stands"] for row in stands["wishes"])
    kept = await sync_to_async(
        lambda: dict(Setting.objects.filter(show=band).values_list("address", "value"))
    )()
    assert kept["output/recorder/3/source"] == "house/left"
    again = await planned(one)
    assert again["changes"] == 0


async def test_a_plan_that_comes_late_is_refused_and_nothing_is_half_done(band, ann, ben):
    one, other = Person(band, ann), Person(band, ben)
    await one.open()
    await other.open()
    found = await planned(one)
    await other.ask({"action": "add_wishes", "text": "talkback"})
    refused = await one.ask({"action": "take_plan", "given": given(found)}, "refused")
    assert "Plan again" in refused["message"]
    await other.ask({"action": "hold_back", "tracks": "1-32"})
    none = await planned(one)
    assert not none["found"]
    assert none["counts"] == ["5 of 0 tracks", "1 of 0 pairs of tracks, odd and even"]
    assert none["fewest"]["says"].startswith("Leave out 4")


async def test_playback_is_one_edit_with_its_loops_told_before(band, ann):
    screen = Person(band, ann)
    await screen.open()
    found = await planned(screen)
    await screen.ask({"action": "take_plan", "given": given(found)})
    await screen.ask({"action": "lay_playback"})
    await screen.say(
        type="try", id=str(uuid.uuid4()), ask={"action": "switch_playback", "on": True}
    )
    told = await screen.next("preview")
    assert any("record themselves" in says for says in told["told"])
    await screen.ask({"action": "switch_playback", "on": True})
    await screen.say(type="undo", id=str(uuid.uuid4()))
    await screen.next("done")
    await screen.ask({"action": "switch_playback", "on": False}, "refused")
