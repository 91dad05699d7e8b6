"""What a screen can ask of the company: parts, casts, who is on, fittings, the mic check."""

import time
from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import STORABLE, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = [
    "AddPart",
    "CaptureFitting",
    "CheckGoTo",
    "CheckStep",
    "CheckTakeOver",
    "ChooseCast",
    "CompanyAsk",
    "CopyFitting",
    "KeepFitting",
    "LateChange",
    "PutOn",
]

Name = Annotated[str, Field(max_length=60, pattern=STORABLE)]


def _now_s() -> float:
    return round(time.time(), 3)


class AddPart(Strict):
    """A new part at the end of the list, on channels as typed, with who plays it as typed."""

    action: Literal["add_part"]
    name: Name
    channels: Typing = ""
    players: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        channels = (
            core.read_strips(turn.show, self.channels, unused=True) if self.channels.strip() else ()
        )
        moves = core.part_with_players(turn.show, self.name, channels, self.players)
        return Planned(moves, f"Part {self.name}", own=True)


class RemovePart(Strict):
    """Take a part off the list; its fittings stay."""

    action: Literal["remove_part"]
    part: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.part_name(turn.show, self.part)
        return Planned(core.remove_part(turn.show, self.part), f"Part {name} removed", own=True)


class SetPlayers(Strict):
    """Say who plays a part, by names as typed, understudies last."""

    action: Literal["set_players"]
    part: Address
    players: Typing

    def plan(self, turn: Turn) -> Planned:
        moves = core.set_players(turn.show, self.part, self.players)
        name = core.part_name(turn.show, self.part)
        return Planned(moves, f"{name}: {self.players or 'nobody'}"[:200], own=True)


class SetChannels(Strict):
    """Channels of a part, as typed, one for each microphone in order; what is kept goes along."""

    action: Literal["set_channels"]
    part: Address
    channels: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        typed = self.channels.strip()
        channels = core.read_strips(turn.show, typed, dcas=False, unused=True) if typed else []
        moves = core.set_channels(turn.show, self.part, channels, since_s=_now_s())
        name = core.part_name(turn.show, self.part)
        return Planned(moves, f"{name} on {core.strips_text(channels) or 'no channel'}", own=True)


class MovePart(Strict):
    """Put a part ahead of another in the list, or last."""

    action: Literal["move_part"]
    part: Address
    before: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        moves = core.move_part(turn.show, self.part, self.before)
        return Planned(moves, f"Part {core.part_name(turn.show, self.part)} moved", own=True)


class AddCast(Strict):
    """A new cast, as another or of the first performer of each part."""

    action: Literal["add_cast"]
    name: Name
    like: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        _, moves = core.add_cast(turn.show, self.name, self.like)
        return Planned(moves, f"Cast {self.name}", own=True)


class RemoveCast(Strict):
    """Take a cast off the list; who is on stays on."""

    action: Literal["remove_cast"]
    cast: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.cast_name(turn.show, self.cast)
        return Planned(core.remove_cast(turn.show, self.cast), f"Cast {name} removed", own=True)


class ChooseCast(Strict):
    """Tonight's cast: every fitting of it on."""

    action: Literal["choose_cast"]
    cast: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.cast_name(turn.show, self.cast)
        found = self.found(turn.show).beside_hands(turn.show, turn.in_hand)
        return Planned(found.moves, f"Tonight: {name}", own=True)

    def found(self, show: core.Show) -> core.Tonight:
        return core.choose_cast(show, self.cast, since_s=_now_s())


class LateChange(Strict):
    """Another performer plays a part tonight, by name; nobody: it is vacant."""

    action: Literal["late_change"]
    part: Address
    performer: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        who = core.performer_name(turn.show, self.performer) or "nobody"
        words = f"Tonight: {who} as {core.part_name(turn.show, self.part)}"
        found = self.found(turn.show).beside_hands(turn.show, turn.in_hand)
        return Planned(found.moves, words, own=True)

    def found(self, show: core.Show) -> core.Tonight:
        return core.late_change(show, self.part, self.performer, since_s=_now_s())


class PutOn(Strict):
    """Put a part (with tonight's performer) or a fitting on a channel, or take both off."""

    action: Literal["put_on"]
    channel: Address
    what: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        show, now_s = turn.show, _now_s()
        if self.what is not None and core.of_kind(self.what) == "fitting":
            moves = core.whole_on(show, self.channel, self.what, since_s=now_s)
            words = core.fitting_name(show, self.what)
        else:
            moves = core.part_on(show, self.channel, self.what, since_s=now_s)
            words = core.part_name(show, self.what) if self.what else "Nobody"
        where = core.strip_name(show, self.channel)
        return Planned(moves, f"{words} on {where}", own=True)


