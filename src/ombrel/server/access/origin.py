"""From which pages a websocket may be opened: this server's own, scheme and port included."""

from collections.abc import Awaitable, Callable
from typing import Any

from channels.security.websocket import WebsocketDenier
from django.conf import settings

__all__ = ["OwnOrigin"]

App = Callable[[Any, Any, Any], Awaitable[None]]


class OwnOrigin:
    """Stands before an ASGI application for websockets.

    A page of this server has the origin that the request's own scheme and host make; behind a proxy
    these are as it told them, where it is trusted. What comes without an origin is no browser of
    ours, and is denied.
    """

    def __init__(self, app: App) -> None:
        self._app = app

    async def __call__(self, scope: Any, receive: Any, send: Any) -> None:
        headers = dict(scope["headers"])
        origin = headers.get(b"origin", b"").decode("latin-1")
        host = headers.get(b"host", b"").decode("latin-1")
        if _is_own(origin, scope.get("scheme", "ws"), host):
            await self._app(scope, receive, send)
        else:
            await WebsocketDenier()(scope, receive, send)


def _is_own(origin: str, scheme: str, host: str) -> bool:
    name = host.rpartition(":")[0] if ":" in host.rpartition("]")[2] else host
    if name not in settings.ALLOWED_HOSTS:
        return False
    secure = scheme in ("wss", "https")
    return origin == f"{'https' if secure else 'http'}://{host}" or (
        origin in settings.CSRF_TRUSTED_ORIGINS
    )
