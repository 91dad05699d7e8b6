"""Django's settings; what differs from machine to machine comes from the environment.

Which there are, and what each means, stands in `operating.given`; `docs/deploy.md` has them as a
table. What mixes of them are refused is `operating.unsafe`.
"""

from datetime import timedelta
from pathlib import Path
from typing import Any

from csp.constants import NONCE, NONE, SELF
from django.core.exceptions import ImproperlyConfigured

from .operating.given import ROOT, Misgiven, read_given
from .operating.logs import logging_as
from .operating.secret import kept_secret

try:
    GIVEN = read_given()
except Misgiven as error:
    raise ImproperlyConfigured(f"These settings cannot be read:\n{error}") from None
DATA = GIVEN.data
WEB_DIST = ROOT / "web" / "dist"

SECRET_KEY = kept_secret(DATA, "secret-key")
DEBUG = False
ALLOWED_HOSTS = ["localhost", "127.0.0.1", "[::1]", *GIVEN.hosts]
if GIVEN.site:
    ALLOWED_HOSTS.append(GIVEN.site_host)
CSRF_TRUSTED_ORIGINS = [GIVEN.site] if GIVEN.site else []

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "axes",
    "channels",
    "ombrel.server",
]
MIDDLEWARE = [
    "csp.middleware.CSPMiddleware",  # first: whatever answers behind it has its header
    "django_permissions_policy.PermissionsPolicyMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "ombrel.server.access.middleware.StoreAwaited",  # after what is served without the database
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "ombrel.server.access.allowed.Allowed",
    "axes.middleware.AxesMiddleware",  # last: it answers for a sign-in that is held back
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
# Guessing: five wrong passwords for a name from one address, then ten minutes' rest for both.
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = timedelta(minutes=10)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "ombrel.server.views.locked_out"
AXES_CLIENT_IP_CALLABLE = "ombrel.server.views.address_of"
AXES_RESET_ON_SUCCESS = True
AXES_DISABLE_ACCESS_LOG = True  # visits are kept with their sessions
AXES_VERBOSE = False
ROOT_URLCONF = "ombrel.server.urls"
ASGI_APPLICATION = "ombrel.server.asgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [Path(__file__).parent / "templates"],
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
                "ombrel.server.operating.built.style",
            ]
        },
    }
]

DATABASES: dict[str, dict[str, Any]] = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": GIVEN.db_host,
        "PORT": str(GIVEN.db_port),
        "NAME": GIVEN.db_name,
        "USER": GIVEN.db_user,
        "PASSWORD": GIVEN.db_password,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "connect_timeout": 5,
            **({"sslmode": GIVEN.db_tls} if GIVEN.db_tls else {}),
            # those who wait for one are served or told so; a database that is back is found soon
            "pool": {
                "min_size": 1,
                "max_size": GIVEN.db_pool,
                "timeout": 5.0,
                "reconnect_timeout": 4.0,
            },
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

# the sign-in page tells the demo's own people and their password: for who tries it on this machine
DEMO = GIVEN.demo
# Several processes that serve the same shows tell one another of moves by it (see `exchange`).
REDIS = GIVEN.redis
STAGE, CUE_MACHINE = GIVEN.stage, GIVEN.cue_machine

AUTH_PASSWORD_VALIDATORS: list[dict[str, Any]] = [
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 10},
    },
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
LOGIN_URL = "/sign-in"
LOGIN_REDIRECT_URL = "/"
LOGOUT_REDIRECT_URL = "/sign-in"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 30
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"

# What a browser is held to. By TLS a cookie is bound to this host alone by its name.
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = GIVEN.secure
if GIVEN.secure:
    SESSION_COOKIE_NAME = "__Host-sessionid"
    SECURE_HSTS_SECONDS = GIVEN.hsts_days * 24 * 60 * 60
    SECURE_HSTS_INCLUDE_SUBDOMAINS = True
# the browsers' own list, for good: only who owns the domain may ask for that
SILENCED_SYSTEM_CHECKS = ["security.W021"]
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        # what a dialog sets while it is open is told apart by what the page was given (see `_page`)
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
        "base-uri": [NONE],
    }
}
PERMISSIONS_POLICY: dict[str, list[str]] = {
    name: []
    for name in (
        "accelerometer", "camera", "display-capture", "geolocation", "gyroscope", "magnetometer",
        "microphone", "midi", "payment", "usb",
    )
}  # fmt: skip
PERMISSIONS_POLICY["screen-wake-lock"] = ["self"]  # a page in the hand stays lit

STATIC_URL = "/static/"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.exists() else []
STATICFILES_FINDERS = ["ombrel.server.operating.built.Built"]
WHITENOISE_USE_FINDERS = True
WHITENOISE_MAX_AGE = 3600
WHITENOISE_ALLOW_ALL_ORIGINS = False
# what has its content's digest in its name never changes
WHITENOISE_IMMUTABLE_FILE_TEST = r"/assets/.+-[\w-]{8}\.\w+$"
# An input list is small; formats refuse more than 4 MB, and nothing larger is kept in memory.
FILE_UPLOAD_MAX_MEMORY_SIZE = 4 * 1024 * 1024
DATA_UPLOAD_MAX_MEMORY_SIZE = 2 * 1024 * 1024

LANGUAGE_CODE = "en"
USE_TZ = True
LOGGING = logging_as(GIVEN.log)
