"""Everything that the core refuses, one class for each thing that a person can put right.

Each error names what is wrong, where, and the way out; the facts are fields, so that nobody reads
them out of the text.
"""

from collections.abc import Sequence

__all__ = [
    "BadFile",
    "Broken",
    "ConsoleError",
    "EditRefused",
    "FeedbackLoop",
    "NothingLeft",
    "NothingToRedo",
    "NothingToUndo",
    "OnlyInBlocks",
    "OutOfRange",
    "OutOfReach",
    "SeveralPaths",
    "UnknownAddress",
    "UnreadableText",
    "WrongValue",
]


class ConsoleError(Exception):
    """The root of everything that the core refuses. `code` is stable; the message is for people."""

    code = "refused"


class Broken(ConsoleError):
    """A fault of Ombrel itself: it is logged in full, and told without what it gives away."""

    code = "internal"

    def __init__(self) -> None:
        super().__init__("Ombrel failed at this; it is logged. Nothing was changed by it.")


class UnknownAddress(ConsoleError):
    """No parameter of the catalogue, or not on this desk, has this address."""

    code = "unknown_address"

    def __init__(self, address: str, why: str = "the catalogue has no such address") -> None:
        super().__init__(f"{address}: {why}.")
        self.address = address


class WrongValue(ConsoleError):
    """A value of the wrong kind for its address."""

    code = "wrong_value"

    def __init__(self, address: str, expected: str, found: object) -> None:
        super().__init__(f"{address}: expected {expected}, found {found!r}.")
        self.address, self.expected, self.found = address, expected, found


class OutOfRange(ConsoleError):
    """A number outside the range of its address."""

    code = "out_of_range"

    def __init__(
        self, address: str, found: float, lowest: float, highest: float, unit: str
    ) -> None:
        low = "off" if lowest == float("-inf") else f"{lowest:g}"
        super().__init__(f"{address}: {found:g} {unit} is outside {low} to {highest:g} {unit}.")
        self.address, self.found, self.lowest, self.highest = address, found, lowest, highest


class UnreadableText(ConsoleError):
    """Typed text that is no value, range or name of the kind that was asked for."""

    code = "unreadable_text"

    def __init__(self, text: str, expected: str) -> None:
        super().__init__(f"Cannot read {text!r}: type {expected}.")
        self.text, self.expected = text, expected


class OutOfReach(ConsoleError):
    """The asked-for level cannot be reached by the one control that would have to move."""

    code = "out_of_reach"

    def __init__(self, what: str, needed_db: float, highest_db: float) -> None:
        super().__init__(
            f"{what} would have to stand at {needed_db:+.1f} dB; it ends at {highest_db:+.1f} dB."
            " Raise the level elsewhere on the path (Why shows it)."
        )
        self.needed_db, self.highest_db = needed_db, highest_db


class FeedbackLoop(ConsoleError):
    """A bus feeds a channel that feeds the bus, at 0 dB or more: it would howl.

    `nodes` walk one loop by their addresses and end where they began; `gain_db`: once around.
    """

    code = "feedback_loop"

    def __init__(self, nodes: tuple[str, ...], gain_db: float) -> None:
        walked = " to ".join(node.replace("/", " ") for node in nodes)
        super().__init__(
            f"That would feed back: {walked}, {gain_db:+.1f} dB once around. Keep the loop below"
            " 0 dB, or open it at one of these."
        )
        self.nodes, self.gain_db = nodes, gain_db


class SeveralPaths(ConsoleError):
    """A level was typed for a source that arrives by several paths: one control cannot set it."""

    code = "several_paths"

    def __init__(self, source: str, listener: str) -> None:
        super().__init__(
            f"{source} reaches {listener} by several paths (Why shows them)."
            " Move the sends or faders themselves."
        )


class OnlyInBlocks(ConsoleError):
    """Outputs that can be patched only in runs were left half patched or out of order."""

    code = "only_in_blocks"

    def __init__(self, box: str, first: int, last: int) -> None:
        size = last - first + 1
        super().__init__(
            f"{box} is patched only in blocks of {size}: outputs {first} to {last} carry {size}"
            " channels or mixes in a row, or nothing. Patch the block as a whole."
        )
        self.box, self.first, self.last = box, first, last


class NothingLeft(ConsoleError):
    """The desk has not enough of something (mixes, channels, sockets, lines)."""

    code = "nothing_left"

    def __init__(self, what: str, wanted: int, left: int) -> None:
        super().__init__(
            f"{wanted} {what} wanted, {left} left on this desk. Free some, or ask for fewer."
        )
        self.what, self.wanted, self.left = what, wanted, left


class NothingToUndo(ConsoleError):
    """This person has nothing to undo."""

    code = "nothing_to_undo"

    def __init__(self) -> None:
        super().__init__("You have nothing to undo in this show.")


class NothingToRedo(ConsoleError):
    """This person has nothing to redo."""

    code = "nothing_to_redo"

    def __init__(self) -> None:
        super().__init__("You have nothing to redo in this show.")


class EditRefused(ConsoleError):
    """An edit of several moves, refused whole. `faults`: every fault, not only the first."""

    code = "edit_refused"

    def __init__(self, faults: Sequence[ConsoleError]) -> None:
        shown = " ".join(str(fault) for fault in faults[:5])
        more = f" And {len(faults) - 5} more." if len(faults) > 5 else ""
        super().__init__(f"Nothing was changed. {shown}{more}")
        self.faults = tuple(faults)


class BadFile(ConsoleError):
    """A file that cannot be read as what it should be. Nothing was changed."""

    code = "bad_file"

    def __init__(self, what: str, way_out: str) -> None:
        super().__init__(f"{what} {way_out} Nothing was changed.")
        self.what, self.way_out = what, way_out
