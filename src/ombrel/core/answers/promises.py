"""Promises: what must hold of who reaches whom, kept in the show and proven after every edit.

A promise is "never" ("the click never reaches the stream"), "only through" ("the band goes to the
house only through Band") or "all but" ("the caller's mix has all that the house has but the
caller"). Its members are strips: channels, returns and groups are its sources;
house, mono, mixes and matrices are where it looks. It is broken while any way leads there through
feeds that are on, whatever mutes and faders do: one press would be heard. Ways through effects
count, unless it says that they do not (a voice through a group whose reverb comes by its own way).
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import SENDERS, SOURCES, Address, bearing, bears, of_kind, strips_of
from ..edit import check_edit, made
from ..flow import Bypass, Bypasses, Flow, feeds_back, flow_of, same_ways, strip_name
from ..show import Show, check_made
from ..together import (
    clear_ruler,
    groups_behind,
    is_fed_by_a_bus,
    members_of,
    membership,
    programme,
    rulers_in_use,
    sent,
)
from ..values import Asked, ConsoleError, NothingLeft, Typed, UnreadableText
from .reason import Remedy

__all__ = [
    "Breach",
    "Judged",
    "bears_on_promises",
    "judged",
    "make_promise",
    "mended",
    "newly_broken",
    "promise_moves",
    "promises",
]

_ROUNDS: Final = 12  # of mending: what one remedy uncovers the next one closes


@dataclass(frozen=True, slots=True, kw_only=True)
class Breach:
    """One way by which a promise is broken. `remedies`: what would close it, the best first.

    `open`: nothing is closed on it now. `feeds`: addresses of the feeds that it takes.
    """

    source: str
    listener: str
    says: str
    strips: tuple[str, ...]
    feeds: tuple[str, ...]
    open: bool
    remedies: tuple[Remedy, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """A promise, and what breaks it. `says`: the promise in words; `vain`: why it holds nothing

    ("" for one that does). `passing`: how many of its sources arrive as it has them.
    """

    promise: str
    says: str
    vain: str
    passing: int
    breaches: tuple[Breach, ...]

    @property
    def kept(self) -> bool:
        return not self.breaches


def promises(show: Show, flow: Flow) -> tuple[Judged, ...]:
    """Every promise of a show, in order, judged."""
    return tuple(judged(show, flow, one) for one in rulers_in_use(show, "promise"))


def judged(show: Show, flow: Flow, promise: str) -> Judged:
    """One promise, judged. Raises UnknownAddress."""
    members = members_of(show, promise)
    sources = [one for one in members if of_kind(one) in SENDERS]
    listeners = [one for one in members if one not in sources]
    if show[f"{promise}/kind"] == "all_but":  # what a mix has is asked of mixes that there are
        listeners = [one for one in listeners if one in show.in_use("mix")]
    through = show[f"{promise}/through"] if show[f"{promise}/kind"] == "only_through" else None
    where = " or ".join(strip_name(show, one) for one in listeners) or "nowhere"
    what = show.text(f"{promise}/name") or _listed(show, sources)
    if show[f"{promise}/kind"] == "all_but":
        says = f"{where}: all that the house has but {_listed(show, sources)}"
    elif show[f"{promise}/kind"] == "never":
        says = f"{what}: never in {where}"
    else:
        says = f"{what}: in {where} only through {_named(show, through)}"
    vain = ""
    if not sources or not listeners:
        vain = "Choose what it is about." if not sources else "Choose where it must not arrive."
    elif show[f"{promise}/kind"] == "only_through" and not isinstance(through, str):
        vain = "Choose the group that it goes through."
    breaches: list[Breach] = []
    passing, howls = 0, feeds_back(show)
    for listener in listeners if not vain else ():
        around = (through,) if isinstance(through, str) else ()
        wet = show.on(f"{promise}/wet")
        bypasses = Bypasses(flow, listener, around, wet=wet)
        every = Bypasses(flow, listener, wet=wet) if around else bypasses
        for source in sources:
            if source in around:
                continue
            bypass = bypasses.of(source)
            if bypass is not None:
                breaches.append(_breach(show, flow, promise, bypass, around, sources, howls=howls))
            elif around and every.of(source) is not None:
                passing += 1
        if show[f"{promise}/kind"] == "all_but":
            lacking, has = _lacking(show, flow, listener, sources, wet=wet)
            breaches += lacking
            passing += has
    return Judged(promise=promise, says=says, vain=vain, passing=passing, breaches=tuple(breaches))


def _named(show: Show, through: object) -> str:
    return strip_name(show, through) if isinstance(through, str) else "a group"


def _listed(show: Show, sources: Sequence[str], most: int = 3) -> str:
    names = [strip_name(show, one) for one in sources[:most]]
    more = len(sources) - len(names)
    return ", ".join(names) + (f" and {more} more" if more > 0 else "") or "Nothing"


def _breach(
    show: Show,
    flow: Flow,
    promise: str,
    bypass: Bypass,
    around: tuple[str, ...],
    sources: Sequence[str],
    *,
    howls: bool,
) -> Breach:
    """`sources`: of the promise. `howls`: there can be loops, which a remedy might close."""
    source, listener = bypass.strips[0], bypass.strips[-1]
    # an effect's mix and its return are often called alike
    by = list(dict.fromkeys(strip_name(show, one) for one in bypass.strips[1:-1]))
    way = f"by {' and '.join(by)}" if by else "directly"
    says = f"{strip_name(show, source)} reaches {strip_name(show, listener)} {way}"
    says += f", past {strip_name(show, around[0])}." if around else "."
    if not bypass.open:
        says += " Something on the way is shut now."
    remedies = _led_through(show, bypass, around[0], sources) if around else _cut(show, bypass)
    if around and bypass.wet:
        remedies += (Remedy(says="Let effects pass it", moves={f"{promise}/wet": False}),)
    return Breach(
        source=source,
        listener=listener,
        says=says,
        strips=bypass.strips,
        feeds=tuple(feed for feed in bypass.feeds if feed),
        open=bypass.open,
        remedies=tuple(r for r in remedies if not howls or _taken(show, flow, r)),
    )


def _lacking(
    show: Show, flow: Flow, listener: str, exceptions: Sequence[str], *, wet: bool
) -> tuple[list[Breach], int]:
    """What a listener lacks of all that the house has, and how many it has."""
    bypasses, found, has = Bypasses(flow, listener, wet=False), [], 0
    for source in programme(show):
        if source in exceptions:
            continue
        if bypasses.of(source) is not None:
            has += 1
            continue
        name, where = strip_name(show, source), strip_name(show, listener)
        send = f"{source}/send/{listener}"
        remedy = Remedy(says=f"Send {name} to {where}", moves=sent(show, [source], listener))
        why_not = ""
        if is_fed_by_a_bus(show, source):
            why_not = _why_not_sent(show, flow, source, remedy, exceptions, wet=wet)
        found.append(
            Breach(
                source=source,
                listener=listener,
                says=f"{where} does not have {name}.{why_not and ' '}{why_not}",
                strips=(source, listener),
                feeds=(f"{send}/on", f"{send}/level"),
                open=True,
                remedies=() if why_not else (remedy,),
            )
        )
    return found, has


def _why_not_sent(
    show: Show, flow: Flow, source: str, remedy: Remedy, exceptions: Sequence[str], *, wet: bool
) -> str:
    """Why what a bus feeds cannot be sent where it lacks; "" where it can."""
    ways = Bypasses(flow, source, wet=wet)
    for one in exceptions:
        if ways.of(one) is not None:
            return f"Sent there it would bring {strip_name(show, one)} along."
    return "" if _taken(show, flow, remedy) else "Sent there it would feed back."


def _off(show: Show, bypass: Bypass, place: int) -> Remedy:
    one, other = bypass.strips[place : place + 2]
    says = f"Take {strip_name(show, one)} out of {strip_name(show, other)}"
    return Remedy(says=says, moves={bypass.feeds[place]: False})


def _cut(show: Show, bypass: Bypass) -> tuple[Remedy, ...]:
    """The source's own feed first; but what performers hear stays, and the last feed goes."""
    steps = [place for place, feed in enumerate(bypass.feeds) if feed]
    first, last = _off(show, bypass, steps[0]), _off(show, bypass, steps[-1])
    if steps[0] == steps[-1]:
        return (first,)
    after = bypass.strips[steps[0] + 1]
    heard = of_kind(after) == "mix" and show[f"{after}/serves"] != "effect"
    return (last, first) if heard else (first, last)


