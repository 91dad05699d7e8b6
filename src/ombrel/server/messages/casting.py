"""Parts, performers, the mic check and fittings: their messages, and what fills them."""

from typing import Final, Literal

from pydantic import BaseModel

from ombrel import core

from ..asks.casting import ChooseCast, LateChange
from ..keeping.states import State

__all__ = [
    "CompanyMessage",
    "FittingMessage",
    "MicCheckMessage",
    "PreviewCompany",
    "company_message",
    "company_previewed",
    "fitting_message",
    "mic_check_message",
]


class Person(BaseModel):
    """A performer, by name."""

    performer: str
    name: str


class PlayerRow(BaseModel):
    """Who can play a part; `kept`: whether settings of theirs are kept for all its microphones."""

    performer: str
    name: str
    kept: bool


class MicrophoneRow(BaseModel):
    """A microphone of a part and the channel that it comes in on."""

    number: int
    name: str
    channel: str
    channel_name: str


class PartRow(BaseModel):
    """A part. `tonight`: None where it is vacant; `late`: otherwise than in tonight's cast;

    `plays`: who plays it in each cast, in the casts' order.
    """

    part: str
    name: str
    mix: str | None
    mix_name: str
    microphones: list[MicrophoneRow]
    players: list[PlayerRow]
    tonight: Person | None
    late: bool
    plays: list[Person | None]


class CastRow(BaseModel):
    """A cast, by name."""

    cast: str
    name: str


class CompanyMessage(BaseModel):
    """The parts in their order, the casts, everybody, and which cast is tonight's."""

    type: Literal["company"]
    parts: list[PartRow]
    casts: list[CastRow]
    performers: list[Person]
    tonight: str | None


class CheckRow(BaseModel):
    """An entry of the mic check. `loose`: how many values moved and not kept; `version`: how many

    were kept; `line`: number of the line on the channel's source, to be fed from the stage.
    """

    entry: str
    fitting: str | None
    name: str
    part_name: str
    channel: str
    channel_name: str
    phase: Literal["waiting", "on", "done", "skipped"]
    by: str
    arrived_s: float
    performer: str
    barred: str
    loose: int
    version: int
    line: int | None


class MicCheckMessage(BaseModel):
    """Every entry of tonight in an order. `yours`: the one that this person has; `next`: whom next

    would bring them; `target_dbfs`: where a voice is to be.
    """

    type: Literal["mic_check"]
    order: Literal["list", "arrival", "channel"]
    entries: list[CheckRow]
    yours: str | None
    next: str | None
    target_dbfs: float


class FittingValueRow(BaseModel):
    """A value where a fitting and what stands differ, in words."""

    leaf: str
    label: str
    kept: str
    now: str
    why: str


class VersionRow(BaseModel):
    """What was kept once."""

    number: int
    at_s: float
    by: str
    how: str


class FittingChoice(BaseModel):
    """What can be put on a channel: a part or a fitting; `performer`: whose it is, or ""."""

    what: str
    name: str
    performer: str


class FittingMessage(BaseModel):
    """Who is on a channel, and all of their fitting; without one, whom it could be.

    `says`: in one line, whose, and what is loose. `carries`: what the fitting lies over of what it
    could (`carried`: keys and words).
    """

    type: Literal["fitting"]
    channel: str
    on: str
    fitting: str | None
    performer: str
    since_s: float
    says: str
    carries: list[str]
    carried: list[tuple[str, str]]
    loose: list[FittingValueRow]
    altered: list[FittingValueRow]
    beneath: list[FittingValueRow]
    versions: list[VersionRow]
    choices: list[FittingChoice]
    others: list[FittingChoice]


class WhoChanges(BaseModel):
    """Who is on a channel before and after, "" for nobody."""

    channel: str
    name: str
    was: str
    now: str


class PreviewCompany(BaseModel):
    """Who comes on and goes off, what pins keep, which parts nobody plays, what cannot be done, and

    what is noticed at the desk beside levels, in words.
    """

    on: list[WhoChanges]
    felt: list[str]
    pinned: list[tuple[str, str]]
    vacant: list[str]
    left: list[tuple[str, str]]


_MOST: Final = 200


def company_message(state: State) -> dict:
    """The parts, casts and performers."""
    show = state.show
    casts = core.casts(show)
    late = set(core.late_changes(show))
    chosen = show["tonight/cast"]
    return CompanyMessage(
        type="company",
        parts=[_part(show, part, casts, late=part in late) for part in core.parts(show)],
        casts=[CastRow(cast=one, name=core.cast_name(show, one)) for one in casts],
        performers=[_person(show, one) for one in core.performers(show)],
        tonight=chosen if isinstance(chosen, str) else None,
    ).model_dump(mode="json")


