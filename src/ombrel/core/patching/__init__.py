"""The first jobs: lines, sockets, preamps, the line check, settings copied and kept."""

from .copying import COPIED, copied, neutral
from .crossover import Crossover, crossover_at, turn_mono
from .linecheck import arrival_of, channel_meters, swap_lines
from .lines import (
    LINE_FIELDS,
    NOMINAL_DBU,
    LineDraft,
    add_lines,
    draft_fault_on,
    duplicate_lines,
    left_behind,
    move_lines,
    moves_of_draft,
    remove_lines,
    set_kind,
)
from .outputs import (
    free_outputs,
    goes_somewhere,
    is_stereo,
    outputs_of,
    patch_bus,
    patch_bus_to,
    patch_buses,
    patch_missing,
    patch_output,
)
from .patch import (
    fill,
    fill_channels,
    inputs_in_order,
    name_channels,
    patch_lines,
    plug_line,
    strip_of_line,
)
from .phantom import switched, wants_phantom
from .preamps import Preamp, preamp_of, preamps, source_dbfs, suggested_gains
from .presets import apply_preset, forget_preset, keep_preset, presets
from .typed_outputs import patch_outputs

__all__ = [
    "COPIED",
    "LINE_FIELDS",
    "NOMINAL_DBU",
    "Crossover",
    "LineDraft",
    "Preamp",
    "add_lines",
    "apply_preset",
    "arrival_of",
    "channel_meters",
    "copied",
    "crossover_at",
    "draft_fault_on",
    "duplicate_lines",
    "fill",
    "fill_channels",
    "forget_preset",
    "free_outputs",
    "goes_somewhere",
    "inputs_in_order",
    "is_stereo",
    "keep_preset",
    "left_behind",
    "move_lines",
    "moves_of_draft",
    "name_channels",
    "neutral",
    "outputs_of",
    "patch_bus",
    "patch_bus_to",
    "patch_buses",
    "patch_lines",
    "patch_missing",
    "patch_output",
    "patch_outputs",
    "plug_line",
    "preamp_of",
    "preamps",
    "presets",
    "remove_lines",
    "set_kind",
    "source_dbfs",
    "strip_of_line",
    "suggested_gains",
    "switched",
    "swap_lines",
    "turn_mono",
    "wants_phantom",
]
