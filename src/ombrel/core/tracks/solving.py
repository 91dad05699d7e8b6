"""The best plan of a problem, as an integer programme: which wish on which track, by which mix."""

import math
from collections import defaultdict
from collections.abc import Callable, Sequence
from typing import Final

from ..catalogue import Thing
from .problem import Carried, Placed, Problem, Solved, Way
from .programme import Programme

__all__ = ["fits_by_programme", "solve"]

ANYWHERE: Final = 0
_NOWHERE: Final = 999  # the track that counts for a wish that is not served
_LARGEST: Final = 10**6  # ranks are merged into one aim while weights stay below it
BEHIND: Final = "after_fader"  # where a track takes a spare mix


class _Model:
    """The columns of a problem, and the rows that bind them.

    `counted`: tracks that make no difference to a wish are only counted: enough to know who is
    served, by how many mixes and changes, and a hundredth of the columns. For single tracks only.
    """

    def __init__(self, problem: Problem, *, counted: bool = False) -> None:
        self.problem, self.counted = problem, counted
        self.programme = Programme()
        self.served: dict[tuple[int, int, str], int] = {}  # wish, track, "", "mix" or a mix
        self.set_up: dict[tuple[str, str], int] = {}  # what it is set up as, and the mix
        self.changes: dict[int, int] = defaultdict(int)  # what a column changes
        self._options: dict[tuple[int, Option], int] = {}
        self._mixes()
        if problem.block > 1:
            self._blocks()
            self._wishes_in_blocks()
        else:
            self._wishes()
        self._once()

    # ---- mixes

    def _mixes(self) -> None:
        problem, bind = self.problem, self.programme.bind
        wanted = dict.fromkeys(
            way.mix for way in problem.ways if way.mix and (problem.block > 1 or not way.direct)
        )
        for spare in problem.spares:
            for what in wanted:
                column = self.programme.column()
                self.set_up[what, spare.mix] = column
                self.changes[column] += spare.holds != what
            bind({self.set_up[what, spare.mix]: 1 for what in wanted}, 0, 1)
        for what in wanted:
            bind({self.set_up[what, spare.mix]: 1 for spare in problem.spares}, 0, 1)

    # ---- each track for itself

    def _wishes(self) -> None:
        for wish, way in enumerate(self.problem.ways):
            for track in self._tracks(way):
                if way.direct:
                    self._direct(wish, way, track)
                elif way.mix:
                    self._by_any_mix(wish, way, track)
            if self.counted and not way.track and (way.direct or way.mix):
                by = "" if way.direct else "mix"
                column = self.served[wish, ANYWHERE, by] = self.programme.column()
                self.changes[column] = way.sides
        self._need_mixes()
        if self.counted:
            self._room()

    def _room(self) -> None:
        """What stands anywhere finds room on what is left; two sides on an odd and the even."""
        problem, bind = self.problem, self.programme.bind
        free = [t for t in range(1, len(problem.tracks) + 1) if t not in problem.held]
        taken: dict[int, list[int]] = defaultdict(list)
        anywhere: dict[int, list[int]] = {1: [], 2: []}
        for (wish, track, _), column in self.served.items():
            sides = problem.ways[wish].sides
            if track == ANYWHERE:
                anywhere[sides].append(column)
            else:
                for one in range(track, track + sides):
                    if one not in problem.held:
                        taken[one].append(column)
        slots = {}
        for odd in free:
            if odd % 2 == 1 and odd + 1 not in problem.held and odd < len(problem.tracks):
                slots[odd] = self.programme.column()
                for one in (odd, odd + 1):
                    bind({slots[odd]: 1} | dict.fromkeys(taken[one], 1), 0, 1)
        if anywhere[2]:
            pairs = dict.fromkeys(anywhere[2], 1) | dict.fromkeys(slots.values(), -1)
            bind(pairs, -len(slots), 0)
        used: dict[int, int] = defaultdict(int)
        for columns in taken.values():
            for column in columns:
                used[column] += 1
        bind(used | dict.fromkeys(anywhere[1], 1) | dict.fromkeys(slots.values(), 2), 0, len(free))

    def _tracks(self, way: Way) -> list[int]:
        problem = self.problem
        tracks = range(1, len(problem.tracks) + 1) if not way.track else [way.track]
        if self.counted and not way.track:
            tracks = [track for track in tracks if self._differs(way, track)]
        return [track for track in tracks if problem.open(way, track) and self._is_free(way, track)]

    def _differs(self, way: Way, track: int) -> bool:
        """Whether any of what a wish would have its tracks carry stands there already."""
        problem = self.problem
        there = problem.tracks[track - 1 : track - 1 + way.sides]
        ways = [way.direct] if way.direct else [
            problem.sides_of_mix(spare.mix, way) for spare in problem.spares
        ]  # fmt: skip
        tap = way.tap if way.direct else BEHIND
        return any(
            now == (one, tap) for sides in ways for now, one in zip(there, sides, strict=False)
        )

    def _is_free(self, way: Way, track: int) -> bool:
        held = any(one in self.problem.held for one in range(track, track + way.sides))
        return not held or self.problem.stands(way, track)

    def _direct(self, wish: int, way: Way, track: int) -> None:
        column = self.served[wish, track, ""] = self.programme.column()
        there = self.problem.tracks[track - 1 :]
        self.changes[column] = sum(
            now != (one, way.tap) for now, one in zip(there, way.direct, strict=False)
        )

    def _by_any_mix(self, wish: int, way: Way, track: int) -> None:
        """By a mix, whichever: what tracks carry of one already is no change if it is that one."""
        problem = self.problem
        column = self.served[wish, track, "mix"] = self.programme.column()
        self.changes[column] = way.sides
        there = problem.tracks[track - 1 : track - 1 + way.sides]
        for spare in problem.spares:
            sides = problem.sides_of_mix(spare.mix, way)
            same = sum(now == (one, BEHIND) for now, one in zip(there, sides, strict=True))
            if same:
                kept = self.programme.column()
                self.changes[kept] = -same
                self.programme.bind({kept: 1, column: -1}, -1, 0)
                self.programme.bind({kept: 1, self.set_up[way.mix, spare.mix]: -1}, -1, 0)

    def _need_mixes(self) -> None:
        """A wish by a mix is served only where one is set up as it needs."""
        by_wish: dict[int, list[int]] = defaultdict(list)
        for (wish, _, by), column in self.served.items():
            if by == "mix":
                by_wish[wish].append(column)
        for wish, columns in by_wish.items():
            what = self.problem.ways[wish].mix
            mixes = {self.set_up[what, spare.mix]: -1 for spare in self.problem.spares}
            self.programme.bind(dict.fromkeys(columns, 1) | mixes, -1, 0)

    # ---- tracks in blocks

    def _blocks(self) -> None:
        """Each block stays, or carries neighbours of one kind and side."""
        problem, size = self.problem, self.problem.block
        options = _options(problem)
        for first in range(1, len(problem.tracks) + 1, size):
            held = any(track in problem.held for track in range(first, first + size))
            columns = {}
            for option in (STAYS, *(() if held else options)):
                column = self._options[first, option] = self.programme.column()
                columns[column] = 1
                if option is not STAYS:
                    self.changes[column] = sum(
                        problem.tracks[first - 1 + turn][0] != one
                        for turn, one in enumerate(option)
                    )
            self.programme.bind(columns, 1, 1)

    def _wishes_in_blocks(self) -> None:
        problem = self.problem
        for wish, way in enumerate(problem.ways):
            ways = [("", way.direct, way.tap)] if way.direct else []
            if way.mix:
                ways += [
                    (spare.mix, problem.sides_of_mix(spare.mix, way), BEHIND)
                    for spare in problem.spares
                ]
            for mix, sides, tap in ways:
                for track in self._tracks(way):
                    self._in_block(wish, track, mix, sides, tap)

    def _in_block(self, wish: int, track: int, mix: str, sides: Sequence[str], tap: str) -> None:
        problem, size = self.problem, self.problem.block
        first = (track - 1) // size * size + 1
        at = track - first
        there = problem.tracks[track - 1 : track - 1 + len(sides)]
        carry = [
            column
            for (block, option), column in self._options.items()
            if block == first
            and (
                tuple(one for one, _ in there) == tuple(sides)
                if option is STAYS
                else tuple(option[at : at + len(sides)]) == tuple(sides)
            )
        ]
        if not carry:
            return
        column = self.served[wish, track, mix] = self.programme.column()
        # another source is counted with the block; another tap only where the source stays
        self.changes[column] = sum(
            now[0] == one and now[1] != tap for now, one in zip(there, sides, strict=True)
        )
        self.programme.bind({column: 1} | dict.fromkeys(carry, -1), -1, 0)
        if mix:
            self.programme.bind({column: 1, self.set_up[problem.ways[wish].mix, mix]: -1}, -1, 0)

    # ---- each wish once, each track once

    def _once(self) -> None:
        by_wish: dict[int, dict[int, int]] = {wish: {} for wish in range(len(self.problem.ways))}
        by_track: dict[int, dict[int, int]] = defaultdict(dict)
        for (wish, track, _), column in self.served.items():
            by_wish[wish][column] = 1
            for one in range(track, track + self.problem.ways[wish].sides) if track else ():
                by_track[one][column] = 1
        for wish, columns in by_wish.items():
            must = self.problem.ways[wish].rank == 0
            self.programme.bind(columns, 1 if must else 0, 1)
        for columns in by_track.values():
            self.programme.bind(columns, 0, 1)

    # ---- what is aimed at

    def aims(self) -> list[dict[int, int]]:
        """What comes before the list's order, the most important first: costs by column."""
        mixes = dict.fromkeys(self.set_up.values(), 1)
        changes = {column: cost for column, cost in self.changes.items() if cost}
        # one aim for both: the second counts less than one of the first
        first, second = (changes, mixes) if self.problem.keep else (mixes, changes)
        spares = len(self.problem.spares)
        most = 1 + (spares if self.problem.keep else len(self.problem.tracks) + spares)
        both = {column: cost * most for column, cost in first.items()}
        for column, cost in second.items():
            both[column] = both.get(column, 0) + cost
        return [*self._ranks(), both]

    def _ranks(self) -> list[dict[int, int]]:
        """Most wishes of rank 1, then of rank 2: merged while numbers stay small."""
        by_rank: dict[int, dict[int, int]] = {}
        for way in self.problem.ways:
            by_rank.setdefault(way.rank, {})
        for (wish, _, _), column in self.served.items():
            by_rank[self.problem.ways[wish].rank][column] = 1
        by_rank.pop(0, None)
        aims: list[dict[int, int]] = []
        weight = 1
        for rank in sorted(by_rank, reverse=True):
            if not aims or weight > _LARGEST:
                aims.insert(0, {})
                weight = 1
            aims[0] |= dict.fromkeys(by_rank[rank], -weight)
            weight *= 1 + sum(way.rank == rank for way in self.problem.ways)
        return aims

    def order(self) -> dict[int, int]:
        count = len(self.problem.ways)
        return {
            column: (count - wish) * (track - _NOWHERE)
            for (wish, track, _), column in self.served.items()
        }

    def lowest_mixes(self) -> dict[int, int]:
        """Of equal mixes the lower to the earlier."""
        order = list(dict.fromkeys(what for what, _ in self.set_up))
        return {
            column: (len(order) - order.index(what)) * Thing.at(mix).number
            for (what, mix), column in self.set_up.items()
        }


