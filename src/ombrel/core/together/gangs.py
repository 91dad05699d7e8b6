"""Gangs and linked pairs: which strips move together, and in what.

A gang carries aspects ("fader", "sends") of its members. A pair is an odd channel or mix and the
even above it, linked: one member of every gang, DCA and mute group. What the two hold in common is
told by the catalogue (`Parameter.tie`).
"""

import math
from collections.abc import Iterable, Iterator, Mapping
from functools import lru_cache
from typing import Final

from ..catalogue import (
    PAIRED,
    Address,
    Desk,
    Thing,
    addresses_of,
    default_of,
    is_on_desk,
    of_kind,
    parameter_at,
    thing_of,
)
from ..show import Show, read_numbers
from ..values import NothingLeft, UnreadableText, Value
from ..wires import layout_of

__all__ = [
    "PAIRED",
    "active_gangs",
    "carried_by",
    "in_pairs",
    "is_common",
    "is_dca_of",
    "kept_at",
    "leaf_of",
    "linking",
    "mates_of",
    "member_for",
    "pairs_in_use",
    "parted",
    "partner_of",
    "stereo_pairs",
    "strips_behind",
    "tied",
]

_FEW: Final = 40
_PLACES: Final = ("pan",)  # that a spread pair moves: no kept place, and no start


# ---- pairs


def in_pairs(strip: str) -> tuple[str, str] | None:
    """The pair that a strip would be a side of, the odd first; None for what has no pairs."""
    kind, number = of_kind(strip), Thing.at(strip).number
    if kind not in PAIRED:
        return None
    odd = number - (number + 1) % 2
    return f"{kind}/{odd}", f"{kind}/{odd + 1}"


def partner_of(show: Show, strip: str) -> str | None:
    """The other side of a strip's pair, while the two are linked."""
    sides = in_pairs(strip)
    if sides is None or not show.on(f"{sides[0]}/linked"):
        return None
    return sides[1] if strip == sides[0] else sides[0]


def member_for(show: Show, strip: str) -> str:
    """What stands for a strip where a pair is one member: the odd side, or the strip itself."""
    sides = in_pairs(strip)
    return sides[0] if sides and show.on(f"{sides[0]}/linked") else strip


def pairs_in_use(show: Show) -> list[str]:
    """The odd sides of all linked pairs, channels first, ascending."""
    return [
        f"{kind}/{number}"
        for kind in PAIRED
        for number in range(1, show.desk.count(kind) + 1, 2)
        if f"{kind}/{number}/linked" in show.values
    ]


@lru_cache(maxsize=32)
def _tied_leaves(desk: Desk, kind: str) -> tuple[tuple[str, bool], ...]:
    """What the sides of a pair hold in common, below the strip; and whether it is mirrored."""
    stem = f"{kind}/1/"
    found = ((a, parameter_at(a).tie) for a in addresses_of(desk, kind) if a.startswith(stem))
    return tuple((a.removeprefix(stem), t == "mirrored") for a, t in found if is_common(t))


def is_common(tie: str) -> bool:
    """Whether the sides of a linked pair hold a value in common, by the catalogue's tie."""
    return tie in ("equal", "mirrored")


def _over(value: Value, *, mirrored: bool) -> Value:
    """A side's value as its partner has it; a mirrored place that is not kept stays so."""
    if mirrored and isinstance(value, float) and value > -math.inf:
        return 0.0 - value
    return value


