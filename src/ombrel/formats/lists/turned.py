"""A list on its side: its columns are the lines, and its first column holds the headings."""

from dataclasses import replace
from typing import Final

from .find import find_lists, is_heading, score_of
from .grid import Grid

__all__ = ["upright"]

_MOST_FIELDS: Final = 60  # rows of a list on its side: what is said of each line
_FIRST_COLUMNS: Final = 3


def upright(grid: Grid) -> Grid:
    """The sheet itself; one that reads better by its columns, with these as rows."""
    if len(grid.rows) > _MOST_FIELDS or len(grid.rows[0]) < 4:
        return grid
    if any(is_heading(row) for row in grid.counted):
        return grid
    columns = tuple(zip(*grid.counted, strict=True))
    if not any(is_heading(column) for column in columns[:_FIRST_COLUMNS]):
        return grid
    on_its_side = replace(
        grid,
        rows=columns,
        joined=frozenset((column, row) for row, column in grid.joined),
        left_out={},
        turned=True,
    )
    straight, turned = score_of(find_lists(grid)), score_of(find_lists(on_its_side))
    return on_its_side if turned > straight else grid
