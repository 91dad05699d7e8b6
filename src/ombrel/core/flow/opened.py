"""A cell's own feed as it will be once it is open: what stands behind its control, in gains."""

from collections.abc import Callable, Mapping
from dataclasses import replace

import numpy as np

from ..catalogue import ASSIGNED_TO, of_kind
from ..values import Value
from ..wires import AFTER_FADER, NOTHING, Arrays, Floats, as_opened, followed, passed, stage_of
from .ears import ears_of
from .table import HALF, Flow

__all__ = ["OpenedWay"]

_FADER = stage_of("fader")


class OpenedWay:
    """The own feeds of a flow's cells, as they stand and as they will be once open.

    Open means: each closed stage as its remedy would set it, what no socket carries as `patched`
    would carry it (values by address, for a bus), a feed that is panned away in the centre.
    """

    def __init__(self, flow: Flow, patched: Callable[[str], Mapping[str, Value]]) -> None:
        self.flow, self._patched = flow, patched
        self._stage = as_opened(flow.arrays.stage, flow.arrays.dca_opened)
        tap = np.ones_like(flow.wiring.tap)
        for place in range(tap.shape[1]):
            tap[:, place] = self._stage[:, : passed(place)].prod(axis=1)
        self._wiring = replace(flow.wiring, tap=tap)
        self._ears: dict[tuple[int, bool], Floats] = {}

    def now_db(self, row: int, column: int) -> float:
        """What the rest of the own path adds to its control as all stands, in dB."""
        at_bus = self._at_bus(row, column, self.flow.arrays.stage)
        if column >= self.flow.layout.buses:
            return _level_db(at_bus)
        return _level_db(at_bus @ self.flow.ears.gain[column])

    def opened_db(self, row: int, column: int) -> float:
        """What arrives with the control at 0 dB, once the own path is open."""
        at_bus = self._at_bus(row, column, self._stage)
        if column >= self.flow.layout.buses:
            return _level_db(at_bus)
        if not at_bus.any():  # panned away between strips: the remedy brings it to the centre
            at_bus = np.array([self._before(row, column, self._stage).prod(), 0.0])
        now = at_bus @ self.flow.ears.gain[column]
        if now.any():
            return _level_db(now)
        opened = at_bus @ self._opened_ears(column, patch=False)
        return _level_db(opened if opened.any() else at_bus @ self._opened_ears(column, patch=True))

    def _opened_ears(self, column: int, *, patch: bool) -> Floats:
        """Gains to the ears of a bus with its closed stages open; `patch`: and patched."""
        if (column, patch) not in self._ears:
            layout = self.flow.layout
            arrays = self._lightest_sockets(column)
            if patch:
                values = self._patched(layout.listener(column))
                arrays, _ = followed(arrays, layout.desk, values)
            self._ears[column, patch] = ears_of(arrays, layout, self._wiring).gain[column]
        return self._ears[column, patch]

    def _lightest_sockets(self, column: int) -> Arrays:
        """Without the sockets that more would have to be opened for than for another."""
        flow = self.flow
        closed = flow.wiring.closed[flow.layout.first_bus + column]
        sockets = flow.sockets_of(column)
        source = flow.arrays.out_source.copy()
        for side, socket, tap, _ in sockets:
            least = min(closed[other] for which, _, other, _ in sockets if which == side)
            if socket and closed[tap] > least:
                source[flow.layout.output_index[socket]] = NOTHING
        return flow.arrays._replace(out_source=source)

    def _before(self, row: int, column: int, stage: Floats) -> Floats:
        """Gains of the source's stages before the tap, without a fader that is the control."""
        flow, layout, arrays = self.flow, self.flow.layout, self.flow.arrays
        if column >= layout.buses:
            return stage[row, : passed(int(arrays.out_tap[column - layout.buses]))]
        tap = int(arrays.tap[row, column])
        gains = stage[row, : passed(tap)].copy()
        kind = of_kind(flow.layout.listener(column))
        if kind in ASSIGNED_TO and tap == AFTER_FADER:
            gains[_FADER] = 1.0
        return gains

    def _at_bus(self, row: int, column: int, stage: Floats) -> Floats:
        flow, layout = self.flow, self.flow.layout
        through = self._before(row, column, stage).prod()
        if column >= layout.buses:  # a return's side has half of its power, and so has their sum
            return np.array([through * (1.0 if row < layout.channels else HALF), 0.0])
        start = np.array([1.0, 0.0]) if row < layout.channels else np.full(2, np.sqrt(0.5))
        found: Floats = start @ flow.wiring.share[row, :, column, :] * through
        if of_kind(layout.listener(column)) == "group":  # off, its remedy brings it to 0 dB
            found = found * (float(flow.arrays.amp[row, column]) or 1.0)
        return found


def _level_db(ears: Floats) -> float:
    power = float((ears * ears).sum())
    return 10.0 * float(np.log10(power)) if power > 0.0 else -np.inf
