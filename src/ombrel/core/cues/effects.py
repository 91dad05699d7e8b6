"""What a cue comes to when it is done: what a hand would press, less what a cue may never do.

A pin holds against it, what a hand holds stays with the hand, and what takes two presses of a hand
(sources, phantom power) is refused.
"""

from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Final

from ..casting import cast_name, choose_cast, part_on, whole_on
from ..catalogue import Address, cells_of, of_kind
from ..jobs import lift_singers, singers_of
from ..recalls import recalled
from ..scenes import is_gone_to, pin_name, pin_of_cell, previous_scene, scene_named
from ..show import Show
from ..together import giving_way, held_by_hands
from ..values import Asked, CueRefused, HandsOnly, counted
from .deeds import Deed, deed_text, fits, is_gone

__all__ = ["ONCE_S", "Effect", "check_hands_only", "effect"]

ONCE_S: Final = 0.2  # within which the same is meant by two that say it


@dataclass(frozen=True, slots=True, kw_only=True)
class Effect:
    """What a cue comes to. `moves`: of own values where `own`; none: what it asks for was done

    already, or it only shows a note; `seconds`: how long each takes.
    """

    says: str
    moves: Mapping[str, Asked] = field(default_factory=dict)
    seconds: float | Mapping[str, float] = 0.0
    own: bool = True


def effect(
    show: Show, deed: Deed, *, at_s: float, once_s: float = ONCE_S, hands: Collection[str] = ()
) -> Effect:
    """What a deed comes to at `at_s` (seconds since 1970). `once_s`: within so long two that mean

    the same scene are one step; `hands`: addresses under them. Raises CueRefused, HandsOnly,
    NotNext, and what the same would be refused for by hand.
    """
    if not fits(deed):
        raise CueRefused("It names nothing that it could do. Say what it does in Cues.")
    if is_gone(show, deed):
        raise CueRefused(f"It is about {deed_text(show, deed)}. Say what else it does in Cues.")
    match deed.does:
        case "go" | "back" | "scene":
            return _step(show, deed, at_s, once_s, hands)
        case "cast":
            found = choose_cast(show, deed.what, since_s=at_s).beside_hands(show, hands)
            return Effect(says=f"Tonight: {cast_name(show, deed.what)}", moves=found.moves)
        case "person":
            return _person(show, deed, at_s, hands)
        case "mute":
            leaf = "mute" if of_kind(deed.what) == "dca" else "on"
            moves: dict[str, Asked] = {f"{deed.what}/{leaf}": deed.on}
            return _held(show, moves, hands, _capital(deed_text(show, deed)))
        case "lift":
            return _lift(show, deed, hands)
    return Effect(says=_capital(deed_text(show, deed)))


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _step(show: Show, deed: Deed, at_s: float, once_s: float, hands: Collection[str]) -> Effect:
    now = show["run/now"]
    scene = deed.what or _meant(show, deed.does, at_s, once_s)
    if not scene:
        raise CueRefused("Nothing is next." if deed.does == "go" else "No scene is before this.")
    same = scene == now and _just_now(show, at_s, once_s) and deed.does != "back"
    if same or (deed.does == "go" and deed.what and is_gone_to(show, scene)):
        return Effect(says=f"Scene {scene_named(show, scene)} was recalled just before: one step")
    step = recalled(show, scene, since_s=at_s, hands=hands)
    check_hands_only(step.found.sources)
    return Effect(says=step.says, moves=step.found.moves, seconds=step.seconds)


def _meant(show: Show, does: str, at_s: float, once_s: float) -> str:
    """The scene that a plain go or back names: for go what was next `once_s` before, so that two

    who press it for the same step make one.
    """
    now = show["run/now"]
    if does == "back":
        return previous_scene(show, now if isinstance(now, str) else None) or ""
    if show.on("run/gone") and _just_now(show, at_s, once_s):
        return str(now or "")
    return show.text("run/next")


def _just_now(show: Show, at_s: float, once_s: float) -> bool:
    return abs(at_s - show.number("run/since")) <= once_s


def _person(show: Show, deed: Deed, at_s: float, hands: Collection[str]) -> Effect:
    if pin := pin_of_cell(show)(deed.strip, "part"):
        raise CueRefused(f"{_capital(pin_name(show, pin))} is pinned: who is on stays.")
    if of_kind(deed.what) == "fitting":
        moves = whole_on(show, deed.strip, deed.what, since_s=at_s)
    else:
        moves = part_on(show, deed.strip, deed.what, since_s=at_s)
    kept, under = giving_way(show, moves, held_by_hands(show, hands))
    says = _capital(deed_text(show, deed))
    return Effect(says=_but_for(says, len(under), "under a hand"), moves=kept)


def _lift(show: Show, deed: Deed, hands: Collection[str]) -> Effect:
    strips = [deed.strip] if deed.strip else singers_of(show, deed.what)
    moves = lift_singers(show, deed.what, strips, on=deed.on)
    seconds = show.number(f"{deed.what}/seconds")
    return _held(show, moves, hands, _capital(deed_text(show, deed)), seconds=seconds)


def _held(
    show: Show,
    moves: Mapping[str, Asked],
    hands: Collection[str],
    says: str,
    *,
    seconds: float = 0.0,
) -> Effect:
    """Moves less what pins and hands hold; refused where that is all."""
    pin_at = pin_of_cell(show)
    pinned = {a: pin for a in moves if (pin := _pin(show, pin_at, a))}
    free = {a: value for a, value in moves.items() if a not in pinned}
    held = held_by_hands(show, hands)
    under = sorted(a for a in free if Address.at(a).plain in held)
    free = {a: value for a, value in free.items() if a not in under}
    if moves and not free:
        why = "a hand is on it" if under else f"{pin_name(show, min(pinned.values()))} is pinned"
        raise CueRefused(f"It stays: {why}.")
    says = _but_for(_but_for(says, len(pinned), "pinned"), len(under), "under a hand")
    return Effect(says=says, moves=free, own=False, seconds=seconds)


def _pin(show: Show, pin_at: Callable[[str, str], str | None], address: str) -> str | None:
    at = Address.at(address)
    cells = cells_of(show.desk, at.kind).items()
    return next((pin_at(at.thing, cell) for cell, leaves in cells if at.leaf in leaves), None)


def _but_for(says: str, many: int, why: str) -> str:
    return f"{says}, but for {many} {why}" if many else says


def check_hands_only(changed: Iterable[str]) -> None:
    """Refuse a cue by which sources or phantom power would change. Raises HandsOnly."""
    leaves = [Address.at(one).last for one in changed]
    sources = sum(leaf in ("source", "spare", "on_spare") for leaf in leaves)
    phantom = sum(leaf == "phantom" for leaf in leaves)
    if sources or phantom:
        what = [counted(sources, "source")] if sources else []
        what += [f"phantom power of {counted(phantom, 'input')}"] if phantom else []
        raise HandsOnly(" and ".join(what))
