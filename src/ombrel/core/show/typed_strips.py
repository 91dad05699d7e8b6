"""Strips typed as a person says them: "1-8, 11, mix 1-4, house, dca 2"."""

import re
from collections.abc import Sequence
from typing import Final

from ..catalogue import ALONE, STRIP_KINDS, Thing, of_kind
from ..values import UnreadableText
from .show import Show
from .sockets import read_numbers

__all__ = ["STRIP_KINDS", "read_strips", "strips_of_family", "strips_text"]

_WORDS: Final = {
    "": "channel", "ch": "channel", "channel": "channel", "channels": "channel",
    "return": "return", "returns": "return", "group": "group", "groups": "group",
    "mix": "mix", "mixes": "mix", "matrix": "matrix", "matrices": "matrix",
    "dca": "dca", "dcas": "dca", "house": "house", "mono": "mono",
}  # fmt: skip
_SHORT: Final = {"channel": "", "dca": "DCA "}
_MOST: Final = 2_000  # letters of a list that are read


def read_strips(show: Show, text: str, *, dcas: bool = True, once: bool = True) -> list[str]:
    """Strips (and DCAs, with `dcas`) from a typed list, in the order typed, each once (`once`).

    A number alone is a channel's; a word stands for its kind until the next word. Raises
    UnreadableText for anything else, and for what the desk has not.
    """
    found: list[str] = []
    kind = "channel"
    help_text = 'strips such as "1-8, 11, return 1, mix 1-4, house"'
    if len(text) > _MOST:
        raise UnreadableText(f"{text[:40]}…", help_text)
    for part in re.split(r"[,;\n]", text):
        plain = " ".join(part.strip().lower().split())
        if not plain:
            continue
        match = re.fullmatch(r"([a-z]*)\s*([\d\u2013 -]*)", plain)
        if not match or match[1] not in _WORDS:
            raise UnreadableText(part.strip(), help_text)
        if match[1]:
            kind = _WORDS[match[1]]
        if kind in ALONE:
            if match[2].strip():
                raise UnreadableText(part.strip(), help_text)
            found.append(kind)
            kind = "channel"
            continue
        if kind == "dca" and not dcas:
            raise UnreadableText(part.strip(), f"{help_text}; a DCA is no member here")
        numbers = read_numbers(match[2], highest=show.desk.count(kind))
        found += [f"{kind}/{number}" for number in numbers]
    if not found:
        raise UnreadableText(text, help_text)
    return list(dict.fromkeys(found)) if once else found


def strips_of_family(show: Show, family: str) -> list[str]:
    """Channels fed by lines of a family, ascending."""
    sockets = {
        show[f"line/{line}/{side}"]
        for line in show.lines()
        if show[f"line/{line}/family"] == family
        for side in ("socket", "socket_right")
    }
    return [f"channel/{n}" for n in show.channels() if show.source_of(n) in sockets - {None}]


def strips_text(strips: Sequence[str]) -> str:
    """A list of strips as it could be typed, runs drawn together."""
    parts: list[str] = []
    for kind in (*STRIP_KINDS, "dca"):
        if kind in strips:
            parts.append(kind)
        numbers = sorted(Thing.at(s).number for s in strips if of_kind(s) == kind and s != kind)
        runs: list[list[int]] = []
        for number in numbers:
            if runs and number == runs[-1][-1] + 1:
                runs[-1].append(number)
            else:
                runs.append([number])
        for run in runs:
            span = f"{run[0]}" if len(run) == 1 else f"{run[0]}-{run[-1]}"
            parts.append(f"{_SHORT.get(kind, f'{kind} ')}{span}")
    return ", ".join(parts)
