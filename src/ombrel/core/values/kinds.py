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
    "LONGEST_PACKED",
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
_NUMBER = r"(?:\d{1,12}(?:[.,]\d{0,12})?|[.,]\d{1,12})"
# "2k5" is as short as "2.5k"; both at once is neither
_KILO = re.compile(rf"(\d{{1,9}})k(\d{{1,9}})|({_NUMBER}) ?k")
_PART = re.compile(r"(\d{1,3})/(\d{1,3})")
# minus signs, hyphens and dashes, as keyboards, phones and word processors write them
_DASHES = dict.fromkeys(
    map(ord, "\u2010\u2011\u2012\u2013\u2014\u2015\u2212\ufe58\ufe63\uff0d"), "-"
)
# a step from what stands: no field shows a value so, and every field reads it so
_STEP = re.compile(rf"(?:(up|down) ?|(\+=|-=) ?)({_NUMBER}) ?([a-z:]*)")
_OLD_STEP = re.compile(rf"\+-{_NUMBER}.*")
_OCTAVES = ("oct", "octave", "octaves")
LONGEST_PACKED = 400_000
_NO_RANGE = 1e300
_LEVEL_HELP = "a level such as -6, +2 or off, or a step such as up 2 or down 2"


def _amount(text: str) -> float:
    """What a text that is a number stands for; a comma is a point."""
    return float(text.replace(",", "."))


def _plain_hertz(match: re.Match[str]) -> str:
    if match[3]:
        return f"{_amount(match[3]) * 1000.0:.6f}"
    return f"{float(f'{match[1]}.{match[2]}') * 1000.0:.6f}"


