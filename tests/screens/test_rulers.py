"""DCAs and mute groups, used as in an evening: named, filled, ridden, and asked why."""

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from .browser import many_lines


def memberships(server, show):
    query = (
        "select address from server_setting where show_id = %s and value = 'true'"
        " and address ~ '^channel/[0-9]+/(dca|mute_group)/[0-9]+/on$'"
    )
    with server.sql() as link:
        return {row[0].removesuffix("/on") for row in link.execute(query, [show]).fetchall()}


@pytest.fixture
def band(server, people, tmp_path):
    """A show with 45 channels in the house, and somebody in it."""
    show = server.blank_show("Rulers")
    me = people()
    me.open("lines", show)
    many_lines(me, tmp_path, 45)
    return me, show


def test_members_are_painted_by_dragging_and_by_keys_and_undone(server, band):
    me, show = band
    me.open("dcas", show)
    me.type("Names of new DCAs", "Band, Voices")
    first = me.sought('[data-member="channel/2/dca/1"]')
    last = me.sought('[data-member="channel/5/dca/1"]')
    ActionChains(me.driver, duration=80).click_and_hold(first).move_to_element(
        me.sought('[data-member="channel/3/dca/1"]')
    ).move_to_element(me.sought('[data-member="channel/4/dca/1"]')).move_to_element(
        last
    ).release().perform()
    four = {f"channel/{n}/dca/1" for n in (2, 3, 4, 5)}
    me.until(lambda: memberships(server, show) == four)
    me.sought('[data-member="channel/1/dca/2"]')
    me.find("[role=grid]").click()
    me.keys(Keys.HOME, *[Keys.PAGE_UP] * 6, Keys.ARROW_RIGHT)
    me.chord(Keys.SHIFT, key=Keys.ARROW_DOWN)
    before = memberships(server, show)
    me.keys(" ")
    me.until(lambda: memberships(server, show) != before)
    assert memberships(server, show) >= {"channel/1/dca/2", "channel/2/dca/2"}
    me.settled()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: memberships(server, show) == before)


def test_joining_a_dca_that_is_down_is_told_and_the_level_can_be_kept(server, band):
    me, show = band
    me.open("mixes/house", show)
    me.type("Level of Voice 7 in dB", "-5")
    me.open("dcas", show)
    me.type("Names of new DCAs", "Band")
    me.type("Level of Band in dB", "-3")
    me.type("Members of Band", "7")
    me.until(lambda: "Voice 7 −5.0 → −8.0" in me.body())
    assert memberships(server, show) == set()  # shown, and not made
    me.button("Keep levels").click()
    me.until(lambda: memberships(server, show) == {"channel/7/dca/1"})
    me.open("mixes/house", show)
    me.until(lambda: me.field("Level of Voice 7 in dB").get_attribute("value") == "−2.0")
    row = me.sought('[data-row="channel/7"]')
    me.until(lambda: "= −5.0" in row.text)


def test_why_a_channel_is_silent_and_what_opens_it(server, people):
    me, other = people(), people("monitors")
    other.open("dcas", server.demo)
    other.field("Mute Brass").click()
    other.settled()
    me.open("hears", server.demo)
    me.cell("channel/23", "house").click()
    why = me.find('[aria-label="Why"]')
    me.until(lambda: "The DCA Brass is muted." in why.text)
    me.until(lambda: "Take Trumpet out of Brass" in why.text)
    me.button("Unmute the DCA Brass").click()
    me.until(lambda: "heard" in me.find('[aria-label="Why"]').text)
    other.until(lambda: other.field("Mute Brass").get_attribute("aria-pressed") == "false")


def test_a_mute_group_says_whom_it_closes_and_who_still_hears(server, band):
    me, show = band
    me.open("mixes", show)
    me.new_mix()
    me.type("Names", "Ears one", enter=False)
    me.type("Channels to send", "1-4", enter=False)
    me.type("Level of the sends", "-6")
    me.until(lambda: "Ears one" in me.body())
    me.settled()
    me.choose("Tap of Voice 2", "before_fader")
    me.settled()
    me.open("mutes", show)
    me.type("Names of new Mute groups", "Plug in")
    me.type("Members of Plug in", "1-4")
    me.settled()
    me.find('[data-column-head="mute_group/1"] a').click()
    me.until(lambda: "1 listener still hear" in me.body())
    me.button("Tap 1 send behind the mute").click()
    me.until(lambda: "still hear members" not in me.body())
    me.until(lambda: "Mute 4 cells" in me.body())
    me.button("Mute 4 cells").click()
    me.until(lambda: "Open 4 cells again" in me.body())
    me.field("unlocked: lock it").click()  # safe from now on
    me.until(lambda: "locked: press to unlock" in me.body())
    me.until(lambda: not me.button("Open 4 cells again").is_enabled())
    me.open("hears", show)
    me.cell("channel/1", "mix/1").click()
    me.until(lambda: "The mute group Plug in is on." in me.find('[aria-label="Why"]').text)
    me.until(lambda: "only its own key" in me.find('[aria-label="Why"]').text)
