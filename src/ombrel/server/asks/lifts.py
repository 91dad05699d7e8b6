"""What a screen can ask of lifts: made, pressed, trimmed; a mix of all but somebody."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["LiftAsk"]


class MakeLift(Strict):
    """Make a lift of singers, as typed. `backing`: a group that there is; None makes one."""

    action: Literal["make_lift"]
    name: Annotated[str, Field(max_length=50)]
    strips: Typing = ""
    backing: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        strips = core.read_strips(turn.show, self.strips, dcas=False) if self.strips else []
        moves = core.make_lift(turn.show, strips, name=self.name, backing=self.backing)
        return Planned(moves, f"Lift of {self.name} made"[:120])


class SetSingers(Strict):
    """Who can be lifted, as typed; nothing typed: all that go into the backing group."""

    action: Literal["set_singers"]
    lift: Address
    strips: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        typed = self.strips.strip()
        strips = core.read_strips(turn.show, typed, dcas=False) if typed else []
        moves = core.set_singers(turn.show, self.lift, strips)
        name = turn.show.text(f"{self.lift}/name")
        return Planned(moves, f"Singers of {name}: {core.strips_text(strips) or 'all'}"[:120])


class RemoveLift(Strict):
    """Give up a lift; its groups stay."""

    action: Literal["remove_lift"]
    lift: Address

    def plan(self, turn: Turn) -> Planned:
        name = turn.show.text(f"{self.lift}/name")
        return Planned(core.remove_lift(turn.show, self.lift), f"Lift {name} removed"[:120])


class LiftSingers(Strict):
    """Lift singers, or return them, over the time that the lift takes."""

    action: Literal["lift"]
    lift: Address
    strips: Annotated[list[Address], Field(min_length=1, max_length=MOST_STRIPS)]
    on: bool

    def plan(self, turn: Turn) -> Planned:
        moves = core.lift_singers(turn.show, self.lift, self.strips, on=self.on)
        names = ", ".join(core.strip_name(turn.show, strip) for strip in self.strips)
        seconds = turn.show.number(f"{self.lift}/seconds")
        return Planned(moves, f"{names} {'lifted' if self.on else 'back'}"[:120], seconds=seconds)


class TrimLift(Strict):
    """Let a lift be a step as typed, for a listener: of one singer, or (None) of all."""

    action: Literal["trim_lift"]
    lift: Address
    typed: Typing
    strip: Address | None = None
    listener: Address = "house"

    def plan(self, turn: Turn) -> Planned:
        moves = core.trim_lift(
            turn.show, turn.flow, self.lift, self.typed, strip=self.strip or "",
            listener=self.listener,
        )  # fmt: skip
        who = core.strip_name(turn.show, self.strip) if self.strip else "everybody"
        return Planned(moves, f"Lift of {who} trimmed: {self.typed.strip()} dB"[:120])


class MakeMinus(Strict):
    """Give a mix all that the house has but strips, as typed, and promise that it stays so.

    `mix`: one that there is; None makes one by `name`.
    """

    action: Literal["make_minus"]
    strips: Typing
    name: Annotated[str, Field(max_length=40)] = ""
    mix: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        strips = core.read_strips(turn.show, self.strips, dcas=False)
        moves = core.make_minus(turn.show, strips, name=self.name, mix=self.mix)
        mix = core.strip_name(turn.show, self.mix) if self.mix else self.name
        return Planned(moves, f"{mix}: all but {core.strips_text(strips)}"[:120])


LiftAsk = MakeLift | SetSingers | RemoveLift | LiftSingers | TrimLift | MakeMinus
