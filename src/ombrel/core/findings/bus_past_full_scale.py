"""A bus that is expected past full scale, all its sources together."""

import math
from collections.abc import Iterator

from ..addresses import kind_on
from ..flow import listener_name
from ..headroom import expected_at, over_full_scale
from ..kinds import Number
from ..said import said
from .rule import Finding, Look

__all__ = ["bus_past_full_scale"]

_BELOW_DB = 1.0  # what the remedy leaves below full scale


def bus_past_full_scale(look: Look) -> Iterator[Finding]:
    """One finding a bus; the remedy lowers its own fader."""
    if not look.lines:
        return
    show = look.show
    for bus, dbfs in over_full_scale(show, look.flow):
        name = listener_name(show, bus)
        loud = ", ".join(one.name for one in expected_at(show, look.flow, bus).loudest[:3])
        fader = kind_on(show.desk, f"{bus}/fader")
        wanted_db = show.number(f"{bus}/fader") - dbfs - _BELOW_DB
        can = isinstance(fader, Number) and wanted_db >= fader.lowest_finite
        lower_db = fader.suggested(wanted_db) if isinstance(fader, Number) and can else -math.inf
        yield Finding(
            rule="bus_past_full_scale",
            tone="settle",
            says=f"{name} is expected at {said(dbfs, signed=True)} dBFS, {loud} the loudest:"
            " it will overload.",
            about=bus,
            remedy=f"Lower {name} to {said(lower_db, signed=True)} dB" if can else "",
            moves={f"{bus}/fader": lower_db} if can else {},
        )
