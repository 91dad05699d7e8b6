"""A performer's phone in a real browser, by touch, with the engineer's screen beside it."""

import time

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from .test_banks import value
from .test_everywhere import barred, faults_at

FIDDLE = "channel/19/send/mix/3"
OFFLINE = {"latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}


def phone_for(people, engineer, mix, show):
    """A phone that opened a new link of a mix, which the engineer made."""
    engineer.open(f"ears/{mix}", show)
    engineer.button("New link").click()
    link = engineer.find('[data-testid="link"]').text
    engineer.driver.execute_script("document.activeElement.blur()")
    engineer.keys("\ue00c")  # Escape
    phone = people()
    phone.resize(390, 844, touch=True)
    phone.driver.get(link)
    phone.until(lambda: phone.status() == "live")
    return phone, link


def dragged(phone, label, by):
    """A finger goes so many pixels along a fader."""
    fader = phone.find(f'[role=slider][aria-label="{label}"]')
    chain = ActionChains(phone.driver).click_and_hold(fader)
    for _ in range(5):
        chain.move_by_offset(by // 5, 0)
    chain.release().perform()


def network(phone, *, offline):
    phone.driver.execute_cdp_cmd("Network.enable", {})
    phone.driver.execute_cdp_cmd(
        "Network.emulateNetworkConditions", {"offline": offline, **OFFLINE}
    )


def test_a_phone_moves_its_own_mix_and_the_engineer_sees_and_locks_it(server, people):
    me, show = people(), server.demo
    phone, link = phone_for(people, me, 3, show)
    assert "#" in link
    assert "#" not in phone.driver.current_url  # the token is gone from the address
    me.until(lambda: "Aoife Merrin: open now" in me.body())
    drums, kick = "Drums", "channel/9/send/mix/3/level"
    was, snare = value(server, show, kick), value(server, show, "channel/10/send/mix/3/level")
    dragged(phone, drums, -60)
    phone.until(lambda: value(server, show, kick) < was - 1.0)
    phone.settled()
    now = value(server, show, kick)
    # distances are kept
    far = value(server, show, "channel/10/send/mix/3/level") - snare
    assert abs((now - was) - far) < 1e-5
    # the engineer's screen shows it, in the mix itself
    me.open("mixes/3", show)
    me.until(lambda: me.field("Level of Kick in dB").get_attribute("value").strip("\u2212") in
             (f"{-now:.1f}", f"{-now:.2f}".rstrip("0")))  # fmt: skip
    phone.button("Undo").click()
    phone.until(lambda: value(server, show, kick) == was)
    # me off and back, by one press each
    own = value(server, show, f"{FIDDLE}/level")
    phone.find('[aria-label="Unfold Me"]').click()
    phone.button("mute me").click()
    phone.until(lambda: value(server, show, f"{FIDDLE}/level") is None)
    phone.button("me back").click()
    phone.until(lambda: abs((value(server, show, f"{FIDDLE}/level") or -99.0) - own) < 1e-4)
    phone.button("All softer").click()
    phone.until(lambda: value(server, show, "mix/3/fader") == -2.0)
    phone.button("Start over").click()
    phone.until(lambda: (value(server, show, "mix/3/fader") or 0.0) == 0.0)
    # a call stands above whatever view the engineer is in, until one press
    phone.button("Call the desk").click()
    phone.button("too loud").click()
    me.until(lambda: "too loud" in me.find('[aria-label="Performers who call"]').text)
    me.button("I have seen it").click()
    phone.until(lambda: "The desk has seen it" in phone.body())
    me.until(lambda: not me.all('[aria-label="Performers who call"]'))
    # locked: the phone says why, and nothing moves
    me.open("ears/3", show)
    me.button("Lock\u2026").click()
    me.type("Reason for the lock", "line check", enter=False)
    me.find("[role=dialog] button[type=submit]").click()
    phone.until(lambda: "line check" in phone.body())
    dragged(phone, "Bass", -60)
    assert value(server, show, kick) == was
    me.button("Unlock").click()
    phone.until(lambda: "Locked by the desk" not in phone.body())
    me.button("End it").click()
    phone.until(lambda: "This link has ended" in phone.body())
    assert phone.complaints() == []


def test_moves_wait_through_a_dead_network_and_a_reload_and_count_once(server, people):
    me, show = people(), server.demo
    phone, _ = phone_for(people, me, 6, show)
    kora = "channel/20/send/mix/6/level"
    was = value(server, show, kora)
    network(phone, offline=True)
    phone.until(lambda: phone.status() == "away", within_s=30)
    dragged(phone, "Strings", -40)
    dragged(phone, "Strings", -40)
    phone.until(lambda: "moves wait" in phone.body())
    time.sleep(1.0)
    assert value(server, show, kora) == was
    network(phone, offline=False)
    phone.driver.refresh()
    phone.until(lambda: phone.status() == "live", within_s=30)
    phone.settled()
    there = value(server, show, kora)
    assert there < was - 1.0
    # what the desk moves meanwhile is not undone by what waited for longer: it is refused, and told
    network(phone, offline=True)
    phone.until(lambda: phone.status() == "away", within_s=30)
    dragged(phone, "Strings", 50)
    me.open("mixes/6", show)
    me.type("Level of Kora in dB", "-33")
    me.settled()
    network(phone, offline=False)
    phone.until(lambda: "moved" in phone.find("[role=alert]").text, within_s=40)
    phone.settled()
    assert value(server, show, kora) == -33.0


PHONES = [(390, 844, True), (320, 640, True), (844, 390, True), (820, 1180, True)]


def looked_at(me, what, sizes):
    """What is wrong with a page in both themes, and at each size."""
    found = []
    for theme in ("daylight", "dusk"):
        me.driver.execute_script(f"document.documentElement.dataset.theme = '{theme}'")
        found += [f"{what} {theme}: {fault}" for fault in barred(me)]
    return found + [f"{what} {fault}" for fault in faults_at(me, sizes)]


def test_every_page_of_a_phone_fits_and_shuts_nobody_out(server, people):
    """Names of 40 letters in a family that is unfolded; the page to pick one's name; and a call."""
    me, show = people(), server.copied_demo()
    me.open("lines", show)
    me.type("Name, line 9", "The kick drum of the lighthouse keepers")
    phone, _ = phone_for(people, me, 3, show)
    found = looked_at(phone, "families", PHONES)
    phone.resize(390, 844, touch=True)
    phone.find('[aria-label="Unfold Drums"]').click()
    phone.until(lambda: phone.all('[aria-label="Fold Drums"]'))
    found += looked_at(phone, "unfolded", PHONES)
    phone.resize(390, 844, touch=True)
    phone.button("Call the desk").click()
    phone.until(lambda: any(one.text == "too loud" for one in phone.all("button")))
    found += looked_at(phone, "to call", PHONES)
    phone.resize(390, 844, touch=True)
    phone.button("too loud").click()
    me.until(lambda: me.all('[aria-label="Performers who call"]'))
    found += looked_at(me, "called", [(1280, 800, False), (820, 1180, True), (390, 844, True)])
    me.resize(1280, 800)
    me.button("I have seen it").click()
    me.button("Short code").click()
    me.until(lambda: me.all('[data-testid="code"]'))
    found += looked_at(me, "codes", [(1280, 800, False), (390, 844, True)])
    me.resize(1280, 800)
    code = me.find('[data-testid="code"]').text
    # another device picks the name, is wrong once, and opens the same mix
    other = people()
    other.resize(390, 844, touch=True)
    other.driver.get(f"{server.address}/mine")
    other.until(lambda: other.all("select"))
    Select(other.find("select")).select_by_visible_text("Aoife Merrin")
    field = other.find("input")
    field.send_keys("no", Keys.ENTER)
    other.until(lambda: "not the code" in other.find("[role=alert]").text)
    found += looked_at(other, "by name", PHONES)
    field.send_keys(code, Keys.ENTER)
    other.until(lambda: other.status() == "live")
    assert "Aoife Merrin" in other.body()
    assert found == []
