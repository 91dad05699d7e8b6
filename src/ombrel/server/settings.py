"""Django's settings; what differs from machine to machine comes from the environment.

`bin/` sets it: OMBREL_DATA (folder for what this installation keeps), OMBREL_DB_*,
OMBREL_HOSTS (further host names, comma-separated), OMBREL_REDIS (address of a Redis server, by
which several processes that serve the same shows tell one another at once; one alone needs none).
"""

import os
import secrets
from datetime import timedelta
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[3]
DATA = Path(os.environ.get("OMBREL_DATA", ROOT / ".data"))
WEB_DIST = ROOT / "web" / "dist"


def _kept_secret(name: str) -> str:
    """A secret of this installation: made once, kept in its data folder, readable by its owner."""
    path = DATA / name
    if not path.exists():
        DATA.mkdir(parents=True, exist_ok=True)
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(48))
    return path.read_text().strip()


SECRET_KEY = _kept_secret("secret-key")
DEBUG = False
ALLOWED_HOSTS = ["localhost", "127.0.0.1", "[::1]"]
ALLOWED_HOSTS += [host for host in os.environ.get("OMBREL_HOSTS", "").split(",") if host]

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
            ]
        },
    }
]

DATABASES: dict[str, dict[str, Any]] = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": os.environ.get("OMBREL_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("OMBREL_DB_PORT", "5432"),
        "NAME": os.environ.get("OMBREL_DB_NAME", "ombrel"),
        "USER": os.environ.get("OMBREL_DB_USER", "ombrel"),
        "PASSWORD": os.environ.get("OMBREL_DB_PASSWORD", ""),
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "connect_timeout": 5,
            # those who wait for one are served or told so; a database that is back is found soon
            "pool": {"min_size": 1, "max_size": 24, "timeout": 5.0, "reconnect_timeout": 4.0},
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

# Several processes that serve the same shows tell one another of moves by it (see `exchange`).
# the sign-in page tells the demo's own people and their password: for who tries it on this machine
DEMO = os.environ.get("OMBREL_DEMO") == "1"
REDIS = os.environ.get("OMBREL_REDIS", "")

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

STATIC_URL = "/static/"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.exists() else []
WHITENOISE_USE_FINDERS = True
WHITENOISE_MAX_AGE = 3600
# An input list is small; formats refuse more than 4 MB, and nothing larger is kept in memory.
FILE_UPLOAD_MAX_MEMORY_SIZE = 4 * 1024 * 1024
DATA_UPLOAD_MAX_MEMORY_SIZE = 2 * 1024 * 1024

LANGUAGE_CODE = "en"
USE_TZ = True
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
