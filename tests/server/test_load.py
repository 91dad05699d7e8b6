"""Many hands at once: what waits is joined, shared out fairly, and made as if one by one."""

import asyncio
import itertools
import random
import time
import uuid
from functools import partial

import numpy as np
import pytest
from asgiref.sync import sync_to_async
from django.db import OperationalError
from django.db.backends.postgresql.base import DatabaseWrapper

from ombrel.core import flow_of
from ombrel.server import models
from ombrel.server.asks.moves import Moves
from ombrel.server.asks.plans import Planned
from ombrel.server.keeping import live
from ombrel.server.keeping.door import commit
from ombrel.server.keeping.passing import Ended
from ombrel.server.keeping.request import Done, Refused
from ombrel.server.screen import rooms
from ombrel.server.screen.queue import AT_ONCE, Queue
from ombrel.server.screen.ticker import ticker_of
from tests.shows import raw_edit_of_seed

from .conftest import make, request, stored
from .test_casting import staffed
from .test_socket import Screen, moving


def dragging(address, value, **hand):
    """A place of a hand, as a screen asks for it."""
    moves = [{"address": address, "value": value}]
    return Moves.model_validate(
        {"action": "moves", "moves": moves, "by_hand": {"stays": True, **hand}}
    )


@pytest.fixture
def company(show):
    return staffed(show)


# ---- what waits


def noted(answers, one, outcome):
    answers.append((one, outcome))


@pytest.mark.parametrize("seed", range(40))
def test_whoever_waits_is_answered_once_in_order_and_by_the_newest_place_of_the_hand(seed):
    """The referee goes through what was asked one by one, and knows nothing of rows or shares."""
    draw = random.Random(seed)
    queue, asked, answers = Queue(), [], []
    for number in range(draw.choice([5, 60, 400])):
        person, hand = draw.randint(1, 3), draw.randint(1, 9)
        joins = (person, hand) if draw.random() < 0.9 else None
        one = request({}, gesture=f"{person}.{hand}.{number}", joins=joins)
        asked.append((person, joins, one))
        queue.add(person, one, partial(noted, answers, one))
    made, batches = [], 0
    while queue:
        batch = queue.take()
        batches += 1
        assert len(batch) <= max(AT_ONCE, 3)
        assert len({whose for whose, _ in batch}) == 3 or len(made) + len(batch) > 0
        made += [(whose, item.request(), batches) for whose, item in batch]
        for _, item in batch:
            item.answered(item.asked)  # type: ignore[arg-type]  # so that it is known by which
    # each is answered, once: by itself, or by a later place of its hand
    assert {one.edit_id for one, _ in answers} == {one.edit_id for _, _, one in asked}
    assert len(answers) == len(asked)
    order = {one.edit_id: place for place, (_, _, one) in enumerate(asked)}
    joins_of = {one.edit_id: joins for _, joins, one in asked}
    for one, by in answers:
        assert order[by.edit_id] >= order[one.edit_id]
        if by.edit_id != one.edit_id:
            assert joins_of[by.edit_id] == joins_of[one.edit_id] is not None
            between = asked[order[one.edit_id] : order[by.edit_id]]
            mine = asked[order[one.edit_id]][0]
            assert all(joins is not None for person, joins, _ in between if person == mine)
    # of one person nothing but places of hands passes anything, and of one hand nothing at all
    for person in (1, 2, 3):
        rows = [one for whose, one, _ in made if whose == person]
        for before, after in itertools.pairwise(rows):
            if joins_of[before.edit_id] is None or joins_of[after.edit_id] is None:
                assert order[before.edit_id] < order[after.edit_id]
        for joins in {joins_of[one.edit_id] for one in rows} - {None}:
            places = [order[one.edit_id] for one in rows if joins_of[one.edit_id] == joins]
            assert places == sorted(places)


def test_places_of_one_hand_are_one_and_what_joins_nothing_stays_apart():
    queue = Queue()
    for joins in ("hand", "hand", None, None, "hand"):
        queue.add("ann", request({}, joins=joins))
    taken = []
    while queue:
        taken += [item.request().joins for _, item in queue.take()]
    assert taken == ["hand", None, None, "hand"]


def test_a_flood_of_one_person_leaves_the_others_their_share():
    queue = Queue()
    for _ in range(5_000):
        queue.add("flood", request({}))
    queue.add("other", request({}))
    assert "other" in [whose for whose, _ in queue.take()]


# ---- what is made together


