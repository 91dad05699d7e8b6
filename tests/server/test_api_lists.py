"""Input lists over HTTP: brought once, looked at, and taken as shown or not at all."""

import json
import uuid
from datetime import timedelta

import pytest
from asgiref.sync import sync_to_async
from django.test import AsyncClient
from django.utils import timezone

from ombrel.server import models

from .conftest import make, stored
from .test_api import LIST, sample, upload


def bring(client, show, content=LIST, name="list.csv"):
    return client.post(f"/api/shows/{show.pk}/lists", {"file": upload(content, name)})


def look(client, show, reply, **choices):
    path = f"/api/shows/{show.pk}/lists/{reply['file']}"
    return client.post(path, json.dumps(choices), "application/json")


def names(reply):
    return [line["name"] for one in reply["lists"] for row in one["rows"] for line in row["lines"]]


def test_a_preview_says_what_becomes_of_each_row_and_changes_nothing(signed_in, show):
    reply = bring(signed_in, show).json()
    (one,) = reply["lists"]
    assert (one["heading"], one["roles"]) == (1, ["number", "name", "microphone"])
    assert (reply["new"], reply["changed"], reply["same"]) == (2, 0, 0)
    assert one["rows"][1]["lines"][0]["channels"] == [1]
    assert names(reply) == ["Fiddle", "Kora"]
    assert stored(show).lines() == []


def test_all_that_a_person_puts_right_is_heard(signed_in, show):
    reply = bring(signed_in, show).json()
    roles = [{"list": 0, "column": 2, "role": "name"}, {"list": 0, "column": 1, "role": "notes"}]
    assert names(look(signed_in, show, reply, roles=roles).json())[0] == "clip condenser"
    assert names(look(signed_in, show, reply, heading=2).json()) == ["Kora"]
    assert names(look(signed_in, show, reply, out=["0:2"]).json()) == ["Kora"]
    assert look(signed_in, show, reply, patch=False).json()["numbered"] is False
    for wrong in ({"roles": [{"list": 0, "column": 0, "role": "king"}]}, {"out": ["x" * 99]}):
        assert look(signed_in, show, reply, **wrong).status_code == 422


def test_a_list_is_seen_only_in_its_own_show_and_kept_for_a_day(signed_in, show):
    reply = bring(signed_in, show).json()
    other = models.Show.objects.create(name="Other", desk="small-24")
    assert look(signed_in, other, reply).status_code == 404
    models.ListFile.objects.update(made_at=timezone.now() - timedelta(days=2))
    bring(signed_in, show)
    assert models.ListFile.objects.count() == 1


async def test_a_list_is_taken_whole_in_one_edit_and_one_undo_takes_it_back(show, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    reply = (await bring(client, show, sample("salt-road-full.xlsx"))).json()
    taking = {"edit_id": str(uuid.uuid4()), "choices": {}, "shown": reply["shown"]}
    path = f"/api/shows/{show.pk}/lists/{reply['file']}/take"
    taken = (await client.post(path, json.dumps(taking), "application/json")).json()
    assert taken == {"revision": 1, "says": "Imported 36 lines: 36 new"}
    twice = (await client.post(path, json.dumps(taking), "application/json")).json()
    assert twice["revision"] == 1  # sent again since the answer was lost: it counts once
    after = await sync_to_async(stored)(show)
    assert len(after.lines()) == 36
    assert len(after.channels()) == 40
    again = (await bring(client, show, sample("salt-road-full.xlsx"))).json()
    assert (again["new"], again["changed"], again["same"]) == (0, 0, 36)
    await sync_to_async(make)(show, None, ann, kind=models.Change.Kind.UNDO)
    assert not (await sync_to_async(stored)(show)).values


async def test_what_is_no_longer_as_it_was_shown_is_not_taken(show, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    reply = (await bring(client, show)).json()
    await sync_to_async(make)(show, {"channel/1/source": "input/a/9", "channel/1/name": "Oud"})
    taking = {"edit_id": str(uuid.uuid4()), "choices": {}, "shown": reply["shown"]}
    path = f"/api/shows/{show.pk}/lists/{reply['file']}/take"
    refused = await client.post(path, json.dumps(taking), "application/json")
    assert (refused.status_code, refused.json()["code"]) == (409, "list_moved_on")
    assert (await sync_to_async(stored)(show)).lines() == []
    taking["shown"] = (await look(client, show, reply)).json()["shown"]
    taken = await client.post(path, json.dumps(taking), "application/json")
    assert taken.json()["says"] == "Imported 2 lines: 2 new"
    assert (await sync_to_async(stored)(show)).text("channel/1/name") == "Oud"


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"\x89PNG\r\n\x1a\nxxxx", "PNG picture"),
        (b"x" * (50 * 1024 * 1024), "50 MB"),
        (b"1,Fiddle\n" * 100_000, "rows"),
        (b"", "empty"),
    ],
    ids=["picture", "50-MB", "100000-rows", "empty"],
)
def test_a_bad_file_is_refused_and_changes_nothing(signed_in, show, content, says):
    reply = bring(signed_in, show, content)
    assert reply.status_code == 422
    assert says in reply.content.decode()
    assert models.ListFile.objects.count() == 0
    assert models.Change.objects.count() == 0
