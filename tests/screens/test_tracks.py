"""The track plan in the real interface: one too many settled, taken, on paper, played back."""

from selenium.webdriver.common.keys import Keys


def on_track(me, name):
    """What stands in the column of a wish's track."""
    (row,) = [one for one in me.all("[data-wish]") if f"\n{name}\n" in f"\n{one.text}\n"]
    return row.find_element("css selector", "[role=status]").get_attribute("aria-label")


def test_wishes_to_sheet_one_too_many_settled_by_a_press_and_back_on_two_screens(server, people):
    me, other = people(), people("monitors", width=820, height=1180)
    me.open("tracks", server.demo)
    other.open("tracks", server.demo)
    me.button("Find the plan").click()
    me.until(lambda: "33 of 32 tracks" in me.body())
    me.button("Hall as heard, stereo: in mono").click()
    me.until(lambda: "29 of 30 on tracks" in me.body())
    assert "No room: Ambience" in me.body()
    me.button("Take the plan").click()
    for one in (me, other):
        one.until(lambda one=one: on_track(one, "Kick") == "on track 11")
    # somebody changes what it was planned for: told, and put right by a press
    me.button("Find the plan").click()
    me.until(lambda: "It stands so already" in me.body())
    # the sheet
    me.open("paper", server.demo)
    me.button("Track sheet").click()
    me.until(lambda: "Teller, part A" in me.body() and "Plays back into" in me.body())
    # the way back
    me.open("hears", server.demo)
    live = me.cell("channel/9", "house").text
    me.open("tracks/back", server.demo)
    me.button("Make tracks the spares of their channels").click()
    me.until(lambda: "channels have their tracks as spares" in me.body())
    me.until(lambda: me.button("Play the tracks").is_enabled())
    me.button("Play the tracks").click()
    for one in (me, other):
        one.until(lambda one=one: "hear their tracks" in one.find('[aria-label="Playback"]').text)
    assert "would record themselves" in me.body()
    # the stand-in recorder writes its files, and plays them: the line check hears the track
    me.button("Record 10 s").click()
    other.open("check", server.demo)
    other.find('[data-check="9"]').click()
    me.button("Let it play").click()
    other.until(lambda: "from its track" in other.find('[data-testid="arrival"]').text)
    me.button("Let it stop").click()
    me.open("hears", server.demo)
    me.until(lambda: me.cell("channel/9", "house").text == live)
    me.find('[aria-label="Back from playback to the stage"]').click()
    for one in (me, other):
        one.until(lambda one=one: not one.all('[aria-label="Playback"]'))
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")  # the way back is one edit: undone, it plays again
    me.until(lambda: me.all('[aria-label="Playback"]'))
    me.find('[aria-label="Back from playback to the stage"]').click()
    me.until(lambda: not me.all('[aria-label="Playback"]'))
    me.settled()
