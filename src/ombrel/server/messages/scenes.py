"""Scenes, what they hold and what a recall would do: their messages, and what fills them."""

from itertools import groupby
from typing import Final, Literal
from uuid import UUID

from pydantic import BaseModel

from ombrel import core

from ..asks.scenes import SetInScenes
from ..keeping.states import State
from .hears import level_to_wire

__all__ = [
    "HearingMessage",
    "HearingThere",
    "HeldMessage",
    "PreviewScene",
    "SceneMessage",
    "ScenesMessage",
    "held_message",
    "many_told",
    "scene_message",
    "scenes_message",
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


_MOST: Final = 200  # of what a screen lists; past that it is counted


_MOST_CELLS: Final = 40  # of one listener


def scenes_message(state: State) -> dict:
    """The scenes in their order, and the pins."""
    show = state.show
    return ScenesMessage(
        type="scenes",
        scenes=[
            SceneRow(scene=one.scene, strips=one.strips, cells=one.cells, passed=one.passed)
            for one in core.scene_cards(show)
        ],
        pins=[(pin, core.pin_name(show, pin)) for pin in core.pins_in(show)[:_MOST]],
    ).model_dump(mode="json")


def scene_message(state: State, scene: str) -> dict:
    """A scene and what its recall would do now. Raises NoSuchScene."""
    show = state.show
    looked = core.look_ahead(show, state.flow, scene)
    found = looked.recall
    return SceneMessage(
        type="scene",
        scene=scene,
        aspects=list(core.PINNED.items()),
        strips=[
            SceneStrip(holder=one.holder, name=one.name, marks=list(one.marks))
            for one in core.held_strips(show, scene)
        ],
        says=core.in_one_line(looked),
        refused=looked.refused,
        changes=[
            SceneChange(
                strip=one.strip,
                whose=one.whose,
                what=one.what,
                was=one.was,
                now=one.now,
                pin=core.pin_for(show, one.address),
            )
            for one in looked.values[:_MOST]
        ],
        changing=len(looked.values),
        listeners=[
            _listener(list(cells)) for _, cells in groupby(looked.heard, lambda c: c.listener)
        ],
        pinned=[
            ScenePinned(
                name=core.holder_name(show, holder),
                what=core.cell_name(cell),
                pin=pin,
                says=core.pin_name(show, pin),
            )
            for holder, cell, pin in found.pinned[:_MOST]
        ],
        left_out=[
            SceneLeft(name=core.holder_name(show, one.holder), what=one.what, why=one.why)
            for one in found.left_out[:_MOST]
        ],
        sources=len(found.sources),
        on=[(core.strip_name(show, channel), who or "nobody") for channel, who in found.on],
        beneath=looked.beneath,
        warns=list(looked.warns[:_MOST]),
    ).model_dump(mode="json")


def _listener(cells: list[core.HeardOtherwise]) -> SceneListener:
    count = {how: sum(one.how == how for one in cells) for how in core.HEARD_HOW}
    return SceneListener(
        listener=cells[0].listener,
        name=cells[0].listener_name,
        opens=count["opens"],
        falls_silent=count["falls_silent"],
        moves=count["moves"],
        cells=[
            SceneHeard(
                source=one.source,
                name=one.source_name,
                was_db=level_to_wire(one.was_db),
                now_db=level_to_wire(one.now_db),
            )
            for one in cells[:_MOST_CELLS]
        ],
    )


def held_message(state: State, scene: str, holder: str) -> dict:
    """What a scene has of a strip, value by value. Raises NoSuchScene, UnknownAddress."""
    return HeldMessage(
        type="held",
        scene=scene,
        holder=holder,
        name=core.holder_name(state.show, holder),
        values=[
            HeldValueRow(
                leaf=one.leaf,
                cell=one.cell,
                label=one.label,
                value=one.value,
                stands=one.stands,
                asleep=one.asleep,
            )
            for one in core.held_values(state.show, scene, holder)
        ],
    ).model_dump(mode="json")


def many_told(show: core.Show, ask: SetInScenes, many: core.Many) -> list[PreviewScene]:
    """What an update of many scenes does to each; who hears it there is told behind (`hearing`)."""
    found = []
    for scene, was, now in many.changed:
        words = [core.held_text(show, ask.holder, ask.leaf, value) for value in (was, now)]
        found.append(
            PreviewScene(
                scene=scene, name=core.scene_named(show, scene), was=words[0], now=words[1],
                stopped=scene in many.stopped,
            )
        )  # fmt: skip
    found += [
        PreviewScene(scene=scene, name=core.scene_named(show, scene), was="", now="", stopped=False)
        for scene in many.without
    ]
    return found
