"""A wish taken apart: what some of its words may name, list, or be worth."""

import re
from collections.abc import Collection, Iterator, Sequence
from functools import cached_property
from typing import Final

from ..catalogue import FAMILIES
from ..flow import Flow, strip_name
from ..show import Show, TypedStrips, strips_text, typed_strips
from ..values import ConsoleError, plain
from .things import Named, Things
from .words import BETWEEN, SETTING

__all__ = ["Wish"]

_PLUGGED: Final = 2.0  # a box and a number are one socket, rather than two names
_LIST: Final = re.compile(r"\d\s*[-\u2013]\s*\d|[,;]|\bexcept\b|\ball\b|s$")


def _joined(words: Sequence[str], places: Collection[str]) -> list[str]:
    """A box and the number behind it as one, as sockets are spelt; nothing where none stands so.

    >>> _joined(["harbour", "11"], ["harbour"]), _joined(["fiddle", "11"], ["harbour"])
    (['harbour11'], [])
    """
    joined: list[str] = []
    for word in words:
        if joined and word.isdigit() and joined[-1] in places:
            joined[-1] += word
        else:
            joined.append(word)
    return joined if len(joined) < len(words) else []


class Wish:
    """What was typed, taken apart: `words` as typed, `plain` as they are compared."""

    def __init__(self, show: Show, flow: Flow, things: Things, words: Sequence[str]) -> None:
        self.show, self.flow, self.things = show, flow, things
        self.words = tuple(words)
        self.plain = tuple(plain(word) for word in words)
        self._lists: dict[str, TypedStrips | None] = {}
        self._places = frozenset(plain(box.short) for box in show.desk.boxes)

    def without(self, start: int, end: int) -> list[int]:
        """Which words are left when some are taken away."""
        return [*range(start), *range(end, len(self.words))]

    def named(self, at: Sequence[int]) -> tuple[tuple[float, Named], ...]:
        """What some of the words may name and how well, the best first."""
        said = [self.plain[n] for n in at if self.plain[n] and self.plain[n] not in BETWEEN]
        apart = [word for one in said for word in ([one] if one[0].isdigit() else one.split())]
        called = self.things.called(apart)
        sockets = self.things.called(_joined(apart, self._places))
        if not sockets:
            return called
        at_socket = {one.at for _, one in sockets}
        others = [pair for pair in called if pair[1].at not in at_socket]
        return tuple(sorted([*((rank + _PLUGGED, one) for rank, one in sockets), *others],
                            key=lambda pair: -pair[0]))  # fmt: skip

    def pairs(self, but: Collection[int] = ()) -> Iterator[tuple[float, Named, Named]]:
        """Two things that the words name, parted at any place, and how well: as the worse does."""
        at = [n for n in range(len(self.words)) if n not in but]
        for cut in range(1, len(at)):
            first, second = self.named(at[:cut])[:3], self.named(at[cut:])[:3]
            for rank, one in first:
                for other_rank, other in second:
                    if one.at != other.at:
                        worse, better = sorted((rank, other_rank))
                        fits = worse + 0.25 * (better - worse) - 0.6
                        yield fits, one, other
                        yield fits, other, one

    def strips(self, at: Sequence[int]) -> TypedStrips | None:
        """Some of the words as a typed list of strips: several, or none."""
        text = " ".join(self.words[n] for n in at if self.words[n].lower() not in SETTING)
        if text not in self._lists:
            self._lists[text] = self._listed(text) if self._is_list(text) else None
        return self._lists[text]

    def _is_list(self, text: str) -> bool:
        """Whether a text can be several strips at all: most are not, and are asked for often."""
        small = plain(text)
        return bool(_LIST.search(text.lower())) or small in FAMILIES or small in self.things.people

    def _listed(self, text: str) -> TypedStrips | None:
        try:
            read = typed_strips(self.show, text)
        except ConsoleError:
            return None
        return read if len(read.strips) > 1 else None

    def listed(self, strips: Sequence[str]) -> str:
        """How a list of strips is called: by their names while they are few."""
        names = [strip_name(self.show, one) for one in strips]
        if len(names) <= 3:
            return ", ".join(names)
        return f"{len(names)} strips ({strips_text(strips)})"

    @cached_property
    def values(self) -> list[tuple[int, int, str]]:
        """Where a value may stand: from which word to which (not with), and its text."""
        found = []
        for start, word in enumerate(self.words):
            small = word.lower()
            if small in ("up", "down", "left", "right", "raise", "lower") and start + 1 < len(
                self.words
            ):
                way = {"raise": "up", "lower": "down"}.get(small, small)
                end = start + 3 if self._unit(start + 2) else start + 2
                text = " ".join((way, *self.words[start + 1 : end]))
                found.append((start, end, text))
            if any(letter.isdigit() for letter in word):
                end = start + 2 if self._unit(start + 1) else start + 1
                found.append((start, end, "".join(self.words[start:end])))
            elif small in ("left", "right"):
                found.append((start, start + 1, small[0]))
            elif small in ("off", "on", "c", "centre", "center") or start:
                found.append((start, start + 1, word))
        return found

    def _unit(self, at: int) -> bool:
        return at < len(self.words) and self.words[at].lower() in ("db", "ms", "hz", "khz", "m")
