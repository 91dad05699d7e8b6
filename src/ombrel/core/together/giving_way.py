"""What a hand holds stays with the hand: a recall, a cast, a cue leave it out, and say so."""

from collections.abc import Collection, Iterable, Mapping

from ..catalogue import Address, cells_of, of_kind, thing_of
from ..show import Show, fitted_leaves
from ..values import Asked, Travel, Typed, Value
from .gangs import leaf_of, partner_of

__all__ = ["giving_way", "held_by_hands"]


def held_by_hands(show: Show, leads: Iterable[str]) -> frozenset[str]:
    """The addresses that stay with hands which lead some: a pair is held as one."""
    found = set(leads)
    for address in tuple(found):
        if of_kind(address) != "input" and (mate := partner_of(show, thing_of(address))):
            found.add(f"{mate}/{leaf_of(address)}")
    return frozenset(found)


def giving_way(
    show: Show, moves: Mapping[str, Asked], held: Collection[str]
) -> tuple[dict[str, Asked], tuple[str, ...]]:
    """An edit of own values less what hands hold, and the addresses that it would have moved.

    Where somebody comes on or goes, what a hand holds would stand otherwise without being named:
    then it stays as it stands, is own, and whoever comes on holds that back, as for a pin.
    """
    if not held:
        return dict(moves), ()
    kept = {a: value for a, value in moves.items() if Address.at(a).plain not in held}
    plain: dict[str, Value] = {
        a: value for a, value in kept.items() if not isinstance(value, Typed | Travel)
    }
    left = {a for a in held if a in moves and moves[a] != show[a]}
    after = show.with_values(plain)
    for address in sorted(held):
        if after[address] == show[address]:
            continue
        left.add(address)
        kept |= _as_it_stands(show, address, kept)
    return kept, tuple(sorted(left))


def _as_it_stands(show: Show, address: str, moves: Mapping[str, Asked]) -> dict[str, Asked]:
    """Moves by which an address stands as it does, whoever is on then."""
    if of_kind(address) == "input":
        socket = Address.at(address).stem
        channels = [Address.at(a).stem for a, at in moves.items()
                    if at == socket and Address.at(a).last == "attached"]  # fmt: skip
        channels += [c for c, on in show.layers.on.items() if on.attached == socket]
        cell, beneath = "preamp", [f"{socket}/gain", f"{socket}/pad"]
    else:
        channel, leaf = thing_of(address), leaf_of(address)
        found = fitted_leaves(show.desk).get(leaf)
        if found is None:
            return {address: show[address]}
        cell, channels = found, [channel]
        beneath = [f"{channel}/{one}" for one in cells_of(show.desk, "channel")[cell]]
    kept: dict[str, Asked] = {one: show[one] for one in beneath}
    for channel in dict.fromkeys(channels):
        at = f"{channel}/held_back"
        back = str(moves.get(at, show.own_value(at))).split()
        if moves.get(f"{channel}/fitting", show.own_value(f"{channel}/fitting")) is not None:
            kept[at] = " ".join(sorted({*back, cell}))
    return kept
