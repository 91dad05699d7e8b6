"""What a recall of a scene comes to, before it is made.

It writes what the scene carries, less what pins hold, fitted to the desk; as one edit, whole or not
at all. Gangs rest, and what would join a mix by itself stays out: a recall touches nothing that the
scene does not carry.
"""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass

from ..casting import Coming, going_on, preamp_socket, tonight, who_changes
from ..catalogue import (
    Address,
    Leaf,
    Thing,
    cells_of,
    is_on_desk,
    kind_on,
    leaf_defaults,
    of_kind,
    thing_of,
)
from ..scenes import Held, held_of, holders, pin_of_cell, pin_of_preamp, scene_in
from ..show import Show, socket_name
from ..together import giving_way, held_by_hands, leaving_as_it_is
from ..values import Asked, ConsoleError, Number, Reference, SourcesUnasked, Value
from ..words import value_text

__all__ = ["LeftOut", "Recall", "apart", "recall"]


@dataclass(frozen=True, slots=True, kw_only=True)
class LeftOut:
    """What a recall does not do as stored. `what`: whose value; `why`: in words."""

    holder: str
    what: str
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Recall:
    """A recall as it would be now. `moves`: what changes, with now and next; `pinned`: the cells

    that a pin keeps from moving, with the pin: (holder, cell, pin); `left_out`: what does not fit;
    `sources`: addresses of sources that change, which a hand asks twice. All of it are own values:
    fittings lie over them as before, but for `on`: (channel, who is on then, "" for nobody).
    """

    scene: str
    moves: Mapping[str, Asked]
    values: Mapping[str, Value]
    pinned: tuple[tuple[str, str, str], ...]
    left_out: tuple[LeftOut, ...]
    sources: tuple[str, ...]
    on: tuple[tuple[str, str], ...] = ()

    def checked(self, *, sources: bool) -> Mapping[str, Asked]:
        """The moves. Raises SourcesUnasked if sources change and nobody said so."""
        if self.sources and not sources:
            raise SourcesUnasked(len(self.sources))
        return self.moves


def recall(show: Show, scene: str, *, since_s: float = 0.0, hands: Collection[str] = ()) -> Recall:
    """What recalling a scene comes to. `since_s`: now, in s since 1970; `hands`: addresses

    under them, which it leaves out. Raises NoSuchScene.
    """
    scene_in(show, scene)
    pin_at = pin_of_cell(show)
    found: dict[str, Value] = {}
    pinned: list[tuple[str, str, str]] = []
    left: list[LeftOut] = []
    preamps: list[tuple[str, Held]] = []
    wanted: dict[str, Value] = {}
    for holder in holders(show.desk):
        held = held_of(show, scene, holder)
        if not held.cells:
            continue
        known = cells_of(show.desk, of_kind(holder))
        for cell in sorted(held.cells - known.keys()):
            left.append(LeftOut(holder=holder, what=cell, why="this desk has no such"))
        if "preamp" in held.cells:
            if pin := pin_at(holder, "preamp"):
                pinned.append((holder, "preamp", pin))
            else:
                preamps.append((holder, held))
        if "part" in held.cells:
            if pin := pin_at(holder, "part"):
                pinned.append((holder, "part", pin))
            else:
                wanted[holder] = held.value(show.desk, "channel", "part")
        for cell, differing in apart(show, holder, held):
            if cell == "part":
                continue
            if pin := pin_at(holder, cell):
                pinned.append((holder, cell, pin))
                continue
            for address, value in differing:
                fitted = _fitted(show, holder, address, value, left)
                if fitted is not None:
                    found[address] = fitted[0]
    held_by = pin_of_preamp(show)
    for holder, held in preamps:
        source = found.get(f"{holder}/source", show[f"{holder}/source"])
        if pin := held_by(str(source)):  # another channel's, on the same socket
            pinned.append((holder, "preamp", pin))
        else:
            _preamp(show, holder, held, found, left)
    values = {a: value for a, value in found.items() if value != show.own_value(a)}
    going_on = _on(show, wanted, found, left, since_s)
    moves, under_hands = giving_way(
        show, {**values, **_attached(show, found), **going_on}, held_by_hands(show, hands)
    )
    values = {a: value for a, value in values.items() if a in moves}
    for address in under_hands:
        strip = "" if of_kind(address) == "input" else thing_of(address)
        left.append(LeftOut(holder=strip, what=address, why="a hand is on it"))
    whole = leaving_as_it_is(show, moves)
    run: dict[str, Asked] = {"run/now": scene, "run/chosen": False, "run/since": since_s}
    run["run/gone"] = show["run/next"] == scene
    return Recall(
        scene=scene,
        moves={**whole, **run},
        values=values,
        pinned=tuple(sorted(pinned)),
        left_out=tuple(left),
        sources=tuple(sorted(a for a in values if Address.at(a).last in ("source", "spare"))),
        on=tuple((channel, now) for channel, _, now in who_changes(show, moves)),
    )


