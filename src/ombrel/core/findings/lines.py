"""Lines without a socket or a channel; channels without a source, and spares of no help; phantom

power where a line needs it and has it not, or should not; preamps that are shared.
"""

from collections.abc import Collection, Iterator

from ..catalogue import Thing, of_kind
from ..flow import strip_name
from ..patching import patch_lines, wants_phantom
from ..show import socket_name
from ..values import NothingLeft
from .rule import Finding, Look

__all__ = [
    "channel_without_source",
    "line_without_channel",
    "line_without_socket",
    "phantom_missing",
    "phantom_not_said",
    "phantom_not_wanted",
    "playback_on",
    "shared_preamp",
    "spare_dead",
]


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
        if _plays_back(look, plugged):
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


def _plays_back(look: Look, sockets: Collection[str]) -> bool:
    """Whether a channel of these sockets hears its track for now (told by `playback_on`)."""
    show = look.show
    return any(
        show.on(f"channel/{n}/played") and show[f"channel/{n}/source"] in sockets
        for n in show.channels()
    )


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
        elif of_kind(spare) == "input" and not _brings_anything(look, spare):
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


def _brings_anything(look: Look, socket: str) -> bool:
    """Whether something is plugged in there, or a recorder plays back what it recorded."""
    at = Thing.at(socket)
    box = look.show.desk.box(at.box)
    if socket in look.lines_on:
        return True
    records = box is not None and not box.preamps and at.number <= box.outputs
    return records and look.show[f"output/{at.box}/{at.number}/source"] is not None


def playback_on(look: Look) -> Iterator[Finding]:
    """Channels that hear their tracks, not the stage, since the key for playback was pressed."""
    show = look.show
    played = [f"channel/{n}" for n in show.channels() if show.on(f"channel/{n}/played")]
    if played:
        are = "channel hears its track" if len(played) == 1 else "channels hear their tracks"
        yield Finding(
            rule="playback_on",
            tone="settle",
            says=f"Playback is on: {len(played)} {are}, not the stage.",
            about="plan",
            remedy="Back to the stage",
            moves={
                f"{channel}/{leaf}": False for channel in played for leaf in ("on_spare", "played")
            },
        )


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
