"""What one server process holds and does: memory of a show and a screen, processor and time of

edits on many shows at once, bytes of a change, time and size of a backup.

    python -m bench.capacity ADDRESS SERVER_PID DEMO_SHOW FESTIVAL_SHOW  ->  one line of JSON

The shows are copied, so that each has hands, screens and a log of its own.
"""

import asyncio
import json
import os
import re
import statistics
import subprocess
import sys
import time
import urllib.request
from contextlib import AsyncExitStack
from pathlib import Path

import psycopg

from .latency import signed_in
from .live import Load, memory_mb

COPIES = 8  # of the demo; a quarter as many of the larger
IDLE_SCREENS = 200
MOVES_A_SECOND, SECONDS = 10, 8
CHANGES = 200
TICKS_A_SECOND = os.sysconf("SC_CLK_TCK")


class House:
    """One server and its database, looked at from outside."""

    def __init__(self, address, pid):
        self.address, self.pid = address, pid
        self.cookie = signed_in(address, "engineer")
        self.link = psycopg.connect(
            host=os.environ["OMBREL_DB_HOST"], port=os.environ["OMBREL_DB_PORT"],
            user=os.environ["OMBREL_DB_USER"], password=os.environ["OMBREL_DB_PASSWORD"],
            dbname=os.environ["OMBREL_DB_NAME"], autocommit=True,
        )  # fmt: skip

    def copied(self, show, name):
        headers = {
            "Cookie": self.cookie, "X-CSRFToken": re.search(r"csrftoken=([^;]*)", self.cookie)[1],
            "Referer": self.address, "Content-Type": "application/json",
        }  # fmt: skip
        body = json.dumps({"name": name}).encode()
        asking = urllib.request.Request(
            f"{self.address}/api/shows/{show}/copy", body, headers, method="POST"
        )
        return json.load(urllib.request.urlopen(asking, timeout=120))["id"]

    def database_bytes(self):
        self.link.execute("vacuum full")  # what is there, without what was written over
        return self.link.execute("select pg_database_size(current_database())").fetchone()[0]

    def processor_s(self):
        """Seconds of a core that the server and the database have used so far."""
        root = self.link.execute("select pg_read_file('postmaster.pid')").fetchone()[0]
        database = sum(map(used_s, [int(root.split()[0]), *children(int(root.split()[0]))]))
        return used_s(self.pid), database


def used_s(pid):
    """With what its ended children used."""
    try:
        fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    except FileNotFoundError:
        return 0.0
    return sum(map(int, fields[11:15])) / TICKS_A_SECOND


def children(pid):
    found = subprocess.run(
        ["pgrep", "-P", str(pid)], stdout=subprocess.PIPE, text=True, check=False
    )
    return map(int, found.stdout.split())


async def held(house, shows, before):
    """MB that the server has grown by for each of some new shows with one open screen."""
    async with AsyncExitStack() as stack:
        for show in shows:
            screen = await Load(house.address, show, house.pid).screen(stack)
            await asyncio.wait_for(screen.ready.wait(), 120)
        await asyncio.sleep(1)
        return (memory_mb(house.pid) - before) / len(shows)


async def screens(house, show):
    """KB that the server grows by for each of many screens of one show."""
    async with AsyncExitStack() as stack:
        load = Load(house.address, show, house.pid)
        await load.screen(stack)
        await asyncio.sleep(1)
        before = memory_mb(house.pid)
        for _ in range(IDLE_SCREENS):
            await load.screen(stack)
        await asyncio.sleep(3)
        return (memory_mb(house.pid) - before) * 1024 / IDLE_SCREENS


async def moved(house, shows, watching):
    """One hand drags in each of some shows, with so many screens each."""
    async with AsyncExitStack() as stack:
        hands, all_screens = [], []
        for show in shows:
            load = Load(house.address, show, house.pid)
            mine = [await load.screen(stack) for _ in range(watching)]
            hands.append((await load.hand(stack, 0, -60.0), mine))
            all_screens += mine
        for screen in all_screens:
            await asyncio.wait_for(screen.ready.wait(), 120)
        await asyncio.sleep(1)
        before, began = house.processor_s(), time.perf_counter()

        async def one(number, hand, mine):
            await asyncio.sleep(number / len(hands) / MOVES_A_SECOND)
            await hand.drag(MOVES_A_SECOND * SECONDS, MOVES_A_SECOND, mine)
            await hand.end()

        await asyncio.gather(*(one(n, *pair) for n, pair in enumerate(hands)))
        took_s = time.perf_counter() - began
        server, database = (now - was for now, was in zip(house.processor_s(), before, strict=True))
        edits = len(hands) * MOVES_A_SECOND * SECONDS
        late = sorted(t for screen in all_screens for t in screen.sent.took_s)
        return {
            "shows": len(shows), "screens": watching, "edits_s": edits / took_s,
            "server_ms": server / edits * 1000, "database_ms": database / edits * 1000,
            "busy": server / took_s, "median_ms": statistics.median(late) * 1000,
            "p95_ms": late[int(len(late) * 0.95)] * 1000,
            "lost": sum(len(hand.asked) for hand, _ in hands),
        }  # fmt: skip


async def changes(house, show):
    """Bytes that the database keeps for each of many changes of one value, one gesture each."""
    before = house.database_bytes()
    async with AsyncExitStack() as stack:
        load = Load(house.address, show, house.pid)
        for turn in range(CHANGES):
            hand = await load.hand(stack, turn % 40, -50.0 + turn / 10)
            await hand.drag(3, 0, [])
            await hand.end()
            await hand.link.close()
    return (house.database_bytes() - before) / CHANGES


async def main(address, pid, demo, festival):
    house, demos = House(address, int(pid)), []
    found = {"empty_mb": memory_mb(house.pid)}
    for name, show, count in (("demo", demo, COPIES), ("festival", festival, COPIES // 4)):
        stored, memory = house.database_bytes(), memory_mb(house.pid)
        copies = [house.copied(show, f"{name} {n}") for n in range(count)]
        found[f"{name}_bytes"] = (house.database_bytes() - stored) / count
        found[f"{name}_mb"] = await held(house, copies, memory)
        demos = copies if show == demo else demos
    found["screen_kb"] = await screens(house, demos[0])
    found["idle"] = await moved_idle(house, demos)
    turns = [(1, 1), (1, 6), (4, 6), (8, 6)]
    await moved(house, demos, 1)  # warms up, and is not told
    found["moved"] = [await moved(house, demos[:count], seen) for count, seen in turns]
    found["change_bytes"] = await changes(house, demos[0])
    print(json.dumps(found))


async def moved_idle(house, shows):
    """Share of a core that open shows take while nobody moves anything."""
    async with AsyncExitStack() as stack:
        for show in shows:
            load = Load(house.address, show, house.pid)
            screen = await load.screen(stack)
            await asyncio.wait_for(screen.ready.wait(), 120)
        await asyncio.sleep(2)
        before = house.processor_s()[0]
        await asyncio.sleep(SECONDS)
        return (house.processor_s()[0] - before) / SECONDS / len(shows)


if __name__ == "__main__":
    asyncio.run(main(*sys.argv[1:]))
