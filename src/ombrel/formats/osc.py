"""OSC 1.0 packets in and out, and their framing on a stream by SLIP (RFC 1055).

Whoever reads here may be anybody: every length is bounded before anything is made of it.
"""

import math
import struct
from dataclasses import dataclass
from typing import Final

from ombrel.core import Argument, BadFile

__all__ = ["MOST_BYTES", "OscMessage", "Slip", "read_packet", "slipped", "write_message"]

MOST_BYTES: Final = 8_192  # of a packet: far more than a cue needs
_MOST_MESSAGES: Final = 64  # of a bundle
_DEEPEST: Final = 4  # bundles in bundles
_MOST_ARGUMENTS: Final = 16
_BUNDLE: Final = b"#bundle\0"
_AT_ONCE: Final = 1  # the time tag that means: now
_NTP_TO_UNIX_S: Final = 2_208_988_800  # 1900 to 1970 (RFC 868)
_NUMBERS: Final = {"i": ">i", "h": ">q", "f": ">f", "d": ">d", "t": ">Q"}
_WORDS: Final[dict[str, Argument]] = {"T": True, "F": False, "N": None, "I": True}
END, ESC, ESC_END, ESC_ESC = 0xC0, 0xDB, 0xDC, 0xDD  # octal 300, 333, 334, 335 in RFC 1055


@dataclass(frozen=True, slots=True)
class OscMessage:
    """A message. `at_s`: the time for which a bundle means it, in s since 1970; None: now."""

    address: str
    arguments: tuple[Argument, ...] = ()
    at_s: float | None = None


def _damaged(what: str) -> BadFile:
    return BadFile(f"An OSC packet is damaged: {what}.", "It is left out; the next one counts.")


def read_packet(content: bytes) -> list[OscMessage]:
    """The messages of a packet, in order. Raises BadFile for anything that OSC 1.0 does not write,

    and for blobs and arrays, which no cue has.
    """
    if len(content) > MOST_BYTES:
        raise _damaged("it is too long")
    found: list[OscMessage] = []
    _read(content, None, 0, found)
    return found


def _read(content: bytes, at_s: float | None, depth: int, found: list[OscMessage]) -> None:
    if not content.startswith(_BUNDLE):
        if len(found) >= _MOST_MESSAGES:
            raise _damaged("it has too many messages")
        found.append(_message(content, at_s))
        return
    if depth >= _DEEPEST:
        raise _damaged("bundles stand too deep in bundles")
    if len(content) < 16:
        raise _damaged("a bundle ends before its time tag")
    at_s = _time(int.from_bytes(content[8:16]))
    place = 16
    while place < len(content):
        size = int.from_bytes(content[place : place + 4])
        place += 4
        if place > len(content) or not 0 < size <= len(content) - place or size % 4:
            raise _damaged("a bundle's part is longer than the bundle")
        _read(content[place : place + size], at_s, depth + 1, found)
        place += size


def _time(tag: int) -> float | None:
    """A time tag (NTP, 32.32 bits since 1900) in seconds since 1970; None for "now"."""
    return None if tag == _AT_ONCE else tag / 2**32 - _NTP_TO_UNIX_S


def _message(content: bytes, at_s: float | None) -> OscMessage:
    address, place = _string(content, 0)
    if address[:1] != "/":
        raise _damaged("an address begins with /")
    if place == len(content):  # old senders leave the types out where there are no arguments
        return OscMessage(address, (), at_s)
    types, place = _string(content, place)
    if not types.startswith(",") or len(types) > _MOST_ARGUMENTS + 1:
        raise _damaged("its types are not told, or too many")
    arguments = []
    for one in types[1:]:
        value, place = _argument(one, content, place)
        arguments.append(value)
    if place != len(content):
        raise _damaged("something stands behind its arguments")
    return OscMessage(address, tuple(arguments), at_s)


def _argument(kind: str, content: bytes, place: int) -> tuple[Argument, int]:
    if kind in _WORDS:
        return _WORDS[kind], place
    if kind in ("s", "S"):
        return _string(content, place)
    if kind not in _NUMBERS:
        raise _damaged(f"cues take no argument of the type {kind}")
    form = _NUMBERS[kind]
    size = struct.calcsize(form)
    if place + size > len(content):
        raise _damaged("it ends in a number")
    number = float(struct.unpack_from(form, content, place)[0])
    if not math.isfinite(number):
        raise _damaged("a number of it is none")
    return number, place + size


def _string(content: bytes, place: int) -> tuple[str, int]:
    """Letters up to a zero, which fill up to four: what they are, and where they end."""
    end = content.find(b"\0", place)
    after = (end // 4 + 1) * 4
    if end < 0 or after > len(content) or any(content[end:after]):
        raise _damaged("a text of it does not end")
    try:
        text = content[place:end].decode()
    except UnicodeDecodeError as error:
        raise _damaged("a text of it is not UTF-8") from error
    if any(ord(letter) < 32 or ord(letter) == 127 for letter in text):
        raise _damaged("a text of it has control characters")
    return text, after


def write_message(address: str, *arguments: Argument) -> bytes:
    """A message of texts, whole numbers of 32 bits, floats, true, false and nothing."""
    types, parts = ",", b""
    for one in arguments:
        if one is None or isinstance(one, bool):
            types += {True: "T", False: "F"}.get(one, "N")  # type: ignore[arg-type]
        elif isinstance(one, str):
            types, parts = types + "s", parts + _padded(one)
        elif isinstance(one, int):
            types, parts = types + "i", parts + struct.pack(">i", one)
        else:
            types, parts = types + "f", parts + struct.pack(">f", one)
    return _padded(address) + _padded(types) + parts


def _padded(text: str) -> bytes:
    content = text.replace("\0", "").encode() + b"\0"
    return content + b"\0" * (-len(content) % 4)


# ---- on a stream


def slipped(packet: bytes) -> bytes:
    """A packet as it goes over a stream: END before it and behind, so that noise ends with it."""
    inside = packet.replace(b"\xdb", b"\xdb\xdd").replace(b"\xc0", b"\xdb\xdc")
    return bytes([END]) + inside + bytes([END])


class Slip:
    """Packets out of a stream, however it is cut; what is too long is passed by."""

    def __init__(self) -> None:
        self._packet = bytearray()
        self._escaped = self._too_long = False

    def feed(self, content: bytes) -> list[bytes]:
        """The packets that end in what came; b"" stands for one that was too long."""
        found: list[bytes] = []
        for byte in content:
            if byte == END:
                if self._too_long or self._packet:  # nothing between two ENDs is no packet
                    found.append(b"" if self._too_long else bytes(self._packet))
                self._packet.clear()
                self._escaped = self._too_long = False
            elif self._escaped:
                self._escaped = False
                # RFC 1055: what else follows ESC is a violation, and is taken as it is
                self._add({ESC_END: END, ESC_ESC: ESC}.get(byte, byte))
            elif byte == ESC:
                self._escaped = True
            else:
                self._add(byte)
        return found

    def _add(self, byte: int) -> None:
        if len(self._packet) >= MOST_BYTES:
            self._too_long = True
        else:
            self._packet.append(byte)
