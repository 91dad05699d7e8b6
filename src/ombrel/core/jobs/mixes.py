"""Mixes, groups and matrices: made, duplicated, put in order, filled, and given up."""

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ..catalogue import COLOURS, SENDERS, Address, of_kind, parameter_at, strips_of
from ..edit import renamed, said_otherwise
from ..flow import Flow, strip_name
from ..patching import free_outputs, is_stereo, outputs_of, patch_bus
from ..show import Show
from ..values import (
    Asked,
    NothingLeft,
    Number,
    Typed,
    UnknownAddress,
    UnreadableText,
    WrongValue,
    plain,
)
from ..wires import layout_of

__all__ = [
    "NEW_MIX",
    "NewMix",
    "duplicate_bus",
    "fill_mix",
    "make_buses",
    "make_effect",
    "make_mixes",
    "move_bus",
    "order_of_buses",
    "remove_bus",
]


@dataclass(frozen=True, slots=True)
class NewMix:
    """What a mix is made as unless told otherwise: for ears, with the sends that it begins with at

    `level_db`, tapped so that a muted microphone is silent in the ears too.
    """

    serves: str = "ears"
    level_db: float = -12.0
    tap: str = "before_fader_after_mute"


NEW_MIX: Final = NewMix()
# What a mix is used for by a word of its name.
_BY_NAME: Final = {
    **dict.fromkeys(("wedge", "wedges", "foldback", "floor"), "wedge"),
    **dict.fromkeys(("sidefill", "sidefills", "drumfill", "cuebox"), "wedge"),
    **dict.fromkeys(("stream", "recording", "broadcast", "press", "relay", "feed"), "feed"),
}


def used_for(name: str) -> str:
    """What a new mix is used for by its name: ears, unless a word of it says otherwise.

    >>> used_for("Wedge quay"), used_for("Side fill L"), used_for("Ears bass"), used_for("Stream")
    ('wedge', 'wedge', 'ears', 'feed')
    """
    words = plain(name).split()
    joined = [f"{one}{other}" for one, other in pairwise(words)]
    return next((_BY_NAME[one] for one in (*words, *joined) if one in _BY_NAME), NEW_MIX.serves)


def make_mixes(
    show: Show,
    names: Sequence[str],
    *,
    stereo: bool,
    serves: str = "",
    channels: Sequence[int] = (),
    level_db: float = -math.inf,
    patch: bool = True,
    tap: str = NEW_MIX.tap,
) -> dict[str, Asked]:
    """Moves that make one mix for each name, all in one edit.

    Each takes the next mix not in use, a colour, sends of `channels` at `level_db`, all its sends
    tapped at `tap` (an effect's after the fader, so that they follow it), and with `patch` the
    next free outputs: a pair when stereo. An effect needs none. Without `serves` the name tells:
    "Wedge quay" is a wedge, and mono.
    Raises NothingLeft for mixes or outputs, UnreadableText when no name is given.
    """
    if not names or not all(name.strip() for name in names):
        raise UnreadableText(", ".join(names), "at least one name, and none of them empty")
    used = set(show.mixes())
    uses = [serves or used_for(name) for name in names]
    wide = [stereo and (bool(serves) or use != "wedge") for use in uses]
    patch = patch and serves != "effect"
    free = [number for number in range(1, show.desk.mixes + 1) if number not in used]
    if len(free) < len(names):
        raise NothingLeft("mixes", len(names), len(free))
    two = free_outputs(show, 2 * wide.count(True), pairs=True) if patch else []
    one = free_outputs(show, wide.count(False), but=two) if patch else []
    pairs, singles = iter(two), iter(one)
    moves: dict[str, Asked] = {}
    for turn, (name, number) in enumerate(zip(names, free, strict=False)):
        mix = f"mix/{number}"
        moves[f"{mix}/name"] = Typed(name)
        moves[f"{mix}/format"] = "stereo" if wide[turn] else "mono"
        moves[f"{mix}/serves"] = uses[turn]
        moves[f"{mix}/colour"] = COLOURS[1 + (len(used) + turn) % (len(COLOURS) - 1)]
        moves.update(_taps(show, mix, "after_fader" if uses[turn] == "effect" else tap))
        if level_db > -math.inf:
            for channel in channels:
                moves[f"channel/{channel}/send/{mix}/level"] = level_db
                # a stereo pair stays as wide in the mix as it stands in the house
                moves[f"channel/{channel}/send/{mix}/pan"] = show[f"channel/{channel}/pan"]
        if patch and wide[turn]:
            moves[f"{next(pairs)}/source"] = f"{mix}/left"
            moves[f"{next(pairs)}/source"] = f"{mix}/right"
        elif patch:
            moves[f"{next(singles)}/source"] = mix
    return moves


