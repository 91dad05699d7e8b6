"""Who hears a group share its gain, and who hears each member as it is, by the taps of feeds."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from ..catalogue import TAPS
from ..flow import Flow, listener_name, listeners
from ..show import Show
from ..wires import AFTER_FADER, DIRECT, closure

__all__ = ["Reach", "place_told", "reaches"]

_BEFORE_FADER: Final = TAPS.index("before_fader")
_NAMED: Final = 6


@dataclass(frozen=True, slots=True)
class Reach:
    """Listeners of a strip, by feeds that are on: those that hear it behind the place where it

    shares its gain, and those that some feed brings it to from before.
    """

    shared: frozenset[str]
    plain: frozenset[str]


def reaches(
    show: Show, flow: Flow, strips: Sequence[str], *, before_fader: bool
) -> dict[str, Reach]:
    """Whom each of some strips reaches. `before_fader`: where the stage of their group stands."""
    layout, arrays = flow.layout, flow.arrays
    heard = listeners(show)
    columns = {layout.column(one): one for one in heard}
    onward = _onward(flow)
    from_tap = _BEFORE_FADER if before_fader else AFTER_FADER
    found: dict[str, Reach] = {}
    for strip in strips:
        number = layout.index[strip]
        parts: list[set[str]] = []
        for shared in (True, False):
            first = np.zeros(layout.buses, dtype=np.bool_)
            if number < layout.feeding:
                behind = arrays.tap[number] >= from_tap
                first = flow.wiring.leads(np.array([number]))[0] & (behind == shared)
            reached = first | onward[first].any(axis=0)
            names = {columns[bus] for bus in np.flatnonzero(reached).tolist() if bus in columns}
            parts.append(names | _direct(flow, number, from_tap, shared=shared) & {*heard})
            if number >= layout.first_bus and shared:
                parts[0] |= {strip} & {*heard}
        found[strip] = Reach(frozenset(parts[0]), frozenset(parts[1]))
    return found


@lru_cache(maxsize=2)  # asked of each group, and the same for all
def _onward(flow: Flow) -> np.ndarray:
    """Which buses lead to which, by way of channels that buses feed too; shape (buses, buses)."""
    layout, fed = flow.layout, flow.fed
    step = np.zeros((layout.buses, layout.buses), dtype=np.bool_)
    between = range(layout.first_bus, layout.feeding)
    step[: len(between)] = flow.wiring.leads(np.array(between, dtype=np.intp))
    for bus, row in zip(fed.bus.tolist(), fed.row.tolist(), strict=True):
        step[bus] |= flow.wiring.leads(np.array([row]))[0]
    return closure(step)


def _direct(flow: Flow, strip: int, from_tap: int, *, shared: bool) -> set[str]:
    """Sockets that carry the direct out of a channel, behind its stage or before it."""
    if strip >= flow.layout.rows:
        return set()
    carried, taps = flow.arrays.out_source, flow.arrays.out_tap
    own = np.flatnonzero((carried <= DIRECT) & ((DIRECT - carried) // 3 == strip))
    return {
        flow.layout.outputs[place] for place in own.tolist() if (taps[place] >= from_tap) == shared
    }


def place_told(show: Show, flow: Flow, strips: Sequence[str], *, before_fader: bool) -> str:
    """What standing there does to ears, tracks and streams, in words: who hears strips with their

    gain shared, and who as they are.
    """
    every = reaches(show, flow, strips, before_fader=before_fader).values()
    shared = {one for reach in every for one in reach.shared}
    plain = {one for reach in every for one in reach.plain}
    heard = listeners(show)
    hear = [one for one in heard if one in shared and one not in plain]
    mixed = [one for one in heard if one in shared and one in plain]
    bare = [one for one in heard if one in plain and one not in shared]
    parts = [
        f"Shared at {_names(show, hear)}." if hear else "Nothing hears them shared.",
        f"As they are at {_names(show, bare)}: they take them before." if bare else "",
        f"Both at {_names(show, mixed)}." if mixed else "",
    ]
    return " ".join(part for part in parts if part)


def _names(show: Show, heard: Iterable[str]) -> str:
    names = [listener_name(show, one) for one in heard]
    rest = len(names) - _NAMED
    if rest > 1:
        return f"{', '.join(names[:_NAMED])} and {rest} more"
    return " and ".join((", ".join(names[:-1]), names[-1])) if len(names) > 1 else names[0]
