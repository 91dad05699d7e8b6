"""Scenes in the real interface: ten made and run by two people, a value from here to the end, a

pin, a cell taken out, a scene taken back, a rehearsal.
"""

from selenium.webdriver.common.keys import Keys

from .test_banks import value


def named(person):
    """The scenes in the list, by their words."""
    return [text.replace("\n", " ") for text in person.texts("[data-scene]")]


def board(person, which):
    return person.find(f'[data-scene-board="{which}"]').text


def test_ten_scenes_are_made_and_run_by_two_people(server, people):
    show = server.blank_show("Run of ten")
    me, other = people(), people("monitors")
    me.imported(show)
    other.open("mixes/house", show)
    me.open("scenes", show)
    me.until(lambda: "No scene yet" in me.body())
    for number in range(1, 11):
        other.type("Level of Kick in dB", f"-{number}")
        other.settled()
        me.type("Name of the new scene", f"Step {number}")
        me.until(lambda number=number: me.count("Scenes") == number)
        me.until(lambda: me.field("Name of the new scene").get_attribute("value") == "")
    assert value(server, show, "scene/10/number") == 10.0
    for person in (me, other):
        person.open("run", show)
        person.until(lambda person=person: "1\nStep 1" in board(person, "Next"))
    me.until(
        lambda: "1 value changes, nobody hears it" in board(me, "Next")
    )  # what it will do, before it is pressed
    me.keys(" ")
    for person in (me, other):
        person.until(lambda person=person: "Step 1" in board(person, "Now"))
        person.until(lambda person=person: "Step 2" in board(person, "Next"))
    # both press before either is told of the other: one step, however slow this machine is
    server.pause()
    try:
        for person in (me, other):
            person.driver.execute_script(
                "dispatchEvent(new KeyboardEvent('keydown', {key: 'g', bubbles: true}))"
            )
    finally:
        server.go_on()
    for person in (me, other):
        person.settled()
        person.until(lambda person=person: "Step 2" in board(person, "Now"))
    kick = value(server, show, "run/now"), value(server, show, "run/next")
    assert kick == ("scene/2", "scene/3")
    # a direct recall by number, and one undo
    other.type("Recall a scene by its number", "7")
    me.until(lambda: "Step 7" in board(me, "Now") and "Step 8" in board(me, "Next"))
    other.chord(Keys.CONTROL, key="z")
    me.until(lambda: "Step 2" in board(me, "Now"))
    # a rehearsal steps on and moves nothing
    before = value(server, show, "run/now")
    me.field("rehearse").click()
    me.driver.execute_script("document.activeElement.blur()")
    me.keys("g", "g")
    me.until(lambda: "Step 4" in board(me, "Rehearsed") and "Step 5" in board(me, "Next"))
    me.settled()
    assert value(server, show, "run/now") == before
    assert "Step 2" in board(other, "Now")


def test_what_a_scene_holds_is_changed_onward_taken_out_and_woken(server, people):
    show = server.blank_show("Held")
    me = people()
    me.imported(show)
    me.open("scenes", show)
    for number in range(1, 4):
        me.type("Name of the new scene", f"Part {number}")
        me.until(lambda number=number: me.count("Scenes") == number)
        me.settled()
    me.open("scenes/1", show)
    me.until(lambda: me.find("[data-looked-at]"))
    me.button("What it holds").click()
    me.find("[data-held]")
    me.type("Fader of Ring host in the scene", "-7")
    me.until(lambda: "Change 3 scenes" in me.find('[data-testid="reaching"]').text)
    me.choose("Where it is changed", "in these scenes")
    me.until(lambda: "Change 1 scene" in me.find('[data-testid="reaching"]').text)
    me.type("Scenes by their numbers", "1, 3")
    me.until(lambda: "Change 2 scenes" in me.find('[data-testid="reaching"]').text)
    me.choose("Where it is changed", "from here to the end")
    me.until(lambda: "Change 3 scenes" in me.find('[data-testid="reaching"]').text)
    me.button("Change 3 scenes").click()
    me.until(lambda: me.field("Fader of Ring host in the scene").get_attribute("value") == "−7 dB")
    # the cell is taken out by the table and comes back as it was
    table = me.find("main [role=grid]")
    me.driver.execute_script("arguments[0].focus()", table)
    me.until(lambda: me.find("#member-0-0").get_attribute("aria-label") == "Ring host, carried")
    table.send_keys(Keys.HOME, " ")
    asleep = "Ring host, asleep, with its values"
    me.until(lambda: me.find("#member-0-0").get_attribute("aria-label") == asleep)
    table.send_keys(" ")
    me.until(lambda: me.find("#member-0-0").get_attribute("aria-label") == "Ring host, carried")
    me.until(lambda: me.field("Fader of Ring host in the scene").get_attribute("value") == "−7 dB")
    # the same typed, of several strips
    me.type("Strips to put in or take out", "2-3", enter=False)
    me.button("Take out").click()
    for row in (1, 2):
        me.until(
            lambda row=row: "asleep" in me.find(f"#member-{row}-0").get_attribute("aria-label")
        )
    me.type("Strips to put in or take out", "2-3")
    for row in (1, 2):
        me.until(
            lambda row=row: (
                me.find(f"#member-{row}-0").get_attribute("aria-label").endswith("carried")
            )
        )
    me.button("Beside another").click()
    me.until(lambda: "They hold the same" in me.body())
    # removed, and back by one undo
    me.button("Remove").click()
    me.until(lambda: me.count("Scenes") == 2)
    me.driver.execute_script("document.activeElement.blur()")
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: me.count("Scenes") == 3)


def test_a_pin_is_set_in_the_preview_seen_on_the_strip_and_holds(server, people):
    show = server.blank_show("Pins")
    me = people()
    me.imported(show)
    me.open("scenes", show)
    me.type("Name of the new scene", "Opening")
    me.until(lambda: me.count("Scenes") == 1)
    me.open("mixes/house", show)
    me.type("Level of Kick in dB", "-12")
    me.settled()
    me.open("scenes/1", show)
    me.until(lambda: "−12 dB → off" in me.find('[aria-label="What changes"]').text)
    me.field("pin, Kick, Fader").click()
    me.until(lambda: "Kick" in me.find('[aria-label="Held by pins"]').text)
    me.button("Recall").click()
    me.settled()
    me.until(lambda: value(server, show, "run/now") == "scene/1")
    assert value(server, show, "channel/9/fader") == -12.0
    me.open("strip/channel/9", show)
    me.find('[data-stage="fader"]').click()
    me.field("pinned, Kick, Fader").click()
    me.until(lambda: value(server, show, "channel/9/pinned_fader") is False)


def test_what_a_scene_holds_is_drawn_for_every_kind_of_strip(server, people):
    """Effect engines too, which have no colour."""
    me = people()
    me.open("scenes/2", server.demo)
    me.button("What it holds").click()
    table = me.find("main [role=grid]")
    me.driver.execute_script("arguments[0].scrollTop = arguments[0].scrollHeight", table)
    me.until(lambda: me.all("main [role=rowheader]"))
    assert "could not be drawn" not in me.body()
