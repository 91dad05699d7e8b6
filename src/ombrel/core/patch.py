"""Sockets: how they are named and typed, who uses them, and the edits that patch them."""

import re
from collections.abc import Iterable, Sequence
from typing import Final

from .desk import Box, Desk
from .edits import Asked
from .errors import NothingLeft, UnreadableText
from .show import Show

__all__ = [
    "channels_from",
    "channels_on",
    "fill_channels",
    "free_outputs",
    "lines_on",
    "one_socket",
    "outputs_of",
    "patch_bus",
    "patch_bus_to",
    "patch_buses",
    "patch_lines",
    "plug_line",
    "read_numbers",
    "read_sockets",
    "socket_name",
    "strip_of",
]


INNER_SOURCES: Final = ("oscillator", "talkback")


def socket_name(desk: Desk, socket: str) -> str:
    """What people call a socket: `input/a/7` is "A 7". Raises UnreadableText for no socket.

    The desk's own sources, `oscillator` and `talkback`, go by their names.
    """
    if socket in INNER_SOURCES:
        return socket.capitalize()
    words = socket.split("/")
    box = desk.box(words[1]) if len(words) == 3 else None
    if box is None:
        raise UnreadableText(socket, "a socket such as A 7")
    return f"{box.short} {words[2]}"


def is_stereo(show: Show, bus: str) -> bool:
    """Whether a bus has two sides: the house, and mixes made so."""
    return bus == "house" or (bus.startswith("mix/") and show[f"{bus}/format"] == "stereo")


def strip_of(source: str) -> str:
    """The strip that an output's source belongs to: "mix/5/left" is of "mix/5"."""
    words = source.split("/")
    return "/".join(words[:2]) if words[0] in ("mix", "channel") else words[0]


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
    """Sockets from typed text: a box (its key, short or full name), then numbers; "A 1-16", "b7".

    Several boxes follow one another after commas: "Local 5-6, A 1, 3". `side`: "input" or
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
    names = [(name, box) for box in desk.boxes for name in (box.key, box.short, box.name)]
    for name, box in sorted(names, key=lambda pair: -len(pair[0])):
        rest = plain[len(name) :]
        if plain.lower().startswith(name.lower()) and re.match(r"\s*[-.:/]?\s*\d", rest):
            return box, rest.lstrip(" -.:/")
    return None, plain


def one_socket(desk: Desk, text: str) -> str | None:
    """The one input that typed text names, or None for empty text. Raises UnreadableText."""
    if not text.strip():
        return None
    if text.strip().lower() in INNER_SOURCES:
        return text.strip().lower()
    sockets = read_sockets(desk, text)
    if len(sockets) != 1:
        raise UnreadableText(text, "one socket, such as A 7")
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
        raise NothingLeft(f"channels from {first} that are not fixed", count, len(free))
    return free[:count] if len(numbers) > count else free


def lines_on(show: Show, socket: str) -> list[int]:
    """Numbers of the lines plugged into a socket, by either side, in the list's order."""
    return [
        number
        for number in show.lines()
        if socket in (show[f"line/{number}/socket"], show[f"line/{number}/socket_right"])
    ]


def channels_on(show: Show, socket: str) -> list[int]:
    """Numbers of the channels that a socket feeds now, ascending."""
    return [n for n in show.channels() if show.source_of(n) == socket]


def plug_line(
    show: Show, line: int, socket: str | None, *, right: bool = False
) -> dict[str, Asked]:
    """Moves that plug a line (its left or only side, or its right) into a socket, or unplug it.

    A line that was on the socket loses it: a socket holds one plug.
    """
    own = f"line/{line}/{'socket_right' if right else 'socket'}"
    moves: dict[str, Asked] = {}
    if socket is not None:
        for other in lines_on(show, socket):
            for side in ("socket", "socket_right"):
                if show[f"line/{other}/{side}"] == socket:
                    moves[f"line/{other}/{side}"] = None
    moves[own] = socket
    return moves


