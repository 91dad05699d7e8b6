"""Who is on: tonight's cast, a late change, a part or a fitting on a channel."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from ..catalogue import MICROPHONES, Address, Thing, check_strip, of_kind
from ..flow import strip_name
from ..scenes import pin_of_cell
from ..show import Show
from ..together import giving_way, held_by_hands, in_pairs
from ..values import Asked, NoSuchFitting, OnOnePair, Travel, Typed, UnreadableText, Value
from .fittings import fitting_index, new_fitting, put_on, take_off
from .names import cast_name, fitting_in, fitting_name, part_name
from .parts import microphones, part_in, part_of_channel, parts, performer_in, tonight

__all__ = [
    "Coming",
    "Tonight",
    "choose_cast",
    "going_on",
    "has_fitting",
    "is_paired",
    "late_change",
    "late_changes",
    "on_in_words",
    "part_on",
    "set_channels",
    "vacant_parts",
    "who_changes",
    "whole_on",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Tonight:
    """What a choice comes to. `moves`: own values; `pinned`: (channel, pin) that keep who is on;

    `vacant`: parts that nobody plays; `left`: channels that cannot take a fitting, with the reason.
    """

    moves: Mapping[str, Asked]
    pinned: tuple[tuple[str, str], ...]
    vacant: tuple[str, ...]
    left: tuple[tuple[str, str], ...]

    def beside_hands(self, show: Show, held: Collection[str]) -> "Tonight":
        """This less what hands hold, which is told as what cannot be."""
        moves, under = giving_way(show, self.moves, held_by_hands(show, held))
        told = tuple((one, "a hand is on it") for one in under)
        return replace(self, moves=moves, left=(*self.left, *told))


def _microphone_of(show: Show, part: str, channel: str) -> int:
    """Which microphone of a part a channel is; the first for a channel that is none of it."""
    return next((one.number for one in microphones(show, part) if one.channel == channel), 1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Coming:
    """Who is wanted on a channel. `part` None: nobody; `plays` None: the part is vacant; `source`:

    what the channel is fed by then, if the same edit changes it ("": it does not).
    """

    channel: str
    part: str | None
    plays: str | None
    source: Value = ""


def going_on(
    show: Show, coming: Iterable[Coming], *, since_s: float
) -> tuple[dict[str, Asked], list[tuple[str, str]]]:
    """Moves that put parts on channels with their performers' fittings, and the channels that

    cannot have theirs, with the reason. A vacant part shows own values. An empty fitting is made
    where they have none, so that what hands move is theirs; one that two want is on the first.
    """
    moves: dict[str, Asked] = {}
    left: list[tuple[str, str]] = []
    given: dict[str, str] = {}
    for one in sorted(coming, key=lambda one: Thing.at(one.channel).number):
        if one.part is None or one.plays is None:
            moves |= take_off(show, one.channel, part=one.part)
            continue
        if is_paired(show, one.channel):
            left.append((one.channel, "it is one side of a linked pair"))
            continue
        number = _microphone_of(show, one.part, one.channel)
        fitting, made = new_fitting(show, one.plays, one.part, number)
        if fitting in given:
            left.append((one.channel, f"that fitting goes on {strip_name(show, given[fitting])}"))
            moves |= take_off(show, one.channel)
            continue
        given[fitting] = one.channel
        if made:
            show = show.with_values(made)
            moves |= made
        moves |= put_on(show, one.channel, fitting, since_s=since_s, source=one.source)
    return moves, left


def _put(
    show: Show, wanted: Mapping[str, str], plays: Mapping[str, str | None], since_s: float
) -> Tonight:
    """Parts on channels with those who play them, as far as pins and pairs let them."""
    pinned = pin_of_cell(show)
    pins = {channel: pin for channel in wanted if (pin := pinned(channel, "part"))}
    coming = [
        Coming(channel=channel, part=part, plays=plays.get(part))
        for channel, part in wanted.items()
        if channel not in pins
    ]
    moves, left = going_on(show, coming, since_s=since_s)
    vacant = tuple(part for part in dict.fromkeys(wanted.values()) if plays.get(part) is None)
    return Tonight(moves=moves, pinned=tuple(pins.items()), vacant=vacant, left=tuple(left))


def is_paired(show: Show, channel: str) -> bool:
    """Whether a channel is one side of a linked pair."""
    sides = in_pairs(channel)
    return sides is not None and show.on(f"{sides[0]}/linked")


def _first_parts(show: Show) -> dict[str, str]:
    """The part that each channel has, or gets: its first, where none is on."""
    found: dict[str, str] = {}
    order = parts(show)
    for part in order:
        for microphone in microphones(show, part):
            on = part_of_channel(show, microphone.channel)
            found.setdefault(microphone.channel, on if on in order else part)
    for channel in (f"channel/{n}" for n in range(1, show.desk.channels + 1)):
        if channel not in found and (on := part_of_channel(show, channel)) in order and on:
            found[channel] = on
    return found


def choose_cast(show: Show, cast: str, *, since_s: float) -> Tonight:
    """Tonight's cast: every part gets whom the cast names, and their fittings go on. Raises

    NoSuchCast.
    """
    cast_name(show, cast)
    moves: dict[str, Asked] = {"tonight/cast": cast}
    plays: dict[str, str | None] = {}
    for part in parts(show):
        who = show.own.get(f"{cast}/{part}")
        plays[part] = who if isinstance(who, str) else None
        moves[f"tonight/{part}"] = plays[part]
    found = _put(show, _first_parts(show), plays, since_s)
    return Tonight(
        moves={**moves, **found.moves},
        pinned=found.pinned,
        vacant=tuple(part for part, who in plays.items() if who is None),
        left=found.left,
    )


def late_change(show: Show, part: str, performer: str | None, *, since_s: float) -> Tonight:
    """Another performer plays a part tonight, or nobody. Raises NoSuchFitting."""
    part_in(show, part)
    if performer is not None:
        performer_in(show, performer)
    wanted = {channel: on for channel, on in _first_parts(show).items() if on == part}
    found = _put(show, wanted, {part: performer}, since_s)
    vacant = () if performer else (part,)
    moves: dict[str, Asked] = {f"tonight/{part}": performer}
    return Tonight(
        moves={**moves, **found.moves}, pinned=found.pinned, vacant=vacant, left=found.left
    )


def set_channels(
    show: Show, part: str, channels: Sequence[str], *, since_s: float
) -> dict[str, Asked]:
    """Moves after which a part comes in on other channels, one for each microphone in order. Where

    it is on a channel that it leaves, it goes to the new one with whoever plays it: what is kept is
    theirs, for the part and microphone, by whatever channel. Raises NoSuchFitting, UnreadableText.
    """
    part_in(show, part)
    strange = [one for one in channels if of_kind(one) != "channel"]
    if strange or len(channels) > MICROPHONES or len(set(channels)) < len(channels):
        expected = f"at most {MICROPHONES} channels such as 3, 7, each once"
        raise UnreadableText(", ".join(strange or channels)[:60], expected)
    moves: dict[str, Asked] = {}
    was = {one.number: one.channel for one in microphones(show, part)}
    for number in range(1, MICROPHONES + 1):
        there = channels[number - 1] if number <= len(channels) else None
        if was.get(number) != there:
            moves[f"{part}/microphone/{number}/channel"] = there
    left = [one for one in was.values() if one not in channels]
    on = [one for one in left if part_of_channel(show, one) == part]
    new = [one for one in channels if one not in was.values()]
    then = show.with_values(moves)  # type: ignore[arg-type]  # references alone
    for channel in on:
        moves |= take_off(show, channel)
    if on or any(part_of_channel(show, one) == part for one in was.values()):
        plays = tonight(show, part)
        free = [
            one for one in new if part_of_channel(show, one) is None or not show.layers.on.get(one)
        ]
        coming = [Coming(channel=one, part=part, plays=plays) for one in free]
        moves |= going_on(then, coming, since_s=since_s)[0]
    return moves


def late_changes(show: Show) -> list[str]:
    """The parts that somebody else plays tonight than in the cast that was chosen."""
    cast = show["tonight/cast"]
    if not isinstance(cast, str):
        return []
    return [part for part in parts(show) if show[f"{cast}/{part}"] != show[f"tonight/{part}"]]


def vacant_parts(show: Show) -> list[str]:
    """The parts that have a channel and that nobody plays tonight."""
    return [part for part in parts(show) if microphones(show, part) and tonight(show, part) is None]


def part_on(show: Show, channel: str, part: str | None, *, since_s: float) -> dict[str, Asked]:
    """A hand's moves that put a part on a channel, with tonight's performer; None: nobody. Raises

    NoSuchFitting, OnOnePair.
    """
    if part is None:
        check_strip(show.desk, channel, "fitting")
        return take_off(show, channel)
    part_in(show, part)
    _check_alone(show, channel)
    coming = Coming(channel=channel, part=part, plays=tonight(show, part))
    return going_on(show, [coming], since_s=since_s)[0]


def whole_on(show: Show, channel: str, fitting: str, *, since_s: float) -> dict[str, Asked]:
    """A hand's moves that put a fitting on a channel, whoever plays tonight. Raises NoSuchFitting,

    OnOnePair.
    """
    _check_alone(show, channel)
    return put_on(show, channel, fitting_in(show, fitting), since_s=since_s)


def _check_alone(show: Show, channel: str) -> None:
    check_strip(show.desk, channel, "fitting")
    if is_paired(show, channel):
        raise OnOnePair(strip_name(show, channel))


def on_in_words(show: Show, channel: str) -> str:
    """Who is on a channel: "Ada as Gull", "Gull, vacant", or "" for nobody."""
    one = show.layers.on.get(channel)
    if one is not None:
        return fitting_name(show, one.fitting)
    part = part_of_channel(show, channel)
    if part is None:
        return ""
    try:
        return f"{part_name(show, part_in(show, part))}, vacant"
    except NoSuchFitting:
        return ""


def who_changes(show: Show, moves: Mapping[str, Asked]) -> list[tuple[str, str, str]]:
    """The channels on which somebody else is after moves of own values: who is on before, and then,

    "" for nobody.
    """
    channels = dict.fromkeys(
        Address.at(address).stem
        for address in moves
        if of_kind(address) == "channel" and Address.at(address).last in ("fitting", "part")
    )
    if not channels:
        return []
    plain = {a: value for a, value in moves.items() if not isinstance(value, Typed | Travel)}
    after = show.with_values(plain)
    told = ((one, on_in_words(show, one), on_in_words(after, one)) for one in channels)
    return [(channel, was, now) for channel, was, now in told if was != now]


def has_fitting(show: Show, part: str, performer: str) -> bool:
    """Whether something is kept of a performer for every microphone of a part."""
    kept = fitting_index(show)
    fittings = [kept.get((performer, part, float(one.number))) for one in microphones(show, part)]
    return all(one is not None and show.number(f"{one}/newest") > 0 for one in fittings)
