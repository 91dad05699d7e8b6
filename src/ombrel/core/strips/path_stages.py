"""The stages of a strip's path: what each sets, and what of it is copied and pinned."""

from dataclasses import dataclass
from typing import Final

__all__ = ["PATH_STAGES", "PathStage"]


@dataclass(frozen=True, slots=True, kw_only=True)
class PathStage:
    """One stage. `brief`: its word where there is little room, if not the same.

    `leaves`: behind the strip, in the order in which they are set; none: drawn as a curve or a
    list. `switch`: the leaf that turns it on ("": it is always there). `aspect`: what of a strip
    it is, to copy or to clear ("": neither). `pin`: what a pin holds of it ("": nothing).
    """

    key: str
    word: str
    brief: str = ""
    leaves: tuple[str, ...] = ()
    switch: str = ""
    aspect: str = ""
    pin: str = ""


def _processor(key: str, word: str, *leaves: str, brief: str = "") -> PathStage:
    """A processor with a switch, which is copied and held whole."""
    return PathStage(
        key=key,
        word=word,
        brief=brief,
        leaves=tuple(f"{key}/{leaf}" for leaf in leaves),
        switch=f"{key}/on",
        aspect=key,
        pin=key,
    )


def _insert(place: int) -> PathStage:
    at = f"insert_{place}"
    return PathStage(
        key=at, word=f"Insert {place}", leaves=(f"{at}/device",), switch=f"{at}/on", pin="inserts"
    )


_EVERY: Final = (
    PathStage(key="line", word="Line"),
    PathStage(key="preamp", word="Preamp"),
    PathStage(key="trim", word="Trim", leaves=("trim", "polarity"), pin="trim"),
    _processor("low_cut", "Low cut"),
    _insert(1),
    _processor(
        "gate",
        "Gate",
        *("threshold", "range", "ratio", "attack", "hold", "release"),
        *("key", "key_tap", "key_low_cut", "key_high_cut"),
    ),
    PathStage(key="eq", word="EQ", switch="eq/on", aspect="eq", pin="eq"),
    _processor(
        "compressor",
        "Compressor",
        *("threshold", "ratio", "knee", "attack", "release", "make_up", "blend"),
        *("key", "key_tap"),
        brief="Comp",
    ),
    _insert(2),
    _processor("delay", "Delay", "ms"),
    # house and mono have it in common: its leaves are of the mono bus
    PathStage(key="crossover", word="Crossover", leaves=("frequency", "kind")),
    PathStage(key="mute", word="Mute", pin="mute"),
    PathStage(key="fader", word="Fader", leaves=("pan",), pin="fader"),
    # before the fader or behind it, as its group says; only in who is in one
    PathStage(
        key="sharing",
        word="Shared gain",
        brief="Share",
        leaves=("sharing/weight", "sharing/held", "sharing/out"),
        pin="sharing",
    ),
)

PATH_STAGES: Final = {stage.key: stage for stage in _EVERY}
