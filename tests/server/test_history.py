"""A show's history: three people's edits, points, two points compared, and the way back."""

import json
import uuid

import pytest
from asgiref.sync import sync_to_async
from django.db import connection, transaction

from ombrel.server import models
from ombrel.server.asks.strips import MoveChannels
from ombrel.server.asks.whole import BackTo
from ombrel.server.keeping import log
from ombrel.server.keeping.log import newest_first, setters_of, shown_at
from ombrel.server.keeping.request import Refused
from ombrel.server.screen.socket import NO_SUCH_SHOW

from .conftest import make, stored
from .test_socket import Screen


@pytest.fixture
def cay(transactional_db, django_user_model):
    return django_user_model.objects.create_user("cay")


@pytest.fixture
def worked_on(show, ann, ben, cay):
    """Three people: ann patches, ben rides a fader in one gesture of five moves, cay sends."""
    make(
        show,
        {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle",
         "channel/2/source": "input/a/2",
         "output/local/1/source": "house/left", "output/local/2/source": "house/right",
         "mix/1/format": "mono", "mix/1/name": "Ears", "output/local/3/source": "mix/1",
         "channel/1/fader": 0.0, "channel/2/fader": 0.0},
        ann,
    )  # fmt: skip
    for level_db in (-1.0, -2.0, -3.0, -4.0, -5.0):
        make(show, {"channel/1/fader": level_db}, ben, gesture="ride")
    make(show, {"channel/1/send/mix/1/level": -6.0, "channel/2/fader": -9.0}, cay)
    return show


@pytest.fixture
def told(client, ann, worked_on):
    client.force_login(ann)

    def ask(path="history", **query):
        reply = client.get(f"/api/shows/{worked_on.pk}/{path}", query)
        assert reply.status_code == 200, reply.content
        return reply.json()

    return ask


def test_the_history_tells_gestures_and_is_filtered(told):
    page = told()
    assert [(g["author"], g["first"], g["last"]) for g in page["gestures"]] == [
        ("cay", 7, 7), ("ben", 2, 6), ("ann", 1, 1),
    ]  # fmt: skip
    # of one value what it was before the gesture and is behind it; of several their number
    assert [(g["was"], g["now"], g["values"]) for g in page["gestures"]] == [
        ("", "", 2), ("0 dB", "−5 dB", 1), ("", "", 10),
    ]  # fmt: skip
    assert (page["revision"], page["more"], page["people"]) == (7, None, ["ann", "ben", "cay"])
    assert [g["author"] for g in told(author="ben")["gestures"]] == ["ben"]
    assert [g["author"] for g in told(strip="mix/1")["gestures"]] == ["cay", "ann"]
    assert [g["author"] for g in told(strip="channel/2")["gestures"]] == ["cay", "ann"]
    assert told(words="nothing of the kind")["gestures"] == []
    made_at = page["gestures"][1]["made_at"]
    assert [g["author"] for g in told(until=made_at)["gestures"]][-1] == "ann"
    assert [g["author"] for g in told(before=7)["gestures"]] == ["ben", "ann"]


def test_every_revision_is_as_the_show_stood_then(show, ann):
    stood = [stored(show)]
    for turn in range(12):
        make(
            show,
            {f"channel/{turn % 3 + 1}/fader": -float(turn + 1), "channel/9/mute": turn % 2 == 0},
            ann,
        )
        stood.append(stored(show))
    for revision, then in enumerate(stood):
        assert shown_at(show.pk, revision) == then


def test_two_points_compared_by_address_and_by_who_hears(told):
    compared = told("compared", was=1)
    assert [(d["whose"], d["what"], d["was"], d["now"]) for d in compared["differences"]] == [
        ("Fiddle", "Fader", "0 dB", "−5 dB"),
        ("Fiddle to Ears", "Send", "off", "−6 dB"),
        ("Channel 2", "Fader", "0 dB", "−9 dB"),
    ]
    heard = {(c["source"], c["listener"]): (c["was_db"], c["now_db"]) for c in compared["heard"]}
    assert heard == {
        ("channel/1", "house"): (0.0, -5.0),
        ("channel/2", "house"): (0.0, -9.0),
        ("channel/1", "mix/1"): (None, -6.0),
    }
    assert {tuple(strip) for strip in compared["strips"]} == {
        ("channel/1", "Fiddle", 2), ("channel/2", "Channel 2", 1),
    }  # fmt: skip
    assert told("compared", was=3, now=3)["differing"] == 0


