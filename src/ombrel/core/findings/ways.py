"""Ways that lead round nearly loud enough to howl, and ways that arrive apart: the sum combs."""

from collections.abc import Iterator
from itertools import groupby
from typing import Final

from ..edit import edited
from ..flow import listener_name, loudest_loop, strip_name
from ..strips import aligned, apart
from ..values import Asked, ConsoleError, bare, said, said_hz, said_ms
from .rule import Finding, Look

__all__ = ["loop_near_howling", "ways_apart"]

_MOST_NAMED: Final = 4  # strips that are named beside a loop
_FROM_DB: Final = -6.0  # from here up a loop colours what passes it, and a small move makes it howl
_ECHO_MS = 40.0  # from here on two are heard, not one with a colour (common practice)
_MOST = 8  # buses of which it is told


def loop_near_howling(look: Look) -> Iterator[Finding]:
    """The loudest loop of the show, from -6 dB once around, by all its ways together.

    0 dB and above is refused.
    """
    loop = loudest_loop(look.flow)
    if loop is None or loop.gain_db < _FROM_DB:
        return
    walked = ", ".join(strip_name(look.show, node) for node in loop.nodes)
    if loop.beside:
        others = [strip_name(look.show, node) for node in loop.beside]
        more = [f"{len(others) - _MOST_NAMED} more"] if len(others) > _MOST_NAMED else []
        walked = f"{walked}, with what comes back by {', '.join([*others[:_MOST_NAMED], *more])}"
    gain = said(loop.gain_db) if loop.gain_db <= -0.05 else "just below 0"
    yield Finding(
        rule="loop_near_howling",
        tone="settle",
        says=f"{walked}: a loop of {gain} dB once around; it howls at 0 dB.",
        about=loop.nodes[0],
    )


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
