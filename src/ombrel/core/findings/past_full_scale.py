"""A line that is expected to drive its preamp past full scale."""

from collections.abc import Iterator

from ..preamps import preamps
from ..sockets import socket_name
from .rule import Finding, Look

__all__ = ["past_full_scale"]


def past_full_scale(look: Look) -> Iterator[Finding]:
    """One finding a preamp; the remedy sets the gain that meets the show's target."""
    for preamp in preamps(look.show):
        if preamp.over:
            where = socket_name(look.show.desk, preamp.socket)
            yield Finding(
                rule="past_full_scale",
                tone="settle",
                says=f"{look.name(preamp.line)} is expected at {preamp.dbfs:+.1f} dBFS at {where}:"
                " it will overload.",
                about=f"line/{preamp.line}",
                remedy=f"Set its gain to {preamp.suggested_db:+.0f} dB",
                moves={f"{preamp.socket}/gain": preamp.suggested_db},
            )
