"""The only ways in which a show changes.

An edit asks for values at addresses: a value, a typed text ("-6", "up 2"), or a place of a
fader's travel. It is checked whole and made whole, and yields a Change: address, old value, new
value. The inverse of a Change is a Change; undo, redo and live screens live on that alone. All that
makes a show valid is asked for here: values, what the desk can do, and that nothing feeds back.
"""

import math
from collections.abc import Collection, Mapping
from dataclasses import dataclass

import numpy as np
from immutables import Map
from numpy.typing import NDArray

from ..catalogue import Address, Desk, bears, check_on_desk, kind_on
from ..flow import Flow, feeds_back, flow_of
from ..scenes import next_after
from ..show import Change, Show, blank_show, joined, read_strips
from ..together import (
    NOT_KEPT,
    Carried,
    Carry,
    carried,
    coming,
    kept_at,
    leaving_as_it_is,
    netted,
    openings,
    place_of,
    tied,
)
from ..values import (
    Asked,
    ConsoleError,
    EditRefused,
    Number,
    Travel,
    Typed,
    Value,
    WrongValue,
    delay_ms,
    note_ms,
    read_note,
)
from .desk_rules import check_desk_rules
from .layering import layered, settling

__all__ = [
    "Edited",
    "Expanded",
    "Followed",
    "begun",
    "check_edit",
    "edited",
    "expanded",
    "looked_at",
    "made",
    "show_of",
]


@dataclass(frozen=True, slots=True, eq=False)
class Expanded:
    """A show after an edit, as far as values and the desk's rules tell: nobody asked yet whether

    it feeds back. `change`: own values; `stood`: what stands otherwise, which is the same where no
    fitting lies. `carried`: what gangs made of it; `written`: every address that it puts somewhere,
    also where that is where it stood.
    """

    show: Show
    change: Change
    stood: Change
    carried: Carried
    written: frozenset[str]


@dataclass(frozen=True, slots=True, eq=False)
class Edited(Expanded):
    """A show after an edit, with the flow that follows, and the cells that differ, (row, column)

    each, shape (n, 2).
    """

    flow: Flow
    cells: NDArray[np.intp]


class Followed:
    """The flow of a show that several edits move, one after another.

    Those that cannot close a loop are followed together, when somebody looks; any other when it is
    made, so that a refusal is its own. `cells`: (row, column) of all that came to differ.
    """

    def __init__(self, flow: Flow) -> None:
        self._flow = flow
        self._owed: list[Change] = []
        self.cells: set[tuple[int, int]] = set()

    def moved(self, stood: Change) -> None:
        """An edit changed what stands. Raises FeedbackLoop where it closes a loop: it counts as not

        made then.
        """
        if self._flow.may_close(stood):
            self._follow(self.flow, stood)
        elif stood:
            self._owed.append(stood)

    @property
    def flow(self) -> Flow:
        """The flow after all edits so far."""
        if self._owed:
            self._follow(self._flow, joined(self._owed))
            self._owed = []  # not before: what fails here is owed still
        return self._flow

    def _follow(self, flow: Flow, stood: Change) -> None:
        self._flow, cells = flow.after(stood)
        self.cells.update(map(tuple, cells.tolist()))


def _answered(show: Show, address: str, asked: Asked) -> Value:
    if not isinstance(asked, Typed | Travel):
        return check_on_desk(show.desk, address, asked)
    if isinstance(asked, Typed):
        asked = _as_meant(show, address, asked)
        asked = kind_on(show.desk, address).typed(asked.text, show[address], address)
    else:
        kind = kind_on(show.desk, address)
        if not isinstance(kind, Number):
            raise WrongValue(address, "a value (it has no travel)", asked.fraction)
        asked = kind.at_travel(asked.fraction, address)
    return check_on_desk(show.desk, address, asked)


def _as_meant(show: Show, address: str, asked: Typed) -> Typed:
    """What only the show can read: a delay as a distance or a note, a key as a strip's number."""
    at = Address.at(address)
    if at.last == "key" and asked.text.strip():
        return Typed(read_strips(show, asked.text, dcas=False)[0])
    if at.kind == "engine" and (note := read_note(asked.text)):
        if at.leaf == "note":
            return Typed(note)
        if at.leaf == "time":
            return Typed(f"{note_ms(note, show.number('show/tempo')):.6f}")
    if not at.bears_on("delays"):
        return asked
    temperature_c = show.number("show/temperature_c")
    rate_hz = show.desk.sample_rate_hz
    time_ms = delay_ms(asked.text, temperature_c=temperature_c, rate_hz=rate_hz)
    return asked if time_ms is None else Typed(f"{time_ms:.6f}")


