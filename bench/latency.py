"""From one person's edit to another person's screen: of one value, of a recall of a thousand, and

of a cue that comes as a datagram.

python -m bench.latency ADDRESS SHOW_ID  ->  one line of JSON
"""

import asyncio
import http.cookiejar
import json
import re
import socket
import statistics
import sys
import time
import urllib.parse
import urllib.request
import uuid

import websockets

from ombrel.formats.osc import write_message


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
    """Medians in ms to another's screen: of an edit, of a recall of 1 000 changed values, of a key,

    and of a cue that does what that key does.
    """
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
        keys = [
            await took(
                {"action": "moves", "moves": [{"address": "dca/1/mute", "value": n % 2 == 0}]},
                "dca/1/mute",
            )
            for n in range(20)
        ]
        found = (edits, recalls, keys, await cued(one, other, until))
        return [statistics.median(one) for one in found]


async def cued(one, other, until):
    """In ms: a cue that does what such a key does, slower than what is taken for a flood."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as machine:
        machine.bind(("127.0.0.1", 0))
        port = machine.getsockname()[1]
    way = {"type": "set_cue_way", "id": str(uuid.uuid4()), "kind": "osc_udp", "on": True}
    await one.send(json.dumps(way | {"host": "127.0.0.1", "port": str(port)}))
    await one.send(json.dumps({"type": "arm_cues", "mode": "armed"}))
    await until(one, lambda m: m["type"] == "cues" and m["mode"] == "armed")
    await asyncio.sleep(2.0)  # the port is open by then
    cues = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as machine:
        for n in range(20):
            begun = time.perf_counter()
            machine.sendto(write_message("/ombrel/dca", 1, 1 - n % 2), ("127.0.0.1", port))
            await until(other, lambda m: m["type"] == "moved" and "dca/1/mute" in m["values"])
            cues.append((time.perf_counter() - begun) * 1000)
            await asyncio.sleep(0.3)
    return cues


async def main(address, show_id):
    url = f"{address.replace('http', 'ws')}/live/{show_id}"
    headers = {"Cookie": signed_in(address), "Origin": address}
    edit_ms, recall_ms, key_ms, cue_ms = await to_second(url, headers)
    told = {"edit_ms": edit_ms, "recall_ms": recall_ms, "key_ms": key_ms, "cue_ms": cue_ms}
    print(json.dumps(told))


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:3]))
