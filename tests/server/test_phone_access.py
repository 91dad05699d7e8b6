"""Who a phone is to the rest of the server: nobody. Short codes; moves turned back at the desk."""

import json
import re
import uuid
from datetime import timedelta

import pytest
from asgiref.sync import sync_to_async
from channels.testing import WebsocketCommunicator
from django.test import Client
from django.utils import timezone

from ombrel.server import models
from ombrel.server.access import short_codes
from ombrel.server.api.routes import api
from ombrel.server.asgi import application
from ombrel.server.keeping.ear_links import cookie_name, held_by
from ombrel.server.screen.socket import NOT_SIGNED_IN

from .conftest import make, stored
from .phones import LEVEL, LOWER, PLUGGED, Phone, now, opened, phone_of


@pytest.fixture
def plugged(show):
    make(show, PLUGGED)
    short_codes._LIMITER.storage.reset()
    return show


def enter(client, **sent):
    return client.post("/mine/enter", json.dumps(sent), "application/json")


def code_of(client, show, link):
    path = f"/api/shows/{show.pk}/links/codes"
    (row,) = client.post(path, json.dumps({"links": [str(link.pk)]}), "application/json").json()
    return row


def test_who_picks_their_name_gets_in_by_the_code_that_the_desk_gave(plugged, signed_in):
    link, _ = phone_of(plugged)
    phone = Client()
    assert phone.get("/mine/names").json() == {"names": []}  # nobody's name without a code
    row = code_of(signed_in, plugged, link)
    assert (row["who"], bool(re.fullmatch(r"\d{6}", row["code"]))) == ("Aoife", True)
    assert phone.get("/mine/names").json() == {"names": ["Aoife"]}
    link.refresh_from_db()
    assert row["code"] not in link.code_hash
    for wrong in ({"name": "Aoife", "code": "x"}, {"name": "Bo", "code": row["code"]}):
        refused = enter(phone, **wrong)
        assert (refused.status_code, refused.json()["code"]) == (403, "wrong_code")
        assert not refused.cookies
    good = enter(phone, name="Aoife", code=row["code"])
    held = held_by(link.pk, good.cookies[cookie_name(link.pk)].value)
    assert (held.link_id, held.mixes) == (link.pk, ("mix/1",))


@pytest.mark.parametrize("how", ["over", "link revoked", "link over", "show removed", "renewed"])
def test_a_code_ends_with_its_hour_and_with_its_link(plugged, signed_in, how):
    link, _ = phone_of(plugged)
    code = code_of(signed_in, plugged, link)["code"]
    link.refresh_from_db()
    past = timezone.now() - timedelta(seconds=1)
    if how == "renewed":
        ask = json.dumps({"links": [str(link.pk)]})
        signed_in.post(f"/api/shows/{plugged.pk}/links/renew", ask, "application/json")
    elif how == "show removed":
        models.Show.objects.filter(pk=plugged.pk).update(removed_at=past)
    else:
        leaf = {"over": "code_ends_at", "link revoked": "revoked_at", "link over": "ends_at"}[how]
        models.EarLink.objects.filter(pk=link.pk).update(**{leaf: past})
    assert Client().get("/mine/names").json() == {"names": []}
    assert enter(Client(), name="Aoife", code=code).status_code == 403


def test_codes_are_not_guessed(plugged, signed_in):
    """A name is tried five times in ten minutes, whoever tries; then not even the right one opens,

    and a new code from the desk does. Others go on.
    """
    link, _ = phone_of(plugged)
    other, _ = phone_of(plugged)
    models.EarLink.objects.filter(pk=other.pk).update(who="Bo")
    other.refresh_from_db()
    code, theirs = (code_of(signed_in, plugged, one)["code"] for one in (link, other))
    said = [enter(Client(), name="Aoife", code=f"{n}").status_code for n in range(7)]
    assert said == [403] * 5 + [429] * 2
    late = enter(Client(), name="Aoife", code=code)
    assert (late.status_code, "ten minutes" in late.json()["message"]) == (429, True)
    assert enter(Client(), name="Bo", code=theirs).status_code == 200
    assert (
        enter(Client(), name="Aoife", code=code_of(signed_in, plugged, link)["code"]).status_code
        == 200
    )
    # many names from one address are guesses as well
    assert [enter(Client(), name=f"N{n}", code="1").status_code for n in range(60)][-1] == 429


