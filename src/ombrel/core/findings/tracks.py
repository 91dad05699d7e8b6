"""What is recorded twice, not at all, too loud, apart, or no longer what the plan meant."""

from collections.abc import Iterator
from typing import Final

from ..catalogue import Address, Thing, default_of
from ..flow import strip_name
from ..scenes import held_of, scene_named
from ..sharing import Levels
from ..show import numbers_text
from ..strips import expected_on
from ..together import in_pairs, partner_of
from ..tracks import (
    Wish,
    carried_name,
    carries_wish,
    mix_holds,
    name_of_source,
    recorder_of,
    set_up,
    track_socket,
    way_of,
    wishes,
)
from ..values import Asked, ConsoleError, said
from .rule import Finding, Look

__all__ = [
    "scene_moves_a_track",
    "stereo_split",
    "track_past_full_scale",
    "track_twice",
    "wish_moved_on",
    "wish_on_no_track",
]

_FULL_DBFS: Final = 0.0


def _tracks(look: Look) -> dict[int, tuple[str, str]]:
    """What tracks of the recorder carry, and where they take it; none on a desk without one."""
    show = look.show
    try:
        box = recorder_of(show)
    except ConsoleError:
        return {}
    found = {}
    for track in range(1, box.outputs + 1):
        socket = track_socket(box, track)
        carried = show[f"{socket}/source"]
        if isinstance(carried, str):
            found[track] = (carried, show.text(f"{socket}/tap"))
    return found


def _wishes(look: Look) -> tuple[Wish, ...]:
    return wishes(look.show) if _tracks(look) else ()


def wish_moved_on(look: Look) -> Iterator[Finding]:
    """A track that a plan gave to a wish, and that carries it no longer: its source moved."""
    show = look.show
    for wish in _wishes(look):
        if not wish.given:
            continue
        name = name_of_source(show, wish.source)
        moves: dict[str, Asked] = {}
        try:
            if carries_wish(show, wish, wish.given):
                continue
            way = way_of(show, wish)
        except ConsoleError as error:
            says = f"{error} Its track is {wish.given}."
        else:
            now = _tracks(look).get(wish.given)
            carries = f"carries {carried_name(show, now[0])}" if now else "carries nothing"
            says = f"Track {wish.given} was planned for {name}, and {carries} as it stands now."
            box = recorder_of(show)
            if way.direct and box.output_block == 1:
                for side, one in enumerate(way.direct):
                    socket = track_socket(box, wish.given + side)
                    moves |= {f"{socket}/source": one, f"{socket}/tap": way.tap}
        yield Finding(
            rule="wish_moved_on",
            tone="settle",
            says=says,
            about=wish.wish,
            remedy=f"Track {wish.given} takes {name} again" if moves else "",
            moves=moves,
        )


def wish_on_no_track(look: Look) -> Iterator[Finding]:
    """A must on no track, once there is a plan."""
    show, every = look.show, _wishes(look)
    if not any(wish.given for wish in every):
        return
    for wish in every:
        if wish.rank == 0 and not wish.given:
            name = name_of_source(show, wish.source)
            yield Finding(
                rule="wish_on_no_track",
                tone="settle",
                says=f"{name} must be recorded, and is on no track: plan again.",
                about=wish.wish,
            )


def track_twice(look: Look) -> Iterator[Finding]:
    """One source at one tap on two tracks."""
    tracks: dict[tuple[str, str], list[int]] = {}
    for track, taken in _tracks(look).items():
        tracks.setdefault(taken, []).append(track)
    given = {
        track
        for wish in _wishes(look)
        for track in (wish.given, wish.given + wish.stereo)
        if wish.given
    }
    box = recorder_of(look.show) if tracks else None
    for (carried, _), some in tracks.items():
        if len(some) < 2 or box is None:
            continue
        spare = [track for track in some if track not in given and box.output_block == 1]
        moves: dict[str, Asked] = {f"{track_socket(box, spare[-1])}/source": None} if spare else {}
        yield Finding(
            rule="track_twice",
            tone="note",
            says=f"{carried_name(look.show, carried)} is on tracks {numbers_text(some)}, taken"
            " alike.",
            about=track_socket(box, some[-1]),
            remedy=f"Clear track {spare[-1]}" if spare else "",
            moves=moves,
        )


def track_past_full_scale(look: Look) -> Iterator[Finding]:
    """A track that is expected past full scale."""
    if not _wishes(look):
        return
    show, box = look.show, recorder_of(look.show)
    levels = Levels(show, look.flow)
    for track, (carried, tap) in _tracks(look).items():
        if tap == "input":  # as loud as its preamp: told there
            continue
        dbfs = expected_on(show, levels, track_socket(box, track))
        if dbfs is not None and dbfs > _FULL_DBFS:
            yield Finding(
                rule="track_past_full_scale",
                tone="settle",
                says=f"Track {track}, {carried_name(show, carried)}: expected at"
                f" {said(dbfs, 1, signed=True)} dBFS, past full scale.",
                about=track_socket(box, track),
            )


def stereo_split(look: Look) -> Iterator[Finding]:
    """Two sides of one thing, taken alike, that are not on an odd track and the even above it."""
    show, tracks = look.show, _tracks(look)
    where: dict[tuple[str, str], int] = {}
    for track, carried in tracks.items():
        where.setdefault(carried, track)
    for (reference, tap), track in where.items():
        sides = _sides(look, reference)
        if sides is None:
            continue
        left, right = (where.get((one, tap)) for one in sides)
        if left == track and right == track + 1 and track % 2 == 1:
            continue
        if left is not None and reference != sides[0]:
            continue  # told by its left side
        name = strip_name(show, Thing.at(reference).thing).removesuffix(" L")
        lone = f"on track {track} with one side"
        parts = f"on tracks {left} and {right}" if left and right else lone
        yield Finding(
            rule="stereo_split",
            tone="note",
            says=f"{name} is {parts}: two sides stand on an odd track and the even above it.",
            about=track_socket(recorder_of(show), track),
        )


def _sides(look: Look, carried: str) -> tuple[str, str] | None:
    """Both sides of what a track carries one side of; None for what is whole."""
    at = Thing.at(carried)
    if at.side in ("left", "right"):
        return f"{at.thing}/left", f"{at.thing}/right"
    pair = in_pairs(at.thing) if at.side == "direct" else None
    if pair is None or not partner_of(look.show, at.thing):
        return None
    return f"{pair[0]}/direct", f"{pair[1]}/direct"


def scene_moves_a_track(look: Look) -> Iterator[Finding]:
    """A scene that would take a spare mix of the plan away from what it is set up as."""
    show = look.show
    for mix in show.in_use("mix"):
        holds = mix_holds(show, mix) if show.on(f"{mix}/for_tracks/made") else ""
        if not holds:
            continue
        strip = holds.split()[0]
        wanted = {
            at.leaf: value
            for address, value in set_up(show, mix, holds).items()
            if (at := Address.at(address)).thing == strip and at.last != "tap"
        }
        for scene in show.scenes:
            held = held_of(show, scene, strip)
            cell = f"send/{mix}"
            moved = cell in held.cells and any(
                held.values.get(leaf, default_of(f"{strip}/{leaf}")) != value
                for leaf, value in wanted.items()
            )
            if moved:
                yield Finding(
                    rule="scene_moves_a_track",
                    tone="settle",
                    says=f"Scene {scene_named(show, scene)} would move the send of"
                    f" {strip_name(show, strip)} to {strip_name(show, mix)}, which only records"
                    " it.",
                    about=scene,
                )
