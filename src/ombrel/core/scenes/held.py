"""What a scene holds of one strip, as a value and as one text.

The text is JSON in one order without defaults: equal holdings are equal texts. A cell that is
listed is held whole, defaults included; a cell asleep keeps its values and is not recalled.
"""

import json
from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from types import MappingProxyType
from typing import Any, Final

from ..catalogue import (
    HOLDERS,
    LONE,
    Address,
    Desk,
    Leaf,
    cells_of,
    leaf_defaults,
    of_kind,
    parameter_at,
    preamp_leaf,
)
from ..show import Show
from ..values import ConsoleError, Kind, Reference, Value, WrongValue

__all__ = [
    "NOTHING",
    "Held",
    "check_packed",
    "find_sound",
    "held_joined",
    "held_of",
    "held_otherwise",
    "holders",
    "made_of",
    "made_otherwise",
    "packed",
]


@dataclass(frozen=True, slots=True)
class Held:
    """`cells`: carried; `asleep`: kept, not carried. `values`: of all of them, without defaults."""

    cells: frozenset[str] = frozenset()
    asleep: frozenset[str] = frozenset()
    values: Mapping[Leaf, Value] = field(default_factory=dict)

    def value(self, desk: Desk, kind: str, leaf: Leaf) -> Value:
        """What it holds at a leaf of one of its cells."""
        return self.values.get(leaf, leaf_defaults(desk, kind)[leaf])

    def with_values(self, desk: Desk, kind: str, values: Mapping[Leaf, Value]) -> "Held":
        """This with some values replaced."""
        plain = leaf_defaults(desk, kind)
        whole = {**self.values, **values}
        return Held(
            self.cells, self.asleep, {a: one for a, one in whole.items() if one != plain[a]}
        )

    def without(self, cells: Collection[str]) -> "Held":
        """This with some cells put to sleep: they keep their values."""
        gone = self.cells & frozenset(cells)
        return Held(self.cells - gone, self.asleep | gone, self.values)


NOTHING: Final = Held()


def packed(held: Held, kind: str) -> str:
    """The one text of a holding; "" of one that holds nothing."""
    if not held.cells and not held.asleep:
        return ""
    values = {leaf: _kind(kind, leaf).to_wire(held.values[leaf]) for leaf in sorted(held.values)}
    parts: dict[str, Any] = {"cells": sorted(held.cells)}
    if held.asleep:
        parts["asleep"] = sorted(held.asleep)
    return _text(parts | {"values": values})


def _text(parts: Mapping[str, Any]) -> str:
    return json.dumps(parts, ensure_ascii=False, separators=(",", ":"))


@lru_cache(maxsize=512)
def _parts(text: str) -> dict[str, Any]:
    """A text's JSON, which nobody writes into."""
    parts = json.loads(text)
    if not isinstance(parts, dict) or not isinstance(parts.get("values"), dict):
        raise ValueError("no holding")
    return parts


def made_of(text: str, base: str) -> dict[str, Any] | None:
    """What makes one text of another that holds the same cells: `values` that come or change, and

    leaves that it is `without`. None where the cells are others, or there is little in common.
    """
    own, other = _parts(text), _parts(base)
    if {**own, "values": None} != {**other, "values": None}:
        return None
    now, then = own["values"], other["values"]
    values = {leaf: wire for leaf, wire in now.items() if then.get(leaf, now) != wire}
    without = [leaf for leaf in then if leaf not in now]
    if len(values) + len(without) > len(now) // 2:
        return None
    made = {"values": values, **({"without": without} if without else {})}
    return made if made_otherwise(base, made) == text else None


def made_otherwise(base: str, by: Mapping[str, Any]) -> str:
    """The text that `made_of` told from another. Raises ValueError for what tells none."""
    values, without = by.get("values", {}), by.get("without", [])
    if not isinstance(values, dict) or not isinstance(without, list):
        raise ValueError("values by their leaves, and leaves to leave out")
    whole = {**_parts(base)["values"], **values}
    for leaf in without:
        whole.pop(str(leaf), None)
    return _text({**_parts(base), "values": {leaf: whole[leaf] for leaf in sorted(whole)}})


@lru_cache(maxsize=30_000)
def _unpacked(text: str, kind: str) -> Held:
    parts = _parts(text)
    values = {leaf: _value(kind, leaf, wire)[0] for leaf, wire in parts["values"].items()}
    asleep = frozenset(parts.get("asleep", ()))
    return Held(frozenset(parts["cells"]), asleep, MappingProxyType(values))


def held_of(show: Show, scene: str, holder: str) -> Held:
    """What a scene ("scene/3") holds of a strip ("channel/7")."""
    text = show.values.get(f"{scene}/holds/{holder}", "")
    return _unpacked(str(text), of_kind(holder)) if text else NOTHING


def held_otherwise(text: str, kind: str, said: Callable[[str], str | None]) -> str:
    """A text with the strips that it names renamed: cells and leaves by destination, references.

    `said`: what a name becomes (None: it is gone, and so is what is of it).
    """
    parts = _parts(text)
    named = [*parts["cells"], *parts.get("asleep", ()), *(
        wire for leaf, wire in parts["values"].items() if _refers(kind, leaf)
    )]  # fmt: skip
    if all(not isinstance(one, str) or said(one) == one for one in named):
        return text
    held = _unpacked(text, kind)
    values: dict[Leaf, Value] = {}
    for leaf, value in held.values.items():
        there = said(leaf)
        if there is not None:
            stands = said(value) if _refers(kind, leaf) and isinstance(value, str) else value
            values[there] = stands
    cells, asleep = (
        frozenset(new for cell in some if (new := said(cell))) for some in (held.cells, held.asleep)
    )
    # of a reference to what is gone nothing is left: its default is nothing
    plain = {leaf: value for leaf, value in values.items() if value is not None}
    return packed(Held(cells, asleep, plain), kind)


