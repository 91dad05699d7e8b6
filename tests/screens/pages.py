"""A page's websocket without its page: what a screen says and hears, as a test drives it."""

import json
import time
import uuid

from websockets.exceptions import ConnectionClosed
from websockets.sync.client import connect

__all__ = ["Page"]


class Page:
    """One open screen of a show on a server process; it hears all that is told, in order."""

    def __init__(self, process, show, who="engineer", page=None):
        self.page = page or str(uuid.uuid4())
        cookie = f"sessionid={process.signed_in(who)[1]['sessionid']}"
        self.connecting = connect(
            f"{process.address.replace('http', 'ws')}/live/{show}",
            additional_headers={"Cookie": cookie}, origin=process.address, max_size=None,
        )  # fmt: skip
        self.link = self.connecting.__enter__()
        self.values, self.revision, self.heard, self.closed = {}, None, [], None
        self.say(type="hello", since=None, page=self.page)
        self.until(lambda: self.revision is not None)

    def __enter__(self):
        return self

    def __exit__(self, *why):
        self.connecting.__exit__(*why)

    def say(self, **message):
        self.link.send(json.dumps(message))

    def listen(self, for_s):
        """Take in what comes for some time."""
        end = time.monotonic() + for_s
        while self.closed is None and (left := end - time.monotonic()) > 0:
            try:
                message = json.loads(self.link.recv(timeout=left))
            except TimeoutError:
                return
            except ConnectionClosed as closed:
                self.closed = closed.rcvd.code if closed.rcvd else 1006
                return
            if message["type"] in ("moved", "snapshot"):
                self.values.update(message["values"])
                self.revision = message["revision"]
            self.heard.append(message)

    def until(self, wanted, within_s=60):
        """Listen until something is so; gives it."""
        end = time.monotonic() + within_s
        while not (found := wanted()):
            assert time.monotonic() < end, self.heard[-5:]
            assert self.closed is None, self.closed
            self.listen(0.05)
        return found

    def answer(self, edit_id):
        """What became of an edit: `done` or `refused`."""

        def found():
            kinds = ("done", "refused")
            return [m for m in self.heard if m["type"] in kinds and m["id"] == edit_id]

        return self.until(found)[0]

    def ask(self, ask, gesture=None, edit_id=None):
        """Ask for an edit; gives its id."""
        edit_id = edit_id or str(uuid.uuid4())
        self.say(type="do", id=edit_id, gesture=gesture or edit_id, ask=ask)
        return edit_id

    def put(self, address, value, gesture=None, **hand):
        """Put a value at an address, by a hand that stays if it has a gesture; gives the answer."""
        ask: dict = {"action": "moves", "moves": [{"address": address, "value": value}]}
        if gesture is not None:
            ask["by_hand"] = {"stays": True, **hand}
        return self.answer(self.ask(ask, gesture))
