"""Processing to begin with, by kind of source: common practice, as far as a name can tell.

Values by leaf below a strip; what is not named stands as nobody has set it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from ..values import Value

__all__ = ["SHIPPED_PRESETS", "ShippedPreset"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ShippedPreset:
    """`families`: of the lines that it suits, the best first."""

    key: str
    name: str
    families: tuple[str, ...]
    values: Mapping[str, Value]


def _cut(frequency_hz: float, slope: str = "18") -> dict[str, Value]:
    return {"low_cut/on": True, "low_cut/frequency": frequency_hz, "low_cut/slope": slope}


def _band(place: int, frequency_hz: float, gain_db: float, q: float = 1.4) -> dict[str, Value]:
    at = f"eq/{place}"
    return {f"{at}/frequency": frequency_hz, f"{at}/gain": gain_db, f"{at}/q": q}


def _press(
    threshold_db: float, ratio: float, attack_ms: float, release_ms: float
) -> dict[str, Value]:
    return {
        "compressor/on": True,
        "compressor/threshold": threshold_db,
        "compressor/ratio": ratio,
        "compressor/attack": attack_ms,
        "compressor/release": release_ms,
    }


def _gate(
    threshold_db: float, range_db: float, hold_ms: float, release_ms: float
) -> dict[str, Value]:
    return {
        "gate/on": True,
        "gate/threshold": threshold_db,
        "gate/range": range_db,
        "gate/hold": hold_ms,
        "gate/release": release_ms,
    }


def _preset(
    key: str, name: str, families: tuple[str, ...], *parts: dict[str, Value]
) -> ShippedPreset:
    values = {leaf: value for part in parts for leaf, value in part.items()}
    return ShippedPreset(key=key, name=name, families=families, values=values)


SHIPPED_PRESETS: Final = (
    _preset("sung_voice", "Voice, sung", ("voices",), _cut(100.0), _band(2, 300.0, -2.5),
            _band(3, 3_000.0, 2.0), _press(-22.0, 3.0, 10.0, 120.0)),
    _preset("spoken_voice", "Voice, spoken", ("voices",), _cut(120.0, "24"),
            _band(2, 350.0, -3.0), _band(3, 2_500.0, 2.0, 1.0), _press(-24.0, 4.0, 5.0, 150.0)),
    _preset("radio_voice", "Voice, worn on the head", ("voices",), _cut(140.0, "24"),
            _band(2, 900.0, -3.0, 2.0), _band(3, 3_200.0, -2.0, 2.5),
            _press(-26.0, 3.0, 8.0, 140.0)),
    _preset("kick", "Bass drum", ("drums",), _cut(35.0), _band(1, 70.0, 3.0),
            _band(2, 350.0, -5.0), _band(3, 3_500.0, 3.0), _gate(-36.0, 24.0, 80.0, 160.0),
            _press(-16.0, 4.0, 20.0, 90.0)),
    _preset("snare", "Snare drum", ("drums",), _cut(90.0), _band(2, 450.0, -3.0),
            _band(3, 5_000.0, 2.5), _gate(-38.0, 18.0, 60.0, 140.0),
            _press(-18.0, 3.0, 12.0, 100.0)),
    _preset("hand_drum", "Frame and hand drums", ("drums",), _cut(60.0), _band(2, 280.0, -2.5),
            _band(3, 4_000.0, 2.0), _press(-18.0, 2.5, 18.0, 120.0)),
    _preset("overheads", "Overheads", ("drums",), _cut(250.0), _band(2, 500.0, -2.0),
            _band(4, 9_000.0, 1.5)),
    _preset("bass", "Bass", ("bass",), _cut(35.0), _band(1, 80.0, 1.5), _band(2, 250.0, -2.5),
            _band(3, 900.0, 1.5), _press(-20.0, 4.0, 25.0, 180.0)),
    _preset("bowed", "Bowed strings", ("strings",), _cut(150.0), _band(2, 700.0, -1.5),
            _band(3, 2_800.0, -2.0), _press(-22.0, 2.0, 20.0, 200.0)),
    _preset("plucked", "Plucked strings", ("strings",), _cut(90.0), _band(2, 220.0, -3.0),
            _band(3, 5_000.0, 2.0), _press(-22.0, 2.5, 15.0, 150.0)),
    _preset("brass", "Brass", ("brass",), _cut(110.0), _band(3, 2_000.0, -2.0),
            _press(-18.0, 2.5, 15.0, 120.0)),
    _preset("keys", "Keys and accordion", ("keys",), _cut(60.0), _band(2, 350.0, -1.5),
            _press(-20.0, 2.0, 20.0, 150.0)),
    _preset("playback", "Playback", ("playback", "effects"), _cut(25.0)),
    _preset("room", "Audience and room", ("effects", "cues"), _cut(200.0, "24"),
            _band(4, 10_000.0, 1.0)),
)  # fmt: skip
