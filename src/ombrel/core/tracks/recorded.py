"""What each track of the recorder carries: its name, where it is taken, how loud it comes."""

from dataclasses import dataclass
from typing import Final

from ..catalogue import Thing, of_kind
from ..flow import Flow
from ..sharing import Levels
from ..show import Show
from ..strips import expected_on
from ..values import within
from .planning import carried_name, tap_text
from .ways import mix_holds, recorder_of, track_socket, way_of
from .wishes import TAP_WORDS, Wish, name_of_source, wishes

__all__ = ["Track", "carries_wish", "recorded", "takes", "track_names"]

_QUIETEST_DBFS: Final = -100.0
_LONGEST: Final = 31  # letters of a name that recorders commonly show


@dataclass(frozen=True, slots=True, kw_only=True)
class Track:
    """A track. `socket`: the output that it is; `name`: what the recorder is to call it, "" for one

    that carries nothing; `carried`: the reference, at `tap`, `taken` in words; `wish`: whose it is
    by the plan, "" for nobody's; `mix`: the spare mix that it takes it by; `held`; `plays_into`:
    channels whose spare it is; `dbfs`: the level expected of it, None where none is known.
    """

    track: int
    socket: str
    name: str
    carried: str | None
    tap: str
    taken: str
    wish: str
    mix: str
    held: bool
    plays_into: tuple[str, ...]
    dbfs: float | None


def carries_wish(show: Show, wish: Wish, track: int) -> bool:
    """Whether tracks from this one on carry what a wish names, by direct outs or by its mix.

    Raises NotRecordable for a wish that nothing can serve.
    """
    box = recorder_of(show)
    way = way_of(show, wish)
    if not track or track + way.sides - 1 > box.outputs:
        return False
    sockets = [track_socket(box, track + side) for side in range(way.sides)]
    there = tuple((show[f"{one}/source"], show.text(f"{one}/tap")) for one in sockets)
    if way.direct and there == tuple((one, way.tap) for one in way.direct):
        return True
    first = there[0][0]
    if not isinstance(first, str) or of_kind(first) != "mix" or not way.mix:
        return False
    mix = Thing.at(first).thing
    sides = (mix,) if way.sides == 1 else (f"{mix}/left", f"{mix}/right")
    return there == tuple((one, "after_fader") for one in sides) and mix_holds(show, mix) == way.mix


def recorded(show: Show, flow: Flow | None = None) -> tuple[Track, ...]:
    """Every track of the recorder. `flow`: where levels are wanted. Raises NotRecordable without a

    recorder.
    """
    box = recorder_of(show)
    by_track: dict[int, tuple[Wish, int]] = {}
    for wish in wishes(show):
        if wish.given:
            for side in range(2 if wish.stereo else 1):
                by_track.setdefault(wish.given + side, (wish, side))
    spares: dict[object, list[str]] = {}
    for number in show.channels():
        spares.setdefault(show[f"channel/{number}/spare"], []).append(f"channel/{number}")
    levels = Levels(show, flow) if flow is not None else None
    names = track_names(show)
    found = []
    for track in range(1, box.outputs + 1):
        socket = track_socket(box, track)
        carried = show[f"{socket}/source"]
        carried = carried if isinstance(carried, str) else None
        thing = Thing.at(carried).thing if carried else ""
        made = of_kind(thing) == "mix" and show.on(f"{thing}/for_tracks/made") if thing else False
        owner = by_track.get(track)
        # a spare mix takes the source where it was wished; the track takes the mix whole
        holds = mix_holds(show, thing) if made else ""
        tap = holds.split()[1] if holds else show.text(f"{socket}/tap")
        found.append(
            Track(
                track=track,
                socket=socket,
                name=names[track - 1],
                carried=carried,
                tap=show.text(f"{socket}/tap"),
                taken=tap_text(carried, tap),
                wish=owner[0].wish if owner and carried else "",
                mix=thing if made else "",
                held=show.on(f"{socket}/held"),
                plays_into=tuple(spares.get(f"input/{box.key}/{track}", ())),
                dbfs=expected_on(show, levels, socket) if levels and carried else None,
            )
        )
    return tuple(found)


def takes(show: Show, flow: Flow) -> list[tuple[str, str, float]]:
    """What a recorder is told of its tracks: the input where each comes back, its name, and the

    level expected of it in dBFS. Of what none is known, it is the show's target. Raises
    NotRecordable without a recorder.
    """
    box = recorder_of(show)
    target_dbfs = show.number("show/target_dbfs")
    return [
        (f"input/{box.key}/{one.track}", one.name, _loud(one.dbfs, target_dbfs))
        for one in recorded(show, flow)
        if one.carried and one.track <= box.inputs
    ]


def _loud(dbfs: float | None, usual_dbfs: float) -> float:
    """A level that a file can have."""
    return usual_dbfs if dbfs is None else min(max(dbfs, _QUIETEST_DBFS), 0.0)


def track_names(show: Show) -> tuple[str, ...]:
    """What the recorder is to call its tracks, from track 1; "" for one that carries nothing.

    A source that is on several tracks says where it is taken, a side which it is. No two are alike.
    """
    box = recorder_of(show)
    of_wish: dict[int, str] = {}
    every = wishes(show)
    taken = [wish.source for wish in every if wish.given]
    for wish in every:
        if not wish.given:
            continue
        several = taken.count(wish.source) > 1
        ending = f" {TAP_WORDS[wish.tap]}" if several else ""
        name = name_of_source(show, wish.source)
        for side, word in enumerate((" L", " R") if wish.stereo else ("",)):
            of_wish.setdefault(wish.given + side, within(name, f"{ending}{word}", longest=_LONGEST))
    names: list[str] = []
    used: set[str] = set()
    for track in range(1, box.outputs + 1):
        carried = show[f"{track_socket(box, track)}/source"]
        name = ""
        if isinstance(carried, str):
            name = of_wish.get(track) or within(carried_name(show, carried), longest=_LONGEST)
            if name in used:
                name = within(name, f" {track}", longest=_LONGEST)
            used.add(name)
        names.append(name)
    return tuple(names)
