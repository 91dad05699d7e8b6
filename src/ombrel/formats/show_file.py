"""A whole show as one open JSON file, with a published schema and a version.

    {"format": "ombrel-show", "version": 5, "desk": "touring-48", "texts": [text],
     "values": {address: value}, "aside": [what is kept aside of another desk]}

Only values that differ from their defaults are written; a level of null is off. What scenes hold of
a strip is a text, which stands among `texts` (`show_texts`); {"text": its place} stands for it. A
file is taken whole or not at all: every fault is told by what it means.
"""

import json
import math
import re
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any, Final

from ombrel.core import (
    CATALOGUE,
    LONGEST_PACKED,
    Address,
    Aside,
    BadFile,
    Choice,
    ConsoleError,
    Desk,
    Maybe,
    Number,
    Packed,
    Parameter,
    Reference,
    Show,
    Switch,
    Text,
    aside_from_wire,
    aside_to_wire,
    check_on_desk,
    check_packed,
    counted,
    find_sound,
    in_scene,
    of_kind,
    parameter_at,
    pattern_text,
    refusal,
    show_of,
)

from .show_faults import MOST_FAULTS, fault_words
from .show_texts import TEXTS_SCHEMA, layers_of, whole_texts

__all__ = [
    "FORMAT",
    "LONGEST_SHOW",
    "VERSION",
    "read_show",
    "read_whole",
    "show_schema",
    "write_show",
]

FORMAT: Final = "ombrel-show"
VERSION: Final = 5
_FIRST: Final = 1
_ON_ONE_LINE: Final = "^[^\\u0000-\\u001f\\u007f\\ud800-\\udfff]*$"
LONGEST_SHOW: Final = 32 * 1024 * 1024
_PARTS: Final = {"format", "version", "desk", "texts", "values", "aside"}
_MOST_ASIDES: Final = 20  # desks that a show can have come by
_ASIDE_SCHEMA: Final = {
    "type": "object",
    "required": ["desk", "boxes", "entries"],
    "additionalProperties": False,
    "properties": {
        "desk": {"type": "string", "description": "Key of the desk profile."},
        "boxes": {"type": "object", "additionalProperties": {"type": "string"}},
        "texts": {"type": "array", "items": {"type": "string"}},
        "entries": {
            "type": "array",
            "description": "An address and its value there; then where it would stand here, and"
            " what stood there when it came, or whether what it is of was here.",
            "items": {"type": "array", "minItems": 2, "maxItems": 4},
        },
    },
}
_WAY_OUT = "Mend the file, or take it again from the show that it came from."


def write_show(show: Show, asides: Sequence[Aside] = ()) -> bytes:
    """The show as a file. Equal shows give equal files: addresses in order. `asides`: what is kept

    aside with it of other desks.
    """
    values: dict[str, Any] = {
        address: parameter_at(address).kind.to_wire(value)
        for address, value in sorted(show.own.items())
    }
    held = {address: str(value) for address, value in values.items() if _holds_text(address)}
    places, texts = layers_of(held)
    values |= {address: {"text": places[text]} for address, text in held.items()}
    document = {
        "format": FORMAT,
        "version": VERSION,
        "desk": show.desk.key,
        "texts": texts,
        "values": values,
        **({"aside": [aside_to_wire(one) for one in asides]} if asides else {}),
    }
    text = json.dumps(document, indent=1, ensure_ascii=False, allow_nan=False)
    return (text + "\n").encode()


def _holds_text(address: str) -> bool:
    return isinstance(parameter_at(address).kind, Packed)


def _no_step(place: int) -> None:
    """Nobody asks how far it is."""


def read_show(content: bytes, desk_of: Callable[[str], Desk]) -> Show:
    """The show in a file, as `read_whole` reads it."""
    return read_whole(content, desk_of)[0]


