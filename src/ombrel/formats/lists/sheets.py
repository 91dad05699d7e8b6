"""The sheets of a workbook (XLSX), read as a stream and within bounds."""

import datetime
import io
import re
import zipfile
import zlib
from collections.abc import Iterable, Sequence
from typing import Final

import openpyxl
from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException
from openpyxl.utils.cell import range_boundaries
from openpyxl.utils.exceptions import InvalidFileException

from ombrel.core import BadFile

from .grid import MOST_CELLS, MOST_ROWS, STRUCK, WAY_OUT, Grid, check_size, clean, even
from .struck import left_out_rows, struck_styles

__all__ = ["read_sheets"]

LONGEST_UNPACKED: Final = 32 * 1024 * 1024
MOST_SHEETS: Final = 40  # that are read,
MOST_NAMED: Final = 200  # of so many that a workbook names
MOST_MERGED: Final = 100_000  # places of merged cells that are filled in, in a sheet

_LOCKED: Final = 0x1  # a member's general purpose bit 0 (APPNOTE of the ZIP format, 4.4.4)
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


def read_sheets(content: bytes) -> list[Grid]:
    """The sheets of a workbook, those without text too. Raises BadFile."""
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
            merges, left_out = _beside(archive)
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        grids, so_far = [], 0
        for sheet in book.worksheets[:MOST_SHEETS]:
            rows = even(_rows_of(sheet.iter_rows(values_only=True)))
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
        raise BadFile("The file is an archive, but no readable spreadsheet.", WAY_OUT) from error
    return grids


def _rows_of(given: Iterable[Sequence[object]]) -> list[list[str]]:
    rows: list[list[str]] = []
    blank = 0
    for row in given:
        cells = [clean(_cell_text(cell)) for cell in row]
        while cells and not cells[-1]:
            cells.pop()
        blank = 0 if cells else blank + 1
        if blank > 1_000:  # a sheet formatted down to its last row: the list ended long ago
            break
        rows.append(cells)
        check_size(len(rows) - blank, len(cells))
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
        raise BadFile("The spreadsheet names one sheet more than once.", WAY_OUT)


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


def _beside(archive: zipfile.ZipFile) -> tuple[dict[str, list[str]], dict[str, frozenset[int]]]:
    """What reading as a stream leaves out, by the sheet's name: ranges of merged cells ("B2:D2"),

    and rows that do not count.
    """
    merges: dict[str, list[str]] = {}
    left_out: dict[str, frozenset[int]] = {}
    there, struck = set(archive.namelist()), struck_styles(archive)
    for name, path in _paths(archive)[:MOST_SHEETS]:
        if path in there:
            sheet = archive.read(path)
            ranges = re.findall(rb'mergeCell ref="([A-Z]+\d+:[A-Z]+\d+)"', sheet)
            merges[name] = [one.decode() for one in ranges[:MOST_ROWS]]
            left_out[name] = left_out_rows(sheet, struck)
    return merges, left_out


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
