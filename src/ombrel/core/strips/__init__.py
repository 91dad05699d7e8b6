"""One strip from top to bottom: its stages, levels, delays, keys and curves."""

from .channels import ChannelOrder, duplicate_channel, renumber_channels
from .curves import Static, bears_on_curves, curves
from .effects import beyond_its_end, off_tempo, rename_effect, send_strips, set_note, set_tempo
from .headroom import Expected, expected_at, expected_on, over_full_scale
from .keys import keyed, reinforced
from .latency import aligned, apart, path_ms, strip_ms
from .path_stages import PATH_STAGES
from .strip_path import processing_said, strip_path

__all__ = [
    "PATH_STAGES",
    "ChannelOrder",
    "Expected",
    "Static",
    "aligned",
    "apart",
    "bears_on_curves",
    "beyond_its_end",
    "curves",
    "duplicate_channel",
    "expected_at",
    "expected_on",
    "keyed",
    "off_tempo",
    "over_full_scale",
    "path_ms",
    "processing_said",
    "reinforced",
    "rename_effect",
    "renumber_channels",
    "send_strips",
    "set_note",
    "set_tempo",
    "strip_ms",
    "strip_path",
]
