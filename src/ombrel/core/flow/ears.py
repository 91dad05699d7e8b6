"""What a listener hears of its bus: which sockets carry which side, from which tap."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..wires import AFTER_FADER, NOTHING, Arrays, Floats, Layout, Wiring

__all__ = ["Ears", "ears_of"]


@dataclass(frozen=True, slots=True, eq=False)
class Ears:
    """For each bus: `gain`, shape (buses, 2 sides, 2 ears): from its input to each ear. `weight`

    and `patched`, shape (buses, 2): of the closed stages before the socket that carries a side
    with the fewest, and whether any does. `by_matrix`: heard by way of a matrix. `inner`: a group
    that no socket carries, shown as it stands behind its fader.
    """

    gain: Floats
    weight: Floats
    patched: NDArray[np.bool_]
    by_matrix: NDArray[np.bool_]
    inner: NDArray[np.bool_]

    def differing(self, other: "Ears") -> NDArray[np.bool_]:
        """The buses of which something differs."""
        found: NDArray[np.bool_] = (self.gain != other.gain).any(axis=(1, 2))
        found |= (self.weight != other.weight).any(axis=1)
        return found


def ears_of(arrays: Arrays, layout: Layout, wiring: Wiring) -> Ears:
    """The ears of every bus. Of several sockets that carry a side the loudest counts, by tap and

    trim; an engine that takes a mix, and a matrix that passes a bus on to a socket, count as one
    behind the fader for each side.
    """
    buses, first = layout.buses, layout.first_bus
    carried = np.zeros((3, buses))
    weight = np.full((3, buses), np.inf)
    used = np.flatnonzero(arrays.out_source >= 0)
    bus, side = np.divmod(arrays.out_source[used].astype(np.intp), 3)
    tap = arrays.out_tap[used].astype(np.intp)
    np.maximum.at(carried, (side, bus), wiring.tap[first + bus, tap] * arrays.out_trim[used])
    np.minimum.at(weight, (side, bus), wiring.closed[first + bus, tap])
    engines = arrays.engine[arrays.engine != NOTHING].astype(np.intp) // 3
    outside = np.isfinite(weight).any(axis=0)
    outside[engines] = True
    inner = np.zeros(buses, dtype=np.bool_)
    inner[layout.groups] = ~outside[layout.groups]
    last = layout.matrices
    through = wiring.leads(slice(first, layout.feeding))[:, last]
    by_matrix = np.zeros(buses, dtype=np.bool_)
    by_matrix[: last.start] = (through & outside[last]).any(axis=1)
    by_matrix &= ~outside & ~inner
    behind_fader = by_matrix | inner
    behind_fader[engines] = True
    extra = np.flatnonzero(behind_fader)
    strips = first + extra
    for place in (0, 1):
        carried[place, extra] = np.maximum(carried[place, extra], wiring.tap[strips, AFTER_FADER])
        weight[place, extra] = np.minimum(weight[place, extra], wiring.closed[strips, AFTER_FADER])
    one, two = arrays.sides[first:] == 1, arrays.sides[first:] == 2
    own = np.isfinite(weight)
    left, right, whole = own
    summed = two & whole & ~(left & right)  # some ear has only the sum
    gain = np.zeros((buses, 2, 2))
    gain[:, 0, 0] = np.where(one, carried.max(axis=0), 0.0) + two * left * carried[0]
    gain[:, 1, 1] = two * right * carried[1]
    half = summed * carried[2] * 0.5
    gain[:, :, 0] += (half * ~left)[:, None]
    gain[:, :, 1] += (half * (left & ~right))[:, None]
    lightest = np.full((buses, 2), np.inf)
    lightest[:, 0] = np.where(one, weight.min(axis=0), np.inf)
    for place in (0, 1):
        of_side = np.minimum(weight[place], np.where(summed, weight[2], np.inf))
        lightest[:, place] = np.where(two, of_side, lightest[:, place])
    return Ears(gain, lightest, np.isfinite(lightest), by_matrix, inner)
