import io
import time
import zipfile

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl.styles import Font
from openpyxl.worksheet.cell_range import CellRange

from ombrel.core import LINES, BadFile, add_lines, blank_show, made, patch_lines
from ombrel.formats.lists import (
    LONGEST_FILE,
    MOST_COLUMNS,
    MOST_ROWS,
    Choices,
    Role,
    read_book,
    read_lists,
)
from ombrel.formats.lists.struck import left_out_rows, struck_styles
from tests.desks import TOURING

PLAIN = "Ch,Instrument,Mic/DI,Stand,48V,Notes\n1,Fiddle,clip,,x,\n2,Kora,DI,,,quiet\n"


def reading(text, choices=None, **encoded):
    content = text.encode(**encoded) if isinstance(text, str) else text
    return read_lists(read_book(content), TOURING, choices)


def taken(text, choices=None, **encoded):
    return [row for one in reading(text, choices, **encoded).lists for row in one.rows]


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


def test_how_many_of_each_gives_as_many_lines_and_remarks_tell_of_phantom_power():
    rows = taken(
        "Position,Input,Type,Qty,Notes\nStage,Lectern mic,Gooseneck,2,48V\n"
        "Stage,Q&A mic,Radio,2,no 48V\nTech,Laptop,Stereo DI,1,\n"
    )
    assert [(d.name, d.stereo, d.phantom, d.where) for d in drafts(rows)] == [
        ("Lectern mic 1", False, True, "Stage"),
        ("Lectern mic 2", False, True, "Stage"),
        ("Q&A mic 1", False, False, "Stage"),
        ("Q&A mic 2", False, False, "Stage"),
        ("Laptop", True, False, "Tech"),
    ]


@pytest.mark.parametrize(
    "rows",
    [
        "Ch,Name,Side,Box\n3,Keys,L,A 1\n4,Keys,R,A 2\n",
        "Ch,Name,Mic,Box\n4,Keys R,DI,A 2\n3,Keys L,DI,A 1\n",
        "Kanal,Quelle,Mikro,Box\n3,Keys (links),DI,A 1\n4,Keys (rechts),DI,A 2\n",
        "Voie,Source,Micro,Prise\n3,Keys G,DI,A 1\n4,Keys D,DI,A 2\n",
    ],
    ids=["column-of-sides", "right-first", "German", "French"],
)
def test_two_rows_that_are_the_sides_of_one_line_are_one_line_whoever_comes_first(rows):
    (keys,) = drafts(taken(rows))
    assert (keys.name, keys.stereo, keys.channel, keys.channel_right) == ("Keys", True, 3, 4)
    assert (keys.socket, keys.socket_right) == ("input/a/1", "input/a/2")


def test_sources_lettered_in_order_are_no_pairs():
    letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
    text = "Ch,Name,Mic\n" + "".join(f"{n},Voice {c},dyn\n" for n, c in enumerate(letters, 1))
    assert len(drafts(taken(text))) == 26


def test_numbered_text_in_one_column_is_a_list():
    rows = taken("DRUMS:\n1. Kick - dynamic\n2. Hat - condenser\nVOX:\n3. Keys L\n4. Keys R\n")
    assert [(d.name, d.kind, d.channel, d.channel_right) for d in drafts(rows)] == [
        ("Kick", "dynamic", 1, None),
        ("Hat", "condenser", 2, None),
        ("Keys", "dynamic", 3, 4),
    ]


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
        ("1-3,Keys stereo,,", "two inputs"),
        (f"1,{'long ' * 30},,", "cut at 120 letters"),
        ("1-200,Drums,,", "no channel number"),
    ],
)
def test_a_row_that_cannot_be_taken_as_it_stands_says_why_beside_it(row, problem):
    rows = taken(f"Ch,Name,Mic,Box\n9,First,,A 9\n{row}\n")
    assert problem in rows[-1].says + " ".join(rows[-1].told)
    assert drafts(rows)[0].name == "First"


@pytest.mark.parametrize(
    ("cell", "told"),
    [
        ("Z 9", "none of the desk's"),
        ("A 40", "ends at Harbour 32"),
        ("tbc", "no socket"),
        ("A 1-3", "do not match"),
    ],
)
def test_a_socket_that_cannot_be_read_costs_the_socket_and_not_the_line(cell, told):
    rows = taken(f"Ch,Name,Mic,Socket\n1,Fiddle,clip,{cell}\n2,Kora,DI,A 2\n")
    fiddle, kora = drafts(rows)
    assert (fiddle.socket, kora.socket) == (None, "input/a/2")
    assert cell in fiddle.notes
    assert told in rows[1].told[0]


