"""What a performer's phone may move of a mix, and what it is told; enforced by addresses.

A link names mixes. Of the catalogue's addresses it may name levels and pans of the sends that it
shows, and the mix's fader; nothing else, and nothing that is not in the table of `_NAMED`.
"""

import math
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass
from typing import Final

from ..catalogue import SENDERS, Address, of_kind, parameter_at
from ..flow import Flow, State, source_name, strip_name
from ..show import Show
from ..together import in_pairs, partner_of
from ..values import Asked, NotYours, PhonesLocked, Value
from .families import (
    EVERYTHING,
    families_of,
    family_to,
    is_shown,
    limits_of,
    place_db,
    position_db,
)
from .selves import who_hears

__all__ = [
    "PhoneFamily",
    "PhoneMix",
    "PhoneSend",
    "check_phone",
    "phone_family",
    "phone_louder",
    "phone_mix",
    "phone_pan",
    "phone_start",
]

_SOFTEST: Final = -120.0
_OF_SENDS: Final = (("level",), ("level", "kept"), ("pan",), ("pan", "kept"))


# ---- what it may move


def check_phone(
    show: Show,
    mixes: Collection[str],
    named: Iterable[str],
    after: Show,
    changed: Iterable[str],
) -> None:
    """Refuse an edit that a link of these mixes may not make: `named` by a page, `changed` in all.

    Raises PhonesLocked where a mix of it is locked; NotYours for an address that is none of the
    link's, for a level above its limit or a fader above its ceiling that rises.
    """
    sides = {one: (one, partner_of(show, one)) for one in mixes}
    own = {side for pair in sides.values() for side in pair if side}
    every = dict.fromkeys((*named, *changed))
    senders = _senders(show, every)
    shown = {mix: {one for one in senders if is_shown(show, mix, one)} for mix in own}
    for address in every:
        mix = _mix_of(show, address, shown)
        if mix is None or (address in named and not _is_named(show, address)):
            raise NotYours(address)
        _check_lock(show, mix)
    for address in changed:
        _check_ends(show, after, address)


def _senders(show: Show, addresses: Iterable[str]) -> set[str]:
    """The strips whose sends may be meant, the other sides of linked pairs with them."""
    things = {Address.at(one).thing for one in addresses}
    things |= {strip for one in things if (strip := show.layers.at.get(one))}
    found = {one for one in things if of_kind(one) in SENDERS}
    return found | {other for one in found if (other := partner_of(show, one))}


def _is_named(show: Show, address: str) -> bool:
    """Whether a page may name it itself, rather than an edit's expansion."""
    at = Address.at(address)
    if at.kind == "mix":
        return at.leaf == "fader"
    stereo = show[f"{at.target}/format"] == "stereo" if at.target else False
    return at.last == "level" or (at.last == "pan" and stereo)


def _mix_of(show: Show, address: str, shown: Mapping[str, set[str]]) -> str | None:
    """The link's mix that an address is of, where the link may move it; None: it may not."""
    at = Address.at(address)
    if at.kind == "mix":
        return at.thing if at.thing in shown and at.leaf in ("fader", "fader/kept") else None
    if at.in_fitting:
        return _of_fitting(show, at, shown)
    mix = at.target
    if mix not in shown or at.words[0] != "send" or at.words[3:] not in _OF_SENDS:
        return None
    strips = shown[mix]
    beside = in_pairs(at.thing) or ()  # the linked channel's, by expansion
    linked = any(one in strips for one in beside) and partner_of(show, at.thing) is not None
    return mix if at.thing in strips or linked else None


def _of_fitting(show: Show, at: Address, shown: Mapping[str, set[str]]) -> str | None:
    strip = show.layers.at.get(at.thing)
    if strip is None or at.words[0] != "send" or at.last not in ("level", "pan"):
        return None
    return at.target if strip in shown.get(at.target, ()) else None


def _check_lock(show: Show, mix: str) -> None:
    if show.on("show/ears_locked"):
        raise PhonesLocked(show.text("show/ears_lock_reason"))
    if show.on(f"{mix}/locked"):
        raise PhonesLocked(show.text(f"{mix}/lock_reason"))


def _check_ends(show: Show, after: Show, address: str) -> None:
    """What stands above its end may fall, never rise."""
    at = Address.at(address)
    if at.is_at("mix", "fader"):
        end = show.number(f"{at.thing}/ceiling")
    elif at.last == "level" and of_kind(at.target) == "mix" and not at.in_fitting:
        end = limits_of(show, at.target, [at.thing])[address]
    else:
        return
    new, old = after.number(address), show.number(address)
    if new > max(end, old) + 1e-6:
        raise NotYours(address)


# ---- what it asks for


def _strips(show: Show, mix: str, family: str) -> list[str]:
    """The strips of a family, of all (`EVERYTHING`), or one by its name; none: it shows none."""
    if of_kind(family) in SENDERS:
        return [family] if is_shown(show, mix, family) else []
    families = families_of(show, mix)
    if family == EVERYTHING:
        return [strip for strips in families.values() for strip in strips]
    return families.get(family, [])


def phone_family(show: Show, mix: str, family: str, to_db: float) -> dict[str, Asked]:
    """Moves of a family, all of it, or one strip, to a place of its fader (-inf: off)."""
    strips = _strips(show, mix, family)
    if not strips:
        raise NotYours(f"{mix}/fader")
    return family_to(show, mix, strips, to_db)


