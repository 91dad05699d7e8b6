"""The explanation of one cell of who hears what."""

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from itertools import islice
from types import MappingProxyType
from typing import Final

from ..catalogue import SOURCES, of_kind, thing_of
from ..edit import edited
from ..flow import Flow, Network, Path, State, flow_of, listener_name, source_name, strip_name
from ..sharing import sharings
from ..show import Show
from ..strips import keyed, path_ms
from ..together import joining
from ..values import SILENCE_DB, Asked, ConsoleError, counted, said, sides_to_level_db
from .reason import Reason, Remedy
from .reasons import Reasons
from .ruled import with_taking_out
from .steps import Step, Tale, head, told

__all__ = ["Way", "Why", "reasons_of", "why"]

_MOST_WAYS: Final = 8  # told one by one; what more there are is told together
_MOST_PATHS: Final = 64  # side by side, looked through for them
_MOST_TRIES: Final = 8  # ways to open a cell that are tried before none is offered


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """One way from the source to the listener. `says`: by way of what, "" for its own feed.

    `level_db`: what arrives by it, the sum of its steps' gains (-inf: nothing does). `wet`: through
    an effect, which the table leaves out. `late_ms`: how late it arrives; None where that is not
    one number.
    """

    says: str
    level_db: float
    wet: bool
    steps: tuple[Step, ...]
    late_ms: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Why:
    """The explanation of one cell. `ways`: the loudest first; of a silent cell the one that takes

    the fewest actions to open. `opening`: those actions as one. `rank` of `heard` sources at this
    listener, 1 the loudest. `also`: of what is not sent, what else would silence it on that way.
    """

    source: str
    listener: str
    source_name: str
    listener_name: str
    level_db: float
    state: State
    says: str
    head: tuple[Step, ...]
    ways: tuple[Way, ...]
    reasons: tuple[Reason, ...]
    opening: Remedy | None
    rank: int | None
    heard: int
    also: tuple[Reason, ...] = ()


def why(
    show: Show,
    source: str,
    listener: str,
    *,
    flow: Flow | None = None,
    shares_now: Mapping[str, float] = MappingProxyType({}),
) -> Why:
    """Explain one cell of who hears what.

    `source`: a channel or return; `listener`: a bus, or a socket that carries a direct out.
    `flow`: the show's flow if it is at hand; `shares_now`: the gain of who shares it, in dB by
    strip, as measured. Each way's steps add to its level, and the ways (with their signs) to the
    cell's. Raises UnknownAddress.
    """
    flow = flow or flow_of(show)
    layout = flow.layout
    row, column = layout.row(source), layout.column(listener)
    cell = flow.cell(row, column)
    name, heard_by = source_name(show, source), listener_name(show, listener)
    ways = tuple(_ways(show, flow, row, column, cell.state, shares_now))
    known = Reasons(show, flow)
    reasons = reasons_of(known, row, column, cell.state)
    opening = None
    if cell.state not in (State.HEARD, State.CANCELLED):
        opening = _opening(known, row, column, cell.state)
    if column < layout.buses:
        levels, states = flow.level_db[:, column], flow.state[:, column]
    else:
        part = flow.part(list(range(layout.rows)), [column])
        levels, states = part[0][:, 0], part[1][:, 0]
    heard = int((states == State.HEARD).sum())
    rank = int((levels > levels[row]).sum()) + 1 if cell.state is State.HEARD else None
    return Why(
        source=source,
        listener=listener,
        source_name=name,
        listener_name=heard_by,
        level_db=cell.level_db,
        state=cell.state,
        says=_summary(cell.state, reasons, rank, heard, sum(not way.wet for way in ways))
        + (_shut(show, flow, row, column) if cell.state is State.HEARD else ""),
        head=tuple(head(show, source)),
        ways=ways,
        reasons=reasons,
        opening=opening,
        rank=rank,
        heard=heard,
        also=_also(known, row, column) if cell.state is State.UNROUTED else (),
    )


