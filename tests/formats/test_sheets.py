import csv
import io
import math
import re

import openpyxl
import pypdf
import pytest
import python_calamine
from hypothesis import example, given, settings
from hypothesis import strategies as st

from ombrel.core import (
    Column,
    LineDraft,
    Sheet,
    Ways,
    blank_show,
    datum_text,
    made,
    merge,
    sheet_keys,
    sheet_of,
)
from ombrel.core.show import read_numbers
from ombrel.demo import demo_show
from ombrel.formats.guarding import guarded, unguarded
from ombrel.formats.lists import read_book, read_lists
from ombrel.formats.paper import pages_guessed, sheets_to_pdf
from ombrel.formats.sheets import sheet_to_csv, sheets_to_xlsx
from tests.desks import FESTIVAL, TOURING
from tests.shows import show_of_seed, shows

DEMO = demo_show(TOURING)


def the_sheet(show, key):
    sheet = sheet_of(show, key)
    assert sheet
    return sheet


def sheets(show):
    return [the_sheet(show, key) for key in sheet_keys(show)]


ALL = sheets(DEMO)
ODD = Sheet(
    key="odd",
    title="Odd: [one]",
    columns=(Column(title="A"), Column(title="B"), Column(title="Gain", unit="dB", signed=True)),
    rows=(
        ('quo"te', "comma, and\r\nbreak", 24.0),
        ("=1+1", "@home", -6.0),
        ("é – œ", "'tick", ""),
    ),
)
SCRIPTS = ("Überfluß", "舞台左手", "かなとカナ", "무대 왼쪽", "במה שמאל", "يسار المسرح")


def pdf_of(given, **more):
    names = {"show_name": "The Salt Road", "desk_name": "Touring 48", "date": "1 May 2026"}
    return sheets_to_pdf(given, **names | more)


def text_of(content):
    return [page.extract_text() for page in pypdf.PdfReader(io.BytesIO(content)).pages]


@given(shows())
def test_every_row_of_every_sheet_has_a_cell_for_each_column(show):
    for sheet in sheets(show):
        assert all(len(row) == len(sheet.columns) for row in sheet.rows)


def named(sheet):
    """Rows by the name in them, each as a dict by column."""
    titles = [column.title for column in sheet.columns]
    rows = [dict(zip(titles, row, strict=True)) for row in sheet.rows]
    return {row.get("Name") or row.get("Line"): row for row in rows}


def test_the_input_list_says_where_each_line_goes():
    rows = named(the_sheet(DEMO, "input-list"))
    assert len(rows) == 36
    assert (rows["Fiddle"]["Channel"], rows["Fiddle"]["Socket"]) == (19, "Harbour 11")
    overheads = rows["Overheads"]
    assert (overheads["Channel"], overheads["Stereo"]) == ("15/16", "stereo")
    assert rows["Cajón"]["48 V"] == "48 V"


def test_the_patch_sheet_is_ordered_by_box_and_the_output_list_names_what_is_connected():
    boxes = [row[0] for row in the_sheet(DEMO, "patch-sheet").rows]
    order: list = ["Deck", "Stage box Harbour", "Stage box Quay", "Tape"]
    assert boxes == sorted(boxes, key=order.index)
    outputs = {(row[0], row[1]): row for row in the_sheet(DEMO, "output-list").rows}
    assert outputs["Deck", 1][2] == "House L"
    assert outputs["Stage box Harbour", 4][2:] == ("—", "", "", "", "", "amplifier", "Side fill")
    assert sheet_of(DEMO, "nothing") is None


def test_the_patch_sheet_lists_the_pair_that_a_return_takes():
    show, _ = made(DEMO, {"return/3/source": "input/b/31", "return/3/name": "Outside hall"})
    rows = {(row[0], row[1]): row for row in the_sheet(show, "patch-sheet").rows}
    for socket in (31, 32):
        assert rows["Stage box Quay", socket][-1] == "R3 Outside hall"


