"""Lifts: who leads of a backing group, at a step that is known before the key is pressed.

A lift has two groups. Who sings along goes into the backing group; who is lifted goes into the
lead group as well, behind the fader, so that the fader still counts. What that adds is the step:
the lead group's fader trims it for all, the level at which a singer goes into the lead group for
that one, and a mix that takes the groups by sends for itself, by its send of the lead group.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import (
    SOURCES,
    Address,
    below,
    default_of,
    kind_on,
    memberships_in,
    of_kind,
    strips_of,
)
from ..edit import edited, looked_at, opening_at, solved_db
from ..flow import Flow, State, flow_of, listener_name, listeners, strip_name
from ..show import Show, check_made, strips_text
from ..together import first_into_house
from ..values import Asked, ConsoleError, NothingLeft, Number, StepOutOfReach, Typed, UnreadableText
from ..words import refusal
from .mixes import make_buses

__all__ = [
    "Lift",
    "LiftStep",
    "Singer",
    "all_lifted",
    "lead_groups",
    "lift_singers",
    "lifts",
    "lifts_in_use",
    "make_lift",
    "remove_lift",
    "set_singers",
    "singers_of",
    "trim_lift",
]  # fmt: skip

_STEP: Final = Number(unit="dB", lowest=-200.0, highest=200.0, step=0.1)
_TELLING_DB: Final = 0.05  # what a screen shows as a difference


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftStep:
    """What lifting a singer does for a listener: from `back_db` to `lead_db`, as it stands."""

    listener: str
    name: str
    back_db: float
    lead_db: float

    @property
    def step_db(self) -> float:
        return self.lead_db - self.back_db


@dataclass(frozen=True, slots=True, kw_only=True)
class Singer:
    """Who can be lifted. `trim_db`: at which they go into the lead group; `steps`: of the house,

    and of every listener for whom it makes a difference. `says`: why it makes none, or "".
    """

    strip: str
    lifted: bool
    trim_db: float
    steps: tuple[LiftStep, ...]
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Lift:
    """A lift and its singers. `vain`: what it lacks, or ""; `named`: who can be lifted, as it could

    be typed, "" where all that go into the backing group can.
    """

    lift: str
    vain: str
    singers: tuple[Singer, ...]
    named: str = ""


def lifts(show: Show, flow: Flow) -> tuple[Lift, ...]:
    """Every lift in use, with the step of every singer for every listener.

    Steps are told as if nothing were muted and no singer's fader were off, so that they are known
    before the show.
    """
    used = lifts_in_use(show)
    if not used:
        return ()
    open_show = _opened(show, used)
    open_flow = flow if open_show is show else flow_of(open_show)
    return tuple(_told(show, open_show, open_flow, one) for one in used)


def lead_groups(show: Show, strips: Sequence[str]) -> list[str]:
    """The lead groups into which a key may lift any of these strips."""
    return [
        lead
        for lift in lifts_in_use(show)
        for lead in [_groups(show, lift)[1]]
        if lead and any(one in strips for one in singers_of(show, lift))
    ]


def all_lifted(show: Show, lift: str) -> dict[str, Asked]:
    """Moves that lift all singers of a lift at once, whoever may be alone."""
    lead = _groups(show, lift)[1]
    return {a: asked for one in singers_of(show, lift) for a, asked in _up(show, one, lead).items()}


def _up(show: Show, strip: str, lead: str) -> dict[str, Asked]:
    """Moves that open a singer's feed into the lead group, which may be at off."""
    moves: dict[str, Asked] = {f"{strip}/{lead}/on": True}
    if show.number(f"{strip}/{lead}/level") == -math.inf:
        moves[f"{strip}/{lead}/level"] = 0.0
    return moves


def lifts_in_use(show: Show) -> list[str]:
    """The lifts that have a name or a group."""
    every = (f"lift/{n}" for n in range(1, show.desk.count("lift") + 1))
    leaves = ("name", "backing", "lead")
    return [one for one in every if any(f"{one}/{leaf}" in show.values for leaf in leaves)]


def _groups(show: Show, lift: str) -> tuple[str, str]:
    """Backing group and lead group; "" for one that it lacks."""
    return show.text(f"{lift}/backing"), show.text(f"{lift}/lead")


