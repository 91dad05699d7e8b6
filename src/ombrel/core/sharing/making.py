"""Groups that share gain made, filled and cleared: functions from a show to moves."""

from collections import Counter
from collections.abc import Iterable, Sequence

from ..catalogue import COLOURS, SHARERS, below, default_of, of_kind, strips_of
from ..flow import strip_name
from ..show import Show, check_made, read_strips
from ..together import member_for
from ..values import Asked, NothingLeft, OneSideOnly, Typed, UnknownAddress
from .groups import sharings

__all__ = ["clear_sharing", "join_sharing", "leave_sharing", "make_sharing", "typed_sharers"]


def typed_sharers(show: Show, text: str) -> list[str]:
    """The members that a text names, of a pair its odd side. Raises UnreadableText, OneSideOnly."""
    strips = read_strips(show, text, dcas=False)
    for strip in strips:
        _check_one_side(show, strip)
    return list(dict.fromkeys(member_for(show, strip) for strip in strips))


def _check_one_side(show: Show, strip: str) -> None:
    if of_kind(strip) not in SHARERS:
        raise OneSideOnly(strip_name(show, strip), "a group")


def make_sharing(show: Show, text: str, name: str = "") -> dict[str, Asked]:
    """Moves that let strips share one gain: the next free group, with these as its members.

    Raises NothingLeft where the desk has no group left, UnreadableText, OneSideOnly.
    """
    strips = typed_sharers(show, text)
    used = sharings(show)
    taken = {one.group for one in used}
    free = [one for one in strips_of(show.desk, "sharing") if one not in taken]
    if not free:
        raise NothingLeft("groups that share gain", 1, 0)
    worn = Counter(show.text(f"{one.group}/colour") for one in used)
    group = free[0]
    return {
        f"{group}/name": Typed(name.strip() or _new_name({one.name for one in used})),
        f"{group}/colour": min((*COLOURS[1:], COLOURS[0]), key=lambda one: worn[one]),
        **_joined(group, strips),
    }


def _new_name(used: set[str]) -> str:
    names = ("Panel", *(f"Panel {number}" for number in range(2, len(used) + 3)))
    return next(name for name in names if name not in used)


def _joined(group: str, strips: Sequence[str]) -> dict[str, Asked]:
    return {f"{strip}/sharing/group": group for strip in strips}


def join_sharing(show: Show, group: str, text: str) -> dict[str, Asked]:
    """Moves by which strips share gain in a group, wherever they did before. Raises as making, and

    NotThere where somebody has ended the group.
    """
    _check(show, group)
    check_made(show, group)
    return _joined(group, typed_sharers(show, text))


def leave_sharing(show: Show, strips: Iterable[str]) -> dict[str, Asked]:
    """Moves by which strips share gain no more, and forget how they did. Raises OneSideOnly."""
    strips = list(strips)
    for strip in strips:
        _check_one_side(show, strip)
    leaves = ("group", "weight", "held", "out")
    return {
        address: default_of(address)
        for strip in strips
        for address in (f"{strip}/sharing/{leaf}" for leaf in leaves)
    }


def clear_sharing(show: Show, group: str) -> dict[str, Asked]:
    """Moves that end a group: its members share no more, and it is as new."""
    _check(show, group)
    members = [one for some in sharings(show) if some.group == group for one in some.members]
    moves = leave_sharing(show, (one.strip for one in members))
    return moves | {address: default_of(address) for address in below(group, show.values)}


def _check(show: Show, group: str) -> None:
    if group not in strips_of(show.desk, "sharing"):
        raise UnknownAddress(group, f"{show.desk.name} has no such group that shares gain")
