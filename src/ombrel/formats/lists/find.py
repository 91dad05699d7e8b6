"""Where the lists of a sheet are: which rows are headings, and which columns belong together."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

from .cells import numbers_of
from .columns import roles_of
from .grid import Grid
from .kinds import knows_source
from .ombrels import is_ombrels
from .words import Role, first_meaning, heading_role, is_among, plain

__all__ = ["Found", "find_lists", "is_heading", "score_of"]

_FIRST_ROWS: Final = 60  # headings stand among the first rows; what stands above is a title
_MOST_TRIED: Final = 12
_SAMPLE: Final = 150  # as many rows tell what a column is


@dataclass(frozen=True, slots=True, kw_only=True)
class Found:
    """One list: the row of its headings (None: none), the rows from `first` up to `last` (not

    included), its columns, and the heading and role of each. Row and column numbers from 0.
    """

    heading: int | None
    first: int
    last: int
    columns: tuple[int, ...]
    titles: tuple[str, ...]
    roles: tuple[Role, ...]
    score: float = 0.0

    def cells(self, grid: Grid, row: int) -> tuple[str, ...]:
        return tuple(grid.rows[row][column] for column in self.columns)


def _hits(row: Sequence[str]) -> list[tuple[str | None, float]]:
    """What each cell says as a heading; a cell that is merged with the one before says nothing."""
    found: list[tuple[str | None, float]] = []
    for place, cell in enumerate(row):
        joined = place > 0 and cell and cell == row[place - 1]
        found.append((None, 0.0) if joined or not cell else heading_role(cell))
    return found


@lru_cache(maxsize=5_000)  # each row is asked for under each candidate for the headings
def is_heading(row: tuple[str, ...]) -> bool:
    """Whether a row has headings by its words: two or more columns named, and little else."""
    hits = [(role, sure) for role, sure in _hits(row) if role and sure >= 0.7]
    texts = {cell for cell in row if cell}
    words = {cell for cell in texts if heading_role(cell)[1] >= 0.7 and not numbers_of(cell)}
    return (
        len({heading_role(cell)[0] for cell in words} - {None, "ignore"}) >= 2
        and len(hits) >= 0.6 * len(texts)
        and not any(numbers_of(cell) and heading_role(cell)[0] != "phantom" for cell in texts)
    )


def find_lists(grid: Grid, heading: int | None = None) -> list[Found]:
    """The lists of a sheet, in the order of their rows and columns.

    `heading`: the row of the headings where a person names it (-1: there are none); None: it is
    looked for, by its words and by what stands below it.
    """
    rows = grid.counted
    if heading is None:
        tried = [_from(rows, row) for row in _candidates(rows)] + [_from(rows, None)]
        lists = max(tried, key=lambda found: (score_of(found), -len(found)))
    else:
        lists = _from(rows, heading if 0 <= heading < len(rows) else None)
    last = max((one.last for one in lists), default=len(rows))
    while last < len(rows):  # another list below, under headings of its own
        more = _from(rows, last)
        if not more:
            break
        lists += more
        last = max(one.last for one in more)
    return lists


def score_of(lists: Sequence[Found]) -> float:
    """How well the best of some lists of one sheet reads as a list."""
    return max((one.score for one in lists), default=-1.0)


def _candidates(rows: Sequence[Sequence[str]]) -> list[int]:
    found = []
    for number, row in enumerate(rows[:_FIRST_ROWS]):
        hits = [(role, sure) for role, sure in _hits(row) if role not in (None, "ignore")]
        whole = any(sure == 1.0 for _, sure in hits)
        if len({role for role, _ in hits}) >= 2 or (whole and sum(bool(c) for c in row) <= 2):
            found.append(number)
    return found[:_MOST_TRIED]


def _from(rows: Sequence[tuple[str, ...]], heading: int | None) -> list[Found]:
    """The lists side by side under one row of headings, down to the next such row or the end."""
    first = 0 if heading is None else heading + 1
    headings = [""] * len(rows[0]) if heading is None else _headings(rows, heading)
    last = first
    while last < len(rows) and not (
        last > first
        and not is_ombrels(headings)
        and is_heading(rows[last])
        and _other(rows[last], headings)
    ):
        last += 1
    body = [row for row in rows[first : min(last, first + _SAMPLE)] if _is_data(row)]
    if not body:
        return []
    found = []
    above = rows[heading - 1] if heading else ()
    for columns in _side_by_side(headings, above, body):
        used = tuple(c for c in columns if headings[c] or any(row[c] for row in body))
        given = roles_of([headings[c] for c in used], [[row[c] for row in body] for c in used])
        found.append(
            Found(
                heading=heading,
                first=first,
                last=last,
                columns=used,
                titles=tuple(headings[c] for c in used),
                roles=given.roles,
                score=given.score - _lost(rows, heading, used, given.roles),
            )
        )
    return found


def _other(row: Sequence[str], headings: Sequence[str]) -> bool:
    """Whether headings within a list are others than its own (its own come again on each page)."""
    return [plain(cell) for cell in row] != [plain(cell) for cell in headings]


def _headings(rows: Sequence[tuple[str, ...]], heading: int) -> list[str]:
    """The headings, each with the word above it where its own says nothing (two rows of them)."""
    own = list(rows[heading])
    above = rows[heading - 1] if heading else [""] * len(own)
    named = [sum(sure >= 0.7 for _, sure in _hits(row)) for row in (own, above)]
    if min(named) < 2:
        return own
    return [cell if cell and heading_role(cell)[0] else other or cell
            for cell, other in zip(own, above, strict=True)]  # fmt: skip


def _is_data(row: Sequence[str]) -> bool:
    """Whether a row tells what columns hold: one that is no title over all of them."""
    return len({cell for cell in row if cell}) > 1 or sum(bool(cell) for cell in row) == 1


def _side_by_side(
    headings: Sequence[str], above: Sequence[str], body: Sequence[Sequence[str]]
) -> list[range]:
    """Runs of columns, each a list: a new one begins where a channel or a name comes again, and

    where outputs stand beside the inputs. `above`: the row above the headings.
    """
    hits = _hits(headings)
    if not any(role for role, _ in hits):
        return _runs_of_numbers(body)
    starts: list[int] = [0]
    seen: set[str] = set()
    for place, (role, sure) in enumerate(hits):
        named = "name" in seen or (place > 1 and not any(role == "name" for role, _ in hits))
        if named and _begins_outputs(place, headings, above, body):
            starts.append(place)
            seen = set()
        elif role in ("number", "name") and sure >= 0.7:
            if role in seen and "name" in seen and _is_whole(hits[place:], "number" in seen):
                starts.append(place)
                seen = set()
            seen.add(role)
    ends = [*starts[1:], len(headings)]
    return [range(start, end) for start, end in zip(starts, ends, strict=True)]


def _begins_outputs(
    place: int, headings: Sequence[str], above: Sequence[str], body: Sequence[Sequence[str]]
) -> bool:
    """Whether a list of outputs begins at a column: by its title, or by numbers of their own."""
    if above and is_among(above[place], "rows", "output") and above[place] != above[place - 1]:
        return True
    numbers = [found[0] for row in body if (found := numbers_of(row[place]))]
    rises = len(numbers) > 1 and all(after > before for before, after in pairwise(numbers))
    if not rises or heading_role(headings[place])[0] not in ("ignore", "number", None):
        return False
    return any(is_among(heading, "rows", "output") for heading in headings[place : place + 2])


def _is_whole(hits: Sequence[tuple[str | None, float]], numbered: bool) -> bool:
    roles = {role for role, _ in hits}
    return "name" in roles and ("number" in roles or not numbered)


def _runs_of_numbers(body: Sequence[Sequence[str]]) -> list[range]:
    """As `_side_by_side` where there are no headings: each list begins with rising numbers."""
    width = len(body[0])
    starts = []
    for column in range(width):
        cells = [row[column] for row in body if row[column]]
        numbers = [found[0] for cell in cells if (found := numbers_of(cell))]
        rises = all(b > a for a, b in pairwise(numbers))
        named = column + 1 < width and any(knows_source(row[column + 1]) for row in body)
        if len(numbers) > max(1, 0.6 * len(cells)) and rises and named:
            starts.append(column)
    if len(starts) < 2:
        return [range(width)]
    return [range(a, b) for a, b in zip([0, *starts[1:]], [*starts[1:], width], strict=True)]


def _lost(
    rows: Sequence[Sequence[str]],
    heading: int | None,
    columns: Sequence[int],
    roles: Sequence[Role],
) -> float:
    """What a row of headings costs when rows above it look like lines, or it like one itself."""
    if heading is None:
        return 0.0
    if "number" not in roles:
        return 4.0 * sum(_is_line([rows[n][c] for c in columns]) for n in range(heading + 1))
    column = columns[roles.index("number")]
    cost = 30.0 if numbers_of(rows[heading][column]) else 0.0
    return cost + 2.0 * sum(bool(numbers_of(row[column])) for row in rows[:heading])


def _is_line(cells: Sequence[str]) -> bool:
    """Whether a row looks like a line: a source, and beside it what it is picked up by."""
    sources = {place for place, cell in enumerate(cells) if cell and knows_source(cell)}
    kinds = {place for place, cell in enumerate(cells) if cell and first_meaning(cell, "kinds")}
    return any(a != b for a in sources for b in kinds)