def fill_channels(show: Show, sockets: Sequence[str], channels: Sequence[int]) -> dict[str, Asked]:
    """Moves that give `channels`, one by one, the `sockets`; a channel without a name of its own

    takes the name and colour of the line on its socket. Raises NothingLeft when there are fewer
    channels than sockets; more channels than sockets is fine: the rest stay as they are.
    """
    if len(channels) < len(sockets):
        raise NothingLeft("channels", len(sockets), len(channels))
    moves: dict[str, Asked] = {}
    for socket, channel in zip(sockets, channels, strict=False):
        moves[f"channel/{channel}/source"] = socket
        moves.update(_named_after_line(show, socket, channel, keep_name=True))
    return moves


def _named_after_line(
    show: Show, socket: str, channel: int, *, keep_name: bool
) -> dict[str, Asked]:
    if keep_name and show.text(f"channel/{channel}/name"):
        return {}
    for line in lines_on(show, socket):
        return _strip_of_line(show, line, channel, right=socket != show[f"line/{line}/socket"])
    return {}


def _strip_of_line(show: Show, line: int, channel: int, *, right: bool) -> dict[str, Asked]:
    name = show.text(f"line/{line}/name")
    moves: dict[str, Asked] = {f"channel/{channel}/colour": show[f"line/{line}/colour"]}
    if show.on(f"line/{line}/stereo"):
        ending = " R" if right else " L"
        moves[f"channel/{channel}/name"] = name[: 60 - len(ending)] + ending
        moves[f"channel/{channel}/pan"] = 1.0 if right else -1.0
    else:
        moves[f"channel/{channel}/name"] = name
    return moves


def patch_lines(
    show: Show, lines: Iterable[int], *, first_channel: int = 1, first_socket: str | None = None
) -> dict[str, Asked]:
    """Moves that give each line a socket and each socket a channel, in the order of the lines.

    A line keeps the socket it has; others take the next free input from `first_socket` on (by
    default stage boxes in the desk's order, then the local box). Channels are taken from
    `first_channel` upward, skipping those with a source; a stereo line takes an odd channel
    and the even above it. A line that already has its channel is left alone.
    Raises NothingLeft when sockets or channels run out.
    """
    wanted = list(lines)
    taken = {
        show[f"line/{line}/{side}"] for line in show.lines() for side in ("socket", "socket_right")
    }
    free_sockets = [s for s in _inputs_in_order(show, first_socket) if s not in taken]
    free_channels = [
        number
        for number in range(first_channel, show.desk.channels + 1)
        if show[f"channel/{number}/source"] is None and not show.text(f"channel/{number}/name")
    ]
    sockets_left, channels_left = len(free_sockets), len(free_channels)
    moves: dict[str, Asked] = {}
    sides_wanted = 0
    for line in wanted:
        stereo = show.on(f"line/{line}/stereo")
        sides = ("socket", "socket_right") if stereo else ("socket",)
        sockets: list[str] = []
        if stereo and not any(show[f"line/{line}/{side}"] for side in sides):
            _pair_first(free_sockets)
        for side in sides:
            socket = show[f"line/{line}/{side}"]
            if not isinstance(socket, str):
                sides_wanted += 1
                if not free_sockets:
                    raise NothingLeft("free input sockets", sides_wanted, sockets_left)
                socket = free_sockets.pop(0)
                moves[f"line/{line}/{side}"] = socket
            sockets.append(socket)
        if any(channels_on(show, socket) for socket in sockets):
            continue
        for channel, socket in zip(
            _next_channels(free_channels, stereo, channels_left), sockets, strict=True
        ):
            free_channels.remove(channel)
            moves[f"channel/{channel}/source"] = socket
            moves.update(_strip_of_line(show, line, channel, right=socket != sockets[0]))
    return moves


def _pair_first(free: list[str]) -> None:
    """Bring the next odd socket and the even above it to the front, if there is such a pair."""
    for socket in free:
        stem, number = socket.rsplit("/", 1)
        above = f"{stem}/{int(number) + 1}"
        if int(number) % 2 == 1 and above in free:
            free.remove(socket)
            free.remove(above)
            free[:0] = [socket, above]
            return


