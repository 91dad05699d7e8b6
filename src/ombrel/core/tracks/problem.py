"""The problem of a track plan, in plain values: wishes with their ways, tracks, spare mixes."""

from dataclasses import dataclass

__all__ = ["Carried", "Placed", "Problem", "Solved", "Spare", "Way"]

Carried = tuple[str | None, str]  # what an output carries, and the tap where it takes it


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A wish, and how it can be served.

    `direct`: what the outputs of its tracks would carry, one reference a side; () where the desk
    has no direct out for it. `mix`: what a spare mix would be set up as for it, "" where none can
    be. `tap`: where a direct out takes it. `sides`: 1 or 2. `track`: 0 for anywhere. `rank`: 0 is
    a must.
    """

    direct: tuple[str, ...]
    mix: str
    tap: str
    sides: int
    track: int = 0
    rank: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Spare:
    """A mix that a plan may take. `holds`: what an earlier plan set it up as, "" for nothing."""

    mix: str
    holds: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Problem:
    """`tracks`: what each carries now, from track 1; `held`: tracks that stay as they are.

    `block`: outputs are patched in runs of so many neighbours. `counts`: how many the desk has of
    each kind. `keep`: as few changes as can be come before as few mixes.
    """

    ways: tuple[Way, ...]
    tracks: tuple[Carried, ...]
    held: frozenset[int] = frozenset()
    spares: tuple[Spare, ...] = ()
    block: int = 1
    counts: tuple[tuple[str, int], ...] = ()
    keep: bool = False

    def open(self, way: Way, track: int) -> bool:
        """Whether a wish could stand on a track and, of two sides, the one above it."""
        last = track + way.sides - 1
        return (
            way.track in (0, track)
            and track >= 1
            and last <= len(self.tracks)
            and (way.sides == 1 or track % 2 == 1)
        )

    def stands(self, way: Way, track: int) -> bool:
        """Whether tracks from this one on carry a wish already, by direct outs."""
        there = self.tracks[track - 1 : track - 1 + way.sides]
        return bool(way.direct) and there == tuple((one, way.tap) for one in way.direct)

    def sides_of_mix(self, mix: str, way: Way) -> tuple[str, ...]:
        """What the outputs of a wish's tracks carry of a spare mix."""
        return (mix,) if way.sides == 1 else (f"{mix}/left", f"{mix}/right")


@dataclass(frozen=True, slots=True, kw_only=True)
class Placed:
    """A served wish, by its place in the list: on which track, by which mix ("": directly)."""

    wish: int
    track: int
    mix: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Solved:
    """The best plan: who is served and where; what each track carries then; how much is changed."""

    placed: tuple[Placed, ...]
    tracks: tuple[Carried, ...]
    mixes: int
    changes: int
