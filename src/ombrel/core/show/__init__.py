"""A show as a value: what stands where, what lies over what, and what an edit changed."""

from .changes import Change, joined
from .history import Entry, next_redo, next_undo
from .layers import carried_by_fitting, fitted_leaves, is_in_fitting, layer_at
from .show import Show, blank_show
from .sockets import (
    INNER_SOURCES,
    SIDE_WORDS,
    above,
    channels_from,
    channels_of_line,
    channels_on,
    is_of_bus,
    lines_on,
    numbers_text,
    one_socket,
    read_numbers,
    read_sockets,
    returns_on,
    side_of,
    socket_name,
    socket_spellings,
    sockets_of_line,
)
from .there import check_lines, check_made, check_strip
from .typed_strips import (
    TypedStrips,
    read_strips,
    strips_of_family,
    strips_of_performer,
    strips_text,
    typed_strips,
)

__all__ = [
    "INNER_SOURCES",
    "SIDE_WORDS",
    "Change",
    "Entry",
    "Show",
    "TypedStrips",
    "above",
    "blank_show",
    "carried_by_fitting",
    "channels_from",
    "channels_of_line",
    "channels_on",
    "check_lines",
    "check_made",
    "check_strip",
    "fitted_leaves",
    "is_in_fitting",
    "is_of_bus",
    "joined",
    "layer_at",
    "lines_on",
    "numbers_text",
    "next_redo",
    "next_undo",
    "one_socket",
    "read_numbers",
    "read_sockets",
    "read_strips",
    "returns_on",
    "side_of",
    "socket_name",
    "socket_spellings",
    "sockets_of_line",
    "strips_of_family",
    "strips_of_performer",
    "strips_text",
    "typed_strips",
]
