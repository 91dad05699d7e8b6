"""Kinds of value that a parameter can hold: how one is checked, typed by a person, put on a wire.

On the wire (JSON) silence is null: -inf is not JSON. NaN is refused at this door, for good.
"""

import math
import re
from dataclasses import dataclass
from typing import Literal, Protocol

from .errors import OutOfRange, UnreadableText, WrongValue
from .laws import fader_travel_to_db

__all__ = [
    "Choice",
    "Kind",
    "Maybe",
    "Number",
    "Packed",
    "Reference",
    "Stepped",
    "Switch",
    "Text",
    "Value",
    "Wire",
    "is_step",
]

Value = float | bool | str | None
Wire = float | bool | str | None

# no number of the trade has more figures; more would overflow on the way
_NUMBER = r"\d{1,12}(?:[.,]\d{1,12})?"
_KILO = re.compile(r"(\d{1,9})k(\d{0,9})|(\d{1,9}[.,]\d{1,9}) ?k|(\d{1,9}) k")
# a step from what stands: no field shows a value so, and every field reads it so
_STEP = re.compile(rf"(?:(up|down) ?|(\+=|-=) ?)({_NUMBER}) ?([a-z:]*)")
_OLD_STEP = re.compile(rf"\+-{_NUMBER}.*")
_OCTAVES = ("oct", "octave", "octaves")
_LONGEST_PACKED = 400_000
_NO_RANGE = 1e300
_LEVEL_HELP = "a level such as -6, +2 or off, or a step such as up 2 or down 2"


def _plain_hertz(match: re.Match[str]) -> str:
    if match[3] or match[4]:
        return str(float((match[3] or match[4]).replace(",", ".")) * 1000.0)
    return str(float(f"{match[1]}.{match[2] or 0}") * 1000.0)


def _plain(text: str) -> str:
    return " ".join(text.lower().replace("\u2212", "-").split())


def is_step(text: str) -> bool:
    """Whether a text is a step from what stands ("up 2", "-=2"), not a value of its own.

    >>> is_step("down 3"), is_step("+3"), is_step("-3")
    (True, False, False)
    """
    return _STEP.fullmatch(_plain(text)) is not None


@dataclass(frozen=True, slots=True)
class Stepped:
    """Where a step leads. `ended`: it met an end of the range before it was done."""

    value: float
    ended: bool


class Kind(Protocol):
    """What all kinds of value can do. `at` is the address, for the message of a refusal."""

    def checked(self, value: object, at: str) -> Value: ...
    def typed(self, text: str, now: Value, at: str) -> Value: ...
    def from_wire(self, wire: object, at: str) -> Value: ...
    def to_wire(self, value: Value) -> Wire: ...


