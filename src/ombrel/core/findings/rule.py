"""What a rule is: it looks at a show and tells what is wrong, or likely to be."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal, TypeVar

from ..catalogue import Thing, of_kind
from ..flow import Flow, flow_of
from ..show import Show, returns_on
from ..together import dcas_of, ruled_strips
from ..values import Asked

__all__ = ["Finding", "Look", "Rule", "Tone"]

Tone = Literal["settle", "note"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """Something that Ombrel noticed. `about`: the address of what it is about, for the screen.

    `tone`: "settle" is wrong or dangerous; "note" may be meant. `remedy`: the words of the one
    action that settles it, and its `moves`; `careful`: the action asks for a second, deliberate
    press (phantom power).
    """

    rule: str
    tone: Tone
    says: str
    about: str
    remedy: str = ""
    moves: Mapping[str, Asked] = field(default_factory=dict, hash=False)
    careful: bool = False


_What = TypeVar("_What")


class Look:
    """A show with what several rules ask of it, found once."""

    def __init__(self, show: Show, flow: Flow | None = None) -> None:
        self.show, self._flow = show, flow
        self.lines = show.lines()
        self.lines_on: dict[str, list[int]] = {}
        for line in self.lines:
            for side in ("socket", "socket_right"):
                socket = show[f"line/{line}/{side}"]
                if isinstance(socket, str):
                    self.lines_on.setdefault(socket, []).append(line)
        self.channels_on: dict[str, list[int]] = {}
        self.returns_on = returns_on(show)
        for channel in show.channels():
            source = show.source_of(channel)
            if source is not None:
                self.channels_on.setdefault(source, []).append(channel)

    @property
    def flow(self) -> Flow:
        """The show's flow."""
        if self._flow is None:
            self._flow = flow_of(self.show)
        return self._flow

    @cached_property
    def dcas(self) -> dict[str, dict[str, tuple[str, ...]]]:
        """Strips and DCAs that something rules, each with the DCAs that rule it and the ways."""
        return {strip: dcas_of(self.show, strip) for strip in ruled_strips(self.show)}

    def name(self, line: int) -> str:
        """What a line is called."""
        return self.show.text(f"line/{line}/name") or f"Line {line}"

    def in_order(self, by_socket: Mapping[str, list[_What]]) -> list[tuple[str, list[_What]]]:
        """What stands at sockets, by these as people count them: boxes in the desk's order, A 2

        before A 10; sources of the desk's own last.
        """
        boxes = [box.key for box in self.show.desk.boxes]

        def place(socket: str) -> tuple[int, int, str]:
            at = Thing.at(socket)
            return (boxes.index(at.box) if at.box in boxes else len(boxes), at.number, socket)

        return sorted(by_socket.items(), key=lambda one: place(one[0]))

    def has_preamp(self, socket: str) -> bool:
        """Whether a socket is an input with a preamp."""
        box = self.show.desk.box(Thing.at(socket).box) if of_kind(socket) == "input" else None
        return box is not None and box.preamps


Rule = Callable[[Look], Iterable[Finding]]
