"""The company: who has no settings yet, settings that nobody wears, two pulling at one preamp."""

from collections.abc import Iterator

from ..casting import (
    fitting_name,
    fittings,
    has_fitting,
    microphones,
    part_name,
    parts,
    performer_name,
    players,
    preamp_socket,
    tonight,
    vacant_parts,
)
from ..flow import strip_name
from ..show import socket_name
from .rule import Finding, Look

__all__ = ["fitting_unused", "part_vacant", "performer_without_fitting", "pulled_both_ways"]


def performer_without_fitting(look: Look) -> Iterator[Finding]:
    """Of those who can play a part, tonight or another evening."""
    show = look.show
    for part in parts(show):
        mics = microphones(show, part)
        for performer in players(show, part) if mics else ():
            if has_fitting(show, part, performer):
                continue
            name, plays = performer_name(show, performer), performer == tonight(show, part)
            yield Finding(
                rule="performer_without_fitting",
                tone="note",
                says=f"{name} has no settings kept as {part_name(show, part)}"
                f"{', and plays tonight' if plays else ''}.",
                about=mics[0].channel,
            )


def fitting_unused(look: Look) -> Iterator[Finding]:
    """A fitting of a part that is gone, or of one that the performer does not play."""
    show = look.show
    order = parts(show)
    for fitting in fittings(show):
        part, performer = show[f"{fitting}/part"], show[f"{fitting}/performer"]
        if part is None or fitting in show.layers.at:
            continue
        plays = {*players(show, str(part)), tonight(show, str(part))} if part in order else set()
        if performer not in plays:
            yield Finding(
                rule="fitting_unused",
                tone="note",
                says=f"No part uses the fitting of {fitting_name(show, fitting)}.",
                about=fitting,
            )


def part_vacant(look: Look) -> Iterator[Finding]:
    """Nobody plays a part tonight, once a cast is chosen: its channels show their own settings."""
    show = look.show
    if show["tonight/cast"] is None:
        return
    for part in vacant_parts(show):
        mics = microphones(show, part)
        names = ", ".join(strip_name(show, one.channel) for one in mics)
        yield Finding(
            rule="part_vacant",
            tone="note",
            says=f"Nobody plays {part_name(show, part)} tonight: {names}.",
            about=mics[0].channel,
        )


def pulled_both_ways(look: Look) -> Iterator[Finding]:
    """Two fittings on one preamp with different gains: one of the two is heard wrongly."""
    show = look.show
    by_socket: dict[str, list[str]] = {}
    for channel, one in show.layers.on.items():
        socket = preamp_socket(show, channel)
        if socket is not None and one.covers("preamp"):
            by_socket.setdefault(socket, []).append(channel)
    for socket, channels in look.in_order(by_socket):
        fitted = [show.layers.on[channel].fitting for channel in channels]
        gains = {show[f"{one}/value/preamp/gain"] for one in fitted} - {None}
        if len(gains) > 1:
            names = " and ".join(fitting_name(show, one) for one in fitted)
            holder = show.layers.holder.get(socket)
            whose = f" {strip_name(show, holder)}'s counts." if holder else ""
            yield Finding(
                rule="pulled_both_ways",
                tone="settle",
                says=f"{names} want different gains of {socket_name(show.desk, socket)}.{whose}",
                about=channels[0],
            )
