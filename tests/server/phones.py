"""Performers' phones as tests drive them, on a show with one channel in one mix."""

import uuid

from asgiref.sync import sync_to_async
from channels.testing import WebsocketCommunicator

from ombrel.server.keeping.ear_links import cookie_name, entered, make_link
from ombrel.server.screen.phone import PhoneConsumer

from .conftest import stored

LEVEL = "channel/1/send/mix/1/level"
PLUGGED = {"mix/1/name": "Ears fiddle", "mix/1/format": "stereo", "mix/2/format": "stereo",
           "line/1/place": 1.0, "line/1/family": "drums", "line/1/socket": "input/a/1",
           "channel/1/source": "input/a/1", LEVEL: -6.0, "channel/2/name": "Secret",
           "channel/2/send/mix/2/level": -3.0, "mix/2/name": "Bo",
           "mix/1/started": True, "channel/1/send/mix/1/start": -6.0}  # fmt: skip


class Phone:
    """One phone that opened a link, as a test drives it."""

    def __init__(self, link, cookie):
        self.socket = WebsocketCommunicator(
            PhoneConsumer.as_asgi(), f"/mine/{link.pk}/live",
            headers=[(b"cookie", f"{cookie_name(link.pk)}={cookie}".encode())],
        )  # fmt: skip
        self.socket.scope["url_route"] = {"kwargs": {"link_id": link.pk}}
        self.told = None

    async def open(self):
        await self.socket.connect()
        await self.say(type="hello")
        await self.until("mixes")
        return self

    async def say(self, **message):
        await self.socket.send_json_to(message)

    async def until(self, kind, **has):
        """The next message of a kind that has these; its mixes are kept on the way."""
        for _ in range(900):
            message = await self.socket.receive_json_from(timeout=30)
            if message["type"] == "mixes":
                self.told = message
            if message["type"] == kind and has.items() <= message.items():
                return message
        raise AssertionError(f"no {kind} came")

    async def do(self, ask, seen=None, edit_id=None):
        """Make a move; gives what it was answered."""
        edit_id = edit_id or str(uuid.uuid4())
        seen = self.told["revision"] if seen is None else seen
        await self.say(
            type="do", id=edit_id, gesture=edit_id, ask={"mix": "mix/1", **ask}, seen=seen
        )
        for _ in range(60):
            message = await self.socket.receive_json_from(timeout=30)
            if message["type"] == "mixes":
                self.told = message
            elif message.get("id") == edit_id:
                return message
        raise AssertionError("no answer came")


def phone_of(show, mixes=("mix/1",), **more):
    link, token = make_link(show.pk, "Aoife", mixes, **more)
    _, cookie = entered(token, {})
    return link, cookie


opened = sync_to_async(phone_of)
now = sync_to_async(stored)
LOWER = {"action": "to_place", "of": "drums", "place": -4.0}
