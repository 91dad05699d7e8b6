"""Writes docs/capacity.md from what `bench.capacity` measured, and a backup made beside it.

python -m bench.capacity_plan FOUND.json BACKUP.txt > FILE
"""

import json
import re
import sys
from math import ceil
from pathlib import Path

from .machine import machine

# What an evening is taken for. People who know their own put their figures in the place of these.
PEOPLE = 4  # with hands on one show
REST_S = 20.0  # between two gestures of one of them
GESTURE_MOVES = 10  # a drag of a second
SCREENS = 6  # open on one show
HOURS = 5.0
EVENINGS = 100  # a year, of each show that is live
AT_ONCE = {1: 1, 10: 4, 100: 25, 1000: 150}  # of so many shows, so many are live at the same time
BUSY = 0.5  # of a core that a process is planned for: the rest is for everybody moving at once
ROOM_MB = 1_500  # of memory that a process is planned for
TEMPLATE = Path(__file__).with_name("capacity.template")
LOAD = (
    "shows", "screens each", "moves a second", "busy of a core", "server, a move",
    "PostgreSQL, a move", "to the screens", "of twenty the slowest",
)  # fmt: skip
PLAN = (
    "shows", "live at once", "server processes", "memory of each", "cores of PostgreSQL",
    "`OMBREL_DB_POOL`", "database after a year", "a night's backup",
)  # fmt: skip
CONNECTIONS = 90  # of PostgreSQL's hundred, as it comes


def per_move(found):
    """Milliseconds of a core of the server for a move, and for each screen that sees it."""
    one, six = found["moved"][:2]
    screen = max(0.0, (six["server_ms"] - one["server_ms"]) / (six["screens"] - one["screens"]))
    return max(0.0, one["server_ms"] - screen), screen


def live_show(found):
    """Share of a core and MB that one live show takes of its server; and of the database."""
    move_ms, screen_ms = per_move(found)
    moves_s = PEOPLE * GESTURE_MOVES / REST_S
    server = found["idle"] + moves_s * (move_ms + SCREENS * screen_ms) / 1000
    database = moves_s * max(turn["database_ms"] for turn in found["moved"]) / 1000
    memory = max(found["demo_mb"], found["festival_mb"]) + SCREENS * found["screen_kb"] / 1024
    return server, database, memory


def evening_mb(found):
    changes = PEOPLE * HOURS * 3600 / REST_S
    return changes * found["change_bytes"] / 1e6


def plan(found, backup):
    server, database, memory = live_show(found)
    for shows, live in AT_ONCE.items():
        by_core, by_memory = live * server / BUSY, live * memory / ROOM_MB
        processes = max(1, ceil(by_core), ceil(by_memory))
        stored_gb = shows * found["festival_bytes"] / 1e9
        year_gb = shows * EVENINGS * evening_mb(found) / 1e3
        mb = found["empty_mb"] + ceil(live / processes) * memory
        whole_gb = stored_gb + year_gb
        yield [
            f"{shows:,}", f"{live:,}", f"{processes}", f"{mb:,.0f} MB", f"{live * database:.2f}",
            f"{min(24, CONNECTIONS // processes)}", f"{whole_gb:,.1f} GB",
            f"{whole_gb * 1e9 / backup['bytes'] * backup['s'] / 60:,.0f} min",
        ]  # fmt: skip


def backup_of(text):
    told = re.search(r"; (\d+) bytes, ([\d.]+) s", text)
    return {"packed": int(told[1]), "s": float(told[2])}


def table(heads, rows):
    aligned = ["---", *["---:" for _ in heads[1:]]]
    lines = [heads, aligned, *rows]
    return "\n".join("| " + " | ".join(line) + " |" for line in lines)


def paper(found, backup):
    move_ms, screen_ms = per_move(found)
    server, database, memory = live_show(found)
    measured = [
        ["a server with nothing open", f"{found['empty_mb']:.0f} MB"],
        ["each show that is open: the demo (Touring 48)", f"{found['demo_mb']:.1f} MB"],
        ["the same: a full Festival 128 of 200 scenes", f"{found['festival_mb']:.1f} MB"],
        ["each open screen", f"{found['screen_kb']:.0f} KB"],
        ["an open show that nobody moves, of a core", f"{found['idle'] * 100:.2f} %"],
        ["a move at the door, of the server's core", f"{move_ms:.1f} ms"],
        ["the same on each screen that draws the table",
         f"{screen_ms:.2f} ms" if screen_ms > 0.05 else "too little to tell"],
        ["a gesture of three moves in the database, kept for ever",
         f"{found['change_bytes'] / 1000:.1f} KB"],
        ["a new show in the database: the demo", f"{found['demo_bytes'] / 1e6:.2f} MB"],
        ["the same: the full Festival 128", f"{found['festival_bytes'] / 1e6:.2f} MB"],
        [f"a backup of {backup['bytes'] / 1e6:.0f} MB, read back and compared",
         f"{backup['s']:.1f} s, {backup['packed'] / 1e6:.1f} MB as a file"],
    ]  # fmt: skip
    load = [
        [f"{one['shows']}", f"{one['screens']}", f"{one['edits_s']:.0f}",
         f"{one['busy'] * 100:.0f} %", f"{one['server_ms']:.1f} ms", f"{one['database_ms']:.1f} ms",
         f"{one['median_ms']:.0f} ms", f"{one['p95_ms']:.0f} ms"]
        for one in found["moved"]
    ]  # fmt: skip
    return TEMPLATE.read_text("utf-8").format(
        machine=machine(),
        measured=table(("what", "takes"), measured),
        load=table(LOAD, load),
        plan=table(PLAN, plan(found, backup)),
        people=PEOPLE,
        rest_s=REST_S,
        screens=SCREENS,
        hours=HOURS,
        evenings=EVENINGS,
        changes=PEOPLE * HOURS * 3600 / REST_S,
        evening_mb=evening_mb(found),
        server=server * 100,
        database=database * 100,
        memory=memory,
        busy=BUSY * 100,
        room_mb=ROOM_MB,
    )


def main(found_at, backup_at):
    found = json.loads(Path(found_at).read_text("utf-8"))
    told = Path(backup_at).read_text("utf-8")
    backup = {**backup_of(told), "bytes": int(told.rsplit("\n", 2)[-2])}
    sys.stdout.write(paper(found, backup))


if __name__ == "__main__":
    main(*sys.argv[1:3])
