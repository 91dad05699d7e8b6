"""Sheets for paper and spreadsheets: tables of a show, with numbers as numbers."""

import math
from collections.abc import Callable, Mapping
from typing import Final

from ..casting import cast_sheet, radio_sheet
from ..catalogue import GANG_ASPECTS, Thing, of_kind, option_text, thing_of
from ..cues import cues, cues_sheet
from ..flow import Flow, State, flow_of, strip_name
from ..scenes import cue_sheet
from ..sharing import Sharing, sharings
from ..show import (
    SIDE_WORDS,
    Show,
    channels_on,
    lines_on,
    returns_on,
    socket_name,
    sockets_of_line,
    strips_text,
)
from ..together import members_of, pairs_in_use, partner_of, rulers_in_use
from ..tracks import has_recorder, track_sheet, wishes
from ..values import Column, Datum, Sheet, datum_text, said
from .assignments import assignments_sheet

__all__ = [
    "input_list_columns",
    "sheet_keys",
    "sheet_of",
    "sheet_title",
]


def _column(title: str, unit: str = "", **more: bool | int) -> Column:
    return Column(title=title, unit=unit, **more)  # type: ignore[arg-type]


_INPUT_LIST: Final = (
    _column("No."),
    _column("Channel"),
    _column("Name"),
    _column("Stereo"),
    _column("Kind"),
    _column("Mic or DI"),
    _column("48 V"),
    _column("Stand"),
    _column("Performer"),
    _column("Where"),
    _column("Socket"),
    _column("Level", "dBu", signed=True, paper=False),
    _column("Notes"),
    _column("Family", paper=False),
    _column("Colour", paper=False),
    _column("Also on", paper=False),
)


def input_list_columns() -> tuple[str, ...]:
    """The headings of the input list in files, by which it is known again when it comes back."""
    return tuple(column.heading for column in _INPUT_LIST)


_TITLES: Final = {
    "input-list": "Input list",
    "patch-sheet": "Patch sheet",
    "output-list": "Output list",
    "cues": "Cue sheet",
    "outside": "Cues from outside",
    "cast": "Cast",
    "radios": "Radios",
    "tracks": "Track sheet",
    "rulers": "DCAs, mute groups, gangs, pairs",
    "assignments": "Assignments",
}


def _numbers(found: list[int], joint: str) -> Datum:
    return found[0] if len(found) == 1 else joint.join(str(number) for number in found)


def _input_list(show: Show) -> Sheet:
    """Every line in the list's order, with its channel and socket."""
    rows = []
    for place, line in enumerate(show.lines(), start=1):
        sockets = sockets_of_line(show, line)
        by_side = [channels_on(show, socket) for socket in sockets]
        text = {
            leaf: show.text(f"line/{line}/{leaf}")
            for leaf in ("name", "kind", "microphone", "stand", "performer", "where", "notes",
                         "family", "colour")
        }  # fmt: skip
        text["name"] = strip_name(show, f"line/{line}")
        rows.append(
            (
                place,
                _numbers([numbers[0] for numbers in by_side if numbers], "/"),
                text["name"],
                "stereo" if show.on(f"line/{line}/stereo") else "",
                text["kind"].replace("_", " "),  # as lists are read back
                text["microphone"],
                "48 V" if show.on(f"line/{line}/phantom") else "",
                text["stand"],
                text["performer"],
                text["where"],
                ", ".join(socket_name(show.desk, socket) for socket in sockets),
                show.number(f"line/{line}/level_dbu"),
                text["notes"],
                text["family"],
                text["colour"],
                _numbers([n for numbers in by_side for n in numbers[1:]], ", "),
            )
        )
    return Sheet(
        key="input-list", title=_TITLES["input-list"], columns=_INPUT_LIST, rows=tuple(rows)
    )


_PATCH: Final = (
    _column("Box"),
    _column("Socket"),
    _column("Line"),
    _column("Where"),
    _column("Gain", "dB", signed=True),
    _column("48 V"),
    _column("Pad"),
    _column("Channel"),
)


def _patch_sheet(show: Show) -> Sheet:
    """Every input socket that is used, box by box: for the person with the multicore."""
    rows: list[tuple[Datum, ...]] = []
    back = returns_on(show)
    for socket in show.inputs():
        lines, channels = lines_on(show, socket), channels_on(show, socket)
        strips = [f"{n} {strip_name(show, f'channel/{n}')}" for n in channels]
        strips += [f"R{n} {strip_name(show, f'return/{n}')}" for n in back.get(socket, ())]
        if not lines and not strips:
            continue
        box = show.desk.box(Thing.at(socket).box)
        preamp = box is not None and box.preamps
        stands = {show.text(f"line/{line}/where") for line in lines} - {""}
        rows.append(
            (
                box.name if box else "",
                Thing.at(socket).number,
                " + ".join(_side_name(show, line, socket) for line in lines) or "\u2014",
                ", ".join(sorted(stands)),
                show.number(f"{socket}/gain") if preamp else "",
                "48 V" if preamp and show.on(f"{socket}/phantom") else "",
                "pad" if preamp and show.on(f"{socket}/pad") else "",
                ", ".join(strips),
            )
        )
    return Sheet(key="patch-sheet", title=_TITLES["patch-sheet"], columns=_PATCH, rows=tuple(rows))