def _shut(show: Show, flow: Flow, row: int, column: int) -> str:
    """What keyed gates on its loudest way take away just now: levels count them as open."""
    path = next(Network(flow, row, column).loudest(), None) if flow.fed.dry else None
    strips = [flow.layout.strips[one] for one in path.strips] if path else []
    strips = strips or [flow.layout.source(row)]
    found = ((strip, keyed(show, flow, strip)) for strip in strips if of_kind(strip) == "channel")
    shut = [
        f"; the gate of {strip_name(show, strip)} takes {said(key.takes_db, 0)} dB of it away now"
        for strip, key in found
        if key is not None and key.takes_db is not None and key.takes_db >= 0.5
    ]
    return "".join(shut)


# ---- the ways


def _ways(
    show: Show, flow: Flow, row: int, column: int, state: State, shares_now: Mapping[str, float]
) -> Iterator[Way]:
    network = Network(flow, row, column, possible=state is State.UNROUTED)
    if state not in (State.HEARD, State.CANCELLED):
        first = next(network.fewest(), None)
        if first is not None:
            tale = told(show, flow, row, column, [first], shares_now)
            yield _finished(show, flow, tale, first, wet=False)
        return
    rest = network.amplitudes()
    for paths in _by_strips(network.loudest()):
        tale = told(show, flow, row, column, paths, shares_now)
        rest = rest - tale.sides
        yield _finished(show, flow, tale, paths[0], wet=False)
    left = float((rest * rest).sum())
    whole = float((network.amplitudes() ** 2).sum())
    level_db = float(sides_to_level_db(*rest))
    if left > 1e-18 * whole and level_db > -math.inf:
        detail = "what loops bring round again, and every other way, together"
        step = Step(kind="rounds", title="More ways and rounds", detail=detail, gain_db=level_db)
        yield Way(says="by more ways and rounds", level_db=level_db, wet=False, steps=(step,))
    yield from _wet_ways(show, flow, row, column, shares_now)


def _wet_ways(
    show: Show, flow: Flow, row: int, column: int, shares_now: Mapping[str, float]
) -> Iterator[Way]:
    if not flow.fed.wet.any():
        return
    loudest = islice(Network(flow, row, column, wet=True).loudest(), _MOST_PATHS)
    wet = (path for path in loudest if any(_is_wet(flow, path, n) for n in range(len(path.edges))))
    for paths in _by_strips(wet):
        tale = told(show, flow, row, column, paths, shares_now)
        yield _finished(show, flow, tale, paths[0], wet=True)


def _is_wet(flow: Flow, path: Path, number: int) -> bool:
    to = path.edges[number].to
    return to is not None and flow.layout.channels <= to[0] < flow.layout.first_bus


def _by_strips(paths: Iterable[Path]) -> Iterable[list[Path]]:
    """Paths as they are told as one way: those that pass the same strips, by whichever sides.

    Only where a strip is passed twice are there several: else one is told with all its sides.
    """
    found: dict[tuple[int, ...], list[Path]] = {}
    for path in islice(paths, _MOST_PATHS):
        strips = path.strips
        if strips not in found and len(found) == _MOST_WAYS:
            break
        some = found.setdefault(strips, [])
        if not some or len(set(strips)) < len(strips):
            some.append(path)
    return found.values()


def _finished(show: Show, flow: Flow, tale: Tale, path: Path, *, wet: bool) -> Way:
    strips = [flow.layout.strips[strip] for strip in path.strips[1:]]
    last = path.edges[-1].start[0]
    between = [s for s in strips if s != flow.layout.strips[last]] if len(strips) else []
    names = []
    for strip in between:
        kind = of_kind(strip)
        if wet and kind == "mix":
            continue  # the effect itself is named by its return
        known = strip_name(show, strip)
        names.append(f"the {kind} {known}" if kind in ("group", "matrix") else known)
    says = f"by way of {' and '.join(names)}{', wet' if wet else ''}" if names else ""
    is_open = all(step.open for step in tale.steps)
    gains = [step.gain_db for step in tale.steps if step.gain_db is not None]
    level_db = sum(gains) if is_open else -math.inf
    if path.causes or path.off or level_db < SILENCE_DB:
        level_db = -math.inf
    late_ms = path_ms(show, flow, path)
    return Way(says=says, level_db=level_db, wet=wet, steps=tuple(tale.steps), late_ms=late_ms)


# ---- the reasons


