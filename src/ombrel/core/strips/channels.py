"""Channels as wholes: moved to other numbers, or copied, with all that is set of them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import Thing
from ..edit import renamed
from ..show import Show, check_strip
from ..values import NothingLeft, UnreadableText, Value, within

__all__ = ["ChannelOrder", "duplicate_channel", "free_channel", "renumber_channels"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ChannelOrder:
    """Channels at other numbers: `to`, new names by old ones; `moves`: own values that do it;

    `apart`: pairs that come apart by it, by their odd sides' old names.
    """

    to: dict[str, str]
    moves: dict[str, Value]
    apart: tuple[str, ...]


def renumber_channels(
    show: Show, channels: Sequence[int], to: int, *, swap: bool = False
) -> ChannelOrder:
    """Put channels, in this order, at a number and those above it, with all that is set of them and

    that says their names: fader, sends, scenes, versions, banks, promises, parts. Both sides of a
    pair go together. Where all these numbers are free they are taken; else whoever stands between
    moves along by as many numbers, or (`swap`) both runs change places. That fills pass a channel
    by stays with its number. Raises UnreadableText, NothingLeft.
    """
    whole = list(dict.fromkeys(n for one in channels for n in _pair(show, one)))
    last = to + len(whole) - 1
    if not whole or to < 1:
        raise UnreadableText(str(to), "channels, and a number from 1 for the first of them")
    if last > show.desk.channels:
        raise NothingLeft(f"channels from {to}", len(whole), show.desk.channels - to + 1)
    places = range(to, last + 1)
    used = [n for n in places if n not in whole and show.uses(f"channel/{n}")]
    if swap:
        if set(whole) & set(places) and sorted(whole) != list(places):
            raise UnreadableText(f"from {to}", "numbers apart from those that change places")
        numbers = dict(zip(whole, places, strict=True))
        numbers |= dict(zip(places, whole, strict=True)) if sorted(whole) != list(places) else {}
    elif not used:
        numbers = dict(zip(whole, places, strict=True))
    else:
        rest = [n for n in range(1, show.desk.channels + 1) if n not in whole]
        order = [*rest[: to - 1], *whole, *rest[to - 1 :]]
        numbers = {old: new for new, old in enumerate(order, start=1)}
    names = {f"channel/{old}": f"channel/{new}" for old, new in numbers.items() if old != new}
    return ChannelOrder(to=names, moves=renamed(show, names), apart=_apart(show, names))


def _pair(show: Show, channel: int) -> tuple[int, ...]:
    """A channel, or both sides of its pair."""
    odd = channel - (channel + 1) % 2
    return (odd, odd + 1) if show.on(f"channel/{odd}/linked") else (channel,)


def _apart(show: Show, to: Mapping[str, str]) -> tuple[str, ...]:
    """The pairs, by their odd sides, that are none under other names."""
    found = []
    for odd in range(1, show.desk.channels, 2):
        left, right = f"channel/{odd}", f"channel/{odd + 1}"
        if show.on(f"{left}/linked") and {left, right} & to.keys():
            new = Thing.at(to.get(left, left)).number
            if new % 2 == 0 or to.get(right, right) != f"channel/{new + 1}":
                found.append(left)
    return tuple(found)


def free_channel(
    show: Show, *, after: int = 0, wanted: int | None = None
) -> tuple[int, dict[str, Value]]:
    """A channel with neither source nor name, and values that clear what is left on it, in scenes

    too: the next behind one (past the last: the first), or the one `wanted`. Raises NothingLeft;
    UnreadableText for a wanted one that is in use, or that the desk has not.
    """
    free = [n for n in range(1, show.desk.channels + 1) if not show.uses(f"channel/{n}")]
    if not free:
        raise NothingLeft("channels", 1, 0)
    if wanted is not None and wanted not in free:
        raise UnreadableText(f"channel {wanted}", f"a free channel, such as {free[-1]}")
    new = wanted or next((n for n in free if n > after), free[0])
    return new, renamed(show, {f"channel/{new}": None})


# what a copy does not take over: where it comes from, what only its original has a place for
_OWN: Final = (
    "source", "spare", "on_spare", "fixed", "linked", "name", "mute", "solo",
    "part", "fitting", "fitted_s", "attached", "held_back", "name_typed",
)  # fmt: skip


# what takes a place of the desk: an insert point holds one thing, and who shares gain has a place
_NOT_COPIED: Final = ("insert_", "sharing/")


def duplicate_channel(show: Show, channel: int) -> dict[str, Value]:
    """Own values, beneath whoever is on, that copy a channel into the next one with neither source

    nor name: its processing, sends, assignments and memberships. The copy is muted and has no
    source; insert points, which hold one thing each, and sharing gain stay its original's. Raises
    NothingLeft, NotThere.
    """
    check_strip(show, f"channel/{channel}")
    new, found = free_channel(show, after=channel)
    stem = f"channel/{channel}/"
    for address, value in show.own.items():
        leaf = address.removeprefix(stem)
        if leaf != address and leaf not in _OWN and not leaf.startswith(_NOT_COPIED):
            found[f"channel/{new}/{leaf}"] = value
    name = show.text(f"channel/{channel}/name") or f"Channel {channel}"
    own: dict[str, Value] = {
        f"channel/{new}/name": within(name, " copy"),
        f"channel/{new}/mute": True,
    }
    return own | found | own  # first what it is called: a preview tells the first of its values
