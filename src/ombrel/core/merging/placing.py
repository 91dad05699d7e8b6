"""Channels for the lines of a list: numbered ones theirs, the rest in order, as many as fit."""

from collections.abc import Mapping
from dataclasses import replace

from ..catalogue import CATALOGUE, Thing
from ..edit import renamed
from ..patching import LineDraft, inputs_in_order, strip_of_line
from ..show import Show, above
from ..together import netted
from ..values import Asked
from .work import SIDES, Ways, Work

__all__ = ["is_even_pair", "place_lines", "settled"]


def settled(work: Work, ways: Ways, before: Mapping[int, tuple[int, ...]]) -> Ways:
    """The ways with it decided whether numbers count: if the list has some, and nobody else's."""
    if ways.numbered is not None:
        return ways
    has = [draft.channel for draft in work.drafts if draft.channel]
    own = {number for channels in before.values() for number in channels}
    held = set(work.show.channels()) - own
    return replace(ways, numbered=bool(has) and not held & set(has))


def is_even_pair(draft: LineDraft) -> bool:
    """Whether a list puts a stereo line on an even channel and the odd one above it."""
    return bool(draft.stereo and draft.channel and draft.channel % 2 == 0)


def place_lines(
    work: Work,
    ways: Ways,
    before: Mapping[int, tuple[int, ...]],
    held_by: Mapping[int, int],
) -> tuple[int, ...]:
    """Give drafts their channels, and gives back the turns of those for which none is left.

    `before`: the channels of lines that the show knows, by side, as they were; `held_by`: the line
    that each channel had, those that leave included.
    """
    desk = work.show.desk
    places: dict[int, tuple[int, ...]] = {}
    owner: dict[int, int] = {}
    named = {
        n
        for draft in work.drafts
        for n in (draft.channel, draft.channel_right)
        if n and ways.numbered
    }
    for turn, draft in enumerate(work.drafts):
        wanted = _wanted(draft, named) if ways.numbered else ()
        if ways.odd_pairs and len(wanted) == 2 and is_even_pair(draft):
            continue
        if ways.numbered and draft.channel and not wanted:
            work.told[turn].append(f"channel {draft.channel + 1} is not free for its right side")
        if not wanted:
            wanted = before.get(work.lines[turn], ())
            if not all(wanted) or len(wanted) != (2 if draft.stereo else 1) or named & set(wanted):
                continue
        beyond = [n for n in wanted if n > desk.channels]
        twice = [n for n in wanted if n in owner]
        if beyond:
            work.told[turn].append(f"the desk has {desk.channels} channels, no {beyond[0]}")
        elif twice:
            other = work.drafts[owner[twice[0]]].name
            work.told[turn].append(f"channel {twice[0]} is {other}'s already")
        else:
            places[turn] = wanted
            owner.update(dict.fromkeys(wanted, turn))
    own = {number for channels in before.values() for number in channels}
    held = {n for n in work.show.channels() if n not in own}
    free = [n for n in range(1, desk.channels + 1) if n not in owner and n not in held]
    unpatched: list[int] = []
    for turn, draft in enumerate(work.drafts):
        if turn not in places:
            given = _next_free(free, stereo=draft.stereo)
            if given is None:
                unpatched.append(turn)
                work.told[turn].append("no channel is left: it is not patched")
                continue
            places[turn] = given
            owner.update(dict.fromkeys(given, turn))
            if ways.numbered and (work.told[turn] or draft.channel):
                where = "/".join(str(n) for n in given)
                work.told[turn].append(f"goes to {where}, the next free")
    _renumber(work, places, before, owner, held_by)
    _feed(work, places, numbered=bool(ways.numbered))
    return tuple(unpatched)


def _wanted(draft: LineDraft, named: set[int]) -> tuple[int, ...]:
    """The channels that a list gives a draft; a stereo one with one number takes the next too."""
    if not draft.channel:
        return ()
    if not draft.stereo:
        return (draft.channel,)
    right = draft.channel_right or (draft.channel + 1 if draft.channel + 1 not in named else None)
    return (draft.channel, right) if right else ()


