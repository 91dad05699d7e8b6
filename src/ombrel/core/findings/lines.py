"""Lines without a socket or a channel; channels without a source, and spares of no help."""

from collections.abc import Iterator

from ..catalogue import of_kind
from ..flow import strip_name
from ..patching import patch_lines
from ..show import socket_name
from ..values import NothingLeft
from .rule import Finding, Look

__all__ = ["channel_without_source", "line_without_channel", "line_without_socket", "spare_dead"]


def line_without_socket(look: Look) -> Iterator[Finding]:
    """One finding a line; the remedy gives it the next free socket, and a channel."""
    for line in look.lines:
        stereo = look.show.on(f"line/{line}/stereo")
        sides = ("socket", "socket_right") if stereo else ("socket",)
        missing = [side for side in sides if look.show[f"line/{line}/{side}"] is None]
        if not missing:
            continue
        says = f"{look.name(line)} has no socket."
        if len(missing) < len(sides):
            side = "right" if missing == ["socket_right"] else "left"
            says = f"{look.name(line)} is stereo, and its {side} side has no socket."
        try:
            moves = patch_lines(look.show, [line])
            remedy = "Patch it to the next free"
        except NothingLeft:
            moves, remedy = {}, ""
        yield Finding(
            rule="line_without_socket",
            tone="settle",
            says=says,
            about=f"line/{line}",
            remedy=remedy,
            moves=moves,
        )


def line_without_channel(look: Look) -> Iterator[Finding]:
    """One finding a line; the remedy gives it the next free channel."""
    for line in look.lines:
        sockets = [look.show[f"line/{line}/{side}"] for side in ("socket", "socket_right")]
        plugged = [socket for socket in sockets if isinstance(socket, str)]
        if not plugged or any(
            socket in look.channels_on or socket in look.returns_on for socket in plugged
        ):
            continue
        try:
            moves, remedy = patch_lines(look.show, [line]), "Give it the next free channel"
        except NothingLeft:
            moves, remedy = {}, ""
        yield Finding(
            rule="line_without_channel",
            tone="settle",
            says=f"{look.name(line)} reaches no channel.",
            about=f"line/{line}",
            remedy=remedy,
            moves=moves,
        )


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
