"""What scenes hold, read without recalling them; and two scenes laid against one another."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass
from typing import Literal

from ..catalogue import (
    CHOSEN,
    LONE,
    PINNED,
    Address,
    Desk,
    Leaf,
    aspect_of,
    band_of,
    cells_of,
    leaf_defaults,
    of_kind,
    parameter_at,
    preamp_leaf,
)
from ..scenes import (
    Held,
    address_of,
    held_of,
    holder_name,
    holders,
    passed_by,
    scene_in,
    used_holders,
    usual_cells,
)
from ..show import Show
from ..values import NoSuchCell, Value
from .compare import value_text

__all__ = [
    "HeldDifference",
    "HeldStrip",
    "HeldValue",
    "SceneCard",
    "cells_of_aspects",
    "compare_scenes",
    "held_strips",
    "held_text",
    "held_values",
    "leaf_label",
    "scene_cards",
]


Mark = Literal["all", "some", "asleep", "none", "no such"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SceneCard:
    """A scene in the list: of how many strips it carries how many cells. `passed`: next and

    previous pass it by tonight.
    """

    scene: str
    strips: int
    cells: int
    passed: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldStrip:
    """A strip beside a scene. `marks`: for each aspect of PINNED, in their order, whether the scene

    carries "all" that is in use, "some", has it "asleep", "none" of it, or the strip has "no such".
    """

    holder: str
    name: str
    marks: tuple[Mark, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldValue:
    """A value in a scene, in words, and what stands there now ("" where there is no such place)."""

    leaf: Leaf
    cell: str
    label: str
    value: str
    stands: str
    asleep: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class HeldDifference:
    """A value that two scenes have otherwise; "not carried" where one of them does not."""

    holder: str
    name: str
    label: str
    one: str
    other: str


NOT_CARRIED = "not carried"


def scene_cards(show: Show) -> tuple[SceneCard, ...]:
    """The scenes in their order."""
    found = []
    by = passed_by(show)
    for scene in show.scenes:
        carried = [len(held_of(show, scene, holder).cells) for holder in holders(show.desk)]
        strips = sum(1 for cells in carried if cells)
        found.append(SceneCard(scene=scene, strips=strips, cells=sum(carried), passed=by(scene)))
    return tuple(found)


def held_strips(show: Show, scene: str) -> tuple[HeldStrip, ...]:
    """What a scene has of each strip in use, and of others of which it has something. Raises

    NoSuchScene.
    """
    scene_in(show, scene)
    used = set(used_holders(show))
    usual = {kind: usual_cells(show, kind) for kind in {of_kind(one) for one in used}}
    found = []
    for holder in holders(show.desk):
        held, kind = held_of(show, scene, holder), of_kind(holder)
        if holder not in used and not held.cells and not held.asleep:
            continue
        marks = _marks(show.desk, kind, usual.get(kind, frozenset()), held)
        found.append(HeldStrip(holder=holder, name=holder_name(show, holder), marks=marks))
    return tuple(found)


def _marks(desk: Desk, kind: str, usual: frozenset[str], held: Held) -> tuple[Mark, ...]:
    by_aspect: dict[str, set[str]] = {}
    for cell in cells_of(desk, kind):
        if cell in usual or cell in CHOSEN or cell in held.cells or cell in held.asleep:
            by_aspect.setdefault(aspect_of(cell), set()).add(cell)
    return tuple(_mark(by_aspect.get(aspect, set()), held) for aspect in PINNED)


def _mark(cells: set[str], held: Held) -> Mark:
    if not cells:
        return "no such"
    if cells <= held.cells:
        return "all"
    if cells & held.cells:
        return "some"
    return "asleep" if cells & held.asleep else "none"


def cells_of_aspects(
    show: Show, scene: str, holder: str, aspects: Collection[str], *, on: bool
) -> frozenset[str]:
    """The cells of some aspects of a strip: to be put into a scene those in use, to be taken out

    those that it carries. "all": every aspect, but to be put in those of CHOSEN only where they
    are named; that nobody is on only where "part" alone is. Raises NoSuchScene, NoSuchCell.
    """
    every = "all" in aspects
    named = [one for one in aspects if one != "all"]
    held = held_of(show, scene_in(show, scene), holder)
    known = cells_of(show.desk, of_kind(holder))
    usual = usual_cells(show, of_kind(holder))
    strange = [one for one in named if one not in PINNED]
    if strange:
        raise NoSuchCell(holder, strange[0])
    wanted = [cell for cell in known if every or aspect_of(cell) in named]
    if not on:
        return frozenset(cell for cell in wanted if cell in held.cells)
    chosen = [cell for cell in CHOSEN if aspect_of(cell) in named]
    if named != ["part"] and show.own.get(f"{holder}/part") is None:
        wanted = [cell for cell in wanted if cell != "part" or cell in held.asleep]  # nobody
    return frozenset(c for c in wanted if c in usual or c in chosen or c in held.asleep)


def held_values(show: Show, scene: str, holder: str) -> tuple[HeldValue, ...]:
    """Every value that a scene has of a strip, defaults too. Raises NoSuchScene."""
    held = held_of(show, scene_in(show, scene), holder)
    kind = of_kind(holder)
    found = []
    for cell, leaves in cells_of(show.desk, kind).items():
        if cell not in held.cells and cell not in held.asleep:
            continue
        for leaf in leaves:
            address = address_of(show, holder, leaf)
            value = held.value(show.desk, kind, leaf)
            found.append(
                HeldValue(
                    leaf=leaf,
                    cell=cell,
                    label=leaf_label(show, holder, leaf),
                    value=_text(show, kind, leaf, value),
                    stands=_text(show, kind, leaf, show[address]) if address else "",
                    asleep=cell in held.asleep,
                )
            )
    return tuple(found)


def _of_kind(kind: str, leaf: Leaf) -> str:
    if of_preamp := preamp_leaf(leaf):
        return f"input/a/1/{of_preamp}"
    return f"{kind}/{leaf}" if kind in LONE else f"{kind}/1/{leaf}"


def _text(show: Show, kind: str, leaf: Leaf, value: Value) -> str:
    return value_text(show, _of_kind(kind, leaf), value)


def held_text(show: Show, holder: str, leaf: Leaf, value: Value) -> str:
    """A value at a strip's leaf, in words."""
    return _text(show, of_kind(holder), leaf, value)


