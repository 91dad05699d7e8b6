"""Scenes made and changed without being recalled: stored, copied, cells put in and taken out."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from typing import Final

from ..catalogue import (
    ALONE,
    CHOSEN,
    FORMATTED,
    SHARERS,
    Address,
    Leaf,
    aspect_of,
    below,
    cells_of,
    is_on_desk,
    leaf_defaults,
    of_kind,
    preamp_leaf,
    strips_of,
    target_of_cell,
)
from ..flow import strip_name
from ..show import Show
from ..values import Asked, NoSuchCell, NothingLeft, Typed, UnreadableText, Value, WrongValue
from .held import NOTHING, Held, held_of, holders, packed
from .order import free_scene, made_room, number_after, read_number, scene_in

__all__ = [
    "PRESETS_OF_CELLS",
    "carried_cells",
    "cells_by_preset",
    "duplicate_scene",
    "holder_name",
    "remove_scene",
    "renumber_scene",
    "set_cells",
    "store_again",
    "store_scene",
    "used_holders",
    "usual_cells",
    "wake_cells",
]

# What a new scene can carry at one press, in the order in which it is offered.
PRESETS_OF_CELLS: Final = {
    "everything": "Everything in use",
    "balance": "Faders, mutes and sends",
    "mutes": "Mutes and DCA members",
    "sends": "Sends of the mixes",
}
_DEEP: Final = ("dca", "mute_group")  # a hand is on them: only "everything" has their faders


def cells_by_preset(show: Show, preset: str) -> dict[str, frozenset[str]]:
    """Cells by strip for one of PRESETS_OF_CELLS, or for a mix ("mix/5": its sends), as far as they

    are in use now: what is added later is in no scene until somebody puts it there. Raises
    UnreadableText for none of these.
    """
    if of_kind(preset) == "mix":
        return _into(show, (preset,))
    if preset not in PRESETS_OF_CELLS:
        raise UnreadableText(preset, f"one of {', '.join(PRESETS_OF_CELLS)}")
    if preset == "sends":
        return _into(show, tuple(show.in_use("mix")))
    found: dict[str, frozenset[str]] = {}
    usual: dict[str, frozenset[str]] = {}
    for holder in used_holders(show):
        kind = of_kind(holder)
        cells = usual.setdefault(kind, usual_cells(show, kind))
        if preset == "mutes":
            cells = frozenset(c for c in cells if kind not in _DEEP and _is_mute_or_dca(c))
        elif preset == "balance":
            cells = frozenset(c for c in cells if kind not in _DEEP and _is_balance(c))
        if cells:
            found[holder] = cells
    return found


def _is_mute_or_dca(cell: str) -> bool:
    return cell == "mute" or of_kind(target_of_cell(cell)) == "dca"


def _is_balance(cell: str) -> bool:
    return cell in ("mute", "fader", "pan") or aspect_of(cell) == "sends"


def _into(show: Show, mixes: Sequence[str]) -> dict[str, frozenset[str]]:
    """The cells of sends into mixes, of everything in use that has such."""
    found = {}
    for holder in used_holders(show):
        known = cells_of(show.desk, of_kind(holder))
        cells = frozenset(f"send/{mix}" for mix in mixes if f"send/{mix}" in known)
        if cells:
            found[holder] = cells
    return found


def used_holders(show: Show) -> list[str]:
    """What of a desk is in use, as far as scenes can hold something of it."""
    values = show.values
    found = []
    for holder in holders(show.desk):
        kind = of_kind(holder)
        if kind == "channel" or kind in FORMATTED:
            used = show.uses(holder)
        elif kind in ("return", "engine"):
            used = f"{holder}/source" in values
        elif kind in (*_DEEP, "sharing"):
            used = f"{holder}/name" in values
        else:
            used = True
        if used:
            found.append(holder)
    return found


def usual_cells(show: Show, kind: str) -> frozenset[str]:
    """The cells of a kind of strip that lead to nothing unused, without those of CHOSEN."""
    used = {*ALONE, *(one for kind in FORMATTED for one in show.in_use(kind))}
    used |= {holder for holder in used_holders(show) if of_kind(holder) in _DEEP}
    return frozenset(
        cell
        for cell in cells_of(show.desk, kind)
        if cell not in CHOSEN
        and (cell != "part" or show.has_parts)
        and (cell != "sharing" or _shares_gain(show))
        and (not target_of_cell(cell) or target_of_cell(cell) in used)
    )


def _shares_gain(show: Show) -> bool:
    strips = (one for kind in SHARERS for one in strips_of(show.desk, kind))
    return any(f"{one}/sharing/group" in show.values for one in strips)


def standing(show: Show, holder: str, cells: Iterable[str]) -> dict[Leaf, Value]:
    """The own values of cells, without defaults: what a fitting lies over them is no scene's."""
    known, plain = (
        cells_of(show.desk, of_kind(holder)),
        leaf_defaults(show.desk, of_kind(holder)),
    )
    found: dict[Leaf, Value] = {}
    for cell in cells:
        for leaf in known[cell]:
            address = address_of(show, holder, leaf)
            value = show.own.get(address) if address else None
            if value is not None and value != plain[leaf]:
                found[leaf] = value
    return found


