"""The plan: found, told as what changes for whom, and made one edit."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from ..catalogue import Thing, of_kind, option_text
from ..edit import renamed
from ..flow import strip_name
from ..patching import fitting_tap
from ..show import Show, numbers_text
from ..values import Asked, PlanMovedOn, Typed, within
from .problem import Carried, Placed
from .solving import BEHIND, solve
from .ways import Posed, pose, recorder_of, set_up, track_socket, way_of
from .wishes import TAP_WORDS, Wish, name_of_source, wished, wishes

__all__ = ["TrackPlan", "PlanRow", "PlanTold", "given_moves", "numbered", "plan_tracks", "tap_text"]

PlanTold = Callable[[str, int, int], None]


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanRow:
    """A wish and what becomes of it. `track`: 0 where it is not served, and `why` says why; `mix`:

    the spare mix that serves it, "" for none.
    """

    wish: Wish
    name: str
    track: int
    mix: str
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TrackPlan:
    """The best plan of a show. `tracks`: what each carries then, from 1, `names`: that in words,

    `taken` where; `changed`: whether that is new or taken elsewhere. `mixes`: spare mixes that

    it takes; `changes`: tracks and mixes that it changes. `told`: what of the
    desk it takes, in words.
    """

    rows: tuple[PlanRow, ...]
    tracks: tuple[Carried, ...]
    names: tuple[str, ...]
    taken: tuple[str, ...]
    changed: tuple[bool, ...]
    mixes: int
    changes: int
    told: tuple[str, ...]


def plan_tracks(show: Show, told: PlanTold = lambda what, at, of: None) -> TrackPlan | None:
    """The best plan, or None where not all musts can stand together (`no_plan` says why).

    `told` hears what is worked at, and how far that is. Raises NotRecordable without a recorder,
    PlanTooHard.
    """
    posed = pose(show)
    solved = solve(posed.problem, lambda at, of: told("plan", at, of))
    if solved is None:
        return None
    by_wish = {one.wish: one for one in solved.placed}
    rows = tuple(_row(show, posed, turn, by_wish.get(turn)) for turn in range(len(posed.wishes)))
    return TrackPlan(
        rows=rows,
        tracks=solved.tracks,
        names=_names(show, solved.tracks, rows),
        taken=_taken(solved.tracks, rows),
        changed=tuple(a != b for a, b in zip(posed.problem.tracks, solved.tracks, strict=True)),
        mixes=solved.mixes,
        changes=solved.changes,
        told=_told(show, posed, solved.tracks, rows),
    )


def _row(show: Show, posed: Posed, turn: int, placed: Placed | None) -> PlanRow:
    wish = posed.wishes[turn]
    why = posed.refused.get(turn, "" if placed else "no room")
    return PlanRow(
        wish=wish,
        name=name_of_source(show, wish.source),
        track=placed.track if placed else 0,
        mix=placed.mix if placed else "",
        why=why,
    )


def _names(show: Show, tracks: Sequence[Carried], rows: Sequence[PlanRow]) -> tuple[str, ...]:
    """What each track carries then: a wish by its name and side, else by what it carries."""
    names = [carried_name(show, one) if one else "" for one, _ in tracks]
    for row in rows:
        if row.track:
            for side, word in enumerate((" L", " R") if row.wish.stereo else ("",)):
                names[row.track - 1 + side] = row.name + word
    return tuple(names)


def _taken(tracks: Sequence[Carried], rows: Sequence[PlanRow]) -> tuple[str, ...]:
    """Where each track takes what it carries; by a spare mix, where that takes it."""
    taken = [tap_text(one, tap) for one, tap in tracks]
    for row in rows:
        if row.mix:
            for side in range(2 if row.wish.stereo else 1):
                taken[row.track - 1 + side] = TAP_WORDS[row.wish.tap]
    return tuple(taken)


def _told(
    show: Show, posed: Posed, tracks: Sequence[Carried], rows: Sequence[PlanRow]
) -> tuple[str, ...]:
    """Which mixes are taken, what comes unwished with a block, what stays; who loses a track is

    told by the preview of the edit.
    """
    served = {
        track
        for row in rows
        if row.track
        for track in range(row.track, row.track + (2 if row.wish.stereo else 1))
    }
    brought, left = [], []
    for track, (now, then) in enumerate(zip(posed.problem.tracks, tracks, strict=True), start=1):
        if now[0] != then[0] and track not in served:
            brought.append(track)
        stays = now == then and now[0] is not None and track not in posed.problem.held
        if stays and track not in served:
            left.append(track)
    says = []
    taken = {row.mix: row for row in rows if row.mix}
    holds = {spare.mix: spare.holds for spare in posed.problem.spares}
    anew = {mix: row for mix, row in taken.items()
            if holds.get(mix) != way_of(show, row.wish).mix}  # fmt: skip
    if anew:
        names = [f"{numbered(mix)} for {row.name}" for mix, row in anew.items()]
        says.append(f"Set up anew: {_some(names)}.")
    if brought:
        block = posed.box.output_block
        says.append(f"In blocks of {block} with them, unwished: tracks {numbers_text(brought)}.")
    if left:
        says.append(f"Unwished, and left as they are: tracks {numbers_text(left)}.")
    return tuple(says)


def numbered(mix: str) -> str:
    at = Thing.at(mix)
    return f"{at.kind} {at.number}"


def _some(names: Sequence[str], most: int = 8) -> str:
    rest = len(names) - most
    return ", ".join(names[:most]) + (f" and {rest} more" if rest > 0 else "")


def carried_name(show: Show, reference: str) -> str:
    """What an output carries, as people call it."""
    at = Thing.at(reference)
    if at.kind in ("talkback", "oscillator", "solo"):
        return at.kind.capitalize()
    ending = {"left": " L", "right": " R"}.get(at.side, "")
    return strip_name(show, at.thing) + ending


def tap_text(reference: str | None, tap: str) -> str:
    """Where a track takes what it carries, in words; "" for what has no taps, or an unsaid one."""
    if not reference or not tap or of_kind(reference) in ("talkback", "oscillator", "solo"):
        return ""
    return TAP_WORDS.get(tap, option_text(tap))


# ---- as one edit


def given_moves(show: Show, given: Sequence[tuple[str, int, str]]) -> dict[str, Asked]:
    """Moves that let wishes have the tracks that a plan gave them: (wish, track, mix) each, the mix

    "" for a direct out; track 0 for none. All wishes of the list are named. What tracks carry that
    is not wished stays, save what comes with a block. Raises PlanMovedOn where the show is no
    longer what was planned for.
    """
    listed = {one.wish: one for one in wishes(show)}
    if {wish for wish, _, _ in given} != listed.keys() or len(given) != len(listed):
        raise PlanMovedOn("the wishes are others now")
    problem = pose(show).problem
    spares = {spare.mix: spare.holds for spare in problem.spares}
    moves: dict[str, Asked] = {}
    carried: dict[int, Carried] = {}
    mixes: dict[str, str] = {}
    for name, track, mix in given:
        moves[f"{name}/on_track"] = float(track)
        if not track:
            continue
        wish = listed[name]
        way = way_of(show, wish)
        if not problem.open(way, track):
            raise PlanMovedOn(f"{name_of_source(show, wish.source)} cannot stand on track {track}")
        if mix and (mix not in spares or mixes.setdefault(mix, way.mix) != way.mix or not way.mix):
            raise PlanMovedOn(f"{numbered(mix)} is no longer spare")
        if not mix and not way.direct:
            raise PlanMovedOn(f"{name_of_source(show, wish.source)} has no direct out")
        sides = problem.sides_of_mix(mix, way) if mix else way.direct
        for at, one in enumerate(sides, start=track):
            held = at in problem.held and problem.tracks[at - 1][0] != one
            if at in carried or held:
                raise PlanMovedOn(f"track {at} is not free for it")
            carried[at] = (one, BEHIND if mix else way.tap)
    moves |= _mixes(show, mixes, {mix: name for name, _, mix in given}, spares)
    return moves | _tracks(show, carried)


def _mixes(
    show: Show, mixes: Mapping[str, str], wish_of: Mapping[str, str], spares: Mapping[str, str]
) -> dict[str, Asked]:
    """What mixes are set up as, those that are not yet."""
    moves: dict[str, Asked] = {}
    anew = {mix: holds for mix, holds in mixes.items() if spares[mix] != holds}
    if anew:  # as nobody set them, and in no scene; what tracks carry is the plan's own matter
        fresh = renamed(show, dict.fromkeys(anew))
        moves |= {a: value for a, value in fresh.items() if of_kind(a) != "output"}
    for mix, holds in anew.items():
        wish = wished(show, wish_of[mix])
        name = name_of_source(show, wish.source)
        strip = holds.split()[0]
        moves |= set_up(show, mix, holds) | {
            f"{mix}/name": Typed(within(name, f" {TAP_WORDS[wish.tap]}")),
            f"{mix}/colour": show[f"{strip}/colour"],
            f"{mix}/for_tracks/made": True,
        }
    return moves


def _tracks(show: Show, carried: Mapping[int, Carried]) -> dict[str, Asked]:
    box = recorder_of(show)
    moves: dict[str, Asked] = {}
    size = box.output_block
    for first in range(1, box.outputs + 1, size):
        block = range(first, first + size)
        wanted = {at: carried[at][0] for at in block if at in carried}
        stays = all(show[f"{track_socket(box, at)}/source"] == one for at, one in wanted.items())
        if not stays:
            wanted = _whole_block(box.output_block, first, wanted)
        for at in block:
            socket = track_socket(box, at)
            if at in wanted:
                moves[f"{socket}/source"] = wanted[at]
            if at in carried:
                moves[f"{socket}/tap"] = carried[at][1]
            elif at in wanted:
                moves[f"{socket}/tap"] = fitting_tap(show, socket, wanted[at])
    return moves


def _whole_block(size: int, first: int, wanted: Mapping[int, str | None]) -> dict[int, str | None]:
    """What a block carries in which some of it is wished: all neighbours of those."""
    if size == 1:
        return dict(wanted)
    reference = next(one for one in wanted.values() if one is not None)
    thing = Thing.at(reference)
    start = (thing.number - 1) // size * size + 1
    ending = f"/{thing.side}" if thing.side else ""
    return {first + turn: f"{thing.kind}/{start + turn}{ending}" for turn in range(size)}
