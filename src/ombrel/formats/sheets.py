"""Sheets as files for spreadsheets: CSV by RFC 4180, and XLSX with typed cells."""

import csv
import io
import math
import re
from collections.abc import Sequence
from typing import Final

import openpyxl
from openpyxl.styles import Alignment, Font, PatternFill
from openpyxl.utils import get_column_letter

from ombrel.core import Column, Datum, Sheet, datum_text

from .guarding import guarded

__all__ = ["sheet_to_csv", "sheets_to_xlsx"]

_PLACES: Final = 6
_NOT_IN_XML: Final = re.compile("[^\t\n\r\x20-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
_WIDEST: Final = 44
_FORBIDDEN: Final = str.maketrans(dict.fromkeys("[]:*?/\\", " "))  # in the name of a page


def _plain(column: Column, datum: Datum) -> str:
    """A cell of a CSV: numbers as numbers, no formulas whatever their sign; texts guarded."""
    if isinstance(datum, str):
        return guarded(datum)
    if datum == -math.inf:
        return datum_text(column, datum)
    return f"{_number(datum):.{_PLACES}f}".rstrip("0").rstrip(".")


def _number(datum: float) -> float:
    """A number as a file has it: what lies beyond is of the arithmetic, and 0 has no sign."""
    return round(datum, _PLACES) + 0.0


def _text(text: str) -> str:
    """A text that a workbook can hold: XML 1.0 has no other characters."""
    return _NOT_IN_XML.sub("\ufffd", text)


def sheet_to_csv(sheet: Sheet) -> bytes:
    """The sheet as CSV: RFC 4180 (CRLF, quotes where needed), UTF-8 with a byte-order mark, since

    spreadsheets take UTF-8 for something else without one.
    """
    text = io.StringIO(newline="")
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow(column.heading for column in sheet.columns)
    for row in sheet.rows:
        writer.writerow(map(_plain, sheet.columns, row))
    return text.getvalue().encode("utf-8-sig")


def sheets_to_xlsx(sheets: Sequence[Sheet], *, show_name: str) -> bytes:
    """A spreadsheet with a page for each sheet; numbers are numbers, headings stay in sight."""
    book = openpyxl.Workbook()
    for page in list(book.worksheets):
        book.remove(page)
    book.properties.title = _text(show_name)
    for sheet in sheets:
        title = _text(sheet.title).translate(_FORBIDDEN).strip("' ")[:31]
        page = book.create_sheet(title or sheet.key)
        page.append([column.heading for column in sheet.columns])
        for number, row in enumerate(sheet.rows, start=2):
            for place, (column, datum) in enumerate(zip(sheet.columns, row, strict=True), start=1):
                cell = page.cell(number, place)
                if datum == -math.inf:
                    cell.value = datum_text(column, datum)
                elif isinstance(datum, str):
                    cell.value = _text(datum) or None
                else:
                    cell.value = _number(datum) if isinstance(datum, float) else datum
                if isinstance(datum, str):
                    cell.data_type = "s"  # a text is a text, even when it starts with "="
                elif column.unit:
                    cell.number_format = _number_format(column)
                cell.alignment = Alignment(vertical="top", wrap_text=True)
        for cell in page[1]:
            cell.font = Font(bold=True)
            cell.fill = PatternFill("solid", fgColor="ECE4D6")
            cell.alignment = Alignment(vertical="top", wrap_text=True)
        for place, column in enumerate(sheet.columns, start=1):
            texts = [datum_text(column, row[place - 1]) for row in sheet.rows]
            widest = max(len(text) for text in (column.heading, *texts))
            page.column_dimensions[get_column_letter(place)].width = min(widest + 3, _WIDEST)
        page.freeze_panes = "A2"
        page.page_setup.orientation = "landscape"
        page.page_setup.fitToWidth, page.page_setup.fitToHeight = 1, 0
        page.sheet_properties.pageSetUpPr.fitToPage = True
        page.print_title_rows = "1:1"
    buffer = io.BytesIO()
    book.save(buffer)
    return buffer.getvalue()


def _number_format(column: Column) -> str:
    digits = "0" + ("." + "0" * column.places if column.places else "")
    return f"+{digits};-{digits};{digits}" if column.signed else digits
