"""The merge itself, and what is told of each draft."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from ..catalogue import CATALOGUE, of_kind
from ..edit import strips_in
from ..patching import LINE_FIELDS, LineDraft, left_behind, remove_lines
from ..show import Show, socket_name
from ..together import leaving_as_it_is
from ..values import Asked, bare, in_sentence, said
from .matching import lines_of_drafts
from .matching import matched as matched_lines
from .placing import is_even_pair, place_lines, settled
from .work import SIDES, Ways, Work
from .writing import write_lines

__all__ = ["Fate", "Merge", "merge"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Fate:
    """What becomes of one draft: the number of its line, and "new", "changed" or "same".

    `changes`: what changes, in words. `channels`: where it lands (0: a side that gets none).
    `told`: what to know before it is taken.
    """

    line: int
    state: Literal["new", "changed", "same"]
    changes: tuple[str, ...] = ()
    channels: tuple[int, ...] = ()
    sockets: tuple[str, ...] = ()
    told: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Merge:
    """A list laid against a show: the fate of each draft, lines that the list no longer names

    (`gone`), those of them that leave, what the leaving become, in words by line, and the moves
    of all that as one edit. `ways`: as they were settled. `unpatched`: drafts without a channel.
    The moves are of own values; `renumbered`: the numbers that they give strips (see `renaming`).
    """

    ways: Ways
    fates: tuple[Fate, ...]
    gone: tuple[int, ...]
    leaving: Mapping[int, str]
    unpatched: tuple[int, ...]
    even_pairs: int
    moves: Mapping[str, Asked] = field(repr=False)
    renumbered: Mapping[str, str | None] = field(default_factory=dict)


def merge(show: Show, drafts: Sequence[LineDraft], ways: Ways) -> Merge:
    """Lay a list against a show. Nothing is changed; `moves` is the edit that takes it.

    Raises NothingLeft when the show would hold too many lines.
    """
    known = show.lines()
    matched, newer = matched_lines(show, drafts)
    gone = tuple(line for line in known if line not in set(matched.values()))
    if ways.leaving is None:
        ways = replace(ways, leaving=frozenset(gone) if newer else frozenset())
    leaving = tuple(line for line in gone if line in (ways.leaving or ()))
    lines = lines_of_drafts(show, len(drafts), matched)
    work = Work(show, drafts, lines, [[] for _ in drafts])
    work.read_channels()
    held_by = {n: line for line in known for n in work.channels_of(line) if n}
    words = {line: left_behind(show, line, free=ways.patch) for line in leaving}
    before = {line: work.channels_of(line) for line in set(matched.values())}
    work.put(remove_lines(show, leaving, free=ways.patch))
    write_lines(work, matched)
    unpatched: tuple[int, ...] = ()
    even_pairs = sum(is_even_pair(draft) for draft in drafts)
    if ways.patch:
        ways = settled(work, ways, before)
        unpatched = place_lines(work, ways, before, held_by)
    moves = _differing(show, work.show)
    moves |= _as_they_were(show, moves, work.renumbered)
    work.read_channels()
    fates = tuple(
        _fate(show, work, turn, line, matched.get(turn) is not None, before)
        for turn, line in enumerate(lines)
    )
    return Merge(
        ways=ways,
        fates=fates,
        gone=gone,
        leaving=words,
        unpatched=unpatched,
        even_pairs=even_pairs,
        moves=moves,
        renumbered=work.renumbered,
    )


def _as_they_were(
    show: Show, moves: Mapping[str, Asked], renumbered: Mapping[str, str | None]
) -> dict[str, Asked]:
    """Of strips that got other numbers, what nobody joins by that."""
    there = {new for new in renumbered.values() if new is not None}
    beside = leaving_as_it_is(show, moves).items()
    return {a: v for a, v in beside if a not in moves and not there.isdisjoint(strips_in(a))}


def _differing(before: Show, after: Show) -> dict[str, Asked]:
    """The own values that differ: whoever is on a channel keeps what is theirs."""
    found: dict[str, Asked] = {}
    for address in set(before.own) | set(after.own):
        if before.own_value(address) != after.own_value(address):
            found[address] = after.own_value(address)
    return dict(sorted(found.items()))


def _fate(
    show: Show,
    work: Work,
    turn: int,
    line: int,
    known: bool,
    before: Mapping[int, tuple[int, ...]],
) -> Fate:
    channels = work.channels_of(line)
    sockets = tuple(str(work.show[f"line/{line}/{side}"] or "") for side in SIDES)
    sockets = sockets[: len(channels)]
    told = tuple(work.told[turn])
    if not known:
        return Fate(line=line, state="new", channels=channels, sockets=sockets, told=told)
    changes = []
    for name in LINE_FIELDS:
        address = f"line/{line}/{name}"
        if show[address] != work.show[address] and name != "place":
            label = in_sentence(CATALOGUE[f"line/<line>/{name}"].label)
            changes.append(f"{label} {_shown(show, address)} \u2192 {_shown(work.show, address)}")
    old = before.get(line, ())
    if any(channels) and old != channels:
        was = "/".join(str(n) for n in old if n) or "none"
        now = "/".join(str(n) for n in channels if n)
        changes.append(
            f"channel {was} \u2192 {now}, with its fader and sends"
            if any(old)
            else f"channel {now}"
        )
    return Fate(
        line=line,
        state="changed" if changes else "same",
        changes=tuple(changes),
        channels=channels,
        sockets=sockets,
        told=told,
    )


def _shown(show: Show, address: str) -> str:
    value = show[address]
    if isinstance(value, str) and of_kind(value) == "input":
        return socket_name(show.desk, value)
    if isinstance(value, bool):
        return "on" if value else "off"
    if isinstance(value, float):
        return bare(said(value, 3))
    return str(value or "none").replace("_", " ")