def _part(show: core.Show, part: str, casts: list[str], *, late: bool) -> PartRow:
    mix, mics = show[f"{part}/mix"], core.microphones(show, part)
    return PartRow(
        part=part,
        name=core.part_name(show, part),
        mix=mix if isinstance(mix, str) else None,
        mix_name=core.strip_name(show, mix) if isinstance(mix, str) else "",
        microphones=[
            MicrophoneRow(
                number=one.number,
                name=show.text(f"{part}/microphone/{one.number}/name"),
                channel=one.channel,
                channel_name=core.strip_name(show, one.channel),
            )
            for one in mics
        ],
        players=[
            PlayerRow(
                performer=one,
                name=core.performer_name(show, one),
                kept=core.has_fitting(show, part, one),
            )
            for one in core.players(show, part)
        ],
        tonight=_somebody(show, core.tonight(show, part)),
        late=late,
        plays=[_somebody(show, show[f"{cast}/{part}"]) for cast in casts],
    )


def _person(show: core.Show, performer: str) -> Person:
    return Person(performer=performer, name=core.performer_name(show, performer))


def _somebody(show: core.Show, performer: core.Value) -> Person | None:
    return _person(show, performer) if isinstance(performer, str) else None


def mic_check_message(state: State, order: core.CheckOrder, by: str) -> dict:
    """Every entry of tonight in an order, for an operator."""
    show = state.show
    rows = []
    coming = core.check_coming(show, by=by, order=order)
    for one in core.entries(show, order):
        source = show[f"{one.channel}/source"]
        lines = core.lines_on(show, source) if isinstance(source, str) else []
        rows.append(
            CheckRow(
                entry=one.key,
                fitting=one.fitting,
                name=core.performer_name(show, one.performer),
                part_name=core.part_name(show, one.part),
                channel=one.channel,
                channel_name=core.strip_name(show, one.channel),
                phase=one.phase,
                by=one.by,
                arrived_s=one.arrived_s,
                performer=one.performer,
                barred=one.barred,
                loose=len(core.loose(show, one.fitting)) if one.fitting else 0,
                version=int(show.number(f"{one.fitting}/newest")) if one.fitting else 0,
                line=lines[0] if lines else None,
            )
        )
    return MicCheckMessage(
        type="mic_check",
        order=order,
        entries=rows,
        yours=next((one.entry for one in rows if (one.phase, one.by) == ("on", by)), None),
        next=coming.key if coming else None,
        target_dbfs=show.number("show/target_dbfs"),
    ).model_dump(mode="json")


def fitting_message(state: State, channel: str) -> dict:
    """Who is on a channel, with their fitting. Raises UnknownAddress for none of the desk."""
    show = state.show
    on = show[f"{channel}/fitting"]
    parts = [
        part
        for part in core.parts(show)
        if any(one.channel == channel for one in core.microphones(show, part))
    ]
    of_parts = [one for part in parts for one in core.fittings_of(show, part)]
    fittings = core.fittings(show)
    others = [*of_parts, *(one for one in fittings if one not in of_parts)]
    seen = core.fitting_seen(show, on) if isinstance(on, str) else None
    return FittingMessage(
        type="fitting",
        channel=channel,
        on=core.on_in_words(show, channel),
        fitting=seen.fitting if seen else None,
        performer=seen.performer if seen else "",
        since_s=seen.since_s if seen else 0.0,
        says=core.fitting_in_one_line(seen) if seen else "",
        carries=list(seen.carries) if seen else [],
        carried=list(core.CARRIED.items()),
        loose=[_value(one) for one in seen.loose] if seen else [],
        altered=[_value(one) for one in seen.altered] if seen else [],
        beneath=[_value(one) for one in seen.beneath] if seen else [],
        versions=[
            VersionRow(number=one.number, at_s=one.at_s, by=one.by, how=one.how)
            for one in (seen.versions if seen else ())
        ],
        choices=[
            *(
                FittingChoice(what=part, name=core.part_name(show, part), performer="")
                for part in parts
            ),
            *(_fitting_choice(show, one) for one in of_parts),
        ],
        others=[_fitting_choice(show, one) for one in others if one != on][:_MOST],
    ).model_dump(mode="json")


def _fitting_choice(show: core.Show, fitting: str) -> FittingChoice:
    return FittingChoice(
        what=fitting,
        name=core.fitting_name(show, fitting),
        performer=core.whose_fitting(show, fitting),
    )


def _value(one: core.FittingValue) -> FittingValueRow:
    return FittingValueRow(leaf=one.leaf, label=one.label, kept=one.kept, now=one.now, why=one.why)


def company_previewed(show: core.Show, ask: ChooseCast | LateChange) -> PreviewCompany:
    """Who a choice brings on and sends off. Raises NoSuchCast, NoSuchFitting."""
    found = ask.found(show)
    after = core.made(show, found.moves, own=True)[0]
    noticed = core.felt(show, after, core.moved_between(show, after))
    return PreviewCompany(
        felt=core.felt_in_words(noticed),
        on=[
            WhoChanges(channel=channel, name=core.strip_name(show, channel), was=was, now=now)
            for channel, was, now in core.who_changes(show, found.moves)
        ],
        pinned=[
            (core.strip_name(show, channel), core.pin_name(show, pin))
            for channel, pin in found.pinned
        ],
        vacant=[core.part_name(show, part) for part in found.vacant],
        left=[(core.strip_name(show, channel), why) for channel, why in found.left],
    )
