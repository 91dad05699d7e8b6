"""What a rule is: it looks at a show and tells what is wrong, or likely to be."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from ..catalogue import Thing, of_kind
from ..flow import Flow, flow_of
from ..show import Show, returns_on
from ..together import dcas_of, ruled_strips
from ..values import Asked

__all__ = ["Finding", "Look", "Rule"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """Something that Ombrel noticed. `about`: the address of what it is about, for the screen.

    `tone`: "settle" is wrong or dangerous; "note" may be meant. `remedy`: the words of the one
    action that settles it, and its `moves`; `careful`: the action asks for a second, deliberate
    press (phantom power).
    """

    rule: str
    tone: Literal["settle", "note"]
    says: str
    about: str
    remedy: str = ""
    moves: Mapping[str, Asked] = field(default_factory=dict, hash=False)
    careful: bool = False


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

    def has_preamp(self, socket: str) -> bool:
        """Whether a socket is an input with a preamp."""
        box = self.show.desk.box(Thing.at(socket).box) if of_kind(socket) == "input" else None
        return box is not None and box.preamps


Rule = Callable[[Look], Iterable[Finding]]