def _side_name(show: Show, line: int, socket: str) -> str:
    name = strip_name(show, f"line/{line}")
    if not show.on(f"line/{line}/stereo"):
        return name
    return f"{name} {'L' if show[f'line/{line}/socket'] == socket else 'R'}"


_OUTPUTS: Final = (
    _column("Box"),
    _column("Socket"),
    _column("Carries"),
    _column("Tap"),
    _column("Trim", "dB", signed=True, places=1),
    _column("Delay", "ms", places=1),
    _column("Polarity"),
    _column("Device"),
    _column("Connected"),
)


def _output_list(show: Show) -> Sheet:
    """Every output socket that carries something or has something connected."""
    rows: list[tuple[Datum, ...]] = []
    for socket in show.outputs():
        source, label = show[f"{socket}/source"], show.text(f"{socket}/label")
        device = show.text(f"{socket}/device")
        if source is None and not label and device == "none":
            continue
        box = show.desk.box(Thing.at(socket).box)
        carries = "\u2014"
        if isinstance(source, str):
            carries = strip_name(show, thing_of(source)) + SIDE_WORDS[Thing.at(source).side]
        trim_db, delay_ms = show.number(f"{socket}/trim"), show.number(f"{socket}/delay_ms")
        rows.append(
            (
                box.name if box else "",
                Thing.at(socket).number,
                carries,
                option_text(show.text(f"{socket}/tap")) if source else "",
                trim_db if trim_db else "",
                delay_ms if delay_ms else "",
                "inverted" if show.on(f"{socket}/polarity") else "",
                "" if device == "none" else option_text(device),
                label,
            )
        )
    return Sheet(
        key="output-list", title=_TITLES["output-list"], columns=_OUTPUTS, rows=tuple(rows)
    )


_MIX: Final = (
    _column("Source"),
    _column("Name"),
    _column("Own"),
    _column("Send", "dB", signed=True, places=1),
    _column("Pan"),
    _column("Tap"),
    _column("Arrives", "dB", signed=True, places=1),
    _column("Silent, for"),
)
_SILENT: Final = {
    State.UNROUTED: "not sent",
    State.MUTED: "muted",
    State.NO_SOURCE: "no source",
    State.NO_OUTPUT: "no output",
    State.DOWN: "a fader is off",
    State.CANCELLED: "cancelled by itself",
}


def _mix_sheet(show: Show, flow: Flow, mix: int) -> Sheet:
    """What one performer hears: every source that is sent to the mix, or arrives all the same."""
    rows: list[tuple[Datum, ...]] = []
    listener = flow.layout.column(f"mix/{mix}")
    name = strip_name(show, f"mix/{mix}")
    own = _own_channels(show, name)
    strips = [f"channel/{n}" for n in show.channels()]
    strips += [f"return/{n}" for n in range(1, show.desk.returns + 1)]
    for strip in strips:
        cell = flow.cell(flow.layout.row(strip), listener)
        send = f"{strip}/send/mix/{mix}"
        sent = show.on(f"{send}/on") and show.number(f"{send}/level") > -math.inf
        if not sent and cell.state != State.HEARD:
            continue
        kind, number = of_kind(strip), Thing.at(strip).number
        rows.append(
            (
                number if kind == "channel" else f"R{number}",
                strip_name(show, strip),
                "own" if strip in own else "",
                show.number(f"{send}/level") if sent else "",
                _pan(show.number(f"{send}/pan")) if sent else "",
                option_text(show.text(f"{send}/tap")) if sent else "",
                cell.level_db if cell.state == State.HEARD else "",
                "" if cell.state == State.HEARD else _SILENT[cell.state],
            )
        )
    fader = datum_text(_MIX[3], show.number(f"mix/{mix}/fader"))
    muted = ", muted" if show.on(f"mix/{mix}/mute") else ""
    sockets = [
        socket_name(show.desk, s)
        for s in show.outputs()
        if isinstance(show[f"{s}/source"], str)
        and thing_of(str(show[f"{s}/source"])) == f"mix/{mix}"
    ]
    about = f"{show.text(f'mix/{mix}/format').capitalize()}, fader {fader}{muted}"
    about += f"; at {', '.join(sockets)}" if sockets else "; at no output"
    return Sheet(
        key=f"mix-{mix}",
        title=sheet_title(show, f"mix-{mix}"),
        columns=_MIX,
        rows=tuple(rows),
        about=about,
    )


def _own_channels(show: Show, performer: str) -> set[str]:
    return {
        f"channel/{number}"
        for line in show.lines()
        if performer and show.text(f"line/{line}/performer") == performer
        for socket in sockets_of_line(show, line)
        for number in channels_on(show, socket)
    }


def _pan(pan: float) -> str:
    if not pan:
        return "centre"
    return f"{said(abs(pan) * 100.0, 0)} % {'left' if pan < 0 else 'right'}"


