"""Delays as people say them: milliseconds, samples, metres, feet; and how fast sound is."""

import math
import re
from typing import Final

from .errors import UnreadableText

__all__ = ["delay_ms", "speed_of_sound"]

_FOOT_M: Final = 0.3048  # exactly: international yard and pound agreement, 1959
_TYPED: Final = re.compile(r"(\d+(?:[.,]\d+)?)\s*(m|metre|metres|ft|feet|foot|smp|samples?)")


def speed_of_sound(temperature_c: float) -> float:
    """Speed of sound in dry air, in m/s: 343.2 * sqrt(T / 293.15 K), with T in kelvin.

    ISO 9613-1:1993, annex A, equation A.5 (from memory; humidity adds up to 0.4 %).
    """
    return 343.2 * math.sqrt((temperature_c + 273.15) / 293.15)


def delay_ms(text: str, *, temperature_c: float, rate_hz: float) -> float | None:
    """A delay typed as a distance or in samples ("2 m", "7 ft", "96 samples"), in ms.

    None for text that is neither: it may be milliseconds. Raises UnreadableText for too much.
    """
    match = _TYPED.fullmatch(text.strip().lower())
    if not match:
        return None
    amount = float(match[1].replace(",", "."))
    if amount > 1e6:
        raise UnreadableText(text, "a delay such as 2 m, 7 ft, 96 samples or 1.4 ms")
    if match[2].startswith("s"):
        return amount / rate_hz * 1000.0
    metres = amount * (_FOOT_M if match[2].startswith("f") else 1.0)
    return metres / speed_of_sound(temperature_c) * 1000.0
