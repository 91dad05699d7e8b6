"""Why: every step from a source to a listener, and every reason for silence with its remedy."""

import math
from dataclasses import dataclass

from ..parameters import TAPS
from ..show import Show
from ..sockets import socket_name
from .steps import Reason, Remedy, Step, Walk
from .strips import bus_index, bus_of, listener_name, source_name
from .table import Flow, State, flow_of
from .why_listener import to_listener
from .why_source import head, into_bus, mute_and_fader, processing

__all__ = ["Reason", "Remedy", "Step", "Why", "why"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Why:
    """The explanation of one cell of who hears what. `rank` of `heard` sources, 1 the loudest."""

    source: str
    listener: str
    source_name: str
    listener_name: str
    level_db: float
    state: State
    says: str
    steps: tuple[Step, ...]
    reasons: tuple[Reason, ...]
    rank: int | None
    heard: int


def why(show: Show, source: str, listener: str, *, flow: Flow | None = None) -> Why:
    """Explain one cell of who hears what.

    `source`: a channel such as `channel/7`; `listener`: `house`, `mono` or a mix such as `mix/5`.
    `flow`: the show's flow if it is at hand. The steps' gains add to the level, in dB, unless a
    reason stops the path; every reason is given, not only the first.
    Raises UnknownAddress for a source or listener that the desk does not have.
    """
    name, heard_by = source_name(show, source), listener_name(show, listener)
    column, row = bus_index(show.desk, listener), int(source.split("/")[1]) - 1
    bus = bus_of(show.desk, column)
    flow = flow or flow_of(show)
    walk = Walk()
    head(walk, show, source)
    if bus == "house" or bus == "mono":
        stereo, tap = bus == "house", TAPS.index("after_fader")
    else:
        stereo = show.text(f"{bus}/format") == "stereo"
        tap = TAPS.index(show.text(f"{source}/send/{bus}/tap"))
    processing(walk, show, source, tap)
    mute_and_fader(walk, show, source, tap)
    into_bus(walk, show, source, bus, stereo)
    if bus.startswith("mix/") and show.text(f"{bus}/format") == "unused":
        walk.stop("unrouted", f"{heard_by} is not in use. Make it in Mixes.", None)
    else:
        to_listener(walk, show, bus, stereo)
    level_db, reasons = walk.level_db(), tuple(walk.reasons)
    detours = flow.through.detours(row, column) if flow.through else []
    for fed, detour_db in detours:
        way = f"channel/{fed + 1}"
        source_bus = show.source_of(fed + 1) or ""
        walk.steps.append(
            Step(
                kind="detour",
                title=f"By way of {source_name(show, way)}",
                detail=f"fed by {socket_name(show.desk, source_bus)}: this much arrives that way",
                gain_db=detour_db,
                address=f"{way}/source",
            )
        )
    if detours:
        level_db = float(flow.level_db[row, column])
        reasons = () if math.isfinite(level_db) else reasons
    in_column = flow.level_db[:, column]
    heard = int((flow.state[:, column] == State.HEARD).sum())
    rank = int((in_column > in_column[row]).sum()) + 1 if math.isfinite(level_db) else None
    state = State(int(flow.state[row, column]))
    return Why(
        source=source,
        listener=bus,
        source_name=name,
        listener_name=heard_by,
        level_db=level_db,
        state=state,
        says=_summary(state, reasons, rank, heard) + (", by way of a bus" if detours else ""),
        steps=tuple(walk.steps),
        reasons=reasons,
        rank=rank,
        heard=heard,
    )


def _summary(state: State, reasons: tuple[Reason, ...], rank: int | None, heard: int) -> str:
    if state is State.HEARD:
        if heard == 1:
            return "heard, the only source here"
        place = "loudest" if rank == 1 else f"{_ordinal(rank or 0)} loudest"
        return f"heard, {place} of {heard} here"
    if state is State.UNROUTED:
        return "not sent here"
    count = len(reasons)
    return f"nothing arrives: {count} reason{'s' if count > 1 else ''}"


def _ordinal(number: int) -> str:
    if number % 100 in (11, 12, 13):
        return f"{number}th"
    return f"{number}{ {1: 'st', 2: 'nd', 3: 'rd'}.get(number % 10, 'th') }"