def _on(
    show: Show,
    wanted: Mapping[str, Value],
    found: Mapping[str, Value],
    left: list[LeftOut],
    since_s: float,
) -> dict[str, Asked]:
    """Who goes on and off: nobody takes off, a part brings tonight's performer's fitting."""
    coming = []
    for channel, value in wanted.items():
        part = value if isinstance(value, str) else None
        if part is not None and f"{part}/place" not in show.own:
            left.append(LeftOut(holder=channel, what="who is on", why="that part is gone"))
            continue
        plays = tonight(show, part) if part else None
        source = found.get(f"{channel}/source", show[f"{channel}/source"])
        coming.append(Coming(channel=channel, part=part, plays=plays, source=source))
    moves, cannot = going_on(show, coming, since_s=since_s)
    left += [LeftOut(holder=channel, what="who is on", why=why) for channel, why in cannot]
    return {a: v for a, v in moves.items() if v != show[a]}


def _attached(show: Show, found: Mapping[str, Value]) -> dict[str, Asked]:
    """A source that is recalled brings the preamp of the fitting that is on to its socket."""
    return {
        f"{channel}/attached": preamp_socket(show, channel, found[f"{channel}/source"])
        for channel in show.layers.on
        if f"{channel}/source" in found
    }


def apart(show: Show, holder: str, held: Held) -> Iterator[tuple[str, list[tuple[str, Value]]]]:
    """The carried cells that stand otherwise in the show, each with what the scene has instead, by

    address; preamps apart, whose address hangs on the source.
    """
    kind = of_kind(holder)
    known, plain = cells_of(show.desk, kind), leaf_defaults(show.desk, kind)
    values, own = show.own, held.values
    for cell in sorted(held.cells & known.keys() - {"preamp"}):
        differing = [
            (f"{holder}/{leaf}", value)
            for leaf in known[cell]
            if (value := own.get(leaf, plain[leaf])) != values.get(f"{holder}/{leaf}", plain[leaf])
        ]
        if differing:
            yield cell, differing


def _fitted(
    show: Show, holder: str, address: str, value: Value, left: list[LeftOut]
) -> tuple[Value] | None:
    """A value as it fits here; None: it is left out. What does not fit as stored is listed."""
    try:
        kind = kind_on(show.desk, address)
        if not is_on_desk(show.desk, address):
            raise KeyError
    except (ConsoleError, KeyError):
        left.append(LeftOut(holder=holder, what=address, why="this desk has no such"))
        return None
    if isinstance(kind, Reference) and isinstance(value, str) and not _is_here(show, value):
        words = f"{socket_name(show.desk, value)} is not on this desk"
        left.append(LeftOut(holder=holder, what=address, why=words))
        return None
    if isinstance(kind, Number) and isinstance(value, float):
        nearest = kind.nearest(value)
        if nearest != value:
            words = f"{value_text(show, address, value)} is out of range here"
            left.append(LeftOut(holder=holder, what=address, why=words))
        return (nearest,)
    return (value,)


def _is_here(show: Show, reference: str) -> bool:
    at = Thing.at(reference)
    if at.kind != "input":
        return True
    box = show.desk.box(at.box)
    return box is not None and at.number <= box.inputs


def _preamp(
    show: Show, holder: str, held: Held, found: dict[str, Value], left: list[LeftOut]
) -> None:
    """Gain and pad at the socket of the source that the channel has after this recall."""
    source = found.get(f"{holder}/source", show[f"{holder}/source"])
    if not isinstance(source, str) or not is_on_desk(show.desk, f"{source}/gain"):
        left.append(LeftOut(holder=holder, what="preamp", why="its source has no preamp"))
        return
    if f"{source}/gain" in found:
        words = f"{socket_name(show.desk, source)} is set for a channel before it"
        left.append(LeftOut(holder=holder, what="preamp", why=words))
        return
    plain = leaf_defaults(show.desk, "channel")
    for leaf in ("gain", "pad"):
        stored: Leaf = f"preamp/{leaf}"
        value = held.values.get(stored, plain[stored])
        fitted = _fitted(show, holder, f"{source}/{leaf}", value, left)
        if fitted is not None:
            found[f"{source}/{leaf}"] = fitted[0]
