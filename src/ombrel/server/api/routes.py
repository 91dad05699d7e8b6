"""The HTTP side, put together: routers, who may ask, and how a refusal is told."""

from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.security import django_auth

from ombrel.core import ConsoleError, refusal

from ..messages.replies import status_of
from . import accounts as api_accounts
from . import backups as api_backups
from . import ear_links as api_ear_links
from . import elsewhere as api_elsewhere
from . import files as api_files
from . import habits as api_habits
from . import history as api_history
from . import lists as api_lists
from . import myself as api_myself
from . import roles as api_roles
from . import shows as api_shows

__all__ = ["api"]

api = NinjaAPI(
    title="Ombrel", version="1", auth=django_auth, urls_namespace="api",
    docs_url=None, openapi_url=None,  # strangers are told nothing: it stands in the repository
)  # fmt: skip
api.add_router("", api_shows.router)
api.add_router("", api_lists.router)
api.add_router("", api_files.router)
api.add_router("", api_elsewhere.router)
api.add_router("", api_history.router)
api.add_router("", api_ear_links.router)
api.add_router("", api_habits.router)
api.add_router("", api_myself.router)
api.add_router("", api_accounts.router)
api.add_router("", api_roles.router)
api.add_router("", api_backups.router)


@api.exception_handler(ConsoleError)
def _refused(request: HttpRequest, error: ConsoleError) -> HttpResponse:
    reply = {"code": error.code, "message": refusal(error)}
    return api.create_response(request, reply, status=status_of(error))
