"""Performers' phones on the wire: what a link moves, what it is told, and when it moves nothing."""

import asyncio
import json
import random
import re
import time
import urllib.parse
import uuid
from datetime import timedelta

import numpy as np
import pytest
import zxingcpp
from asgiref.sync import sync_to_async
from django.utils import timezone

from ombrel.server import models
from ombrel.server.asks.plans import Planned
from ombrel.server.keeping.door import commit
from ombrel.server.keeping.ear_links import (
    cookie_name,
    digest_of,
    end_links,
    entered,
    make_link,
    renew_link,
)
from ombrel.server.keeping.live import live_of
from ombrel.server.messages.phone import FROM_PHONE
from ombrel.server.screen import rooms
from ombrel.server.screen.phone import LINK_ENDED
from tests.hostile import Hostile

from .conftest import make, request
from .phones import LEVEL, LOWER, PLUGGED, Phone, now, opened
from .test_socket import Screen


@pytest.fixture
def plugged(show):
    make(show, PLUGGED)
    return show


async def test_a_phone_moves_its_mix_is_told_of_it_alone_and_undoes_its_own(plugged, ann):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    (mix,) = phone.told["mixes"]
    assert [one["family"] for one in mix["families"]] == ["drums"]
    assert mix["families"][0]["position_db"] == 0.0
    assert not {"Secret", "Bo"} & set(json.dumps(phone.told).replace('"', " ").split())
    done = await phone.do(LOWER)
    assert done["type"] == "done"
    assert (await now(plugged)).number(LEVEL) == -10.0
    assert phone.told["revision"] == done["revision"]  # the values are told before the answer
    entry = await models.Change.objects.select_related("author").aget(revision=done["revision"])
    assert entry.author.get_username() == "Aoife\u2019s phone"
    # the desk moves another strip's send; the phone's undo turns its own back and nothing else
    await sync_to_async(make)(plugged, {"channel/1/send/mix/2/level": -9.0}, ann)
    await phone.say(type="undo", id=str(uuid.uuid4()))
    await phone.until("done")
    after = await now(plugged)
    assert (after.number(LEVEL), after.number("channel/1/send/mix/2/level")) == (-6.0, -9.0)
    await phone.socket.disconnect()


async def test_a_late_move_is_refused_whole_with_who_and_what(plugged, ann):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    seen = phone.told["revision"]
    await sync_to_async(make)(plugged, {LEVEL: -20.0}, ann)
    refused = await phone.do(LOWER, seen=seen)
    assert refused["code"] == "moved_meanwhile"
    assert "ann" in refused["message"]
    assert (await now(plugged)).number(LEVEL) == -20.0
    # seen, it counts; and one's own earlier moves never refuse
    first = await phone.do({**LOWER, "place": -16.0}, seen=seen + 1)
    second = await phone.do({**LOWER, "place": -18.0}, seen=seen + 1)
    assert (first["type"], second["type"]) == ("done", "done")
    assert (await now(plugged)).number(LEVEL) == -24.0
    again = str(uuid.uuid4())
    await phone.do({**LOWER, "place": -1.0}, edit_id=again)
    kept = await phone.do({**LOWER, "place": -1.0}, edit_id=again)
    assert kept["type"] == "done"
    await phone.socket.disconnect()


async def test_two_phones_of_one_link_undo_each_their_own(plugged):
    link, token = await sync_to_async(make_link)(plugged.pk, "Bo", ["mix/1"])
    cookies = [(await sync_to_async(entered)(token, {}))[1] for _ in range(2)]
    one, other = [await Phone(link, cookie).open() for cookie in cookies]
    await one.do({"action": "to_pan", "of": "channel/1", "pan": 0.5})
    # fingers are seen by who has the same mix
    assert (await other.until("finger"))["who"] == "Bo\u2019s phone"
    while other.told["revision"] != await now_revision(plugged):  # told at its own pace
        await other.until("mixes")
    await other.do(LOWER)
    await one.say(type="undo", id=str(uuid.uuid4()))
    await one.until("done")
    after = await now(plugged)
    assert (after.number(LEVEL), after.number("channel/1/send/mix/1/pan")) == (-10.0, 0.0)
    for phone in (one, other):
        await phone.socket.disconnect()


@sync_to_async
def now_revision(show):
    return models.Show.objects.get(pk=show.pk).revision


