"""What was kept of a fitting: the last ten versions, each one text in its place."""

import json
import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from types import MappingProxyType
from typing import Any, Final

from ..catalogue import VERSIONS, Address, Desk, Leaf, parameter_at
from ..show import Show
from ..values import ConsoleError, Value, WrongValue

__all__ = [
    "EMPTY",
    "Version",
    "check_version",
    "newest_version",
    "packed_version",
    "slot_of",
    "version_otherwise",
    "versions",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Version:
    """What was kept. `number`: counts up from 1; `at_s`: since 1970; `by`: who kept it; `how`: in

    words. `microphone`: by which it was heard, as its line says. `values`: by leaf, only those that
    it has.
    """

    number: int
    at_s: float
    by: str
    how: str
    microphone: str
    values: Mapping[Leaf, Value]


_PARTS: Final = {"number", "at_s", "by", "how", "microphone", "values"}
EMPTY: Final = Version(
    number=0, at_s=0.0, by="", how="", microphone="", values=MappingProxyType({})
)


def versions(show: Show, fitting: str) -> list[Version]:
    """What was kept of a fitting, the newest first, at most the last ten."""
    return list(_newest_first(show, fitting))


def _newest_first(show: Show, fitting: str) -> Iterator[Version]:
    newest = int(show.number(f"{fitting}/newest"))
    for number in range(newest, max(newest - VERSIONS, 0), -1):
        text = show.own.get(f"{fitting}/version/{slot_of(number)}")
        if isinstance(text, str) and (version := _unpacked(text)).number == number:
            yield version


def newest_version(show: Show, fitting: str) -> Version:
    """What was kept last and is still there: an undo may have taken the last; an empty one where

    nothing is.
    """
    return next(_newest_first(show, fitting), EMPTY)


def slot_of(number: int) -> int:
    """The place of a version, 1 to 10."""
    return (number - 1) % VERSIONS + 1


def packed_version(version: Version) -> str:
    """The one text of a version."""
    values = {
        leaf: parameter_at(f"fitting/1/value/{leaf}").kind.to_wire(version.values[leaf])
        for leaf in sorted(version.values)
    }
    parts = {
        "number": version.number,
        "at_s": version.at_s,
        "by": version.by,
        "how": version.how,
        "microphone": version.microphone,
        "values": values,
    }
    return json.dumps(parts, ensure_ascii=False, separators=(",", ":"))


def version_otherwise(text: str, said: Callable[[str], str | None]) -> str:
    """A version's text with the strips that its leaves name renamed; what is of one that is gone

    (`said` gives None) is left out.
    """
    if not text:
        return text
    version = _unpacked(text)
    values = {new: value for leaf, value in version.values.items() if (new := said(leaf))}
    return packed_version(replace(version, values=values))


@lru_cache(maxsize=8_000)
def _unpacked(text: str) -> Version:
    parts = json.loads(text)
    values = {
        leaf: parameter_at(f"fitting/1/value/{leaf}").kind.from_wire(wire, leaf)
        for leaf, wire in parts["values"].items()
    }
    return Version(
        number=parts["number"], at_s=parts["at_s"], by=parts["by"], how=parts["how"],
        microphone=parts["microphone"], values=MappingProxyType(values),
    )  # fmt: skip


def check_version(desk: Desk, address: str, text: str) -> None:
    """Refuse a text that is no version. Raises WrongValue."""
    if not text:
        return
    try:
        parts: Any = json.loads(text)
        if not isinstance(parts, dict) or set(parts) != _PARTS:
            raise ValueError(f"an object of {', '.join(sorted(_PARTS))}")
        plain = all(isinstance(parts[one], str) for one in ("by", "how", "microphone"))
        counts = isinstance(parts["number"], int) and parts["number"] > 0
        timed = isinstance(parts["at_s"], int | float) and math.isfinite(parts["at_s"])
        if not (plain and counts and timed) or not isinstance(parts["values"], dict):
            raise ValueError("a number, a time, names and values")
        version = _unpacked(text)
        if None in version.values.values() or packed_version(version) != text:
            raise ValueError("the one order of its parts")
        if slot_of(version.number) != int(Address.at(address).last):
            raise ValueError("the version of this place")
    except (ValueError, KeyError, TypeError, RecursionError, ConsoleError) as error:
        raise WrongValue(address, f"a version ({error})", text[:60]) from error
