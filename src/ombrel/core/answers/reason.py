"""One reason for silence and its remedies, as values."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from ..catalogue import of_kind, thing_of
from ..together import RULING
from ..values import Asked

__all__ = ["Code", "Reason", "Remedy", "setting"]

Code = Literal[
    "no_source", "muted", "down", "no_output", "unrouted", "turned", "not_in_use", "no_way"
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """The one action that takes a reason away: what its button says, and its moves."""

    says: str
    moves: Mapping[str, Asked] = field(hash=False)


@dataclass(frozen=True, slots=True, kw_only=True)
class Reason:
    """One reason for silence. `address`: what is in the way. Without a remedy, `says` tells why.

    `instead`: another way, which takes the strip out of what silences it.
    """

    code: Code
    address: str
    says: str
    remedy: Remedy | None = None
    instead: Remedy | None = None

    @property
    def ruler(self) -> str | None:
        """The DCA or mute group that silences, if one does."""
        ruler = thing_of(self.address)
        return ruler if of_kind(ruler) in RULING else None


def setting(says: str, address: str, value: Asked) -> Remedy:
    """The remedy that sets one address."""
    return Remedy(says=says, moves={address: value})
