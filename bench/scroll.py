"""How long a frame of scrolling takes in the patch grid of the largest desk, drawn by Chromium.

    python -m bench.scroll ADDRESS SHOW_ID  ->  one line of JSON

Frames come at most 60 times a second, so 16.7 ms is as good as it gets.
"""

import json
import sys

from tests.screens.browser import Person

FRAMES = """const done = arguments[0], box = document.querySelector('[role=grid]');
const frames = [];
let last = performance.now();
const step = () => requestAnimationFrame((now) => {
  frames.push(now - last);
  last = now;
  box.scrollTop += 37;
  box.scrollLeft += 11;
  if (frames.length < 181) step();
  else done(frames.slice(1).sort((a, b) => a - b));
});
box.scrollTo(0, 0);
step();"""


def main(address, show_id):
    me = Person(address)
    me.open("patch", show_id)
    # every channel fed, so that there is something to draw
    me.type("Sockets", "Deck 1-16, Harbour 1-48, Quay 1-48, Pier 1-16", enter=False)
    me.type("Channels", "1")
    me.until(lambda: me.field("Source of channel 1").get_attribute("value") == "Deck 1")
    me.field("As a grid").click()
    me.field("Sockets against channels")
    me.driver.set_script_timeout(30)
    frames = me.driver.execute_async_script(FRAMES)
    me.leave()
    print(json.dumps({"median_ms": frames[90], "p95_ms": frames[171]}))


if __name__ == "__main__":
    main(*sys.argv[1:3])