def _led_through(
    show: Show, bypass: Bypass, group: str, sources: Sequence[str]
) -> tuple[Remedy, ...]:
    """The last channel or return of the way goes through the group instead; or the last group, and

    that first where nobody is led through with it that the promise does not name.
    """
    rows = [p for p, strip in enumerate(bypass.strips) if of_kind(strip) in SOURCES]
    if not rows or of_kind(bypass.strips[rows[-1] + 1]) == "mix":
        steps = [place for place, feed in enumerate(bypass.feeds) if feed]
        return (_off(show, bypass, rows[-1] if rows else steps[-1]),)
    found = (_put_into(show, bypass, rows[-1], group), _off(show, bypass, rows[-1]))
    last = bypass.strips[-2]
    if of_kind(last) != "group" or last in (group, *groups_behind(show, group)):
        return found
    whole = _put_into(show, bypass, len(bypass.strips) - 2, group)
    every = strips_of(show.desk, *SENDERS)
    alone = all(one in sources for one in every if one != last and show.on(f"{one}/{last}/on"))
    return (whole, *found) if alone else (*found, whole)


def _put_into(show: Show, bypass: Bypass, at: int, group: str) -> Remedy:
    """A strip of the way goes into a group instead of where it goes."""
    strip, listener = bypass.strips[at], bypass.strips[-1]
    moves: dict[str, Asked] = {bypass.feeds[at]: False, f"{strip}/{group}/on": True}
    if show.number(f"{strip}/{group}/level") == -math.inf:
        moves[f"{strip}/{group}/level"] = 0.0
    if listener in ("house", "mono"):
        moves[f"{group}/{listener}/on"] = True
    name, instead = strip_name(show, strip), strip_name(show, bypass.strips[at + 1])
    if show.on(f"{strip}/{group}/on"):
        says = f"Take {name} out of {instead}: it goes by {strip_name(show, group)}"
    else:
        says = f"Put {name} into {strip_name(show, group)} instead of {instead}"
    return Remedy(says=says, moves=moves)