def _taps(show: Show, mix: str, tap: str) -> dict[str, Asked]:
    return {f"{strip}/send/{mix}/tap": tap for strip in strips_of(show.desk, *SENDERS)}


def make_effect(
    show: Show, name: str, *, engine: int = 0, stereo: bool = True, fader_db: float = 0.0
) -> dict[str, Asked]:
    """Moves that make a shared effect: a mix that serves it, its engine, and its return.

    Sends go behind the fader; the return takes the next one free, goes to the house at `fader_db`
    and is named after the effect. `engine`: 0 takes the next free one. Raises NothingLeft,
    UnreadableText.
    """
    engines = range(1, show.desk.effect_engines + 1)
    free = [number for number in engines if show[f"engine/{number}/source"] is None]
    if engine == 0 and not free:
        raise NothingLeft("effect engines", 1, 0)
    engine = engine or free[0]
    moves = make_mixes(show, [name], stereo=stereo, serves="effect", patch=False)
    mix = Address.at(next(iter(moves))).thing
    for number in range(1, show.desk.returns + 1):
        back = f"return/{number}"
        if show[f"{back}/source"] is None and not show.text(f"{back}/name"):
            break
    else:
        raise NothingLeft("returns", 1, 0)
    moves |= {
        f"engine/{engine}/name": Typed(name),
        f"engine/{engine}/source": mix,
        f"{back}/source": f"engine/{engine}",
        f"{back}/name": Typed(name),
        f"{back}/colour": moves[f"{mix}/colour"],
        f"{back}/fader": fader_db,
        f"{back}/solo_proof": True,  # what is soloed is heard with its effect
    }
    return moves


def make_buses(
    show: Show, kind: str, names: Sequence[str], *, stereo: bool, patch: bool = False
) -> dict[str, Asked]:
    """Moves that make a group or matrix for each name: the next not in use, coloured, and with

    `patch` on the next free outputs. Raises NothingLeft, UnreadableText; WrongValue for another
    kind ("mix" goes by `make_mixes`).
    """
    if kind not in ("group", "matrix"):
        raise WrongValue("kind", "group or matrix", kind)
    if not names or not all(name.strip() for name in names):
        raise UnreadableText(", ".join(names), "at least one name, and none of them empty")
    used = show.in_use(kind)
    free = [f"{kind}/{n}" for n in range(1, show.desk.count(kind) + 1) if f"{kind}/{n}" not in used]
    if len(free) < len(names):
        plural = "matrices" if kind == "matrix" else "groups"
        raise NothingLeft(plural, len(names), len(free))
    moves: dict[str, Asked] = {}
    for turn, (name, bus) in enumerate(zip(names, free, strict=False)):
        moves[f"{bus}/name"] = Typed(name)
        moves[f"{bus}/format"] = "stereo" if stereo else "mono"
        moves[f"{bus}/colour"] = COLOURS[1 + (len(used) + turn) % (len(COLOURS) - 1)]
        if patch:
            patched = patch_bus(show, bus, stereo=stereo)
            show = show.with_values({address: str(side) for address, side in patched.items()})
            moves.update(patched)
    return moves


def _kind(show: Show, bus: str, *kinds: str) -> str:
    """The kind of a bus, refused unless it is one of `kinds` and on this desk."""
    layout_of(show.desk).column(bus)
    kind = of_kind(bus)
    if kind not in kinds:
        raise UnknownAddress(bus, f"expected one of {', '.join(kinds)}")
    return kind


def remove_bus(show: Show, bus: str) -> dict[str, Asked]:
    """Moves that give up a mix, group or matrix, in own values: all about it back to its default,

    its outputs free, and what names it (a channel or engine that it feeds, a key, a place on a
    bank, a promise, scenes) without it. Raises UnknownAddress.
    """
    _kind(show, bus, "group", "mix", "matrix")
    return dict(renamed(show, {bus: None}))