@dataclass(frozen=True, slots=True, kw_only=True)
class Number:
    """A number with unit, range and step. `law` "fader": it also moves by a fader's travel;

    "octaves": equal travels are equal ratios. `lowest_finite`: where `lowest` is off, the quietest
    level that is not off. `carried_by`: what gangs keep between two of its kind.
    """

    unit: Literal["dB", "dBu", "ms", "pan", "Hz", "Q", ":1", "%", "°C", "s", "bpm", ""]
    lowest: float
    highest: float
    step: float
    law: Literal["straight", "fader", "octaves"] = "straight"
    whole: bool = False
    lowest_finite: float = -math.inf
    carried_by: Literal["difference", "ratio"] = "difference"

    def checked(self, value: object, at: str) -> float:
        if isinstance(value, bool) or not isinstance(value, int | float):
            raise WrongValue(at, "a number", value)
        try:
            number = float(value)
        except OverflowError:  # an int of hundreds of figures
            number = math.inf if value > 0 else -math.inf
        if math.isnan(number):
            raise WrongValue(at, "a number", value)
        if self.whole and not number.is_integer():
            raise WrongValue(at, "a whole number", number)
        if not self.lowest <= number <= self.highest:
            raise OutOfRange(at, number, self.lowest, self.highest, self.unit)
        if -math.inf < number < self.lowest_finite:
            raise OutOfRange(at, number, self.lowest_finite, self.highest, f"{self.unit} (or off)")
        return number + 0.0  # never -0.0

    def _on_step(self, value: float) -> float:
        """The nearest step of the range; \u221254.9, not \u221254.900000000000006."""
        near = round(round(value / self.step) * self.step, 9) + 0.0
        return min(max(near, self.lowest), self.highest)

    def typed(self, text: str, now: Value, at: str) -> float:
        """What a person typed: a value as fields show it, a step from `now` ("up 2", "down 2",

        "+=2", "-=2"), or off. A step stops at the ends of the range, as a hand on a fader does.
        """
        stepped = self.stepped(text, now)
        if stepped is not None:
            return stepped.value
        plain = _plain(text)
        if _OLD_STEP.fullmatch(plain) or (self.unit == "Hz" and plain.endswith(_OCTAVES)):
            raise UnreadableText(text, "a step as up 2 or down 2, with its unit if it has one")
        plain = plain.removesuffix(self.unit.lower()).strip()
        if plain in ("off", "-inf", "-\u221e") and self.lowest == -math.inf:
            return -math.inf
        if self.unit == "pan":
            return self._typed_pan(plain, at)
        if self.unit == "Q" and (octaves := re.fullmatch(rf"({_NUMBER}) ?(?:oct|octaves?)", plain)):
            return self._of_bandwidth(octaves, at)
        if self.unit == "Hz":  # "2k5", "2.5k" and "2.5 kHz" are 2500
            plain = _KILO.sub(_plain_hertz, plain)
        absolute = re.fullmatch(rf"=?([+-]?{_NUMBER})", plain)
        if not absolute:
            raise UnreadableText(text, _LEVEL_HELP if self.unit.startswith("dB") else "a number")
        return self.checked(float(absolute[1].replace(",", ".")), at)

    def stepped(self, text: str, now: Value) -> Stepped | None:
        """Where a step typed from `now` leads; None where the text is no step. What is off stays

        off. Pan steps in hundredths, to the right by "up" or "right".
        """
        plain = _plain(text)
        if self.unit == "pan":
            plain = re.sub(r"^right(?= ?\d)", "up", re.sub(r"^left(?= ?\d)", "down", plain))
        match = _STEP.fullmatch(plain)
        if match is None:
            return None
        size = float(match[3].replace(",", ".")) * (
            -1.0 if match[1] == "down" or match[2] == "-=" else 1.0
        )
        start = now if isinstance(now, float) else 0.0
        if math.isinf(start):
            return Stepped(start, False)
        unit = match[4]
        if self.unit == "Hz" and unit in _OCTAVES:
            there = start * math.pow(2.0, min(max(size, -40.0), 40.0))
        elif self.unit == "Hz" and unit in ("k", "khz"):
            there = start + size * 1000.0
        elif unit in ("", self.unit.lower()):
            there = start + (size / 100.0 if self.unit == "pan" else size)
        else:
            raise UnreadableText(text, f"a step in {self.unit}" if self.unit else "a step")
        low = max(self.lowest, self.lowest_finite)
        ended = not low <= there <= self.highest
        return Stepped(min(max(round(there, 9) + 0.0, low), self.highest), ended)

    def _typed_pan(self, plain: str, at: str) -> float:
        if plain in ("c", "0", "centre", "center"):
            return 0.0
        side = re.fullmatch(rf"([lr])({_NUMBER})?", plain)
        if not side:
            raise UnreadableText(plain, "a place such as L30, C or R100")
        place = float((side[2] or "100").replace(",", ".")) / 100.0
        return self.checked(-place if side[1] == "l" else place, at)

    def _of_bandwidth(self, match: re.Match[str], at: str) -> float:
        """A Q by its bandwidth in octaves: 1/Q = 2 sinh(ln 2 / 2 * BW), Audio EQ Cookbook."""
        octaves = float(match[1].replace(",", "."))
        if not 0.0 < octaves <= 10.0:
            raise UnreadableText(match[0], "a bandwidth up to 10 octaves")
        return self.checked(0.5 / math.sinh(math.log(2.0) / 2.0 * octaves), at)

    def at_travel(self, travel: float, at: str) -> float:
        """The value at a place of the control's travel, 0.0 to 1.0, on the nearest step."""
        if isinstance(travel, bool) or not isinstance(travel, int | float):
            raise WrongValue(at, "a travel from 0 to 1", travel)
        if not 0.0 <= travel <= 1.0:
            raise OutOfRange(at, travel, 0.0, 1.0, "of the travel")
        if self.highest >= _NO_RANGE:  # a kept place: no control has it
            raise WrongValue(at, "a value, since it has no travel", travel)
        if self.law == "fader":
            value = fader_travel_to_db(float(travel))
        elif self.law == "octaves":  # to three figures, as people say them
            value = self.lowest * (self.highest / self.lowest) ** float(travel)
            return min(max(float(f"{value:.3g}"), self.lowest), self.highest)
        else:
            value = self.lowest + float(travel) * (self.highest - self.lowest)
        if value < self.lowest_finite or math.isinf(value):
            return -math.inf
        return self._on_step(value)

    def from_wire(self, wire: object, at: str) -> float:
        return self.checked(-math.inf if wire is None else wire, at)

    def to_wire(self, value: Value) -> Wire:
        return None if value == -math.inf else value


