"""Mixes: made, given up, and edited by what is to arrive at their listeners."""

import math
from collections.abc import Iterable, Sequence
from typing import Final

from .addresses import parameter_at
from .edits import Asked, Typed
from .errors import NothingLeft, OutOfReach, SeveralPaths, UnreadableText
from .flow import Flow, State, bus_index, listener_name, source_name
from .kinds import Number
from .outputs import free_outputs, outputs_of
from .parameters import COLOURS
from .show import Show

__all__ = ["hear", "make_mixes", "remove_mix", "typed_level_db"]


# A level that arrives may lie anywhere; what the control can do is checked afterwards.
_ANY_LEVEL: Final = Number(unit="dB", lowest=-math.inf, highest=200.0, step=0.1)


def typed_level_db(text: str) -> float:
    """A level as typed where there is nothing to be relative to. Raises UnreadableText."""
    return _ANY_LEVEL.typed(text or "off", -math.inf, "level")


def make_mixes(
    show: Show,
    names: Sequence[str],
    *,
    stereo: bool,
    serves: str = "ears",
    channels: Sequence[int] = (),
    level_db: float = -math.inf,
    patch: bool = True,
) -> dict[str, Asked]:
    """Moves that make one mix for each name, all in one edit.

    Each takes the next mix not in use, a colour, sends of `channels` at `level_db` before the fader
    (which is the default tap), and with `patch` the next free outputs: a pair when stereo.
    Raises NothingLeft for mixes or outputs, UnreadableText when no name is given.
    """
    if not names or not all(name.strip() for name in names):
        raise UnreadableText(", ".join(names), "at least one name, and none of them empty")
    used = set(show.mixes())
    free = [number for number in range(1, show.desk.mixes + 1) if number not in used]
    if len(free) < len(names):
        raise NothingLeft("mixes", len(names), len(free))
    sides = 2 if stereo else 1
    sockets = free_outputs(show, sides * len(names), pairs=stereo) if patch else []
    moves: dict[str, Asked] = {}
    for turn, (name, number) in enumerate(zip(names, free, strict=False)):
        mix = f"mix/{number}"
        moves[f"{mix}/name"] = Typed(name)
        moves[f"{mix}/format"] = "stereo" if stereo else "mono"
        moves[f"{mix}/serves"] = serves
        moves[f"{mix}/colour"] = COLOURS[1 + (len(used) + turn) % (len(COLOURS) - 1)]
        if level_db > -math.inf:
            for channel in channels:
                moves[f"channel/{channel}/send/{mix}/level"] = level_db
                # a stereo pair stays as wide in the mix as it stands in the house
                moves[f"channel/{channel}/send/{mix}/pan"] = show[f"channel/{channel}/pan"]
        if patch and stereo:
            moves[f"{sockets[2 * turn]}/source"] = f"{mix}/left"
            moves[f"{sockets[2 * turn + 1]}/source"] = f"{mix}/right"
        elif patch:
            moves[f"{sockets[turn]}/source"] = mix
    return moves


def remove_mix(show: Show, number: int) -> dict[str, Asked]:
    """Moves that give up a mix: everything about it back to its default, its outputs free."""
    mix = f"mix/{number}"
    moves: dict[str, Asked] = {
        address: parameter_at(address).default
        for address in show.values
        if address.startswith(f"{mix}/") or f"/send/{mix}/" in address
    }
    moves.update({f"{socket}/source": None for socket in outputs_of(show, mix)})
    return moves


def hear(show: Show, flow: Flow, cells: Iterable[tuple[str, str]], text: str) -> dict[str, Asked]:
    """Moves after which each (source, listener) of `cells` arrives as typed: "-6", "+2", "off".

    A mix is ridden by its send, the house and mono by the channel's fader; off takes the channel
    out of the house or mono by its assignment, so that nothing else falls silent with it.
    A level is what arrives, with all that stands behind the send, so what is typed is what is read;
    a relative move needs something that arrives. A cell with a reason for silence gets its control
    set as if the way were open. Raises UnreadableText, OutOfReach, UnknownAddress.
    """
    moves: dict[str, Asked] = {}
    kind = parameter_at("channel/1/fader").kind
    highest_db = kind.highest if isinstance(kind, Number) else 0.0
    for source, listener in cells:
        name = source_name(show, source)
        row, column = int(source.split("/")[1]) - 1, bus_index(show.desk, listener)
        now_db = float(flow.level_db[row, column])
        if flow.through and flow.through.detours(row, column):
            raise SeveralPaths(name, listener_name(show, listener))
        rides_fader = listener in ("house", "mono")
        control = f"{source}/fader" if rides_fader else f"{source}/send/{listener}/level"
        switch = f"{source}/{listener}/on" if rides_fader else f"{source}/send/{listener}/on"
        standing_db = show.number(control)
        # What the rest of the path adds to the control. Where nothing arrives, take it as unity.
        rest_db = now_db - standing_db if math.isfinite(now_db) else 0.0
        wanted_db = _ANY_LEVEL.typed(text, standing_db + rest_db, f"{name} at {listener}")
        relative = text.strip().startswith("+")
        if wanted_db == -math.inf:
            if not rides_fader and not relative:
                moves[control] = -math.inf
            elif not relative and flow.state[row, column] != State.UNROUTED:
                moves[switch] = False
            continue
        needed_db = round(wanted_db - rest_db, 6)
        if needed_db > highest_db:
            what = f"The {'fader' if rides_fader else 'send'} of {name}"
            raise OutOfReach(what, needed_db, highest_db)
        moves[control] = needed_db
        if not relative:
            moves[switch] = True
    return moves
