"""What is odd over the run of scenes: what one lacks that the others carry, what changes nothing,

what nobody can recall, and which breaks a promise.
"""

from collections import Counter
from collections.abc import Iterator, Mapping
from typing import Final

from ..answers import newly_broken
from ..catalogue import Address, cell_name, parameter_at
from ..edit import edited
from ..recalls import apart, recall
from ..scenes import Held, held_of, holder_name, holders, pin_of_cell, run_of, scene_named
from ..values import ConsoleError, Value
from ..words import refusal
from .rule import Finding, Look

__all__ = ["scene_breaks_promise", "scene_changes_nothing", "scene_lacks", "scene_passed_by"]

_MOST_LACKING: Final = 0.25  # of the scenes: what more of them lack is meant
_MOST_JUDGED: Final = 40  # sets of feeds that scenes switch: each is a move of the flow
_FEWEST: Final = 4  # scenes from which on "the others" are telling


def scene_lacks(look: Look) -> Iterator[Finding]:
    """A scene without what nearly all others carry: after a jump it does not come out alike."""
    show, order = look.show, look.show.scenes
    if len(order) < _FEWEST:
        return
    lacking: dict[str, list[tuple[str, str]]] = {}
    for holder in holders(show.desk):
        cells = {scene: held_of(show, scene, holder).cells for scene in order}
        count: Counter[str] = Counter()
        for alike, having in Counter(cells.values()).items():  # mostly they are alike
            count.update(dict.fromkeys(alike, having))
        for cell, having in count.items():
            if having < len(order) and len(order) - having <= _MOST_LACKING * len(order):
                for scene in order:
                    if cell not in cells[scene]:
                        lacking.setdefault(scene, []).append((holder, cell))
    for scene in order:
        found = lacking.get(scene)
        if found:
            holder, cell = found[0]
            more = f" and {len(found) - 1} more" if len(found) > 1 else ""
            yield Finding(
                rule="scene_lacks",
                tone="note",
                says=f"Scene {scene_named(show, scene)} does not carry "
                f"{holder_name(show, holder)}, {cell_name(cell).lower()}{more}, "
                "which nearly all others do.",
                about=scene,
            )


def scene_changes_nothing(look: Look) -> Iterator[Finding]:
    """A scene that, recalled in its turn, moves nothing."""
    show = look.show
    for place, (scene, moved) in enumerate(run_of(show)):
        if not moved and place > 0:
            yield Finding(
                rule="scene_changes_nothing",
                tone="note",
                says=f"Scene {scene_named(show, scene)} changes nothing after the one before it.",
                about=scene,
            )


def scene_passed_by(look: Look) -> Iterator[Finding]:
    """A scene that go never reaches, or that cannot be recalled as things stand."""
    show = look.show
    for scene, values in _apart(look):
        if show.on(f"{scene}/skipped"):
            says = f"Go skips scene {scene_named(show, scene)}: only its number recalls it."
            yield Finding(rule="scene_passed_by", tone="note", says=says, about=scene)
        if not any(map(_may_be_refused, values)):
            continue
        try:
            edited(show, look.flow, recall(show, scene).moves, own=True)
        except ConsoleError as refused:
            why = refusal(refused, show)
            yield Finding(
                rule="scene_passed_by",
                tone="settle",
                says=f"Scene {scene_named(show, scene)} cannot be recalled now: {why}",
                about=scene,
            )


def _may_be_refused(address: str) -> bool:
    """Whether a recall of an address may close a loop or a circle."""
    at = Address.at(address)
    return at.last in ("source", "spare") or at.bears_on("circles")


def scene_breaks_promise(look: Look) -> Iterator[Finding]:
    """A scene after which a promise that holds now does not."""
    show = look.show
    judged: dict[frozenset[tuple[str, Value]], tuple[str, ...]] = {}
    for scene, values in _apart(look):
        feeds = {address: value for address, value in values.items() if _switches(address)}
        key = frozenset(feeds.items())
        if not feeds or (key not in judged and len(judged) == _MOST_JUDGED):
            continue
        if key not in judged:
            judged[key] = _broken_by(look, feeds)
        for broken in judged[key]:
            yield Finding(
                rule="scene_breaks_promise",
                tone="settle",
                says=f"Scene {scene_named(show, scene)} breaks a promise. {broken}",
                about=scene,
            )


def _broken_by(look: Look, feeds: Mapping[str, Value]) -> tuple[str, ...]:
    try:
        after = edited(look.show, look.flow, feeds)
    except ConsoleError:
        return ()  # told by another rule
    return newly_broken(look.show, look.flow, after.show, after.flow)


def _apart(look: Look) -> Iterator[tuple[str, Mapping[str, Value]]]:
    """Each scene with what its recall would change that no pin holds, by address.

    Scenes hold mostly what their neighbours hold: each holding is laid against the show once.
    """
    show, pin_at = look.show, pin_of_cell(look.show)
    known: dict[tuple[str, int], tuple[Held, dict[str, Value]]] = {}
    for scene in show.scenes:
        values: dict[str, Value] = {}
        for holder in holders(show.desk):
            held = held_of(show, scene, holder)
            if not held.cells:
                continue
            found = known.get((holder, id(held)))
            if found is None:  # the holding is kept with it, so that its id stays its own
                differing = {
                    address: value
                    for cell, those in apart(show, holder, held)
                    if not pin_at(holder, cell)
                    for address, value in those
                }
                found = known[holder, id(held)] = held, differing
            values |= found[1]
        yield scene, values


def _switches(address: str) -> bool:
    """Whether a recall of an address may open a way."""
    aspect = parameter_at(address).aspect
    return aspect in ("routing", "patch") or (
        aspect == "sends" and Address.at(address).last != "pan"
    )