Option = tuple[str, ...]
STAYS: Final[Option] = ()


def _options(problem: Problem) -> list[Option]:
    """The runs of neighbours that hold anything wished, or a spare mix: one reference a track."""
    size, counts = problem.block, dict(problem.counts)
    named = [one for way in problem.ways for one in way.direct]
    if any(way.mix for way in problem.ways):
        named += [spare.mix for spare in problem.spares]
    found: dict[Option, None] = {}
    for reference in named:
        at = Thing.at(reference)
        if not at.number or at.side in ("left", "right"):
            continue  # what a desk has one of, or a side, has no neighbours
        start = (at.number - 1) // size * size + 1
        if start + size - 1 > counts.get(at.kind, 0):
            continue
        ending = f"/{at.side}" if at.side else ""
        found[tuple(f"{at.kind}/{start + turn}{ending}" for turn in range(size))] = None
    return list(found)


def solve(
    problem: Problem, told: Callable[[int, int], None] = lambda at, of: None
) -> Solved | None:
    """The best plan, or None where not all musts can stand together.

    All musts; then, each as far as those before allow: most wishes of rank 1, of rank 2, and so
    on; fewest spare mixes; fewest changes (these two the other way round to keep what was); the
    list's order. `told` hears how far it is. Raises PlanTooHard.
    """
    model = _Model(problem)
    aims = model.aims()
    if problem.block == 1:
        counted = _Model(problem, counted=True)
        most = counted.programme.best(counted.aims(), told)
        if most is None:
            return None
        for aim, cost in zip(aims, most[1], strict=True):
            model.programme.bind(aim, -math.inf, cost)
        aims = []
    found = model.programme.best([*aims, model.order()], told)
    if found is None:
        return None
    taken = found[0]
    if model.set_up:  # which of equal mixes, once it stands who is where
        model.programme.settle(model.served.values(), taken)
        again = model.programme.best([model.lowest_mixes()])
        assert again is not None  # what was found goes on to fit
        taken = again[0]
    return _read(model, taken)


