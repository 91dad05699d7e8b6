"""Fittings: read, put on, kept, and given to others. Nobody's settings go under another's name.

A version's values come from the version before it, from a hand's moves while that very fitting was
on, or from a choice that says the performer's name.
"""

from collections.abc import Collection, Mapping

from ..catalogue import CARRIED, FITTINGS, Address, Leaf, Thing, aspect_of, of_kind
from ..scenes import address_of, pin_of_cell, pin_of_preamp
from ..show import Show, carried_by_fitting, fitted_leaves, lines_on
from ..values import Asked, NoSuchFitting, NothingLeft, NotTheirName, Value
from .names import fitting_in, fitting_name, whose_fitting
from .parts import add_performer, microphones, part_in, performer_in
from .versions import Version, newest_version, packed_version, slot_of, versions

__all__ = [
    "bring_back",
    "capture",
    "capture_as",
    "copy_fitting",
    "drop",
    "fitting_for",
    "fitting_index",
    "fittings",
    "fittings_of",
    "keep",
    "loose",
    "microphone_on",
    "new_fitting",
    "preamp_socket",
    "put_on",
    "remove_fitting",
    "take_off",
    "values_of",
]


def fittings(show: Show) -> list[str]:
    """The fittings, as `fitting/<n>`, in the order in which they were made."""
    return [one for one in _ids(show) if f"{one}/removed" not in show.own]


def _ids(show: Show) -> list[str]:
    """Every fitting that is or was: a place is never another's, so no value gets another's name."""
    return [f"fitting/{n}" for n in range(1, FITTINGS + 1) if f"fitting/{n}/performer" in show.own]


def _is_free(show: Show, place: str) -> bool:
    """Whether a place never had a fitting: also where undo took its name and left that it was

    removed since.
    """
    return not any(f"{place}/{leaf}" in show.own for leaf in ("performer", "removed"))


def fittings_of(show: Show, part: str) -> list[str]:
    """The fittings of a part."""
    return [one for one in fittings(show) if show.own.get(f"{one}/part") == part]


def fitting_index(show: Show) -> dict[tuple[Value, Value, Value], str]:
    """The fittings by performer, part and microphone."""
    own = show.own
    return {
        (
            own.get(f"{one}/performer"),
            own.get(f"{one}/part"),
            own.get(f"{one}/microphone", 1.0),
        ): one
        for one in fittings(show)
    }


def fitting_for(show: Show, performer: str, part: str | None, microphone: int = 1) -> str | None:
    """The fitting of a performer for a part and microphone; None: they have none yet."""
    return fitting_index(show).get((performer, part, float(microphone)))


def new_fitting(
    show: Show, performer: str, part: str | None, microphone: int = 1
) -> tuple[str, dict[str, Value]]:
    """A performer's fitting for a part and microphone, and the moves that make an empty one where

    there is none. Raises NoSuchFitting, NothingLeft.
    """
    performer_in(show, performer)
    if part is not None:
        part_in(show, part)
    known = fitting_for(show, performer, part, microphone)
    if known is not None:
        return known, {}
    new = next((one for n in range(1, FITTINGS + 1) if _is_free(show, one := f"fitting/{n}")), None)
    if new is None:
        raise NothingLeft("fittings", 1, 0)
    return new, {
        f"{new}/performer": performer,
        f"{new}/part": part,
        f"{new}/microphone": float(microphone),
    }


def remove_fitting(show: Show, fitting: str) -> dict[str, Asked]:
    """Moves that take a fitting out of the show; undo brings it back. Raises NoSuchFitting."""
    fitting_in(show, fitting)
    channel = show.layers.at.get(fitting)
    off: dict[str, Asked] = {f"{channel}/fitting": None} if channel else {}
    return off | {f"{fitting}/removed": True, f"{fitting}/check": "waiting"}


# ---- what it has


def values_of(show: Show, fitting: str) -> dict[Leaf, Value]:
    """The values of a fitting with what is loose, by leaf, as far as it has and carries them."""
    carries = carried_by_fitting(show.own, fitting)
    return {
        leaf: value
        for leaf, cell in fitted_leaves(show.desk).items()
        if aspect_of(cell) in carries
        and (value := show.own.get(f"{fitting}/value/{leaf}")) is not None
    }


