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


async def main(address, show_id):
    sent, arrivals, acknowledged = {}, [], []
    url = f"{address.replace('http', 'ws')}/live/{show_id}"
    headers = {"Cookie": signed_in(address), "Origin": address}
    await asyncio.gather(
        *(screen(n, url, headers, sent, arrivals, acknowledged) for n in range(SCREENS))
    )
    arrivals.sort()
    print(
        json.dumps(
            {
                "moves": len(sent),
                "acknowledged": len(acknowledged),
                "arrivals": len(arrivals),
                "median_ms": statistics.median(arrivals) * 1000,
                "p95_ms": arrivals[int(len(arrivals) * 0.95)] * 1000,
                "worst_ms": arrivals[-1] * 1000,
            }
        )
    )


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:3]))
