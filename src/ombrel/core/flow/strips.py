"""Names and numbers of sources and listeners: which row and which column of the table is whom."""

from ..desk import Desk
from ..errors import UnknownAddress
from ..show import Show

__all__ = [
    "bus_count",
    "bus_index",
    "bus_of",
    "house_index",
    "listener_name",
    "listeners",
    "mono_index",
    "source_name",
    "sources",
    "strip_name",
]

# Columns: mixes first (mix 1 is column 0), then the house, then mono. Groups and matrices will
# follow behind them, so that no column ever changes its number.


def bus_count(desk: Desk) -> int:
    """How many columns the table of this desk has."""
    return desk.mixes + 2


def house_index(desk: Desk) -> int:
    """The column of the house."""
    return desk.mixes


def mono_index(desk: Desk) -> int:
    """The column of the mono bus."""
    return desk.mixes + 1


def bus_of(desk: Desk, index: int) -> str:
    """The address of the bus in a column: `mix/5`, `house` or `mono`."""
    if index == house_index(desk):
        return "house"
    if index == mono_index(desk):
        return "mono"
    return f"mix/{index + 1}"


def bus_index(desk: Desk, bus: str) -> int:
    """The column of a bus (any side of it counts as the bus). Raises UnknownAddress."""
    words = bus.split("/")
    if words[0] == "house":
        return house_index(desk)
    if words[0] == "mono":
        return mono_index(desk)
    is_mix = words[0] == "mix" and len(words) > 1 and words[1].isdigit()
    if is_mix and 1 <= int(words[1]) <= desk.mixes:
        return int(words[1]) - 1
    raise UnknownAddress(bus, "there is no such listener on this desk")


def strip_name(show: Show, strip: str) -> str:
    """What people call a strip: its own name, or its kind and number when it has none."""
    if strip == "house":
        return "House"
    if strip == "mono":
        return "Mono"
    kind, number = strip.split("/")[:2]
    return show.text(f"{kind}/{number}/name") or f"{kind.capitalize()} {number}"


def source_name(show: Show, source: str) -> str:
    """Name of a source such as `channel/7`. Raises UnknownAddress for no channel of the desk."""
    words = source.split("/")
    if len(words) != 2 or words[0] != "channel" or not words[1].isdigit():
        raise UnknownAddress(source, "a source is a channel such as channel/7")
    if not 1 <= int(words[1]) <= show.desk.channels:
        raise UnknownAddress(source, f"{show.desk.name} has {show.desk.channels} channels")
    return strip_name(show, source)


def listener_name(show: Show, listener: str) -> str:
    """Name of a listener such as `mix/5` or `house`. Raises UnknownAddress."""
    return strip_name(show, bus_of(show.desk, bus_index(show.desk, listener)))


def sources(show: Show) -> list[str]:
    """The rows worth drawing: channels with a source or a name, in the desk's order."""
    return [f"channel/{number}" for number in show.channels()]


def listeners(show: Show) -> list[str]:
    """The columns worth drawing: the house, mono when anything feeds it, every mix in use."""
    used_mono = any(show.on(f"channel/{number}/mono/on") for number in show.channels())
    return ["house", *(["mono"] if used_mono else []), *(f"mix/{n}" for n in show.mixes())]
