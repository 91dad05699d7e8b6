"""A change, two states, a scene and a fitting in words that people read."""

from .compare import (
    HEARD_HOW,
    Difference,
    HeardOtherwise,
    belongs_to,
    compared,
    differences,
    heard_otherwise,
    in_one,
    narrowed,
    restored,
    value_text,
)
from .describe import (
    described,
    whose,
)
from .fitting_reading import (
    FittingValue,
    fitting_in_one_line,
    fitting_said,
    fitting_seen,
    processor_said,
    value_said,
)
from .pairing import Paired, paired
from .refusing import refusal
from .scene_reading import (
    cells_of_aspects,
    compare_scenes,
    held_strips,
    held_text,
    held_values,
    leaf_label,
    scene_cards,
)

__all__ = [
    "Difference",
    "FittingValue",
    "HEARD_HOW",
    "HeardOtherwise",
    "Paired",
    "belongs_to",
    "cells_of_aspects",
    "compare_scenes",
    "compared",
    "described",
    "differences",
    "fitting_in_one_line",
    "fitting_said",
    "fitting_seen",
    "heard_otherwise",
    "held_strips",
    "held_text",
    "held_values",
    "in_one",
    "leaf_label",
    "narrowed",
    "paired",
    "processor_said",
    "refusal",
    "restored",
    "scene_cards",
    "value_said",
    "value_text",
    "whose",
]
