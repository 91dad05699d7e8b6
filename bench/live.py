"""One show under the hands of a whole band: how long a move takes to the screens, as more come.

    python -m bench.live ADDRESS SHOW_ID SERVER_PID [FILE]  ->  one line of JSON

Each hand drags a level of its own, ten moves a second, by a socket of its own; five screens draw
the whole table. A move has arrived at a screen with the first frame that has its value or a newer
one of the same hand: what a newer move has overtaken need not be shown. FILE: a large show file,
which is opened while a hand drags.
"""

import asyncio
import json
import re
import statistics
import sys
import time
import urllib.request
import uuid
from collections import deque
from contextlib import AsyncExitStack
from pathlib import Path

import websockets

from .latency import signed_in

SCREENS, MOVES_A_SECOND, SECONDS = 5, 10, 8
HANDS = (1, 1, 10, 20, 40, 80)  # the first warms up, and is not told
FLOOD = 10_000
IDLE_SCREENS = 300
LAST_S = 120.0  # so long answers are waited for: what comes later counts as lost


def address_of(hand):
    """A level that no other hand has: faders first, then sends."""
    if hand < 40:
        return f"channel/{hand + 1}/fader"
    return f"channel/{hand - 39}/send/mix/{1 + hand % 3}/level"


def memory_mb(pid):
    for line in Path(f"/proc/{pid}/status").read_text().splitlines():
        if line.startswith("VmRSS"):
            return int(line.split()[1]) / 1024
    raise AssertionError("no such process")


class Sent:
    """Moves on their way, by address: (value, when sent), the oldest first."""

    def __init__(self):
        self.waiting, self.took_s = {}, []

    def sent(self, address, value):
        self.waiting.setdefault(address, deque()).append((value, time.perf_counter()))

    def arrived(self, address, value, now):
        waiting = self.waiting.get(address)
        while waiting and waiting[0][0] <= value:
            self.took_s.append(now - waiting.popleft()[1])


class Screen:
    """A page that draws the table: it notes when each move came, and what stands now."""

    def __init__(self, link):
        self.link, self.values, self.sent = link, {}, Sent()
        self.task = asyncio.create_task(self.listen())
        self.ready = asyncio.Event()

    async def listen(self):
        async for text in self.link:
            now = time.perf_counter()
            message = json.loads(text)
            if message["type"] in ("moved", "snapshot"):
                self.values.update(message["values"])
                for address, value in message["values"].items():
                    self.sent.arrived(address, value, now)
            elif message["type"] == "table":
                self.ready.set()


class Hand:
    """One hand on one level; `first` is where it starts, and it rises from there."""

    def __init__(self, link, address, first):
        self.link, self.address, self.first = link, address, first
        self.gesture, self.asked, self.took_s = str(uuid.uuid4()), {}, []
        self.last = None
        self.task = asyncio.create_task(self.listen())

    async def listen(self):
        async for text in self.link:
            if '"done"' in text:
                message = json.loads(text)
                began = self.asked.pop(message.get("id"), None)
                if began is not None:
                    self.took_s.append(time.perf_counter() - began)
            elif '"refused"' in text:
                raise AssertionError(text)

    async def drag(self, moves, rate, screens):
        start = time.perf_counter()
        for move in range(moves):
            value = self.last = round(self.first + move * 0.1, 1)
            edit_id = str(uuid.uuid4())
            self.asked[edit_id] = time.perf_counter()
            for screen in screens:
                screen.sent.sent(self.address, value)
            by_hand = {"stays": True}
            ask = {"action": "moves", "by_hand": by_hand,
                   "moves": [{"address": self.address, "value": value}]}  # fmt: skip
            message = {"type": "do", "id": edit_id, "gesture": self.gesture, "ask": ask}
            await self.link.send(json.dumps(message))
            if rate:
                await asyncio.sleep(max(0, start + (move + 1) / rate - time.perf_counter()))

    async def end(self):
        deadline = time.perf_counter() + LAST_S
        while self.asked and time.perf_counter() < deadline:
            await asyncio.sleep(0.05)
        await self.link.send(json.dumps({"type": "let_go", "gesture": self.gesture}))


def spread(times_s):
    ordered = sorted(times_s)
    return {
        "median_ms": statistics.median(ordered) * 1000,
        "p95_ms": ordered[int(len(ordered) * 0.95)] * 1000,
        "worst_ms": ordered[-1] * 1000,
    }