def test_a_box_of_the_list_is_mapped_once_for_all_its_rows():
    text = "Ch,Name,Socket\n1,Kick,Drum snake 1\n2,Snare,Drum snake 2\n3,Fiddle,A 1\n"
    assert [(one.title, one.sockets, one.box) for one in reading(text).boxes] == [
        ("Drum snake", 2, None),
        ("A", 1, "a"),
    ]
    mapped = Choices(boxes={"drum snake": "b"})
    found = drafts(taken(text, mapped))
    assert [d.socket for d in found] == ["input/b/1", "input/b/2", "input/a/1"]
    assert not any(d.notes for d in found)


def test_headings_are_named_by_hand_and_rows_are_left_out_or_taken_all_the_same():
    text = "Foo;Bar;Baz\n1;Fiddle;clip\n2;Reverb L;x\n3;Kora;DI\n"
    assert [d.name for d in drafts(taken(text))] == ["Fiddle", "Kora"]
    by_hand = Choices(heading=2)
    assert [d.name for d in drafts(taken(text, by_hand))] == ["Kora"]
    kept = Choices(out=frozenset({"0:2"}), kept=frozenset({"0:3"}))
    assert [d.name for d in drafts(taken(text, kept))] == ["Reverb L", "Kora"]


def test_a_column_put_right_by_hand_leaves_the_one_that_had_its_role():
    text = "Ch,Name,Mic\n1,clip,Fiddle\n2,DI,Kora\n"
    roles: dict[tuple[int, int], Role] = {(0, 2): "name", (0, 1): "microphone"}
    found = drafts(taken(text, Choices(roles=roles)))
    assert [(d.name, d.microphone) for d in found] == [("Fiddle", "clip"), ("Kora", "DI")]


COLUMNS = {
    "Ch": ["1", "2", "3-4", "5"],
    "Instrument": ["Fiddle", "Kora", "Keys L/R", "Lead vox"],
    "Mic": ["clip", "DI", "DI", "radio"],
    "Stand": ["", "", "", "tall"],
    "48V": ["x", "", "", ""],
    "Who": ["Aoife", "Lamine", "Greta", "Maro"],
    "Notes": ["", "quiet at first", "", ""],
}


@given(st.permutations(list(COLUMNS)))
def test_every_order_of_columns_gives_the_same_lines(order):
    rows = [",".join(order)] + [
        ",".join(COLUMNS[column][row] for column in order) for row in range(4)
    ]
    found = drafts(taken("\n".join(rows)))
    assert [
        (d.name, d.kind, d.channel, d.channel_right, d.stand, d.phantom, d.performer, d.notes)
        for d in found
    ] == [
        ("Fiddle", "condenser", 1, None, "", True, "Aoife", ""),
        ("Kora", "di_passive", 2, None, "", False, "Lamine", "quiet at first"),
        ("Keys", "di_passive", 3, 4, "", False, "Greta", ""),
        ("Lead vox", "radio", 5, None, "tall", False, "Maro", ""),
    ]


@given(
    st.lists(st.tuples(st.integers(1, 60), st.sampled_from(["Fiddle", "Kora", "Kick"])), min_size=3)
)
def test_numbers_of_a_list_are_kept_gaps_and_all(rows):
    text = "Ch,Name,Mic\n" + "".join(f"{n},{name} {n},DI\n" for n, name in rows)
    assert [d.channel for d in drafts(taken(text))] == [n for n, _ in rows]


def test_what_is_no_line_of_the_stage_is_known_for_what_it_is():
    rows = taken(
        "Ch,Name,Mic\n1,Fiddle,clip\n2,spare,\n3,,\n4,FX return 1 L/R,\nDCA 1,Drums,\n"
        "5,Kora,DI\nTotal: 5,,\n,OUTPUTS,\n1,PA left,XLR\n"
    )
    assert [row.what for row in rows] == [
        "heading", "lines", "free", "free", "effect", "dca", "lines", "section", "section",
        "output",
    ]  # fmt: skip


