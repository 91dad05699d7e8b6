"""The edits that patch inputs: lines into sockets, sockets into channels."""

from collections.abc import Iterable, Sequence

from ..catalogue import Thing
from ..show import (
    Show,
    above,
    channels_from,
    channels_on,
    check_lines,
    lines_on,
    read_sockets,
    sockets_of_line,
)
from ..values import Asked, NothingLeft, within

__all__ = [
    "fill",
    "fill_channels",
    "inputs_in_order",
    "move_sockets",
    "name_channels",
    "patch_lines",
    "plug_line",
    "strip_of_line",
]


def fill(show: Show, sockets: str, to: str) -> dict[str, Asked]:
    """Moves for sockets and what they go to, as typed: channels ("1-16") or sockets ("Quay 1-16").

    Raises UnreadableText or NothingLeft.
    """
    first = read_sockets(show.desk, sockets)
    if to.strip()[:1].isdigit():
        return fill_channels(show, first, channels_from(show, to, count=len(first)))
    second = read_sockets(show.desk, to)
    if len(second) == 1:
        box = show.desk.box(Thing.at(second[0]).box)
        start = Thing.at(second[0]).number
        left = (box.inputs if box else 0) - start + 1
        if left < len(first):
            raise NothingLeft(f"sockets from {to.strip()}", len(first), left)
        key = Thing.at(second[0]).box
        second = [f"input/{key}/{number}" for number in range(start, start + len(first))]
    return move_sockets(show, first, second)


def move_sockets(show: Show, sockets: Sequence[str], to: Sequence[str]) -> dict[str, Asked]:
    """Moves after which all that used each of `sockets` uses the socket in its place in `to`.

    Lines, sources and spares follow, and so do gain and pad. Phantom power does not: it is never
    switched by a patch; Findings tells where it is then missing. Lines that stood on a target
    lose it, save those that move away themselves. Raises NothingLeft for fewer targets.
    """
    if len(to) < len(sockets):
        raise NothingLeft("sockets to move to", len(sockets), len(to))
    target = dict(zip(sockets, to, strict=False))
    moves: dict[str, Asked] = {}
    for line in show.lines():
        for side in ("socket", "socket_right"):
            socket = show[f"line/{line}/{side}"]
            if socket in target:
                moves[f"line/{line}/{side}"] = target[str(socket)]
            elif socket in target.values():
                moves[f"line/{line}/{side}"] = None
    for channel in range(1, show.desk.channels + 1):
        for leaf in ("source", "spare"):
            socket = show[f"channel/{channel}/{leaf}"]
            if socket in target:
                moves[f"channel/{channel}/{leaf}"] = target[str(socket)]
    preamped = {box.key for box in show.desk.boxes if box.preamps}
    for socket, new in target.items():
        if {Thing.at(socket).box, Thing.at(new).box} <= preamped:
            for leaf in ("gain", "pad"):
                moves[f"{new}/{leaf}"] = show[f"{socket}/{leaf}"]
    return moves


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
        return strip_of_line(show, line, channel, right=socket != show[f"line/{line}/socket"])
    return {}


def name_channels(show: Show, lines: Iterable[int]) -> dict[str, Asked]:
    """Moves that call the channels of lines after them; a stereo line's with L and R.

    Raises NotThere.
    """
    lines = list(lines)
    check_lines(show, lines)
    moves: dict[str, Asked] = {}
    for line in lines:
        for place, socket in enumerate(sockets_of_line(show, line)):
            for channel in channels_on(show, socket):
                named = strip_of_line(show, line, channel, right=place == 1)
                moves[f"channel/{channel}/name"] = named[f"channel/{channel}/name"]
    return moves


def strip_of_line(show: Show, line: int, channel: int, *, right: bool) -> dict[str, Asked]:
    """Moves that call a channel after a line: name and colour, and the pan of a side."""
    name = show.text(f"line/{line}/name")
    moves: dict[str, Asked] = {f"channel/{channel}/colour": show[f"line/{line}/colour"]}
    if show.on(f"line/{line}/stereo"):
        ending = " R" if right else " L"
        moves[f"channel/{channel}/name"] = within(name, ending)
        moves[f"channel/{channel}/pan"] = 1.0 if right else -1.0
    else:
        moves[f"channel/{channel}/name"] = within(name)
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
    free_sockets = [s for s in inputs_in_order(show, first_socket) if s not in show.plugged]
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
            moves.update(strip_of_line(show, line, channel, right=socket != sockets[0]))
    return moves


def _pair_first(free: list[str]) -> None:
    """Bring the next odd socket and the even above it to the front, if there is such a pair."""
    for socket in free:
        if Thing.at(socket).number % 2 == 1 and above(socket) in free:
            free.remove(socket)
            free.remove(above(socket))
            free[:0] = [socket, above(socket)]
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


def inputs_in_order(show: Show, first_socket: str | None) -> list[str]:
    """Inputs to hand out: from `first_socket` on, else stage boxes first, the local box after."""
    preamped = {box.key for box in show.desk.boxes if box.preamps}
    sockets = [s for s in show.inputs() if Thing.at(s).box in preamped]
    if first_socket in sockets:
        return sockets[sockets.index(first_socket) :]
    return sorted(sockets, key=lambda socket: Thing.at(socket).box == "local")  # a stable sort
