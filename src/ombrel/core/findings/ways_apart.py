"""A source that arrives twice, one way later than the other: the sum combs."""

from collections.abc import Iterator
from itertools import groupby

from ..edit import edited
from ..flow import listener_name, strip_name
from ..strips import aligned, apart
from ..values import Asked, ConsoleError, bare, said, said_hz, said_ms
from .rule import Finding, Look

__all__ = ["ways_apart"]

_ECHO_MS = 40.0  # from here on two are heard, not one with a colour (common practice)
_MOST = 8  # buses of which it is told


def ways_apart(look: Look) -> Iterator[Finding]:
    """One finding a bus, about all sources that arrive there so; the remedy lets one way wait."""
    if not look.lines:
        return
    show = look.show
    column = look.flow.layout.column
    found = sorted(apart(show, look.flow), key=lambda one: column(one.bus))
    by_bus = groupby(found, lambda one: one.bus)
    for turn, (bus, sources) in enumerate(by_bus):
        if turn == _MOST:
            break
        each = sorted(sources, key=lambda one: -one.by_ms)
        first, more = each[0], len(each) - 1
        name, where = strip_name(show, first.source), listener_name(show, bus)
        heard = f"the sum combs from {said_hz(first.comb_hz)} up"
        if first.by_ms > _ECHO_MS:
            heard = "it is heard twice"
        others = f" and {more} more" if more else ""
        wait = aligned(show, look.flow, first.source, bus)
        moves: dict[str, Asked] = {}
        if wait:
            moves = {f"{wait[0]}/delay/on": True, f"{wait[0]}/delay/ms": wait[1]}
        if not moves or not _settles(look, moves, first.source, bus):
            wait, moves = None, {}  # other ways of it would be apart as before
        yield Finding(
            rule="ways_apart",
            tone="note",
            says=f"{name}{others} {'reach' if more else 'reaches'} {where} by ways"
            f" {said_ms(first.by_ms)} apart: {heard}.",
            about=bus,
            remedy=f"Delay {strip_name(show, wait[0])} by {bare(said(wait[1], 2))} ms"
            if wait
            else "",
            moves=moves,
        )


def _settles(look: Look, moves: dict[str, Asked], source: str, bus: str) -> bool:
    """Whether all ways of a source reach a bus together after some moves."""
    try:
        after = edited(look.show, look.flow, moves)
    except ConsoleError:
        return False
    left = {(one.source, one.bus) for one in apart(after.show, after.flow)}
    return (source, bus) not in left
