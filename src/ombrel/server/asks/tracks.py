"""What a screen can ask of the track plan: wishes, what stays, a plan taken, and playback."""

from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import STORABLE, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["TrackAsk"]

_Long = Annotated[str, Field(max_length=4_000, pattern=STORABLE)]  # a list of wishes, pasted
_Track = Annotated[int, Field(ge=0, le=999)]


class AddWishes(Strict):
    """Put what is typed at the end of the list of what is to be recorded."""

    action: Literal["add_wishes"]
    text: _Long

    def plan(self, turn: Turn) -> Planned:
        moves = core.add_wishes(turn.show, self.text)
        return Planned(moves, f"To be recorded: {' '.join(self.text.split())}"[:120])


class RemoveWishes(Strict):
    """Take wishes out of the list."""

    action: Literal["remove_wishes"]
    wishes: Annotated[list[Address], Field(min_length=1, max_length=core.WISHES)]

    def plan(self, turn: Turn) -> Planned:
        moves = core.remove_wishes(turn.show, self.wishes)
        names = [core.name_of_source(turn.show, one.source) for one in core.wishes(turn.show)
                 if one.wish in self.wishes]  # fmt: skip
        return Planned(moves, f"No longer to be recorded: {', '.join(names)}"[:120])


class MoveWish(Strict):
    """Put a wish ahead of another; null: at the end."""

    action: Literal["move_wish"]
    wish: Address
    before: Address | None

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.move_wish(turn.show, self.wish, self.before), "Wishes in order")


class HoldBack(Strict):
    """Let exactly these tracks, or mixes, be as they are, whatever is planned; null: as before."""

    action: Literal["hold_back"]
    tracks: Typing | None = None
    mixes: Typing | None = None

    def plan(self, turn: Turn) -> Planned:
        moves = core.hold_back(turn.show, tracks=self.tracks, mixes=self.mixes)
        what = [f"tracks {self.tracks or 'none'}"] if self.tracks is not None else []
        what += [f"mixes {self.mixes or 'none'}"] if self.mixes is not None else []
        return Planned(moves, f"No plan moves {', '.join(what)}"[:120])


class Given(Strict):
    """A wish, its track (0: none) and the mix that serves it ("": none), as a plan gave them."""

    wish: Address
    track: _Track
    mix: Annotated[str, Field(max_length=20, pattern=STORABLE)] = ""


class TakePlan(Strict):
    """Let wishes have the tracks that a plan gave them. Refused where the show is otherwise now."""

    action: Literal["take_plan"]
    given: Annotated[list[Given], Field(max_length=core.WISHES)]

    def plan(self, turn: Turn) -> Planned:
        given = [(one.wish, one.track, one.mix) for one in self.given]
        served = sum(1 for one in self.given if one.track)
        moves = core.given_moves(turn.show, given)
        return Planned(moves, f"Track plan: {served} of {len(given)} wishes", own=True)


class LayPlayback(Strict):
    """Make tracks the spares of the channels that they were taken from.

    `over`: channels whose spare is something else, and gives way.
    """

    action: Literal["lay_playback"]
    over: Annotated[list[Address], Field(max_length=512)] = []

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.lay_playback(turn.show, self.over), "Tracks ready to play back")


class SwitchPlayback(Strict):
    """The key: channels to their tracks, or back. `family`: only of lines of that."""

    action: Literal["switch_playback"]
    on: bool
    family: Annotated[str, Field(max_length=20, pattern=STORABLE)] = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.switch_playback(turn.show, on=self.on, family=self.family)
        whose = f" of {self.family}" if self.family else ""
        says = (
            f"Playback{whose}: {len(moves) // 2} channels"
            if self.on
            else f"Back from playback{whose}"
        )
        told = core.playback_told(turn.show, turn.flow, moves, self.family) if self.on else ()
        return Planned(moves, says, told=tuple(one.says for one in told))


class ListenChannels(Strict):
    """Put two tracks, as typed, on a free pair of channels that nobody hears who does not solo."""

    action: Literal["listen_channels"]
    tracks: Typing

    def plan(self, turn: Turn) -> Planned:
        moves = core.listen_channels(turn.show, self.tracks)
        return Planned(moves, f"Tracks {self.tracks} for the engineer alone"[:120], own=True)


TrackAsk = (
    AddWishes
    | RemoveWishes
    | MoveWish
    | HoldBack
    | TakePlan
    | LayPlayback
    | SwitchPlayback
    | ListenChannels
)
