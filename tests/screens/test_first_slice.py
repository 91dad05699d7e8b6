"""The first job from end to end: a list in, a mix made, what arrives read, why, and mended."""

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys


def choose_file(person, path):
    person.button("Import a list").click()
    person.field("Input list file").send_keys(path)


def test_from_a_bands_list_to_what_arrives_and_why_not(server, people):
    show = server.blank_show("First job")
    me = people(signing_in=True)
    me.open("lines", show)
    me.until(lambda: "No lines yet" in me.body())
    me.imported(show)

    me.link("Patch").click()
    me.until(lambda: "Ring host" in me.field("Name of channel 1").get_attribute("value"))
    me.until(lambda: me.field("Source of channel 17").get_attribute("value") == "Harbour 9")

    me.link("Mixes").click()
    me.new_mix()
    me.type("Names", "Ears fiddle", enter=False)
    me.type("Channels to send", "1-40", enter=False)
    me.type("Level of the sends", "-12")
    me.until(lambda: "Ears fiddle" in me.field("Mixes").text)
    me.until(lambda: me.field("Outputs of Ears fiddle").get_attribute("value") == "Deck 1-2")

    me.link("Who hears what").click()
    me.reads("channel/19", "mix/1", "−12.0")
    me.cell("channel/19", "mix/1").click()
    me.keys("-6", Keys.ENTER)
    me.reads("channel/19", "mix/1", "−6.0")
    me.until(lambda: "−6.0 dB" in me.find('[aria-label="Why"]').text)

    # the house: patched, faders up, then somebody mutes the fiddle
    me.driver.get(f"{server.address}/mixes/house")
    me.button("Next free").click()
    me.until(lambda: me.field("Outputs of House").get_attribute("value") == "Deck 3-4")
    me.type("Level of Fiddle in dB", "-5")
    me.field("Mute Fiddle").click()
    me.link("Who hears what").click()
    me.reads("channel/19", "house", "muted")
    me.cell("channel/19", "house").click()
    me.until(lambda: "Fiddle is muted by its own key" in me.find('[aria-label="Why"]').text)
    me.button("Unmute Fiddle").click()
    me.reads("channel/19", "house", "−5.0")
    me.until(lambda: "heard, the only source here" in me.find('[aria-label="Why"]').text)


def test_one_undo_takes_a_whole_import_back_and_one_redo_brings_it_again(server, people):
    me = people()
    me.imported(server.blank_show("Undo import"))
    me.field("Name, line 1").click()  # undo works from within a field that nobody is typing into
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: "No lines yet" in me.body())
    me.until(lambda: "Undone: Imported 36 lines" in me.body())
    me.chord(Keys.CONTROL, Keys.SHIFT, key="z")
    me.until(lambda: me.count("Lines") == 36)


def test_two_browsers_see_each_other(server, people):
    one, two = people("engineer"), people("monitors")
    one.open("mixes/house", server.demo)
    two.open("hears", server.demo)
    two.cell("channel/1", "house").click()
    one.type("Level of Ring host in dB", "-20")
    two.reads("channel/1", "house", "−21.0")  # the house stands at -1 dB
    two.until(lambda: "−21.0 dB" in two.find('[aria-label="Why"]').text)
    # and what the other did is not mine to undo
    two.chord(Keys.CONTROL, key="z")
    two.until(lambda: "You have nothing to undo" in two.body())
    one.find("main h1").click()
    one.chord(Keys.CONTROL, key="z")
    two.reads("channel/1", "house", "−5.8")


def test_several_cells_are_edited_at_once_by_keyboard_alone(server, people):
    me = people()
    me.open("hears", server.demo)
    me.cell("channel/1", "mix/1").click()
    me.reads("channel/2", "mix/1", "−14.6")
    me.chord(Keys.SHIFT, key=Keys.ARROW_DOWN)
    me.keys("u", "p", " ", "3", Keys.ENTER)
    me.reads("channel/1", "mix/1", "−1.0")
    me.reads("channel/2", "mix/1", "−11.6")
    me.keys(Keys.DELETE)
    me.reads("channel/2", "mix/1", "·")
    me.chord(Keys.CONTROL, key="z")
    me.reads("channel/2", "mix/1", "−11.6")
    me.cell("channel/1", "mix/2").click()
    me.keys("9", Keys.ENTER)  # +9 dB: no fader goes there
    me.until(lambda: "it ends at +6.0 dB" in me.body())


def test_a_fill_says_before_it_happens_who_loses_what(server, people):
    me = people()
    show = server.blank_show("Fill")
    me.imported(show)
    me.link("Patch").click()
    me.type("Sockets", "Quay 10-12", enter=False)
    me.type("Channels", "17", enter=False)
    consequence = me.find('[data-testid="consequence"]')
    me.until(lambda: "loses its source Harbour 9" in consequence.text)
    assert me.field("Source of channel 17").get_attribute("value") == "Harbour 9"
    me.keys(Keys.ENTER)
    me.until(lambda: me.field("Source of channel 19").get_attribute("value") == "Quay 12")
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: me.field("Source of channel 17").get_attribute("value") == "Harbour 9")


def test_dragging_moves_a_send_and_painting_draws_it_across_rows(server, people):
    me = people()
    me.open("mixes/3", server.demo)
    me.type("Level of Kick in dB", "-15")
    me.settled()
    fader = me.field("Kick into Ears fiddle")
    width = fader.size["width"]
    # taken where it stands, half way, wherever on the track the hand comes down
    chain = ActionChains(me.driver).move_to_element_with_offset(fader, -width // 3, 0)
    chain.click_and_hold().move_by_offset(width // 4, 0).release().perform()
    me.settled()
    kick = float(me.field("Level of Kick in dB").get_attribute("value").replace("−", "-"))
    assert -6.0 < kick < -2.0  # three quarters of the travel: -15 + 21/2 dB
    me.field("Paint across rows").click()
    start = me.field("Snare into Ears fiddle")
    chain = ActionChains(me.driver).move_to_element_with_offset(start, 0, 0).click_and_hold()
    for _ in range(8):
        chain.move_by_offset(0, 12)
    chain.release().perform()
    me.settled()
    painted = {me.field(f"Level of {name} in dB").get_attribute("value")
               for name in ("Snare", "Cajón", "Frame drum 1")}  # fmt: skip
    assert len(painted) == 1
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: me.field("Level of Cajón in dB").get_attribute("value") == "−17.1")
    me.until(lambda: me.field("Level of Snare in dB").get_attribute("value") == "−18.3")


def test_find_goes_to_whatever_has_the_name(server, people):
    me = people()
    me.open("lines", server.demo)
    me.find("main h1").click()
    me.keys("/")
    me.field("Find by name, number or wish").send_keys("kora", Keys.ENTER)
    me.until(lambda: "Kora" in me.find('[aria-label="Why"]').text)
    me.until(lambda: me.driver.current_url.endswith("/hears"))
