"""A table of text from a file that a band sent: CSV in any dress, or the first sheet of an XLSX.

Everything is refused that could hurt: too large, too many rows, a picture in disguise, a sheet that
unpacks to gigabytes.
"""

import csv
import io
import zipfile
import zlib
from dataclasses import dataclass
from typing import Final

import openpyxl
from defusedxml.common import DefusedXmlException
from openpyxl.utils.exceptions import InvalidFileException

from ombrel.core import BadFile

__all__ = ["LONGEST_FILE", "MOST_COLUMNS", "MOST_ROWS", "Table", "read_table"]

LONGEST_FILE: Final = 4 * 1024 * 1024
LONGEST_UNPACKED: Final = 32 * 1024 * 1024
MOST_ROWS: Final = 2_000
MOST_COLUMNS: Final = 60
LONGEST_CELL: Final = 1_000

_WAY_OUT = "Save the list again as CSV (UTF-8) or XLSX and choose that file."
_SIGNATURES: Final = (
    (b"\x89PNG", "a PNG picture"),
    (b"\xff\xd8\xff", "a JPEG picture"),
    (b"GIF8", "a GIF picture"),
    (b"%PDF", "a PDF"),
    (b"\xd0\xcf\x11\xe0", "an old binary office file"),
    (b"\x1f\x8b", "a gzip archive"),
    (b"Rar!", "an archive"),
    (b"7z\xbc\xaf", "an archive"),
)
# What openpyxl and the archive below it let through for a damaged file; none of it is our bug.
_UNREADABLE: Final = (
    InvalidFileException,
    zipfile.BadZipFile,
    zlib.error,
    AttributeError,
    EOFError,
    IndexError,
    KeyError,
    NotImplementedError,
    OSError,
    SyntaxError,
    TypeError,
    ValueError,
    DefusedXmlException,
)


@dataclass(frozen=True, slots=True)
class Table:
    """Rows of cells, stripped, all of one width; `said`: what kind of file it was taken for."""

    rows: tuple[tuple[str, ...], ...]
    said: str


def read_table(content: bytes) -> Table:
    """The table in a file. What it is is told from its bytes, never from its name.

    Raises BadFile, saying what is wrong with it and what to do.
    """
    if len(content) > LONGEST_FILE:
        size = len(content) / 1024 / 1024
        raise BadFile(
            f"The file has {size:.0f} MB; an input list may have {LONGEST_FILE // 1024 // 1024}.",
            "Take out pictures and other sheets.",
        )
    if not content.strip(b"\0 \r\n\t\xef\xbb\xbf"):
        raise BadFile("The file is empty.", _WAY_OUT)
    for signature, name in _SIGNATURES:
        if content.startswith(signature):
            raise BadFile(f"The file is {name}, whatever its name says.", _WAY_OUT)
    if content.startswith(b"PK"):
        return _even(_sheet_rows(content), "spreadsheet (XLSX)")
    text, encoding = _decoded(content)
    delimiter, name = _delimiter(text)
    try:
        rows = []
        for row in csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True):
            rows.append([_clean(cell) for cell in row])
            _check_size(len(rows), len(row))
    except csv.Error as error:
        place = f"near row {len(rows) + 1}"
        raise BadFile(f"The file breaks the rules of CSV {place}: {error}.", _WAY_OUT) from error
    return _even(rows, f"CSV, {name}, {encoding}")


def _decoded(content: bytes) -> tuple[str, str]:
    for mark, encoding in ((b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16")):
        if content.startswith(mark):
            try:
                return content.decode(encoding), "UTF-16"
            except UnicodeDecodeError as error:
                raise BadFile(f"The file is cut off: {error.reason}.", _WAY_OUT) from error
    if b"\0" in content:
        raise BadFile("The file is not text: it holds zero bytes.", _WAY_OUT)
    try:
        text, encoding = content.decode("utf-8-sig"), "UTF-8"
    except UnicodeDecodeError:
        try:
            text, encoding = content.decode("cp1252"), "Windows-1252"
        except UnicodeDecodeError as error:
            raise BadFile("The file is text in no encoding that Ombrel reads.", _WAY_OUT) from error
    odd = sum(ord(character) < 32 and character not in "\r\n\t" for character in text)
    if odd > len(text) // 50:
        raise BadFile("The file is not text: it is full of control characters.", _WAY_OUT)
    return text, encoding


def _delimiter(text: str) -> tuple[str, str]:
    """The separator that cuts the first rows into the most, and the most even, columns."""
    best, best_score = (",", "commas"), 0.0
    for delimiter, name in ((",", "commas"), (";", "semicolons"), ("\t", "tabs")):
        widths = []
        try:
            sample = io.StringIO("\n".join(text.splitlines()[:40]), newline="")
            for row in csv.reader(sample, delimiter=delimiter):
                if any(cell.strip() for cell in row):
                    widths.append(len(row))
        except csv.Error:
            continue
        if not widths:
            continue
        usual = max(set(widths), key=lambda width: (widths.count(width), width))
        score = (usual - 1) * widths.count(usual) / len(widths)
        if score > best_score:
            best, best_score = (delimiter, name), score
    return best


def _sheet_rows(content: bytes) -> list[list[str]]:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            unpacked = sum(member.file_size for member in archive.infolist())
            if unpacked > LONGEST_UNPACKED or len(archive.infolist()) > 500:
                raise BadFile(
                    f"The spreadsheet unpacks to {unpacked / 1024 / 1024:.0f} MB.",
                    "Copy the list alone into a new spreadsheet.",
                )
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        sheet = book.worksheets[0]
        rows: list[list[str]] = []
        blank = 0
        for row in sheet.iter_rows(values_only=True):
            cells = [_clean(_cell_text(cell)) for cell in row]
            while cells and not cells[-1]:
                cells.pop()
            blank = 0 if cells else blank + 1
            if blank > 1_000:  # a sheet formatted down to its last row: the list ended long ago
                break
            rows.append(cells)
            _check_size(len(rows) - blank, len(cells))
        del rows[len(rows) - min(blank, len(rows)) :]
    except BadFile:
        raise
    except _UNREADABLE as error:
        raise BadFile("The file is an archive, but no readable spreadsheet.", _WAY_OUT) from error
    return rows


def _cell_text(cell: object) -> str:
    if cell is None:
        return ""
    if isinstance(cell, float) and cell.is_integer():
        return str(int(cell))
    if hasattr(cell, "month") and hasattr(cell, "day"):
        # a spreadsheet makes a date of "1-4"; give back the range that somebody typed
        return f"{cell.day}-{cell.month}"
    return str(cell)


def _clean(cell: str) -> str:
    text = "".join(c if c.isprintable() else " " for c in cell.replace("\u00a0", " "))
    if len(text) > LONGEST_CELL:
        raise BadFile(f"A cell holds {len(text)} characters: {text[:30]!r}…", _WAY_OUT)
    return " ".join(text.split())


def _check_size(rows: int, columns: int) -> None:
    if rows > MOST_ROWS:
        raise BadFile(
            f"The file has more than {MOST_ROWS} rows; no stage has so many lines.",
            "Cut it down to the input list.",
        )
    if columns > MOST_COLUMNS:
        raise BadFile(f"A row has more than {MOST_COLUMNS} columns.", _WAY_OUT)


def _even(rows: list[list[str]], said: str) -> Table:
    width = max((len(row) for row in rows), default=0)
    if not any(any(row) for row in rows):
        raise BadFile("The file has no text in any cell.", _WAY_OUT)
    return Table(tuple(tuple(row + [""] * (width - len(row))) for row in rows), said)
