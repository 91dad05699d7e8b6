"""A file that a band sent, read into rows, and the rows into drafts of lines.

What a heading means, and what a microphone's name says of the kind of line, are guesses; so every
row tells what it became, and a person can put it right before anything is taken.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from ombrel.core import LINES, Desk, LineDraft

from .book import Book
from .boxes import Boxes, proposed
from .cells import numbers_of, sockets_of
from .find import Found, find_lists, is_heading
from .grid import Grid
from .listing import Choices, ListRead, OneList
from .numbered import apart
from .ombrels import is_ombrels, ombrels_heading, ombrels_roles
from .rows import fields_of
from .turned import upright
from .words import Role, knows

__all__ = ["BoxRead", "Reading", "read_lists"]

MOST_DRAFTS: Final = 2 * LINES  # more than any show holds, so that the refusal can say so


@dataclass(frozen=True, slots=True, kw_only=True)
class BoxRead:
    """A box that a list names. `name`: by which it is known in `Choices`; `title`: as it is written

    ("" for numbers alone); `sockets`: how many of the list's are on it; `box`: the desk's, if any.
    """

    name: str
    title: str
    sockets: int
    box: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """What a file was read as. `sheets`: place in the file, name, and whether it is hidden; the

    most likely first, hidden ones last. `sheet`: the place of the one that was read.
    """

    said: str
    sheets: tuple[tuple[int, str, bool], ...]
    sheet: int
    lists: tuple[ListRead, ...]
    boxes: tuple[BoxRead, ...]

    def drafts(self) -> list[tuple[str, LineDraft]]:
        """All drafts in order, each with the key of its row."""
        return [(row.key, draft) for one in self.lists for row in one.rows for draft in row.drafts]


def read_lists(book: Book, desk: Desk, choices: Choices | None = None) -> Reading:
    """The lists of a sheet of a file, every row of which tells what it becomes."""
    choices = choices or Choices()
    order = sorted(
        range(len(book.grids)), key=lambda n: (book.grids[n].hidden, -_worth(book.grids[n]), n)
    )
    chosen = choices.sheet
    at = chosen if chosen is not None and 0 <= chosen < len(book.grids) else order[0]
    grid = upright(apart(book.grids[at]))
    heading = ombrels_heading(grid.rows) if choices.heading is None else choices.heading - 1
    found = [
        replace(one, roles=_chosen(one, number, choices.roles))
        for number, one in enumerate(find_lists(grid, heading))
    ]
    boxes = Boxes({name: key or None for name, key in choices.boxes.items()})
    lists = []
    left = MOST_DRAFTS
    for number, one in enumerate(found):
        read = OneList(grid, one, number, desk, boxes, choices).read(left)
        left -= sum(len(row.drafts) for row in read.rows)
        lists.append(read)
    return Reading(
        said=f"{book.said}, its columns are the lines" if grid.turned else book.said,
        sheets=tuple((n, book.grids[n].name, book.grids[n].hidden) for n in order),
        sheet=at,
        lists=tuple(lists),
        boxes=_boxes_named(grid, found, desk, choices.boxes),
    )


def _worth(grid: Grid) -> float:
    """How much a sheet looks like an input list."""
    lists = find_lists(upright(apart(grid)))
    score = max((one.score for one in lists), default=0.0)
    rows = sum(min(one.last - one.first, 60) for one in lists)
    outputs = knows(grid.name, "rows", "output") and not knows(grid.name, "headings", "number")
    return score + 0.2 * rows - (100.0 if outputs else 0.0)


def _chosen(one: Found, number: int, roles: Mapping[tuple[int, int], Role]) -> tuple[Role, ...]:
    """The roles of a list with those put right by hand; a role that is given leaves its column."""
    if is_ombrels(one.titles):
        one = replace(one, roles=ombrels_roles(one.titles))
    given = {column: roles[number, column] for column in one.columns if (number, column) in roles}
    taken = set(given.values()) - {"ignore"}
    return tuple(
        given.get(column, "ignore" if role in taken else role)
        for column, role in zip(one.columns, one.roles, strict=True)
    )


def _boxes_named(
    grid: Grid, found: Sequence[Found], desk: Desk, chosen: Mapping[str, str]
) -> tuple[BoxRead, ...]:
    """Names of boxes, in the order of the list, with the desk's box that each is now."""
    names: Counter[str] = Counter()
    titles: dict[str, str] = {}
    for one in found:
        if "socket" not in one.roles:
            continue
        for row in range(one.first, one.last):
            fields = fields_of(one.roles, one.cells(grid, row))
            text = " ".join(filter(None, (fields.get("box", ""), fields.get("socket", ""))))
            if fields.get("socket") and not is_heading(one.cells(grid, row)):
                count = max(1, len(numbers_of(fields.get("number", "")) or ()))
                places = sockets_of(text, count) or sockets_of(text, 2) or ()
                for box, _ in places:
                    if len(box) <= 30:
                        names[box] += 1
                        titles.setdefault(box, text[: len(box)] if box else "")
    return tuple(
        BoxRead(
            name=name,
            title=titles[name],
            sockets=count,
            box=(chosen[name] or None) if name in chosen else proposed(desk, name),
        )
        for name, count in list(names.items())[:40]
    )
