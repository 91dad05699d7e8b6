"""The run: scenes recalled in their order, and what each then moves."""

from collections.abc import Iterator, Mapping

from ..catalogue import Leaf, cells_of, leaf_defaults, of_kind
from ..show import Show
from ..values import Value
from .held import Held, held_of, holders
from .storing import standing

__all__ = ["run_of"]


def run_of(show: Show) -> Iterator[tuple[str, Mapping[tuple[str, Leaf], Value]]]:
    """Each scene in its order with what it moves, by strip and leaf, when all before it were

    recalled from the show as it stands. Pins are not asked: a run is as it was written.
    """
    stands: dict[str, dict[Leaf, Value]] = {}
    last: dict[str, Held] = {}
    for scene in show.scenes:
        moved: dict[tuple[str, Leaf], Value] = {}
        for holder in holders(show.desk):
            held = held_of(show, scene, holder)
            if not held.cells or last.get(holder) is held:
                continue
            last[holder] = held
            kind = of_kind(holder)
            known, plain = cells_of(show.desk, kind), leaf_defaults(show.desk, kind)
            now = stands.setdefault(holder, standing(show, holder, known))
            for leaf in (leaf for cell in held.cells for leaf in known.get(cell, ())):
                value = held.values.get(leaf, plain[leaf])
                if now.get(leaf, plain[leaf]) != value:
                    now[leaf] = moved[holder, leaf] = value
        yield scene, moved
