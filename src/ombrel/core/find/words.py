"""What people type for our words: other names of the trade for kinds, settings and deeds."""

from collections.abc import Iterable
from typing import Final

from ..values import is_near, plain

__all__ = [
    "BETWEEN",
    "KIND_NAMES",
    "SETTING",
    "USE_NAMES",
    "begins",
    "meant",
    "split_words",
]

# Words that join what stands beside them and mean nothing themselves.
BETWEEN: Final = frozenset((
    "to", "into", "in", "from", "for", "at", "the", "of", "a", "an", "my", "by", "is", "and", "set",
    "put", "make", "turn", "with", "please",
))  # fmt: skip

# Words between a thing and its value.
SETTING: Final = frozenset(("to", "at", "=", "set", "by"))

# What each kind of thing is called, ours first.
KIND_NAMES: Final = {
    "channel": ("channel", "ch", "input", "strip"),
    "return": ("return", "fx return", "effect return"),
    "group": ("group", "subgroup", "bus"),
    "mix": ("mix", "aux", "send", "bus"),
    "matrix": ("matrix", "mtx"),
    "house": ("house", "main", "mains", "master", "pa", "lr", "front"),
    "mono": ("mono", "centre", "center"),
    "dca": ("dca", "vca"),
    "mute_group": ("mute group", "mute", "seal"),
    "gang": ("gang", "link"),
    "sharing": ("shared gain", "panel", "talk"),
    "bank": ("bank", "layer", "page"),
    "scene": ("scene", "snapshot", "cue", "memory"),
    "line": ("line", "input"),
    "part": ("part", "role", "character"),
    "performer": ("performer", "player", "actor"),
    "promise": ("promise",),
    "engine": ("effect", "fx", "reverb", "verb", "echo", "delay", "engine"),
    "lift": ("lift",),
    "output": ("output", "out", "socket"),
}
# What a mix is called by what it is used for.
USE_NAMES: Final = {
    "ears": ("ears", "iem", "iems", "in ear", "monitor", "personal"),
    "wedge": ("wedge", "monitor", "floor monitor", "foldback"),
    "effect": ("effect", "fx", "reverb", "verb", "send effect"),
    "feed": ("feed", "record", "broadcast"),
}


def split_words(text: str) -> list[str]:
    """What stands between blanks, as typed, short of marks at the ends that say nothing."""
    words = [word for raw in text.split() if (word := raw.strip('.;:!?"\u201c\u201d'))]
    joined: list[str] = []
    for word in words:  # a box of one letter, and its socket
        if joined and word.isdigit() and len(joined[-1]) == 1 and joined[-1].isalpha():
            joined[-1] += word
        else:
            joined.append(word)
    return joined


def begins(typed: str, word: str) -> float:
    """How well a plain word answers to what was typed: 1.0 whole, 0.7 by how it begins, 0.0 not.

    A figure is a whole word or none: "1" is not the beginning of "12".
    """
    if typed == word:
        return 1.0
    if typed[0].isdigit() or len(typed) < 2:
        return 0.0
    return 0.7 if word.startswith(typed) else 0.0


def meant(word: str, known: Iterable[str]) -> str:
    """The known plain word that a slip of the hand made of; "" for none, or for two as near."""
    typed = plain(word)
    near = {one for one in known if is_near(typed, one)}
    return near.pop() if len(near) == 1 else ""
