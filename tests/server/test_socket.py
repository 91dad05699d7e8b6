import asyncio
import uuid

import pytest
from asgiref.sync import sync_to_async
from channels.testing import WebsocketCommunicator
from django.contrib.auth.models import AnonymousUser
from django.db import OperationalError

from ombrel.server import models
from ombrel.server.keeping.door import commit
from ombrel.server.links.stage import stage_link
from ombrel.server.screen import rooms, ticker
from ombrel.server.screen import socket as consumers
from ombrel.server.screen.socket import NO_SUCH_SHOW, NOT_SIGNED_IN, ShowConsumer

from .conftest import make, stored
from .conftest import request as door_request


class Screen:
    """One open screen of a show, as a test drives it."""

    def __init__(self, show, user):
        self.socket = WebsocketCommunicator(ShowConsumer.as_asgi(), f"/live/{show.pk}")
        self.socket.scope["user"] = user
        self.socket.scope["url_route"] = {"kwargs": {"show_id": show.pk}}
        self.passed_over = []

    async def open(self, since=None):
        await self.socket.connect()
        await self.say(type="hello", since=since)
        return await self.next("snapshot" if since is None else "moved")

    async def say(self, **message):
        await self.socket.send_json_to(message)

    async def do(self, moves, edit_id=None):
        edit_id = edit_id or str(uuid.uuid4())
        ask = {"action": "moves", "moves": moves}
        await self.say(type="do", id=edit_id, gesture=edit_id, ask=ask)
        return edit_id

    async def next(self, kind):
        """The next message of a kind; others on the way are kept for who asks for them."""
        for index, message in enumerate(self.passed_over):
            if message["type"] == kind:
                return self.passed_over.pop(index)
        for _ in range(40):
            message = await self.socket.receive_json_from(timeout=30)  # a busy machine stalls
            if message["type"] == kind:
                return message
            self.passed_over.append(message)
        raise AssertionError(f"no {kind} came")


def open_one(show):
    """The one screen that has a show open."""
    (screen,) = rooms.open_room(show.pk).screens.values()
    return screen


def beside(present):
    """Who is there besides the screen that is told so."""
    others = [who for who in present["others"] if who["screen"] != present["you"]]
    return [(who["name"], who["view"]) for who in others]


FADER = [{"address": "channel/1/fader", "value": -6.0}]


def moving(address, value):
    return {"action": "moves", "moves": [{"address": address, "value": value}]}


@pytest.fixture
def fed(show):
    make(
        show,
        {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle", "channel/1/fader": 0.0,
         "output/local/1/source": "house/left", "output/local/2/source": "house/right"},
    )  # fmt: skip
    return show


async def test_nothing_is_served_to_strangers(show):
    screen = Screen(show, AnonymousUser())
    await screen.socket.connect()
    closed = await screen.socket.receive_output(timeout=30)
    assert closed == {"type": "websocket.close", "code": NOT_SIGNED_IN}


async def test_a_show_that_is_not_there_is_said_to_be_gone(show, ann):
    await sync_to_async(show.delete)()
    show.pk = uuid.uuid4()
    screen = Screen(show, ann)
    await screen.socket.connect()
    assert (await screen.socket.receive_output(timeout=30))["code"] == NO_SUCH_SHOW


async def test_a_move_reaches_every_screen_and_done_means_committed(fed, ann, ben):
    one, two = Screen(fed, ann), Screen(fed, ben)
    first = await one.open()
    await two.open()
    assert first["values"]["channel/1/fader"] == 0.0
    await two.say(type="watch", table=True, why={"source": "channel/1", "listener": "house"})
    table = await two.next("table")
    assert (table["sources"], table["listeners"]) == (["channel/1"], ["house"])
    assert (await two.next("why"))["level_db"] == 0.0
    edit_id = await one.do(FADER)
    done = await one.next("done")
    assert (done["id"], done["revision"]) == (edit_id, 2)
    assert (await sync_to_async(stored)(fed))["channel/1/fader"] == -6.0
    moved = await two.next("moved")
    assert (moved["before"], moved["revision"], moved["values"]) == (
        1,
        2,
        {"channel/1/fader": -6.0},
    )
    (cell,) = (await two.next("cells"))["cells"]
    assert (cell["level_db"], cell["state"], cell["way"]) == (-6.0, "heard", "after")
    assert (await two.next("why"))["level_db"] == -6.0


