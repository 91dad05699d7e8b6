"""Mixes, routing and lifts made in one action."""

from .lifts import (
    Singer,
    all_lifted,
    lift_singers,
    lifts,
    lifts_in_use,
    make_lift,
    remove_lift,
    set_singers,
    trim_lift,
)
from .minus import make_minus
from .mixes import (
    NEW_MIX,
    duplicate_bus,
    fill_mix,
    make_buses,
    make_effect,
    make_mixes,
    move_bus,
    order_of_buses,
    remove_bus,
)
from .routing import put_between
from .shaping import (
    copy_mix,
    ear_mixes,
    join_mixes,
    lock_mixes,
    start_over,
    swap_mixes,
    take_starts,
    trim_ears,
    trim_mixes,
)
from .starts import Started, boost_selves, start_mixes

__all__ = [
    "NEW_MIX",
    "Singer",
    "Started",
    "all_lifted",
    "boost_selves",
    "copy_mix",
    "duplicate_bus",
    "ear_mixes",
    "fill_mix",
    "join_mixes",
    "lift_singers",
    "lifts",
    "lifts_in_use",
    "lock_mixes",
    "make_buses",
    "make_effect",
    "make_lift",
    "make_minus",
    "make_mixes",
    "move_bus",
    "order_of_buses",
    "put_between",
    "remove_bus",
    "remove_lift",
    "set_singers",
    "start_mixes",
    "start_over",
    "swap_mixes",
    "take_starts",
    "trim_ears",
    "trim_lift",
    "trim_mixes",
]
