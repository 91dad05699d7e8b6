"""What a screen can ask for: each a named type, and the plan that carries it out by the core.

An ask holds no rule of the job; its `plan` hands what was typed or dragged to the core.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, Address, Lines, SomeLines, Strict, Typing
from .banks import ClearBank, FillBay, FixStrips, MakeBanks
from .casting import (
    AddCast,
    AddPart,
    BringBackFitting,
    CaptureFitting,
    CheckAgain,
    CheckGoTo,
    CheckStep,
    CheckTakeOver,
    ChooseCast,
    CopyFitting,
    KeepFitting,
    LateChange,
    MovePart,
    PutOn,
    RemoveCast,
    RemoveFitting,
    RemovePart,
    SetChannels,
    SetPlayers,
)
from .lifts import LiftSingers, MakeLift, MakeMinus, RemoveLift, SetSingers, TrimLift
from .mixes import (
    DuplicateBus,
    FeedReturn,
    FillMix,
    MakeBuses,
    MakeEffect,
    MakeMixes,
    MoveBus,
    PatchBus,
    PatchBuses,
    RemoveBus,
    SendStrips,
    SetNote,
    SetTempo,
)
from .moves import Moves
from .plans import Planned, Turn
from .routing import MakePromise, MendPromise, PanStrips, PutBetween
from .rulers import ClearRuler, ClearSolos, LinkPairs, MakeRulers, Members, MuteAll
from .scenes import (
    DuplicateScene,
    Go,
    NumberAnew,
    RecallScene,
    RemoveScenes,
    RenumberScene,
    SetCells,
    SetInScenes,
    StoreAgain,
    StoreScene,
)
from .strips import (
    ApplyPreset,
    CopyStrip,
    DuplicateChannel,
    ForgetPreset,
    KeepPreset,
    Neutral,
    Reinforce,
)

__all__ = ["Ask"]


class Fill(Strict):
    """Give a run of sockets to channels, or move all that uses them to other sockets, as typed."""

    action: Literal["fill"]
    sockets: Typing
    to: Typing

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.fill(turn.show, self.sockets, self.to), f"{self.sockets} to {self.to}")


class PatchLines(Strict):
    """Give lines sockets and channels. `lines` empty: all of them."""

    action: Literal["patch_lines"]
    lines: Lines = []

    def plan(self, turn: Turn) -> Planned:
        lines = self.lines or turn.show.lines()
        return Planned(
            core.patch_lines(turn.show, lines), f"{core.counted(len(lines), 'line')} patched"
        )


class Plug(Strict):
    """Plug a line into a socket as typed; empty text unplugs it."""

    action: Literal["plug"]
    line: int
    socket: Typing
    right: bool = False

    def plan(self, turn: Turn) -> Planned:
        socket = core.one_socket(turn.show.desk, self.socket)
        return Planned(core.plug_line(turn.show, self.line, socket, right=self.right))


class Feed(Strict):
    """Give a channel a source, or its spare, as typed; empty text takes it away."""

    action: Literal["feed"]
    channel: int
    socket: Typing
    spare: bool = False

    def plan(self, turn: Turn) -> Planned:
        socket = core.one_socket(turn.show.desk, self.socket)
        if self.spare:
            return Planned({f"channel/{self.channel}/spare": socket})
        if socket is None:
            return Planned({f"channel/{self.channel}/source": None})
        return Planned(core.fill_channels(turn.show, [socket], [self.channel]))


class AddLine(Strict):
    """A new line at the end of the list."""

    action: Literal["add_line"]
    name: Typing
    kind: Typing = "dynamic"

    def plan(self, turn: Turn) -> Planned:
        draft = core.LineDraft(name=self.name, kind=self.kind)
        return Planned(core.add_lines(turn.show, [draft]), f"Line {self.name}")


class RemoveLines(Strict):
    """Take lines off the list."""

    action: Literal["remove_lines"]
    lines: SomeLines
    free: bool = False  # their channels lose source and name

    def plan(self, turn: Turn) -> Planned:
        moves = core.remove_lines(turn.show, self.lines, free=self.free)
        return Planned(moves, f"{core.counted(len(self.lines), 'line')} removed")


class NameChannels(Strict):
    """Call the channels of lines after them."""

    action: Literal["name_channels"]
    lines: SomeLines

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.name_channels(turn.show, self.lines), "Channels named after lines")


class SetKind(Strict):
    """Make lines of a kind; levels that nobody set follow it."""

    action: Literal["set_kind"]
    lines: SomeLines
    kind: Typing

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.set_kind(turn.show, self.lines, self.kind))


class DuplicateLines(Strict):
    """Copy lines to the end of the list."""

    action: Literal["duplicate_lines"]
    lines: SomeLines

    def plan(self, turn: Turn) -> Planned:
        moves = core.duplicate_lines(turn.show, self.lines)
        return Planned(moves, f"{core.counted(len(self.lines), 'line')} duplicated")


class SwapLines(Strict):
    """Exchange the sockets of two lines in the patch, since their cables are."""

    action: Literal["swap_lines"]
    lines: tuple[int, int]

    def plan(self, turn: Turn) -> Planned:
        one, other = self.lines
        names = " and ".join(turn.show.text(f"line/{line}/name") for line in self.lines)
        return Planned(core.swap_lines(turn.show, one, other), f"Swapped {names} in the patch")


class SuggestGains(Strict):
    """Set the preamps of lines to the gains that meet the show's target. `lines` empty: all."""

    action: Literal["suggest_gains"]
    lines: Lines = []

    def plan(self, turn: Turn) -> Planned:
        lines = self.lines or turn.show.lines()
        return Planned(core.suggested_gains(turn.show, lines), "Gains set as suggested")


