"""What volunteers ride: single faders with their ends, mutes and lifts, as an engineer gave them.

Something given is a place on the desk: a fader's or a mute's address, or a lift. Where strips get
other numbers it goes with them.
"""

import math
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from ..catalogue import Address, check_on_desk, kind_on, of_kind
from ..flow import Flow, State, strip_name
from ..jobs import lift_singers, lifts_in_use, singers_of
from ..show import Show, read_strips
from ..together import members_of, partner_of
from ..values import Asked, NotAllowed, Number, OutOfRange, UnknownAddress, UnreadableText

__all__ = [
    "Given",
    "RiddenFader",
    "RiddenKey",
    "check_given",
    "given_name",
    "given_there",
    "read_given",
    "renumbered_given",
    "ridden",
    "ride_fader",
    "ride_key",
    "ride_lift",
    "to_give",
]

_NEAR: Final = 1e-6
_FADERS: Final = ("channel", "return", "group", "mix", "house", "mono", "matrix", "dca")


@dataclass(frozen=True, slots=True)
class Given:
    """Something that a volunteer rides. `what`: the address of a fader or of a mute's key, or a

    lift ("lift/1"); of a fader between which ends, in dB (-inf: it may go off).
    """

    what: str
    lowest_db: float = -math.inf
    highest_db: float = math.inf

    @property
    def is_lift(self) -> bool:
        return of_kind(self.what) == "lift"

    @property
    def is_fader(self) -> bool:
        return not self.is_lift and Address.at(self.what).leaf == "fader"


# ---- given


def read_given(
    show: Show, kind: str, typed: str, lowest: str = "", highest: str = ""
) -> tuple[Given, ...]:
    """What is given as typed: `kind` "fader" or "mute" of strips and DCAs ("Band, 3"), "mute_group"

    or "lift" by number or name; a fader between ends typed in dB ("": the fader's own). Raises
    UnreadableText, OutOfRange.
    """
    if kind in ("fader", "mute"):
        strips = read_strips(show, typed)
        given = [Given(f"{one}/{kind}") for one in strips if of_kind(one) in _FADERS]
        if kind == "fader":
            return tuple(_between(show, one, lowest, highest) for one in given)
        return tuple(given)
    if kind == "mute_group":
        return (Given(f"{_one_of(show, _mute_groups(show), typed, 'a mute group')}/on"),)
    if kind == "lift":
        return (Given(_one_of(show, lifts_in_use(show), typed, "a lift of this show")),)
    raise UnreadableText(kind, "fader, mute, mute group or lift")


def to_give(show: Show) -> tuple[list[str], list[str]]:
    """The names of mute groups that hold anything, or have one, and of lifts."""
    used = [one for one in _mute_groups(show) if _is_used(show, one)]
    lifts = [given_name(show, Given(one)) for one in lifts_in_use(show)]
    return [strip_name(show, one) for one in used], lifts


def _mute_groups(show: Show) -> list[str]:
    return [f"mute_group/{n}" for n in range(1, show.desk.count("mute_group") + 1)]


def _is_used(show: Show, group: str) -> bool:
    return bool(show.text(f"{group}/name") or members_of(show, group))


def _one_of(show: Show, every: Sequence[str], typed: str, what: str) -> str:
    wanted = " ".join(typed.split()).casefold()
    for one in every:
        names = (
            show.text(f"{one}/name"),
            strip_name(show, one),
            str(Address.at(f"{one}/name").number),
        )
        if wanted and wanted in (name.casefold() for name in names):
            return one
    raise UnreadableText(typed, f"{what}, by its number or name")


def _between(show: Show, given: Given, lowest: str, highest: str) -> Given:
    """A fader between ends as typed in dB; "" for the fader's own, "off" for off. Raises

    UnreadableText, OutOfRange.
    """
    kind = kind_on(show.desk, given.what)
    assert isinstance(kind, Number)  # faders, by the catalogue
    low = kind.typed(lowest, -math.inf, given.what) if lowest.strip() else kind.lowest
    high = kind.typed(highest, 0.0, given.what) if highest.strip() else kind.highest
    if not low < high:
        raise OutOfRange(given.what, high, low, kind.highest, "dB")
    return replace(given, lowest_db=low, highest_db=high)


