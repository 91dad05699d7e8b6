"""Where each strip, socket and cell of a desk stands in the arrays of the flow.

Strips are numbered through: channels, returns, groups, mixes, house, mono, matrices. So those that
can be a row of the table (channels, returns) come first, those that feed (all but matrices) before
the last, and those that are fed by feeds (groups to matrices) from `first_bus` on.
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import STRIP_KINDS, Desk, strips_of
from ..values import UnknownAddress

__all__ = ["Layout", "layout_of"]

SIDES: Final = {"left": 0, "right": 1, "whole": 2}


def _fixed(places: NDArray[np.intp]) -> NDArray[np.intp]:
    """Places that are made once for a desk, and that nobody writes to."""
    places.setflags(write=False)
    return places


@dataclass(frozen=True)
class Layout:
    """Places of a desk. Counts: `rows` = channels + returns, `nodes` = channels + 2 returns (a

    return's sides apart), `feeding` strips that can feed, `buses` strips that feeds lead to,
    `sockets` outputs, `columns` = buses + sockets (a socket that carries a direct out listens).
    """

    desk: Desk

    @cached_property
    def strips(self) -> tuple[str, ...]:
        return tuple(strips_of(self.desk, *STRIP_KINDS))

    @cached_property
    def index(self) -> dict[str, int]:
        return {strip: number for number, strip in enumerate(self.strips)}

    @cached_property
    def channels(self) -> int:
        return self.desk.channels

    @cached_property
    def rows(self) -> int:
        return self.desk.channels + self.desk.returns

    @cached_property
    def nodes(self) -> int:
        return self.desk.channels + 2 * self.desk.returns

    @cached_property
    def row_of_node(self) -> NDArray[np.intp]:
        """The row (and strip) of each node, shape (nodes,)."""
        of_returns = self.channels + np.arange(2 * self.desk.returns) // 2
        return _fixed(np.concatenate((np.arange(self.channels), of_returns)))

    @cached_property
    def side_of_node(self) -> NDArray[np.intp]:
        """The side of each node, shape (nodes,)."""
        return _fixed(np.maximum(np.arange(self.nodes) - self.channels, 0) % 2)

    @cached_property
    def first_node(self) -> NDArray[np.intp]:
        """The node of each row, a return's left, shape (rows,)."""
        rows = np.arange(self.rows)
        return _fixed(np.where(rows < self.channels, rows, 2 * rows - self.channels))

    @cached_property
    def every_row(self) -> NDArray[np.intp]:
        return _fixed(np.arange(self.rows))

    @cached_property
    def every_node(self) -> NDArray[np.intp]:
        return _fixed(np.arange(self.nodes))

    @cached_property
    def every_bus(self) -> NDArray[np.intp]:
        return _fixed(np.arange(self.buses))

    @cached_property
    def first_bus(self) -> int:
        return self.rows

    @cached_property
    def feeding(self) -> int:
        return len(self.strips) - self.desk.matrices

    @cached_property
    def buses(self) -> int:
        return len(self.strips) - self.rows

    @cached_property
    def groups(self) -> slice:
        """Columns of the groups."""
        return slice(0, self.desk.groups)

    @cached_property
    def middle(self) -> slice:
        """Columns of mixes, house and mono: what groups feed, and what feeds matrices."""
        return slice(self.desk.groups, self.buses - self.desk.matrices)

    @cached_property
    def matrices(self) -> slice:
        """Columns of the matrices."""
        return slice(self.buses - self.desk.matrices, self.buses)

    @cached_property
    def outputs(self) -> tuple[str, ...]:
        return tuple(
            f"output/{box.key}/{n}" for box in self.desk.boxes for n in range(1, box.outputs + 1)
        )

    @cached_property
    def output_index(self) -> dict[str, int]:
        return {socket: number for number, socket in enumerate(self.outputs)}

    @cached_property
    def columns(self) -> int:
        return self.buses + len(self.outputs)

    def row(self, source: str) -> int:
        """The row of a source such as `channel/7` or `return/2`. Raises UnknownAddress."""
        number = self.index.get(source, -1)
        if not 0 <= number < self.rows:
            says = "a source is a channel such as channel/7 or a return such as return/2"
            raise UnknownAddress(source, f"{says} of {self.desk.name}")
        return number

    def source(self, row: int) -> str:
        """The strip of a row."""
        return self.strips[row]

    def column(self, listener: str) -> int:
        """The column of a listener: a bus or an output socket. Raises UnknownAddress."""
        if listener in self.output_index:
            return self.buses + self.output_index[listener]
        number = self.index.get(listener, -1)
        if number < self.first_bus:
            raise UnknownAddress(listener, f"{self.desk.name} has no such listener")
        return number - self.first_bus

    def listener(self, column: int) -> str:
        """The bus or socket of a column."""
        if column >= self.buses:
            return self.outputs[column - self.buses]
        return self.strips[self.first_bus + column]

    def node_rows(self, row: int) -> tuple[int, ...]:
        """The nodes of a row: one of a channel, two of a return."""
        if row < self.channels:
            return (row,)
        first = self.channels + 2 * (row - self.channels)
        return (first, first + 1)


@lru_cache(maxsize=64)
def layout_of(desk: Desk) -> Layout:
    """The one layout of a desk."""
    return Layout(desk)
