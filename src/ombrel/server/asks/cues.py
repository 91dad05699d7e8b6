"""What a screen can ask of cues from outside; and what a cue itself asks for."""

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import STORABLE, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["CueAsk", "cue_plan"]

Style = Literal["osc", "show_control", "program"]
_Long = Annotated[str, Field(max_length=20_000, pattern=STORABLE)]  # a list, pasted
Deciding = Callable[[core.Show], core.Deed]


class AddCues(Strict):
    """Put typed cues on the list: "12 -> scene 4.5". `style`: how a bare number comes."""

    action: Literal["add_cues"]
    text: _Long
    style: Style = "osc"

    def plan(self, turn: Turn) -> Planned:
        moves = core.add_cues(turn.show, self.text, self.style)
        return Planned(moves, f"Cue {' '.join(self.text.split())}"[:120])


class CuesForScenes(Strict):
    """Give every scene its cue, number to number."""

    action: Literal["cues_for_scenes"]
    style: Style = "osc"

    def plan(self, turn: Turn) -> Planned:
        moves = core.cues_for_scenes(turn.show, self.style)
        many = sum(core.Address.at(one).last == "comes" for one in moves)
        return Planned(moves, f"{core.counted(many, 'cue')} for scenes")


class SetCue(Strict):
    """Let a cue wait for something else, or do something else, as typed; null: as before."""

    action: Literal["set_cue"]
    cue: Address
    comes: Typing | None = None
    does: Typing | None = None

    def plan(self, turn: Turn) -> Planned:
        moves = core.set_cue(turn.show, self.cue, self.comes, self.does)
        return Planned(moves, f"Cue: {self.comes or ''} {self.does or ''}".rstrip()[:120])


class RemoveCues(Strict):
    """Take cues off the list."""

    action: Literal["remove_cues"]
    cues: Annotated[list[Address], Field(min_length=1, max_length=core.CUES)]

    def plan(self, turn: Turn) -> Planned:
        moves = core.remove_cues(turn.show, self.cues)
        return Planned(moves, f"{core.counted(len(self.cues), 'cue')} removed")


CueAsk = AddCues | CuesForScenes | SetCue | RemoveCues


def cue_plan(decide: Deciding, at_s: float, once_s: float) -> Callable[[Turn], Planned]:
    """The plan of a cue that came: what it is to do is decided by the show as it stands then."""

    def plan(turn: Turn) -> Planned:
        deed = decide(turn.show)
        found = core.effect(turn.show, deed, at_s=round(at_s, 3), once_s=once_s, hands=turn.in_hand)
        seconds = found.seconds
        return Planned(found.moves, found.says, own=found.own, seconds=seconds, cued=True)

    return plan
