"""An edit kept, refused or tried: its messages, and what fills them."""

from collections.abc import Sequence
from typing import Literal
from uuid import UUID

from pydantic import BaseModel

from ombrel import core

from ..asks.asking import AskedMove, moves_to_wire
from .casting import PreviewCompany
from .hears import (
    WhyRemedy,
    level_to_wire,
)
from .scenes import PreviewScene

__all__ = [
    "CompensationMessage",
    "DoneMessage",
    "FollowsMessage",
    "KeptMessage",
    "LossMessage",
    "PreviewMessage",
    "RefusedMessage",
    "preview_message",
    "refused_message",
]


class DoneMessage(BaseModel):
    """An edit is kept."""

    type: Literal["done"]
    id: UUID
    revision: int
    says: str


class RefusedMessage(BaseModel):
    """An edit, or a question, was refused; nothing changed. `ways`: edits that would do it."""

    type: Literal["refused"]
    id: UUID | None
    code: str
    message: str
    ways: list[WhyRemedy] = []


class KeptMessage(BaseModel):
    """Of the edits that a page asked about, those that are kept."""

    type: Literal["kept"]
    ids: list[UUID]


class LossMessage(BaseModel):
    """Who loses a socket or source, and to whom."""

    who: str
    loses: str
    to: str


class CompensationMessage(BaseModel):
    """Where strips join or leave DCAs: true levels that would jump, from and to in dB (null: off),

    by address; `keep`: what would keep them all, or `lacking`: by name, where faders would have to
    stand. `silenced`: whom a muted DCA would mute.
    """

    jumps: list[tuple[str, float | None, float | None]]
    keep: list[AskedMove]
    lacking: list[tuple[str, float | None]]
    silenced: list[str]


class FollowsMessage(BaseModel):
    """A value that moves, as people read it. `strip`: what it is of."""

    strip: str
    whose: str
    what: str
    was: str
    now: str


class PreviewHeard(BaseModel):
    """What a listener hears otherwise of a source, in dB (null: nothing)."""

    source: str
    listener: str
    was_db: float | None
    now_db: float | None


class PreviewPair(BaseModel):
    """A pair that an edit links, and what changes of its sides, in words."""

    odd: str
    name: str
    says: list[str]


class PreviewMessage(BaseModel):
    """What an edit would do, and its words where it has some. `follows`: the first of all that are

    `following`. `renumbered`: strips that get other numbers: name, where from, where to; what else
    is said then goes by numbers, and means nobody. `breaks`: promises that it would break.
    `values`: the first that move. `heard`: for the first listeners, the loudest that changes for
    them.
    """

    type: Literal["preview"]
    id: UUID
    says: str
    renumbered: list[tuple[str, str, str]]
    told: list[str]
    changes: int
    losses: list[LossMessage]
    silenced: list[tuple[str, str]]
    opened: list[tuple[str, str]]
    moved: int
    leaving: list[tuple[str, str]]
    shares: list[str]
    powered: list[str]
    pairs: list[PreviewPair]
    compensation: CompensationMessage | None
    follows: list[FollowsMessage]
    following: int
    breaks: list[str]
    values: list[FollowsMessage]
    heard: list[PreviewHeard]
    scenes: list[PreviewScene]
    company: PreviewCompany | None


def refused_message(
    message_id: UUID | str | None, error: core.ConsoleError, show: core.Show | None = None
) -> dict:
    """A refusal, with the other edits that would do what was asked for, where there are some.

    `show`: by whose names things are called.
    """
    return RefusedMessage(
        type="refused",
        id=message_id,  # type: ignore[arg-type]
        code=error.code,
        message=core.refusal(error, show),
        ways=_ways(error),
    ).model_dump(mode="json")


def _ways(error: core.ConsoleError) -> list[WhyRemedy]:
    if isinstance(error, core.SeveralPaths):
        return [WhyRemedy(says=says, moves=moves_to_wire(moves)) for says, moves in error.ways]
    if isinstance(error, core.GangJumps):
        moves = moves_to_wire(error.moves)
        return [
            WhyRemedy(says=f"{error.of} alone", moves=moves),
            WhyRemedy(says=f"All of them, {len(error.others) + 1}", moves=moves, by_hand=True),
        ]
    if isinstance(error, core.RemedyMoves):
        return [WhyRemedy(says="Do it all the same", moves=moves_to_wire(error.moves))]
    return []


def preview_message(
    message_id: UUID,
    preview: core.Preview,
    says: str = "",
    scenes: Sequence[PreviewScene] = (),
    company: PreviewCompany | None = None,
    renumbered: Sequence[tuple[str, str, str]] = (),
    told: Sequence[str] = (),
) -> dict:
    """What an edit would do, and its words; `told`: what cannot be as asked.

    `scenes`: what it does to those that hold something. `renumbered`: of strips that get other
    numbers the name, the old place and the new one.
    """
    return PreviewMessage(
        type="preview",
        id=message_id,
        says=says,
        renumbered=list(renumbered),
        told=list(told),
        changes=len(preview.change.new),
        losses=[LossMessage(who=x.who, loses=x.loses, to=x.to) for x in preview.losses],
        silenced=list(preview.silenced),
        opened=list(preview.opened),
        moved=preview.moved,
        leaving=list(preview.leaving),
        shares=list(preview.shares),
        powered=list(preview.powered),
        pairs=[PreviewPair(odd=x.odd, name=x.name, says=list(x.says)) for x in preview.pairs],
        compensation=_compensation(preview.compensation),
        follows=[_difference(one) for one in preview.follows],
        following=preview.following,
        breaks=list(preview.breaks),
        values=[_difference(one) for one in preview.values],
        heard=[
            PreviewHeard(
                source=one.source_name,
                listener=one.listener_name,
                was_db=level_to_wire(one.was_db),
                now_db=level_to_wire(one.now_db),
            )
            for one in preview.heard
        ],
        scenes=list(scenes),
        company=company,
    ).model_dump(mode="json")


def _difference(one: core.Difference) -> FollowsMessage:
    return FollowsMessage(strip=one.strip, whose=one.whose, what=one.what, was=one.was, now=one.now)


def _compensation(found: core.Compensation | None) -> CompensationMessage | None:
    if found is None:
        return None
    return CompensationMessage(
        jumps=[(s, level_to_wire(was), level_to_wire(will)) for s, was, will in found.jumps],
        keep=[] if found.lacking else moves_to_wire(found.moves),
        lacking=[(name, level_to_wire(db)) for name, db in found.lacking],
        silenced=list(found.silenced),
    )