def held_joined(now: str, then: str, kind: str, beyond: Callable[[str], bool]) -> str:
    """What is held now with what was held then of cells and leaves that are `beyond` a desk."""
    if not then:
        return now
    was = _unpacked(then, kind)
    held = _unpacked(now, kind) if now else NOTHING
    cells = held.cells | {cell for cell in was.cells if beyond(cell)}
    asleep = held.asleep | {cell for cell in was.asleep if beyond(cell)} - cells
    values = {leaf: value for leaf, value in was.values.items() if beyond(leaf)}
    return packed(Held(cells, asleep, {**values, **held.values}), kind)


@lru_cache(maxsize=16_000)
def _refers(kind: str, leaf: Leaf) -> bool:
    return isinstance(_kind(kind, leaf), Reference)


def check_packed(desk: Desk, address: str, text: str) -> None:
    """Refuse a text that is no holding of what its address says. Raises WrongValue."""
    if not text:
        return
    kind = of_kind(Address.at(address).target)
    if (desk, kind, text) in _SOUND:
        return
    try:
        fault = _fault(desk, kind, text)
    except (ValueError, RecursionError) as error:
        fault = f"JSON that can be read ({error})"
    if fault:
        raise WrongValue(address, fault, text[:60])
    _remember(desk, kind, text)


# Texts that were found without a fault: more than five hundred scenes that all differ hold.
_MOST_SOUND: Final = 40_000
_SOUND: Final[dict[tuple[Desk, str, str], None]] = {}


def _remember(desk: Desk, kind: str, text: str) -> None:
    while len(_SOUND) >= _MOST_SOUND:
        _SOUND.pop(next(iter(_SOUND)), None)
    _SOUND[desk, kind, text] = None


def find_sound(desk: Desk, kind: str, text: str, base: str, by: Mapping[str, Any]) -> None:
    """Look through a text that `made_otherwise` made of another which is sound: what differs is all

    that can be wrong with it. What is not found sound here is looked through whole when it is asked
    for, and told then.
    """
    if (desk, kind, base) not in _SOUND:
        return
    parts = _parts(base)
    leaves = _leaves(desk, kind, (*parts["cells"], *parts.get("asleep", ())))
    try:
        sound = all(leaf in leaves and _value(kind, leaf, wire)[1]
                    for leaf, wire in by.get("values", {}).items())  # fmt: skip
    except (ConsoleError, TypeError):
        return
    if sound:
        _remember(desk, kind, text)


@lru_cache(maxsize=512)
def _leaves(desk: Desk, kind: str, cells: tuple[str, ...]) -> frozenset[Leaf]:
    known = cells_of(desk, kind)
    return frozenset(leaf for cell in cells for leaf in known[cell])


def _fault(desk: Desk, kind: str, text: str) -> str:
    """What a text should be and is not; "" where nothing is wrong. Raises ValueError: no JSON."""
    parts = _parts(text)
    if set(parts) - {"cells", "asleep", "values"}:
        return "an object of cells, asleep and values"
    known, lists = cells_of(desk, kind), [parts.get("cells"), parts.get("asleep", [])]
    for cells in lists:
        if not isinstance(cells, list) or not all(isinstance(one, str) for one in cells):
            return "lists of cells"
        strange = [one for one in cells if one not in known]
        if strange:
            return f"cells that a {kind} has, not {strange[0][:40]!r}"
    if set(lists[0]) & set(lists[1]):
        return "cells that are carried or asleep, not both"
    values = parts["values"]
    leaves = {leaf for cells in lists for cell in cells for leaf in known[cell]}
    strange = [leaf for leaf in values if leaf not in leaves]
    if strange:
        return f"values of its cells, not of {strange[0][:60]!r}"
    try:
        known_values = [_value(kind, leaf, wire) for leaf, wire in values.items()]
    except ConsoleError as error:
        return str(error)
    except TypeError:  # a list or an object, where no value is one
        return "values that are one value each"
    in_order: dict[str, Any] = {"cells": sorted(lists[0])}
    if lists[1]:
        in_order["asleep"] = sorted(lists[1])
    in_order["values"] = {leaf: values[leaf] for leaf in sorted(values)}
    plain = all(as_written for _, as_written in known_values) and _text(in_order) == text
    return "" if plain else "the one order of its parts, without defaults"


@lru_cache(maxsize=100_000, typed=True)  # scenes hold mostly what others hold
def _value(kind: str, leaf: Leaf, wire: Any) -> tuple[Value, bool]:
    """What stands for a value in JSON, and whether it is written as this writes it."""
    found = _kind(kind, leaf)
    value = found.from_wire(wire, leaf)
    back = found.to_wire(value)
    return value, (type(back), back) == (type(wire), wire)


@lru_cache(maxsize=16_000)
def _kind(kind: str, leaf: Leaf) -> Kind:
    if of_preamp := preamp_leaf(leaf):
        return parameter_at(f"input/a/1/{of_preamp}").kind
    return parameter_at(f"{kind}/{leaf}" if kind in LONE else f"{kind}/1/{leaf}").kind


def holders(desk: Desk) -> Iterable[str]:
    """All that a scene can hold something of, in the order of a desk's strips."""
    return _holders(desk)


@lru_cache(maxsize=16)
def _holders(desk: Desk) -> tuple[str, ...]:
    found: list[str] = []
    for kind in (of_kind(pattern) for pattern in HOLDERS):
        if kind in LONE:
            found.append(kind)
        else:
            found += [f"{kind}/{number}" for number in range(1, desk.count(kind) + 1)]
    return tuple(found)
