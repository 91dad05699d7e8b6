"""Banks: which strip lies under which fader of the surface, and what unfolds there."""

import math
from collections.abc import Sequence
from typing import Final

from ..catalogue import BANK_PLACES, SENDERS, Address, below, of_kind
from ..show import Show, check_made, read_strips
from ..values import Asked, NothingLeft, Typed, UnknownAddress, UnreadableText
from ..wires import layout_of
from .gangs import member_for, partner_of
from .rulers import members_of

__all__ = [
    "UNFOLDING",
    "banks_in_use",
    "clear_bank",
    "fill_bay",
    "fix_strips",
    "make_banks",
    "on_bay",
    "unfolded",
]

UNFOLDING: Final = ("dca", "gang", "group", "mix")  # the kinds that `unfolded` knows


def banks_in_use(show: Show) -> list[int]:
    """Numbers of the banks that have a name or a strip, ascending."""
    held = {Address.at(a).number for a in show.values if of_kind(a) == "bank"}
    return sorted(held)


def _faders(show: Show, bay: int) -> int:
    if not 1 <= bay <= len(show.desk.bays):
        raise UnknownAddress(f"bay/{bay}", f"{show.desk.name} has {len(show.desk.bays)} bays")
    return show.desk.bays[bay - 1].faders


def _free_places(show: Show, bay: int) -> list[int]:
    """Places of a bay where no strip is fixed, ascending."""
    places = range(1, _faders(show, bay) + 1)
    return [place for place in places if show[f"bay/{bay}/fixed/{place}"] is None]


def places_of_page(show: Show, bay: int, page: int) -> dict[int, int]:
    """The place of a bank that each free fader of a bay shows on a page (from 1), by the fader.

    On the first a fader shows its own; the next hold what lies past the last fader, in order.
    """
    free = _free_places(show, bay)
    if page == 1:
        return {fader: fader for fader in free}
    first = _faders(show, bay) + (page - 2) * len(free)
    return {
        fader: first + turn
        for turn, fader in enumerate(free, start=1)
        if first + turn <= BANK_PLACES
    }


def pages_of(show: Show, bank: int, bay: int) -> int:
    """How many pages of a bay a bank's strips fill, 1 at least."""
    faders, free = _faders(show, bay), len(_free_places(show, bay))
    last = max(_held(show, bank, bay), default=0)
    return 1 + (math.ceil((last - faders) / free) if last > faders and free else 0)


def _held(show: Show, bank: int, bay: int) -> list[int]:
    """The places of a bank on a bay that hold a strip."""
    places = range(1, BANK_PLACES + 1)
    return [place for place in places if f"bank/{bank}/{bay}/{place}" in show.values]


def on_bay(show: Show, bank: int, bay: int, page: int = 1) -> list[str | None]:
    """What lies under each fader of a bay on a page of a bank: strips fixed there win."""
    places = places_of_page(show, bay, page)
    found: list[str | None] = []
    for fader in range(1, _faders(show, bay) + 1):
        strip = show[f"bay/{bay}/fixed/{fader}"]
        if not strip and fader in places:
            strip = show[f"bank/{bank}/{bay}/{places[fader]}"]
        found.append(str(strip) if strip else None)
    return found


def make_banks(show: Show, names: Sequence[str]) -> dict[str, Asked]:
    """Moves that name the next free banks. Raises UnreadableText, NothingLeft."""
    plain = [name.strip() for name in names]
    if not plain or not all(plain):
        raise UnreadableText(", ".join(names), "at least one name, and none of them empty")
    used = set(banks_in_use(show))
    free = [n for n in range(1, show.desk.count("bank") + 1) if n not in used]
    if len(free) < len(plain):
        raise NothingLeft("banks", len(plain), len(free))
    return {f"bank/{n}/name": Typed(name) for n, name in zip(free, plain, strict=False)}


def fill_bay(show: Show, bank: int, bay: int, text: str) -> dict[str, Asked]:
    """Moves that put strips as typed ("7-12, dca 1-4") on a bank's bay, in order, from the left.

    They take the places where none is fixed, and page after page behind; the rest of the bay is
    emptied. A strip may stand at several places; a pair, typed by both sides in a row, takes one.
    Raises UnreadableText, NothingLeft, UnknownAddress.
    """
    faders = _faders(show, bay)
    places = [*_free_places(show, bay), *range(faders + 1, BANK_PLACES + 1)]
    typed = read_strips(show, text, once=False, unused=True) if text.strip() else []
    strips = [
        strip
        for strip, before in zip(typed, ["", *typed], strict=False)
        if before == "" or partner_of(show, strip) != before
    ]
    if len(strips) > len(places):
        where = show.desk.bays[bay - 1].name
        raise NothingLeft(f"places of a bank on {where}", len(strips), len(places))
    moves: dict[str, Asked] = {}
    held = set(_held(show, bank, bay))
    for turn, place in enumerate(places):
        strip = strips[turn] if turn < len(strips) else None
        if strip is not None or place <= faders or place in held:
            moves[f"bank/{bank}/{bay}/{place}"] = strip
    return moves


def fix_strips(show: Show, bay: int, text: str) -> dict[str, Asked]:
    """Moves that fix strips as typed at the right of a bay, on every bank; "" frees it."""
    faders = _faders(show, bay)
    strips = read_strips(show, text, once=False, unused=True) if text.strip() else []
    if len(strips) > faders:
        raise NothingLeft(f"faders on {show.desk.bays[bay - 1].name}", len(strips), faders)
    first = faders - len(strips)
    return {
        f"bay/{bay}/fixed/{place}": strips[place - first - 1] if place > first else None
        for place in range(1, faders + 1)
    }


def clear_bank(show: Show, bank: int) -> dict[str, Asked]:
    """Moves that take a bank's name and strips away. Raises NotThere."""
    check_made(show, f"bank/{bank}")
    held = below(f"bank/{bank}", show.values)
    return {a: "" if Address.at(a).leaf == "name" else None for a in held}


def unfolded(show: Show, thing: str) -> list[str]:
    """What unfolds of a DCA (its direct members, DCAs first), a gang (its members), a group (the

    strips assigned to it) or a mix (the strips that are sent to it, on and above off). A pair is
    there by its odd side. Raises UnknownAddress for others.
    """
    return list(dict.fromkeys(member_for(show, strip) for strip in _unfolded(show, thing)))


def _unfolded(show: Show, thing: str) -> list[str]:
    kind = of_kind(thing)
    if kind in ("dca", "gang"):
        members = members_of(show, thing)
        inner = [member for member in members if of_kind(member) == "dca"]
        return inner + [member for member in members if of_kind(member) != "dca"]
    strips = [s for s in layout_of(show.desk).strips if of_kind(s) in SENDERS]
    if kind == "group":
        return [s for s in strips if f"{s}/{thing}/on" in show.values and s != thing]
    if kind == "mix":
        return [
            s
            for s in strips
            if f"{s}/send/{thing}/level" in show.values
            and show.number(f"{s}/send/{thing}/level") > -math.inf
            and show.on(f"{s}/send/{thing}/on")
        ]
    raise UnknownAddress(thing, "a DCA, a gang, a group or a mix unfolds")
