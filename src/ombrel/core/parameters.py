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
    "SERVES",
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
# The widest that a desk profile may name; a desk narrows it to its own (`addresses.kind_on`).
_GAIN = Number(unit="dB", lowest=-20.0, highest=90.0, step=1.0)
_INPUT = Reference(to=("input/<box>/<input>",))
_STEREO_BUSES = ("group/<group>", "mix/<mix>", "matrix/<matrix>", "house")
_BUSES = (*(f"{bus}{s}" for bus in _STEREO_BUSES for s in ("", "/left", "/right")), "mono")
_SOURCE = Reference(to=("input/<box>/<input>", "oscillator", "talkback", *_BUSES))
_RETURN_SOURCE = Reference(to=("engine/<engine>", "input/<box>/<input>"))
_BUS_SIDE = Reference(to=(*_BUSES, "channel/<channel>/direct"))
_STRIP = Reference(
    to=(
        "channel/<channel>",
        "return/<return>",
        "group/<group>",
        "mix/<mix>",
        "matrix/<matrix>",
        "dca/<dca>",
        "house",
        "mono",
    )
)
_FORMAT = Choice(options=("unused", "mono", "stereo"))


def _p(key: str, kind: Kind, default: Value, aspect: str, label: str, says: str) -> Parameter:
    return Parameter(key=key, kind=kind, default=default, aspect=aspect, label=label, says=says)


def _named(strip: str, of: str) -> tuple[Parameter, ...]:
    return (
        _p(f"{strip}/name", Text(), "", "name", "Name", f"Name of the {of}."),
        _p(f"{strip}/colour", Choice(options=COLOURS), "sand", "name", "Colour", "Its colour."),
    )


def _level(strip: str, of: str, *, fader_db: float) -> tuple[Parameter, ...]:
    return (
        _p(f"{strip}/fader", _FADER, fader_db, "fader", "Fader", f"Level of the {of}."),
        _p(f"{strip}/mute", Switch(), False, "mute", "Mute", f"The {of} is muted by its own key."),
        *_ruled(strip, of),
    )


def _ruled(strip: str, of: str) -> tuple[Parameter, ...]:
    """Which DCAs and mute groups rule a strip."""
    dca, muted = f"{strip}/dca/<dca>/on", f"{strip}/mute_group/<mute_group>/on"
    return (
        _p(dca, Switch(), False, "dcas", "Member", f"The DCA rules the {of}."),
        _p(muted, Switch(), False, "mute_groups", "Member", f"It mutes the {of} too."),
    )


def _format(strip: str, of: str) -> Parameter:
    says = f"The {of} is not in use, has one side, or two."
    return _p(f"{strip}/format", _FORMAT, "unused", "routing", "Format", says)


def _input(strip: str, of: str) -> tuple[Parameter, ...]:
    return (
        _p(f"{strip}/trim", _TRIM, 0.0, "preamp", "Trim", f"Digital gain behind the {of}'s input."),
        _p(f"{strip}/polarity", Switch(), False, "preamp", "Polarity", "Turned over."),
    )


def _pan(strip: str) -> Parameter:
    return _p(f"{strip}/pan", _PAN, 0.0, "pan", "Pan", "Place between left and right.")


def _assigned(strip: str, bus: str, label: str, *, on: bool) -> Parameter:
    says = f"Feeds the {label.lower()}, behind the fader."
    return _p(f"{strip}/{bus}/on", Switch(), on, "routing", label, says)


def _sends(strip: str, bus: str, *, tap: str) -> tuple[Parameter, ...]:
    send, to = f"{strip}/send/{bus}", bus.split("/")[0]
    return (
        _p(f"{send}/level", _FADER, -math.inf, "sends", "Send", f"Level of the send to a {to}."),
        _p(f"{send}/on", Switch(), True, "sends", "Send on", "The send is open."),
        _p(f"{send}/tap", Choice(options=TAPS), tap, "sends", "Tap", "Where it takes the signal."),
        _p(f"{send}/pan", _PAN, 0.0, "sends", "Send pan", f"Place in the {to}."),
    )


