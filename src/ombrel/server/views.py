"""The pages themselves: the application for whoever is signed in, and nothing for strangers."""

import json
import logging
from typing import Any, Final
from uuid import UUID

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.contrib.auth.views import LoginView
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.views.decorators.csrf import csrf_exempt, ensure_csrf_cookie
from django.views.decorators.http import require_GET, require_POST

from ombrel.core import LinkEnded, TooManyTries, WrongCode

from .access.accounts import check_guessing_from, guessed_from
from .access.short_codes import entered_by_code, names_with_codes
from .keeping.ear_links import cookie_name, entered
from .messages.replies import STATUS

__all__ = [
    "SignIn",
    "address_of",
    "application_page",
    "enter",
    "locked_out",
    "names",
    "phone_page",
    "ride_page",
]

_LOG = logging.getLogger(__name__)
COOKIE_S: Final = 60 * 60 * 24 * 90
_NOT_BUILT = "The screens are not built. Run bin/demo, or npm run build in web/."


class SignIn(LoginView):
    """The sign-in page; of the demo it tells who can sign in."""

    redirect_authenticated_user = True

    def post(self, request: HttpRequest, *args: Any, **more: Any) -> HttpResponse:
        """Sign in, unless too many tried in vain from where this comes."""
        try:
            check_guessing_from(address_of(request))
        except TooManyTries as error:
            return _held_back(request, str(error))
        return super().post(request, *args, **more)

    def form_invalid(self, form: Any) -> HttpResponse:
        guessed_from(address_of(self.request))
        return super().form_invalid(form)

    def get_context_data(self, **more: Any) -> dict[str, Any]:
        return super().get_context_data(demo=settings.DEMO, **more)


def address_of(request: HttpRequest) -> str:
    """From where somebody asks: behind a proxy that is trusted, as it says (see `serve`)."""
    return str(request.META.get("REMOTE_ADDR", ""))


def locked_out(request: HttpRequest, *about: Any, **more: Any) -> HttpResponse:
    """The answer to a sign-in after too many wrong passwords."""
    _LOG.warning("sign-in held back: %r from %s", _tried_name(request), address_of(request))
    return _held_back(
        request,
        "Too many wrong passwords for this name. Wait ten minutes, or ask an administrator.",
    )


def _tried_name(request: HttpRequest) -> str:
    return request.POST.get("username", "")[:60]


def _held_back(request: HttpRequest, message: str) -> HttpResponse:
    told = {"form": None, "held": message, "demo": settings.DEMO, "next": ""}
    response = render(request, "registration/login.html", told, status=429)
    response["Retry-After"] = "600"
    return response


@login_required
@ensure_csrf_cookie
def application_page(request: HttpRequest, path: str = "") -> HttpResponse:
    """The one page of the application, whatever the path: the browser draws the view."""
    return _page(request, "index.html")


@login_required
@ensure_csrf_cookie
def ride_page(request: HttpRequest, show_id: UUID | None = None) -> HttpResponse:
    """The page of volunteers: it holds nothing of any show."""
    return _page(request, "ride.html")


def phone_page(request: HttpRequest, link_id: UUID | None = None) -> HttpResponse:
    """The page of a performer's phone: the same for everybody, it holds nothing of any show."""
    response = _page(request, "phone.html")
    response["Referrer-Policy"] = "no-referrer"
    return response


@csrf_exempt  # whoever sends a token from elsewhere opens what they could open here
@require_POST
def enter(request: HttpRequest) -> HttpResponse:
    """Exchange the token of a link, or a name and its short code, for a cookie of this phone."""
    token, name, code = _sent(request.body, "token", "name", "code")
    try:
        if token:
            link, cookie = entered(token, request.COOKIES)
        elif name and code:
            address = request.META.get("REMOTE_ADDR", "")
            link, cookie = entered_by_code(name, code, request.COOKIES, address)
        else:
            return JsonResponse({"code": "bad_token", "message": "That is no link."}, status=422)
    except (LinkEnded, WrongCode, TooManyTries) as error:
        told = {"code": error.code, "message": str(error)}
        return JsonResponse(told, status=STATUS[type(error)])
    response = JsonResponse({"link": str(link.pk), "who": link.who})
    response.set_cookie(
        cookie_name(link.pk), cookie, max_age=COOKIE_S, path="/mine", httponly=True,
        samesite="Strict", secure=request.is_secure(),
    )  # fmt: skip
    response["Cache-Control"] = "no-store"
    return response


def _sent(body: bytes, *names: str) -> list[str]:
    """Short texts that were sent by some names, as JSON; "" for what is none."""
    try:
        sent = json.loads(body)
    except (ValueError, RecursionError):
        sent = {}
    texts = [sent.get(name) if isinstance(sent, dict) else None for name in names]
    return [one if isinstance(one, str) and _is_short_text(one) else "" for one in texts]


def _is_short_text(text: str) -> bool:
    """Whether it may be asked of the database; half a character of two may not."""
    whole = text.encode(errors="ignore").decode() == text
    return len(text) <= 64 and whole and "\x00" not in text


@require_GET
def names(request: HttpRequest) -> HttpResponse:
    """The names of those whose short codes stand, for the phones' page."""
    response = JsonResponse({"names": names_with_codes()})
    response["Cache-Control"] = "no-store"
    return response


def _page(request: HttpRequest, name: str) -> HttpResponse:
    page = settings.WEB_DIST / name
    if not page.exists():
        return HttpResponse(_NOT_BUILT, status=503, content_type="text/plain")
    # styles that a dialog sets while it is open are this page's own by it
    text = page.read_text("utf-8").replace("__NONCE__", str(request.csp_nonce))  # type: ignore[attr-defined]
    response = HttpResponse(text)
    response["Cache-Control"] = "no-store"
    return response
