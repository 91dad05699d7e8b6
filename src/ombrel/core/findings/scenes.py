"""What is odd over the run of scenes: what one lacks that the others carry, what changes nothing,

what nobody can recall, and which breaks a promise; and about the cues that call them.
"""

from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping
from typing import Final

from ..answers import newly_broken
from ..catalogue import Address, cell_name, parameter_at
from ..cues import Cue, cues, deed_text, fits, is_gone, read_comes
from ..edit import edited
from ..flow import Flow
from ..recalls import apart, recall
from ..scenes import Held, held_of, holder_name, holders, pin_of_cell, run_of, scene_named
from ..show import Show
from ..values import ConsoleError, Value, counted
from ..words import refusal
from .rule import Finding, Look

__all__ = [
    "cue_for_hands",
    "cue_in_vain",
    "cue_twice",
    "cues_alike",
    "faults_of_cues",
    "scene_breaks_promise",
    "scene_changes_nothing",
    "scene_lacks",
    "scene_passed_by",
]

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


# ---- cues from outside


def faults_of_cues(show: Show, flow: Flow) -> dict[str, str]:
    """What is wrong with cues, by cue, in words: what is found of them but for those alike."""
    look = Look(show, flow)
    rules = (cue_for_hands, cue_in_vain, cue_twice)
    return {one.about: one.says for rule in rules for one in rule(look)}


def cue_twice(look: Look) -> Iterator[Finding]:
    """Two cues that wait for the same: neither is done."""
    waiting: dict[str, list[Cue]] = defaultdict(list)
    for one in cues(look.show):
        waiting[one.comes].append(one)
    for comes, some in waiting.items():
        if len(some) > 1:
            does = " and ".join(deed_text(look.show, one.deed) for one in some)
            yield Finding(
                rule="cue_twice",
                tone="settle",
                says=f"{comes} is to do {does}: none is done until one is left.",
                about=some[1].cue,
            )


def cues_alike(look: Look) -> Iterator[Finding]:
    """Cues of different messages that do the same."""
    doing: dict[str, list[Cue]] = defaultdict(list)
    for one in cues(look.show):
        if fits(one.deed) and not is_gone(look.show, one.deed):
            doing[deed_text(look.show, one.deed)].append(one)
    for does, some in doing.items():
        if len({one.comes for one in some}) > 1:
            comes = " and ".join(one.comes for one in some[:3])
            more = f" and {len(some) - 3} more" if len(some) > 3 else ""
            yield Finding(
                rule="cues_alike",
                tone="note",
                says=f"{comes}{more} do the same: {does}.",
                about=some[1].cue,
            )


def cue_in_vain(look: Look) -> Iterator[Finding]:
    """A cue that names nothing, or what is gone; or that waits for what never comes."""
    show = look.show
    for one in cues(show):
        if not fits(one.deed) or is_gone(show, one.deed):
            says = f"{one.comes} does {deed_text(show, one.deed)}: nothing happens when it comes."
            yield Finding(rule="cue_in_vain", tone="settle", says=says, about=one.cue)
        elif not _may_come(one.comes):
            says = f"{one.comes} never comes: no message is written so."
            yield Finding(rule="cue_in_vain", tone="settle", says=says, about=one.cue)


def _may_come(comes: str) -> bool:
    try:
        return read_comes(comes) == comes
    except ConsoleError:
        return False


def cue_for_hands(look: Look) -> Iterator[Finding]:
    """A cue for a scene that would change sources as things stand: it is refused when it comes."""
    show = look.show
    by_scene = {one.deed.what: one for one in cues(show) if one.deed.does == "scene"}
    if not by_scene:
        return
    for scene, values in _apart(look):
        moved = [a for a in values if Address.at(a).last in ("source", "spare")]
        if scene in by_scene and moved:
            yield Finding(
                rule="cue_for_hands",
                tone="note",
                says=f"{by_scene[scene].comes} does nothing as things stand: scene "
                f"{scene_named(show, scene)} would change {counted(len(moved), 'source')}, "
                "which takes two presses of a hand.",
                about=by_scene[scene].cue,
            )
