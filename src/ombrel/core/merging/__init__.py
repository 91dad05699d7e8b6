"""An imported list laid against a show: what is new, changed and gone, and where each line lands.

A list that comes again, or a newer one, finds the lines that it brought: nothing is doubled, and
what the list does not speak of stays as somebody set it.
"""

from .merge import Fate, Merge, merge
from .work import Ways

__all__ = ["Fate", "Merge", "Ways", "merge"]
