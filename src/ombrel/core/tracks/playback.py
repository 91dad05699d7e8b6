"""The way back: tracks as the spares of the channels that they were taken from, and one key."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..answers import newly_broken
from ..catalogue import SENDERS, SOURCES, Thing, of_kind
from ..edit import edited, renamed
from ..flow import Flow, State, strip_name
from ..show import Show, lines_on, numbers_text, read_sockets, sockets_of_line
from ..together import members_of, partner_of, rulers_in_use
from ..values import Asked, NothingLeft, NotRecordable, UnreadableText, counted
from .recorded import carries_wish
from .ways import recorder_of, track_socket
from .wishes import Wish, channels_carrying, name_of_source, wishes

__all__ = [
    "Back",
    "PlaybackTold",
    "lay_playback",
    "listen_channels",
    "played_by_key",
    "switch_playback",
    "track_of_channel",
    "ways_back",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Back:
    """A channel that a track can be played back into. `lies`: its spare is that track; `taken_by`:

    what its spare is instead, "" for nothing.
    """

    channel: str
    track: int
    lies: bool
    taken_by: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaybackTold:
    """Something to know before playback. `tone`: "loop" (a track would record itself), "twice" (in

    the house twice), "promise" (broken by it), "live" (channels that stay).
    """

    tone: Literal["loop", "twice", "promise", "live"]
    says: str


def ways_back(show: Show) -> tuple[Back, ...]:
    """Which track goes back into which channel: of raw tracks, into the channels that they were

    taken from, the highest wish of the list first. What was taken behind the channel's own
    processing is not: there it would be processed twice.
    """
    box = recorder_of(show)
    found: dict[str, Back] = {}
    for wish in wishes(show):
        if wish.tap != "input" or not wish.given or not _stands(show, wish):
            continue
        for side, channels in enumerate(_sides(show, wish)):
            track = wish.given + side
            if track > box.inputs:
                continue
            if lines_on(show, f"input/{box.key}/{track}"):
                continue  # something else comes in there
            for channel in channels:
                if channel not in found:
                    found[channel] = _back(show, box.key, channel, track)
    return tuple(found.values())


def _sides(show: Show, wish: Wish) -> list[list[str]]:
    """The channels of each side of a wish: of a line all that its socket feeds."""
    if of_kind(wish.source) == "line":
        sockets = sockets_of_line(show, Thing.at(wish.source).number)
        every = channels_carrying(show, wish.source)
        sides = [
            [one for one in every if socket in (show[f"{one}/source"], _in_force(show, one))]
            for socket in sockets
        ]
        # on one track both sides are one
        return sides if wish.stereo else [[one for side in sides for one in side]]
    if of_kind(wish.source) != "channel":
        return []
    partner = partner_of(show, wish.source)
    if partner is None:
        return [[wish.source]]
    return [[wish.source], [partner]] if wish.stereo else [[wish.source, partner]]


def _in_force(show: Show, channel: str) -> str | None:
    return show.source_of(Thing.at(channel).number)


def _stands(show: Show, wish: Wish) -> bool:
    """Whether a wish's tracks still carry it; not where nothing can serve it any more."""
    try:
        return carries_wish(show, wish, wish.given)
    except NotRecordable:
        return False


def _back(show: Show, box: str, channel: str, track: int) -> Back:
    spare, own = show[f"{channel}/spare"], f"input/{box}/{track}"
    other = isinstance(spare, str) and not (
        of_kind(spare) == "input" and Thing.at(spare).box == box
    )
    return Back(
        channel=channel,
        track=track,
        lies=spare == own,
        taken_by=str(spare) if other else "",
    )


def lay_playback(show: Show, over: Collection[str] = ()) -> dict[str, Asked]:
    """Moves that make tracks the spares of their channels. A spare that is something else stays,

    save of channels in `over`. Raises NothingLeft where no track can go back.
    """
    box = recorder_of(show)
    moves: dict[str, Asked] = {
        f"{back.channel}/spare": f"input/{box.key}/{back.track}"
        for back in ways_back(show)
        if not back.lies and (not back.taken_by or back.channel in over)
    }
    if not moves and not any(back.lies for back in ways_back(show)):
        raise NothingLeft("tracks of a plan that carry a channel raw", 1, 0)
    return moves


# ---- the key


def track_of_channel(show: Show, channel: str) -> int:
    """The track that is a channel's spare; 0 where that is something else."""
    spare = show[f"{channel}/spare"]
    if not isinstance(spare, str) or of_kind(spare) != "input":
        return 0
    at = Thing.at(spare)
    return at.number if at.box == recorder_of(show).key else 0


