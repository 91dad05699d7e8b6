"""What a screen can ask of the whole show: what cells hear, and a point to go back to."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["WholeAsk"]


class HearCell(Strict):
    """One cell of who hears what."""

    source: Address
    listener: Address


class Hear(Strict):
    """Let cells of who hears what arrive at a level as typed."""

    action: Literal["hear"]
    cells: Annotated[list[HearCell], Field(min_length=1, max_length=10_000)]
    typed: Typing

    def plan(self, turn: Turn) -> Planned:
        cells = [(cell.source, cell.listener) for cell in self.cells]
        moves = core.hear(turn.show, turn.flow, cells, self.typed)
        return Planned(moves, carry=core.Carry())


class BackTo(Strict):
    """Bring the show back to how it stood after a revision: whole, or only some strips."""

    action: Literal["back_to"]
    revision: int
    strips: Annotated[list[Address], Field(max_length=MOST_STRIPS)] = []
    name: Typing = ""

    reads_log: ClassVar[bool] = True

    def plan(self, turn: Turn) -> Planned:
        moves = core.restored(turn.show, turn.at(self.revision), self.strips)
        where = self.name or f"change {self.revision}"
        names = ", ".join(core.strip_name(turn.show, strip) for strip in self.strips[:4])
        more = f" and {len(self.strips) - 4} more" if len(self.strips) > 4 else ""
        words = f"{names}{more} back to {where}" if names else f"Back to {where}"
        return Planned(moves, words, own=True)


WholeAsk = Hear | BackTo
