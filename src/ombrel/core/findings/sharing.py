"""Groups that share one gain and will not do what was meant."""

import math
from collections import Counter
from collections.abc import Iterable, Iterator
from functools import cached_property
from typing import Final

from ..catalogue import Thing, of_kind, thing_of
from ..flow import listener_name, listeners, strip_name
from ..sharing import Sharing, chairs_in_vain, reaches, sharings
from ..show import Show, lines_on
from ..together import ruled
from ..values import Asked, bare, said
from .rule import Finding, Look

__all__ = [
    "chair_never_wins",
    "gate_where_gain_is_shared",
    "group_of_one",
    "held_open_and_silent",
    "limit_in_vain",
    "music_shares_gain",
    "shared_apart",
    "taken_before_it_is_shared",
]

_MUSIC: Final = ("drums", "bass", "strings", "keys", "brass", "playback")
_OWN_EARS: Final = ("ears", "wedge", "effect")  # a mix that hears a microphone as it is by intent
_NAMED: Final = 3


class _Places:
    """Whom the members of a group reach, with their gain shared and from before."""

    def __init__(self, look: Look, group: Sharing) -> None:
        self._look, self.group = look, group

    @cached_property
    def of(self) -> dict[str, tuple[frozenset[str], frozenset[str]]]:
        """By member: where it arrives shared, and where as it is; a pair by both its sides."""
        sides = [side for one in self.group.members for side in one.sides]
        every = reaches(
            self._look.show, self._look.flow, sides, before_fader=self.group.before_fader
        )
        return {
            one.strip: (
                frozenset().union(*(every[side].shared for side in one.sides)),
                frozenset().union(*(every[side].plain for side in one.sides)),
            )
            for one in self.group.members
        }


def _named(show: Show, some: Iterable[str]) -> str:
    there = set(some)
    names = [listener_name(show, one) for one in listeners(show) if one in there]
    more = len(names) - _NAMED
    return f"{', '.join(names[:_NAMED])} and {more} more" if more > 1 else " and ".join(names)


def shared_apart(look: Look) -> Iterator[Finding]:
    """A member that reaches other places than the rest: there the sum is not as of one."""
    for group in sharings(look.show):
        if len(group.members) < 2:
            continue
        places = {strip: shared for strip, (shared, _) in _Places(look, group).of.items()}
        usual = Counter(places.values()).most_common(1)[0][0]
        for one in group.members:
            beyond, lacking = places[one.strip] - usual, usual - places[one.strip]
            parts = [f"reaches {_named(look.show, beyond)}, the rest do not"] if beyond else []
            if lacking:
                parts.append(f"does not reach {_named(look.show, lacking)}, where the rest do")
            if parts:
                yield Finding(
                    rule="shared_apart",
                    tone="note",
                    says=f"{one.name} shares gain in {group.name} and {' and '.join(parts)}.",
                    about=one.strip,
                )


def taken_before_it_is_shared(look: Look) -> Iterator[Finding]:
    """A bus for others than performers that takes members before they share their gain."""
    show = look.show
    for group in sharings(show):
        plain = {one for _, before in _Places(look, group).of.values() for one in before}
        heard = [one for one in listeners(show) if one in plain and not _is_own_ear(show, one)]
        if heard and len(group.members) > 1:
            verb = "take" if len(heard) > 1 else "takes"
            yield Finding(
                rule="taken_before_it_is_shared",
                tone="note",
                says=f"{_named(show, heard)} {verb} members of {group.name} before they share"
                " their gain: there all are open at once.",
                about=group.group,
            )


def _is_own_ear(show: Show, listener: str) -> bool:
    kind = of_kind(listener)
    return kind == "output" or (kind == "mix" and show[f"{listener}/serves"] in _OWN_EARS)


def _without(strip: str) -> dict[str, Asked]:
    return {f"{strip}/sharing/group": None}


def music_shares_gain(look: Look) -> Iterator[Finding]:
    """A line of music or playback among those that share: it never pauses, and never yields."""
    show = look.show
    for group in sharings(show):
        for one in group.members:
            line = next(iter(_lines_of(show, one.strip)), None)
            family = show.text(f"line/{line}/family") if line else ""
            if family in _MUSIC:
                yield Finding(
                    rule="music_shares_gain",
                    tone="settle",
                    says=f"{one.name} is of {family}, and shares gain in {group.name}: it sounds"
                    " through, and turns whoever speaks down.",
                    about=one.strip,
                    remedy=f"Take {one.name} out of {group.name}",
                    moves=_without(one.strip),
                )