def test_a_mix_sheet_says_what_its_performer_hears_and_why_something_is_silent():
    show, _ = made(
        blank_show(TOURING),
        {"mix/1/format": "stereo", "mix/1/name": "Ilka", "mix/1/fader": -2.0,
         "mix/1/serves": "ears",
         "output/local/1/source": "mix/1/left", "output/local/2/source": "mix/1/right",
         "line/1/place": 1.0, "line/1/name": "Voice", "line/1/performer": "Ilka",
         "line/1/socket": "input/a/1", "channel/1/source": "input/a/1", "channel/1/name": "Voice",
         "channel/1/send/mix/1/level": -3.0, "channel/2/source": "input/a/2",
         "channel/2/name": "Fiddle", "channel/2/send/mix/1/level": 0.0, "channel/2/mute": True,
         "channel/3/source": "input/a/3", "channel/3/name": "Click"},
    )  # fmt: skip
    assert sheet_keys(show)[-1] == "mix-1"
    sheet = the_sheet(show, "mix-1")
    rows = named(sheet)
    assert set(rows) == {"Voice", "Fiddle"}  # what is neither sent nor heard is not listed
    assert (rows["Voice"]["Own"], rows["Voice"]["Send"]) == ("own", -3.0)
    assert rows["Voice"]["Arrives"] == pytest.approx(-5.0)  # send -3 and fader -2, panned centre
    assert (rows["Fiddle"]["Arrives"], rows["Fiddle"]["Silent, for"]) == ("", "muted")
    assert sheet.about == "Stereo, fader \u22122.0 dB; at Deck 1, Deck 2"


def test_csv_keeps_the_rules_of_rfc_4180():
    """RFC 4180, section 2: CRLF between records (1), as many fields in each (4), fields with
    breaks, quotes or commas in quotes (6), quotes doubled (7)."""
    content = sheet_to_csv(ODD).decode("utf-8-sig")
    assert content.split("\r\n")[0] == 'A,B,"Gain, dB"'
    assert '"quo""te","comma, and' in content
    rows = list(csv.reader(io.StringIO(content, newline=""), strict=True))
    assert rows[1] == ['quo"te', "comma, and\r\nbreak", "24"]
    assert {len(row) for row in rows} == {3}
    assert content.endswith("\r\n")


def test_no_text_is_run_as_a_formula_and_numbers_are_numbers_whatever_their_sign():
    rows = list(csv.reader(io.StringIO(sheet_to_csv(ODD).decode("utf-8-sig"), newline="")))
    assert rows[2] == ["'=1+1", "'@home", "-6"]
    page = openpyxl.load_workbook(io.BytesIO(sheets_to_xlsx([ODD], show_name="Odd"))).active
    assert [(cell.data_type, cell.value) for cell in page[3]] == [
        ("s", "=1+1"), ("s", "@home"), ("n", -6),
    ]  # fmt: skip
    assert page["C2"].number_format == "+0;-0;0"


@given(st.text("=+-@'\uff1d\uff20;,|\t \"ab1", max_size=12))
def test_no_text_begins_a_formula_however_its_row_is_parted_and_it_reads_back(text):
    assert unguarded(guarded(text)) == text
    for cell in re.split(r"[;|\t]", guarded(text)):
        assert not cell.strip(" \t").startswith(("=", "+", "-", "@", "\uff1d", "\uff20"))


def test_a_spreadsheet_has_a_page_for_each_sheet_and_reads_back():
    book = openpyxl.load_workbook(io.BytesIO(sheets_to_xlsx(ALL, show_name="The Salt Road")))
    assert book.sheetnames[:3] == ["Input list", "Patch sheet", "Output list"]
    assert len(book.sheetnames) == len(ALL)
    page = book["Patch sheet"]
    assert [cell.value for cell in page[1]] == [column.heading for column in ALL[1].columns]
    assert page.max_row == len(ALL[1].rows) + 1
    assert page.freeze_panes == "A2"
    assert {type(cell.value) for cell in page["E"][1:] if cell.value is not None} <= {int, float}
    for column in "ABCDEFGH":
        assert 4 <= page.column_dimensions[column].width <= 44


