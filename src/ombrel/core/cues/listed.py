"""The cues of a show: the list, made by hand, from typed lines, and for all scenes at once."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from ..catalogue import CUES, default_of, name_below
from ..scenes import number_text
from ..show import Show
from ..values import Asked, NothingLeft, NotThere, UnreadableText
from .deeds import Deed, deed_text, read_deed
from .messages import heard_by, read_comes
from .own import OWN

__all__ = [
    "CUE_STYLES",
    "Cue",
    "add_cues",
    "cue_for",
    "cues",
    "cues_for_scenes",
    "cues_in_words",
    "remove_cues",
    "set_cue",
]

_LEAVES: Final = ("comes", "does", "what", "on", "strip", "note")
_ORDERS: Final = re.compile(r'(?:"[^"\n]*"|[^";\n]+|")+')  # what is in quotes is no end
_ARROW: Final = re.compile(r"\s*(?:->|=>|\u2192|\t)\s*")
_HELP: Final = 'a cue such as "/cue 12 -> scene 4.5" or "12 -> go"'
# how a bare number comes, by what a machine speaks
CUE_STYLES: Final = {
    "osc": "/cue {}",
    "show_control": "show control go {}",
    "program": "program {} on 1",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Cue:
    """One cue of the list: its own name ("cue/3"), what comes, and what it does."""

    cue: str
    comes: str
    deed: Deed


def cues(show: Show) -> tuple[Cue, ...]:
    """All cues, by what comes, numbers as people count them."""
    found = [
        _cue(show, f"cue/{number}")
        for number in range(1, CUES + 1)
        if f"cue/{number}/comes" in show.values
    ]
    return tuple(sorted(found, key=lambda one: (_counted(one.comes), name_below(one.cue))))


def _counted(text: str) -> list[tuple[int, float, str]]:
    pieces = re.split(r"(\d+(?:\.\d+)?)", text)
    return [(1, float(one), "") if place % 2 else (0, 0.0, one) for place, one in enumerate(pieces)]


def _cue(show: Show, cue: str) -> Cue:
    deed = Deed(
        does=show.text(f"{cue}/does"),
        what=show.text(f"{cue}/what"),
        on=show.on(f"{cue}/on"),
        strip=show.text(f"{cue}/strip"),
        note=show.text(f"{cue}/note"),
    )
    return Cue(cue=cue, comes=show.text(f"{cue}/comes"), deed=deed)


def cue_for(show: Show, heard: str) -> tuple[Cue, ...]:
    """The cues that wait for what was heard: those of the most exact spelling that any has."""
    every = [
        (show.text(f"cue/{number}/comes"), f"cue/{number}")
        for number in range(1, CUES + 1)
        if f"cue/{number}/comes" in show.values
    ]
    for spelling in heard_by(heard):
        found = tuple(_cue(show, cue) for comes, cue in every if comes == spelling)
        if found:
            return found
    return ()


def _free(show: Show) -> list[str]:
    every = (f"cue/{number}" for number in range(1, CUES + 1))
    return [cue for cue in every if f"{cue}/comes" not in show.values]


def _written(cue: str, comes: str, deed: Deed) -> dict[str, Asked]:
    return {
        f"{cue}/comes": comes,
        f"{cue}/does": deed.does,
        f"{cue}/what": deed.what or None,
        f"{cue}/on": deed.on,
        f"{cue}/strip": deed.strip or None,
        f"{cue}/note": deed.note,
    }


def add_cues(show: Show, text: str, style: str = "osc") -> dict[str, Asked]:
    """Moves that put typed cues on the list, one a line or behind semicolons: "12 -> scene 4.5".

    A bare number comes as `style` says. What comes already on the list does something else from now
    on. Raises UnreadableText with the line that cannot be read; NoSuchScene, NothingLeft.
    """
    orders = [one.strip() for one in _ORDERS.findall(text) if one.strip()]
    if not orders:
        raise UnreadableText(text, _HELP)
    wanted: dict[str, Deed] = {}
    for order in orders:
        comes, arrow, does = _parted(order)
        if not arrow:
            raise UnreadableText(order, _HELP)
        wanted[_read(comes, style)] = read_deed(show, does)
    return _put(show, wanted)


def _parted(order: str) -> tuple[str, str, str]:
    found = _ARROW.search(order)
    if found is None:
        return order, "", ""
    return order[: found.start()], found[0], order[found.end() :]


def _read(comes: str, style: str) -> str:
    plain = comes.strip()
    if re.fullmatch(r"\d{1,6}(?:\.\d{1,3})?", plain):
        plain = CUE_STYLES[style].format(plain)
    return check_comes(read_comes(plain))


def check_comes(comes: str) -> str:
    """What comes, if it may stand on the list. Raises UnreadableText for Ombrel's own addresses."""
    if comes.startswith(OWN):
        raise UnreadableText(comes, f"another address: those below {OWN} work by themselves")
    return comes


def _put(show: Show, wanted: dict[str, Deed]) -> dict[str, Asked]:
    there = {one.comes: one.cue for one in cues(show)}
    new = [comes for comes in wanted if comes not in there]
    free = _free(show)
    if len(new) > len(free):
        raise NothingLeft("cues", len(new), len(free))
    place = there | dict(zip(new, free, strict=False))
    moves: dict[str, Asked] = {}
    for comes, deed in wanted.items():
        moves |= _written(place[comes], comes, deed)
    return {a: value for a, value in moves.items() if value != show[a]}


def cues_for_scenes(show: Show, style: str = "osc") -> dict[str, Asked]:
    """Moves that give every scene of the order its cue, number to number. What comes already on the

    list stays. Raises UnreadableText where there are no scenes, or programs have no such numbers.
    """
    if not show.scenes:
        raise UnreadableText("", "a show with scenes; store one first")
    there = {one.comes for one in cues(show)}
    wanted = {}
    for scene in show.scenes:
        number = number_text(show.number(f"{scene}/number"))
        if style == "program" and not (number.isdigit() and int(number) <= 127):
            raise UnreadableText(number, "scenes with whole numbers to 127: programs have no other")
        comes = _read(number, style)
        if comes not in there:
            wanted[comes] = Deed(does="scene", what=scene)
    return _put(show, wanted)


def set_cue(show: Show, cue: str, comes: str | None, does: str | None) -> dict[str, Asked]:
    """Moves after which a cue waits for something else, or does something else, as typed.

    Raises NotThere, UnreadableText.
    """
    if f"{cue}/comes" not in show.values:
        raise NotThere(cue.replace("/", " "))
    now = _cue(show, cue)
    moves = _written(
        cue,
        now.comes if comes is None else _read(comes, "osc"),
        now.deed if does is None else read_deed(show, does),
    )
    return {a: value for a, value in moves.items() if value != show[a]}


def remove_cues(show: Show, some: Iterable[str]) -> dict[str, Asked]:
    """Moves that take cues off the list. Raises NotThere."""
    moves: dict[str, Asked] = {}
    for cue in some:
        if f"{cue}/comes" not in show.values:
            raise NotThere(cue.replace("/", " "))
        moves |= {f"{cue}/{leaf}": default_of(f"{cue}/{leaf}") for leaf in _LEAVES}
    return moves


def cues_in_words(show: Show, some: Sequence[Cue]) -> str:
    """Cues in words, for a refusal."""
    return ", ".join(deed_text(show, one.deed) for one in some)
