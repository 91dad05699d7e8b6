"""All groups that share gain at a glance: who wins, who hears it, and what of the desk is left."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..catalogue import Thing, bearing, of_kind
from ..flow import Flow
from ..show import Show, lines_on
from ..together import partner_of
from ..values import ConsoleError, counted
from .groups import Sharing, Standing, group_of, sharings, standing_of
from .reach import place_told
from .tried import Tried, tried

__all__ = ["GroupTold", "Overview", "foretold", "overview", "speaking_lines"]


@dataclass(frozen=True, slots=True, kw_only=True)
class GroupTold:
    """A group. `tried`: at levels expected or typed; None where what was typed cannot be read, and

    `refused` says why. `behind`, `before`: who hears it shared there, and who as it is. `standing`:
    of each member, by its strip.
    """

    group: str
    standing: Mapping[str, Standing]
    tried: Tried | None
    refused: str
    behind: str
    before: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Overview:
    """`places`: sides of strips that share gain, of so many; `groups`, `inserts` likewise.

    `inserts_each`: insert points that each side takes.
    """

    sharing: tuple[GroupTold, ...]
    groups: tuple[int, int]
    places: tuple[int, int]
    inserts: tuple[int, int]
    inserts_each: int


def overview(show: Show, flow: Flow, typed: Mapping[str, str]) -> Overview:
    """All groups. `typed`: levels typed to try, by group."""
    groups = sharings(show)
    sides = sum(len(one.sides) for some in groups for one in some.members)
    desk = show.desk
    devices = len(bearing("inserts", show.values))
    return Overview(
        sharing=tuple(_told(show, flow, one, typed.get(one.group, "")) for one in groups),
        groups=(len(groups), desk.sharing_groups),
        places=(sides, desk.sharing_places),
        inserts=(devices + sides * desk.sharing_inserts, desk.inserts),
        inserts_each=desk.sharing_inserts,
    )


def _told(show: Show, flow: Flow, group: Sharing, text: str) -> GroupTold:
    found, refused = None, ""
    try:
        found = tried(show, flow, group, text)
    except ConsoleError as error:
        refused = str(error)
    sides = [side for one in group.members for side in one.sides]
    return GroupTold(
        group=group.group,
        standing={one.strip: standing_of(flow, one) for one in group.members},
        tried=found,
        refused=refused,
        behind=place_told(show, flow, sides, before_fader=False),
        before=place_told(show, flow, sides, before_fader=True),
    )


def foretold(show: Show, flow: Flow, strips: Sequence[str], group: str = "") -> tuple[str, ...]:
    """What it means that strips share gain, before they do: who will hear it, and what it costs.

    `group`: where they join, by whose place it is told; "": a new one, behind the fader.
    """
    before = bool(group) and show[f"{group}/place"] == "before_fader"
    sides = list(dict.fromkeys(s for one in strips for s in (one, partner_of(show, one)) if s))
    coming = [one for one in sides if group_of(show, one) is None]
    each = show.desk.sharing_inserts
    held = sum(len(one.sides) for some in sharings(show) for one in some.members)
    taken = held + len(coming)
    cost = f"Takes {counted(len(coming), 'place')}: {taken} of {show.desk.sharing_places}"
    if each:
        cost += f", and {counted(each * len(coming), 'insert point')}"
    return (place_told(show, flow, sides, before_fader=before), f"{cost}.")


def speaking_lines(show: Show, group: str) -> list[int]:
    """The lines of a group's members, by which a stage can let them speak; of its channels."""
    found: dict[int, None] = {}
    for some in sharings(show):
        for side in (side for one in some.members for side in one.sides):
            if some.group != group or of_kind(side) != "channel":
                continue
            source = show.source_of(Thing.at(side).number)
            found |= dict.fromkeys(lines_on(show, source)[:1] if source else ())
    return list(found)
