"""Ears and wedges: whose a mix is, what it is started by, how it stands, how it moves as one."""

from .families import EVERYTHING, moved_levels, read_step, sends_into
from .opened import opened
from .overview import Ear, beside, cues_missing, ears
from .phones import (
    PhoneFamily,
    PhoneMix,
    PhoneSend,
    check_phone,
    phone_family,
    phone_louder,
    phone_mix,
    phone_pan,
    phone_start,
)
from .recipes import Item, deciding, read_recipe
from .selves import (
    selves_of,
    set_self,
    who_hears,
)

__all__ = [
    "EVERYTHING",
    "Ear",
    "Item",
    "PhoneFamily",
    "PhoneMix",
    "PhoneSend",
    "beside",
    "check_phone",
    "cues_missing",
    "deciding",
    "ears",
    "moved_levels",
    "opened",
    "phone_family",
    "phone_louder",
    "phone_mix",
    "phone_pan",
    "phone_start",
    "read_recipe",
    "read_step",
    "selves_of",
    "sends_into",
    "set_self",
    "who_hears",
]
