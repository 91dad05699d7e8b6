"""What a screen can ask of groups that share gain: made, joined, left, ended."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["SharingAsk"]


class MakeSharing(Strict):
    """Let strips share one gain, as typed: a new group. No name: it is called after what it is."""

    action: Literal["make_sharing"]
    strips: Typing
    name: Annotated[str, Field(max_length=50)] = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.make_sharing(turn.show, self.strips, self.name)
        strips = core.typed_sharers(turn.show, self.strips)
        says = f"{core.strips_text(strips)} share one gain"
        return Planned(moves, says[:120], told=core.foretold(turn.show, turn.flow, strips))


class JoinSharing(Strict):
    """Let strips share gain in a group that there is, as typed."""

    action: Literal["join_sharing"]
    group: Address
    strips: Typing

    def plan(self, turn: Turn) -> Planned:
        moves = core.join_sharing(turn.show, self.group, self.strips)
        strips = core.typed_sharers(turn.show, self.strips)
        told = core.foretold(turn.show, turn.flow, strips, self.group)
        name = core.strip_name(turn.show, self.group)
        return Planned(moves, f"{core.strips_text(strips)} join {name}"[:120], told=told)


class LeaveSharing(Strict):
    """Let strips share gain no more."""

    action: Literal["leave_sharing"]
    strips: Annotated[list[Address], Field(min_length=1, max_length=MOST_STRIPS)]

    def plan(self, turn: Turn) -> Planned:
        moves = core.leave_sharing(turn.show, self.strips)
        names = ", ".join(core.strip_name(turn.show, strip) for strip in self.strips)
        return Planned(moves, f"{names} share gain no more"[:120])


class ClearSharing(Strict):
    """End a group: nobody shares gain there any more."""

    action: Literal["clear_sharing"]
    group: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.strip_name(turn.show, self.group)
        return Planned(core.clear_sharing(turn.show, self.group), f"{name} ended"[:120])


SharingAsk = MakeSharing | JoinSharing | LeaveSharing | ClearSharing
