"""Settings of strips by their words: which leaf a phrase means, and what was typed for it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Final

from ..casting import preamp_socket
from ..catalogue import CATALOGUE, STRIP_KINDS, Address, Parameter, parameter_at, pattern_of
from ..show import Show
from ..strips import PATH_STAGES
from ..values import Choice, ConsoleError, Number, Switch, Text, Value, in_sentence, plain
from .words import begins

__all__ = [
    "Setting",
    "address_of",
    "by_value",
    "is_address",
    "phrases",
    "reads",
    "settings_said",
]


@dataclass(frozen=True, slots=True)
class Setting:
    """A setting of a kind of thing. `leaf`: below the thing ("gate/threshold"), or of the preamp

    that feeds it (`of_preamp`); `label`: as a sentence names it ("gate threshold"); `words`: plain
    words of which a phrase may be made; `worth`: of those that answer alike; `stage`: of the
    strip's path; `switches`: it turns that on.
    """

    leaf: str
    label: str
    words: frozenset[str]
    entry: Parameter
    worth: float
    stage: str
    switches: bool
    of_preamp: bool = False


# What people call a setting, as our own words: a phrase for a phrase.
_OTHER_WORDS: Final = {
    "level": "fader", "volume": "fader", "vol": "fader", "lvl": "fader",
    "preamp": "gain", "head amp": "gain", "mic gain": "gain", "input gain": "gain",
    "digital gain": "trim", "digital trim": "trim",
    "phantom": "48 v", "phantom power": "48 v", "48": "48 v", "48v": "48 v",
    "phase": "polarity", "invert": "polarity", "inverted": "polarity", "flip": "polarity",
    "phase reverse": "polarity", "polarity reverse": "polarity",
    "hpf": "low cut", "highpass": "low cut", "high pass": "low cut", "lowcut": "low cut",
    "high pass filter": "low cut", "rumble": "low cut",
    "comp": "compressor", "compression": "compressor", "limiter": "compressor",
    "noise gate": "gate", "expander": "gate", "thresh": "threshold", "thr": "threshold",
    "equaliser": "eq", "equalizer": "eq", "balance": "pan", "panorama": "pan", "position": "pan",
    "makeup": "make up", "make up gain": "make up", "freq": "frequency", "color": "colour",
    "spare source": "on spare", "reserve": "reserved",
    "solo safe": "stays open in solo", "solo defeat": "stays open in solo",
}  # fmt: skip
_LONGEST: Final = 4  # words of a phrase
# Under one word for a whole stage, this is what a number is for.
_FIRST: Final = ("low_cut/frequency", "gate/threshold", "compressor/threshold", "delay/ms")
# By the unit that is typed: what is meant where no setting is named.
_BY_UNIT: Final = (("hz", "low_cut/frequency"), ("khz", "low_cut/frequency"), ("ms", "delay/ms"))
_PREAMP: Final = ("gain", "pad", "phantom")
_SET_BY_WORDS: Final = frozenset((*STRIP_KINDS, "dca", "engine"))
_ALONE_NO_PHRASE: Final = frozenset(("up", "down", "left", "right", "on", "off", "c", "at"))
# asked for as a deed, or as a thing into another
_BY_ITS_OWN_WORD: Final = frozenset(
    ("house/on", "mono/on", "mute", "solo", "name", "held_back", "name_typed", "pan_mirrored")
)
_NO_PHRASES: Final = ("pins", "gangs", "", "mic_check", "phones")


@cache
def _settings_of(kind: str) -> tuple[Setting, ...]:
    """All that is set at a kind of thing by one word or a few, and no other thing beside it."""
    if kind not in _SET_BY_WORDS:
        return ()
    head = f"{pattern_of(kind)}/"
    found = []
    for key, entry in CATALOGUE.items():
        leaf = key.removeprefix(head)
        typed = isinstance(entry.kind, Number | Switch | Choice | Text)
        one = "<" not in leaf and leaf not in _BY_ITS_OWN_WORD
        if leaf != key and typed and one and entry.aspect not in _NO_PHRASES:
            found.append(_setting(leaf, entry))
    if kind == "channel":
        of_input = ((leaf, CATALOGUE[f"input/<box>/<input>/{leaf}"]) for leaf in _PREAMP)
        found += [_setting(leaf, entry, of_preamp=True) for leaf, entry in of_input]
    return tuple(found)


def _setting(leaf: str, entry: Parameter, *, of_preamp: bool = False) -> Setting:
    stage = "preamp" if of_preamp else _stage_of(leaf, entry)
    switches = PATH_STAGES[stage].switch == leaf
    words = plain(leaf).split()
    label = in_sentence(entry.label).removesuffix(" at")
    of_stage = PATH_STAGES[stage].word
    if stage == "eq" and not switches:
        label = f"EQ {words[1]} {label.removeprefix('EQ ')}"
    elif len(words) > 1 and not switches and plain(of_stage) not in plain(label):
        label = f"{in_sentence(of_stage)} {label}"
    worth = 1.0 if switches or len(words) == 1 else 0.95 if leaf in _FIRST else 0.8
    every = frozenset((*words, *plain(entry.label).split()))
    return Setting(leaf, label, every, entry, worth, stage, switches, of_preamp)


def _stage_of(leaf: str, entry: Parameter) -> str:
    """The stage of a strip's path at which a leaf is set: the fader where it is none of another."""
    for stage in PATH_STAGES.values():
        if leaf == stage.switch or leaf in stage.leaves:
            return stage.key
    return entry.aspect if entry.aspect in PATH_STAGES else "fader"