def loose(show: Show, fitting: str) -> dict[Leaf, Value]:
    """What was moved and not kept, by leaf, with the value that it has now (None: none)."""
    kept, now = newest_version(show, fitting).values, values_of(show, fitting)
    carries = carried_by_fitting(show.own, fitting)
    leaves = fitted_leaves(show.desk)
    there = {leaf for leaf in kept if leaf in leaves and aspect_of(leaves[leaf]) in carries}
    return {
        leaf: now.get(leaf)
        for leaf in leaves
        if leaf in {*there, *now} and now.get(leaf) != kept.get(leaf)
    }


# ---- on and off


def preamp_socket(show: Show, channel: str, source: Value = "") -> str | None:
    """The socket whose preamp is a channel's: its source's, never its spare's."""
    source = show[f"{channel}/source"] if source == "" else source
    if not isinstance(source, str) or of_kind(source) != "input":
        return None
    box = show.desk.box(Thing.at(source).box)
    return source if box is not None and box.preamps else None


def put_on(
    show: Show, channel: str, fitting: str, *, since_s: float, source: Value = ""
) -> dict[str, Asked]:
    """Moves that put a fitting on a channel, less what pins hold; own values stay beneath. Twice is

    once. `source`: what the channel will be fed by, if the same edit changes it. Raises
    NoSuchFitting.
    """
    fitting_in(show, fitting)
    pinned = pin_of_cell(show)
    # what it does not carry too: it may come to, and the pin holds then; and the name that follows
    cells = {*fitted_leaves(show.desk).values(), "name"}
    socket = preamp_socket(show, channel, source)
    back = sorted(
        c
        for c in cells
        if pinned(channel, c) or (c == "preamp" and socket and pin_of_preamp(show)(socket))
    )
    moves: dict[str, Asked] = {
        f"{channel}/fitting": fitting,
        f"{channel}/part": show.own.get(f"{fitting}/part"),
        f"{channel}/held_back": " ".join(back),
        f"{channel}/attached": socket,
    }
    if show.own.get(f"{channel}/fitting") != fitting:
        moves[f"{channel}/fitted_s"] = since_s
    return moves


def take_off(show: Show, channel: str, *, part: str | None = None) -> dict[str, Asked]:
    """Moves that take the fitting off a channel, whose own values then show. `part`: the part that

    is on it all the same, vacant.
    """
    return {f"{channel}/fitting": None, f"{channel}/part": part}


# ---- kept


def _kept(fitting: str, version: Version) -> dict[str, Asked]:
    return {
        f"{fitting}/newest": float(version.number),
        f"{fitting}/version/{slot_of(version.number)}": packed_version(version),
    }


def _written(
    show: Show,
    fitting: str,
    values: Mapping[Leaf, Value],
    version: Version,
    aspects: Collection[str],
) -> dict[str, Asked]:
    """Moves that put values in place of those of some aspects, and keep them as a version."""
    moves: dict[str, Asked] = {
        f"{fitting}/value/{leaf}": values.get(leaf)
        for leaf, cell in fitted_leaves(show.desk).items()
        if aspect_of(cell) in aspects
        and show.own.get(f"{fitting}/value/{leaf}") != values.get(leaf)
    }
    return moves | _kept(fitting, version)


def keep(show: Show, fitting: str, *, by: str, at_s: float) -> dict[str, Asked]:
    """Moves that make a version: the last with what is loose. Nothing loose: none. Raises

    NoSuchFitting.
    """
    fitting_in(show, fitting)
    if not loose(show, fitting):
        return {}
    channel = show.layers.at.get(fitting)
    heard_by = microphone_on(show, channel) if channel else ""
    values = values_of(show, fitting)
    carries = carried_by_fitting(show.own, fitting)
    return _kept(fitting, _next(show, fitting, by, at_s, "kept", values, carries, heard_by))


def microphone_on(show: Show, channel: str) -> str:
    """What stands before a channel, as the line on its source says: "radio headset"; or ""."""
    source = show[f"{channel}/source"]
    lines = lines_on(show, source) if isinstance(source, str) else []
    return show.text(f"line/{lines[0]}/microphone") if lines else ""


