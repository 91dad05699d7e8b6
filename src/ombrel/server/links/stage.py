"""The link to a stage that measures: one for each process, alive while any screen wants levels."""

import asyncio
from collections.abc import Callable, Iterable
from typing import Final
from uuid import UUID

from django.conf import settings

from ombrel.core import BadFile
from ombrel.formats import stage_osc
from ombrel.formats.stage_osc import feed, listen, read_levels, straight, swap

from .link import Link

__all__ = ["StageLink", "stage_link"]

LISTEN_EVERY_S: Final = 1.0
_TAKE_S: Final = 10.0  # what the stand-in recorder writes
OnLevels = Callable[[dict[str, float]], None]


class StageLink(asyncio.DatagramProtocol, Link[dict[str, float]]):
    """Asks the stage for levels as long as somebody wants them, and hands them on."""

    def __init__(self, host: str, port: int) -> None:
        self._address = (host, port)
        self.fed: set[int] = set()  # lines that somebody has fed through this link
        self._plugs: dict[tuple[UUID, int], list[str]] = {}
        self._wanting: set[OnLevels] = set()
        self._transport: asyncio.DatagramTransport | None = None
        self._asking: asyncio.Task[None] | None = None

    async def want(self, told: OnLevels) -> None:
        """From now on `told` is called with each set of levels (dBu by socket)."""
        self._wanting.add(told)
        await self.open()
        if self._asking is None or self._asking.done():
            self._asking = asyncio.create_task(self._ask())

    async def open(self) -> None:
        """Have a way to the stage, also while nobody wants levels."""
        if self._transport is None:
            loop = asyncio.get_running_loop()
            self._transport, _ = await loop.create_datagram_endpoint(
                lambda: self, remote_addr=self._address
            )

    def enough(self, told: OnLevels) -> None:
        """`told` is called no more; the last one to go ends the link."""
        self._wanting.discard(told)

    async def _ask(self) -> None:
        while self._wanting:
            self._say(listen())
            await asyncio.sleep(LISTEN_EVERY_S)
        if self._transport is not None:
            self._transport.close()
            self._transport = None

    def _say(self, content: bytes) -> None:
        if self._transport is not None:
            self._transport.sendto(content)

    def plugs(self, show_id: UUID, line: int, sockets: list[str]) -> list[str]:
        """The plugs of a line, called after the sockets that it had when it was first fed.

        A patch that follows cables which are swapped on the stage moves no cable.
        """
        return self._plugs.setdefault((show_id, line), sockets)

    def straight(self, show_id: UUID) -> None:
        """Have every cable plugged as the show has it now."""
        for known in [key for key in self._plugs if key[0] == show_id]:
            del self._plugs[known]
        self._say(straight())

    def feed(self, line: int, plugs: list[str], signal: str, dbu: float) -> None:
        """Feed the plugs of a line: tone, noise or nothing."""
        if signal == "nothing":
            self.fed.discard(line)
        else:
            self.fed.add(line)
        for plug in plugs:
            self._say(feed(plug, signal, dbu))  # type: ignore[arg-type]

    def swap(self, one: str, other: str) -> None:
        """Exchange two cables on the stand-in."""
        self._say(swap(one, other))

    def record(self, tracks: Iterable[tuple[str, str, float]], full_scale_dbu: float) -> None:
        """Have the recorder write tracks: the input where each comes back, its name, its dBFS."""
        for socket, name, dbfs in tracks:
            self._say(stage_osc.track(socket, name, dbfs, full_scale_dbu))
        self._say(stage_osc.record(_TAKE_S))

    def play(self, on: bool) -> None:
        """Have the recorder play back, or stop."""
        self._say(stage_osc.play() if on else stage_osc.stop())

    # ---- from the network

    def datagram_received(self, data: bytes, addr: object) -> None:
        try:
            levels_dbu = read_levels(data)
        except BadFile:
            return  # damaged on the way; the next one comes in a tenth of a second
        for told in list(self._wanting):
            told(levels_dbu)

    def error_received(self, exc: Exception) -> None:
        """No stage is there (yet): asking goes on."""


_LINKS: dict[int, StageLink] = {}


def stage_link() -> StageLink:
    """This process's link, to OMBREL_STAGE (HOST:PORT); one for each event loop, for tests."""
    key = id(asyncio.get_running_loop())
    if key not in _LINKS:
        host, _, port = settings.STAGE.partition(":")
        _LINKS[key] = StageLink(host, int(port or 9123))
    return _LINKS[key]
