"""Microphones that share one gain: how groups stand, and their shares as they are measured."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Literal

from pydantic import BaseModel

from ombrel import core

from ..keeping.states import State
from .hears import level_to_wire

__all__ = ["SharesMessage", "SharesPast", "SharingMessage", "shares_message", "sharing_message"]


class SharerRow(BaseModel):
    """A member at the levels expected or typed. `needs_db`: the weight from which it would win."""

    strip: str
    standing: str
    level_dbfs: float | None
    gain_db: float | None
    needs_db: float | None


class SharingRow(BaseModel):
    """A group. `says`: who wins, and by how much; `refused`: why what was typed cannot be read.

    `behind`, `before`: who hears it shared where it stands behind the fader, or before.
    """

    group: str
    members: list[SharerRow]
    wins: str
    says: str
    refused: str
    behind: str
    before: str


class SharingMessage(BaseModel):
    """All groups that share gain; what of the desk they take: (in use, in all)."""

    type: Literal["sharing"]
    groups: list[SharingRow]
    used: tuple[int, int]
    places: tuple[int, int]
    inserts: tuple[int, int]
    inserts_each: int


class ShareNow(BaseModel):
    """A member now. `share`: of the group's one gain, in power; `says`: its gain in words."""

    strip: str
    standing: str
    level_dbfs: float | None
    share: float
    says: str


class SharesOf(BaseModel):
    """A group now. `floor`: who has it, "" for nobody."""

    group: str
    floor: str
    over_db: float
    members: list[ShareNow]


class SharesMessage(BaseModel):
    """What all members' shares are now. `slot`: the part of the last minute that it stands for, by

    number; `talking`: groups that the stage lets talk.
    """

    type: Literal["shares"]
    groups: list[SharesOf]
    slot: int
    talking: list[str]


class SharesPast(BaseModel):
    """The last minute, the oldest first: shares by strip, `step_s` apart; `slot`: of the last."""

    type: Literal["shares_past"]
    step_s: float
    slot: int
    shares: list[dict[str, float]]


def _row(group: core.GroupTold) -> SharingRow:
    tried = group.tried
    by_strip = {one.strip: one for one in tried.members} if tried else {}
    return SharingRow(
        group=group.group,
        members=[
            SharerRow(
                strip=strip,
                standing=standing,
                level_dbfs=level_to_wire(by_strip[strip].level_dbfs) if tried else None,
                gain_db=level_to_wire(by_strip[strip].gain_db) if tried else None,
                needs_db=by_strip[strip].needs_db if tried else None,
            )
            for strip, standing in group.standing.items()
        ],
        wins=tried.wins if tried else "",
        says=tried.says if tried else "",
        refused=group.refused,
        behind=group.behind,
        before=group.before,
    )


def sharing_message(state: State, typed: Mapping[str, str]) -> dict:
    """How groups stand. `typed`: levels to try, by group."""
    found = core.overview(state.show, state.flow, typed)
    message = SharingMessage(
        type="sharing",
        groups=[_row(group) for group in found.sharing],
        used=found.groups,
        places=found.places,
        inserts=found.inserts,
        inserts_each=found.inserts_each,
    )
    return message.model_dump()


def shares_message(
    groups: Sequence[core.GroupNow], talking: Iterable[str], slot: int
) -> SharesMessage:
    """What shares are now."""
    return SharesMessage(
        type="shares",
        groups=[
            SharesOf(
                group=group.group,
                floor=group.floor,
                over_db=group.over_db,
                members=[
                    ShareNow(
                        strip=one.strip,
                        standing=one.standing,
                        level_dbfs=level_to_wire(round(one.level_dbfs, 1)),
                        share=round(one.share, 4),
                        says=one.says,
                    )
                    for one in group.members
                ],
            )
            for group in groups
        ],
        slot=slot,
        talking=list(talking),
    )