@dataclass(frozen=True, slots=True, kw_only=True)
class Switch:
    """On or off."""

    def checked(self, value: object, at: str) -> bool:
        if not isinstance(value, bool):
            raise WrongValue(at, "on or off (true or false)", value)
        return value

    def typed(self, text: str, now: Value, at: str) -> bool:
        plain = text.strip().lower()
        if plain in ("on", "yes", "1", "true"):
            return True
        if plain in ("off", "no", "0", "false", ""):
            return False
        raise UnreadableText(text, "on or off")

    def from_wire(self, wire: object, at: str) -> bool:
        return self.checked(wire, at)

    def to_wire(self, value: Value) -> Wire:
        return value


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One of a few words."""

    options: tuple[str, ...]

    def checked(self, value: object, at: str) -> str:
        if not isinstance(value, str) or value not in self.options:
            raise WrongValue(at, f"one of {', '.join(self.options)}", value)
        return value

    def typed(self, text: str, now: Value, at: str) -> str:
        return self.checked(text.strip().lower(), at)

    def from_wire(self, wire: object, at: str) -> str:
        return self.checked(wire, at)

    def to_wire(self, value: Value) -> Wire:
        return value


@dataclass(frozen=True, slots=True, kw_only=True)
class Text:
    """A line of text: no control characters, at most `longest` characters."""

    longest: int = 60

    def checked(self, value: object, at: str) -> str:
        if not isinstance(value, str):
            raise WrongValue(at, "text", value)
        if len(value) > self.longest:
            raise WrongValue(at, f"at most {self.longest} characters", f"{value[:40]}…")
        if any(ord(character) < 32 or ord(character) == 127 for character in value):
            raise WrongValue(at, "text on one line without control characters", value)
        try:
            value.encode()
        except UnicodeEncodeError as error:
            raise WrongValue(at, "text that can be written as UTF-8", value) from error
        return value

    def typed(self, text: str, now: Value, at: str) -> str:
        return self.checked(" ".join(text.split()), at)

    def from_wire(self, wire: object, at: str) -> str:
        return self.checked(wire, at)

    def to_wire(self, value: Value) -> Wire:
        return value


@dataclass(frozen=True, slots=True, kw_only=True)
class Reference:
    """The address of something on the desk (a socket, a side of a bus), or None.

    `to`: patterns of what it may point at, in the catalogue's notation.
    """

    to: tuple[str, ...]

    def checked(self, value: object, at: str) -> str | None:
        if value is not None and not isinstance(value, str):
            raise WrongValue(at, "an address or nothing", value)
        return value or None

    def typed(self, text: str, now: Value, at: str) -> str | None:
        plain = text.strip().lower()
        return None if plain in ("", "none", "-") else plain

    def from_wire(self, wire: object, at: str) -> str | None:
        return self.checked(wire, at)

    def to_wire(self, value: Value) -> Wire:
        return value


@dataclass(frozen=True, slots=True, kw_only=True)
class Packed:
    """Many values of something as one text, JSON in one order, so that equal ones are equal texts.

    `of`: the pattern of what they are of. What may stand in it `desk_rules` judges.
    """

    of: str

    def checked(self, value: object, at: str) -> str:
        if not isinstance(value, str) or len(value) > _LONGEST_PACKED:
            raise WrongValue(at, f"packed values, at most {_LONGEST_PACKED} characters", "another")
        return value

    def typed(self, text: str, now: Value, at: str) -> str:
        raise WrongValue(at, "a value, since nobody types what is packed", text[:40])

    def from_wire(self, wire: object, at: str) -> str:
        return self.checked(wire, at)

    def to_wire(self, value: Value) -> Wire:
        return value


@dataclass(frozen=True, slots=True, kw_only=True)
class Maybe:
    """A value of another kind, or None: there is none here. On the wire silence is "off" then."""

    of: Kind

    def checked(self, value: object, at: str) -> Value:
        return None if value is None else self.of.checked(value, at)

    def typed(self, text: str, now: Value, at: str) -> Value:
        return self.of.typed(text, now, at) if text.strip() else None

    def from_wire(self, wire: object, at: str) -> Value:
        if wire is None:
            return None
        return self.of.from_wire(None if wire == "off" and self._is_level() else wire, at)

    def to_wire(self, value: Value) -> Wire:
        return "off" if value == -math.inf else value

    def _is_level(self) -> bool:
        return isinstance(self.of, Number)
