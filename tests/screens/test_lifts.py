"""Leads lifted by a key and taken back; a crossover for both; a feed that stays all but one."""

import json

from selenium.webdriver.common.keys import Keys

from .test_banks import value


def lead_of(server, show):
    return value(server, show, "lift/1/lead")


def test_a_lift_is_made_pressed_by_key_seen_on_its_way_and_taken_back(server, people):
    show = server.blank_show("Choir")
    me, other = people(), people("monitors")
    me.imported(show)
    me.open("lifts", show)
    me.until(lambda: "Nobody to lift yet" in me.body())
    me.type("Name of a new lift", "Singers", enter=False)
    me.type("Who sings in it", "1-4")
    me.until(lambda: len(me.all("[data-singer]")) == 4)
    other.open("lifts", show)
    other.until(lambda: len(other.all("[data-singer]")) == 4)
    me.type("Takes, Singers", "6")
    me.settled()
    me.driver.execute_script("document.activeElement.blur()")
    me.keys("2")
    me.until(lambda: me.find('[data-singer="channel/2"] button').get_attribute("aria-pressed"))
    # both screens see it on its way, though what stands is there at once
    moving = '[data-singer="channel/2"] [data-moving="true"]'
    for person in (me, other):
        person.until(lambda person=person: person.all(moving))
    lead = lead_of(server, show)
    assert value(server, show, f"channel/2/{lead}/on") is True
    plan = me.driver.execute_script(
        "return heard.filter((one) => one.type === 'fading').flatMap((one) => one.fades)"
    )
    assert [one["address"] for one in plan] == [f"channel/2/{lead}/level"], json.dumps(plan)
    (begun_ms, start), (ended_ms, target) = plan[0]["points"][0], plan[0]["points"][-1]
    assert (start, target, ended_ms - begun_ms) == (None, 0.0, 6000)
    assert begun_ms <= 0  # by when it is told it has been on its way for some milliseconds
    other.until(lambda: not other.all(moving))  # it has arrived
    me.keys("3")  # another takes its place
    me.until(lambda: value(server, show, f"channel/3/{lead}/on") is True)
    assert value(server, show, f"channel/2/{lead}/on") is False
    me.settled()
    me.keys("3")
    me.until(lambda: value(server, show, f"channel/3/{lead}/on") is False)
    # removed, brought back by undo, and made again: the view goes on, with the keys it had
    me.find('[aria-label="Remove the lift Singers"]').click()
    me.until(lambda: "Nobody to lift yet" in me.body())
    me.settled()
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: len(me.all("[data-singer]")) == 4)
    me.settled()
    me.chord(Keys.CONTROL, key="y")
    me.until(lambda: "Nobody to lift yet" in me.body())
    me.type("Name of a new lift", "Two", enter=False)
    me.type("Who sings in it", "1, 3", enter=False)
    me.choose("Its backing group", "Singers")
    me.button("Make it").click()
    me.until(lambda: len(me.all("[data-singer]")) == 2)
    assert me.complaints() == []


def test_a_crossover_is_set_for_both_and_its_sum_told(server, people):
    show = server.blank_show("Sub")
    me = people()
    me.imported(show)
    me.open("strip/mono", show)
    me.find('[data-stage="crossover"]').click()
    me.field("off, Crossover, house and mono").click()
    me.until(lambda: value(server, show, "mono/crossover/on") is True)
    me.type("They meet at, house and mono", "120")
    me.until(lambda: "make 0 dB" in me.find('[data-testid="crossover"]').text)
    me.until(lambda: "below 120 Hz" in me.find('[data-stage="crossover"]').text)
    me.choose("Crossover kind, house and mono", "Linkwitz-Riley, 12 dB")
    me.until(lambda: "cancel" in me.find('[data-testid="crossover"]').text)
    me.open("strip/house", show)
    me.find('[data-stage="crossover"]').click()
    me.until(lambda: "above 120 Hz" in me.find('[data-stage="crossover"]').text)
    me.type("They meet at, house and mono", "100")  # it is redrawn where the house is looked at
    me.until(lambda: "below 100 Hz" in me.find("[data-crossover] svg").get_attribute("aria-label"))


def test_a_mix_minus_is_made_in_a_line_and_a_new_line_joins_it(server, people):
    show = server.blank_show("Caller")
    me = people()
    me.imported(show, 36)
    me.open("wrong/promises", show)
    me.type("Name of the new mix", "Caller", enter=False)
    me.type("Whom it must not have", "3", enter=False)
    me.button("Make mix-minus").click()
    me.until(lambda: me.find('[data-promise="promise/1"]').get_attribute("data-kept") == "true")
    assert value(server, show, "channel/3/send/mix/1/level") in (None, "off")
    assert value(server, show, "channel/4/send/mix/1/level") == 0.0
    me.open("patch", show)
    me.type("Source of channel 45", "Quay 30")
    me.until(lambda: value(server, show, "channel/45/send/mix/1/level") == 0.0)
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: value(server, show, "channel/45/source") is None)
    me.until(lambda: value(server, show, "channel/45/send/mix/1/level") is None)
