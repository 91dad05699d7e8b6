"""What processors do to a signal, as published: filters, static curves, delays, note values."""

from .delays import delay_ms, speed_of_sound
from .dynamics import compressed_db, gated_db
from .filters import bandwidth_to_q, eq_band, low_cut, q_to_bandwidth, response_db
from .tempo import HIGHEST_BPM, LOWEST_BPM, NOTES, note_ms, tapped_bpm

__all__ = [
    "HIGHEST_BPM",
    "LOWEST_BPM",
    "NOTES",
    "bandwidth_to_q",
    "compressed_db",
    "delay_ms",
    "eq_band",
    "gated_db",
    "low_cut",
    "note_ms",
    "q_to_bandwidth",
    "response_db",
    "speed_of_sound",
    "tapped_bpm",
]
