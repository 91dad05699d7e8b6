"""What a feed takes of each side of a strip to each side of a bus: pan, balance, formats in use."""

from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from ..values import balance, constant_power_pan
from .layout import Layout

if TYPE_CHECKING:
    from .arrays import Arrays, Floats

__all__ = ["feed_pans", "side_gains"]


def feed_pans(arrays: "Arrays", layout: Layout, strips: slice | NDArray[np.intp]) -> "Floats":
    """Pan of each feed of some strips, shape (n, buses): the send's own, or the strip's."""
    pan = arrays.pan[strips].copy()
    own = arrays.strip_pan[: layout.feeding][strips][:, None]
    pan[:, layout.groups] = own  # only channels, returns and groups have one; others are never fed
    house = layout.middle.stop - 2
    pan[:, house : house + 2] = own
    return pan


def side_gains(arrays: "Arrays", layout: Layout, strips: slice | NDArray[np.intp]) -> "Floats":
    """Gain from each side of some strips to each side of each bus, shape (n, 2, buses, 2).

    0.0 where a side is panned fully away, or either strip has no such side or is not in use.
    """
    pan = feed_pans(arrays, layout, strips)
    first = arrays.sides[: layout.feeding][strips]
    second = arrays.sides[layout.first_bus :]
    into_one, into_two = (second == 1) * 1.0, (second == 2) * 1.0
    gains = np.zeros((pan.shape[0], 2, layout.buses, 2))
    one, two = np.flatnonzero(first == 1), np.flatnonzero(first == 2)
    if one.size:
        left, right = constant_power_pan(pan[one])
        gains[one, 0, :, 0] = into_one + into_two * left
        gains[one, 0, :, 1] = into_two * right
    if two.size:
        left, right = balance(pan[two])
        gains[two, 0, :, 0] = into_two * left + into_one * 0.5
        gains[two, 1, :, 0] = into_one * 0.5
        gains[two, 1, :, 1] = into_two * right
    return gains
