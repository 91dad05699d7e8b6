"""Rows of a spreadsheet that are there and do not count: hidden, or struck through."""

import re
import zipfile
from collections.abc import Set
from typing import Final

__all__ = ["left_out_rows", "struck_styles"]

# no tag holds another's beginning: what is no XML costs time in proportion too
_ROW: Final = re.compile(rb"<row\b([^<>]*)>")
_NUMBER: Final = re.compile(rb'\br="(\d+)"')
_HIDDEN: Final = re.compile(rb'\bhidden="(?:1|true)"')
_CELL: Final = re.compile(rb'<c\b[^<>]*?\br="[A-Z]+(\d+)"([^<>]*?)(/?)>')
_STYLE: Final = re.compile(rb'\bs="(\d+)"')


def left_out_rows(sheet: bytes, struck: Set[int]) -> frozenset[int]:
    """Rows (from 0) of a sheet (its XML) that are hidden, or whose cells are mostly struck."""
    found = set()
    for row in _ROW.finditer(sheet):
        number = _NUMBER.search(row[1])
        if number and _HIDDEN.search(row[1]):
            found.add(int(number[1]) - 1)
    if not struck:
        return frozenset(found)
    cells: dict[int, list[bool]] = {}
    for cell in _CELL.finditer(sheet):
        if cell[3]:  # empty
            continue
        style = _STYLE.search(cell[2])
        cells.setdefault(int(cell[1]) - 1, []).append(bool(style and int(style[1]) in struck))
    found |= {row for row, each in cells.items() if 2 * sum(each) > len(each)}
    return frozenset(found)


def struck_styles(archive: zipfile.ZipFile) -> set[int]:
    """Numbers of the cell styles whose font is struck through."""
    if "xl/styles.xml" not in archive.namelist():
        return set()
    styles = archive.read("xl/styles.xml")
    fonts, formats = _between(styles, b"fonts"), _between(styles, b"cellXfs")
    if b"<strike" not in fonts:
        return set()
    each = re.split(rb"<font\b", fonts)[1:]
    struck = {
        place
        for place, font in enumerate(each)
        if (said := re.search(rb"<strike\b([^<>]*)>", font)) and b'val="0"' not in said[1]
    }
    given = [re.search(rb'fontId="(\d+)"', one) for one in re.findall(rb"<xf\b[^<>]*>", formats)]
    return {place for place, one in enumerate(given) if one and int(one[1]) in struck}


def _between(text: bytes, name: bytes) -> bytes:
    """What stands between the first such tag and its end; nothing where there is none."""
    _, _, behind = text.partition(b"<" + name)
    inside, _, _ = behind.partition(b"</" + name)
    return inside