async def test_a_screen_that_was_away_gets_what_came_after_its_revision(fed, ann):
    for level_db in (-1.0, -2.0, -3.0):
        await sync_to_async(make)(fed, {"channel/1/fader": level_db})
    screen = Screen(fed, ann)
    moved = await screen.open(since=1)
    assert (moved["before"], moved["revision"]) == (1, 4)
    assert moved["values"] == {"channel/1/fader": -3.0}


async def test_a_move_sent_again_after_a_lost_answer_counts_once(fed, ann):
    lost, back = Screen(fed, ann), Screen(fed, ann)
    await lost.open()
    edit_id = await lost.do(FADER)
    await lost.next("done")
    await back.open(since=1)
    await back.do(FADER, edit_id)
    assert (await back.next("done"))["revision"] == 2
    assert await models.Change.objects.acount() == 2


async def test_moves_within_one_tick_are_one_transaction_and_one_broadcast(fed, ann, monkeypatch):
    batches = []

    def counted(show_id, requests):
        batches.append(len(requests))
        return commit(show_id, requests)

    monkeypatch.setattr(ticker, "commit", counted)
    screen = Screen(fed, ann)
    await screen.open()
    for channel in range(2, 12):
        await screen.do([{"address": f"channel/{channel}/fader", "value": -6.0}])
    moved = await screen.next("moved")
    while moved["revision"] < 11:
        moved = await screen.next("moved")
    assert sum(batches) == 10
    assert len(batches) <= 3


async def test_undo_goes_over_the_same_wire(fed, ann):
    screen = Screen(fed, ann)
    await screen.open()
    await screen.do([{"address": "channel/1/fader", "typed": "down 4"}])
    await screen.next("done")
    await screen.say(type="undo", id=str(uuid.uuid4()))
    assert (await screen.next("done"))["says"] == "Undone: Fiddle, fader"
    assert (await sync_to_async(stored)(fed))["channel/1/fader"] == 0.0


async def test_a_preview_tells_who_loses_what_and_changes_nothing(fed, ann):
    screen = Screen(fed, ann)
    await screen.open()
    ask = {"action": "feed", "channel": 1, "socket": ""}
    await screen.say(type="try", id=str(uuid.uuid4()), ask=ask)
    preview = await screen.next("preview")
    assert preview["silenced"] == [["Fiddle", "House"]]
    assert preview["losses"] == [
        {"who": "Fiddle", "loses": "its source Harbour 1", "to": "nothing"}
    ]
    assert (await sync_to_async(stored)(fed))["channel/1/source"] == "input/a/1"


@pytest.mark.parametrize(
    "message",
    [
        {"type": "sing"},
        {"type": "do", "id": "7", "gesture": "x", "ask": {"action": "moves", "moves": FADER}},
        {"type": "do", "id": str(uuid.uuid4()), "gesture": "x", "ask": {"action": "explode"}},
        {"type": "hello", "since": "yesterday"},
        {"type": "hello", "extra": 1},
        [],
    ],
    ids=["type", "id", "action", "since", "extra", "list"],
)
async def test_an_unknown_message_is_an_error_and_the_screen_lives_on(show, ann, message):
    screen = Screen(show, ann)
    await screen.open()
    await screen.socket.send_json_to(message)
    assert (await screen.next("refused"))["code"] == "bad_message"
    await screen.do(FADER)
    assert (await screen.next("done"))["revision"] == 1


@pytest.mark.parametrize(
    ("ask", "code"),
    [
        (moving("channel/99/fader", 0), "edit_refused"),
        (moving("nowhere", 0), "unknown_address"),
        (moving("channel/1/fader", "x"), "wrong_value"),
        ({"action": "fill", "sockets": "Moon 1", "to": "1"}, "unreadable_text"),
        ({"action": "make_mixes", "names": ["m"] * 99, "stereo": True, "serves": "ears"},
         "nothing_left"),
        ({"action": "hear", "cells": [{"source": "channel/1", "listener": "mix/77"}],
          "typed": "-6"}, "unknown_address"),
        ({"action": "plug", "line": 9999, "socket": "Harbour 1"}, "edit_refused"),
        ({"action": "remove_lines", "lines": [9999]}, "not_there"),
    ],
)  # fmt: skip
async def test_a_refusal_says_why_and_changes_nothing(show, ann, ask, code):
    screen = Screen(show, ann)
    await screen.open()
    edit_id = str(uuid.uuid4())
    await screen.say(type="do", id=edit_id, gesture="g", ask=ask)
    refused = await screen.next("refused")
    assert (refused["id"], refused["code"]) == (edit_id, code)
    assert await models.Change.objects.acount() == 0


