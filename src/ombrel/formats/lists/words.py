"""The words that input lists use, in eight languages, out of one data file (`words.toml`)."""

import re
import tomllib
from collections.abc import Iterable, Mapping
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any, Final, Literal, get_args

from ombrel.core import plain

__all__ = [
    "ROLES",
    "Role",
    "first_meaning",
    "heading_role",
    "is_among",
    "knows",
    "plain",
    "share_of",
    "whole_meaning",
    "words_of",
]

Role = Literal[
    "ignore",
    "number",
    "name",
    "microphone",
    "kind",
    "socket",
    "box",
    "performer",
    "part",
    "where",
    "stand",
    "phantom",
    "stereo",
    "side",
    "count",
    "level",
    "family",
    "colour",
    "notes",
]
ROLES: Final[tuple[Role, ...]] = get_args(Role)


@cache
def _file() -> dict[str, Any]:
    return tomllib.loads((files("ombrel.formats.lists") / "words.toml").read_text("utf-8"))


@cache
def _table(name: str) -> dict[str, dict[str, str]]:
    """A table of the file: by meaning each word, made plain, with its language."""
    meanings: Mapping[str, Mapping[str, Iterable[str]]] = _file()[name]
    return {
        meaning: {plain(word): language for language, words in by.items() for word in words}
        for meaning, by in meanings.items()
    }


@cache
def words_of(table: str, meaning: str) -> frozenset[str]:
    """All words, made plain, of one meaning, such as ("sides", "left")."""
    return frozenset(_table(table)[meaning])


@cache
def _longest(table: str) -> int:
    return max(word.count(" ") + 1 for words in _table(table).values() for word in words)


def _phrases(text: str, longest: int) -> Iterable[str]:
    """Every run of words in a plain text, the longest first, of equal ones the last first."""
    parts = text.split()
    for length in range(min(longest, len(parts)), 0, -1):
        for start in range(len(parts) - length, -1, -1):
            yield " ".join(parts[start : start + length])


def is_among(text: str, table: str, meaning: str) -> bool:
    """Whether a text as a whole is a word of this meaning."""
    return plain(text) in words_of(table, meaning)


@lru_cache(maxsize=30_000)
def knows(text: str, table: str, meaning: str) -> bool:
    """Whether a text holds a word of this meaning."""
    words = words_of(table, meaning)
    return any(phrase in words for phrase in _phrases(plain(text), _longest(table)))


def share_of(cells: Iterable[str], table: str, meanings: Iterable[str]) -> float:
    """Which part of some texts holds a word of any of these meanings, 0.0 to 1.0."""
    texts, wanted = list(cells), list(meanings)
    if not texts:
        return 0.0
    return sum(any(knows(text, table, one) for one in wanted) for text in texts) / len(texts)


@lru_cache(maxsize=30_000)
def first_meaning(text: str, table: str) -> str | None:
    """The meaning of the longest word that a text holds; among equals the last in the text."""
    by_word = _meanings(table)
    for phrase in _phrases(plain(text), _longest(table)):
        if phrase in by_word:
            return by_word[phrase]
    return None


def whole_meaning(text: str, table: str) -> str | None:
    """The meaning of a text that is, as a whole, a word of a table."""
    return _meanings(table).get(plain(text))


@cache
def _meanings(table: str) -> dict[str, str]:
    found: dict[str, str] = {}
    for meaning, words in _table(table).items():
        for word in words:
            found.setdefault(word, meaning)
    return found


@lru_cache(maxsize=5_000)
def heading_role(heading: str) -> tuple[str | None, float]:
    """What a heading says of its column, and how surely: 1.0 by all its words, less by a part.

    >>> heading_role("Mikrofon / DI"), heading_role("Kick drum")[0]
    (('microphone', 1.0), None)
    """
    by_word = _meanings("headings")
    whole = plain(re.sub(r"[(\[].*?[)\]]", " ", heading)) or plain(heading)
    if whole in by_word:
        return by_word[whole], 1.0
    if len(whole) > 40:
        return None, 0.0
    for part in re.split(r"[/|&+,]|\s-\s", heading):
        if plain(part) in by_word:
            return by_word[plain(part)], 0.7
    for phrase in _phrases(whole, _longest("headings")):
        if phrase in by_word and len(phrase) > 1:
            return by_word[phrase], 0.5
    return None, 0.0
