"""How the demo's strips are processed, by what their channels belong to."""

from collections.abc import Mapping

from ombrel.core import Asked, Show, Value, of_kind

from .families import family_of

__all__ = ["processing"]

_VOICE: dict[str, Value] = {
    "low_cut/on": True, "low_cut/frequency": 100.0, "eq/2/frequency": 280.0, "eq/2/gain": -2.5,
    "eq/3/frequency": 3_200.0, "eq/3/gain": 2.0, "eq/4/gain": 1.5, "compressor/on": True,
    "compressor/threshold": -22.0, "compressor/ratio": 2.5,
}  # fmt: skip
_DRUM: dict[str, Value] = {
    "gate/on": True, "gate/threshold": -38.0, "gate/range": 14.0, "eq/2/frequency": 350.0,
    "eq/2/gain": -4.0, "eq/3/frequency": 4_000.0, "eq/3/gain": 2.5,
}  # fmt: skip
_STRING: dict[str, Value] = {
    "low_cut/on": True, "low_cut/frequency": 90.0, "low_cut/slope": "12", "eq/2/frequency": 240.0,
    "eq/2/gain": -3.5, "eq/3/frequency": 2_400.0, "eq/3/gain": 3.0, "eq/3/q": 1.1,
    "eq/4/frequency": 7_500.0, "eq/4/gain": 4.0,
}  # fmt: skip
_BASS: dict[str, Value] = {
    "low_cut/on": True, "low_cut/frequency": 35.0, "low_cut/slope": "24", "eq/1/gain": 2.0,
    "compressor/on": True, "compressor/threshold": -20.0, "compressor/ratio": 4.0,
}  # fmt: skip
_BRASS: dict[str, Value] = {"eq/3/frequency": 1_800.0, "eq/3/gain": -2.0, "eq/3/q": 2.0}
_OF: dict[str, dict[str, Value]] = {
    "voices": _VOICE, "band voices": _VOICE, "drums": _DRUM, "strings": _STRING, "bass": _BASS,
    "brass": _BRASS,
}  # fmt: skip
# what stands for itself: the band pressed, the foyer delayed, the effects, what is looped in
_ALONE: dict[str, Value] = {
    "group/1/compressor/on": True, "group/1/compressor/threshold": -14.0,
    "group/1/compressor/ratio": 2.0, "house/eq/2/frequency": 160.0, "house/eq/2/gain": -2.0,
    "return/1/low_cut/on": True, "return/1/low_cut/frequency": 180.0,
    "matrix/1/delay/on": True, "matrix/1/delay/ms": 42.0,
    "engine/1/decay": 2.4, "engine/1/pre_delay": 32.0, "show/tempo": 96.0, "engine/2/kind": "delay",
    "engine/2/note": "eighth_dotted", "engine/2/time": 468.75, "engine/2/feedback": 35.0,
    "channel/38/insert_1/device": "Tube warmer", "group/1/insert_2/device": "Tape",
}  # fmt: skip


def processing(show: Show) -> Mapping[str, Asked]:
    """Moves that set the processors; overheads and frame drums are left open."""
    moves: dict[str, Asked] = dict(_ALONE)
    for channel in show.channels():
        name = show.text(f"channel/{channel}/name")
        for leaf, value in _OF.get(family_of(name), {}).items():
            if not (of_kind(leaf) == "gate" and name.startswith(("Overheads", "Frame"))):
                moves[f"channel/{channel}/{leaf}"] = value
    return moves
