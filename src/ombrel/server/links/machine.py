"""The link to a stand-in cue machine: told what to play, asked how it stands."""

import asyncio
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

from django.conf import settings

from ombrel.core import BadFile
from ombrel.formats.osc import read_packet, write_message

from .link import Link

__all__ = ["MachineLink", "MachineStands", "machine_link"]

_ASK_EVERY_S: Final = 0.25
_AT_ONCE: Final = 50  # lines of a sheet: a datagram's buffer is no sheet's
OnStanding = Callable[["MachineStands"], None]


@dataclass(frozen=True, slots=True)
class MachineStands:
    """How a machine stands: since how many seconds it plays (None: it does not), how many messages

    it sent of how many lines, and the last.
    """

    at_s: float | None
    sent: int
    lines: int
    last: str


class MachineLink(asyncio.DatagramProtocol, Link[MachineStands]):
    """Speaks the messages of `standin.cue_machine`."""

    def __init__(self, host: str, port: int) -> None:
        self._address = (host, port)
        self._wanting: set[OnStanding] = set()
        self._transport: asyncio.DatagramTransport | None = None
        self._asking: asyncio.Task[None] | None = None

    async def want(self, told: OnStanding) -> None:
        """From now on `told` is called with how it stands."""
        self._wanting.add(told)
        await self._open()
        if self._asking is None or self._asking.done():
            self._asking = asyncio.create_task(self._ask())

    def enough(self, told: OnStanding) -> None:
        """`told` is called no more."""
        self._wanting.discard(told)

    async def play(self, lines: Sequence[tuple[float, str]], way: str, port: int) -> None:
        """Have it play lines (seconds, message) into a port of this machine."""
        await self._target(way, port)
        self._say("/machine/clear")
        for place, (at_s, text) in enumerate(lines):
            self._say("/machine/line", at_s, text)
            if place % _AT_ONCE == _AT_ONCE - 1:
                await asyncio.sleep(0.02)
        self._say("/machine/play")

    async def fire(self, text: str, way: str, port: int) -> None:
        """Have it send one message."""
        await self._target(way, port)
        self._say("/machine/fire", text)

    async def stop(self) -> None:
        """Have it play no more."""
        await self._open()
        self._say("/machine/stop")

    async def err(self, drop: float, double: float, swap: float) -> None:
        """How often it errs, each 0 to 1."""
        await self._open()
        self._say("/machine/faults", drop, double, swap)

    async def _target(self, way: str, port: int) -> None:
        await self._open()
        self._say("/machine/target", way, "127.0.0.1", port)

    async def _open(self) -> None:
        if self._transport is None:
            loop = asyncio.get_running_loop()
            self._transport, _ = await loop.create_datagram_endpoint(
                lambda: self, remote_addr=self._address
            )

    async def _ask(self) -> None:
        while self._wanting:
            self._say("/machine/state")
            await asyncio.sleep(_ASK_EVERY_S)

    def _say(self, address: str, *arguments: str | float) -> None:
        if self._transport is not None:
            self._transport.sendto(write_message(address, *arguments))

    # ---- from the network

    def datagram_received(self, data: bytes, addr: object) -> None:
        try:
            [message] = read_packet(data)
        except (BadFile, ValueError):
            return  # damaged on the way
        match message.address, message.arguments:
            case "/machine/told", (float(playing), float(at_s), float(sent), float(lines),
                                   str(last)):  # fmt: skip
                stands = MachineStands(at_s if playing else None, int(sent), int(lines), last)
                for told in list(self._wanting):
                    told(stands)

    def error_received(self, exc: Exception) -> None:
        """No machine is there (yet): asking goes on."""


_LINKS: dict[int, MachineLink] = {}


def machine_link() -> MachineLink:
    """This process's link, to OMBREL_CUE_MACHINE (HOST:PORT); one for each event loop."""
    key = id(asyncio.get_running_loop())
    if key not in _LINKS:
        host, _, port = settings.CUE_MACHINE.partition(":")
        _LINKS[key] = MachineLink(host, int(port or 9124))
    return _LINKS[key]
