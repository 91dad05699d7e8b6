"""A flow evaluated from arrays: the whole of it, or what a move made stale."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ..wires import (
    AFTER_FADER,
    STAGES,
    Arrays,
    Fed,
    Floats,
    Indices,
    Layout,
    Moved,
    Wiring,
    fed_by,
    has_source,
    into_matrices,
    reached,
    rewired,
    rounds,
    settled,
    spread,
    stage_of,
    wired,
)
from .ears import ears_of
from .filling import direct_sockets, fill, fill_direct, fill_levels
from .loops import refuse_howling
from .naming import Names
from .table import Bools, Flow

__all__ = ["check_howling", "evaluated", "followed_flow", "with_stages"]

_POLARITY: Final = stage_of("polarity")
_STRUCTURE: Final = ("sides", "source", "spare", "on_spare", "engine")
_NONE: Final = np.zeros(0, dtype=np.intp)


def _counted(wiring: Wiring, nodes: Indices, layout: Layout) -> Floats:
    """How many paths with their feeds on lead from each node to each bus's sides."""
    return spread(wiring.straight_on(nodes), wiring.on_of_buses, layout)


def _plain(wiring: Wiring, nodes: Indices, layout: Layout) -> Floats:
    return spread(wiring.straight(nodes), wiring.of_buses, layout)


def _sizes(wiring: Wiring, nodes: Indices, layout: Layout) -> Floats:
    return spread(np.abs(wiring.straight(nodes)), wiring.of_buses, layout)


def _is_mixed(wiring: Wiring, fed: Fed, layout: Layout) -> bool:
    turned = wiring.arrays.stage[: layout.rows, _POLARITY] < 0.0
    if not turned.any():
        return False
    if turned[fed.row].any():
        return True
    # the tap at the input lies before the polarity: such a feed goes against the strip's others
    return bool((wiring.gain(np.flatnonzero(turned)) > 0.0).any())


def evaluated(arrays: Arrays, layout: Layout) -> Flow:
    """The flow of a show's arrays. Raises FeedbackLoop."""
    flow = _unfilled(arrays, layout)
    names = Names(flow)
    fill(flow, names, layout.every_row, layout.every_bus)
    fill_direct(flow, names, layout.every_row)
    return flow


def _unfilled(arrays: Arrays, layout: Layout) -> Flow:
    """A flow of which the table is still to be filled in: what arrives, and that nothing howls.

    Raises FeedbackLoop.
    """
    wiring = wired(arrays, layout)
    nodes, rows = layout.every_node, layout.every_row
    plain, fed = _plain(wiring, nodes, layout), fed_by(arrays, layout)
    mixed = _is_mixed(wiring, fed, layout)
    sizes = _sizes(wiring, nodes, layout) if mixed else plain
    behind, dry = wiring.tap[layout.first_bus :, AFTER_FADER], fed.dry
    sockets = direct_sockets(arrays.out_source)
    flow = Flow(
        wiring=wiring,
        fed=fed,
        around=rounds(fed.taken(plain[fed.node[:dry]], behind, dry)),
        ears=ears_of(arrays, layout, wiring),
        plain=plain,
        sizes=sizes,
        open_to=sizes != 0.0,
        on_to=_counted(wiring, nodes, layout),
        at_fed=np.zeros((layout.rows, 0)),
        mixed=mixed,
        sourced=np.zeros(layout.rows, dtype=np.bool_),
        sockets=sockets,
        level_db=np.full((layout.rows, layout.buses), -np.inf),
        state=np.zeros((layout.rows, layout.buses), dtype=np.int8),
        direct_db=np.full((layout.rows, sockets.size), -np.inf),
        direct_state=np.zeros((layout.rows, sockets.size), dtype=np.int8),
    )
    if fed.node.size:
        refuse_howling(fed.taken(sizes[fed.node], behind), fed, arrays, wiring, layout)
    return replace(
        flow,
        at_fed=settled(flow.by_row(fed.taken(plain, behind, dry), rows), flow.around),
        sourced=has_source(arrays, layout, wiring, fed, flow.open_to),
    )


def with_stages(flow: Flow, stage: Floats) -> Flow:
    """What arrives where with other gains of stages, shape as `Arrays.stage`; its table is left

    empty. Raises FeedbackLoop.
    """
    return _unfilled(flow.arrays._replace(stage=stage), flow.layout)


def check_howling(before: Flow, arrays: Arrays, moved: Moved) -> None:
    """Raise FeedbackLoop if moves close a loop: only what buses feed is worked out."""
    layout, wiring, fed = before.layout, before.wiring, before.fed
    if "sides" in moved.places:
        wiring = wired(arrays, layout)
    else:
        touched = _touched(moved, layout)
        wiring = rewired(
            wiring, arrays, stages=touched.stages, feeds=touched.feeds, pans=touched.pans
        )
    if any(array in moved.places for array in _STRUCTURE):
        fed = fed_by(arrays, layout)
    if fed.node.size:
        behind = wiring.tap[layout.first_bus :, AFTER_FADER]
        around = fed.taken(_sizes(wiring, fed.node, layout), behind)
        refuse_howling(around, fed, arrays, wiring, layout)


