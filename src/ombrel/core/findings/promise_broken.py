"""A promise that the show breaks."""

from collections.abc import Iterator

from ..answers import newly_broken, promises
from ..catalogue import of_kind
from ..edit import edited
from ..flow import strip_name
from ..jobs import all_lifted, lifts_in_use
from ..values import ConsoleError
from .rule import Finding, Look

__all__ = ["lift_breaks_promise", "promise_broken"]


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


def lift_breaks_promise(look: Look) -> Iterator[Finding]:
    """A promise that stands until somebody is lifted: the lead group goes by another way."""
    show = look.show
    for lift in lifts_in_use(show) if _any(look) else ():
        try:
            after = edited(show, look.flow, all_lifted(show, lift), own=True)
        except ConsoleError:  # it would close a loop: the lift says so itself
            continue
        for broken in newly_broken(show, look.flow, after.show, after.flow)[:1]:
            yield Finding(
                rule="lift_breaks_promise",
                tone="settle",
                says=f"A key of {strip_name(show, lift)} breaks a promise. {broken}",
                about=lift,
            )


def _any(look: Look) -> bool:
    """Whether there is a promise: else nothing of the flow is asked for."""
    return any(of_kind(address) == "promise" for address in look.show.values)
