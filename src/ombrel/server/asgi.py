"""The ASGI application: pages and API by Django, the websocket by Channels."""

import os

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ombrel.server.settings")
_django = get_asgi_application()

from channels.auth import AuthMiddlewareStack  # noqa: E402 (Django must be set up first)
from channels.routing import ProtocolTypeRouter, URLRouter  # noqa: E402
from channels.security.websocket import AllowedHostsOriginValidator  # noqa: E402

from .access.guard import Guard  # noqa: E402
from .urls import websocket_urlpatterns  # noqa: E402

application = ProtocolTypeRouter(
    {
        "http": Guard(_django),
        "websocket": AllowedHostsOriginValidator(
            AuthMiddlewareStack(URLRouter(websocket_urlpatterns))
        ),
    }
)
