"""A show as a value: the own value of each address of a desk, and what stands there."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Final, cast

from immutables import Map

from ..catalogue import (
    KINDS,
    LINES,
    PARTS,
    SCENES,
    Address,
    Desk,
    Thing,
    bears,
    default_of,
    of_kind,
    strips_of,
)
from ..values import Value
from .changes import Change
from .layers import (
    NO_LAYERS,
    Layers,
    is_in_fitting,
    layered_anew,
    layers_of,
    own_beneath,
    standing_of,
)

__all__ = ["Show", "blank_show"]

_UNSET: Final = object()  # None is a value like any other
# What a show finds once goes on to the next, as long as nothing moves of what it is found from.
_FOUND_OF: Final = {
    "line": ("_lines", "plugged"),
    "scene": ("scenes",),
    "part": ("has_parts",),
    "channel": ("_channels", "fed_by"),
}
_FEEDS_CHANNELS: Final = (*KINDS["channel"].used_by, "on_spare")


@dataclass(frozen=True)
class Show:
    """The values of a show. Only what differs from its default is held; the rest is implied.

    `own`: the value of each address; `values`: what stands, where fittings lie over own values
    (without what fittings hold, which stands only where they are on). Where nothing lies they are
    one map. Frozen: a change gives a new show that shares what did not change, so undo, previews
    and comparing are cheap, and what is asked often is found once. Made by `blank_show` and changed
    by `edits`; nothing else writes to it.
    """

    desk: Desk
    own: "Map[str, Value]" = field(default_factory=Map)
    values: "Map[str, Value]" = field(default_factory=Map)
    layers: Layers = field(default=NO_LAYERS, compare=False)

    def __getitem__(self, address: str) -> Value:
        """What stands at an address, or its default. Raises UnknownAddress for one not known."""
        found = self.values.get(address, _UNSET)
        if found is not _UNSET:
            return cast(Value, found)
        at = Address.at(address)
        return self.own.get(address) if at.inner else at.entry.default

    def own_value(self, address: str) -> Value:
        """The own value of an address, beneath what lies over it. Raises UnknownAddress."""
        found = self.own.get(address, _UNSET)
        return Address.at(address).entry.default if found is _UNSET else cast(Value, found)

    def text(self, address: str) -> str:
        """The value at an address that holds text or a choice ("" for a reference to nothing)."""
        return str(self[address] or "")

    def number(self, address: str) -> float:
        """The value at an address that holds a number, in that address's unit."""
        return cast(float, self[address])

    def on(self, address: str) -> bool:
        """Whether the switch at an address is on."""
        return self[address] is True

    def with_values(self, values: Mapping[str, Value]) -> "Show":
        """This show with some own values replaced. They must have been checked (see `edits`)."""
        return self.moved(values)[0]

    def moved(self, values: Mapping[str, Value]) -> tuple["Show", Change]:
        """As `with_values`, and what then stands otherwise."""
        own = _put(self.own, values)
        layers = self.layers
        if bears("layers", values):
            layers = layers_of(self.desk, own)
        bare = layers is NO_LAYERS and layers is self.layers
        if bare and self.values is self.own and not any(Address.at(a).inner for a in values):
            old = {address: self.own_value(address) for address in values}
            return self._next(own, own, layers, values), Change(Map(old), Map(values))
        if bare:
            stands = {a: value for a, value in values.items() if not Address.at(a).inner}
        else:
            stands = self._standing(own, layers, values)
        old = {a: self[a] for a in stands}
        new = self._next(own, _put(self.values, stands), layers, (*values, *stands))
        return new, Change(Map(old), Map(stands))

    def _next(
        self,
        own: "Map[str, Value]",
        values: "Map[str, Value]",
        layers: Layers,
        moved: Iterable[str],
    ) -> "Show":
        """The show after a move of some addresses, with what was found already and still holds."""
        new = Show(self.desk, own, values, layers)
        at = [Address.at(one) for one in moved]
        kinds = {one.kind for one in at if one.kind != "channel" or one.leaf in _FEEDS_CHANNELS}
        for kind, names in _FOUND_OF.items():
            if kind not in kinds:
                new.__dict__.update((n, self.__dict__[n]) for n in names if n in self.__dict__)
        return new

    def _standing(
        self, own: "Map[str, Value]", layers: Layers, values: Mapping[str, Value]
    ) -> dict[str, Value]:
        """What may stand otherwise after own values moved, with what stands there then."""
        beneath = {a for a in values if not is_in_fitting(a)}
        for address in values.keys() - beneath:
            for where in (own_beneath(self.layers, address), own_beneath(layers, address)):
                if where is not None:
                    beneath.add(where)
        if layers is not self.layers:
            beneath.update(layered_anew(self.desk, self.layers, layers))
        found = standing_of(self.desk, own, layers, beneath)
        return {
            address: default_of(address) if value is None else value
            for address, value in found.items()
            if address in values or value != self.values.get(address)
        }

    def stands_at(self, address: str) -> str | None:
        """Where a fitting's value stands now: the own address beneath it; None for others."""
        return own_beneath(self.layers, address) if is_in_fitting(address) else None

    def sounding(self, values: Mapping[str, Value]) -> "Show":
        """This show with some values where they sound just now; own values stay."""
        return self._next(self.own, _put(self.values, values), self.layers, values)

    def lines(self) -> list[int]:
        """Numbers of the lines in the list, in the list's order (ties by number)."""
        return list(self._lines)

    @cached_property
    def _lines(self) -> tuple[int, ...]:
        places = [
            (self.number(f"line/{number}/place"), number)
            for number in range(1, LINES + 1)
            if f"line/{number}/place" in self.values
        ]
        return tuple(number for _, number in sorted(places))

    @cached_property
    def scenes(self) -> tuple[str, ...]:
        """The scenes as `scene/<id>`, in the order of their numbers; none that was removed."""
        return tuple(
            scene
            for _, scene in sorted(
                (self.number(f"scene/{one}/number"), f"scene/{one}")
                for one in range(1, SCENES + 1)
                if f"scene/{one}/number" in self.values
                and f"scene/{one}/removed" not in self.values
            )
        )

    @cached_property
    def has_parts(self) -> bool:
        """Whether the show has parts that performers play."""
        return any(f"part/{one}/place" in self.own for one in range(1, PARTS + 1))

    def uses(self, strip: str) -> bool:
        """Whether a strip is in use, as its kind says: it has a format, or a source or name."""
        leaves = KINDS[of_kind(strip)].used_by
        return not leaves or any(f"{strip}/{leaf}" in self.values for leaf in leaves)

    def in_use(self, kind: str) -> list[str]:
        """The strips of a kind ("group", "mix", "return") that are in use, ascending."""
        return [one for one in strips_of(self.desk, kind) if self.uses(one)]

    def mixes(self) -> list[int]:
        """Numbers of the mixes in use, ascending."""
        return [Thing.at(mix).number for mix in self.in_use("mix")]

    def channels(self) -> list[int]:
        """Numbers of the channels in use (they have a source, a spare or a name), ascending."""
        return list(self._channels)

    @cached_property
    def _channels(self) -> tuple[int, ...]:
        return tuple(Thing.at(channel).number for channel in self.in_use("channel"))

    @cached_property
    def plugged(self) -> Mapping[str, tuple[int, ...]]:
        """The lines that are plugged into a socket by either side, in the list's order, by that."""
        found: dict[str, tuple[int, ...]] = {}
        for n in self._lines:
            sides = {self[f"line/{n}/{side}"] for side in ("socket", "socket_right")}
            for socket in sides:
                if isinstance(socket, str):
                    found[socket] = (*found.get(socket, ()), n)
        return found

    @cached_property
    def fed_by(self) -> Mapping[str, tuple[int, ...]]:
        """The channels that a socket or a side of a bus feeds now, ascending, by that."""
        fed: dict[str, tuple[int, ...]] = {}
        for number in self._channels:
            source = self.source_of(number)
            if source is not None:
                fed[source] = (*fed.get(source, ()), number)
        return fed

    def source_of(self, channel: int) -> str | None:
        """What feeds a channel now: its source, or its spare while it is switched to that."""
        leaf = "spare" if self.on(f"channel/{channel}/on_spare") else "source"
        value = self[f"channel/{channel}/{leaf}"]
        return value if isinstance(value, str) else None

    def inputs(self) -> Iterator[str]:
        """Every input socket of the desk as `input/<box>/<n>`, box by box."""
        for box in self.desk.boxes:
            for number in range(1, box.inputs + 1):
                yield f"input/{box.key}/{number}"

    def outputs(self) -> Iterator[str]:
        """Every output socket of the desk as `output/<box>/<n>`, box by box."""
        for box in self.desk.boxes:
            for number in range(1, box.outputs + 1):
                yield f"output/{box.key}/{number}"


def _put(into: "Map[str, Value]", values: Mapping[str, Value]) -> "Map[str, Value]":
    """A map with some values replaced; defaults are not held."""
    grown = into.mutate()
    for address, value in values.items():
        if value == Address.at(address).entry.default:
            grown.pop(address, None)
        else:
            grown[address] = value
    return grown.finish()


def blank_show(desk: Desk) -> Show:
    """A show on this desk in which nobody has set anything."""
    nothing: Map[str, Value] = Map()
    return Show(desk, nothing, nothing)  # one map, and kept as one while nothing lies over it
