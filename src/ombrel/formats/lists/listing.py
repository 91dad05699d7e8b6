"""One list of a sheet, read row by row into drafts of lines."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Final

from ombrel.core import Desk, LineDraft, draft_fault_on

from .boxes import Boxes
from .cells import is_bare, is_comment, is_contact, is_ditto, is_struck, numbers_of
from .find import Found, is_heading
from .grid import STRUCK, Grid
from .kinds import knows_source, row_is
from .ombrels import is_ombrels, ombrels_lines
from .pairing import paired, told_apart
from .rows import Row, fields_of, lines_of, what_else
from .words import Role, is_among, knows, plain

__all__ = ["Choices", "ListRead", "OneList"]

_NEVER_THE_SAME: Final = ("number", "name", "socket", "ignore")
_TOO_MANY: Final = "more lines than a show can hold"
_SAYS: Final = {
    "free": "left free in the list",
    "total": "a total: left out",
    "dca": "a DCA, no line of the stage: left out",
    "effect": "the return of an effect, no line of the stage: left out",
    "output": "an output, no line of the stage: left out",
    "note": "no line: left out",
    "section": "a heading within the list",
    "heading": "the headings",
    "out": "left out by hand",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Choices:
    """What a person put right. `sheet`: its place among the sheets with text. `heading`: the row

    of the headings, from 1 (0: there are none). `roles`: by list and column of the sheet, both
    from 0. `boxes`: a box's key by the name that the list uses, "" for none of the desk's. `out`
    and `kept`: keys of rows left out, and of rows taken though Ombrel would leave them out.
    """

    sheet: int | None = None
    heading: int | None = None
    roles: Mapping[tuple[int, int], Role] = field(default_factory=dict)
    boxes: Mapping[str, str] = field(default_factory=dict)
    out: frozenset[str] = frozenset()
    kept: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True, kw_only=True)
class ListRead:
    """One list of a sheet: the row of its headings (from 1; None: none), its columns and rows."""

    heading: int | None
    titles: tuple[str, ...]
    columns: tuple[int, ...]
    roles: tuple[Role, ...]
    rows: tuple[Row, ...]


class OneList:
    """Reads one list, row by row."""

    def __init__(
        self, grid: Grid, found: Found, number: int, desk: Desk, boxes: Boxes, choices: Choices
    ) -> None:
        self.grid, self.found, self.number = grid, found, number
        self.desk, self.boxes, self.choices = desk, boxes, choices
        self.roles = found.roles
        self.own = is_ombrels(found.titles)
        self.texts = self._texts()
        self.numbers = [
            numbers_of(fields_of(self.roles, cells).get("number", "")) for cells in self.texts
        ]
        self.numbered = self._is_numbered()
        alone = sum(len(set(cells) - {""}) == 1 for cells in self.texts)
        wide = [n for n, cells in enumerate(self.texts) if len(set(cells) - {""}) > 1]
        self.wide = len(wide) > 0.6 * sum(any(cells) for cells in self.texts)
        self.first_wide, self.last_wide = (wide[0], wide[-1]) if wide else (0, 0)
        self.alone_everywhere = alone > 0.6 * len(self.texts)  # a list of names and nothing else
        numbered_rows = [place for place, found_numbers in enumerate(self.numbers) if found_numbers]
        self.first_numbered = numbered_rows[0] if numbered_rows else 0
        self.last_numbered = numbered_rows[-1] if numbered_rows else len(self.texts)

    def read(self, most: int) -> ListRead:
        rows: list[Row] = []
        self.section, self.outputs = "", self._lists_outputs()
        if self.found.heading is not None:
            heading = self.found.heading
            rows.append(self._row(heading, self.found.cells(self.grid, heading), "heading"))
        for place, cells in enumerate(self.texts):
            if any(cells):
                row = self._read_row(place, cells, most)
                most = 0 if row.says == _TOO_MANY else most - len(row.drafts)
                rows.append(row)
        if not self.own:
            rows = paired(told_apart(rows, self._is_joined))
        return ListRead(
            heading=None if self.found.heading is None else self.found.heading + 1,
            titles=self.found.titles,
            columns=self.found.columns,
            roles=self.roles,
            rows=tuple(rows),
        )

    def _lists_outputs(self) -> bool:
        """Whether this is a list of outputs, by its headings or by the title above them."""
        titles = [title for title in self.found.titles if title]
        if titles and is_among(titles[0], "rows", "output"):
            return True
        if any(is_among(title, "rows", "output") for title in titles):
            return not {"number", "microphone", "kind", "phantom", "socket"} & set(self.roles)
        if self.found.heading is None and any(
            is_among(cell, "rows", "output") for cell in self.grid.rows[self.found.first]
        ):
            return True
        top = self.found.first if self.found.heading is None else self.found.heading
        own = slice(self.found.columns[0], self.found.columns[-1] + 1)
        above = [set(row[own]) - {""} for row in self.grid.rows[max(0, top - 2) : top]]
        return any(len(texts) == 1 and _is_output(next(iter(texts))) for texts in above)

    def _texts(self) -> list[tuple[str, ...]]:
        """The cells of all rows; what says "the same" has the text of the cell above it."""
        found: list[tuple[str, ...]] = []
        above: tuple[str, ...] = ()
        for row in range(self.found.first, self.found.last):
            cells = self._cells(row)
            if above and not self.own:
                cells = tuple(
                    before if role not in _NEVER_THE_SAME and before and is_ditto(cell) else cell
                    for role, cell, before in zip(self.roles, cells, above, strict=True)
                )
            found.append(cells)
            if sum(bool(cell) for cell in cells) > 1:
                above = cells
        return found

    def _cells(self, row: int) -> tuple[str, ...]:
        """The cells of a row; of numbers merged over several rows each row has its own."""
        cells = list(self.found.cells(self.grid, row))
        if "level" in self.roles and not self.own:  # "Level, dBV" over a bare number
            at = self.roles.index("level")
            if "dbv" in plain(self.found.titles[at]).split() and is_bare(cells[at]):
                cells[at] = f"{cells[at]} dBV"
        if "number" not in self.roles:
            return tuple(cells)
        place = self.roles.index("number")
        column = self.found.columns[place]
        top, bottom = row, row + 1
        while (top, column) in self.grid.joined and self.grid.rows[top - 1][column] == cells[place]:
            top -= 1
        while (bottom, column) in self.grid.joined and bottom < self.found.last:
            bottom += 1
        numbers = numbers_of(cells[place])
        if bottom - top > 1 and numbers:
            own = numbers[row - top] if len(numbers) == bottom - top else None
            cells[place] = str(own) if own else (cells[place] if row == top else "")
        return tuple(cells)

    def _is_numbered(self) -> bool:
        rows = [
            n
            for n, cells in zip(self.numbers, self.texts, strict=True)
            if len(set(cells) - {""}) > 1
        ]
        return "number" in self.roles and sum(bool(n) for n in rows) > 0.5 * len(rows)

    def _row(
        self,
        row: int,
        cells: tuple[str, ...],
        what: str,
        *,
        says: str = "",
        told: tuple[str, ...] = (),
        drafts: tuple[LineDraft, ...] = (),
    ) -> Row:
        return Row(
            key=f"{self.number}:{row + 1}",
            number=row + 1,
            cells=cells,
            section=self.section,
            what=what,
            says=says or _SAYS.get(what, ""),
            told=told,
            drafts=drafts,
        )

    def _read_row(self, place: int, cells: tuple[str, ...], most: int) -> Row:
        row = self.found.first + place
        key = f"{self.number}:{row + 1}"
        if key in self.choices.out:
            return self._row(row, cells, "out")
        kept = self.own or key in self.choices.kept
        left_out = self.grid.left_out.get(row, "") or self._cancelled(cells)
        if left_out and not kept:
            return self._row(row, cells, "note", says=left_out)
        what = None if kept else self._what_else(place, cells)
        if what:
            return self._row(row, cells, what)
        if not most:
            return self._row(row, cells, "problem", says=_TOO_MANY)
        read = self._lines(place, cells)
        if len(read.drafts) > most:
            return replace(read, what="problem", drafts=(), says=_TOO_MANY)
        return read

    def _lines(self, place: int, cells: tuple[str, ...]) -> Row:
        """A row that gives lines, or says what is in their way."""
        row = self.found.first + place
        fields = fields_of(self.roles, cells)
        try:
            if self.own:
                drafts, told = ombrels_lines(fields, self.desk)
            else:
                drafts, told = lines_of(
                    fields,
                    desk=self.desk,
                    boxes=self.boxes,
                    columns=frozenset(self.roles),
                    gap=self._gap(place),
                    section=self.section,
                )
        except ValueError as problem:
            return self._row(row, cells, "problem", says=str(problem))
        faults = [draft_fault_on(self.desk, draft) for draft in drafts]
        says = next((fault for fault in faults if fault), None)
        if says:
            return self._row(row, cells, "problem", says=says)
        return self._row(row, cells, "lines", drafts=tuple(drafts), told=tuple(told))

    def _cancelled(self, cells: tuple[str, ...]) -> str:
        """Whether a cell of a row says that it is no line any more."""
        first = next(cell for cell in cells if cell)
        if is_comment(first) or any(map(is_struck, cells)):
            return STRUCK
        return STRUCK if any(is_among(cell, "rows", "cancelled") for cell in cells) else ""

    def _gap(self, place: int) -> int | None:
        """How far the next row's number is from this row's own one, if it is near."""
        after = next((numbers[0] for numbers in self.numbers[place + 1 :] if numbers), None)
        own = self.numbers[place] or []
        near = after is not None and len(own) == 1 and 0 < after - own[0] < 9
        return after - own[0] if near and after else None

    def _is_joined(self, row: Row) -> bool:
        """Whether the name of a row is merged with that of the row above."""
        if "name" not in self.roles:
            return False
        return (row.number - 1, self.found.columns[self.roles.index("name")]) in self.grid.joined

    def _what_else(self, place: int, cells: tuple[str, ...]) -> str | None:
        """What a row is that gives no line; sections that are left behind are remembered."""
        texts = {cell for cell in cells if cell}
        fields = fields_of(self.roles, cells)
        number = self.numbers[place]
        if not any(c.isalnum() for text in texts for c in text):
            return "note"  # a rule drawn between rows
        if is_heading(cells):
            return "heading"
        if len(texts) == 1 and self._is_section(place, cells, texts, fields):
            text = next(iter(texts))
            if self._is_around(place, text):
                return "note"
            self.outputs = _is_output(text)
            if self.numbered and place > self.last_numbered and not self.outputs:
                return "note"  # headings stand above lines
            self.section = text if len(text) <= 40 else self.section
            return "section"
        if self.numbered and place < self.first_numbered and number is None:
            return "heading"  # in words that nobody knows
        if self.outputs:
            return "output"
        if row_is(next(cell for cell in cells if cell)) == "total":
            return "total"
        # a line may have its owner's number beside it; a row of little else is none
        if not number and len(texts) <= 2 and any(map(is_contact, texts)):
            return "note"
        if number and len(texts) == 1:
            return "free"
        known = what_else(fields)
        if known:
            return known
        if not (fields.get("name") or fields.get("part") or fields.get("performer")):
            return "free" if number and not _has_source(fields) else (None if number else "note")
        if self.numbered and not fields.get("number") and not self._within(place, fields):
            return "note"
        return None

    def _is_around(self, place: int, text: str) -> bool:
        """Whether a text that stands alone is a title above a list, or a word of parting below."""
        if not self.wide or self.numbered:
            return False
        if place > self.last_wide:
            return not _is_output(text)
        above = place < self.first_wide
        return above and (place + 1 != self.first_wide or len(text.split()) > 3)

    def _is_section(
        self, place: int, cells: tuple[str, ...], texts: set[str], fields: Mapping[Role, str]
    ) -> bool:
        text = next(iter(texts))
        if self.numbers[place]:
            return False
        if self.wide and not knows_source(text):
            return True
        spread_out = sum(bool(cell) for cell in cells) > 1
        if spread_out or self.numbered or text.endswith(":") or fields.get("name") != text:
            return True
        if self.alone_everywhere:
            return False
        others = [fields_of(self.roles, c).get("name", "") for c in self.texts]
        capitals = sum(name.isupper() for name in others if name)
        return text.isupper() and len(text) > 3 and capitals < 0.5 * len(others)

    def _within(self, place: int, fields: Mapping[Role, str]) -> bool:
        """Whether a row without a number, in a list that has them, is a line all the same."""
        has_mic = bool(fields.get("microphone") or fields.get("kind") or fields.get("socket"))
        named = knows_source(fields.get("name", ""))
        if self.first_numbered <= place <= self.last_numbered:
            return has_mic or named
        return has_mic and named


def _has_source(fields: Mapping[Role, str]) -> bool:
    return bool(fields.get("microphone") or fields.get("kind") or fields.get("performer"))


def _is_output(text: str) -> bool:
    words = plain(text).split()
    says_so = knows(text, "rows", "output") and not knows(text, "rows", "input")
    return len(words) <= 4 and says_so and not knows_source(text)
