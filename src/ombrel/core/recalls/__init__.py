"""What a recall or a cast would do, told before it does it, and who must not be moved."""

from .comparing import laid_together, side_by_side
from .felt import felt, felt_in_words, moved_between
from .guard import check_same_person, unguarded
from .looking import hearing_there, in_one_line, look_ahead
from .recall import apart, recall
from .stepping import recalled

__all__ = [
    "apart",
    "check_same_person",
    "felt",
    "felt_in_words",
    "hearing_there",
    "in_one_line",
    "laid_together",
    "look_ahead",
    "moved_between",
    "recall",
    "recalled",
    "side_by_side",
    "unguarded",
]