def settings_said(kind: str, typed: Sequence[str]) -> list[tuple[float, Setting]]:
    """The settings of a kind of thing that a phrase may mean, the best first, with how well."""
    if not _ALONE_NO_PHRASE.isdisjoint(typed):
        return []
    phrase = " ".join(typed)
    words = _OTHER_WORDS.get(phrase, phrase).split()
    if len(words) > 1 and words[0] in _OTHER_WORDS:  # "comp threshold"
        words = [*_OTHER_WORDS[words[0]].split(), *words[1:]]
    if len(words) > 1 and words[-1] in _OTHER_WORDS:
        words = [*words[:-1], *_OTHER_WORDS[words[-1]].split()]
    found = []
    for one in _settings_of(kind):
        fits = [max((begins(word, there) for there in one.words), default=0.0) for word in words]
        if not all(fits) or all(word.isdigit() for word in words):
            continue
        core = set(plain(one.label).split())
        covered = len(core & set(words)) / len(core)
        found.append((one.worth * (sum(fits) / len(fits) + covered), one))
    return sorted(found, key=lambda pair: -pair[0])


def phrases(words: Sequence[str]) -> Iterator[tuple[int, int]]:
    """Where a phrase of a setting may stand among some words: from which, to which (not with)."""
    for start in range(len(words)):
        for end in range(start + 1, min(start + _LONGEST, len(words)) + 1):
            yield start, end


def address_of(show: Show, thing: str, setting: Setting) -> str | None:
    """Where a thing has a setting: None for a channel that no preamp feeds."""
    if not setting.of_preamp:
        return f"{thing}/{setting.leaf}"
    socket = preamp_socket(show, thing)
    return f"{socket}/{setting.leaf}" if socket else None


def by_value(kind: str, text: str) -> list[Setting]:
    """The settings that a value alone means: by its unit, as a place between left and right, else

    a level.
    """
    tail = text.lower().lstrip("0123456789.,+-\u2212 ")
    leaf = next((leaf for unit, leaf in _BY_UNIT if tail == unit), "")
    if text.lower().startswith(("up", "down")):
        leaf = "fader"
    wanted = [leaf] if leaf else ["fader", "pan"]
    by_leaf = {one.leaf: one for one in _settings_of(kind) if not one.of_preamp}
    return [by_leaf[leaf] for leaf in wanted if leaf in by_leaf]


def reads(show: Show, address: str, text: str) -> Value | None:
    """What a typed text comes to at an address; None where it is no value there."""
    try:
        return parameter_at(address).kind.typed(text, show[address], address)
    except ConsoleError:
        return None


def is_address(text: str) -> bool:
    """Whether the catalogue has an address."""
    try:
        Address.at(text)
    except ConsoleError:
        return False
    return True
