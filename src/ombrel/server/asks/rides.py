"""What a volunteer's page can ask for: a given fader to a level, a mute's key, a singer lifted.

The core holds each against what was given, and the door does so again by what it comes to.
"""

from collections.abc import Collection, Hashable
from typing import Annotated, Literal

from pydantic import Field

from ombrel import core
from ombrel.core import Given

from .asking import Address, Finite, Strict
from .plans import Planned, Turn

__all__ = ["RideAsk"]


class RideFader(Strict):
    """Put a fader to a level, in dB (null: off), no further than its ends."""

    action: Literal["ride_fader"]
    what: Address
    level: Annotated[Finite, Field(ge=-200.0, le=20.0)] | None

    def joins(self) -> Hashable | None:
        return None if self.level is None else ("ride_fader", self.what)

    def plan(self, turn: Turn, given: Collection[Given]) -> Planned:
        to_db = -float("inf") if self.level is None else self.level
        moves = core.ride_fader(turn.show, given, self.what, to_db)
        return Planned(moves, carry=core.Carry(), in_hand=True)


class RideKey(Strict):
    """Press a mute's key."""

    action: Literal["ride_key"]
    what: Address
    on: bool

    def joins(self) -> None:
        return None

    def plan(self, turn: Turn, given: Collection[Given]) -> Planned:
        return Planned(core.ride_key(given, self.what, on=self.on), carry=core.Carry())


class RideLift(Strict):
    """Lift a singer, or return them, over the time that the lift takes."""

    action: Literal["ride_lift"]
    what: Address
    strip: Address
    on: bool

    def joins(self) -> None:
        return None

    def plan(self, turn: Turn, given: Collection[Given]) -> Planned:
        moves = core.ride_lift(turn.show, given, self.what, self.strip, on=self.on)
        name = core.strip_name(turn.show, self.strip)
        seconds = turn.show.number(f"{self.what}/seconds")
        return Planned(moves, f"{name} {'lifted' if self.on else 'back'}"[:120], seconds=seconds)


RideAsk = Annotated[RideFader | RideKey | RideLift, Field(discriminator="action")]
