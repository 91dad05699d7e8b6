"""A show taken to another desk: all that fits, and aside what does not."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from ..catalogue import Address, Desk, default_of, parameter_at
from ..edit import show_of
from ..show import Show
from ..together import in_pairs, is_common
from ..values import ConsoleError, Value
from .aside import Aside, Entry
from .otherwise import carried, checked_boxes, default_boxes, said_there
from .restored import Kept, Known, are_there, restored, things_of

__all__ = ["Moved", "moved"]

_MOST_TURNS = 3  # of trying again what could not stand before the rest stood
_MOST_TRIES = 60  # shows that are put together to find what cannot stand: past it, all in question


@dataclass(frozen=True, slots=True, kw_only=True)
class Moved:
    """A show on its new desk. `asides`: what is kept aside from then on; `left`: of it what did not

    come along from the desk before. `refused`: addresses there that could not stand beside the
    rest, with why; `back`: those that came back from aside. `boxes`: which box stands for which.
    """

    show: Show
    asides: tuple[Aside, ...]
    left: tuple[Entry, ...]
    refused: Mapping[str, ConsoleError]
    back: tuple[str, ...]
    boxes: Mapping[str, str]


def moved(
    show: Show,
    asides: Sequence[Aside],
    desk: Desk,
    boxes: Mapping[str, str] | None = None,
    *,
    known: Known,
) -> Moved:
    """Take a show to another desk. `boxes`: which box there stands for which of its own ("":

    none); None: as it went where it comes back, else `default_boxes`. `known`: the profile of a
    key. Raises UnreadableText for boxes that cannot be.
    """
    origin = show.desk
    if boxes is None:
        boxes = _way_back(asides, origin, desk)
    boxes = checked_boxes(origin, desk, boxes)
    said = said_there(origin, desk, boxes)
    inverse = said_there(desk, origin, {to: key for key, to in boxes.items()})
    values: dict[str, Value] = {}
    left: dict[str, Entry] = {}
    own_of: dict[str, str] = {}
    for address, value in show.own.items():
        found = carried(desk, address, value, said)
        if found is None:
            left[address] = Entry(address, value)
            continue
        values[found[0]], own_of[found[0]] = found[1], address
        if carried(origin, *found, inverse) != (address, value):
            left[address] = Entry(address, value, found[0])
    coming, kept = restored(show, asides, desk, values, said, known)
    coming = {a: v for a, v in coming.items() if not _is_given(a, {**values, **coming})}
    result, refused = _sound(desk, values, coming)
    for address in refused:
        if address not in coming:
            own = own_of[address]
            left[own] = Entry(own, show.own[own], address)
    things = things_of(result)
    entries = tuple(_standing(entry, result, things) for entry in left.values())
    after = [_left_aside(one, refused, result, things) for one in kept]
    new = Aside(desk=origin.key, boxes=boxes, entries=entries)
    return Moved(
        show=result,
        asides=tuple(one for one in _together(after, new) if one.entries),
        left=entries,
        refused=refused,
        back=tuple(sorted(coming.keys() - refused.keys())),
        boxes=boxes,
    )


def _way_back(asides: Sequence[Aside], origin: Desk, desk: Desk) -> dict[str, str]:
    """The boxes as they went, the other way round, where a show comes back; the rest by default."""
    went = next((one.boxes for one in reversed(asides) if one.desk == desk.key), {})
    back = {to: key for key, to in went.items() if origin.box(to) and desk.box(key)}
    usual = default_boxes(origin, desk)
    free = {a: b for a, b in usual.items() if a not in back and b not in back.values()}
    return back | free


def _is_given(address: str, whole: Mapping[str, Value]) -> bool:
    """Whether it is of the even side of a linked pair, and what the odd one has is its value."""
    sides = in_pairs(Address.at(address).thing)
    if sides is None or Address.at(address).thing != sides[1]:
        return False
    return whole.get(f"{sides[0]}/linked") is True and is_common(parameter_at(address).tie)


def _standing(entry: Entry, result: Show, things: frozenset[str]) -> Entry:
    """An entry with what stands for it now, or whether what it is of is there."""
    if not entry.at:
        return replace(entry, stood=True if are_there(entry.address, things) else None)
    return replace(entry, stood=result.own.get(entry.at, default_of(entry.at)))


def _left_aside(
    kept: Kept, refused: Mapping[str, ConsoleError], result: Show, things: frozenset[str]
) -> Aside:
    entries = [*kept.waiting, *(one for one in kept.coming if one.at in refused)]
    return replace(kept.aside, entries=tuple(_standing(entry, result, things) for entry in entries))


def _together(asides: Sequence[Aside], new: Aside) -> list[Aside]:
    """One for each desk: what was kept of it first is the whole."""
    known = [one for one in asides if one.desk == new.desk]
    if not known:
        return [*asides, new]
    older = {entry.address for entry in known[0].entries}
    fresh = tuple(one for one in new.entries if one.address not in older)
    whole = replace(known[0], boxes=new.boxes, entries=(*known[0].entries, *fresh))
    return [*(one for one in asides if one.desk != new.desk), whole]


def _sound(
    desk: Desk, values: Mapping[str, Value], coming: Mapping[str, Value]
) -> tuple[Show, dict[str, ConsoleError]]:
    """The show of these values, and what the rules of a desk refuse of them, with why.

    What comes back from aside yields to what comes along. All at once as a rule; else by halves,
    by what the values are of, and what was refused before the rest stood is tried again after; so
    often that it ends, whatever the show.
    """
    whole = {**values, **coming}
    try:
        return show_of(desk, whole), {}
    except ConsoleError:
        pass
    standing: dict[str, Value] = {}
    refused: dict[str, ConsoleError] = {}
    tries = iter(range(_MOST_TRIES))
    for some in (
        {a: whole[a] for a in values.keys() - coming.keys()},
        {a: whole[a] for a in values.keys() & coming.keys()},
        {a: whole[a] for a in coming.keys() - values.keys()},
    ):
        waiting = _by_thing(some)
        for _ in range(_MOST_TURNS):
            before = len(waiting)
            faults = _added(desk, standing, waiting, tries)
            waiting = [group for group, _ in faults]
            if not waiting or len(waiting) == before:
                break
        for group, error in faults:
            refused |= dict.fromkeys(group, error)
    for address in refused.keys() & coming.keys() & values.keys():
        standing[address] = values[address]
    return show_of(desk, standing), refused


def _by_thing(values: Mapping[str, Value]) -> list[dict[str, Value]]:
    groups: dict[str, dict[str, Value]] = {}
    for address in sorted(values):
        groups.setdefault(Address.at(address).thing, {})[address] = values[address]
    return list(groups.values())


def _added(
    desk: Desk,
    standing: dict[str, Value],
    groups: list[dict[str, Value]],
    tries: Iterator[int],
) -> list[tuple[dict[str, Value], ConsoleError]]:
    """Put groups of values beside what stands; those that cannot stand there, with why."""
    if not groups:
        return []
    more = {a: value for group in groups for a, value in group.items()}
    try:
        show_of(desk, {**standing, **more})
    except ConsoleError as error:
        if next(tries, None) is None:
            return [(more, error)]
        if len(groups) == 1:
            if len(more) == 1:
                return [(more, error)]
            groups = [{a: value} for a, value in more.items()]
        half = len(groups) // 2
        first = _added(desk, standing, groups[:half], tries)
        return first + _added(desk, standing, groups[half:], tries)
    standing |= more
    return []
