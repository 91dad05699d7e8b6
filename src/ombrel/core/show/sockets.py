"""Sockets by name: how they are written, typed and read, and which lines and channels use them."""

import re
from collections.abc import Iterable
from typing import Final

from ..catalogue import BUSES, Box, Desk, Thing, of_kind
from ..values import NothingLeft, UnknownAddress, UnreadableText
from .show import Show

__all__ = [
    "INNER_SOURCES",
    "SIDE_WORDS",
    "above",
    "channels_from",
    "channels_of_line",
    "channels_on",
    "is_of_bus",
    "lines_on",
    "numbers_text",
    "one_socket",
    "pair_of",
    "read_numbers",
    "read_sockets",
    "returns_on",
    "side_of",
    "socket_name",
    "socket_spellings",
    "sockets_of_line",
]

INNER_SOURCES: Final = ("oscillator", "talkback")
# Behind the name of a strip: the side of a bus, or a channel's direct out.
SIDE_WORDS: Final = {"": "", "left": " L", "right": " R", "direct": ", direct"}
_BUS: Final = re.compile(
    r"(?P<bus>(?:group|mix|matrix|engine)/\d+|house|mono)(?:/(?P<side>left|right))?"
)
_TYPED_BUS: Final = re.compile(
    r"(?P<bus>(?:group|mix|matrix|engine) \d+|house|mono)\s*(?P<side>l|r|left|right)?"
)


def socket_name(desk: Desk, socket: str) -> str:
    """What people call a socket: `input/a/7` is "Harbour 7". Raises UnreadableText for no socket.

    The desk's own sources, `oscillator` and `talkback`, go by their names, and so do buses.
    """
    if socket in INNER_SOURCES:
        return socket.capitalize()
    bus = _BUS.fullmatch(socket)
    if bus:
        of = Thing.at(socket)
        return f"{of.kind.capitalize()} {of.number or ''}".rstrip() + SIDE_WORDS[of.side]
    try:
        at = Thing.at(socket)
    except UnknownAddress as error:
        raise UnreadableText(socket, _such_as(desk)) from error
    box = desk.box(at.box)
    if box is None:
        raise UnreadableText(socket, _such_as(desk))
    return f"{box.short} {at.number}"


def _such_as(desk: Desk) -> str:
    return f"one socket, such as {desk.boxes[0].short} 7"


def is_of_bus(source: str) -> bool:
    """Whether a reference is to a bus or a side of one."""
    return of_kind(source) in BUSES


def side_of(source: str) -> str:
    """Which side a reference names: "left", "right" or "whole"."""
    side = Thing.at(source).side
    return side if side in ("left", "right") else "whole"


def numbers_text(numbers: Iterable[int]) -> str:
    """Ascending numbers as `read_numbers` reads them again, runs drawn together.

    >>> numbers_text([1, 2, 3, 7])
    '1-3, 7'
    """
    runs: list[list[int]] = []
    for number in numbers:
        if runs and number == runs[-1][-1] + 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    return ", ".join(f"{run[0]}-{run[-1]}" if len(run) > 1 else f"{run[0]}" for run in runs)


def read_numbers(text: str, *, highest: int) -> list[int]:
    """Numbers from a typed range such as "1-8,11", in the order typed; "8-1" runs downward.

    Raises UnreadableText for anything else, and for numbers outside 1 to `highest`.

    >>> read_numbers("1-3, 7", highest=48), read_numbers("3-1", highest=48)
    ([1, 2, 3, 7], [3, 2, 1])
    """
    found: list[int] = []
    help_text = f"numbers from 1 to {highest} such as 1-8,11"
    for part in text.replace(";", ",").split(","):
        match = re.fullmatch(r"\s*(\d{1,5})\s*(?:[-\u2013]\s*(\d{1,5})\s*)?", part)
        if not match:
            raise UnreadableText(text, help_text)
        first, last = int(match[1]), int(match[2] or match[1])
        if not (1 <= first <= highest and 1 <= last <= highest):
            raise UnreadableText(text, help_text)
        step = 1 if last >= first else -1
        found += range(first, last + step, step)
    if len(set(found)) != len(found):
        raise UnreadableText(text, f"each number once, {help_text}")
    return found


def read_sockets(desk: Desk, text: str, *, side: str = "input") -> list[str]:
    """Sockets from typed text: a box (its short or full name, or how only that one

    begins), then numbers; "Quay 1-16", "q7".

    Several boxes follow one another after commas: "Deck 5-6, Quay 1, 3". `side`: "input" or
    "output". Raises UnreadableText, naming the boxes of the desk.
    """
    boxes = ", ".join(box.short for box in desk.boxes)
    expected = f"a box and numbers such as {desk.boxes[0].short} 1-8 (boxes: {boxes})"
    box: Box | None = None
    found: list[str] = []
    for part in text.replace(";", ",").split(","):
        named, numbers_text = _box_and_rest(desk, part)
        box = named or box
        if box is None:
            raise UnreadableText(text, expected)
        highest = box.inputs if side == "input" else box.outputs
        numbers = read_numbers(numbers_text, highest=highest)
        found += [f"{side}/{box.key}/{number}" for number in numbers]
    if len(set(found)) != len(found):
        raise UnreadableText(text, f"each socket once, {expected}")
    return found