def tied(show: Show, asked: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit means for the other sides of linked pairs: the side that it names gives; where

    it names both or links them, the odd. `asked` counts before what stands in `show`.
    """
    found: dict[str, Value] = {}
    many = len(asked) > _FEW  # then it is quicker to know beforehand that no pair is linked
    if many and not any(Address.at(a).last == "linked" for a in asked) and not pairs_in_use(show):
        return found

    def linked(odd: str) -> bool:
        return (asked.get(f"{odd}/linked", show[f"{odd}/linked"])) is True

    for address, value in asked.items():
        tie = parameter_at(address).tie
        sides = in_pairs(thing_of(address)) if is_common(tie) else None
        if sides is None or not linked(sides[0]):
            continue
        leaf = leaf_of(address)
        odd, even = (f"{side}/{leaf}" for side in sides)
        if address == odd:
            found[even] = _over(value, mirrored=tie == "mirrored")
        elif odd not in asked:
            found[odd] = _over(value, mirrored=tie == "mirrored")
    for address, value in asked.items():
        if Address.at(address).last != "linked" or value is not True or show.on(address):
            continue
        sides = in_pairs(thing_of(address))
        assert sides is not None  # only channels and mixes have this address
        for leaf, mirrored in _tied_leaves(show.desk, of_kind(sides[0])):
            odd, even = (f"{side}/{leaf}" for side in sides)
            if odd not in asked and even not in asked:
                value = _over(show[odd], mirrored=mirrored)
                if value != show[even]:
                    found[even] = value
    return found


def parted(show: Show, strips: Iterable[str]) -> dict[str, Value]:
    """Moves that part the pairs of which some strips are a side."""
    odds = (sides[0] for strip in strips if (sides := in_pairs(strip)))
    return {f"{odd}/linked": False for odd in odds if show.on(f"{odd}/linked")}


def stereo_pairs(show: Show) -> list[int]:
    """Odd channels fed by the left side of a stereo line whose right feeds the even above."""
    found = []
    for line in show.lines():
        left, right = (show[f"line/{line}/{side}"] for side in ("socket", "socket_right"))
        for channel in show.fed_by.get(str(left), ()) if show.on(f"line/{line}/stereo") else ():
            if channel % 2 and channel + 1 in show.fed_by.get(str(right), ()):
                found.append(channel)
    return sorted(set(found))


def linking(show: Show, text: str, *, kind: str, on: bool, spread: bool) -> dict[str, Value]:
    """Moves that link or part pairs of channels or mixes, typed by either side ("13-16, 21").

    No text: the channels of all stereo lines. `spread`: what stands in the centre of both goes
    fully left and right. Raises UnreadableText, NothingLeft where no stereo line lies on a pair.
    """
    if kind not in PAIRED:
        raise UnreadableText(kind, '"channel" or "mix"')
    if text.strip():
        numbers = read_numbers(text, highest=show.desk.count(kind) // 2 * 2)
    elif kind == "channel" and (numbers := stereo_pairs(show)):
        pass
    else:
        raise NothingLeft("stereo lines on an odd channel and the even above", 1, 0)
    odds = sorted({number - (number + 1) % 2 for number in numbers})
    moves: dict[str, Value] = {}
    for odd in odds:
        moves[f"{kind}/{odd}/linked"] = on
        if not (on and spread):
            continue
        for leaf, mirrored in _tied_leaves(show.desk, kind):
            centred = not any(f"{kind}/{side}/{leaf}" in show.values for side in (odd, odd + 1))
            if mirrored and centred and Address.at(f"{kind}/{odd}/{leaf}").last in _PLACES:
                moves[f"{kind}/{odd}/{leaf}"] = -1.0
    return moves


# ---- gangs


def leaf_of(address: str) -> str:
    """An address below its strip: "send/mix/5/level"."""
    return Address.at(address).leaf


def strips_behind(show: Show, address: str) -> list[str]:
    """The strips whose value an address is: a preamp's gain is of every channel that it feeds."""
    if of_kind(address) == "input":
        return [f"channel/{n}" for n in show.fed_by.get(Address.at(address).stem, ())]
    return [thing_of(address)]


def _at(show: Show, strip: str, leaf: str) -> str | None:
    """The same address behind another strip, where it has one."""
    if leaf == "gain":
        source = show.source_of(Thing.at(strip).number) if of_kind(strip) == "channel" else None
        address = f"{source}/gain"
    else:
        address = f"{strip}/{leaf}"
    return address if is_on_desk(show.desk, address) else None


def active_gangs(show: Show, aspect: str) -> list[str]:
    """The gangs that carry an aspect and are not suspended."""
    values = show.values  # asked of every gang with every move of a hand: past what falls back
    return [
        gang
        for gang, carries, suspended in _gangs(show.desk.count("gang"), aspect)
        if values.get(carries, default_of(carries)) is True and values.get(suspended) is not True
    ]


@lru_cache(maxsize=256)
def _gangs(count: int, aspect: str) -> tuple[tuple[str, str, str], ...]:
    """The gangs of a desk, where it says whether they carry an aspect, and that they are suspended:

    asked for with every move of a hand.
    """
    return tuple(
        (f"gang/{n}", f"gang/{n}/carries_{aspect}", f"gang/{n}/suspended")
        for n in range(1, count + 1)
    )


def carried_by(show: Show, strip: str, aspect: str) -> Iterator[str]:
    """The active gangs that carry an aspect of a strip."""
    return (gang for gang in active_gangs(show, aspect) if f"{strip}/{gang}/on" in show.values)


def is_dca_of(address: str, passing: Iterable[str]) -> bool:
    """Whether an address is the fader or key of a DCA that is taken together with others: it is no

    gang's member, and goes along by the same dB for this gesture.
    """
    at = Address.at(address)
    return at.is_at("dca", "fader", "mute") and at.thing in passing


def mates_of(show: Show, address: str, passing: Iterable[str] = ()) -> dict[str, bool]:
    """Every address that moves with this one, reached gang after gang, each once; and whether a

    gang of the show carries it, rather than `passing` alone (strips taken together for once). A
    pair is named by its odd side, save in what its sides hold by distance.
    """
    parameter = parameter_at(address)
    passing = tuple(passing)
    of_dca = is_dca_of(address, passing)
    if not parameter.gang and not of_dca:
        return {}
    aspect = leaf_of(address) if of_dca else parameter.gang
    leaf = "gain" if aspect == "gain" else leaf_of(address)
    apart = parameter.tie == "ganged"

    def member(strip: str) -> str:
        return strip if apart else member_for(show, strip)

    taken = dict.fromkeys(member(strip) for strip in passing)
    waiting = [member(strip) for strip in strips_behind(show, address)]
    seen = dict.fromkeys(waiting)
    every = layout_of(show.desk).strips
    unwalked = active_gangs(show, aspect)
    held: set[str] = set()
    for strip in waiting:  # grows as it is walked
        beside = list(taken) if strip in taken else []
        for gang in [one for one in unwalked if f"{strip}/{one}/on" in show.values]:
            unwalked.remove(gang)
            members = [member(s) for s in every if f"{s}/{gang}/on" in show.values]
            held.update(members)
            beside += members
        partner = partner_of(show, strip) if apart else None
        if partner:
            beside.append(partner)
        new = [one for one in dict.fromkeys(beside) if one not in seen]
        seen.update(dict.fromkeys(new))
        waiting += new
    found: dict[str, bool] = {}
    for strip in seen:
        mate = _at(show, strip, leaf)
        if mate is not None and mate != address:
            paired = apart and partner_of(show, strip) is not None
            found[mate] = found.get(mate, False) or strip in held or paired
    return found


def kept_at(show: Show, address: str) -> bool:
    """Whether some active gang carries an address, so that it may keep a place."""
    parameter = parameter_at(address)
    apart = parameter.tie == "ganged"
    return any(
        next(carried_by(show, strip, parameter.gang), None) is not None
        or (apart and partner_of(show, strip) is not None)
        for strip in strips_behind(show, address)
    )
