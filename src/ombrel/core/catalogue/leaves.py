"""What a kind of strip has, below the strip: the leaves of its addresses."""

from functools import lru_cache

from .address import Address
from .addresses import addresses_of, parameter_at
from .desk import Desk
from .strip_kinds import ALONE

__all__ = ["leaves_of", "leaves_with_aspects"]


@lru_cache(maxsize=64)
def leaves_with_aspects(desk: Desk, kind: str) -> tuple[tuple[str, str], ...]:
    """Leaves of a kind of strip ("channel", "house", also "show") with their aspects, in the

    catalogue's order; places that gangs keep are none.
    """
    stem = f"{kind}/" if kind in (*ALONE, "show") else f"{kind}/1/"
    found = (
        a for a in addresses_of(desk, kind) if a.startswith(stem) and Address.at(a).last != "kept"
    )
    return tuple((a.removeprefix(stem), parameter_at(a).aspect) for a in found)


def leaves_of(desk: Desk, kind: str) -> tuple[str, ...]:
    """The leaves of a kind of strip, in the catalogue's order."""
    return tuple(leaf for leaf, _ in leaves_with_aspects(desk, kind))
