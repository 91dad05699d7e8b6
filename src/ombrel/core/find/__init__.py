"""Wishes in plain words: what is meant by them, and what would answer them."""

from .answer import Answer, Found
from .finding import find
from .places import HereDone

__all__ = ["Answer", "Found", "HereDone", "find"]
