"""The lightest ways of a flow that is being made, weighed once for all that is named by them."""

from collections.abc import Iterator
from functools import cached_property
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from ..wires import Floats, Indices
from .ears import Ears, ears_of
from .states import Bools, Weighing, lightest_at_ears, sides_led_to
from .twice import Paid, paid

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
        self._ways: dict[int, _Way] = {}  # by their place in `_paid`, made when they are asked for

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
        for number, one in enumerate(self._paid):
            places = np.flatnonzero(one.rows[rows])
            if places.size:
                if number not in self._ways:
                    self._ways[number] = self._way(one)
                yield self._ways[number], places

    @cached_property
    def _paid(self) -> list[Paid]:
        return list(paid(self._flow))

    @cached_property
    def _leads(self) -> Bools | None:
        return sides_led_to(self._flow.wiring) if self._flow.fed.dry else None

    def _way(self, one: Paid) -> _Way:
        flow = self._flow
        wiring = one.wiring(flow.wiring)
        own = wiring is flow.wiring
        ears = flow.ears if own else ears_of(flow.arrays, flow.layout, wiring)
        return _Way(one, Weighing(wiring, flow.fed, self._leads), ears)