async def test_a_move_that_would_feed_back_is_refused_by_the_name_of_its_loop(fed, ann):
    await sync_to_async(make)(
        fed,
        {"mix/1/format": "mono", "channel/2/source": "mix/1", "channel/2/fader": 0.0,
         "channel/2/send/mix/1/tap": "after_fader"},
    )  # fmt: skip
    screen = Screen(fed, ann)
    await screen.open()
    await screen.do([{"address": "channel/2/send/mix/1/level", "value": 0.0}])
    refused = await screen.next("refused")
    assert refused["code"] == "feedback_loop"
    assert "channel 2 to mix 1 to channel 2: 0.0 dB once around" in refused["message"]
    await screen.do([{"address": "channel/2/send/mix/1/level", "value": -3.0}])
    assert (await screen.next("done"))["revision"] == 3


async def test_while_the_store_is_away_moves_wait_and_none_is_lost(fed, ann, monkeypatch):
    answers = iter([OperationalError("gone"), OperationalError("still gone")])

    def away(show_id, requests):
        error = next(answers, None)
        if error:
            raise error
        return commit(show_id, requests)

    monkeypatch.setattr(ticker, "commit", away)
    monkeypatch.setattr(ticker, "RETRY_S", 0.05)
    screen = Screen(fed, ann)
    await screen.open()
    await screen.do(FADER)
    assert "wait" in (await screen.next("trouble"))["message"]
    assert (await screen.next("trouble"))["message"] == ""
    assert (await screen.next("done"))["revision"] == 2


async def test_a_bug_in_one_batch_is_told_and_the_next_edit_works(fed, ann, monkeypatch):
    def broken(show_id, requests):
        raise ZeroDivisionError

    screen = Screen(fed, ann)
    await screen.open()
    with monkeypatch.context() as patched:
        patched.setattr(ticker, "commit", broken)
        await screen.do(FADER)
        refused = await screen.next("refused")
    assert refused["code"] == "internal"
    assert "ZeroDivision" not in refused["message"]
    await screen.do(FADER)
    assert (await screen.next("done"))["revision"] == 2
    await asyncio.sleep(0)


async def test_a_bug_in_one_answer_is_told_with_its_id_and_the_screen_lives_on(
    fed, ann, monkeypatch, caplog
):
    def broken(turn, message):
        raise ZeroDivisionError("secret")

    screen, asked = Screen(fed, ann), str(uuid.uuid4())
    await screen.open()
    ask = {"action": "moves", "moves": FADER}
    with monkeypatch.context() as patched:
        patched.setattr(consumers, "tried", broken)
        await screen.say(type="try", id=asked, ask=ask)
        refused = await screen.next("refused")
    assert (refused["id"], refused["code"]) == (asked, "internal")
    assert "secret" not in refused["message"]
    assert "secret" in caplog.text
    await screen.say(type="try", id=asked, ask=ask)
    assert (await screen.next("preview"))["id"] == asked


async def test_one_persons_fault_is_nobody_elses(fed, ann, ben):
    one, two = Screen(fed, ann), Screen(fed, ben)
    await one.open()
    await two.open()
    thirty = [
        await two.do([{"address": "channel/1/fader", "value": -float(n)}]) for n in range(1, 31)
    ]
    bad = {"type": "do", "id": str(uuid.uuid4()), "ask": moving("channel/1/mute", True)}
    await one.say(**bad, gesture="a\x00b")
    await one.say(**bad | {"id": str(uuid.uuid4())}, gesture="half \ud800 a letter")
    await one.say(
        type="do",
        id=str(uuid.uuid4()),
        gesture="g",
        ask={"action": "remove_lines", "lines": list(range(300_000))},
    )
    assert [(await one.next("refused"))["code"] for _ in range(3)] == ["bad_message"] * 3
    assert {(await two.next("done"))["id"] for _ in thirty} == set(thirty)
    assert not (await sync_to_async(stored)(fed)).on("channel/1/mute")


