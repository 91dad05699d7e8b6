"""What a desk has: how many of each strip, and which boxes with which sockets."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from .choices import TAPS

__all__ = [
    "BANKS",
    "BANK_PLACES",
    "CASTS",
    "CUES",
    "COUNTED",
    "FITTINGS",
    "GANGS",
    "LIFTS",
    "LINES",
    "MICROPHONES",
    "PARTS",
    "PERFORMERS",
    "PLAYERS",
    "PRESETS",
    "PROMISES",
    "SCENES",
    "VERSIONS",
    "WISHES",
    "Bay",
    "Box",
    "Delays",
    "Desk",
]  # fmt: skip

LINES = 256  # how many lines a show can hold: Ombrel's own bound, twice the largest desk's channels
BANKS = 30  # and of banks: more than a hand finds
BANK_PLACES = 160  # of a bank on a side, page after page: as many as the largest desk has strips
GANGS = 60  # and of gangs: more than a head holds
PROMISES = 40  # and of promises
PRESETS = 40  # and of presets of its own
LIFTS = 8  # and of lifts
SCENES = 999  # and of scenes: as many as three figures number
PERFORMERS = 200  # and of performers, more than the largest company's
PARTS = 120  # and of parts
MICROPHONES = 4  # of a part
PLAYERS = 8  # performers of a part, understudies included
CASTS = 20
FITTINGS = 600  # one for each performer, part and microphone
VERSIONS = 10  # of a fitting, that can be brought back
CUES = 999  # from outside: one for each scene
WISHES = 200  # of a track plan: more than the widest recorder has tracks


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """A place with sockets. `preamps`: its inputs have gain, pad and phantom power.

    `output_block`: its outputs can be patched only in runs of this many (1: each on its own).
    Its number of outputs is then a multiple of it.
    """

    key: str
    name: str
    short: str
    inputs: int
    outputs: int
    preamps: bool
    output_block: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Bay:
    """A run of faders of the surface, beside which others may show other banks."""

    name: str
    faders: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Delays:
    """What a signal takes, in samples: a converter in, and out, a strip, the trip of an insert."""

    converter_in: int = 24
    converter_out: int = 24
    strip: int = 4
    insert: int = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class Desk:
    """A desk profile. `full_scale_dbu`: analogue level at 0 dBFS of its converters, in dBu.

    `gain_db`: lowest and highest preamp gain; `pad_db`: how much a pad takes away.
    `sample_rate_hz`: of its processing. `inserts`: how many insert points can be in use at once.
    `sharing_groups`: how many groups share gain, among them `sharing_places` sides of strips, each
    of which takes `sharing_inserts` insert points. `direct_channels`, `direct_returns`: where
    outputs can take them directly; an output takes a bus at its last three taps.
    """

    key: str
    name: str
    channels: int
    returns: int
    groups: int
    mixes: int
    matrices: int
    dcas: int
    mute_groups: int
    effect_engines: int
    full_scale_dbu: float
    gain_db: tuple[float, float]
    pad_db: float
    boxes: tuple[Box, ...]
    bays: tuple[Bay, ...] = (Bay(name="Faders", faders=8),)
    sample_rate_hz: float = 48_000.0
    inserts: int = 24
    sharing_groups: int = 0
    sharing_places: int = 0
    sharing_inserts: int = 0
    direct_channels: tuple[str, ...] = TAPS
    direct_returns: tuple[str, ...] = TAPS
    latency: Delays = Delays()

    def box(self, key: str) -> Box | None:
        """The box of this key, or None."""
        return next((box for box in self.boxes if box.key == key), None)

    def count(self, kind: str) -> int:
        """How many of a kind the desk has: any dimension of the catalogue's keys but sockets and

        places, such as "channel" or "mute_group"; 1 for "house" and "mono".
        """
        return _counts(self)[kind]

    def __hash__(self) -> int:
        return hash(self.key)


# Of which kinds a profile says how many there are, by the field that says it.
COUNTED: Final = {
    "channel": "channels",
    "return": "returns",
    "group": "groups",
    "mix": "mixes",
    "matrix": "matrices",
    "dca": "dcas",
    "mute_group": "mute_groups",
    "engine": "effect_engines",
    "sharing": "sharing_groups",
}


@lru_cache(maxsize=64)
def _counts(desk: Desk) -> Mapping[str, int]:
    """How many there are of each kind: asked of every address, so found once a desk."""
    return {
        **{kind: getattr(desk, field) for kind, field in COUNTED.items()},
        "line": LINES,
        "bank": BANKS,
        "gang": GANGS,
        "promise": PROMISES,
        "preset": PRESETS,
        "lift": LIFTS,
        "scene": SCENES,
        "performer": PERFORMERS,
        "part": PARTS,
        "microphone": MICROPHONES,
        "player": PLAYERS,
        "cast": CASTS,
        "fitting": FITTINGS,
        "version": VERSIONS,
        "wish": WISHES,
        "cue": CUES,
        "bay": len(desk.bays),
        "house": 1,
        "mono": 1,
    }
