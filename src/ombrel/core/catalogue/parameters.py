"""The catalogue: every address of a show, described once.

An address is a path such as `channel/7/send/mix/5/level`. A key is its pattern, with the name of a
dimension for each number or box: `channel/<channel>/send/mix/<mix>/level`. Validation, storage,
the wire, the generated types and the controls on the screen all read this one list.
"""

import math
from dataclasses import replace
from typing import Final

from ..values import HIGHEST_BPM, LOWEST_BPM, Choice, Number, Reference, Switch, Text
from .bearing import bearings_of, check_bearings
from .beside_parameters import BESIDE_STRIPS, OF_CUES, OF_EARS, OF_TRACKS
from .choices import COLOURS, DEVICES, FAMILIES, HOUSE_STARTS, LINE_KINDS, SERVES, SOLO_MODES, TAPS
from .fitting_parameters import OF_CHANNELS_ON, OF_FITTINGS, values_of_fittings
from .processing_parameters import crossing, effect_of, processing_of
from .scene_parameters import OF_SCENES
from .strip_parameters import (
    FADER,
    TO_MATRIX,
    TO_MIX,
    Parameter,
    assigned,
    followed,
    format_of,
    input_of,
    into_group,
    level_of,
    named,
    pan_of,
    sends_of,
    sings_of,
    takes_of,
)
from .strip_parameters import entry as _p

__all__ = ["CATALOGUE", "Parameter", "catalogue_of"]

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
_CARRIED = Reference(
    to=(
        *_BUSES,
        "channel/<channel>/direct",
        *(
            f"{one}{side}"
            for one in ("return/<return>", "solo")
            for side in ("", "/left", "/right")
        ),
        "talkback",
        "oscillator",
    )
)
_LINKED = "It, the odd one, and the even above it are one pair."
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


def catalogue_of(*parameters: Parameter) -> dict[str, Parameter]:
    """A catalogue by key. ValueError for a key given twice or a default outside its own range."""
    catalogue: dict[str, Parameter] = {}
    for parameter in parameters:
        if parameter.key in catalogue:
            raise ValueError(f"{parameter.key} stands in the catalogue twice")
        if parameter.kind.checked(parameter.default, parameter.key) != parameter.default:
            raise ValueError(f"{parameter.key} does not accept its own default")
        catalogue[parameter.key] = replace(parameter, bears_on=bearings_of(parameter.key))
    return catalogue