def _taken(show: Show, flow: Flow, remedy: Remedy) -> bool:
    """Whether a remedy would be taken: it may close a loop elsewhere."""
    try:
        check_edit(show, flow, remedy.moves)
    except ConsoleError:
        return False
    return True


def mended(show: Show, flow: Flow, promise: str) -> dict[str, Asked]:
    """Moves that close every way by which a promise is broken, as far as that can be done.

    What a remedy uncovers is closed too. Raises NotThere.
    """
    check_made(show, promise)
    moves: dict[str, Asked] = {}
    now, its_flow = show, flow
    for _ in range(_ROUNDS):
        breaches = judged(now, its_flow, promise).breaches
        ways = [breach.remedies[0].moves for breach in breaches if breach.remedies]
        fresh = _as_many(now, its_flow, {}, ways)
        if not fresh:
            break
        moves |= fresh
        now = made(show, moves)[0]
        its_flow = flow_of(now)
    return moves


def _as_many(
    show: Show, flow: Flow, taken: dict[str, Asked], ways: Sequence[Mapping[str, Asked]]
) -> dict[str, Asked]:
    """As many of the ways, on top of what is taken, as can be taken together: each closes no loop,

    yet two may. By halves, since of many that are refused mostly few are why.
    """
    together = taken | {a: asked for moves in ways for a, asked in moves.items()}
    if not ways or _taken(show, flow, Remedy(says="", moves=together)):
        return together
    if len(ways) == 1:
        return taken
    half = len(ways) // 2
    return _as_many(show, flow, _as_many(show, flow, taken, ways[:half]), ways[half:])


def newly_broken(before: Show, flow: Flow, after: Show, its_flow: Flow) -> tuple[str, ...]:
    """Promises in words that an edit breaks, or by one more way: each with the first such."""
    if not rulers_in_use(after, "promise") or (
        same_ways(flow, its_flow) and not _moves_promises(before, after)
    ):
        return ()
    watched = [one for one in promises(before, flow) if not one.vain]
    broken = {(one.promise, by.source, by.listener) for one in watched for by in one.breaches}
    found = []
    for one in promises(after, its_flow):
        new = [by for by in one.breaches if (one.promise, by.source, by.listener) not in broken]
        if new and any(one.promise == before_it.promise for before_it in watched):
            found.append(f"{one.says}: {new[0].says}")
    return tuple(found)


def _moves_promises(before: Show, after: Show) -> bool:
    def of(show: Show) -> dict[str, object]:
        return {at.text: show.values[at.text] for at in bearing("promised", show.values)}

    return of(before) != of(after)


def bears_on_promises(addresses: Iterable[str], before: Flow, after: Flow) -> bool:
    """Whether a change at some addresses can break a promise or mend it."""
    if bears("promises", addresses):
        return True
    return not same_ways(before, after)


def make_promise(
    show: Show,
    *,
    sources: Sequence[str],
    listeners: Sequence[str],
    through: str | None = None,
    name: str = "",
    takes: str = "chosen",
) -> dict[str, Asked]:
    """Moves that keep a promise: sources reach listeners only through a group, or (None) never.

    `takes`: what joins the sources by itself when it comes later (see `nets`). Takes the next one
    that is free. Raises NothingLeft, UnknownAddress; UnreadableText for a strip that cannot be on
    that side of a promise.
    """
    for one in sources:
        if of_kind(one) not in SENDERS:
            raise UnreadableText(one, "channels, returns or groups as what it is about")
    for one in listeners:
        if of_kind(one) in SENDERS:
            raise UnreadableText(one, "the house, mono, mixes or matrices as where it arrives")
    if not sources or not listeners:
        raise UnreadableText("", "what the promise is about, and where it is to look")
    kind = "only_through" if through else "never"
    title = name or _listed(show, sources)[:60]
    moves = promise_moves(show, [*sources, *listeners], kind=kind, name=title, through=through)
    promise = next(Address.at(a).thing for a in moves if Address.at(a).leaf == "kind")
    return moves | {f"{promise}/takes": takes}


def promise_moves(
    show: Show, members: Sequence[str], *, kind: str, name: str, through: str | None = None
) -> dict[str, Asked]:
    """Moves that keep a promise of a kind about some strips, the next one that is free.

    Raises NothingLeft.
    """
    used = set(rulers_in_use(show, "promise"))
    every = (f"promise/{n}" for n in range(1, show.desk.count("promise") + 1))
    promise = next((one for one in every if one not in used), None)
    if promise is None:
        raise NothingLeft("promises", 1, 0)
    moves = clear_ruler(show, promise) | membership(show, promise, members, on=True)
    moves |= {f"{promise}/name": Typed(name), f"{promise}/kind": kind}
    return moves | ({f"{promise}/through": through} if through else {})