@dataclass(frozen=True, slots=True)
class _Stale:
    """What a move made stale. `nodes`, `rows`, `buses` (columns): to compute again. `any_bus`: a

    bus moved, so that matrices and fed channels may have. `feeds`: some went on or off. `named`:
    rows of which a cause of silence may have come or gone; `all_named`: any row may be such.
    """

    nodes: Bools
    rows: Bools
    buses: Bools
    any_bus: bool
    feeds: bool
    outputs: bool
    named: Bools
    all_named: bool


@dataclass(frozen=True, slots=True)
class _Touched:
    """The strips of which a move wrote stages, feeds and pans, and any of these, ascending."""

    stages: Indices
    feeds: Indices
    pans: Indices
    any: Indices


def _touched(moved: Moved, layout: Layout) -> _Touched:
    stages = moved.strips("stage", len(STAGES))
    feeds = set[int]().union(*(moved.strips(a, layout.buses) for a in ("on", "amp", "tap")))
    pans = moved.strips("strip_pan", 1) | moved.strips("pan", layout.buses)
    kinds = (stages, feeds, pans, stages | feeds | pans)
    return _Touched(*(np.array(sorted(strips), dtype=np.intp) for strips in kinds))


def followed_flow(before: Flow, arrays: Arrays, moved: Moved) -> tuple[Flow, Indices, Indices]:
    """The flow after moves, and the rows and columns (buses) that were filled in again.

    Raises FeedbackLoop.
    """
    layout = before.layout
    touched = _touched(moved, layout)
    anew = any(array in moved.places for array in _STRUCTURE)
    # so many rows are quicker at once
    if anew or int((touched.any < layout.rows).sum()) * 2 > layout.rows:
        return evaluated(arrays, layout), layout.every_row, _NONE
    wiring = rewired(
        before.wiring, arrays, stages=touched.stages, feeds=touched.feeds, pans=touched.pans
    )
    if _is_mixed(wiring, before.fed, layout) != before.mixed:
        return evaluated(arrays, layout), layout.every_row, _NONE
    return _caught_up(before, wiring, _stale(before, wiring, touched, moved))


def _stale(before: Flow, wiring: Wiring, touched: _Touched, moved: Moved) -> _Stale:
    layout, old = before.layout, before.wiring
    closed, feeds, pans = touched.stages, touched.feeds, touched.pans
    switched = ((wiring.live(feeds) > 0.0) != (old.live(feeds) > 0.0)).any(axis=1)
    tapped = (wiring.arrays.tap[feeds] != old.arrays.tap[feeds]).any(axis=1)
    # a pan may take a side away
    panned = ((wiring.share[pans] > 0.0) != (old.share[pans] > 0.0)).any(axis=(1, 2, 3))
    causes = np.zeros(len(layout.strips), dtype=np.bool_)
    causes[closed] = (wiring.closed[closed] != old.closed[closed]).any(axis=1)
    causes[feeds] |= switched | tapped
    causes[pans] |= panned
    outputs = any(array.startswith("out_") for array in moved.places)
    named = causes[: layout.rows]
    of_bus = bool(causes[layout.first_bus :].any())
    all_named = outputs or of_bus or bool(before.fed.dry and causes.any())
    buses = touched.any[touched.any >= layout.first_bus] - layout.first_bus
    rows = np.zeros(layout.rows, dtype=np.bool_)
    rows[touched.any[touched.any < layout.rows]] = True
    node_row = layout.row_of_node
    nodes = rows[node_row]
    groups = buses[buses < layout.groups.stop]
    if groups.size:  # whoever leads into a moved group
        nodes |= before.on_to[:, groups].any(axis=(1, 2))
        rows[node_row[nodes]] = True
    columns = np.zeros(layout.buses, dtype=np.bool_)
    columns[buses] = True
    middle = (buses >= layout.middle.start) & (buses < layout.middle.stop)
    columns[layout.matrices] |= bool(middle.any())
    switches = bool(switched.any() or panned.any())
    return _Stale(nodes, rows, columns, bool(buses.size), switches, outputs, named, all_named)


