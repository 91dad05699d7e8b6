"""What a hand waits for in who hears what: the demo and a full Festival 128, in one run.

    python -m bench.screens ADDRESS DEMO_ID FULL_ID  ->  one line of JSON

For each show: until the first cell stands, and from a key, a typed level and a step of scrolling to
the painted page, in Banks from a key on a fader too; once quiet, and once while another hand makes
twenty moves a second, which is also when the frames are counted. Medians, in ms. The shows take
turns: both meet the same machine.
"""

import asyncio
import itertools
import json
import statistics
import sys
import threading
import uuid

import websockets
from selenium.webdriver import ActionChains
from tests.screens.browser import Person

from .latency import signed_in

TURNS, FIRSTS, MOVES_A_SECOND = 15, 5, 20
FED = 24  # lines that the stage feeds

# `painted` resolves when the frame that shows a change has been drawn.
SCRIPT = """
const done = arguments[arguments.length - 1], what = arguments[0], typed = arguments[1];
const grid = document.querySelector('[role=grid]');
const painted = () => new Promise((go) => requestAnimationFrame(() => {
  const channel = new MessageChannel();
  channel.port1.onmessage = go;
  channel.port2.postMessage(0);
}));
const until = async (true_) => { while (!true_()) await painted(); };
const press = (at, key) =>
  at.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true, cancelable: true}));
const here = () => document.getElementById(grid.getAttribute('aria-activedescendant'));
(async () => {
  await painted();
  const start = performance.now();
  if (what === 'key') {
    const before = grid.getAttribute('aria-activedescendant');
    press(grid, typed);
    await until(() => grid.getAttribute('aria-activedescendant') !== before && here());
  } else if (what === 'fader') {
    const fader = document.querySelector(`[data-address="${typed.split(' ')[0]}"]`);
    const before = fader.getAttribute('aria-valuetext');
    press(fader, typed.split(' ')[1]);
    await until(() => fader.getAttribute('aria-valuetext') !== before);
  } else if (what === 'typed') {
    press(grid, '-');
    await until(() => grid.querySelector('input'));
    const input = grid.querySelector('input');
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, typed);
    input.dispatchEvent(new Event('input', {bubbles: true}));
    await painted();
    press(grid.querySelector('input'), 'Enter');
    await until(() => here() && here().textContent.trim() === typed.replace('-', '\\u2212'));
  } else if (what === 'scroll') {
    grid.scrollTop = Number(typed);
  } else if (what === 'frames') {
    const frames = [];
    let last = start;
    while (frames.length < 150) {
      await new Promise(requestAnimationFrame);
      frames.push(performance.now() - last);
      last = performance.now();
    }
    frames.sort((a, b) => a - b);
    done([frames[75], frames[142]]);
    return;
  }
  await painted();
  done(performance.now() - start);
})();
"""

# When a hand moved, when an answer of the core came, when the curve stood anew; and every frame.
WATCHED = """
window.moves = [];
window.draws = [];
window.answers = [];
window.frames = [];
const keep = heard.push.bind(heard);
heard.push = (message) => {
  if (message.type === 'curves') window.answers.push(performance.now());
  return keep(message);
};
const frame = (now) => { window.frames.push(now); requestAnimationFrame(frame); };
requestAnimationFrame(frame);
addEventListener('pointermove', () => window.moves.push(performance.now()), true);
new MutationObserver(() => window.draws.push(performance.now())).observe(
  document.querySelector('[data-curve]'), {attributes: true, attributeFilter: ['d']});
"""
DRAGS = 60  # moves of a point of the EQ

FIRST = """
const seen = () => {
  if (document.querySelector('[data-cell]')) window.firstCell ??= performance.now();
  else requestAnimationFrame(seen);
};
seen();
"""


