"""What sharing one gain is to a strip: an open stage, as if it spoke alone, unless it is out.

It stands before the fader or behind it, as the strip's group says: two stages, of which one counts.
"""

from typing import TYPE_CHECKING, Final

import numpy as np
from numpy.typing import NDArray

from .stages import STAGES

if TYPE_CHECKING:
    from .arrays import Arrays

__all__ = ["SHARING", "sharing_stages", "with_sharing"]

# the arrays that these stages are worked out from
SHARING: Final = frozenset(("sharing_of", "sharing_out", "sharing_before"))
_BEFORE, _BEHIND = (n for n, stage in enumerate(STAGES) if stage.leaf == "sharing/out")


def sharing_stages(arrays: "Arrays", strips: NDArray[np.intp]) -> NDArray[np.intp]:
    """In which stage some strips, members of groups, share their gain; shape (strips,)."""
    group = arrays.sharing_of[strips].astype(np.intp)
    return np.where(arrays.sharing_before[group] > 0.0, _BEFORE, _BEHIND)


def with_sharing(arrays: "Arrays") -> "Arrays":
    """The arrays with the stages that sharing is to its members: closed in those that are out."""
    stage = arrays.stage.copy()
    stage[:, [_BEFORE, _BEHIND]] = 1.0
    out = np.flatnonzero((arrays.sharing_of >= 0.0) & (arrays.sharing_out > 0.0))
    stage[out, sharing_stages(arrays, out)] = 0.0
    return arrays._replace(stage=stage)
