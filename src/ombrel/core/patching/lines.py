"""Lines: added, moved and removed in the input list; drafts of an imported list made real."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..catalogue import LINES, WISHES, Desk, check_on_desk, keys_below, parameter_at, thing_of
from ..show import Show, channels_of_line, check_lines
from ..values import Asked, ConsoleError, NothingLeft, in_sentence
from .patch import plug_line

__all__ = [
    "LINE_FIELDS",
    "NOMINAL_DBU",
    "LineDraft",
    "add_lines",
    "draft_fault_on",
    "duplicate_lines",
    "left_behind",
    "move_lines",
    "moves_of_draft",
    "remove_lines",
    "set_kind",
]

# What a line of each kind delivers when nobody says otherwise, in dBu. Common practice: a dynamic
# vocal microphone close up about -45, a condenser about -35, a passive DI on an instrument
# about -30, an active one -20, a radio receiver at microphone level -20, professional line
# level +4 (1.228 V, to which IEC 60268-17 sets its meter: from memory), playback likewise, a desk
# talkback -40.
NOMINAL_DBU = {
    "dynamic": -45.0,
    "condenser": -35.0,
    "di_passive": -30.0,
    "di_active": -20.0,
    "radio": -20.0,
    "line": 4.0,
    "playback": 4.0,
    "talkback": -40.0,
}
LINE_FIELDS = tuple(keys_below("line"))
_NOT_DRAFTED = ("place", "level_dbu", "check", "check_note")  # what no list can say of a line


@dataclass(frozen=True, slots=True, kw_only=True)
class LineDraft:
    """A line that an imported list asks for. Empty text and None: the list does not say.

    `channel`, `channel_right`: the channels that the list gives it. `said`: the fields that the
    list itself speaks of, even where it leaves them empty; the others are guesses and defaults.
    """

    name: str
    kind: str = "dynamic"
    stereo: bool = False
    socket: str | None = None
    socket_right: str | None = None
    performer: str = ""
    where: str = ""
    stand: str = ""
    microphone: str = ""
    phantom: bool = False
    level_dbu: float | None = None
    notes: str = ""
    colour: str = "sand"
    family: str = "unsorted"
    channel: int | None = None
    channel_right: int | None = None
    said: frozenset[str] = frozenset()


def moves_of_draft(draft: LineDraft, number: int) -> dict[str, Asked]:
    """Moves that write all that a draft says, as line `number`; its place in the list apart. Raises

    WrongValue for a kind that there is not.
    """
    parameter_at(f"line/{number}/kind").kind.checked(draft.kind, f"line/{number}/kind")
    level_dbu = NOMINAL_DBU[draft.kind] if draft.level_dbu is None else draft.level_dbu
    moves: dict[str, Asked] = {
        f"line/{number}/{name}": getattr(draft, name)
        for name in LINE_FIELDS
        if name not in _NOT_DRAFTED
    }
    moves[f"line/{number}/level_dbu"] = level_dbu
    return moves


def draft_fault_on(desk: Desk, draft: LineDraft) -> str | None:
    """What the desk would refuse about a draft, in words, or None."""
    if not draft.name.strip():
        return "it has no name"
    for address, value in moves_of_draft(draft, 1).items():
        try:
            check_on_desk(desk, address, value)
        except ConsoleError as fault:
            label = in_sentence(parameter_at(address).label)
            return f"{label}: {str(fault).partition(': ')[2]}"
    return None


def _free_numbers(show: Show, wanted: int) -> list[int]:
    used = set(show.lines())
    free = [number for number in range(1, LINES + 1) if number not in used]
    if len(free) < wanted:
        raise NothingLeft("lines", wanted, len(free))
    return free[:wanted]


def _places_after(show: Show) -> float:
    lines = show.lines()
    return show.number(f"line/{lines[-1]}/place") if lines else 0.0


def add_lines(show: Show, drafts: Sequence[LineDraft]) -> dict[str, Asked]:
    """Moves that put lines at the end of the list. A socket that a draft names is taken over from

    the line that had it. Raises NothingLeft when the show holds too many lines.
    """
    moves: dict[str, Asked] = {}
    last = _places_after(show)
    for turn, (number, draft) in enumerate(
        zip(_free_numbers(show, len(drafts)), drafts, strict=True), start=1
    ):
        taken: dict[str, Asked] = {}
        for socket in (draft.socket, draft.socket_right):
            if socket:
                taken.update(plug_line(show, number, socket))
        moves.update({a: None for a in taken if thing_of(a) != f"line/{number}"})
        moves[f"line/{number}/place"] = last + turn
        moves.update(moves_of_draft(draft, number))
    return moves


def set_kind(show: Show, numbers: Sequence[int], kind: str) -> dict[str, Asked]:
    """Moves that make lines of a kind. A level that still is the old kind's becomes the new one's;

    a level that somebody set stays. Raises NotThere.
    """
    check_lines(show, numbers)
    moves: dict[str, Asked] = {}
    for number in numbers:
        old = show.text(f"line/{number}/kind")
        moves[f"line/{number}/kind"] = kind
        if kind in NOMINAL_DBU and show[f"line/{number}/level_dbu"] == NOMINAL_DBU.get(old):
            moves[f"line/{number}/level_dbu"] = NOMINAL_DBU[kind]
    return moves


def duplicate_lines(show: Show, numbers: Sequence[int]) -> dict[str, Asked]:
    """Moves that put a copy of each line at the end of the list, without its sockets.

    Raises NothingLeft when the show holds too many lines, NotThere.
    """
    check_lines(show, numbers)
    chosen = [number for number in show.lines() if number in set(numbers)]
    moves: dict[str, Asked] = {}
    last = _places_after(show)
    free = _free_numbers(show, len(chosen))
    for turn, (original, number) in enumerate(zip(chosen, free, strict=True), start=1):
        for name in LINE_FIELDS:
            if name not in ("place", "socket", "socket_right", "check", "check_note"):
                moves[f"line/{number}/{name}"] = show[f"line/{original}/{name}"]
        moves[f"line/{number}/place"] = last + turn
    return moves


def remove_lines(show: Show, numbers: Sequence[int], *, free: bool = False) -> dict[str, Asked]:
    """Moves that take lines off the list. Their channels keep their sources, since the sockets

    stay; with `free` they lose them and their names, and all else of them stays as it is set. A
    wish to record one names nothing any more. Raises NotThere.
    """
    check_lines(show, numbers)
    moves: dict[str, Asked] = {
        f"line/{number}/{name}": parameter_at(f"line/{number}/{name}").default
        for number in numbers
        for name in LINE_FIELDS
    }
    gone = {f"line/{number}" for number in numbers}
    for wish in (f"wish/{number}/source" for number in range(1, WISHES + 1)):
        if show.own.get(wish) in gone:  # another line may take the number
            moves[wish] = None
    for channel in [n for number in numbers for n in channels_of_line(show, number)] * free:
        moves |= {f"channel/{channel}/source": None, f"channel/{channel}/name": ""}
    return moves


def left_behind(show: Show, number: int, *, free: bool) -> str:
    """What becomes of the channels of a line that leaves the list, in words."""
    channels = channels_of_line(show, number)
    if not channels:
        return "It has no channel."
    sends = sum(
        show.number(f"channel/{channel}/send/mix/{mix}/level") > -math.inf
        for channel in channels
        for mix in show.mixes()
    )
    one = len(channels) == 1
    which = "Channel " if one else "Channels "
    which += " and ".join(str(channel) for channel in channels)
    stay = f"{sends} {'send stays' if sends == 1 else 'sends stay'} set" if sends else ""
    if free:
        rest = f"; {stay}, with nothing to send" if sends else ""
        return f"{which} {'loses its' if one else 'lose their'} source and name{rest}."
    rest = f"; {stay}" if sends else ""
    return f"{which} {'keeps its' if one else 'keep their'} socket and name{rest}."


def move_lines(show: Show, numbers: Sequence[int], before: int | None) -> dict[str, Asked]:
    """Moves that put lines, in their order, ahead of the line `before` (None: at the end).

    Raises NotThere.
    """
    check_lines(show, numbers)
    moving = [number for number in show.lines() if number in set(numbers)]
    rest = [number for number in show.lines() if number not in set(numbers)]
    at = rest.index(before) if before in rest else len(rest)
    order = rest[:at] + moving + rest[at:]
    return {f"line/{number}/place": float(place) for place, number in enumerate(order, start=1)}