TEXT = st.text(
    st.characters(min_codepoint=32, exclude_categories=("Cs", "Cc", "Cn", "Zs", "Zl", "Zp")),
    max_size=12,
)
NAMES = st.one_of(
    TEXT.filter(bool),
    st.sampled_from(["Spare", "Total", "DCA 1", "Kick In/Out", "Keys L", "Keys R", "=1+1", "'x",
                     "-3", "Name", "Reverb", "Toms 1/2/3", "Ch", "OUTPUTS"]),
)  # fmt: skip
DRAFTS = st.builds(
    LineDraft,
    name=NAMES,
    kind=st.sampled_from(["dynamic", "condenser", "di_active", "di_passive", "radio", "line"]),
    stereo=st.booleans(),
    performer=TEXT,
    where=TEXT,
    stand=TEXT,
    microphone=TEXT,
    phantom=st.booleans(),
    level_dbu=st.one_of(st.none(), st.integers(-60, 20).map(float)),
    notes=TEXT,
    family=st.sampled_from(["voices", "drums", "unsorted"]),
    colour=st.sampled_from(["sand", "rose"]),
)


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
@settings(max_examples=40)
@given(given_drafts=st.lists(DRAFTS, min_size=1, max_size=8), patch=st.booleans())
@example(  # what would be "the same as above" in somebody else's list
    given_drafts=[LineDraft(name="Harp", notes="loud"), LineDraft(name="Oud", notes="idem")],
    patch=False,
)
def test_ombrels_own_list_is_read_back_to_the_same_lines(kind, given_drafts, patch):
    blank = blank_show(TOURING)
    show, _ = made(blank, merge(blank, given_drafts, Ways(patch=patch)).moves)
    sheet = the_sheet(show, "input-list")
    content = sheet_to_csv(sheet) if kind == "csv" else sheets_to_xlsx([sheet], show_name="x")
    reading = read_lists(read_book(content), TOURING)
    read = [draft for _, draft in reading.drafts()]
    assert not merge(show, read, Ways()).moves or not patch
    assert not merge(show, read, Ways(patch=False)).moves
    anew, _ = made(blank, merge(blank, read, Ways(patch=patch)).moves)
    assert anew == show


def test_a_pdf_reads_back_with_every_name_the_heading_on_each_page_and_page_numbers():
    content = pdf_of(ALL[:3])
    pages = text_of(content)
    text = " ".join(" ".join(pages).split())
    for line in DEMO.lines():
        assert DEMO.text(f"line/{line}/name") in text
    for number, page in enumerate(pages, start=1):
        assert f"page {number} of {len(pages)}" in page
        for words in ("The Salt Road", "Touring 48", "1 May 2026", "Socket"):
            assert words in page
    root = pypdf.PdfReader(io.BytesIO(content)).trailer["/Root"]
    assert root["/Lang"] == "en"
    assert root["/MarkInfo"]["/Marked"]
    assert "/StructTreeRoot" in root


def test_a_mix_of_34_rows_is_one_page_and_says_so_beforehand():
    sheet = sheet_of(DEMO, "mix-3")
    assert sheet is not None
    assert len(sheet.rows) == 34
    pages: list[int] = []
    pdf_of([sheet], on_page=pages.append)
    assert max(pages) == pages_guessed([sheet]) == 1


def test_a_pdf_keeps_letters_of_six_scripts_and_breaks_no_word():
    long = "Contrabassoonist-of-the-harbour"
    rows = tuple((number, f"{word} {long}", long) for number, word in enumerate(SCRIPTS))
    sheet = Sheet(
        key="x", title=SCRIPTS[1], columns=(*map(lambda t: Column(title=t), "ABC"),), rows=rows
    )
    heard = []
    content = pdf_of([sheet], show_name=SCRIPTS[3], on_page=heard.append)
    text = " ".join(text_of(content))
    for letters in ("Überfluß", "舞台左手", "かなとカナ", "무대"):
        assert letters in text
    # right to left: every letter is there, in the order in which it is drawn
    for letters in SCRIPTS[4:]:
        assert set(letters) - set(text) == set()
    assert text.count(long) == 2 * len(SCRIPTS)
    assert heard[-1] >= 1


def test_a_blank_show_prints_sheets_that_say_so():
    text = text_of(pdf_of(sheets(blank_show(TOURING)), show_name="<Nothing> & co"))[0]
    assert "Nothing to list yet." in text
    assert "<Nothing> & co" in text


def test_a_sheet_of_the_largest_desk_has_every_line_and_no_column_too_narrow():
    desk = blank_show(FESTIVAL)
    drafts = [
        LineDraft(name=f"Voice {number} of the long harbour choir", performer=f"Singer {number}")
        for number in range(1, 129)
    ]
    show, _ = made(desk, merge(desk, drafts, Ways()).moves)
    sheet = the_sheet(show, "input-list")
    page = openpyxl.load_workbook(io.BytesIO(sheets_to_xlsx([sheet], show_name="x"))).active
    assert [cell.value for cell in page["C"][1:]] == [draft.name for draft in drafts]
    assert [cell.value for cell in page["B"][1:]] == list(range(1, 129))
    assert {type(cell.value) for cell in page["L"][1:]} <= {int, float}
    assert page.column_dimensions["C"].width >= len(drafts[-1].name)


