"""One way to give strips other numbers: {old: new}, wherever a show says their names.

Addresses, references, what scenes hold (carried or asleep), versions of fittings and what pins
keep back all follow. Whoever moves, removes or takes over strips asks this; nobody renames a part.
"""

import re
from collections.abc import Callable, Iterable, Mapping
from typing import Final

from ..casting import version_otherwise
from ..catalogue import PAIRED, Address, Thing, default_of, of_kind, parameter_at
from ..scenes import held_otherwise
from ..show import Show
from ..together import not_joining
from ..values import Packed, Reference, Value

__all__ = ["Said", "renamed", "said_otherwise", "strips_in", "value_otherwise"]

Said = Callable[[str], str | None]

# Not a strip's name though it may look like one: a box's key and a number.
_SOCKETS: Final = ("input", "output")
# A place on the desk has these, whatever strip stands there.
_STAYS: Final = ("fixed", "linked")
_GONE: Final = "\0"


def renamed(show: Show, to: Mapping[str, str | None]) -> dict[str, Value]:
    """Own values that give strips other numbers, with all that is set of them and says their name.

    `to`: the new name by the old one ("mix/2": "mix/5"), of one kind each, no two alike; None: the
    strip is gone. A strip whose place another takes is gone too, unless it is renamed itself. Of
    what is gone nothing stays: what it had is as nobody set it, what named it names nothing, and
    no scene holds anything of it. A pair stays linked if both its sides go to an odd number and
    the even above it. What takes all that comes takes nobody by it who was out of it.
    """
    whole = {**{new: None for new in to.values() if new is not None}, **to}
    said = said_otherwise(whole)
    left: dict[str, Value] = {}
    found: dict[str, Value] = {}
    for address, value in show.own.items():
        if Address.at(address).last in _STAYS:
            continue
        there, stands = said(address), value_otherwise(address, value, said)
        if there == address and stands == value:
            continue
        if there != address:
            left[address] = default_of(address)
        if there is not None:
            found[there] = stands
    moves = left | found | _pairs(show, whole)
    return moves | not_joining(show, moves)  # under another number nobody comes anew


def strips_in(address: str) -> Iterable[str]:
    """The things that an address names by kind and number, in its order.

    >>> list(strips_in("channel/3/send/mix/5/level"))
    ['channel/3', 'mix/5']
    """
    return Address.at(address).things


def said_otherwise(to: Mapping[str, str | None]) -> Said:
    """What says names of strips (an address, a reference, a cell, a leaf), with them renamed; None

    where it names one that is gone.
    """
    kinds = "|".join(sorted({re.escape(of_kind(name)) for name in to})) or "(?!)"
    pattern = re.compile(rf"(^|/)((?:{kinds})/\d+)(?=/|$)")

    def other(match: re.Match[str]) -> str:
        new = to.get(match[2], match[2])
        return f"{match[1]}{_GONE if new is None else new}"

    def said(text: str) -> str | None:
        if of_kind(text) in _SOCKETS:
            return text
        new = pattern.sub(other, text)
        return None if _GONE in new else new

    return said


def value_otherwise(address: str, value: Value, said: Said) -> Value:
    """A value with what it names renamed."""
    if not isinstance(value, str):
        return value
    kind = parameter_at(address).kind
    if isinstance(kind, Reference):
        return said(value)
    if isinstance(kind, Packed):
        if of_kind(address) == "fitting":
            return version_otherwise(value, said)
        return held_otherwise(value, of_kind(Address.at(address).target), said)
    if Address.at(address).last == "held_back":  # cells, as a line of text
        return " ".join(sorted(cell for one in value.split() if (cell := said(one))))
    return value


def _pairs(show: Show, whole: Mapping[str, str | None]) -> dict[str, Value]:
    """What becomes of the pairs of which a side is renamed or gone."""
    found: dict[str, Value] = {}
    linked: dict[str, Value] = {}
    for kind in PAIRED:
        for odd in range(1, show.desk.count(kind), 2):
            left, right = f"{kind}/{odd}", f"{kind}/{odd + 1}"
            if not show.on(f"{left}/linked") or not {left, right} & whole.keys():
                continue
            found[f"{left}/linked"] = False
            new, beside = whole.get(left, left), whole.get(right, right)
            number = Thing.at(new).number if new else 0
            if number % 2 == 1 and beside == f"{kind}/{number + 1}":
                linked[f"{new}/linked"] = True
    return found | linked
