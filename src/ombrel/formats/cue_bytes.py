"""What cues wait for as bytes that a machine sends, and the sheet of times by which it does."""

import csv
import io
import re
from collections.abc import Iterable
from typing import Final

from ombrel.core import BadFile, ConsoleError, is_osc, osc_parts, read_comes

from .midi import show_control_go
from .osc import write_message

__all__ = ["MOST_LINES", "cue_bytes", "read_sheet", "sheet_text"]

MOST_LINES: Final = 2_000
_LONGEST_S: Final = 86_400.0
_HEADINGS: Final = ("seconds", "message", "what it is for")
_MIDI: Final = re.compile(r"(\w+) (\d+)(?: at (\d+))?(?: on (\d+))")
_STATUS: Final = {"program": 0xC0, "note": 0x90, "control": 0xB0}


def cue_bytes(comes: str) -> bytes:
    """The OSC packet or the MIDI bytes of a message as cues wait for it. A controller without a

    value goes at 127, a note at 100. Raises UnreadableText.
    """
    plain = read_comes(comes)
    if is_osc(plain):
        address, arguments = osc_parts(plain)
        sent = [int(a) if isinstance(a, float) and a.is_integer() else a for a in arguments]
        return write_message(address, *sent)
    if plain.startswith("show control go"):
        cue, _, cue_list = plain.removeprefix("show control go ").partition(" list ")
        return show_control_go(cue, cue_list)
    found = _MIDI.fullmatch(plain)
    assert found is not None  # what read_comes gives is one of these
    kind, number, value, channel = found.groups()
    content = [_STATUS[kind] | (int(channel) - 1), int(number)]
    if kind != "program":
        content.append(int(value or (100 if kind == "note" else 127)))
    return bytes(content)


def sheet_text(rows: Iterable[tuple[str, str, str]]) -> str:
    """A sheet of times and messages as CSV."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(_HEADINGS)
    writer.writerows(rows)
    return out.getvalue()


def read_sheet(text: str) -> list[tuple[float, str]]:
    """Times in s and messages of a sheet, by time. Raises BadFile with the line that is wrong."""
    found: list[tuple[float, str]] = []
    for number, row in enumerate(csv.reader(io.StringIO(text)), start=1):
        if not any(one.strip() for one in row) or (number == 1 and row[0].strip() == _HEADINGS[0]):
            continue
        try:
            at_s = float(row[0].replace(",", "."))
            message = read_comes(row[1])
        except (ValueError, IndexError, ConsoleError) as error:
            says = f"Line {number} of the cue sheet cannot be read: {','.join(row)[:80]}"
            raise BadFile(says, "Write seconds, a comma, and the message: 2.5,/cue 12") from error
        if not 0.0 <= at_s <= _LONGEST_S or len(found) >= MOST_LINES:
            raise BadFile(
                f"Line {number} of the cue sheet lies beyond a day, or is one too many.",
                f"A sheet has up to {MOST_LINES} lines.",
            )
        found.append((at_s, message))
    return sorted(found, key=lambda one: one[0])