@pytest.mark.parametrize("seed", range(8))
def test_edits_made_together_are_what_they_are_one_by_one(show, ann, seed):
    """Refusals included: of what the desk does not allow, and of one that closes a loop."""
    draw = random.Random(seed)
    other = models.Show.objects.create(name="One by one", desk="touring-48")
    loop: list[dict[str, object]] = [
        {"mix/1/format": "mono", "channel/7/source": "mix/1"},
        {"channel/7/fader": 0.0, "channel/7/send/mix/1/on": True,
         "channel/7/send/mix/1/tap": "after_fader"},
        {"channel/7/send/mix/1/level": 3.0},
        {"channel/7/send/mix/1/level": -12.0},
    ]  # fmt: skip
    for turn in range(3):
        current = stored(show)
        edits = [raw_edit_of_seed(current, draw.randint(0, 10**9), most=6) for _ in range(9)]
        for place, step in enumerate(loop):
            edits.insert(draw.randint(place, len(edits)) if turn else place, {**step})
        together = commit(show.pk, [request(edit, ann) for edit in edits])[0]
        singly = [commit(other.pk, [request(edit, ann)])[0][0] for edit in edits]
        assert [
            str(one.error) if isinstance(one, Refused) else one.revision for one in together
        ] == [str(one.error) if isinstance(one, Refused) else one.revision for one in singly]
        assert stored(show).own == stored(other).own
        state, anew = live.live_of(show.pk).state, flow_of(stored(show))
        assert np.array_equal(state.flow.state, anew.state)
        assert np.allclose(state.flow.level_db, anew.level_db, atol=1e-9)


def test_an_overtaken_place_counts_by_the_newer_one_and_once(show, ann):
    first, second = uuid.uuid4(), uuid.uuid4()
    plan = dragging("channel/1/fader", -3.0).plan
    place = request(plan, ann, gesture="g", edit_id=second, overtook=(first,))
    (done,) = commit(show.pk, [place])[0]
    assert (done.revision, models.Change.objects.count()) == (1, 1)
    make(show, {"channel/1/fader": -20.0}, ann)
    late = request(dragging("channel/1/fader", -9.0).plan, ann, gesture="g", edit_id=first)
    assert commit(show.pk, [late])[0] == [Done(1, "")]
    assert stored(show)["channel/1/fader"] == -20.0
    live._LIVE.clear()  # a server that starts anew knows it too
    assert commit(show.pk, [late])[0] == [Done(1, "")]


async def test_of_places_that_wait_all_are_answered_and_none_is_refused_for_another(show, ann):
    """The last of them closes a loop: the places before it are made all the same."""
    loop = {"mix/1/format": "mono", "channel/7/source": "mix/1", "channel/7/fader": 0.0,
            "channel/7/send/mix/1/on": True, "channel/7/send/mix/1/tap": "after_fader"}  # fmt: skip
    await sync_to_async(make)(show, loop)
    screen = Screen(show, ann)
    await screen.open()
    ids = [str(uuid.uuid4()) for _ in range(4)]
    for edit_id, level_db in zip(ids, (-30.0, -20.0, -10.0, 2.0), strict=True):
        ask = dragging("channel/7/send/mix/1/level", level_db).model_dump(mode="json")
        await screen.say(type="do", id=edit_id, gesture="g", ask=ask)
    assert (await screen.next("refused"))["id"] == ids[3]
    assert {(await screen.next("done"))["id"] for _ in range(3)} == set(ids[:3])
    assert (await sync_to_async(stored)(show))["channel/7/send/mix/1/level"] == -10.0


async def test_a_place_that_is_sent_again_does_for_no_newer_one(show, ann):
    """A page that came back sends all again; the tick may fall between two of them."""
    taking = ticker_of(show.pk)
    first, second = uuid.uuid4(), uuid.uuid4()

    def place(edit_id, level_db):
        ask = dragging("channel/1/fader", level_db)
        joins = ("page", "g", ask.joins())
        return request(ask.plan, ann, gesture="g", edit_id=edit_id, joins=joins)

    older, newer = place(first, -30.0), place(second, -10.0)
    for again in ((older,), (older, newer), (newer, older)):
        answers = [taking.submit(one) for one in (older, newer, *again)]
        revisions = {one.revision for one in await asyncio.gather(*answers)}
        assert len(revisions) == 1
        assert (await sync_to_async(stored)(show))["channel/1/fader"] == -10.0


