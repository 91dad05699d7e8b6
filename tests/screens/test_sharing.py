"""Microphones that share one gain, in the real interface: weighed, seen winning, on two screens."""

from selenium.webdriver.common.keys import Keys


def row(person, strip):
    return person.find(f'[data-sharing] [data-row="{strip}"]')


def test_who_talks_rises_and_the_chairs_weight_is_tried_before_anybody_comes(server, people):
    me, other = people(), people("monitors", width=820, height=1180)
    me.open("sharing", server.demo)
    other.open("sharing", server.demo)
    # all as loud: the host with its weight is first, and not without it
    me.type("Levels to try in Council of gulls", "all at -20, 1 at -26")
    me.until(lambda: "Ring host wins by 4.0 dB" in me.body())
    me.type("Weight, Ring host", "0")
    me.until(lambda: "Nobody wins: 5 members are level." in me.body())
    me.until(lambda: "+6.0" in row(me, "channel/1").text)
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: "Ring host wins by 4.0 dB" in me.body())
    # the stage lets them talk: shares are told on both screens, and make up one
    me.button("Let them talk").click()
    for one in (me, other):
        one.until(lambda one=one: "has the floor" in one.find("main").text)
        one.until(lambda one=one: abs(shares(one) - 100) <= 6)
    # who is out is out at once, on both
    row(me, "channel/5").find_element("css selector", "[aria-label^='Out']").click()
    for one in (me, other):
        one.until(lambda one=one: row(one, "channel/5").get_attribute("data-standing") == "out")
    me.settled()
    me.find("main h1").click()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: row(me, "channel/5").get_attribute("data-standing") == "shares")
    me.button("Let them be silent").click()
    me.until(lambda: "nobody speaks" in me.find("main").text)


def shares(person):
    """All shares of the group together, in per cent."""
    meters = person.driver.execute_script(
        "return [...document.querySelectorAll('[data-sharing] [role=meter]')]"
        ".map((one) => Number(one.getAttribute('aria-valuenow')))"
    )
    return sum(meters)
