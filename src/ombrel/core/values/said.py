"""Numbers in sentences and on paper, as people say them: one rounding, a true minus."""

import math
from decimal import ROUND_HALF_UP, Decimal

__all__ = ["bare", "counted", "in_sentence", "said", "said_hz", "said_ms", "said_pan"]


def said(value: float, places: int = 1, *, signed: bool = False) -> str:
    """A number to some decimal places; half of the last goes away from zero, as screens round it.

    `signed`: with a plus too, save for what is 0. Infinite: "off" below, "without end" above.

    >>> said(-0.04), said(2.25), said(-6.0, signed=True), said(1.5, 0, signed=True)
    ('0.0', '2.3', '−6.0', '+2')
    """
    if math.isinf(value):
        return "off" if value < 0.0 else "without end"
    rounded = Decimal(repr(value)).quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP)
    size = f"{abs(rounded):f}"
    if not rounded:
        return size
    return f"\u2212{size}" if rounded < 0 else f"+{size}" if signed else size


def said_hz(hertz: float) -> str:
    """A frequency to three figures, from 1 000 Hz on in kHz.

    >>> said_hz(83.333), said_hz(1250.0), said_hz(0.5)
    ('83.3 Hz', '1.25 kHz', '0.5 Hz')
    """
    value = float(f"{hertz:.3g}")
    return f"{value / 1000.0:g} kHz" if value >= 1000.0 else f"{value:g} Hz"


def said_ms(ms: float) -> str:
    """A time to two figures, or to the millisecond from 10 ms on; from a second on in seconds.

    >>> said_ms(0.416), said_ms(4.25), said_ms(120.4), said_ms(2400.0)
    ('0.42 ms', '4.3 ms', '120 ms', '2.4 s')
    """
    if ms >= 1000.0:
        return f"{bare(said(ms / 1000.0, 1))} s"
    if ms >= 10.0:
        return f"{said(ms, 0)} ms"
    return f"{bare(said(ms, 1 if ms >= 1.0 else 2))} ms"


def said_pan(pan: float) -> str:
    """A place between the sides, −1.0 to 1.0, as it is typed.

    >>> said_pan(0.0), said_pan(-0.3), said_pan(1.0)
    ('C', 'L30', 'R100')
    """
    size = said(abs(pan) * 100.0, 0)
    return "C" if size == "0" else f"{'L' if pan < 0 else 'R'}{size}"


def bare(text: str) -> str:
    """A number's text without zeros at the end of its decimals."""
    return text.rstrip("0").rstrip(".") if "." in text else text


def in_sentence(label: str) -> str:
    """A label as it stands within a sentence.

    >>> in_sentence("Needs 48 V"), in_sentence("EQ gain"), in_sentence("Mic or DI")
    ('needs 48 V', 'EQ gain', 'mic or DI')
    """
    return label if label[1:2].isupper() else label[:1].lower() + label[1:]


def counted(many: int, what: str) -> str:
    """How many of something there are.

    >>> counted(1, "line"), counted(3, "line")
    ('1 line', '3 lines')
    """
    return f"{many} {what}" if many == 1 else f"{many} {what}s"
