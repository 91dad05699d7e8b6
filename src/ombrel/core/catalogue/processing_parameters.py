"""The processors of a strip, in the order of its path, as entries of the catalogue."""

from dataclasses import replace
from typing import Final

from ..processing import CROSSOVERS
from ..values import NOTES, Choice, Kind, Number, Reference, Switch, Text, Value
from .choices import ENGINE_KINDS, TAPS
from .strip_parameters import Parameter, entry, followed

__all__ = ["BANDS", "crossing", "effect_of", "preset_of", "processing_of"]

BANDS: Final = (1, 2, 3, 4)

_HZ: Final = {"unit": "Hz", "law": "octaves", "step": 0.1, "carried_by": "ratio"}
_CUT = Number(lowest=20.0, highest=2_000.0, **_HZ)  # type: ignore[arg-type]
_MEETING = Number(lowest=30.0, highest=400.0, **_HZ)  # type: ignore[arg-type]
_FREQUENCY = Number(lowest=20.0, highest=20_000.0, **_HZ)  # type: ignore[arg-type]
_GAIN = Number(unit="dB", lowest=-18.0, highest=18.0, step=0.1)
_Q = Number(unit="Q", lowest=0.1, highest=16.0, step=0.01, law="octaves", carried_by="ratio")
_THRESHOLD = Number(unit="dB", lowest=-80.0, highest=0.0, step=0.5)
_RANGE = Number(unit="dB", lowest=0.0, highest=80.0, step=0.5)
_KNEE = Number(unit="dB", lowest=0.0, highest=24.0, step=0.5)
_MAKE_UP = Number(unit="dB", lowest=0.0, highest=24.0, step=0.1)
_RATIO = Number(unit=":1", lowest=1.0, highest=100.0, step=0.1, law="octaves", carried_by="ratio")
_TIME = Number(unit="ms", lowest=0.1, highest=5_000.0, step=0.1, law="octaves", carried_by="ratio")
_BLEND = Number(unit="%", lowest=0.0, highest=100.0, step=1.0)
_DELAY = Number(unit="ms", lowest=0.0, highest=1_000.0, step=0.01)
_DECAY = Number(unit="s", lowest=0.1, highest=20.0, step=0.1, law="octaves")
_PRE_DELAY = Number(unit="ms", lowest=0.0, highest=250.0, step=1.0)
_ECHO = Number(unit="ms", lowest=1.0, highest=8_000.0, step=0.1, law="octaves")
_FEEDBACK = Number(unit="%", lowest=0.0, highest=95.0, step=1.0)
_KEY = Reference(
    to=("channel/<channel>", "return/<return>", "group/<group>", "mix/<mix>", "house", "mono")
)
# shelf, bell, bell, shelf: where a hand looks first
_USUAL: Final = {
    1: ("low_shelf", 100.0, 0.7),
    2: ("bell", 400.0, 1.4),
    3: ("bell", 2_500.0, 1.4),
    4: ("high_shelf", 8_000.0, 0.7),
}


def processing_of(strip: str, of: str, *, gate: bool) -> tuple[Parameter, ...]:
    """Low cut, gate, EQ of four bands, compressor, delay and two inserts of a kind of strip."""
    return (
        *_low_cut(strip, of),
        *_insert(strip, of, 1),
        *(_gate(strip, of) if gate else ()),
        *_eq(strip, of),
        *_compressor(strip, of),
        *_insert(strip, of, 2),
        *_delay(strip, of),
    )


def crossing(mono: str) -> tuple[Parameter, ...]:
    """The crossover between house and mono, which both have in common."""
    at, kinds = f"{mono}/crossover", Choice(options=tuple(CROSSOVERS))
    on = "The house passes what is above, mono what is below."
    return (
        entry(f"{at}/on", Switch(), False, "crossover", "Crossover", on),
        entry(f"{at}/frequency", _MEETING, 90.0, "crossover", "They meet at", "Of both sides."),
        entry(f"{at}/kind", kinds, "linkwitz_riley_24", "crossover", "Crossover kind",
              "How steep both sides are, in dB per octave, and how they meet."),
    )  # fmt: skip


