"""Lines as a list writes them: names and all else that it says, and their sockets."""

from collections.abc import Mapping

from ..patching import LINE_FIELDS, NOMINAL_DBU, LineDraft, moves_of_draft
from ..show import Show, socket_name
from ..values import Asked, within
from .work import SIDES, Work

__all__ = ["write_lines"]


def write_lines(work: Work, matched: Mapping[int, int]) -> None:
    """Write what the list says of each draft's line; its sockets go to one line each only.

    `matched`: the line of each draft that the show knows, by the draft's turn.
    """
    wanted: dict[str, int] = {}
    for turn, draft in enumerate(work.drafts):
        for socket in (draft.socket, draft.socket_right):
            if socket and socket in wanted and wanted[socket] != turn:
                other = work.drafts[wanted[socket]].name
                where = socket_name(work.show.desk, socket)
                work.told[turn].append(
                    f"{where} is {other}'s already: it gets no socket from the list"
                )
            elif socket:
                wanted[socket] = turn
    last = max((work.show.number(f"line/{n}/place") for n in work.show.lines()), default=0.0)
    for turn, (draft, line) in enumerate(zip(work.drafts, work.lines, strict=True)):
        sockets = {
            side: socket
            for side, socket in zip(SIDES, (draft.socket, draft.socket_right), strict=True)
            if socket and wanted[socket] == turn
        }
        if turn in matched:
            if not draft.stereo:
                _drop_right(work, turn, line)
            moves = _said_anew(work.show, draft, line)
        else:
            last += 1.0
            moves = {**moves_of_draft(draft, line), f"line/{line}/place": last}
            moves.update({f"line/{line}/{side}": None for side in SIDES})
        _rename_channels(work, line, draft.name)
        work.put(moves)
        for side, socket in sockets.items():
            _plug(work, turn, line, side, socket)


def _drop_right(work: Work, turn: int, line: int) -> None:
    """A line that was stereo and is no more loses its right socket, and that side's channel."""
    right = work.show[f"line/{line}/socket_right"]
    if right is None:
        return
    work.put({f"line/{line}/socket_right": None})
    for number in work.channels_by_socket.pop(str(right), []):
        work.put({f"channel/{number}/source": None, f"channel/{number}/name": ""})
        work.told[turn].append(f"is mono now: channel {number} loses its source and name")


def _said_anew(show: Show, draft: LineDraft, line: int) -> dict[str, Asked]:
    """Of a line that the show knows only what the list speaks of, its sockets apart."""
    old_kind = show.text(f"line/{line}/kind")
    moves: dict[str, Asked] = {f"line/{line}/name": draft.name, f"line/{line}/stereo": draft.stereo}
    for name in LINE_FIELDS:
        if name in draft.said and name not in SIDES:
            moves[f"line/{line}/{name}"] = getattr(draft, name)
    level = f"line/{line}/level_dbu"
    if draft.level_dbu is None:
        moves.pop(level, None)
        # a level that still is the old kind's becomes the new one's
        if "kind" in draft.said and show[level] == NOMINAL_DBU.get(old_kind):
            moves[level] = NOMINAL_DBU[draft.kind]
    return moves


def _rename_channels(work: Work, line: int, name: str) -> None:
    """Channels that are called after a line go on being called after it."""
    old = work.show.text(f"line/{line}/name")
    if not old or old == name:
        return
    for side, number in zip(("L", "R"), work.channels_of(line), strict=False):
        for ending in ("", f" {side}"):
            if number and work.show.own_value(f"channel/{number}/name") == within(old, ending):
                work.put({f"channel/{number}/name": within(name, ending)})
                break


def _plug(work: Work, turn: int, line: int, side: str, socket: str) -> None:
    for other in work.show.lines():
        for leaf in SIDES:
            if (other, leaf) != (line, side) and work.show[f"line/{other}/{leaf}"] == socket:
                work.put({f"line/{other}/{leaf}": None})
                if other not in work.lines:
                    name = work.show.text(f"line/{other}/name")
                    where = socket_name(work.show.desk, socket)
                    work.told[turn].append(f"takes {where} from {name}")
    old = work.show[f"line/{line}/{side}"]
    work.put({f"line/{line}/{side}": socket})
    if isinstance(old, str) and old != socket:  # its channels go on hearing it
        for number in work.channels_by_socket.pop(old, []):
            if work.show[f"channel/{number}/source"] == old:
                work.put({f"channel/{number}/source": socket})
            work.channels_by_socket.setdefault(socket, []).append(number)
