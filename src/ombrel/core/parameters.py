"""The catalogue: every address of a show, described once.

An address is a path such as `channel/7/send/mix/5/level`. A key is its pattern, with the name of a
dimension for each number or box: `channel/<channel>/send/mix/<mix>/level`. Validation, storage,
the wire, the generated types and the controls on the screen all read this one list.
"""

import math
from dataclasses import dataclass
from typing import Final

from .kinds import Choice, Kind, Number, Reference, Switch, Text, Value

__all__ = [
    "CATALOGUE",
    "COLOURS",
    "DEVICES",
    "FAMILIES",
    "LINE_KINDS",
    "TAPS",
    "Parameter",
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Parameter:
    """All that is known of one kind of address. `aspect`: what scenes will carry it as."""

    key: str
    kind: Kind
    default: Value
    aspect: str
    label: str
    says: str


# -120 dB is below the quietest step of a 20-bit converter: nothing between it and off is of use.
_FADER = Number(
    unit="dB", lowest=-math.inf, highest=6.0, step=0.1, law="fader", lowest_finite=-120.0
)
_PAN = Number(unit="pan", lowest=-1.0, highest=1.0, step=0.01)
_TRIM = Number(unit="dB", lowest=-20.0, highest=20.0, step=0.1)
_DBU = Number(unit="dBu", lowest=-80.0, highest=24.0, step=0.5)
_PLACE = Number(unit="", lowest=0, highest=9999, step=1, whole=True)
_INPUT = Reference(to=("input/<box>/<input>",))
_BUSES = (
    "mix/<mix>",
    "mix/<mix>/left",
    "mix/<mix>/right",
    "house",
    "house/left",
    "house/right",
    "mono",
)
_SOURCE = Reference(to=("input/<box>/<input>", "oscillator", "talkback", *_BUSES))
_BUS_SIDE = Reference(to=(*_BUSES, "channel/<channel>/direct"))


def _p(key: str, kind: Kind, default: Value, aspect: str, label: str, says: str) -> Parameter:
    return Parameter(key=key, kind=kind, default=default, aspect=aspect, label=label, says=says)


def catalogue_of(*parameters: Parameter) -> dict[str, Parameter]:
    """A catalogue by key. ValueError for a key given twice or a default outside its own range."""
    catalogue: dict[str, Parameter] = {}
    for parameter in parameters:
        if parameter.key in catalogue:
            raise ValueError(f"{parameter.key} stands in the catalogue twice")
        if parameter.kind.checked(parameter.default, parameter.key) != parameter.default:
            raise ValueError(f"{parameter.key} does not accept its own default")
        catalogue[parameter.key] = parameter
    return catalogue


CATALOGUE: Final = catalogue_of(
    _p("show/name", Text(), "", "name", "Show", "Name of the show."),
    _p(
        "show/target_dbfs",
        Number(unit="dB", lowest=-40.0, highest=-3.0, step=0.5),
        -18.0,
        "preamp",
        "Target level",
        "Level behind the preamps that suggested gains aim at, in dBFS (-18: common practice).",
    ),
    # lines: what stands on the stage
    _p("line/<line>/place", _PLACE, 0.0, "lines", "Place", "Place in the list; 0: no such line."),
    _p("line/<line>/name", Text(), "", "lines", "Name", "What it is called on stage."),
    _p("line/<line>/kind", Choice(options=LINE_KINDS), "dynamic", "lines", "Kind", "What it is."),
    _p("line/<line>/stereo", Switch(), False, "lines", "Stereo", "It needs two sockets."),
    _p("line/<line>/socket", _INPUT, None, "lines", "Socket", "Input that it is plugged into."),
    _p("line/<line>/socket_right", _INPUT, None, "lines", "Socket, right", "Its right side's."),
    _p("line/<line>/performer", Text(), "", "lines", "Performer", "Who uses it."),
    _p("line/<line>/where", Text(), "", "lines", "Where", "Where on the stage it stands."),
    _p("line/<line>/stand", Text(), "", "lines", "Stand", "What it stands on."),
    _p("line/<line>/microphone", Text(), "", "lines", "Mic or DI", "Microphone or DI box."),
    _p("line/<line>/phantom", Switch(), False, "lines", "Needs 48 V", "It needs phantom power."),
    _p("line/<line>/level_dbu", _DBU, -40.0, "lines", "Level", "Level expected from it, in dBu."),
    _p(
        "line/<line>/family",
        Choice(options=FAMILIES),
        "unsorted",
        "lines",
        "Family",
        "What it belongs to, for mixes and performers' pages.",
    ),
    _p("line/<line>/colour", Choice(options=COLOURS), "sand", "lines", "Colour", "Its colour."),
    _p(
        "line/<line>/check",
        Choice(options=("unchecked", "good", "bad")),
        "unchecked",
        "check",
        "Check",
        "What the line check found.",
    ),
    _p("line/<line>/check_note", Text(longest=200), "", "check", "Check note", "What was wrong."),
    _p("line/<line>/notes", Text(longest=400), "", "lines", "Notes", "Anything to remember."),
    # preamps belong to the socket: channels that share a socket share them
    _p(
        "input/<box>/<input>/gain",
        Number(unit="dB", lowest=0.0, highest=60.0, step=1.0),
        0.0,
        "preamp",
        "Gain",
        "Gain of the preamp.",
    ),
    _p("input/<box>/<input>/pad", Switch(), False, "preamp", "Pad", "The preamp's pad."),
    _p("input/<box>/<input>/phantom", Switch(), False, "phantom", "48 V", "Phantom power."),
    # channels
    _p("channel/<channel>/name", Text(), "", "name", "Name", "Name of the strip."),
    _p("channel/<channel>/colour", Choice(options=COLOURS), "sand", "name", "Colour", "Colour."),
    _p("channel/<channel>/source", _SOURCE, None, "patch", "Source", "What feeds it (source A)."),
    _p(
        "channel/<channel>/spare",
        _SOURCE,
        None,
        "patch",
        "Spare",
        "A second source, kept ready (source B).",
    ),
    _p("channel/<channel>/on_spare", Switch(), False, "patch", "On spare", "Fed by the spare."),
    _p(
        "channel/<channel>/fixed",
        Switch(),
        False,
        "patch",
        "Fixed",
        "A fill passes it by: its source stays.",
    ),
    _p("channel/<channel>/trim", _TRIM, 0.0, "preamp", "Trim", "Digital gain behind the input."),
    _p("channel/<channel>/polarity", Switch(), False, "preamp", "Polarity", "Turned over."),
    _p("channel/<channel>/fader", _FADER, -math.inf, "fader", "Fader", "Level of the channel."),
    _p("channel/<channel>/mute", Switch(), False, "mute", "Mute", "Muted by its own key."),
    _p("channel/<channel>/pan", _PAN, 0.0, "pan", "Pan", "Place between left and right."),
    _p("channel/<channel>/house/on", Switch(), True, "routing", "House", "Feeds the house."),
    _p("channel/<channel>/mono/on", Switch(), False, "routing", "Mono", "Feeds the mono bus."),
    _p(
        "channel/<channel>/send/mix/<mix>/level",
        _FADER,
        -math.inf,
        "sends",
        "Send",
        "Level of the send to a mix.",
    ),
    _p("channel/<channel>/send/mix/<mix>/on", Switch(), True, "sends", "Send on", "Send open."),
    _p(
        "channel/<channel>/send/mix/<mix>/tap",
        Choice(options=TAPS),
        "before_fader",
        "sends",
        "Tap",
        "Where along the channel the send takes its signal.",
    ),
    _p("channel/<channel>/send/mix/<mix>/pan", _PAN, 0.0, "sends", "Send pan", "Place in the mix."),
    # buses
    _p("mix/<mix>/name", Text(), "", "name", "Name", "Name of the mix."),
    _p("mix/<mix>/colour", Choice(options=COLOURS), "sand", "name", "Colour", "Colour."),
    _p(
        "mix/<mix>/format",
        Choice(options=("unused", "mono", "stereo")),
        "unused",
        "routing",
        "Format",
        "Not in use, one side, or two.",
    ),
    _p(
        "mix/<mix>/serves",
        Choice(options=("ears", "wedge", "room", "feed", "effect")),
        "ears",
        "routing",
        "Serves",
        "Who or what listens to it.",
    ),
    _p("mix/<mix>/fader", _FADER, 0.0, "fader", "Master", "Level of the mix as a whole."),
    _p("mix/<mix>/mute", Switch(), False, "mute", "Mute", "The mix is muted."),
    _p("house/fader", _FADER, 0.0, "fader", "House", "Level of the house."),
    _p("house/mute", Switch(), False, "mute", "Mute", "The house is muted."),
    _p("mono/fader", _FADER, 0.0, "fader", "Mono", "Level of the mono bus."),
    _p("mono/mute", Switch(), False, "mute", "Mute", "The mono bus is muted."),
    # outputs: one source each, by construction
    _p("output/<box>/<output>/source", _BUS_SIDE, None, "patch", "Source", "What it carries."),
    _p(
        "output/<box>/<output>/tap",
        Choice(options=TAPS),
        "after_fader",
        "patch",
        "Tap",
        "Where along the strip it takes the signal: channels anywhere, buses from the fader on.",
    ),
    _p("output/<box>/<output>/trim", _TRIM, 0.0, "outputs", "Trim", "Level behind the tap."),
    _p(
        "output/<box>/<output>/delay_ms",
        Number(unit="ms", lowest=0.0, highest=500.0, step=0.1),
        0.0,
        "outputs",
        "Delay",
        "Delay of the output, in milliseconds.",
    ),
    _p("output/<box>/<output>/polarity", Switch(), False, "outputs", "Polarity", "Turned over."),
    _p(
        "output/<box>/<output>/device",
        Choice(options=DEVICES),
        "none",
        "outputs",
        "Device",
        "What kind of thing is connected.",
    ),
    _p("output/<box>/<output>/label", Text(), "", "outputs", "Connected", "What is plugged in."),
)
