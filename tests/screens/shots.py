"""One picture of each main view, from the demo show, into docs/screenshots/.

    python -m tests.screens.shots ADDRESS

Later views add themselves to VIEWS. Run by bin/shots on a database of its own.
"""

import pathlib
import sys
import time

from selenium.webdriver.common.keys import Keys

from tests.screens.browser import Person, chromium

FOLDER = pathlib.Path(__file__).parents[2] / "docs" / "screenshots"


def hears(me):
    me.open("hears").cell("channel/19", "mix/4").click()
    me.until(lambda: "Ears accordion" in me.find('[aria-label="Why"]').text)


def why_blocked(me):
    me.open("hears").cell("channel/8", "house").click()
    me.until(lambda: "muted by its own key" in me.find('[aria-label="Why"]').text)


def lines(me):
    me.open("lines").field("Name, line 14").click()


def importing(me):
    me.open("lines").button("Import a list").click()
    me.button("harbour-choir.csv").click()
    me.until(lambda: "Take 6 lines" in me.body())


def patch(me):
    me.open("patch")
    me.type("Sockets", "A 20-22", enter=False)
    me.type("Channels", "19", enter=False)
    me.until(lambda: "loses its source" in me.body())


def mixes(me):
    me.open("mixes/3").field("Level of Fiddle in dB").click()
    me.until(lambda: "Ears fiddle" in me.find('[aria-label="Why"]').text)


def daylight(me):
    hears(me)
    me.driver.execute_script("document.documentElement.dataset.theme = 'daylight'")


VIEWS = {
    "who-hears-what": hears,
    "why-blocked": why_blocked,
    "lines": lines,
    "import": importing,
    "patch": patch,
    "mixes": mixes,
    "daylight": daylight,
}


def main(address):
    FOLDER.mkdir(parents=True, exist_ok=True)
    driver = chromium()
    driver.get(f"{address}/sign-in")
    time.sleep(0.3)
    driver.save_screenshot(str(FOLDER / "sign-in.png"))
    driver.quit()
    me = Person(address)
    for name, view in VIEWS.items():
        view(me)
        me.settled()
        time.sleep(0.4)  # a list that scrolls to what was chosen comes to rest
        me.driver.save_screenshot(str(FOLDER / f"{name}.png"))
        me.keys(Keys.ESCAPE)
    complaints = me.complaints()
    me.leave()
    assert complaints == [], complaints


if __name__ == "__main__":
    main(sys.argv[1])
