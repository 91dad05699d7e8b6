"""A band through one group, and the proof: made, broken by another hand, mended; strips placed."""

from selenium.webdriver.common.keys import Keys

from .test_banks import value


def promise(person, number=1):
    return person.find(f'[data-promise="promise/{number}"]')


def member(person, strip, bus):
    return person.sought(f'[data-member="{strip}/{bus}"]')


def test_a_promise_is_broken_by_one_hand_and_everybody_sees_by_whom(server, people):
    show = server.blank_show("Proof")
    me = people()
    me.imported(show)
    me.open("routing", show)
    me.button("Put a group in between").click()
    me.type("Strips to the house", "9-20", enter=False)
    me.type("Strips that stay as they are", "11", enter=False)
    me.type("Name of the new group", "Band", enter=False)
    me.until(lambda: "Nobody loses anything" in me.find('[data-testid="consequence"]').text)
    me.keys(Keys.ENTER)
    me.until(lambda: "kept, 11 arrive so" in promise(me).text)
    assert value(server, show, "channel/11/group/1/on") is not True
    other = people("monitors").open("routing", show)
    member(other, "channel/12", "house").click()
    other.until(lambda: "Breaks a promise" in other.body())
    other.button("Take it").click()
    me.until(lambda: promise(me).get_attribute("data-kept") == "false")
    me.until(lambda: "Promise broken." in me.body())  # whatever one looks at
    me.until(lambda: "By monitors" in promise(me).text)
    me.until(lambda: "1 broken" in me.find("[role=tab][aria-selected=true]").text)
    me.driver.execute_script(
        "arguments[0].click()", promise(me).find_element("css selector", ":scope li button")
    )
    me.until(lambda: promise(me).get_attribute("data-kept") == "true")
    assert value(server, show, "channel/12/house/on") is False


def test_strips_are_fed_and_placed_by_keys_and_by_their_heads(server, people):
    show = server.blank_show("Places")
    me = people()
    me.imported(show)
    me.open("routing", show)
    me.find("[role=grid]").send_keys(Keys.ARROW_RIGHT)
    me.chord(Keys.SHIFT, key=Keys.ARROW_DOWN)
    me.keys(" ", "r")
    me.until(lambda: value(server, show, "channel/2/mono/on") is True)
    me.until(lambda: value(server, show, "channel/2/pan") == 1.0)
    assert value(server, show, "channel/1/mono/on") is True
    me.find('[data-row-head="4"]').click()
    me.type("Place of the strips taken", "L30")
    me.until(lambda: value(server, show, "channel/5/pan") == -0.3)
    me.button("C").click()
    me.until(lambda: value(server, show, "channel/5/pan") in (0.0, None))
