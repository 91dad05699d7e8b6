"""What comes out of the printer, as Chromium prints it, and what comes as a file."""

import base64
import io

import pypdf
import pytest

A4, LETTER = (8.27, 11.69), (8.5, 11.0)


def pages_of(person, size=A4):
    """The text of each page as the browser prints it, across."""
    printed = person.driver.execute_cdp_cmd(
        "Page.printToPDF", {"landscape": True, "paperWidth": size[0], "paperHeight": size[1]}
    )
    reader = pypdf.PdfReader(io.BytesIO(base64.b64decode(printed["data"])))
    return [page.extract_text() for page in reader.pages]


@pytest.mark.parametrize("size", [A4, LETTER], ids=["A4", "Letter"])
def test_a_sheet_is_printed_whole_with_no_blank_page_and_nothing_of_the_frame(server, people, size):
    me = people()
    me.open("paper", server.demo)
    me.until(lambda: "Harbour master" in me.body())
    pages = pages_of(me, size)
    text = " ".join(pages)
    for words in ("Input list", "Rope creak", "Ring host"):
        assert words in text
    for frame in ("Undo", "Who hears what", "Line check", "Findings", "Spreadsheet"):
        assert frame not in text
    assert all(len(page) > 100 for page in pages)
    assert len(pages) <= 3


def test_all_sheets_are_printed_each_on_pages_of_its_own(server, people):
    me = people()
    me.open("paper", server.demo)
    me.until(lambda: "Harbour master" in me.body())
    me.driver.execute_script("window.print = () => { window.printed = true; }")
    me.choose("What to take", "all")
    me.button("Print").click()
    me.until(lambda: me.driver.execute_script("return window.printed"))
    pages = pages_of(me)
    text = " ".join(pages)
    for words in ("Patch sheet", "Output list", "Foyer boat", "Mix 1:", "Mix 8:"):
        assert words in text
    assert all(len(page) > 60 for page in pages)
    starts = [
        page for page in pages if page.lstrip().startswith(("Input", "Patch", "Out", "Mix", "DCAs"))
    ]
    assert len(starts) == 12


def test_a_performers_mix_sheet_is_shown_and_a_pdf_tells_its_progress(server, people):
    me = people()
    me.open("paper", server.demo)
    me.until(lambda: "Harbour master" in me.body())
    me.choose("Mix sheet", "mix-1")
    me.until(lambda: "Silent, for" in me.body())
    me.button("PDF").click()
    me.find('[role="progressbar"]')
    me.until(lambda: not me.all('[role="progressbar"]'), within_s=60)
    assert not me.all('[role="alert"]')
