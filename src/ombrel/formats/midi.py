"""MIDI 1.0 bytes of a stream into what cues can wait for.

Status bytes, running status and system messages by the MIDI 1.0 specification; GO of MIDI show
control by its supplement: F0 7F <device> 02 <format> 01 <cue> [00 <list> [00 <path>]] F7. Values
from memory.
"""

import re
from typing import Final

from ombrel.core import control_heard, go_heard, note_heard, program_heard

__all__ = ["MidiStream", "show_control_go"]

_LONGEST: Final = 128  # of a system exclusive message: a GO is shorter
_NOTE_ON, _CONTROL, _PROGRAM = 0x90, 0xB0, 0xC0
_TWO_BYTES: Final = (0x80, 0x90, 0xA0, 0xB0, 0xE0)
_EXCLUSIVE, _EXCLUSIVE_ENDS, _REAL_TIME = 0xF0, 0xF7, 0xF8
_COMMON_DATA: Final = {0xF1: 1, 0xF2: 2, 0xF3: 1}
_UNIVERSAL_REAL_TIME, _SHOW_CONTROL, _GO = 0x7F, 0x02, 0x01


class MidiStream:
    """Reads a stream, however it is cut. Of what is no cue nothing is told; what is damaged is

    passed by, until the next status byte.
    """

    def __init__(self) -> None:
        self._status = 0  # 0: bytes of data belong to nothing
        self._data = bytearray()
        self._exclusive = False

    def feed(self, content: bytes) -> list[str]:
        """What was heard in these bytes, as cues wait for it."""
        found = (self._byte(byte) for byte in content)
        return [one for one in found if one]

    def _byte(self, byte: int) -> str:
        if byte >= _REAL_TIME:  # a clock may stand anywhere, and ends nothing
            return ""
        if byte & 0x80:
            return self._began(byte)
        if self._exclusive:
            if len(self._data) <= _LONGEST:
                self._data.append(byte)
            return ""
        if not self._status:
            return ""
        self._data.append(byte)
        return self._voice()

    def _began(self, status: int) -> str:
        ended = bytes(self._data) if self._exclusive and status == _EXCLUSIVE_ENDS else b""
        self._data.clear()
        self._exclusive = status == _EXCLUSIVE
        # a system message ends running status; its own data is passed by
        self._status = status if status < _EXCLUSIVE or status in _COMMON_DATA else 0
        return _exclusive(ended) if 0 < len(ended) <= _LONGEST else ""

    def _voice(self) -> str:
        kind = self._status & 0xF0
        if self._status in _COMMON_DATA:
            if len(self._data) == _COMMON_DATA[self._status]:
                self._status = 0
                self._data.clear()
            return ""
        if len(self._data) < (2 if kind in _TWO_BYTES else 1):
            return ""
        one, *other = self._data
        self._data.clear()  # running status: the next data byte begins another
        channel = (self._status & 0x0F) + 1
        if kind == _PROGRAM:
            return program_heard(one, channel)
        if kind == _NOTE_ON and other[0]:  # at 0 it is a note that ends
            return note_heard(one, channel)
        if kind == _CONTROL:
            return control_heard(one, other[0], channel)
        return ""


def _exclusive(data: bytes) -> str:
    """A GO of show control; "" for anything else."""
    if len(data) < 5 or data[0] != _UNIVERSAL_REAL_TIME or data[2] != _SHOW_CONTROL:
        return ""
    if data[4] != _GO:
        return ""
    cue, cue_list = ([*data[5:].split(b"\0"), b""])[:2]
    if not all(re.fullmatch(rb"[\d.]{0,20}", one) for one in (cue, cue_list)):
        return ""
    return go_heard(cue.decode(), cue_list.decode())


def show_control_go(cue: str, cue_list: str = "", device: int = 0x7F) -> bytes:
    """The bytes of a GO; to every device unless one is named. Command format 1: lighting."""
    parts = [cue.encode(), *([cue_list.encode()] if cue_list else [])]
    head = bytes([_EXCLUSIVE, _UNIVERSAL_REAL_TIME, device, _SHOW_CONTROL, 0x01, _GO])
    return head + b"\0".join(parts) + bytes([_EXCLUSIVE_ENDS])
