"""Rows that belong together: two sides of one line, and names merged over several rows."""

from collections.abc import Callable
from dataclasses import replace
from typing import Final

from ombrel.core import LineDraft

from .kinds import comes_in_pairs
from .names import single_side
from .rows import Row
from .words import plain

__all__ = ["paired", "told_apart"]

_PAIRS: Final = (("l", "r"), ("g", "d"), ("i", "d"), ("e", "d"), ("s", "d"), ("v", "h"))


def paired(rows: list[Row]) -> list[Row]:
    """Two rows that follow one another as "Keys L" and "Keys R" become one stereo line."""
    result: list[Row] = []
    for row in rows:
        above = next((one for one in reversed(result) if one.what != "right"), None)
        joined = _joined(above, row) if above and result[-1] is above else None
        if above and joined:
            result[-1] = replace(above, drafts=(joined,), told=above.told + row.told)
            says = f"the other side of row {above.number}"
            result.append(replace(row, what="right", drafts=(), told=(), says=says))
        else:
            result.append(row)
    return result


def _joined(above: Row, below: Row) -> LineDraft | None:
    if len(above.drafts) != 1 or len(below.drafts) != 1:
        return None
    left, right = above.drafts[0], below.drafts[0]
    first, second = single_side(left.name), single_side(right.name)
    swapped = first is not None and second is not None and first[1] == "right"
    if swapped:
        left, right, first, second = right, left, second, first
    if left.stereo or right.stereo or not first or not second:
        return None
    if (first[1], second[1]) != ("left", "right") or plain(first[0]) != plain(second[0]):
        return None
    letters = (plain(left.name).split()[-1], plain(right.name).split()[-1])
    pairs = _PAIRS[:1] if swapped else _PAIRS  # "Source D" and "Source E" are no pair
    if all(len(letter) == 1 for letter in letters) and letters not in pairs:
        return None
    return replace(
        left,
        name=first[0],
        stereo=True,
        socket_right=right.socket,
        channel_right=right.channel,
        notes="; ".join(dict.fromkeys(filter(None, (left.notes, right.notes)))),
        phantom=left.phantom or right.phantom,
    )


def told_apart(rows: list[Row], joined: Callable[[Row], bool]) -> list[Row]:
    """A name that is merged over several rows is told apart in each: by sides, or by numbers.

    `joined`: whether a row's name is merged with the one above.
    """
    result = list(rows)
    start = 0
    while start < len(result):
        end = start + 1
        while end < len(result) and joined(result[end]):
            end += 1
        run = [place for place in range(start, end) if len(result[place].drafts) == 1]
        names = {result[place].drafts[0].name for place in run}
        if len(run) > 1 and len(names) == 1:
            name = names.pop()
            pair = len(run) == 2 and comes_in_pairs(name)
            for turn, place in enumerate(run):
                ending = "LR"[turn] if pair else str(turn + 1)
                (draft,) = result[place].drafts
                result[place] = replace(
                    result[place], drafts=(replace(draft, name=f"{name} {ending}"),)
                )
        start = end
    return result