class Hand:
    """One browser on one show."""

    def __init__(self, address, show):
        self.me = Person(address)
        self.show = show
        self.me.driver.set_script_timeout(20)
        self.me.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": FIRST})
        self.turn = itertools.count()

    def first(self):
        self.me.driver.get("about:blank")
        self.me.driver.get(f"{self.me.address}/hears?show={self.show}")
        return self.me.until(
            lambda: self.me.driver.execute_script("return window.firstCell"), within_s=60
        )

    def at_a_heard_cell(self):
        self.me.find('[data-cell^="channel/"][data-cell$=" mix/1"][data-state=heard]').click()

    def at_a_bank(self, number):
        """A bank on which the other hand's channels lie: 12 faders of the demo, 24 of Festival."""
        self.me.resize(1920, 1000)
        self.me.open(f"banks?bank={number}&show={self.show}")
        self.me.find('[data-address="channel/20/fader"]')

    def drags_eq(self):
        """Medians in ms of a drag: from a move to a curve that the core drew, from an answer of

        the core to its curve, and a display frame meanwhile.
        """
        self.me.resize(1280, 900)
        self.me.open(f"strip/channel/20?show={self.show}").find('[data-stage="eq"]').click()
        point = self.me.find('[data-point="2"]')
        self.me.driver.execute_script(WATCHED)
        chain = ActionChains(self.me.driver, duration=16).click_and_hold(point)
        for turn in range(DRAGS):
            chain.move_by_offset(1, 1 if turn % 2 else -2)
        chain.release().perform()
        moves, draws, answers, frames = self.me.driver.execute_script(
            "return [window.moves, window.draws, window.answers, window.frames]"
        )
        while_dragging = [f for f in frames if moves[0] <= f <= moves[-1]]
        return {
            "whole": statistics.median(until_next(moves, draws)),
            "redraw": statistics.median(until_next(answers, draws)),
            "frame": statistics.median(
                later - f for f, later in itertools.pairwise(while_dragging)
            ),
        }

    def on_a_fader(self, number):
        """From a key on a fader of a bank to the painted page, by turns up and down; a median."""
        self.at_a_bank(number)
        keys = itertools.cycle(("ArrowUp", "ArrowDown"))
        address = "channel/21/fader"
        self.me.find(f'[data-address="{address}"]')
        turns = [self.measure("fader", f"{address} {next(keys)}") for _ in range(TURNS)]
        return statistics.median(turns)

    def measure(self, what, typed=""):
        return self.me.driver.execute_async_script(SCRIPT, what, typed)

    def round(self):
        turn = next(self.turn)
        found = {"key": self.measure("key", "ArrowRight" if turn % 2 == 0 else "ArrowLeft")}
        found["scroll"] = self.measure("scroll", "189")
        self.measure("scroll", "0")
        self.at_a_heard_cell()
        found["typed"] = self.measure("typed", f"-{20 + turn % 7}.5")
        return found


def until_next(starts, ends):
    """From each start to the next end, where there is one."""
    return [min(end - start for end in ends if end >= start) for start in starts
            if ends[-1] >= start]  # fmt: skip


def medians(rounds):
    return {what: statistics.median(one[what] for one in rounds) for what in rounds[0]}


class Mover:
    """Another hand: faders of the last channels, twenty moves a second, in a thread."""

    def __init__(self, address, shows):
        self.address, self.shows = address, shows
        self.going = True
        self.thread = threading.Thread(target=lambda: asyncio.run(self.move()))

    async def one(self, url, headers):
        async with websockets.connect(url, additional_headers=headers, max_size=None) as link:
            await link.send(json.dumps({"type": "hello", "since": None}))
            drain = asyncio.create_task(self.drained(link))
            for line in range(1, FED + 1):  # so that the meters of a bank move too
                await link.send(json.dumps({"type": "feed", "line": line, "signal": "noise"}))
            for turn in itertools.count():
                if not self.going:
                    break
                move = {"address": f"channel/{20 + turn % 8}/fader", "value": -(turn % 300) / 10}
                ask = {"action": "moves", "moves": [move]}
                message = {"type": "do", "id": str(uuid.uuid4()), "gesture": "bench", "ask": ask}
                await link.send(json.dumps(message))
                await asyncio.sleep(1 / MOVES_A_SECOND)
            drain.cancel()

    async def drained(self, link):
        async for _ in link:
            pass

    async def move(self):
        headers = {"Cookie": signed_in(self.address), "Origin": self.address}
        base = self.address.replace("http", "ws")
        await asyncio.gather(*(self.one(f"{base}/live/{show}", headers) for show in self.shows))

    def __enter__(self):
        self.thread.start()

    def __exit__(self, *_):
        self.going = False
        self.thread.join()


def main(address, demo, full):
    hands = {"demo": Hand(address, demo), "full": Hand(address, full)}
    firsts = {name: [] for name in hands}
    for _ in range(FIRSTS):
        for name, hand in hands.items():
            firsts[name].append(hand.first())
    found = {name: {"first": statistics.median(times)} for name, times in firsts.items()}
    for hand in hands.values():
        hand.at_a_heard_cell()
    quiet = {name: [] for name in hands}
    for _ in range(TURNS):
        for name, hand in hands.items():
            quiet[name].append(hand.round())
    busy = {name: [] for name in hands}
    for name, hand in hands.items():  # one show moves at a time: the other's page is no neighbour
        with Mover(address, [hand.show]):
            for _ in range(TURNS):
                busy[name].append(hand.round())
            found[name]["frames_busy"] = hand.measure("frames")
            hand.at_a_bank(2 if name == "demo" else 1)
            found[name]["bank_busy"] = hand.measure("frames")
    for name, hand in hands.items():
        found[name]["quiet"], found[name]["busy"] = medians(quiet[name]), medians(busy[name])
        found[name]["fader"] = hand.on_a_fader(2 if name == "demo" else 1)
        found[name]["eq"] = hand.drags_eq()
        hand.me.leave()
    print(json.dumps(found))


if __name__ == "__main__":
    main(*sys.argv[1:4])
