"""Ears and wedges in the real interface: who stands worst, whole mixes shaped, starts and locks."""

from selenium.webdriver.common.keys import Keys

from .test_banks import value

BASS = "channel/17/send/mix/5/level"


def test_whole_mixes_are_shaped_brought_back_and_locked(server, people):
    me, show = people(), server.demo
    me.open("ears", show)
    rows = me.find('[aria-label="Mixes"]')
    me.until(lambda: "Aoife Merrin" in rows.text and "Ilka Dunmoor and Oswin Tarn" in rows.text)
    # the trombone, whose preamp is far too high, is the loudest in everybody's ears
    assert rows.text.count("Trombone") == 6
    first = rows.find_elements("css selector", "[data-testid=over]")[0].text
    assert first.startswith("\u2212")
    me.find('[title="Unfold Ears bass"]').click()
    was = value(server, show, BASS)
    me.field("+3 dB for Ears bass").click()
    me.until(lambda: value(server, show, BASS) == round(was + 3.0, 6))
    me.type("Trim Ears bass by dB", "down 1.5")
    me.until(lambda: value(server, show, BASS) == round(was + 1.5, 6))
    me.button("Start over").click()
    me.until(lambda: value(server, show, BASS) == was)
    me.type("Ceiling of Ears bass", "-2")
    me.until(lambda: value(server, show, "mix/5/ceiling") == -2.0)
    me.type("Self of Ears bass", "17-18")
    me.until(lambda: value(server, show, "channel/18/send/mix/5/self") is True)
    me.button("Lock\u2026").click()
    me.type("Reason for the lock", "sound check of the ring", enter=False)
    me.find("[role=dialog] button[type=submit]").click()
    me.until(lambda: "phone locked: sound check of the ring" in rows.text)
    assert value(server, show, "mix/5/locked") is True
    me.button("Unlock").click()
    me.until(lambda: "phone locked" not in rows.text)
    me.field("Listen as Ears bass").click()
    me.until(lambda: value(server, show, "mix/5/solo") is True)
    me.field("Listen as Ears bass").click()
    me.until(lambda: not value(server, show, "mix/5/solo"))
    assert me.complaints() == []


def test_two_mixes_side_by_side_swapped_and_all_ears_moved(server, people):
    me, show = people(), server.demo
    me.open("ears/4", show)
    me.button("Side by side").click()
    me.choose("The other mix", "Ears drums")
    told = me.find('[aria-label="Sends side by side"]')
    me.until(lambda: "Accordion" in told.text and "\u2212" in told.text)
    me.keys(Keys.ESCAPE)
    one, other = (f"channel/20/send/mix/{n}/level" for n in (4, 6))
    before = value(server, show, one), value(server, show, other)
    me.choose("Another mix than Ears accordion", "Ears drums")
    me.button("Swap").click()
    me.until(lambda: (value(server, show, other), value(server, show, one)) == before)
    me.settled()
    me.driver.execute_script("document.activeElement.blur()")
    me.chord(Keys.CONTROL, key="z")
    me.until(lambda: (value(server, show, one), value(server, show, other)) == before)
    fader = float(value(server, show, "mix/1/fader") or 0.0)
    me.field("All ears 1 dB down").click()
    me.until(lambda: value(server, show, "mix/1/fader") == fader - 1.0)
    me.field("All ears 1 dB up").click()
    me.until(lambda: (value(server, show, "mix/1/fader") or 0.0) == fader)


def test_who_came_later_joins_all_and_what_is_open_is_told(server, people):
    me, show = people(), server.demo
    me.open("ears", show)
    me.button("Join later").click()
    me.type("Who joins", "Spare radio, Kick", enter=False)
    dialog = me.find("[role=dialog]")
    me.until(lambda: "Kick is open already in Ears" in dialog.text)
    me.button("Join them").click()
    me.until(lambda: value(server, show, "channel/8/send/mix/6/level") == -12.0)
    me.settled()
    # what the desk opens in a mix that has a start has one by that
    assert value(server, show, "channel/8/send/mix/6/start") == -12.0
