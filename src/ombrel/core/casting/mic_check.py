"""The mic check: one performer after another, each with their own fitting, kept before the next.

An entry is a fitting that tonight's cast brings to a channel: waiting, on, done or skipped. On
means that somebody has it, and that very fitting is on. One an operator, a channel, a preamp.
"""

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..catalogue import Address, Thing, of_kind
from ..scenes import pin_of_cell
from ..show import Show
from ..values import Asked, EntryLeft, EntryTaken, NoSuchFitting
from .fittings import drop, fitting_index, keep, new_fitting, preamp_socket, put_on
from .names import fitting_name
from .parts import microphones, parts, tonight
from .tonight import is_paired

__all__ = [
    "CheckEntry",
    "CheckOrder",
    "begin_again",
    "check_alone",
    "check_back",
    "check_coming",
    "check_drop",
    "check_finish",
    "check_go_to",
    "check_leaves",
    "check_next",
    "check_said",
    "check_skip",
    "check_take_over",
    "entries",
    "entry_of",
    "held_by",
]

CheckOrder = Literal["list", "arrival", "channel"]
Phase = Literal["waiting", "on", "done", "skipped"]


@dataclass(frozen=True, slots=True, kw_only=True)
class CheckEntry:
    """Who is to be checked on which channel. `fitting`: None until the entry first comes on; `by`:

    who has it. `arrived_s`: 0 for who is not there yet. `barred`: why it cannot come on, or "".
    """

    part: str
    performer: str
    microphone: int
    channel: str
    fitting: str | None
    phase: Phase
    by: str
    arrived_s: float
    barred: str

    @property
    def key(self) -> str:
        """What it is named by: its part and microphone."""
        return f"{self.part}/microphone/{self.microphone}"


def entries(show: Show, order: CheckOrder = "list") -> list[CheckEntry]:
    """Every entry of tonight: in the parts' order, by who came first (the others last), or by

    channel.
    """
    found: list[CheckEntry] = []
    index, pinned = fitting_index(show), pin_of_cell(show)
    for part in parts(show):
        performer = tonight(show, part)
        for microphone in microphones(show, part) if performer else ():
            assert performer is not None  # nobody plays a part: it has no entry
            fitting = index.get((performer, part, float(microphone.number)))
            found.append(
                CheckEntry(
                    part=part,
                    performer=performer,
                    microphone=microphone.number,
                    channel=microphone.channel,
                    fitting=fitting,
                    phase=show.text(f"{fitting}/check") if fitting else "waiting",  # type: ignore[arg-type]
                    by=show.text(f"{fitting}/checker") if fitting else "",
                    arrived_s=show.number(f"{performer}/arrived_s"),
                    barred=_barred(show, pinned, microphone.channel),
                )
            )
    if order == "arrival":
        found.sort(key=lambda one: one.arrived_s or 1e12)
    elif order == "channel":
        found.sort(key=lambda one: Thing.at(one.channel).number)
    return found


def _barred(show: Show, pinned: Callable[[str, str], str | None], channel: str) -> str:
    if pinned(channel, "part"):
        return "who is on is pinned there"
    return "the channel is one side of a linked pair" if is_paired(show, channel) else ""


def entry_of(show: Show, key: str) -> CheckEntry:
    """The entry of a key. Raises NoSuchFitting for none of tonight's."""
    for one in entries(show):
        if one.key == key:
            return one
    raise NoSuchFitting("such entry tonight")


def held_by(show: Show, by: str) -> str | None:
    """The fitting that an operator has under check; None: none."""
    for one in show.layers.on.values():
        if one.checked and show.text(f"{one.fitting}/checker") == by:
            return one.fitting
    return None


def _in_the_way(show: Show, entry: CheckEntry, by: str) -> tuple[str, str] | None:
    """Another operator's fitting under check on the same channel or preamp, and which of them."""
    socket = preamp_socket(show, entry.channel)
    for channel, one in show.layers.on.items():
        mine = show.text(f"{one.fitting}/checker") == by
        if not one.checked or mine or one.fitting == entry.fitting:
            continue
        if channel == entry.channel:
            return one.fitting, "channel"
        if socket is not None and preamp_socket(show, channel) == socket:
            return one.fitting, "preamp"
    return None