async def test_the_thirteenth_phone_takes_the_place_of_the_oldest_and_is_another_hand(plugged):
    link, token = await sync_to_async(make_link)(plugged.pk, "Bo", ["mix/1"])
    enter = sync_to_async(entered)
    cookies = [(await enter(token, {}))[1] for _ in range(14)]
    names = [one.person_id async for one in models.Phone.objects.filter(link=link)]
    assert len(set(names)) == len(names) == 12
    for n, stands in ((0, False), (1, False), (2, True), (13, True)):
        known = models.Phone.objects.filter(cookie_hash=digest_of(cookies[n]))
        assert await known.aexists() == stands
    assert not [one async for one in models.Phone.objects.filter(person__is_active=True)]


async def test_a_lock_a_ceiling_and_a_limit_hold_and_say_why(plugged, ann):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    ends = {"mix/1/ceiling": -3.0, "mix/1/limit": 2.0, "mix/1/fader": -10.0}
    await sync_to_async(make)(plugged, ends, ann)
    await phone.until("mixes", revision=2)
    await phone.do({"action": "to_level", "level": 4.0})
    await phone.do({**LOWER, "place": 9.0})
    after = await now(plugged)
    assert (after.number("mix/1/fader"), after.number(LEVEL)) == (-3.0, -4.0)
    lock = {"mix/1/locked": True, "mix/1/lock_reason": "sound check"}
    await sync_to_async(make)(plugged, lock, ann)
    for ask in (LOWER, {"action": "to_level", "by": -2.0}, {"action": "to_start", "of": "drums"}):
        refused = await phone.do(ask)
        assert refused["code"] == "locked"
        assert "sound check" in refused["message"]
    await phone.say(type="undo", id=str(uuid.uuid4()))
    assert (await phone.until("refused"))["code"] == "locked"
    assert (await now(plugged)).number(LEVEL) == -4.0
    await phone.socket.disconnect()


async def test_what_fades_goes_on_fading_to_where_a_phone_moved_it(plugged, ann):
    """A finger on a family while its sends are on their way throws none of them."""
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    slow = request(lambda turn: Planned({LEVEL: -26.0}, seconds=100.0), ann)
    await sync_to_async(commit)(plugged.pk, [slow])
    await phone.until("mixes", revision=2)
    await phone.do({"action": "to_place", "of": "everything", "place": -24.0})
    fade = live_of(plugged.pk).fading[LEVEL]
    assert (fade.target, (await now(plugged)).number(LEVEL)) == (-30.0, -30.0)
    assert -8.0 < fade.at(time.monotonic()) <= -6.0
    assert 90.0 < fade.seconds <= 100.0
    await phone.socket.disconnect()


async def test_a_call_stands_at_every_desk_until_one_press_and_outlives_a_restart(
    plugged, ann, ben
):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    desks = [Screen(plugged, person) for person in (ann, ben)]
    for desk in desks:
        await desk.open()
        assert (await desk.next("calls"))["calls"] == []
    # a lock holds moves, never a call; sent again it counts once, and the newest stands
    await sync_to_async(make)(plugged, {"mix/1/locked": True}, ann)
    first = str(uuid.uuid4())
    for call_id, text in (
        (first, "too loud"),
        (first, "too loud"),
        (str(uuid.uuid4()), "talk to me"),
    ):
        await phone.say(type="call", id=call_id, mix="mix/1", text=text)
    for desk in desks:
        while (
            not (calls := (await desk.next("calls"))["calls"]) or calls[0]["text"] != "talk to me"
        ):
            pass
        assert [(one["who"], one["mix"]) for one in calls] == [("Aoife", "mix/1")]
    assert not (await phone.until("called", text="talk to me"))["seen"]
    assert await models.EarCall.objects.acount() == 1
    revision = await now_revision(plugged)
    # whoever comes later, or after the server did, is told too
    late = Screen(plugged, ann)
    await late.open()
    assert (await late.next("calls"))["calls"][0]["text"] == "talk to me"
    await desks[1].say(type="seen_call", call=calls[0]["id"])
    assert (await phone.until("called", seen=True))["by"] == "ben"
    while (await desks[0].next("calls"))["calls"]:
        pass
    assert await now_revision(plugged) == revision  # no part of the show's undo
    await phone.say(type="call", id=str(uuid.uuid4()), mix="mix/2", text="not mine")
    assert (await phone.until("refused"))["code"] == "link_ended"
    for one in (phone, late, *desks):
        await one.socket.disconnect()


