"""The ask that most are: values at addresses, by a hand or without one."""

from collections.abc import Hashable
from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, STORABLE, Address, AskedMove, Strict, moves_from_wire
from .plans import Planned, Turn

__all__ = ["ByHand", "Moves"]

_MOST_JOINED = 16  # addresses of one place of a hand: more is no drag


class ByHand(Strict):
    """That an edit is a hand's, so that gangs follow it. `alone`: its key is held, and they do not.

    `beside`: strips taken together with it, one more gang for this gesture. `stays`: the hand stays
    where it is, until it lets go. `sure`: what its gangs make of it was shown beforehand.
    """

    alone: bool = False
    beside: Annotated[list[Address], Field(max_length=MOST_STRIPS)] = []
    stays: bool = False
    sure: bool = False


class Moves(Strict):
    """Put values at addresses. Without a hand the edit is complete in itself."""

    action: Literal["moves"]
    moves: Annotated[list[AskedMove], Field(min_length=1, max_length=20_000)]
    says: Annotated[str, Field(max_length=120, pattern=STORABLE)] = ""
    by_hand: ByHand | None = None
    remedy: bool = False  # one of Ombrel's own: what else it moves far is shown first

    def joins(self) -> Hashable | None:
        """What is alike in places of one hand, of which a later one does for an earlier one; None:

        this is none, but a step, a typed text, or what may be asked back about. Nor is "off": what
        goes off keeps the place from which it went, so it does for no earlier one.
        """
        hand = self.by_hand
        placed = all(
            move.typed is None and (move.value is not None if not move.travel else move.travel > 0)
            for move in self.moves
        )
        if self.remedy or not placed or len(self.moves) > _MOST_JOINED:
            return None
        if hand is not None and not hand.stays:
            return None
        alike = None if hand is None else (hand.alone, tuple(hand.beside), hand.sure)
        return self.says, alike, tuple(move.address for move in self.moves)

    def plan(self, turn: Turn) -> Planned:
        moves = core.meant(turn.show, core.unguarded(moves_from_wire(self.moves)))
        hand = self.by_hand
        if hand is None:
            return Planned(moves, self.says, remedy=self.remedy)
        carry = core.Carry(alone=hand.alone, passing=tuple(hand.beside))
        return Planned(moves, self.says, carry=carry, in_hand=hand.stays, sure=hand.sure)
