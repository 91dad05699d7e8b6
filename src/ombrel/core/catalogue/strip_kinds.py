"""The kinds of strip: what each is, what it feeds and how, and what it can. One table for all."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final, Literal

from .choices import TAPS
from .desk import Desk

__all__ = [
    "ALONE",
    "ASSIGNED_TO",
    "BUSES",
    "BUS_TAPS",
    "CROSSED",
    "FORMATTED",
    "KINDS",
    "PAIRED",
    "SENDERS",
    "SENT_TO",
    "SHARERS",
    "SOURCES",
    "STRIP_KINDS",
    "StripKind",
    "direct_taps",
    "pattern_of",
    "strips_of",
]

FeedKind = Literal["assign", "send"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StripKind:
    """A kind of strip. `key`: its addresses begin so. `alone`: a desk has one, without a number.

    `sides`: how many it has; None: as many as its format says, none while it is not in use.
    `feeds`: the kinds of bus that it may feed, by an assignment (on or off, with the strip's own
    pan) or by a send (level, tap and pan of its own). `source`: it takes one, and stands among the
    rows of who hears what. `pairs`: an odd one can be linked with the even one above it. `gate`:
    it has one. `crossed`: the crossover between house and mono lies in it. `public`: an audience
    hears it, whatever it serves. `shares`: one of one side can share gain with others. `used_by`:
    leaves of which any that is set puts it in use; none: it always is.
    """

    key: str
    alone: bool = False
    sides: int | None = None
    feeds: Mapping[str, FeedKind] = field(default_factory=dict)
    source: bool = False
    pairs: bool = False
    gate: bool = False
    crossed: bool = False
    public: bool = False
    shares: bool = False
    used_by: tuple[str, ...] = ()


_OF_SOURCES: Final[Mapping[str, FeedKind]] = {
    "group": "assign",
    "house": "assign",
    "mono": "assign",
    "mix": "send",
}
_OF_SOURCE: Final = ("source", "spare", "name")
_OF_FORMAT: Final = ("format",)
_INTO_MATRICES: Final[Mapping[str, FeedKind]] = {"matrix": "send"}

# in the order of a desk's strips
KINDS: Final = {
    kind.key: kind
    for kind in (
        StripKind(
            key="channel",
            sides=1,
            feeds=_OF_SOURCES,
            source=True,
            pairs=True,
            gate=True,
            shares=True,
            used_by=_OF_SOURCE,
        ),
        StripKind(key="return", sides=2, feeds=_OF_SOURCES, source=True, used_by=_OF_SOURCE),
        StripKind(
            key="group",
            feeds={**_OF_SOURCES, "matrix": "send"},
            shares=True,
            used_by=_OF_FORMAT,
        ),
        StripKind(key="mix", feeds=_INTO_MATRICES, pairs=True, shares=True, used_by=_OF_FORMAT),
        StripKind(
            key="house", alone=True, sides=2, feeds=_INTO_MATRICES, crossed=True, public=True
        ),
        StripKind(
            key="mono",
            alone=True,
            sides=1,
            feeds=_INTO_MATRICES,
            crossed=True,
            public=True,
            shares=True,
        ),
        StripKind(key="matrix", public=True, shares=True, used_by=_OF_FORMAT),
    )
}
STRIP_KINDS: Final = tuple(KINDS)
ALONE: Final = tuple(key for key, kind in KINDS.items() if kind.alone)
SOURCES: Final = tuple(key for key, kind in KINDS.items() if kind.source)
FORMATTED: Final = tuple(key for key, kind in KINDS.items() if kind.sides is None)
SENDERS: Final = tuple(key for key, kind in KINDS.items() if kind.feeds.get("mix") == "send")
SHARERS: Final = tuple(key for key, kind in KINDS.items() if kind.shares)
PAIRED: Final = tuple(key for key, kind in KINDS.items() if kind.pairs)
BUSES: Final = tuple(key for key, kind in KINDS.items() if not kind.source)
# what takes strips by assignments, and by sends with a level of their own
ASSIGNED_TO: Final = frozenset(
    bus for kind in KINDS.values() for bus, way in kind.feeds.items() if way == "assign"
)
SENT_TO: Final = frozenset(
    bus for kind in KINDS.values() for bus, way in kind.feeds.items() if way == "send"
)
BUS_TAPS: Final = TAPS[TAPS.index("before_fader") :]
CROSSED: Final = tuple(key for key, kind in KINDS.items() if kind.crossed)


def direct_taps(desk: Desk, kind: str) -> tuple[str, ...]:
    """Where outputs of a desk can take a strip of a kind, in the order of its path.

    A bus has no input, low cut or gate of its own to be tapped before.
    """
    return {"channel": desk.direct_channels, "return": desk.direct_returns}.get(kind, BUS_TAPS)


def pattern_of(kind: str) -> str:
    """How the catalogue writes strips of a kind.

    >>> pattern_of("channel"), pattern_of("house")
    ('channel/<channel>', 'house')
    """
    return kind if kind in ALONE else f"{kind}/<{kind}>"


def strips_of(desk: Desk, *kinds: str) -> list[str]:
    """All strips of some kinds (or numbered things such as DCAs) that a desk has, kind by kind."""
    found: list[str] = []
    for kind in kinds:
        if kind in ALONE:
            found.append(kind)
        else:
            found += [f"{kind}/{number}" for number in range(1, desk.count(kind) + 1)]
    return found
