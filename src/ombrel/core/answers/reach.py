"""How far a DCA or mute group reaches: what each listener loses by it, and who still hears."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from ..catalogue import of_kind
from ..edit import edited
from ..flow import Flow, State, listener_name, listeners, sources, strip_name
from ..show import Show
from ..together import dcas_of, members_of, mutes_for, rulers_in_use
from ..values import Asked
from .reason import Remedy
from .tails import Tail, tails, with_tails

__all__ = ["AtListener", "Reach", "closing", "reach"]

_BEHIND_MUTE: Final = "before_fader_after_mute"


@dataclass(frozen=True, slots=True, kw_only=True)
class AtListener:
    """What a ruler does at a listener, in numbers of sources heard there while it is open.

    `closes`: fall silent by its mute or key. `follows`: move with its level (mute groups: none).
    `still`: members (strips by name) that are heard there all the same.
    """

    listener: str
    name: str
    closes: int
    follows: int
    still: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reach:
    """`closed`: cells that it closes, `listeners` where it does or should. `alone`: members that it

    alone rules. `behind`: moves after which sends that pass it by are tapped behind the mute, with
    `sends`, how many. `tails`: returns that ring on when it mutes; `along`: what mutes them too.
    `on`: it is muting now.
    """

    ruler: str
    on: bool
    members: tuple[str, ...]
    alone: tuple[str, ...]
    closed: int
    listeners: tuple[AtListener, ...]
    behind: Mapping[str, Asked]
    sends: int
    tails: tuple[Tail, ...]
    along: Remedy | None


def reach(show: Show, flow: Flow, ruler: str) -> Reach:
    """How far a ruler reaches now, whether or not its key is on. Raises UnknownAddress."""
    members = members_of(show, ruler)
    is_dca = of_kind(ruler) == "dca"
    key = f"{ruler}/mute" if is_dca else f"{ruler}/on"
    open_now = _with(show, flow, ruler, {key: False})
    shut_now = _with(show, flow, ruler, {key: True})
    heads = listeners(show)
    columns = [flow.layout.column(one) for one in heads]
    rows = list(range(flow.layout.rows))
    heard = open_now.part(rows, columns)[1] == State.HEARD
    left = shut_now.part(rows, columns)[1] == State.HEARD
    follows = np.zeros_like(heard)
    if is_dca:
        level_db = show.number(f"{ruler}/fader")
        other_db = level_db - 6.0 if level_db > -60.0 else 0.0
        moved = _with(show, flow, ruler, {key: False, f"{ruler}/fader": other_db})
        levels = [one.part(rows, columns)[0] for one in (open_now, moved)]
        follows = heard & (levels[0] != levels[1])
    ruled_rows = [r for r in rows if _rules(show, ruler, flow.layout.source(r))]
    ruled = [one for one in sources(show) if _rules(show, ruler, one)]
    ringing = tails(show, open_now, ruler, ruled)
    found = []
    behind: dict[str, Asked] = {}
    for place, listener in enumerate(heads):
        closes = int((heard[:, place] & ~left[:, place]).sum())
        still = [flow.layout.source(r) for r in ruled_rows if left[r, place]]
        for source in still:
            tap = f"{source}/send/{listener}/tap"
            if tap in flow.homes and show[tap] not in (_BEHIND_MUTE, "after_fader"):
                behind[tap] = _BEHIND_MUTE
        if closes or still or follows[:, place].any():
            found.append(
                AtListener(
                    listener=listener,
                    name=listener_name(show, listener),
                    closes=closes,
                    follows=int(follows[:, place].sum()),
                    still=tuple(strip_name(show, source) for source in still),
                )
            )
    return Reach(
        ruler=ruler,
        on=show.on(key),
        members=tuple(members),
        alone=tuple(m for m in members if _alone(show, ruler, m)),
        closed=int((heard & ~left).sum()),
        listeners=tuple(found),
        behind=behind,
        sends=len(behind),
        tails=ringing,
        along=with_tails(show, ruler, ruled, ringing),
    )


def closing(show: Show, flow: Flow) -> dict[str, int]:
    """For each mute group in use how many cells its key closes: heard with it open and not with it

    shut, whichever it is now.
    """
    columns = [flow.layout.column(one) for one in listeners(show)]
    rows = [flow.layout.row(one) for one in sources(show)]
    found = {}
    for group in rulers_in_use(show, "mute_group"):
        other = _with(show, flow, group, {f"{group}/on": not show.on(f"{group}/on")})
        pair = (flow, other) if show.on(f"{group}/on") else (other, flow)
        shut, opened = (one.part(rows, columns)[1] == State.HEARD for one in pair)
        found[group] = int((opened & ~shut).sum())
    return found


def _with(show: Show, flow: Flow, ruler: str, moves: dict[str, Asked]) -> Flow:
    if of_kind(ruler) == "mute_group":
        moves = {**moves, f"{ruler}/safe": False}  # only looked at: no key is moved
    return edited(show, flow, moves).flow


def _rules(show: Show, ruler: str, strip: str) -> bool:
    if of_kind(ruler) == "dca":
        return ruler in dcas_of(show, strip)
    return show.on(f"{strip}/{ruler}/on")


def _alone(show: Show, ruler: str, member: str) -> bool:
    if of_kind(ruler) == "dca":
        return all(way[0] == ruler for way in dcas_of(show, member).values())
    return mutes_for(show, member) == [ruler]
