"""The sheets of text in a file that a band sent: CSV in any dress, or a workbook (XLSX).

Everything is refused that could hurt: too large, too many rows, a picture in disguise, a sheet that
unpacks to gigabytes.
"""

import csv
import datetime
import io
import re
import unicodedata
import zipfile
import zlib
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

import openpyxl
from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException
from openpyxl.utils.cell import range_boundaries
from openpyxl.utils.exceptions import InvalidFileException

from ombrel.core import BadFile

from ..guarding import unguarded
from .pasted import blank_columns, bulleted
from .struck import left_out_rows

__all__ = ["LONGEST_FILE", "MOST_COLUMNS", "MOST_ROWS", "Book", "Grid", "read_book"]

LONGEST_FILE: Final = 4 * 1024 * 1024
LONGEST_UNPACKED: Final = 32 * 1024 * 1024
MOST_ROWS: Final = 2_000
MOST_COLUMNS: Final = 60
MOST_SHEETS: Final = 40  # that are read,
MOST_NAMED: Final = 200  # of so many that a workbook names
MOST_MERGED: Final = 100_000  # places of merged cells that are filled in, in a sheet
MOST_CELLS: Final = 400_000
LONGEST_CELL: Final = 1_000

_LOCKED: Final = 0x1  # a member's general purpose bit 0 (APPNOTE of the ZIP format, 4.4.4)
_SPACES: Final = ("Cc", "Zs", "Zl", "Zp")
_DELIMITERS: Final = ((",", "commas"), (";", "semicolons"), ("\t", "tabs"), ("|", "bars"))
_WAY_OUT = "Save the list again as CSV (UTF-8) or XLSX and choose that file."
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
# What openpyxl and the archive below it let through for a damaged file; none of it is our bug.
_UNREADABLE: Final = (
    InvalidFileException,
    zipfile.BadZipFile,
    zlib.error,
    AttributeError,
    EOFError,
    IndexError,
    KeyError,
    OSError,
    RuntimeError,
    SyntaxError,
    TypeError,
    ValueError,
    DefusedXmlException,
)


STRUCK: Final = "struck, hidden or cancelled in the list: left out"
_PROSE: Final = "stands outside the list: left out"


@dataclass(frozen=True, slots=True, kw_only=True)
class Grid:
    """One sheet: rows of cells, stripped, all of one width. A merged cell stands in each of its

    places; `joined` are those places, (row, column) each, save its first one. `left_out`: rows that

    do not count (from 0), and why: hidden, struck through, prose around a list.
    """

    name: str
    hidden: bool = False
    rows: tuple[tuple[str, ...], ...] = ()
    joined: frozenset[tuple[int, int]] = frozenset()
    left_out: Mapping[int, str] = field(default_factory=dict)


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
        raise BadFile("The file is empty.", _WAY_OUT)
    for signature, name in _SIGNATURES:
        if content.startswith(signature):
            raise BadFile(f"The file is {name}, whatever its name says.", _WAY_OUT)
    if content.startswith(b"PK"):
        return _book(_sheets(content), "spreadsheet (XLSX)")
    text, encoding = _decoded(content)
    told = re.match(r"sep=(.)\r?\n", text)  # a spreadsheet's own hint, no row of the list
    if told:
        text = text[told.end() :]
    delimiter, name = (told[1], f"{told[1]!r}") if told else _delimiter(text)
    try:
        rows = _parted(text, delimiter, quoted=True)
    except csv.Error as fault:
        if "expected after" not in str(fault):  # cut off in the middle of a quotation
            raise BadFile(f"The file breaks the rules of CSV: {fault}.", _WAY_OUT) from fault
        try:  # a text whose quotation marks are its own
            rows = _parted(text, delimiter, quoted=False)
        except csv.Error as error:
            raise BadFile(f"The file breaks the rules of CSV: {error}.", _WAY_OUT) from error
        name = f"{name}, quotation marks as they stand"
    if max(map(len, rows), default=0) < 3 and (blanks := blank_columns(text)):
        rows, name = [[_clean(cell) for cell in row] for row in blanks], "runs of blanks"
        _check_size(len(rows), max(map(len, rows)))
    rows, prose = bulleted(rows)
    grid = Grid(name="", rows=_even(rows), left_out=dict.fromkeys(prose, _PROSE))
    return _book([grid], f"CSV, {name}, {encoding}")


def _parted(text: str, delimiter: str, *, quoted: bool) -> list[list[str]]:
    """A text's rows, cut into cells. Raises csv.Error for what breaks the rules."""
    rows: list[list[str]] = []
    lines = io.StringIO(text, newline="")
    reader = csv.reader(lines, delimiter=delimiter, strict=True)
    if not quoted:
        reader = csv.reader(lines, delimiter=delimiter, strict=True, quoting=csv.QUOTE_NONE)
    for row in reader:
        rows.append([_clean(unguarded(cell)) for cell in row])
        _check_size(len(rows), len(row))
    return rows


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
    for delimiter, name in _DELIMITERS:
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


