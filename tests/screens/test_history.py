"""A show's history on the screen: three people, a point, one strip brought back; and all shows."""

from selenium.webdriver.common.keys import Keys


def test_one_strip_goes_back_to_a_point_and_undo_takes_that_back(server, people):
    show = server.blank_show("Three hands")
    ann, ben = people("engineer"), people("monitors")
    ann.imported(show)
    ann.open("history", show)
    ann.until(lambda: "lines taken" in ann.body() or "36" in ann.body())
    ann.type("Name of a point", "Before the doors")
    ann.find("[data-point]")
    ben.open("mixes/house", show)
    ben.type("Level of Kick in dB", "-5")
    ben.type("Level of Snare in dB", "-7")
    ben.settled()
    ann.until(lambda: len(ann.all("[data-gesture]")) >= 3)
    ann.until(lambda: "monitors" in ann.find("[data-gesture]").text)
    ann.field("Compare, Before the doors").click()
    ann.find('[aria-label="Compared"]')
    ann.until(lambda: "By who hears what" in ann.body())
    ann.button("By setting").click()
    ann.until(lambda: "−7 dB" in ann.find('[aria-label="Compared"]').text)
    ann.button("Go back to it").click()
    ann.find('fieldset button[aria-pressed="false"]').click()
    chosen = ann.find('fieldset button[aria-pressed="true"]').text.split()[0]
    ann.button(f"Bring back {chosen}").click()
    ann.settled()
    level = f"Level of {chosen} in dB"
    other = "Snare" if chosen == "Kick" else "Kick"
    ben.until(lambda: ben.field(level).get_attribute("value") == "off")
    assert ben.field(f"Level of {other} in dB").get_attribute("value") in ("−5.0", "−7.0")
    ann.chord(Keys.CONTROL, key="z")
    ben.until(lambda: ben.field(level).get_attribute("value") in ("−5.0", "−7.0"))


def test_the_history_is_filtered_by_person_and_strip(server, people):
    show = server.blank_show("Two hands")
    ann, ben = people("engineer"), people("monitors")
    ann.imported(show)
    ben.open("mixes/house", show)
    ben.type("Level of Kick in dB", "-5")
    ben.settled()
    ann.open("history", show)
    ann.until(lambda: len(ann.all("[data-gesture]")) == 2)
    ann.choose("Whose changes", "monitors")
    ann.until(lambda: len(ann.all("[data-gesture]")) == 1)
    ann.until(lambda: "Kick" in ann.find("[data-gesture]").text)
    ann.choose("Which strip", "Snare")
    ann.until(lambda: "No change like that" in ann.body() or not ann.all("[data-gesture]"))


def test_shows_are_renamed_copied_removed_and_brought_back(server, people):
    show = server.blank_show("Late night")
    me = people()
    me.open("shows", show)
    row = f'[data-show="{show}"]'
    me.type("Name of the show Late night", "Later night")
    me.until(lambda: "Later night" in me.find(f"{row} input").get_attribute("value"))
    me.field("Copy, Later night").click()
    me.until(lambda: me.all('[aria-label="Open, Later night copy"]'))
    me.field("Remove, Later night copy").click()
    me.until(lambda: me.all('[aria-label="Bring back, Later night copy"]'))
    me.field("Bring back, Later night copy").click()
    me.until(lambda: me.all('[aria-label="Open, Later night copy"]'))
    other = people("monitors")
    other.open("lines", show)
    other.settled()
    me.find(f'{row} button[aria-label="Remove, Later night"]').click()
    me.until(lambda: "monitors has it open" in me.body())
    me.button("Remove all the same").click()
    other.until(lambda: "This show was removed" in other.body())
    me.until(lambda: me.all('[aria-label="Bring back, Later night"]'))
    me.field("Bring back, Later night").click()
    other.until(lambda: "This show was removed" not in other.body())  # by itself
    other.settled()


def test_everybody_sees_who_else_is_in_the_show_and_where(server, people):
    show = server.blank_show("Company")
    me, other = people("engineer"), people("monitors")
    me.open("lines", show)
    other.open("patch", show)
    me.until(lambda: "monitors in Patch" in me.find('[data-testid="others"]').text)
    other.link("Print or export").click()
    me.until(lambda: "monitors in Print or export" in me.find('[data-testid="others"]').text)
    other.driver.get("about:blank")
    me.until(lambda: not me.all('[data-testid="others"]'))
