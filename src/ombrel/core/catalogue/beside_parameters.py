"""Entries of the catalogue beside those of strips: gangs, presets, promises, lifts, ears."""

import math
from typing import Final

from ..values import Choice, Number, Reference, Switch, Text
from .choices import CUE_DEEDS, FAMILIES, PROMISE_KINDS, SHARING_PLACES, TRACK_TAPS
from .processing_parameters import preset_of
from .strip_kinds import KINDS, SENDERS, SHARERS, pattern_of
from .strip_parameters import (
    FADER,
    PAN,
    Parameter,
    gang_carries,
    named,
    sharing_of,
    takes_of,
)
from .strip_parameters import entry as _p

__all__ = ["BESIDE_STRIPS", "OF_CUES", "OF_EARS", "OF_TRACKS"]

_SHARER_WORDS: Final = {"mono": "mono bus"} | {one: one for one in SHARERS if one != "mono"}

BESIDE_STRIPS: Final[tuple[Parameter, ...]] = (
    # what moves strips together
    *named("gang/<gang>", "gang"),
    _p(
        "gang/<gang>/suspended",
        Switch(),
        False,
        "gangs",
        "Resting",
        "It carries nothing for a while, and forgets nothing.",
    ),
    *gang_carries(),
    # microphones that share one gain
    *(one for kind in SHARERS for one in sharing_of(pattern_of(kind), _SHARER_WORDS[kind])),
    *named("sharing/<sharing>", "group that shares gain"),
    _p(
        "sharing/<sharing>/time",
        Number(unit="ms", lowest=2.0, highest=500.0, step=1.0, law="octaves"),
        100.0,
        "sharing",
        "Time",
        "Over which it takes the mean of each one's power.",
    ),
    _p(
        "sharing/<sharing>/limit",
        Number(unit="dB", lowest=-math.inf, highest=-3.0, step=0.5, lowest_finite=-40.0),
        -math.inf,
        "sharing",
        "Limit",
        "How far it turns anybody down at most; off: as far as the share goes.",
    ),
    _p(
        "sharing/<sharing>/place",
        Choice(options=SHARING_PLACES),
        "behind_fader",
        "sharing",
        "Place",
        "Where it stands in its members: who taps them before it hears each as it is.",
    ),
    # processing kept by a name
    _p("preset/<preset>/name", Text(), "", "presets", "Preset", "Name of the preset."),
    _p(
        "preset/<preset>/family",
        Choice(options=FAMILIES),
        "unsorted",
        "presets",
        "Family",
        "What it was kept from, and suits.",
    ),
    *(
        _p(f"preset/<preset>/has_{one}", Switch(), False, "presets", f"Has {word}", "It holds it.")
        for one, word in (
            ("low_cut", "a low cut"),
            ("gate", "a gate"),
            ("eq", "EQ"),
            ("compressor", "a compressor"),
        )
    ),
    *preset_of("preset/<preset>"),
    # what must hold of who reaches whom
    _p("promise/<promise>/name", Text(), "", "promises", "Name", "What it is about."),
    takes_of("promise/<promise>"),
    _p(
        "promise/<promise>/kind",
        Choice(options=PROMISE_KINDS),
        "never",
        "promises",
        "Kind",
        "Its sources never reach where it looks, only through a group, or alone do not.",
    ),
    _p(
        "promise/<promise>/through",
        Reference(to=("group/<group>",)),
        None,
        "promises",
        "Through",
        "The group that they go through.",
    ),
    _p(
        "promise/<promise>/wet",
        Switch(),
        True,
        "promises",
        "Effects count",
        "What arrives through an effect counts too.",
    ),
    # who leads of a backing group
    _p("lift/<lift>/name", Text(), "", "lifts", "Name", "Whose lift it is."),
    _p(
        "lift/<lift>/backing",
        Reference(to=("group/<group>",)),
        None,
        "lifts",
        "Backing group",
        "What goes into it can be lifted.",
    ),
    _p(
        "lift/<lift>/lead",
        Reference(to=("group/<group>",)),
        None,
        "lifts",
        "Lead group",
        "Who is lifted goes into it as well.",
    ),
    _p(
        "lift/<lift>/seconds",
        Number(unit="s", lowest=0.0, highest=20.0, step=0.1),
        0.5,
        "lifts",
        "Takes",
        "How long a lift takes, and a return.",
    ),
    _p(
        "lift/<lift>/alone",
        Switch(),
        True,
        "lifts",
        "One at a time",
        "Who is lifted takes the place of whoever was.",
    ),
)

# ---- what is recorded: wishes, what stays out of a plan, and what a plan gave

_WISHED: Final = Reference(
    to=(
        "line/<line>",
        *(pattern_of(kind) for kind in KINDS),
        "talkback",
        "oscillator",
    )
)
_TRACK: Final = Number(unit="", lowest=0, highest=999, step=1, whole=True)
_WISH: Final = "wish/<wish>"

