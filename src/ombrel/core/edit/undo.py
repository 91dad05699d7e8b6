"""What takes a change back in today's show, and what it leaves as somebody put it since."""

from collections.abc import Collection, Container, Iterable, Mapping, Sequence

from immutables import Map

from ..casting import is_bound
from ..catalogue import Address, below, of_kind, thing_of
from ..flow import Flow
from ..show import Change, Show, is_in_fitting
from ..together import NOT_KEPT, has_place, leaving_as_it_is, place_of
from ..values import Asked, ConsoleError, SocketTaken
from .desk_rules import is_safe_key
from .edits import edited
from .renaming import renamed, said_otherwise, strips_in

__all__ = ["bearing_on_undo", "permitted", "undoing", "undoing_renumbered"]


def undoing(
    show: Show, change: Change, since: Container[str] = ()
) -> tuple[dict[str, Asked], tuple[str, ...]]:
    """The moves of own values that take `change` back in today's show, and the addresses left.

    An address that somebody moved since stands as they put it: undo never undoes another person.
    `since`: what others have moved, equal by now or not. A value and the place that its gang keeps
    count as one. So does the key of a mute group that is safe stay, and what a hand moved under a
    fitting that is off by now, and whose something is that is in use.
    """
    moves: dict[str, Asked] = {}
    left: list[str] = []
    for address, value in change.new.items():
        of = Address.at(address).plain
        stands = show.own_value(address) == value and address not in since
        if stands and has_place(of):
            stands = show.own_value(of) == change.new.get(of, show.own_value(of)) and show[
                place_of(of)
            ] == change.new.get(place_of(of), NOT_KEPT)
        armed = Address.at(address).beside("safe") in change.new
        if (
            stands
            and (armed or not is_safe_key(show, address))
            and not _is_off(show, change, address)
        ):
            moves[address] = change.old[address]
        else:
            left.append(address)
    while half := _half_on(show, moves, left, since):
        _leave(half, moves, left)
    while bound := _bound(show, moves):  # who stays on a channel keeps what says whose they are
        _leave(bound, moves, left)
    return leaving_as_it_is(show, moves), tuple(sorted(left))


def permitted(
    show: Show, flow: Flow, moves: Mapping[str, Asked]
) -> tuple[dict[str, Asked], int, ConsoleError | None]:
    """The moves of an undo without those into sockets that somebody has taken since, how many are

    left out, and the refusal where it is passed by whole. What the show as it stands now refuses
    otherwise (it would close a loop) is passed by: it bars nobody from what they did before it.
    """
    kept = dict(moves)
    while True:
        try:
            edited(show, flow, kept, own=True)
        except SocketTaken as taken:
            plugs = [one for one in (taken.address, taken.held_at) if one in kept]
            if not plugs:
                return {}, len(moves), taken
            del kept[plugs[0]]
        except ConsoleError as refused:
            return {}, len(moves), refused
        else:
            return kept, len(moves) - len(kept), None


def bearing_on_undo(change: Change) -> set[str]:
    """The addresses of which an undo of a change asks whether others have moved them since."""
    found = set(change.new)
    for address in change.new:
        if _says_who(address):
            found |= {f"{thing_of(address)}/{leaf}" for leaf in _WHO}
    return found


def undoing_renumbered(
    show: Show,
    before: Show,
    after: Show,
    to: Mapping[str, str | None],
    since: Collection[str] = (),
) -> tuple[dict[str, Asked], tuple[str, ...]]:
    """As `undoing`, of a change that gave strips other numbers: they get their old ones back, with

    what was moved of them and stored of them since. `before` and `after`: the show around that
    change; `to`: the numbers that it gave. Where somebody has used a number that was left, nothing
    goes back and all is left: two strips cannot have it.
    """
    back: dict[str, str | None] = {new: old for old, new in to.items() if new is not None}
    left_free = set(back.values()) - back.keys()
    taken = [a for a in since if not left_free.isdisjoint(strips_in(a))]
    if taken:
        return {}, tuple(sorted(taken))
    there = show.with_values(renamed(show, back))
    with_old_numbers = after.with_values(renamed(after, back))
    said = said_otherwise(back)
    change = _between(before, with_old_numbers)
    moves, left = undoing(there, change, {name for a in since if (name := said(a)) is not None})
    then = there.with_values(moves)  # type: ignore[arg-type]  # plain values out of a change
    return leaving_as_it_is(show, _between(then, show).old), left


def _between(one: Show, other: Show) -> Change:
    """The own values that lead from one show to another."""
    moved = {a for a in {*one.own, *other.own} if one.own_value(a) != other.own_value(a)}
    return Change(
        Map({a: one.own_value(a) for a in moved}), Map({a: other.own_value(a) for a in moved})
    )


def _half_on(
    show: Show, moves: Mapping[str, Asked], left: Sequence[str], since: Container[str]
) -> list[str]:
    """Who is on a channel is one matter, with who plays that part tonight: it goes back whole, or

    stays: also where somebody moved a part of it that this change had not. It stays too where their
    fitting has gone to another channel since, or out of the show.
    """
    found: list[str] = []
    stays = {at.target for at in map(Address.at, left) if at.kind == "tonight"}
    for channel in {thing_of(a) for a in (*moves, *left) if _says_who(a)}:
        own = [a for a in moves if thing_of(a) == channel and _says_who(a)]
        coming = str(moves.get(f"{channel}/fitting"))
        there = show.layers.at.get(coming)
        elsewhere = there not in (None, channel) and f"{there}/fitting" not in moves
        removed = moves.get(f"{coming}/removed", show.own.get(f"{coming}/removed")) is True
        parts = {show.own.get(f"{channel}/part"), moves.get(f"{channel}/part")}
        kept = any(thing_of(a) == channel and _says_who(a) for a in left)
        kept = kept or any(f"{channel}/{leaf}" in since for leaf in _WHO)
        if elsewhere or removed or kept or parts & stays:
            found += own
            stays |= {str(part) for part in parts if part}
    found += [a for a in moves if of_kind(a) == "tonight" and Address.at(a).target in stays]
    return sorted(set(found))


_WHO = ("fitting", "part", "attached", "held_back", "fitted_s")


def _says_who(address: str) -> bool:
    return Address.at(address).bears_on("person")


def _leave(addresses: Iterable[str], moves: dict[str, Asked], left: list[str]) -> None:
    for address in addresses:
        del moves[address]
        left.append(address)


def _bound(show: Show, moves: Mapping[str, Asked]) -> list[str]:
    """What says whose something is that is still in use when the rest has gone back."""
    own = show.own
    named = [
        a
        for a in moves
        if (of_kind(a) == "fitting" and f"{thing_of(a)}/performer" in own)
        or (of_kind(a) == "performer" and not moves[a])
    ]
    if not named:
        return []
    then = show.with_values(moves)  # type: ignore[arg-type]  # plain values out of a change
    return [a for a in named if is_bound(then, a)]


def _is_off(show: Show, change: Change, address: str) -> bool:
    """Whether it is a hand's move under a fitting that is on no channel now. What was named (keep,

    drop, copy) moves more of a fitting than its values, and goes back wherever it is.
    """
    if not is_in_fitting(address):
        return False
    fitting = thing_of(address)
    named = any(not is_in_fitting(a) for a in below(fitting, change.new))
    return not named and fitting not in show.layers.at
