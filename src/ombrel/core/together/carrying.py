"""A hand's move carried to the others of its gangs: offsets kept, past the ends of ranges too."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from ..catalogue import Address, is_on_desk, kind_on, parameter_at, thing_of
from ..show import Show
from ..values import Number, Value
from .gangs import carried_by, is_dca_of, kept_at, leaf_of, mates_of, member_for, strips_behind

__all__ = ["NOT_KEPT", "Carried", "Carry", "carried", "has_place", "led_by", "place_of", "stood_at"]

NOT_KEPT = -math.inf
_FINEST = 6  # decimals to which distances count: far below what anybody hears
_FARTHEST = 1e300  # of a kept place: no range ends it, only what a number can be
_TIDY = 12  # significant figures of a place: far beyond any unit's, and no noise of sums


@dataclass(frozen=True, slots=True, kw_only=True)
class Carry:
    """What bears on how a hand's edit carries gangs. `alone`: it moves nothing else. `passing`:

    strips that are one more gang for this gesture, and `places`: where those of them would stand
    that met the end of their range in it. `held`: addresses under other hands, which nothing moves.
    `opened`: sends that this gesture opened, whose starts it takes with it.
    """

    alone: bool = False
    passing: tuple[str, ...] = ()
    places: Mapping[str, float] = field(default_factory=dict)
    held: frozenset[str] = frozenset()
    opened: frozenset[str] = frozenset()


@dataclass(slots=True)
class Carried:
    """What follows a hand's edit: `values` beside those that it names, kept places included;

    `places` of a passing gang; `lone`: what was off moves alone until the hand lets go; `opened`:
    sends that it opened, in all.
    """

    values: dict[str, Value] = field(default_factory=dict)
    places: dict[str, float] = field(default_factory=dict)
    lone: bool = False
    opened: frozenset[str] = frozenset()

    def gangs(self, show: Show) -> list[str]:
        """The gangs that carried something, ascending."""
        found = {
            gang
            for mate in self.values
            if parameter_at(mate).gang
            for strip in strips_behind(show, mate)
            for gang in carried_by(show, strip, parameter_at(mate).gang)
        }
        return sorted(found)


def has_place(address: str) -> bool:
    """Whether an address has a kept place beside it."""
    parameter = parameter_at(address)
    return parameter.gang != "" and isinstance(parameter.kind, Number)


def place_of(address: str) -> str:
    """The address of the place that an address keeps."""
    return f"{address}/kept"


def carried(show: Show, named: Mapping[str, Value], carry: Carry) -> Carried:
    """What gangs make of an edit that puts values at the addresses `named`.

    The distance that a leader really goes is what its mates go; switches and choices are copied.
    Of several leaders of one leaf ("fader") mates follow only if all that reach them go equally.
    """
    found = Carried(places=dict(carry.places))
    if carry.alone:
        return found
    leaves: dict[str, dict[str, Value]] = {}
    for address, value in named.items():
        parameter = parameter_at(address)
        if parameter.gang or is_dca_of(address, carry.passing):
            leaf = "gain" if parameter.gang == "gain" else leaf_of(address)
            leader, value = _leader(show, address, value)
            if leader == address or leader not in named:
                leaves.setdefault(leaf, {})[leader] = value
    for leaders in leaves.values():
        if any(value != show[address] for address, value in leaders.items()):
            _follow(show, leaders, carry, found)
    return found


def led_by(show: Show, addresses: Iterable[str]) -> frozenset[str]:
    """What a hand holds that puts values at these addresses: those that gangs could carry."""
    ganged = (address for address in addresses if parameter_at(address).gang)
    return frozenset(_leader(show, address, None)[0] for address in ganged)


def _leader(show: Show, address: str, value: Value) -> tuple[str, Value]:
    """A pair leads by its odd side: the address and value that stand for what a hand moved."""
    tie = parameter_at(address).tie
    if tie not in ("equal", "mirrored"):
        return address, value
    strip = thing_of(address)
    member = member_for(show, strip)
    if member == strip:
        return address, value
    mirrored = tie == "mirrored" and isinstance(value, float)
    return f"{member}/{leaf_of(address)}", 0.0 - value if mirrored else value  # type: ignore[operator]


def _follow(show: Show, leaders: Mapping[str, Value], carry: Carry, found: Carried) -> None:
    reached: dict[str, list[str]] = {}
    by_gang: dict[str, bool] = {}
    for leader in leaders:
        for mate, held in mates_of(show, leader, carry.passing).items():
            if mate not in leaders:
                reached.setdefault(mate, []).append(leader)
                by_gang[mate] = held
    free = {mate: by for mate, by in reached.items() if mate not in carry.held}
    first = next(iter(leaders))
    if not isinstance(parameter_at(first).kind, Number):
        for mate, by in free.items():
            if len({leaders[leader] for leader in by}) == 1:
                found.values[mate] = leaders[by[0]]
        return
    for leader, value in leaders.items():
        if value == show[leader]:
            continue
        own = [mate for mate, by in free.items() if leader in by and has_place(mate)]
        if show[leader] == -math.inf and any(show[mate] != -math.inf for mate in own):
            found.lone = True  # nothing is slammed open behind a hand that opens one of them
            return
    for mate, by in free.items():
        moves = {_Move.of(show, found, leader, leaders[leader], mate) for leader in by}
        settled = moves.pop().settled(show, found, mate) if len(moves) == 1 else None
        if settled is not None:
            found.values[mate] = settled[0]
            _keep(found, mate, settled[1], by_gang[mate])
    for leader in {leader for by in reached.values() for leader in by if has_place(leader)}:
        if leaders[leader] == -math.inf != show[leader]:  # it keeps its place as the others do
            _keep(found, leader, show.number(leader), kept_at(show, leader))


def _keep(found: Carried, address: str, place: float, in_show: bool) -> None:
    """Where an address would stand: in the show for gangs, with the gesture for a passing one."""
    if in_show:
        found.values[place_of(address)] = place
    elif place == NOT_KEPT:
        found.places.pop(address, None)
    else:
        found.places[address] = place


def _place(show: Show, found: Carried, address: str) -> float:
    if not has_place(address):  # a DCA's, taken along for once
        return found.places.get(address, NOT_KEPT)
    return found.places.get(address, show.number(place_of(address)))


@dataclass(frozen=True, slots=True)
class _Move:
    """How far a mate is to go: `far`, in its unit; or to off; or, back from off, where its leader

    comes to (`far` from the place that the leader kept, NaN-free: None if it kept none).
    """

    kind: str
    far: float | None

    @classmethod
    def of(cls, show: Show, found: Carried, leader: str, value: Value, mate: str) -> "_Move":
        old, new = show.number(leader), float(value)  # type: ignore[arg-type]
        if new == -math.inf:
            return cls("still" if old == new else "off", None)
        if old == -math.inf:
            place = _place(show, found, leader)
            if place == NOT_KEPT:
                return cls("to", new)
            return cls("back", round(new - place, _FINEST))
        if _by_ratio(show, leader):
            return cls("by", math.log2(new / old))
        far = round(new - old, _FINEST)
        return cls("by", -far if _mirrored(show, leader) != _mirrored(show, mate) else far)

    def settled(self, show: Show, found: Carried, mate: str) -> tuple[float, float] | None:
        """The mate's value and kept place after it; None where it stays."""
        kind = kind_on(show.desk, mate)
        assert isinstance(kind, Number)  # only numbers move by distance
        if not has_place(mate) and self.kind != "by":
            return None  # a DCA goes by dB; to off, and back, it is moved by its own hand alone
        value, kept = show.number(mate), _place(show, found, mate)
        place = value if kept == NOT_KEPT else kept
        if place == -math.inf:  # off, and nobody knows where it would stand
            return stood_at(kind, self.far) if self.kind == "to" and self.far is not None else None
        if self.kind == "off":
            return None if value == -math.inf else (-math.inf, place)
        if self.kind == "back" and self.far is not None:
            return stood_at(kind, place + self.far)
        silent_by_hand = value == -math.inf and place >= kind.lowest_finite
        if self.kind != "by" or not self.far or silent_by_hand:
            return None
        if kind.carried_by == "ratio":
            return stood_at(kind, place * math.pow(2.0, self.far))
        return stood_at(kind, place + self.far)


def _by_ratio(show: Show, address: str) -> bool:
    kind = kind_on(show.desk, address)
    return isinstance(kind, Number) and kind.carried_by == "ratio"


def _mirrored(show: Show, address: str) -> bool:
    """Whether the pan of an address's strip moves the other way; nothing else has a mirror."""
    mirror = f"{thing_of(address)}/pan_mirrored"
    return Address.at(address).last == "pan" and is_on_desk(show.desk, mirror) and show.on(mirror)


def stood_at(kind: Number, place: float) -> tuple[float, float]:
    """The value and kept place of what would stand at a place."""
    place = min(max(float(f"{place:.{_TIDY}g}") + 0.0, -_FARTHEST), _FARTHEST)
    if place > kind.highest:
        return kind.highest, place
    low = max(kind.lowest, kind.lowest_finite)
    if place < low:
        return (kind.lowest, place)
    return place, NOT_KEPT
