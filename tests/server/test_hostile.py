"""Messages and requests that nobody means: each is refused by name, and nothing is kept wrongly."""

import asyncio
import itertools
import json
import os
import time
import uuid
from collections import Counter

import pytest
from asgiref.sync import sync_to_async
from pydantic import ValidationError

from ombrel import core
from ombrel.core import Broken, ConsoleError, Followed, flow_of
from ombrel.demo import DEMO_DESK, demo_show
from ombrel.server import models
from ombrel.server.access.guard import AT_ONCE, LARGEST, SMALL, Guard
from ombrel.server.asks.asking import moves_from_wire
from ombrel.server.asks.plans import Turn
from ombrel.server.keeping.desks import desk_of
from ombrel.server.keeping.door import commit
from ombrel.server.keeping.request import Refused
from ombrel.server.keeping.states import State
from ombrel.server.messages import from_screen, news
from ombrel.server.messages.here import meters_message
from ombrel.server.messages.previews import tried
from tests.hostile import Hostile

from .conftest import make, request, stored
from .test_socket import FADER, Screen

# `bin/test faults` has a hundred thousand
MANY = int(os.environ.get("OMBREL_HOSTILE", "4000"))
SCHEMA = from_screen.FROM_SCREEN.json_schema()


class Answering:
    """What a server does with a message, short of keeping it: parse, plan, expand, tell."""

    def __init__(self):
        show = demo_show(desk_of(DEMO_DESK))
        self.state = State(1, show, flow_of(show))

    def turn(self):
        show, flow = self.state.show, self.state.flow
        return Turn(uuid.uuid4(), 1, show, Followed(flow), author="engineer")

    def answer(self, text):
        """Raises what nobody foresaw."""
        try:
            message = from_screen.FROM_SCREEN.validate_json(text)
        except ValidationError:
            return "not read"
        try:
            getattr(self, message.type, self.nothing)(message)
        except ConsoleError:
            return "refused"
        return "done"

    def nothing(self, message):
        """Nothing is worked out for it."""

    def do(self, message):
        show, flow, planned = self.state.show, self.state.flow, message.ask.plan(self.turn())
        after = core.expanded(show, planned.moves, planned.carry, own=planned.own)
        flow.after(after.stood)
        if planned.carry is not None and not planned.held and not planned.sure:
            core.check_jumps(show, planned.moves, after)
        core.described(after.show, after.change, planned.moves)
        core.next_told(show, after.show)
        for address, value in after.change.new.items():  # what would be kept can be read again
            kind = core.parameter_at(address).kind
            json.dumps(kind.to_wire(value), allow_nan=False)
            assert kind.from_wire(kind.to_wire(value), address) == value

    def try_(self, message):
        tried(self.turn(), message)

    def draw(self, message):
        news.drawn_text(self.state, message.strip, moves_from_wire(message.moves))

    def talk(self, message):
        core.speaking_lines(self.state.show, message.group)

    def feed(self, message):
        core.sockets_of_line(self.state.show, message.line)

    def watch(self, message):
        state: State = self.state
        asked: list[tuple] = []
        if message.why:
            cell = message.why.source, message.why.listener
            asked += [(news.loudest_text, *cell), (news.why_told, *cell)]
        asked += [(news.reach_text, message.ruler)] if message.ruler else []
        if message.strip:
            asked += [(news.strip_text, message.strip), (news.curves_text, message.strip)]
        if message.scene in state.show.scenes:
            asked.append((news.scene_text, message.scene))
            asked += [(news.held_text, message.scene, message.held)] if message.held else []
        asked += [(news.sharing_text, tuple(message.tried.items()))] if message.sharing else []
        asked += [(news.tracks_text,)] if message.tracks else []
        asked += [(news.fitting_text, message.fitting)] if message.fitting else []
        asked += [(news.mic_check_text, message.mic_check, "ann")] if message.mic_check else []
        asked += [(news.unfolded_text, tuple(message.unfold))] if message.unfold else []
        if message.check is not None:
            asked.append((meters_message, message.check, {}, frozenset()))
        for work, *about in asked:
            try:
                work(state, *about)
            except ConsoleError:
                continue  # refused by name


setattr(Answering, "try", Answering.try_)


