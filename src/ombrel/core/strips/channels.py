"""Channels as wholes: moved to other numbers, or copied, with all that is set of them."""

from collections.abc import Mapping
from typing import Final

from ..edit import renamed
from ..show import Show, check_strip
from ..values import NothingLeft, Value

__all__ = ["duplicate_channel", "free_channel", "move_channels"]


def move_channels(show: Show, to: Mapping[int, int]) -> dict[str, Value]:
    """Own values that put channels at other numbers: fader, sends, names, all that is set of them,

    what names them, and what scenes hold of them. `to`: new number by old, each once. What stood at
    a number that another takes is gone, unless it moves too; that fills skip a channel stays with
    its number. A pair stays linked if both its sides go to an odd number and the even above.
    """
    return renamed(show, {f"channel/{old}": f"channel/{new}" for old, new in to.items()})


def free_channel(show: Show, *, after: int = 0) -> tuple[int, dict[str, Value]]:
    """The next channel with neither source nor name (past the last one: the first), and values that

    clear what is left on it, in scenes too. Raises NothingLeft.
    """
    free = [n for n in range(1, show.desk.channels + 1) if not show.uses(f"channel/{n}")]
    if not free:
        raise NothingLeft("channels", 1, 0)
    new = next((n for n in free if n > after), free[0])
    return new, renamed(show, {f"channel/{new}": None})


# what a copy does not take over: where it comes from, what only its original has a place for
_OWN: Final = (
    "source", "spare", "on_spare", "fixed", "linked", "name", "mute", "solo",
    "part", "fitting", "fitted_s", "attached", "held_back", "name_typed",
)  # fmt: skip


def duplicate_channel(show: Show, channel: int) -> dict[str, Value]:
    """Own values, beneath whoever is on, that copy a channel into the next one with neither source

    nor name: its processing, sends, assignments and memberships. The copy is muted and has no
    source; insert points, which hold one thing each, stay its original's. Raises NothingLeft,
    NotThere.
    """
    check_strip(show, f"channel/{channel}")
    new, found = free_channel(show, after=channel)
    stem = f"channel/{channel}/"
    for address, value in show.own.items():
        leaf = address.removeprefix(stem)
        if leaf != address and leaf not in _OWN and not leaf.startswith("insert_"):
            found[f"channel/{new}/{leaf}"] = value
    name = show.text(f"channel/{channel}/name") or f"Channel {channel}"
    return found | {f"channel/{new}/name": f"{name[:54]} copy", f"channel/{new}/mute": True}
