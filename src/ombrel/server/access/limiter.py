"""How often something may be tried: of all processes together, where there are several."""

from typing import Final

from django.conf import settings
from limits.storage import storage_from_string
from limits.strategies import MovingWindowRateLimiter

__all__ = ["LIMITER"]

LIMITER: Final = MovingWindowRateLimiter(storage_from_string(settings.REDIS or "memory://"))
