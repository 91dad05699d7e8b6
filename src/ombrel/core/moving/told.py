"""What does not come along to another desk, in words, before anybody takes it there."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Final, Literal

from ..catalogue import COUNTED, Address, Desk, Thing, of_kind, parameter_at
from ..flow import strip_name
from ..show import Show, lines_on, numbers_text
from ..values import Number, Reference, counted, said
from ..words import refusal
from .moved import Moved

__all__ = ["Left", "left_words"]

_MOST_NAMES: Final = 8
_MOST_REFUSED: Final = 6
_WORDS: Final = {
    "dca": "DCA", "mute_group": "mute group", "engine": "effect", "matrix": "matrix",
    "sharing": "group that shares gain",
}  # fmt: skip
_MANY: Final = {"matrix": "matrices", "mix": "mixes", "sharing": "groups that share gain"}


@dataclass(frozen=True, slots=True)
class Left:
    """Something that a move means. `tone`: "heard" (the sound would change), "aside" (kept aside),

    "back" (comes back from aside).
    """

    tone: Literal["heard", "aside", "back"]
    says: str


def left_words(show: Show, found: Moved) -> list[Left]:
    """What a move would mean, what is heard of it first. `show`: before it."""
    told = [
        *(Left("heard", says) for says in _heard(show, found.show.desk)),
        *(Left("heard", says) for says in _refused(show, found)),
        *(Left("aside", says) for says in _beyond(show, found.show.desk)),
        *(Left("aside", says) for says in _boxes(show, found)),
        *(Left("aside", says) for says in _held_to(show, found)),
    ]
    rest = len(found.left)
    if rest:
        says = f"{counted(rest, 'value')} in all {'is' if rest == 1 else 'are'} kept aside"
        told.append(Left("aside", f"{says}, with the show and in its file, for {show.desk.name}."))
    if found.back:
        told.append(Left("back", f"{counted(len(found.back), 'value')} kept aside before: back."))
    return told


def _gone(show: Show, desk: Desk, kind: str) -> list[str]:
    """Things of a kind that are in use, and that the other desk has not."""
    used = {at.thing for a in show.own if (at := Address.at(a)).kind == kind}
    numbers = range(desk.count(kind) + 1, show.desk.count(kind) + 1)
    return [one for n in numbers if (one := f"{kind}/{n}") in used and _is_used(show, one)]


def _is_used(show: Show, thing: str) -> bool:
    return of_kind(thing) in _WORDS or show.uses(thing)


def _beyond(show: Show, desk: Desk) -> Iterator[str]:
    for kind in COUNTED:
        gone = _gone(show, desk, kind)
        if not gone:
            continue
        word = _WORDS.get(kind, kind)
        many = _MANY.get(kind, f"{word}s")
        numbers = numbers_text([Thing.at(one).number for one in gone])
        has = desk.count(kind)
        yield (
            f"{desk.name} has {has} {word if has == 1 else many}. Kept aside:"
            f" {word if len(gone) == 1 else many} {numbers}"
            f" ({_names(strip_name(show, one) for one in gone)})."
        )


def _names(names: Iterable[str]) -> str:
    every = list(names)
    more = f" and {len(every) - _MOST_NAMES} more" if len(every) > _MOST_NAMES else ""
    return ", ".join(every[:_MOST_NAMES]) + more


def _heard(show: Show, desk: Desk) -> Iterator[str]:
    """DCAs that are not at 0 dB, mutes that are on, and shared gain, whose members come without."""
    for dca in _gone(show, desk, "dca"):
        level_db = show.number(f"{dca}/fader")
        if show.on(f"{dca}/mute"):
            yield f"The DCA {strip_name(show, dca)} is muted: without it its members are open."
        elif level_db != 0.0:
            level = "off" if level_db < -200.0 else f"at {said(level_db)} dB"
            yield f"The DCA {strip_name(show, dca)} stands {level}: its members come without it."
    for group in _gone(show, desk, "mute_group"):
        if show.on(f"{group}/on"):
            name = strip_name(show, group)
            yield f"The mute group {name} is closed: without it its members are open."
    for group in _gone(show, desk, "sharing"):
        yield f"{strip_name(show, group)} shares no gain there: its members are open all at once."


def _refused(show: Show, found: Moved) -> Iterator[str]:
    told: dict[str, int] = {}
    for error in found.refused.values():
        says = refusal(error, show).replace("Nothing was changed. ", "")
        told[says] = told.get(says, 0) + 1
    for says, count in list(told.items())[:_MOST_REFUSED]:
        yield f"Not there beside the rest ({counted(count, 'value')}): {says}"
    if len(told) > _MOST_REFUSED:
        yield f"and {len(told) - _MOST_REFUSED} reasons more"


def _boxes(show: Show, found: Moved) -> Iterator[str]:
    """Boxes with something in use whose sockets lead nowhere on the other desk."""
    desk, sockets = found.show.desk, {"input": set[str](), "output": set[str]()}
    for address, value in show.own.items():
        at = Address.at(address)
        if at.kind == "output" and at.last == "source" and isinstance(value, str):
            sockets["output"].add(at.thing)
        elif isinstance(at.entry.kind, Reference) and of_kind(str(value)) == "input":
            sockets["input"].add(str(value))  # a tap may be called so too
    for box in show.desk.boxes:
        there = desk.box(found.boxes.get(box.key, ""))
        lost = {
            kind: sorted(
                at.number
                for at in map(Thing.at, used)
                if at.box == box.key
                and at.number
                > (0 if there is None else there.inputs if kind == "input" else there.outputs)
            )
            for kind, used in sockets.items()
        }
        if not lost["input"] and not lost["output"]:
            continue
        plugged = sum(len(lines_on(show, f"input/{box.key}/{n}")) for n in lost["input"])
        parts = []
        if lost["input"]:
            names = f"{box.short} {numbers_text(lost['input'])}"
            parts.append(f"inputs {names} ({counted(plugged, 'line')})")
        if lost["output"]:
            parts.append(f"outputs {box.short} {numbers_text(lost['output'])}")
        where = "stands for none there" if there is None else f"is {there.short} there"
        yield f"{box.short} {where}. Without a socket: {'; '.join(parts)}."


def _held_to(show: Show, found: Moved) -> Iterator[str]:
    """Numbers that stand at an end of what the other desk can."""
    by_label: dict[str, int] = {}
    for entry in found.left:
        if entry.at and isinstance(parameter_at(entry.address).kind, Number):
            label = parameter_at(entry.address).label
            by_label[label] = by_label.get(label, 0) + 1
    for label, count in by_label.items():
        goes = "goes" if count == 1 else "go"
        yield (
            f"{counted(count, 'value')} of {label.lower()} {goes} only as far as"
            f" {found.show.desk.name} does."
        )