def singers_of(show: Show, lift: str) -> list[str]:
    """Those who are named and go into the backing group; where nobody is named, all that do."""
    backing, lead = _groups(show, lift)
    if not backing or not lead:
        return []
    strips = _channels_and_returns(show)
    named = [one for one in strips if show.on(f"{one}/{lift}/on")]
    return [one for one in named or strips if show.on(f"{one}/{backing}/on")]


def _opened(show: Show, used: Sequence[str]) -> Show:
    """The show with nothing muted, and singers whose faders are off at 0 dB."""
    moves: dict[str, Asked] = {
        address: False
        for address, value in show.values.items()
        if value is True
        and (Address.at(address).leaf == "mute" or Address.at(address).is_at("mute_group", "on"))
    }
    moves |= {Address.at(a).beside("safe"): False for a in moves if of_kind(a) == "mute_group"}
    if show["show/solo"] == "in_place":
        moves |= {
            a: False for a, on in show.values.items() if Address.at(a).last == "solo" and on is True
        }
    for lift in used:
        for singer in singers_of(show, lift):
            if show.number(f"{singer}/fader") == -math.inf:
                moves[f"{singer}/fader"] = 0.0
    return looked_at(show, moves) if moves else show


def _told(show: Show, open_show: Show, open_flow: Flow, lift: str) -> Lift:
    backing, lead = _groups(show, lift)
    vain = ""
    if not backing or not lead:
        vain = "Choose its backing group." if not backing else "Choose its lead group."
    elif backing == lead:
        vain = "Choose another lead group: a singer goes into both."
    elif any(show[f"{group}/format"] == "unused" for group in (backing, lead)):
        vain = "A group of it is not in use."
    singers = singers_of(show, lift) if not vain else []
    if not vain and not singers:
        vain = f"Put singers into {strip_name(show, backing)}."
    every = listeners(show) if singers else []
    found = [_singer(show, open_show, open_flow, lead, one, every) for one in singers]
    named = [one for one in _channels_and_returns(show) if show.on(f"{one}/{lift}/on")]
    return Lift(lift=lift, vain=vain, singers=tuple(found), named=strips_text(named))


def _singer(
    show: Show, open_show: Show, open_flow: Flow, lead: str, strip: str, every: Sequence[str]
) -> Singer:
    steps: tuple[LiftStep, ...] = ()
    try:
        back, lead_flow = (
            edited(open_show, open_flow, {f"{strip}/{lead}/on": on}).flow for on in (False, True)
        )
    except ConsoleError as error:
        says = refusal(error, show)
    else:
        row = open_flow.layout.row(strip)
        steps, says = _steps(show, back, lead_flow, row, every), ""
        if not any(abs(one.step_db) >= _TELLING_DB for one in steps):
            says = f"{strip_name(show, lead)} adds nothing for anybody."
    return Singer(
        strip=strip,
        lifted=show.on(f"{strip}/{lead}/on") and show.number(f"{strip}/{lead}/level") > -math.inf,
        trim_db=show.number(f"{strip}/{lead}/level"),
        steps=steps,
        says=says,
    )


def _steps(
    show: Show, back: Flow, lead: Flow, row: int, listening: Sequence[str]
) -> tuple[LiftStep, ...]:
    found = []
    for listener in listening:
        column = back.layout.column(listener)
        before, after = back.cell(row, column), lead.cell(row, column)
        before_db = before.level_db if before.state is State.HEARD else -math.inf
        after_db = after.level_db if after.state is State.HEARD else -math.inf
        differs = before_db != after_db and not abs(after_db - before_db) < _TELLING_DB
        if differs or (listener == "house" and before_db > -math.inf):
            found.append(
                LiftStep(listener=listener, name=listener_name(show, listener), back_db=before_db,
                     lead_db=after_db)
            )  # fmt: skip
    return tuple(found)


def lift_singers(show: Show, lift: str, strips: Sequence[str], *, on: bool) -> dict[str, Asked]:
    """Moves that lift singers, or return them. Lifting one takes the place of whoever was lifted

    where only one is at a time. Raises UnreadableText for who is no singer of it.
    """
    singers, lead = singers_of(show, lift), _groups(show, lift)[1]
    for strip in strips:
        if strip not in singers:
            names = ", ".join(strip_name(show, one) for one in singers) or "nobody yet"
            raise UnreadableText(strip_name(show, strip), f"one of its singers: {names}")
    moves: dict[str, Asked] = {}
    if on and show.on(f"{lift}/alone"):
        moves = {f"{one}/{lead}/on": False for one in singers if show.on(f"{one}/{lead}/on")}
    for strip in strips:
        moves |= _up(show, strip, lead) if on else {f"{strip}/{lead}/on": False}
    return moves


