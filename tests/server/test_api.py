import json
from importlib.resources import files

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from ombrel.core import ConsoleError
from ombrel.server import models
from ombrel.server.messages.replies import STATUS

LIST = "Ch,Name,Mic\n1,Fiddle,clip condenser\n2,Kora,DI\n3,,who knows\n"


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
    posted = client.post(f"/api/shows/{show.pk}/lists", {"file": upload(LIST)})
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


def test_the_samples_that_ship_can_all_be_taken(signed_in, show):
    names = [row["name"] for row in signed_in.get("/api/samples").json()]
    assert len(names) == 3
    for name in names:
        content = signed_in.get(f"/api/samples/{name}").content
        path = f"/api/shows/{show.pk}/lists"
        reply = signed_in.post(path, {"file": upload(content, name)}).json()
        assert reply["new"] > 5
        assert (reply["refused"], reply["unpatched"]) == (None, [])
    assert signed_in.get("/api/samples/..%2Fsalt_road.py").status_code == 404


def test_every_error_of_the_core_has_a_reply():
    found, waiting = set(), [ConsoleError]
    while waiting:
        for kind in waiting.pop().__subclasses__():
            found.add(kind)
            waiting.append(kind)
    assert found == set(STATUS)


def test_how_a_person_likes_it_is_kept_for_them_alone_and_what_is_no_choice_is_refused(
    signed_in, ann, ben
):
    def put(**habits):
        return signed_in.patch("/api/me/habits", json.dumps(habits), "application/json")

    first = signed_in.get("/api/me").json()["habits"]
    assert (first["start"], first["theme"], first["letters"]) == ("hears", "dusk", True)
    assert put(theme="daylight", why_folded={"hears": True}).status_code == 200
    assert put(why_folded={"run": False}, letters=False).json()["theme"] == "daylight"  # it stays
    for n in range(50):
        put(why_folded={f"v{'x' * (n % 18)}{'y' if n > 17 else ''}": True})
    assert 20 < len(put(text=115).json()["why_folded"]) <= 40
    for bad in ({"theme": "neon"}, {"text": 7}, {"start": "../x"}, {"colour": "red"},
                {"why_folded": {f"v{'x' * n}": True for n in range(60)}}):  # fmt: skip
        assert put(**bad).status_code == 422
    kept = signed_in.get("/api/me").json()["habits"]
    assert (kept["theme"], kept["letters"]) == ("daylight", False)
    signed_in.force_login(ben)
    assert signed_in.get("/api/me").json()["habits"] == first
    models.Habits.objects.create(person=ben, values={"theme": "of an older build"})
    assert signed_in.get("/api/me").json()["habits"] == first


def test_the_sign_in_page_tells_the_demos_people_only_where_it_is_the_demo(client, db, settings):
    for demo in (True, False):
        settings.DEMO = demo
        assert (b"password <b>demo</b>" in client.get("/sign-in").content) is demo
