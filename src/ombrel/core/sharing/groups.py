"""Groups whose members share one gain, as a show has them."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from ..catalogue import SHARERS, Desk, of_kind, strips_of
from ..flow import Flow, strip_name
from ..show import Show
from ..together import member_for, partner_of
from ..wires import Indices, layout_of, sharing_stages

__all__ = [
    "Sharer",
    "Sharing",
    "Standing",
    "group_of",
    "is_closed",
    "sharing_in",
    "sharings",
    "stages_of",
    "standing_of",
]

Standing = Literal["shares", "held", "out", "muted"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sharer:
    """A member of a group: a strip, or the odd side of a linked pair with `partner`, the even one.

    `weight_db`: how far it counts before others. `held`: open at 0 dB, `out`: silent; in no sum.
    """

    strip: str
    partner: str | None
    name: str
    weight_db: float
    held: bool
    out: bool

    @property
    def sides(self) -> tuple[str, ...]:
        """The strips that it is."""
        return (self.strip,) if self.partner is None else (self.strip, self.partner)


@dataclass(frozen=True, slots=True, kw_only=True)
class Sharing:
    """A group. `time_s`: over which powers are averaged; `limit_db`: no gain is below it (-inf:

    none); `before_fader`: where its stage stands. `members`: in the order of the desk.
    """

    group: str
    name: str
    time_s: float
    limit_db: float
    before_fader: bool
    members: tuple[Sharer, ...]

    def is_fed(self, flow: Flow) -> bool:
        """Whether some member is a bus, or a channel that a bus feeds: others lead through it."""
        fed = {*flow.fed.row[: flow.fed.dry].tolist()}
        strips = (flow.layout.index[side] for one in self.members for side in one.sides)
        return any(strip >= flow.layout.rows or strip in fed for strip in strips)

    def in_sum(self, flow: Flow) -> list[Sharer]:
        """Who has a share: neither held open nor out, and nothing closes it behind its fader."""
        return [one for one in self.members if standing_of(flow, one) == "shares"]


def is_closed(flow: Flow, member: Sharer) -> bool:
    """Whether a mute, a fader or DCA at off, solo in place, or being out silences a member."""
    return bool((flow.arrays.stage[flow.layout.index[member.strip]] == 0.0).any())


def standing_of(flow: Flow, member: Sharer) -> Standing:
    """How a member stands: it shares, or is out, silenced by something, or held open."""
    if member.out:
        return "out"
    if is_closed(flow, member):
        return "muted"
    return "held" if member.held else "shares"


def stages_of(flow: Flow, members: Iterable[Sharer]) -> tuple[Indices, Indices]:
    """Strips that members are, as numbers, and the stage of each in which it shares."""
    index = flow.layout.index
    strips = np.array([index[side] for one in members for side in one.sides], dtype=np.intp)
    return strips, sharing_stages(flow.arrays, strips)


@lru_cache(maxsize=16)
def _asked_at(desk: Desk) -> tuple[tuple[str, str], ...]:
    """Every strip that could share gain, with the address of its group."""
    strips = [one for one in layout_of(desk).strips if of_kind(one) in SHARERS]
    return tuple((one, f"{one}/sharing/group") for one in strips)


def sharings(show: Show) -> tuple[Sharing, ...]:
    """The groups in use, with a name or a member, ascending."""
    held: dict[str, list[str]] = {}
    values = show.values
    for strip, at in _asked_at(show.desk):
        group = values.get(at)
        if isinstance(group, str):
            held.setdefault(group, []).append(strip)
    every = strips_of(show.desk, "sharing")
    return tuple(
        _sharing(show, group, held.get(group, ()))
        for group in every
        if group in held or f"{group}/name" in values
    )


def sharing_in(show: Show, group: str) -> Sharing | None:
    """One of `sharings`; None where nobody made it."""
    return next((one for one in sharings(show) if one.group == group), None)


def group_of(show: Show, strip: str) -> str | None:
    """The group in which a strip shares gain; None for one that does not, or cannot."""
    group = show[f"{strip}/sharing/group"] if of_kind(strip) in SHARERS else None
    return group if isinstance(group, str) else None


def _sharing(show: Show, group: str, strips: Collection[str]) -> Sharing:
    return Sharing(
        group=group,
        name=strip_name(show, group),
        time_s=show.number(f"{group}/time") / 1000.0,
        limit_db=show.number(f"{group}/limit"),
        before_fader=show[f"{group}/place"] == "before_fader",
        members=tuple(_sharer(show, one) for one in strips if member_for(show, one) == one),
    )


def _sharer(show: Show, strip: str) -> Sharer:
    return Sharer(
        strip=strip,
        partner=partner_of(show, strip),
        name=strip_name(show, strip),
        weight_db=show.number(f"{strip}/sharing/weight"),
        held=show.on(f"{strip}/sharing/held"),
        out=show.on(f"{strip}/sharing/out"),
    )
