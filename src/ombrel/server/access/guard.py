"""What a request passes before Django: a small body until somebody is known, and room for it.

A stranger's body is read here, whole and in time, and never onto the disk; a large one is taken
only of who is signed in. So many requests are served at once; others wait a moment, and are then
asked to come again: edits, which go over the websocket, do not wait for them.
"""

import asyncio
import json
import logging
from collections.abc import Awaitable, Callable, MutableMapping
from http.cookies import CookieError, SimpleCookie
from typing import Any, Final

from django.conf import settings
from django.db import DatabaseError

from ..keeping.work import in_database
from .signed_in import who_left

__all__ = ["Guard"]

SMALL: Final = 64 * 1024  # bytes of a body that anybody may send
LARGEST: Final = 34 * 1024 * 1024  # of a show file, with what is around it
SMALL_S: Final = 10.0  # so long a small body may take,
PART_S: Final = 20.0  # and each part of a large one
AT_ONCE: Final = 16
WAIT_S: Final = 10.0
_LOG = logging.getLogger(__name__)

Message = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Any, Any, Any], Awaitable[None]]


_REFUSED: Final = {
    "too_large": (413, "That is more than may be sent here. Nothing was changed."),
    "too_slow": (408, "It took too long to arrive. Nothing was changed; try again."),
    "no_room": (503, "Too much is asked of the server just now. Nothing was changed; try again."),
    "not_signed_in": (401, "Sign in first. Nothing was changed."),
}


class _Refused(Exception):
    def __init__(self, code: str) -> None:
        self.code = code
        self.status, self.message = _REFUSED[code]


class Guard:
    """Stands before an ASGI application for HTTP."""

    def __init__(self, app: App) -> None:
        self._app = app
        self._rooms: dict[asyncio.AbstractEventLoop, asyncio.Semaphore] = {}

    async def __call__(self, scope: Any, receive: Receive, send: Send) -> None:
        begun = False

        async def sending(message: Message) -> None:
            nonlocal begun
            begun = True
            await send(message)

        try:
            receive = await self._body(scope, receive)
            room = self._room()
            try:
                await asyncio.wait_for(room.acquire(), WAIT_S)
            except TimeoutError:
                raise _Refused("no_room") from None
            try:
                await self._app(scope, receive, sending)
            finally:
                room.release()
        except _Refused as refused:
            if not begun:
                await _refuse(scope, send, refused)

    def _room(self) -> asyncio.Semaphore:
        for loop in [loop for loop in self._rooms if loop.is_closed()]:
            del self._rooms[loop]
        return self._rooms.setdefault(asyncio.get_running_loop(), asyncio.Semaphore(AT_ONCE))

    async def _body(self, scope: Any, receive: Receive) -> Receive:
        """How the application receives it: read already where it is small, else within bounds."""
        headers = dict(scope["headers"])
        length = headers.get(b"content-length", b"")
        said = int(length) if length.isdigit() and len(length) < 16 else None
        if said is None and b"transfer-encoding" not in headers:
            said = 0  # by HTTP/1.1 there is no body then
        if said is not None and said <= SMALL:
            return await _read(receive)
        if said is not None and said > LARGEST:
            raise _Refused("too_large")
        if not await _is_signed_in(headers.get(b"cookie", b"")):
            raise _Refused("not_signed_in")
        return _bounded(receive)


async def _read(receive: Receive) -> Receive:
    """A small body, read; then whatever comes of the connection."""
    parts: list[Message] = []
    size = 0
    try:
        async with asyncio.timeout(SMALL_S):
            while not parts or parts[-1].get("more_body"):
                parts.append(await receive())
                size += len(parts[-1].get("body", b""))
                if size > SMALL:
                    raise _Refused("too_large")
    except TimeoutError:
        raise _Refused("too_slow") from None
    waiting = iter(parts)

    async def received() -> Message:
        return next(waiting, None) or await receive()

    return received


def _bounded(receive: Receive) -> Receive:
    """A large body: so much in all, each part in time."""
    size, whole = 0, False

    async def received() -> Message:
        nonlocal size, whole
        if whole:
            return await receive()  # whether the connection ends, however late
        try:
            message = await asyncio.wait_for(receive(), PART_S)
        except TimeoutError:
            raise _Refused("too_slow") from None
        size += len(message.get("body", b""))
        if size > LARGEST:
            raise _Refused("too_large")
        whole = not message.get("more_body")
        return message

    return received


async def _is_signed_in(cookie: bytes) -> bool:
    try:
        found = SimpleCookie(cookie.decode("latin-1")).get(settings.SESSION_COOKIE_NAME)
    except CookieError:
        return False
    if found is None or len(found.value) > 40 or not found.value.isalnum():
        return False
    try:
        return not await in_database(who_left, {found.value}, again=True)
    except DatabaseError:
        raise _Refused("no_room") from None


async def _refuse(scope: Any, send: Send, refused: _Refused) -> None:
    _LOG.info("refused: %s %s", refused.status, scope["path"])
    api = scope["path"].startswith("/api/")
    words = {"code": refused.code, "message": refused.message}
    body = json.dumps(words).encode() if api else refused.message.encode()
    kind = b"application/json" if api else b"text/plain; charset=utf-8"
    headers = [(b"content-type", kind), (b"content-length", str(len(body)).encode()),
               (b"connection", b"close")]  # fmt: skip
    if refused.status == 503:
        headers.append((b"retry-after", b"5"))
    start = {"type": "http.response.start", "status": refused.status, "headers": headers}
    await send(start)
    await send({"type": "http.response.body", "body": body})
