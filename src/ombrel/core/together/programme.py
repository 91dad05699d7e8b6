"""What the house has, and the mixes that are promised all of it but some strips.

Such a promise ("all but") is kept by the show itself: a channel that comes into the house, by an
import, by patch or by hand, is sent to those mixes in the same edit.
"""

import math
from collections.abc import Mapping, Sequence

from ..catalogue import Address, Thing, bearing, of_kind
from ..show import Show, is_of_bus
from ..values import Asked, Travel, Typed, Value
from .into_house import in_house
from .nets import netted
from .openings import unbegun
from .rulers import members_of, rulers_in_use

__all__ = [
    "coming",
    "in_programme",
    "is_fed_by_a_bus",
    "joining",
    "leaving_as_it_is",
    "not_joining",
    "programme",
    "sent",
]


def in_programme(show: Show, channel: str) -> bool:
    """Whether a channel has a source and the house has it: by itself or through groups."""
    if show.source_of(Thing.at(channel).number) is None:
        return False
    return in_house(show, channel)


def is_fed_by_a_bus(show: Show, channel: str) -> bool:
    """Whether what feeds a channel now is a side of a bus."""
    return is_of_bus(show.source_of(Thing.at(channel).number) or "")


def programme(show: Show) -> list[str]:
    """The channels that the house has, in order."""
    every = (f"channel/{n}" for n in range(1, show.desk.channels + 1))
    return [one for one in every if in_programme(show, one)]


def sent(show: Show, strips: Sequence[str], mix: str) -> dict[str, Asked]:
    """Moves that give strips to a mix as the house has them: at 0 dB behind the fader."""
    moves: dict[str, Asked] = {}
    for strip in strips:
        send = f"{strip}/send/{mix}"
        moves |= {f"{send}/level": 0.0, f"{send}/on": True, f"{send}/tap": "after_fader"}
        moves[f"{send}/pan"] = show[f"{strip}/pan"]
    return moves


def promised(show: Show) -> list[tuple[list[str], list[str]]]:
    """Of each promise of all but some strips: these strips, and the mixes that have the rest."""
    found = []
    for promise in rulers_in_use(show, "promise"):
        if show[f"{promise}/kind"] == "all_but":
            members = members_of(show, promise)
            mixes = [one for one in members if of_kind(one) == "mix"]
            found.append(([one for one in members if one not in mixes], mixes))
    return found


def leaving_as_it_is(show: Show, moves: Mapping[str, Asked]) -> dict[str, Asked]:
    """Moves that bring a show back, without what would join by them: that it has, or had not."""
    values: dict[str, Value] = {a: v for a, v in moves.items() if not isinstance(v, Typed | Travel)}
    return {**moves, **not_joining(show, values)}


def not_joining(show: Show, values: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit of plain values would make join by itself, or begin, as it stands now."""
    joins = {**netted(show, values), **coming(show, values)}
    return {a: show[a] for a in joins} | unbegun(show, values)


def joining(show: Show, moves: Mapping[str, Asked]) -> str:
    """The mixes that channels join by an edit since that was promised, in words; "" for none."""
    plain = {a: value for a, value in moves.items() if not isinstance(value, Travel | Typed)}
    mixes = dict.fromkeys(Address.at(address).target for address in coming(show, plain))
    names = (show.text(f"{mix}/name") or mix.replace("/", " ").capitalize() for mix in mixes)
    return ", ".join(names)


def coming(show: Show, values: Mapping[str, Value]) -> dict[str, Value]:
    """What an edit means for such mixes: the channels that it brings into the house join them.

    What a bus feeds does not: it may carry what the mix must not have, or that mix itself.
    `values`: what the edit puts where, which goes before.
    """
    changed = {at.thing for at in bearing("house", values)}
    if any(of_kind(one) == "group" for one in changed):  # whoever goes through it comes with it
        changed |= {f"channel/{n}" for n in show.channels()}
    kinds = (f"promise/{n}/kind" for n in range(1, show.desk.count("promise") + 1))
    if not changed or not any(show.values.get(kind) == "all_but" for kind in kinds):
        return {}
    after = show.with_values(values)
    came = [
        one
        for one in sorted(changed)
        if of_kind(one) == "channel"
        and in_programme(after, one)
        and not in_programme(show, one)
        and not is_fed_by_a_bus(after, one)
    ]
    found: dict[str, Value] = {}
    for exceptions, mixes in promised(after) if came else ():
        for mix in mixes:
            strips = [
                one
                for one in came
                if one not in exceptions and after.number(f"{one}/send/{mix}/level") == -math.inf
            ]
            found |= {a: v for a, v in sent(after, strips, mix).items() if a not in values}  # type: ignore[misc]
    return found