def read_whole(
    content: bytes,
    desk_of: Callable[[str], Desk],
    *,
    step: Callable[[int], None] = _no_step,
) -> tuple[Show, tuple[Aside, ...]]:
    """The show in a file, and what is kept aside with it. `desk_of`: the desk profile of a key

    (raises ConsoleError). `step`: told when it comes to what scenes hold (1), to values (2), and
    to what they must keep to (3).

    Raises BadFile with every fault, by what it means ("Channel 1 (Kick), fader: ...").
    """
    if len(content) > LONGEST_SHOW:
        raise BadFile(f"The file has {len(content) // 1024 // 1024} MB.", _WAY_OUT)
    try:
        document: Any = json.loads(content, object_pairs_hook=_no_key_twice)
    except (ValueError, RecursionError) as error:
        raise BadFile(f"The file is no JSON that can be read: {error}.", _WAY_OUT) from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise BadFile(f'The file is no show of Ombrel: its format is not "{FORMAT}".', _WAY_OUT)
    version = document.get("version")
    if version not in range(_FIRST, VERSION + 1) or isinstance(version, bool):
        way_out = f"Versions {_FIRST} to {VERSION} are read here; take the Ombrel that wrote it."
        raise BadFile(f"The file is of version {version!r}, which is not known.", way_out)
    faults = [
        f"{name[:40]!r} is no part of a show"
        for name in sorted(
            set(document) - {"format", "version", "desk", "texts", "values", "aside"}
        )
    ]
    step(1)
    texts, strange = whole_texts(document.get("texts", []))
    faults += strange
    values = document.get("values")
    if not isinstance(values, dict):
        faults.append("The file has no values (an object of addresses and values)")
        values = {}
    if version == 1:
        values = _from_first(values)
    try:
        desk = desk_of(str(document.get("desk")))
    except ConsoleError as error:
        raise BadFile(f"The desk of the show is not known here. {error.args[0]}", "") from error
    step(2)
    checked = {}
    strange_values: list[tuple[str, ConsoleError]] = []
    for address, wire in values.items():
        try:
            if isinstance(wire, dict) and _holds_text(address):
                wire = _text_at(texts, wire)
            value = parameter_at(address).kind.from_wire(wire, address)
            checked[address] = check_on_desk(desk, address, value)
        except ConsoleError as error:
            strange_values.append((address, error))
    words, count = fault_words(strange_values, values)
    asides = _asides(document.get("aside", []), faults)
    if count or faults:
        every = [*faults, *words]
        more = f" And {len(every) - MOST_FAULTS} more." if len(every) > MOST_FAULTS else ""
        told = "; ".join(fault.rstrip(".") for fault in every[:MOST_FAULTS])
        raise BadFile(f"{counted(len(faults) + count, 'fault')}: {told}.{more}", _WAY_OUT)
    step(3)
    try:
        _find_sound(desk, document.get("texts", []), texts, values)
        return show_of(desk, checked), asides
    except ConsoleError as error:
        raise BadFile(f"The values do not go together: {refusal(error)}", _WAY_OUT) from error


def _asides(wire: Any, faults: list[str]) -> tuple[Aside, ...]:
    """What is kept aside; what cannot be read is put to the faults."""
    if not isinstance(wire, list) or len(wire) > _MOST_ASIDES:
        faults.append(f"What is kept aside is no list of at most {_MOST_ASIDES} desks")
        return ()
    try:
        return tuple(aside_from_wire(one) for one in wire)
    except BadFile as error:
        faults.append(error.what)
        return ()


def _find_sound(desk: Desk, written: list[Any], texts: list[str], values: dict[str, Any]) -> None:
    """Look through what scenes hold, each text once: of one that is written as it differs from

    another that is sound only what differs.
    """
    kinds: dict[int, dict[str, str]] = {}  # by place: an address for each kind of strip
    for address, wire in values.items():
        if isinstance(wire, dict) and in_scene(address):
            kind = of_kind(Address.at(address).target)
            kinds.setdefault(wire["text"], {})[kind] = address
    for place in sorted(kinds):
        for kind, address in kinds[place].items():
            one = written[place]
            if isinstance(one, dict):
                find_sound(desk, kind, texts[place], texts[one["like"]], one)
            else:
                check_packed(desk, address, texts[place])


