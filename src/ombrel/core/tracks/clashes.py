"""Why musts cannot stand together: counts, and the smallest sets of which one must give way."""

from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Final

from .problem import Problem, Way
from .programme import Programme
from .solving import fits_by_programme

__all__ = ["Short", "clashing_sets", "fits", "most_that_fit", "shortages"]

_SETS: Final = 5  # that are told
_FEW: Final = 12  # musts among which every set is looked for, however alike they are
_TRIES: Final = (60, 15)  # for the smallest, among few and among many


@dataclass(frozen=True, slots=True)
class Short:
    """Too few of something: "tracks", "pairs" of tracks, or "mixes"; `needed` of `there`."""

    what: str
    needed: int
    there: int


@dataclass(frozen=True, slots=True)
class _Room:
    """What musts need. `fixed`: whether those that say their track find it free, each its own."""

    fixed: bool
    shorts: tuple[Short, ...]


def fits(problem: Problem) -> bool:
    """Whether all musts can stand together. Raises PlanTooHard on desks that patch in blocks."""
    musts = replace(problem, ways=tuple(way for way in problem.ways if way.rank == 0))
    if problem.block > 1:
        return fits_by_programme(musts)
    room = _room(musts)
    return room.fixed and not room.shorts


def shortages(problem: Problem) -> tuple[Short, ...]:
    """What there is too little of for all musts, whatever stands where; desks without blocks."""
    musts = replace(problem, ways=tuple(way for way in problem.ways if way.rank == 0))
    return _room(musts).shorts if problem.block == 1 else ()


def _room(problem: Problem) -> _Room:
    """Room for musts on single tracks, by counting: who says no track is like any other who does

    not, save that two sides take an odd and the even above it, and that what a held track carries
    already serves who wishes just that.
    """
    used: set[int] = set()
    fixed = True
    anywhere: list[Way] = []
    for way in problem.ways:
        if not way.direct and not way.mix:
            fixed = False
        elif not way.track:
            anywhere.append(way)
        else:
            tracks = set(range(way.track, way.track + way.sides))
            held = tracks & problem.held and not problem.stands(way, way.track)
            if not problem.open(way, way.track) or held or tracks & used:
                fixed = False
            used |= tracks
    kept = _kept_by_held(problem, anywhere, used)
    anywhere = [way for turn, way in enumerate(anywhere) if turn not in kept]
    free = set(range(1, len(problem.tracks) + 1)) - problem.held - used
    slots = sum(track % 2 == 1 and track + 1 in free for track in free)
    pairs = sum(way.sides == 2 for way in anywhere)
    sides = sum(way.sides for way in anywhere)
    mixes = len({way.mix for way in problem.ways if way.mix and not way.direct})
    shorts = (
        Short("tracks", sides + len(used - problem.held), len(free) + len(used - problem.held)),
        Short("pairs", pairs, slots),
        Short("mixes", mixes, len(problem.spares)),
    )
    return _Room(fixed, tuple(one for one in shorts if one.needed > one.there))


def _kept_by_held(problem: Problem, ways: Sequence[Way], used: set[int]) -> set[int]:
    """Places in the list of wishes that a held track carries already, each track for one."""
    taken = set(used)
    kept = set()
    for turn, way in enumerate(ways):
        for track in sorted(problem.held):
            tracks = set(range(track, track + way.sides))
            stands = problem.open(way, track) and problem.stands(way, track)
            if stands and tracks <= problem.held and not tracks & taken:
                taken |= tracks
                kept.add(turn)
                break
    return kept


def clashing_sets(problem: Problem) -> tuple[tuple[int, ...], ...]:
    """Musts that cannot stand together though each part of them can, by their places in the list:

    the smallest first, five at most. Each found set must be broken, so a set that is not known yet
    holds one of each rest that some largest fitting part left over: the smallest such is looked
    for until it cannot stand. Where that takes long (too few tracks for many alike), any set that
    no part can be taken from. Raises PlanTooHard.
    """
    musts = [turn for turn, way in enumerate(problem.ways) if way.rank == 0]

    def stand(some: Iterable[int]) -> bool:
        return fits(replace(problem, ways=tuple(problem.ways[turn] for turn in sorted(some))))

    if stand(musts):
        return ()
    if len(musts) > _FEW and shortages(problem):
        return _of_many(problem, musts, stand)
    found: list[tuple[int, ...]] = []
    rests: list[set[int]] = []
    for _ in range(_TRIES[len(musts) > _FEW]):
        tried = _smallest_hitting(musts, rests, found)
        if tried is None or len(found) == _SETS:
            return tuple(found)
        if not stand(tried):
            found.append(tuple(sorted(tried)))
        else:
            rests.append(set(musts) - _grown(tried, musts, stand))
    return tuple(found) or (_thinned(problem, musts, stand),)


def _of_many(
    problem: Problem, musts: Sequence[int], stand: Callable[[Iterable[int]], bool]
) -> tuple[tuple[int, ...], ...]:
    """Where many are too many whoever they are: sets of one and of two, and one of those many."""
    alone = [(turn,) for turn in musts if not stand((turn,))]
    rest = [turn for turn in musts if (turn,) not in alone]
    fixed = [turn for turn in rest if problem.ways[turn].track]
    two = [one for one in combinations(fixed, 2) if not stand(one)]
    found = [*alone, *two]
    broken = {turn for one in found for turn in one[-1:]}
    others = [turn for turn in rest if turn not in broken]
    if not stand(others):
        found.append(_thinned(problem, others, stand))
    return tuple(found[:_SETS])


def _smallest_hitting(
    among: Sequence[int], rests: Sequence[set[int]], but: Sequence[Sequence[int]]
) -> set[int] | None:
    """The fewest, and of those the earliest, that hit every rest and hold no set that is found."""
    programme = Programme()
    columns = {turn: programme.column() for turn in among}
    for rest in rests:
        programme.bind({columns[turn]: 1 for turn in rest}, 1, len(rest))
    for one in but:
        programme.bind({columns[turn]: 1 for turn in one}, 0, len(one) - 1)
    fewest = dict.fromkeys(columns.values(), 1)
    earliest = {column: place for place, column in enumerate(columns.values())}
    best = programme.best([fewest, earliest])
    return None if best is None else {turn for turn in among if best[0][columns[turn]]}


def _grown(
    some: set[int], among: Sequence[int], stand: Callable[[Iterable[int]], bool]
) -> set[int]:
    """A part that stands with as many of the others as can, the earlier first."""
    grown = set(some)
    for turn in among:
        if turn not in grown and stand(grown | {turn}):
            grown.add(turn)
    return grown


def _thinned(
    problem: Problem, musts: Sequence[int], stand: Callable[[Iterable[int]], bool]
) -> tuple[int, ...]:
    """A set that cannot stand, with nothing in it that could go: single sides and the later first

    taken out, so that few are left.
    """
    kept = set(musts)
    for turn in sorted(musts, key=lambda one: (problem.ways[one].sides, -one)):
        if not stand(kept - {turn}):
            kept.discard(turn)
    return tuple(sorted(kept))


def most_that_fit(problem: Problem) -> Problem:
    """The problem with every must as a first wish among others, so that as many as can are served.

    Those that are left over are the fewest that must go.
    """
    ranks = Counter(way.rank for way in problem.ways)
    assert ranks[0]  # asked only where musts cannot stand
    ways = tuple(replace(way, rank=way.rank + 1) for way in problem.ways)
    return replace(problem, ways=ways)
