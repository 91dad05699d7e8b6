"""Messages that nobody means: made from the published shape of what a screen may send, and bent.

    hostile(draw, schema, show)  ->  one message as text

Most have the right shape and wrong contents: addresses of other kinds, leaves of another strip,
numbers without an end. Some have no shape at all.
"""

import json
import random
from typing import Any

from ombrel.core import CATALOGUE, Show

__all__ = ["Hostile"]

_NAMES = (
    "mix", "channel", "house", "mono", "dca", "group", "matrix", "return", "engine", "output",
    "input", "line", "scene", "fitting", "performer", "part", "cast", "lift", "promise", "gang",
    "mute_group", "preset", "bank", "show", "run", "tonight", "socket", "kept", "value", "version",
    "holds", "own", "left", "right", "0", "-1", "1", "2", "3", "7", "48", "999", "99999999999999",
    "1e9", "\u0663", "", " ", "..", "%00", "\ud7ff", "🎛", "level", "fader", "eq/2/gain", "place",
)  # fmt: skip
_TEXTS = (
    "", " ", "1-8", "8-1", "1-99999", "A 1-16", "up 2", "down 1e308", "+=3", "off", "-inf", "nan",
    "=1+1", "9" * 400, "a" * 60, "a" * 399, "1,1,1", ",,,", "channel 1, ears 2", "\u202e1-4",
    "1 kHz", "−6", "1/0", "12:99", "0x10", "１２", "\x01", "{}", "[]", "null", '"', "'", "%s%n",
)  # fmt: skip
_NUMBERS = (0, -1, 1, 2, 3, 48, 999, 2**31, 2**63, -(2**63), 10**40, 0.5, -0.0, 1e-320, 1e308)
_LITERALS = ("NaN", "Infinity", "-Infinity", "1e999", "null", "true", "[]", "{}", '""')


class Hostile:
    """A source of messages, by a seed; `schema`: of the messages that are read."""

    def __init__(self, seed: int, schema: dict[str, Any], show: Show) -> None:
        self._draw = random.Random(seed)
        self._schema = schema
        self._there = sorted(show.own)
        self._keys = sorted(CATALOGUE)

    def message(self) -> str:
        """One message."""
        draw = self._draw
        if draw.random() < 0.02:
            return self._no_shape()
        heavy = draw.choice(("Do", "Do", "Try", "Watch", "Draw", ""))
        shape = self._schema["$defs"][heavy] if heavy else self._schema
        made = self._of(shape, "")
        if isinstance(made, dict) and draw.random() < 0.08:
            self._bend(made)
        text = json.dumps(made)
        if draw.random() < 0.03:  # numbers that JSON does not have
            digits = [at for at, letter in enumerate(text) if letter.isdigit()]
            if digits:
                at = draw.choice(digits)
                text = text[:at] + draw.choice(_LITERALS) + text[at + 1 :]
        return text

    def _no_shape(self) -> str:
        draw = self._draw
        deep = draw.choice([10, 3_000, 200_000])
        return draw.choice(
            ["", "null", "[]", "{", '"' * 9, "[" * deep, '{"type":' * deep,
             '{"type":"do","id":' + "[" * deep, "\x00", '{"type":"ping","type":"do"}',
             json.dumps({"type": "watch", "view": "a" * 100_000}), "9" * 10_000]
        )  # fmt: skip

    def _bend(self, made: dict[str, Any]) -> None:
        """Something somewhere is of another sort."""
        draw = self._draw
        here: Any = made
        while True:
            keys = list(here) if isinstance(here, dict) else list(range(len(here)))
            if not keys:
                return
            key = draw.choice(keys)
            if isinstance(here[key], dict | list) and here[key] and draw.random() < 0.8:
                here = here[key]
                continue
            here[key] = draw.choice([None, True, [], {}, "", 3, -1.5, "x" * 200, [[]], {"a": {}}])
            return

    # ---- by the schema

    def _of(self, schema: dict[str, Any], name: str) -> Any:
        draw = self._draw
        if "$ref" in schema:
            return self._of(self._schema["$defs"][schema["$ref"].rpartition("/")[2]], name)
        for several in ("oneOf", "anyOf"):
            if several in schema:
                return self._of(draw.choice(schema[several]), name)
        if "const" in schema:
            return schema["const"]
        if "enum" in schema:
            return draw.choice(schema["enum"])
        made = getattr(self, f"_{schema.get('type', 'any')}", self._any)
        return made(schema, name)

    def _object(self, schema: dict[str, Any], name: str) -> Any:
        draw, made = self._draw, {}
        for key, one in schema.get("properties", {}).items():
            if key in schema.get("required", ()) or draw.random() < 0.5:
                made[key] = self._of(one, key)
        inner = schema.get("additionalProperties")
        if isinstance(inner, dict):
            for _ in range(draw.randint(0, 3)):
                made[self._address()] = self._of(inner, name)
        return made

    def _array(self, schema: dict[str, Any], name: str) -> Any:
        if "prefixItems" in schema:
            return [self._of(one, name) for one in schema["prefixItems"]]
        count = self._draw.choice([schema.get("minItems", 0), 1, 1, 2, 5])
        return [self._of(schema.get("items", {}), name) for _ in range(count)]

    def _string(self, schema: dict[str, Any], name: str) -> str:
        draw = self._draw
        if schema.get("format") == "uuid":
            return f"{draw.getrandbits(128):032x}"
        if schema.get("maxLength", 0) >= 100 and name != "says" and draw.random() < 0.75:
            return self._address()
        return draw.choice(_TEXTS)[: schema.get("maxLength", 400)]

    def _address(self) -> str:
        """An address of the show, or nearly one."""
        draw = self._draw
        how = draw.random()
        if how < 0.35 and self._there:
            address = draw.choice(self._there)
        elif how < 0.7:
            words = draw.choice(self._keys).split("/")
            address = "/".join(
                draw.choice(("1", "2", "a", "local", "7")) if word.startswith("<") else word
                for word in words
            )
        else:
            return "/".join(draw.choice(_NAMES) for _ in range(draw.randint(1, 5)))[:120]
        if draw.random() < 0.6:
            words = address.split("/")
            at = draw.randrange(len(words))
            bent = draw.random()
            if bent < 0.3:
                words = words[:at]
            elif bent < 0.6:
                words[at] = draw.choice(_NAMES)
            elif bent < 0.8:
                words.append(draw.choice(_NAMES))
            else:
                words = words[: draw.choice([1, 2])]
            address = "/".join(words)
        return address[:120]

    def _number(self, schema: dict[str, Any], name: str) -> Any:
        return self._draw.choice(_NUMBERS)

    def _integer(self, schema: dict[str, Any], name: str) -> Any:
        return int(self._draw.choice(_NUMBERS[:11]))

    def _boolean(self, schema: dict[str, Any], name: str) -> Any:
        return self._draw.random() < 0.5

    def _null(self, schema: dict[str, Any], name: str) -> Any:
        return None

    def _any(self, schema: dict[str, Any], name: str) -> Any:
        return self._draw.choice([*_TEXTS, *_NUMBERS, None, [], {}])