def played_by_key(show: Show) -> list[str]:
    """The channels that the key switched to their tracks, ascending."""
    return [f"channel/{n}" for n in show.channels() if show.on(f"channel/{n}/played")]


def switch_playback(show: Show, *, on: bool, family: str = "") -> dict[str, Asked]:
    """Moves of the key: every channel that has a track as its spare goes to it, or all that the key

    switched goes back to what stood. `family`: only of lines of that family. What was on its spare
    without the key stays there. Raises NothingLeft where there is nothing to switch.
    """
    if on:
        some = [
            channel
            for channel in _of_family(show, family)
            if track_of_channel(show, channel) and not show.on(f"{channel}/on_spare")
        ]
    else:
        switched = set(_of_family(show, family))
        some = [channel for channel in played_by_key(show) if channel in switched]
    if not some:
        what = "channels with a track as their spare" if on else "channels that play back"
        raise NothingLeft(what, 1, 0)
    return {
        address: on for channel in some for address in (f"{channel}/on_spare", f"{channel}/played")
    }


def _of_family(show: Show, family: str) -> list[str]:
    every = [f"channel/{n}" for n in show.channels()]
    if not family:
        return every
    sockets = {
        socket
        for line in show.lines()
        if show[f"line/{line}/family"] == family
        for socket in sockets_of_line(show, line)
    }
    return [channel for channel in every if show[f"{channel}/source"] in sockets]


# ---- what to know beforehand


def playback_told(
    show: Show, flow: Flow, moves: Mapping[str, Asked], family: str = ""
) -> tuple[PlaybackTold, ...]:
    """What playback by some moves would do beside what is wanted of it, each with its way."""
    after = edited(show, flow, moves)
    playing = [c for c in _of_family(after.show, "") if _plays(after.show, c)]
    promised = [
        *(f"Breaks a promise. {one}." for one in newly_broken(show, flow, after.show, after.flow)),
        *_broken(after.show, after.flow, playing),
    ]
    return (
        *(PlaybackTold(tone="loop", says=says) for says in _loops(after.show, after.flow, playing)),
        *(
            PlaybackTold(tone="twice", says=says)
            for says in _twice(after.show, after.flow, playing)
        ),
        *(PlaybackTold(tone="promise", says=says) for says in promised),
        *(PlaybackTold(tone="live", says=says) for says in _taken_inputs(show)),
        *(PlaybackTold(tone="live", says=says) for says in _live(after.show, family)),
    )


def _plays(show: Show, channel: str) -> bool:
    return show.on(f"{channel}/on_spare") and bool(track_of_channel(show, channel))


def _loops(show: Show, flow: Flow, playing: list[str]) -> Iterator[str]:
    """Tracks that are played into what feeds them: while they record, they record themselves."""
    box = recorder_of(show)
    direct: list[int] = []
    for channel in playing:
        track = track_of_channel(show, channel)
        if track > box.outputs:
            continue
        carried = show[f"{track_socket(box, track)}/source"]
        if not isinstance(carried, str):
            continue
        thing = Thing.at(carried).thing
        if thing == channel:
            direct.append(track)
        elif of_kind(thing) not in (*SOURCES, "talkback", "oscillator", "solo") and _arrives(
            flow, channel, thing
        ):
            yield (
                f"Track {track} plays into {strip_name(show, channel)}, which arrives in"
                f" {strip_name(show, thing)}, and that is what track {track} records: a loop while"
                " it records."
            )
    if direct:
        tracks = "Track" if len(direct) == 1 else "Tracks"
        them = "its own channel: it would record itself" if len(direct) == 1 else (
            "their own channels: they would record themselves")  # fmt: skip
        yield f"{tracks} {numbers_text(sorted(direct))} play into {them}. Do not record meanwhile."


def _arrives(flow: Flow, source: str, listener: str) -> bool:
    return flow.state_of(source, listener) == State.HEARD


def _held_by_tracks(
    show: Show, flow: Flow, playing: list[str]
) -> Iterator[tuple[str, int, str, list[str]]]:
    """Of channels that play a track back of something else than themselves: the channel, the track,

    what that carries, and the channels that are in it.
    """
    box = recorder_of(show)
    for channel in playing:
        track = track_of_channel(show, channel)
        carried = show[f"{track_socket(box, track)}/source"] if track <= box.outputs else None
        thing = Thing.at(carried).thing if isinstance(carried, str) else ""
        if not thing or thing == channel or of_kind(thing) in ("talkback", "oscillator", "solo"):
            continue
        # a pair that is on one track has it on both sides
        every = [
            one
            for one in (f"channel/{n}" for n in show.channels())
            if one != channel and not (one in playing and track_of_channel(show, one) == track)
        ]
        if of_kind(thing) in SOURCES:
            yield channel, track, thing, [one for one in every if one == thing]
        else:
            yield channel, track, thing, [one for one in every if _arrives(flow, one, thing)]


