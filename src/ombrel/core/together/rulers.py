"""DCAs, mute groups, gangs and promises: named and filled; what a strip truly comes to.

A *ruler* is a DCA, a mute group, a gang or a promise, by its address ("dca/3", "promise/1"). A
*member* is a strip or, of a DCA, a DCA: it holds the switch `<member>/<ruler>/on`. DCAs and mute
groups never move their members' faders; what gangs move is told in `carrying`, and what promises
watch in `promises`.
"""

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import COLOURS, Address, Thing, bearing, below, default_of, memberships_in, of_kind
from ..flow import Flow, sources, strip_name
from ..show import Show
from ..values import Asked, NothingLeft, Typed, UnknownAddress, UnreadableText
from ..wires import START_LEVEL_DB, layout_of, stage_of
from .nets import taken_by_rule

__all__ = [
    "Ruled",
    "clear_ruler",
    "clear_solos",
    "closers_of",
    "dcas_of",
    "make_rulers",
    "members_of",
    "membership",
    "mute_all",
    "mutes_for",
    "opened_rulers",
    "ruled",
    "ruled_by_these",
    "ruled_strips",
    "rulers_in_use",
    "silenced_by_solo",
    "soloed",
    "taken_out",
]


RULING: Final = ("dca", "mute_group")  # what changes what a strip truly comes to
_WORDS: Final = {
    "dca": "DCAs", "mute_group": "mute groups", "gang": "gangs", "promise": "promises",
}  # fmt: skip


def _checked(show: Show, ruler: str) -> str:
    at = Thing.at(ruler)
    if at.kind not in _WORDS or not 1 <= at.number <= show.desk.count(at.kind):
        raise UnknownAddress(ruler, "this desk has no such DCA, mute group, gang or promise")
    return ruler


def _may_be_members(show: Show, ruler: str) -> list[str]:
    strips = list(layout_of(show.desk).strips)
    if of_kind(ruler) == "dca":
        strips += [f"dca/{n}" for n in range(1, show.desk.dcas + 1)]
    return strips


def members_of(show: Show, ruler: str) -> list[str]:
    """Strips, then DCAs, that are direct members of a ruler, in the order of the desk."""
    return [one for one in _may_be_members(show, ruler) if f"{one}/{ruler}/on" in show.values]


def rulers_in_use(show: Show, kind: str) -> list[str]:
    """Rulers of a kind ("dca", "mute_group", "gang", "promise") with a name or member, in order."""
    held = {at.target for at in bearing("member", show.values)}
    every = (f"{kind}/{number}" for number in range(1, show.desk.count(kind) + 1))
    return [one for one in every if one in held or f"{one}/name" in show.values]


def dcas_of(show: Show, thing: str) -> dict[str, tuple[str, ...]]:
    """The DCAs that rule a strip or DCA, each once, with the way there from the thing's own.

    The way holds the DCAs passed, the ruling one last; of several ways a shortest.
    """
    found: dict[str, tuple[str, ...]] = {}
    waiting: list[tuple[str, tuple[str, ...]]] = [(thing, ())]
    for at, way in waiting:  # grows as it is walked: breadth first
        for number in range(1, show.desk.dcas + 1):
            dca = f"dca/{number}"
            if dca not in found and show.on(f"{at}/{dca}/on"):
                found[dca] = (*way, dca)
                waiting.append((dca, found[dca]))
    return found


def mutes_for(show: Show, strip: str) -> list[str]:
    """The mute groups that a strip is in, ascending."""
    groups = (f"mute_group/{n}" for n in range(1, show.desk.mute_groups + 1))
    return [group for group in groups if show.on(f"{strip}/{group}/on")]


@dataclass(frozen=True, slots=True, kw_only=True)
class Ruled:
    """What a strip or DCA truly comes to. `by`: the DCAs that rule it, by way of others too.

    `level_db`: its fader and its DCAs together, mutes beside it. `parts`: each DCA that is away
    from 0 dB, with what it adds. `muted`: addresses of all that mutes it (its own key, DCAs, mute
    groups); `hard`: those of mute groups that let nothing out.
    """

    by: tuple[str, ...]
    level_db: float
    parts: tuple[tuple[str, float], ...]
    muted: tuple[str, ...]
    hard: tuple[str, ...]


