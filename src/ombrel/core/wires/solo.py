"""Solo in place: a mute of all channels and returns with which what is soloed has nothing to do.

Left open are what is soloed, what is solo-proof, and every channel and return that lies on a way,
open or closed, to or from something soloed: what feeds it, and the channels that buses feed and the
effects' returns through which it goes on.
"""

from typing import TYPE_CHECKING, Final

import numpy as np
from numpy.typing import NDArray

from .layout import Layout
from .rulers import reached_dcas
from .sides import side_gains
from .stages import stage_of

if TYPE_CHECKING:
    from .arrays import Arrays

__all__ = ["LEADING", "SOLOING", "with_solo"]

Bools = NDArray[np.bool_]

# the arrays that say what is soloed, and those that say which strips lead to which
SOLOING: Final = frozenset(
    ("dca_of", "dca_in", "dca_solo", "solo_of", "solo_proof", "solo_in_place")
)
LEADING: Final = frozenset(
    ("on", "amp", "pan", "strip_pan", "sides", "source", "spare", "on_spare", "engine")
)
_SOLO: Final = stage_of("solo")


def with_solo(arrays: "Arrays", layout: Layout) -> "Arrays":
    """The arrays with the stage that solo in place is to channels and returns."""
    stage = arrays.stage.copy()
    stage[:, _SOLO] = 1.0
    soloed = arrays.solo_of > 0.0
    if arrays.dca_solo.any():
        soloed = soloed | (reached_dcas(arrays) & (arrays.dca_solo > 0.0)).any(axis=1)
    if arrays.solo_in_place.any() and soloed.any():
        kept = _on_ways(arrays, layout, soloed)[: layout.rows]
        stage[: layout.rows, _SOLO] = kept | (arrays.solo_proof > 0.0)
    return arrays._replace(stage=stage)


def _on_ways(arrays: "Arrays", layout: Layout, soloed: Bools) -> Bools:
    """Strips that lie on a way to or from some of them, and these; shape (strips,)."""
    from .fed import fed_by  # it reads arrays, which this is a part of

    live = (arrays.on * arrays.amp > 0.0)[:, None, :, None]
    straight = (side_gains(arrays, layout, slice(0, layout.feeding)) > 0.0) & live
    leads = straight.reshape(2 * layout.feeding, 2 * layout.buses).astype(np.float32)
    fed = fed_by(arrays, layout)
    bus_side = layout.first_bus + fed.bus
    taken = np.zeros((2 * len(layout.strips), 2 * len(layout.strips)), dtype=np.float32)
    taken[: leads.shape[0], 2 * layout.first_bus :] = leads
    for side in (0, 1):
        takes = fed.share[:, side] > 0.0
        taken[
            2 * bus_side[takes] + side, 2 * fed.row[takes] + layout.side_of_node[fed.node[takes]]
        ] = 1.0
    sides = np.stack((arrays.sides > 0.0, arrays.sides > 1.0), axis=1)
    start = (sides & soloed[:, None]).reshape(-1)
    on_way = _reached(start, taken) | _reached(start, taken.T)
    found: Bools = on_way.reshape(-1, 2).any(axis=1) | soloed
    return found


def _reached(start: Bools, step: NDArray[np.float32]) -> Bools:
    found = start
    while True:
        further: Bools = found | (found.astype(np.float32) @ step > 0.0)
        if (further == found).all():
            return found
        found = further
