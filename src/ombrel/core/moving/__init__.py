"""A show on another desk: what fits there, what is kept aside, and what that means."""

from .aside import Aside, aside_from_wire, aside_to_wire, renumbered_asides
from .moved import Moved, moved
from .otherwise import default_boxes
from .told import Left, left_words

__all__ = [
    "Aside",
    "Left",
    "Moved",
    "aside_from_wire",
    "aside_to_wire",
    "default_boxes",
    "left_words",
    "moved",
    "renumbered_asides",
]
