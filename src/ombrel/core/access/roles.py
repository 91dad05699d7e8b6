"""Roles in a show, what each may ask for, and whether an edit is within it.

An edit is judged by what it comes to: every address that changes, whatever was asked for, so that
no other way of asking for the same leads past it.
"""

from collections.abc import Collection, Iterable
from typing import Final, Literal

from ..catalogue import bears
from ..show import Show
from ..values import NotAllowed, RoleTooSmall
from .given import Given, check_given

__all__ = ["Act", "Role", "check_access", "may"]

Role = Literal["owner", "engineer", "assistant", "volunteer", "onlooker"]
Act = Literal["look", "assist", "engineer", "own", "ride"]

# look: read a show; assist: check lines, mark who came, note, print; engineer: all that is in it;
# own: share it, hand it over; ride: a page of what was given, and nothing else of the show
_MAY: Final[dict[Role, frozenset[Act]]] = {
    "owner": frozenset({"look", "assist", "engineer", "own"}),
    "engineer": frozenset({"look", "assist", "engineer"}),
    "assistant": frozenset({"look", "assist"}),
    "volunteer": frozenset({"ride"}),
    "onlooker": frozenset({"look"}),
}


def may(role: Role | None, act: Act) -> bool:
    """Whether a role does such things; None: who has none in a show.

    >>> may("assistant", "assist"), may("assistant", "engineer"), may(None, "look")
    (True, False, False)
    """
    return role is not None and act in _MAY[role]


def check_access(
    role: Role | None,
    given: Collection[Given],
    show: Show,
    after: Show,
    named: Iterable[str],
    changed: Iterable[str],
) -> None:
    """Refuse an edit that is not within a role: what it names, and all that changes by it.

    `given`: what a volunteer rides; `after`: the show as the edit leaves it. Raises

    NotAllowed, RoleTooSmall.
    """
    if may(role, "engineer"):
        return
    named, changed = tuple(named), tuple(changed)
    if role == "volunteer":
        check_given(given, show, after, named, changed)
    elif role == "assistant":
        for address in (*named, *changed):
            if not bears("assisting", [address]):
                raise NotAllowed(address, "assistant")
    else:
        for address in (*changed, *named):
            raise NotAllowed(address, role or "")
        raise RoleTooSmall(role or "stranger")  # not even one that changes nothing
