"""The server as one of Django's applications."""

from django.apps import AppConfig

__all__ = ["ServerConfig"]


class ServerConfig(AppConfig):
    """Its check of settings is one of Django's."""

    name = "ombrel.server"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Make it known."""
        from .operating import checks  # noqa: F401 - it asks for models, which are there now
