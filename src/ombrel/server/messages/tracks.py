"""What is recorded on which track, the plan that was found, and the way back."""

from dataclasses import replace
from hashlib import sha256
from typing import Literal
from uuid import UUID

from pydantic import BaseModel

from ombrel import core

from ..asks.asking import AskedMove, moves_to_wire
from ..keeping.states import State
from .hears import level_to_wire

__all__ = [
    "PlanFound",
    "PlanningMessage",
    "TracksMessage",
    "no_plan_found",
    "plan_found",
    "tracks_message",
]


class WishRow(BaseModel):
    """A wish as it stands. `given`: its track by the plan, 0 for none; `stands`: it carries it."""

    wish: str
    name: str
    source: str
    tap: str
    stereo: bool
    track: int
    rank: int
    given: int
    two_sides: bool
    raw: bool
    stands: bool
    refused: str


class TrackRow(BaseModel):
    """A track. `carries`: in words, "" for nothing; `taken`: where, in words; `mix`: the spare mix

    by which it takes it, in words; `plays_into`: channels, in words.
    """

    track: int
    socket: str
    name: str
    carries: str
    taken: str
    wish: str
    mix: str
    held: bool
    plays_into: list[str]
    dbfs: float | None


class TakenRow(BaseModel):
    """A channel whose spare is something else, in words."""

    channel: str
    says: str


class ToldRow(BaseModel):
    tone: str
    says: str


class BackRow(BaseModel):
    """Playback: into how many channels a track could go back, does, and plays now."""

    able: int
    laid: int
    playing: int
    taken: list[TakenRow]
    families: list[str]
    told: list[ToldRow]


class BoxRow(BaseModel):
    """A box that could record, by its first output."""

    first: str
    name: str


class TracksMessage(BaseModel):
    """How the recording stands. `refused`: why there is no recorder; `block`: outputs go in runs

    of so many; `spare`: mixes that a plan could take; `held`: tracks, and mixes, that stay;
    `basis`: what a plan hangs on of all that, as a digest: a plan of another basis is of before.
    """

    type: Literal["tracks"]
    recorder: str
    refused: str
    block: int
    boxes: list[BoxRow]
    wishes: list[WishRow]
    tracks: list[TrackRow]
    spare: int
    basis: str
    held_tracks: str
    held_mixes: str
    back: BackRow


class PlanningMessage(BaseModel):
    """How far the search for a plan is: `at` of `of` parts of `what`."""

    type: Literal["planning"]
    id: UUID
    what: str
    at: int
    of: int


class PlannedRow(BaseModel):
    """A wish in the plan. `track`: 0 where it is not served, and `why` says why."""

    wish: str
    name: str
    track: int
    stereo: bool
    mix: str
    why: str


class PlannedTrack(BaseModel):
    """What a track would carry, and where it would take it, in words."""

    track: int
    name: str
    taken: str
    changed: bool


class ClashRow(BaseModel):
    wishes: list[str]
    names: list[str]
    why: str


class DoRow(BaseModel):
    """A single thing that would do; without moves it is not the show's to give."""

    says: str
    moves: list[AskedMove]


class PlanFound(BaseModel):
    """The best plan; or, where `found` is false, why there is none and what would do.

    `refused`: why no plan could be looked for; `basis`: as of `TracksMessage`.
    """

    type: Literal["plan_found"]
    id: UUID
    found: bool
    refused: str
    basis: str
    rows: list[PlannedRow]
    tracks: list[PlannedTrack]
    mixes: int
    changes: int
    told: list[str]
    counts: list[str]
    clashes: list[ClashRow]
    would_do: list[DoRow]
    fewest: DoRow | None