def effect_of(engine: str) -> tuple[Parameter, ...]:
    """What an effect engine does: a reverb has no note, a delay no decay, yet both are kept."""
    notes = Choice(options=("free", *NOTES))
    entries: tuple[tuple[str, Kind, Value, str, str], ...] = (
        ("kind", Choice(options=ENGINE_KINDS), "hall", "Effect", "What the engine is."),
        ("decay", _DECAY, 1.8, "Decay", "How long a reverb takes to fall by 60 dB."),
        ("pre_delay", _PRE_DELAY, 20.0, "Pre-delay", "What passes before a reverb sets in."),
        ("size", _BLEND, 60.0, "Size", "Of the room."),
        ("damping", _FREQUENCY, 6_000.0, "Damping", "Above it a reverb falls faster."),
        ("time", _ECHO, 375.0, "Time", "Of a delay, from one repeat to the next."),
        ("note", notes, "free", "Note", "The note of the tempo that a delay is held to."),
        ("feedback", _FEEDBACK, 30.0, "Feedback", "How much of a repeat comes again."),
        ("low_cut", _FREQUENCY, 120.0, "Low cut", "Of what comes again."),
        ("high_cut", _FREQUENCY, 8_000.0, "High cut", "Of what comes again."),
        ("wet", _BLEND, 100.0, "Wet", "Of the effect; the rest is the dry sound."),
    )
    return tuple(
        entry(f"{engine}/{leaf}", kind, default, "effects", label, says)
        for leaf, kind, default, label, says in entries
    )


def preset_of(preset: str) -> tuple[Parameter, ...]:
    """What a preset holds of a channel's processors but their keys: no strip, so in no gang."""
    found = (
        *_low_cut(preset, "preset"),
        *_gate(preset, "preset"),
        *_eq(preset, "preset"),
        *_compressor(preset, "preset"),
    )
    return tuple(
        replace(one, gang="", tie="own")
        for one in found
        if not one.key.endswith(("/kept", "/key", "/key_tap"))
    )


def _one(
    key: str, kind: Kind, default: Value, aspect: str, label: str, says: str
) -> tuple[Parameter, ...]:
    """An entry that gangs carry with its processor, and its kept place where it is a number."""
    parameter = entry(key, kind, default, aspect, label, says, gang=aspect, tie="equal")
    return followed(parameter) if isinstance(kind, Number) else (parameter,)


def _low_cut(strip: str, of: str) -> tuple[Parameter, ...]:
    at, slopes = f"{strip}/low_cut", Choice(options=("12", "18", "24"))
    return (
        *_one(f"{at}/on", Switch(), False, "low_cut", "Low cut", f"The {of}'s low cut is on."),
        *_one(f"{at}/frequency", _CUT, 80.0, "low_cut", "Low cut at", "3 dB down there."),
        *_one(f"{at}/slope", slopes, "18", "low_cut", "Slope", "In dB per octave."),
    )


def _insert(strip: str, of: str, place: int) -> tuple[Parameter, ...]:
    at, says = f"{strip}/insert_{place}", f"Looped into the {of}; nothing: the point is free."
    device = Text(longest=30)
    return (
        entry(f"{at}/device", device, "", "inserts", f"Insert {place}", says),
        entry(f"{at}/on", Switch(), True, "inserts", "Insert on", "The signal goes through it."),
    )  # fmt: skip