def _on(show: Show, entry: CheckEntry, by: str, at_s: float) -> dict[str, Asked]:
    fitting, made = new_fitting(show, entry.performer, entry.part, entry.microphone)
    there = show.with_values(made) if made else show
    on = put_on(there, entry.channel, fitting, since_s=at_s)
    return {**made} | on | {f"{fitting}/check": "on", f"{fitting}/checker": by[:60]}


def _left(show: Show, by: str, at_s: float, phase: Phase) -> dict[str, Asked]:
    """What becomes of an operator's entry when they leave it: kept if it is done."""
    fitting = held_by(show, by)
    if fitting is None:
        return {}
    kept = keep(show, fitting, by=by, at_s=at_s) if phase == "done" else {}
    return kept | {f"{fitting}/check": phase, f"{fitting}/checker": ""}


def _place(show: Show, every: Sequence[CheckEntry], by: str) -> int | None:
    """Where an operator's entry stands in an order."""
    fitting = held_by(show, by)
    return next((at for at, one in enumerate(every) if fitting and one.fitting == fitting), None)


def check_coming(show: Show, *, by: str, order: CheckOrder = "list") -> CheckEntry | None:
    """The next that waits, behind the operator's own entry, then from the top; none barred."""
    every = entries(show, order)
    own = _place(show, every, by)
    start = 0 if own is None else own + 1
    for entry in [*every[start:], *every[:start]]:
        free = entry.phase == "waiting" and not entry.barred
        if free and _in_the_way(show, entry, by) is None:
            return entry
    return None


def check_next(show: Show, *, by: str, at_s: float, order: CheckOrder = "list") -> dict[str, Asked]:
    """Moves that keep what an operator moved for their entry, and bring the next that waits."""
    moves = _left(show, by, at_s, "done")
    entry = check_coming(show, by=by, order=order)
    return moves | (_on(show, entry, by, at_s) if entry else {})


def check_skip(show: Show, *, by: str, at_s: float, order: CheckOrder = "list") -> dict[str, Asked]:
    """Moves that leave an operator's entry for later, nothing kept: what is loose stays loose."""
    moves = _left(show, by, at_s, "skipped")
    entry = check_coming(show, by=by, order=order)
    return moves | (_on(show, entry, by, at_s) if entry else {})


def check_leaves(show: Show, leaves: str, *, by: str) -> None:
    """Raise EntryLeft unless an operator is at the entry that a step was meant to leave ("": at

    none): two presses in a row leave one entry, not two.
    """
    fitting = held_by(show, by)
    at = next((one.key for one in entries(show) if fitting and one.fitting == fitting), "")
    if at != leaves:
        meant = entry_of(show, leaves).fitting if leaves else None
        said = fitting_name(show, meant) if meant else "another entry" if leaves else "no entry"
        raise EntryLeft(said, fitting_name(show, fitting) if fitting else "")


def check_finish(show: Show, *, by: str, at_s: float) -> dict[str, Asked]:
    """Moves that keep an operator's entry, and bring nobody."""
    return _left(show, by, at_s, "done")


def check_drop(show: Show, *, by: str, at_s: float) -> dict[str, Asked]:
    """Moves that let go of what is loose in an operator's entry; it stays on."""
    fitting = held_by(show, by)
    return drop(show, fitting, at_s=at_s) if fitting else {}


def check_go_to(show: Show, key: str, *, by: str, at_s: float) -> dict[str, Asked]:
    """Moves that keep an operator's entry and bring another. Raises NoSuchFitting, EntryTaken."""
    entry = entry_of(show, key)
    if entry.phase == "on" and entry.by == by:
        return {}
    _check_free(show, entry, by)
    return _left(show, by, at_s, "done") | _on(show, entry, by, at_s)


