"""Levels along the signal path: the table of who hears what, and why."""

from .bypasses import Bypass, Bypasses, behind_faders, same_ways
from .homes import feed_kind
from .layout import Layout, layout_of
from .loops import Loop, has_loop, loudest_loop
from .opened import OpenedWay
from .paths import Edge, Network, Path
from .stages import STAGES, START_LEVEL_DB, Cause, Stage, gain_of, passed, stage_of
from .strips import (
    Head,
    between,
    listener_name,
    listeners,
    source_name,
    sources,
    strip_name,
    table_heads,
)
from .table import CANCELS, Cell, Flow, State, feeds_back, flow_of, who_hears_what

__all__ = [
    "CANCELS",
    "STAGES",
    "START_LEVEL_DB",
    "Bypass",
    "Bypasses",
    "Cause",
    "Cell",
    "Edge",
    "Flow",
    "Head",
    "Layout",
    "Loop",
    "Network",
    "OpenedWay",
    "Path",
    "Stage",
    "State",
    "behind_faders",
    "between",
    "feed_kind",
    "feeds_back",
    "flow_of",
    "gain_of",
    "has_loop",
    "layout_of",
    "listener_name",
    "listeners",
    "loudest_loop",
    "passed",
    "same_ways",
    "source_name",
    "sources",
    "stage_of",
    "strip_name",
    "table_heads",
    "who_hears_what",
]