def ruled(show: Show, thing: str, by: Iterable[str] | None = None) -> Ruled:
    """What a strip or DCA truly comes to, and of what that is made. `by`: the DCAs that rule it,

    where they are known.
    """
    dcas = dcas_of(show, thing) if by is None else by
    groups = [] if of_kind(thing) == "dca" else mutes_for(show, thing)
    muting = [one for one in groups if show.on(f"{one}/on")]
    muted = [f"{thing}/mute"] if show.on(f"{thing}/mute") else []
    muted += [f"{dca}/mute" for dca in dcas if show.on(f"{dca}/mute")]
    levels = {dca: show.number(f"{dca}/fader") for dca in dcas}
    return Ruled(
        by=tuple(dcas),
        level_db=show.number(f"{thing}/fader") + sum(levels.values()),
        parts=tuple((dca, level_db) for dca, level_db in levels.items() if level_db != 0.0),
        muted=(*muted, *(f"{one}/on" for one in muting)),
        hard=tuple(f"{one}/on" for one in muting if show.on(f"{one}/hard")),
    )


def closers_of(show: Show, strip: str) -> set[str]:
    """Addresses of what silences a strip behind its fader besides its own key and fader: mutes and

    faders of DCAs, keys of mute groups. Empty for what nothing rules.
    """
    if strip not in layout_of(show.desk).index:
        return set()
    off = (f"{dca}/fader" for dca in dcas_of(show, strip))
    muted = set(ruled(show, strip).muted) - {f"{strip}/mute"}
    return muted | {address for address in off if show.number(address) == -math.inf}


def opened_rulers(closers: Iterable[str]) -> dict[str, Asked]:
    """Moves that open what these close, as remedies would; a safe key is armed for it."""
    moves: dict[str, Asked] = {}
    for address in closers:
        moves[address] = START_LEVEL_DB if Address.at(address).last == "fader" else False
        if of_kind(address) == "mute_group":
            moves[Address.at(address).beside("safe")] = False
    return moves


def soloed(show: Show) -> list[str]:
    """Strips and DCAs whose solo key is pressed, in the order of the desk, DCAs last."""
    every = [*layout_of(show.desk).strips, *(f"dca/{n}" for n in range(1, show.desk.dcas + 1))]
    return [one for one in every if f"{one}/solo" in show.values]


def silenced_by_solo(show: Show, flow: Flow) -> list[str]:
    """Channels and returns in use that solo in place silences, in the order of the desk."""
    closed = flow.arrays.stage[:, stage_of("solo")] == 0.0
    return [source for source in sources(show) if closed[flow.layout.row(source)]]


def clear_solos(show: Show) -> dict[str, Asked]:
    """Moves that let go of every solo key, and end soloing in place."""
    moves: dict[str, Asked] = {f"{one}/solo": False for one in soloed(show)}
    if show["show/solo"] == "in_place":
        moves["show/solo"] = default_of("show/solo")
    return moves


def ruled_strips(show: Show) -> list[str]:
    """Strips and DCAs that something rules, in the order of the desk, DCAs last."""
    memberships = bearing("member", show.values)
    held = {at.thing for at in memberships if of_kind(at.target) in RULING}
    every = [*layout_of(show.desk).strips, *(f"dca/{n}" for n in range(1, show.desk.dcas + 1))]
    return [one for one in every if one in held]


def ruled_by_these(show: Show, addresses: Iterable[str]) -> list[str] | None:
    """Ruled strips and DCAs whose true level or mutes hang on some addresses; None: all may."""
    addresses = list(addresses)
    in_place = show["show/solo"] == "in_place"
    if any(_bears_on_solo(address, in_place=in_place) for address in addresses):
        return None
    strips: set[str] = set()
    rulers: set[str] = set()
    for at in map(Address.at, addresses):
        if at.bears_on("member") and of_kind(at.target) in RULING:
            return None
        if at.kind in RULING and at.leaf in ("fader", "mute", "on", "hard"):
            rulers.add(at.thing)
        elif at.leaf in ("fader", "mute"):
            strips.add(at.thing)
    strips |= {ruler for ruler in rulers if of_kind(ruler) == "dca"}
    if rulers:
        return [s for s in ruled_strips(show) if s in strips or rulers & _all_of(show, s)]
    return sorted(strip for strip in strips if _all_of(show, strip))


def _bears_on_solo(address: str, *, in_place: bool) -> bool:
    at = Address.at(address)  # what feeds what is soloed is open
    return at.bears_on("solo") or (in_place and at.bears_on("solo_in_place"))


def _all_of(show: Show, thing: str) -> set[str]:
    groups = [] if of_kind(thing) == "dca" else mutes_for(show, thing)
    return {*dcas_of(show, thing), *groups}