def test_a_workbook_opens_in_another_program_whatever_its_names_hold():
    """Read back by a library that shares nothing with the one that wrote it."""
    odd = "Kick\ufffe\uffff\x0b\ud7ff"
    sheet = Sheet(
        key="odd", title=f"Odd{odd}"[:31], columns=(*ODD.columns, Column(title="Level", unit="dB")),
        rows=(
            (odd, "=1+1", 24.0, -4.8e-16), ("plain", "+x", -6.0, -0.0),
            ("é – œ", "", 0.30000000000000004, float("-inf")),
        ),
    )  # fmt: skip
    content = sheets_to_xlsx([sheet, *ALL], show_name=odd)
    book = python_calamine.CalamineWorkbook.from_filelike(io.BytesIO(content))
    assert len(book.sheet_names) == 1 + len(ALL)
    rows = book.get_sheet_by_index(0).to_python()
    assert rows[0] == ["A", "B", "Gain, dB", "Level, dB"]
    assert rows[1] == ["Kick\ufffd\ufffd\ufffd\ud7ff", "=1+1", 24.0, 0.0]
    assert rows[2:] == [["plain", "+x", -6.0, 0.0], ["é – œ", "", 0.3, "off"]]
    for place, one in enumerate(ALL, start=1):
        told = book.get_sheet_by_index(place).to_python()
        assert told[0] == [column.heading for column in one.columns]
        assert len(told) == 1 + len(one.rows)
        for cells, row in zip(told[1:], one.rows, strict=True):
            for cell, datum in zip(cells, row, strict=True):
                if isinstance(datum, int | float) and datum > -math.inf:
                    assert cell == pytest.approx(datum, abs=1e-6)


def test_numbers_are_written_without_what_arithmetic_leaves():
    """Half of the last place goes away from zero, on paper as on a screen; and 0 has no sign."""
    level = Column(title="Level", unit="dB", signed=True, places=1)
    found = [(-4.8e-16, "0", "0.0 dB"), (-0.04, "-0.04", "0.0 dB"), (2.25, "2.25", "+2.3 dB"),
             (-6.35, "-6.35", "\u22126.4 dB"), (1e-7, "0", "0.0 dB"),
             (123456.789, "123456.789", "+123456.8 dB")]  # fmt: skip
    for value, in_file, on_paper in found:
        sheet = Sheet(key="x", title="X", columns=(level,), rows=((value,),))
        assert sheet_to_csv(sheet).decode("utf-8-sig").splitlines()[1] == in_file
        assert datum_text(level, value) == on_paper


ASSIGNED = {
    "Groups": "group", "Mixes": "mix", "Matrices": "matrix",
    "DCAs": "dca", "Mute groups": "mute_group", "Gangs": "gang",
}  # fmt: skip


@pytest.mark.parametrize("seed", [None, 1, 4, 9])
def test_the_sheet_of_assignments_says_of_each_strip_what_it_goes_to_and_what_it_is_in(seed):
    """Read from the show address by address; numbers as they can be typed again."""
    show = DEMO if seed is None else show_of_seed(seed)
    sheet = sheet_of(show, "assignments")
    assert sheet is not None
    heads = [column.title for column in sheet.columns]
    used = 0
    for row in sheet.rows:
        told = dict(zip(heads, row, strict=True))
        strip = f"{told['Strip']}".lower() + (f"/{told['No.']}" if told["No."] else "")
        for head, kind in ASSIGNED.items():
            expected = []
            for n in range(1, show.desk.count(kind) + 1):
                is_bus = kind in ("group", "mix", "matrix")
                if is_bus and show[f"{kind}/{n}/format"] == "unused":
                    continue
                member, send = f"{strip}/{kind}/{n}/on", f"{strip}/send/{kind}/{n}"
                if show.values.get(member) is True or (
                    show.values.get(f"{send}/level") is not None and show.on(f"{send}/on")
                ):
                    expected.append(n)
            text = f"{told[head]}"
            assert (read_numbers(text, highest=999) if text else []) == expected, (strip, head)
            used += bool(expected)
    assert used > 5
