"""A stranger's list, from the file to the show, and what happens to lines afterwards."""

from pathlib import Path

from selenium.webdriver.common.keys import Keys

LISTS = Path(__file__).parent.parent / "formats" / "lists"
ODD = """Saltmarsh Ceilidh Band,,,,
Nr,What it is,Snake,Pickup,
1,Fiddle,Stage L 1,clip,
2,Whistle,Stage L 2,dynamic,
5,Keys,Stage R 1/2,DI,stereo
8,Bodhran L,Stage R 3,condenser,
9,Bodhran R,Stage R 4,condenser,
"""


def bring(person, path):
    person.button("Import a list").click()
    person.field("Input list file").send_keys(str(path))
    person.find('[data-testid="list-summary"]')


def choose(person, label, value):
    """Choose from a list, and wait until what it does is shown."""
    person.choose(label, value)
    person.until(lambda: "One moment…" not in person.body())
    person.until(lambda: person.field(label).get_attribute("data-chosen") == value)


def channels(person):
    return person.texts("tr[data-what='lines'] > td:nth-of-type(3)")


def test_a_bad_file_is_refused_in_words_and_the_next_one_is_read(server, people, tmp_path):
    me = people()
    me.open("lines", server.blank_show("Bad files"))
    picture = tmp_path / "list.csv"
    picture.write_bytes(b"\x89PNG\r\n\x1a\n" + b"x" * 500)
    me.button("Import a list").click()
    me.field("Input list file").send_keys(str(picture))
    me.until(lambda: "is a PNG picture" in me.body())
    odd = tmp_path / "odd.csv"
    odd.write_text("Ch,Name,Thing\n1,Fiddle,Ilka\n2,Kora,Sowande\n")
    me.field("Input list file").send_keys(str(odd))
    me.until(lambda: "Take 2 lines" in me.body())
    choose(me, "Column 3 is", "performer")
    me.button("Take 2 lines").click()
    me.until(lambda: me.field("Performer of Fiddle").get_attribute("value") == "Ilka")


def test_headings_named_boxes_mapped_numbers_kept_and_one_undo(server, people, tmp_path):
    path = tmp_path / "saltmarsh.csv"
    path.write_text(ODD)
    me = people()
    me.open("lines", server.blank_show("Saltmarsh"))
    bring(me, path)
    choose(me, "Headings in", "1")
    choose(me, "Headings in", "2")
    choose(me, "Box Stage L is", "a")
    choose(me, "Box Stage R is", "b")
    me.until(lambda: channels(me) == ["1", "2", "5/6", "8/9"])
    choose(me, "Stereo pairs on even and odd", "odd")
    me.until(lambda: channels(me) == ["1", "2", "5/6", "3/4"])
    choose(me, "Stereo pairs on even and odd", "numbered")
    me.field("Take row 4").click()
    me.until(lambda: "left out by hand" in me.body())
    me.field("Take row 4").click()
    me.until(lambda: channels(me) == ["1", "2", "5/6", "8/9"])
    me.button("Take 4 lines").click()
    me.until(lambda: me.count("Lines") == 4)
    me.until(lambda: me.field("Socket of Keys").get_attribute("value") == "Quay 1")
    me.until(lambda: me.field("Socket of Bodhran, right").get_attribute("value") == "Quay 4")
    me.keys(Keys.ESCAPE)
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: "No lines yet" in me.body())


def test_a_newer_list_says_what_is_new_changed_and_gone_and_doubles_nothing(
    server, people, tmp_path
):
    me = people()
    me.open("lines", server.blank_show("Two versions"))
    bring(me, LISTS / "la-marea.csv")
    me.button("Take 17 lines").click()
    me.until(lambda: me.count("Lines") == 17)
    text = (LISTS / "la-marea.csv").read_bytes().decode("cp1252")
    newer = text.replace("20;Claqueta", "21;Claqueta").replace(
        "16;Coros 1;dinámico;jirafa;no;\r\n", ""
    )
    newer = newer.replace("11;Guitarra eléctrica;dinámico", "11;Guitarra eléctrica;cinta")
    path = tmp_path / "la-marea-2.csv"
    path.write_bytes(newer.encode("cp1252"))
    bring(me, path)
    me.until(lambda: "2 changed, 14 as they are, 1 leaves the list" in me.body())
    me.until(lambda: "channel 20 → 21" in me.body())
    me.until(lambda: "Channel 16 loses its source and name" in me.body())
    me.button("Take 16 lines").click()
    me.until(lambda: me.count("Lines") == 16)
    bring(me, path)
    me.until(lambda: "16 as they are" in me.body())


def test_a_renamed_line_offers_its_name_to_its_channel(server, people):
    show = server.blank_show("Renamed")
    me = people()
    me.imported(show)
    me.type("Name, line 18", "Violin")  # was the fiddle
    me.until(lambda: "the channel is still called 19 Fiddle" in me.body())
    me.button("Rename the channel too").click()
    me.until(lambda: "still called" not in me.body())
    me.open("patch", show)
    me.until(lambda: me.field("Name of channel 19").get_attribute("value") == "Violin")


def test_a_line_that_leaves_says_what_its_channel_and_sends_become(server, people):
    show = server.blank_show("Leaving")
    me = people()
    me.imported(show)
    me.field("Choose Kick").click()
    me.button("Remove…").click()
    me.until(lambda: "Channel 9 keeps its socket and name." in me.body())
    me.find('[data-testid="removing"] input').click()
    me.until(lambda: "Channel 9 loses its source and name." in me.body())
    me.button("Remove the line").click()
    me.until(lambda: me.count("Lines") == 35)


def test_a_lines_preamp_is_set_where_the_line_is_shown(server, people):
    show = server.blank_show("Preamps")
    me = people()
    me.imported(show)
    me.field("Mic or DI of Snare").click()
    me.find('[data-preamp="input/a/2"]')
    me.type("Gain of Harbour 2", "24")
    me.open("check", show)
    me.until(lambda: me.count("Lines to check") == 36)
    me.find('[data-check="10"]').click()
    me.until(lambda: me.field("Gain of Harbour 2").get_attribute("value") == "24")


def test_a_list_given_with_a_new_show_that_cannot_be_read_is_refused_in_words(
    server, people, tmp_path
):
    path = tmp_path / "broken.xlsx"
    path.write_bytes(b"PK this is no workbook")
    me = people()
    me.open("shows", server.demo)
    me.button("New show").click()
    me.type("Name of the show", "Broken list", enter=False)
    me.field("The band's input list").send_keys(str(path))
    me.button("Make the show").click()
    me.until(lambda: "new=1" in me.driver.current_url and me.all("[role=dialog] [role=alert]"))
    me.until(lambda: "Nothing was changed" in me.find("[role=dialog] [role=alert]").text)
