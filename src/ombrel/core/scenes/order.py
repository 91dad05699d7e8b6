"""Which scenes there are, in which order, and what stands before and behind each.

A scene has an id for good (`scene/3`) and a number that is its place: inserting takes the shortest
number between two, and no other scene moves.
"""

import re
from collections.abc import Callable, Sequence
from typing import Final

from ..catalogue import CASTS, PARTS, PERFORMERS, SCENES, name_below
from ..show import Show
from ..values import NoSuchScene, NothingLeft, NumberTaken, UnreadableText, bare, said

__all__ = [
    "following_scene",
    "free_scene",
    "made_room",
    "number_after",
    "number_text",
    "numbered_anew",
    "passed_by",
    "previous_scene",
    "read_number",
    "read_scenes",
    "scene_at_number",
    "scene_named",
]

_MOST_SCENES: Final = 9_999.0


def number_text(number: float) -> str:
    """A scene's number as people say it.

    >>> number_text(3.0), number_text(3.25)
    ('3', '3.25')
    """
    return bare(said(number, 3))


def read_number(text: str) -> float:
    """A scene's number as typed, at most three decimals. Raises UnreadableText."""
    plain = text.strip().replace(",", ".")
    if not re.fullmatch(r"\d{1,4}(\.\d{1,3})?", plain) or float(plain) == 0.0:
        raise UnreadableText(text, "a scene's number such as 12 or 12.5")
    return float(plain)


def scene_at_number(show: Show, text: str) -> str:
    """The scene of a number as typed or sent. Raises UnreadableText, NoSuchScene."""
    return _scene_at(show, read_number(text))


def _scene_at(show: Show, number: float) -> str:
    """The scene of a number. Raises NoSuchScene."""
    for scene in show.scenes:
        if show.number(f"{scene}/number") == number:
            return scene
    raise NoSuchScene(number_text(number))


def read_scenes(show: Show, text: str) -> tuple[str, ...]:
    """Scenes from typed numbers and ranges such as "1-5, 8.5", in their order; a range takes all

    that lie in it. Raises UnreadableText, NoSuchScene.
    """
    wanted: set[str] = set()
    for part in text[:400].replace(";", ",").split(","):
        ends = [one for one in re.split(r"\s*[-\u2013]\s*", part.strip()) if one]
        if not 1 <= len(ends) <= 2:
            raise UnreadableText(part, "scenes such as 1-5, 8.5")
        low, high = read_number(ends[0]), read_number(ends[-1])
        if low == high:
            wanted.add(_scene_at(show, low))
        wanted |= {one for one in show.scenes if low <= show.number(f"{one}/number") <= high}
    return tuple(one for one in show.scenes if one in wanted)


def scene_named(show: Show, scene: str) -> str:
    """ "12 Bridge lights": number and name. Raises NoSuchScene for none of the show."""
    if scene not in show.scenes:
        raise NoSuchScene(name_below(scene))
    number = number_text(show.number(f"{scene}/number"))
    return f"{number} {show.text(f'{scene}/name')}".rstrip()


def free_scene(show: Show, taken: Sequence[str] = ()) -> str:
    """An id that no scene has or had; where all are spent, one whose scene was removed.

    Raises NothingLeft.
    """
    removed = None
    for number in range(1, SCENES + 1):
        scene = f"scene/{number}"
        if scene in taken:
            continue
        if f"{scene}/number" not in show.values:
            return scene
        if removed is None and show.on(f"{scene}/removed"):
            removed = scene
    if removed is None:
        raise NothingLeft("scenes", 1, 0)
    return removed


def number_after(show: Show, scene: str | None) -> float:
    """The number of a new scene behind another (None: before all): the shortest that lies between

    it and the next. Raises NothingLeft where three decimals leave no room.
    """
    order = show.scenes
    numbers = [show.number(f"{one}/number") for one in order]
    if scene is None:
        below, above = 0.0, numbers[0] if numbers else None
    else:
        at = order.index(scene_in(show, scene))
        below, above = numbers[at], numbers[at + 1] if at + 1 < len(order) else None
    if above is None:
        return min(float(int(below) + 1), _MOST_SCENES)
    return _between(below, above)


