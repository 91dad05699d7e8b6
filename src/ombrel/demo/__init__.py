"""The demo show: The Salt Road, a travelling story circus under a tent on a harbour quay.

All names are invented. Each capability of Ombrel brings its part of this show.
"""

from .salt_road import DEMO_DESK, DEMO_NAME, demo_show

__all__ = ["DEMO_DESK", "DEMO_NAME", "demo_show"]