def test_of_a_workbook_the_sheet_with_the_list_comes_first_and_hidden_ones_last():
    book = openpyxl.Workbook()
    book.active.title = "Outputs"
    book.active.append(["Output", "Feeds"])
    book.active.append([1, "Main L"])
    for title, hidden in (("old", True), ("Stage", False)):
        page = book.create_sheet(title)
        for row in (["Ch", "Name", "Mic"], [1, "Fiddle", "clip"], [2, "Kora", "DI"]):
            page.append(row)
        page.sheet_state = "hidden" if hidden else "visible"
    buffer = io.BytesIO()
    book.save(buffer)
    found = reading(buffer.getvalue())
    assert [name for _, name, _ in found.sheets] == ["Stage", "Outputs", "old"]
    assert [draft.name for _, draft in found.drafts()] == ["Fiddle", "Kora"]
    assert [d.name for d in drafts(taken(buffer.getvalue(), Choices(sheet=0)))] == []


def test_a_list_of_any_size_costs_time_in_proportion():
    """Bounds: a hostile workbook is refused or read, never more than some lines of a show."""
    merged = openpyxl.Workbook()
    merged.active.append(["Ch", "Name", "Mic"])
    merged.active.append([1, "Fiddle", "clip"])
    for column in range(1, 40):
        merged.active.merged_cells.add(CellRange(f"A2:BH{1900 + column}"))
    buffer = io.BytesIO()
    merged.save(buffer)
    assert len(drafts(taken(buffer.getvalue()))) <= 1
    many = "Ch,Name\n" + "".join(f"{n}-{n + 99},Drums\n" for n in range(1, 800, 100)) * 20
    rows = taken(many)
    assert len(drafts(rows)) <= 2 * LINES
    assert rows[-1].says == "more lines than a show can hold"


def test_a_heading_within_the_list_is_no_line():
    rows = taken("Ch,Name,Mic\n,STRINGS,\n1,Fiddle,clip\n")
    assert rows[1].what == "section"
    assert [d.name for d in drafts(rows)] == ["Fiddle"]


def test_a_date_that_a_spreadsheet_made_of_a_range_is_read_as_the_range():
    import datetime

    rows = taken(sheet([["Ch", "Name"], [datetime.datetime(2026, 4, 1), "Drums"]]))
    assert [d.name for d in drafts(rows)] == [f"Drums {n}" for n in (1, 2, 3, 4)]


def zip_bomb():
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("xl/worksheets/sheet1.xml", b"0" * (200 * 1024 * 1024))
    return buffer.getvalue()


