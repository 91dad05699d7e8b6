"""Which deed answers a message: one of Ombrel's own addresses, or the one cue that waits for it."""

from collections.abc import Sequence

from ..show import Show
from ..values import CueRefused, NoCueWaits
from .deeds import Deed
from .listed import cue_for, cues_in_words
from .messages import Argument
from .own import OWN, own_deed

__all__ = ["deed_for"]


def deed_for(show: Show, heard: str, arguments: Sequence[Argument] = ()) -> Deed:
    """What a message asks for. `heard`: as cues wait for it; `arguments`: of an OSC message.

    Raises NoCueWaits; CueRefused where two cues wait for it, which may contradict one another;
    UnreadableText for one of Ombrel's own addresses with what it does not take.
    """
    if heard.startswith(OWN):
        return own_deed(show, heard.partition(" ")[0], tuple(arguments))
    found = cue_for(show, heard)
    if not found:
        raise NoCueWaits(heard)
    if len(found) > 1:
        raise CueRefused(f"{len(found)} cues wait for it: {cues_in_words(show, found)}. Leave one.")
    return found[0].deed