class MoveLines(Strict):
    """Move lines ahead of another, or to the end."""

    action: Literal["move_lines"]
    lines: SomeLines
    before: int | None

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.move_lines(turn.show, self.lines, self.before), "Lines moved")


class PatchOutput(Strict):
    """Let an output carry a source, or nothing; where a desk patches in blocks, the whole block."""

    action: Literal["patch_output"]
    socket: Address
    source: Address | None

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.patch_output(turn.show, self.socket, self.source))


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


Ask = Annotated[
    Moves
    | Fill
    | PatchLines
    | Plug
    | Feed
    | AddLine
    | RemoveLines
    | NameChannels
    | SetKind
    | DuplicateLines
    | SuggestGains
    | SwapLines
    | PatchBuses
    | MoveLines
    | MakeMixes
    | MakeBuses
    | MakeEffect
    | SendStrips
    | SetNote
    | SetTempo
    | RemoveBus
    | DuplicateBus
    | MoveBus
    | FillMix
    | FeedReturn
    | PatchBus
    | PatchOutput
    | BackTo
    | MakeRulers
    | Members
    | ClearRuler
    | ClearSolos
    | PutBetween
    | MakePromise
    | MendPromise
    | PanStrips
    | MakeLift
    | LiftSingers
    | TrimLift
    | SetSingers
    | RemoveLift
    | MakeMinus
    | CopyStrip
    | Neutral
    | ApplyPreset
    | KeepPreset
    | ForgetPreset
    | DuplicateChannel
    | Reinforce
    | LinkPairs
    | MuteAll
    | MakeBanks
    | FillBay
    | FixStrips
    | ClearBank
    | StoreScene
    | StoreAgain
    | SetCells
    | SetInScenes
    | DuplicateScene
    | RemoveScenes
    | RenumberScene
    | NumberAnew
    | RecallScene
    | Go
    | AddCast
    | AddPart
    | BringBackFitting
    | CaptureFitting
    | CheckAgain
    | CheckGoTo
    | CheckStep
    | CheckTakeOver
    | ChooseCast
    | CopyFitting
    | KeepFitting
    | LateChange
    | PutOn
    | RemoveCast
    | RemoveFitting
    | RemovePart
    | SetPlayers
    | SetChannels
    | MovePart
    | Hear,
    Field(discriminator="action"),
]