def _box_and_rest(desk: Desk, part: str) -> tuple[Box | None, str]:
    """The box that a part of typed text starts with, if any, and the numbers behind it."""
    plain = re.sub(r"^\s*(?:box|sb)\b", "", part.strip(), flags=re.IGNORECASE).strip()
    split = re.match(r"(?P<name>.*?\D)\s*(?=\d)", plain)
    if split is None:
        return None, plain
    name = split["name"].rstrip(" -.:/").lower()
    box = _box_called(desk, name) if name else None
    return (box, plain[split.end() :]) if box else (None, plain)


def _box_called(desk: Desk, name: str) -> Box | None:
    """The box of a name in small letters: whole, or as it begins where only one begins so."""
    for box in desk.boxes:
        if name in (box.short.lower(), box.name.lower()):
            return box
    begun = [box for box in desk.boxes if box.short.lower().startswith(name)]
    if len(begun) == 1:
        return begun[0]
    return next((box for box in desk.boxes if box.key.lower() == name), None)


def socket_spellings(desk: Desk, socket: str) -> tuple[str, ...]:
    """How a socket is typed in one word: "harbour14", and "h14" where only one box begins so; none

    for what is no socket of a box.
    """
    if of_kind(socket) not in ("input", "output"):
        return ()
    at = Thing.at(socket)
    box = desk.box(at.box)
    if box is None:
        return ()
    first = box.short[0].lower()
    one = _box_called(desk, first) is box
    return (f"{box.short}{at.number}".lower(), *([f"{first}{at.number}"] if one else []))


def one_socket(desk: Desk, text: str) -> str | None:
    """The one source that typed text names, or None for empty text. Raises UnreadableText.

    That is an input ("Quay 7"), a source of the desk's own ("oscillator"), or a bus ("mix 5 L",
    "house R", "mono").
    """
    if not text.strip():
        return None
    if text.strip().lower() in INNER_SOURCES:
        return text.strip().lower()
    bus = _TYPED_BUS.fullmatch(text.strip().lower())
    if bus:
        side = {"l": "/left", "r": "/right"}.get((bus["side"] or "")[:1], "")
        whole = of_kind(bus["bus"].replace(" ", "/")) in ("mono", "engine")
        return bus["bus"].replace(" ", "/") + ("" if whole else side)
    sockets = read_sockets(desk, text)
    if len(sockets) != 1:
        raise UnreadableText(text, _such_as(desk))
    return sockets[0]


def channels_from(show: Show, text: str, *, count: int) -> list[int]:
    """Channels from typed text: a range, or one number as the start of `count` ascending ones.

    Fixed channels are passed by: of a range they are left out, from a start they are skipped.
    Raises UnreadableText, or NothingLeft when the desk ends before `count`.
    """
    most = show.desk.channels
    numbers = read_numbers(text, highest=most)
    first = numbers[0]
    if len(numbers) == 1:
        numbers = list(range(first, most + 1))
    free = [number for number in numbers if not show.on(f"channel/{number}/fixed")]
    if len(free) < count:
        raise NothingLeft(f"channels from {first} that are not reserved", count, len(free))
    return free[:count] if len(numbers) > count else free


def lines_on(show: Show, socket: str) -> list[int]:
    """Numbers of the lines plugged into a socket, by either side, in the list's order."""
    return list(show.plugged.get(socket, ()))


def pair_of(source: object) -> tuple[str, ...]:
    """The two sockets of a return's source that is a pair, by its odd one; none for an engine.

    >>> pair_of("input/a/7"), pair_of("engine/1"), pair_of(None)
    (('input/a/7', 'input/a/8'), (), ())
    """
    if not isinstance(source, str) or of_kind(source) != "input":
        return ()
    return source, above(source)


def above(socket: str) -> str:
    """The socket above another of the same box."""
    at = Thing.at(socket)
    return f"{at.kind}/{at.box}/{at.number + 1}"


def returns_on(show: Show) -> dict[str, list[int]]:
    """Numbers of the returns that each socket feeds."""
    found: dict[str, list[int]] = {}
    for number in range(1, show.desk.returns + 1):
        for socket in pair_of(show[f"return/{number}/source"]):
            found.setdefault(socket, []).append(number)
    return found


def sockets_of_line(show: Show, line: int) -> list[str]:
    """The sockets that a line is plugged into: its left or only one, then its right."""
    sides = (show[f"line/{line}/socket"], show[f"line/{line}/socket_right"])
    return [socket for socket in sides if isinstance(socket, str)]


def channels_of_line(show: Show, line: int) -> list[int]:
    """Numbers of the channels that a line's sockets feed now, its left side's first."""
    return [n for socket in sockets_of_line(show, line) for n in channels_on(show, socket)]


def channels_on(show: Show, socket: str) -> list[int]:
    """Numbers of the channels that a socket feeds now, ascending."""
    return list(show.fed_by.get(socket, ()))
