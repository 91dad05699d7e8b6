"""Ombrel's own OSC addresses: they work without a list. Version 1, `docs/formats/cues-osc.md`."""

import re
from typing import Final

from ..catalogue import strips_of
from ..scenes import scene_at_number
from ..show import Show
from ..values import UnreadableText
from .deeds import Deed, read_deed
from .messages import Argument

__all__ = ["OWN", "own_deed"]

OWN: Final = "/ombrel/"
_RULERS: Final = {"mute_group": "mute_group", "dca": "dca"}
_TEXTED: Final = {"cast": "cast {}", "lift": "lift {}", "return": "return {}"}


def own_deed(show: Show, address: str, arguments: tuple[Argument, ...]) -> Deed:
    """What one of Ombrel's own addresses asks for. Raises UnreadableText, NoSuchScene."""
    verb = address.removeprefix(OWN)
    match verb, arguments:
        case "go", ():
            return Deed(does="go")
        case "go", (number,):
            return Deed(does="go", what=scene_at_number(show, _number(number)))
        case "back", ():
            return Deed(does="back")
        case "scene", (number,):
            return Deed(does="scene", what=scene_at_number(show, _number(number)))
        case (("mute_group" | "dca"), (number, state)):
            what = f"{_RULERS[verb]}/{_number(number)}"
            if what not in strips_of(show.desk, verb) or state not in (True, False, 0.0, 1.0):
                raise UnreadableText(_number(number), f"the number of a {verb}, and 1 or 0")
            return Deed(does="mute", what=what, on=bool(state))
        case (("cast" | "lift" | "return"), (str(name),)):
            return read_deed(show, _TEXTED[verb].format(name))
        case "person", (str(who), number):
            return read_deed(show, f"{who} on {_number(number)}")
        case "note", (str(words),) if words.strip():
            return Deed(does="note", note=" ".join(words.split())[:200])
    raise UnreadableText(
        address, "one of Ombrel's own addresses, with what it takes: see the guide, Cues"
    )


def _number(value: Argument) -> str:
    """A number as typed or sent."""
    if isinstance(value, float) and not isinstance(value, bool):
        return f"{value:.3f}".rstrip("0").rstrip(".")
    if isinstance(value, str) and re.fullmatch(r"[\d.,]{1,12}", value.strip()):
        return value.strip()
    raise UnreadableText(str(value), "a number")