def _sheets(content: bytes) -> list[Grid]:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            unpacked = sum(member.file_size for member in archive.infolist())
            if unpacked > LONGEST_UNPACKED or len(archive.infolist()) > 500:
                raise BadFile(
                    f"The spreadsheet unpacks to {unpacked / 1024 / 1024:.0f} MB.",
                    "Copy the list alone into a new spreadsheet.",
                )
            if any(member.flag_bits & _LOCKED for member in archive.infolist()):
                raise BadFile(
                    "The spreadsheet is locked with a password.",
                    "Save it without one, and choose it.",
                )
            _check_sheets(archive)
            merges = _merges(archive)
            left_out = {
                name: left_out_rows(archive, path)
                for name, path in _paths(archive)[:MOST_SHEETS]
                if path in archive.namelist()
            }
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        grids, so_far = [], 0
        for sheet in book.worksheets[:MOST_SHEETS]:
            rows = _even(_rows_of(sheet.iter_rows(values_only=True)))
            so_far += sum(len(row) for row in rows)
            if so_far > MOST_CELLS:
                raise BadFile(
                    "The spreadsheet's sheets are too many and too large to be input lists.",
                    "Copy the list alone into a new spreadsheet.",
                )
            joined: set[tuple[int, int]] = set()
            if rows:
                rows = _filled(rows, merges.get(sheet.title, []), joined)
            hidden = sheet.sheet_state != "visible"
            grids.append(
                Grid(
                    name=sheet.title,
                    hidden=hidden,
                    rows=rows,
                    joined=frozenset(joined),
                    left_out=dict.fromkeys(left_out.get(sheet.title, ()), STRUCK),
                )
            )
    except BadFile:
        raise
    except _UNREADABLE as error:
        raise BadFile("The file is an archive, but no readable spreadsheet.", _WAY_OUT) from error
    return grids


def _rows_of(given: Iterable[Sequence[object]]) -> list[list[str]]:
    rows: list[list[str]] = []
    blank = 0
    for row in given:
        cells = [_clean(_cell_text(cell)) for cell in row]
        while cells and not cells[-1]:
            cells.pop()
        blank = 0 if cells else blank + 1
        if blank > 1_000:  # a sheet formatted down to its last row: the list ended long ago
            break
        rows.append(cells)
        _check_size(len(rows) - blank, len(cells))
    del rows[len(rows) - min(blank, len(rows)) :]
    return rows


def _check_sheets(archive: zipfile.ZipFile) -> None:
    """Each sheet is a part of its own: a small file could name one a thousand times."""
    paths = [path for _, path in _paths(archive)]
    if len(paths) > MOST_NAMED:
        raise BadFile(
            f"The spreadsheet has {len(paths)} sheets.",
            "Copy the list alone into a new spreadsheet.",
        )
    if len(set(paths)) < len(paths):
        raise BadFile("The spreadsheet names one sheet more than once.", _WAY_OUT)


def _paths(archive: zipfile.ZipFile) -> list[tuple[str, str]]:
    """The name of each sheet, and where it stands in the archive."""
    space = {
        "m": "http://schemas.openxmlformats.org/spreadsheetml/2006/main",
        "r": "http://schemas.openxmlformats.org/package/2006/relationships",
    }
    reference = "{http://schemas.openxmlformats.org/officeDocument/2006/relationships}id"
    linked = ElementTree.fromstring(archive.read("xl/_rels/workbook.xml.rels"))
    paths = {
        one.get("Id"): one.get("Target", "") for one in linked.iterfind("r:Relationship", space)
    }
    found = []
    for sheet in ElementTree.fromstring(archive.read("xl/workbook.xml")).iterfind(
        "m:sheets/m:sheet", space
    ):
        path = paths.get(sheet.get(reference), "")
        path = path.lstrip("/") if path.startswith("/") else f"xl/{path}"
        found.append((sheet.get("name", ""), path))
    return found


def _merges(archive: zipfile.ZipFile) -> dict[str, list[str]]:
    """Ranges of merged cells ("B2:D2") by the sheet's name: reading as a stream leaves them out."""
    found: dict[str, list[str]] = {}
    there = set(archive.namelist())
    for name, path in _paths(archive)[:MOST_SHEETS]:
        if path in there:
            ranges = re.findall(rb'mergeCell ref="([A-Z]+\d+:[A-Z]+\d+)"', archive.read(path))
            found[name] = [one.decode() for one in ranges[:MOST_ROWS]]
    return found


def _filled(
    rows: tuple[tuple[str, ...], ...], merges: list[str], joined: set[tuple[int, int]]
) -> tuple[tuple[str, ...], ...]:
    """The rows with the text of each merged cell in all its places, which are put into `joined`."""
    cells, left_over = [list(row) for row in rows], MOST_MERGED
    for merge in merges:
        left, top, right, bottom = (int(edge) - 1 for edge in range_boundaries(merge) if edge)
        if top >= len(cells) or left >= len(cells[0]):
            continue
        bottom, right = min(bottom, len(cells) - 1), min(right, len(cells[0]) - 1)
        left_over -= (bottom - top + 1) * (right - left + 1)
        if left_over < 0:
            break
        text = cells[top][left]
        for row in range(top, bottom + 1):
            for column in range(left, right + 1):
                cells[row][column] = text
                if (row, column) != (top, left):
                    joined.add((row, column))
    return tuple(tuple(row) for row in cells)


def _cell_text(cell: object) -> str:
    if cell is None:
        return ""
    if isinstance(cell, float) and cell.is_integer():
        return str(int(cell))
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, datetime.date):
        # a spreadsheet makes a date of "1-4", by its country's order; a range that somebody typed
        # runs upward
        return "-".join(str(number) for number in sorted((cell.day, cell.month)))
    return str(cell)


def _clean(cell: str) -> str:
    # joiners and marks of direction belong to the text; only breaks and controls do not
    text = "".join(" " if unicodedata.category(c) in _SPACES else c for c in cell)
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


def _even(rows: list[list[str]]) -> tuple[tuple[str, ...], ...]:
    width = max((len(row) for row in rows), default=0)
    return tuple(tuple(row + [""] * (width - len(row))) for row in rows)


def _book(grids: list[Grid], said: str) -> Book:
    full = [grid for grid in grids if any(any(row) for row in grid.rows)]
    if not full:
        raise BadFile("The file has no text in any cell.", _WAY_OUT)
    return Book(tuple(full), said)
