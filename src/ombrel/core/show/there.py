"""What an ask names must be there: somebody may have taken it away meanwhile."""

from collections.abc import Iterable
from typing import Final

from ..catalogue import ALONE, STRIP_KINDS, Thing, below, memberships_in
from ..values import NotThere, UnknownAddress
from .show import Show

_NUMBERED: Final = (
    *STRIP_KINDS,
    "dca",
    "mute_group",
    "sharing",
)  # what else has settings as strips do

__all__ = ["check_lines", "check_made", "check_strip"]


def check_lines(show: Show, numbers: Iterable[int]) -> None:
    """Raises NotThere for a line that is not in the list."""
    there = set(show.lines())
    for number in numbers:
        if number not in there:
            raise NotThere(f"line {number}")


def check_strip(show: Show, strip: str) -> None:
    """Raises NotThere for a strip that this desk has not ("channel/99")."""
    try:
        at = Thing.at(strip)
    except UnknownAddress:
        at = None
    there = (
        at
        and not at.side
        and (at.kind in ALONE or (at.kind in _NUMBERED and at.number <= show.desk.count(at.kind)))
    )
    if not there:
        raise NotThere(strip.replace("/", " ").replace("_", " "))


def check_made(show: Show, thing: str) -> None:
    """Raises NotThere for what nobody has made, or somebody has removed ("lift/2", "preset/9")."""
    if not below(thing, show.own) and not any(
        show.own[at.text] is True for at in memberships_in(thing, show.own)
    ):  # a nameless promise is there by its members
        raise NotThere(thing.replace("/", " ").replace("_", " "))
