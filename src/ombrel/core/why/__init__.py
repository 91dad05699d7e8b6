"""Why: every way from a source to a listener, step by step, and every reason for silence."""

from .answer import Way, Why, why
from .reason import Reason, Remedy
from .steps import TAP_WORDS, Step

__all__ = ["TAP_WORDS", "Reason", "Remedy", "Step", "Way", "Why", "why"]
