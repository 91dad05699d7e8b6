"""Writes the full show of a desk as a show file, for measuring and looking at the screens: as

strangers may bring it, every line, channel and mix called with forty letters, and 200 scenes.

python -m bench.full DESK NAME > FILE
"""

import sys

from ombrel.core import Show, Value, cells_by_preset, made, show_of, store_scene
from ombrel.formats.show_file import write_show
from ombrel.server.keeping.desks import desk_of

from .shows import full_show

SCENES = 200


def main(desk_key: str, name: str) -> None:
    desk = desk_of(desk_key)
    # groups do not send to mixes here, so that a typed level has one way to be met
    values = {
        address: value
        for address, value in full_show(desk).values.items()
        if not address.startswith("group/") or "/send/mix/" not in address
    }
    # a bank of what the other hand moves in `bench.screens`, ruled by a DCA
    bank = {f"bank/1/1/{place}": f"channel/{place + 8}" for place in range(1, 25)}
    ruled = {f"channel/{number}/dca/1/on": True for number in range(1, 46)}
    # and the lines on them, so that the stage has something to feed and the meters move
    lines: dict[str, Value] = {}
    for line in range(1, 25):
        lines |= {
            f"line/{line}/place": float(line),
            f"line/{line}/name": forty("Line", line),
            f"line/{line}/socket": values[f"channel/{line + 8}/source"],
        }
    names: dict[str, Value] = {
        f"{kind}/{number}/name": forty(kind.capitalize(), number)
        for kind in ("channel", "mix")
        for number in range(1, desk.count(kind) + 1)
    }
    more: dict[str, Value] = {"show/name": name, "dca/1/fader": -3.0}
    show = show_of(desk, values | lines | bank | ruled | names | more)
    sys.stdout.buffer.write(write_show(with_scenes(show)))


def forty(word: str, number: int) -> str:
    """A name of forty letters."""
    return f"{word} {number} as long as a name of a band is".ljust(40, "x")[:40]


def with_scenes(show: Show) -> Show:
    """Scenes of all faders and mutes, each with its number, as they stand."""
    stored = made(show, store_scene(show, "Scene", cells_by_preset(show, "balance")))[0]
    held = {a.split("/", 2)[2]: text for a, text in stored.own.items() if "/holds/" in a}
    values: dict[str, Value] = {"run/next": "scene/1"}
    for number in range(1, SCENES + 1):
        values |= {f"scene/{number}/{leaf}": text for leaf, text in held.items()}
        values |= {f"scene/{number}/number": float(number)}
        values |= {f"scene/{number}/name": forty("Scene", number)}
    return show_of(show.desk, {**show.own, **values})


if __name__ == "__main__":
    main(*sys.argv[1:3])
