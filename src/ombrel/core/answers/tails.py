"""Effects that ring on when a DCA or mute group mutes what feeds them, and what mutes both."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from ..catalogue import of_kind, strips_of, thing_of
from ..flow import Flow, State, source_name, sources, strip_name
from ..show import Show
from ..together import make_rulers, members_of, membership, rulers_in_use
from ..values import Asked, NothingLeft, within
from .reason import Remedy

__all__ = ["Tail", "tails", "with_tails"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Tail:
    """A return that the ruler does not mute, of an effect that its members feed.

    `others`: sources by name that feed the effect too, and are not ruled by it.
    """

    strip: str
    name: str
    others: tuple[str, ...]


def tails(show: Show, flow: Flow, ruler: str, ruled: Collection[str]) -> tuple[Tail, ...]:
    """The returns that ring on when `ruler` mutes the sources that it rules (`ruled`), in order.

    `flow`: with its key open. A return that it rules itself, that its mute group holds, or that a
    mute group holds together with all of these, is none.
    """
    rows = {one: flow.layout.row(one) for one in sources(show)}
    together = [
        set(members_of(show, group))
        for group in rulers_in_use(show, "mute_group")
        if group == ruler or set(ruled) <= set(members_of(show, group))
    ]
    found = []
    for strip in strips_of(show.desk, "return"):
        engine = show[f"{strip}/source"]
        if not isinstance(engine, str) or of_kind(engine) != "engine":
            continue
        bus = show[f"{thing_of(engine)}/source"]
        if not isinstance(bus, str) or strip in ruled or any(strip in one for one in together):
            continue
        column = flow.layout.column(thing_of(bus))
        heard = flow.part(list(rows.values()), [column])[1][:, 0] == State.HEARD
        feeding = [one for one, is_heard in zip(rows, heard.tolist(), strict=True) if is_heard]
        if set(feeding) & set(ruled):
            others = tuple(source_name(show, one) for one in feeding if one not in ruled)
            found.append(Tail(strip=strip, name=strip_name(show, strip), others=others))
    return tuple(found)


def with_tails(
    show: Show, ruler: str, ruled: Collection[str], found: Collection[Tail]
) -> Remedy | None:
    """What mutes the members together with the returns that nobody else feeds; None: none is such.

    A mute group takes them in itself. Beside a DCA it is a mute group of its own: in the DCA they
    would follow its level twice, by their sends and by themselves. None too where none is free.
    """
    alone = [one for one in found if not one.others]
    if not alone:
        return None
    names = ", ".join(one.name for one in alone)
    returns = [one.strip for one in alone]
    moves: Mapping[str, Asked]
    if of_kind(ruler) == "mute_group":
        moves = membership(show, ruler, returns, on=True)
        return Remedy(says=f"{names} into it", moves=moves)
    if (group := _together(show, ruled)) is not None:
        moves = membership(show, group, returns, on=True)
        return Remedy(says=f"{names} into the mute group {strip_name(show, group)}", moves=moves)
    try:
        moves = make_rulers(show, "mute_group", [within(strip_name(show, ruler), " and effects")])
    except NothingLeft:
        return None
    group = thing_of(next(iter(moves)))
    # what comes into the DCA by itself comes into the group by the same rule
    taking = {f"{group}/takes": show[f"{ruler}/takes"]}
    moves = {**moves, **taking, **membership(show, group, [*ruled, *returns], on=True)}
    return Remedy(says=f"Mute group of its members and {names}", moves=moves)


def _together(show: Show, ruled: Collection[str]) -> str | None:
    """The mute group that mutes some sources with returns already, and no other channel."""
    for group in rulers_in_use(show, "mute_group"):
        members = members_of(show, group)
        others = [one for one in members if one not in ruled]
        if (
            others
            and all(of_kind(one) == "return" for one in others)
            and set(ruled) <= set(members)
        ):
            return group
    return None
