"""Microphones that share one gain: who does, with what shares, and what that does to levels."""

from .groups import Sharing, group_of, sharings
from .levels import Levels, level_db
from .making import clear_sharing, join_sharing, leave_sharing, make_sharing, typed_sharers
from .now import AT_REST, GroupNow, Mean, after_step
from .overview import GroupTold, foretold, overview, speaking_lines
from .reach import reaches
from .told import share_told, shares_at
from .tried import chairs_in_vain

__all__ = [
    "AT_REST",
    "GroupNow",
    "GroupTold",
    "Levels",
    "Mean",
    "Sharing",
    "after_step",
    "chairs_in_vain",
    "clear_sharing",
    "foretold",
    "group_of",
    "join_sharing",
    "leave_sharing",
    "level_db",
    "make_sharing",
    "overview",
    "reaches",
    "share_told",
    "shares_at",
    "sharings",
    "speaking_lines",
    "typed_sharers",
]
