"""What processing adds to the broadband level: the make-up gain of compressors.

A level counts gates as open and compressors as below their threshold, so all that is left of a
compressor is its make-up, blended with the plain signal. Filters are left out of it.
"""

from typing import TYPE_CHECKING, Final

import numpy as np

from .stages import stage_of

if TYPE_CHECKING:
    from .arrays import Arrays

__all__ = ["PROCESSING", "with_processing"]

# the arrays that the stage of a compressor is worked out from
PROCESSING: Final = frozenset(("compressing", "make_up", "blend"))
_COMPRESSOR: Final = stage_of("compressor")


def with_processing(arrays: "Arrays") -> "Arrays":
    """The arrays with the stage that each strip's compressor is: (1 - blend) + blend * make-up."""
    gain = 1.0 + arrays.blend * (arrays.make_up - 1.0)
    stage = arrays.stage.copy()
    stage[:, _COMPRESSOR] = np.where(arrays.compressing > 0.0, gain, 1.0)
    return arrays._replace(stage=stage)
