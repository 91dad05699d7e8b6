"""Parts, performers and casts: who plays what, where it comes in, and who is on tonight."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..catalogue import (
    CASTS,
    MICROPHONES,
    PARTS,
    PERFORMERS,
    PLAYERS,
    Address,
    below,
    default_of,
    of_kind,
)
from ..show import Show
from ..values import Asked, NoSuchFitting, NothingLeft, Typed, UnreadableText, read_names
from .names import cast_name

__all__ = [
    "Microphone",
    "add_cast",
    "add_part",
    "add_performer",
    "casts",
    "microphones",
    "move_part",
    "part_in",
    "part_of_channel",
    "part_with_players",
    "parts",
    "performer_in",
    "performer_named",
    "performers",
    "players",
    "remove_cast",
    "remove_part",
    "set_players",
    "tonight",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Microphone:
    """A microphone of a part, by its number (from 1), with the channel that it comes in on."""

    part: str
    number: int
    channel: str


def parts(show: Show) -> list[str]:
    """The parts in their order, as `part/<n>`."""
    found = [
        (show.number(f"part/{n}/place"), n)
        for n in range(1, PARTS + 1)
        if f"part/{n}/place" in show.own
    ]
    return [f"part/{n}" for _, n in sorted(found)]


def performers(show: Show) -> list[str]:
    """The performers by their names, as `performer/<n>`."""
    found = [
        (show.text(f"performer/{n}/name").casefold(), n)
        for n in range(1, PERFORMERS + 1)
        if f"performer/{n}/name" in show.own
    ]
    return [f"performer/{n}" for _, n in sorted(found)]


def casts(show: Show) -> list[str]:
    """The casts in the order in which they were made, as `cast/<n>`."""
    return [f"cast/{n}" for n in range(1, CASTS + 1) if f"cast/{n}/name" in show.own]


def part_in(show: Show, part: str) -> str:
    """The part, if the show has it. Raises NoSuchFitting."""
    if f"{part}/place" not in show.own:
        raise NoSuchFitting(part.replace("/", " "))
    return part


def performer_in(show: Show, performer: str) -> str:
    """The performer, if the show has them. Raises NoSuchFitting."""
    if f"{performer}/name" not in show.own:
        raise NoSuchFitting(performer.replace("/", " "))
    return performer


def microphones(show: Show, part: str) -> list[Microphone]:
    """The microphones of a part that come in on a channel, by their numbers."""
    found = []
    for number in range(1, MICROPHONES + 1):
        channel = show.own.get(f"{part}/microphone/{number}/channel")
        if isinstance(channel, str):
            found.append(Microphone(part=part, number=number, channel=channel))
    return found


def players(show: Show, part: str) -> list[str]:
    """The performers of a part, understudies last."""
    found = (show.own.get(f"{part}/player/{n}/performer") for n in range(1, PLAYERS + 1))
    return [one for one in found if isinstance(one, str)]


def tonight(show: Show, part: str) -> str | None:
    """Who plays a part tonight; None: it is vacant."""
    found = show.own.get(f"tonight/{part}")
    return found if isinstance(found, str) else None


def part_of_channel(show: Show, channel: str) -> str | None:
    """Which part is on a channel."""
    found = show.own.get(f"{channel}/part")
    return found if isinstance(found, str) else None


def _free(kind: str, taken: Iterable[str], most: int) -> str:
    held = set(taken)
    for number in range(1, most + 1):
        if f"{kind}/{number}" not in held:
            return f"{kind}/{number}"
    raise NothingLeft(f"{kind}s", 1, 0)


def performer_named(show: Show, name: str) -> str | None:
    """The performer of a name, however it is written in capitals; None: there is none."""
    plain = " ".join(name.split()).casefold()
    for performer in performers(show):
        if show.text(f"{performer}/name").casefold() == plain:
            return performer
    return None


def add_performer(show: Show, name: str) -> tuple[str, dict[str, Asked]]:
    """A performer by name, and the moves that make one where there is none. Raises NothingLeft,

    UnreadableText for no name.
    """
    if not name.strip():
        raise UnreadableText(name, "a performer's name")
    known = performer_named(show, name)
    if known is not None:
        return known, {}
    new = _free("performer", performers(show), PERFORMERS)
    return new, {f"{new}/name": Typed(name), f"{new}/arrived_s": 0.0}


def add_part(show: Show, name: str, channels: Sequence[str] = ()) -> tuple[str, dict[str, Asked]]:
    """A new part at the end of the list, with a microphone for each channel. Raises NothingLeft,

    UnreadableText for no name or more channels than a part has microphones.
    """
    if not name.strip():
        raise UnreadableText(name, "a part's name")
    if len(channels) > MICROPHONES:
        raise UnreadableText(", ".join(channels)[:60], f"at most {MICROPHONES} channels")
    order = parts(show)
    # a part that is gone may still be named by its fittings, which are no other part's
    named = {str(part) for a, part in show.own.items() if Address.at(a).is_at("fitting", "part")}
    new = _free("part", {*order, *named}, PARTS)
    last = max((show.number(f"{one}/place") for one in order), default=0.0)
    moves: dict[str, Asked] = {f"{new}/place": last + 1.0, f"{new}/name": Typed(name)}
    for number, channel in enumerate(channels, start=1):
        moves[f"{new}/microphone/{number}/channel"] = channel
    return new, moves


def remove_part(show: Show, part: str) -> dict[str, Asked]:
    """Moves that take a part off the list, and what names it with it. Its fittings stay, and say

    so in the findings. Raises NoSuchFitting.
    """
    part_in(show, part)
    moves: dict[str, Asked] = {}
    for address, value in show.own.items():
        at = Address.at(address)
        if part in (at.thing, at.target):
            moves[address] = _plain(address)
        elif value == part and at.kind == "channel":
            moves[address] = None
            moves[at.beside("fitting")] = None
    return moves


def _plain(address: str) -> Asked:
    """What stands there when nobody set it, of a part or what names it."""
    return default_of(address)


def set_players(show: Show, part: str, names: str) -> dict[str, Asked]:
    """Moves that say who plays a part, as typed by names ('Ada, "Bo, junior"'), understudies last,

    each once; those who are new come into the show. Raises NoSuchFitting, NothingLeft,
    UnreadableText.
    """
    part_in(show, part)
    wanted = read_names(names, most=PLAYERS)
    moves: dict[str, Asked] = {}
    now = show
    for number in range(1, PLAYERS + 1):
        performer = None
        if number <= len(wanted):
            performer, new = add_performer(now, wanted[number - 1])
            moves |= new
            now = now.with_values(
                {a: wanted[number - 1] for a in new if Address.at(a).last == "name"}
            )
        moves[f"{part}/player/{number}/performer"] = performer
    return moves


def part_with_players(
    show: Show, name: str, channels: Sequence[str], names: str
) -> dict[str, Asked]:
    """Moves that make a part on channels and say who plays it. Raises what `add_part` and

    `set_players` raise, and UnreadableText for strips that are no channels.
    """
    strange = [one for one in channels if of_kind(one) != "channel"]
    if strange:
        raise UnreadableText(strange[0], "channels such as 1, 3-4")
    part, moves = add_part(show, name, channels)
    there = show.with_values({f"{part}/place": 1.0})
    return moves | set_players(there, part, names)


def move_part(show: Show, part: str, before: str | None) -> dict[str, Asked]:
    """Moves that put a part ahead of another in the list (None: last). Raises NoSuchFitting."""
    part_in(show, part)
    rest = [one for one in parts(show) if one != part]
    at = rest.index(part_in(show, before)) if before in rest else len(rest)
    order = [*rest[:at], part, *rest[at:]]
    return {f"{one}/place": float(place) for place, one in enumerate(order, start=1)}


def add_cast(show: Show, name: str, like: str | None = None) -> tuple[str, dict[str, Asked]]:
    """A new cast, as another or of the first performer of each part. Raises NothingLeft,

    NoSuchCast, UnreadableText for no name.
    """
    if not name.strip():
        raise UnreadableText(name, "a cast's name")
    new = _free("cast", casts(show), CASTS)
    moves: dict[str, Asked] = {f"{new}/name": Typed(name)}
    if like is not None:
        cast_name(show, like)
    for part in parts(show):
        if like is not None:
            moves[f"{new}/{part}"] = show[f"{like}/{part}"]
        else:
            moves[f"{new}/{part}"] = next(iter(players(show, part)), None)
    return new, moves


def remove_cast(show: Show, cast: str) -> dict[str, Asked]:
    """Moves that take a cast off the list; who is on tonight stays on. Raises NoSuchCast."""
    cast_name(show, cast)
    moves: dict[str, Asked] = {address: default_of(address) for address in below(cast, show.own)}
    moves |= {a: False for a in show.own if of_kind(a) == "scene" and Address.at(a).target == cast}
    if show["tonight/cast"] == cast:
        moves["tonight/cast"] = None
    return moves