def tracks_message(state: State) -> dict:
    """How the recording of a show stands."""
    show = state.show
    found = core.recording(show, state.flow)
    message = TracksMessage(
        type="tracks",
        recorder=found.box,
        refused=found.refused,
        block=found.block,
        boxes=[
            BoxRow(first=f"output/{box.key}/1", name=box.short)
            for box in show.desk.boxes
            if box.outputs
        ],
        wishes=[
            WishRow(
                wish=one.wish.wish,
                name=one.name,
                source=one.wish.source,
                tap=one.wish.tap,
                stereo=one.wish.stereo,
                track=one.wish.track,
                rank=one.wish.rank,
                given=one.wish.given,
                two_sides=one.two_sides,
                raw=one.raw,
                stands=one.stands,
                refused=one.refused,
            )
            for one in found.wishes
        ],
        tracks=[
            TrackRow(
                track=one.track,
                socket=one.socket,
                name=one.name,
                carries=core.carried_name(show, one.carried) if one.carried else "",
                taken=one.taken,
                wish=one.wish,
                mix=core.strip_name(show, one.mix) if one.mix else "",
                held=one.held,
                plays_into=[core.strip_name(show, channel) for channel in one.plays_into],
                dbfs=None if one.dbfs is None else level_to_wire(round(one.dbfs, 1)),
            )
            for one in found.tracks
        ],
        spare=found.spare,
        basis=_basis(show),
        held_tracks=found.held[0],
        held_mixes=found.held[1],
        back=BackRow(
            able=found.back.able,
            laid=found.back.laid,
            playing=found.back.playing,
            taken=[TakenRow(channel=channel, says=says) for channel, says in found.back.taken],
            families=list(found.back.families),
            told=[ToldRow(tone=one.tone, says=one.says) for one in found.back.told],
        ),
    )
    return message.model_dump()


def _basis(show: core.Show) -> str:
    """A digest of what is wished and what stays."""
    wished = [replace(wish, given=0) for wish in core.wishes(show)]
    stays = sorted(
        address
        for address in show.own
        if core.Address.at(address).leaf in ("held", "for_tracks/held")
    )
    keeps = show["plan/keep"], show["plan/recorder"]
    return sha256(repr((wished, stays, keeps)).encode()).hexdigest()[:16]


def plan_found(show: core.Show, asked: UUID, told: core.PlanTold) -> PlanFound:
    """The best plan of a show, or why there is none. `told` hears how far it is."""
    try:
        plan = core.plan_tracks(show, told)
        none = core.no_plan(show, told) if plan is None else None
        basis = _basis(show)
    except core.ConsoleError as error:
        return no_plan_found(asked, str(error))
    if plan is None:
        assert none is not None  # one of them there is
        return _message(
            asked,
            basis=basis,
            counts=list(none.counts),
            clashes=[
                ClashRow(wishes=list(one.wishes), names=list(one.names), why=one.why)
                for one in none.clashes
            ],
            would_do=[_do(one) for one in none.would_do],
            fewest=_do(none.fewest) if none.fewest else None,
        )
    return _message(
        asked,
        found=True,
        basis=basis,
        rows=[
            PlannedRow(
                wish=row.wish.wish,
                name=row.name,
                track=row.track,
                stereo=row.wish.stereo,
                mix=row.mix,
                why=row.why,
            )
            for row in plan.rows
        ],
        tracks=[
            PlannedTrack(track=track, name=name, taken=taken, changed=changed)
            for track, (name, taken, changed) in enumerate(
                zip(plan.names, plan.taken, plan.changed, strict=True), start=1
            )
        ],
        mixes=plan.mixes,
        changes=plan.changes,
        told=list(plan.told),
    )


def no_plan_found(asked: UUID, refused: str) -> PlanFound:
    """No plan could be looked for, and why."""
    return _message(asked, refused=refused)


def _do(one: core.WouldDo) -> DoRow:
    return DoRow(says=one.says, moves=moves_to_wire(one.moves))


def _message(asked: UUID, **parts: object) -> PlanFound:
    empty: dict[str, object] = dict(
        found=False, refused="", basis="", rows=[], tracks=[], mixes=0, changes=0, told=[],
        counts=[], clashes=[], would_do=[], fewest=None,
    )  # fmt: skip
    return PlanFound.model_validate({"type": "plan_found", "id": asked, **empty, **parts})
