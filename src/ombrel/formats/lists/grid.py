"""One sheet of text as a grid of cells, and the limits of what is read from outside."""

import unicodedata
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from ombrel.core import BadFile

__all__ = [
    "MOST_CELLS",
    "MOST_ROWS",
    "PROSE",
    "STRUCK",
    "WAY_OUT",
    "Grid",
    "check_size",
    "clean",
    "even",
]

MOST_ROWS: Final = 2_000
MOST_COLUMNS: Final = 200  # a list on its side has a column for each line
MOST_CELLS: Final = 400_000
LONGEST_CELL: Final = 1_000

WAY_OUT: Final = "Save the list again as CSV (UTF-8) or XLSX and choose that file."
STRUCK: Final = "struck, hidden or cancelled in the list: left out"
PROSE: Final = "stands outside the list: left out"

_SPACES: Final = ("Cc", "Zs", "Zl", "Zp")


@dataclass(frozen=True, slots=True, kw_only=True)
class Grid:
    """One sheet: rows of cells, stripped, all of one width. A merged cell stands in each of its

    places; `joined` are those places, (row, column) each, save its first one. `left_out`: rows that

    do not count (from 0), and why: hidden, struck through, prose around a list. `turned`: the rows

    are the columns of the file.
    """

    name: str
    hidden: bool = False
    rows: tuple[tuple[str, ...], ...] = ()
    turned: bool = False
    joined: frozenset[tuple[int, int]] = frozenset()
    left_out: Mapping[int, str] = field(default_factory=dict)

    @property
    def counted(self) -> tuple[tuple[str, ...], ...]:
        """The rows, those that do not count without their text."""
        if not self.left_out:
            return self.rows
        blank = ("",) * len(self.rows[0])
        return tuple(blank if n in self.left_out else row for n, row in enumerate(self.rows))


def clean(cell: str) -> str:
    """The text of a cell, without controls and breaks. Raises BadFile for one too long."""
    # joiners and marks of direction belong to the text; only breaks and controls do not
    text = "".join(" " if unicodedata.category(c) in _SPACES else c for c in cell)
    if len(text) > LONGEST_CELL:
        raise BadFile(f"A cell holds {len(text)} characters: {text[:30]!r}…", WAY_OUT)
    return " ".join(text.split())


def check_size(rows: int, columns: int) -> None:
    """Raises BadFile where a sheet has too many rows or columns."""
    if rows > MOST_ROWS:
        raise BadFile(
            f"The file has more than {MOST_ROWS} rows; no stage has so many lines.",
            "Cut it down to the input list.",
        )
    if columns > MOST_COLUMNS:
        raise BadFile(f"A row has more than {MOST_COLUMNS} columns.", WAY_OUT)


def even(rows: list[list[str]]) -> tuple[tuple[str, ...], ...]:
    """Rows of one width."""
    width = max((len(row) for row in rows), default=0)
    return tuple(tuple(row + [""] * (width - len(row))) for row in rows)