def locked():
    content = bytearray(sheet([["Ch", "Name"]]))
    content[content.find(b"PK\x01\x02") + 8] |= 1  # of the first member's flags the lowest bit
    return bytes(content)


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
        (locked(), "locked with a password"),
        (b"\xd0\xcf\x11\xe0" + b"x" * 100, "locked with a password"),
        (b"1,Fiddle\n" * 100_000, f"more than {MOST_ROWS} rows"),
        (b"a" * (LONGEST_FILE + 1), "MB"),
        (b"Ch,Name\n1,\0\n", "zero bytes"),
        (b'Ch,Name\n1,"open\n', "rules of CSV"),
        (b"," * MOST_COLUMNS + b"\n", "columns"),
        (b",,\n,,\n", "no text"),
        (b"Name\n" + b"x" * 2_000, "2000 characters"),
        (bytes(range(1, 9)) * 50, "control characters|no encoding"),
        (sheet([["x"] * (MOST_COLUMNS + 1)]), "columns"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_a_bad_file_gets_a_clear_refusal(content, says):
    with pytest.raises(BadFile, match=says):
        read_book(content)


def rows_or_refusal(content):
    """Rows, each with what becomes of it, or the one error that a bad file may give."""
    try:
        return all(row.says or row.drafts for row in taken(content))
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


def drafts_of(text):
    return [d for one in reading(text).lists for row in one.rows for d in row.drafts]


def test_what_says_the_same_is_the_same_and_a_dash_is_nothing():
    rows = (
        "Ch,Instrument,Mic,Stand,48V,Socket\n1,Fiddle,Clip,low,x,A1\n"
        '2,Viola,"""","-""-",dito,A2\n3,Cello,idem,-,"",A3\n4,Bass,DI,as above,no,A4\n'
    )
    found = drafts_of(rows)
    assert [one.microphone for one in found] == ["Clip", "Clip", "Clip", "DI"]
    assert [one.phantom for one in found] == [True, True, False, False]
    assert [one.stand for one in found[:2]] == ["low", "low"]


def test_levels_by_any_dash_and_in_dbv():
    """-10 dBV is -7.78 dBu: 20 log10(1 / sqrt(0.6)) = 2.218 dB between them."""
    rows = "Ch,Instrument,Mic,Level dBu\n" + "".join(
        f"{n},Source {n},DI,{level}\n"
        for n, level in enumerate(
            ["\u201320 dBu", "- 20", "\u221220", "+4", "4", "-10 dBV", "\u2010 7"], start=1
        )
    )
    assert [one.level_dbu for one in drafts_of(rows)] == [-20, -20, -20, 4, 4, -7.78, -7]


def test_what_stands_beside_a_line_makes_it_no_total_and_nobodys_telephone():
    found = drafts_of(
        "Ch,Name,Mic,Notes\n101,PC,DI,sum of L and R\n102,Kora,clip,owner: +47 555 01 99\n"
        "103,Kick,dynamic,112 48 12\nTotal,3 lines,,\n,Ada: 555 0142,,\n"
    )
    assert [one.name for one in found] == ["PC", "Kora", "Kick"]


@pytest.mark.parametrize(
    "cell",
    ["a" * 900, "tel " * 220, "1 " * 450, "1 (" * 300, "00" * 400],
    ids=lambda text: text[:4],
)
def test_cells_that_begin_like_something_cost_time_in_proportion(cell):
    def seconds(many):
        rows = "".join(f"x{n},{cell},{cell}\n" for n in range(many))
        began = time.perf_counter()
        taken(f"Name,Mic,Notes\n{rows}")
        return time.perf_counter() - began

    assert seconds(400) < max(8.0, 8 * seconds(100))  # by squares: minutes


def test_a_unit_in_the_heading_counts_for_the_numbers_below_it():
    """-10 dBV is -7.78 dBu (0 dBV is 1 V, 0 dBu 0.7746 V); a unit beside a number goes before."""
    found = drafts_of("Ch,Name,Level (dBV)\n1,Player,-10\n2,Radio,-10 dBu\n3,Kora,\n")
    assert [one.level_dbu for one in found] == [-7.78, -10.0, None]


def test_numbers_and_sockets_as_they_come():
    rows = "Ch,Instrument,Mic,Patch\n1.0,Kick,x,A/1\n#2,Snare,x,7 -> A7\n03,Hat,x,A 9\n"
    found = drafts_of(rows)
    assert [one.channel for one in found] == [1, 2, 3]
    assert [one.socket for one in found] == ["input/a/1", "input/a/7", "input/a/9"]
    (wide,) = drafts_of("Ch,Instrument,Mic,Patch\n8/9,Piano L/R,x,8/9 -> A8/A9\n")
    assert (wide.stereo, wide.socket, wide.socket_right) == (True, "input/a/8", "input/a/9")
    toms = drafts_of("Ch,Instrument,Mic,Patch\n3-6,Toms,x,B3-B6\n7,Ride,x,B7\n")
    assert [one.socket for one in toms] == [f"input/b/{n}" for n in (3, 4, 5, 6, 7)]


def test_a_name_too_long_for_a_channel_is_cut_where_one_sees_it():
    name = "The second violin of the quartet by the window, which comes on for two songs"
    (one,) = drafts_of(f'Ch,Instrument,Mic\n1,"{name}",clip\n')
    assert one.name == name  # a line has room; its channel shows where it is cut
    show = made(blank_show(TOURING), add_lines(blank_show(TOURING), [one]))[0]
    show = made(show, patch_lines(show, [1]))[0]
    channel = show.text("channel/1/name")
    assert len(channel) <= 60
    assert channel.endswith("\u2026")
    assert name.startswith(channel[:-1])
    (longer,) = drafts_of(f'Ch,Instrument,Mic\n1,"{name * 2}",clip\n')
    assert len(longer.name) <= 120
    assert longer.name.endswith("\u2026")
    assert name * 2 in longer.notes


def test_rows_that_are_struck_hidden_or_cancelled_are_no_lines_and_take_nobodys_channel():
    book = openpyxl.Workbook()
    page = book.active
    for row in (("Ch", "Instrument", "Mic", "Notes"), (1, "Kick", "dynamic", ""),
                (2, "Snare", "dynamic", ""), (3, "Hat", "condenser", ""),
                (4, "Ride", "condenser", "entfällt"), (5, "Bass", "DI", "")):  # fmt: skip
        page.append(row)
    for cell in page[3]:
        cell.font = Font(strike=True)
    page["D2"].font = Font(strike=True)  # one empty cell of a row is no row
    page.row_dimensions[4].hidden = True
    content = io.BytesIO()
    book.save(content)
    rows = [row for one in reading(content.getvalue()).lists for row in one.rows]
    found = [draft for row in rows for draft in row.drafts]
    assert [(one.name, one.channel) for one in found] == [("Kick", 1), ("Bass", 5)]
    assert sum("left out" in row.says for row in rows) == 3


def test_a_text_whose_quotation_marks_are_its_own_is_read_all_the_same():
    found = drafts_of('Ch,Instrument,Mic\n1,"Old" upright,DI\n2,Fiddle 3/4",clip\n')
    assert [one.name for one in found] == ['"Old" upright', 'Fiddle 3/4"']


BULLETS = """Hi, here is our list for Friday:

- Kick (dynamic)
\u2022 Snare top
- Hi-hat condenser
- Bass DI

Thanks, see you there!
Mira
"""
BLANKS = """Dear all, this is the list:

Ch   Instrument      Mic
1    Kick            dynamic
2    Snare top       dynamic
3    Bass            DI
"""
DOTS = "Our inputs:\n1. Kick - dynamic\n2) Snare - dynamic\n3. Bass - DI\n4. Lead vocal - radio\n"


@pytest.mark.parametrize(
    ("text", "names", "channels"),
    [
        (BULLETS, ["Kick (dynamic)", "Snare top", "Hi-hat condenser", "Bass DI"], [None] * 4),
        (BLANKS, ["Kick", "Snare top", "Bass"], [1, 2, 3]),
        (DOTS, ["Kick", "Snare", "Bass", "Lead vocal"], [1, 2, 3, 4]),
    ],
    ids=["bullets", "blanks", "dots"],
)
def test_text_that_was_pasted_from_a_mail_is_a_list_too(text, names, channels):
    found = drafts_of(text)
    assert [one.name for one in found] == names
    assert [one.channel for one in found] == channels


def test_how_many_of_something_is_no_part_of_its_name():
    found = drafts_of(
        "Ch,Instrument,Mic\n1-3,3x Solista,Gooseneck x3\nCH10-CH12,Choir,Cardioid\n"
        "20,2x12 cab,dynamic\n"
    )
    assert [(one.name, one.channel) for one in found] == [
        ("Solista 1", 1), ("Solista 2", 2), ("Solista 3", 3),
        ("Choir 1", 10), ("Choir 2", 11), ("Choir 3", 12), ("2x12 cab", 20),
    ]  # fmt: skip
    assert {one.microphone for one in found[:3]} == {"Gooseneck"}


def test_a_title_that_names_the_monitors_makes_no_list_of_outputs_of_inputs():
    found = drafts_of("Monitor input list,,\nCh,Instrument,Mic\n1,Kick,dynamic\n2,Bass,DI\n")
    assert [one.name for one in found] == ["Kick", "Bass"]
    assert not drafts_of("Monitor outputs,,\nNo,Mix,Wedge\n1,Singer,wedge\n2,Bass,wedge\n")


@pytest.mark.parametrize("torn", [b"<row ", b"<c ", b"<fonts ", b"<font ", b"<xf ", b"<strike "])
def test_a_workbook_of_torn_tags_costs_time_in_proportion(torn):
    """Each begins anew and none ends: four times as many take some four times as long."""

    def seconds(many):
        content = io.BytesIO()
        with zipfile.ZipFile(content, "w") as archive:
            archive.writestr("xl/styles.xml", b"<fonts><font><strike/>" + torn * many)
            archive.writestr("xl/sheet.xml", torn * many)
        began = time.perf_counter()
        with zipfile.ZipFile(content) as archive:
            left_out_rows(archive.read("xl/sheet.xml"), struck_styles(archive))
        return time.perf_counter() - began

    assert seconds(400_000) < max(5.0, 8 * seconds(100_000))  # by squares: minutes


def test_boxes_go_by_their_places_and_by_how_these_begin():
    rows = "Ch,Instrument,Mic,Stage box\n1,Kick,x,Harbour 3\n2,Snare,x,harb 4\n3,Click,x,Rec 5\n"
    found = [draft.socket for draft in drafts(taken(rows))]
    assert found == ["input/a/3", "input/a/4", "input/recorder/5"]
