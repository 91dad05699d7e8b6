"""Channels that nothing feeds, and spares that would not help."""

from collections.abc import Iterator

from ..catalogue import of_kind
from ..flow import strip_name
from ..show import socket_name
from .rule import Finding, Look

__all__ = ["channel_without_source", "spare_dead"]


def channel_without_source(look: Look) -> Iterator[Finding]:
    """One finding a channel; when its other source is there, the remedy switches to that."""
    show = look.show
    for channel in show.channels():
        if show.source_of(channel) is not None:
            continue
        on_spare = show.on(f"channel/{channel}/on_spare")
        other = show[f"channel/{channel}/{'source' if on_spare else 'spare'}"]
        words = "Switch to its own source" if on_spare else "Switch to its spare"
        yield Finding(
            rule="channel_without_source",
            tone="settle" if other is not None else "note",
            says=f"{strip_name(show, f'channel/{channel}')} has no source.",
            about=f"channel/{channel}",
            remedy=words if other is not None else "",
            moves={f"channel/{channel}/on_spare": not on_spare} if other is not None else {},
        )


def spare_dead(look: Look) -> Iterator[Finding]:
    """One finding a channel."""
    show = look.show
    for channel in show.channels():
        spare = show[f"channel/{channel}/spare"]
        if not isinstance(spare, str):
            continue
        name, where = strip_name(show, f"channel/{channel}"), socket_name(show.desk, spare)
        if spare == show[f"channel/{channel}/source"]:
            says = f"The spare of {name} is its own source, {where}."
        elif of_kind(spare) == "input" and spare not in look.lines_on:
            says = f"The spare of {name} is {where}, where nothing is plugged in."
        else:
            continue
        yield Finding(
            rule="spare_dead",
            tone="note",
            says=says,
            about=f"channel/{channel}",
            remedy="Take the spare away",
            moves={f"channel/{channel}/spare": None, f"channel/{channel}/on_spare": False},
        )