def address_of(show: Show, holder: str, leaf: Leaf) -> str | None:
    """The address of a leaf; a preamp's is at the socket of the channel's source, never its

    spare's. None: the channel has no preamp.
    """
    of_preamp = preamp_leaf(leaf)
    if not of_preamp:
        return f"{holder}/{leaf}"
    source = show[f"{holder}/source"]
    if not isinstance(source, str) or of_kind(source) != "input":
        return None
    address = f"{source}/{of_preamp}"
    return address if is_on_desk(show.desk, address) else None


def _checked(show: Show, holder: str, cells: Collection[str]) -> frozenset[str]:
    known = cells_of(show.desk, of_kind(holder))
    for cell in cells:
        if cell not in known:
            raise NoSuchCell(holder, cell)
    return frozenset(cells)


def store_scene(
    show: Show,
    name: str,
    cells: Mapping[str, Collection[str]],
    *,
    number: str = "",
    after: str | None = None,
) -> dict[str, Asked]:
    """Moves that make a scene of what stands now, of some cells by strip.

    `number`: as typed; "" takes the shortest behind `after` (None: behind the last). Raises
    NoSuchCell, NumberTaken, NothingLeft, UnreadableText, NoSuchScene.
    """
    scene = free_scene(show)
    last = show.scenes[-1] if show.scenes else None
    room: dict[str, float] = {}
    if number.strip():
        place = read_number(number)
    else:
        room, place = _place_behind(show, after or last)
    moves: dict[str, Asked] = _emptied(show, scene)
    moves |= room
    moves |= {f"{scene}/number": place, f"{scene}/name": Typed(name), f"{scene}/removed": False}
    return moves | _stored(show, scene, cells)


def _place_behind(show: Show, scene: str | None) -> tuple[dict[str, float], float]:
    """A number behind a scene, and new ones for some behind it where there is no room."""
    try:
        return {}, number_after(show, scene)
    except NothingLeft:
        assert scene is not None  # before all there is room: numbers begin at 1
        room = made_room(show, scene)
        return room, number_after(show.with_values(room), scene)


def store_again(show: Show, scene: str) -> dict[str, Asked]:
    """Moves that put what stands now into the cells that a scene carries. Raises NoSuchScene."""
    return _stored(show, scene_in(show, scene), carried_cells(show, scene), again=True)