def duplicate_bus(show: Show, bus: str, *, patch: bool = True) -> dict[str, Asked]:
    """Moves that copy a mix, group or matrix, with all that feeds it and that it feeds, in own

    values, into the next not in use; its outputs and effect engine stay its own, and with `patch`
    the copy takes the next free outputs where the original has some. Raises NothingLeft,
    UnknownAddress.
    """
    kind = _kind(show, bus, "group", "mix", "matrix")
    used = show.in_use(kind)
    free = [n for n in range(1, show.desk.count(kind) + 1) if f"{kind}/{n}" not in used]
    if not free:
        raise NothingLeft("mixes" if kind == "mix" else f"{kind}s", 1, 0)
    new = f"{kind}/{free[0]}"
    said = said_otherwise({bus: new})
    moves: dict[str, Asked] = dict(renamed(show, {new: None}))  # no scene knows the copy
    moves |= {
        there: value
        for address, value in show.own.items()
        if not Address.at(address).in_scene and Address.at(address).last != "linked"
        if (there := said(address)) is not None and there != address
    }
    moves[f"{new}/name"] = f"{strip_name(show, bus)[:54]} copy"
    if patch and outputs_of(show, bus):
        moves.update(_patched_as(show, new, stereo=is_stereo(show, bus)))
    return moves


def _patched_as(show: Show, bus: str, *, stereo: bool) -> Mapping[str, Asked]:
    try:
        return patch_bus(show, bus, stereo=stereo)
    except NothingLeft:
        return {}  # the copy is worth having all the same; Findings tells that it goes nowhere


def move_bus(show: Show, bus: str, before: str | None) -> dict[str, Asked]:
    """Own values that put buses where `order_of_buses` says, each with all about it. Raises

    UnknownAddress.
    """
    return dict(renamed(show, order_of_buses(show, bus, before)))


def order_of_buses(show: Show, bus: str, before: str | None) -> dict[str, str]:
    """New names by old ones that put a mix, group or matrix ahead of another of its kind (None:

    behind all in use). Those between move up or down by one. Raises UnknownAddress.
    """
    kind = _kind(show, bus, "group", "mix", "matrix")
    used = show.in_use(kind)
    if bus not in used:
        raise UnknownAddress(bus, f"no {kind} in use has this number")
    rest = [one for one in used if one != bus]
    place = rest.index(before) if before in rest else len(rest)
    order = [*rest[:place], bus, *rest[place:]]
    return {one: there for one, there in zip(order, used, strict=True) if one != there}


def fill_mix(
    show: Show,
    flow: Flow,
    mix: str,
    source: str,
    *,
    offset_db: float = 0.0,
    but: Collection[str] = (),
) -> dict[str, Asked]:
    """Moves that fill a mix from the house's true levels or from another mix, each send replaced,

    `but` of strips that are left as they are (the return of a room that all ears have alike).

    From the "house": every source's level as it stands at the house's input, with its pan, off
    where it is not heard there. From a mix: its sends, switches, taps and pans. `offset_db` is
    added to every level that is not off, and ends where the fader ends. Raises UnknownAddress.
    """
    _kind(show, mix, "mix")
    _kind(show, source, "mix", "house")
    moves: dict[str, Asked] = {}
    kind = parameter_at("channel/1/send/mix/1/level").kind
    assert isinstance(kind, Number)  # a send's level is one, by the catalogue
    layout = flow.layout
    house = layout.column("house")
    for row in range(layout.rows):
        strip = layout.strips[row]
        if strip in but:
            continue
        to = f"{strip}/send/{mix}"
        if source == "house":
            level_db = flow.at_input_db(row, house)
            moves[f"{to}/pan"] = show[f"{strip}/pan"]
            moves[f"{to}/on"] = True
        else:
            level_db = show.number(f"{strip}/send/{source}/level")
            for leaf in ("on", "tap", "pan"):
                moves[f"{to}/{leaf}"] = show[f"{strip}/send/{source}/{leaf}"]
        if level_db > -math.inf:
            level_db = round(min(max(level_db + offset_db, kind.lowest_finite), kind.highest), 6)
        moves[f"{to}/level"] = level_db
    return moves