def scene_in(show: Show, scene: str) -> str:
    """The scene, if the show has it. Raises NoSuchScene."""
    if scene not in show.scenes:
        raise NoSuchScene(name_below(scene))
    return scene


def _between(below: float, above: float) -> float:
    """The number of fewest decimals between two, nearest to their middle (in thousandths)."""
    low, high = round(below * 1_000), round(above * 1_000)
    for step in (1_000, 100, 10, 1):
        first, last = low // step + 1, (high - 1) // step
        if first <= last:
            middle = min(max(round((low + high) / 2 / step), first), last)
            return middle * step / 1_000
    raise NothingLeft("numbers between these scenes", 1, 0)


def check_number(show: Show, number: float, scene: str) -> None:
    """Raise NumberTaken if another scene has a number."""
    for other in show.scenes:
        if other != scene and show.number(f"{other}/number") == number:
            raise NumberTaken(number_text(number), show.text(f"{other}/name"))


def passed_by(show: Show) -> Callable[[str], bool]:
    """Whether next and previous pass a scene by: it is skipped, or named for casts or performers of

    which none is on tonight.
    """
    own = show.own
    known = [
        *(f"cast/{one}" for one in range(1, CASTS + 1) if f"cast/{one}/name" in own),
        *(f"performer/{one}" for one in range(1, PERFORMERS + 1) if f"performer/{one}/name" in own),
    ]
    plays = (own.get(f"tonight/part/{one}") for one in range(1, PARTS + 1)) if known else ()
    there = {own.get("tonight/cast"), *plays}

    def passed(scene: str) -> bool:
        wanted = {one for one in known if f"{scene}/{one}" in own}
        return show.on(f"{scene}/skipped") or (bool(wanted) and wanted.isdisjoint(there))

    return passed


def following_scene(show: Show, scene: str | None) -> str | None:
    """What go leads to after a scene, also after one that was removed since: the next that is not

    passed by; None: it was the last. None as scene: the first.
    """
    by, at = passed_by(show), _place(show, scene)
    behind = (one for one in show.scenes if show.number(f"{one}/number") > at)
    return next((one for one in behind if not by(one)), None)


def previous_scene(show: Show, scene: str | None) -> str | None:
    """The last before a scene that is not passed by; None: there is none."""
    by, at = passed_by(show), _place(show, scene)
    before = (one for one in reversed(show.scenes) if show.number(f"{one}/number") < at)
    return next((one for one in before if not by(one)), None)


def _place(show: Show, scene: str | None) -> float:
    return show.number(f"{scene}/number") if scene else 0.0


def made_room(show: Show, scene: str) -> dict[str, float]:
    """New numbers for as few scenes behind one as it takes, so that another fits behind it."""
    order = show.scenes
    at = order.index(scene_in(show, scene))
    low = round(show.number(f"{scene}/number") * 1_000)
    for moved in range(1, len(order) - at):
        behind = order[at + 1 : at + 1 + moved]
        last = at + 1 + moved == len(order)
        if last:
            high = min(low + 1_000 * (moved + 2), round(_MOST_SCENES * 1_000) + 1)
        else:
            high = round(show.number(f"{order[at + 1 + moved]}/number") * 1_000)
        if high - low >= moved + 2:
            step = (high - low) / (moved + 2)
            return {
                f"{one}/number": round(low + step * (place + 2)) / 1_000
                for place, one in enumerate(behind)
            }
    raise NothingLeft("numbers for scenes", 1, 0)


def numbered_anew(show: Show, scene: str, first: str = "") -> dict[str, float]:
    """Whole numbers, one after another, for a scene and all behind it; the first as typed, or the

    first whole one that is free. Raises NoSuchScene, UnreadableText, NumberTaken.
    """
    order = show.scenes
    at = order.index(scene_in(show, scene))
    before = show.number(f"{order[at - 1]}/number") if at else 0.0
    start = read_number(first) if first.strip() else float(int(before) + 1)
    if start <= before:
        raise NumberTaken(number_text(start), show.text(f"{order[at - 1]}/name"))
    if start + len(order) - at - 1 > _MOST_SCENES:
        raise NothingLeft("numbers for scenes", len(order) - at, int(_MOST_SCENES - start) + 1)
    return {f"{one}/number": start + place for place, one in enumerate(order[at:])}
