"""What a screen is told of scenes: the list, one with what its recall would do, its values."""

from typing import Literal
from uuid import UUID

from pydantic import BaseModel

__all__ = [
    "HearingMessage",
    "HearingThere",
    "HeldMessage",
    "PreviewScene",
    "SceneMessage",
    "ScenesMessage",
]


class SceneRow(BaseModel):
    """A scene in the list; its number, name and notes are values. `passed`: go passes it by."""

    scene: str
    strips: int
    cells: int
    passed: bool


class ScenesMessage(BaseModel):
    """The scenes in their order, and how many pins are set."""

    type: Literal["scenes"]
    scenes: list[SceneRow]
    pins: list[tuple[str, str]]  # address, and what it holds in words


class SceneStrip(BaseModel):
    """What a scene carries of a strip: a mark for each aspect, in the order of the message's."""

    holder: str
    name: str
    marks: list[Literal["all", "some", "asleep", "none", "no such"]]


class SceneChange(BaseModel):
    """A value that a recall moves, in words; `pin`: what would hold it, or ""."""

    strip: str
    whose: str
    what: str
    was: str
    now: str
    pin: str


class SceneHeard(BaseModel):
    """A source that a listener hears otherwise; null: not heard."""

    source: str
    name: str
    was_db: float | None
    now_db: float | None


class SceneListener(BaseModel):
    """What a recall does to a listener: the first of it, and how many in all."""

    listener: str
    name: str
    opens: int
    falls_silent: int
    moves: int
    cells: list[SceneHeard]


class ScenePinned(BaseModel):
    """A cell that a pin holds against the recall; `pin`: its address."""

    name: str
    what: str
    pin: str
    says: str


class SceneLeft(BaseModel):
    """What a recall leaves out, or fits to the desk."""

    name: str
    what: str
    why: str


class SceneMessage(BaseModel):
    """A scene, and what recalling it now would do. `says`: that in one line."""

    type: Literal["scene"]
    scene: str
    aspects: list[tuple[str, str]]  # keys and words
    strips: list[SceneStrip]
    says: str
    refused: str
    changes: list[SceneChange]
    changing: int
    listeners: list[SceneListener]
    pinned: list[ScenePinned]
    left_out: list[SceneLeft]
    sources: int
    on: list[tuple[str, str]]  # strips on which somebody else is then, and who
    beneath: int  # own values that change beneath fittings
    warns: list[str]


class HeldValueRow(BaseModel):
    """A value in a scene, and what stands."""

    leaf: str
    cell: str
    label: str
    value: str
    stands: str
    asleep: bool


class HeldMessage(BaseModel):
    """What a scene has of one strip, value by value."""

    type: Literal["held"]
    scene: str
    holder: str
    name: str
    values: list[HeldValueRow]


class PreviewScene(BaseModel):
    """What an update does to a scene: the value before and after; or, with no `now`, that the scene

    does not carry it. `stopped`: it met an end of the range.
    """

    scene: str
    name: str
    was: str
    now: str
    stopped: bool


class HearingThere(BaseModel):
    """Who hears an update in a scene; null where the scene cannot be recalled."""

    scene: str
    hearing: list[str] | None


class HearingMessage(BaseModel):
    """Of an update that was previewed: who hears it in some of its scenes; more follow."""

    type: Literal["hearing"]
    id: UUID
    scenes: list[HearingThere]
