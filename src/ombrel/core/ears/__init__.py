"""Ears and wedges: whose a mix is, what it is started by, how it stands, how it moves as one."""

from .families import moved_levels, read_step, sends_into
from .opened import opened
from .overview import Ear, beside, cues_missing, ears
from .recipes import Item, deciding, read_recipe
from .selves import selves_of, set_self

__all__ = [
    "Ear",
    "beside",
    "Item",
    "cues_missing",
    "deciding",
    "ears",
    "moved_levels",
    "opened",
    "read_recipe",
    "read_step",
    "selves_of",
    "sends_into",
    "set_self",
]