def expanded(
    show: Show,
    moves: Mapping[str, Asked],
    carry: Carry | None = None,
    *,
    own: bool = False,
    sounding: Show | None = None,
    begins: bool = True,
) -> Expanded:
    """As `edited`, short of its flow. `begins`: what it opens first has a start by it (see

    `openings`). Raises what `made` raises, save FeedbackLoop.
    """
    start = sounding or show  # where a hand finds what it moves, and what moves with it
    faults: list[ConsoleError] = []
    named: dict[str, Value] = {}
    for address, asked in moves.items():
        try:
            named[address] = _answered(start, address, asked)
        except ConsoleError as fault:
            faults.append(fault)
    if faults:
        raise EditRefused(faults)
    follows = carried(start, named, carry) if carry else Carried()
    whole = _without_places(show, named, by_hand=carry is not None) | named | follows.values
    whole |= netted(show, whole)
    whole |= coming(show, whole)
    whole |= tied(show, whole)
    if bears("gangs", whole) or any(_may_end(Address.at(a)) for a in named):
        whole |= _let_go(show, show.with_values(whole), whole)
    whole = whole if own else layered(show, whole)
    whole |= settling(show, whole)
    whole |= next_after(show, whole)
    new = {address: value for address, value in whole.items() if value != show.own_value(address)}
    for address in _beside(show, whole, new):
        new[address] = whole.get(address, show.own_value(address))
    after, stood = show.moved(new)
    beside = _of_other_layers(after, stood.new, whole)
    if begins:
        first = openings(show, after, whole, stood.new, carry.opened if carry else ())
        follows.opened |= first.opened
        beside |= first.values
    if beside:
        whole |= beside
        new |= {a: v for a, v in beside.items() if v != show.own_value(a)}
        after, stood = show.moved(new)
    check_desk_rules(after, new.keys() | stood.new.keys())
    if after.values is after.own:  # nothing lies over anything: what was written is what stands
        return Expanded(after, stood, stood, follows, frozenset(whole))
    change = Change(Map({address: show.own_value(address) for address in new}), Map(new))
    return Expanded(after, change, stood, follows, frozenset(whole))


def _without_places(show: Show, named: Mapping[str, Value], *, by_hand: bool) -> dict[str, Value]:
    """A place that a gang keeps ends when an edit names its address, an equal value included; save

    that a hand at the bottom of the travel says "off" more than once.
    """
    values = show.values
    return {
        place: NOT_KEPT
        for address, value in named.items()
        if (place := place_of(address)) in values
        and not (by_hand and value == -math.inf == show[address])
    }


def _beside(show: Show, whole: Mapping[str, Value], moved: Collection[str]) -> list[str]:
    """A value and its kept place are recorded as one, where there is such a place before or after:

    so they are compared and undone as one.
    """
    found = set()
    values = show.values
    for address in moved:
        place = place_of(address)
        at = Address.at(address)
        if at.last == "kept":
            found |= {at.plain, address}
        elif place in values or whole.get(place, NOT_KEPT) != NOT_KEPT:
            found |= {address, place}
    return sorted(found.difference(moved))


def _may_end(at: Address) -> bool:
    """Whether it is a place that only a gang keeps: of sends and mixes' faders trims keep them."""
    return at.last == "kept" and not at.bears_on("places")


def _let_go(show: Show, after: Show, whole: Mapping[str, Value]) -> dict[str, Value]:
    """Kept places end where no active gang carries their address any more."""
    places = (
        Address.at(a)
        for a in {*show.values, *whole}
        if Address.at(a).last == "kept" and a in after.values
    )
    return {
        at.text: NOT_KEPT
        for at in places
        if not at.bears_on("places") and not kept_at(after, at.plain)
    }


def _of_other_layers(
    after: Show, stood: Collection[str], whole: Mapping[str, Value]
) -> dict[str, Value]:
    """A place is of the value that it was kept beside: it ends where another comes to stand there,

    since a fitting goes on or off.
    """
    if not bears("layers", whole):
        return {}
    return {
        place: NOT_KEPT
        for address in stood
        if address not in whole and (place := place_of(address)) in after.values
    }


def made(
    show: Show, moves: Mapping[str, Asked], carry: Carry | None = None, *, own: bool = False
) -> tuple[Show, Change]:
    """The show after an edit, and what the edit changed.

    `carry`: a hand's edit, which gangs follow; without it the edit is complete in itself. Linked
    pairs stay equal either way. What a fitting lies over goes into the fitting, save with `own`:
    recalls, casts and undo name own values. Raises EditRefused with every fault (UnknownAddress,
    WrongValue, OutOfRange, UnreadableText), each naming its address; what `check_desk_rules`
    refuses; or FeedbackLoop. Nothing is changed then.
    """
    found = expanded(show, moves, carry, own=own)
    if feeds_back(found.show):
        flow_of(found.show)
    return found.show, found.change


def looked_at(show: Show, moves: Mapping[str, Asked]) -> Show:
    """The show after an edit as far as values and the desk's rules tell: to look at while a hand

    drags, never to keep, since nobody asks whether it feeds back. Raises what `made` raises else.
    """
    return expanded(show, moves, None, own=False).show


def edited(
    show: Show,
    flow: Flow,
    moves: Mapping[str, Asked],
    carry: Carry | None = None,
    *,
    own: bool = False,
    sounding: Show | None = None,
) -> Edited:
    """As `made`, where the show's flow is at hand: it is followed. Raises what `made` raises.

    `sounding`: the show where it sounds just now, if something is on its way: a hand and all that
    follows it go on from there, and stay where that leads.
    """
    found = expanded(show, moves, carry, own=own, sounding=sounding)
    following, cells = flow.after(found.stood)
    return Edited(
        found.show, found.change, found.stood, found.carried, found.written, following, cells
    )


def begun(blank: Show, show: Show) -> Expanded:
    """A blank show as it becomes one that was checked when it was made, on the same desk."""
    after, stood = blank.moved(dict(show.own))
    old = {address: blank.own_value(address) for address in show.own}
    return Expanded(after, Change(Map(old), show.own), stood, Carried(), frozenset(show.own))


def check_edit(show: Show, flow: Flow, moves: Mapping[str, Asked]) -> None:
    """Raise what `edited` would raise, without working out what would then be heard."""
    flow.check(expanded(show, moves, None, own=False).stood)


def show_of(desk: Desk, values: Mapping[str, Value]) -> Show:
    """A show from all its values, checked as an edit is: what they leave out stands as it stands by

    itself, and nothing joins. Raises what `made` raises.
    """
    blank = blank_show(desk)
    return made(blank, leaving_as_it_is(blank, values), own=True)[0]