_OF_DESKS_AND_SHOWS: Final = (
    _p("show/name", Text(), "", "name", "Show", "Name of the show."),
    _p(
        "show/target_dbfs",
        Number(unit="dB", lowest=-40.0, highest=-3.0, step=0.5),
        -18.0,
        "preamp",
        "Target level",
        "Level behind the preamps that suggested gains aim at, in dBFS (-18: common practice).",
    ),
    _p(
        "show/solo",
        Choice(options=SOLO_MODES),
        "before_fader",
        "solo",
        "Solo",
        "Where solo keys lead: the engineer's bus, before or after the fader, or in place.",
    ),
    _p(
        "show/temperature_c",
        Number(unit="°C", lowest=-20.0, highest=50.0, step=0.5),
        20.0,
        "outputs",
        "Temperature",
        "Of the air, for delays typed as distances.",
    ),
    _p(
        "show/tempo",
        Number(unit="bpm", lowest=LOWEST_BPM, highest=HIGHEST_BPM, step=0.1),
        120.0,
        "effects",
        "Tempo",
        "In quarter notes a minute, for delays that are held to it.",
    ),
    *(
        _p(
            f"show/house_{what}",
            Switch(),
            starts,
            "lines",
            f"{what.capitalize()} in the house",
            "Whether a channel of it starts in the house.",
        )
        for what, starts in HOUSE_STARTS.items()
    ),
    # lines: what stands on the stage
    _p("line/<line>/place", _PLACE, 0.0, "lines", "Place", "Place in the list; 0: no such line."),
    _p("line/<line>/name", Text(longest=120), "", "lines", "Name", "What it is called on stage."),
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
    *followed(
        _p(
            "input/<box>/<input>/gain",
            _GAIN,
            0.0,
            "preamp",
            "Gain",
            "Gain of the preamp, within the range of the desk's own.",
            gang="gain",
            tie="ganged",
        )
    ),
    _p("input/<box>/<input>/pad", Switch(), False, "preamp", "Pad", "The preamp's pad."),
    _p("input/<box>/<input>/phantom", Switch(), False, "phantom", "48 V", "Phantom power."),
    # channels
    *named("channel/<channel>", "channel"),
    _p("channel/<channel>/linked", Switch(), False, "gangs", "Linked", _LINKED),
    _p("channel/<channel>/source", _SOURCE, None, "patch", "Source", "What feeds it (source A)."),
    _p(
        "channel/<channel>/spare",
        _SOURCE,
        None,
        "patch",
        "Spare",
        "A second source, kept ready.",
    ),
    _p("channel/<channel>/on_spare", Switch(), False, "patch", "On spare", "Fed by the spare."),
    _p(
        "channel/<channel>/fixed",
        Switch(),
        False,
        "patch",
        "Reserved",
        "A fill skips it: its source stays.",
    ),
    *input_of("channel/<channel>", "channel"),
    *processing_of("channel/<channel>", "channel", gate=True),
    *level_of("channel/<channel>", "channel", fader_db=-math.inf),
    *pan_of("channel/<channel>"),
    assigned("channel/<channel>", "house", "House", on=True),
    assigned("channel/<channel>", "mono", "Mono", on=False),
    *into_group("channel/<channel>"),
    *sends_of("channel/<channel>", "mix/<mix>", tap=TO_MIX),
    sings_of("channel/<channel>"),
    *OF_CHANNELS_ON,
    # returns: two sides, fed by an effect engine or by a pair of sockets
    *named("return/<return>", "return"),
    _p(
        "return/<return>/source",
        _RETURN_SOURCE,
        None,
        "patch",
        "Source",
        "An effect engine, or a pair of sockets by its odd one (an outside effect).",
    ),
    *input_of("return/<return>", "return"),
    *processing_of("return/<return>", "return", gate=False),
    *level_of("return/<return>", "return", fader_db=-math.inf),
    *pan_of("return/<return>"),
    assigned("return/<return>", "house", "House", on=True),
    assigned("return/<return>", "mono", "Mono", on=False),
    *into_group("return/<return>"),
    *sends_of("return/<return>", "mix/<mix>", tap=TO_MIX),
    sings_of("return/<return>"),
    # the desk's own tone
    _p(
        "oscillator/kind",
        Choice(options=("sine", "pink_noise")),
        "sine",
        "oscillator",
        "Oscillator",
        "What the oscillator makes.",
    ),
    _p(
        "oscillator/frequency",
        Number(unit="Hz", lowest=20.0, highest=20_000.0, step=0.1, law="octaves"),
        1_000.0,
        "oscillator",
        "Frequency",
        "Of its sine.",
    ),
    _p(
        "oscillator/level",
        Number(unit="dB", lowest=-60.0, highest=0.0, step=0.5),
        -20.0,
        "oscillator",
        "Oscillator level",
        "In dBFS.",
    ),
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
    *effect_of("engine/<engine>"),
    # buses
    *named("group/<group>", "group"),
    format_of("group/<group>", "group"),
    *processing_of("group/<group>", "group", gate=False),
    *level_of("group/<group>", "group", fader_db=0.0),
    *pan_of("group/<group>"),
    *into_group("group/<group>"),
    assigned("group/<group>", "house", "House", on=True),
    assigned("group/<group>", "mono", "Mono", on=False),
    *sends_of("group/<group>", "mix/<mix>", tap=TO_MIX),
    *sends_of("group/<group>", "matrix/<matrix>", tap=TO_MATRIX),
    *named("mix/<mix>", "mix"),
    format_of("mix/<mix>", "mix"),
    _p("mix/<mix>/linked", Switch(), False, "gangs", "Linked", _LINKED),
    _p(
        "mix/<mix>/serves",
        Choice(options=SERVES),
        "ears",
        "routing",
        "Used for",
        "Who or what listens to it.",
    ),
    *processing_of("mix/<mix>", "mix", gate=False),
    *level_of("mix/<mix>", "mix", fader_db=0.0),
    *sends_of("mix/<mix>", "matrix/<matrix>", tap=TO_MATRIX),
    *processing_of("house", "house", gate=False),
    *level_of("house", "house", fader_db=0.0),
    *sends_of("house", "matrix/<matrix>", tap=TO_MATRIX),
    *processing_of("mono", "mono bus", gate=False),
    *crossing("mono"),
    *level_of("mono", "mono bus", fader_db=0.0),
    *sends_of("mono", "matrix/<matrix>", tap=TO_MATRIX),
    *named("matrix/<matrix>", "matrix"),
    format_of("matrix/<matrix>", "matrix"),
    *processing_of("matrix/<matrix>", "matrix", gate=False),
    *level_of("matrix/<matrix>", "matrix", fader_db=0.0),
    # what rules strips together
    *named("dca/<dca>", "DCA"),
    takes_of("dca/<dca>"),
    _p("dca/<dca>/fader", FADER, 0.0, "fader", "Fader", "What the DCA adds to its members."),
    _p("dca/<dca>/mute", Switch(), False, "mute", "Mute", "The DCA mutes its members."),
    _p("dca/<dca>/solo", Switch(), False, "solo", "Solo", "All strips that it rules are soloed."),
    _p(
        "dca/<dca>/dca/<dca>/on",
        Switch(),
        False,
        "dcas",
        "Member",
        "The first is a member of the second.",
    ),
    *named("mute_group/<mute_group>", "mute group"),
    takes_of("mute_group/<mute_group>"),
    _p("mute_group/<mute_group>/on", Switch(), False, "mute", "On", "It mutes its members."),
    _p(
        "mute_group/<mute_group>/hard",
        Switch(),
        False,
        "mute_groups",
        "Seal",
        "While it is on, nothing of its members gets out, at any tap.",
    ),
    _p(
        "mute_group/<mute_group>/safe",
        Switch(),
        False,
        "mute_groups",
        "Locked",
        "Nothing moves its key until it is unlocked.",
    ),
    *OF_EARS,
    *BESIDE_STRIPS,
    *OF_TRACKS,
    *OF_CUES,
    *OF_SCENES,
    *OF_FITTINGS,
    # what lies under the faders of the surface
    _p("bank/<bank>/name", Text(), "", "banks", "Bank", "Name of the bank."),
    _p(
        "bank/<bank>/<bay>/<place>",
        _STRIP,
        None,
        "banks",
        "Strip",
        "Under this fader, page after page.",
    ),
    _p("bay/<bay>/fixed/<fader>", _STRIP, None, "banks", "Always here", "There on every bank."),
    # outputs: one source each, by construction
    _p("output/<box>/<output>/source", _CARRIED, None, "patch", "Source", "What it carries."),
    _p(
        "output/<box>/<output>/tap",
        Choice(options=TAPS),
        "after_fader",
        "patch",
        "Tap",
        "Where along the strip it takes the signal: channels and returns anywhere, buses from the"
        " fader on.",
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
    _p("output/<box>/<output>/polarity", Switch(), False, "outputs", "Polarity", "Inverted."),
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

CATALOGUE: Final = catalogue_of(*_OF_DESKS_AND_SHOWS, *values_of_fittings(_OF_DESKS_AND_SHOWS))
check_bearings(CATALOGUE)