def _eq(strip: str, of: str) -> tuple[Parameter, ...]:
    kinds = Choice(options=("bell", "low_shelf", "high_shelf"))
    found = [*_one(f"{strip}/eq/on", Switch(), True, "eq", "EQ", f"The {of}'s equaliser is on.")]
    for band in BANDS:
        at, (kind, frequency, q) = f"{strip}/eq/{band}", _USUAL[band]
        found += [
            *_one(f"{at}/kind", kinds, kind, "eq", "Band", f"What band {band} is."),
            *_one(f"{at}/frequency", _FREQUENCY, frequency, "eq", "Frequency", "Of the band."),
            *_one(f"{at}/gain", _GAIN, 0.0, "eq", "EQ gain", f"Gain of band {band}."),
            *_one(f"{at}/q", _Q, q, "eq", "Q", "How narrow it is; a bandwidth in octaves too."),
        ]
    return tuple(found)


def _times(at: str, aspect: str, attack_ms: float, release_ms: float) -> tuple[Parameter, ...]:
    return (
        *_one(f"{at}/attack", _TIME, attack_ms, aspect, "Attack", "How fast it sets in."),
        *_one(f"{at}/release", _TIME, release_ms, aspect, "Release", "How fast it lets go."),
    )


def _keyed(at: str, aspect: str) -> tuple[Parameter, ...]:
    """What opens or presses it; never carried by gangs."""
    says = "The strip that works it; nothing: the strip itself."
    return (
        entry(f"{at}/key", _KEY, None, aspect, "Key", says, tie="equal"),
        entry(f"{at}/key_tap", Choice(options=TAPS), "before_eq", aspect, "Key tap",
              "Where the key takes its strip's signal.", tie="equal"),
    )  # fmt: skip


def _gate(strip: str, of: str) -> tuple[Parameter, ...]:
    at = f"{strip}/gate"
    return (
        *_one(f"{at}/on", Switch(), False, "gate", "Gate", f"The {of}'s gate is on."),
        *_one(f"{at}/threshold", _THRESHOLD, -45.0, "gate", "Threshold", "It opens above."),
        *_one(f"{at}/range", _RANGE, 20.0, "gate", "Range", "At most so much is taken away."),
        *_one(f"{at}/ratio", _RATIO, 4.0, "gate", "Ratio", "dB out for each dB below."),
        *_times(at, "gate", 1.0, 150.0),
        *_one(f"{at}/hold", _TIME, 40.0, "gate", "Hold", "It stays open so long."),
        *_one(f"{at}/key_low_cut", _FREQUENCY, 20.0, "gate", "Key from", "Low cut of the key."),
        *_one(f"{at}/key_high_cut", _FREQUENCY, 20_000.0, "gate", "Key to", "Its high cut."),
        *_keyed(at, "gate"),
    )


def _compressor(strip: str, of: str) -> tuple[Parameter, ...]:
    at, aspect = f"{strip}/compressor", "compressor"
    return (
        *_one(f"{at}/on", Switch(), False, aspect, "Compressor", f"The {of}'s is on."),
        *_one(f"{at}/threshold", _THRESHOLD, -18.0, aspect, "Threshold", "It works above."),
        *_one(f"{at}/ratio", _RATIO, 3.0, aspect, "Ratio", "dB in for each dB out."),
        *_one(f"{at}/knee", _KNEE, 6.0, aspect, "Knee", "Over this width it sets in."),
        *_times(at, aspect, 15.0, 150.0),
        *_one(f"{at}/make_up", _MAKE_UP, 0.0, aspect, "Make-up", "Gain behind it."),
        *_one(f"{at}/blend", _BLEND, 100.0, aspect, "Blend", "Of it, beside the plain signal."),
        *_keyed(at, aspect),
    )


def _delay(strip: str, of: str) -> tuple[Parameter, ...]:
    at, says = f"{strip}/delay", f"The {of} waits so long; as typed in ms, samples, m or ft."
    return (
        entry(f"{at}/on", Switch(), False, "delay", "Delay", f"The {of}'s is on.", tie="equal"),
        entry(f"{at}/ms", _DELAY, 0.0, "delay", "Delay time", says, tie="equal"),
    )
