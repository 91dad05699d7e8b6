"""Rows of Ombrel's own input list, read back as they were written: nothing is guessed."""

from collections.abc import Sequence
from typing import Final

from ombrel.core import (
    COLOURS,
    FAMILIES,
    LINE_KINDS,
    ConsoleError,
    Desk,
    LineDraft,
    input_list_columns,
    read_sockets,
)

from .cells import is_yes, level_of, numbers_of
from .rows import Fields
from .words import Role

__all__ = ["is_ombrels", "ombrels_heading", "ombrels_lines", "ombrels_roles"]

# In the order of the columns of the sheet; the place in the list is its order.
_ROLES: Final[tuple[Role, ...]] = (
    "ignore",
    "number",
    "name",
    "stereo",
    "kind",
    "microphone",
    "phantom",
    "stand",
    "performer",
    "where",
    "socket",
    "level",
    "notes",
    "family",
    "colour",
    "ignore",
)
_ROLE_OF: Final = dict(zip(input_list_columns(), _ROLES, strict=True))


def is_ombrels(titles: Sequence[str]) -> bool:
    """Whether headings are those of Ombrel's own input list, in whatever order."""
    return set(titles) - {""} == set(_ROLE_OF)


def ombrels_heading(rows: Sequence[Sequence[str]]) -> int | None:
    """The row of Ombrel's own headings, or None: the list is somebody else's."""
    return next((number for number, row in enumerate(rows[:60]) if is_ombrels(row)), None)


def ombrels_roles(titles: Sequence[str]) -> tuple[Role, ...]:
    """What each column of Ombrel's own list is, by its heading."""
    return tuple(_ROLE_OF.get(title, "ignore") for title in titles)


def ombrels_lines(fields: Fields, desk: Desk) -> tuple[list[LineDraft], list[str]]:
    """The one draft of a row, and what could not be read. Raises ValueError, in words."""
    told: list[str] = []
    name = fields.get("name", "")
    if not name:
        raise ValueError("it has no name")
    numbers = numbers_of(fields.get("number", "")) or []
    sockets: list[str] = []
    if fields.get("socket"):
        try:
            sockets = read_sockets(desk, fields["socket"])
        except ConsoleError as fault:
            told.append(str(fault))
    kind = fields.get("kind", "").replace(" ", "_")
    family, colour = fields.get("family", ""), fields.get("colour", "")
    stereo = fields.get("stereo") == "stereo"
    draft = LineDraft(
        name=name,
        kind=kind if kind in LINE_KINDS else "dynamic",
        stereo=stereo,
        socket=sockets[0] if sockets else None,
        socket_right=sockets[1] if stereo and len(sockets) > 1 else None,
        performer=fields.get("performer", ""),
        where=fields.get("where", ""),
        stand=fields.get("stand", ""),
        microphone=fields.get("microphone", ""),
        phantom=is_yes(fields.get("phantom", "")),
        level_dbu=level_of(fields.get("level", "")),
        notes=fields.get("notes", ""),
        family=family if family in FAMILIES else "unsorted",
        colour=colour if colour in COLOURS else "sand",
        channel=numbers[0] if numbers else None,
        channel_right=numbers[1] if stereo and len(numbers) > 1 else None,
        said=frozenset(
            ("name", "kind", "performer", "where", "stand", "microphone", "phantom", "notes",
             "level_dbu", "family", "colour")
        ),
    )  # fmt: skip
    return [draft], told