def _stored(
    show: Show, scene: str, cells: Mapping[str, Collection[str]], *, again: bool = False
) -> dict[str, Asked]:
    moves: dict[str, Asked] = {}
    for holder, wanted in cells.items():
        kind, held = of_kind(holder), held_of(show, scene, holder) if again else NOTHING
        nobody = _names_nobody(show, holder, held)
        if nobody:
            held = held.without({"part"})
        asleep = {
            leaf: value
            for cell in held.asleep
            for leaf in cells_of(show.desk, kind)[cell]
            if (value := held.values.get(leaf)) is not None
        }
        carried = _checked(show, holder, wanted)
        if nobody:
            carried -= {"part"}
        new = Held(carried, held.asleep, asleep | standing(show, holder, carried))
        moves[f"{scene}/holds/{holder}"] = packed(new, kind)
    return moves


def _names_nobody(show: Show, holder: str, held: Held) -> bool:
    """Whether storing would say that nobody is on a channel: only a hand says so."""
    if of_kind(holder) != "channel" or show.own.get(f"{holder}/part") is not None:
        return False
    by_hand = "part" in held.cells and held.values.get("part") is None
    return not by_hand


def carried_cells(show: Show, scene: str) -> dict[str, frozenset[str]]:
    """The cells that a scene carries, by strip."""
    return {
        holder: held.cells
        for holder in holders(show.desk)
        if (held := held_of(show, scene, holder)).cells
    }


def set_cells(
    show: Show, scene: str, cells: Mapping[str, Collection[str]], *, on: bool
) -> dict[str, Asked]:
    """Moves that put cells into a scene, or take them out. A cell taken out sleeps with its values

    and wakes with them; a new one takes what stands now. Raises NoSuchScene, NoSuchCell.
    """
    scene_in(show, scene)
    moves: dict[str, Asked] = {}
    for holder, named in cells.items():
        wanted, kind = _checked(show, holder, named), of_kind(holder)
        held = held_of(show, scene, holder)
        new = wake_cells(show, holder, held, wanted) if on else held.without(wanted)
        if new != held:
            moves[f"{scene}/holds/{holder}"] = packed(new, kind)
    return moves


def wake_cells(show: Show, holder: str, held: Held, wanted: frozenset[str]) -> Held:
    """A holding with cells put in: what slept wakes unchanged, what is new is as it stands."""
    new = wanted - held.cells - held.asleep
    values = {**held.values, **standing(show, holder, new)}
    return Held(held.cells | wanted, held.asleep - wanted, values)


def duplicate_scene(show: Show, scene: str, *, name: str = "") -> dict[str, Asked]:
    """Moves that put a copy of a scene behind it. Raises NoSuchScene, NothingLeft."""
    scene_in(show, scene)
    copy = free_scene(show)
    moves: dict[str, Asked] = _emptied(show, copy)
    moves |= {f"{copy}/{Address.at(a).leaf}": show.values[a] for a in below(scene, show.values)}
    title = name or f"{show.text(f'{scene}/name')[:55]} copy"
    room, place = _place_behind(show, scene)
    return (
        moves
        | room
        | {
            f"{copy}/number": place,
            f"{copy}/name": Typed(title),
            f"{copy}/removed": False,
        }
    )


def remove_scene(show: Show, wanted: Sequence[str]) -> dict[str, Asked]:
    """Moves that take scenes out of the order; next is then found from where now stood. Raises

    NoSuchScene.
    """
    return {f"{scene_in(show, scene)}/removed": True for scene in wanted}


def renumber_scene(show: Show, scene: str, number: str) -> dict[str, Asked]:
    """Moves that give a scene another number, as typed. Raises NoSuchScene, UnreadableText."""
    if not number.strip():
        raise WrongValue(f"{scene}/number", "a number", "nothing")
    return {f"{scene_in(show, scene)}/number": read_number(number)}


def holder_name(show: Show, holder: str) -> str:
    """What people call something that a scene holds."""
    return "Tempo" if holder == "show" else strip_name(show, holder)


def _emptied(show: Show, scene: str) -> dict[str, Asked]:
    """Moves by which a scene holds nothing: what a removed one of this number had is gone."""
    return {a: "" for a in below(scene, show.own) if Address.at(a).in_scene}
