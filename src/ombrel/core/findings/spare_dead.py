"""A spare source that would not help: nothing is plugged in there, or it is the source itself."""

from collections.abc import Iterator

from ..address import of_kind
from ..flow import strip_name
from ..sockets import socket_name
from .rule import Finding, Look

__all__ = ["spare_dead"]


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
