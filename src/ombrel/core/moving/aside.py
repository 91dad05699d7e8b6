"""What of a show does not fit its desk, kept aside whole until it comes to one where it does."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..catalogue import parameter_at
from ..edit import Said, said_otherwise, value_otherwise
from ..values import BadFile, ConsoleError, Packed, Value

__all__ = [
    "MOST_ENTRIES",
    "Aside",
    "Entry",
    "aside_from_wire",
    "aside_to_wire",
    "renumbered_asides",
]

MOST_ENTRIES = 200_000  # of a desk: more than the largest show has values
_WAY_OUT = "Take the file again from the show that it came from."


@dataclass(frozen=True, slots=True)
class Entry:
    """A value kept aside, in the terms of its desk. `at`: where it would stand on the show's desk

    now ("": nowhere). `stood`: what stood there when it came: moved since, that hand is the newer;
    of what stands nowhere True, if what it is of was there.
    """

    address: str
    value: Value
    at: str = ""
    stood: Value = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Aside:
    """What is kept aside of a desk, by its profile's key. `boxes`: which box of the desk where the

    show went from there stands for which of this one.
    """

    desk: str
    boxes: Mapping[str, str]
    entries: tuple[Entry, ...]


def renumbered_asides(asides: Iterable[Aside], to: Mapping[str, str | None]) -> tuple[Aside, ...]:
    """What is kept aside, after strips of the show got other numbers (None: they are gone)."""
    whole = {**{new: None for new in to.values() if new is not None}, **to}
    said = said_otherwise(whole)
    return tuple(
        replace(one, entries=tuple(filter(None, (_said(entry, said) for entry in one.entries))))
        for one in asides
    )


def _said(entry: Entry, said: Said) -> Entry | None:
    address, at = said(entry.address), said(entry.at) if entry.at else ""
    if address is None or at is None:
        return None
    value = value_otherwise(entry.address, entry.value, said)
    stood = value_otherwise(entry.at, entry.stood, said) if entry.at else entry.stood
    return Entry(address, value, at, stood)


def aside_to_wire(aside: Aside) -> dict[str, Any]:
    """As it is written into a file and kept in the store: what scenes hold once, by its place."""
    texts: dict[str, int] = {}

    def wire(address: str, value: Value) -> Any:
        if isinstance(parameter_at(address).kind, Packed) and value:
            return {"text": texts.setdefault(str(value), len(texts))}
        return parameter_at(address).kind.to_wire(value)

    entries = [
        [one.address, wire(one.address, one.value)]
        + ([one.at, wire(one.at, one.stood)] if one.at else [True] if one.stood else [])
        for one in aside.entries
    ]
    held = {"texts": list(texts)} if texts else {}
    return {"desk": aside.desk, "boxes": dict(aside.boxes), **held, "entries": entries}


def aside_from_wire(wire: Any) -> Aside:
    """What `aside_to_wire` wrote. Raises BadFile for what it never writes."""
    try:
        boxes = {str(key): str(to) for key, to in wire["boxes"].items()}
        entries = wire["entries"]
        if len(entries) > MOST_ENTRIES:
            raise ValueError(f"more than {MOST_ENTRIES} values")
        texts = [str(text) for text in wire.get("texts", ())]
        whole = tuple(_entry(one, texts) for one in entries)
        return Aside(desk=str(wire["desk"]), boxes=boxes, entries=whole)
    except (LookupError, TypeError, ValueError, AttributeError, ConsoleError) as error:
        raise BadFile(f"What the file keeps aside cannot be read: {error}.", _WAY_OUT) from error


def _entry(wire: Any, texts: Sequence[str]) -> Entry:
    def value_at(address: str, wire: Any) -> Value:
        kind = parameter_at(address).kind
        if not isinstance(kind, Packed):
            return kind.from_wire(wire, address)
        text = texts[wire["text"]] if isinstance(wire, dict) else str(wire or "")
        if text:  # looked through whole: what no scene or version holds is told now, not later
            value_otherwise(address, text, lambda name: None)
        return text

    if not isinstance(wire, list) or not 2 <= len(wire) <= 4:
        raise ValueError("an entry is an address with its value, and how it stands now")
    value = value_at(wire[0], wire[1])
    if len(wire) < 4:
        return Entry(wire[0], value, "", True if len(wire) == 3 else None)
    return Entry(wire[0], value, wire[2], value_at(wire[2], wire[3]))
