"""The pages themselves: the application for whoever is signed in, and nothing for strangers."""

import json
from typing import Any, Final
from uuid import UUID

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.contrib.auth.views import LoginView
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.csrf import csrf_exempt, ensure_csrf_cookie
from django.views.decorators.http import require_POST

from ombrel.core import LinkEnded

from .keeping.ear_links import cookie_name, entered

__all__ = ["SignIn", "application_page", "enter", "phone_page"]

COOKIE_S: Final = 60 * 60 * 24 * 90
_NOT_BUILT = "The screens are not built. Run bin/demo, or npm run build in web/."


class SignIn(LoginView):
    """The sign-in page; of the demo it tells who can sign in."""

    redirect_authenticated_user = True

    def get_context_data(self, **more: Any) -> dict[str, Any]:
        return super().get_context_data(demo=settings.DEMO, **more)


@login_required
@ensure_csrf_cookie
def application_page(request: HttpRequest, path: str = "") -> HttpResponse:
    """The one page of the application, whatever the path: the browser draws the view."""
    return _page("index.html")


def phone_page(request: HttpRequest, link_id: UUID | None = None) -> HttpResponse:
    """The page of a performer's phone: the same for everybody, it holds nothing of any show."""
    response = _page("phone.html")
    response["Referrer-Policy"] = "no-referrer"
    return response


@csrf_exempt  # whoever sends a token from elsewhere opens what they could open here
@require_POST
def enter(request: HttpRequest) -> HttpResponse:
    """Exchange the token of a link for a cookie of this phone."""
    try:
        token = json.loads(request.body)["token"]
    except (ValueError, KeyError, TypeError, RecursionError):
        token = None
    if not isinstance(token, str) or not 0 < len(token) <= 64 or "\x00" in token:
        return JsonResponse({"code": "bad_token", "message": "That is no link."}, status=422)
    try:
        link, cookie = entered(token, request.COOKIES)
    except LinkEnded as error:
        return JsonResponse({"code": error.code, "message": str(error)}, status=403)
    response = JsonResponse({"link": str(link.pk), "who": link.who})
    response.set_cookie(
        cookie_name(link.pk), cookie, max_age=COOKIE_S, path="/mine", httponly=True,
        samesite="Strict", secure=request.is_secure(),
    )  # fmt: skip
    response["Cache-Control"] = "no-store"
    return response


def _page(name: str) -> HttpResponse:
    page = settings.WEB_DIST / name
    if not page.exists():
        return HttpResponse(_NOT_BUILT, status=503, content_type="text/plain")
    response = HttpResponse(page.read_bytes())
    response["Cache-Control"] = "no-store"
    response["Content-Security-Policy"] = (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
    )
    return response