NO_LINKS = ["[]", '"x"', "{", "", '{"token": 7}', '{"token": "\\ud800"}', '{"name": "Aoife"}',
            '{"name": "\\u0000", "code": "1"}',
            '{"name": "A", "code": "' + "9" * 65 + '"}']  # fmt: skip


@pytest.mark.parametrize("sent", NO_LINKS)
def test_what_is_no_link_is_said_to_be_none(db, sent):
    refused = Client().post("/mine/enter", sent, "application/json")
    assert (refused.status_code, refused.json()["code"]) == (422, "bad_token")


def test_a_phones_cookie_opens_nothing_but_its_page(plugged, client):
    """Every route of the API's own description, with the cookie of a phone sent to it."""
    link, cookie = phone_of(plugged)
    client.cookies[cookie_name(link.pk)] = cookie
    asked = 0
    for path, ways in api.get_openapi_schema()["paths"].items():
        path = re.sub(r"\{(show_id|show)\}", str(plugged.pk), path)
        path = re.sub(r"\{link_id\}", str(link.pk), path)
        path = re.sub(r"\{turn\}", "undo", path)
        path = re.sub(r"\{(account|share|point)_id\}", "1", path)
        path = re.sub(r"\{\w*(number|revision|channel)\w*\}", "1", path)
        path = re.sub(r"\{\w+\}", str(uuid.uuid4()), path)
        for way in ways:
            ask = getattr(client, way)
            as_json = {} if way == "get" else {"data": "{}", "content_type": "application/json"}
            reply = ask(path, **as_json)
            assert reply.status_code == 401, (way, path, reply.status_code)
            asked += 1
    assert asked >= 40
    assert stored(plugged).number(LEVEL) == -6.0
    assert models.Change.objects.filter(show=plugged).count() == 1


async def test_a_phones_cookie_opens_no_screen(plugged):
    link, cookie = await opened(plugged)
    cookies = f"{cookie_name(link.pk)}={cookie}; sessionid={cookie}".encode()
    headers = [(b"cookie", cookies), (b"origin", b"http://localhost"), (b"host", b"localhost")]
    screen = WebsocketCommunicator(application, f"/live/{plugged.pk}", headers=headers)
    await screen.connect()
    assert (await screen.receive_output(timeout=30))["code"] == NOT_SIGNED_IN


async def test_a_performers_moves_are_turned_back_at_the_desk_alone_and_made_again(
    plugged, ann, async_client
):
    link, cookie = await opened(plugged)
    phone = await Phone(link, cookie).open()
    await sync_to_async(async_client.force_login)(ann)
    path = f"/api/shows/{plugged.pk}/links"
    for place in (-2.0, -4.0):
        await phone.do({**LOWER, "place": place})
    await sync_to_async(make)(plugged, {"channel/1/send/mix/2/level": -9.0}, ann)
    (row,) = (await async_client.get(path)).json()
    assert row["moved_at"] is not None
    levels = []
    for turn in ("undo", "undo", "undo", "redo"):
        reply = await async_client.post(f"{path}/{link.pk}/{turn}")
        said = reply.json().get("says") or reply.json()["code"]
        show = await now(plugged)
        levels.append((show.number(LEVEL), said.partition(":")[0]))
        assert show.number("channel/1/send/mix/2/level") == -9.0
    assert levels == [
        (-8.0, "Undone by ann at the desk"), (-6.0, "Undone by ann at the desk"),
        (-6.0, "nothing_to_undo"), (-8.0, "Again by ann at the desk"),
    ]  # fmt: skip
    # the performer's own undo goes on from there
    await phone.say(type="undo", id=str(uuid.uuid4()))
    await phone.until("done")
    assert (await now(plugged)).number(LEVEL) == -6.0
    await phone.socket.disconnect()