async def test_what_cannot_be_stored_together_is_stored_singly(fed, ann):
    """A request that no check before the door stops: the store itself refuses it."""
    taking = ticker.ticker_of(fed.pk)
    moves = [{f"channel/{n}/fader": -3.0} for n in (1, 2, 3)]
    good = [taking.submit(door_request(one, ann)) for one in moves]
    bad = taking.submit(door_request({"channel/4/fader": -3.0}, ann, gesture="a\x00b"))
    *kept, refused = await asyncio.gather(*good[:2], good[2], bad, return_exceptions=True)
    assert sorted(done.revision for done in kept) == [2, 3, 4]
    assert isinstance(refused, Exception)
    now = await sync_to_async(stored)(fed)
    assert [now[f"channel/{n}/fader"] for n in (1, 2, 3, 4)] == [-3.0, -3.0, -3.0, -float("inf")]


async def test_a_screen_that_ends_in_any_way_is_out_of_everything(fed, ann, ben):
    one, other = Screen(fed, ann), Screen(fed, ben)
    await one.open()
    await other.open()
    await other.say(type="watch", table=False, why=None, check=None, view="lines")
    await one.say(type="watch", table=False, why=None, check=1, view="check")
    while (there := beside(await other.next("present"))) != [("ann", "check")]:
        assert there in ([], [("ann", "")])
    link = stage_link()
    assert len(link._wanting) == 1
    assert len(rooms.open_room(fed.pk).screens) == 2
    # the network goes while something is being told: no close ever comes
    one.socket.future.cancel()
    while beside(await other.next("present")):
        pass
    assert link._wanting == set()
    assert len(rooms.open_room(fed.pk).screens) == 1


async def test_somebody_is_there_to_answer(fed, ann):
    screen = Screen(fed, ann)
    await screen.open()
    await screen.say(type="ping")
    assert await screen.next("pong") == {"type": "pong"}


async def test_who_is_loudest_is_told_and_follows(fed, ann):
    await sync_to_async(make)(
        fed,
        {f"channel/{n}/source": f"input/a/{n}" for n in range(2, 9)}
        | {f"channel/{n}/fader": -float(n) for n in range(2, 9)},
    )
    screen = Screen(fed, ann)
    await screen.open()
    await screen.say(
        type="watch", table=True, why={"source": "channel/8", "listener": "house"}, view="hears"
    )
    told = await screen.next("loudest")
    assert [(one["rank"], one["source"]) for one in told["sources"]] == [
        (1, "channel/1"), (2, "channel/2"), (3, "channel/3"), (4, "channel/4"), (8, "channel/8"),
    ]  # fmt: skip
    await screen.do([{"address": "channel/8/fader", "value": 3.0}])
    while (told := await screen.next("loudest"))["sources"][0]["source"] != "channel/8":
        pass
    assert [one["rank"] for one in told["sources"]] == [1, 2, 3, 4, 5]


async def test_a_cell_that_is_not_there_is_refused_once_and_the_screen_lives_on(fed, ann):
    screen = Screen(fed, ann)
    await screen.open()
    nowhere = {"source": "channel/1", "listener": "mix/999"}
    await screen.say(type="watch", table=False, why=nowhere, view="hears")
    assert (await screen.next("refused"))["code"] == "unknown_address"
    await screen.do(FADER)
    assert (await screen.next("moved"))["values"] == {"channel/1/fader": -6.0}
    await screen.say(type="ping")
    await screen.next("pong")


async def test_a_screen_found_gone_by_its_own_work_is_out_of_the_group_too(fed, ann, monkeypatch):
    """Its meters cannot be sent: the task that finds that out leaves for the screen."""
    screen = Screen(fed, ann)
    await screen.open()
    await screen.say(type="watch", table=False, why=None, check=1, view="check")
    await screen.say(type="ping")
    await screen.next("pong")
    assert len(rooms.open_room(fed.pk).screens) == 1

    async def cut(message):
        raise OSError("the network is gone")

    monkeypatch.setattr(open_one(fed), "base_send", cut)
    for told in list(stage_link()._wanting):
        told({"input/a/1": -20.0})
    for _ in range(100):
        await asyncio.sleep(0.02)
        if rooms.open_room(fed.pk) is None:
            break
    assert rooms.open_room(fed.pk) is None
    assert stage_link()._wanting == set()
