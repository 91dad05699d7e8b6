"""DCAs, mute groups and gangs that are likely not what was meant."""

from collections.abc import Iterator, Sequence
from functools import lru_cache

from ..catalogue import GANG_ASPECTS, Address, Thing, entries_of, named_kind, of_kind
from ..flow import behind_faders, strip_name
from ..show import Show
from ..together import member_for, members_of, ruled, rulers_in_use
from .rule import Finding, Look

__all__ = [
    "empty_dca",
    "gang_in_vain",
    "ruled_twice",
    "silenced_thrice",
    "talkback_shut",
    "twice_on_a_way",
]

_MANY = 3  # causes beside one another, past which somebody will look for the wrong one


def empty_dca(look: Look) -> Iterator[Finding]:
    """A DCA with a name and no member moves nothing."""
    show = look.show
    for dca in rulers_in_use(show, "dca"):
        if not members_of(show, dca):
            says = f"The DCA {strip_name(show, dca)} has no members: it moves nothing."
            yield Finding(rule="empty_dca", tone="note", says=says, about=dca)


def ruled_twice(look: Look) -> Iterator[Finding]:
    """A member of two DCAs of which one holds the other: it is ruled once, which may surprise."""
    show = look.show
    for strip, reached in look.dcas.items():
        direct = [dca for dca, way in reached.items() if len(way) == 1]
        for outer in direct:
            inner = [one for one in direct if one != outer and outer in look.dcas.get(one, ())]
            if inner:
                name, by = strip_name(show, strip), strip_name(show, outer)
                says = (
                    f"{name} is in {by}, and in {strip_name(show, inner[0])}, which {by} holds:"
                    f" {by} counts once."
                )
                yield Finding(
                    rule="ruled_twice",
                    tone="note",
                    says=says,
                    about=strip,
                    remedy=f"Take {name} out of {by}, which rules it all the same",
                    moves={f"{strip}/{outer}/on": False},
                )


def twice_on_a_way(look: Look) -> Iterator[Finding]:
    """What passes two members of one DCA on one way moves by it twice: a channel and its group, a

    singer and the return of their reverb.
    """
    show, layout = look.show, look.flow.layout
    held: dict[str, list[str]] = {dca: [] for dca in rulers_in_use(show, "dca")}
    for strip, by_dcas in look.dcas.items():
        for dca in by_dcas if of_kind(strip) != "dca" else ():
            held[dca].append(strip)
    if not any(len(members) > 1 for members in held.values()):
        return
    behind = behind_faders(look.flow)
    for dca, members in held.items():
        places = [layout.index[one] for one in members]
        for strip, place in zip(members, places, strict=True):
            through = [one for one, at in zip(members, places, strict=True) if behind[at, place]]
            if not through or place < layout.channels:
                continue
            names = [strip_name(show, one) for one in through]
            more = f" and {len(names) - 2} more" if len(names) > 2 else ""
            by = strip_name(show, dca)
            goes = "goes" if len(names) == 1 else "go"
            says = (
                f"{', '.join(names[:2])}{more} {goes} through {strip_name(show, strip)}, and {by}"
                f" holds both: 1 dB of it is 2 dB there."
            )
            yield Finding(rule="twice_on_a_way", tone="note", says=says, about=dca)


def talkback_shut(look: Look) -> Iterator[Finding]:
    """Talkback in a hard mute group: when it is on, nobody can be talked to."""
    show = look.show
    talking = {n for n in look.lines if show[f"line/{n}/kind"] == "talkback"}
    sockets = {show[f"line/{n}/socket"] for n in talking} - {None}
    for number in show.channels():
        source, strip = show.source_of(number), f"channel/{number}"
        if source != "talkback" and source not in sockets:
            continue
        for group in rulers_in_use(show, "mute_group"):
            if show.on(f"{group}/hard") and show.on(f"{strip}/{group}/on"):
                name, by = strip_name(show, strip), strip_name(show, group)
                yield Finding(
                    rule="talkback_shut",
                    tone="note",
                    says=f"{name} is talkback, and the seal {by} shuts it too.",
                    about=strip,
                    remedy=f"Take {name} out of {by}",
                    moves={f"{strip}/{group}/on": False},
                )


def silenced_thrice(look: Look) -> Iterator[Finding]:
    """A strip that several things mute at once: to open one opens nothing."""
    show = look.show
    for strip, dcas in look.dcas.items():
        muted = ruled(show, strip, dcas).muted
        if len(muted) >= _MANY and of_kind(strip) != "dca":
            own = [address for address in muted if address == f"{strip}/mute"]
            by = [strip_name(show, Address.at(a).stem) for a in muted if a not in own]
            words = ", ".join([*(["its own key"] if own else []), *by])
            says = f"{strip_name(show, strip)} is muted by {len(muted)} things at once: {words}."
            yield Finding(rule="silenced_thrice", tone="note", says=says, about=strip)


def gang_in_vain(look: Look) -> Iterator[Finding]:
    """A gang whose members have nothing in common of what it carries: nothing follows anything."""
    show = look.show
    for gang in rulers_in_use(show, "gang"):
        members, name = members_of(show, gang), strip_name(show, gang)
        aspects = [one for one in GANG_ASPECTS if show.on(f"{gang}/carries_{one}")]
        if not members:
            says = f"The gang {name} has no members: nothing moves by it."
        elif len({member_for(show, member) for member in members}) == 1:
            says = f"The gang {name} has one member alone: nothing moves with it."
        elif not aspects:
            says = f"The gang {name} carries nothing: choose in what its members move together."
        elif not any(_in_common(show, members, aspect) for aspect in aspects):
            words = ", ".join(GANG_ASPECTS[one].lower() for one in aspects)
            says = f"The members of the gang {name} share nothing of what it carries ({words})."
        else:
            continue
        yield Finding(rule="gang_in_vain", tone="note", says=says, about=gang)


def _in_common(show: Show, members: Sequence[str], aspect: str) -> bool:
    """Whether two of the members have an address in common that belongs to an aspect."""
    if aspect == "gain":
        channels = [one for one in members if of_kind(one) == "channel"]
        sockets = {show.source_of(Thing.at(one).number) for one in channels}
        return len([one for one in sockets if named_kind(one) == "input"]) > 1
    leaves = [_leaves(of_kind(member), aspect) for member in members]
    return any(one & other for place, one in enumerate(leaves) for other in leaves[:place])


@lru_cache(maxsize=128)
def _leaves(kind: str, aspect: str) -> frozenset[str]:
    """What strips of a kind have of an aspect, as keys below the strip."""
    return frozenset(leaf for leaf, entry in entries_of(kind) if entry.gang == aspect)
