"""What single cells of a list say: numbers, sockets, levels, yes and no."""

import math
import re
from typing import Final

from .words import is_among, knows, plain

__all__ = [
    "is_bare",
    "is_comment",
    "is_contact",
    "is_ditto",
    "is_struck",
    "is_yes",
    "level_of",
    "numbers_of",
    "sockets_of",
    "times_of",
]

_HIGHEST: Final = 999
_BEFORE: Final = re.compile(
    r"^(?:[^\W\d_]{1,9}[.\u00b0\u00ba]?\s*)?#?\s*(?=\d)"
)  # "Ch. 7", "Kanal 7", "#7"
_JOINTS: Final = r"\s*(?:[/+&,;]|\band\b|\bund\b|\bu\.|\bet\b|\by\b|\be\b|\ben\b|\boch\b)\s*"
_RANGE: Final = re.compile(
    r"(\d{1,3})(?:\s*(?:[-\u2010-\u2015\u2212~>]|\.\.+|\b(?:to|bis|[aà]|tot|till)\b)+\s*"
    r"(\d{1,3}))?"
)
# A box and a number: "A7", "SB1-4", "Stage L 4", "Drum snake #3", "2.07"
_PLACE: Final = re.compile(r"^(?P<box>.*?)[\s.:/#\u2013-]*(?P<number>\d{1,3})$")
_NAMED_NUMBER: Final = re.compile(r"^(?P<box>[^\W\d_]+\s?\d{1,2})\s?[.:/]\s?(?P<number>\d{1,3})$")
_DASH: Final = r"[-\u2010-\u2015\u2212]"
_LEVEL: Final = re.compile(rf"({_DASH}|\+|)\s*(\d+(?:[.,]\d+)?)\s*(dB[uvVU]?)?")
_DBV_TO_DBU: Final = -10.0 * math.log10(0.6)
_MARKS: Final = re.compile(
    rf"(?:{_DASH}|\s)*(?:[\"\u201c-\u201f\u2033\u3003\xab\xbb]|''|,,|\u2019\u2019)(?:{_DASH}|\s)*"
)
_TIMES: Final = (
    re.compile(r"(?P<many>[1-9]\d?)\s?[x\u00d7]\s+(?P<what>\S.*)", re.IGNORECASE),
    re.compile(r"(?P<what>.*\S)\s+[x\u00d7]\s?(?P<many>[1-9]\d?)", re.IGNORECASE),
)
_WHOLE: Final = re.compile(r"(\d{1,3})[.,]0+")  # as a spreadsheet writes a number that is a text
_ARROW: Final = re.compile(r"\s*(?:-+>|=+>|\u2192|\u2794|\u279c|\u21d2)\s*")
# the box is said twice, or parted from its number: "B3-B6", "B/1"
_TWICE: Final = re.compile(
    rf"(?P<box>[^\W\d_]{{1,12}})\s?(\d{{1,3}})\s*{_DASH}\s*(?P=box)\s?(\d{{1,3}})", re.IGNORECASE
)
_PARTED: Final = re.compile(r"([^\W\d_]{1,12})\s*/\s*(\d{1,3})")
_BOX_NUMBER: Final = re.compile(r"^(?P<box>\d{1,2})[.:/](?P<number>\d{1,3})$")


def numbers_of(text: str) -> list[int] | None:
    """The channel numbers that a cell names, in order; [] for none, None for what is no number.

    >>> numbers_of("1-4"), numbers_of("9/10"), numbers_of("Ch 07"), numbers_of("ST1")
    ([1, 2, 3, 4], [9, 10], [7], None)
    >>> numbers_of("CH10-CH12"), numbers_of("6.0")
    ([10, 11, 12], [6])
    """
    if not text.strip():
        return []
    said = text.strip().lower()
    said = _WHOLE.sub(r"\1", said) if _WHOLE.fullmatch(said) else said
    bare = _BEFORE.sub("", said)
    again = said[: len(said) - len(bare)].strip()
    if again:  # "CH10-CH12"
        bare = re.sub(rf"(?<=\d)(\s*{_DASH}\s*){re.escape(again)}\s*(?=\d)", r"\1", bare)
    before = plain(again)
    if before and before != "#" and not knows(before, "headings", "number"):
        return None
    found: list[int] = []
    for part in re.split(_JOINTS, bare.rstrip(".) :")):
        part = _BEFORE.sub("", part) if found else part
        match = _RANGE.fullmatch(part.strip().rstrip("."))
        if not match:
            return None
        first, last = int(match[1]), int(match[2] or match[1])
        if not 1 <= first <= last <= _HIGHEST or last - first > 127:
            return None
        found += range(first, last + 1)
    return found if len(set(found)) == len(found) else None


