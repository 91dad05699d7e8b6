"""Patching in the real interface: lines in bulk, preamps, outputs, findings."""

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys


def value(person, label):
    return person.field(label).get_attribute("value")


def test_chosen_lines_are_set_duplicated_and_undone_together(server, people):
    me = people()
    me.open("lines", server.demo)
    for name in ("Kick", "Snare"):
        me.field(f"Choose {name}").click()
    me.field("Field to set").send_keys("perf")  # sought by its first letters
    me.until(lambda: me.find("[role=option][data-highlighted]").text.startswith("Performer"))
    me.keys(Keys.ENTER)
    me.until(lambda: me.chosen("Field to set") == "Performer")
    me.type("Value to set", "Nils Arvo")
    me.until(lambda: value(me, "Performer of Snare") == "Nils Arvo")
    assert value(me, "Performer of Kick") == "Nils Arvo"
    me.button("Duplicate").click()
    me.until(lambda: me.count("Lines") == 38)
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: me.count("Lines") == 36)
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(me, "Performer of Kick") == "Tove Lindqvay")


def test_rows_of_a_spreadsheet_are_pasted_and_lines_are_found(server, people):
    me = people()
    me.open("lines", server.blank_show("Paste"))
    me.driver.execute_script(
        """const data = new DataTransfer();
        data.setData('text/plain', '1\\tKora\\tDI\\n2\\tFiddle\\tclip condenser\\n');
        document.querySelector('main h1').dispatchEvent(
          new ClipboardEvent('paste', {clipboardData: data, bubbles: true, cancelable: true}))"""
    )
    me.button("Take 2 lines").click()
    me.until(lambda: me.count("Lines") == 2)
    me.field("Find in the lines").send_keys("cond")
    me.until(lambda: me.count("Lines") == 1)
    assert value(me, "Name, line 2") == "Fiddle"


def test_phantom_power_takes_two_deliberate_presses_by_mouse_and_by_keyboard(server, people):
    me = people()
    me.open("patch", server.demo)
    me.field("48 V on at Harbour 1").click()
    me.field("Press again: 48 V on at Harbour 1")
    me.keys(Keys.ESCAPE)
    me.until(lambda: me.field("48 V on at Harbour 1"))
    me.field("48 V on at Harbour 1").click()
    me.field("Press again: 48 V on at Harbour 1").click()
    me.until(lambda: me.field("48 V off at Harbour 1"))
    me.field("48 V off at Harbour 1").send_keys(Keys.ENTER)
    me.field("Press again: 48 V off at Harbour 1").send_keys(Keys.ENTER)
    me.until(lambda: me.field("48 V on at Harbour 1"))


def test_a_finding_is_settled_where_it_is_told(server, people):
    me = people()
    me.open("wrong", server.demo)
    row = me.find('[data-rule="past_full_scale"]')
    me.until(lambda: "Trombone is expected at +7.0 dBFS at Harbour 16" in row.text)
    me.button("Set its gain to +33 dB").click()
    me.until(lambda: not me.all('[data-rule="past_full_scale"]'))
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.find('[data-rule="past_full_scale"]')


def test_taking_an_output_says_first_who_loses_it(server, people):
    me = people()
    me.open("outputs", server.demo)
    me.choose("Deck 9 carries", "Wedge ring")
    me.until(lambda: "Ears fiddle loses output Deck 9" in me.body())
    me.keys(Keys.ESCAPE)
    me.until(lambda: "loses output" not in me.body())
    assert (
        me.find('[data-output="output/local/9"] [role=combobox]').get_attribute("data-chosen")
        == "mix/3/left"
    )
    me.choose("Deck 4 carries", "Mono")  # free: nobody is asked
    me.until(lambda: me.chosen("Deck 4 carries") == "Mono")
    me.type("Trim of Deck 5", "-4")
    me.until(lambda: value(me, "Trim of Deck 5") == "−4.0")
    me.find("main h1").click()
    for _ in range(2):
        me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(me, "Deck 4 carries") == "")


def test_a_spare_is_typed_and_switched_to_with_one_key(server, people):
    me = people()
    me.open("patch", server.demo)
    assert value(me, "Spare of channel 1") == "Deck 8"
    me.field("Channel 1 fed by its source").click()
    me.field("Name of channel 1").click()
    me.find("main h1").click()
    me.keys("w")  # Why is folded where patching is the work
    me.until(lambda: "spare, socket Deck 8" in me.find('[aria-label="Why"]').text)
    me.keys("w")
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: "spare" not in me.find('[aria-label="Why"]').text)


