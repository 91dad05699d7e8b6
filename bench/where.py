"""Where the time of an edit goes, in the process that makes it: by the parts of the code.

    python -m bench.where SHOW_ID  ->  one line of JSON

Batches of one edit and of forty, as hands ask for them, through the door of a show of the store.
The shares are of the processor's time under cProfile, which makes many small calls dearer than they
are; the milliseconds are measured without it.
"""

import cProfile
import json
import pstats
import statistics
import sys
import time
import uuid

import django

django.setup()

from ombrel.server.asks.asking import AskedMove  # noqa: E402 (Django first)
from ombrel.server.asks.moves import ByHand, Moves  # noqa: E402
from ombrel.server.keeping.door import commit  # noqa: E402
from ombrel.server.keeping.request import Request  # noqa: E402

ROUNDS = 15
PARTS = {
    "gangs and hands": ("together/gangs", "together/carrying", "together/hands", "edit/jumps"),
    "layers": ("show/layers", "edit/lying", "show/show.py", "core/casting"),
    "rulers": ("together/rulers", "wires/rulers"),
    "promises and programme": ("answers/promises", "together/programme", "together/nets"),
    "scenes and next": ("core/scenes",),
    "flow": ("core/flow", "core/wires"),
    "values and rules of the desk": ("core/",),
    "news for screens": ("messages/news", "keeping/frames", "keeping/states", "keeping/live"),
    "the door": ("ombrel/server",),
    "database": ("django/", "psycopg", "threading", "socket"),
}


def asked(count, turn):
    """A batch: each hand has a fader of its own."""
    found = []
    for hand in range(count):
        move = AskedMove(address=f"channel/{hand + 1}/fader", value=-50.0 + turn * 0.1)
        ask = Moves(action="moves", moves=[move], by_hand=ByHand(stays=True))
        found.append(
            Request(edit_id=uuid.uuid4(), author_id=None, gesture=f"{hand}", plan=ask.plan)
        )
    return found


def part_of(file):
    return next((part for part, paths in PARTS.items() if any(p in file for p in paths)), "other")


def measured(show_id, count):
    """Milliseconds of the processor for each edit, and the share of each part."""
    took_ms = []
    for turn in range(ROUNDS):
        batch, began = asked(count, turn), time.process_time()
        commit(show_id, batch)
        took_ms.append((time.process_time() - began) * 1000 / count)
    batches = [asked(count, turn) for turn in range(ROUNDS)]
    profile = cProfile.Profile(time.process_time)
    profile.enable()
    for batch in batches:
        commit(show_id, batch)
    profile.disable()
    shares = dict.fromkeys([*PARTS, "other"], 0.0)
    stats = pstats.Stats(profile).stats  # type: ignore[attr-defined]
    for (file, _, _), (_, _, own_s, _, callers) in stats.items():
        if file.startswith(("~", "<")):  # what is built in counts where it is called
            for (caller, _, _), (_, _, in_it_s, _) in callers.items():
                shares[part_of(caller)] += in_it_s
        else:
            shares[part_of(file)] += own_s
    whole = sum(shares.values())
    return {"ms": statistics.median(took_ms),
            "shares": {part: share / whole for part, share in shares.items()}}  # fmt: skip


def main(show_id):
    show = uuid.UUID(show_id)
    commit(show, asked(40, 0))  # warm
    print(json.dumps({"one": measured(show, 1), "forty": measured(show, 40)}))


if __name__ == "__main__":
    main(sys.argv[1])
