"""The sheets of text in a file that a band sent: CSV in any dress, or a workbook (XLSX).

Everything is refused that could hurt: too large, too many rows, a picture in disguise, a sheet that
unpacks to gigabytes.
"""

from dataclasses import dataclass
from typing import Final

from ombrel.core import BadFile

from .grid import MOST_COLUMNS, MOST_ROWS, WAY_OUT, Grid
from .sheets import read_sheets
from .text import read_text

__all__ = ["LONGEST_FILE", "MOST_COLUMNS", "MOST_ROWS", "Book", "Grid", "read_book"]

LONGEST_FILE: Final = 4 * 1024 * 1024

_SIGNATURES: Final = (
    (b"\x89PNG", "a PNG picture"),
    (b"\xff\xd8\xff", "a JPEG picture"),
    (b"GIF8", "a GIF picture"),
    (b"%PDF", "a PDF"),
    (b"\xd0\xcf\x11\xe0", "an old binary office file, or one locked with a password"),
    (b"\x1f\x8b", "a gzip archive"),
    (b"Rar!", "an archive"),
    (b"7z\xbc\xaf", "an archive"),
)


@dataclass(frozen=True, slots=True)
class Book:
    """The sheets of a file that hold text, and what kind of file it was taken for (`said`)."""

    grids: tuple[Grid, ...]
    said: str


def read_book(content: bytes) -> Book:
    """The sheets in a file. What it is is told from its bytes, never from its name.

    Raises BadFile, saying what is wrong with it and what to do.
    """
    if len(content) > LONGEST_FILE:
        size = len(content) / 1024 / 1024
        raise BadFile(
            f"The file has {size:.0f} MB; an input list may have {LONGEST_FILE // 1024 // 1024}.",
            "Take out pictures and other sheets.",
        )
    if not content.strip(b"\0 \r\n\t\xef\xbb\xbf"):
        raise BadFile("The file is empty.", WAY_OUT)
    for signature, name in _SIGNATURES:
        if content.startswith(signature):
            raise BadFile(f"The file is {name}, whatever its name says.", WAY_OUT)
    if content.startswith(b"PK"):
        return _book(read_sheets(content), "spreadsheet (XLSX)")
    grid, said = read_text(content)
    return _book([grid], said)


def _book(grids: list[Grid], said: str) -> Book:
    full = [grid for grid in grids if any(any(row) for row in grid.rows)]
    if not full:
        raise BadFile("The file has no text in any cell.", WAY_OUT)
    return Book(tuple(full), said)
