"""What a performer's phone can ask of its mix: a family, one strip, a place, the whole of it.

No ask names an address: each is a mix, what it is of, and where it is to stand; the core makes
moves of it, and the door holds them against the link.
"""

from collections.abc import Hashable
from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import Address, Finite, Strict
from .plans import Planned, Turn

__all__ = ["PhoneAsk"]

OFF = -float("inf")
# of a fader: places lie past the ends of ranges, by as much as sends stand apart
Place = Annotated[Finite, Field(ge=-400.0, le=400.0)]


def _check_mix(turn: Turn, mix: str) -> None:
    """Raises NotYours for what is no mix in use: the door knows which are the link's."""
    if core.of_kind(mix) != "mix" or not turn.show.uses(mix):
        raise core.NotYours(mix)


def _what(turn: Turn, mix: str, of: str) -> str:
    name = core.strip_name(turn.show, of) if "/" in of else of
    return f"{core.strip_name(turn.show, mix)}, {name}"


class ToPlace(Strict):
    """Put a family, all that is shown ("everything"), or one strip to a place of its fader, in dB

    (null: off).
    """

    action: Literal["to_place"]
    mix: Address
    of: Address
    place: Place | None

    def joins(self) -> Hashable:
        return ("to_place", self.mix, self.of)

    def plan(self, turn: Turn) -> Planned:
        _check_mix(turn, self.mix)
        place = OFF if self.place is None else self.place
        moves = core.phone_family(turn.show, self.mix, self.of, place)
        return Planned(moves, f"{_what(turn, self.mix, self.of)} moved", seconds=turn.still(moves))


class ToStart(Strict):
    """Bring a family, everything or one strip back to its start."""

    action: Literal["to_start"]
    mix: Address
    of: Address

    def joins(self) -> None:
        return None

    def plan(self, turn: Turn) -> Planned:
        _check_mix(turn, self.mix)
        moves = core.phone_start(turn.show, self.mix, self.of)
        return Planned(
            moves, f"{_what(turn, self.mix, self.of)} at the start", seconds=turn.still(moves)
        )


class ToPan(Strict):
    """Put one strip to a place in a stereo mix."""

    action: Literal["to_pan"]
    mix: Address
    of: Address
    pan: Annotated[Finite, Field(ge=-1.0, le=1.0)]

    def joins(self) -> Hashable:
        return ("to_pan", self.mix, self.of)

    def plan(self, turn: Turn) -> Planned:
        _check_mix(turn, self.mix)
        moves = core.phone_pan(turn.show, self.mix, self.of, self.pan)
        return Planned(moves, f"{_what(turn, self.mix, self.of)} placed", seconds=turn.still(moves))


class ToLevel(Strict):
    """Put the mix's own fader to a level (null: off), or move it by a step, below its ceiling."""

    action: Literal["to_level"]
    mix: Address
    level: Annotated[Finite, Field(ge=-200.0, le=20.0)] | None = None
    by: Annotated[Finite, Field(ge=-20.0, le=20.0)] = 0.0

    def joins(self) -> Hashable:
        return None if self.by else ("to_level", self.mix)

    def plan(self, turn: Turn) -> Planned:
        _check_mix(turn, self.mix)
        if self.by:
            moves = core.phone_louder(turn.show, self.mix, by_db=self.by)
        else:
            to_db = OFF if self.level is None else self.level
            moves = core.phone_louder(turn.show, self.mix, to_db=to_db)
        name = core.strip_name(turn.show, self.mix)
        return Planned(moves, f"{name} moved as a whole", seconds=turn.still(moves))


PhoneAsk = Annotated[ToPlace | ToStart | ToPan | ToLevel, Field(discriminator="action")]
