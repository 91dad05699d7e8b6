"""The two layers: fittings over own values, and what stands.

Every address has its own value. A fitting on a channel lies over it: its value stands where it has
one, else the own value. A name that follows lies over the own name in the same way. What lies where
is read from own values alone, so no order of events bears on it.
"""

from collections.abc import Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from immutables import Map

from ..catalogue import (
    CARRIED,
    MICROPHONES,
    PARTS,
    USUAL,
    Address,
    Desk,
    Leaf,
    Thing,
    aspect_of,
    cells_of,
    is_on_desk,
    kind_on,
    preamp_leaf,
)
from ..values import Number, Value

__all__ = [
    "NO_LAYERS",
    "Layers",
    "On",
    "carried_by_fitting",
    "fitted_leaves",
    "is_in_fitting",
    "layer_at",
    "layered_anew",
    "layers_of",
    "own_beneath",
    "standing_of",
]

Own = Map[str, Value]


@dataclass(frozen=True, slots=True)
class On:
    """A fitting on a channel. `carries`: aspects that it lies over; `back`: cells that pins kept;

    `attached`: the socket whose preamp it sets, if it is the one that holds it.
    """

    fitting: str
    carries: frozenset[str]
    back: frozenset[str]
    attached: str | None
    checked: bool

    def covers(self, cell: str) -> bool:
        """Whether it lies over a cell where it has values."""
        return aspect_of(cell) in self.carries and cell not in self.back


@dataclass(frozen=True, slots=True)
class Layers:
    """What lies where. `on`: by channel; `at`: channels by fitting; `holder`: by socket, of which

    channel the fitting sets its preamp; `names`: of channels and mixes that follow who is on.
    """

    on: Mapping[str, On] = field(default_factory=dict)
    at: Mapping[str, str] = field(default_factory=dict)
    holder: Mapping[str, str] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict)

    def attached_to(self, socket: str) -> list[str]:
        """The channels whose fitting would set a socket's preamp, ascending."""
        return [c for c, on in self.on.items() if on.attached == socket and on.covers("preamp")]


NO_LAYERS: Final = Layers()


def is_in_fitting(address: str) -> bool:
    """Whether an address is a value in a fitting, which stands only where the fitting is on."""
    return Address.at(address).inner != ""


@lru_cache(maxsize=16)
def fitted_leaves(desk: Desk) -> Mapping[Leaf, str]:
    """Every leaf of a channel that a fitting can have on a desk, with its cell."""
    found = {
        leaf: cell
        for cell, leaves in cells_of(desk, "channel").items()
        if aspect_of(cell) in CARRIED
        for leaf in leaves
        if is_on_desk(desk, f"fitting/1/value/{leaf}")
    }
    return MappingProxyType(found)


def carried_by_fitting(own: Own, fitting: str) -> frozenset[str]:
    """The aspects that a fitting carries."""
    return frozenset(
        aspect
        for aspect in CARRIED
        if own.get(f"{fitting}/carries_{aspect}", aspect in USUAL) is True
    )


def layers_of(desk: Desk, own: Own) -> Layers:
    """What lies where, by own values."""
    on: dict[str, On] = {}
    at: dict[str, str] = {}
    names: dict[str, str] = {}
    for number in range(1, desk.channels + 1):
        channel = f"channel/{number}"
        fitting = own.get(f"{channel}/fitting")
        if isinstance(fitting, str):
            attached = own.get(f"{channel}/attached")
            on[channel] = On(
                fitting=fitting,
                carries=carried_by_fitting(own, fitting),
                back=frozenset(str(own.get(f"{channel}/held_back", "")).split()),
                attached=attached if isinstance(attached, str) else None,
                checked=own.get(f"{fitting}/check") == "on",
            )
            at[fitting] = channel
            if f"{channel}/name_typed" not in own and "name" not in on[channel].back:
                names[channel] = _whose(own, fitting)
    _name_mixes(own, on, names)
    if not on and not names:
        return NO_LAYERS
    return Layers(on, at, _holders(own, on), names)


def _whose(own: Own, fitting: str) -> str:
    """The name of the performer whose fitting it is."""
    return str(own.get(f"{own.get(f'{fitting}/performer')}/name", ""))


