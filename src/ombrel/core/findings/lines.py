"""Lines that are plugged into nothing, on one side only, or where nobody can hear them."""

from collections.abc import Iterator

from ..patching import patch_lines
from ..values import NothingLeft
from .rule import Finding, Look

__all__ = ["line_without_channel", "line_without_socket"]


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
