"""What comes from outside, as one line of text: what a cue waits for and what was heard are alike.

/show/go 12 "Storm"          an OSC address with its arguments
program 12 on 1              MIDI, the numbers as they are sent: programs from 0, channels 1-16
note 60 on 1                 a note that begins, however hard
control 7 at 127 on 1        a controller at a value; without "at": at any
show control go 12.5 list 1  a GO with its cue number; without "list": of any
"""

import math
import re
from collections.abc import Sequence
from typing import Final

from ..values import UnreadableText

__all__ = [
    "LONGEST_COMES",
    "Argument",
    "control_heard",
    "go_heard",
    "heard_by",
    "is_osc",
    "note_heard",
    "osc_heard",
    "osc_parts",
    "program_heard",
    "read_comes",
]

Argument = float | bool | str | None
LONGEST_COMES: Final = 200
_MOST_ARGUMENTS: Final = 16
_HELP: Final = (
    'what comes, such as "/show/go 12", "program 12 on 1", "note 60 on 1", "control 7 at 127",'
    ' "show control go 12.5"'
)
# OSC 1.0: printable ASCII but for space and # * , / ? [ ] { } between slashes
_PART: Final = r"[!\"$-)+\-.0-Z\\^-z|~]+"
_ADDRESS: Final = re.compile(rf"(?:/{_PART})+")
_ARGUMENT: Final = re.compile(r'"((?:[^"\\]|\\.)*)"|(\S+)')
_NUMBER: Final = re.compile(r"[+-]?\d{1,12}(?:\.\d{1,6})?(?:e[+-]?\d{1,2})?")
_WORDS: Final[dict[str, Argument]] = {"true": True, "false": False, "nothing": None}
_CHANNEL: Final = r"(?:\s+(?:on|ch|channel)\s*(?P<channel>\d{1,2}))?"
_MIDI: Final = {
    "program": re.compile(rf"(?:program|program change|pc)\s+(?P<number>\d{{1,3}}){_CHANNEL}"),
    "note": re.compile(rf"note\s+(?P<number>\d{{1,3}}){_CHANNEL}"),
    "control": re.compile(
        rf"(?:control|control change|cc)\s+(?P<number>\d{{1,3}})"
        rf"(?:\s+(?:at|value)\s*(?P<value>\d{{1,3}}))?{_CHANNEL}"
    ),
}
# cue numbers and lists of MIDI show control are figures and points (value from memory)
_GO: Final = re.compile(
    r"(?:show control |msc )?go\s+(?P<cue>[\d.]{1,20})(?:\s+list\s+(?P<list>[\d.]{1,20}))?"
)


def read_comes(text: str) -> str:
    """What comes, as typed, in its one spelling. Raises UnreadableText.

    >>> read_comes("pc 12"), read_comes("CC 7 value 127 ch 2"), read_comes("/go 4.50")
    ('program 12 on 1', 'control 7 at 127 on 2', '/go 4.5')
    """
    plain = " ".join(text.split())
    if len(plain) > LONGEST_COMES:
        raise UnreadableText(f"{plain[:40]}…", _HELP)
    if is_osc(plain):
        return osc_heard(*osc_parts(plain))
    lowered = plain.lower()
    for kind, pattern in _MIDI.items():
        if found := pattern.fullmatch(lowered):
            channel = int(found["channel"] or 1)
            number = int(found["number"])
            if number > 127 or not 1 <= channel <= 16:
                raise UnreadableText(plain, "a number from 0 to 127 and a channel from 1 to 16")
            if kind == "control":
                value = found["value"]
                if value is not None and int(value) > 127:
                    raise UnreadableText(plain, "a value from 0 to 127")
                return _control(number, None if value is None else int(value), channel)
            return f"{kind} {number} on {channel}"
    if found := _GO.fullmatch(lowered):
        return _go(found["cue"], found["list"] or "")
    raise UnreadableText(plain, _HELP)


def is_osc(text: str) -> bool:
    """Whether what comes is an OSC message; else it is a MIDI message."""
    return text[:1] == "/"


def osc_parts(plain: str) -> tuple[str, list[Argument]]:
    """The address and the arguments of an OSC message as text. Raises UnreadableText."""
    address, _, rest = plain.partition(" ")
    if not _ADDRESS.fullmatch(address):
        raise UnreadableText(address, "an OSC address such as /show/go, without # * , ? [ ] { }")
    arguments: list[Argument] = []
    at = 0
    while at < len(rest):
        found = _ARGUMENT.match(rest, at)
        assert found is not None  # what is no text in quotes is a word
        quoted, word = found.groups()
        if quoted is not None:
            arguments.append(re.sub(r"\\(.)", r"\1", quoted))
        elif word.lower() in _WORDS:
            arguments.append(_WORDS[word.lower()])
        elif _NUMBER.fullmatch(word):
            arguments.append(float(word))
        else:
            raise UnreadableText(word, 'a number, "text" in quotes, true, false or nothing')
        at = found.end() + len(rest[found.end() :]) - len(rest[found.end() :].lstrip())
    if len(arguments) > _MOST_ARGUMENTS:
        raise UnreadableText(plain, f"at most {_MOST_ARGUMENTS} arguments")
    return address, arguments


def osc_heard(address: str, arguments: Sequence[Argument]) -> str:
    """An OSC message as text. 4 and 4.0 are one number: a sender may use either type; a float of

    32 bits is told to six figures.
    """
    return " ".join([address, *map(_argument, arguments)])


def _argument(value: Argument) -> str:
    if value is None:
        return "nothing"
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, str):
        escaped = value.replace("\\", "\\\\").replace('"', '\\"')
        return f'"{" ".join(escaped.split())}"'
    if math.isfinite(value) and value == int(value) and abs(value) < 1e12:
        return str(int(value))
    return f"{value:.6g}"


def program_heard(number: int, channel: int) -> str:
    """A program change, 0 to 127, on a channel, 1 to 16."""
    return f"program {number} on {channel}"


def note_heard(number: int, channel: int) -> str:
    """A note that begins."""
    return f"note {number} on {channel}"


def control_heard(number: int, value: int, channel: int) -> str:
    """A control change."""
    return _control(number, value, channel)


def go_heard(cue: str, cue_list: str = "") -> str:
    """A GO of MIDI show control; without a cue number it is of the next."""
    return _go(cue, cue_list)


def _control(number: int, value: int | None, channel: int) -> str:
    at = "" if value is None else f" at {value}"
    return f"control {number}{at} on {channel}"


def _go(cue: str, cue_list: str) -> str:
    said = f"show control go {cue}".rstrip()
    return f"{said} list {cue_list}" if cue_list else said


def heard_by(heard: str) -> tuple[str, ...]:
    """What cues may wait for that this is, the most exact first.

    >>> heard_by("control 7 at 127 on 1")
    ('control 7 at 127 on 1', 'control 7 on 1')
    """
    if heard.startswith("control "):
        return heard, re.sub(r" at \d+", "", heard)
    if heard.startswith("show control go ") and " list " in heard:
        return heard, heard.partition(" list ")[0]
    return (heard,)