def _name_mixes(own: Own, on: Mapping[str, On], names: dict[str, str]) -> None:
    """Mixes are called after who is on in the part that hears them; of parts that share a mix the

    first that somebody is on in names it. A part without a channel is on as tonight's list says.
    """
    by_part: dict[Value, str] = {}
    for one in on.values():
        by_part.setdefault(own.get(f"{one.fitting}/part"), _whose(own, one.fitting))
    for number in range(PARTS, 0, -1):
        part, mix = f"part/{number}", own.get(f"part/{number}/mix")
        if not isinstance(mix, str) or f"{part}/place" not in own:
            continue
        if any(f"{mix}/{leaf}" in own for leaf in ("name_typed", "pinned", "pinned_name")):
            continue
        name = by_part.get(part, "")
        channels = (f"{part}/microphone/{n}/channel" for n in range(1, MICROPHONES + 1))
        if not name and not any(channel in own for channel in channels):
            performer = own.get(f"tonight/{part}")
            name = str(own.get(f"{performer}/name", "")) if performer else ""
        if name:
            names[mix] = name


def _holders(own: Own, on: Mapping[str, On]) -> dict[str, str]:
    """Of the channels on one preamp the one under check holds it; of several such, which an undo

    may leave, or of none the first with a gain.
    """
    by_socket: dict[str, list[str]] = {}
    for channel, one in on.items():
        if one.attached is not None and one.covers("preamp"):
            by_socket.setdefault(one.attached, []).append(channel)

    def place(channel: str) -> tuple[bool, bool, int]:
        fitting = on[channel].fitting
        has = own.get(f"{fitting}/value/preamp/gain") is not None
        return not on[channel].checked, not has, Thing.at(channel).number

    return {socket: min(channels, key=place) for socket, channels in by_socket.items()}


def layer_at(desk: Desk, layers: Layers, address: str) -> str | None:
    """The fitting's address that lies over another, or would once it has a value; None: none."""
    at = Address.at(address)
    if at.kind == "channel":
        one = layers.on.get(at.thing)
        cell = fitted_leaves(desk).get(at.leaf) if one is not None else None
        return f"{one.fitting}/value/{at.leaf}" if one and cell and one.covers(cell) else None
    if at.is_at("input", "gain", "pad"):
        holder = layers.holder.get(at.thing)
        return f"{layers.on[holder].fitting}/value/preamp/{at.leaf}" if holder else None
    return None


def _lying_over(desk: Desk, own: Own, layers: Layers, address: str) -> Value:
    """What lies over an own value, as it fits the desk; None: nothing does."""
    if Address.at(address).leaf == "name":
        return layers.names.get(Address.at(address).thing)
    at = layer_at(desk, layers, address)
    value = own.get(at) if at else None
    if isinstance(value, float):
        kind = kind_on(desk, address)
        if isinstance(kind, Number):
            return kind.nearest(value)
    return value


def layered_anew(desk: Desk, before: Layers, after: Layers) -> Iterator[str]:
    """The addresses that may stand otherwise since something else lies over them."""
    for strip in before.names.keys() | after.names.keys():
        if before.names.get(strip) != after.names.get(strip):
            yield f"{strip}/name"
    for channel in before.on.keys() | after.on.keys():
        one, other = before.on.get(channel), after.on.get(channel)
        if one != other:
            for leaf in fitted_leaves(desk):
                if not preamp_leaf(leaf):
                    yield f"{channel}/{leaf}"
    for socket in _sockets(before, after):
        yield f"{socket}/gain"
        yield f"{socket}/pad"


def _sockets(before: Layers, after: Layers) -> Iterable[str]:
    """The sockets whose preamp another fitting sets."""
    for socket in before.holder.keys() | after.holder.keys():
        one, other = before.holder.get(socket), after.holder.get(socket)
        was = before.on[one].fitting if one else None
        now = after.on[other].fitting if other else None
        if was != now:
            yield socket


def own_beneath(layers: Layers, address: str) -> str | None:
    """Where a fitting's value stands: the own address beneath it; None: it is not on."""
    at = Address.at(address)
    channel = layers.at.get(at.thing)
    if channel is None:
        return None
    of_preamp = preamp_leaf(at.inner)
    if not of_preamp:
        return f"{channel}/{at.inner}"
    socket = layers.on[channel].attached
    if socket is None or layers.holder.get(socket) != channel:
        return None
    return f"{socket}/{of_preamp}"


def standing_of(
    desk: Desk, own: Own, layers: Layers, addresses: Collection[str]
) -> dict[str, Value]:
    """What stands at some addresses: what lies over, or the own value (None: its default)."""
    found: dict[str, Value] = {}
    for address in addresses:
        over = _lying_over(desk, own, layers, address)
        found[address] = own.get(address) if over is None else over
    return found
