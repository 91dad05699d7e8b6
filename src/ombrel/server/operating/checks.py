"""The check of settings as one of Django's: `manage check`, and before anything is served."""

import os
from typing import Any, Final

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.checks import CheckMessage, Error, Warning, register
from django.db import DatabaseError

from .given import Given, unknown
from .unsafe import seen_here, unsafe

__all__ = ["TAG", "check_settings"]

TAG: Final = "ombrel"
_DEMO_PASSWORD: Final = "demo"
_DEMO_PEOPLE: Final = ("engineer", "monitors", "assistant", "volunteer", "onlooker")


@register(TAG, deploy=True)
def check_settings(app_configs: Any, **more: Any) -> list[CheckMessage]:
    """What is unsafe in this installation's settings."""
    given: Given = settings.GIVEN
    people = _with_the_demos_password() if given.reached else ()
    seen = seen_here(given, people, tuple(unknown(os.environ)))
    return [
        (Error if one.refused else Warning)(one.says, hint=one.do, id=f"ombrel.{one.code}")
        for one in unsafe(given, seen)
    ]


def _with_the_demos_password() -> tuple[str, ...]:
    people = get_user_model().objects.filter(username__in=_DEMO_PEOPLE, is_active=True)
    try:
        return tuple(one.username for one in people if one.check_password(_DEMO_PASSWORD))
    except DatabaseError:  # without tables there is nobody; a database that is away is told later
        return ()
