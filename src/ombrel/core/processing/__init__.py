"""What processors do to a signal, as published: filters, static curves, delays, note values."""

from .crossovers import CROSSOVERS, crossover_side
from .delays import delay_ms, speed_of_sound
from .dynamics import compressed_db, gated_db
from .filters import (
    bandwidth_to_q,
    butterworth,
    eq_band,
    gain_db,
    low_cut,
    q_to_bandwidth,
    response,
    response_db,
    turning_hz,
)
from .tempo import HIGHEST_BPM, LOWEST_BPM, NOTES, note_ms, read_note, tapped_bpm

__all__ = [
    "CROSSOVERS",
    "HIGHEST_BPM",
    "LOWEST_BPM",
    "NOTES",
    "bandwidth_to_q",
    "butterworth",
    "compressed_db",
    "crossover_side",
    "delay_ms",
    "eq_band",
    "gain_db",
    "gated_db",
    "low_cut",
    "note_ms",
    "q_to_bandwidth",
    "read_note",
    "response",
    "response_db",
    "speed_of_sound",
    "tapped_bpm",
    "turning_hz",
]
