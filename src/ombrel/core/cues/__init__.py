"""Cues from outside: what comes, what it does, what of it is taken, and what it comes to."""

from .deeds import Deed, deed_text, fits, is_gone
from .effects import check_hands_only, effect
from .gate import Gate
from .listed import (
    Cue,
    add_cues,
    cues,
    cues_for_scenes,
    remove_cues,
    set_cue,
)
from .messages import (
    Argument,
    control_heard,
    go_heard,
    is_osc,
    note_heard,
    osc_heard,
    osc_parts,
    program_heard,
    read_comes,
)
from .sheets import cues_sheet, machine_sheet
from .waiting import deed_for

__all__ = [
    "Argument",
    "Cue",
    "Deed",
    "Gate",
    "add_cues",
    "check_hands_only",
    "control_heard",
    "cues",
    "cues_for_scenes",
    "cues_sheet",
    "deed_for",
    "deed_text",
    "effect",
    "fits",
    "go_heard",
    "is_gone",
    "is_osc",
    "machine_sheet",
    "note_heard",
    "osc_heard",
    "osc_parts",
    "program_heard",
    "read_comes",
    "remove_cues",
    "set_cue",
]
