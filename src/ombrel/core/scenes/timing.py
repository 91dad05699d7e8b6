"""How long each value takes to where a recall leads: by the scene, and by what it is of."""

from collections.abc import Iterable
from typing import Final

from ..catalogue import parameter_at
from ..show import Show

__all__ = ["fade_seconds"]

_KINDS: Final = {
    "fader": "faders",
    "mute": "faders",
    "sends": "sends",
    "routing": "sends",
    "pan": "pans",
    "low_cut": "processing",
    "gate": "processing",
    "eq": "processing",
    "compressor": "processing",
    "effects": "processing",
}


def fade_seconds(show: Show, scene: str, addresses: Iterable[str]) -> dict[str, float]:
    """Seconds by address. What is not named jumps: gain, pad, trim, delay, names, memberships."""
    whole = show.number(f"{scene}/seconds")
    times: dict[str, float] = {}
    for kind in set(_KINDS.values()):
        own = show.number(f"{scene}/seconds_{kind}")
        times[kind] = whole if own < 0.0 else own
    found = {}
    for address in addresses:
        of = _KINDS.get(parameter_at(address).aspect)
        if of is not None and times[of] > 0.0:
            found[address] = times[of]
    return found
