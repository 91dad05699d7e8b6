"""How the recording stands: every wish, every track, what is spare, and the way back."""

from collections.abc import Iterable
from dataclasses import dataclass

from ..catalogue import FAMILIES, of_kind
from ..flow import Flow, strip_name
from ..show import Show, socket_name
from ..values import ConsoleError
from .playback import (
    PlaybackTold,
    lay_playback,
    playback_told,
    played_by_key,
    switch_playback,
    track_of_channel,
    ways_back,
)
from .recorded import Track, carries_wish, recorded
from .ways import held_back, recorder_of, spare_mixes, way_of
from .wishes import Wish, carrier, has_two_sides, name_of_source, wishes

__all__ = ["Recording", "WayBack", "WishTold", "recording"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WishTold:
    """A wish as it stands. `two_sides`: it could be on two; `raw`: it could be taken raw;

    `stands`: its track carries it; `refused`: why nothing can.
    """

    wish: Wish
    name: str
    two_sides: bool
    raw: bool
    stands: bool
    refused: str


@dataclass(frozen=True, slots=True, kw_only=True)
class WayBack:
    """Playback. `able`: channels into which a track can go back, `laid`: into which one does, of

    these `playing` by the key; `taken`: channels whose spare is something else, each in words;
    `families`: of whose lines any is laid; `told`: what to know before the key is pressed.
    """

    able: int
    laid: int
    playing: int
    taken: tuple[tuple[str, str], ...]
    families: tuple[str, ...]
    told: tuple[PlaybackTold, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Recording:
    """All that is recorded. `box`: the recorder's name, `refused`: why there is none. `spare`: how

    many mixes a plan could take; `held`: tracks and mixes that stay, as typed.
    """

    box: str
    refused: str
    block: int
    wishes: tuple[WishTold, ...]
    tracks: tuple[Track, ...]
    spare: int
    held: tuple[str, str]
    back: WayBack


_NO_WAY_BACK = WayBack(able=0, laid=0, playing=0, taken=(), families=(), told=())


def recording(show: Show, flow: Flow) -> Recording:
    """How the recording of a show stands."""
    try:
        box = recorder_of(show)
    except ConsoleError as error:
        told = tuple(_told(show, wish) for wish in wishes(show))
        return Recording(box="", refused=str(error), block=1, wishes=told, tracks=(), spare=0,
                         held=("", ""), back=_NO_WAY_BACK)  # fmt: skip
    tracks = recorded(show, flow)
    held = {one.track for one in tracks if one.held}
    return Recording(
        box=box.short,
        refused="",
        block=box.output_block,
        wishes=tuple(_told(show, wish) for wish in wishes(show)),
        tracks=tracks,
        spare=len(spare_mixes(show, box, held)),
        held=held_back(show),
        back=_way_back(show, flow),
    )


def _told(show: Show, wish: Wish) -> WishTold:
    refused, two, raw, stands = "", False, False, False
    try:
        strip = carrier(show, wish.source)
        two, raw = has_two_sides(show, wish.source), of_kind(strip) == "channel"
        way_of(show, wish)
        stands = bool(wish.given) and carries_wish(show, wish, wish.given)
    except ConsoleError as error:
        refused = str(error)
    return WishTold(
        wish=wish,
        name=name_of_source(show, wish.source),
        two_sides=two,
        raw=raw,
        stands=stands,
        refused=refused,
    )


def _way_back(show: Show, flow: Flow) -> WayBack:
    back = ways_back(show)
    laid = [f"channel/{n}" for n in show.channels() if track_of_channel(show, f"channel/{n}")]
    playing = played_by_key(show)
    return WayBack(
        able=len(back),
        laid=len(laid),
        playing=len(playing),
        taken=tuple(
            (
                one.channel,
                f"{strip_name(show, one.channel)}: {socket_name(show.desk, one.taken_by)}",
            )
            for one in back
            if one.taken_by
        ),
        families=_families(show, laid),
        told=_before(show, flow),
    )


def _families(show: Show, channels: Iterable[str]) -> tuple[str, ...]:
    sources = {show[f"{one}/source"] for one in channels}
    there = {
        show.text(f"line/{line}/family")
        for line in show.lines()
        if {show[f"line/{line}/socket"], show[f"line/{line}/socket_right"]} & sources - {None}
    }
    return tuple(family for family in FAMILIES if family in there)


def _before(show: Show, flow: Flow) -> tuple[PlaybackTold, ...]:
    """What the key would do now, or does: with the spares that a press would lay."""
    try:
        laid = show.with_values({a: str(v) for a, v in lay_playback(show).items()})
        moves = lay_playback(show) | switch_playback(laid, on=True)
    except ConsoleError:
        return playback_told(show, flow, {}) if played_by_key(show) else ()
    try:
        return playback_told(show, flow, moves)
    except ConsoleError as error:  # it would howl: that is the thing to know
        return (PlaybackTold(tone="loop", says=str(error)),)
