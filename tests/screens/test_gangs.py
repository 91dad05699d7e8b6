"""Gangs and pairs under the hand: named, filled, ridden, left alone, suspended, linked."""

from selenium.webdriver import ActionChains
from selenium.webdriver.common.keys import Keys

from .effort import Effort
from .test_banks import fader, value


def drag(person, element, down, *, held=None):
    """A mouse takes a fader by so many pixels downward; `held`: a key that is down meanwhile."""
    chain = ActionChains(person.driver, duration=40)
    if held:
        chain.key_down(held)
    chain.click_and_hold(element)
    for _ in range(5):
        chain.move_by_offset(0, down // 5)
    chain.release()
    if held:
        chain.key_up(held)
    chain.perform()
    person.settled()


def levels(server, show, *channels):
    return [value(server, show, f"channel/{n}/fader") for n in channels]


def test_a_gang_is_named_filled_ridden_and_left_alone(server, people):
    show = server.blank_show("Gangs")
    me = people()
    me.imported(show)
    me.open("gangs", show)
    effort = Effort(me)
    effort.typed("Names of new Gangs", "Toms")
    effort.enter()
    effort.typed("Members of Toms", "1-3")
    effort.enter()
    me.until(lambda: value(server, show, "channel/3/gang/1/on") is True)
    assert len(effort) <= 4
    me.open("banks", show)
    me.button("Make banks").click()
    me.type("Names of new banks", "Drums")
    me.type("Strips of the bank", "1-8")
    me.button("Done").click()
    # from off they come together, since none has a place of its own yet: a jump is shown first
    fader(me, "channel/1/fader").send_keys(Keys.END)
    me.button("All of them, 3").click()
    me.until(lambda: levels(server, show, 1, 2, 3) == [0.0, 0.0, 0.0])
    strip = me.find('[data-bank-strip="channel/2"]')
    me.until(lambda: "Toms" in strip.text)
    # alone, while A is held: the others stay, and the distance is a new one
    drag(me, fader(me, "channel/2/fader"), 60, held="a")
    one, two, three = levels(server, show, 1, 2, 3)
    assert (one, three) == (0.0, 0.0)
    assert two < -2.0
    # by hand the others follow, past the end of their travel and back
    drag(me, fader(me, "channel/2/fader"), -80)
    assert levels(server, show, 1)[0] == 6.0
    me.until(lambda: "at " in me.find('[data-bank-strip="channel/1"]').text)
    drag(me, fader(me, "channel/2/fader"), 80)
    after = levels(server, show, 1, 2)
    assert abs((after[0] - after[1]) - (one - two)) < 0.01
    # a whole drag is one undo, for all that went with it
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: levels(server, show, 1)[0] == 6.0)
    # resting, nobody follows
    me.open("gangs", show)
    me.field("rest, Toms").click()
    me.until(lambda: value(server, show, "gang/1/suspended") is True)
    me.open("banks", show)
    was = levels(server, show, 1, 3)
    fader(me, "channel/2/fader").send_keys(Keys.PAGE_DOWN)
    me.settled()
    assert levels(server, show, 1, 3) == was
    # unfolded, and folded up again when somebody clears it
    me.open("gangs/1", show)
    me.link("Unfold on the banks").click()
    me.until(lambda: len(me.all("[data-bank-strip]")) == 3)
    other = people("monitors")
    other.open("gangs/1", show)
    other.button("Clear").click()
    me.until(lambda: len(me.all("[data-bank-strip]")) == 8)


def test_a_selection_moves_together_by_a_drag_and_to_one_level_by_typing(server, people):
    me = people()
    me.open("banks", server.demo)
    me.keys("1")
    start = levels(server, server.demo, 1, 2, 3)
    for name in ("Ring host", "Teller, part A"):
        me.field(f"take {name} with others").click()
    drag(me, fader(me, "channel/1/fader"), 40)
    now = levels(server, server.demo, 1, 2, 3)
    assert now[0] < start[0]
    assert abs((now[1] - start[1]) - (now[0] - start[0])) < 0.01
    assert now[2] == start[2]
    me.type("Level of Ring host in dB", "-12")
    me.until(lambda: levels(server, server.demo, 1, 2, 3) == [-12.0, -12.0, start[2]])
    me.keys(Keys.ESCAPE)
    me.until(lambda: not me.all('[aria-label^="take"][aria-pressed=true]'))
    for _ in range(2):
        me.chord(Keys.CONTROL, key="z")
    me.until(lambda: levels(server, server.demo, 1, 2, 3) == start)


def test_pairs_are_shown_before_they_are_linked_and_lie_on_one_fader(server, people):
    show = server.blank_show("Pairs")
    me = people()
    me.imported(show)
    me.open("banks", show)
    me.button("Make banks").click()
    me.type("Names of new banks", "All")
    me.type("Strips of the bank", "1-6")
    me.type("Level of Ring host in dB", "-7")
    me.type("Level of Teller, part A in dB", "-3")
    me.until(lambda: levels(server, show, 1, 2) == [-7.0, -3.0])
    me.open("gangs/pairs", show)
    me.type("Pairs to link", "1")
    told = me.find('[data-testid="consequence"]')
    me.until(lambda: "fader: Teller, part A −3 dB → −7 dB" in told.text)
    me.button("Take it").click()
    me.until(lambda: value(server, show, "channel/2/fader") == -7.0)
    me.until(lambda: value(server, show, "channel/2/pan") == 1.0)
    me.open("banks", show)
    me.until(lambda: len(me.all("[data-bank-strip]")) == 5)
    fader(me, "channel/1/fader").send_keys(Keys.ARROW_DOWN)
    me.until(lambda: levels(server, show, 1, 2) == [-8.0, -8.0])
    me.open("gangs/pairs", show)
    me.button("Part").click()
    me.until(lambda: not value(server, show, "channel/1/linked"))
    assert levels(server, show, 1, 2) == [-8.0, -8.0]


def test_a_gang_unfolds_on_the_banks_from_its_page_and_from_find(server, people):
    me = people()
    me.open("gangs/3", server.demo)
    me.link("Unfold on the banks").click()
    fader(me, "channel/23/fader")
    me.until(lambda: len(me.all('[data-address="channel/17/fader"]')) == 0)
    me.keys(Keys.ESCAPE)
    me.keys("/")
    me.type("Find by name, number or wish", "gang brass")
    me.until(lambda: "gangs/3" in me.driver.current_url)


def test_two_people_on_one_gang_the_first_leads_and_each_keeps_their_own(server, people):
    me, other = people(), people("monitors")
    for person in (me, other):
        person.open("banks", server.demo)
        person.keys("2")
    trumpet, trombone = (levels(server, server.demo, n)[0] for n in (23, 24))
    mine = fader(me, "channel/23/fader")
    hold = ActionChains(me.driver, duration=40).click_and_hold(mine)
    hold.move_by_offset(0, 10).perform()
    me.settled()
    drag(other, fader(other, "channel/24/fader"), 60)  # begun while mine leads: alone
    low = levels(server, server.demo, 24)[0]
    assert low < trombone - 2.0
    ActionChains(me.driver, duration=40).release().perform()
    me.settled()
    assert abs(levels(server, server.demo, 23)[0] - trumpet) < 3.0
    fader(me, "channel/23/fader").send_keys(Keys.PAGE_DOWN)
    me.until(lambda: abs(levels(server, server.demo, 24)[0] - (low - 3.0)) < 0.01)
    for person, times in ((me, 2), (other, 1)):
        for _ in range(times):
            person.chord(Keys.CONTROL, key="z")
            person.settled()
