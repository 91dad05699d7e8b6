"""Outputs and mixes that miss one another."""

from collections.abc import Iterator

from ..errors import NothingLeft
from ..flow import strip_name
from ..outputs import outputs_of, patch_bus
from ..sockets import socket_name
from .rule import Finding, Look

__all__ = ["mix_that_goes_nowhere", "output_taken_by_nothing"]


def mix_that_goes_nowhere(look: Look) -> Iterator[Finding]:
    """A mix in use that no output carries; the remedy patches it to the next free."""
    show = look.show
    for number in show.mixes():
        bus = f"mix/{number}"
        if outputs_of(show, bus):
            continue
        try:
            stereo = show.text(f"{bus}/format") == "stereo"
            moves, remedy = patch_bus(show, bus, stereo=stereo), "Patch it to the next free"
        except NothingLeft:
            moves, remedy = {}, ""
        yield Finding(
            rule="mix_that_goes_nowhere",
            tone="settle",
            says=f"{strip_name(show, bus)} goes to no output.",
            about=bus,
            remedy=remedy,
            moves=moves,
        )


def output_taken_by_nothing(look: Look) -> Iterator[Finding]:
    """An output where something is connected and nothing is sent."""
    show = look.show
    for socket in show.outputs():
        label = show.text(f"{socket}/label")
        connected = label or show.text(f"{socket}/device") != "none"
        if connected and show[f"{socket}/source"] is None:
            what = label or show.text(f"{socket}/device").replace("_", " ")
            yield Finding(
                rule="output_taken_by_nothing",
                tone="note",
                says=f"{what} is connected to {socket_name(show.desk, socket)}, which carries"
                " nothing.",
                about=socket,
            )