def test_a_point_is_kept_and_forgotten(client, told, worked_on):
    def keep(name, revision):
        path = f"/api/shows/{worked_on.pk}/points"
        body = json.dumps({"name": name, "revision": revision})
        return client.post(path, body, content_type="application/json")

    assert keep("Before the doors", 6).status_code == 200
    assert keep("Before the doors", 7).status_code == 422  # the name is another's
    assert keep("Tomorrow", 8).status_code == 404
    assert keep("   ", 7).status_code == 422
    (point,) = told()["points"]
    assert (point["name"], point["revision"], point["author"]) == ("Before the doors", 6, "ann")
    assert client.delete(f"/api/shows/{worked_on.pk}/points/{point['id']}").status_code == 200
    assert told()["points"] == []


def test_back_to_a_point_for_one_strip_is_one_undoable_edit(worked_on, ann):
    whole = BackTo(action="back_to", revision=1)
    alone = BackTo(action="back_to", revision=1, strips=["channel/2"])
    before = stored(worked_on)
    make(worked_on, alone.plan, ann)
    now = stored(worked_on)
    assert (now["channel/2/fader"], now["channel/1/fader"]) == (0.0, -5.0)
    make(worked_on, None, ann, kind="undo")
    assert stored(worked_on) == before
    make(worked_on, whole.plan, ann, gesture="whole")
    assert stored(worked_on) == shown_at(worked_on.pk, 1)
    assert models.Change.objects.latest("revision").says == "Back to change 1"
    make(worked_on, None, ann, kind="undo")
    assert stored(worked_on) == before
    refused = make(worked_on, BackTo(action="back_to", revision=99).plan, ann)
    assert isinstance(refused, Refused)
    assert refused.error.code == "no_such_point"


async def test_a_show_is_renamed_copied_removed_and_brought_back(async_client, worked_on, ann):
    await sync_to_async(async_client.force_login)(ann)
    await models.Share.objects.acreate(show=worked_on, person=ann, role="engineer")
    at = f"/api/shows/{worked_on.pk}"

    async def cards():
        return {card["name"]: card for card in (await async_client.get("/api/shows")).json()}

    reply = await async_client.patch(
        at, json.dumps({"name": "Quay, second night"}), content_type="application/json"
    )
    assert reply.json()["name"] == "Quay, second night"
    assert (
        await async_client.patch(
            at, json.dumps({"name": "x" * 61}), content_type="application/json"
        )
    ).status_code == 422
    copied = (await async_client.post(f"{at}/copy")).json()
    assert copied["name"] == "Quay, second night copy"
    one, other = models.Show(pk=worked_on.pk), models.Show(pk=uuid.UUID(copied["id"]))
    was, now = await sync_to_async(stored)(one), await sync_to_async(stored)(other)
    assert {**was.values, "show/name": ""} == {**now.values, "show/name": ""}
    assert (await async_client.delete(at)).status_code == 200
    card = (await cards())["Quay, second night"]
    assert card["removed_at"] is not None
    assert card["changed_by"] == "ann"
    for path in ("desk", "history", "paper", "file"):
        assert (await async_client.get(f"{at}/{path}")).status_code == 404
    assert (await async_client.post(f"{at}/back")).status_code == 200
    assert (await cards())["Quay, second night"]["removed_at"] is None
    assert (await async_client.get(f"{at}/desk")).status_code == 200


def test_a_log_that_is_half_read_leaves_nothing_open_in_the_database(worked_on):
    """An open cursor would be closed by whatever frees it, in the middle of another question on the

    same connection, and both would wait for good.
    """
    log = models.Change.objects.filter(show_id=worked_on.pk)
    with transaction.atomic(), connection.cursor() as asking:
        reading = newest_first(log, page=2)
        assert [next(reading).revision for _ in range(3)] == [7, 6, 5]
        asking.execute("select count(*) from pg_cursors")
        assert asking.fetchone() == (0,)
    assert [entry.revision for entry in newest_first(log, most=3, page=2)] == [7, 6, 5]