def _next_channels(free: list[int], stereo: bool, had: int) -> tuple[int, ...]:
    if not stereo:
        if not free:
            raise NothingLeft("free channels", had + 1, had)
        return (free[0],)
    for channel in free:
        if channel % 2 == 1 and channel + 1 in free:
            return channel, channel + 1
    raise NothingLeft("free channels as an odd-even pair", 2, len(free))


def _inputs_in_order(show: Show, first_socket: str | None) -> list[str]:
    """Inputs to hand out: from `first_socket` on, else stage boxes first, the local box after."""
    preamped = {box.key for box in show.desk.boxes if box.preamps}
    sockets = [s for s in show.inputs() if s.split("/")[1] in preamped]
    if first_socket in sockets:
        return sockets[sockets.index(first_socket) :]
    return sorted(sockets, key=lambda socket: socket.split("/")[1] == "local")  # a stable sort


def free_outputs(show: Show, count: int, *, pairs: bool = False) -> list[str]:
    """The next `count` free outputs, boxes in the desk's order; `pairs`: odd and the even above.

    Sockets of boxes without preamps (a recorder) are not handed out. Raises NothingLeft.
    """
    free = [
        socket
        for socket in show.outputs()
        if show[f"{socket}/source"] is None
        and (box := show.desk.box(socket.split("/")[1])) is not None
        and box.preamps
    ]
    if pairs:
        free_set = set(free)
        found: list[str] = []
        for socket in free:
            stem, number = socket.rsplit("/", 1)
            above = f"{stem}/{int(number) + 1}"
            if int(number) % 2 == 1 and above in free_set:
                found += [socket, above]
        free = found
    if len(free) < count:
        raise NothingLeft("free outputs", count, len(free))
    return free[:count]


def patch_bus(show: Show, bus: str, *, stereo: bool) -> dict[str, Asked]:
    """Moves that patch a bus to the next free outputs: a pair when stereo. Raises NothingLeft."""
    sockets = free_outputs(show, 2 if stereo else 1, pairs=stereo)
    if not stereo:
        return {f"{sockets[0]}/source": bus}
    return {
        f"{socket}/source": f"{bus}/{side}"
        for socket, side in zip(sockets, ("left", "right"), strict=True)
    }


def outputs_of(show: Show, bus: str) -> dict[str, str]:
    """Output sockets that carry a bus, each with its side: "left", "right" or "whole"."""
    found = {}
    for socket in show.outputs():
        source = show[f"{socket}/source"]
        if isinstance(source, str) and (source == bus or source.startswith(f"{bus}/")):
            found[socket] = source.removeprefix(bus).removeprefix("/") or "whole"
    return found


def patch_bus_to(show: Show, bus: str, text: str) -> dict[str, Asked]:
    """Moves that let exactly the typed outputs carry a bus; empty text: the next free ones.

    A stereo bus takes sockets in turn for left and right, so their number must be even; "none"
    takes it off all. Raises UnreadableText, NothingLeft.
    """
    stereo = is_stereo(show, bus)
    moves: dict[str, Asked] = {f"{socket}/source": None for socket in outputs_of(show, bus)}
    if not text.strip():
        return patch_bus(show, bus, stereo=stereo)
    if text.strip().lower() in ("none", "off", "-"):
        return moves
    sockets = read_sockets(show.desk, text, side="output")
    if stereo and len(sockets) % 2:
        raise UnreadableText(text, "outputs in pairs, left and right, such as Local 9-10")
    for turn, socket in enumerate(sockets):
        side = ("/left", "/right")[turn % 2] if stereo else ""
        moves[f"{socket}/source"] = f"{bus}{side}"
    return moves


def patch_buses(show: Show, buses: Sequence[str]) -> dict[str, Asked]:
    """Moves that patch several buses, one after another, to the next free outputs (pairs for

    stereo ones), leaving alone those that an output carries already. Raises NothingLeft.
    """
    moves: dict[str, Asked] = {}
    for bus in buses:
        if not outputs_of(show, bus):
            found = patch_bus(show, bus, stereo=is_stereo(show, bus))
            show = show.with_values({a: str(source) for a, source in found.items()})
            moves.update(found)
    return moves