def _next(
    show: Show,
    fitting: str,
    by: str,
    at_s: float,
    how: str,
    values: Mapping[Leaf, Value],
    aspects: Collection[str],
    microphone: str = "",
) -> Version:
    """The version that would follow, with the values of some aspects. What it has of others sleeps

    on in it; the microphone stays if no other is named.
    """
    number = int(show.number(f"{fitting}/newest")) + 1
    leaves = fitted_leaves(show.desk)
    asleep = {
        leaf: value
        for leaf, value in newest_version(show, fitting).values.items()
        if leaf not in leaves or aspect_of(leaves[leaf]) not in aspects
    }
    heard_by = microphone or newest_version(show, fitting).microphone
    return Version(
        number=number, at_s=at_s, by=by[:60], how=how[:120], microphone=heard_by,
        values={**asleep, **values},
    )  # fmt: skip


def drop(show: Show, fitting: str, *, at_s: float) -> dict[str, Asked]:
    """Moves that let go of what is loose: the kept version stands again. Raises NoSuchFitting."""
    fitting_in(show, fitting)
    kept = newest_version(show, fitting).values
    gone: dict[str, Asked] = {
        f"{fitting}/value/{leaf}": kept.get(leaf) for leaf in loose(show, fitting)
    }
    return gone | {f"{fitting}/dropped_s": at_s} if gone else {}


def _named(show: Show, fitting: str, said: str) -> str:
    """The performer's name, if it was said. Raises NoSuchFitting, NotTheirName."""
    name = whose_fitting(show, fitting)
    if " ".join(said.split()).casefold() != name.casefold():
        raise NotTheirName(said, name)
    return name


def capture(
    show: Show, channel: str, fitting: str, said: str, *, by: str, at_s: float
) -> dict[str, Asked]:
    """Moves that take all that stands on a channel into a fitting, whoever is on, as a version.

    `said`: the name of the performer whose it becomes. Raises NoSuchFitting, NotTheirName.
    """
    _named(show, fitting, said)
    carries = carried_by_fitting(show.own, fitting)
    values = {}
    for leaf, cell in fitted_leaves(show.desk).items():
        address = address_of(show, channel, leaf) if aspect_of(cell) in carries else None
        if address is not None:
            values[leaf] = show[address]
    how = f"captured from channel {Thing.at(channel).number}"
    new = _next(show, fitting, by, at_s, how, values, carries, microphone_on(show, channel))
    return _written(show, fitting, values, new, carries)


def copy_fitting(
    show: Show, fitting: str, to: str, said: str, *, by: str, at_s: float
) -> dict[str, Asked]:
    """Moves that give another fitting the values of one, what is loose too, as a version. `said`:

    the name of the performer who gets them. Raises NoSuchFitting, NotTheirName.
    """
    _named(show, to, said)
    values = values_of(show, fitting_in(show, fitting))
    how = f"copied from {fitting_name(show, fitting)}"
    carries = carried_by_fitting(show.own, fitting)
    moves = _written(show, to, values, _next(show, to, by, at_s, how, values, carries), carries)
    for aspect in CARRIED:
        carried = show[f"{fitting}/carries_{aspect}"]
        if show[f"{to}/carries_{aspect}"] != carried:
            moves[f"{to}/carries_{aspect}"] = carried
    return moves


def bring_back(show: Show, fitting: str, number: int, *, by: str, at_s: float) -> dict[str, Asked]:
    """Moves that make one of the last ten versions the newest again; what is loose goes. Raises

    NoSuchFitting.
    """
    for version in versions(show, fitting_in(show, fitting)):
        if version.number == number:
            how = f"version {number} brought back"
            new = _next(show, fitting, by, at_s, how, version.values, CARRIED, version.microphone)
            return _written(show, fitting, version.values, new, CARRIED)
    raise NoSuchFitting(f"version {number}")


def capture_as(show: Show, channel: str, said: str, *, by: str, at_s: float) -> dict[str, Asked]:
    """As `capture`, for whoever is said, in the part that is on the channel: the performer and an

    empty fitting are made where there are none. Raises UnreadableText for no name, NothingLeft.
    """
    performer, moves = add_performer(show, said)
    there = show.with_values(
        {a: " ".join(said.split()) for a in moves if Address.at(a).last == "name"}
    )
    part = show.own.get(f"{channel}/part")
    number = next((m.number for m in microphones(there, str(part)) if m.channel == channel), 1)
    known = part if isinstance(part, str) and f"{part}/place" in show.own else None
    fitting, made = new_fitting(there, performer, known, number)
    there = there.with_values(made)
    return moves | made | capture(there, channel, fitting, said, by=by, at_s=at_s)
