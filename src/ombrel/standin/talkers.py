"""People at a table who talk: they take turns, overlap, cough, laugh together; by seed."""

import math
import random
from collections.abc import Sequence
from typing import Final

__all__ = ["Talkers"]

_ROOM_DB: Final = -42.0  # the room at an open microphone, below somebody who speaks into it
_SPILL_DB: Final = (-24.0, -14.0)  # somebody else's voice there: the far ones and the next one
_TURN_S: Final = (1.5, 9.0)
_PAUSE_S: Final = (0.1, 1.2)
_OVERLAP: Final = 0.25  # of all turns begin before the last has ended
_COUGHS: Final = 0.02  # a second, of everybody
_LAUGHS: Final = 0.015  # a second, of all together


class Talkers:
    """Levels of so many as there are places, in dB against what each has when speaking."""

    def __init__(self, seed: int) -> None:
        self._chance = random.Random(seed)
        self._until: dict[int, float] = {}  # who speaks, until when
        self._bursts: dict[int, float] = {}  # who coughs or laughs
        self._next_s = 0.0
        self._now_s = 0.0

    def after(self, places: int, elapsed_s: float) -> list[float]:
        """Levels of so many places after some seconds, in dB."""
        self._now_s += elapsed_s
        self._until = {who: t for who, t in self._until.items() if t > self._now_s and who < places}
        self._bursts = {who: t for who, t in self._bursts.items() if t > self._now_s}
        if places and self._now_s >= self._next_s:
            self._takes_the_floor(places)
        for who in range(places):
            if self._chance.random() < _COUGHS * elapsed_s:
                self._bursts[who] = self._now_s + self._chance.uniform(0.2, 0.5)
        if self._chance.random() < _LAUGHS * elapsed_s:
            for who in range(places):
                if self._chance.random() < 0.6:
                    self._bursts[who] = self._now_s + self._chance.uniform(0.6, 2.0)
        voices = [self._voice(who) for who in range(places)]
        return [_sum_db(_at(voices, who)) for who in range(places)]

    def _takes_the_floor(self, places: int) -> None:
        others = [who for who in range(places) if who not in self._until] or [0]
        turn_s = self._chance.uniform(*_TURN_S)
        self._until[self._chance.choice(others)] = self._now_s + turn_s
        if self._chance.random() < _OVERLAP:
            self._next_s = self._now_s + turn_s * self._chance.uniform(0.6, 0.95)
        else:
            self._next_s = self._now_s + turn_s + self._chance.uniform(*_PAUSE_S)

    def _voice(self, who: int) -> float:
        """What somebody puts into their own microphone now, in dB; -inf for one who is silent."""
        if who in self._bursts:
            return self._chance.uniform(-6.0, 2.0)
        if who not in self._until:
            return -math.inf
        # words have gaps
        return -30.0 if self._chance.random() < 0.12 else self._chance.gauss(-2.0, 3.0)


def _at(voices: Sequence[float], place: int) -> list[float]:
    """What arrives at a place: its own voice, the others', and the room."""
    far, near = _SPILL_DB
    spill = [
        voice + (near if abs(who - place) == 1 else far)
        for who, voice in enumerate(voices)
        if who != place
    ]
    return [voices[place], *spill, _ROOM_DB]


def _sum_db(levels_db: Sequence[float]) -> float:
    return 10.0 * math.log10(sum(10.0 ** (level / 10.0) for level in levels_db))
