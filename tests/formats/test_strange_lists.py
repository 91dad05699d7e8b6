"""Lists as unlike one another as bands are, scored row by row against what an engineer expects.

Beside each list stands a JSON file: for each row that gives lines its number in the sheet and the
lines, each with the fields that matter; a number alone is the right side of the row above it.
"""

import json
from pathlib import Path

import pytest

from ombrel.formats.lists import read_book, read_lists
from tests.desks import TOURING

FOLDER = Path(__file__).parent / "lists"
LISTS = sorted(path for path in FOLDER.iterdir() if path.suffix in (".csv", ".xlsx"))


def by_row(path):
    """The drafts of each row of the sheet, and the rows that are a right side."""
    reading = read_lists(read_book(path.read_bytes()), TOURING)
    drafts, right = {}, set()
    for one in reading.lists:
        for row in one.rows:
            drafts.setdefault(row.number, []).extend(row.drafts)
            if row.what == "right":
                right.add(row.number)
    return drafts, right


def wrong_rows(path):
    """Rows that are not as expected, and how many rows count: those expected and those too many."""
    drafts, right = by_row(path)
    expected = json.loads((path.parent / f"{path.name}.json").read_text("utf-8"))
    wrong, rows = [], set()
    for number, *lines in expected:
        rows.add(number)
        found = drafts.get(number, [])
        if not lines:
            fits = number in right
        else:
            fits = len(found) == len(lines) and all(
                getattr(draft, name) == value
                for draft, line in zip(found, lines, strict=True)
                for name, value in {"stereo": False, "phantom": False, **line}.items()
            )
        if not fits:
            wrong.append((number, found))
    too_many = [(number, found) for number, found in drafts.items() if found and number not in rows]
    return wrong + too_many, len(rows) + len(too_many)


def score(path):
    wrong, count = wrong_rows(path)
    return 1.0 - len(wrong) / count


@pytest.mark.parametrize("path", LISTS, ids=lambda path: path.name)
def test_a_list_never_seen_becomes_the_right_lines(path):
    wrong, count = wrong_rows(path)
    assert len(wrong) <= 0.05 * count, wrong


def test_all_lists_together(capsys):
    scores = {path.name: score(path) for path in LISTS}
    with capsys.disabled():
        print(f"\nrows right with no choice made: {sum(scores.values()) / len(scores):.1%}")
    assert sum(scores.values()) / len(scores) >= 0.95
