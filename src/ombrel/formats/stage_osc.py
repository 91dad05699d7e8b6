"""What is said between Ombrel and a stage that can feed signals and measure them: OSC 1.0 messages.

    to the stage    /stage/listen            send levels to where this came from, for three seconds
                    /stage/feed  s:socket s:tone|noise|speech|nothing f:dBu
                    /stage/swap  s:socket s:socket      exchange two cables
                    /stage/straight                     every cable where it belongs
                    /recorder/track  s:socket s:name f:dBFS f:dBu   a track, by the input where it
                                     comes back; its level, and what full scale is at the desk
                    /recorder/record f:seconds          write all its tracks anew
                    /recorder/play   /recorder/stop     play them back, or stop
    from the stage  /stage/levels  (s:socket f:dBu)*    every socket where a signal is

A socket is named by its address (`input/a/7`).
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

from pythonosc.osc_message import OscMessage, ParseError
from pythonosc.osc_message_builder import BuildError, OscMessageBuilder

from ombrel.core import BadFile

__all__ = [
    "Command",
    "feed",
    "levels",
    "listen",
    "play",
    "read_command",
    "read_levels",
    "record",
    "stop",
    "straight",
    "swap",
    "track",
]

Signal = Literal["tone", "noise", "speech", "nothing"]
_LOUDEST_DBU: Final = 200.0  # beyond any signal; NaN is not below it either
_TRACK: Final = re.compile(r"input/[a-z][a-z0-9_-]{0,19}/[1-9]\d{0,3}")
_LONGEST_NAME: Final = 60
_LONGEST_S: Final = 60.0
_SIGNALS: tuple[Signal, ...] = ("tone", "noise", "speech", "nothing")


@dataclass(frozen=True, slots=True, kw_only=True)
class Command:
    """Something asked of the stage."""

    verb: Literal["listen", "feed", "swap", "straight", "track", "record", "play", "stop"]
    sockets: tuple[str, ...] = ()
    signal: Signal = "nothing"
    dbu: float = 0.0
    name: str = ""
    dbfs: float = 0.0
    seconds: float = 0.0


def _built(address: str, *arguments: str | float) -> bytes:
    builder = OscMessageBuilder(address)
    for argument in arguments:
        builder.add_arg(argument, "s" if isinstance(argument, str) else "f")
    return bytes(builder.build().dgram)


def listen() -> bytes:
    """Ask for levels."""
    return _built("/stage/listen")


def feed(socket: str, signal: Signal, dbu: float) -> bytes:
    """Feed the plug that belongs into a socket."""
    return _built("/stage/feed", socket, signal, dbu)


def swap(one: str, other: str) -> bytes:
    """Exchange two cables."""
    return _built("/stage/swap", one, other)


def straight() -> bytes:
    """Put every cable where it belongs."""
    return _built("/stage/straight")


def track(socket: str, name: str, dbfs: float, full_scale_dbu: float) -> bytes:
    """Tell the recorder a track: the input where it comes back, its name, and its level."""
    return _built("/recorder/track", socket, name, dbfs, full_scale_dbu)


def record(seconds: float) -> bytes:
    """Have the recorder write its tracks."""
    return _built("/recorder/record", seconds)


def play() -> bytes:
    """Have the recorder play its tracks back."""
    return _built("/recorder/play")


def stop() -> bytes:
    """Have the recorder neither record nor play."""
    return _built("/recorder/stop")


def levels(levels_dbu: Mapping[str, float]) -> bytes:
    """Level at every socket where a signal is, in dBu."""
    parts = [part for socket, dbu in sorted(levels_dbu.items()) for part in (socket, float(dbu))]
    return _built("/stage/levels", *parts)


def _read(content: bytes) -> OscMessage:
    """The message, if writing it again gives the same bytes: the library reads a number that was

    cut off as another number, and passes over what it does not know.
    """
    damaged = BadFile("An OSC message is damaged.", "It is left out; the next one counts.")
    try:
        message = OscMessage(content)
        whole = _built(message.address, *message.params) == content
    except (ParseError, BuildError, ValueError, IndexError, TypeError, OverflowError) as error:
        raise damaged from error
    if not whole:
        raise damaged
    return message


def _wrong(message: OscMessage) -> BadFile:
    return BadFile(f"{message.address[:60]} has other parts than it should.", "It is left out.")


def read_command(content: bytes) -> Command:
    """What is asked of the stage. Raises BadFile for a damaged or unknown message."""
    message = _read(content)
    match (message.address, list(message.params)):
        case ("/stage/listen", []):
            return Command(verb="listen")
        case ("/stage/straight", []):
            return Command(verb="straight")
        case ("/stage/swap", [str(one), str(other)]):
            return Command(verb="swap", sockets=(one, other))
        case ("/stage/feed", [str(socket), str(signal), float(dbu)]) if (
            signal in _SIGNALS and abs(dbu) < _LOUDEST_DBU
        ):
            known = next(one for one in _SIGNALS if one == signal)
            return Command(verb="feed", sockets=(socket,), signal=known, dbu=dbu)
        case ("/recorder/track", [str(socket), str(name), float(dbfs), float(dbu)]) if (
            abs(dbfs) < _LOUDEST_DBU
            and abs(dbu) < _LOUDEST_DBU
            and _TRACK.fullmatch(socket)
            and len(name) <= _LONGEST_NAME
        ):
            return Command(verb="track", sockets=(socket,), name=name, dbfs=dbfs, dbu=dbu)
        case ("/recorder/record", [float(seconds)]) if 0.0 < seconds <= _LONGEST_S:
            return Command(verb="record", seconds=seconds)
        case ("/recorder/play", []):
            return Command(verb="play")
        case ("/recorder/stop", []):
            return Command(verb="stop")
        case _:
            raise _wrong(message)


def read_levels(content: bytes) -> dict[str, float]:
    """Levels from the stage, in dBu by socket. Raises BadFile for a damaged or unknown message."""
    message = _read(content)
    sockets, dbus = list(message.params[0::2]), list(message.params[1::2])
    well_formed = len(sockets) == len(dbus) and all(
        isinstance(socket, str) and isinstance(dbu, float) and abs(dbu) < _LOUDEST_DBU
        for socket, dbu in zip(sockets, dbus, strict=False)
    )
    if message.address != "/stage/levels" or not well_formed:
        raise _wrong(message)
    return dict(zip(sockets, dbus, strict=True))
