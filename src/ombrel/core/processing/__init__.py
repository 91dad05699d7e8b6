"""Filters, static curves and crossovers by published formulas: numbers in, numbers out."""

from .crossovers import CROSSOVERS, crossover_side
from .drawing import refined
from .dynamics import compressed_db, gated_db
from .filters import Band, Sections, eq_band, gain_db, low_cut, response, response_db, turning_hz
from .shares import FLOOR_DB, shared_gains, smoothed_power, sum_db

__all__ = [
    "CROSSOVERS",
    "FLOOR_DB",
    "Band",
    "Sections",
    "compressed_db",
    "crossover_side",
    "eq_band",
    "gain_db",
    "gated_db",
    "low_cut",
    "refined",
    "response",
    "response_db",
    "shared_gains",
    "smoothed_power",
    "sum_db",
    "turning_hz",
]