# ---- jobs


def make_rulers(show: Show, kind: str, names: Sequence[str]) -> dict[str, Asked]:
    """Moves that name the next free rulers of a kind ("dca", "mute_group", "gang"), in colours.

    Raises UnreadableText for no or an empty name, NothingLeft when the desk has too few.
    """
    plain = [name.strip() for name in names]
    if not plain or not all(plain):
        raise UnreadableText(", ".join(names), "at least one name, and none of them empty")
    used = set(rulers_in_use(show, kind))
    every = (f"{kind}/{number}" for number in range(1, show.desk.count(kind) + 1))
    free = [one for one in every if one not in used]
    if len(free) < len(plain):
        raise NothingLeft(_WORDS[kind], len(plain), len(free))
    worn = Counter(show.text(f"{ruler}/colour") for ruler in used)
    moves: dict[str, Asked] = {}
    for name, ruler in zip(plain, free, strict=False):
        # the colour that fewest wear; what nobody chose a colour for comes last
        colour = min((*COLOURS[1:], COLOURS[0]), key=lambda one: worn[one])
        worn[colour] += 1
        moves[f"{ruler}/name"] = Typed(name)
        moves[f"{ruler}/colour"] = colour
    return moves


def membership(show: Show, ruler: str, members: Iterable[str], *, on: bool) -> dict[str, Asked]:
    """Moves that let members join a ruler, or leave it. Raises UnknownAddress for what cannot."""
    _checked(show, ruler)
    may = set(_may_be_members(show, ruler))
    moves: dict[str, Asked] = {}
    for member in members:
        if member not in may:
            raise UnknownAddress(member, f"it cannot be a member of {strip_name(show, ruler)}")
        moves[f"{member}/{ruler}/on"] = on
    return moves


def clear_ruler(show: Show, ruler: str) -> dict[str, Asked]:
    """Moves that clear all that a ruler is: name, members, parents, mute, level, aspects."""
    _checked(show, ruler)
    addresses = below(ruler, show.values)
    addresses += [at.text for at in memberships_in(ruler, show.values)]
    # a safe group is armed by its being cleared, in the same edit
    return {address: default_of(address) for address in addresses}


def mute_all(show: Show, what: str, *, on: bool | None = None) -> dict[str, Asked]:
    """Moves that make a hard mute group of all "inputs" or of all "ears", safe until it is armed.

    Inputs: the channels that sockets feed, but those of talkback lines. Ears: the mixes that serve
    ears. `on`: it is closed, or opened, whether it is safe or not; made where there is none yet.
    Raises NothingLeft, UnreadableText.
    """
    group = _of_all(show, what)
    if on is None or group is None:
        moves = _made_of_all(show, what)
        return moves if on is None else moves | _turned(_ruler_in(moves), on=on)
    return _turned(group, on=on)


def _turned(group: str, *, on: bool) -> dict[str, Asked]:
    return {f"{group}/safe": False, f"{group}/on": on}


def _ruler_in(moves: Iterable[str]) -> str:
    return Address.at(next(iter(moves))).thing


def _of_all(show: Show, what: str) -> str | None:
    """The first hard mute group that takes all of something, by rule."""
    groups = rulers_in_use(show, "mute_group")
    return next(
        (one for one in groups if show[f"{one}/takes"] == what and show.on(f"{one}/hard")), None
    )


def _made_of_all(show: Show, what: str) -> dict[str, Asked]:
    if what not in ("inputs", "ears"):
        raise UnreadableText(what, '"inputs" or "ears"')
    name, members = f"All {what}", taken_by_rule(show, what)
    if not members:
        raise NothingLeft("channels with a socket" if what == "inputs" else "ears", 1, 0)
    moves = make_rulers(show, "mute_group", [name])
    group = _ruler_in(moves)
    moves |= {f"{group}/hard": True, f"{group}/safe": True, f"{group}/colour": "coral"}
    moves[f"{group}/takes"] = what  # what comes later is in it too
    return moves | membership(show, group, members, on=True)


def taken_out(show: Show, ruler: str, strip: str) -> dict[str, Asked]:
    """Moves that take a strip out of a ruler: the memberships of its own that lead there."""
    if of_kind(ruler) == "mute_group":
        return {f"{strip}/{ruler}/on": False}
    direct = [d for d, way in dcas_of(show, strip).items() if len(way) == 1]
    leading = [d for d in direct if d == ruler or ruler in dcas_of(show, d)]
    return {f"{strip}/{dca}/on": False for dca in leading}