def given_name(show: Show, given: Given) -> str:
    """What people call it: a strip's, a mute group's or a lift's name."""
    thing = given.what if given.is_lift else Address.at(given.what).thing
    if of_kind(thing) == "lift":
        return show.text(f"{thing}/name") or f"Lift {Address.at(f'{thing}/name').number}"
    return strip_name(show, thing)


def given_there(show: Show, given: Collection[Given]) -> list[Given]:
    """What of it is on the desk and in use."""
    found = []
    for one in given:
        thing = one.what if one.is_lift else Address.at(one.what).thing
        kind = of_kind(thing)
        if not (one.is_lift or _is_on_desk(show, one)):
            continue
        used = thing in lifts_in_use(show) if kind == "lift" else True
        if kind in ("channel", "return", "group", "mix", "matrix"):
            used = show.uses(thing)
        if used:
            found.append(one)
    return found


def _is_on_desk(show: Show, given: Given) -> bool:
    """Whether the desk has it: another that the show was moved to may have fewer."""
    try:
        check_on_desk(show.desk, given.what, 0.0 if given.is_fader else False)
    except UnknownAddress:
        return False
    return True


def renumbered_given(given: Iterable[Given], to: Mapping[str, str | None]) -> tuple[Given, ...]:
    """What is given after strips got other numbers; one that is gone, or whose number another

    took, is given no more.
    """
    whole = {**{new: None for new in to.values() if new is not None}, **to}
    found = []
    for one in given:
        thing = one.what if one.is_lift else Address.at(one.what).thing
        new = whole.get(thing, thing)
        if new is not None:
            found.append(replace(one, what=new + one.what[len(thing) :]))
    return tuple(found)


# ---- whether an edit is within it


def check_given(
    given: Collection[Given],
    show: Show,
    after: Show,
    named: Iterable[str],
    changed: Iterable[str],
) -> None:
    """Refuse an edit that goes beyond what is given: another address than these, or a fader that

    leaves its ends; what stands beyond an end may come back. One side of a linked pair covers
    both. Raises NotAllowed.
    """
    ends = _ends(show, given)
    for address in dict.fromkeys((*named, *changed)):
        if _plain(show, address) not in ends:
            raise NotAllowed(address, "volunteer")
    for address in changed:
        at = Address.at(address)
        if at.leaf != "fader":
            continue
        lowest_db, highest_db = ends[address]
        old_db, new_db = show.number(address), after.number(address)
        if new_db > max(highest_db, old_db) + _NEAR or new_db < min(lowest_db, old_db) - _NEAR:
            raise NotAllowed(address, "ends")


def _plain(show: Show, address: str) -> str:
    """The address of the strip itself: of a place kept for a gang, of what a fitting holds."""
    at = Address.at(address)
    strip = show.layers.at.get(at.thing) if at.in_fitting else None
    if strip is not None:
        return f"{strip}/{at.inner}"
    return at.plain


def _ends(show: Show, given: Collection[Given]) -> dict[str, tuple[float, float]]:
    """Every address that is given, with its ends; others have none that count."""
    free = (-math.inf, math.inf)
    found: dict[str, tuple[float, float]] = {}
    beside: dict[str, tuple[float, float]] = {}  # sides that are given by their partners alone
    for one in given:
        if one.is_lift:
            found |= dict.fromkeys(_of_lift(show, one.what), free)
            continue
        at = Address.at(one.what)
        found[one.what] = (one.lowest_db, one.highest_db)
        if partner := partner_of(show, at.thing):
            beside.setdefault(f"{partner}/{at.leaf}", (one.lowest_db, one.highest_db))
    return beside | found


def _of_lift(show: Show, lift: str) -> list[str]:
    """What a lift's keys move: how its singers go into its lead group."""
    lead = show.text(f"{lift}/lead")
    if not lead:
        return []
    groups = [lead, *filter(None, [partner_of(show, lead)])]
    singers = singers_of(show, lift)
    strips = {*singers, *(other for one in singers if (other := partner_of(show, one)))}
    return [
        f"{strip}/{group}/{leaf}"
        for strip in strips
        for group in groups
        for leaf in ("on", "level")
    ]


# ---- what is asked for


