"""A whole show as one open JSON file, with a published schema and a version.

    {"format": "ombrel-show", "version": 4, "desk": "touring-48", "texts": [text],
     "values": {address: value}}

Only values that differ from their defaults are written; a level of null is off. What scenes hold of
a strip is a text, which stands among `texts` (`show_texts`); {"text": its place} stands for it. A
file is taken whole or not at all: every fault is told with its place.
"""

import json
import math
import re
from collections.abc import Callable
from dataclasses import replace
from typing import Any, Final

from ombrel.core import (
    CATALOGUE,
    LONGEST_PACKED,
    Address,
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
    check_on_desk,
    check_packed,
    find_sound,
    in_scene,
    of_kind,
    parameter_at,
    pattern_text,
    show_of,
)

from .show_texts import TEXTS_SCHEMA, layers_of, whole_texts

__all__ = ["FORMAT", "LONGEST_SHOW", "VERSION", "read_show", "show_schema", "write_show"]

FORMAT: Final = "ombrel-show"
VERSION: Final = 4
_FIRST: Final = 1
_ON_ONE_LINE: Final = "^[^\\u0000-\\u001f\\u007f\\ud800-\\udfff]*$"
LONGEST_SHOW: Final = 32 * 1024 * 1024
_WAY_OUT = "Mend the file, or take it again from the show that it came from."
_MOST_FAULTS = 20


def write_show(show: Show) -> bytes:
    """The show as a file. Equal shows give equal files: addresses in order."""
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
    }
    text = json.dumps(document, indent=1, ensure_ascii=False, allow_nan=False)
    return (text + "\n").encode()


def _holds_text(address: str) -> bool:
    return isinstance(parameter_at(address).kind, Packed)


def _no_step(place: int) -> None:
    """Nobody asks how far it is."""


def read_show(
    content: bytes,
    desk_of: Callable[[str], Desk],
    *,
    step: Callable[[int], None] = _no_step,
) -> Show:
    """The show in a file. `desk_of`: the desk profile of a key (raises ConsoleError). `step`: told

    when it comes to what scenes hold (1), to values (2), and to what they must keep to (3).

    Raises BadFile with every fault and its place (`$.values['channel/1/fader']`).
    """
    if len(content) > LONGEST_SHOW:
        raise BadFile(f"The file has {len(content) // 1024 // 1024} MB.", _WAY_OUT)
    try:
        document: Any = json.loads(content, object_pairs_hook=_no_key_twice)
    except (ValueError, RecursionError) as error:
        raise BadFile(f"The file is no JSON that can be read: {error}.", _WAY_OUT) from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise BadFile(f'The file is no show of Ombrel ($.format is not "{FORMAT}").', _WAY_OUT)
    version = document.get("version")
    if version not in range(_FIRST, VERSION + 1) or isinstance(version, bool):
        way_out = f"Versions {_FIRST} to {VERSION} are read here; take the Ombrel that wrote it."
        raise BadFile(f"$.version: {version!r} is not known.", way_out)
    faults = [
        f"$.{name}: not a part of a show"
        for name in sorted(set(document) - {"format", "version", "desk", "texts", "values"})
    ]
    step(1)
    texts, strange = whole_texts(document.get("texts", []))
    faults += strange
    values = document.get("values")
    if not isinstance(values, dict):
        faults.append("$.values: expected an object of addresses and values")
        values = {}
    if version == 1:
        values = _from_first(values)
    try:
        desk = desk_of(str(document.get("desk")))
    except ConsoleError as error:
        raise BadFile(f"$.desk: {error.args[0]}", _WAY_OUT) from error
    step(2)
    checked = {}
    for address, wire in values.items():
        try:
            if isinstance(wire, dict) and _holds_text(address):
                wire = _text_at(texts, wire)
            value = parameter_at(address).kind.from_wire(wire, address)
            checked[address] = check_on_desk(desk, address, value)
        except ConsoleError as error:
            faults.append(f"$.values['{address[:120]}']: {error}")
    if faults:
        more = f" And {len(faults) - _MOST_FAULTS} more." if len(faults) > _MOST_FAULTS else ""
        told = "; ".join(fault.rstrip(".") for fault in faults[:_MOST_FAULTS])
        raise BadFile(f"{len(faults)} faults: {told}.{more}", _WAY_OUT)
    step(3)
    try:
        _find_sound(desk, document.get("texts", []), texts, values)
        return show_of(desk, checked)
    except ConsoleError as error:
        raise BadFile(f"$.values: {error}", _WAY_OUT) from error


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
        "$id": "urn:ombrel:show:4",
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
