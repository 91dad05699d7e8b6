"""The lightest ways of a flow that is being made, weighed once for all that is named by them."""

from collections.abc import Iterator
from functools import cached_property
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from .arrays import Floats
from .ears import Ears, ears_of
from .states import Weighing, lightest_at_ears, sides_led_to
from .twice import Paid, paid
from .wiring import Indices

if TYPE_CHECKING:
    from .table import Flow

__all__ = ["Names"]


class _Way(NamedTuple):
    """Ways weighed with some causes paid for: how, and at which ears."""

    paid: Paid
    weighing: Weighing
    ears: Ears


class Names:
    """Weights of the lightest ways from rows, as they are asked for."""

    def __init__(self, flow: "Flow") -> None:
        self._flow = flow

    def at_listeners(self, rows: Indices, columns: Indices) -> Floats:
        """Weight of the lightest way from each row to each listener; shape (n, columns)."""
        found = np.full((rows.size, columns.size), np.inf)
        for (paid_for, weighing, ears), places in self._concerned(rows):
            at = weighing.to_buses(rows[places], columns, detours=paid_for.detours)
            here = lightest_at_ears(at, ears, weighing.behind, columns)
            found[places] = np.minimum(found[places], here + paid_for.cost)
        return found

    def at_taps_of_fed(self, rows: Indices, fed: Indices, taps: Indices) -> Floats:
        """Weight of the lightest way from each row to taps of some of the channels that buses feed

        (places among these); shape (n, fed).
        """
        found = np.full((rows.size, fed.size), np.inf)
        channels = self._flow.fed.row[fed]
        for (paid_for, weighing, _), places in self._concerned(rows):
            closed = weighing.wiring.closed[channels, taps]
            here = weighing.at_fed[rows[places, None], fed] + closed + paid_for.cost
            found[places] = np.minimum(found[places], here)
        return found

    def _concerned(self, rows: Indices) -> Iterator[tuple[_Way, Indices]]:
        """The ways to weigh, each with the places of the rows that it may make lighter."""
        for way in self._ways:
            places = np.flatnonzero(way.paid.rows[rows])
            if places.size:
                yield way, places

    @cached_property
    def _ways(self) -> list[_Way]:
        flow = self._flow
        leads = sides_led_to(flow.wiring) if flow.fed.dry else None
        found = []
        for one in paid(flow):
            own = one.wiring is flow.wiring
            ears = flow.ears if own else ears_of(flow.arrays, flow.layout, one.wiring)
            found.append(_Way(one, Weighing(one.wiring, flow.fed, leads), ears))
        return found
