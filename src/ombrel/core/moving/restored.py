"""What comes back from aside, where a show comes to a desk on which it fits."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from ..catalogue import COUNTED, Address, Desk, default_of, in_scene, of_kind
from ..edit import Said
from ..scenes import held_joined
from ..show import Show
from ..values import Value
from .aside import Aside, Entry
from .otherwise import carried, default_boxes, said_there

__all__ = ["Kept", "Known", "are_there", "restored", "things_of"]

Known = Callable[[str], Desk | None]  # the profile of a key, None where it is not there any more

# what a desk has, whoever uses it; all else is there while somebody made it
_OF_A_DESK = (*COUNTED, "bay", "input", "output", "house", "mono", "show", "run")


@dataclass(frozen=True, slots=True)
class Kept:
    """What stays aside of a desk: `waiting` as it is, `coming` only if it could not come back."""

    aside: Aside
    waiting: tuple[Entry, ...]
    coming: tuple[Entry, ...]


def restored(
    show: Show, asides: Sequence[Aside], desk: Desk, values: Mapping[str, Value], said: Said,
    known: Known,
) -> tuple[dict[str, Value], list[Kept]]:  # fmt: skip
    """Values by their addresses on `desk` that come back from aside, and what stays there.

    `values`: what comes along from the show's own desk, `said`: its names there. A value comes back
    if nobody has moved since what stood for it meanwhile; of what a scene holds also, beside what
    it holds now, what the desk between could not say. What was kept first overrides.
    """
    found: dict[str, Value] = {}
    kept: list[Kept] = []
    things = things_of(show)
    for aside in reversed(asides):
        origin = known(aside.desk)
        if origin is None:
            kept.append(Kept(aside, tuple(_along(one, said) for one in aside.entries), ()))
            continue
        there = said_there(origin, desk, _boxes(origin, desk))
        between = said_there(origin, show.desk, aside.boxes)
        waiting: list[Entry] = []
        coming: list[Entry] = []
        for entry in aside.entries:
            if not entry.at and entry.stood is True and not are_there(entry.address, things):
                continue  # the scene, line or gang that it is of was removed since
            unmoved = not entry.at or _stands(show, entry.at) == entry.stood
            at_there = carried(desk, entry.address, entry.value, there)
            if at_there is None:
                waiting += [_along(entry, said)] if unmoved else []
                continue
            at, value = at_there
            if unmoved:
                found[at] = value
                # held to an end here too: the whole of it waits on
                is_whole = desk.key == origin.key or _goes_back(origin, desk, entry, at_there)
                (coming if is_whole else waiting).append(replace(entry, at=at))
            elif in_scene(at) and are_there(entry.address, things):
                now = str(values.get(at, ""))
                kind = of_kind(Address.at(at).target)
                found[at] = held_joined(now, str(value), kind, _beyond(between))
        kept.append(Kept(aside, tuple(waiting), tuple(coming)))
    return found, kept[::-1]


def _boxes(origin: Desk, desk: Desk) -> Mapping[str, str]:
    if origin.key == desk.key:
        return {box.key: box.key for box in desk.boxes}
    return default_boxes(origin, desk)


def _goes_back(origin: Desk, desk: Desk, entry: Entry, there: tuple[str, Value]) -> bool:
    boxes = {to: key for key, to in default_boxes(origin, desk).items()}
    return carried(origin, *there, said_there(desk, origin, boxes)) == (entry.address, entry.value)


def _along(entry: Entry, said: Said) -> Entry:
    """An entry that waits on, with where it would stand said as the next desk says it."""
    return replace(entry, at=said(entry.at) or "" if entry.at else "")


def _stands(show: Show, address: str) -> Value:
    return show.own.get(address, default_of(address))


def things_of(show: Show) -> frozenset[str]:
    """Everything of which a show holds a value of its own."""
    return frozenset(Address.at(address).thing for address in show.own)


def are_there(address: str, things: frozenset[str]) -> bool:
    """Whether what an address is of, and what it names, is there: what the desk itself has, is."""
    at = Address.at(address)
    names = [name for name in (at.thing, at.target) if name and of_kind(name) not in _OF_A_DESK]
    return bool(names) and all(name in things for name in names)


def _beyond(said: Said) -> Callable[[str], bool]:
    """Whether a desk cannot say something."""
    return lambda text: said(text) is None
