"""Ports by which cues come: OSC over UDP, OSC over TCP (SLIP), MIDI bytes over TCP.

They read what comes and hand it on; who may send, what is taken and what it does others decide.
"""

import asyncio
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final, Protocol

from ombrel.core import BadFile, osc_heard
from ombrel.formats.midi import MidiStream
from ombrel.formats.osc import OscMessage, Slip, read_packet, slipped

__all__ = ["CuePort", "Heard", "Told", "open_port"]

_MOST_STREAMS: Final = 8  # of a port at once
_PIECE: Final = 4_096
_MOST_UNSENT: Final = 65_536  # of answers to one who does not take them


@dataclass(frozen=True, slots=True)
class Heard:
    """A message: as cues wait for it, its arguments (OSC), and for when it is meant (None: now)."""

    text: str
    arguments: tuple[Any, ...] = ()
    at_s: float | None = None


class Told(Protocol):
    """Who is told what comes by a port."""

    def may(self, sender: str) -> bool:
        """Whether somebody may send at all: asked before anything of theirs is read."""

    def heard(self, sender: str, heard: Heard, answer: Callable[[bytes], None] | None) -> None:
        """A message came; `answer` sends an OSC packet back."""

    def damaged(self, sender: str, why: str) -> None:
        """Something came that is no message."""


class CuePort:
    """A port that listens, until it is closed."""

    def __init__(self, close: Callable[[], None]) -> None:
        self.close = close


async def open_port(kind: str, host: str, port: int, told: Told) -> CuePort:
    """Listen. Raises OSError where the port is taken, or the address is none of this machine."""
    loop = asyncio.get_running_loop()
    if kind == "osc_udp":
        transport, _ = await loop.create_datagram_endpoint(
            lambda: _Datagrams(told), local_addr=(host, port)
        )
        return CuePort(transport.close)
    streams: set[_Stream] = set()
    server = await loop.create_server(
        lambda: _Stream(told, streams, midi=kind == "midi_tcp"), host, port
    )

    def close() -> None:
        server.close()
        for one in list(streams):
            one.end()

    return CuePort(close)


def _messages(packet: bytes) -> list[Heard]:
    return [_heard(one) for one in read_packet(packet)]


def _heard(message: OscMessage) -> Heard:
    return Heard(osc_heard(message.address, message.arguments), message.arguments, message.at_s)


class _Datagrams(asyncio.DatagramProtocol):
    def __init__(self, told: Told) -> None:
        self._told = told
        self._transport: asyncio.DatagramTransport | None = None

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        self._transport = transport  # type: ignore[assignment]

    def datagram_received(self, data: bytes, addr: tuple[str, int]) -> None:
        sender = addr[0]
        if not self._told.may(sender):
            return
        try:
            messages = _messages(data)
        except BadFile as error:
            self._told.damaged(sender, str(error))
            return
        for one in messages:
            self._told.heard(sender, one, lambda packet: self._answer(packet, addr))

    def _answer(self, packet: bytes, addr: tuple[str, int]) -> None:
        if self._transport is not None and not self._transport.is_closing():
            self._transport.sendto(packet, addr)


class _Stream(asyncio.Protocol):
    def __init__(self, told: Told, streams: set["_Stream"], *, midi: bool) -> None:
        self._told, self._streams = told, streams
        self._midi = MidiStream() if midi else None
        self._slip = Slip()
        self._sender = ""
        self._transport: asyncio.Transport | None = None

    def connection_made(self, transport: asyncio.BaseTransport) -> None:
        assert isinstance(transport, asyncio.Transport) or hasattr(transport, "write")
        self._transport = transport  # type: ignore[assignment]
        self._sender = str((transport.get_extra_info("peername") or ("",))[0])
        if len(self._streams) >= _MOST_STREAMS or not self._told.may(self._sender):
            transport.close()
            return
        self._streams.add(self)

    def data_received(self, data: bytes) -> None:
        if self not in self._streams:
            return  # whoever may not send is not read
        if self._midi is not None:
            for text in self._midi.feed(data):
                self._told.heard(self._sender, Heard(text), None)
            return
        for packet in self._slip.feed(data):
            try:
                messages = _messages(packet)
            except BadFile as error:
                self._told.damaged(self._sender, str(error))
                continue
            for one in messages:
                self._told.heard(self._sender, one, self._answer)

    def _answer(self, packet: bytes) -> None:
        if self._transport is None or self._transport.is_closing():
            return
        if self._transport.get_write_buffer_size() < _MOST_UNSENT:
            self._transport.write(slipped(packet))

    def end(self) -> None:
        if self._transport is not None:
            self._transport.close()

    def connection_lost(self, exc: Exception | None) -> None:
        self._streams.discard(self)
