"""Who has a show open, and in which view: told by each screen to all the others.

Screens may belong to several processes, so nobody keeps a list for all: each screen keeps its own,
from what the others say when they come, go from view to view, and leave.
"""

import time
from typing import Any
from uuid import UUID

from channels.layers import get_channel_layer

from .ticker import group_of

__all__ = ["Here", "open_by"]

_OPEN: dict[UUID, dict[str, str]] = {}  # by show: the screens of this process, with their people


def open_by(show_id: UUID) -> list[str]:
    """The names of those who have a show open, as far as this process knows, in order."""
    return sorted(set(_OPEN.get(show_id, {}).values()))


AGAIN_S = 30.0  # a screen says so often that it is still here
GONE_S = 90.0  # who said nothing for so long is gone, with its process


class Here:
    """One screen among those of a show."""

    def __init__(self, show_id: UUID, screen: str, name: str) -> None:
        self._group, self.screen, self.name, self.view = group_of(show_id), screen, name, ""
        self._show_id = show_id
        self._others: dict[str, tuple[str, str, float]] = {}
        self._said_at = 0.0

    async def come(self) -> None:
        """Ask who is there; they answer to all."""
        _OPEN.setdefault(self._show_id, {})[self.screen] = self.name
        await self._send({"type": "show.who", "screen": self.screen})

    async def moved(self, view: str) -> None:
        """Say that the person went to another view."""
        if view != self.view or not self._said_at:
            self.view = view
            await self._say()

    async def still(self) -> None:
        """Say now and then that this screen is still here."""
        if time.monotonic() - self._said_at > AGAIN_S:
            await self._say()

    async def go(self) -> None:
        """Say that this screen is no more."""
        screens = _OPEN.get(self._show_id, {})
        screens.pop(self.screen, None)
        if not screens:
            _OPEN.pop(self._show_id, None)
        await self._send({"type": "show.here", "screen": self.screen, "name": "", "view": ""})

    async def answer(self, screen: str) -> None:
        """Answer one that came."""
        if screen != self.screen and self._said_at:
            await self._say()

    def heard(self, event: dict[str, str]) -> dict[str, Any]:
        """What another screen said, and who is there by now: a message of `wire`."""
        now = time.monotonic()
        if event["screen"] != self.screen:
            self._others.pop(event["screen"], None)
            if event["name"]:
                self._others[event["screen"]] = (event["name"], event["view"], now)
        for screen, (_, _, heard_at) in list(self._others.items()):
            if now - heard_at > GONE_S:
                del self._others[screen]
        others = [
            {"screen": screen, "name": name, "view": view}
            for screen, (name, view, _) in sorted(self._others.items())
        ]
        return {"type": "present", "others": others}

    async def _say(self) -> None:
        self._said_at = time.monotonic()
        await self._send(
            {"type": "show.here", "screen": self.screen, "name": self.name, "view": self.view}
        )

    async def _send(self, event: dict[str, str]) -> None:
        layer = get_channel_layer()
        assert layer is not None  # settings always configure one
        await layer.group_send(self._group, event)
