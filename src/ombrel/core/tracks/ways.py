"""From a show to the problem of its track plan: how each wish can be served, and by what."""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import (
    COUNTED,
    SENDERS,
    SOURCES,
    TAPS,
    Address,
    Box,
    Thing,
    below,
    direct_taps,
    of_kind,
    strips_of,
)
from ..show import Show, numbers_text, read_numbers
from ..together import partner_of
from ..values import Asked, NotRecordable
from .problem import Problem, Spare, Way
from .wishes import (
    TAP_WORDS,
    Wish,
    carrier,
    check_recordable,
    has_two_sides,
    name_of_source,
    wishes,
)

__all__ = [
    "has_recorder",
    "Posed",
    "mix_holds",
    "pose",
    "recorder_of",
    "set_up",
    "spare_mixes",
    "track_socket",
    "way_of",
    "way_or_none",
]

_SUM_DB: Final = -6.0  # each side of a pair in the sum (L+R)/2, on the steps of a send
_FREE_LEAVES: Final = ("name", "colour", "for_tracks/made", "for_tracks/held")


@dataclass(frozen=True, slots=True, kw_only=True)
class Posed:
    """The problem of a show. `wishes`: one for each of its ways; `refused`: why a wish has none, by

    its place in the list.
    """

    box: Box
    wishes: tuple[Wish, ...]
    problem: Problem
    refused: dict[int, str]


def recorder_of(show: Show) -> Box:
    """The box that records: the one that is chosen, else the first with outputs but no preamps.

    Raises NotRecordable where the desk has none such and none is chosen.
    """
    chosen = show["plan/recorder"]
    boxes = show.desk.boxes
    if isinstance(chosen, str):
        return next(box for box in boxes if box.key == Thing.at(chosen).box)
    for box in boxes:
        if box.outputs and not box.preamps:
            return box
    raise NotRecordable(show.desk.name, "no box of it records: choose the one whose outputs do")


def has_recorder(show: Show) -> bool:
    """Whether there is a box that records."""
    return isinstance(show["plan/recorder"], str) or any(
        box.outputs and not box.preamps for box in show.desk.boxes
    )


def track_socket(box: Box, track: int) -> str:
    """The output that is a track."""
    return f"output/{box.key}/{track}"


def pose(
    show: Show,
    *,
    given_mixes: Sequence[str] = (),
    given_tracks: Sequence[int] = (),
    more: int = 0,
) -> Posed:
    """The problem of a show, or of what it would be: with mixes or tracks given that are held, with

    some tracks more. Raises NotRecordable without a recorder.
    """
    box = recorder_of(show)
    sockets = [track_socket(box, track) for track in range(1, box.outputs + 1)]
    kept = wishes(show)
    held = {track for track, one in enumerate(sockets, start=1) if show.on(f"{one}/held")}
    held -= set(given_tracks)
    ways: list[Way] = []
    refused: dict[int, str] = {}
    for turn, wish in enumerate(kept):
        way, why = way_or_none(show, wish)
        ways.append(way)
        if why:
            refused[turn] = why
    tracks = tuple((_text(show[f"{one}/source"]), show.text(f"{one}/tap")) for one in sockets)
    problem = Problem(
        ways=tuple(ways),
        tracks=(*tracks, *((None, "after_fader"),) * more),
        held=frozenset(held),
        spares=spare_mixes(show, box, held, given_mixes),
        block=box.output_block,
        counts=tuple((kind, show.desk.count(kind)) for kind in COUNTED),
        keep=show.on("plan/keep"),
    )
    return Posed(box=box, wishes=kept, problem=problem, refused=refused)


def way_or_none(show: Show, wish: Wish) -> tuple[Way, str]:
    """How a wish can be served, and ""; or a way that never fits, and why."""
    try:
        return way_of(show, wish), ""
    except NotRecordable as error:
        return Way(direct=(), mix="", tap=wish.tap, sides=1, rank=wish.rank), error.why


def _text(value: object) -> str | None:
    return value if isinstance(value, str) else None


def way_of(show: Show, wish: Wish) -> Way:
    """How a wish can be served. Raises NotRecordable where it cannot."""
    strip = carrier(show, wish.source)
    check_recordable(show, wish, strip)
    kind, sides = of_kind(strip), 2 if wish.stereo else 1
    tap = wish.tap if kind in SOURCES else _tap_of_bus(wish.tap)
    two = has_two_sides(show, wish.source)
    sum_of_pair = kind == "channel" and sides == 1 and two
    # sends of a pair go together: one side of it alone fits in no mix
    alone = kind == "channel" and not two and partner_of(show, strip) is not None
    direct: tuple[str, ...] = ()
    if tap in direct_taps(show.desk, kind) and not sum_of_pair:
        direct = _direct(show, strip, sides)
    mix = f"{strip} {tap} {sides}" if kind in SOURCES and not alone else ""
    if not direct and not mix:
        raise NotRecordable(name_of_source(show, wish.source), "no output carries it there")
    return Way(direct=direct, mix=mix, tap=tap, sides=sides, track=wish.track, rank=wish.rank)


