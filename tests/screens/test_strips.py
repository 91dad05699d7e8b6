"""Groups, effects, matrices, and the mixes as wholes: the job from nothing, in the real screens."""

from selenium.webdriver.common.keys import Keys


def why(person):
    return person.find('[aria-label="Why"]').text


def make(person, kind, names):
    person.new_mix()
    person.choose("What to make", kind)
    person.type("Names", names)


def test_a_voice_through_a_group_and_a_reverb_to_the_house_and_the_foyer(server, people):
    me = people()
    show = server.blank_show("Strips")
    me.imported(show)
    me.link("Mixes").click()
    make(me, "groups", "Voices")
    me.until(lambda: me.field("Name of the group").get_attribute("value") == "Voices")
    me.field("Ring host feeds Voices").click()
    me.type("Level of Ring host in dB", "-5")
    make(me, "shared effects", "Hall")
    me.until(lambda: me.field("Engine of Hall").get_attribute("data-chosen") == "1")
    me.type("Level of Ring host in dB", "-10")
    make(me, "matrices", "Foyer")
    me.until(lambda: me.field("Outputs of Foyer").get_attribute("value"))
    me.type("Level of House in dB", "-3")

    # the house has no socket of its own, and is heard by way of the matrix
    me.link("Who hears what").click()
    me.until(lambda: "by matrix" in me.find('[data-column-head="0"]').text)
    me.cell("channel/1", "house").click()
    me.until(lambda: "by way of the group Voices" in why(me))
    me.until(lambda: "by way of Hall, wet" in why(me))
    assert "direct" in why(me)  # it still goes to the house beside the group
    me.button("Groups and effects").click()
    me.reads("channel/1", "group/1", "−5.0")
    me.reads("channel/1", "mix/1", "−15.0")

    # typed where several ways lead: asked, not guessed
    me.button("Rooms and feeds").click()
    me.cell("channel/1", "matrix/1").click()
    me.keys("-20", Keys.ENTER)
    me.until(lambda: "Choose what is to move" in me.find('[role="dialog"]').text)
    me.keys(Keys.ENTER)  # the first way: the voice's own fader
    me.reads("channel/1", "matrix/1", "−20.0")
    me.chord(Keys.CONTROL, key="z")


def test_a_cell_with_several_causes_is_opened_by_one_press(server, people):
    me = people()
    me.open("hears", server.demo)
    me.cell("channel/8", "house").click()
    me.until(lambda: "muted by its own key" in why(me))
    me.link("Mixes").click()
    me.open("mixes/group-2", server.demo)
    me.field("Mute Voices").click()
    me.open("hears", server.demo)
    me.cell("channel/8", "house").click()
    me.until(lambda: "2 reasons" in why(me))
    me.button("Let it be heard: 2 actions").click()
    me.reads("channel/8", "house", "−4.9")
    me.chord(Keys.CONTROL, key="z")
    me.reads("channel/8", "house", "muted")
    me.open("mixes/group-2", server.demo)
    me.field("Mute Voices").click()
    me.settled()


def test_a_mix_is_duplicated_filled_and_moved(server, people):
    me = people()
    show = server.blank_show("Whole mixes")
    me.imported(show)
    me.link("Mixes").click()
    me.new_mix()
    me.type("Names", "Ears one", enter=False)
    me.type("Channels to send", "1-3", enter=False)
    me.type("Level of the sends", "-12")
    me.until(lambda: me.field("Name of the mix").get_attribute("value") == "Ears one")
    me.button("Duplicate").click()
    me.until(lambda: me.field("Name of the mix").get_attribute("value") == "Ears one copy")
    me.until(lambda: me.field("Level of Teller, part A in dB").get_attribute("value") == "−12.0")
    me.button("Fill").click()
    me.choose("From", "Ears one")
    me.type("Offset in dB", "-3", enter=False)
    me.until(lambda: "3 other levels move" in me.find('[data-testid="consequence"]').text)
    me.button("Fill it").click()
    me.until(lambda: me.field("Level of Teller, part A in dB").get_attribute("value") == "−15.0")
    me.field("Move this mix up").click()
    me.until(lambda: me.field("Mixes").text.startswith("Ears one copy"))
    me.until(lambda: me.driver.current_url.endswith("/mixes/1"))