def ride_fader(
    show: Show, given: Collection[Given], address: str, to_db: float
) -> dict[str, Asked]:
    """Moves of a given fader to a level, within its ends. Raises NotAllowed."""
    one = _given(given, address)
    if not one.is_fader:
        raise NotAllowed(address, "volunteer")
    now_db = show.number(address)
    to_db = min(max(to_db, min(one.lowest_db, now_db)), max(one.highest_db, now_db))
    kind = kind_on(show.desk, address)
    assert isinstance(kind, Number)
    return {address: kind.nearest(to_db)}


def ride_key(given: Collection[Given], address: str, *, on: bool) -> dict[str, Asked]:
    """Moves of a given mute's key. Raises NotAllowed."""
    one = _given(given, address)
    if one.is_fader or one.is_lift:
        raise NotAllowed(address, "volunteer")
    return {address: on}


def ride_lift(
    show: Show, given: Collection[Given], lift: str, strip: str, *, on: bool
) -> dict[str, Asked]:
    """Moves that lift a singer of a given lift, or return them. Raises NotAllowed,

    UnreadableText.
    """
    _given(given, lift)
    return lift_singers(show, lift, [strip], on=on)


def _given(given: Collection[Given], what: str) -> Given:
    for one in given:
        if one.what == what:
            return one
    raise NotAllowed(what, "volunteer")


# ---- what is told


@dataclass(frozen=True, slots=True, kw_only=True)
class RiddenFader:
    """A fader on a volunteer's page: where it stands, in dB, its ends, and whether it is `muted` by

    its own key. `silent`: nothing of it arrives in the house, though it is open.
    """

    what: str
    name: str
    colour: str
    level_db: float
    lowest_db: float
    highest_db: float
    muted: bool
    silent: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class RiddenKey:
    """A key on a volunteer's page: a mute, or a singer of a lift (`strip`)."""

    what: str
    strip: str
    name: str
    of: str
    colour: str
    on: bool


def ridden(
    show: Show, flow: Flow, given: Collection[Given]
) -> tuple[list[RiddenFader], list[RiddenKey]]:
    """What a volunteer's page shows: faders and keys, in the order in which they were given."""
    faders: list[RiddenFader] = []
    keys: list[RiddenKey] = []
    for one in given_there(show, given):
        if one.is_lift:
            keys += _singers(show, one)
        elif one.is_fader:
            faders.append(_fader(show, flow, one))
        else:
            thing = Address.at(one.what).thing
            keys.append(
                RiddenKey(
                    what=one.what, strip="", name=given_name(show, one), of="mute",
                    colour=_colour(show, thing), on=show.on(one.what),
                )
            )  # fmt: skip
    return faders, keys


def _singers(show: Show, given: Given) -> list[RiddenKey]:
    lead, of = show.text(f"{given.what}/lead"), given_name(show, given)
    return [
        RiddenKey(
            what=given.what, strip=one, name=strip_name(show, one), of=of,
            colour=_colour(show, one),
            on=show.on(f"{one}/{lead}/on") and show.number(f"{one}/{lead}/level") > -math.inf,
        )
        for one in singers_of(show, given.what)
    ]  # fmt: skip


def _fader(show: Show, flow: Flow, given: Given) -> RiddenFader:
    thing = Address.at(given.what).thing
    kind = kind_on(show.desk, given.what)
    assert isinstance(kind, Number)
    level_db = show.number(given.what)
    muted = show.on(f"{thing}/mute")
    return RiddenFader(
        what=given.what,
        name=given_name(show, given),
        colour=_colour(show, thing),
        level_db=level_db,
        lowest_db=max(given.lowest_db, kind.lowest),
        highest_db=min(given.highest_db, kind.highest),
        muted=muted,
        silent=not muted and level_db > -math.inf and _is_silent(show, flow, thing),
    )


def _is_silent(show: Show, flow: Flow, thing: str) -> bool:
    if of_kind(thing) not in ("channel", "return"):
        return False
    cell = flow.cell(flow.layout.row(thing), flow.layout.column("house"))
    return cell.state not in (State.HEARD, State.NO_OUTPUT)


def _colour(show: Show, thing: str) -> str:
    return show.text(f"{thing}/colour") if of_kind(thing) not in ("house", "mono") else "sand"
