"""What a change will alter, and for whom, before it is made."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..catalogue import Address, Thing, is_in_dca, of_kind, thing_of
from ..edit import edited
from ..flow import Flow, State, listener_name, listeners, source_name, strip_name
from ..patching import left_behind, switched
from ..show import Change, Show, channels_of_line, socket_name
from ..together import Carry, Compensation, compensation
from ..values import Asked
from ..words import Difference, HeardOtherwise, Paired, differences, heard_otherwise, paired
from .promises import newly_broken

__all__ = ["Loss", "Preview", "preview"]


MOST_VALUES: Final = 12  # that are told one by one, unless more are asked for
_MOST_FOLLOWING: Final = 12
_MOST_CELLS: Final = 600  # of which the loudest are looked for
_MOST_LISTENERS: Final = 8
_MOST_PAIRS: Final = 40
_MOST_SHARING: Final = 4  # channels of a preamp that are named


@dataclass(frozen=True, slots=True, kw_only=True)
class Loss:
    """Something that gives up a socket or its source: who loses what, and to whom it goes."""

    who: str
    loses: str
    to: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Preview:
    """`change`: the values; `losses`: who loses a socket; `silenced`: (source, listener) that were

    heard and will not be; `opened`: the other way round; `moved`: how many cells merely change.
    `leaving`: lines that leave the list, and what becomes of their channels and sends.
    `compensation`: where strips join or leave DCAs, what jumps, and what would keep every true
    level. `follows`:
    what gangs and pairs would move beside what was asked for, the first of them; `following`: how
    many those are. `breaks`: promises that hold now and would not.
    `shares`: who shares a preamp from then on, `powered`: whose 48 V it switches, in words.
    `pairs`: those that it links, what changes of either side told with them.
    `values`: the first of the values that move, in words; `heard`: for each of the first listeners
    of whom something changes, the loudest of it.
    """

    change: Change
    losses: tuple[Loss, ...]
    silenced: tuple[tuple[str, str], ...]
    opened: tuple[tuple[str, str], ...]
    moved: int
    leaving: tuple[tuple[str, str], ...]
    compensation: Compensation | None = None
    follows: tuple[Difference, ...] = ()
    following: int = 0
    breaks: tuple[str, ...] = ()
    shares: tuple[str, ...] = ()
    powered: tuple[str, ...] = ()
    pairs: tuple[Paired, ...] = ()
    values: tuple[Difference, ...] = ()
    heard: tuple[HeardOtherwise, ...] = ()


def preview(
    show: Show,
    flow: Flow,
    moves: Mapping[str, Asked],
    carry: Carry | None = None,
    *,
    own: bool = False,
    most: int = MOST_VALUES,
) -> Preview:
    """Compute what an edit would do, by doing it to a copy. Raises what the edit would raise.

    `carry`: a hand's edit, `own`: one of own values, as in `edited`. `most`: how many of the values
    that move are told one by one.
    """
    after = edited(show, flow, moves, carry, own=own)
    layout = flow.layout
    drawn = {layout.column(one) for one in (*listeners(show), *listeners(after.show))}
    cells = after.cells[np.isin(after.cells[:, 1], list(drawn))]
    rows, at_rows = np.unique(cells[:, 0], return_inverse=True)
    columns, at_columns = np.unique(cells[:, 1], return_inverse=True)
    was = flow.part(rows.tolist(), columns.tolist())[1][at_rows, at_columns] == State.HEARD
    will = after.flow.part(rows.tolist(), columns.tolist())[1][at_rows, at_columns] == State.HEARD

    def names(which: NDArray[np.bool_], known: Show) -> tuple[tuple[str, str], ...]:
        return tuple(
            (source_name(known, layout.source(row)), listener_name(known, layout.listener(column)))
            for row, column in cells[which].tolist()
        )

    pairs = list(paired(show, after.stood, after.show))
    of_pairs = frozenset().union(*(told for _, told in pairs))
    beside = [
        a
        for a in after.stood.new
        if a not in moves and a not in of_pairs and Address.at(a).last != "kept"
    ]
    return Preview(
        change=after.change,
        losses=_losses(show, after.show, after.stood),
        silenced=names(was & ~will, show),
        opened=names(will & ~was, after.show),
        moved=int((was & will).sum()),
        leaving=_leaving(show, after.show),
        compensation=compensation(show, after.show) if _joins(after.stood) else None,
        follows=tuple(differences(show, after.show, sorted(beside)[:_MOST_FOLLOWING])),
        following=len(beside),
        values=tuple(differences(show, after.show, _first(after.stood, moves, most))),
        breaks=newly_broken(show, flow, after.show, after.flow),
        shares=tuple(_sharing(show, after.show)) if _patches(after.stood) else (),
        powered=tuple(switched(after.show, after.stood)),
        pairs=tuple(one for one, _ in pairs[:_MOST_PAIRS]),
        heard=_loudest(heard_otherwise(show, after.show, flow, after.flow, cells[:_MOST_CELLS])),
    )


def _loudest(heard: Iterable[HeardOtherwise]) -> tuple[HeardOtherwise, ...]:
    """One for each listener, the loudest before or after; the first listeners."""
    by_listener: dict[str, HeardOtherwise] = {}
    for one in heard:
        known = by_listener.setdefault(one.listener, one)
        if max(one.was_db, one.now_db) > max(known.was_db, known.now_db):
            by_listener[one.listener] = one
    return tuple(by_listener.values())[:_MOST_LISTENERS]


def _first(change: Change, moves: Mapping[str, Asked], most: int) -> list[str]:
    """The first addresses of an edit's own that move, in the order in which it names them."""
    return [address for address in moves if address in change.new][:most]


