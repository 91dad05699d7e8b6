"""Outputs and mixes that miss one another."""

from collections.abc import Iterator, Mapping
from contextlib import suppress

from ..catalogue import STRIP_KINDS, Address, of_kind, option_text, thing_of
from ..flow import strip_name
from ..patching import goes_somewhere, patch_missing
from ..show import Show, socket_name
from ..values import Asked, NothingLeft
from .rule import Finding, Look

__all__ = ["mix_that_goes_nowhere", "output_taken_by_nothing"]


def mix_that_goes_nowhere(look: Look) -> Iterator[Finding]:
    """A mix or matrix in use that nothing carries; the remedy patches it to the next free."""
    show = look.show
    for bus in show.in_use("mix") + show.in_use("matrix"):
        if goes_somewhere(show, bus) or _is_taken(show, bus):
            continue
        moves: Mapping[str, Asked] = {}
        remedy = ""
        serves_effect = of_kind(bus) == "mix" and show[f"{bus}/serves"] == "effect"
        if not serves_effect:
            with suppress(NothingLeft):
                moves, remedy = patch_missing(show, bus), "Patch it to the next free"
        nowhere = "feeds no effect engine" if serves_effect else "goes to no output"
        yield Finding(
            rule="mix_that_goes_nowhere",
            tone="settle",
            says=f"{strip_name(show, bus)} {nowhere}.",
            about=bus,
            remedy=remedy,
            moves=moves,
        )


def _is_taken(show: Show, bus: str) -> bool:
    """Whether something takes a bus as its source or its key."""
    return any(
        isinstance(value, str)
        and thing_of(value) == bus
        and Address.at(address).last in ("source", "spare", "key")
        for address, value in show.values.items()
        if of_kind(address) in STRIP_KINDS
    )


def output_taken_by_nothing(look: Look) -> Iterator[Finding]:
    """An output where something is connected and nothing is sent."""
    show = look.show
    for socket in show.outputs():
        label = show.text(f"{socket}/label")
        connected = label or show.text(f"{socket}/device") != "none"
        if connected and show[f"{socket}/source"] is None:
            what = label or option_text(show.text(f"{socket}/device"))
            yield Finding(
                rule="output_taken_by_nothing",
                tone="note",
                says=f"{what} is connected to {socket_name(show.desk, socket)}, which carries"
                " nothing.",
                about=socket,
            )
