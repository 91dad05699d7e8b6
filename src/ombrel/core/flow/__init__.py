"""Who hears what: levels, states and ways, followed from change to change."""

from .bypasses import Bypass, Bypasses, behind_faders, same_ways
from .edges import Edge
from .following import with_stages
from .loops import has_loop, loudest_loop
from .opened import OpenedWay
from .paths import Network, Path
from .strips import (
    KIND_WORDS,
    listener_name,
    listeners,
    source_name,
    sources,
    strip_name,
    table_heads,
)
from .table import Flow, State, feeds_back, flow_of

__all__ = [
    "KIND_WORDS",
    "Bypass",
    "Bypasses",
    "Edge",
    "Flow",
    "Network",
    "OpenedWay",
    "Path",
    "State",
    "behind_faders",
    "feeds_back",
    "flow_of",
    "has_loop",
    "listener_name",
    "listeners",
    "loudest_loop",
    "same_ways",
    "source_name",
    "sources",
    "strip_name",
    "table_heads",
    "with_stages",
]
