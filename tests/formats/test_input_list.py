import io
import zipfile

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import BadFile, blank_show, made
from ombrel.formats.input_list import read_rows, recognised
from ombrel.formats.tables import LONGEST_FILE, MOST_ROWS, read_table
from tests.desks import TOURING

SHOW = blank_show(TOURING)
PLAIN = "Ch,Instrument,Mic/DI,Stand,48V,Notes\n1,Fiddle,clip,,x,\n2,Kora,DI,,,quiet\n"


def taken(text, show=SHOW, **encoded):
    table = read_table(text.encode(**encoded) if isinstance(text, str) else text)
    return read_rows(show, table, recognised(table))


def drafts(rows):
    return [draft for row in rows for draft in row.drafts]


def sheet(rows):
    book = openpyxl.Workbook()
    for row in rows:
        book.active.append(row)
    buffer = io.BytesIO()
    book.save(buffer)
    return buffer.getvalue()


@pytest.mark.parametrize(
    "content",
    [
        PLAIN.encode(),
        PLAIN.encode("utf-8-sig"),
        PLAIN.encode("utf-16"),
        PLAIN.replace(",", ";").encode("cp1252"),
        PLAIN.replace(",", "\t").replace("\n", "\r\n").encode(),
        ("My band\n\n" + PLAIN + "\n\n").encode(),
        sheet([line.split(",") for line in PLAIN.splitlines()]),
    ],
    ids=["utf-8", "byte-order-mark", "utf-16", "semicolons", "tabs", "title-and-gaps", "xlsx"],
)
def test_one_list_in_any_dress_gives_the_same_lines(content):
    found = drafts(taken(content))
    assert [(d.name, d.kind, d.phantom, d.notes) for d in found] == [
        ("Fiddle", "condenser", True, ""),
        ("Kora", "di_passive", False, "quiet"),
    ]


def test_columns_come_in_any_order_and_under_common_headings():
    rows = taken("Notes;Who;Source;Kanal;Stage box\nby the mast;Ilka;Frame drum;3;A 7\n")
    (draft,) = drafts(rows)
    assert (draft.name, draft.performer, draft.notes) == ("Frame drum", "Ilka", "by the mast")
    assert draft.socket == "input/a/7"


def test_a_list_without_headings_is_read_by_its_content():
    assert [d.name for d in drafts(taken("1,Fiddle,clip\n2,Kora,DI\n"))] == ["Fiddle", "Kora"]


def test_quoted_fields_may_hold_separators_quotes_and_line_breaks():
    """RFC 4180, section 2, rules 6 and 7."""
    rows = taken('Ch,Name,Notes\r\n1,"Drum, low","12"" head,\r\nno hole"\r\n')
    (draft,) = drafts(rows)
    assert (draft.name, draft.notes) == ("Drum, low", '12" head, no hole')


def test_windows_1252_letters_arrive_whole():
    (draft,) = drafts(taken("Ch;Name\n1;Chœur “é”\n", encoding="cp1252"))
    assert draft.name == "Chœur “é”"


def test_a_range_gives_a_line_for_each_input_and_a_pair_gives_a_stereo_line():
    rows = taken(
        "Ch,Name,Box\n1-4,Frame drums,A 1-4\n5/6,Accordion L/R,A 5/6\n"
        "7,Tape L,\n8,Tape R,\n9-10,Brass,\n"
    )
    found = drafts(rows)
    assert [(d.name, d.stereo) for d in found] == [
        ("Frame drums 1", False),
        ("Frame drums 2", False),
        ("Frame drums 3", False),
        ("Frame drums 4", False),
        ("Accordion", True),
        ("Tape", True),
        ("Brass 1", False),
        ("Brass 2", False),
    ]
    assert [d.socket for d in found[:4]] == [f"input/a/{n}" for n in (1, 2, 3, 4)]
    assert (found[4].socket, found[4].socket_right) == ("input/a/5", "input/a/6")


