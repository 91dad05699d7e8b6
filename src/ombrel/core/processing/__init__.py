"""What processors do to a signal, as published: filters, static curves of dynamics, delays."""

from .delays import delay_ms, speed_of_sound
from .dynamics import compressed_db, gated_db
from .filters import bandwidth_to_q, eq_band, low_cut, q_to_bandwidth, response_db

__all__ = [
    "bandwidth_to_q",
    "compressed_db",
    "delay_ms",
    "eq_band",
    "gated_db",
    "low_cut",
    "q_to_bandwidth",
    "response_db",
    "speed_of_sound",
]
