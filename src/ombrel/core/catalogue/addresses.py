"""Addresses looked up in the catalogue, and values checked for an address of a desk."""

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache
from typing import Final

from ..values import (
    ConsoleError,
    Kind,
    Maybe,
    Number,
    Packed,
    Reference,
    UnknownAddress,
    Value,
    WrongValue,
)
from .address import KNOWN, Address, Thing, matched
from .desk import BANK_PLACES, Bay, Box, Desk
from .parameters import CATALOGUE, Parameter

__all__ = [
    "addresses_of",
    "check_on_desk",
    "check_strip",
    "default_of",
    "is_on_desk",
    "kind_of",
    "kind_on",
    "parameter_at",
]

_PLURAL: Final = {
    "<mix>": "mixes",
    "<matrix>": "matrices",
    "<dca>": "DCAs",
    "<mute_group>": "mute groups",
}


def parameter_at(address: str) -> Parameter:
    """The catalogue's entry for an address. Raises UnknownAddress.

    >>> parameter_at("channel/7/send/mix/5/level").key
    'channel/<channel>/send/mix/<mix>/level'
    """
    return Address.at(address).entry


def default_of(address: str) -> Value:
    """What an address holds when nobody has set it. Raises UnknownAddress."""
    return Address.at(address).entry.default


def kind_of(desk: Desk, parameter: Parameter) -> Kind:
    """The kind of value that a parameter takes on a desk: a preamp's range is the desk's own."""
    kind = parameter.kind
    if isinstance(kind, Number) and parameter.key == "input/<box>/<input>/gain":
        return replace(kind, lowest=desk.gain_db[0], highest=desk.gain_db[1])
    return kind


def kind_on(desk: Desk, address: str) -> Kind:
    """As `kind_of`, by an address. Raises UnknownAddress."""
    return kind_of(desk, parameter_at(address))


def _on_desk(desk: Desk, pattern: list[str], indices: Iterable[str | int], address: str) -> None:
    """Refuse numbers and boxes that this desk does not have."""
    box, faders = None, 0
    dimensions = [word for word in pattern if word.startswith("<")]
    for dimension, index in zip(dimensions, indices, strict=True):
        if dimension == "<box>":
            box = desk.box(str(index))
            if box is None:
                raise UnknownAddress(address, f"{desk.name} has no box {index!r}")
            continue
        if dimension == "<place>":
            most, where = BANK_PLACES, f"a bank has {BANK_PLACES} places on a side"
        elif dimension == "<fader>":
            most, where = faders, f"that side of {desk.name} has {faders} faders"
        elif dimension in ("<input>", "<output>"):
            assert box is not None  # the catalogue always names the box first
            most = box.inputs if dimension == "<input>" else box.outputs
            where = f"{box.name} has {most} {dimension[1:-1]}s"
        else:
            most = desk.count(dimension[1:-1])
            where = f"{desk.name} has {most} {_PLURAL.get(dimension, dimension[1:-1] + 's')}"
        if int(index) > most:
            raise UnknownAddress(address, where)
        if dimension == "<bay>":
            faders = desk.bays[int(index) - 1].faders


@lru_cache(maxsize=KNOWN)
def _kind_at(desk: Desk, address: str) -> Kind:
    """The kind of value at an address, which must be on this desk."""
    at = Address.at(address)
    parameter = at.entry
    _on_desk(desk, parameter.key.split("/"), at.indices, address)
    if at.kind == "input":
        box = desk.box(at.box)
        if box is not None and not box.preamps:
            raise UnknownAddress(address, f"{box.name} has no preamps")
    return kind_of(desk, parameter)


@lru_cache(maxsize=KNOWN)
def is_on_desk(desk: Desk, address: str) -> bool:
    """Whether a desk has an address."""
    try:
        _kind_at(desk, address)
    except UnknownAddress:
        return False
    return True


def check_on_desk(desk: Desk, address: str, value: object) -> Value:
    """The value, checked for this address on this desk.

    Raises UnknownAddress, WrongValue or OutOfRange, naming the address.
    """
    kind = _kind_at(desk, address)
    checked = kind.checked(value, address)
    if isinstance(kind, Reference) and isinstance(checked, str):
        _check_reference(desk, kind, checked, address)
    return checked


def check_strip(desk: Desk, strip: str, leaf: str) -> None:
    """Refuse what is no strip of this desk that has a leaf. Raises UnknownAddress."""
    if Thing.at(strip).text != Thing.at(strip).thing:
        raise UnknownAddress(strip, "no strip is called that")
    check_on_desk(desk, f"{strip}/{leaf}", default_of(f"{strip}/{leaf}"))


def _check_reference(desk: Desk, kind: Reference, target: str, address: str) -> None:
    path = target.split("/")
    for pattern in kind.to:
        shape = pattern.split("/")
        indices = matched(shape, path) if len(shape) == len(path) else None
        if indices is not None:
            try:
                _on_desk(desk, shape, indices, target)
            except ConsoleError as error:
                raise WrongValue(address, "something that this desk has", target) from error
            return
    words = dict.fromkeys(pattern.split("/")[0].replace("_", " ") for pattern in kind.to)
    raise WrongValue(address, f"one of these: {', '.join(words)}", target)


def addresses_of(desk: Desk, first: str = "") -> list[str]:
    """Every address that this desk has, in the catalogue's order, save those that hold what others

    hold; for tests, formats and counts. `first`: only those that begin with this word.
    """
    found: list[str] = []
    for key, parameter in CATALOGUE.items():
        if first and not key.startswith(f"{first}/"):
            continue
        if isinstance(parameter.kind, Packed | Maybe):
            continue
        partial: list[tuple[str, Box | Bay | None]] = [("", None)]
        for word in key.split("/"):
            partial = [
                (f"{prefix}/{index}", at or inside)
                for prefix, inside in partial
                for index, at in _indices(desk, key, word, inside)
            ]
        found += [prefix.removeprefix("/") for prefix, _ in partial]
    return found


def _indices(
    desk: Desk, key: str, word: str, inside: Box | Bay | None
) -> list[tuple[str, Box | Bay | None]]:
    """What may stand for a word of a key, and the box or bay that it leads into."""
    if word == "<box>":
        boxes = [box for box in desk.boxes if box.preamps or key.startswith("output")]
        return [(box.key, box) for box in boxes]
    if word == "<bay>":
        return [(str(number), bay) for number, bay in enumerate(desk.bays, start=1)]
    if not word.startswith("<"):
        return [(word, None)]
    if isinstance(inside, Box) and word in ("<input>", "<output>"):
        most = inside.inputs if word == "<input>" else inside.outputs
    elif isinstance(inside, Bay) and word in ("<place>", "<fader>"):
        most = inside.faders if word == "<fader>" else BANK_PLACES
    else:
        most = desk.count(word[1:-1])
    return [(str(number), None) for number in range(1, most + 1)]
