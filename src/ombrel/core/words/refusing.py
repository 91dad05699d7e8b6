"""Refusals as people read them: what an address is of and what it sets, in place of the address."""

import re
from typing import Final

from ..catalogue import Address, Thing, option_text, parameter_at
from ..flow import KIND_WORDS
from ..show import Show
from ..values import BadFile, ConsoleError, UnknownAddress, in_sentence
from .describe import whose

__all__ = ["refusal"]

# choices as they are spelt in files; what somebody typed stands in quotes, and stays as it is
_CHOICE: Final = re.compile(r"(?<![\w'])[a-z]+(?:_[a-z]+)+(?![\w'])")
_ADDRESS: Final = re.compile(r"\b[a-z][a-z_]*(?:/[A-Za-z0-9_]+)+")


def refusal(error: ConsoleError, show: Show | None = None) -> str:
    """What a refusal says, without an address in it: "Ring host, fader: a number is needed".

    Without the show things go by their kind and number ("Channel 1, fader"). What is no address
    of the catalogue stays as it was sent, and so does what a file says of its own places. Choices
    are told in words ("before fader").
    """
    if isinstance(error, BadFile):
        return str(error)  # it names places in a file
    said = _ADDRESS.sub(lambda found: _said(found[0], show), str(error))
    return _CHOICE.sub(lambda found: option_text(found[0]), said)


def _said(text: str, show: Show | None) -> str:
    try:
        label = in_sentence(parameter_at(text).label)
        return f"{_of(text, show)}, {label}"
    except UnknownAddress:
        pass
    try:
        return _thing(Thing.at(text), show)
    except UnknownAddress:
        return text


def _of(address: str, show: Show | None) -> str:
    if show is not None:
        try:
            return whose(show, address)
        except (ConsoleError, KeyError, IndexError):
            pass  # nothing of this desk, or gone: by its number
    return _thing(Thing.at(Address.at(address).thing), None)


def _thing(thing: Thing, show: Show | None) -> str:
    if show is not None and thing.kind in ("input", "output"):
        box = show.desk.box(thing.box)
        return f"{box.short if box else thing.box} {thing.number}"
    word = KIND_WORDS.get(thing.kind, thing.kind.replace("_", " ").capitalize())
    return " ".join(part for part in (word, thing.box.upper(), str(thing.number or "")) if part)
