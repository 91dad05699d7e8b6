"""A stand-in recorder: it writes what it is told of its tracks as files, and plays them back.

Each track is a WAV file of a tone, called and headed as the plan calls it, at the level that is
expected there. Played back, it comes in at the desk's input of the track's number.
"""

import math
import re
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import numpy as np
import soundfile

from ombrel.core import Thing

__all__ = ["Recorder", "Take"]

RATE_HZ: Final = 48_000
_TONES_HZ: Final = (220.0, 247.5, 275.0, 297.0, 330.0, 371.25, 412.5, 440.0)
_LONGEST_S: Final = 60.0
_MOST: Final = 512  # tracks


@dataclass(frozen=True, slots=True, kw_only=True)
class Take:
    """A track as it is told: the input where it comes back, its name, how loud it is in dBFS, and

    what full scale is at the desk's converters in dBu.
    """

    socket: str
    name: str
    dbfs: float
    full_scale_dbu: float

    @property
    def number(self) -> int:
        """Its number, by its socket."""
        return Thing.at(self.socket).number

    @property
    def file(self) -> str:
        """What its file is called: its number, and its name as far as files can be called so."""
        plain = re.sub(r"[^\w .,+&()'-]+", "_", self.name).strip(" .") or "track"
        return f"{self.number:03} {plain}.wav"


class Recorder:
    """Tracks that are armed, files in a folder, and where playback is."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.takes: dict[str, Take] = {}
        self.playing = False
        self._seconds = 0.0
        self._to_write: list[Take] = []
        self._at_s = 0.0

    def arm(self, take: Take) -> None:
        """A track of the plan: what it is called, and how loud it comes."""
        if take.socket in self.takes or len(self.takes) < _MOST:
            self.takes[take.socket] = take

    def record(self, seconds: float) -> None:
        """Write all armed tracks anew, one a step."""
        self.stop()
        self._seconds = min(max(seconds, 0.1), _LONGEST_S)
        self.folder.mkdir(parents=True, exist_ok=True)
        for old in self.folder.glob("*.wav"):
            old.unlink()
        self._to_write = sorted(self.takes.values(), key=lambda one: one.number)

    def play(self) -> None:
        """Play all files from their start, round and round."""
        self.playing, self._at_s = True, 0.0

    def stop(self) -> None:
        """Neither records nor plays."""
        self.playing, self._to_write = False, []

    def step(self) -> None:
        """Write the next track, if one is waiting: one at a time, so that nobody waits for it."""
        if self._to_write:
            self._write(self._to_write.pop(0))

    def _write(self, take: Take) -> None:
        seconds = np.arange(round(self._seconds * RATE_HZ)) / RATE_HZ
        hz = _TONES_HZ[take.number % len(_TONES_HZ)]
        amplitude = min(10.0 ** (take.dbfs / 20.0), 1.0)
        with soundfile.SoundFile(
            self.folder / take.file, "w", samplerate=RATE_HZ, channels=1, subtype="PCM_24"
        ) as written:
            written.title = take.name
            written.write(amplitude * np.sin(2.0 * math.pi * hz * seconds))

    def levels_dbu(self, elapsed_s: float) -> dict[str, float]:
        """Level at each input where a track comes back, in dBu, so many seconds after the last."""
        if not self.playing:
            return {}
        found = {}
        for take in self.takes.values():
            peak = self._peak(take, elapsed_s)
            if peak > 0.0:
                found[take.socket] = 20.0 * math.log10(peak) + take.full_scale_dbu
        self._at_s += elapsed_s
        return found

    def _peak(self, take: Take, elapsed_s: float) -> float:
        """The largest sample of what is played of a file in these seconds; 0 without a file."""
        path = self.folder / take.file
        if not path.exists():
            return 0.0
        with soundfile.SoundFile(path) as read:
            if not read.frames:
                return 0.0
            read.seek(round(self._at_s * RATE_HZ) % read.frames)
            samples = read.read(max(1, round(elapsed_s * RATE_HZ)), dtype="float32")
        return float(np.abs(samples).max(initial=0.0))
