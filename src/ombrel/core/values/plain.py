"""Words as they are compared: without capitals, accents and punctuation."""

import re
import unicodedata
from functools import lru_cache
from typing import Final

__all__ = ["is_near", "plain"]

# letters that no decomposition takes apart
_LETTERS: Final = str.maketrans(
    {"æ": "ae", "œ": "oe", "ø": "o", "đ": "d", "ð": "d", "ł": "l", "þ": "th", "ı": "i", "ħ": "h"}
)
_SHORTEST: Final = 5  # letters of a word that may be a slip of another: shorter ones too easily are


@lru_cache(maxsize=30_000)
def plain(text: str) -> str:
    """A text as words are compared: lower case, without accents and punctuation.

    >>> plain("N° de voie"), plain("Groß-Membran (L)"), plain("+48 V"), plain("Bjørn")
    ('n de voie', 'gross membran l', '48 v', 'bjorn')
    """
    apart = unicodedata.normalize("NFKD", text.casefold().translate(_LETTERS))
    letters = "".join(c for c in apart if not unicodedata.combining(c) and c not in "\u00b0\u00ba")
    return " ".join(re.sub(r"[^\w#]+|_", " ", letters).split())


def is_near(typed: str, word: str) -> bool:
    """Whether a plain word was meant by another: one letter wrong, missing or too many, or two

    neighbours swapped; never the first, and never in a word of fewer than five letters.

    >>> is_near("fidlde", "fiddle"), is_near("fiddel", "fiddle"), is_near("bass", "brass")
    (True, True, False)
    """
    if len(typed) < _SHORTEST or typed[0] != word[:1] or abs(len(typed) - len(word)) > 1:
        return False
    at = next((n for n, (a, b) in enumerate(zip(typed, word, strict=False)) if a != b), len(word))
    rest, other = typed[at:], word[at:]
    if len(typed) > len(word):
        return rest[1:] == other
    if len(typed) < len(word):
        return rest == other[1:]
    return rest[1:] == other[1:] or (rest[1::-1] == other[:2] and rest[2:] == other[2:])