def phone_start(show: Show, mix: str, family: str) -> dict[str, Asked]:
    """Moves of a family, or one strip, back to the start: levels and pans, without one off."""
    moves: dict[str, Asked] = {}
    stereo = show[f"{mix}/format"] == "stereo"
    for strip in _strips(show, mix, family):
        send = f"{strip}/send/{mix}"
        start_db = show.number(f"{send}/start")
        moves[f"{send}/level"] = start_db
        if start_db > -math.inf and stereo:
            moves[f"{send}/pan"] = show[f"{send}/start_pan"]
    if family == EVERYTHING and show.on(f"{mix}/started"):
        start_db, ceiling_db = show.number(f"{mix}/start_fader"), show.number(f"{mix}/ceiling")
        moves[f"{mix}/fader"] = min(start_db, ceiling_db)
    return moves


def phone_louder(
    show: Show, mix: str, *, by_db: float = 0.0, to_db: float | None = None
) -> dict[str, Asked]:
    """Moves of a mix's fader by a step or to a level, no higher than its ceiling.

    What stands above the ceiling may fall.
    """
    now_db = show.number(f"{mix}/fader")
    wanted = to_db if to_db is not None else max(now_db, _SOFTEST) + by_db
    end = max(show.number(f"{mix}/ceiling"), now_db)
    new = min(wanted, end)
    return {f"{mix}/fader": new if new >= _SOFTEST else -math.inf}


def phone_pan(show: Show, mix: str, strip: str, pan: float) -> dict[str, Asked]:
    """Moves of one send's place in a stereo mix."""
    return {f"{strip}/send/{mix}/pan": pan}


# ---- what it is told


@dataclass(frozen=True, slots=True, kw_only=True)
class PhoneSend:
    """A strip on a phone: where its level stands, in dB over its start (or over 0 dB, where it was

    not `started`; -inf: off), the place at which a finger goes on, past the ends of its range, and
    the end (`end_db`) above which it is not raised; its place left to right. `silent`: why nothing
    arrives though it is open, in a word ("" where it does).
    """

    strip: str
    name: str
    colour: str
    started: bool
    position_db: float
    place_db: float
    end_db: float
    pan: float
    silent: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PhoneFamily:
    """A family on a phone: where its fader stands against its start (None: it has none), by the

    levels and by the places of its sends.
    """

    family: str
    position_db: float | None
    place_db: float
    sends: tuple[PhoneSend, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PhoneMix:
    """A mix as a phone is told of it: nothing of any other, and no strip that it does not show.

    `ceiling_db`: None where the fader's own range ends it.
    """

    mix: str
    name: str
    who: str
    stereo: bool
    fader_db: float
    ceiling_db: float | None
    start_fader_db: float | None
    locked: bool
    lock_reason: str
    families: tuple[PhoneFamily, ...]


def phone_mix(show: Show, flow: Flow, mix: str) -> PhoneMix:
    """What a phone is told of a mix. Raises UnknownAddress."""
    locked_all = show.on("show/ears_locked")
    column = flow.layout.column(mix)
    families = families_of(show, mix)
    ceiling_db = show.number(f"{mix}/ceiling")
    reason = "show/ears_lock_reason" if locked_all else f"{mix}/lock_reason"
    return PhoneMix(
        mix=mix,
        name=strip_name(show, mix),
        who=who_hears(show, mix),
        stereo=show[f"{mix}/format"] == "stereo",
        fader_db=show.number(f"{mix}/fader"),
        ceiling_db=None if ceiling_db == parameter_at(f"{mix}/ceiling").default else ceiling_db,
        start_fader_db=show.number(f"{mix}/start_fader") if show.on(f"{mix}/started") else None,
        locked=locked_all or show.on(f"{mix}/locked"),
        lock_reason=show.text(reason),
        families=tuple(
            PhoneFamily(
                family=family,
                position_db=position_db(show, mix, strips),
                place_db=place_db(show, mix, strips),
                sends=tuple(_send(show, flow, mix, column, one) for one in strips),
            )
            for family, strips in families.items()
        ),
    )


def _send(show: Show, flow: Flow, mix: str, column: int, strip: str) -> PhoneSend:
    send = f"{strip}/send/{mix}"
    level_db: Value = show[f"{send}/level"]
    assert isinstance(level_db, float)  # a send's level is a number
    silent = ""
    if of_kind(strip) != "group" and level_db > -math.inf:
        state = State(int(flow.state[flow.layout.row(strip), column]))
        silent = "" if state in (State.HEARD, State.NO_OUTPUT) else "silent now"
    start_db = show.number(f"{send}/start")
    zero_db = start_db if start_db > -math.inf else 0.0
    return PhoneSend(
        strip=strip,
        name=source_name(show, strip) if of_kind(strip) != "group" else strip_name(show, strip),
        colour=show.text(f"{strip}/colour"),
        started=start_db > -math.inf,
        position_db=level_db - zero_db,
        place_db=place_db(show, mix, [strip]),
        end_db=limits_of(show, mix, [strip])[f"{send}/level"] - zero_db,
        pan=show.number(f"{send}/pan"),
        silent=silent,
    )