_WHOLE: Final[Mapping[str, Callable[[Show], Sheet]]] = {
    "input-list": _input_list,
    "patch-sheet": _patch_sheet,
    "output-list": _output_list,
    "assignments": lambda show: assignments_sheet(show, _TITLES["assignments"]),
}


_RULERS: Final = (
    _column("Kind"),
    _column("No."),
    _column("Name"),
    _column("Level", "dB", signed=True, places=1),
    _column("Key"),
    _column("Strips"),
    _column("Members"),
)


_KEY_WORDS: Final = {"hard": "seal", "safe": "locked", "on": "on"}


def _ruler_sheet(show: Show) -> Sheet:
    """DCAs, mute groups and gangs with their members, as strips and by name; linked pairs, and who

    shares gain.
    """
    rows: list[tuple[Datum, ...]] = []
    for kind, word in (("dca", "DCA"), ("mute_group", "Mute group"), ("gang", "Gang")):
        for ruler in rulers_in_use(show, kind):
            level_db: Datum = ""
            if kind == "dca":
                level_db = show.number(f"{ruler}/fader")
                key = "muted" if show.on(f"{ruler}/mute") else ""
            elif kind == "mute_group":
                words = [word for leaf, word in _KEY_WORDS.items() if show.on(f"{ruler}/{leaf}")]
                key = ", ".join(words)
            else:
                key = "resting" if show.on(f"{ruler}/suspended") else ""
                what = [w for a, w in GANG_ASPECTS.items() if show.on(f"{ruler}/carries_{a}")]
                key = ", ".join([*([key] if key else []), *(w.lower() for w in what)])
            members = members_of(show, ruler)
            names = ", ".join(strip_name(show, member) for member in members)
            number = Thing.at(ruler).number
            name = strip_name(show, ruler)
            rows.append((word, number, name, level_db, key, strips_text(members), names))
    for odd in pairs_in_use(show):
        sides = [odd, str(partner_of(show, odd))]
        name = ", ".join(strip_name(show, side) for side in sides)
        number = Thing.at(odd).number
        rows.append(("Pair", number, name, "", "linked", strips_text(sides), name))
    rows += [_sharing_row(group) for group in sharings(show)]
    return Sheet(key="rulers", title=_TITLES["rulers"], columns=_RULERS, rows=tuple(rows))


def _sharing_row(group: Sharing) -> tuple[Datum, ...]:
    """A group that shares gain: its terms, and its members with their weights."""
    where = "before the fader" if group.before_fader else "behind the fader"
    terms = [f"{said(group.time_s * 1000.0, 0)} ms", where]
    terms += [f"limit {said(group.limit_db)} dB"] if group.limit_db > -math.inf else []
    names = []
    for one in group.members:
        how = "held open" if one.held else "out" if one.out else ""
        how = how or (said(one.weight_db, signed=True) if one.weight_db else "")
        names.append(f"{one.name} ({how})" if how else one.name)
    strips = [side for one in group.members for side in one.sides]
    number = Thing.at(group.group).number
    return (
        "Shared gain", number, group.name, "", ", ".join(terms), strips_text(strips),
        ", ".join(names),
    )  # fmt: skip


def sheet_keys(show: Show) -> tuple[str, ...]:
    """The keys of all sheets of a show: lists of the whole, then one for each performer's mix."""
    mixes = [n for n in show.mixes() if show.text(f"mix/{n}/serves") in ("ears", "wedge")]
    ruling = any(rulers_in_use(show, kind) for kind in ("dca", "mute_group", "gang"))
    rulers = ("rulers",) if ruling or pairs_in_use(show) or sharings(show) else ()
    scenes = ("cues",) if show.scenes else ()
    outside = ("outside",) if cues(show) else ()
    company = ("cast", "radios") if show.has_parts else ()
    planned = has_recorder(show) and any(wish.given for wish in wishes(show))
    tracks = ("tracks",) if planned else ()
    return (
        *_WHOLE,
        *rulers,
        *scenes,
        *outside,
        *company,
        *tracks,
        *(f"mix-{number}" for number in mixes),
    )


def sheet_title(show: Show, key: str) -> str:
    """What a sheet of `sheet_keys` is called, without making it."""
    if key.startswith("mix-"):
        mix = key.removeprefix("mix-")
        return f"Mix {mix}: {strip_name(show, f'mix/{mix}')}"
    return _TITLES[key]


def sheet_of(show: Show, key: str, flow: Flow | None = None) -> Sheet | None:
    """The sheet of a key, or None for a key that there is not. `flow`: the show's, if at hand."""
    if key in _WHOLE:
        return _WHOLE[key](show)
    if key not in sheet_keys(show):
        return None
    if key == "rulers":
        return _ruler_sheet(show)
    if key == "cues":
        return cue_sheet(show, _TITLES[key])
    if key == "outside":
        return cues_sheet(show, _TITLES[key])
    if key == "cast":
        return cast_sheet(show, _TITLES[key])
    if key == "tracks":
        return track_sheet(show, _TITLES[key])
    if key == "radios":
        return radio_sheet(show, _TITLES[key])
    return _mix_sheet(show, flow or flow_of(show), int(key.removeprefix("mix-")))
