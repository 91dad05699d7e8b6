"""Text that was pasted: columns parted by runs of blanks, bullets between lines of prose."""

import re
from collections.abc import Sequence
from typing import Final

__all__ = ["blank_columns", "bulleted"]

_BLANKS: Final = re.compile(r"\s{2,}|\t+")
_BULLET: Final = re.compile(r"^[-*+\u2022\u2023\u25aa\u25e6\u2043\u00b7\u2013\u2014]\s+(?=\S)")


def blank_columns(text: str) -> list[list[str]] | None:
    """The cells of each line, where runs of blanks part most lines into as many; None elsewhere."""
    lines = [line.strip() for line in text.splitlines()]
    parted = [_BLANKS.split(line) if line else [] for line in lines]
    widths = [len(cells) for cells in parted if cells]
    wide = [width for width in widths if width > 1]
    if len(wide) < 3 or len(wide) < 0.6 * len(widths):
        return None
    return parted


def bulleted(rows: Sequence[Sequence[str]]) -> tuple[list[list[str]], frozenset[int]]:
    """Rows without the bullets before them; and, where there are such, the rows of prose above the

    first and below the last of them (from 0).
    """
    marked = [bool(row) and bool(_BULLET.match(row[0])) for row in rows]
    full = sum(any(row) for row in rows)
    if sum(marked) < 3 or sum(marked) < 0.4 * full:
        return [list(row) for row in rows], frozenset()
    first, last = marked.index(True), len(marked) - 1 - marked[::-1].index(True)
    bare = [
        [_BULLET.sub("", row[0]), *row[1:]] if is_marked else list(row)
        for row, is_marked in zip(rows, marked, strict=True)
    ]
    return bare, frozenset([*range(first), *range(last + 1, len(rows))])
