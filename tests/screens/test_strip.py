"""A strip from top to bottom: walked by keys, drawn by hand, typed, copied."""

import re

from selenium.webdriver import ActionChains
from selenium.webdriver.common.keys import Keys

from .test_banks import value


def named(server, name):
    """The strip of the demo that is called so; None while there is none."""
    with server.sql() as link:
        query = (
            "select address from server_setting where show_id = %s and value = to_jsonb(%s::text)"
        )
        row = link.execute(query, [server.demo, name]).fetchone()
    return row[0].removesuffix("/name") if row else None


def curve(person):
    return person.find("[data-curve]").get_attribute("d")


def test_a_band_is_dragged_nudged_and_typed_and_the_curve_follows(server, people):
    me = people()
    me.open("strip/channel/25", server.demo)
    me.find('[data-stage="eq"]').click()
    flat = curve(me)
    point = me.find('[data-point="2"]')
    ActionChains(me.driver, duration=60).click_and_hold(point).move_by_offset(60, 0).move_by_offset(
        0, -40
    ).release().perform()
    me.settled()
    me.until(lambda: value(server, server.demo, "channel/25/eq/2/gain") > 3.0)
    assert value(server, server.demo, "channel/25/eq/2/frequency") > 500.0
    me.until(lambda: curve(me) != flat)
    me.until(lambda: " at " in me.find('[data-stage="eq"]').text)
    before = value(server, server.demo, "channel/25/eq/2/gain")
    me.find('[data-point="2"]').send_keys(Keys.ARROW_UP)
    me.until(lambda: value(server, server.demo, "channel/25/eq/2/gain") > before + 0.4)
    me.type("Frequency, band 2 of Foley table near", "2k5")
    me.until(lambda: value(server, server.demo, "channel/25/eq/2/frequency") == 2500.0)
    me.type("Q, band 2 of Foley table near", "1 oct")
    me.until(lambda: value(server, server.demo, "channel/25/eq/2/q") == 1.41)
    me.button("Flat").click()
    me.until(lambda: curve(me) == flat)
    for _ in range(4):
        me.chord(Keys.CONTROL, key="z")
        me.settled()


def test_the_stage_stays_open_from_strip_to_strip_and_is_walked_by_keys(server, people):
    me = people()
    me.open("strip/channel/9", server.demo)
    me.find('[data-stage="gate"]').click()
    me.until(lambda: "expected at" in me.find('[aria-label="Gate of Kick"]').text)
    me.find('[data-stage="gate"]').send_keys(Keys.ARROW_DOWN)
    me.until(lambda: me.all('[aria-label="Gate of Snare"]'))
    me.find('[data-stage="gate"]').send_keys(Keys.ARROW_RIGHT)
    me.until(lambda: me.all('[aria-label="EQ of Snare"]'))
    me.type("Copy the EQ to strips", "11")
    told = me.find('[data-testid="consequence"]')
    me.until(lambda: told.text)
    me.button("Take it").click()
    me.until(lambda: value(server, server.demo, "channel/11/eq/2/gain") == -4.0)
    me.open("strip/house", server.demo)
    me.until(lambda: me.all('[aria-label="EQ of House"]'))
    assert not me.all('[data-stage="gate"]')
    me.find('[data-stage="delay"]').click()
    me.type("Delay time, House", "3.432 m")
    me.until(lambda: value(server, server.demo, "house/delay/ms") == 10.0)
    for _ in range(2):
        me.chord(Keys.CONTROL, key="z")
        me.settled()


def test_a_preset_is_seen_put_on_and_kept_and_a_channel_is_duplicated(server, people):
    me = people()
    me.open("strip/channel/20", server.demo)
    me.button("Presets").click()
    me.until(lambda: "Kora:" in me.find('[data-testid="consequence"]').text)
    me.keys(Keys.ENTER)
    me.until(lambda: not me.all("[role=dialog]"))
    me.settled()
    assert value(server, server.demo, "channel/20/low_cut/on") is True
    me.button("Presets").click()
    me.type("Name of a new preset", "Our kora")
    me.until(lambda: "Our kora" in me.find('[aria-label="Presets"]').text)
    me.keys(Keys.ESCAPE)
    me.until(lambda: not me.all("[role=dialog]"))
    me.button("Duplicate").click()
    copy = me.until(lambda: named(server, "Kora copy"))
    assert value(server, server.demo, f"{copy}/low_cut/on") is True
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: not named(server, "Kora copy"))
    me.open("strip/channel/20", server.demo)
    me.find('[data-stage="insert_2"]').click()
    me.type("Device in the insert of Kora", "Tape")
    me.until(lambda: re.search(r"In use: .*Kora", me.body()))
    assert re.search(r"\d+ of 24 insert points free", me.body())
    me.until(lambda: "Tape" in me.find('[data-stage="insert_2"]').text)