def _check_free(show: Show, entry: CheckEntry, by: str) -> None:
    name = fitting_name(show, entry.fitting) if entry.fitting else "This entry"
    if entry.barred:
        raise EntryTaken(name, "nobody", f"It cannot come on: {entry.barred}.")
    if entry.phase == "on" and entry.by != by:
        raise EntryTaken(name, entry.by, "Take it over from them by name, or choose another.")
    other = _in_the_way(show, entry, by)
    if other is not None:
        fitting, shared = other
        way_out = f"It has the same {shared}: wait, or choose another."
        raise EntryTaken(fitting_name(show, fitting), show.text(f"{fitting}/checker"), way_out)


def check_back(show: Show, *, by: str, at_s: float, order: CheckOrder = "list") -> dict[str, Asked]:
    """Moves that keep an operator's entry and bring the one before it that is free. Raises

    NoSuchFitting where there is none.
    """
    every = entries(show, order)
    own = _place(show, every, by)
    before: Sequence[CheckEntry] = every[:own] if own is not None else every
    for entry in reversed(before):
        if own is None and entry.phase == "waiting":
            continue
        taken = entry.phase == "on" and entry.by != by
        if not taken and not entry.barred and _in_the_way(show, entry, by) is None:
            return check_go_to(show, entry.key, by=by, at_s=at_s)
    raise NoSuchFitting("entry before this one")


def check_take_over(show: Show, key: str, said: str, *, by: str, at_s: float) -> dict[str, Asked]:
    """Moves that take an entry over from an operator, who is named. Raises NoSuchFitting, and

    EntryTaken if another has it than was said.
    """
    entry = entry_of(show, key)
    if entry.phase != "on" or entry.fitting is None:
        return check_go_to(show, key, by=by, at_s=at_s)
    if entry.by == by:
        return {}
    if " ".join(said.split()).casefold() != entry.by.casefold():
        raise EntryTaken(fitting_name(show, entry.fitting), entry.by, f"Say {entry.by} to take it.")
    return _left(show, by, at_s, "done") | {f"{entry.fitting}/checker": by[:60]}


def begin_again(show: Show) -> dict[str, Asked]:
    """Moves that let every entry wait, for another evening; what is loose stays loose."""
    return {
        address: "waiting" if Address.at(address).last == "check" else ""
        for address in show.own
        if of_kind(address) == "fitting" and Address.at(address).last in ("check", "checker")
    }


def check_said(show: Show, step: str, moves: Mapping[str, Asked], *, by: str) -> str:
    """What a step of the mic check does, in words: who is kept, who comes on."""
    own = held_by(show, by)
    parts_of = []
    if own is not None:
        name = fitting_name(show, own)
        kept = f"{own}/newest" in moves
        if step == "drop":
            return f"{name}: what was not kept dropped"
        parts_of.append(f"{name} {'skipped' if step == 'skip' else 'kept' if kept else 'checked'}")
    after = show.with_values(moves)  # type: ignore[arg-type]  # plain values alone
    coming = held_by(after, by)
    if coming is not None and coming != own:
        parts_of.append(f"{fitting_name(after, coming)} on")
    return "Mic check: " + (", ".join(parts_of) or "nobody waits")


def check_alone(show: Show, coming: Collection[str]) -> None:
    """Refuse that some fittings come on in another's way. Two that a patch brought onto one preamp

    stay: that bars nobody else. Raises EntryTaken.
    """
    taken: dict[str, str] = {}
    for channel, one in show.layers.on.items():
        if not one.checked:
            continue
        by = show.text(f"{one.fitting}/checker")
        socket = preamp_socket(show, channel)
        for what in (f"by {by}", *([socket] if socket else [])):
            if what in taken and not {one.fitting, taken[what]}.isdisjoint(coming):
                name = fitting_name(show, taken[what])
                raise EntryTaken(name, show.text(f"{taken[what]}/checker"), "Choose another.")
            taken[what] = one.fitting
