"""What the name of a row says of how many lines it is, and of sides."""

import re
from typing import Final

from .words import is_among, plain, words_of

__all__ = ["alternatives", "both_sides", "single_side"]

_SIDE_WORDS: Final = ("left", "right")
_BETWEEN: Final = r"\s*(?:[/+|,;]|\s(?:&|and|und|et|y|e|en|och)\s)\s*"
_ENDS: Final = " .,:;-\u2013\u2014_/+&|"


def _tail(name: str) -> tuple[str, str]:
    """A name apart from its last words: those in brackets at its end, or its last word."""
    bracket = re.fullmatch(r"(.*?)[\s_-]*[(\[]\s*([^()\[\]]{1,24}?)\s*[)\]]\s*", name)
    if bracket:
        return bracket[1].rstrip(_ENDS), bracket[2]
    parts = re.fullmatch(r"(.*\S)[\s,_:\u2013\u2014-]+(\S+)\s*", name)
    return (parts[1].rstrip(_ENDS), parts[2]) if parts else ("", name)


def _side_of(word: str) -> str | None:
    bare = plain(word)
    return next((side for side in _SIDE_WORDS if bare in words_of("sides", side)), None)


def both_sides(name: str) -> str | None:
    """The name without the words that make it stereo, or None when it says nothing of that.

    >>> both_sides("Keys L/R"), both_sides("Piano (stereo)"), both_sides("Akkordeon li + re")
    ('Keys', 'Piano', 'Akkordeon')
    >>> both_sides("Kick In/Out") is None, both_sides("OH LR"), both_sides("Stereo Keys")
    (True, 'OH', 'Keys')
    """
    two = re.fullmatch(
        r"(?P<base>.*?\S)[\s,(\[_\u2013\u2014-]+(?P<one>[^\W\d_]{1,10})\.?\s*"
        r"(?:[/+&|,\u2013-]|\b(?:and|und|et|y|e|en|och)\b)"
        r"\s*(?P<two>[^\W\d_]{1,10})[.)\]\s]*",
        name,
    )
    if two and {_side_of(two["one"]), _side_of(two["two"])} == {"left", "right"}:
        return two["base"].rstrip(_ENDS + "([")
    for base, word in (_tail(name), _tail(name)[::-1]):
        if base and word and is_among(word, "sides", "both"):
            return base.strip(_ENDS + "()[]")
    first, _, rest = name.strip().partition(" ")
    if rest and is_among(first, "sides", "both"):
        return rest.strip(_ENDS)
    return None


def single_side(name: str) -> tuple[str, str] | None:
    """A name and the one side that it says, or None: "Keys L" is ("Keys", "left").

    >>> single_side("Keys L"), single_side("Overhead (rechts)"), single_side("Left piano")
    (('Keys', 'left'), ('Overhead', 'right'), ('piano', 'left'))
    """
    base, word = _tail(name)
    side = _side_of(word)
    if base and side and not re.search(r"[/+&]\s*$", base):
        return base, side
    first, _, rest = name.strip().partition(" ")
    if rest and len(plain(first)) > 1 and _side_of(first):
        return rest.strip(_ENDS), str(_side_of(first))
    glued = re.fullmatch(r"([A-Z]{2,4})([LR])", name.strip())  # "OHL"
    if glued:
        return glued[1], "left" if glued[2] == "L" else "right"
    return None


def alternatives(name: str, count: int) -> list[str] | None:
    """The names of `count` sources that one name lists, or None where it lists not so many.

    >>> alternatives("Kick In/Out", 2), alternatives("Toms 1/2/3", 3), alternatives("Tom 1-2", 2)
    (['Kick In', 'Kick Out'], ['Toms 1', 'Toms 2', 'Toms 3'], ['Tom 1', 'Tom 2'])
    >>> alternatives("Bongos / Congas", 2), alternatives("Rack/Floor Tom", 2)
    (['Bongos', 'Congas'], ['Rack Tom', 'Floor Tom'])
    """
    if count < 2:
        return None
    run = re.fullmatch(
        r"(.*?)[\s(#]*(\d{1,3})\s*(?:-|\u2013|\u2014|\bto\b|\bbis\b)\s*(\d{1,3})\)?", name
    )
    if run and int(run[3]) - int(run[2]) == count - 1:
        return [f"{run[1]} {number}".strip() for number in range(int(run[2]), int(run[3]) + 1)]
    bare = re.sub(r"[(\[]\s*([^()\[\]]*?)\s*[)\]]\s*$", r"\1", name).strip()
    parts = [part.strip() for part in re.split(_BETWEEN, bare)]  # "Q&A" is one word
    if len(parts) != count or not all(parts):
        return None
    return _told_apart(parts)


def _told_apart(parts: list[str]) -> list[str]:
    """Parts of a name as whole names: words that all share stand in the first or in the last."""
    words = [part.split() for part in parts]
    if len(words[0]) > 1 and all(_is_ending(part) for part in parts[1:]):
        shared = " ".join(words[0][:-1])
        return [parts[0], *(f"{shared} {part}" for part in parts[1:])]
    if (
        len(words[0]) == 1
        and re.fullmatch(r"[^\W\d_]{2,}\s*\d{1,2}", parts[0])
        and all(part.isdigit() for part in parts[1:])
    ):  # "Tom1/2"
        shared = re.sub(r"\s*\d+$", "", parts[0])
        return [f"{shared} {''.join(filter(str.isdigit, part))}" for part in parts]
    is_head = all(len(one) == 1 and _is_ending(" ".join(one)) for one in words[:-1])
    if is_head and len(words[-1]) > 1:
        shared = " ".join(words[-1][1:])
        return [*(f"{part} {shared}" for part in parts[:-1]), parts[-1]]
    return parts


def _is_ending(part: str) -> bool:
    """Whether a part of a name only tells one source from its neighbour: "Out", "2", "DI"."""
    words = plain(part).split()
    return (
        bool(words)
        and len(words) < 3
        and all(
            word.isdigit()
            or len(word) == 1
            or is_among(word, "words", "place")
            or _side_of(word) is not None
            for word in words
        )
    )
