"""The one place that every request to the API passes: who asks, and whether they may."""

import re
from collections.abc import Callable
from typing import Any, Final

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse

from ombrel.core import ConsoleError, RoleTooSmall, may

from ..keeping.people import role_in
from .middleware import lost
from .needs import ROUTES

__all__ = ["Allowed", "route_of"]

_CONVERTER: Final = re.compile(r"<(?:\w+:)?(\w+)>")
_NO_SHOW: Final = "There is no such show, or it is not shared with you."
_NOT_ADMINISTRATOR: Final = "That is for administrators. Nothing was changed."


def route_of(method: str, pattern: str) -> str:
    """A route as the table of needs names it.

    >>> route_of("GET", "api/shows/<uuid:show_id>/desk")
    'GET shows/{show_id}/desk'
    """
    plain = _CONVERTER.sub(r"{\1}", pattern).removeprefix("api/")
    return f"{'GET' if method == 'HEAD' else method} {plain}"


class Allowed:
    """Holds every request to the API against the table of needs.

    Who is not signed in is told so by the API itself. A show that is not theirs is no show.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return self._get_response(request)

    def process_view(
        self, request: HttpRequest, view: Any, args: Any, kwargs: dict[str, Any]
    ) -> HttpResponse | None:
        match = request.resolver_match
        if match is None or "api" not in match.namespaces:
            return None
        try:
            return self._judged(request, match.route, kwargs)
        except (OperationalError, InterfaceError) as error:
            return lost(request, error, done=False)

    def _judged(
        self, request: HttpRequest, route: str, kwargs: dict[str, Any]
    ) -> HttpResponse | None:
        """What refuses it; None: nothing."""
        if not request.user.is_authenticated:
            return None
        need = ROUTES.get(route_of(request.method or "", route))
        if need is None:
            # a method that the route has not is told by the API; a route that the table has not is
            # nobody's
            known = {route.partition(" ")[2] for route in ROUTES}
            if route_of("", route).strip() in known:
                return None
            return _refused("not_allowed", "Nobody may ask that.", 403)
        if need == "person":
            return None
        if need == "administrator":
            if request.user.is_staff:
                return None
            return _refused("not_allowed", _NOT_ADMINISTRATOR, 403)
        role = role_in(kwargs["show_id"], request.user.pk)
        if may(role, need):
            return None
        if role is None:
            return _refused("no_such_show", _NO_SHOW, 404)
        error: ConsoleError = RoleTooSmall(role)
        return _refused(error.code, str(error), 403)


def _refused(code: str, message: str, status: int) -> HttpResponse:
    return JsonResponse({"code": code, "message": message}, status=status)
