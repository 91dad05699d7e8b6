"""All assignments of a show on one sheet: a row a strip, what it goes to and what it is in."""

import math
from typing import Final

from ..catalogue import STRIP_KINDS, Thing, of_kind
from ..flow import strip_name
from ..show import Show, numbers_text, socket_name
from ..together import rulers_in_use
from ..values import Column, Datum, Sheet
from ..wires import feed_address, feed_kind

__all__ = ["assignments_sheet"]

_BUSES: Final = ("house", "mono", "group", "mix", "matrix")
_RULERS: Final = ("dca", "mute_group", "gang")
_COLUMNS: Final = tuple(
    Column(title=title)
    for title in ("Strip", "No.", "Name", "Source", "House", "Mono", "Groups", "Mixes", "Matrices",
                  "DCAs", "Mute groups", "Gangs")
)  # fmt: skip


def _assigned_to(show: Show, strip: str, kind: str) -> list[str]:
    """What a strip goes to, or is in, of a kind ("house", "group", "mix", "dca" ...), ascending.

    A send counts where it is on and above off; of buses only those in use do.
    """
    if kind in _RULERS:
        return [one for one in rulers_in_use(show, kind) if f"{strip}/{one}/on" in show.values]
    how = feed_kind(of_kind(strip), kind)
    buses = [bus for bus in show.in_use(kind) if bus != strip] if how else []
    return [bus for bus in buses if _is_open(show, strip, bus, how)]


def _is_open(show: Show, strip: str, bus: str, how: str) -> bool:
    if not show.on(feed_address(strip, bus, "on")):
        return False
    return how != "send" or show.number(feed_address(strip, bus, "level")) > -math.inf


def assignments_sheet(show: Show, title: str) -> Sheet:
    """Strips in use against all that they can be assigned to, as numbers; the house as a word."""
    rows = []
    for kind in STRIP_KINDS:
        for strip in show.in_use(kind):
            found = {one: _assigned_to(show, strip, one) for one in (*_BUSES, *_RULERS)}
            rows.append(
                (
                    kind.capitalize(),
                    Thing.at(strip).number or "",
                    strip_name(show, strip),
                    _source(show, strip),
                    "yes" if found["house"] else "",
                    "yes" if found["mono"] else "",
                    *(_numbers(found[one]) for one in ("group", "mix", "matrix", *_RULERS)),
                )
            )
    return Sheet(key="assignments", title=title, columns=_COLUMNS, rows=tuple(rows))


def _source(show: Show, strip: str) -> str:
    if of_kind(strip) not in ("channel", "return"):
        return ""
    is_channel = of_kind(strip) == "channel"
    source = show.source_of(Thing.at(strip).number) if is_channel else show[f"{strip}/source"]
    return socket_name(show.desk, source) if isinstance(source, str) else ""


def _numbers(things: list[str]) -> Datum:
    numbers = [Thing.at(one).number for one in things]
    return numbers[0] if len(numbers) == 1 else numbers_text(numbers)
