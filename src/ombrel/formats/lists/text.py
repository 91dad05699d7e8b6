"""A list that is text: CSV in any dress, or pasted out of a mail."""

import csv
import io
import re
from typing import Final

from ombrel.core import BadFile

from ..guarding import unguarded
from .grid import PROSE, WAY_OUT, Grid, check_size, clean, even
from .pasted import blank_columns, bulleted, lines_of_a_mail

__all__ = ["read_text"]

_DELIMITERS: Final = ((",", "commas"), (";", "semicolons"), ("\t", "tabs"), ("|", "bars"))


def read_text(content: bytes) -> tuple[Grid, str]:
    """The grid in a text, and what it was taken for, in words. Raises BadFile."""
    text, encoding = _decoded(content)
    told = re.match(r"sep=(.)\r?\n", text)  # a spreadsheet's own hint, no row of the list
    if told:
        text = text[told.end() :]
    if not told and (mail := lines_of_a_mail(text, [mark for mark, _ in _DELIMITERS])):
        rows = [[clean(cell) for cell in row] for row in mail.rows]
        check_size(len(rows), max(map(len, rows)))
        grid = Grid(name="", rows=even(rows), left_out=dict.fromkeys(mail.prose, PROSE))
        return grid, f"numbered lines, {encoding}"
    delimiter, name = (told[1], f"{told[1]!r}") if told else _delimiter(text)
    try:
        rows = _with_dittos(text, delimiter) or _parted(text, delimiter, quoted=True)
    except csv.Error as fault:
        if "expected after" not in str(fault):  # cut off in the middle of a quotation
            raise BadFile(f"The file breaks the rules of CSV: {fault}.", WAY_OUT) from fault
        try:  # a text whose quotation marks are its own
            rows = _parted(text, delimiter, quoted=False)
        except csv.Error as error:
            raise BadFile(f"The file breaks the rules of CSV: {error}.", WAY_OUT) from error
        name = f"{name}, quotation marks as they stand"
    if max(map(len, rows), default=0) < 3 and (blanks := blank_columns(text)):
        rows, name = [[clean(cell) for cell in row] for row in blanks], "runs of blanks"
        check_size(len(rows), max(map(len, rows)))
    rows, prose = bulleted(rows)
    grid = Grid(name="", rows=even(rows), left_out=dict.fromkeys(prose, PROSE))
    return grid, f"CSV, {name}, {encoding}"


def _with_dittos(text: str, delimiter: str) -> list[list[str]] | None:
    """The rows of a text in which a quotation mark alone in its cell stands for "the same"; None

    where there is none, or where such marks are the ends of quotations over several lines.
    """
    alone = rf'(?m)(^|{re.escape(delimiter)})[ ]*"[ ]*(?={re.escape(delimiter)}|\r?$)'
    said = re.sub(alone, "\\1\u3003", text)
    if said == text:
        return None
    try:
        return _parted(said, delimiter, quoted=True)
    except csv.Error:
        return None


def _parted(text: str, delimiter: str, *, quoted: bool) -> list[list[str]]:
    """A text's rows, cut into cells. Raises csv.Error for what breaks the rules."""
    rows: list[list[str]] = []
    lines = io.StringIO(text, newline="")
    reader = csv.reader(lines, delimiter=delimiter, strict=True)
    if not quoted:
        reader = csv.reader(lines, delimiter=delimiter, strict=True, quoting=csv.QUOTE_NONE)
    for row in reader:
        rows.append([clean(unguarded(cell)) for cell in row])
        check_size(len(rows), len(row))
    return rows


def _decoded(content: bytes) -> tuple[str, str]:
    for mark, encoding in ((b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16")):
        if content.startswith(mark):
            try:
                return content.decode(encoding), "UTF-16"
            except UnicodeDecodeError as error:
                raise BadFile(f"The file is cut off: {error.reason}.", WAY_OUT) from error
    if b"\0" in content:
        raise BadFile("The file is not text: it holds zero bytes.", WAY_OUT)
    try:
        text, encoding = content.decode("utf-8-sig"), "UTF-8"
    except UnicodeDecodeError:
        try:
            text, encoding = content.decode("cp1252"), "Windows-1252"
        except UnicodeDecodeError as error:
            raise BadFile("The file is text in no encoding that Ombrel reads.", WAY_OUT) from error
    odd = sum(ord(character) < 32 and character not in "\r\n\t" for character in text)
    if odd > len(text) // 50:
        raise BadFile("The file is not text: it is full of control characters.", WAY_OUT)
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
