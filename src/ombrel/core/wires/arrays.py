"""A show's values as arrays: read whole, or followed move by move; nothing is computed here."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Final, NamedTuple

import numpy as np
from numpy.typing import NDArray

from ..catalogue import CATALOGUE, KINDS, TAPS, Desk, of_kind, pattern_of
from ..show import Show
from ..values import Value
from .homes import NOTHING, Home, feed_kind, homes_of
from .layout import Layout, layout_of
from .processed import PROCESSING, with_processing
from .rulers import RULING, with_rulers
from .shared import SHARING, with_sharing
from .solo import LEADING, SOLOING, with_solo
from .stages import STAGES, gain_of

__all__ = ["Arrays", "Floats", "Moved", "followed", "read_arrays"]

Floats = NDArray[np.floating[Any]]
_TAP_DEFAULT: Final = {
    "send": CATALOGUE["channel/<channel>/send/mix/<mix>/tap"].default,
    "matrix": CATALOGUE["mix/<mix>/send/matrix/<matrix>/tap"].default,
    "assign": "after_fader",
}


class Arrays(NamedTuple):
    """The values that the flow depends on, as numbers. Gains are linear, switches 0.0 or 1.0.

    `stage` (strips, stages): gain of each stage. `sides` (strips,): 0 not in use, 1, 2. Feeds,
    shape (feeding, buses): `on`, `amp` (gain of the feed; 1 for an assignment but into groups),
    `tap` (index into TAPS), `pan`; `strip_pan` (strips,) is that of assignments. `source`, `spare`,
    `on_spare` (rows,): what feeds channels and returns, see `homes`. `engine` (engines,): the mix
    that feeds it. Sockets, shape (sockets,): `out_source`, `out_tap`, `out_trim`. What rules strips
    together: `dca_of` (strips, dcas), `dca_in` (dcas, dcas: the first in the second), `dca_db`,
    `dca_mute` and `dca_solo` (dcas,), `group_of` (strips, mute groups), `group_on`, `group_hard`
    (mute groups,), `solo_of` (strips,), `solo_proof` (rows,), `solo_in_place` (1,). Of compressors,
    shape (strips,): `compressing`, `make_up` (gain), `blend` (0 to 1). Of shared gain: `sharing_of`
    (strips,), the group from 0, -1 for none; `sharing_out` (strips,), `sharing_before` (groups,).
    From these `rulers`, `processed` and `shared` work out stages; `closing` (strips, stages) is how
    many things close each stage when it is closed, and `dca_opened` (strips,).
    """

    stage: Floats
    sides: Floats
    on: Floats
    amp: Floats
    tap: Floats
    pan: Floats
    strip_pan: Floats
    source: Floats
    spare: Floats
    on_spare: Floats
    engine: Floats
    out_source: Floats
    out_tap: Floats
    out_trim: Floats
    dca_of: Floats
    dca_in: Floats
    dca_db: Floats
    dca_mute: Floats
    compressing: Floats
    make_up: Floats
    blend: Floats
    dca_solo: Floats
    solo_of: Floats
    solo_proof: Floats
    solo_in_place: Floats
    group_of: Floats
    group_on: Floats
    group_hard: Floats
    sharing_of: Floats
    sharing_out: Floats
    sharing_before: Floats
    closing: Floats
    dca_opened: Floats

    def in_force(self) -> NDArray[np.intp]:
        """What feeds each row now: its source, or its spare while it is switched to that."""
        return np.where(self.on_spare > 0.0, self.spare, self.source).astype(np.intp)


@dataclass(frozen=True, slots=True)
class Moved:
    """What a change wrote: places by array. Empty: it bears on no level."""

    places: Mapping[str, list[int]]

    def strips(self, array: str, width: int) -> set[int]:
        """First index of the places written in an array of `width` columns."""
        return {place // width for place in self.places.get(array, ())}


@lru_cache(maxsize=16)
def _blank(desk: Desk) -> Arrays:
    """Every address at its default, by the catalogue."""
    layout = layout_of(desk)
    kinds = [of_kind(strip) for strip in layout.strips]
    ways = [
        [feed_kind(one, other) for other in kinds[layout.first_bus :]]
        for one in kinds[: layout.feeding]
    ]
    way = np.array(ways).reshape(layout.feeding, layout.buses)
    assign, send = way == "assign", way == "send"
    tap = np.full(way.shape, float(TAPS.index(str(_TAP_DEFAULT["assign"]))))
    tap[send] = TAPS.index(str(_TAP_DEFAULT["send"]))
    tap[:, layout.matrices] = TAPS.index(str(_TAP_DEFAULT["matrix"]))
    on = send.astype(np.float64)
    on[:, layout.buses - desk.matrices - 2] = assign[:, layout.buses - desk.matrices - 2]  # house
    stage = np.ones((len(kinds), len(STAGES)))
    for number, kind in enumerate(kinds):
        pattern = pattern_of(kind)
        for place, one in enumerate(STAGES):
            if kind in one.strips and not (one.ruled or one.worked_out):
                stage[number, place] = one.of(CATALOGUE[f"{pattern}/{one.leaf}"].default)
    sides = np.array([KINDS[kind].sides or 0 for kind in kinds])
    sockets = len(layout.outputs)
    blank = Arrays(
        stage=stage,
        sides=sides.astype(np.float64),
        on=on,
        amp=assign.astype(np.float64),
        tap=tap,
        pan=np.zeros(way.shape),
        strip_pan=np.zeros(len(kinds)),
        source=np.full(layout.rows, float(NOTHING)),
        spare=np.full(layout.rows, float(NOTHING)),
        on_spare=np.zeros(layout.rows),
        engine=np.full(desk.effect_engines, float(NOTHING)),
        out_source=np.full(sockets, float(NOTHING)),
        out_tap=np.full(sockets, float(TAPS.index("after_fader"))),
        out_trim=np.full(sockets, gain_of(0.0)),
        dca_of=np.zeros((len(kinds), desk.dcas)),
        dca_in=np.zeros((desk.dcas, desk.dcas)),
        dca_db=np.zeros(desk.dcas),
        dca_mute=np.zeros(desk.dcas),
        compressing=np.zeros(len(kinds)),
        make_up=np.ones(len(kinds)),
        blend=np.ones(len(kinds)),
        dca_solo=np.zeros(desk.dcas),
        solo_of=np.zeros(len(kinds)),
        solo_proof=np.zeros(layout.rows),
        solo_in_place=np.zeros(1),
        group_of=np.zeros((len(kinds), desk.mute_groups)),
        group_on=np.zeros(desk.mute_groups),
        group_hard=np.zeros(desk.mute_groups),
        sharing_of=np.full(len(kinds), float(NOTHING)),
        sharing_out=np.zeros(len(kinds)),
        sharing_before=np.zeros(desk.sharing_groups),
        closing=np.ones(stage.shape),
        dca_opened=np.ones(len(kinds)),
    )
    for name in Arrays._fields:
        getattr(blank, name).setflags(write=False)
    return blank


def _written(
    arrays: Arrays, layout: Layout, found: dict[Home, tuple[list[int], list[Value]]]
) -> Arrays:
    fresh: dict[str, Floats] = {}
    for home, (places, values) in found.items():
        array = fresh.get(home.array)
        if array is None:
            array = fresh[home.array] = getattr(arrays, home.array).copy()
        if len(places) == 1:
            array.flat[places[0]] = home.one(layout, values[0])
        else:
            array.put(places, home.numbers(layout, values))
    return arrays._replace(**fresh)


def _by_home(
    homes: Mapping[str, tuple[Home, int]], values: Mapping[str, Value]
) -> dict[Home, tuple[list[int], list[Value]]]:
    """Values that bear on the flow, home by home, with their places in the home's array."""
    found: dict[Home, tuple[list[int], list[Value]]] = {}
    for address, value in values.items():
        at = homes.get(address)
        if at is not None:
            entry = found.get(at[0])
            if entry is None:
                entry = found[at[0]] = ([], [])
            entry[0].append(at[1])
            entry[1].append(value)
    return found


