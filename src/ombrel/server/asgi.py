"""The ASGI application: pages and API by Django, the websocket by Channels."""

import asyncio
import os
from typing import Any

from django.conf import settings
from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ombrel.server.settings")
_django = get_asgi_application()

from channels.auth import AuthMiddlewareStack  # noqa: E402 (Django must be set up first)
from channels.routing import ProtocolTypeRouter, URLRouter  # noqa: E402

from .access.guard import Guard  # noqa: E402
from .access.origin import OwnOrigin  # noqa: E402
from .keeping.work import in_database  # noqa: E402
from .operating.health import Health  # noqa: E402
from .operating.logs import RequestLines  # noqa: E402
from .operating.metrics import FIGURES, serve_figures  # noqa: E402
from .operating.nights import by_night  # noqa: E402
from .screen.cueing import cueing  # noqa: E402
from .urls import websocket_urlpatterns  # noqa: E402


async def _lifespan(scope: Any, receive: Any, send: Any) -> None:
    """What runs as long as the process: the ports by which cues come, and what is done by night."""
    nights: asyncio.Task[None] | None = None
    while True:
        message = await receive()
        if message["type"] == "lifespan.startup":
            cueing().begin()
            nights = asyncio.create_task(by_night(settings.GIVEN))
            if settings.GIVEN.metrics_at is not None:
                serve_figures(settings.GIVEN.metrics_at)
            await send({"type": "lifespan.startup.complete"})
        elif message["type"] == "lifespan.shutdown":
            await cueing().end()
            if nights is not None:
                nights.cancel()
            await send({"type": "lifespan.shutdown.complete"})
            return


_served = ProtocolTypeRouter(
    {
        "lifespan": _lifespan,
        "http": Health(Guard(_django), in_database),
        "websocket": OwnOrigin(AuthMiddlewareStack(URLRouter(websocket_urlpatterns))),
    }
)
application = RequestLines(_served, FIGURES.request)