def _twice(show: Show, flow: Flow, playing: list[str]) -> Iterator[str]:
    """Sources that are in the house by their own channel and by a track that holds them too."""
    for channel, _, thing, inside in _held_by_tracks(show, flow, playing):
        if not _arrives(flow, channel, "house"):
            continue
        both = [one for one in inside if _arrives(flow, one, "house")]
        if both:
            one = len(both) == 1
            yield (
                f"{_names(show, both)} {'is' if one else 'are'} in the house twice: by"
                f" {'its own channel' if one else 'their own channels'}, and by"
                f" {strip_name(show, channel)}, which plays {strip_name(show, thing)} back."
            )


def _names(show: Show, some: Sequence[str], most: int = 4) -> str:
    names = [strip_name(show, one) for one in some]
    more = f" and {len(names) - most} more" if len(names) > most else ""
    return ", ".join(names[:most]) + more


def _broken(show: Show, flow: Flow, playing: list[str]) -> Iterator[str]:
    """Promises that a track breaks which holds who must not arrive, with the way it takes."""
    for channel, track, thing, inside in _held_by_tracks(show, flow, playing):
        for promise in rulers_in_use(show, "promise"):
            members = members_of(show, promise)
            held = [one for one in inside if one in members]
            through = show[f"{promise}/through"]
            passes = show[f"{promise}/kind"] == "only_through" and isinstance(through, str)
            if not held or (passes and show.on(f"{channel}/{through}/on")):
                continue
            for listener in members:
                if of_kind(listener) in SENDERS or not _is_routed(flow, channel, listener):
                    continue
                yield (
                    f"Breaks a promise: {_names(show, held)} must not arrive in"
                    f" {strip_name(show, listener)} so, and does by track {track}"
                    f" ({strip_name(show, thing)}), which plays into {strip_name(show, channel)}."
                )


def _is_routed(flow: Flow, source: str, listener: str) -> bool:
    return flow.state_of(source, listener) != State.UNROUTED


def _taken_inputs(show: Show) -> Iterator[str]:
    """Raw tracks that cannot come back, since a line is plugged where they would."""
    box = recorder_of(show)
    for wish in wishes(show):
        for track in range(wish.given, wish.given + (2 if wish.stereo else 1)):
            lines = lines_on(show, f"input/{box.key}/{track}") if wish.tap == "input" else []
            if wish.given and lines:
                yield (
                    f"Track {track}, {name_of_source(show, wish.source)}, cannot come back:"
                    f" {box.short} {track} brings {strip_name(show, f'line/{lines[0]}')}."
                )


def _live(show: Show, family: str) -> Iterator[str]:
    """Channels in use that stay as they are."""
    live = [
        channel
        for channel in _of_family(show, family)
        if isinstance(_in_force(show, channel), str)
        and of_kind(str(_in_force(show, channel))) == "input"
        and not _plays(show, channel)
    ]
    if live:
        stay = "stays" if len(live) == 1 else "stay"
        names = _names(show, live, 6)
        yield f"{counted(len(live), 'channel')} without a track {stay} live: {names}."


# ---- what the computer plays, for the engineer alone


def listen_channels(show: Show, text: str, name: str = "Computer") -> dict[str, Asked]:
    """Own values that put two tracks, as typed, on the next free pair of channels that nobody hears

    but who solos it: in no bus, group, mix or mono. Raises UnreadableText, NothingLeft.
    """
    box = recorder_of(show)
    typed = text.strip()
    sockets = read_sockets(show.desk, typed if not typed[:1].isdigit() else f"{box.short} {typed}")
    if len(sockets) != 2:
        raise UnreadableText(text, f"two tracks, such as {box.short} {box.inputs - 1}-{box.inputs}")
    used = set(show.channels())
    odd = next((n for n in range(1, show.desk.channels, 2) if not {n, n + 1} & used), None)
    if odd is None:
        raise NothingLeft("free channels as an odd-even pair", 2, 0)
    pair = (f"channel/{odd}", f"channel/{odd + 1}")
    moves: dict[str, Asked] = dict(renamed(show, dict.fromkeys(pair)))  # as nobody set them
    moves[f"{pair[0]}/linked"] = True
    for turn, (socket, side) in enumerate(zip(sockets, ("L", "R"), strict=True)):
        channel = pair[turn]
        moves |= {
            f"{channel}/source": socket,
            f"{channel}/name": f"{name} {side}",
            f"{channel}/pan": (-1.0, 1.0)[turn],
            f"{channel}/house/on": False,
            f"{channel}/mono/on": False,
            f"{channel}/fader": 0.0,
        }
    return moves
