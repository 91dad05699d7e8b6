"""What a screen is told, made from a state of the show: messages of `to_screen`, filled in."""

from collections.abc import Sequence
from uuid import UUID

from ombrel import core

from .asking import moves_to_wire
from .casting_to_screen import PreviewCompany
from .hears_to_screen import WhyRemedy
from .scenes_to_screen import PreviewScene
from .states import State, for_pages, to_wire
from .telling_hears import level_to_wire
from .to_screen import (
    BreachMessage,
    FindingMessage,
    FollowsMessage,
    KeepingMessage,
    LossMessage,
    Noticed,
    PreampMessage,
    Preview,
    PromiseMessage,
    RefusedMessage,
    RuledMessage,
    RuledStrip,
)

__all__ = [
    "levels_message",
    "meters_message",
    "noticed_message",
    "preview_message",
    "refused_message",
    "ruled_message",
    "snapshot_message",
    "unfolded_message",
]


_MOST_BREACHES = 40  # of a promise that are told one by one


def snapshot_message(state: State) -> dict:
    """All values of a show."""
    values = for_pages(to_wire(state.show.values))
    return {"type": "snapshot", "revision": state.revision, "values": values}


def refused_message(message_id: UUID | str | None, error: core.ConsoleError) -> dict:
    """A refusal, with the other edits that would do what was asked for, where there are some."""
    return RefusedMessage(
        type="refused",
        id=message_id,  # type: ignore[arg-type]
        code=error.code,
        message=str(error),
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


def noticed_message(state: State) -> dict:
    """Findings, promises and preamps of a show."""
    return Noticed(
        type="noticed",
        revision=state.revision,
        promises=[_promise(one) for one in core.promises(state.show, state.flow)],
        findings=[
            FindingMessage(
                rule=finding.rule,
                tone=finding.tone,
                says=finding.says,
                about=finding.about,
                remedy=WhyRemedy(says=finding.remedy, moves=moves_to_wire(finding.moves))
                if finding.remedy
                else None,
                careful=finding.careful,
            )
            for finding in core.findings(state.show, state.flow)
        ],
        preamps=[
            PreampMessage(
                socket=p.socket, dbfs=round(p.dbfs, 1), over=p.over, suggested_db=p.suggested_db
            )
            for p in core.preamps(state.show)
        ],
    ).model_dump(mode="json")


def _promise(judged: core.Judged) -> PromiseMessage:
    return PromiseMessage(
        promise=judged.promise,
        says=judged.says,
        vain=judged.vain,
        passing=judged.passing,
        breaking=len(judged.breaches),
        breaches=[
            BreachMessage(
                source=one.source,
                listener=one.listener,
                says=one.says,
                open=one.open,
                feeds=list(one.feeds),
                remedies=[
                    WhyRemedy(says=r.says, moves=moves_to_wire(r.moves)) for r in one.remedies
                ],
            )
            for one in judged.breaches[:_MOST_BREACHES]
        ],
    )


def meters_message(
    state: State, line: int, levels_dbu: dict[str, float], fed: frozenset[int]
) -> dict:
    """Meters, and what arrives of a line while the lines `fed` are fed."""
    arrival = core.arrival_of(state.show, line, levels_dbu, fed=fed)
    meters = core.channel_meters(state.show, levels_dbu)
    return {
        "type": "meters",
        "channels": {str(channel): round(dbfs, 1) for channel, dbfs in sorted(meters.items())},
        "line": line,
        "dbfs": level_to_wire(arrival.dbfs),
        "expected_dbfs": arrival.expected_dbfs,
        "suspect": arrival.suspect,
        "good": arrival.good,
        "says": arrival.says,
    }


def preview_message(
    message_id: UUID,
    preview: core.Preview,
    says: str = "",
    scenes: Sequence[PreviewScene] = (),
    company: PreviewCompany | None = None,
) -> dict:
    """What an edit would do, and its words; `scenes`: what it does to those that hold something."""
    return Preview(
        type="preview",
        id=message_id,
        says=says,
        changes=len(preview.change.new),
        losses=[LossMessage(who=x.who, loses=x.loses, to=x.to) for x in preview.losses],
        silenced=list(preview.silenced),
        opened=list(preview.opened),
        moved=preview.moved,
        leaving=list(preview.leaving),
        keeping=_keeping(preview.keeping),
        follows=[_difference(one) for one in preview.follows],
        following=preview.following,
        breaks=list(preview.breaks),
        values=[_difference(one) for one in preview.values],
        scenes=list(scenes),
        company=company,
    ).model_dump(mode="json")


def _difference(one: core.Difference) -> FollowsMessage:
    return FollowsMessage(whose=one.whose, what=one.what, was=one.was, now=one.now)


def _keeping(keeping: core.Keeping | None) -> KeepingMessage | None:
    if keeping is None:
        return None
    return KeepingMessage(
        jumps=[(s, level_to_wire(was), level_to_wire(will)) for s, was, will in keeping.jumps],
        keep=[] if keeping.lacking else moves_to_wire(keeping.moves),
        lacking=[(name, level_to_wire(db)) for name, db in keeping.lacking],
        silenced=list(keeping.silenced),
    )


def ruled_message(state: State, strips: Sequence[str] | None = None) -> dict:
    """What ruled strips come to: some of them, or all (None)."""
    show = state.show
    silenced = set(core.silenced_by_solo(show, state.flow))
    ruled = core.ruled_strips(show) if strips is None else strips
    every = [*ruled, *silenced.difference(ruled)] if strips is None else ruled
    found: dict[str, RuledStrip | None] = {}
    for strip in every:
        by = core.ruled(show, strip)
        found[strip] = RuledStrip(
            by=list(by.by),
            level_db=level_to_wire(by.level_db),
            parts=[(dca, level_to_wire(level_db)) for dca, level_db in by.parts],
            muted=[*by.muted, *(["show/solo"] if strip in silenced else [])],
        )
    return RuledMessage(
        type="ruled", revision=state.revision, whole=strips is None, strips=found
    ).model_dump(mode="json")


def levels_message(state: State, levels_dbu: dict[str, float]) -> dict:
    """Input meters of all channels."""
    meters = core.channel_meters(state.show, levels_dbu)
    return {
        "type": "levels",
        "channels": {str(channel): round(dbfs, 1) for channel, dbfs in sorted(meters.items())},
    }


def unfolded_message(state: State, things: Sequence[str]) -> dict:
    """What unfolds of some DCAs, groups and mixes. Raises UnknownAddress."""
    return {
        "type": "unfolded",
        "revision": state.revision,
        "strips": {thing: core.unfolded(state.show, thing) for thing in things},
    }