def test_a_line_is_dragged_to_another_place(server, people):
    me = people()
    me.open("lines", server.demo)
    grip = me.find('[data-line="3"] label')
    target = me.find('[data-line="1"]')
    ActionChains(me.driver).drag_and_drop(grip, target).perform()
    me.until(
        lambda: (
            me.driver.find_elements(By.CSS_SELECTOR, "[data-line]")[0].get_attribute("data-line")
            == "3"
        )
    )
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: me.all("[data-line]")[0].get_attribute("data-line") == "1")


IN_SIGHT = """const box = document.querySelector('[role=grid]').getBoundingClientRect();
const cell = arguments[0].getBoundingClientRect();
return cell.top >= box.top && cell.bottom <= box.bottom + 1"""


def test_the_grid_patches_by_keyboard_and_shows_first_what_would_be_lost(server, people):
    me = people()
    me.open("patch", server.blank_show("Grid"))
    me.field("As a grid").click()
    me.field("Find sockets and lines").send_keys("stage box quay")
    grid = me.field("Sockets against channels")
    me.until(lambda: grid.get_attribute("aria-rowcount") == "33")  # with the heads
    grid.send_keys(Keys.ARROW_DOWN, Keys.ENTER)
    me.until(lambda: me.all('[aria-label="Quay 2 feeds channel 1"]'))
    grid.send_keys(Keys.ARROW_DOWN, Keys.ENTER)
    me.until(lambda: "loses its source Quay 2" in me.body())
    grid.send_keys(Keys.ENTER)
    me.until(lambda: me.all('[aria-label="Quay 3 feeds channel 1"]'))
    grid.send_keys(Keys.ENTER)  # again takes it away, and says so first
    me.until(lambda: "loses its source Quay 3" in me.body())
    grid.send_keys(Keys.ENTER)
    me.until(lambda: not me.all('[aria-label="Quay 3 feeds channel 1"]'))


def test_the_cursor_of_the_largest_grid_stays_in_sight_and_only_that_part_is_drawn(server, people):
    me = people()
    me.open("patch", server.blank_show("Wide", "festival-128"))
    me.field("As a grid").click()
    grid = me.field("Sockets against channels")
    grid.send_keys(*[Keys.PAGE_DOWN] * 9, *[Keys.ARROW_RIGHT] * 60)
    cursor = me.find(".border-sun.absolute")
    me.until(lambda: me.driver.execute_script(IN_SIGHT, cursor))
    assert len(me.all("[data-grid-row]")) < 60  # only what is in sight is in the page


def test_the_cursor_of_who_hears_what_stays_in_sight_under_the_heads(server, people):
    me = people()
    me.open("hears", server.demo)
    me.cell("channel/1", "house").click()
    me.keys(*[Keys.PAGE_DOWN] * 4)
    me.until(lambda: me.driver.execute_script(IN_SIGHT, me.find(".border-2.border-sun")))
    me.keys(*[Keys.PAGE_UP] * 2)
    me.until(lambda: me.driver.execute_script(IN_SIGHT, me.find(".border-2.border-sun")))


def test_a_socket_typed_into_a_list_is_taken_only_after_it_is_said_who_loses_it(server, people):
    me = people()
    me.open("lines", server.demo)
    me.type("Socket of Kora", "Harbour 11")
    me.until(lambda: "Fiddle loses socket Harbour 11" in me.body())
    assert value(me, "Socket of Fiddle") == "Harbour 11"
    me.keys(Keys.ESCAPE)
    me.until(lambda: "loses socket" not in me.body())
    me.type("Socket of Kora", "Harbour 11")
    me.until(lambda: "Fiddle loses socket Harbour 11" in me.body())
    me.chord(Keys.CONTROL, key=Keys.ENTER)
    me.until(
        lambda: value(me, "Socket of Kora") == "Harbour 11" and value(me, "Socket of Fiddle") == ""
    )
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(me, "Socket of Fiddle") == "Harbour 11")


def test_the_target_level_is_set_and_all_gains_follow_in_one_undo(server, people):
    me = people()
    me.open("patch", server.demo)
    me.field("Find lines and channels").send_keys("trombone")
    me.until(lambda: value(me, "Gain of Harbour 16") == "58")
    me.type("Target level in dBFS", "-12")
    me.button("Set all gains to it").click()
    me.until(lambda: value(me, "Gain of Harbour 16") == "39")  # -12 + 21 + 30 dB
    me.find("main h1").click()
    for _ in range(2):
        me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(me, "Gain of Harbour 16") == "58")
