"""What a screen can ask of lines: of the list, their channels, sockets and gains."""

from typing import Literal

from ombrel import core

from .asking import Lines, SomeLines, Strict, Typing
from .plans import Planned, Turn

__all__ = ["LineAsk"]


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


class MoveLines(Strict):
    """Move lines ahead of another, or to the end."""

    action: Literal["move_lines"]
    lines: SomeLines
    before: int | None

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.move_lines(turn.show, self.lines, self.before), "Lines moved")


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


class SetKind(Strict):
    """Make lines of a kind; levels that nobody set follow it."""

    action: Literal["set_kind"]
    lines: SomeLines
    kind: Typing

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.set_kind(turn.show, self.lines, self.kind))


class PatchLines(Strict):
    """Give lines sockets and channels. `lines` empty: all of them."""

    action: Literal["patch_lines"]
    lines: Lines = []

    def plan(self, turn: Turn) -> Planned:
        lines = self.lines or turn.show.lines()
        return Planned(
            core.patch_lines(turn.show, lines), f"{core.counted(len(lines), 'line')} patched"
        )


class NameChannels(Strict):
    """Call the channels of lines after them."""

    action: Literal["name_channels"]
    lines: SomeLines

    def plan(self, turn: Turn) -> Planned:
        return Planned(core.name_channels(turn.show, self.lines), "Channels named after lines")


class SuggestGains(Strict):
    """Set the preamps of lines to the gains that meet the show's target. `lines` empty: all."""

    action: Literal["suggest_gains"]
    lines: Lines = []

    def plan(self, turn: Turn) -> Planned:
        lines = self.lines or turn.show.lines()
        return Planned(core.suggested_gains(turn.show, lines), "Gains set as suggested")


LineAsk = (
    AddLine
    | RemoveLines
    | MoveLines
    | DuplicateLines
    | SwapLines
    | SetKind
    | PatchLines
    | NameChannels
    | SuggestGains
)
