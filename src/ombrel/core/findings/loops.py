"""Strips that feed one another nearly loud enough to howl."""

from collections.abc import Iterator
from typing import Final

from ..flow import loudest_loop, strip_name
from ..values import said
from .rule import Finding, Look

__all__ = ["loop_near_howling"]

_MOST_NAMED: Final = 4  # strips that are named beside a loop
_FROM_DB: Final = -6.0  # from here up a loop colours what passes it, and a small move makes it howl


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