def read_arrays(show: Show) -> Arrays:
    """The arrays of a whole show, home by home."""
    homes = homes_of(show.desk)
    found = _by_home(homes, show.values)
    arrays = _written(_blank(show.desk), layout_of(show.desk), found)
    if any(home.array in PROCESSING for home in found):
        arrays = with_processing(arrays)
    if any(home.array in RULING for home in found):
        arrays = with_rulers(arrays)
    if any(home.array in SHARING for home in found):
        arrays = with_sharing(arrays)
    if any(home.array in SOLOING for home in found):
        arrays = with_solo(arrays, layout_of(show.desk))
    return arrays


def followed(arrays: Arrays, desk: Desk, new: Mapping[str, Value]) -> tuple[Arrays, Moved]:
    """The arrays after values changed, and what was written. The given arrays stay as they were."""
    homes = homes_of(desk)
    found = _by_home(homes, new)
    places: dict[str, list[int]] = {}
    for home, (written, _) in found.items():
        places.setdefault(home.array, []).extend(written)
    if not found:
        return arrays, Moved({})
    after = _written(arrays, layout_of(desk), found)
    processed = any(array in PROCESSING for array in places)
    if processed:
        after = with_processing(after)
    ruled = any(array in RULING for array in places)
    if ruled:
        after = with_rulers(after)
    shared = any(array in SHARING for array in places)
    if shared:
        after = with_sharing(after)
    bearing = LEADING if after.solo_in_place.any() else frozenset()
    soloed = any(array in SOLOING or array in bearing for array in places)
    if soloed:
        after = with_solo(after, layout_of(desk))
    if ruled or processed or soloed or shared:
        differs = (after.stage != arrays.stage) | (after.closing != arrays.closing)
        strips = np.flatnonzero(differs.any(axis=1)) * len(STAGES)
        places.setdefault("stage", []).extend(strips.tolist())
    return after, Moved(places)
