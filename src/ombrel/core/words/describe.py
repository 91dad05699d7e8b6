"""A change in a few words, for the log, undo and the screens of others."""

from collections.abc import Collection
from typing import Final

from ..casting import fitting_name, part_name
from ..catalogue import ALONE, FORMATTED, Address, of_kind
from ..flow import strip_name
from ..show import Change, Show, socket_name
from ..values import in_sentence

__all__ = ["described", "leaf_words", "whose"]

_TARGETS = (*FORMATTED, *ALONE, "dca", "mute_group", "gang", "promise")


def whose(show: Show, address: str) -> str:
    """What people call the strip, send or socket that an address is of."""
    at = Address.at(address)
    if at.kind in ("input", "output"):
        return socket_name(show.desk, at.thing)
    if at.kind in ("show", "run"):
        return at.kind.capitalize()
    if at.kind in ("tonight", "fitting", "performer", "part", "cast"):
        return _of_the_company(show, at)
    name = strip_name(show, at.thing)
    if not at.in_scene and at.target and of_kind(at.target) in _TARGETS:
        return f"{name} to {strip_name(show, at.target)}"
    return name


_STAGES: Final = {"low_cut": "low cut", "insert_1": "insert 1", "insert_2": "insert 2"}


def leaf_words(address: str) -> str:
    """What people call a value of a thing: its label, with its processor where that says no such.

    >>> leaf_words("channel/1/eq/2/frequency"), leaf_words("channel/1/gate/range")
    ('EQ 2 frequency', 'Gate range')
    >>> leaf_words("channel/1/fader"), leaf_words("channel/1/gate/on")
    ('Fader', 'Gate')
    """
    at = Address.at(address)
    label = at.entry.label
    stage, *inner = at.words
    if stage == "eq" and len(inner) == 2:
        return f"EQ {inner[0]} {in_sentence(label).removeprefix('EQ ')}"
    if stage in ("gate", "compressor", *_STAGES) and inner and inner != ["on"]:
        words = _STAGES.get(stage, stage)
        if words not in label.lower():
            return f"{words.capitalize()} {in_sentence(label)}"
    return label


def described(show: Show, change: Change, led: Collection[str] = ()) -> str:
    """What a change moved, in a few words; `show` is the show after it.

    `led`: addresses that were asked for; where gangs and pairs carried more along, they name it.
    """
    addresses = sorted(address for address in change.new if Address.at(address).last != "kept")
    if not addresses:
        return "Nothing changed"
    asked = [address for address in addresses if address in led] or addresses
    first = asked[0]
    words = f"{whose(show, first)}, {in_sentence(leaf_words(first))}"
    if len(asked) == 1 and len(addresses) > 1:
        return f"{words}, {len(addresses) - 1} with it"
    if len(addresses) == 1:
        return words
    names = {whose(show, address) for address in addresses}
    if len(names) == 1:
        return f"{names.pop()}, {len(addresses)} values"
    return f"{words} and {len(addresses) - 1} more"


def _of_the_company(show: Show, at: Address) -> str:
    """Whose fitting, which part, who."""
    thing = at.thing
    if at.kind == "tonight":
        return f"Tonight, {part_name(show, at.target)}" if at.target else "Tonight"
    if at.kind == "fitting":
        known = f"{thing}/performer" in show.own
        return f"{fitting_name(show, thing)}, fitting" if known else thing.replace("/", " ")
    return show.text(f"{thing}/name") or thing.replace("/", " ").capitalize()
