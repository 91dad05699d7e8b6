"""A line whose socket feeds no channel: it is plugged in, and nobody can hear it."""

from collections.abc import Iterator

from ..errors import NothingLeft
from ..patch import patch_lines
from .rule import Finding, Look

__all__ = ["line_without_channel"]


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
