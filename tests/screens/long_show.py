"""A Festival 128 as wide as it gets: every line, channel and mix called with forty letters."""

import tempfile

from ombrel.core import show_of
from ombrel.formats.show_file import write_show
from ombrel.server.desks import desk_of

__all__ = ["long_show"]

MIXES = 60


def forty(what, number):
    """A name of forty letters; every third holds no space where it could be broken."""
    name = f"{what} {number} with a name as long as they get"
    return (name.replace(" ", "-") if number % 3 == 0 else name)[:40].ljust(40, "x")


def long_show(server):
    """Make it, and give its id."""
    desk = desk_of("festival-128")
    inputs = [f"input/{box.key}/{n}" for box in desk.boxes for n in range(1, box.inputs + 1)]
    values = {"show/name": forty("Festival", 1)}
    for number in range(1, desk.channels + 1):
        values |= {
            f"line/{number}/place": float(number),
            f"line/{number}/name": forty("Line", number),
            f"line/{number}/performer": forty("Player", number),
            f"line/{number}/microphone": forty("Microphone", number),
            f"line/{number}/stereo": number % 5 == 0,
            f"line/{number}/socket": inputs[number],
            f"channel/{number}/name": forty("Channel", number),
            f"channel/{number}/source": inputs[number],
        }
    for number in range(1, MIXES + 1):
        values[f"mix/{number}/format"] = "stereo"
        values[f"mix/{number}/name"] = forty("Mix", number)
        for channel in range(1, desk.channels + 1):
            values[f"channel/{channel}/send/mix/{number}/level"] = -12.0
    with tempfile.NamedTemporaryFile(suffix=".json") as file:
        file.write(write_show(show_of(desk, values)))
        file.flush()
        return server.manage("open_show", file.name)
