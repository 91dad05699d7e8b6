"""A promise that the show breaks."""

from collections.abc import Iterator

from ..answers import promises
from ..catalogue import of_kind
from .rule import Finding, Look

__all__ = ["promise_broken"]


def promise_broken(look: Look) -> Iterator[Finding]:
    """One finding a promise: its first breach, and what closes it where that is all there is."""
    for one in promises(look.show, look.flow) if _any(look) else ():
        if one.kept:
            continue
        first, more = one.breaches[0], len(one.breaches) - 1
        says = f"Promise broken: {one.says}. {first.says}"
        if more:
            says += f" So do {more} more."
        remedy = first.remedies[0] if first.remedies and not more else None
        yield Finding(
            rule="promise_broken",
            tone="settle",
            says=says,
            about=one.promise,
            remedy=remedy.says if remedy else "",
            moves=remedy.moves if remedy else {},
        )


def _any(look: Look) -> bool:
    """Whether there is a promise: else nothing of the flow is asked for."""
    return any(of_kind(address) == "promise" for address in look.show.values)
