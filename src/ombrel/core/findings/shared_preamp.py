"""Several channels on one socket: they share its preamp."""

from collections.abc import Iterator

from ..flow import strip_name
from ..sockets import socket_name
from .rule import Finding, Look

__all__ = ["shared_preamp"]


def shared_preamp(look: Look) -> Iterator[Finding]:
    """One note a socket; it may well be meant."""
    for socket, channels in sorted(look.channels_on.items()):
        if len(channels) > 1 and look.has_preamp(socket):
            names = ", ".join(strip_name(look.show, f"channel/{n}") for n in channels)
            yield Finding(
                rule="shared_preamp",
                tone="note",
                says=f"{names} share the preamp of {socket_name(look.show.desk, socket)}.",
                about=f"channel/{channels[0]}",
            )
