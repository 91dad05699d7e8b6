"""A show as it stands at a revision, and its values as the store and pages have them."""

from collections.abc import Mapping
from dataclasses import dataclass

from ombrel.core import Address, Change, Flow, Value, Wire, parameter_at
from ombrel.core import Show as CoreShow

from .packing import unpacked

__all__ = ["State", "for_pages", "from_wire", "to_wire"]


@dataclass(frozen=True, slots=True, eq=False)
class State:
    """A show as it stands at a revision."""

    revision: int
    show: CoreShow
    flow: Flow

    def after(
        self, values: Mapping[str, Value], revision: int
    ) -> tuple["State", Change, set[tuple[int, int]]]:
        """The state after own values that are kept already, what then stands otherwise, and the

        cells that differ.
        """
        show, stood = self.show.moved(dict(values))
        flow, cells = self.flow.after(stood)
        return State(revision, show, flow), stood, set(map(tuple, cells.tolist()))


def to_wire(values: Mapping[str, Value]) -> dict[str, Wire]:
    """Values by address as JSON can hold them: silence is null."""
    return {address: parameter_at(address).kind.to_wire(value) for address, value in values.items()}


def for_pages(values: Mapping[str, object]) -> dict[str, object]:
    """Values without what scenes and fittings hold: that is told in words, to whoever looks."""
    return {a: value for a, value in values.items() if not _is_held(a)}


def _is_held(address: str) -> bool:
    at = Address.at(address)
    return at.in_fitting or at.is_packed


def from_wire(values: Mapping[str, object]) -> dict[str, Value]:
    """Values by address as the core holds them, from how the store has them."""
    return {a: parameter_at(a).kind.from_wire(value, a) for a, value in unpacked(values).items()}
