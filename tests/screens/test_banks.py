"""Banks as a surface: called, ridden by several fingers and people, unfolded, listened through."""

from selenium.webdriver.common.keys import Keys

from .effort import Effort


def fader(person, address):
    return person.sought(f'[role=slider][data-address="{address}"]')


def middle(element):
    box = element.rect
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def touch(person, kind, points):
    touches = [{"x": x, "y": y, "id": number} for number, (x, y) in enumerate(points)]
    person.driver.execute_cdp_cmd(
        "Input.dispatchTouchEvent", {"type": kind, "touchPoints": touches}
    )


def value(server, show, address):
    with server.sql() as link:
        query = "select value from server_setting where show_id = %s and address = %s"
        row = link.execute(query, [show, address]).fetchone()
    return None if row is None else row[0]


def test_two_fingers_ride_two_faders_at_once(server, people):
    """The band's DCA goes down while one voice goes up: two gestures, undone one by one."""
    me = people(width=1024, height=768)
    me.resize(1024, 768, touch=True)
    me.open("banks", server.demo)
    me.keys("1")
    band, voice = fader(me, "dca/6/fader"), fader(me, "channel/1/fader")
    before = value(server, server.demo, "channel/1/fader")
    (x1, y1), (x2, y2) = middle(band), middle(voice)
    touch(me, "touchStart", [(x1, y1), (x2, y2)])
    for step in range(1, 9):
        touch(me, "touchMove", [(x1, y1 + step * 6), (x2, y2 - step * 2)])
    touch(me, "touchEnd", [])
    me.until(lambda: (value(server, server.demo, "dca/6/fader") or 0.0) < -3.0)
    me.until(lambda: value(server, server.demo, "channel/1/fader") > before)
    me.settled()
    for _ in range(2):
        me.chord(Keys.CONTROL, key="z")
        me.settled()
    me.until(lambda: value(server, server.demo, "channel/1/fader") == before)
    me.until(lambda: not value(server, server.demo, "dca/6/fader"))


def test_a_dca_is_unfolded_step_by_step_and_two_people_ride_one_bank(server, people):
    me, other = people(), people("monitors")
    for person in (me, other):
        person.open("banks", server.demo)
        person.keys("4")
    fader(me, "dca/3/fader")
    me.field("unfold Band").click()
    me.until(lambda: me.all('[data-address="channel/17/fader"]'))
    me.field("unfold Drums").click()
    kick = fader(me, "channel/9/fader")
    kick.send_keys(Keys.PAGE_DOWN)
    me.settled()
    other.field("unfold Drums").click()  # another screen: it shows what it likes
    theirs = fader(other, "channel/9/fader")
    other.until(lambda: theirs.get_attribute("aria-valuetext") == "−13.7 dB")
    other.keys(Keys.ESCAPE)
    fader(other, "dca/3/fader").send_keys(Keys.ARROW_DOWN, Keys.ARROW_DOWN)
    me.until(lambda: "Drums −2.0" in me.find('[data-bank-strip="channel/9"]').text)
    me.until(lambda: "−15.7" in me.find('[data-bank-strip="channel/9"]').text)
    me.keys(Keys.ESCAPE)
    me.until(lambda: me.all('[data-address="channel/17/fader"]'))
    me.keys(Keys.ESCAPE)
    me.until(lambda: not me.all('[data-address="channel/17/fader"]'))


def test_listening_as_a_mix_puts_its_sends_under_the_faders(server, people):
    me = people()
    me.open("banks", server.demo)
    me.keys("1")
    own = value(server, server.demo, "channel/2/fader")
    me.choose("Faders as", "sends into Ears host")
    send = fader(me, "channel/2/send/mix/1/level")
    send.send_keys(Keys.END)
    me.until(lambda: value(server, server.demo, "channel/2/send/mix/1/level") == 0.0)
    assert value(server, server.demo, "channel/2/fader") == own
    strip = '[data-bank-strip="channel/2"]'
    me.until(lambda: "0.0" in me.find(strip).text)
    me.field("on, send of Teller, part A").click()
    me.until(lambda: "silent" in me.find(strip).text)
    me.until(lambda: "Ears host" in me.find('[aria-label="Why"]').text)


def test_banks_are_named_and_filled_by_typing_and_called_by_keys(server, people):
    show = server.blank_show("Surface")
    me = people()
    me.imported(show)
    me.open("banks", show)
    effort = Effort(me)
    effort.click(me.button("Make banks"), "Make banks")
    effort.typed("Names of new banks", "Voices, Band")
    effort.enter()
    effort.typed("Strips of the bank", "1-8")
    effort.enter()
    effort.typed("Strips that are always on this side", "house, mono")
    effort.enter()
    me.until(lambda: me.all('[data-address="house/fader"]'))
    assert len(me.all("[data-bank-strip]")) == 10
    assert len(effort) <= 8
    me.button("Done").click()
    me.keys("2")
    me.until(lambda: len(me.all("[data-bank-strip]")) == 2)  # what is fixed stays
    me.keys("1")
    fader(me, "channel/8/fader")
    me.open("banks", show)  # what is called is kept through a reload
    fader(me, "channel/8/fader")


def test_solo_in_place_is_chosen_by_find_seen_everywhere_and_cleared_in_one(server, people):
    me = people()
    me.open("banks", server.demo)
    me.keys("1")
    me.field("solo Ring host").click()
    me.until(lambda: "Ring host" in me.find('[aria-label="Solo"]').text)
    me.keys("/")
    me.type("Find by name, number or wish", "solo in place")
    strip = '[data-bank-strip="channel/2"]'
    me.until(lambda: "solo in place" in me.find(strip).text)
    me.until(lambda: "silenced" in me.find('[aria-label="Solo"]').text)
    me.open("hears", server.demo)
    me.cell("channel/2", "house").click()
    me.until(lambda: "Solo in place: only Ring host" in me.find('[aria-label="Why"]').text)
    me.find('[aria-label="Solo"] button:not([role=combobox])').click()
    me.until(lambda: not me.all('[aria-label="Solo"]'))
    me.until(lambda: "heard" in me.find('[aria-label="Why"]').text)
    me.keys("/")
    me.type("Find by name, number or wish", "solo before")
    me.until(lambda: value(server, server.demo, "show/solo") == "before_fader")
