"""Scenes: stored, recalled with everything known beforehand, held by pins."""
