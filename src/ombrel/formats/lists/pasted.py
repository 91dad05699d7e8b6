"""Text that was pasted: numbered lines or bullets between prose, columns parted by blanks."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from .grid import MOST_ROWS
from .numbered import number_of

__all__ = ["Mail", "blank_columns", "bulleted", "lines_of_a_mail"]

_BLANKS: Final = re.compile(r"\s{2,}|\t+")
_BULLET: Final = re.compile(r"^[-*+\u2022\u2023\u25aa\u25e6\u2043\u00b7\u2013\u2014]\s+(?=\S)")


@dataclass(frozen=True, slots=True)
class Mail:
    """The cells of each line of a mail, and which lines (from 0) are prose around the list."""

    rows: list[list[str]]
    prose: frozenset[int]


def lines_of_a_mail(text: str, separators: Sequence[str]) -> Mail | None:
    """The lines of a text in which rising numbers begin most of those between the first such line

    and the last; None for what is none, and where one of some separators parts them evenly (the
    text is a table then).
    """
    given = text.splitlines()
    if len(given) > MOST_ROWS:  # refused as a table is, before anything is done to them
        return None
    lines = [_BULLET.sub("", line.strip()) for line in given]
    numbers = [number_of(line) for line in lines]
    numbered = [place for place, number in enumerate(numbers) if number]
    firsts = [number for number in numbers if number]
    if len(numbered) < 3 or not _rise(firsts):
        return None
    first, last = numbered[0], numbered[-1]
    if len(numbered) < 0.6 * sum(bool(line) for line in lines[first : last + 1]):
        return None
    of_list = [lines[place] for place in numbered]
    if any(_is_even([line.count(mark) for line in of_list]) for mark in separators):
        return None
    prose = [n for n in range(first) if not _is_head(lines, n, first)] + [
        *range(last + 1, len(lines))
    ]
    wide = sum(bool(_BLANKS.search(line)) for line in of_list) > 0.6 * len(of_list)
    rows = [_BLANKS.split(line) if wide else [line] for line in lines]
    return Mail(rows, frozenset(prose))


def _rise(numbers: Sequence[int]) -> bool:
    """Whether numbers rise, save here and there."""
    rising = sum(after > before for before, after in pairwise(numbers))
    return rising >= 0.8 * (len(numbers) - 1)


def _is_even(counts: Sequence[int]) -> bool:
    """Whether most lines hold a separator equally often."""
    usual = max(set(counts), key=counts.count)
    return usual > 0 and counts.count(usual) >= 0.7 * len(counts)


def _is_head(lines: Sequence[str], place: int, first: int) -> bool:
    """Whether a line is a head ("Drums:") that stands right above the first line of a list."""
    words = lines[place].split()
    ends = lines[place][-1:] in ",.!?;"
    return place == first - 1 and 0 < len(words) <= 3 and not ends


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
