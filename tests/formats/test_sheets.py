import csv
import io

import openpyxl
import pypdf
from hypothesis import given

from ombrel.core import SHEETS, Sheet, blank_show, made, sheet_of
from ombrel.demo import demo_show
from ombrel.formats.sheets import sheet_to_csv, sheets_to_pdf, sheets_to_xlsx
from tests.desks import TOURING
from tests.shows import shows

DEMO = demo_show(TOURING)
ALL = [make(DEMO) for make in SHEETS.values()]
ODD = Sheet(
    key="odd",
    title="Odd",
    columns=("A", "B"),
    rows=(('quo"te', "comma, and\r\nbreak"), ("=1+1", "@home"), ("é – œ", "")),
)


@given(shows())
def test_every_row_of_every_sheet_has_a_cell_for_each_column(show):
    for make in SHEETS.values():
        sheet = make(show)
        assert all(len(row) == len(sheet.columns) for row in sheet.rows)


def test_the_input_list_says_where_each_line_goes():
    rows = {row[2]: row for row in sheet_of(DEMO, "input-list").rows}
    assert len(rows) == 36
    assert rows["Fiddle"][1] == "19"
    assert rows["Fiddle"][8] == "A 11"
    assert rows["Overheads (stereo)"][1] == "15, 16"
    assert rows["Cajón"][4] == "48 V"


def test_the_patch_sheet_is_ordered_by_box_and_the_output_list_names_what_is_connected():
    boxes = [row[0] for row in sheet_of(DEMO, "patch-sheet").rows]
    assert boxes == sorted(boxes, key=["Local", "Stage box A", "Stage box B", "Recorder"].index)
    outputs = {(row[0], row[1]): row for row in sheet_of(DEMO, "output-list").rows}
    assert outputs["Local", "1"][2] == "House L"
    assert outputs["Stage box A", "4"][2:] == ("—", "", "", "", "", "amplifier", "Side fill")
    assert sheet_of(DEMO, "nothing") is None


def test_the_patch_sheet_lists_the_pair_that_a_return_takes():
    show, _ = made(DEMO, {"return/3/source": "input/b/31", "return/3/name": "Outside hall"})
    rows = {(row[0], row[1]): row for row in sheet_of(show, "patch-sheet").rows}
    for socket in ("31", "32"):
        assert rows["Stage box B", socket][-1] == "R3 Outside hall"


def test_csv_keeps_the_rules_of_rfc_4180():
    """RFC 4180, section 2: CRLF between records (1), as many fields in each (4), fields with
    breaks, quotes or commas in quotes (6), quotes doubled (7)."""
    content = sheet_to_csv(ODD).decode("utf-8-sig")
    lines = content.split("\r\n")
    assert lines[0] == "A,B"
    assert '"quo""te","comma, and' in content
    rows = list(csv.reader(io.StringIO(content, newline=""), strict=True))
    assert rows[1] == ['quo"te', "comma, and\r\nbreak"]
    assert {len(row) for row in rows} == {2}
    assert content.endswith("\r\n")


def test_no_cell_is_run_as_a_formula_by_the_spreadsheet_that_opens_it():
    rows = list(csv.reader(io.StringIO(sheet_to_csv(ODD).decode("utf-8-sig"), newline="")))
    assert rows[2] == ["'=1+1", "'@home"]


def test_a_spreadsheet_has_a_page_for_each_sheet_and_reads_back():
    book = openpyxl.load_workbook(io.BytesIO(sheets_to_xlsx(ALL, show_name="The Salt Road")))
    assert book.sheetnames == ["Input list", "Patch sheet", "Output list"]
    page = book["Input list"]
    assert [cell.value for cell in page[1]] == list(ALL[0].columns)
    assert page.max_row == len(ALL[0].rows) + 1
    assert page.freeze_panes == "A2"


def test_a_pdf_reads_back_with_every_name_the_heading_on_each_page_and_page_numbers():
    content = sheets_to_pdf(ALL, show_name="The Salt Road", desk_name="Touring 48")
    pages = [page.extract_text() for page in pypdf.PdfReader(io.BytesIO(content)).pages]
    text = " ".join(" ".join(pages).split())
    for line in DEMO.lines():
        assert DEMO.text(f"line/{line}/name") in text
    for number, page in enumerate(pages, start=1):
        assert f"The Salt Road · Touring 48 · page {number}" in page
        assert "Socket" in page
    assert content == sheets_to_pdf(ALL, show_name="The Salt Road", desk_name="Touring 48")


def test_a_blank_show_prints_sheets_that_say_so():
    empty = [make(blank_show(TOURING)) for make in SHEETS.values()]
    content = sheets_to_pdf(empty, show_name="<Nothing> & co", desk_name="Touring 48")
    text = pypdf.PdfReader(io.BytesIO(content)).pages[0].extract_text()
    assert "Nothing to list yet." in text
    assert "<Nothing> & co" in text
