"""Log lines: plain for who sits in front, as JSON for what gathers them; each with its request."""

import logging
import time
from collections.abc import Awaitable, Callable
from contextvars import ContextVar
from secrets import token_hex
from typing import Any, Final

from pythonjsonlogger.json import JsonFormatter

__all__ = ["REQUESTS", "RequestLines", "Trimmed", "WithRequest", "logging_as", "request_id"]

REQUESTS: Final = "ombrel.requests"
_LONGEST: Final = 4_000  # characters of one text in a line: a traceback's beginning and end
_PATH: Final = 200
_QUIET: Final = ("/static/", "/healthz", "/readyz")
request_id: ContextVar[str] = ContextVar("request_id", default="")

App = Callable[[Any, Any, Any], Awaitable[None]]


class WithRequest(logging.Filter):
    """Gives each line the id of the request in which it was written."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Let it pass, with its id."""
        record.request = request_id.get()
        return True


class Trimmed(JsonFormatter):
    """A line of JSON with no text longer than can be read: the middle of a long one is left out."""

    def process_log_record(self, log_data: dict[str, Any]) -> dict[str, Any]:
        """What is written of a record."""
        return {key: _trimmed(value) for key, value in log_data.items() if value not in ("", None)}


def _trimmed(value: Any) -> Any:
    if isinstance(value, str) and len(value) > _LONGEST:
        half = _LONGEST // 2
        return f"{value[:half]} … {len(value) - _LONGEST} left out … {value[-half:]}"
    return value


def logging_as(form: str) -> dict[str, Any]:
    """Django's LOGGING for "plain" or "json"."""
    json = {
        "()": "ombrel.server.operating.logs.Trimmed",
        "format": "%(asctime)s %(levelname)s %(name)s %(message)s %(request)s",
        "rename_fields": {"asctime": "at", "levelname": "level", "name": "by"},
    }
    plain = {"format": "%(levelname)s %(name)s: %(message)s"}
    handler = {"class": "logging.StreamHandler", "formatter": form, "filters": ["request"]}
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "filters": {"request": {"()": "ombrel.server.operating.logs.WithRequest"}},
        "formatters": {"json": json, "plain": plain},
        "handlers": {"console": handler},
        "root": {"handlers": ["console"], "level": "WARNING"},
        "loggers": {REQUESTS: {"level": "INFO" if form == "json" else "WARNING"}},
    }


class RequestLines:
    """Stands before an ASGI application: gives each request an id, and writes a line when it ends.

    Neither query nor body nor cookie is written: they may hold what is secret.
    """

    def __init__(self, app: App, noted: Callable[[str, str, int, float], None]) -> None:
        self._app, self._noted = app, noted
        self._log = logging.getLogger(REQUESTS)

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        if scope["type"] not in ("http", "websocket"):
            await self._app(scope, receive, send)
            return
        request_id.set(token_hex(8))
        began, status = time.monotonic(), 0

        async def sending(message: Any) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
                message.setdefault("headers", [])
                message["headers"] = [
                    *message["headers"], (b"x-request-id", request_id.get().encode())
                ]  # fmt: skip
            elif message["type"] == "websocket.accept":
                status = 101
                self._note(scope, "opened", status, 0.0)
            elif message["type"] == "websocket.close" and not status:
                status = 403
            await send(message)

        try:
            await self._app(scope, receive, sending)
        finally:
            self._note(scope, "", status or 500, time.monotonic() - began)

    def _note(self, scope: Any, what: str, status: int, seconds: float) -> None:
        path, method = scope["path"], scope.get("method", "LIVE")
        if path.startswith(_QUIET):
            return
        self._noted(method, path, status, seconds)
        self._log.info(
            "%s %s%s",
            method,
            path[:_PATH],
            f" {what}" if what else "",
            extra={
                "status": status,
                "ms": round(seconds * 1000, 1),
                "from": (scope.get("client") or ("",))[0],
            },
        )