def _plain(text: str) -> str:
    return " ".join(text.lower().translate(_DASHES).split())


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
        # never -0.0, nor what arithmetic leaves in the last places
        return round(number, 9) + 0.0 if abs(number) < _NO_RANGE else number

    def _on_step(self, value: float) -> float:
        """The nearest step of the range, half a step away from zero; \u221254.9, not

        \u221254.900000000000006.
        """
        steps = math.floor(abs(value) / self.step + 0.5 + 1e-9)
        near = round(math.copysign(steps * self.step, value), 9) + 0.0
        return min(max(near, self.lowest, self.lowest_finite), self.highest)

    def nearest(self, value: float) -> float:
        """The nearest value that a control takes; off where it can be off."""
        if value == -math.inf and self.lowest == -math.inf:
            return value
        return min(max(value, self.lowest, self.lowest_finite), self.highest)

    def suggested(self, value: float) -> float:
        """The nearest step inside the range: what is suggested, never past an end."""
        near = self._on_step(min(max(value, self.lowest, self.lowest_finite), self.highest))
        if abs(near / self.step - round(near / self.step)) < 1e-6:
            return near
        inwards = math.floor if near >= self.highest else math.ceil
        return round(inwards(near / self.step) * self.step, 9) + 0.0

    def typed(self, text: str, now: Value, at: str) -> float:
        """What a person typed: a value as fields show it, a step from `now` ("up 2", "down 2",

        "+=2", "-=2"), or off. A step stops at the ends of the range, as a hand on a fader does.
        A value is kept on the nearest step of the parameter.
        """
        stepped = self.stepped(text, now)
        if stepped is not None:
            return stepped.value
        value = self._read(text, at)
        return value if math.isinf(value) else self._on_step(value)

    def _read(self, text: str, at: str) -> float:
        plain = _plain(text)
        if _OLD_STEP.fullmatch(plain) or (self.unit == "Hz" and plain.endswith(_OCTAVES)):
            raise UnreadableText(text, "a step as up 2 or down 2, with its unit if it has one")
        plain = plain.removesuffix(self.unit.lower()).strip()
        if plain in ("off", "-inf", "-\u221e") and self.lowest == -math.inf:
            return -math.inf
        if self.unit == "pan":
            return self._typed_pan(plain, at)
        if self.unit == "Q" and plain.endswith(_OCTAVES):
            return self._of_bandwidth(plain.rstrip("octaves").strip(), at)
        if self.unit == "Hz" and (kilo := _KILO.fullmatch(plain)):  # "2k5", "2.5k", "2.5 kHz"
            plain = _plain_hertz(kilo)
        absolute = re.fullmatch(rf"=?([+-]?{_NUMBER})", plain)
        if not absolute:
            raise UnreadableText(text, _LEVEL_HELP if self.unit.startswith("dB") else "a number")
        return self.checked(_amount(absolute[1]), at)

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
        size = _amount(match[3]) * (-1.0 if match[1] == "down" or match[2] == "-=" else 1.0)
        start = now if isinstance(now, float) else 0.0
        if math.isinf(start):
            return Stepped(start, False)
        unit = match[4]
        if self.unit == "Hz" and unit in _OCTAVES:
            # to four figures: no more can be read, and steps do not run away from them
            there = float(f"{start * math.pow(2.0, min(max(size, -40.0), 40.0)):.4g}")
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
        place = _amount(side[2] or "100") / 100.0
        return self.checked(-place if side[1] == "l" else place, at)

    def _of_bandwidth(self, text: str, at: str) -> float:
        """A Q by its bandwidth in octaves: 1/Q = 2 sinh(ln 2 / 2 * BW), Audio EQ Cookbook."""
        part, whole = _PART.fullmatch(text), re.fullmatch(_NUMBER, text)
        octaves = 0.0
        if part and int(part[2]):
            octaves = int(part[1]) / int(part[2])
        elif whole:
            octaves = _amount(text)
        if not 0.0 < octaves <= 10.0:
            raise UnreadableText(f"{text} oct", "a bandwidth such as 1/3 oct, up to 10 octaves")
        return self.checked(0.5 / math.sinh(math.log(2.0) / 2.0 * octaves), at)

    def at_travel(self, travel: float, at: str) -> float:
        """The value at a place of the control's travel, 0.0 to 1.0, on the nearest step."""
        if isinstance(travel, bool) or not isinstance(travel, int | float):
            raise WrongValue(at, "a travel from 0 to 1", travel)
        if not 0.0 <= travel <= 1.0:
            raise OutOfRange(at, travel, 0.0, 1.0, "of the travel")
        if self.highest >= _NO_RANGE:  # a kept place: no control has it
            raise WrongValue(at, "a value (it has no travel)", travel)
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
        if isinstance(wire, float) and math.isinf(wire):  # silence has one spelling there
            raise WrongValue(at, "a number, or null for off", wire)
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
        """One of the options as it is written here or as people see it: by its words, or by their

        beginning where that is one option's alone ("Linkwitz-Riley, 24 dB", "headphone amp").
        """
        wanted = _words(text)
        options = {option: _words(option) for option in self.options}
        same = [option for option, words in options.items() if wanted and words == wanted]
        begun = [
            option
            for option, words in options.items()
            if wanted
            and words
            and ("".join(words).startswith("".join(wanted)) or wanted[: len(words)] == words)
        ]
        for found in (same, begun):
            if len(found) == 1:
                return found[0]
        return self.checked(text.strip().lower(), at)

    def from_wire(self, wire: object, at: str) -> str:
        return self.checked(wire, at)

    def to_wire(self, value: Value) -> Wire:
        return value


def _words(text: str) -> list[str]:
    return [word for word in re.findall(r"[^\W_]+", text.lower()) if word != "the"]


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
        if not isinstance(value, str) or len(value) > LONGEST_PACKED:
            raise WrongValue(at, f"packed values, at most {LONGEST_PACKED} characters", "another")
        return value

    def typed(self, text: str, now: Value, at: str) -> str:
        raise WrongValue(at, "a value (nobody types what is packed)", text[:40])

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