def _caught_up(before: Flow, wiring: Wiring, stale: _Stale) -> tuple[Flow, Indices, Indices]:
    layout, fed, arrays = before.layout, before.fed, wiring.arrays
    plain, sizes, open_to, on_to = _plain_again(before, wiring, stale)
    behind, dry = wiring.tap[layout.first_bus :, AFTER_FADER], fed.dry
    every = layout.every_row
    at_fed, around, ears, sourced = before.at_fed, before.around, before.ears, before.sourced
    if fed.node.size and (stale.any_bus or stale.nodes[fed.node].any()):
        refuse_howling(fed.taken(sizes[fed.node], behind), fed, arrays, wiring, layout)
    if dry:
        around = rounds(fed.taken(plain[fed.node[:dry]], behind, dry), around)
        at_fed = settled(before.by_row(fed.taken(plain, behind, dry), every), around)
    if stale.outputs or stale.any_bus:
        ears = ears_of(arrays, layout, wiring)
        stale.buses[:] |= ears.differing(before.ears)
    if stale.any_bus or (open_to[stale.nodes] != before.open_to[stale.nodes]).any():
        sourced = has_source(arrays, layout, wiring, fed, open_to)
    carries = direct_sockets(arrays.out_source) if stale.outputs else before.sockets
    same = np.array_equal(carries, before.sockets)
    shape = (layout.rows, carries.size)
    flow = Flow(
        wiring=wiring,
        fed=fed,
        around=around,
        ears=ears,
        plain=plain,
        sizes=sizes,
        open_to=open_to,
        on_to=on_to,
        at_fed=at_fed,
        mixed=before.mixed,
        sourced=sourced,
        sockets=carries,
        level_db=before.level_db.copy(),
        state=before.state.copy(),
        direct_db=before.direct_db.copy() if same else np.full(shape, -np.inf),
        direct_state=before.direct_state.copy() if same else np.zeros(shape, dtype=np.int8),
    )
    again = stale.rows | (sourced != before.sourced)
    through, beyond = _through_fed(before, flow, stale)
    through &= ~again
    rows, columns = np.flatnonzero(again | through), np.flatnonzero(stale.buses)
    # where paths may take one another away, whether one does hangs on their levels
    all_named = stale.all_named or flow.mixed
    named = stale.named | (sourced != before.sourced) | all_named
    names = Names(flow)
    if all_named:  # first: who asks about every row weighs ways for all that ask later
        fill(flow, names, every, columns)
    else:
        fill_levels(flow, every, columns)
    for part, at in ((again, layout.every_bus), (through, beyond)):
        fill(flow, names, np.flatnonzero(part & named), at)
        fill_levels(flow, np.flatnonzero(part & ~named), at)
    fill_direct(flow, names, every if stale.outputs or (dry and stale.any_bus) else rows)
    return flow, rows, columns


def _through_fed(before: Flow, flow: Flow, stale: _Stale) -> tuple[Bools, Indices]:
    """Rows of which another amount arrives at channels that buses feed, or by other ways; and the

    columns that these channels reach, by themselves or by others that buses feed.
    """
    layout, fed, dry = flow.layout, flow.fed, flow.fed.dry
    rows = np.zeros(layout.rows, dtype=np.bool_)
    if not dry:
        return rows, _NONE
    differs = flow.at_fed != before.at_fed
    changed = differs.any(axis=0)
    rows |= differs.any(axis=1)
    stale_fed = stale.rows[fed.row[:dry]] | stale.buses[fed.bus[:dry]]
    if stale_fed.any():
        rows |= (before.on_at_fed() | flow.on_at_fed())[:, stale_fed].any(axis=1)
    changed |= stale_fed
    if not changed.any():
        return rows, _NONE
    on_to = np.maximum(before.on_to, flow.on_to)[fed.node[:dry]]
    steps = fed.taken(on_to, np.ones(layout.buses), dry) > 0.0
    changed |= reached(changed[None, :], steps)[0]
    return rows, np.flatnonzero((on_to[changed] > 0.0).any(axis=(0, 2)) & ~stale.buses)


def _plain_again(
    before: Flow, wiring: Wiring, stale: _Stale
) -> tuple[Floats, Floats, Bools, Floats]:
    """`plain`, `sizes`, `open_to` and `on_to` where they are stale."""
    layout = before.layout
    plain, open_to, on_to = before.plain, before.open_to, before.on_to
    sizes = before.sizes
    nodes, last = np.flatnonzero(stale.nodes), layout.matrices
    matrices = bool(stale.buses[last].any()) and last.stop > last.start
    if nodes.size or matrices:
        plain, open_to = plain.copy(), open_to.copy()
    if nodes.size:
        plain[nodes] = _plain(wiring, nodes, layout)
    if matrices:
        plain[:, last] = into_matrices(plain, wiring.of_buses, layout)
    if not before.mixed:
        sizes = plain
    elif nodes.size or matrices:
        sizes = sizes.copy()
        if nodes.size:
            sizes[nodes] = _sizes(wiring, nodes, layout)
        if matrices:
            sizes[:, last] = into_matrices(sizes, wiring.of_buses, layout)
    if nodes.size:
        open_to[nodes] = sizes[nodes] != 0.0
    if matrices:
        open_to[:, last] = sizes[:, last] != 0.0
    if stale.feeds and (nodes.size or matrices):
        on_to = on_to.copy()
        if nodes.size:
            on_to[nodes] = _counted(wiring, nodes, layout)
        if matrices:
            on_to[:, last] = into_matrices(on_to, wiring.on_of_buses, layout)
    return plain, sizes, open_to, on_to