class Load:
    """The screens and hands of one run."""

    def __init__(self, address, show_id, pid):
        self.address, self.show_id = address, show_id
        self.url = f"{address.replace('http', 'ws')}/live/{show_id}"
        self.cookies = {who: signed_in(address, who) for who in ("engineer", "monitors")}
        self.pid = pid

    def connected(self, who="engineer"):
        headers = {"Cookie": self.cookies[who], "Origin": self.address}
        return websockets.connect(
            self.url, additional_headers=headers, max_size=None, open_timeout=60
        )

    async def screen(self, stack):
        link = await stack.enter_async_context(self.connected())
        await link.send(json.dumps({"type": "hello", "since": None}))
        await link.send(json.dumps({"type": "watch", "table": True, "why": None}))
        return Screen(link)

    async def hand(self, stack, number, first, who="engineer"):
        link = await stack.enter_async_context(self.connected(who))
        await link.send(json.dumps({"type": "hello", "since": None}))
        return Hand(link, address_of(number), first)

    async def hands(self, count, first=-60.0):
        """So many hands for some seconds."""
        async with AsyncExitStack() as stack:
            screens = [await self.screen(stack) for _ in range(SCREENS)]
            hands = [await self.hand(stack, number, first) for number in range(count)]
            for screen in screens:
                await asyncio.wait_for(screen.ready.wait(), LAST_S)
            await asyncio.sleep(1.0)

            async def one(number, hand):
                await asyncio.sleep(number / count / MOVES_A_SECOND)
                await hand.drag(MOVES_A_SECOND * SECONDS, MOVES_A_SECOND, screens)
                await hand.end()

            await asyncio.gather(*(one(number, hand) for number, hand in enumerate(hands)))
            await self.settled(screens, hands)
            return {
                "hands": count,
                "screens": spread([t for screen in screens for t in screen.sent.took_s]),
                "answers": spread([t for hand in hands for t in hand.took_s]),
                "lost": sum(len(hand.asked) for hand in hands),
                "equal": equal(screens, hands),
                "memory_mb": memory_mb(self.pid),
            }

    async def settled(self, screens, hands):
        deadline = time.perf_counter() + LAST_S
        while time.perf_counter() < deadline and not equal(screens, hands):
            await asyncio.sleep(0.1)

    async def flood(self):
        """One person sends moves as fast as a socket takes them; another drags beside it."""
        async with AsyncExitStack() as stack:
            screens = [await self.screen(stack) for _ in range(SCREENS)]
            flooding = await self.hand(stack, 0, -1000.0)
            flooding.first = -60.0
            other = await self.hand(stack, 1, -60.0, "monitors")
            await asyncio.sleep(1.0)

            async def flooded():
                for turn in range(FLOOD // 500):
                    flooding.first = -60.0 + 0.01 * turn
                    await flooding.drag(500, 0, [])

            flood = asyncio.create_task(flooded())
            await other.drag(MOVES_A_SECOND * SECONDS, MOVES_A_SECOND, screens)
            await flood
            await asyncio.gather(flooding.end(), other.end())
            return {
                "other": spread(other.took_s),
                "flood_s": max(flooding.took_s),
                "lost": len(flooding.asked) + len(other.asked),
            }

    async def idle(self):
        """One hand beside many screens that only stand there."""
        async with AsyncExitStack() as stack:
            started = time.perf_counter()
            links = await asyncio.gather(
                *(self.connected().__aenter__() for _ in range(IDLE_SCREENS))
            )
            drains = []
            for link in links:
                stack.push_async_callback(link.close)
                await link.send(json.dumps({"type": "hello", "since": None}))
                await link.send(json.dumps({"type": "watch", "table": False, "view": "lines"}))
                drains.append(asyncio.create_task(drained(link)))
            screens = [await self.screen(stack)]
            hand = await self.hand(stack, 0, -60.0)
            await asyncio.wait_for(screens[0].ready.wait(), LAST_S)
            here_s = time.perf_counter() - started
            await asyncio.sleep(1.0)
            await hand.drag(MOVES_A_SECOND * SECONDS, MOVES_A_SECOND, screens)
            await hand.end()
            await self.settled(screens, [hand])
            return {"screens": spread(screens[0].sent.took_s), "here_s": here_s,
                    "lost": len(hand.asked)}  # fmt: skip

    async def back(self, count=40):
        """Many screens that come back at once: how long until the first move is answered."""
        async with AsyncExitStack() as stack:
            started = time.perf_counter()
            hands = await asyncio.gather(*(self.hand(stack, n, -50.0) for n in range(count)))
            screens = [await self.screen(stack)]
            await asyncio.gather(*(hand.drag(1, 0, []) for hand in hands))
            await asyncio.gather(*(hand.end() for hand in hands))
            del screens
            return {"first_move_s": time.perf_counter() - started}

    async def opening(self, file):
        """One hand while a large show file is opened."""
        async with AsyncExitStack() as stack:
            screens = [await self.screen(stack)]
            hand = await self.hand(stack, 0, -60.0)
            await asyncio.wait_for(screens[0].ready.wait(), LAST_S)
            opened = asyncio.create_task(asyncio.to_thread(self._opened, file))
            await hand.drag(MOVES_A_SECOND * SECONDS, MOVES_A_SECOND, screens)
            await hand.end()
            return {"screens": spread(screens[0].sent.took_s), "opened_s": await opened,
                    "lost": len(hand.asked)}  # fmt: skip

    def _opened(self, file):
        cookie = self.cookies["engineer"]
        token = re.search(r"csrftoken=([^;]*)", cookie)[1]
        head = b'Content-Disposition: form-data; name="file"; filename="large.json"'
        content = Path(file).read_bytes()
        body = b"--part\r\n" + head + b"\r\n\r\n" + content + b"\r\n--part--\r\n"
        asking = urllib.request.Request(
            f"{self.address}/api/shows/file", body,
            {"Cookie": cookie, "X-CSRFToken": token, "Referer": self.address,
             "Content-Type": "multipart/form-data; boundary=part"},
        )  # fmt: skip
        began = time.perf_counter()
        urllib.request.urlopen(asking, timeout=600).read()
        return time.perf_counter() - began


async def drained(link):
    async for _ in link:
        pass


def equal(screens, hands):
    return all(s.values.get(h.address) == h.last for s in screens for h in hands)


async def main(address, show_id, pid, file=None):
    load = Load(address, show_id, int(pid))
    found = {"hands": [await load.hands(count) for count in HANDS][1:]}
    found |= {"flood": await load.flood(), "idle": await load.idle(), "back": await load.back()}
    if file:
        found["opening"] = await load.opening(file)
    print(json.dumps(found))


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:]))
