"""Outputs and mixes that miss one another, or whom they are for."""

from collections.abc import Iterator, Mapping
from contextlib import suppress
from typing import Final

import numpy as np

from ..catalogue import STRIP_KINDS, Address, Thing, of_kind, option_text, thing_of
from ..ears import cues_missing, selves_of
from ..flow import State, source_name, strip_name
from ..jobs import NEW_MIX, ear_mixes
from ..patching import goes_somewhere, patch_missing
from ..show import Show, socket_name
from ..values import Asked, NothingLeft
from .rule import Finding, Look

__all__ = ["cue_missing", "mix_that_goes_nowhere", "output_taken_by_nothing", "self_missing"]

_UNROUTED: Final = (State.UNROUTED, State.NO_SOURCE)


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


def self_missing(look: Look) -> Iterator[Finding]:
    """One finding a mix that something is sent to, and none of whom it is for; the remedy sends

    them at the level of a new mix.
    """
    show = look.show
    for mix in ear_mixes(show):
        own = [one for one in selves_of(show, mix) if show.source_of(Thing.at(one).number)]
        if not own or any(_routed(look, one, mix) for one in own):
            continue
        if not _is_begun(look, mix):
            continue
        names = " and ".join(source_name(show, one) for one in own[:2])
        moves: dict[str, Asked] = {}
        for one in own:
            send = f"{one}/send/{mix}"
            moves |= {f"{send}/on": True, f"{send}/level": NEW_MIX.level_db}
        yield Finding(
            rule="self_missing",
            tone="note",
            says=f"{names} {'is' if len(own) == 1 else 'are'} not sent to {strip_name(show, mix)},"
            " whose ears it is for.",
            about=mix,
            remedy=f"Send {names} at {NEW_MIX.level_db:+g} dB".replace("-", "\u2212"),
            moves=moves,
        )


def cue_missing(look: Look) -> Iterator[Finding]:
    """One finding a mix whose start or recipe has a cue that reaches it no more."""
    show = look.show
    for mix in ear_mixes(show):
        if lacking := cues_missing(show, look.flow, mix):
            names = ", ".join(source_name(show, one) for one in lacking[:3])
            yield Finding(
                rule="cue_missing",
                tone="settle",
                says=f"{names} does not reach {strip_name(show, mix)}, which counts on it.",
                about=mix,
            )


def _is_begun(look: Look, mix: str) -> bool:
    """Whether anything at all is routed to a mix."""
    states = look.flow.state[:, look.flow.layout.column(mix)]
    return not bool(np.isin(states, _UNROUTED).all())


def _routed(look: Look, source: str, mix: str) -> bool:
    """Whether some way leads there by feeds that are on, whatever mutes and faders do."""
    return look.flow.state_of(source, mix) not in _UNROUTED
