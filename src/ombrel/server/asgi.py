"""The ASGI application: pages and API by Django, the websocket by Channels."""

import os
from typing import Any

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ombrel.server.settings")
_django = get_asgi_application()

from channels.auth import AuthMiddlewareStack  # noqa: E402 (Django must be set up first)
from channels.routing import ProtocolTypeRouter, URLRouter  # noqa: E402

from .access.guard import Guard  # noqa: E402
from .access.origin import OwnOrigin  # noqa: E402
from .screen.cueing import cueing  # noqa: E402
from .urls import websocket_urlpatterns  # noqa: E402


async def _lifespan(scope: Any, receive: Any, send: Any) -> None:
    """What runs as long as the process: the ports by which cues come."""
    while True:
        message = await receive()
        if message["type"] == "lifespan.startup":
            cueing().begin()
            await send({"type": "lifespan.startup.complete"})
        elif message["type"] == "lifespan.shutdown":
            await cueing().end()
            await send({"type": "lifespan.shutdown.complete"})
            return


application = ProtocolTypeRouter(
    {
        "lifespan": _lifespan,
        "http": Guard(_django),
        "websocket": OwnOrigin(AuthMiddlewareStack(URLRouter(websocket_urlpatterns))),
    }
)