def test_whatever_a_screen_sends_is_answered_and_in_time():
    answering = Answering()
    source = Hostile(28, SCHEMA, answering.state.show)
    said = {"not read": 0, "refused": 0, "done": 0}
    slowest_s, of = 0.0, ""
    for _ in range(MANY):
        text = source.message()
        began = time.process_time()
        try:
            said[answering.answer(text)] += 1
        except Exception as error:
            raise AssertionError(text[:2_000]) from error
        took_s = time.process_time() - began
        slowest_s, of = max((slowest_s, of), (took_s, text[:300]))
    assert min(said.values()) > MANY // 50, said
    assert slowest_s < 5.0, of  # a bound, not a measure: what is one message takes no minutes


@pytest.mark.parametrize(
    "asked",
    [
        {"address": "channel/1/fader", "value": 1e400},
        {"address": "channel/1/fader", "travel": float("nan")},
        {"address": "channel/1/fader/kept", "travel": 1.0},
        {"address": "line/1/place"},
        {"address": "fitting/1/value/eq/1/kind", "value": "bell"},
        {"address": "channel/1/eq/1", "value": 3.0},
        {"address": "output/local/1/source", "value": "channel"},
    ],
)
async def test_a_move_that_is_none_is_refused_by_name_and_its_screen_goes_on(show, ann, asked):
    screen = Screen(show, ann)
    await screen.open()
    edit_id, ask = str(uuid.uuid4()), {"action": "moves", "moves": [asked]}
    await screen.say(type="do", id=edit_id, gesture="g", ask=ask)
    refused = await screen.next("refused")
    assert refused["id"] == edit_id
    assert refused["code"] != Broken.code
    await screen.do(FADER)
    assert (await screen.next("done"))["revision"] == 1


@pytest.mark.parametrize("text", ["[" * 200_000, '{"type":' * 200_000, "\x00", "9" * 10_000])
async def test_what_has_no_shape_is_refused_and_the_screen_goes_on(show, ann, text):
    screen = Screen(show, ann)
    await screen.open()
    await screen.socket.send_to(text_data=text)
    assert (await screen.next("refused"))["code"] == "bad_message"
    await screen.say(type="ping")
    await screen.next("pong")


async def test_messages_over_a_socket_leave_a_show_that_can_be_read_and_is_what_the_log_says(
    show, ann, caplog
):
    """The store's own rules, the queue and the telling, beside what the core makes of them."""
    await sync_to_async(make)(show, dict(demo_show(desk_of(DEMO_DESK)).own))
    screen = Screen(show, ann)
    await screen.open()
    source = Hostile(5, SCHEMA, await sync_to_async(stored)(show))
    for _ in range(300):
        await screen.socket.send_to(text_data=source.message() or " ")
    edit_id = await screen.do([{"address": "channel/1/fader", "value": -7.5}])
    while (await screen.socket.receive_json_from(timeout=60)).get("id") != edit_id:
        pass
    kept = await sync_to_async(stored)(show)
    assert kept["channel/1/fader"] == -7.5
    flow_of(kept)
    assert [one for one in caplog.records if one.exc_info] == []


def test_an_edit_whose_plan_is_a_bug_is_told_so(show, ann, caplog):
    (outcome,) = commit(show.pk, [request(lambda turn: 1 / 0, ann)])[0]
    assert isinstance(outcome, Refused)
    assert isinstance(outcome.error, Broken)


# ---- over HTTP


@pytest.mark.parametrize(
    "path",
    [
        "/api/shows/{show}/history?author=%00",
        "/api/shows/{show}/history?since=2026-01-01T99:99:99Z",
        "/api/shows/{show}/history?since=9999-12-31T23:59:59-14:00",
        "/api/shows/{show}/history?before=99999999999999999999",
        "/api/shows/{show}/history?words={long}",
        "/api/shows/{show}/fittings/compared?one={long}&other=%00",
        "/api/shows/{show}/paper/%00.csv",
        "/{long}",
        "/%00",
        "/sign-in?next=%00",
    ],
)
def test_addresses_that_nobody_means_are_answered(client, show, ann, path):
    client.force_login(ann)
    reply = client.get(path.format(show=show.pk, long="a" * 5_000))
    assert reply.status_code < 500


