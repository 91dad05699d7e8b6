"""What each column of a list is, by its heading and by what stands below it.

Each column gets a score for each role; the roles are then given so that all scores together are
largest and no role is given twice (an assignment problem, solved by scipy).
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np
from scipy.optimize import linear_sum_assignment

from .cells import is_yes, numbers_of, sockets_of
from .words import ROLES, Role, first_meaning, heading_role, is_among, knows, plain

__all__ = ["Given", "roles_of"]

_KNOWN: Final = 10.0  # what a heading counts; what stands below counts up to about half of that
_LEAST: Final = 0.15  # below it a column is left out
_SPOT: Final = re.compile(
    r"^(?:[udc]s[lrc]?|s[lrc]|[udc]ps?[lrc])$|\bstage (?:left|right)\b|\bcent(?:re|er)\b"
)
_MODEL: Final = re.compile(r"\b(?=\w*\d)(?=\w*[^\W\d_])\w{2,8}\b")
_NAMED: Final = tuple(role for role in ROLES if role != "ignore")


@dataclass(frozen=True, slots=True)
class Given:
    """The roles of some columns, and how well they fit all together."""

    roles: tuple[Role, ...]
    score: float


@dataclass(frozen=True, slots=True)
class _Cell:
    """What one text could be."""

    number: tuple[int, ...]
    place: bool
    socket: bool
    instrument: bool
    mic: bool
    kind: bool
    stand: bool
    yes: bool
    phantom: bool
    stereo: bool
    side: bool
    spot: bool
    model: bool
    words: int


@lru_cache(maxsize=20_000)
def _cell(text: str) -> _Cell:
    said = plain(text)
    place = sockets_of(text, 1)
    instrument = first_meaning(text, "families") is not None
    kind = first_meaning(text, "kinds")
    box = place[0][0] if place else ""
    return _Cell(
        number=tuple(numbers_of(text) or ()),
        place=bool(box),
        socket=bool(box) and not instrument and (len(box) < 4 or _is_box(box)),
        instrument=instrument,
        mic=kind is not None,
        kind=is_among(text, "kinds", kind) if kind else False,
        stand=is_among(text, "words", "stand"),
        yes=is_yes(text) or is_among(text, "words", "no"),
        phantom=bool(re.search(r"\b(?:p ?)?48 ?v?\b|phantom", said)),
        stereo=said in ("mono", "m") or is_among(text, "sides", "both"),
        side=is_among(text, "sides", "left")
        or is_among(text, "sides", "right")
        or said in ("c", "m"),
        spot=bool(_SPOT.search(said)),
        model=bool(_MODEL.search(text)),
        words=said.count(" ") + 1,
    )


def _is_box(words: str) -> bool:
    return knows(words, "words", "box") or knows(words, "words", "subsnake")


def _content(texts: Sequence[str]) -> dict[str, float]:
    """How well what stands in a column fits each role: below 0 where it contradicts it."""
    cells = [_cell(text) for text in texts if text]
    if not cells:
        return {}

    def share(of: str) -> float:
        return sum(bool(getattr(cell, of)) for cell in cells) / len(cells)

    number, instrument, mic = share("number"), share("instrument"), share("mic")
    firsts = [cell.number[0] for cell in cells if cell.number]
    rising = sum(b > a for a, b in pairwise(firsts)) / max(1, len(firsts) - 1)
    distinct = len({text.lower() for text in texts if text}) / len(cells)
    words = sum(cell.words for cell in cells) / len(cells)
    stand, yes, socket = share("stand"), share("yes"), share("socket")
    ticked = yes > 0.7 and share("phantom") < 0.5  # a cross for each band that plays it
    placed = share("place") if distinct > 0.8 or socket > 0.6 else 0.0
    name = 1.0 + 3.0 * instrument + distinct - (1.0 if words > 6 else 0.0)
    name -= 5.0 * (yes > 0.7) + 4.0 * (socket > 0.7) + 3.0 * (stand > 0.6)
    name -= 2.0 * (mic > 0.6 and (instrument < 0.4 or distinct < 0.5)) + 4.0 * (share("side") > 0.8)
    return {
        "placed": placed,
        "number": 3.0 * number + 2.0 * rising * (number > 0.6) if number >= 0.3 else -9.0,
        "name": -9.0 if number > 0.7 else name,
        "microphone": -6.0 if number > 0.7 else 3.0 * mic + 1.5 * share("model") * (socket < 0.5),
        "kind": 2.0 * share("kind") if number <= 0.7 else -6.0,
        # a box by a name of its own ("Harbour 3") is one where the heading says so
        "socket": 4.0 * socket if socket > 0.5 else -4.0 if number + share("place") < 0.3 else 0.0,
        "box": 0.0 if number <= 0.7 else -2.0,
        "performer": 0.3 if number <= 0.5 and not ticked else -6.0,
        "part": 0.0 if number <= 0.5 else -6.0,
        "where": 0.2 + 3.0 * share("spot") if number <= 0.7 and not ticked else -3.0,
        "stand": 3.5 * stand if stand >= 0.4 else 0.0,
        "phantom": 3.0 if share("phantom") > 0.8 else (0.0 if yes > 0.5 else -6.0),
        "stereo": 4.0 if share("stereo") > 0.7 else (0.0 if yes > 0.7 else -6.0),
        "side": 4.0 if share("side") > 0.7 and distinct < 1.0 else -6.0,
        "count": 0.0 if number > 0.7 else -6.0,
        "level": 0.0 if any(any(c.isdigit() for c in text) for text in texts) else -4.0,
        "family": 0.0 if number <= 0.7 else -4.0,
        "notes": (0.25 + 0.5 * (words > 3) if number <= 0.7 else 0.05) if not ticked else -3.0,
    }  # fmt: skip


def roles_of(headings: Sequence[str], columns: Sequence[Sequence[str]]) -> Given:
    """The roles of columns. `headings`: one each, "" for none; `columns`: what stands below."""
    contents = [_content(texts) for texts in columns]
    numeric = [one.get("number", 0.0) > 2.0 for one in contents]
    several = (
        sum(
            is_numeric and heading_role(heading)[0] != "ignore"
            for is_numeric, heading in zip(numeric, headings, strict=True)
        )
        > 1
    )
    boxed = any(
        said in ("socket", "box") and _comes_again(texts)
        for (said, _), texts in zip(map(heading_role, headings), columns, strict=True)
    )
    # a play's lines are named by its characters: no other column is, unless it says so
    in_a_play = any(said == "part" and sure >= 0.7 for said, sure in map(heading_role, headings))
    scores = np.zeros((len(columns), len(_NAMED) + len(columns)))  # beyond the roles: left out
    for place, (heading, texts) in enumerate(zip(headings, columns, strict=True)):
        said, sure = heading_role(heading) if heading else (None, 0.0)
        content = contents[place]
        for number, role in enumerate(_NAMED):
            fits = content.get(role, 0.0)
            if role == said:
                fits += _KNOWN * sure
            elif role == "name" and said == "number" and content.get("number", 0.0) < 0.0:
                fits += 0.7 * _KNOWN * sure  # "Input" over names
            elif role == "box" and said == "socket" and content.get("socket", 0.0) < 0.0:
                fits += 0.8 * _KNOWN * sure  # boxes by name, their sockets in another column
            elif role == "socket" and said == "box" and content.get("placed", 0.0) > 0.6:
                fits += 0.7 * _KNOWN * sure  # "Box" over "A1"
            elif role == "name" and in_a_play:
                fits = min(fits, 0.0)
            elif fits > 0.0:
                fits *= (
                    0.1 if said == "ignore" else 0.25 if said else 0.6 if plain(heading) else 0.8
                )
            if boxed and _comes_again(texts):
                fits += _of_boxes(role, said, content)
            scores[place, number] = fits + _tie(role, heading, content, several=several)
        if said == "ignore":
            scores[place, len(_NAMED) + place] = 2.0
    taken, given = linear_sum_assignment(scores, maximize=True)
    roles: list[Role] = ["ignore"] * len(columns)
    total = 0.0
    for place, number in zip(taken.tolist(), given.tolist(), strict=True):
        if number < len(_NAMED) and scores[place, number] >= _LEAST:
            roles[place] = _NAMED[number]
            total += float(scores[place, number])
    return Given(tuple(roles), total)


def _comes_again(texts: Sequence[str]) -> bool:
    """Whether what a column holds is not told apart by it: "SB1" five times over, 1 to 8 twice."""
    full = [text.lower() for text in texts if text]
    return len(full) > 3 and len(set(full)) <= 0.75 * len(full)


def _of_boxes(role: str, said: str | None, content: dict[str, float]) -> float:
    """What speaks for a column beside others where one names boxes, each with its own numbers."""
    if said in ("socket", "box"):
        return {"box": _KNOWN, "socket": -_KNOWN}.get(role, 0.0)
    if content.get("number", 0.0) > 1.8:
        return {"socket": 0.9 * _KNOWN, "number": -_KNOWN}.get(role, 0.0)
    return 0.0


def _tie(role: str, heading: str, content: dict[str, float], *, several: bool) -> float:
    """Which of two columns of numbers is the desk's channels, and that the other is its inputs."""
    numeric = content.get("number", 0.0) > 2.0
    if role == "number" and numeric:
        return 1.5 * knows(heading, "words", "channel") - 0.5 * knows(heading, "words", "input")
    if role == "socket" and knows(heading, "words", "subsnake"):
        return -4.0
    if role == "socket" and numeric and several and knows(heading, "words", "input"):
        return 4.0
    return 0.0