@pytest.mark.parametrize(
    ("row", "problem"),
    [
        ("1,,cond,A 1", "no name"),
        ("1-4,Drums,,A 1-3", "do not match"),
        ("x1-,Drums,,", "numbers from 1"),
        ("1,Drums,,Z 9", "a box and numbers"),
        ("1,Drums,,A 40", "from 1 to 32"),
        ("1-3,Keys stereo,,", "two inputs"),
        (f"1,{'long ' * 20},,", "60 characters"),
        ("1,Second,,A 9", "already taken by row 2"),
    ],
)
def test_a_row_that_cannot_be_taken_says_why_beside_it(row, problem):
    rows = taken(f"Ch,Name,Mic,Box\n9,First,,A 9\n{row}\n")
    assert problem in (rows[-1].problem or "")
    assert rows[-1].drafts == ()
    assert [d.name for d in drafts(rows)] == ["First"]


def test_a_heading_within_the_list_is_no_line():
    rows = taken("Ch,Name,Mic\n,STRINGS,\n1,Fiddle,clip\n")
    assert "left out" in rows[1].says
    assert [d.name for d in drafts(rows)] == ["Fiddle"]


def test_a_row_says_from_whom_it_takes_a_socket():
    show, _ = made(SHOW, {"line/1/place": 1.0, "line/1/name": "Kora", "line/1/socket": "input/a/1"})
    rows = taken("Ch,Name,Box\n1,Fiddle,A 1\n", show=show)
    assert "takes the socket from Kora" in rows[-1].says


def test_a_date_that_a_spreadsheet_made_of_a_range_is_read_as_the_range():
    import datetime

    rows = taken(sheet([["Ch", "Name"], [datetime.datetime(2026, 4, 1), "Drums"]]))
    assert [d.name for d in drafts(rows)] == [f"Drums {n}" for n in (1, 2, 3, 4)]


def zip_bomb():
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("xl/worksheets/sheet1.xml", b"0" * (200 * 1024 * 1024))
    return buffer.getvalue()


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "empty"),
        (b"\xef\xbb\xbf \r\n", "empty"),
        (b"\x89PNG\r\n\x1a\n" + bytes(range(256)), "PNG picture"),
        (b"\xff\xd8\xff\xe0" + b"x" * 100, "JPEG"),
        (b"%PDF-1.7", "PDF"),
        (b"PK\x03\x04 cut off", "no readable spreadsheet"),
        (zip_bomb(), "unpacks to 200 MB"),
        (b"1,Fiddle\n" * 100_000, f"more than {MOST_ROWS} rows"),
        (b"a" * (LONGEST_FILE + 1), "MB"),
        (b"Ch,Name\n1,\0\n", "zero bytes"),
        (b'Ch,Name\n1,"open\n', "rules of CSV"),
        (b"," * 100 + b"\n", "columns"),
        (b",,\n,,\n", "no text"),
        (b"Name\n" + b"x" * 2_000, "2000 characters"),
        (bytes(range(1, 9)) * 50, "control characters|no encoding"),
        (sheet([["x"] * 61]), "columns"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_a_bad_file_gets_a_clear_refusal(content, says):
    with pytest.raises(BadFile, match=says):
        read_table(content)


def rows_or_refusal(content):
    """Rows, each with what becomes of it, or the one error that a bad file may give."""
    try:
        return all(row.says or row.problem for row in taken(content))
    except BadFile as refusal:
        return "Nothing was changed" in str(refusal)


@given(st.one_of(st.binary(max_size=300), st.binary(max_size=200).map(lambda b: b"PK\x03\x04" + b)))
def test_any_bytes_give_rows_or_a_refusal_and_nothing_else(content):
    assert rows_or_refusal(content)


@given(st.lists(st.tuples(st.integers(0, 10_000), st.integers(0, 255)), min_size=1, max_size=6))
def test_a_damaged_spreadsheet_gives_rows_or_a_refusal(hits):
    whole = bytearray(sheet([["Ch", "Name"], [1, "Fiddle"]]))
    for place, byte in hits:
        whole[place % len(whole)] = byte
    assert rows_or_refusal(bytes(whole))