# Who mutes a microphone expects silence in the ears too: sends to mixes leave behind the mute.
_TO_MIX: Final = "before_fader_after_mute"
_TO_MATRIX: Final = "after_fader"


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
        _GAIN,
        0.0,
        "preamp",
        "Gain",
        "Gain of the preamp, within the range of the desk's own.",
    ),
    _p("input/<box>/<input>/pad", Switch(), False, "preamp", "Pad", "The preamp's pad."),
    _p("input/<box>/<input>/phantom", Switch(), False, "phantom", "48 V", "Phantom power."),
    # channels
    *_named("channel/<channel>", "channel"),
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
    *_input("channel/<channel>", "channel"),
    *_level("channel/<channel>", "channel", fader_db=-math.inf),
    _pan("channel/<channel>"),
    _assigned("channel/<channel>", "house", "House", on=True),
    _assigned("channel/<channel>", "mono", "Mono", on=False),
    _assigned("channel/<channel>", "group/<group>", "Group", on=False),
    *_sends("channel/<channel>", "mix/<mix>", tap=_TO_MIX),
    # returns: two sides, fed by an effect engine or by a pair of sockets
    *_named("return/<return>", "return"),
    _p(
        "return/<return>/source",
        _RETURN_SOURCE,
        None,
        "patch",
        "Source",
        "An effect engine, or a pair of sockets by its odd one (an outside effect).",
    ),
    *_input("return/<return>", "return"),
    *_level("return/<return>", "return", fader_db=-math.inf),
    _pan("return/<return>"),
    _assigned("return/<return>", "house", "House", on=True),
    _assigned("return/<return>", "mono", "Mono", on=False),
    _assigned("return/<return>", "group/<group>", "Group", on=False),
    *_sends("return/<return>", "mix/<mix>", tap=_TO_MIX),
    # effect engines: fed by a mix that serves an effect, wholly wet
    _p("engine/<engine>/name", Text(), "", "name", "Name", "Name of the effect."),
    _p(
        "engine/<engine>/source",
        Reference(to=("mix/<mix>",)),
        None,
        "patch",
        "Fed by",
        "The mix that feeds the effect.",
    ),
    # buses
    *_named("group/<group>", "group"),
    _format("group/<group>", "group"),
    *_level("group/<group>", "group", fader_db=0.0),
    _pan("group/<group>"),
    _assigned("group/<group>", "house", "House", on=True),
    _assigned("group/<group>", "mono", "Mono", on=False),
    *_sends("group/<group>", "mix/<mix>", tap=_TO_MIX),
    *_sends("group/<group>", "matrix/<matrix>", tap=_TO_MATRIX),
    *_named("mix/<mix>", "mix"),
    _format("mix/<mix>", "mix"),
    _p(
        "mix/<mix>/serves",
        Choice(options=SERVES),
        "ears",
        "routing",
        "Serves",
        "Who or what listens to it.",
    ),
    *_level("mix/<mix>", "mix", fader_db=0.0),
    *_sends("mix/<mix>", "matrix/<matrix>", tap=_TO_MATRIX),
    *_level("house", "house", fader_db=0.0),
    *_sends("house", "matrix/<matrix>", tap=_TO_MATRIX),
    *_level("mono", "mono bus", fader_db=0.0),
    *_sends("mono", "matrix/<matrix>", tap=_TO_MATRIX),
    *_named("matrix/<matrix>", "matrix"),
    _format("matrix/<matrix>", "matrix"),
    *_level("matrix/<matrix>", "matrix", fader_db=0.0),
    # what rules strips together
    *_named("dca/<dca>", "DCA"),
    _p("dca/<dca>/fader", _FADER, 0.0, "fader", "Fader", "What the DCA adds to its members."),
    _p("dca/<dca>/mute", Switch(), False, "mute", "Mute", "The DCA mutes its members."),
    _p(
        "dca/<dca>/dca/<dca>/on",
        Switch(),
        False,
        "dcas",
        "Member",
        "The first is a member of the second.",
    ),
    *_named("mute_group/<mute_group>", "mute group"),
    _p("mute_group/<mute_group>/on", Switch(), False, "mute", "On", "It mutes its members."),
    _p(
        "mute_group/<mute_group>/hard",
        Switch(),
        False,
        "mute_groups",
        "Hard",
        "While it is on, nothing of its members gets out, at any tap.",
    ),
    _p(
        "mute_group/<mute_group>/safe",
        Switch(),
        False,
        "mute_groups",
        "Safe",
        "Nothing moves its key until it is armed.",
    ),
    # what lies under the faders of the surface
    _p("bank/<bank>/name", Text(), "", "banks", "Bank", "Name of the bank."),
    _p("bank/<bank>/<bay>/<place>", _STRIP, None, "banks", "Strip", "Under this fader."),
    _p("bay/<bay>/fixed/<place>", _STRIP, None, "banks", "Fixed", "There on every bank."),
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