async def test_a_show_that_others_have_open_is_removed_only_by_who_is_sure(
    async_client, show, ann, ben
):
    await async_client.aforce_login(ann)
    mine, other = Screen(show, ann), Screen(show, ben)
    await mine.open()
    await other.open()
    refused = await async_client.delete(f"/api/shows/{show.pk}")
    assert (refused.status_code, refused.json()["code"]) == (409, "show_open")
    assert "ben has it open" in refused.json()["message"]
    await other.socket.disconnect()
    assert (await async_client.delete(f"/api/shows/{show.pk}")).status_code == 200
    await async_client.post(f"/api/shows/{show.pk}/back")
    again = Screen(show, ben)
    await again.open()
    assert (await async_client.delete(f"/api/shows/{show.pk}?sure=true")).status_code == 200
    closed = await again.socket.receive_output(timeout=30)
    while closed["type"] != "websocket.close":
        closed = await again.socket.receive_output(timeout=30)
    assert closed["code"] == NO_SUCH_SHOW


def test_who_set_something_longer_ago_than_is_looked_through_is_told_as_long_ago(show, monkeypatch):
    make(show, {"channel/1/mute": True})
    make(show, {"channel/2/mute": True})
    assert set(setters_of(show.pk, ["channel/1/mute", "channel/9/mute"])) == {"channel/1/mute"}
    monkeypatch.setattr(log, "LOOKED_AT", 1)
    found = setters_of(show.pk, ["channel/1/mute", "channel/2/mute"])
    assert found["channel/1/mute"] == {"by": "", "at": ""}
    assert found["channel/2/mute"]["at"]


def test_who_moved_a_value_last_when_and_what_it_was_before_the_gesture(client, show, ann):
    def last(address):
        return client.get(f"/api/shows/{show.pk}/last", {"address": address}).json()

    client.force_login(ann)
    assert (last("channel/1/fader")["at"], last("channel/1/fader")["back"]) == (None, False)
    make(show, {"channel/1/fader": -12.0}, ann)
    for level_db in (-9.0, -6.0, -3.0):  # one drag
        make(show, {"channel/1/fader": level_db}, ann, gesture="drag")
    make(show, {"channel/2/fader": -1.0}, ann)
    told = last("channel/1/fader")
    assert (told["by"], told["kind"], told["now"], told["was"]) == (
        "ann",
        "edit",
        "−3 dB",
        "−12 dB",
    )
    assert (told["was_value"], told["back"]) == (-12.0, True)
    make(show, {"channel/1/fader": told["was_value"]}, ann)  # as it was before, in one press
    assert stored(show)["channel/1/fader"] == -12.0
    assert last("channel/2/fader")["was"] == "off"
    assert last("channel/2/fader")["was_value"] is None
    assert client.get(f"/api/shows/{show.pk}/last", {"address": "nobody/1"}).status_code == 404


def test_a_value_of_a_strip_that_had_another_number_says_so(client, show, ann):
    client.force_login(ann)
    make(show, {"channel/1/name": "Kick", "channel/1/fader": -12.0}, ann)
    make(show, MoveChannels(action="move_channels", channels="1", to=9).plan, ann)
    told = client.get(f"/api/shows/{show.pk}/last", {"address": "channel/9/fader"}).json()
    assert (told["by"], told["was"], told["back"]) == ("ann", None, False)
    make(show, {"channel/9/fader": -3.0}, ann)
    told = client.get(f"/api/shows/{show.pk}/last", {"address": "channel/9/fader"}).json()
    assert (told["was"], told["back"]) == ("−12 dB", True)


def test_two_points_compared_about_a_listener_a_strip_and_a_family(told):
    whole = told("compared", was=1)
    fiddle = told("compared", was=1, of="Fiddle")
    assert 0 < fiddle["differing"] < whole["differing"]
    assert {one["address"] for one in fiddle["differences"]} == {
        one["address"] for one in whole["differences"] if "channel/1/" in one["address"]
    }
    mix = told("compared", was=1, of="mix 1")
    assert all("mix/1" in one["address"] for one in mix["differences"])
    assert all(one["listener"] == "mix/1" for one in mix["heard"])
