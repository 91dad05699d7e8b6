"""What an edit did, as a value: address, old value, new value; and several of them as one."""

from dataclasses import dataclass

from immutables import Map

from ..catalogue import Address
from ..values import Value

__all__ = ["Change", "joined"]


@dataclass(frozen=True, slots=True)
class Change:
    """What an edit did: for each address that it moved, the old and the new value. They are equal

    only where one of a value and the place that its gang keeps moved: the two are told as one.
    """

    old: "Map[str, Value]"
    new: "Map[str, Value]"

    def inverse(self) -> "Change":
        """The change that takes this one back."""
        return Change(self.new, self.old)

    def __bool__(self) -> bool:
        return len(self.new) > 0


def joined(changes: list[Change]) -> Change:
    """Several changes, in the order in which they were made, as one. Empty list: no change."""
    old: dict[str, Value] = {}
    new: dict[str, Value] = {}
    for change in changes:
        for address, value in change.new.items():
            old.setdefault(address, change.old[address])
            new[address] = value
    moved = {address for address in new if old[address] != new[address]}
    # a value and the place that its gang keeps are one
    moved |= {a for a in new if f"{a}/kept" in moved or Address.at(a).plain in moved}
    return Change(Map({a: old[a] for a in moved}), Map({a: new[a] for a in moved}))
