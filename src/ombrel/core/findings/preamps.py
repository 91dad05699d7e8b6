"""Phantom power where a line needs it and has it not, or should not; preamps that are shared."""

from collections.abc import Iterator

from ..flow import strip_name
from ..patching import wants_phantom
from ..show import socket_name
from .rule import Finding, Look

__all__ = ["phantom_missing", "phantom_not_said", "phantom_not_wanted", "shared_preamp"]


def phantom_not_said(look: Look) -> Iterator[Finding]:
    """A condenser whose line says nothing of 48 V."""
    for line in look.lines:
        if wants_phantom(look.show, line) != "can do with it":
            continue
        yield Finding(
            rule="phantom_not_said",
            tone="note",
            says=f"{look.name(line)} is a condenser, and its line does not say that it needs 48 V.",
            about=f"line/{line}",
            remedy="It needs 48 V",
            moves={f"line/{line}/phantom": True},
        )


def phantom_missing(look: Look) -> Iterator[Finding]:
    """A line that needs 48 V on a preamp where it is off."""
    for socket, lines in look.in_order(look.lines_on):
        if not look.has_preamp(socket) or look.show.on(f"{socket}/phantom"):
            continue
        for line in lines:
            if wants_phantom(look.show, line) == "needs it":
                where = socket_name(look.show.desk, socket)
                yield Finding(
                    rule="phantom_missing",
                    tone="settle",
                    says=f"{look.name(line)} needs 48 V, and it is off at {where}.",
                    about=f"line/{line}",
                    remedy=f"48 V on at {where}",
                    moves={f"{socket}/phantom": True},
                    careful=True,
                )


def phantom_not_wanted(look: Look) -> Iterator[Finding]:
    """48 V on a line that needs none; on one that it may harm, something to settle."""
    for socket, lines in look.in_order(look.lines_on):
        if not look.has_preamp(socket) or not look.show.on(f"{socket}/phantom"):
            continue
        for line in lines:
            wants = wants_phantom(look.show, line)
            if wants in ("needs it", "can do with it"):
                continue  # see phantom_not_said
            kind = look.show.text(f"line/{line}/kind")
            where = socket_name(look.show.desk, socket)
            yield Finding(
                rule="phantom_not_wanted",
                tone="settle" if wants == "may be harmed" else "note",
                says=f"48 V is on at {where}, and {look.name(line)} ({kind.replace('_', ' ')})"
                " needs none.",
                about=f"line/{line}",
                remedy=f"48 V off at {where}",
                moves={f"{socket}/phantom": False},
                careful=True,
            )


def shared_preamp(look: Look) -> Iterator[Finding]:
    """One note a socket; it may well be meant."""
    for socket, channels in look.in_order(look.channels_on):
        if len(channels) > 1 and look.has_preamp(socket):
            names = ", ".join(strip_name(look.show, f"channel/{n}") for n in channels)
            yield Finding(
                rule="shared_preamp",
                tone="note",
                says=f"{names} share the preamp of {socket_name(look.show.desk, socket)}.",
                about=f"channel/{channels[0]}",
            )
