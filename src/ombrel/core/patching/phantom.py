"""48 V: which lines want it, and what a change of it means to those on the sockets."""

from collections.abc import Iterator, Mapping
from typing import Final, Literal

from ..catalogue import Address, Thing, of_kind
from ..show import Change, Show, lines_on, socket_name

__all__ = ["Wants", "switched", "wants_phantom"]

Wants = Literal["needs it", "can do with it", "needs none", "may be harmed"]

# 48 V on an output stage or a radio receiver can do harm; a dynamic microphone on a balanced cable
# does not mind it, but a worn cable makes it thump (common practice).
_AT_RISK: Final = ("radio", "line", "playback", "talkback")
# It gives nothing without a supply; one with a battery is the exception (common practice).
_POWERED: Final = ("condenser",)
_MOST: Final = 24  # sockets that are told one by one


def wants_phantom(show: Show, line: int) -> Wants:
    """What 48 V is to a line, by what it says itself and, where it says nothing, by its kind."""
    if show.on(f"line/{line}/phantom"):
        return "needs it"
    kind = show.text(f"line/{line}/kind")
    if kind in _POWERED:
        return "can do with it"
    return "may be harmed" if kind in _AT_RISK else "needs none"


def switched(show: Show, change: Change) -> Iterator[str]:
    """What a change means to the lines of `show` on sockets whose 48 V it switches, in words.

    Those that may be harmed or lose what they need come first; at most 24, and how many more.
    """
    sockets = [
        Address.at(address).stem
        for address in change.new
        if of_kind(address) == "input" and Address.at(address).last == "phantom"
    ]
    keys = [box.key for box in show.desk.boxes]
    sockets.sort(key=lambda one: (keys.index(Thing.at(one).box), Thing.at(one).number))
    told = [_told(show, one, on=change.new[f"{one}/phantom"] is True) for one in sockets]
    told.sort(key=lambda one: not one[0])  # stable: the desk's order holds within
    yield from (says for _, says in told[:_MOST])
    if len(told) > _MOST:
        yield f"and {len(told) - _MOST} sockets more"


_ON: Final[Mapping[Wants, str]] = {
    "needs it": "needs it",
    "can do with it": "can do with it",
    "needs none": "needs none",
    "may be harmed": "needs none, and may be harmed by it",
}
_OFF: Final[Mapping[Wants, str]] = {
    "needs it": "needs it",
    "can do with it": "may need it",
    "needs none": "needs none",
    "may be harmed": "needs none",
}


def _told(show: Show, socket: str, *, on: bool) -> tuple[bool, str]:
    """Whether somebody may come to harm by it, and the words."""
    lines = [(one, wants_phantom(show, one)) for one in lines_on(show, socket)]
    harm = ("may be harmed",) if on else ("needs it", "can do with it")
    words = _ON if on else _OFF
    who = [f"{show.text(f'line/{one}/name') or f'Line {one}'} {words[how]}" for one, how in lines]
    where = f"48 V {'on' if on else 'off'} at {socket_name(show.desk, socket)}"
    says = f"{where}: {', '.join(who) or 'nothing is plugged in'}."
    return any(how in harm for _, how in lines), says
