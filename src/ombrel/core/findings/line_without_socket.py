"""A line that is plugged into nothing, or a stereo line with one side only."""

from collections.abc import Iterator

from ..errors import NothingLeft
from ..patch import patch_lines
from .rule import Finding, Look

__all__ = ["line_without_socket"]


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