async def _closed(socket):
    for _ in range(40):
        message = await socket.receive_output(timeout=30)
        if message["type"] == "websocket.close":
            return message["code"]
    raise AssertionError("it stayed open")


async def test_a_link_that_ends_closes_what_is_open_and_opens_nothing_any_more(plugged):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    await sync_to_async(end_links)([link])
    # what is on its way is judged when it comes in, before anybody looked for open pages
    refused = await phone.do(LOWER)
    assert refused["code"] == "link_ended"
    rooms.open_room(plugged.pk).links_moved()
    assert await _closed(phone.socket) == LINK_ENDED
    other = Phone(link, cookie)
    await other.socket.connect()
    assert await _closed(other.socket) == LINK_ENDED
    token = await sync_to_async(renew_link)(link)
    _, fresh = await sync_to_async(entered)(token, {})
    again = await Phone(link, fresh).open()
    assert (await again.do(LOWER))["type"] == "done"
    await again.socket.disconnect()


@pytest.mark.parametrize("how", ["none", "forged", "of another link", "over", "of a removed show"])
async def test_strangers_are_told_nothing(plugged, how):
    link, cookie = await opened(plugged)
    if how == "none":
        cookie = ""
    elif how == "forged":
        cookie = cookie[::-1]
    elif how == "of another link":
        link, _ = await opened(plugged, ("mix/2",))
    elif how == "over":
        link.ends_at = timezone.now() - timedelta(seconds=1)
        await link.asave()
    else:
        plugged.removed_at = timezone.now()
        await plugged.asave()
    phone = Phone(link, cookie)
    await phone.socket.connect()
    assert await _closed(phone.socket) == LINK_ENDED
    await phone.say(
        type="do", id=str(uuid.uuid4()), gesture="g", ask={"mix": "mix/1", **LOWER}, seen=0
    )
    assert await phone.socket.receive_nothing(timeout=0.3)


async def test_a_link_follows_its_mix_to_another_number(plugged, ann):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()

    def moved():
        from ombrel.server.asks.mixes import MoveBus

        make(plugged, MoveBus(action="move_bus", bus="mix/1", before=None).plan, ann)

    await sync_to_async(moved)()
    await link.arefresh_from_db()
    assert link.mixes == ["mix/2"]
    # it goes on being told of its own mix, by the new number, and of no other
    while (mix := (await phone.until("mixes"))["mixes"][0])["mix"] != "mix/2":
        assert mix["name"] == "Ears fiddle"
    assert mix["name"] == "Ears fiddle"
    there = await phone.do({**LOWER, "mix": "mix/2"}, seen=await now_revision(plugged))
    assert there["type"] == "done"
    refused = await phone.do({**LOWER, "mix": "mix/1"})
    assert refused["code"] == "not_yours"
    await phone.socket.disconnect()


async def test_a_link_of_a_removed_mix_is_not_of_whoever_gets_its_number(plugged, ann):
    link, cookie = await opened(plugged)

    def removed_and_made():
        from ombrel.server.asks.mixes import RemoveBus

        make(plugged, RemoveBus(action="remove_bus", bus="mix/1").plan, ann)
        make(plugged, {"mix/1/format": "stereo", "mix/1/name": "Somebody else"}, ann)

    await sync_to_async(removed_and_made)()
    phone = Phone(link, cookie)
    await phone.socket.connect()
    await phone.say(type="hello")
    assert (await phone.until("mixes"))["mixes"] == []
    await phone.socket.disconnect()