class KeepFitting(Strict):
    """Keep what hands moved under a fitting, as a version of it; or drop it."""

    action: Literal["keep_fitting"]
    fitting: Address
    drop: bool = False

    def plan(self, turn: Turn) -> Planned:
        name = core.fitting_name(turn.show, self.fitting)
        if self.drop:
            moves = core.drop(turn.show, self.fitting, at_s=_now_s())
            return Planned(moves, f"{name}: what was loose dropped", own=True)
        moves = core.keep(turn.show, self.fitting, by=turn.author, at_s=_now_s())
        return Planned(moves, f"Kept for {name}", own=True)


class CaptureFitting(Strict):
    """Keep all that stands on a channel under a performer's name, which is said."""

    action: Literal["capture_fitting"]
    channel: Address
    said: Name

    def plan(self, turn: Turn) -> Planned:
        moves = core.capture_as(turn.show, self.channel, self.said, by=turn.author, at_s=_now_s())
        where = core.strip_name(turn.show, self.channel)
        return Planned(moves, f"All of {where} captured for {self.said}", own=True)


class CopyFitting(Strict):
    """Give another fitting the values of one; `said`: the name of who gets them."""

    action: Literal["copy_fitting"]
    fitting: Address
    to: Address
    said: Name

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        moves = core.copy_fitting(
            show, self.fitting, self.to, self.said, by=turn.author, at_s=_now_s()
        )
        words = f"{core.fitting_name(show, self.fitting)} to {core.fitting_name(show, self.to)}"
        return Planned(moves, f"Fitting of {words}"[:200], own=True)


class BringBackFitting(Strict):
    """Make one of a fitting's last versions the newest again."""

    action: Literal["bring_back_fitting"]
    fitting: Address
    version: int

    def plan(self, turn: Turn) -> Planned:
        moves = core.bring_back(
            turn.show, self.fitting, self.version, by=turn.author, at_s=_now_s()
        )
        name = core.fitting_name(turn.show, self.fitting)
        return Planned(moves, f"{name}: version {self.version} brought back", own=True)


class RemoveFitting(Strict):
    """Take a fitting out of the show; undo brings it back."""

    action: Literal["remove_fitting"]
    fitting: Address

    def plan(self, turn: Turn) -> Planned:
        name = core.fitting_name(turn.show, self.fitting)
        moves = core.remove_fitting(turn.show, self.fitting)
        return Planned(moves, f"Fitting of {name} removed", own=True)


class CheckStep(Strict):
    """The mic check goes on: next keeps, skip and drop do not, finish ends it for this person.

    `leaves`: the entry that it is meant to leave ("": none); None: whichever it is.
    """

    action: Literal["check_step"]
    step: Literal["next", "skip", "back", "drop", "finish"]
    order: core.CheckOrder = "list"
    leaves: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        show, by, at_s = turn.show, turn.author, _now_s()
        if self.leaves is not None:
            core.check_leaves(show, self.leaves, by=by)
        match self.step:
            case "next":
                moves = core.check_next(show, by=by, at_s=at_s, order=self.order)
            case "skip":
                moves = core.check_skip(show, by=by, at_s=at_s, order=self.order)
            case "back":
                moves = core.check_back(show, by=by, at_s=at_s, order=self.order)
            case "drop":
                moves = core.check_drop(show, by=by, at_s=at_s)
            case "finish":
                moves = core.check_finish(show, by=by, at_s=at_s)
        return Planned(moves, core.check_said(show, self.step, moves, by=by), own=True)


class CheckGoTo(Strict):
    """Bring an entry of the mic check, and keep the one before it."""

    action: Literal["check_go_to"]
    entry: Address

    def plan(self, turn: Turn) -> Planned:
        moves = core.check_go_to(turn.show, self.entry, by=turn.author, at_s=_now_s())
        return Planned(moves, core.check_said(turn.show, "next", moves, by=turn.author), own=True)


class CheckTakeOver(Strict):
    """Take an entry over from whoever has it, by their name."""

    action: Literal["check_take_over"]
    entry: Address
    said: Name

    def plan(self, turn: Turn) -> Planned:
        moves = core.check_take_over(
            turn.show, self.entry, self.said, by=turn.author, at_s=_now_s()
        )
        return Planned(moves, f"Mic check taken over from {self.said}", own=True)


class CheckAgain(Strict):
    """Let every entry wait again, for another evening."""

    action: Literal["check_again"]

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.begin_again(turn.show), "Mic check begun again", own=True)


CompanyAsk = (
    AddPart
    | RemovePart
    | SetPlayers
    | SetChannels
    | MovePart
    | AddCast
    | RemoveCast
    | ChooseCast
    | LateChange
    | PutOn
    | KeepFitting
    | CaptureFitting
    | CopyFitting
    | BringBackFitting
    | RemoveFitting
    | CheckStep
    | CheckGoTo
    | CheckTakeOver
    | CheckAgain
)
