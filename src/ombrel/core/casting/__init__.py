"""Fittings, parts, casts and the mic check: who is on, and with whose settings."""
