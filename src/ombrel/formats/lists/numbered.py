"""Text that begins with its number ("1. Kick - dynamic"), as columns."""

import re
from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from typing import Final

from .grid import Grid
from .words import first_meaning

__all__ = ["apart", "number_of"]

_NUMBERED: Final = re.compile(
    r"(?P<number>(?:\#|[^\W\d_]{1,7}\.?\s?)?(?P<first>\d{1,3})"
    r"(?:\s*[-\u2013/+&]\s*[^\W\d_]{0,3}\d{1,3})?)"
    r"(?P<mark>\s*[.):=]\s*|\s+[-\u2013\u2014]\s+|\s+)(?=[^\d\s])(?P<what>.+)"
)
_OWN_WORDS: Final = frozenset({"", "#", "ch", "ch.", "kan", "kanal", "can", "canal", "voie", "in"})
# what parts a name from the rest, the likeliest first
_PARTS: Final = (
    re.compile(r"(?P<name>.+?)\s+[-\u2013\u2014]+\s+(?P<rest>.+)"),
    re.compile(r"(?P<name>.+?)\s*(?:\u2192|->|=>|:|;|\|)\s*(?P<rest>.+)"),
    re.compile(r"(?P<name>.+?)\s*[(\[](?P<rest>[^()\[\]]+)[)\]]\s*"),
    re.compile(r"(?P<name>.+?),\s+(?P<rest>.+)"),
)


def _matched(text: str) -> re.Match[str] | None:
    match = _NUMBERED.fullmatch(text)
    word = re.sub(r"[\d\s].*$", "", match["number"]).lower() if match else ""
    return match if match and word in _OWN_WORDS else None


def number_of(text: str) -> int | None:
    """The number that a text begins with, or None.

    >>> number_of("7/8) Overheads"), number_of("Ch 3 - Snare"), number_of("Tom 1"), number_of("9")
    (7, 3, None, None)
    """
    match = _matched(text)
    return int(match["first"]) if match else None


def apart(grid: Grid) -> Grid:
    """A sheet whose first column is numbered text as columns of their own; else as it is."""
    used = [c for c in range(len(grid.rows[0])) if any(row[c] for row in grid.rows)]
    first = used[0]
    counted = [row[first] for row in grid.counted if row[first]]
    matches = [match for text in counted if (match := _matched(text))]
    if len(matches) < max(2, 0.6 * len(counted)):
        return grid
    if len(used) > 1:
        numbers = [int(match["first"]) for match in matches]
        rises = all(after > before for before, after in pairwise(numbers))
        if not rises or any(match["mark"].isspace() for match in matches):
            return grid  # "2 Toms" is how many
    parts = _parts([match["what"] for match in matches]) if len(used) == 1 else None
    rows = []
    for row in grid.rows:
        match = _matched(row[first])
        name, rest = match["what"] if match else row[first], ""
        if parts and (parted := parts.fullmatch(name)):
            name, rest = parted["name"], parted["rest"]
        cells = (rest.strip(),) if parts else row[first + 1 :]
        rows.append((match["number"] if match else "", name.strip(), *cells))
    joined = frozenset((row, column + 1 - first) for row, column in grid.joined if column > first)
    return replace(grid, rows=tuple(rows), joined=joined)


def _parts(names: Sequence[str]) -> re.Pattern[str] | None:
    """What parts most names from what is said of them."""
    for parts in _PARTS:
        found = [match for name in names if (match := parts.fullmatch(name))]
        if 2 * len(found) < len(names):
            continue
        if parts is _PARTS[0] or 2 * sum(
            first_meaning(match["rest"], "kinds") is not None for match in found
        ) >= len(found):
            return parts
    return None
