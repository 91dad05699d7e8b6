"""One row of a list read into drafts of lines, or into what else it is."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from ombrel.core import COLOURS, FAMILIES, Desk, LineDraft

from .boxes import Boxes
from .cells import is_yes, level_of, numbers_of, sockets_of, times_of
from .kinds import comes_in_pairs, family_of, is_family, kind_said, row_is
from .names import alternatives, both_sides
from .words import Role, is_among, knows, plain

__all__ = ["Fields", "Row", "fields_of", "lines_of"]

Fields = Mapping[Role, str]

_LONGEST: Final = {"performer": 60, "where": 60, "stand": 60, "microphone": 60, "notes": 400}
_LONGEST_NAME: Final = 120
_LONGEST_SECTION: Final = 40
_FIELDS: Final[tuple[Role, ...]] = ("performer", "where", "stand", "microphone")
_SPLIT: Final = r"\s*[/+&;|]\s*"
MOST_OF_A_ROW: Final = 128


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """One row of a list and what it is. `key`: which, in the file: list and row number, "1:7".

    `what`: "lines", or why it gives none: "heading", "section", "note", "free", "effect", "dca",
    "output", "right" (the right side of the line above), "out" (left out by hand) or "problem".
    `says`: that in words. `told`: what could not be read as it stands.
    """

    key: str
    number: int
    cells: tuple[str, ...]
    section: str = ""
    what: str
    says: str = ""
    told: tuple[str, ...] = ()
    drafts: tuple[LineDraft, ...] = ()


def fields_of(roles: Sequence[Role], cells: Sequence[str]) -> dict[Role, str]:
    """What a row says, by role."""
    return {role: cell for role, cell in zip(roles, cells, strict=True) if role != "ignore"}


def lines_of(
    fields: Fields,
    *,
    desk: Desk,
    boxes: Boxes,
    gap: int | None,
    section: str,
    columns: frozenset[Role],
) -> tuple[list[LineDraft], list[str]]:
    """The drafts of a row, and what could not be read. `gap`: how far the next row's number is.

    Raises ValueError, in words, for a row that makes no lines.
    """
    told: list[str] = []
    fields = _named(fields)
    name = fields["name"]
    if len(name) > _LONGEST_NAME:
        told.append(f"the name is cut at {_LONGEST_NAME} letters: all of it is in the notes")
        fields["notes"] = "; ".join(filter(None, (fields.get("notes", ""), name)))
        name = fields["name"] = name[: _LONGEST_NAME - 4].rstrip() + "\u2026"
    if not name:
        raise ValueError("it has no name")
    numbers = numbers_of(fields.get("number", ""))
    if numbers is None:
        told.append(f"\u201c{fields['number']}\u201d is no channel number")
        numbers = []
    if len(numbers) > MOST_OF_A_ROW:
        raise ValueError(f"{len(numbers)} channels in one row")
    wanted = numbers_of(fields.get("count", "")) or [1]
    said = len(numbers) or (wanted[0] if len(wanted) == 1 else 1)
    many, bare = times_of(name)
    if many > 1 and (many == said or not numbers):
        said, name = many, bare
        fields["name"] = name
    mics, mic = times_of(fields.get("microphone", ""))
    if mics > 2 and mics == said:  # of two it is a pair that is meant
        fields["microphone"] = mic
    shared = _Shared(fields, name, min(said, MOST_OF_A_ROW), gap)
    sockets = _sockets(fields, shared.count, desk, boxes, told)
    if not numbers and len(sockets) > shared.count:
        shared = _Shared(fields, name, len(sockets), None)
    if shared.stereo and shared.count % 2:
        raise ValueError(f"a stereo line has two inputs, not {shared.count}")
    notes = fields.get("notes", "")
    if is_remark(section):
        notes = "; ".join(filter(None, (section, notes)))
        columns |= {"notes"}
    if told and sockets == [] and fields.get("socket"):
        notes = "; ".join(part for part in (notes, f"Socket in the list: {_place(fields)}") if part)
    if sockets and len(sockets) != shared.count:
        told.append(f"{len(sockets)} sockets for {shared.count} inputs: they do not match")
        notes = "; ".join(part for part in (notes, f"Socket in the list: {_place(fields)}") if part)
        sockets = []
    drafts = []
    for turn, name_of_one in enumerate(shared.names()):
        of_one: dict[Role, str] = {role: shared.part(fields.get(role, ""), turn) for role in _TEXTS}
        drafts.append(
            _draft(
                fields,
                of_one | {"notes": notes},
                name_of_one,
                shared.stereo,
                section,
                columns,
                told,
            )
        )
    step = 2 if shared.stereo else 1
    places = [*sockets, *[None] * shared.count]
    if len(numbers) == 1 and gap and gap >= shared.count:
        numbers = list(range(numbers[0], numbers[0] + shared.count))
    channels: list[int | None] = [*numbers, *[None] * shared.count]
    return [
        replace(
            draft,
            socket=places[turn * step],
            socket_right=places[turn * step + 1] if shared.stereo else None,
            channel=channels[turn * step],
            channel_right=channels[turn * step + 1] if shared.stereo else None,
        )
        for turn, draft in enumerate(drafts)
    ], told


def is_remark(section: str) -> bool:
    """Whether a heading within a list says more than which family its lines are of."""
    if not section or len(section) > _LONGEST_SECTION:
        return False
    return not is_family(section) and not knows(section, "rows", "input")


def _named(fields: Fields) -> dict[Role, str]:
    """The fields of a row with a name: a part of a play, or who plays it, if there is no other."""
    found: dict[Role, str] = {role: text for role, text in fields.items()}
    named = found.get("name", "") or found.get("part", "") or found.get("performer", "")
    if found.get("name") and found.get("part") and not found.get("performer"):
        found["performer"] = found["part"]
    elif found.get("name") and found.get("part"):
        found["notes"] = "; ".join(filter(None, (found.get("notes", ""), found["part"])))
    side = found.get("side", "").strip()
    told = is_among(side, "sides", "left") or is_among(side, "sides", "right")
    found["name"] = f"{named.strip()} {side}" if told and named else named.strip()
    return found


_TEXTS: Final[tuple[Role, ...]] = ("microphone", "kind", "performer", "stand", "phantom", "where")


class _Shared:
    """How many inputs a row stands for, if they are pairs, and how its texts are shared out."""

    def __init__(self, fields: Fields, name: str, said: int, gap: int | None) -> None:
        base = both_sides(name)
        width = plain(fields.get("stereo", ""))
        through = plain(f"{fields.get('microphone', '')} {fields.get('kind', '')}")
        self.base = base or name
        self.count = max(1, said)
        mono = width in ("mono", "m", "1") or is_among(width, "words", "no")
        is_stereo = (
            base is not None or is_among(width, "sides", "both") or (is_yes(width) and not mono)
        )
        two = bool(re.search(r"\bstereo\b|\b2 ?x\b|\bx ?2\b", through))
        pair = two or comes_in_pairs(name)
        room = said < 2 and gap != 1  # the next row's number leaves room for a right side
        is_stereo = is_stereo or ("stereo" in through.split() and room and not mono)
        alone = said == 1 and not is_stereo and not mono
        if alone and gap and alternatives(name, gap):  # "Kick In/Out" on 1, 3 in the next row
            self.count = gap
        self._listed = None if base else alternatives(name, self.count)
        self.stereo = not mono and (is_stereo or (self.count == 2 and pair and not self._listed))
        if self.stereo and self.count == 1:
            self.count = 2

    def names(self) -> list[str]:
        """The names of the lines, one a stereo pair."""
        if self.stereo:
            pairs = self.count // 2
            return [self.base] if pairs == 1 else [f"{self.base} {n + 1}" for n in range(pairs)]
        if self._listed:
            return self._listed
        if self.count == 1:
            return [self.base]
        return [f"{self.base} {turn + 1}" for turn in range(self.count)]

    def part(self, text: str, turn: int) -> str:
        """What a text says of one of several lines: its own part, where it lists as many."""
        parts = re.split(_SPLIT, text)
        shared_out = len(parts) > 1 and len(parts) == len(self.names())
        return parts[turn] if shared_out else text


def _place(fields: Fields) -> str:
    return " ".join(part for part in (fields.get("box", ""), fields.get("socket", "")) if part)


def _sockets(fields: Fields, count: int, desk: Desk, boxes: Boxes, told: list[str]) -> list[str]:
    """The sockets of the desk that a row names; [] when it names none, or none that can be read."""
    text = fields.get("socket", "")
    if not text or not any(c.isalnum() for c in text):
        return []
    # "Local 1/2" is two sockets, or socket 2 of a box "Local 1": what the desk has decides
    spread = re.search(r"(\d{1,3})\s*[-\u2013]\s*(\d{1,3})$", text)
    own = max(1, int(spread[2]) - int(spread[1]) + 1) if spread else 1
    sizes = dict.fromkeys((count, 2, 1, min(own, MOST_OF_A_ROW)))
    read = [places for n in sizes if (places := sockets_of(_place(fields), n))]
    if not read:
        told.append(f"\u201c{_place(fields)}\u201d is no socket: kept as a remark")
        return []
    tried = [[boxes.socket(desk, box, number) for box, number in places] for places in read]
    found = next((sockets for sockets in tried if None not in sockets), tried[0])
    if None in found:
        box, number = read[0][found.index(None)]
        told.append(boxes.why_not(desk, box, number))
        return []
    return [socket for socket in found if socket]


def _draft(
    fields: Fields,
    of_one: Mapping[Role, str],
    name: str,
    stereo: bool,
    section: str,
    columns: frozenset[Role],
    told: list[str],
) -> LineDraft:
    # a list without a column for it says so beside the microphone, or in the notes
    remarks = plain(f"{of_one['microphone']} {of_one['notes']}")
    phantom = is_yes(of_one["phantom"]) or (
        "phantom" not in columns
        and bool(
            re.search(r"(?<!no )(?<!kein )(?<!sans )(?<!sin )\b(?:p ?)?48 ?v\b|\bp48\b", remarks)
        )
    )
    kind, kind_is_said = kind_said(of_one["kind"], of_one["microphone"], name, phantom=phantom)
    said: set[str] = {
        "name",
        *(
            columns
            & {"performer", "where", "stand", "microphone", "phantom", "notes", "family", "colour"}
        ),
    }
    level_dbu = level_of(fields.get("level", ""))
    if kind_is_said:
        said.add("kind")
    if level_dbu is not None:
        said.add("level_dbu")
    family = plain(fields.get("family", ""))
    colour = plain(fields.get("colour", ""))
    texts: dict[str, str] = {}
    notes = of_one["notes"]
    for field in _FIELDS:
        text = of_one[field]
        if len(text) > _LONGEST[field]:
            notes = "; ".join(part for part in (notes, text) if part)
            told.append(f"the {field} is too long for its field: all of it is in the notes")
            text = text[: _LONGEST[field] - 1].rstrip() + "\u2026"
        texts[field] = text
    if len(notes) > _LONGEST["notes"]:
        notes = notes[: _LONGEST["notes"] - 1] + "\u2026"
        told.append("the notes are cut at 400 letters")
    return LineDraft(
        name=name,
        kind=kind,
        stereo=stereo,
        phantom=phantom,
        level_dbu=level_dbu,
        notes=notes,
        family=family if family in FAMILIES else family_of(family, name, of_one["kind"], section),
        colour=colour if colour in COLOURS else "sand",
        said=frozenset(said),
        performer=texts["performer"],
        where=texts["where"],
        stand=texts["stand"],
        microphone=texts["microphone"],
    )


def what_else(fields: Fields) -> str | None:
    """What a row is that gives no line: "free", "total", "dca" or "effect", else None."""
    number = fields.get("number", "")
    if number and not number[0].isdigit() and knows(number, "rows", "dca"):
        return "dca"
    name = fields.get("name", "") or fields.get("part", "")
    found = row_is(name) if name else None
    if (
        found == "effect"
        and kind_said(fields.get("kind", ""), fields.get("microphone", ""), "", phantom=False)[1]
    ):
        return None  # "FX" on a DI is somebody's pedal
    return found
