"""One picture of each main view, from the demo show, into docs/screenshots/.

    python -m tests.screens.shots ADDRESS

Later views add themselves to VIEWS. Run by bin/shots on a database of its own.
"""

import pathlib
import socket
import sys
import time

from selenium.webdriver.common.keys import Keys

from tests.screens.browser import Person
from tests.screens.conftest import free_port

FOLDER = pathlib.Path(__file__).parents[2] / "docs" / "screenshots"


def hears(me):
    me.open("hears").cell("channel/19", "mix/4").click()
    # beside the table, or in one line below it
    me.until(lambda: "Ears accordion" in me.find('[aria-label="Why"], main > button').text)


def lines(me):
    me.open("lines").field("Name, line 14").click()


def patch(me):
    me.open("patch")
    me.type("Sockets", "Harbour 20-22", enter=False)
    me.type("Channels", "19", enter=False)
    me.until(lambda: "loses its source" in me.body())


def ears(me):
    me.open("ears")
    me.until(lambda: "Aoife Merrin" in me.body())


def findings(me):
    me.open("wrong").button("48 V on at Harbour 6").click()


def line_check(me):
    me.open("check").find('[data-check="9"]').click()
    me.keys("t")
    me.until(lambda: "as expected" in me.find('[data-testid="arrival"]').text)
    me.button("swap its cable with Snare").click()
    me.until(lambda: "Swapped cables?" in me.find('[data-testid="arrival"]').text)


def history(me):
    me.open("history")
    me.type("Name of a point", "Before the doors")
    me.find("[data-point]")
    me.open("mixes/3")
    me.type("Level of Fiddle in dB", "-20")
    me.settled()
    me.open("history").field("Compare, Before the doors").click()
    me.until(lambda: "Fiddle" in me.find('[aria-label="Differences"]').text)


def mixes(me):
    me.open("mixes/3").field("Level of Fiddle in dB").click()
    me.until(lambda: "Ears fiddle" in me.find('[aria-label="Why"]').text)


def strip(me):
    """In the other theme, daylight."""
    me.open("strip/channel/19").find('[data-stage="eq"]').click()
    me.find("[data-curve]")
    me.driver.execute_script("document.documentElement.dataset.theme = 'daylight'")


def tracks(me):
    """One track too many is settled by a press: what the plan would change, before it is taken."""
    me.open("tracks").button("Find the plan").click()
    me.until(lambda: "33 of 32 tracks" in me.body())
    me.button("Hall as heard, stereo: in mono").click()
    me.until(lambda: "there is no better" in me.body() and me.find('[data-testid="consequence"]'))


def cues(me):
    port = str(free_port(socket.SOCK_DGRAM))
    me.open("cues/ways")
    me.type("Port of OSC over UDP", port)
    me.until(lambda: me.field("Port of OSC over UDP").get_attribute("value") == port)
    me.find('[aria-label="listens: OSC over UDP"]').click()
    me.until(lambda: "being opened" not in me.body())
    me.open("cues/machine")
    for message in ("/cue 1", "/cue 2"):
        me.type("One message", message)
        me.until(lambda message=message: f"last {message}" in me.body())
    me.button("Armed").click()
    me.until(lambda: "What comes is done." in me.body())
    for message in ("/cue 3", "/lamp/go 3"):
        me.type("One message", message)
        me.until(lambda message=message: f"last {message}" in me.body())
    me.open("cues")
    me.until(lambda: me.all('[data-told="unknown"]'))


def sharing(me):
    """Half a minute of talk: so that there is something to see of the last one."""
    me.open("sharing").button("Let them talk").click()
    me.until(lambda: "has the floor" in me.find("main").text)
    time.sleep(32)


def found(me):
    """A wish, what answers it, and what that would change."""
    me.open("banks")
    me.keys("/")
    me.type("Find by name, number or wish", "fiddle -6", enter=False)
    me.until(lambda: "For whom" in me.body())


def cast(me):
    """The other cast, looked at before it is taken."""
    me.open("cast")
    me.choose("Tonight's cast", "Tonight: Anchor cast")
    me.until(lambda: "Mirelle Aske as Teller B" in me.body())


def mic_check(me):
    """Two are done; the third speaks, and their low cut was moved."""
    me.open("miccheck")
    for name in ("Maro Quill", "Ilka Dunmoor", "Oswin Tarn"):
        me.keys("n")
        me.until(lambda name=name: me.all(f'section[aria-label="Checking {name}"]'))
    me.type("Gain of Oswin Tarn", "down 1")
    me.keys(Keys.ESCAPE)
    me.driver.execute_script("document.activeElement.blur()")
    me.keys("t")
    me.until(lambda: "The target is" in me.find('[data-testid="arrival"]').text)


def banks(me):
    me.open("banks")
    me.keys("2")
    me.until(lambda: me.all('[data-address="channel/19/fader"]'))
    me.find('[data-bank-strip="channel/19"]').click()


def scenes(me):
    me.open("scenes/13").find("[data-looked-at]")
    me.until(lambda: me.find('[aria-label="What changes"]'))


def run(me):
    """In the middle of the first act."""
    me.open("scenes/4").button("Recall").click()
    me.settled()
    me.open("run")
    me.until(lambda: "The harbour wakes" in me.body() and "pens" in me.body())


VIEWS = {
    "who-hears-what": hears,
    "lines": lines,
    "sharing": sharing,
    "find": found,
    "patch": patch,
    "mixes": mixes,
    "tracks": tracks,
    "banks": banks,
    "cast": cast,
    "mic-check": mic_check,
    "scenes": scenes,
    "run": run,
    "ears": ears,
    "findings": findings,
    "line-check": line_check,
    "history": history,
    "strip": strip,
    "cues": cues,
}


def main(address):
    FOLDER.mkdir(parents=True, exist_ok=True)
    me = Person(address)
    for name, view in VIEWS.items():
        view(me)
        me.settled()
        time.sleep(0.4)  # a list that scrolls to what was chosen comes to rest
        me.driver.save_screenshot(str(FOLDER / f"{name}.png"))
        me.keys(Keys.ESCAPE)
    me.open("ears/3").button("New link").click()
    address = me.find('[data-testid="link"]').text
    me.resize(390, 844, touch=True)
    me.driver.get(address)
    me.find('[aria-label="Unfold Strings"]').click()
    me.until(lambda: me.status() == "live" and "Kora" in me.body())
    time.sleep(0.4)
    me.driver.save_screenshot(str(FOLDER / "phone.png"))
    complaints = me.complaints()
    me.leave()
    assert complaints == [], complaints


if __name__ == "__main__":
    main(sys.argv[1])
