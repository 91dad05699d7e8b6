"""Sheets as PDF for the wall of the truck, set by WeasyPrint: any script, tagged, words whole.

Run as a program it makes one in a process of its own, so that a long one holds nobody up: it reads
the sheets as JSON from its input, tells each page on its error output, and writes the PDF.
"""

import json
import logging
import re
import sys
from collections.abc import Callable, Sequence
from dataclasses import asdict
from html import escape
from typing import Any, Final

from ombrel.core import Column, Sheet, datum_text

__all__ = ["pages_guessed", "sheets_to_json", "sheets_to_pdf"]

_ROWS_A_PAGE: Final = 30
# A page that stands has room for so many columns, and for so many rows more: a mix of 34 is one.
_NARROW: Final = 8
_ROWS_STANDING: Final = range(27, 51)
_UNIT: Final = re.compile(r"(\d) (V|dBu?|ms|%)\b")
_LONG_WORD: Final = re.compile(r"\S{44,}")  # longer than any column can be wide: may be broken

_STYLE: Final = """
@page {
  size: A4 landscape; margin: 16mm 12mm 14mm;
  @top-left { content: string(sheet); font-weight: bold; font-size: 10pt }
  @top-right { content: string(show); font-size: 9pt }
  @bottom-left { content: string(desk); font-size: 7.5pt }
  @bottom-center { content: string(date); font-size: 7.5pt }
  @bottom-right { content: "page " counter(page) " of " counter(pages); font-size: 7.5pt }
}
@page tall { size: A4 portrait; margin: 16mm 14mm 14mm }
.tall { page: tall }
html { font-family: "DejaVu Sans", "WenQuanYi Zen Hei", sans-serif; font-size: 8pt;
  color: #1d1a24; hyphens: none; overflow-wrap: normal; word-break: keep-all }
.show { string-set: show content() } .desk { string-set: desk content() }
.date { string-set: date content() }
.show, .desk, .date { position: absolute; visibility: hidden }
section { break-before: page } section:first-of-type { break-before: auto }
h2 { string-set: sheet content(); font-size: 15pt; margin: 0 0 1.5mm }
p { margin: 0 0 2mm }
table { width: 100%; border-collapse: collapse }
th { text-align: start; vertical-align: bottom; border-bottom: 0.8pt solid #1d1a24;
  padding: 0.8mm 1.2mm }
td { vertical-align: top; border-bottom: 0.25pt solid #b9b0bd; padding: 0.8mm 1.2mm }
tr { break-inside: avoid } tbody tr:nth-child(even) { background: #f3efe7 }
.number { white-space: nowrap }
.long { overflow-wrap: anywhere; word-break: break-all }
"""


def _text(text: str) -> str:
    """Text for a cell: a number stays with its unit; only words too long for a column may break."""
    whole = _UNIT.sub("\\1\u00a0\\2", escape(text, quote=False))
    return _LONG_WORD.sub(lambda word: f'<span class="long">{word[0]}</span>', whole)


def _section(sheet: Sheet) -> str:
    shown = [place for place, column in enumerate(sheet.columns) if column.paper]
    turned = ' class="tall"' if _stands(sheet) else ""
    title = f"<section{turned}><h2>{_text(sheet.title)}</h2>"
    about = f"<p>{_text(sheet.about)}</p>" if sheet.about else ""
    if not sheet.rows:
        return f"{title}{about}<p>Nothing to list yet.</p></section>"
    head = "".join(f'<th scope="col">{_text(sheet.columns[place].title)}</th>' for place in shown)
    rows = []
    for row in sheet.rows:
        cells = []
        for place in shown:
            kind = "" if isinstance(row[place], str) else ' class="number"'
            text = _text(datum_text(sheet.columns[place], row[place]))
            cells.append(f"<td{kind}>{text}</td>")
        rows.append(f"<tr>{''.join(cells)}</tr>")
    table = f"<table><thead><tr>{head}</tr></thead><tbody>{''.join(rows)}</tbody></table>"
    return f"{title}{about}{table}</section>"


def pages_guessed(sheets: Sequence[Sheet]) -> int:
    """About how many pages sheets will have."""
    return sum(1 if _stands(sheet) else 1 + len(sheet.rows) // _ROWS_A_PAGE for sheet in sheets)


def _stands(sheet: Sheet) -> bool:
    """Whether a sheet is set on a page that stands: one is enough for it, and across it is not."""
    columns = sum(column.paper for column in sheet.columns)
    return columns <= _NARROW and len(sheet.rows) in _ROWS_STANDING


def sheets_to_pdf(
    sheets: Sequence[Sheet],
    *,
    show_name: str,
    desk_name: str,
    date: str,
    on_page: Callable[[int], None] | None = None,
) -> bytes:
    """All sheets as A4 across, each on pages of its own, headings repeated, "page n of m".

    Tagged for screen readers, in English. `on_page` hears of each page as it is laid out.
    """
    import weasyprint  # a second's work to load, which only a process that sets a page needs

    hear = _Hears(on_page) if on_page else None
    log = logging.getLogger("weasyprint.progress")
    if hear:
        log.addHandler(hear)
        log.setLevel(logging.INFO)
    head = "".join(
        f'<div class="{name}">{escape(text)}</div>'
        for name, text in (("show", show_name), ("desk", desk_name), ("date", date))
    )
    page = (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8">'
        f"<title>{escape(show_name)}</title><style>{_STYLE}</style></head>"
        f"<body>{head}{''.join(_section(sheet) for sheet in sheets)}</body></html>"
    )
    try:
        content: bytes = weasyprint.HTML(string=page, url_fetcher=_nothing).write_pdf(
            pdf_tags=True, custom_metadata=False
        )
    finally:
        if hear:
            log.removeHandler(hear)
    return content


def _nothing(url: str, *_: object, **__: object) -> dict[str, Any]:
    raise ValueError(f"a sheet fetches nothing, {url} neither")


class _Hears(logging.Handler):
    def __init__(self, on_page: Callable[[int], None]) -> None:
        super().__init__()
        self.on_page = on_page

    def emit(self, record: logging.LogRecord) -> None:
        found = re.search(r"Page (\d+)", record.getMessage())
        if found:
            self.on_page(int(found[1]))


# ---- as a program


def sheets_to_json(sheets: Sequence[Sheet], *, show_name: str, desk_name: str, date: str) -> bytes:
    """What the program reads."""
    document = {
        "sheets": [asdict(sheet) for sheet in sheets],
        "show_name": show_name,
        "desk_name": desk_name,
        "date": date,
    }
    return json.dumps(document).encode()


def _main() -> None:
    document = json.loads(sys.stdin.buffer.read())
    sheets = [
        Sheet(
            key=sheet["key"],
            title=sheet["title"],
            columns=tuple(Column(**column) for column in sheet["columns"]),
            rows=tuple(tuple(row) for row in sheet["rows"]),
            about=sheet["about"],
        )
        for sheet in document.pop("sheets")
    ]

    def tell(page: int) -> None:
        sys.stderr.write(f"{page}\n")
        sys.stderr.flush()

    sys.stdout.buffer.write(sheets_to_pdf(sheets, **document, on_page=tell))


if __name__ == "__main__":
    _main()
