"""What a screen can ask of strips: settings copied to others, or put back to neutral."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["CopyStrip", "Neutral"]

Aspects = Annotated[list[Typing], Field(min_length=1, max_length=12)]


class CopyStrip(Strict):
    """Copy aspects of a strip to others, as typed ("1-8, mix 2")."""

    action: Literal["copy_strip"]
    strip: Address
    to: Typing
    aspects: Aspects

    def plan(self, turn: Turn) -> Planned:
        targets = core.read_strips(turn.show, self.to, dcas=False)
        moves = core.copied(turn.show, self.strip, targets, self.aspects)
        words = ", ".join(aspect.replace("_", " ") for aspect in self.aspects)
        name = core.strip_name(turn.show, self.strip)
        return Planned(moves, f"{words} of {name} to {core.strips_text(targets)}"[:120])


class Neutral(Strict):
    """Put aspects of strips back to neutral."""

    action: Literal["neutral"]
    strips: Annotated[list[Address], Field(min_length=1, max_length=MOST_STRIPS)]
    aspects: Aspects

    def plan(self, turn: Turn) -> Planned:
        moves = core.neutral(turn.show, self.strips, self.aspects)
        words = ", ".join(aspect.replace("_", " ") for aspect in self.aspects)
        name = core.strip_name(turn.show, self.strips[0])
        return Planned(moves, f"{name}: {words} neutral")
