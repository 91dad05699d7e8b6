"""The ASGI application: pages and API by Django, the websocket by Channels."""

import os
import sys

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ombrel.server.settings")
_django = get_asgi_application()

from channels.auth import AuthMiddlewareStack  # noqa: E402 (Django must be set up first)
from channels.routing import ProtocolTypeRouter, URLRouter  # noqa: E402
from channels.security.websocket import AllowedHostsOriginValidator  # noqa: E402

from .urls import websocket_urlpatterns  # noqa: E402

# Threads that work things out give way to the loop this often (5 ms otherwise): a big show's
# explanations do not hold up what another screen moves.
sys.setswitchinterval(0.001)

application = ProtocolTypeRouter(
    {
        "http": _django,
        "websocket": AllowedHostsOriginValidator(
            AuthMiddlewareStack(URLRouter(websocket_urlpatterns))
        ),
    }
)
