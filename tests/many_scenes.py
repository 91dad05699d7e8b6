"""A run of whole scenes on the largest desk, as large as scenes get."""

import json
import random

from ombrel.core import Value, blank_show, cells_by_preset, made, store_scene
from tests.desks import FESTIVAL

__all__ = ["many_scenes"]


def many_scenes(count):
    """A Festival of whole scenes, each other than the one before in 60 values of 45 strips."""
    channels, mixes = range(1, FESTIVAL.channels + 1), range(1, FESTIVAL.mixes + 1)
    values: dict[str, Value] = {f"channel/{n}/name": f"Source {n}" for n in channels}
    values |= {f"channel/{n}/source": "input/local/1" for n in channels}
    values |= {f"mix/{m}/format": "stereo" for m in mixes}
    for n in channels:
        values |= {f"channel/{n}/send/mix/{m}/level": -float(n % 20) - m / 10 for m in mixes}
    show = made(blank_show(FESTIVAL), values)[0]
    stored = made(show, store_scene(show, "Scene", cells_by_preset(show, "everything")))[0]
    held = {a.split("/", 2)[2]: str(text) for a, text in stored.own.items() if "/holds/" in a}
    draw = random.Random(3)
    for number in range(1, count + 1):
        for n in draw.sample(channels, 45):
            parts = json.loads(held[f"holds/channel/{n}"])
            parts["values"] |= {"fader": -draw.randint(1, 300) / 10}
            if draw.random() < 1 / 3:
                parts["values"] |= {
                    f"send/mix/{draw.choice(mixes)}/level": draw.randint(-40, 0) * 1.0
                }
            held[f"holds/channel/{n}"] = json.dumps(
                parts | {"values": dict(sorted(parts["values"].items()))}, separators=(",", ":")
            )
        values |= {f"scene/{number}/{leaf}": text for leaf, text in held.items()}
        values[f"scene/{number}/number"] = float(number)
    values["run/next"] = "scene/1"  # as it is found where nothing was recalled yet
    return blank_show(FESTIVAL).with_values(values)
