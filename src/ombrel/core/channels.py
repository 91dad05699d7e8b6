"""Channels as wholes: moved to other numbers, or copied, with all that is set of them."""

from collections.abc import Mapping
from typing import Final

from .addresses import parameter_at
from .errors import NothingLeft
from .kinds import Reference, Value
from .show import Show

__all__ = ["duplicate_channel", "free_channel", "move_channels"]


_STAYS: Final = ("fixed", "linked")


def move_channels(show: Show, to: Mapping[int, int]) -> dict[str, Value]:
    """Values that put channels at other numbers: fader, sends, names, all that is set of them, and

    what takes their direct outs or lays them under a fader. `to`: new number by old, each once.
    What stood at a number that another takes is gone, unless it moves too; that a channel is fixed
    stays with its number. A pair stays linked if both its sides go to an odd number and the even
    above.
    """
    taken = set(to) | set(to.values())
    found: dict[str, Value] = {}
    for address, value in show.own.items():
        words = address.split("/", 2)
        if words[0] == "channel" and int(words[1]) in taken and words[2] not in _STAYS:
            found.setdefault(address, parameter_at(address).default)
            new = to.get(int(words[1]))
            if new is not None:
                found[f"channel/{new}/{words[2]}"] = value
        elif isinstance(value, str) and isinstance(parameter_at(address).kind, Reference):
            words = value.split("/")
            if words[0] == "channel" and int(words[1]) in to:
                found[address] = "/".join(["channel", str(to[int(words[1])]), *words[2:]])
    for odd in [n for n in range(1, show.desk.channels, 2) if show.on(f"channel/{n}/linked")]:
        new = to.get(odd)
        if odd in taken or odd + 1 in taken:
            found.setdefault(f"channel/{odd}/linked", False)
        if new is not None and new % 2 == 1 and to.get(odd + 1) == new + 1:
            found[f"channel/{new}/linked"] = True
    return found


def free_channel(show: Show, *, after: int = 0) -> tuple[int, dict[str, Value]]:
    """The next channel with neither source nor name (past the last one: the first), and values that

    clear what is left on it. Raises NothingLeft.
    """
    free = [
        n
        for n in range(1, show.desk.channels + 1)
        if not any(f"channel/{n}/{leaf}" in show.values for leaf in ("source", "spare", "name"))
    ]
    if not free:
        raise NothingLeft("channels", 1, 0)
    new = next((n for n in free if n > after), free[0])
    return new, {
        address: parameter_at(address).default
        for address in show.values
        if address.startswith(f"channel/{new}/") and not address.endswith("/linked")
    }


# what a copy does not take over: where it comes from, what only its original has a place for
_OWN: Final = (
    "source", "spare", "on_spare", "fixed", "linked", "name", "mute", "solo",
    "part", "fitting", "fitted_s", "attached", "held_back", "name_typed",
)  # fmt: skip


def duplicate_channel(show: Show, channel: int) -> dict[str, Value]:
    """Values that copy a channel into the next one with neither source nor name: its processing,

    sends, assignments and memberships. The copy is muted and has no source; insert points, which
    hold one thing each, stay its original's. Raises NothingLeft.
    """
    new, found = free_channel(show, after=channel)
    stem = f"channel/{channel}/"
    for address, value in show.values.items():
        leaf = address.removeprefix(stem)
        if leaf != address and leaf not in _OWN and not leaf.startswith("insert_"):
            found[f"channel/{new}/{leaf}"] = value
    name = show.text(f"channel/{channel}/name") or f"Channel {channel}"
    return found | {f"channel/{new}/name": f"{name[:54]} copy", f"channel/{new}/mute": True}