async def test_whatever_a_phone_sends_nothing_but_its_own_mix_moves(plugged):
    """Hostile messages by the shape that phones speak: the server stays, and answers the next."""
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    before = await now(plugged)
    hostile = Hostile(11, {**FROM_PHONE.json_schema()}, before)
    draw = random.Random(3)
    for _ in range(250):
        message = json.loads("{}")
        ask = {"action": draw.choice(["to_place", "to_start", "to_pan", "to_level", "moves"]),
               "mix": draw.choice(["mix/1", "mix/2", "mix/99", "house", "channel/1", "", "../x"]),
               "of": draw.choice(["drums", "everything", "me", "channel/1", "channel/2", "x/y"]),
               "place": draw.choice([-3.0, 9.0, None]), "pan": 0.3, "level": -3.0}  # fmt: skip
        wanted = {"to_place": ("of", "place"), "to_start": ("of",), "to_pan": ("of", "pan"),
                  "to_level": ("level",), "moves": ()}[ask["action"]]  # fmt: skip
        ask = {key: ask[key] for key in ("action", "mix", *wanted)}
        message = {"type": "do", "id": str(uuid.uuid4()), "gesture": "g", "ask": ask, "seen": 10**6}
        text = json.dumps(message) if draw.random() < 0.7 else hostile._no_shape()
        await phone.socket.send_to(text_data=text or " ")
        await asyncio.sleep(0)
    await phone.say(type="ping")
    await phone.until("pong")
    while not rooms.open_room(plugged.pk).screens or phone_waits(plugged):
        await asyncio.sleep(0.05)
    after = await now(plugged)
    moved = {a for a in {*before.own, *after.own} if before.own.get(a) != after.own.get(a)}
    allowed = {LEVEL, f"{LEVEL}/kept", "channel/1/send/mix/1/pan", "mix/1/fader"}
    assert moved <= allowed, moved
    assert moved
    await phone.socket.disconnect()


def phone_waits(show):
    return any(one.waiting for one in rooms.open_room(show.pk).screens.values())


def read_qr(uri):
    """What a camera reads in a picture: by a decoder that shares no code with what drew it."""
    svg = urllib.parse.unquote(uri.partition(",")[2])
    path = re.search(r"d='([^']+)'", svg.split("stroke=")[-1])[1]
    side = int(re.search(r"width='(\d+)'", svg)[1]) // 6
    dots = np.full((side, side), 255, np.uint8)
    x = y = 0.0
    for what, *numbers in re.findall(r"([Mmh])\s*(-?[\d.]+)(?:\s+(-?[\d.]+))?", path):
        first, second = (float(one) if one else 0.0 for one in numbers)
        if what == "h":
            dots[int(y), int(x) : int(x + first)] = 0
            x += first
        else:
            x, y = (first, second) if what == "M" else (x + first, y + second)
    (found,) = zxingcpp.read_barcodes(np.kron(dots, np.ones((6, 6), np.uint8)))
    return found.text


async def test_a_token_is_exchanged_once_a_phone_and_links_are_of_who_runs_the_desk(
    plugged, ann, async_client
):
    link, token = await sync_to_async(make_link)(plugged.pk, "Aoife", ["mix/1"])
    enter = {"path": "/mine/enter", "content_type": "application/json"}
    bad = await async_client.post(data=json.dumps({"token": "x" * 22}), **enter)
    assert (bad.status_code, bad.cookies) == (403, {})
    good = await async_client.post(data=json.dumps({"token": token}), **enter)
    cookie = good.cookies[cookie_name(link.pk)]
    assert (cookie["httponly"], cookie["samesite"], cookie["path"]) == (True, "Strict", "/mine")
    assert token not in cookie.value
    assert digest_of(cookie.value) == (await models.Phone.objects.aget(link=link)).cookie_hash
    await async_client.post(data=json.dumps({"token": token}), **enter)
    assert await models.Phone.objects.acount() == 1
    for text in ("[]", "{", '{"token": 5}', '{"token": "\\u0000"}'):
        assert (await async_client.post(data=text, **enter)).status_code == 422
    # the desk's own routes are not for phones, whatever cookie they have
    base = f"/api/shows/{plugged.pk}/links"
    for ask in (async_client.get(base), async_client.post(base), async_client.get("/api/me")):
        assert (await ask).status_code == 401
    await async_client.aforce_login(ann)
    made = await async_client.post(
        base, data=json.dumps({"mixes": ["mix/2"]}), content_type="application/json"
    )
    body = made.json()
    assert body["link"]["who"] == "Bo"
    assert read_qr(body["code"]) == f"http://testserver/mine#{body['token']}"
    assert (await sync_to_async(entered)(body["token"], {}))[0].mixes == ["mix/2"]
    over = await async_client.post(
        f"{base}/end", data=json.dumps({"links": [body["link"]["id"]]}),
        content_type="application/json",
    )  # fmt: skip
    assert [one["ended"] for one in over.json()] == [False, True]
    assert live_of(plugged.pk) is not None
