"""Ten whole scenes of a Festival 128 beside five hundred, in one run.

    python -m bench.scenes file COUNT > FILE
    python -m bench.scenes measure ADDRESS FEW_ID MANY_ID  ->  one line of JSON

Of each show, in ms, medians: from opening the view to a scene with its preview, from choosing
another scene to its preview, and from the last letter of a search to the list. They take turns.
"""

import json
import statistics
import sys

from tests.many_scenes import many_scenes
from tests.screens.browser import Person

from ombrel.formats.show_file import write_show

OPENS, TURNS = 3, 9

# Told by the page itself: when the preview of the first scene stood.
FIRST = """
const seen = () => {
  if (document.querySelector('[data-looked-at]')) window.looked ??= performance.now();
  else requestAnimationFrame(seen);
};
seen();
"""
SCRIPT = """
const done = arguments[arguments.length - 1], what = arguments[0], wanted = arguments[1];
const painted = () => new Promise(requestAnimationFrame);
const until = async (true_) => { while (!true_()) await painted(); };
const size = () => document.querySelector('[aria-label="Scenes"] [role=listitem]')?.ariaSetSize;
(async () => {
  await painted();
  const start = performance.now();
  if (what === 'choose') {
    document.querySelector(`[data-scene="${wanted}"]`).click();
    await until(() => document.querySelector(`[data-looked-at="${wanted}"]`));
  } else {
    const input = document.querySelector('[aria-label="Find a scene"]'), before = size();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, wanted);
    input.dispatchEvent(new Event('input', {bubbles: true}));
    await until(() => size() !== before);
  }
  await painted();
  done(performance.now() - start);
})();
"""


class Hand:
    """One browser on one show's scenes."""

    def __init__(self, address, show):
        self.me, self.show = Person(address), show
        self.me.driver.set_script_timeout(60)
        self.me.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": FIRST})
        self.times = {"open": [], "choose": [], "search": []}

    def opens(self):
        self.me.driver.get("about:blank")
        self.me.driver.get(f"{self.me.address}/scenes/1?show={self.show}")
        looked = self.me.until(
            lambda: self.me.driver.execute_script("return window.looked"), within_s=120
        )
        self.times["open"].append(looked)

    def turn(self, number):
        script = self.me.driver.execute_async_script
        self.times["choose"].append(script(SCRIPT, "choose", f"scene/{2 + number % 7}"))
        self.times["search"].append(script(SCRIPT, "search", "10"))
        script(SCRIPT, "search", "")

    def medians(self):
        self.me.leave()
        return {what: statistics.median(times) for what, times in self.times.items()}


def measure(address, few, many):
    hands = {"few": Hand(address, few), "many": Hand(address, many)}
    for _ in range(OPENS):
        for hand in hands.values():
            hand.opens()
    for number in range(TURNS):
        for hand in hands.values():
            hand.turn(number)
    print(json.dumps({name: hand.medians() for name, hand in hands.items()}))


if __name__ == "__main__":
    if sys.argv[1] == "file":
        sys.stdout.buffer.write(write_show(many_scenes(int(sys.argv[2]))))
    else:
        measure(*sys.argv[2:5])
