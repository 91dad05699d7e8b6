"""Writes the full show of a desk as a show file, for measuring and looking at the screens.

python -m bench.full DESK NAME > FILE
"""

import sys

from ombrel.core import Value, show_of
from ombrel.formats.show_file import write_show
from ombrel.server.keeping.desks import desk_of

from .shows import full_show


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
            f"line/{line}/name": f"Line {line}",
            f"line/{line}/socket": values[f"channel/{line + 8}/source"],
        }
    show = show_of(desk, values | lines | bank | ruled | {"show/name": name, "dca/1/fader": -3.0})
    sys.stdout.buffer.write(write_show(show))


if __name__ == "__main__":
    main(*sys.argv[1:3])