def leaf_label(show: Show, holder: str, leaf: Leaf) -> str:
    """What a leaf is called; with the destination of a feed, and the number of a band."""
    label = parameter_at(_of_kind(of_kind(holder), leaf)).label
    target = Address.at(_of_kind(of_kind(holder), leaf)).target
    if of_kind(target) in ("mix", "matrix", "group", "dca", "mute_group"):
        return f"{holder_name(show, target)}: {label.lower()}"
    if band := band_of(leaf):
        return f"EQ {band}: {label.lower().removeprefix('eq ')}"
    return label


def compare_scenes(show: Show, one: str, other: str) -> Iterator[HeldDifference]:
    """What two scenes hold otherwise, strip by strip. Raises NoSuchScene."""
    scene_in(show, one)
    scene_in(show, other)
    for holder in holders(show.desk):
        here, there = held_of(show, one, holder), held_of(show, other, holder)
        if here is there:
            continue
        kind = of_kind(holder)
        plain = leaf_defaults(show.desk, kind)
        for cell, leaves in cells_of(show.desk, kind).items():
            if cell not in here.cells and cell not in there.cells:
                continue
            if cell in here.cells and cell in there.cells:
                for leaf in leaves:
                    texts = [
                        _text(show, kind, leaf, held.values.get(leaf, plain[leaf]))
                        for held in (here, there)
                    ]
                    if here.values.get(leaf, plain[leaf]) != there.values.get(leaf, plain[leaf]):
                        yield _difference(show, holder, leaf, *texts)
                continue
            words = [_first(show, kind, leaves, held, cell) for held in (here, there)]
            yield _difference(show, holder, leaves[0], *words)


def _first(show: Show, kind: str, leaves: tuple[Leaf, ...], held: Held, cell: str) -> str:
    if cell not in held.cells:
        return NOT_CARRIED
    return _text(show, kind, leaves[0], held.value(show.desk, kind, leaves[0]))


def _difference(show: Show, holder: str, leaf: Leaf, one: str, other: str) -> HeldDifference:
    return HeldDifference(
        holder=holder,
        name=holder_name(show, holder),
        label=leaf_label(show, holder, leaf),
        one=one,
        other=other,
    )
