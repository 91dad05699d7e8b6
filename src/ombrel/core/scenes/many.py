"""One value put into many scenes: exactly into those that carry it, in a scope.

Who does not carry it is listed, and the show as it stands does not move. By value, or relative to
what each scene has of its own: a relative step stops at the ends of the range, and off stays off.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ..catalogue import Leaf, cells_of, check_on_desk, kind_on, of_kind
from ..show import Show
from ..values import Asked, NoSuchCell, Number, Travel, Typed, UnreadableText, Value
from .held import held_of, packed
from .order import scene_in
from .storing import address_of

__all__ = ["SCOPES", "Many", "Scope", "set_in_scenes"]

Scope = Literal["same", "onward", "chosen"]
SCOPES: Sequence[Scope] = get_args(Scope)


@dataclass(frozen=True, slots=True, kw_only=True)
class Many:
    """What an update of many scenes comes to. `moves`: of what scenes hold; `changed`: (scene,

    value before, after); `stopped`: those that met an end of the range; `without`: scenes of the
    scope that do not carry it.
    """

    moves: dict[str, Asked]
    changed: tuple[tuple[str, Value, Value], ...]
    stopped: tuple[str, ...]
    without: tuple[str, ...]


def set_in_scenes(
    show: Show,
    scene: str,
    holder: str,
    leaf: Leaf,
    asked: Asked,
    *,
    scope: Scope,
    chosen: Sequence[str] = (),
) -> Many:
    """Moves that put a value at a strip's leaf into scenes, from `scene` on.

    `same`: onward while those that carry it hold what `scene` holds, until one differs; `onward`:
    to the end; `chosen`: just those. Raises NoSuchScene, NoSuchCell where `scene` itself does not
    carry it, and what the catalogue refuses.
    """
    order = show.scenes
    scene_in(show, scene)
    kind = of_kind(holder)
    cell = next((c for c, leaves in cells_of(show.desk, kind).items() if leaf in leaves), None)
    if cell is None:
        raise NoSuchCell(holder, leaf)
    if scope == "chosen":
        for one in chosen:
            scene_in(show, one)
        scoped = [one for one in order if one in chosen]
    else:
        scoped = list(order[order.index(scene) :])
    if scope != "chosen" and cell not in held_of(show, scene, holder).cells:
        raise NoSuchCell(holder, leaf)
    first = held_of(show, scene, holder).value(show.desk, kind, leaf)
    moves: dict[str, Asked] = {}
    changed: list[tuple[str, Value, Value]] = []
    stopped: list[str] = []
    without: list[str] = []
    for one in scoped:
        held = held_of(show, one, holder)
        if cell not in held.cells:
            without.append(one)
            continue
        was = held.value(show.desk, kind, leaf)
        if scope == "same" and was != first:
            break
        now, ended = _answered(show, holder, leaf, asked, was)
        if ended:
            stopped.append(one)
        if now == was:
            continue
        changed.append((one, was, now))
        moves[f"{one}/holds/{holder}"] = packed(
            held.with_values(show.desk, kind, {leaf: now}), kind
        )
    return Many(moves=moves, changed=tuple(changed), stopped=tuple(stopped), without=tuple(without))


def _answered(show: Show, holder: str, leaf: Leaf, asked: Asked, was: Value) -> tuple[Value, bool]:
    """What a scene's own value becomes, and whether it met an end of its range."""
    address = address_of(show, holder, leaf)
    if address is None:
        raise NoSuchCell(holder, leaf)
    kind = kind_on(show.desk, address)
    if isinstance(asked, Travel):
        raise UnreadableText("a travel", "a value")
    if not isinstance(asked, Typed):
        return check_on_desk(show.desk, address, asked), False
    stepped = kind.stepped(asked.text, was) if isinstance(kind, Number) else None
    if stepped is not None:
        return stepped.value, stepped.ended
    value = kind.typed(asked.text, was, address)
    return check_on_desk(show.desk, address, value), False