def _next_free(free: list[int], *, stereo: bool) -> tuple[int, ...] | None:
    for number in free:
        wanted = (number, number + 1) if stereo else (number,)
        if not stereo or (number % 2 == 1 and number + 1 in free):
            for one in wanted:
                free.remove(one)
            return wanted
    return None


def _renumber(
    work: Work,
    places: Mapping[int, tuple[int, ...]],
    before: Mapping[int, tuple[int, ...]],
    owner: Mapping[int, int],
    held_by: Mapping[int, int],
) -> None:
    """Channels that stand elsewhere move with all that is set of them, and all that scenes hold.

    One that was another line's begins anew for its next: its fader, its sends and its scenes were
    about another sound. One that no line had (a template's) stays as it is set.
    """
    to: dict[str, str | None] = {}
    for turn, wanted in places.items():
        for old, new in zip(before.get(work.lines[turn], ()), wanted, strict=False):
            if old and old != new:
                to[f"channel/{old}"] = f"channel/{new}"
    standing = {number for channels in before.values() for number in channels if number}
    for number, turn in owner.items():
        line = held_by.get(number)
        if line not in (None, work.lines[turn]):
            to.setdefault(f"channel/{number}", None)
    for number in work.show.channels():
        if number in owner and number not in standing:
            name = work.show.text(f"channel/{number}/name") or f"channel {number}"
            work.told[owner[number]].append(f"takes channel {number} from {name}")
            work.put({f"channel/{number}/{leaf}": CATALOGUE[f"channel/<channel>/{leaf}"].default
                      for leaf in ("source", "spare", "on_spare", "name")})  # fmt: skip
    work.show = work.show.with_values(renamed(work.show, to))
    work.renumbered |= to


def _feed(work: Work, places: Mapping[int, tuple[int, ...]], *, numbered: bool) -> None:
    """Sources for the channels of lines. A line without a socket takes the next free input;

    `numbered`: the one of its channel's number, counted over the boxes, as long as that is free.
    """
    taken, inputs = _taken(work.show), inputs_in_order(work.show, None)
    free = [socket for socket in inputs if socket not in taken]
    for turn, wanted in places.items():
        line = work.lines[turn]
        for place, (side, number) in enumerate(zip(SIDES, wanted, strict=False)):
            socket = work.show[f"line/{line}/{side}"]
            if socket is None and free:
                own = inputs[number - 1] if numbered and number <= len(inputs) else ""
                pair = len(wanted) == 2 and place == 0
                socket = own if own in free else _pop_socket(free, pair=pair)
                if socket == own:
                    free.remove(own)
                work.put({f"line/{line}/{side}": socket})
            if not isinstance(socket, str):
                work.told[turn].append("no input is left: it gets no socket")
                continue
            if work.show.source_of(number) != socket:
                # what comes joins here, where it comes: its number may have been another's before
                joins = netted(work.show, {f"channel/{number}/source": socket})
                if f"channel/{number}/house/on" in joins:
                    work.told[turn].append(f"channel {number} starts out of the house")
                moves: dict[str, Asked] = {f"channel/{number}/source": socket, **joins}
                if not work.show.text(f"channel/{number}/name"):
                    moves.update(strip_of_line(work.show, line, number, right=place == 1))
                work.put(moves)


def _pop_socket(free: list[str], *, pair: bool) -> str:
    """The next free input; for the left of a pair an odd one, if the even above it is free too."""
    if pair:
        for socket in free:
            if Thing.at(socket).number % 2 == 1 and above(socket) in free:
                free.remove(socket)
                free.remove(above(socket))
                free.insert(0, above(socket))
                return socket
    return free.pop(0)


def _taken(show: Show) -> set[str]:
    sockets = {show[f"line/{line}/{side}"] for line in show.lines() for side in SIDES}
    sockets |= {show.source_of(number) for number in show.channels()}
    return {socket for socket in sockets if isinstance(socket, str)}
