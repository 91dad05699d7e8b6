"""A socket that two lines claim: one plug fits."""

from collections.abc import Iterator

from ..edits import Asked
from ..sockets import socket_name
from .rule import Finding, Look

__all__ = ["two_lines_on_a_socket"]


def two_lines_on_a_socket(look: Look) -> Iterator[Finding]:
    """One finding a socket; the remedy leaves it to the first of the lines."""
    for socket, lines in sorted(look.lines_on.items()):
        if len(lines) < 2:
            continue
        names = " and ".join(look.name(line) for line in lines)
        moves: dict[str, Asked] = {
            f"line/{line}/{side}": None
            for line in lines[1:]
            for side in ("socket", "socket_right")
            if look.show[f"line/{line}/{side}"] == socket
        }
        yield Finding(
            rule="two_lines_on_a_socket",
            tone="settle",
            says=f"{names} are both on {socket_name(look.show.desk, socket)}.",
            about=f"line/{lines[0]}",
            remedy=f"Leave it to {look.name(lines[0])}" if moves else "",
            moves=moves,
        )
