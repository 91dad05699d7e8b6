"""What scenes hold, in a show file: each text once, whole, or as what makes it of one before it.

    ["a text", {"like": 0, "values": {leaf: value}, "without": [leaf]}]

Scenes differ from their neighbours in few values: written whole, five hundred of them would be a
file of more than a hundred megabytes.
"""

from collections.abc import Mapping
from typing import Any, Final

from ombrel.core import Address, made_of, made_otherwise

__all__ = ["LONGEST_TEXTS", "TEXTS_SCHEMA", "layers_of", "whole_texts"]

# Of all texts together, in letters: a small file could else unfold to any size.
LONGEST_TEXTS: Final = 256 * 1024 * 1024
_MOST_FAULTS: Final = 20

TEXTS_SCHEMA: Final = {
    "type": "array",
    "description": "What addresses hold, named by its place: whole, or like an earlier one but for "
    "the values that are named, and without those that are left out.",
    "items": {
        "anyOf": [
            {"type": "string"},
            {
                "type": "object",
                "required": ["like"],
                "additionalProperties": False,
                "properties": {
                    "like": {"type": "integer", "minimum": 0},
                    "values": {"type": "object"},
                    "without": {"type": "array", "items": {"type": "string"}},
                },
            },
        ]
    },
}


def layers_of(held: Mapping[str, str]) -> tuple[dict[str, int], list[Any]]:
    """The place of each text, and the texts as they are written. `held`: by address.

    A text is written as it differs from that of the scene before, where they have much in common.
    """
    places: dict[str, int] = {}
    written: list[Any] = []
    before: dict[str, str] = {}  # by strip: of the scene before
    for address in sorted(held, key=_by_scene):
        text, strip = held[address], Address.at(address).target
        if text not in places:
            base = before.get(strip)
            made = made_of(text, base) if base else None
            places[text] = len(written)
            written.append(text if made is None else {"like": places[str(base)], **made})
        before[strip] = text
    return places, written


def _by_scene(address: str) -> tuple[int, str]:
    return Address.at(address).number, address


def whole_texts(written: Any) -> tuple[list[str], list[str]]:
    """The texts of a file, each whole, and what is wrong with them, told with its place."""
    if not isinstance(written, list):
        return [], ["What scenes hold (texts) is no list"]
    texts: list[str] = []
    faults: list[str] = []
    length = 0
    for place, one in enumerate(written):
        text = one if isinstance(one, str) else ""
        if not isinstance(one, str):
            try:
                text = _made(one, texts)
            except (ValueError, RecursionError) as error:
                faults.append(f"What scenes hold, text {place + 1}: expected a text, or {error}")
        length += len(text)
        if length > LONGEST_TEXTS:
            return texts, [
                *faults,
                f"What scenes hold, text {place + 1}: the texts are too long all together",
            ]
        if len(faults) > _MOST_FAULTS:
            break
        texts.append(text)
    return texts, faults


def _made(one: Any, texts: list[str]) -> str:
    known = {"like", "values", "without"}
    like = one.get("like") if isinstance(one, dict) and not set(one) - known else None
    if not isinstance(like, int) or isinstance(like, bool) or not 0 <= like < len(texts):
        raise ValueError("what is like an earlier one")
    return made_otherwise(texts[like], one)
