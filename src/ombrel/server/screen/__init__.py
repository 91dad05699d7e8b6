"""A screen: its socket, its turn in the row, and what it is told."""