def _tap_of_bus(tap: str) -> str:
    return tap if TAPS.index(tap) >= TAPS.index("before_fader") else "after_fader"


def _direct(show: Show, strip: str, sides: int) -> tuple[str, ...]:
    """What the outputs of a strip's tracks carry."""
    if of_kind(strip) == "channel":
        partner = partner_of(show, strip)
        every = (strip, partner) if sides == 2 and partner else (strip,)
        return tuple(f"{one}/direct" for one in every)
    if sides == 2:
        return f"{strip}/left", f"{strip}/right"
    return (strip,)


# ---- spare mixes


def spare_mixes(
    show: Show, box: Box, held: set[int], given: Sequence[str] = ()
) -> tuple[Spare, ...]:
    """Mixes that a plan may take: those not in use, and those of an earlier plan that only tracks

    carry; not those held back, unless `given`.
    """
    ours = {track_socket(box, track) for track in range(1, box.outputs + 1) if track not in held}
    carried = {
        Thing.at(source).thing
        for socket in show.outputs()
        if socket not in ours and isinstance(source := show[f"{socket}/source"], str)
    }
    serving = {show[f"engine/{n}/source"] for n in range(1, show.desk.effect_engines + 1)}
    found = []
    for mix in strips_of(show.desk, "mix"):
        made = show.on(f"{mix}/for_tracks/made")
        is_free = made or not show.uses(mix)
        is_held = show.on(f"{mix}/for_tracks/held") and mix not in given
        if is_free and not is_held and mix not in carried and mix not in serving:
            found.append(Spare(mix=mix, holds=mix_holds(show, mix) if made else ""))
    return tuple(found)


def mix_holds(show: Show, mix: str) -> str:
    """What a plan set a mix up as, while it is still just that; "" where it is otherwise now."""
    heard = [
        strip
        for strip in strips_of(show.desk, *SENDERS)
        if show.number(f"{strip}/send/{mix}/level") > -math.inf
    ]
    if not heard or of_kind(heard[0]) not in SOURCES:
        return ""
    tap = show.text(f"{heard[0]}/send/{mix}/tap")
    if tap not in TAP_WORDS:
        return ""
    sides = 2 if show[f"{mix}/format"] == "stereo" else 1
    moves = set_up(show, mix, f"{heard[0]} {tap} {sides}")
    stands = all(show[address] == value for address, value in moves.items())
    besides = any(
        address not in moves and Address.at(address).leaf not in _FREE_LEAVES
        for address in below(mix, show.own)
    )
    alone = set(heard) == {at.thing for at in map(Address.at, moves) if at.last == "level"}
    return f"{heard[0]} {tap} {sides}" if stands and alone and not besides else ""


def set_up(show: Show, mix: str, holds: str) -> dict[str, Asked]:
    """Values by which a mix has one source alone, at 0 dB and at its tap, on one side or two.

    A pair in one side is its sum, (L+R)/2.
    """
    strip, tap, sides = holds.split()
    partner = partner_of(show, strip)
    two = sides == "2"
    moves: dict[str, Asked] = {f"{mix}/format": "stereo" if two else "mono",
                               f"{mix}/serves": "feed"}  # fmt: skip
    for one in (strip, partner) if partner else (strip,):
        pan = 0.0 if not partner or not two else -1.0 if one == strip else 1.0
        moves |= {
            f"{one}/send/{mix}/level": _SUM_DB if partner and not two else 0.0,
            f"{one}/send/{mix}/on": True,
            f"{one}/send/{mix}/tap": tap,
            f"{one}/send/{mix}/pan": pan,
        }
    return moves


# ---- what no plan moves


def hold_back(
    show: Show, *, tracks: str | None = None, mixes: str | None = None
) -> dict[str, Asked]:
    """Moves after which exactly the typed tracks stay as they are, and the typed mixes are taken by

    no plan ("29-32", "21, 22", "" for none; None: as they were). Raises UnreadableText.
    """
    moves: dict[str, Asked] = {}
    if tracks is not None:
        box = recorder_of(show)
        held = set(read_numbers(tracks, highest=box.outputs) if tracks.strip() else ())
        for track in range(1, box.outputs + 1):
            moves[f"{track_socket(box, track)}/held"] = track in held
    if mixes is not None:
        plain = re.sub(r"\b(?:mix|mixes)\b", "", mixes, flags=re.IGNORECASE)
        kept = set(read_numbers(plain, highest=show.desk.mixes) if plain.strip() else ())
        for mix in range(1, show.desk.mixes + 1):
            moves[f"mix/{mix}/for_tracks/held"] = mix in kept
    return {address: value for address, value in moves.items() if show[address] != value}


def held_back(show: Show) -> tuple[str, str]:
    """The tracks and the mixes that no plan moves, as they would be typed."""
    box = recorder_of(show)
    tracks = [t for t in range(1, box.outputs + 1) if show.on(f"{track_socket(box, t)}/held")]
    mixes = [m for m in range(1, show.desk.mixes + 1) if show.on(f"mix/{m}/for_tracks/held")]
    return numbers_text(tracks), numbers_text(mixes)
