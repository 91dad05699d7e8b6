"""What a screen can ask of banks."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import Strict, Typing
from .plans import Planned, Turn

__all__ = ["BankAsk"]


class MakeBanks(Strict):
    """Name the next free banks."""

    action: Literal["make_banks"]
    names: Annotated[list[Typing], Field(min_length=1, max_length=core.BANKS)]

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.make_banks(turn.show, self.names), ", ".join(self.names[:4]))


class FillBay(Strict):
    """Put strips as typed on a bank's bay, from the left; nothing empties it."""

    action: Literal["fill_bay"]
    bank: int
    bay: int
    strips: Typing

    def plan(self, turn: Turn) -> Planned:
        moves = core.fill_bay(turn.show, self.bank, self.bay, self.strips)
        return Planned(moves, f"Bank {self.bank}: {self.strips or 'empty'}"[:120])


class FixStrips(Strict):
    """Fix strips as typed at the right of a bay, on every bank; nothing frees it."""

    action: Literal["fix_strips"]
    bay: int
    strips: Typing

    def plan(self, turn: Turn) -> Planned:
        moves = core.fix_strips(turn.show, self.bay, self.strips)
        return Planned(moves, f"Fixed: {self.strips or 'nothing'}"[:120])


class ClearBank(Strict):
    """Take a bank's name and strips away."""

    action: Literal["clear_bank"]
    bank: int

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.clear_bank(turn.show, self.bank), f"Bank {self.bank} cleared")


BankAsk = MakeBanks | FillBay | FixStrips | ClearBank
