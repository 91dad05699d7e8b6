import json
import uuid
from importlib.resources import files

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import AsyncClient

from ombrel.core import ConsoleError
from ombrel.server import models
from ombrel.server.replies import STATUS

from .conftest import make, stored

LIST = "Ch,Name,Mic\n1,Fiddle,clip condenser\n2,Kora,DI\n3,,who knows\n"


@pytest.fixture
def signed_in(client, ann):
    client.force_login(ann)
    return client


def upload(content, name="list.csv"):
    return SimpleUploadedFile(name, content.encode() if isinstance(content, str) else content)


def sample(name):
    return (files("ombrel") / "demo" / name).read_bytes()


@pytest.mark.parametrize("path", ["/", "/hears", "/lines", "/anything/at/all"])
def test_pages_send_strangers_to_the_sign_in(client, path, db):
    reply = client.get(path)
    assert reply.status_code == 302
    assert reply.url.startswith("/sign-in")


@pytest.mark.parametrize("path", ["me", "samples", "samples/quay-band.csv", "shows/{id}/desk"])
def test_the_api_is_closed_to_strangers(client, show, path):
    assert client.get("/api/" + path.format(id=show.pk)).status_code == 401
    for leaf in ("input-list", "input-list/take"):
        posted = client.post(f"/api/shows/{show.pk}/{leaf}", {"file": upload(LIST)})
        assert posted.status_code in (401, 403)


def test_a_person_signs_in_by_name_and_password(client, ann):
    ann.set_password("correct horse")
    ann.save()
    assert client.post("/sign-in", {"username": "ann", "password": "no"}).status_code == 200
    assert client.get("/api/me").status_code == 401
    entered = client.post("/sign-in", {"username": "ann", "password": "correct horse"})
    assert entered.status_code == 302
    assert client.get("/api/me").json()["name"] == "ann"


def test_a_new_show_is_blank_on_the_desk_that_was_chosen(signed_in):
    made = signed_in.post(
        "/api/shows", json.dumps({"name": " Quay ", "desk": "small-24"}), "application/json"
    )
    assert made.json()["name"] == "Quay"
    desk = signed_in.get(f"/api/shows/{made.json()['id']}/desk").json()
    assert (desk["name"], desk["channels"]) == ("Small 24", 24)
    for bad in ({"name": "", "desk": "small-24"}, {"name": "x", "desk": "../secret"}):
        refused = signed_in.post("/api/shows", json.dumps(bad), "application/json")
        assert refused.status_code == 422
    assert models.Show.objects.count() == 1


def test_a_preview_says_what_becomes_of_each_row_and_changes_nothing(signed_in, show):
    reply = signed_in.post(f"/api/shows/{show.pk}/input-list", {"file": upload(LIST)}).json()
    assert reply["roles"] == ["number", "name", "microphone"]
    assert (reply["lines"], reply["problems"]) == (2, 1)
    assert reply["rows"][1]["says"] == "condenser"
    assert reply["rows"][3]["problem"] == "it has no name"
    assert stored(show).lines() == []


def test_columns_can_be_put_right_by_hand(signed_in, show):
    columns = json.dumps(["name", "performer", "notes"])
    path = f"/api/shows/{show.pk}/input-list"
    reply = signed_in.post(path, {"file": upload(LIST), "columns": columns}).json()
    assert reply["lines"] == 3
    for wrong in ("[]", "no", json.dumps(["name", "name", "notes"])):
        refused = signed_in.post(path, {"file": upload(LIST), "columns": wrong})
        assert refused.status_code == 422


async def test_a_list_is_taken_whole_in_one_edit_and_one_undo_takes_it_back(show, ann):
    client = AsyncClient()
    await client.aforce_login(ann)
    fields = {"file": upload(sample("salt-road-full.xlsx")), "edit_id": str(uuid.uuid4()),
              "patch": "true"}  # fmt: skip
    reply = (await client.post(f"/api/shows/{show.pk}/input-list/take", fields)).json()
    assert (reply["revision"], reply["lines"]) == (1, 36)
    from asgiref.sync import sync_to_async

    taken = await sync_to_async(stored)(show)
    assert len(taken.lines()) == 36
    assert len(taken.channels()) == 40
    await sync_to_async(make)(show, None, ann, kind=models.Change.Kind.UNDO)
    assert not (await sync_to_async(stored)(show)).values


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
    for leaf in ("input-list", "input-list/take"):
        fields = {"file": upload(content), "edit_id": str(uuid.uuid4())}
        reply = signed_in.post(f"/api/shows/{show.pk}/{leaf}", fields)
        assert reply.status_code == 422
        assert says in reply.content.decode()
    assert models.Change.objects.count() == 0


def test_the_samples_that_ship_can_all_be_taken(signed_in, show):
    names = [row["name"] for row in signed_in.get("/api/samples").json()]
    assert len(names) == 3
    for name in names:
        content = signed_in.get(f"/api/samples/{name}").content
        reply = signed_in.post(
            f"/api/shows/{show.pk}/input-list", {"file": upload(content, name)}
        ).json()
        assert reply["lines"] > 5
        assert reply["patch_problem"] is None
    assert signed_in.get("/api/samples/..%2Fsalt_road.py").status_code == 404


def test_every_error_of_the_core_has_a_reply():
    found, waiting = set(), [ConsoleError]
    while waiting:
        for kind in waiting.pop().__subclasses__():
            found.add(kind)
            waiting.append(kind)
    assert found == set(STATUS)
