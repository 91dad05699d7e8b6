"""The server as a process: `python -m ombrel.server.serve --port 8000`, at OMBREL_BIND."""

import argparse
import asyncio
import logging
import os
import sys
from typing import Any, Final

import django
import h11
import uvicorn
from django.core.checks import run_checks
from uvicorn.protocols.http.h11_impl import H11Protocol

from .operating.checks import TAG
from .operating.given import read_given

__all__ = ["Patient", "main"]

_SAID: Final = logging.getLogger("ombrel.settings")
HEAD_S: Final = 10.0  # so long a request's head may take from its first byte, or the connection's


class Patient(H11Protocol):
    """HTTP/1.1 that does not wait for ever for a request that somebody began to say."""

    _head: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        super().connection_made(transport)
        self._wait()

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._wait()

    def connection_lost(self, exc: Exception | None) -> None:
        if self._head is not None:
            self._head.cancel()
        super().connection_lost(exc)

    def _wait(self) -> None:
        if self._head is not None:
            self._head.cancel()
        self._head = self.loop.call_later(HEAD_S, self._too_long)

    def _too_long(self) -> None:
        # a websocket has taken the transport over by then, and a request's body is the guard's
        if self.transport.get_protocol() is self and self.conn.their_state is h11.IDLE:
            self.transport.close()


def _check() -> None:
    """End here, with words, where the settings are no safe mix."""
    found = run_checks(tags=[TAG], include_deployment_checks=True)
    for one in found:
        _SAID.log(one.level, "%s %s", one.msg, one.hint)
    if any(one.is_serious() for one in found):
        sys.exit("Nothing is served. See docs/deploy.md, Settings.")


def main() -> None:
    """Serve until it is told to stop."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ombrel.server.settings")
    given = read_given()
    parser = argparse.ArgumentParser()
    parser.add_argument("--port", type=int, default=8000)
    parser.add_argument("--check", action="store_true", help="look at the settings alone")
    parser.add_argument("--reload", action="store_true", help="start again on every change")
    asked = parser.parse_args()
    django.setup()
    _check()
    if asked.check:
        return
    config = uvicorn.Config(
        "ombrel.server.asgi:application",
        host=given.bind,
        port=asked.port,
        http=Patient,
        loop="uvloop",
        lifespan="on",
        log_level="warning",
        log_config=None,  # as Django's settings have it
        # who asks and by which scheme is believed of the proxies that are named, and of nobody else
        proxy_headers=bool(given.proxies),
        forwarded_allow_ips=given.proxies,
        server_header=False,
        timeout_graceful_shutdown=2,
        h11_max_incomplete_event_size=32 * 1024,
        ws_max_size=4_000_000,
        # a move is small, and each of many screens would pay for it: on a local network the
        # processor is what is scarce
        ws_per_message_deflate=False,
    )
    if asked.reload:
        from django.utils import autoreload  # for those who work on it alone

        autoreload.run_with_reloader(uvicorn.Server(config).run)
    else:
        uvicorn.Server(config).run()


if __name__ == "__main__":
    main()