def reasons_of(known: Reasons, row: int, column: int, state: State) -> tuple[Reason, ...]:
    """The reasons of a cell that is in a state, the nearest to its source first."""
    flow, layout = known.flow, known.flow.layout
    if state is State.HEARD:
        return ()
    listener = layout.listener(column)
    if state is State.UNROUTED:
        if column < layout.buses and flow.arrays.sides[layout.first_bus + column] == 0:
            return (known.of("not_in_use", listener),)
        off = Network(flow, row, column, possible=True).feeds_off()
        if not off:
            return (known.of("no_way", listener),)
        return tuple(known.of("unrouted", address) for address in off)
    network = Network(flow, row, column)
    found = [known.of(cause, address) for cause, address in network.causes()]
    found = [with_taking_out(known.show, network, reason) for reason in found]
    if state is State.CANCELLED:
        found += [known.of("turned", address) for address in network.turned()]
    return tuple(found)


def _also(known: Reasons, row: int, column: int) -> tuple[Reason, ...]:
    """What would still silence a source that is not sent, on the way that is soonest open."""
    network = Network(known.flow, row, column, possible=True)
    first = next(network.fewest(), None)
    if first is None:
        return ()
    return tuple(known.of(cause, address) for cause, address in sorted(first.causes))


def _opening(known: Reasons, row: int, column: int, state: State) -> Remedy | None:
    """The fewest actions that let it be heard, as one; None where no permitted ones do."""
    show, flow = known.show, known.flow
    network = Network(flow, row, column, possible=state is State.UNROUTED)
    for turn, path in enumerate(network.fewest()):
        if turn == _MOST_TRIES:
            return None
        reasons = [known.of("unrouted", address) for address in path.off]
        reasons += [known.of(cause, address) for cause, address in path.causes]
        moves: dict[str, Asked] = {}
        for reason in reasons:
            if reason.remedy is None:
                break
            moves.update(reason.remedy.moves)
        else:
            if not moves or not _lets_through(show, flow, moves, row, column):
                continue
            if len(reasons) == 1 and reasons[0].remedy is not None:
                return reasons[0].remedy
            joins = joining(show, moves)
            so = f", and so to {joins}" if joins else ""
            return Remedy(says=f"Let it be heard: {len(reasons)} actions{so}", moves=moves)
    return None


def _lets_through(show: Show, flow: Flow, moves: dict[str, Asked], row: int, column: int) -> bool:
    try:
        after = edited(show, flow, moves).flow
    except ConsoleError:
        return False
    return after.cell(row, column).state is State.HEARD


def _summary(
    state: State, reasons: tuple[Reason, ...], rank: int | None, heard: int, ways: int
) -> str:
    if state is State.HEARD:
        several = f", by {ways} ways" if ways > 1 else ""
        if heard == 1:
            return f"heard, the only source here{several}"
        place = "loudest" if rank == 1 else f"{_ordinal(rank or 0)} loudest"
        return f"heard, {place} of {heard} here{several}"
    if state is State.UNROUTED:
        return "not sent here"
    if state is State.CANCELLED:
        return "its paths take one another away"
    count = len(reasons)
    return f"nothing arrives: {counted(count, 'reason')}"


def _ordinal(number: int) -> str:
    if number % 100 in (11, 12, 13):
        return f"{number}th"
    return f"{number}{ {1: 'st', 2: 'nd', 3: 'rd'}.get(number % 10, 'th') }"


def may_explain_otherwise(
    show: Show, flow: Flow, source: str, listener: str, addresses: Iterable[str]
) -> bool:
    """Whether moves at some addresses may have changed why a source arrives at a listener or not.

    They have not if all stand at other sources that no bus feeds: nothing of this cell passes
    them. In doubt they may have.
    """
    layout, through = flow.layout, flow.fed.row.tolist()
    passed = {source, *(layout.source(row) for row in through)}
    if any(show[f"{one}/gate/key"] for one in passed if of_kind(one) == "channel"):
        return True  # what opens a gate on the way may be any strip
    if of_kind(listener) == "output":
        return True
    members = (one.strip for group in sharings(show) for one in group.members)
    if any(one in passed or of_kind(one) not in SOURCES for one in members):
        return True  # its share hangs on what the others of its group bring
    for address in addresses:
        strip = thing_of(address)
        if of_kind(address) not in SOURCES or strip == source or layout.row(strip) in through:
            return True
    return False
