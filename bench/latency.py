"""From one person's edit to another person's screen: of one value, and of a recall of a thousand.

python -m bench.latency ADDRESS SHOW_ID  ->  one line of JSON
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


def signed_in(address: str, who: str = "engineer") -> str:
    """The session cookie of one of the demo's people."""
    jar = http.cookiejar.CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
    page = opener.open(f"{address}/sign-in").read().decode()
    token = re.search(r'name="csrfmiddlewaretoken" value="([^"]+)"', page)[1]
    form = {"username": who, "password": "demo", "csrfmiddlewaretoken": token}
    opener.open(f"{address}/sign-in", urllib.parse.urlencode(form).encode())
    return "; ".join(f"{cookie.name}={cookie.value}" for cookie in jar)


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
    url = f"{address.replace('http', 'ws')}/live/{show_id}"
    headers = {"Cookie": signed_in(address), "Origin": address}
    edit_ms, recall_ms = await to_second(url, headers)
    print(json.dumps({"edit_ms": edit_ms, "recall_ms": recall_ms}))


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:3]))
