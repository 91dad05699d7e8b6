"""What a screen can ask of scenes: stored, changed without a recall, recalled, run."""

import time
from typing import Annotated, Literal

from pydantic import Field

from ombrel import core

from .asking import MOST_STRIPS, STORABLE, Address, Strict, Typing
from .plans import Planned, Turn

__all__ = ["Go", "RecallScene", "SceneAsk", "SetInScenes", "StoreScene"]

Cells = Annotated[
    list[Annotated[str, Field(max_length=60, pattern=STORABLE)]], Field(max_length=400)
]
SceneName = Annotated[str, Field(max_length=60, pattern=STORABLE)]


class CellsOf(Strict):
    """Cells of a strip, by name or by aspects."""

    holder: Address
    cells: Cells = []
    aspects: Cells = []


class StoreScene(Strict):
    """Make a scene of what stands. `preset`: one of the core's, a mix, or a scene to be like."""

    action: Literal["store_scene"]
    name: SceneName = ""
    preset: Address = "everything"
    number: Annotated[str, Field(max_length=12, pattern=STORABLE)] = ""
    after: Address | None = None

    def plan(self, turn: Turn) -> Planned:
        show = turn.show
        if core.of_kind(self.preset) == "scene":
            cells = core.carried_cells(show, self.preset)
        else:
            cells = core.cells_by_preset(show, self.preset)
        name = self.name.strip() or "Scene"
        moves = core.store_scene(show, name, cells, number=self.number, after=self.after)
        return Planned(moves, f"Scene {name} stored")


class StoreAgain(Strict):
    """Put what stands into the cells that a scene carries."""

    action: Literal["store_again"]
    scene: Address

    def plan(self, turn: Turn) -> Planned:
        moves = core.store_again(turn.show, self.scene)
        return Planned(moves, f"Scene {core.scene_named(turn.show, self.scene)} stored again")


class SetCells(Strict):
    """Put cells into a scene, or take them out; they sleep there. `typed`: strips as typed, of

    which `aspects` are meant, beside those that are named.
    """

    action: Literal["set_cells"]
    scene: Address
    strips: Annotated[list[CellsOf], Field(max_length=MOST_STRIPS)] = []
    typed: Typing = ""
    aspects: Cells = []
    on: bool

    def plan(self, turn: Turn) -> Planned:
        strips = [*self.strips]
        if self.typed.strip():
            named = core.read_strips(turn.show, self.typed)
            strips += [CellsOf(holder=holder, aspects=self.aspects) for holder in named]
        cells = {
            one.holder: frozenset(one.cells)
            | core.cells_of_aspects(turn.show, self.scene, one.holder, one.aspects, on=self.on)
            for one in strips
        }
        moves = core.set_cells(turn.show, self.scene, cells, on=self.on)
        verb = "put into" if self.on else "taken out of"
        words = f"{core.counted(sum(map(len, cells.values())), 'cell')} {verb} scene"
        return Planned(moves, f"{words} {core.scene_named(turn.show, self.scene)}")


class SetInScenes(Strict):
    """Give scenes a value at a strip's leaf, as typed: from one on, or in those of `numbers`."""

    action: Literal["set_in_scenes"]
    scene: Address
    holder: Address
    leaf: Address
    typed: Typing
    scope: core.Scope = "same"
    numbers: Typing = ""

    def plan(self, turn: Turn) -> Planned:
        many = self.many(turn.show)
        words = f"{core.holder_name(turn.show, self.holder)}, {self.typed} in"
        return Planned(many.moves, f"{words} {len(many.changed)} scenes")

    def many(self, show: core.Show) -> core.Many:
        chosen = core.read_scenes(show, self.numbers) if self.numbers.strip() else [self.scene]
        return core.set_in_scenes(
            show, self.scene, self.holder, self.leaf, core.Typed(self.typed), scope=self.scope,
            chosen=chosen,
        )  # fmt: skip


class DuplicateScene(Strict):
    """Put a copy of a scene behind it."""

    action: Literal["duplicate_scene"]
    scene: Address
    name: SceneName = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.duplicate_scene(turn.show, self.scene, name=self.name)
        return Planned(moves, f"Scene {core.scene_named(turn.show, self.scene)} duplicated")


class RemoveScenes(Strict):
    """Take scenes out of the order; undo brings them back with all that they hold."""

    action: Literal["remove_scenes"]
    scenes: Annotated[list[Address], Field(min_length=1, max_length=core.SCENES)]

    def plan(self, turn: Turn) -> Planned:
        names = [core.scene_named(turn.show, scene) for scene in self.scenes[:3]]
        more = f" and {len(self.scenes) - 3} more" if len(self.scenes) > 3 else ""
        moves = core.remove_scene(turn.show, self.scenes)
        return Planned(moves, f"Scene {', '.join(names)}{more} removed")


class RenumberScene(Strict):
    """Give a scene another number, as typed: its place in the order."""

    action: Literal["renumber_scene"]
    scene: Address
    number: Annotated[str, Field(max_length=12, pattern=STORABLE)]

    def plan(self, turn: Turn) -> Planned:
        moves = core.renumber_scene(turn.show, self.scene, self.number)
        return Planned(moves, f"Scene {core.scene_named(turn.show, self.scene)} renumbered")


class NumberAnew(Strict):
    """Give a scene and all behind it whole numbers; the first as typed, or the next free one."""

    action: Literal["number_anew"]
    scene: Address
    first: Annotated[str, Field(max_length=12, pattern=STORABLE)] = ""

    def plan(self, turn: Turn) -> Planned:
        moves = core.numbered_anew(turn.show, self.scene, self.first)
        name = core.scene_named(turn.show, self.scene)
        return Planned(dict(moves), f"Numbered anew from scene {name}")


def _recalled(turn: Turn, scene: str, *, sources: bool) -> Planned:
    step = core.recalled(turn.show, scene, since_s=round(time.time(), 3), hands=turn.in_hand)
    moves = step.found.checked(sources=sources)
    return Planned(moves, step.says, seconds=step.seconds, own=True)


class RecallScene(Strict):
    """Recall a scene, whatever its condition. `sources`: yes, those that it changes too."""

    action: Literal["recall_scene"]
    scene: Address
    sources: bool = False

    def plan(self, turn: Turn) -> Planned:
        return _recalled(turn, self.scene, sources=self.sources)


class Go(Strict):
    """Recall the scene that is next, by its name: pressed by two, it happens once, and one that

    comes late is refused.
    """

    action: Literal["go"]
    scene: Address
    sources: bool = False

    def plan(self, turn: Turn) -> Planned:
        if core.is_gone_to(turn.show, self.scene):
            return Planned({})
        return _recalled(turn, self.scene, sources=self.sources)


SceneAsk = (
    StoreScene
    | StoreAgain
    | SetCells
    | SetInScenes
    | DuplicateScene
    | RemoveScenes
    | RenumberScene
    | NumberAnew
    | RecallScene
    | Go
)
