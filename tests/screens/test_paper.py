"""What comes out of the printer, as Chromium prints it."""

import base64
import io

import pypdf


def test_the_print_view_prints_every_sheet_and_nothing_of_the_frame(server, people):
    me = people()
    me.open("paper", server.demo)
    me.until(lambda: "Harbour master" in me.body())
    printed = me.driver.execute_cdp_cmd("Page.printToPDF", {"landscape": True, "paperWidth": 8.27,
                                                            "paperHeight": 11.69})  # fmt: skip
    reader = pypdf.PdfReader(io.BytesIO(base64.b64decode(printed["data"])))
    text = " ".join(page.extract_text() for page in reader.pages)
    for words in ("Input list", "Patch sheet", "Output list", "Rope creak", "Foyer boat"):
        assert words in text
    for frame in ("Undo", "Who hears what", "Line check", "Findings"):
        assert frame not in text
    assert len(reader.pages) >= 3
