"""A show on another desk over HTTP: told before, taken, aside through files and new numbers."""

import json

import pytest
from asgiref.sync import sync_to_async
from django.test import AsyncClient
from pydantic import TypeAdapter

from ombrel.demo import DEMO_DESK, demo_show
from ombrel.server import models
from ombrel.server.asks.every import Ask
from ombrel.server.keeping.desks import desk_of
from ombrel.server.keeping.request import Refused

from .conftest import make, stored
from .test_api import upload


@pytest.fixture
def demo(show):
    make(show, demo_show(desk_of(DEMO_DESK)).values)
    return show


async def post(client, path, **what):
    return await client.post(path, json.dumps(what), content_type="application/json")


async def test_what_does_not_fit_is_told_kept_aside_and_back_whole_by_way_of_a_file(demo, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    look = (await post(client, f"/api/shows/{demo.pk}/elsewhere/look", desk="small-24")).json()
    assert look["desk"] == "Small 24"
    assert {box["key"]: box["to"] for box in look["boxes"]}["a"] == ""
    assert any("channels 25-40" in one["says"] for one in look["told"])
    assert await models.Show.objects.acount() == 1
    taken = (await post(client, f"/api/shows/{demo.pk}/elsewhere", desk="small-24")).json()
    small = await models.Show.objects.aget(pk=taken["id"])
    assert (small.desk, small.name) == ("small-24", "The Salt Road")
    content = (await client.get(f"/api/shows/{small.pk}/file")).content
    opened = (await client.post("/api/shows/file", {"file": upload(content, "x.json")})).json()
    back = await post(client, f"/api/shows/{opened['id']}/elsewhere", desk=DEMO_DESK)
    whole = await models.Show.objects.aget(pk=back.json()["id"])
    assert (await sync_to_async(stored)(whole)).own == (await sync_to_async(stored)(demo)).own


async def test_strips_that_got_other_numbers_meanwhile_come_back_by_these_undone_ones_too(
    demo, ann
):
    client = AsyncClient()
    await client.aforce_login(ann)
    taken = (await post(client, f"/api/shows/{demo.pk}/elsewhere", desk="small-24")).json()
    small = await models.Show.objects.aget(pk=taken["id"])
    before = await sync_to_async(stored)(small)
    swap = TypeAdapter(Ask).validate_python({"action": "move_channels", "channels": "17", "to": 18})
    done = await sync_to_async(make)(small, swap.plan, ann)
    assert not isinstance(done, Refused)
    back = (await post(client, f"/api/shows/{small.pk}/elsewhere", desk=DEMO_DESK)).json()
    whole = await sync_to_async(stored)(await models.Show.objects.aget(pk=back["id"]))
    demo_now = await sync_to_async(stored)(demo)
    one, two = demo_now.text("channel/17/name"), demo_now.text("channel/18/name")
    assert (whole.text("channel/18/name"), whole.text("channel/17/name")) == (one, two)
    # a send to a mix that the small desk has not went with its channel
    assert before.desk.mixes < 10
    for leaf in ("send/mix/10/level", "dca/9/on"):
        for old, new in ((17, 18), (18, 17)):
            assert whole[f"channel/{new}/{leaf}"] == demo_now[f"channel/{old}/{leaf}"], (leaf, old)


async def test_a_show_that_is_moved_leaves_the_list_and_others_who_have_it_open_are_named(
    demo, ann, monkeypatch
):
    client = AsyncClient()
    await client.aforce_login(ann)
    path = f"/api/shows/{demo.pk}/elsewhere"
    monkeypatch.setattr("ombrel.server.api.shows.open_by", lambda show_id: ["ben"])
    named = await post(client, path, desk="festival-128", move=True)
    assert named.status_code == 409
    assert "ben has it open" in named.json()["message"]
    assert await models.Show.everything.acount() == 1
    moved = (await post(client, path, desk="festival-128", move=True, sure=True)).json()
    assert [row.pk async for row in models.Show.objects.all()] != [demo.pk]
    assert moved["desk"] == "festival-128"
    assert not await models.Aside.objects.aexists()  # all of it fits
    bad = await post(client, path, desk="nowhere")
    assert bad.status_code in (404, 422)


async def test_a_desk_or_a_box_that_there_is_not_is_refused_and_nothing_made(demo, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    path = f"/api/shows/{demo.pk}/elsewhere"
    for bad in ({"desk": "nowhere"}, {"desk": "small-24", "boxes": {"a": "x"}},
                {"desk": "small-24", "boxes": {"a": "local", "b": "local"}}):  # fmt: skip
        for where in (path, f"{path}/look"):
            assert (await post(client, where, **bad)).status_code == 422, bad
    assert await models.Show.objects.acount() == 1