def fits_by_programme(problem: Problem) -> bool:
    """Whether all musts can stand together. Raises PlanTooHard."""
    return _Model(problem).programme.best([]) is not None


def _read(model: _Model, taken: Sequence[bool]) -> Solved:
    problem = model.problem
    set_up = {what: mix for (what, mix), column in model.set_up.items() if taken[column]}
    tracks: list[Carried] = list(problem.tracks)
    for (first, option), column in model._options.items():
        if taken[column]:
            for turn, one in enumerate(option):
                if tracks[first - 1 + turn][0] != one:
                    tracks[first - 1 + turn] = (one, "")  # its tap is nobody's wish
    placed = []
    for (wish, track, by), column in sorted(model.served.items()):
        if taken[column]:
            way = problem.ways[wish]
            mix = set_up[way.mix] if by == "mix" else by
            placed.append(Placed(wish=wish, track=track, mix=mix))
            sides = problem.sides_of_mix(mix, way) if mix else way.direct
            for turn, one in enumerate(sides):
                tracks[track - 1 + turn] = (one, BEHIND if mix else way.tap)
    used = {one.mix for one in placed if one.mix}
    holds = {spare.mix: spare.holds for spare in problem.spares}
    anew = sum(holds[mix] != what for what, mix in set_up.items() if mix in used)
    changed = sum(now != then for now, then in zip(problem.tracks, tracks, strict=True))
    return Solved(
        placed=tuple(placed), tracks=tuple(tracks), mixes=len(used), changes=changed + anew
    )