def sockets_of(text: str, count: int) -> list[tuple[str, int]] | None:
    """The places that a cell names, each the words of a box (plain, "" for none) and a number.

    `count`: how many a row needs, which tells "SB1-4" (a box and a number) from "A 1-4" (a
    range). None for what cannot be read.

    >>> sockets_of("SB1-4", 1), sockets_of("A 1-2", 2), sockets_of("12", 1), sockets_of("foo", 1)
    ([('sb1', 4)], [('a', 1), ('a', 2)], [('', 12)], None)
    >>> sockets_of("B/1", 1), sockets_of("7 -> A7", 1), sockets_of("B3-B4", 2)
    ([('b', 1)], [('a', 7)], [('b', 3), ('b', 4)])
    """
    found: list[tuple[str, int]] = []
    box = ""
    text = _ARROW.split(text)[-1]  # "7 -> A7": where it goes
    if parted := _PARTED.fullmatch(text.strip()):
        return [(plain(parted[1]), int(parted[2]) + turn) for turn in range(count)]
    twice = _TWICE.fullmatch(text.strip())
    if twice and 0 < int(twice[3]) - int(twice[2]) < 128:
        return [(plain(twice["box"]), n) for n in range(int(twice[2]), int(twice[3]) + 1)]
    whole = _BOX_NUMBER.match(text.strip()) or _NAMED_NUMBER.match(text.strip())
    if whole and count == 1:
        return [(plain(whole["box"]), int(whole["number"]))]
    parts = re.split(_JOINTS, text)
    of_each = count // len(parts)
    for part in parts:
        part = part.strip()
        spread = re.fullmatch(r"(.*?)[\s.:#]*(\d{1,3})\s*[-\u2013\u2014]\s*(\d{1,3})", part)
        if spread and int(spread[3]) - int(spread[2]) == of_each - 1 and of_each > 1:
            box = plain(spread[1]) or box
            found += [(box, n) for n in range(int(spread[2]), int(spread[3]) + 1)]
            continue
        match = _BOX_NUMBER.match(part) or _PLACE.match(part)
        if not match or not 1 <= int(match["number"]) <= _HIGHEST or len(match["box"]) > 30:
            return None
        box = plain(match["box"]) or box
        found.append((box, int(match["number"])))
    if len(found) == 1 and count > 1:  # "A 5" for two: it and the next
        found += [(found[0][0], found[0][1] + turn) for turn in range(1, count)]
    return found if found and len(set(found)) == len(found) else None


def is_bare(text: str) -> bool:
    """Whether a text is a number and nothing else: a unit above it is its own.

    >>> is_bare("-10"), is_bare("-10 dBu"), is_bare("")
    (True, False, False)
    """
    return bool(text.strip()) and not any(letter.isalpha() for letter in text)


def is_yes(text: str) -> bool:
    """Whether a cell says yes, by a word, a tick or a cross, or by naming 48 V."""
    said = text.strip()
    if said in (
        "\u2713",
        "\u2714",
        "\u2611",
        "\u2705",
        "\u25cf",
        "\u2022",
        "*",
        "+",
        "\u00d7",
        "\u2715",
        "\u2612",
    ):
        return True
    words = plain(said)
    if not words or is_among(words, "words", "no"):
        return False
    return is_among(words, "words", "yes") or bool(re.search(r"\b(?:p ?)?48 ?v?\b", words))


def level_of(text: str) -> float | None:
    """A level in dBu that a cell names, or None: any dash before a number is a minus, and dBV are

    converted (0 dBV is 1 V, 0 dBu the root of 0.6 V).

    >>> level_of("\u201320 dBu"), level_of("- 20"), level_of("+4"), level_of("-10 dBV")
    (-20.0, -20.0, 4.0, -7.78)
    """
    match = _LEVEL.search(text)
    if match is None:
        return None
    size = float(match[2].replace(",", "."))
    level = size if match[1] in ("", "+") else -size
    return round(level + _DBV_TO_DBU, 2) if (match[3] or "").lower() == "dbv" else level


def times_of(text: str) -> tuple[int, str]:
    """How many of something a text says there are, before or behind it, and what; 1 of the text.

    >>> times_of("3x Choir"), times_of("Gooseneck x24"), times_of("4x12 cab"), times_of("Kick")
    ((3, 'Choir'), (24, 'Gooseneck'), (1, '4x12 cab'), (1, 'Kick'))
    """
    for pattern in _TIMES:
        if match := pattern.fullmatch(text.strip()):
            return int(match["many"]), match["what"]
    return 1, text


def is_ditto(text: str) -> bool:
    """Whether a cell says the same as the one above it.

    >>> [is_ditto(text) for text in ('"', '-"-', "dito", "as above", "-", "Dido")]
    [True, True, True, True, False, False]
    """
    said = text.strip()
    return bool(_MARKS.fullmatch(said)) or is_among(plain(said), "words", "ditto")


_COMMENT: Final = re.compile(r"(?://|/\*|;|%|<!--|#\s*(?=[^\W\d_]{2})).*")
_CONTACT: Final = re.compile(
    r"(?<![\w.+-])[\w.+-]{1,64}@[\w-]{1,64}\.\w+|(?:\+|\b00)\d{1,3}[\s\d()/-]{6,}|\b\d{3}[\s-]\d{2,4}(?:[\s-]\d{2,4})+\b"
    r"|\b(?:tel|phone|mobile|telefon|téléphone|teléfono|telefono|telefone|telefoon|mobil)\b\.?:?.{0,40}\d{3}",
    re.IGNORECASE,
)


def is_comment(text: str) -> bool:
    """Whether a row that begins with a text is commented out.

    >>> is_comment("// Shaker"), is_comment("# old snare"), is_comment("#7"), is_comment("#")
    (True, True, False, False)
    """
    return bool(_COMMENT.match(text.strip()))


def is_struck(text: str) -> bool:
    """Whether a text is struck by its own marks: "~~Bongos~~"."""
    said = text.strip()
    return len(said) > 2 and said[0] == said[-1] == "~"


def is_contact(text: str) -> bool:
    """Whether a text tells how to reach somebody: a telephone number, an address of mail.

    >>> is_contact("Tel: 555 0142"), is_contact("Ada +47 555 01 99"), is_contact("Tom 1-2 555")
    (True, True, False)
    """
    return bool(_CONTACT.search(text))
