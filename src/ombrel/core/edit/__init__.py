"""The one door for change, what an edit brings with it, renumbering, undo, fades."""

from .desk_rules import is_safe_key
from .edits import (
    Edited,
    Expanded,
    Followed,
    begun,
    check_edit,
    edited,
    expanded,
    looked_at,
    made,
    show_of,
)
from .fades import CLOSING, Fade, Fading, fading, standing_at
from .jumps import check_jumps, check_remedy
from .meant import meant
from .renaming import Said, renamed, said_otherwise, strips_in, value_otherwise
from .solving import EXACT_DB, opening_at, solved_db
from .undo import bearing_on_undo, permitted, undoing, undoing_renumbered

__all__ = [
    "CLOSING",
    "EXACT_DB",
    "Edited",
    "Expanded",
    "Fade",
    "Fading",
    "Followed",
    "Said",
    "bearing_on_undo",
    "begun",
    "check_edit",
    "check_jumps",
    "check_remedy",
    "edited",
    "expanded",
    "fading",
    "is_safe_key",
    "looked_at",
    "made",
    "meant",
    "opening_at",
    "permitted",
    "renamed",
    "said_otherwise",
    "show_of",
    "solved_db",
    "standing_at",
    "strips_in",
    "undoing",
    "undoing_renumbered",
    "value_otherwise",
]