async def test_a_page_learns_which_edits_of_a_closed_one_were_kept(show, ann):
    """It is asked while they still wait: places that a newer one overtook count as kept with it."""
    closed, opened = Screen(show, ann), Screen(show, ann)
    await closed.open()
    await opened.open()
    ids = [str(uuid.uuid4()) for _ in range(6)]
    for edit_id, level_db in zip(ids[:4], (-30.0, -20.0, -10.0, 99.0), strict=True):
        moves = [{"address": "channel/1/fader", "value": level_db}]
        ask = {"action": "moves", "moves": moves, "by_hand": {"stays": True}}
        await closed.say(type="do", id=edit_id, gesture="hand", ask=ask)
    await closed.do([{"address": "channel/2/fader", "value": -3.0}], ids[4])
    await closed.next("moved")  # all are with the server by now; the last of them may still wait
    await opened.say(type="kept", ids=ids)
    assert set((await opened.next("kept"))["ids"]) == {*ids[:3], ids[4]}
    assert (await closed.next("refused"))["id"] == ids[3]
    await closed.socket.disconnect()
    await opened.socket.disconnect()


def test_a_bug_midway_in_an_edit_leaves_show_and_flow_as_they_were(show, ann, monkeypatch, caplog):
    make(show, {"channel/1/source": "input/a/1", "channel/1/fader": -20.0,
                "output/local/1/source": "house/left"})  # fmt: skip

    def broken(*about):
        if about[-1].says == "breaks":
            raise ZeroDivisionError
        return "moved"

    monkeypatch.setattr("ombrel.server.keeping.door._said", broken)
    bad = request(lambda turn: Planned({"channel/1/fader": 0.0}, "breaks"), ann)
    good = request({"channel/1/pan": 0.5}, ann)
    outcomes = commit(show.pk, [good, bad])[0]
    assert [isinstance(one, Refused) for one in outcomes] == [False, True]
    state = live.live_of(show.pk).state
    assert state.show.own == stored(show).own
    anew = flow_of(stored(show))
    assert np.array_equal(state.flow.level_db, anew.level_db)


# ---- an answer of COMMIT that is lost


def losing_answers(monkeypatch, *, times):
    """COMMIT is done, and its answer does not come; so often."""
    plain, left = DatabaseWrapper._commit, [times]  # type: ignore[attr-defined]

    def lost(self):
        plain(self)
        if left[0] > 0:
            left[0] -= 1
            raise OperationalError("server closed the connection unexpectedly")

    monkeypatch.setattr(DatabaseWrapper, "_commit", lost)


async def test_what_was_kept_is_told_though_its_answer_was_lost(company, ann, ben, monkeypatch):
    """A hand under a fitting, then a recall that takes its time: each kept once and told to all."""
    one, two = Screen(company, ann), Screen(company, ben)
    await one.open()
    await two.open()
    monkeypatch.setattr("ombrel.server.screen.ticker.RETRY_S", 0.01)
    before = await sync_to_async(models.Change.objects.count)()
    losing_answers(monkeypatch, times=1)
    edit_id, ask = str(uuid.uuid4()), dragging("channel/1/low_cut/frequency", 140.0)
    message = {"type": "do", "id": edit_id, "gesture": "hand", "ask": ask.model_dump(mode="json")}
    await one.say(**message)
    assert (await two.next("moved"))["values"]["channel/1/low_cut/frequency"] == 140.0
    done = await one.next("done")
    assert done["id"] == edit_id
    assert await sync_to_async(models.Change.objects.count)() == before + 1
    assert "hand" in live.live_of(company.pk).hands
    # what sets out for where it stands, too
    await sync_to_async(make)(company, {"channel/2/fader": -40.0})
    for number, level_db in ((1, -40.0), (2, -10.0)):
        await one.do([{"address": "channel/2/fader", "value": level_db}])
        store = {"action": "store_scene", "name": f"Scene {number}", "preset": "everything"}
        await one.say(type="do", id=str(uuid.uuid4()), gesture=f"s{number}", ask=store)
        for _ in range(2):
            await one.next("done")
    seconds = {"action": "moves", "moves": [{"address": "scene/1/seconds", "value": 5.0}]}
    await one.say(type="do", id=str(uuid.uuid4()), gesture="t", ask=seconds)
    await one.next("done")
    losing_answers(monkeypatch, times=1)
    recall = {"action": "recall_scene", "scene": "scene/1"}
    await one.say(type="do", id=str(uuid.uuid4()), gesture="r", ask=recall)
    for screen in (one, two):
        (fade,) = (await screen.next("fading"))["fades"]
        assert (fade["address"], fade["points"][-1][1]) == ("channel/2/fader", -40.0)
    await one.next("done")
    assert set(live.live_of(company.pk).fading) == {"channel/2/fader"}
    await one.do([{"address": "channel/6/fader", "value": -5.0}])
    await one.next("done")
    kept = await sync_to_async(stored)(company)
    assert live.live_of(company.pk).state.show.own == kept.own


