"""Where to draw a curve: as many points as it bends, so that straight lines between them are it."""

from collections.abc import Callable
from typing import Final

import numpy as np
from numpy.typing import NDArray

__all__ = ["refined"]

Floats = NDArray[np.float64]
_OFF_DB: Final = 0.03  # at the thirds between two points a line is no farther off
_ROUNDS: Final = 12
_MOST: Final = 1_500


def refined(
    of: Callable[[Floats], Floats], start: Floats, *, low_db: float, high_db: float
) -> tuple[Floats, Floats]:
    """Places, ascending, and what curves are there, shape (n,) and (curves, n): joined by lines

    these are off by less than 0.1 dB wherever they lie between `low_db` and `high_db`.

    `of` gives the curves at some places; `start`: where to begin, all peaks and corners among them.
    """
    places = np.unique(start)
    found = of(places)
    unsettled = np.ones(places.size - 1, dtype=np.bool_)
    for _ in range(_ROUNDS):
        at = np.flatnonzero(unsettled)
        if not at.size or places.size > _MOST:
            break
        # at thirds: half-way a curve that bends both ways may lie on its line by chance
        far = np.array([[1.0 / 3.0], [2.0 / 3.0]])
        between = places[at] + far * (places[at + 1] - places[at])
        there = of(between.ravel()).reshape(len(found), 2, -1)
        lines = found[:, None, at] + far * (found[:, None, at + 1] - found[:, None, at])
        seen = (np.maximum(there, lines) > low_db) & (np.minimum(there, lines) < high_db)
        bends = ((np.abs(there - lines) > _OFF_DB) & seen).any(axis=(0, 1))
        at, between, there = at[bends], between[:, bends], there[:, :, bends]
        before = np.repeat(at + 1, 2)
        places = np.insert(places, before, between.T.ravel())
        found = np.insert(found, before, there.transpose(0, 2, 1).reshape(len(found), -1), axis=1)
        unsettled = np.zeros(places.size - 1, dtype=np.bool_)
        new = at + 2 * np.arange(at.size)
        unsettled[new] = unsettled[new + 1] = unsettled[new + 2] = True
    return places, found
