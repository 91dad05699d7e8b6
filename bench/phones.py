"""Forty performers on their phones, with five engineers' screens beside them.

    python -m bench.phones ADDRESS SHOW_ID SERVER_PID [SECONDS]  ->  one line of JSON

Each phone opened a link of its own mix and drags one strip, ten moves a second. A move has arrived
at a screen with the first frame that has its level or a louder one: what a newer place of the same
finger has overtaken need not be shown. First one phone alone, then all: what is told is the ratio.
"""

import asyncio
import json
import re
import sys
import time
import urllib.request
import uuid
from contextlib import AsyncExitStack

import websockets

from .live import LAST_S, SCREENS, Load, memory_mb, spread

PHONES, MOVES_A_SECOND, SECONDS = 40, 10, 60
_DOWN_DB = 30.0  # from so far below the start each finger rises
_NEAR = 1e-4
_EARS = {f"mix/{n}" for n in range(1, 7)}  # of the demo, those that have a start


def asked(address, path, body, cookie=""):
    """A POST of JSON; gives what came back and its cookies."""
    token = re.search(r"csrftoken=([^;]*)", cookie)
    headers = {"Content-Type": "application/json", "Cookie": cookie, "Referer": address,
               "X-CSRFToken": token[1] if token else ""}  # fmt: skip
    asking = urllib.request.Request(f"{address}{path}", json.dumps(body).encode(), headers)
    with urllib.request.urlopen(asking, timeout=60) as answer:
        cookies = answer.headers.get_all("Set-Cookie") or []
        return json.loads(answer.read()), "; ".join(one.split(";")[0] for one in cookies)


class Phone:
    """One phone on one strip of its mix."""

    def __init__(self, link, told, strip, screen):
        (mix,) = told["mixes"]
        strips = {one["strip"]: one for family in mix["families"] for one in family["strips"]}
        self.link, self.mix, self.strip = link, mix["mix"], strip or next(iter(strips))
        self.address = f"{self.strip}/send/{self.mix}/level"
        self.start_db = screen.values[f"{self.strip}/send/{self.mix}/start"]
        self.revision, self.waiting, self.took_s, self.refused = told["revision"], {}, [], 0
        self.last = None
        self.task = asyncio.create_task(self.listen())

    async def listen(self):
        async for text in self.link:
            message = json.loads(text)
            if message["type"] == "mixes":
                self.revision = message["revision"]
            elif message["type"] in ("done", "refused"):
                began = self.waiting.pop(message["id"], None)
                self.refused += message["type"] == "refused"
                if began is not None:
                    self.took_s.append(time.perf_counter() - began)

    async def drag(self, moves, screens):
        gesture, start = str(uuid.uuid4()), time.perf_counter()
        for move in range(moves):
            place = round(-_DOWN_DB * (1 - move / moves), 2)
            self.last = self.start_db + place
            edit_id = str(uuid.uuid4())
            self.waiting[edit_id] = time.perf_counter()
            for screen in screens:
                screen.sent.sent(self.address, self.last - _NEAR)
            ask = {"action": "to_place", "mix": self.mix, "of": self.strip, "place": place}
            message = {"type": "do", "id": edit_id, "gesture": gesture, "ask": ask,
                       "seen": self.revision}  # fmt: skip
            await self.link.send(json.dumps(message))
            await asyncio.sleep(max(0, start + (move + 1) / MOVES_A_SECOND - time.perf_counter()))
        deadline = time.perf_counter() + LAST_S
        while self.waiting and time.perf_counter() < deadline:
            await asyncio.sleep(0.05)


class Phones(Load):
    """Links by the API, phones by their cookies, screens as in `live`."""

    def links(self):
        """Links of all mixes for ears and wedges, as (mix, token)."""
        path = f"/api/shows/{self.show_id}/links"
        asked(self.address, f"{path}/all", {}, self.cookies["engineer"])
        asking = urllib.request.Request(
            f"{self.address}{path}", headers={"Cookie": self.cookies["engineer"]}
        )
        known = json.loads(urllib.request.urlopen(asking, timeout=60).read())
        ids = [one["id"] for one in known if one["mixes"][0] in _EARS and not one["ended"]]
        new, _ = asked(self.address, f"{path}/renew", {"links": ids}, self.cookies["engineer"])
        return [one["token"] for one in new]

    async def phone(self, stack, screen, token, turn):
        """A phone on the strip of its mix that has this turn; a screen knows where it starts."""
        entered, cookie = await asyncio.to_thread(
            asked, self.address, "/mine/enter", {"token": token}
        )
        url = f"{self.address.replace('http', 'ws')}/mine/{entered['link']}/live"
        link = await stack.enter_async_context(
            websockets.connect(url, additional_headers={"Cookie": cookie, "Origin": self.address})
        )
        await link.send(json.dumps({"type": "hello"}))
        while (told := json.loads(await link.recv()))["type"] != "mixes":
            pass
        families = told["mixes"][0]["families"]
        strips = [
            one["strip"] for family in families for one in family["strips"]
            if one["started"]
        ]  # fmt: skip
        return Phone(link, told, strips[turn], screen)

    async def many(self, count, seconds, tokens):
        async with AsyncExitStack() as stack:
            screens = [await self.screen(stack) for _ in range(SCREENS)]
            places = [(tokens[n % len(tokens)], n // len(tokens)) for n in range(count)]
            for screen in screens:
                await asyncio.wait_for(screen.ready.wait(), LAST_S)
            phones = [await self.phone(stack, screens[0], *place) for place in places]
            await asyncio.sleep(1.0)
            before = memory_mb(self.pid)

            async def one(number, phone):
                await asyncio.sleep(number / count / MOVES_A_SECOND)
                await phone.drag(MOVES_A_SECOND * seconds, screens)

            await asyncio.gather(*(one(number, phone) for number, phone in enumerate(phones)))

            def equal():
                return all(abs((screen.values.get(phone.address) or 0.0) - phone.last) < _NEAR
                           for screen in screens for phone in phones)  # fmt: skip

            deadline = time.perf_counter() + 10.0
            while not equal() and time.perf_counter() < deadline:
                await asyncio.sleep(0.1)
            return {
                "phones": count,
                "screens": spread([t for screen in screens for t in screen.sent.took_s]),
                "answers": spread([t for phone in phones for t in phone.took_s]),
                "moves": count * MOVES_A_SECOND * seconds,
                "lost": sum(len(phone.waiting) for phone in phones),
                "refused": sum(phone.refused for phone in phones),
                "equal": equal(),
                "memory_mb": [before, memory_mb(self.pid)],
            }


async def main(address, show_id, pid, seconds=SECONDS):
    load = Phones(address, show_id, int(pid))
    tokens = load.links()
    await load.many(1, 3, tokens)  # warms up
    alone = await load.many(1, 8, tokens)
    every = await load.many(PHONES, int(seconds), tokens)
    times = every["screens"]["median_ms"] / alone["screens"]["median_ms"]
    print(json.dumps({"alone": alone, "every": every, "times": times}))


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:]))