@pytest.mark.parametrize("name", ["a" * 5_000, "a\0b", "\ud800"])
def test_names_that_are_none_are_refused(client, show, ann, name):
    client.force_login(ann)
    body = json.dumps({"name": name, "desk": "touring-48"})
    made = client.post("/api/shows", body, content_type="application/json")
    named = client.patch(f"/api/shows/{show.pk}", body, content_type="application/json")
    assert {made.status_code, named.status_code} <= {400, 422}
    assert models.Show.objects.count() == 1
    sent = {"username": name.encode(errors="replace"), "password": "x" * 5_000}
    assert client.post("/sign-in", sent).status_code < 500


# ---- before anybody is known


class Sent:
    """A request as it arrives, part by part, and what comes of it."""

    def __init__(self, length=None, cookie=b"", parts=(), forever=False):
        headers = [(b"cookie", cookie)]
        if length is not None:
            headers.append((b"content-length", str(length).encode()))
        else:
            headers.append((b"transfer-encoding", b"chunked"))
        self.scope = {"type": "http", "path": "/api/shows/file", "headers": headers}
        self.parts, self.forever, self.read, self.status = list(parts), forever, 0, None

    async def receive(self):
        if self.parts:
            part = self.parts.pop(0)
        elif self.forever:
            await asyncio.sleep(3600)
        else:
            part = b""
        self.read += len(part)
        return {"type": "http.request", "body": part, "more_body": bool(self.parts) or self.forever}

    async def send(self, message):
        self.status = message.get("status", self.status)
        self.headers = dict(message.get("headers", getattr(self, "headers", ())))


async def eaten(scope, receive, send):
    """An application that reads all of a body."""
    while (await receive()).get("more_body"):
        pass
    await send({"type": "http.response.start", "status": 200, "headers": []})


async def test_a_strangers_body_is_small_or_is_not_read(show, ann, client, monkeypatch):
    guard = Guard(eaten)
    chunk = b"x" * 65_536
    large = Sent(300_000_000, parts=[chunk] * 10)
    unsaid = Sent(None, parts=itertools.repeat(chunk, 10))
    small = Sent(100, parts=[b"x" * 100])
    layered = Sent(10, parts=[chunk, chunk])
    for one in (large, unsaid, small, layered):
        await guard(one.scope, one.receive, one.send)
    assert [one.status for one in (large, unsaid, small, layered)] == [413, 401, 200, 413]
    assert [one.read for one in (large, unsaid)] == [0, 0]
    await sync_to_async(client.force_login)(ann)
    cookie = f"sessionid={client.cookies['sessionid'].value}".encode()
    known = Sent(SMALL + 1, cookie, [chunk])
    over = Sent(None, cookie, [chunk] * (LARGEST // 65_536 + 3))
    for one in (known, over):
        await guard(one.scope, one.receive, one.send)
    assert [known.status, over.status] == [200, 413]
    forged = Sent(SMALL + 1, b"sessionid=" + b"a" * 32, [chunk])
    await guard(forged.scope, forged.receive, forged.send)
    assert forged.status == 401


async def test_what_never_ends_is_let_go_and_what_is_too_much_is_told_to_come_again(monkeypatch):
    monkeypatch.setattr("ombrel.server.access.guard.SMALL_S", 0.05)
    monkeypatch.setattr("ombrel.server.access.guard.WAIT_S", 0.05)
    slow = Sent(100, parts=[b"x"], forever=True)
    await Guard(eaten)(slow.scope, slow.receive, slow.send)
    assert slow.status == 408
    hold = asyncio.Event()

    async def held(scope, receive, send):
        await hold.wait()
        await eaten(scope, receive, send)

    guard = Guard(held)
    many = [Sent(0) for _ in range(AT_ONCE + 3)]
    asked = [asyncio.create_task(guard(one.scope, one.receive, one.send)) for one in many]
    while sum(one.status == 503 for one in many) < 3:
        await asyncio.sleep(0.01)
    assert {one.headers[b"retry-after"] for one in many if one.status} == {b"5"}
    hold.set()
    await asyncio.gather(*asked)
    assert Counter(one.status for one in many) == {200: AT_ONCE, 503: 3}
