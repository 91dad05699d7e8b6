"""The boxes that a list names, and which boxes of the desk they are."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from ombrel.core import Box, Desk, socket_name

from .words import is_among, knows, words_of

__all__ = ["Boxes", "proposed"]


@dataclass(frozen=True, slots=True)
class Boxes:
    """Key of the desk's box for each name in a list ("" for numbers alone); None: for none."""

    keys: Mapping[str, str | None]

    def socket(self, desk: Desk, box: str, number: int) -> str | None:
        """The input that a name and a number mean, or None. Bare numbers run on from box to box."""
        key = self.keys[box] if box in self.keys else proposed(desk, box)
        found = desk.box(key) if key else None
        if found is None:
            return None
        if not box:
            for one in [found, *(b for b in _stage_boxes(desk) if b.key > found.key)]:
                if number <= one.inputs:
                    return f"input/{one.key}/{number}"
                number -= one.inputs
            return None
        return f"input/{found.key}/{number}" if 1 <= number <= found.inputs else None

    def why_not(self, desk: Desk, box: str, number: int) -> str:
        """In words why a name and a number are no input."""
        key = self.keys[box] if box in self.keys else proposed(desk, box)
        found = desk.box(key) if key else None
        if found is None:
            return "its box is none of the desk's: the socket is kept as a remark"
        last = socket_name(desk, f"input/{found.key}/{found.inputs}")
        return f"{found.name} ends at {last}, before {number}: the socket is kept as a remark"


def _stage_boxes(desk: Desk) -> list[Box]:
    return [box for box in desk.boxes if box.preamps and box.key != "local"]


def _begins(name: str, box: Box) -> bool:
    """Whether a name of three letters or more is how one of a box's names begins."""
    names = (box.key, box.short, box.name)
    return len(name) >= 3 and any(one.lower().startswith(name) for one in names)


@lru_cache(maxsize=2_000)
def proposed(desk: Desk, name: str) -> str | None:
    """The box that a name in a list most likely means: by its own name or letter, or by its number

    among the stage boxes; numbers alone count from the first stage box. None where that is open.
    """
    stage = _stage_boxes(desk)
    for box in desk.boxes:
        if name in {word.lower() for word in (box.key, box.short, box.name)}:
            return box.key
    begun = [box.key for box in desk.boxes if _begins(name, box)]
    if len(begun) == 1:
        return begun[0]  # "rec", "harb"
    if knows(name, "words", "subsnake"):
        return None  # where it ends on the desk, only a person can say
    if is_among(name, "words", "local"):
        return next((box.key for box in desk.boxes if box.key == "local"), None)
    rest = re.sub(r"(?<=[^\W\d])(?=\d)", " ", name)  # "sb1" is "sb 1"
    for phrase in sorted(words_of("words", "box"), key=len, reverse=True):
        rest = re.sub(rf"\b{re.escape(phrase)}\b", " ", rest)
    rest = " ".join(rest.split())
    for box in desk.boxes:
        if rest and rest in (box.key.lower(), box.short.lower()):
            return box.key
    if not rest:
        return stage[0].key if stage else None
    if rest.isdigit() and 1 <= int(rest) <= len(stage):
        return stage[int(rest) - 1].key
    if len(rest) == 1 and rest.isalpha() and 0 <= ord(rest) - ord("a") < len(stage):
        return stage[ord(rest) - ord("a")].key if rest not in ("l", "r") else None
    return None
