"""The pages themselves: the application for whoever is signed in, and nothing for strangers."""

from typing import Any

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.contrib.auth.views import LoginView
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie

__all__ = ["SignIn", "application_page"]

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
    page = settings.WEB_DIST / "index.html"
    if not page.exists():
        return HttpResponse(_NOT_BUILT, status=503, content_type="text/plain")
    response = HttpResponse(page.read_bytes())
    response["Cache-Control"] = "no-store"
    response["Content-Security-Policy"] = (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        "connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
    )
    return response
