"""A named channel that nothing feeds."""

from collections.abc import Iterator

from ..flow import strip_name
from .rule import Finding, Look

__all__ = ["channel_without_source"]


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
