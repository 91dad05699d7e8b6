"""Who is louder than a source at a listener: the column of a table, read from the loudest down."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from ..flow import Flow, State, source_name
from ..show import Show

__all__ = ["Loud", "loudest"]

SHOWN: Final = 5


@dataclass(frozen=True, slots=True)
class Loud:
    """A source that is heard at a listener. `rank`: 1 is the loudest; equals share the higher."""

    rank: int
    source: str
    name: str
    level_db: float


def loudest(show: Show, flow: Flow, source: str, listener: str) -> tuple[Loud, ...]:
    """The loudest sources at a listener, and `source` among them or after them if it is heard.

    Wet ways are left out, as in the table. Raises UnknownAddress.
    """
    layout = flow.layout
    row, column = layout.row(source), layout.column(listener)
    levels, states = flow.part(list(range(layout.rows)), [column])
    level_db = np.where(states[:, 0] == State.HEARD, levels[:, 0], -np.inf)
    order = np.argsort(-level_db, kind="stable")
    shown = [int(r) for r in order[:SHOWN] if level_db[r] > -np.inf]
    if level_db[row] > -np.inf and row not in shown:
        shown = [*shown[: SHOWN - 1], row]
    return tuple(
        Loud(
            rank=int((level_db > level_db[r]).sum()) + 1,
            source=layout.source(r),
            name=source_name(show, layout.source(r)),
            level_db=float(level_db[r]),
        )
        for r in shown
    )