# ---- processes


class Process:
    """Another process that serves the same shows: a memory of its own."""

    def __init__(self):
        self.memory = {}

    def commit(self, show, *asked):
        here = dict(live._LIVE)
        live._LIVE.clear()
        live._LIVE.update(self.memory)
        try:
            return commit(show.pk, list(asked))[0]
        finally:
            self.memory = dict(live._LIVE)
            live._LIVE.clear()
            live._LIVE.update(here)


def test_hands_on_a_gang_count_whichever_process_they_come_by(show, ann, ben):
    make(show, {f"channel/{n}/gang/1/on": True for n in (1, 2, 3)}
         | {f"channel/{n}/fader": -10.0 for n in (1, 2, 3)})  # fmt: skip
    one, other = Process(), Process()

    def hand(channel, level_db, who, gesture):
        plan = dragging(f"channel/{channel}/fader", level_db).plan
        page = f"{who.pk}:{gesture}"
        return request(plan, who, gesture=gesture, page=page, connection=gesture)

    def faders():
        return [stored(show)[f"channel/{n}/fader"] for n in (1, 2, 3)]

    one.commit(show, hand(1, -8.0, ann, "first"))
    other.commit(show, hand(2, -5.0, ben, "second"))
    assert faders() == [-8.0, -5.0, -8.0]
    one.commit(show, hand(1, -9.0, ann, "first"))
    assert faders() == [-9.0, -5.0, -9.0]
    other.commit(show, Ended(page=f"{ann.pk}:first", gesture="first"))  # by whichever connection
    other.commit(show, hand(2, -4.0, ben, "second"))
    one.commit(show, Ended(connection="second"))
    one.commit(show, hand(1, -10.0, ann, "third"))
    assert faders() == [-10.0, -5.0, -10.0]


def test_a_hand_whose_process_died_ends_by_itself(show, ann, monkeypatch):
    held = request(dragging("channel/1/fader", -8.0).plan, ann, gesture="g", page="p")
    commit(show.pk, [held])
    assert "g" in live.live_of(show.pk).hands
    late = time.time() + 60.0
    monkeypatch.setattr(time, "time", lambda: late)
    commit(show.pk, [request({"channel/2/fader": -3.0}, ann)])
    assert live.live_of(show.pk).hands == {}
    assert models.Show.objects.get(pk=show.pk).hands == []


async def test_a_page_that_comes_back_to_a_server_that_started_again_has_no_ghost(show, ann):
    page = f"{ann.pk}:tab"
    held = request(dragging("channel/1/fader", -8.0).plan, ann, gesture="g", page=page)
    await sync_to_async(commit)(show.pk, [held])
    live._LIVE.clear()
    screen = Screen(show, ann)
    await screen.socket.connect()
    await screen.say(type="hello", since=None, page="tab")
    await screen.next("snapshot")
    for _ in range(200):
        if (await models.Show.objects.aget(pk=show.pk)).hands == []:
            break
        await asyncio.sleep(0.02)
    assert (await models.Show.objects.aget(pk=show.pk)).hands == []


async def test_a_show_that_nobody_has_open_is_let_go_from_memory(show, ann, monkeypatch):
    monkeypatch.setattr(rooms, "LINGER_S", 0.05)
    one, other = Screen(show, ann), Screen(show, ann)
    await one.open()
    await other.open()
    await one.socket.disconnect()
    assert show.pk in live._LIVE
    await other.socket.disconnect()
    assert show.pk in live._LIVE  # a page that is loaded anew finds it there
    while show.pk in live._LIVE:
        await asyncio.sleep(0.01)
    assert rooms.open_room(show.pk) is None
    again = Screen(show, ann)
    await again.open()
    await again.say(
        type="do", id=str(uuid.uuid4()), gesture="g", ask=moving("channel/1/fader", -6.0)
    )
    assert (await again.next("done"))["revision"] == 1
