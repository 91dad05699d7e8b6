"""The crossover between house and mono: set once for both, and what both come to together."""

from dataclasses import dataclass

import numpy as np

from ..processing import crossover_side, gain_db, response
from ..show import Show
from ..values import Asked, said
from .outputs import outputs_of

__all__ = ["Crossover", "crossover_at", "turn_mono"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Crossover:
    """In dB over the frequencies asked for: `house_db` and `mono_db` of each side, `sum_db` of what

    feeds both alike. `turned`: an odd number of the ways to the loudspeakers turns its polarity.
    `meeting_db`: the sum where they meet; `better_db`: there, with mono inverted.
    """

    house_db: tuple[float, ...]
    mono_db: tuple[float, ...]
    sum_db: tuple[float, ...]
    turned: bool
    meeting_db: float
    better_db: float
    says: str


def crossover_at(show: Show, frequencies_hz: np.ndarray) -> Crossover:
    """The crossover as it is set, on or off. What its loudspeakers do to it nobody knows here."""
    rate_hz = show.desk.sample_rate_hz
    at, kind = show.number("mono/crossover/frequency"), show.text("mono/crossover/kind")
    every = np.array([*frequencies_hz, at])
    high = response(crossover_side(kind, "high", at, rate_hz), every, rate_hz)
    low = response(crossover_side(kind, "low", at, rate_hz), every, rate_hz)
    turned = _turned(show, "house") != _turned(show, "mono")
    whole, other = (high - low, high + low) if turned else (high + low, high - low)
    sums_db = gain_db(whole)
    meeting_db, better_db = float(sums_db[-1]), float(gain_db(other)[-1])
    return Crossover(
        house_db=tuple(gain_db(high)[:-1].tolist()),
        mono_db=tuple(gain_db(low)[:-1].tolist()),
        sum_db=tuple(sums_db[:-1].tolist()),
        turned=turned,
        meeting_db=meeting_db,
        better_db=better_db,
        says=_says(meeting_db, better_db),
    )


def _turned(show: Show, bus: str) -> bool:
    """Whether a bus leaves the desk turned over: at all sockets that carry it."""
    sockets = outputs_of(show, bus)
    return bool(sockets) and all(show.on(f"{socket}/polarity") for socket in sockets)


def _says(meeting_db: float, better_db: float) -> str:
    if meeting_db < -40.0:
        words = "Where they meet they cancel"
    elif abs(meeting_db) < 0.05:
        return "Where they meet they make 0 dB: what feeds both alike is flat."
    else:
        words = f"Where they meet they make {said(meeting_db, signed=True)} dB"
    if abs(better_db) < abs(meeting_db):
        there = said(better_db, signed=True).replace("0.0", "0")
        return f"{words}; with mono inverted {there} dB."
    return f"{words}."


def turn_mono(show: Show) -> dict[str, Asked]:
    """Moves that turn mono over at every socket that carries it, against what it is now."""
    turned = _turned(show, "mono")
    return {f"{socket}/polarity": not turned for socket in outputs_of(show, "mono")}
