"""What is wrong with the values of a show file, by what they mean: whose, what of it, and why."""

from collections.abc import Mapping, Sequence
from typing import Any, Final

from ombrel.core import Address, ConsoleError, UnknownAddress, refusal

__all__ = ["MOST_FAULTS", "fault_words"]

MOST_FAULTS: Final = 20
_MOST_NAMED: Final = 6


def fault_words(
    faults: Sequence[tuple[str, ConsoleError]], values: Mapping[str, Any]
) -> tuple[list[str], int]:
    """Faults in words, those of one reason together, and how many values have one. `values`: what

    the file says, by whose names things are called.
    """
    by_reason: dict[str, list[str]] = {}
    for address, error in faults:
        front, _, reason = refusal(error).partition(": ")
        if not str(error).startswith(address[:40]):  # it says itself what it is of
            front, reason = _named(address, values), refusal(error)
        else:
            front = _with_name(front, address, values)
        by_reason.setdefault(reason.rstrip("."), []).append(front)
    return [f"{_together(fronts)}: {reason}" for reason, fronts in by_reason.items()], len(faults)


def _together(fronts: Sequence[str]) -> str:
    more = f" and {len(fronts) - _MOST_NAMED} more" if len(fronts) > _MOST_NAMED else ""
    return "; ".join(fronts[:_MOST_NAMED]) + more


def _named(address: str, values: Mapping[str, Any]) -> str:
    try:
        thing = Address.at(address).thing
    except UnknownAddress:
        return address[:120]
    return _with_name(thing.replace("/", " ").capitalize(), address, values)


def _with_name(front: str, address: str, values: Mapping[str, Any]) -> str:
    """ "Channel 9, fader" of a channel that the file calls Kick: "Channel 9 (Kick), fader"."""
    try:
        name = values.get(f"{Address.at(address).thing}/name")
    except UnknownAddress:
        return front[:120]
    if not isinstance(name, str) or not name or name in front:
        return front
    who, comma, what = front.partition(", ")
    return f"{who} ({name[:60]}){comma}{what}"
