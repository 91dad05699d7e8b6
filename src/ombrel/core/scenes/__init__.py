"""What scenes hold, their order and times, pins, and which comes next."""

from .cue_sheet import cue_sheet
from .held import (
    Held,
    check_packed,
    find_sound,
    held_of,
    held_otherwise,
    holders,
    made_of,
    made_otherwise,
)
from .many import Many, Scope, set_in_scenes
from .next import check_next_scene, is_gone_to, next_after, next_told
from .order import (
    check_number,
    number_text,
    numbered_anew,
    passed_by,
    read_scenes,
    scene_in,
    scene_named,
)
from .pins import pin_for, pin_name, pin_of_cell, pin_of_preamp, pins_in
from .running import run_of
from .storing import (
    PRESETS_OF_CELLS,
    address_of,
    carried_cells,
    cells_by_preset,
    duplicate_scene,
    holder_name,
    remove_scene,
    renumber_scene,
    set_cells,
    store_again,
    store_scene,
    used_holders,
    usual_cells,
)
from .timing import fade_seconds

__all__ = [
    "PRESETS_OF_CELLS",
    "Held",
    "Many",
    "Scope",
    "address_of",
    "carried_cells",
    "cells_by_preset",
    "check_next_scene",
    "check_number",
    "check_packed",
    "cue_sheet",
    "duplicate_scene",
    "fade_seconds",
    "find_sound",
    "held_of",
    "held_otherwise",
    "holder_name",
    "holders",
    "is_gone_to",
    "made_of",
    "made_otherwise",
    "next_after",
    "next_told",
    "number_text",
    "numbered_anew",
    "passed_by",
    "pin_for",
    "pin_name",
    "pin_of_cell",
    "pin_of_preamp",
    "pins_in",
    "read_scenes",
    "remove_scene",
    "renumber_scene",
    "run_of",
    "scene_in",
    "scene_named",
    "set_cells",
    "set_in_scenes",
    "store_again",
    "store_scene",
    "used_holders",
    "usual_cells",
]
