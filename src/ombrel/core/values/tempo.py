"""Delay times by tempo: note values, and a tempo from taps."""

import re
from collections.abc import Sequence
from itertools import pairwise
from statistics import median
from typing import Final

from .errors import UnreadableText

__all__ = ["HIGHEST_BPM", "LOWEST_BPM", "NOTES", "note_ms", "read_note", "tapped_bpm"]

LOWEST_BPM: Final = 30.0
HIGHEST_BPM: Final = 300.0
# in beats of a quarter note
_PLAIN: Final = {"whole": 4.0, "half": 2.0, "quarter": 1.0, "eighth": 0.5, "sixteenth": 0.25}
NOTES: Final = {
    f"{note}{word}": beats * share
    for note, beats in _PLAIN.items()
    for word, share in (("", 1.0), ("_dotted", 1.5), ("_triplet", 2.0 / 3.0))
}
_PARTS: Final = dict(zip(("1/1", "1/2", "1/4", "1/8", "1/16"), _PLAIN, strict=True))
_TYPED: Final = re.compile(
    rf"(?:({'|'.join(_PLAIN)})|({'|'.join(_PARTS)}))(?: ?(d|dot|dotted|\.|t|trip|triplet))?"
)
_TAPS: Final = 8  # the last ones count
_APART_MS: Final = 60_000.0 / LOWEST_BPM  # a longer pause begins anew


def read_note(text: str) -> str | None:
    """A note of NOTES as people type it; None for what is none.

    >>> read_note("1/8 dotted"), read_note("1/4"), read_note("quarter triplet"), read_note("8")
    ('eighth_dotted', 'quarter', 'quarter_triplet', None)
    """
    match = _TYPED.fullmatch(" ".join(text.lower().replace("_", " ").split()))
    if match is None:
        return None
    word = match[1] or _PARTS[match[2]]
    more = {"d": "_dotted", ".": "_dotted", "t": "_triplet"}
    return word + more.get((match[3] or "")[:1], "")


def note_ms(note: str, bpm: float) -> float:
    """How long a note lasts at a tempo in quarter notes a minute: 60 000 / bpm for a quarter.

    KeyError for no note of NOTES. Source: the definition of the tempo mark (common practice).

    >>> note_ms("eighth_dotted", 90.0)  # 45 000 / bpm
    500.0
    """
    return 60_000.0 / bpm * NOTES[note]


def tapped_bpm(times_ms: Sequence[float]) -> float:
    """The tempo of taps, by the median of what lies between the last of them, to a tenth.

    A pause longer than a beat at the lowest tempo begins anew. Raises UnreadableText for fewer than
    two taps, or taps that are not in order.

    >>> tapped_bpm([0.0, 502.0, 998.0, 1_500.0])
    119.5
    """
    last = list(times_ms[-_TAPS:])
    gaps: list[float] = []
    for before, after in pairwise(last):
        gap = after - before
        gaps = [] if gap > _APART_MS else [*gaps, gap]
    if not gaps or min(gaps) <= 0.0:
        raise UnreadableText("taps", "at least two taps, one after the other")
    bpm = 60_000.0 / median(gaps)
    return round(min(max(bpm, LOWEST_BPM), HIGHEST_BPM), 1)
