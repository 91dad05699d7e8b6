"""When there is no plan: what cannot stand together, and each single thing that would do."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any, Final

from ..catalogue import strips_of
from ..show import Show
from ..values import Asked
from .clashes import Short, clashing_sets, fits, most_that_fit, shortages
from .planning import PlanTold, numbered
from .problem import Problem, Way
from .solving import solve
from .ways import Posed, pose, track_socket, way_or_none
from .wishes import TAP_WORDS, Wish, name_of_source, remove_wishes

__all__ = ["Clash", "NoPlan", "WouldDo", "no_plan"]

_LEAVE_OUT: Final = "Leave out"
_MANY: Final = {
    "tracks": "tracks",
    "pairs": "pairs of tracks, odd and even",
    "mixes": "spare mixes",
}


# what it is in words, the edit, and the problem as it would be then
_Candidate = tuple[str, dict[str, Asked], Callable[[], Problem]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Clash:
    """Wishes that cannot stand together though each part of them can; `why` in words, or ""."""

    wishes: tuple[str, ...]
    names: tuple[str, ...]
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class WouldDo:
    """A single thing after which there is a plan. `moves`: the edit; none where it is not the

    show's to give (a track more).
    """

    says: str
    moves: dict[str, Asked]


@dataclass(frozen=True, slots=True, kw_only=True)
class NoPlan:
    """Why there is no plan. `counts`: what is too little ("34 of 32 tracks"); `clashes`: the

    smallest sets first; `would_do`: each alone gives a plan; `fewest`: where no single wish may be
    left out, the fewest that must go, and the edit that takes them out.
    """

    counts: tuple[str, ...]
    clashes: tuple[Clash, ...]
    would_do: tuple[WouldDo, ...]
    fewest: WouldDo | None


def no_plan(show: Show, told: PlanTold = lambda what, at, of: None) -> NoPlan:
    """Why not all musts can stand together. Asked only where they cannot.

    Raises NotRecordable without a recorder, PlanTooHard.
    """
    told("clashes", 0, 1)
    posed = pose(show)
    sets = clashing_sets(posed.problem)
    shorts = shortages(posed.problem)
    in_all = [turn for turn in range(len(posed.wishes)) if all(turn in one for one in sets)]
    would_do = tuple(_would_do(show, posed, in_all, told))
    alone = any(one.says.startswith(_LEAVE_OUT) for one in would_do)
    return NoPlan(
        counts=tuple(_count_text(one) for one in shorts),
        clashes=tuple(_clash(show, posed, one) for one in sets),
        would_do=would_do,
        fewest=None if alone else _fewest(show, posed),
    )


def _count_text(short: Short) -> str:
    return f"{short.needed} of {short.there} {_MANY[short.what]}"


def _clash(show: Show, posed: Posed, turns: Sequence[int]) -> Clash:
    some = [posed.wishes[turn] for turn in turns]
    return Clash(
        wishes=tuple(one.wish for one in some),
        names=tuple(wish_name(show, one) for one in some),
        why=_why(posed, turns),
    )


def wish_name(show: Show, wish: Wish) -> str:
    """A wish as people tell it from others: its source, where it is taken, on how many sides."""
    sides = ", stereo" if wish.stereo else ""
    return f"{name_of_source(show, wish.source)} {TAP_WORDS[wish.tap]}{sides}"


def _why(posed: Posed, turns: Sequence[int]) -> str:
    """Why a set cannot stand, where it is plain to say."""
    problem, size = posed.problem, posed.problem.block
    ways = [problem.ways[turn] for turn in turns]
    if len(turns) == 1:
        return posed.refused.get(turns[0], "") or _alone(posed, ways[0])
    tracks = [
        {track for track in range(way.track, way.track + way.sides)} for way in ways if way.track
    ]
    if len(ways) == 2 and len(tracks) == 2 and tracks[0] & tracks[1]:
        return f"both want track {min(tracks[0] & tracks[1])}"
    needs = {way.mix for way in ways if way.mix and not way.direct}
    if size == 1 and len(needs) > len(problem.spares):
        return f"each needs a mix of its own, and {_spare_text(len(problem.spares))}"
    sides = sum(way.sides for way in ways)
    room = len(problem.tracks) - len(problem.held)
    if sides > room:
        return f"they take {sides} tracks, and {room} are free"
    if size > 1:
        return f"outputs of {posed.box.short} go in blocks of {size}, neighbours of one kind"
    return ""


def _spare_text(count: int) -> str:
    return {0: "no mix is spare", 1: "one is spare"}.get(count, f"{count} are spare")


def _alone(posed: Posed, way: Way) -> str:
    """Why a wish cannot stand even alone."""
    problem, short = posed.problem, posed.box.short
    wanted = range(way.track, way.track + way.sides)
    if way.track and wanted[-1] > len(problem.tracks):
        return f"{short} has {len(problem.tracks)} tracks"
    if way.track and way.sides == 2 and way.track % 2 == 0:
        return "two sides stand on an odd track and the even above it"
    held = [track for track in wanted if way.track and track in problem.held]
    if held:
        return f"track {held[0]} is held back"
    if not way.direct and way.mix and not problem.spares:
        return "it needs a mix, and none is spare"
    if problem.block > 1 and way.sides == 2 and not way.direct:
        return f"two sides of one mix are no neighbours in a block of {problem.block}"
    if problem.block > 1:
        return f"in blocks of {problem.block} it has no place there"
    return "there is no room for it"


def _fewest(show: Show, posed: Posed) -> WouldDo | None:
    """As many left out as must be, the fewest: those that the best plan leaves over."""
    best = solve(most_that_fit(posed.problem))
    served = {one.wish for one in best.placed} if best else set()
    gone = [
        posed.wishes[turn]
        for turn, way in enumerate(posed.problem.ways)
        if way.rank == 0 and turn not in served
    ]
    names = ", ".join(wish_name(show, one) for one in gone)
    return WouldDo(
        says=f"Leave out {len(gone)}: {names}",
        moves=remove_wishes(show, [one.wish for one in gone]),
    )


def _would_do(show: Show, posed: Posed, in_all: Sequence[int], told: PlanTold) -> Iterator[WouldDo]:
    """Each single thing that truly gives a plan."""
    # what leaves nobody out comes first
    candidates = [*_given(show, posed), *_otherwise(show, posed, in_all)]
    candidates.sort(key=lambda one: one[0].startswith(_LEAVE_OUT))
    for at, (says, moves, tried) in enumerate(candidates):
        told("would do", at, len(candidates))
        if fits(tried()):
            yield WouldDo(says=says, moves=moves)


def _otherwise(show: Show, posed: Posed, in_all: Sequence[int]) -> Iterator[_Candidate]:
    """A wish left out, in one side, anywhere, at another tap. What is in no way of every set cannot

    be it: those sets would stay.
    """
    for turn in in_all:
        wish = posed.wishes[turn]
        name, at = wish_name(show, wish), wish.wish
        yield f"{_LEAVE_OUT} {name}", remove_wishes(show, [at]), _as(show, posed, turn, None)
        if wish.stereo:
            mono = replace(wish, stereo=False)
            yield f"{name}: in mono", {f"{at}/stereo": False}, _as(show, posed, turn, mono)
        if wish.track:
            loose = replace(wish, track=0)
            yield f"{name}: on any track", {f"{at}/track": 0.0}, _as(show, posed, turn, loose)
        for tap, word in TAP_WORDS.items():
            if tap != wish.tap:
                other = replace(wish, tap=tap)
                yield f"{name}: {word} instead", {f"{at}/tap": tap}, _as(show, posed, turn, other)


def _as(show: Show, posed: Posed, turn: int, other: Wish | None) -> Callable[[], Problem]:
    """The problem with one wish otherwise, or left out."""

    def tried() -> Problem:
        ways = list(posed.problem.ways)
        if other is None:
            del ways[turn]
        else:
            ways[turn] = way_or_none(show, other)[0]
        return replace(posed.problem, ways=tuple(ways))

    return tried


def _posed(show: Show, **given: Any) -> Callable[[], Problem]:
    """The problem with something given."""
    return lambda: pose(show, **given).problem


def _given(show: Show, posed: Posed) -> Iterator[_Candidate]:
    """A mix or a track that is held back given, or a track more than there are."""
    for mix in strips_of(show.desk, "mix"):
        if show.on(f"{mix}/for_tracks/held"):
            moves: dict[str, Asked] = {f"{mix}/for_tracks/held": False}
            yield f"Give {numbered(mix)}", moves, _posed(show, given_mixes=[mix])
    for track in sorted(posed.problem.held):
        socket = track_socket(posed.box, track)
        yield (
            f"Give track {track}",
            {f"{socket}/held": False},
            _posed(show, given_tracks=[track]),
        )
    size = posed.box.output_block
    word = "One track" if size == 1 else f"A block of {size} tracks"
    yield f"{word} more than {posed.box.short} has", {}, _posed(show, more=size)