def trim_lift(
    show: Show, flow: Flow, lift: str, typed: str, *, strip: str = "", listener: str = "house"
) -> dict[str, Asked]:
    """Moves after which a lift is a step as typed ("4", "up 1"), in dB above 0, for a listener: of

    one singer by the level at which they go into the lead group, or (strip "") of all, by the lead
    group's fader, or its send where the listener takes it by one. Of all, the first singer whose
    own level is 0 dB is the measure; others keep their distance to it. Raises StepOutOfReach;
    UnreadableText for a step that no lift makes, or for a listener who does not hear the singer
    from the backing.
    """
    singers, lead = singers_of(show, lift), _groups(show, lift)[1]
    if not singers or (strip and strip not in singers):
        raise UnreadableText(strip or lift, "a singer of this lift")
    whole = [one for one in singers if show.number(f"{one}/{lead}/level") == 0.0]
    measure = strip or (whole or singers)[0]
    control = f"{strip}/{lead}/level" if strip else f"{lead}/fader"
    if not strip and f"{lead}/send/{listener}/level" in flow.homes:
        control = f"{lead}/send/{listener}/level"
    open_show = _opened(show, [lift])
    open_flow = flow if open_show is show else flow_of(open_show)
    row, column = open_flow.layout.row(measure), open_flow.layout.column(listener)
    back = edited(open_show, open_flow, {f"{measure}/{lead}/on": False})
    cell = back.flow.cell(row, column)
    if cell.state is not State.HEARD:
        raise UnreadableText(
            f"{strip_name(show, measure)} at {listener_name(show, listener)}",
            "a listener who hears the singer before the lift",
        )
    lifted = edited(open_show, open_flow, {f"{measure}/{lead}/on": True})
    step_db = _STEP.typed(typed, lifted.flow.cell(row, column).level_db - cell.level_db, "step")
    if not step_db > 0.0:
        raise UnreadableText(typed, "a step above 0 dB; to end it, return the singer")
    wanted_db = cell.level_db + step_db
    level_db = solved_db(lifted.show, lifted.flow, row, column, control, wanted_db)
    if level_db is None:
        most = edited(lifted.show, lifted.flow, opening_at(control, _highest_db(show, control)))
        most_db = most.flow.cell(row, column).level_db - cell.level_db
        names = strip_name(show, measure), listener_name(show, listener)
        raise StepOutOfReach(*names, step_db, most_db)
    return {control: level_db}


def _highest_db(show: Show, control: str) -> float:
    kind = kind_on(show.desk, control)
    assert isinstance(kind, Number)  # faders and levels, by the catalogue
    return kind.highest


def make_lift(
    show: Show, strips: Sequence[str], *, name: str, backing: str | None = None
) -> dict[str, Asked]:
    """Moves that make a lift of singers: a backing group that they go to the house through (or one

    that there is), and a lead group beside it. Where singers come into the house by a group, both
    go into that; what they sound like does not change. Who else goes into a backing group that
    there is stays there and is not lifted; with no singers named, all of it are. Raises
    NothingLeft; UnreadableText for strips that are no channels or returns, or that do not all come
    into the house the same way.
    """
    if not name.strip():
        raise UnreadableText("", "a name for the lift, such as Voices")
    used = lifts_in_use(show)
    free = [n for n in range(1, show.desk.count("lift") + 1) if f"lift/{n}" not in used]
    if not free:
        raise NothingLeft("lifts", 1, 0)
    lift = f"lift/{free[0]}"
    if not strips and not backing:
        raise UnreadableText("", "the singers, such as 1-4")
    _check_free(show, strips, backing, used)
    names = [f"{name} lead"] if backing else [name, f"{name} lead"]
    onward = _way_of_all(show, [backing] if backing else strips)
    # a singer is panned into a group of the sides of the one that it went into
    stereo = all(show[f"{into}/format"] != "mono" for into in onward if into != "house")
    moves = make_buses(show, "group", names, stereo=stereo)
    made = list(dict.fromkeys(Address.at(address).stem for address in moves))
    backing, lead = (backing, made[0]) if backing else (made[0], made[1])
    moves |= _singing(show, strips, lift, backing, lead, onward)
    for group in made:
        moves[f"{group}/house/on"] = "house" in onward
        moves |= {f"{group}/{into}/on": True for into in onward if into != "house"}
    return moves | {f"{lift}/name": Typed(name), f"{lift}/backing": backing, f"{lift}/lead": lead}


