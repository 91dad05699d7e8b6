"""Levels along the signal path: the table of who hears what, and why."""

from .strips import bus_index, bus_of, listener_name, listeners, source_name, sources, strip_name
from .table import Cell, Flow, State, flow_of, who_hears_what
from .why import Reason, Remedy, Step, Why, why

__all__ = [
    "Cell",
    "Flow",
    "Reason",
    "Remedy",
    "State",
    "Step",
    "Why",
    "bus_index",
    "bus_of",
    "flow_of",
    "listener_name",
    "listeners",
    "source_name",
    "sources",
    "strip_name",
    "who_hears_what",
    "why",
]
