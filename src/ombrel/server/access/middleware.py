"""What a request passes before its view: a database that answers."""

import logging
import time
from collections.abc import Callable

from django.db import Error, InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render

__all__ = ["PATIENCE_S", "StoreAwaited", "lost"]

PATIENCE_S = 20.0  # a database restarts in seconds, and a machine may stall for as long
RETRY_S = 0.2
LOG_EVERY_S = 60.0  # while it is away every screen asks again and again
_logged_s = -LOG_EVERY_S
_LOG = logging.getLogger(__name__)
_NOTHING_DONE = "The show's store does not answer. Nothing was changed; try again."
_PERHAPS_DONE = "The show's store went away meanwhile. Look whether it was done; then ask again."


class StoreAwaited:
    """Nothing of a request is done before the database answers: it waits, and is then served.

    After `PATIENCE_S` seconds, and when the database goes away in the middle, the reply is a 503
    in words (of the API as JSON); a page that was asked for asks again by itself.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        end = time.monotonic() + PATIENCE_S
        while True:
            try:
                connection.ensure_connection()
                break
            except OperationalError as error:
                if time.monotonic() > end:
                    return _silent(request, error, _NOTHING_DONE)
            time.sleep(RETRY_S)  # of a thread that serves this request alone
        return self._get_response(request)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """What a view met in the middle, if it is the database's; anything else is a bug."""
        return (
            lost(request, error) if isinstance(error, OperationalError | InterfaceError) else None
        )


def lost(request: HttpRequest, error: Error, *, done: bool | None = None) -> HttpResponse:
    """The reply where the database went away in the middle. `done`: False: nothing was begun."""
    begun = request.method not in ("GET", "HEAD") if done is None else done
    return _silent(request, error, _PERHAPS_DONE if begun else _NOTHING_DONE)


def _silent(request: HttpRequest, error: Error, message: str) -> HttpResponse:
    global _logged_s
    if time.monotonic() - _logged_s > LOG_EVERY_S:
        _logged_s = time.monotonic()
        _LOG.error("the database does not answer: %s %s: %s", request.method, request.path, error)
    if request.path.startswith("/api/"):
        reply: HttpResponse = JsonResponse({"code": "store_silent", "message": message}, status=503)
    else:
        told = {"asked": request.method == "GET", "message": message}
        reply = render(request, "no_store.html", told, status=503)
    reply["Retry-After"] = "5"
    return reply
