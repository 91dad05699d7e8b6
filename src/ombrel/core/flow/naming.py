"""The lightest ways of a flow that is being made, weighed once for all that is named by them."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from .arrays import Floats
from .ears import Ears, ears_of
from .states import Weighing, lightest_at_ears
from .twice import paid
from .wiring import Indices, Wiring

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Names"]


class _Weighed(NamedTuple):
    """One weighing: by which wiring, what is paid beforehand, of which rows (places among those

    that were asked about), and what it found at buses and at channels that buses feed.
    """

    wiring: Wiring
    paid: float
    places: Indices
    at_buses: Floats
    at_fed: Floats


class Names:
    """Weights of the lightest ways from rows, as they are asked for."""

    def __init__(self, flow: "Flow") -> None:
        self._flow = flow
        self._whole: list[_Weighed] | None = None

    def at_listeners(self, rows: Indices, columns: Indices) -> Floats:
        """Weight of the lightest way from each row to each listener; shape (n, columns)."""
        found = np.full((rows.size, columns.size), np.inf)
        for one in self._weighed(rows, columns):
            behind = one.wiring.behind_buses()
            here = lightest_at_ears(one.at_buses, self._ears(one.wiring), behind, columns)
            found[one.places] = np.minimum(found[one.places], here + one.paid)
        return found

    def at_taps_of_fed(self, rows: Indices, fed: Indices, taps: Indices) -> Floats:
        """Weight of the lightest way from each row to taps of some of the channels that buses feed

        (places among these); shape (n, fed).
        """
        found = np.full((rows.size, fed.size), np.inf)
        channels = self._flow.fed.row[fed]
        for one in self._weighed(rows, self._flow.layout.every_bus):
            here = one.at_fed[:, fed] + one.wiring.closed[channels, taps] + one.paid
            found[one.places] = np.minimum(found[one.places], here)
        return found

    def _ears(self, wiring: Wiring) -> Ears:
        flow = self._flow
        return flow.ears if wiring is flow.wiring else ears_of(flow.arrays, flow.layout, wiring)

    def _weighed(self, rows: Indices, columns: Indices) -> Iterator[_Weighed]:
        every = self._flow.layout.every_row
        # where buses feed channels every bus is weighed anyway: then for all who ask at once
        if self._whole is None and self._flow.fed.dry and rows.size * 3 > every.size:
            self._whole = list(self._of(every, self._flow.layout.every_bus))
        if self._whole is None:
            yield from self._of(rows, columns)
            return
        for one in self._whole:
            at = np.searchsorted(one.places, rows)
            at[at == one.places.size] = 0
            here = one.places[at] == rows
            at = at[here]
            places = np.flatnonzero(here)
            yield _Weighed(one.wiring, one.paid, places, one.at_buses[at], one.at_fed[at])

    def _of(self, rows: Indices, columns: Indices) -> Iterator[_Weighed]:
        for wiring, cost, places in paid(self._flow, rows):
            weighing = Weighing(wiring, self._flow.fed)
            at_buses = weighing.to_buses(rows[places], columns)
            yield _Weighed(wiring, cost, places, at_buses, weighing.at_fed)