OF_TRACKS: Final[tuple[Parameter, ...]] = (
    _p(
        "plan/recorder",
        Reference(to=("output/<box>/<output>",)),
        None,
        "tracks",
        "Recorder",
        "The box that records, by its first output; none: the first box without preamps.",
    ),
    _p("plan/keep", Switch(), False, "tracks", "Keep last evening's", "As little moves as can."),
    _p(f"{_WISH}/place", Number(unit="", lowest=0, highest=9999, step=1, whole=True), 0.0,
       "tracks", "Place", "Place in the list; 0: no such wish."),
    _p(f"{_WISH}/source", _WISHED, None, "tracks", "Source", "What is to be recorded."),
    _p(f"{_WISH}/tap", Choice(options=TRACK_TAPS), "input", "tracks", "Taken",
       "Raw behind the preamp, processed before the fader, or as heard behind it."),
    _p(f"{_WISH}/stereo", Switch(), False, "tracks", "Stereo", "On an odd track and the even."),
    _p(f"{_WISH}/track", _TRACK, 0.0, "tracks", "Track", "Where it must stand; 0: anywhere."),
    _p(f"{_WISH}/rank", Number(unit="", lowest=0, highest=99, step=1, whole=True), 0.0,
       "tracks", "Rank", "0: a must; else if there is room, the lower first."),
    _p(f"{_WISH}/on_track", _TRACK, 0.0, "tracks", "Given", "Its track by the plan; 0: none."),
    _p("output/<box>/<output>/held", Switch(), False, "tracks", "Stays", "No plan moves it."),
    _p("mix/<mix>/for_tracks/held", Switch(), False, "tracks", "Stays", "No plan takes it."),
    _p("mix/<mix>/for_tracks/made", Switch(), False, "tracks", "For tracks",
       "A track plan set it up, and may set it up anew."),
    _p("channel/<channel>/played", Switch(), False, "patch", "Played back",
       "The key for playback switched it to its track; back lets it go again."),
)  # fmt: skip

# ---- cues from outside: what comes, and what it does

_CUE: Final = "cue/<cue>"
_CUED: Final = ("scene", "part", "fitting", "cast", "mute_group", "dca", "lift")

OF_CUES: Final[tuple[Parameter, ...]] = (
    _p(f"{_CUE}/comes", Text(longest=200), "", "cues", "What comes",
       "The message that it waits for; none: no such cue."),
    _p(f"{_CUE}/does", Choice(options=CUE_DEEDS), "go", "cues", "Does", "What it does."),
    _p(f"{_CUE}/what", Reference(to=tuple(f"{one}/<{one}>" for one in _CUED)), None, "cues",
       "What", "The scene, part, fitting, cast, mute group, DCA or lift."),
    _p(f"{_CUE}/on", Switch(), True, "cues", "On", "Muted or lifted; off: open or returned."),
    _p(f"{_CUE}/strip", Reference(to=("channel/<channel>", "return/<return>")), None, "cues",
       "Strip", "The channel that somebody goes on, or who is lifted."),
    _p(f"{_CUE}/note", Text(longest=200), "", "cues", "Note", "What is shown on Run."),
)  # fmt: skip

# ---- ears and wedges: whose a mix is, its start, its ends, its locks

_NO_LIMIT: Final = 126.0  # dB: from the quietest level that a send has to the loudest
_MIX: Final = "mix/<mix>"


def _starts_of(strip: str) -> tuple[Parameter, ...]:
    """What a send to a mix goes back to when somebody starts over; off: it has no start."""
    send = f"{strip}/send/{_MIX}"
    level, pan = "Level that start over leads back to; off: none.", "Its place at the start."
    return (
        _p(f"{send}/start", FADER, FADER.lowest, "ears", "Start", level, tie="equal"),
        _p(f"{send}/start_pan", PAN, 0.0, "ears", "Start pan", pan, tie="mirrored"),
    )


OF_EARS: Final[tuple[Parameter, ...]] = (
    *(one for kind in SENDERS for one in _starts_of(pattern_of(kind))),
    _p(
        f"channel/<channel>/send/{_MIX}/self",
        Switch(),
        False,
        "ears",
        "Self",
        "Whoever hears the mix is heard by this channel; any so chosen are all of them.",
        tie="equal",
    ),
    _p(f"{_MIX}/recipe", Text(longest=2_000), "", "ears", "Recipe", "What it is started by.",
       tie="equal"),
    _p(
        f"{_MIX}/aim",
        Number(unit="dB", lowest=-20.0, highest=30.0, step=0.5),
        3.0,
        "ears",
        "Aim",
        "How far self is to stand above the rest.",
        tie="equal",
    ),
    _p(f"{_MIX}/started", Switch(), False, "ears", "Has a start", "A start was taken.",
       tie="equal"),
    _p(f"{_MIX}/start_fader", FADER, 0.0, "ears", "Start of the fader",
       "Level that start over leads its fader back to.", tie="equal"),
    _p(f"{_MIX}/ceiling", FADER, FADER.highest, "ears", "Ceiling",
       "No phone raises its fader above it.", tie="equal"),
    _p(
        f"{_MIX}/limit",
        Number(unit="dB", lowest=0.0, highest=_NO_LIMIT, step=0.5),
        _NO_LIMIT,
        "ears",
        "Limit",
        "How far above its start a phone raises a send; 126: as far as it goes.",
        tie="equal",
    ),
    _p(f"{_MIX}/locked", Switch(), False, "ears", "Locked", "Phones move nothing of it.",
       tie="equal"),
    _p(f"{_MIX}/lock_reason", Text(longest=120), "", "ears", "Reason", "Why it is locked.",
       tie="equal"),
    *(
        _p(f"{_MIX}/shows_{family}", Switch(), True, "phones", f"Shows {family}",
           f"Phones show what of {family} is sent to it.", tie="equal")
        for family in FAMILIES
    ),
    _p("show/ears_locked", Switch(), False, "ears", "Phones locked", "They move nothing."),
    _p("show/ears_lock_reason", Text(longest=120), "", "ears", "Reason", "Why all are locked."),
)  # fmt: skip
