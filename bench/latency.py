"""From one person's move to another person's screen: ten screens, each making ten moves a second.

    python -m bench.latency ADDRESS SHOW_ID  ->  one line of JSON

Each move has a value of its own, so that its arrival at every other screen is known for certain.
"""

import asyncio
import http.cookiejar
import json
import re
import statistics
import sys
import time
import urllib.parse
import urllib.request
import uuid

import websockets

SCREENS, MOVES_A_SECOND, SECONDS = 10, 10, 10


def signed_in(address: str) -> str:
    """The session cookie of the demo's engineer."""
    jar = http.cookiejar.CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
    page = opener.open(f"{address}/sign-in").read().decode()
    token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', page)[1]
    form = {"username": "engineer", "password": "demo", "csrfmiddlewaretoken": token}
    opener.open(f"{address}/sign-in", urllib.parse.urlencode(form).encode())
    return "; ".join(f"{cookie.name}={cookie.value}" for cookie in jar)


async def screen(number, url, headers, sent, arrivals, acknowledged):
    async with websockets.connect(url, additional_headers=headers, max_size=None) as link:
        await link.send(json.dumps({"type": "hello", "since": None}))
        await link.send(json.dumps({"type": "watch", "table": True, "why": None}))

        async def listen():
            async for text in link:
                now = time.perf_counter()
                message = json.loads(text)
                if message["type"] == "moved":
                    for address, value in message["values"].items():
                        key = (address, value)
                        if key in sent and sent[key][1] != number:
                            arrivals.append(now - sent[key][0])
                elif message["type"] == "done":
                    acknowledged.append(message["id"])

        listening = asyncio.create_task(listen())
        await asyncio.sleep(1.0 + number / SCREENS / MOVES_A_SECOND)
        address = f"channel/{number + 1}/fader"
        start = time.perf_counter()
        for move in range(MOVES_A_SECOND * SECONDS):
            value = round(-40.0 + move * 0.1, 1)
            sent[address, value] = (time.perf_counter(), number)
            ask = {"action": "moves", "moves": [{"address": address, "value": value}]}
            message = {"type": "do", "id": str(uuid.uuid4()), "gesture": f"{number}", "ask": ask}
            await link.send(json.dumps(message))
            await asyncio.sleep(max(0, start + (move + 1) / MOVES_A_SECOND - time.perf_counter()))
        await asyncio.sleep(1.0)
        listening.cancel()


async def to_second(url, headers):
    """Medians in ms to another's screen: of an edit, and of a recall of 1 000 changed values."""
    async with (
        websockets.connect(url, additional_headers=headers, max_size=None) as one,
        websockets.connect(url, additional_headers=headers, max_size=None) as other,
    ):
        for link in (one, other):
            await link.send(json.dumps({"type": "hello", "since": None}))

        async def until(link, wanted):
            while True:
                message = json.loads(await link.recv())
                if message["type"] == "refused":
                    raise AssertionError(message["message"])
                if wanted(message):
                    return

        async def took(ask, address):
            message = {"type": "do", "id": str(uuid.uuid4()), "gesture": str(uuid.uuid4())}
            begun = time.perf_counter()
            await one.send(json.dumps(message | {"ask": ask}))
            await until(other, lambda m: m["type"] == "moved" and address in m["values"])
            arrived = time.perf_counter() - begun
            await until(one, lambda m: m["type"] == "done" and m["id"] == message["id"])
            return arrived * 1000

        def thousand(pan):
            """A thousand values of the demo, each with one that goes with the pan."""
            sends = [f"channel/{n}/send/mix/{mix}" for n in range(1, 41) for mix in range(1, 12)]
            values = {f"{send}/pan": pan for send in sends}
            values |= {f"{send}/level": -20.0 + pan for send in sends}
            for leaf in ("pan", "eq/2/gain", "compressor/make_up"):
                values |= {f"channel/{n}/{leaf}": pan + 0.5 for n in range(1, 41)}
            moves = [{"address": address, "value": value} for address, value in values.items()]
            return {"action": "moves", "moves": moves}

        scenes = []
        for place, pan in enumerate((-0.5, 0.5)):
            await took(thousand(pan), "channel/1/send/mix/1/pan")
            number = f"90{place}"
            ask = {"action": "store_scene", "name": "Bench", "preset": "everything",
                   "number": number}  # fmt: skip
            message = {"type": "do", "id": str(uuid.uuid4()), "gesture": "store", "ask": ask}
            await one.send(json.dumps(message))
            made = {}

            def kept(m, made=made, number=number):
                if m["type"] == "moved":
                    made.update({v: a for a, v in m["values"].items() if a.endswith("/number")})
                return float(number) in made

            await until(one, kept)
            scenes.append(made[float(number)].removesuffix("/number"))
        edits = [
            await took(
                {"action": "moves", "moves": [{"address": "channel/2/fader", "value": -float(n)}]},
                "channel/2/fader",
            )
            for n in range(1, 21)
        ]
        recalls = [
            await took({"action": "recall_scene", "scene": scenes[n % 2]}, "run/now")
            for n in range(10)
        ]
        return statistics.median(edits), statistics.median(recalls)


async def main(address, show_id):
    sent, arrivals, acknowledged = {}, [], []
    url = f"{address.replace('http', 'ws')}/live/{show_id}"
    headers = {"Cookie": signed_in(address), "Origin": address}
    await asyncio.gather(
        *(screen(n, url, headers, sent, arrivals, acknowledged) for n in range(SCREENS))
    )
    arrivals.sort()
    edit_ms, recall_ms = await to_second(url, headers)
    print(
        json.dumps(
            {
                "moves": len(sent),
                "acknowledged": len(acknowledged),
                "arrivals": len(arrivals),
                "median_ms": statistics.median(arrivals) * 1000,
                "p95_ms": arrivals[int(len(arrivals) * 0.95)] * 1000,
                "worst_ms": arrivals[-1] * 1000,
                "edit_ms": edit_ms,
                "recall_ms": recall_ms,
            }
        )
    )


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:3]))
