"""Somebody who comes through the proxy."""

import asyncio
import contextlib
import http.cookiejar
import json
import ssl
import threading
import urllib.parse
import urllib.request

from websockets.asyncio.client import connect


class Visitor:
    """Somebody with a browser, who trusts this machine's certificate. `name`: who signs in."""

    def __init__(self, machine, name="", password=""):
        self.machine = machine
        self.trust = ssl.create_default_context(cafile=str(machine.certificate))
        self.cookies = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(
            urllib.request.HTTPSHandler(context=self.trust),
            urllib.request.HTTPCookieProcessor(self.cookies),
        )
        if name:
            self.open("/sign-in")
            fields = {"username": name, "password": password, "next": "/"}
            fields["csrfmiddlewaretoken"] = self.cookie("csrftoken").value
            self.open("/sign-in", urllib.parse.urlencode(fields).encode())

    def cookie(self, name):
        return next(one for one in self.cookies if one.name == name)

    def open(self, path, body=None, **headers):
        # what a stranger would like to be believed
        claimed = {"X-Forwarded-For": "192.0.2.66", "Referer": self.machine.site + path}
        asking = urllib.request.Request(self.machine.site + path, body, {**claimed, **headers})
        return self.opener.open(asking, timeout=30)

    def api(self, path, fields=None):
        body = None if fields is None else json.dumps(fields).encode()
        headers = {"Content-Type": "application/json"}
        with contextlib.suppress(StopIteration):
            headers["X-CSRFToken"] = self.cookie("csrftoken").value
        with self.open(f"/api/{path}", body, **headers) as reply:
            return json.load(reply)

    def live(self, show, origin=None):
        sent = "; ".join(f"{one.name}={one.value}" for one in self.cookies)
        return Line(
            f"{self.machine.site.replace('https', 'wss')}/live/{show}", ssl=self.trust,
            origin=origin or self.machine.site, additional_headers={"Cookie": sent},
        )  # fmt: skip


class Line:
    """A websocket for who waits: all of them live on one event loop, in a thread of its own.

    The client library's own client for threads left answers unread over TLS now and then.
    """

    loop = asyncio.new_event_loop()
    threading.Thread(target=loop.run_forever, daemon=True).start()

    def __init__(self, url, **how):
        self.url, self.how, self.link = url, how, None

    def __enter__(self):
        async def connected():
            return await connect(self.url, open_timeout=30, **self.how)

        self.link = self._done(connected())
        return self

    def __exit__(self, *about):
        self._done(self.link.close())

    def send(self, text):
        self._done(self.link.send(text))

    def recv(self, timeout):
        return self._done(asyncio.wait_for(self.link.recv(), timeout))

    @property
    def close_code(self):
        return self.link.close_code

    def _done(self, work):
        return asyncio.run_coroutine_threadsafe(work, self.loop).result()