def _patches(change: Change) -> bool:
    """Whether some channel gets another source."""
    return any(Address.at(a).is_at("channel", "source", "on_spare", "spare") for a in change.new)


def _sharing(show: Show, after: Show) -> Iterator[str]:
    """Channels that come to share a preamp: the gain, pad and 48 V of one are the other's."""
    for socket, channels in after.fed_by.items():
        box = after.desk.box(Thing.at(socket).box) if of_kind(socket) == "input" else None
        if len(channels) < 2 or box is None or not box.preamps:
            continue
        if set(channels) - set(show.fed_by.get(socket, ())):
            names = [strip_name(after, f"channel/{n}") for n in channels]
            more = f" and {len(names) - _MOST_SHARING} more" if len(names) > _MOST_SHARING else ""
            said = ", ".join(names[:_MOST_SHARING]) + more
            yield f"{said} share the preamp of {socket_name(after.desk, socket)} from now on."


def _joins(change: Change) -> bool:
    """Whether something joins or leaves a DCA."""
    return any(map(is_in_dca, change.new))


def _leaving(show: Show, after: Show) -> tuple[tuple[str, str], ...]:
    return tuple(
        (
            strip_name(show, f"line/{line}"),
            left_behind(show, line, free=channels_of_line(show, line) != _still(show, after, line)),
        )
        for line in sorted(set(show.lines()) - set(after.lines()))
    )


def _still(show: Show, after: Show, line: int) -> list[int]:
    """The channels of a line that still have its sockets as their sources."""
    return [n for n in channels_of_line(show, line) if after.source_of(n) == show.source_of(n)]


def _losses(show: Show, after: Show, change: Change) -> tuple[Loss, ...]:
    losses = []
    for address, old in sorted(change.old.items()):
        new = change.new[address]
        if not isinstance(old, str) or old == new:
            continue
        strip, leaf = Address.at(address).stem, Address.at(address).last
        if leaf in ("socket", "socket_right") and f"{strip}/place" not in after.values:
            continue  # it leaves the list: `leaving` says what that means
        if leaf in ("socket", "socket_right"):
            takers = [
                after.text(f"{thing_of(other)}/name")
                for other, value in change.new.items()
                if value == old and of_kind(other) == "line"
            ]
            who, loses = show.text(f"{strip}/name"), f"socket {socket_name(show.desk, old)}"
            to = ", ".join(takers) or "nobody"
        elif leaf in ("source", "spare") and of_kind(strip) in (
            "channel",
            "return",
            "engine",
        ):
            who, loses = strip_name(show, strip), f"its {leaf} {socket_name(show.desk, old)}"
            to = f"takes {socket_name(show.desk, new)}" if isinstance(new, str) else "nothing"
        elif leaf == "source" and of_kind(strip) == "output":
            who, loses = strip_name(show, thing_of(old)), f"output {socket_name(show.desk, strip)}"
            to = str(new) if isinstance(new, str) else "nobody"
            if isinstance(new, str):
                to = strip_name(after, thing_of(new))
        else:
            continue
        losses.append(Loss(who=who or strip, loses=loses, to=to))
    return tuple(losses)