def _text_at(texts: list[str], wire: dict[str, Any]) -> Any:
    """The text that stands at a place; what names none is no value, and refused as such."""
    place = wire.get("text")
    if not isinstance(place, int) or isinstance(place, bool) or len(wire) > 1:
        return wire
    return texts[place] if 0 <= place < len(texts) else wire


def _from_first(values: dict[str, Any]) -> dict[str, Any]:
    """Values of a file of version 1, where a send that named no tap was tapped before the fader."""
    sends = {
        Address.at(address).stem
        for address in values
        if re.fullmatch(r"channel/\d+/send/mix/\d+/(level|on|pan)", address)
    }
    return {**{f"{send}/tap": "before_fader" for send in sends}, **values}


def _no_key_twice(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for name, value in pairs:
        if name in found:
            raise ValueError(f"{name[:120]!r} stands there twice")
        found[name] = value
    return found


def show_schema() -> dict[str, Any]:
    """The JSON Schema (2020-12) of the file, made from the catalogue; desks bound it further."""
    patterns = {pattern_text(key): _value_schema(one) for key, one in CATALOGUE.items()}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "urn:ombrel:show:5",
        "title": "A show of Ombrel",
        "description": (
            "What no schema says: which numbers of strips, sockets and boxes there are, and how"
            " far a preamp goes, is the desk profile's; a socket takes one line, an engine one"
            " return, a mix that feeds an engine is used for effects; DCAs and groups are in no"
            " circle; no loop reaches 0 dB; packed texts have the order in which they are written;"
            f" a file has at most {LONGEST_SHOW // 1024 // 1024} MB, and no key twice."
        ),
        "type": "object",
        "required": ["format", "version", "desk", "values"],
        "additionalProperties": False,
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": VERSION},
            "desk": {"type": "string", "description": "Key of the desk profile."},
            "texts": TEXTS_SCHEMA,
            "aside": {
                "type": "array",
                "maxItems": _MOST_ASIDES,
                "description": "What does not fit the desk, kept whole for the one it came from.",
                "items": _ASIDE_SCHEMA,
            },
            "values": {
                "type": "object",
                "patternProperties": patterns,
                "additionalProperties": False,
            },
        },
    }


def _value_schema(parameter: Parameter) -> dict[str, Any]:
    kind, said = parameter.kind, {"description": parameter.says}
    if isinstance(kind, Maybe):
        inner = _value_schema(replace(parameter, kind=kind.of))
        inner.pop("description")
        off = (
            [{"const": "off"}]
            if isinstance(kind.of, Number) and kind.of.lowest == -math.inf
            else []
        )
        return {**said, "anyOf": [{"type": "null"}, inner, *off]}
    if isinstance(kind, Number):
        number: dict[str, Any] = {"type": "integer" if kind.whole else "number",
                                  "maximum": kind.highest}  # fmt: skip
        if kind.lowest > float("-inf"):
            return {**said, **number, "minimum": kind.lowest}
        finite = {**number, "minimum": kind.lowest_finite}
        return {**said, "anyOf": [{"type": "null", "description": "off"}, finite]}
    if isinstance(kind, Switch):
        return {**said, "type": "boolean"}
    if isinstance(kind, Choice):
        return {**said, "enum": list(kind.options)}
    if isinstance(kind, Text):
        return {**said, "type": "string", "maxLength": kind.longest, "pattern": _ON_ONE_LINE}
    if isinstance(kind, Packed):
        words = {"description": f"{parameter.says} JSON in one text, or the place of one in texts."}
        place = {"type": "integer", "minimum": 0}
        named = {"type": "object", "required": ["text"], "additionalProperties": False,
                 "properties": {"text": place}}  # fmt: skip
        return {**words, "anyOf": [{"type": "string", "maxLength": LONGEST_PACKED}, named]}
    assert isinstance(kind, Reference)  # a new kind needs its schema here
    targets = [{"type": "string", "pattern": pattern_text(target)} for target in kind.to]
    return {**said, "anyOf": [{"type": "null"}, *targets]}
