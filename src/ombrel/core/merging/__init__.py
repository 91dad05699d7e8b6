"""An imported list laid against a show: what is new, moved, gone, and where it goes."""

from .merge import Fate, Merge, merge
from .work import Ways

__all__ = ["Fate", "Merge", "Ways", "merge"]
