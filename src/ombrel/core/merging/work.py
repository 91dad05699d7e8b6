"""A merge in the making, and the ways in which a list may be taken."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

from ..catalogue import check_on_desk
from ..patching import LineDraft
from ..show import Show
from ..values import Asked

__all__ = ["SIDES", "Ways", "Work"]

SIDES: Final = ("socket", "socket_right")  # of a line, its left or only one first


@dataclass(frozen=True, slots=True, kw_only=True)
class Ways:
    """How a list is taken. `patch`: give lines sockets and channels. `numbered`: the list's own

    channel numbers count, else channels are taken in order; None: numbered if the list has numbers
    and no other line holds them. `odd_pairs`: stereo pairs of the list that fall on an even and the
    odd above it go to a pair of odd and even instead. `leaving`: lines that leave the list; None:
    those that it no longer names, if it is plainly a newer one of the same list.
    """

    patch: bool = True
    numbered: bool | None = None
    odd_pairs: bool = False
    leaving: frozenset[int] | None = None


@dataclass(slots=True)
class Work:
    """A merge in the making: the show as far as it has come, and what is to be told of drafts."""

    show: Show
    drafts: Sequence[LineDraft]
    lines: list[int]
    told: list[list[str]]
    channels_by_socket: dict[str, list[int]] = field(default_factory=dict)
    renumbered: dict[str, str | None] = field(default_factory=dict)

    def put(self, moves: Mapping[str, Asked]) -> None:
        desk = self.show.desk
        values = {a: check_on_desk(desk, a, value) for a, value in moves.items()}
        self.show = self.show.with_values(values)

    def read_channels(self) -> None:
        self.channels_by_socket = {}
        for number in self.show.channels():
            source = self.show.source_of(number)
            if source:
                self.channels_by_socket.setdefault(source, []).append(number)

    def channels_of(self, line: int) -> tuple[int, ...]:
        """The channels of a line now, by side: 0 where a side has none."""
        sides = 2 if self.show.on(f"line/{line}/stereo") else 1
        found = []
        for side in SIDES[:sides]:
            socket = self.show[f"line/{line}/{side}"]
            on = self.channels_by_socket.get(str(socket), [0]) if socket else [0]
            found.append(on[0])
        return tuple(found)
