"""Lines and buses that are expected past full scale."""

import math
from collections.abc import Iterator
from typing import Any

from ..catalogue import kind_on
from ..flow import listener_name
from ..patching import Preamp, preamp_of, preamps
from ..show import Show, socket_name
from ..strips import expected_at, over_full_scale
from ..values import Asked, Number, said
from .rule import Finding, Look

__all__ = ["bus_past_full_scale", "past_full_scale"]


def past_full_scale(look: Look) -> Iterator[Finding]:
    """One finding a preamp; the remedy sets the gain that meets the show's target, with its pad

    where no gain alone keeps it below full scale.
    """
    for preamp in preamps(look.show):
        if preamp.over:
            where = socket_name(look.show.desk, preamp.socket)
            yield Finding(
                rule="past_full_scale",
                tone="settle",
                says=f"{look.name(preamp.line)} is expected at"
                f" {said(preamp.dbfs, signed=True)} dBFS at {where}: it will overload.",
                about=f"line/{preamp.line}",
                **_remedy(look.show, preamp),
            )


def _remedy(show: Show, preamp: Preamp) -> dict[str, Any]:
    gain = f"{preamp.socket}/gain"
    by_gain: dict[str, Asked] = {gain: preamp.suggested_db}
    if preamp.suggested_db < show.number(gain) and not _over(show, preamp.socket, by_gain):
        return {
            "remedy": f"Set its gain to {said(preamp.suggested_db, 0, signed=True)} dB",
            "moves": by_gain,
        }
    if show.on(f"{preamp.socket}/pad"):
        return {}  # nothing at the preamp helps
    padded = show.with_values({f"{preamp.socket}/pad": True})
    there = preamp_of(padded, preamp.socket)
    assert there is not None  # it was found on this socket
    moves: dict[str, Asked] = {f"{preamp.socket}/pad": True, gain: there.suggested_db}
    if _over(show, preamp.socket, moves):
        return {}
    return {
        "remedy": f"Put its pad on, gain {said(there.suggested_db, 0, signed=True)} dB",
        "moves": moves,
    }


def _over(show: Show, socket: str, moves: dict[str, Asked]) -> bool:
    after = preamp_of(show.with_values(moves), socket)  # type: ignore[arg-type]  # plain values
    return after is not None and after.over


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