def _check_free(
    show: Show, strips: Sequence[str], backing: str | None, used: Sequence[str]
) -> None:
    """Refuse who would leave the backing group of another lift, where no key lifts them then."""
    for lift in used:
        taken = [] if _groups(show, lift)[0] == backing else singers_of(show, lift)
        for one in strips:
            if one in taken:
                raise UnreadableText(
                    strip_name(show, one),
                    f"who is no singer of {show.text(f'{lift}/name') or lift.replace('/', ' ')};"
                    " to lift them from there too, take their group as the backing",
                )


def _way_of_all(show: Show, strips: Sequence[str]) -> tuple[str, ...]:
    """What strips feed on their way to the house: the house or groups, the same for all."""
    onward = first_into_house(show, strips[0])
    for one in strips[1:]:
        if first_into_house(show, one) != onward:
            raise UnreadableText(
                strip_name(show, one),
                f"singers who all come into the house as {strip_name(show, strips[0])} does:"
                f" {_way_in_words(show, onward)}",
            )
    return onward


def _way_in_words(show: Show, onward: Sequence[str]) -> str:
    if not onward:
        return "not at all"
    return " and ".join(
        "directly" if into == "house" else f"by {strip_name(show, into)}" for into in onward
    )


def _singing(
    show: Show, strips: Sequence[str], lift: str, backing: str, lead: str, onward: Sequence[str]
) -> dict[str, Asked]:
    """Moves by which strips sing in a lift: named, and in its backing group instead of `onward`,

    into which that goes.
    """
    moves: dict[str, Asked] = {}
    for one in strips:
        if of_kind(one) not in SOURCES:
            raise UnreadableText(one.replace("/", " "), "channels and returns as singers")
        trim_db = 0.0
        if not show.on(f"{one}/{backing}/on"):
            if not onward or first_into_house(show, one) != onward:  # it would be heard anew, twice
                raise UnreadableText(
                    strip_name(show, one),
                    f"who comes into the house {_way_in_words(show, onward)} as the backing does;"
                    " for others take their group as the backing",
                )
            moves |= {f"{one}/{into}/on": False for into in onward}
            if len(onward) == 1 and onward[0] != "house":  # as loud as it went in there
                trim_db = show.number(f"{one}/{onward[0]}/level")
            moves |= {f"{one}/{backing}/on": True, f"{one}/{backing}/level": trim_db}
        moves |= {f"{one}/{lead}/on": False, f"{one}/{lift}/on": True}
        moves[f"{one}/{lead}/level"] = trim_db if trim_db > -math.inf else 0.0
    return moves


def set_singers(show: Show, lift: str, strips: Sequence[str]) -> dict[str, Asked]:
    """Moves after which just these can be lifted; none named: all that go into the backing group.

    Who is new goes through the backing group; who can be lifted no more goes back first. Raises
    what `make_lift` raises, and UnreadableText for a lift without its groups.
    """
    backing, lead = _groups(show, lift)
    if not backing or not lead:
        raise UnreadableText(lift, "a lift with a backing and a lead group")
    now = singers_of(show, lift)
    gone = [one for one in now if one not in strips] if strips else []
    moves: dict[str, Asked] = {f"{one}/{lead}/on": False for one in gone}
    named = [one for one in _channels_and_returns(show) if show.on(f"{one}/{lift}/on")]
    moves |= {f"{one}/{lift}/on": False for one in named}
    onward = first_into_house(show, backing)
    new = _singing(show, [one for one in strips if one not in now], lift, backing, lead, onward)
    return moves | {f"{one}/{lift}/on": True for one in strips} | new


def remove_lift(show: Show, lift: str) -> dict[str, Asked]:
    """Moves that give up a lift. Its groups stay, and who leads just now goes on leading.

    Raises NotThere.
    """
    check_made(show, lift)
    moves: dict[str, Asked] = {a: default_of(a) for a in below(lift, show.own)}
    return moves | {at.text: False for at in memberships_in(lift, show.own)}


def _channels_and_returns(show: Show) -> list[str]:
    return strips_of(show.desk, *SOURCES)
