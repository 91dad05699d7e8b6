"""Sheets written out: CSV by RFC 4180, a spreadsheet (XLSX), and PDF for the wall of the truck."""

import csv
import io
from collections.abc import Sequence
from functools import cache
from pathlib import Path
from typing import Final
from xml.sax.saxutils import escape

import openpyxl
from openpyxl.styles import Alignment, Font, PatternFill
from openpyxl.utils import get_column_letter
from reportlab.lib import colors
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import PageBreak, Paragraph, SimpleDocTemplate, Table, TableStyle

from ombrel.core import Sheet

__all__ = ["sheet_to_csv", "sheets_to_pdf", "sheets_to_xlsx"]

# A cell that starts like a formula would be run by the spreadsheet that opens it.
_FORMULA_STARTS: Final = ("=", "+", "-", "@", "\t", "\r")
_INK, _RULE, _BAND = (
    colors.HexColor("#1d1a24"),
    colors.HexColor("#b9b0bd"),
    colors.HexColor("#f3efe7"),
)


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell.startswith(_FORMULA_STARTS) else cell


def sheet_to_csv(sheet: Sheet) -> bytes:
    """The sheet as CSV: RFC 4180 (CRLF, quotes where needed), UTF-8 with a byte-order mark, since

    spreadsheets take UTF-8 for something else without one.
    """
    text = io.StringIO(newline="")
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow(sheet.columns)
    writer.writerows([_harmless(cell) for cell in row] for row in sheet.rows)
    return text.getvalue().encode("utf-8-sig")


def sheets_to_xlsx(sheets: Sequence[Sheet], *, show_name: str) -> bytes:
    """A spreadsheet with a page for each sheet; headings stay in sight."""
    book = openpyxl.Workbook()
    for page in list(book.worksheets):
        book.remove(page)
    book.properties.title = show_name
    for sheet in sheets:
        page = book.create_sheet(sheet.title)
        page.append(list(sheet.columns))
        for row in sheet.rows:
            page.append([_harmless(cell) for cell in row])
        for cell in page[1]:
            cell.font = Font(bold=True)
            cell.fill = PatternFill("solid", fgColor="ECE4D6")
        for number, heading in enumerate(sheet.columns, start=1):
            widest = max([len(heading), *(len(row[number - 1]) for row in sheet.rows)])
            page.column_dimensions[get_column_letter(number)].width = min(widest + 3, 44)
        for line in page.iter_rows():
            for cell in line:
                cell.alignment = Alignment(vertical="top", wrap_text=True)
        page.freeze_panes = "A2"
        page.page_setup.orientation = "landscape"
        page.page_setup.fitToWidth, page.page_setup.fitToHeight = 1, 0
        page.sheet_properties.pageSetUpPr.fitToPage = True
        page.print_title_rows = "1:1"
    buffer = io.BytesIO()
    book.save(buffer)
    return buffer.getvalue()


@cache
def _fonts() -> tuple[str, str]:
    """A plain and a bold font with as many letters as there are to be had on this machine."""
    dejavu = Path("/usr/share/fonts/truetype/dejavu")
    for plain, bold in ((dejavu / "DejaVuSans.ttf", dejavu / "DejaVuSans-Bold.ttf"),
                        (Path("Vera.ttf"), Path("VeraBd.ttf"))):  # fmt: skip
        if plain.is_absolute() and not (plain.exists() and bold.exists()):
            continue
        pdfmetrics.registerFont(TTFont("Paper", str(plain)))
        pdfmetrics.registerFont(TTFont("PaperBold", str(bold)))
        break
    return "Paper", "PaperBold"


def sheets_to_pdf(sheets: Sequence[Sheet], *, show_name: str, desk_name: str) -> bytes:
    """All sheets as A4 across, each on pages of its own, headings repeated, pages numbered."""
    plain, bold = _fonts()
    body = ParagraphStyle("body", fontName=plain, fontSize=8, leading=9.6, textColor=_INK)
    head = ParagraphStyle("head", parent=body, fontName=bold)
    title = ParagraphStyle("title", parent=head, fontSize=15, leading=20)
    width = landscape(A4)[0] - 24 * mm
    story: list[object] = []
    for sheet in sheets:
        if story:
            story.append(PageBreak())
        heading = f"{escape(sheet.title)} \u00b7 {escape(show_name)}"
        story.append(Paragraph(heading, title))
        if not sheet.rows:
            story.append(Paragraph("Nothing to list yet.", body))
            continue
        cells = [[Paragraph(escape(cell), head) for cell in sheet.columns]]
        cells += [[Paragraph(escape(cell), body) for cell in row] for row in sheet.rows]
        table = Table(cells, colWidths=_widths(sheet, width), repeatRows=1)
        table.setStyle(
            TableStyle(
                [
                    ("LINEBELOW", (0, 0), (-1, 0), 0.8, _INK),
                    ("LINEBELOW", (0, 1), (-1, -1), 0.25, _RULE),
                    ("ROWBACKGROUNDS", (0, 1), (-1, -1), [colors.white, _BAND]),
                    ("VALIGN", (0, 0), (-1, -1), "TOP"),
                    ("LEFTPADDING", (0, 0), (-1, -1), 3),
                    ("RIGHTPADDING", (0, 0), (-1, -1), 3),
                    ("TOPPADDING", (0, 0), (-1, -1), 2.5),
                    ("BOTTOMPADDING", (0, 0), (-1, -1), 2.5),
                ]
            )
        )
        story.append(table)

    def foot(canvas: object, document: object) -> None:
        canvas.setFont(plain, 7.5)  # type: ignore[attr-defined]
        text = f"{show_name} \u00b7 {desk_name} \u00b7 page {document.page}"  # type: ignore[attr-defined]
        canvas.drawString(12 * mm, 7 * mm, text)  # type: ignore[attr-defined]

    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer,
        pagesize=landscape(A4),
        leftMargin=12 * mm,
        rightMargin=12 * mm,
        topMargin=12 * mm,
        bottomMargin=14 * mm,
        title=show_name,
        author="Ombrel",
        invariant=1,
    )
    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return buffer.getvalue()


def _widths(sheet: Sheet, width: float) -> list[float]:
    """Column widths by the longest text in each, long ones held back so that they wrap."""
    longest = [
        min(max([len(heading), *(len(row[n]) for row in sheet.rows)]), 30) + 2
        for n, heading in enumerate(sheet.columns)
    ]
    return [width * share / sum(longest) for share in longest]