def _lines_of(show: Show, strip: str) -> list[int]:
    channel = of_kind(strip) == "channel"
    source = show.source_of(Thing.at(strip).number) if channel else None
    return lines_on(show, source) if source else []


def gate_where_gain_is_shared(look: Look) -> Iterator[Finding]:
    """A gate in a member, or a compressor that another strip opens: both turn it down by turns."""
    show = look.show
    for group in sharings(show):
        for one in group.members:
            keyed = show[f"{one.strip}/compressor/key"]
            if isinstance(keyed, str) and show.on(f"{one.strip}/compressor/on"):
                yield Finding(
                    rule="gate_where_gain_is_shared",
                    tone="note",
                    says=f"{one.name} shares gain in {group.name}, and {strip_name(show, keyed)}"
                    " turns its compressor down: the others rise with that.",
                    about=one.strip,
                    remedy=f"Let {one.name} turn its compressor down itself",
                    moves={f"{one.strip}/compressor/key": None},
                )
            if of_kind(one.strip) != "channel" or not show.on(f"{one.strip}/gate/on"):
                continue
            key = show[f"{one.strip}/gate/key"]
            by = f", opened by {strip_name(show, key)}" if isinstance(key, str) else ""
            yield Finding(
                rule="gate_where_gain_is_shared",
                tone="note",
                says=f"{one.name} shares gain in {group.name} and has a gate{by}: what the gate"
                " takes away lets the others rise, and speech begins late.",
                about=one.strip,
                remedy=f"Switch the gate of {one.name} off",
                moves={f"{one.strip}/gate/on": False},
            )


def held_open_and_silent(look: Look) -> Iterator[Finding]:
    """Held open, and muted by a DCA or mute group all the same."""
    show = look.show
    for group in sharings(show):
        for one in group.members:
            by = [thing_of(a) for a in ruled(show, one.strip).muted if thing_of(a) != one.strip]
            if one.held and not one.out and by:
                names = ", ".join(strip_name(show, ruler) for ruler in by)
                yield Finding(
                    rule="held_open_and_silent",
                    tone="note",
                    says=f"{one.name} is held open in {group.name}, and muted by {names}.",
                    about=one.strip,
                )


def group_of_one(look: Look) -> Iterator[Finding]:
    """Who is alone in a group has nobody to share with."""
    for group in sharings(look.show):
        if len(group.members) == 1:
            one = group.members[0]
            yield Finding(
                rule="group_of_one",
                tone="note",
                says=f"{one.name} is alone in {group.name}: it shares its gain with nobody.",
                about=group.group,
                remedy=f"Take {one.name} out of {group.name}",
                moves=_without(one.strip),
            )


def limit_in_vain(look: Look) -> Iterator[Finding]:
    """A limit that leaves so many open that nobody yields: at or above -10 log10 n."""
    for group in sharings(look.show):
        many = len([one for one in group.members if not one.held and not one.out])
        if many < 2 or group.limit_db < -10.0 * math.log10(many) - 1e-9:
            continue
        limit = said(group.limit_db)
        yield Finding(
            rule="limit_in_vain",
            tone="note",
            says=f"The limit of {group.name}, {limit} dB, is no lower than the share of {many} that"
            " are equally loud: it takes the point away.",
            about=group.group,
            remedy="Take the limit away",
            moves={f"{group.group}/limit": -math.inf},
        )


def chair_never_wins(look: Look) -> Iterator[Finding]:
    """Who weighs most, and is drowned at the levels expected all the same."""
    show = look.show
    for chair in chairs_in_vain(show, look.flow):
        name, group = strip_name(show, chair.strip), strip_name(show, chair.group)
        needs = math.ceil(chair.needs_db * 10.0 - 1e-6) / 10.0 + 0.1
        can = needs <= 20.0
        yield Finding(
            rule="chair_never_wins",
            tone="note",
            says=f"{name} weighs most in {group}, and does not win when all speak as expected: it"
            f" would need more than {said(chair.needs_db, signed=True)} dB.",
            about=chair.strip,
            remedy=f"Give {name} {bare(said(needs, signed=True))} dB" if can else "",
            moves={f"{chair.strip}/sharing/weight": round(needs, 1)} if can else {},
        )
