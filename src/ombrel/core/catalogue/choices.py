"""The words that the catalogue's choices are made of, in the order in which they are shown."""

from typing import Final

__all__ = [
    "COLOURS",
    "DEVICES",
    "ENGINE_KINDS",
    "FAMILIES",
    "GANG_ASPECTS",
    "HOUSE_STARTS",
    "LINE_KINDS",
    "OPTION_WORDS",
    "PROMISE_KINDS",
    "SERVES",
    "SHARING_PLACES",
    "SOLO_MODES",
    "TAKES",
    "TAPS",
    "TRACK_TAPS",
    "option_text",
]

# In the order of the signal path; what mute, DCA and fader reach is decided in `flow`.
TAPS: Final = ("input", "before_eq", "before_fader", "before_fader_after_mute", "after_fader")
COLOURS: Final = ("sand", "amber", "coral", "rose", "iris", "sky", "sea", "moss", "slate")
DEVICES: Final = (
    "none",
    "amplifier",
    "wedge",
    "ear_transmitter",
    "headphone_amplifier",
    "recorder",
    "stream_encoder",
)
SERVES: Final = ("ears", "wedge", "room", "feed", "effect")
FAMILIES: Final = (
    "unsorted",
    "voices",
    "drums",
    "bass",
    "strings",
    "keys",
    "brass",
    "effects",
    "playback",
    "cues",
)
# What a group or promise takes by itself, so that what comes later is in it.
TAKES: Final = ("chosen", "inputs", "ears", "all", *FAMILIES)
# What of lines may start outside the house, and whether it starts in it unless told otherwise.
HOUSE_STARTS: Final = {"talkback": False, "cues": False, "tracks": False, "playback": True}
LINE_KINDS: Final = (
    "dynamic",
    "condenser",
    "di_passive",
    "di_active",
    "radio",
    "line",
    "playback",
    "talkback",
)
# What an effect engine can be.
ENGINE_KINDS: Final = ("room", "plate", "hall", "delay")
# What is promised of sources and listeners.
PROMISE_KINDS: Final = ("never", "only_through", "all_but")
# Where the stage of a group that shares gain stands in its members.
SHARING_PLACES: Final = ("behind_fader", "before_fader")
# Where solo keys lead: to the engineer's own bus, or to silence for all that is not soloed.
SOLO_MODES: Final = ("before_fader", "after_fader", "in_place")
# Where a wish of the track plan takes its source: raw, processed, as heard.
TRACK_TAPS: Final = ("input", "before_fader", "after_fader")
# What a cue from outside does.
CUE_DEEDS: Final = ("go", "back", "scene", "person", "cast", "mute", "lift", "note")
# What gangs can carry, and what people call it; never polarity, phantom power or the patch.
GANG_ASPECTS: Final = {
    "fader": "Faders",
    "mute": "Mutes",
    "pan": "Pans",
    "trim": "Trims",
    "gain": "Preamp gains",
    "sends": "Sends",
    "low_cut": "Low cuts",
    "gate": "Gates",
    "eq": "EQs",
    "compressor": "Compressors",
    "sharing": "Weights of shared gain",
}
# How people read and say an option that does not say itself.
OPTION_WORDS: Final = {
    "di_passive": "DI passive",
    "di_active": "DI active",
    "line": "line level",
    "headphone_amplifier": "headphone amp",
    "before_eq": "before EQ",
    "before_fader_after_mute": "before fader, after mute",
    "linkwitz_riley_12": "Linkwitz-Riley, 12 dB",
    "linkwitz_riley_24": "Linkwitz-Riley, 24 dB",
    "linkwitz_riley_48": "Linkwitz-Riley, 48 dB",
    "butterworth_12": "Butterworth, 12 dB",
    "butterworth_24": "Butterworth, 24 dB",
    "butterworth_48": "Butterworth, 48 dB",
}


def option_text(option: str) -> str:
    """An option of a choice as people read it.

    >>> option_text("di_active"), option_text("ear_transmitter")
    ('DI active', 'ear transmitter')
    """
    return OPTION_WORDS.get(option, option.replace("_", " "))
