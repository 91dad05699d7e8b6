"""What DCAs and mute groups make of strips: messages, and what fills them."""

from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel

from ombrel import core

from ..keeping.states import State
from .hears import (
    level_to_wire,
)

__all__ = ["RuledMessage", "RuledStrip", "Unfolded", "ruled_message", "unfolded_message"]


class RuledStrip(BaseModel):
    """What a strip or DCA truly comes to: the DCAs that rule it, by way of others too; its level in

    dB (null: off); the DCAs that are away from 0 dB with what they add; addresses of what mutes it.
    """

    by: list[str]
    level_db: float | None
    parts: list[tuple[str, float | None]]
    muted: list[str]


class RuledMessage(BaseModel):
    """What strips come to that something rules; null: nothing rules it any more.

    `whole`: these are all; else only those that moved.
    """

    type: Literal["ruled"]
    revision: int
    whole: bool
    strips: dict[str, RuledStrip | None]


class Unfolded(BaseModel):
    """What unfolds of a DCA, group or mix: the strips that lie on the bay then."""

    type: Literal["unfolded"]
    revision: int
    strips: dict[str, list[str]]


def ruled_message(state: State, strips: Sequence[str] | None = None) -> dict:
    """What ruled strips come to: some of them, or all (None)."""
    show = state.show
    silenced = set(core.silenced_by_solo(show, state.flow))
    ruled = core.ruled_strips(show) if strips is None else strips
    every = [*ruled, *silenced.difference(ruled)] if strips is None else ruled
    found: dict[str, RuledStrip | None] = {}
    for strip in every:
        by = core.ruled(show, strip)
        found[strip] = RuledStrip(
            by=list(by.by),
            level_db=level_to_wire(by.level_db),
            parts=[(dca, level_to_wire(level_db)) for dca, level_db in by.parts],
            muted=[*by.muted, *(["show/solo"] if strip in silenced else [])],
        )
    return RuledMessage(
        type="ruled", revision=state.revision, whole=strips is None, strips=found
    ).model_dump(mode="json")


def unfolded_message(state: State, things: Sequence[str]) -> dict:
    """What unfolds of some DCAs, groups and mixes. Raises UnknownAddress."""
    return {
        "type": "unfolded",
        "revision": state.revision,
        "strips": {thing: core.unfolded(state.show, thing) for thing in things},
    }
