"""A strip from top to bottom: its stages in order, at a glance, and who takes it at which tap."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..catalogue import (
    ALONE,
    BANDS,
    CROSSED,
    FORMATTED,
    KINDS,
    SOURCES,
    TAPS,
    Thing,
    check_strip,
    of_kind,
    thing_of,
)
from ..flow import Flow, State, listener_name, listeners, strip_name
from ..sharing import group_of
from ..show import Show, socket_name
from ..together import ruled
from ..values import bare, said
from ..wires import feed_kind, layout_of
from ..words import value_text
from .curves import expected_dbfs
from .headroom import Expected, expected_at
from .keys import Keyed, keyed
from .path_stages import PATH_STAGES

__all__ = ["Bead", "Leaves", "StripPath", "processing_said", "strip_path"]

Look = Literal["on", "neutral", "off", "shut"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Bead:
    """One stage. `look`: it does something, it is on and does nothing, it is off, or it silences.

    `says`: its value at a glance.
    """

    key: str
    word: str
    look: Look
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Leaves:
    """Who takes the strip at a tap, by name. `behind`: the bead before it."""

    tap: str
    behind: str
    names: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class StripPath:
    """`reaches`: listeners that hear it, with the level that arrives, in dB, the loudest first.

    `expected`: how loud a bus is expected to be. `keyed`: of a gate that another strip opens.
    """

    strip: str
    beads: tuple[Bead, ...]
    leaves: tuple[Leaves, ...]
    reaches: tuple[tuple[str, str, float], ...]
    expected: Expected | None = None
    keyed: Keyed | None = None


_BEHIND: Final = {
    "input": "line",
    "before_eq": "gate",
    "before_fader": "delay",
    "before_fader_after_mute": "mute",
    "after_fader": "fader",
}


def strip_path(show: Show, flow: Flow, strip: str) -> StripPath:
    """The path of a strip as it stands. Raises UnknownAddress."""
    check_strip(show.desk, strip, "fader")
    layout = layout_of(show.desk)
    kind = of_kind(strip)
    reaches: list[tuple[str, str, float]] = []
    if kind in SOURCES:
        row = layout.row(strip)
        for listener in listeners(show):
            cell = flow.cell(row, layout.column(listener))
            if cell.state is State.HEARD:
                reaches.append((listener, listener_name(show, listener), cell.level_db))
    beads = tuple(_beads(show, strip, kind))
    behind = dict(_BEHIND) if kind == "channel" else {**_BEHIND, "before_eq": "insert_1"}
    if kind != "channel":
        behind["before_fader"] = "crossover" if strip in CROSSED else "delay"
        behind["input"] = beads[0].key  # it has no line: what comes in is ahead of its first stage
    if any(bead.key == "sharing" for bead in beads):
        behind["before_fader" if beads[-1].key == "fader" else "after_fader"] = "sharing"
    return StripPath(
        strip=strip,
        beads=beads,
        leaves=tuple(
            Leaves(tap=tap, behind=behind[tap], names=names)
            for tap in TAPS
            if (names := tuple(_taken_at(show, strip, kind, tap)))
        ),
        reaches=tuple(sorted(reaches, key=lambda one: -one[2])),
        keyed=keyed(show, flow, strip) if kind == "channel" else None,
        expected=None if kind in SOURCES else expected_at(show, flow, strip),
    )


def processing_said(show: Show, strip: str, tap: int) -> list[Bead]:
    """The processors that do something to a strip before a tap (an index into TAPS)."""
    behind = {"low_cut": 1, "insert_1": 1, "gate": 1, "eq": 2, "compressor": 2, "insert_2": 2,
              "delay": 2, "crossover": 2}  # fmt: skip
    beads = _beads(show, strip, of_kind(strip))
    return [one for one in beads if one.look == "on" and behind.get(one.key, tap + 1) <= tap]


def _taken_at(show: Show, strip: str, kind: str, tap: str) -> list[str]:
    """Names of the buses and sockets that take a strip at a tap, by feeds that are on."""
    found = []
    for bus in _buses(show):
        way = feed_kind(kind, of_kind(bus))
        if way == "assign" and tap == "after_fader" and show.on(f"{strip}/{bus}/on"):
            found.append(listener_name(show, bus))
        elif way == "send":
            send = f"{strip}/send/{bus}"
            level = show.number(f"{send}/level")
            if show[f"{send}/tap"] == tap and show.on(f"{send}/on") and level > -math.inf:
                found.append(listener_name(show, bus))
    if kind in SOURCES:
        for socket in show.outputs():
            carried = show.text(f"{socket}/source")
            if thing_of(carried) == strip and show[f"{socket}/tap"] == tap:
                found.append(socket_name(show.desk, socket))
    return found


def _buses(show: Show) -> list[str]:
    """House, mono, and all groups, mixes and matrices in use."""
    return [*ALONE, *(bus for kind in FORMATTED for bus in show.in_use(kind))]


def _beads(show: Show, strip: str, kind: str) -> list[Bead]:
    found: list[Bead] = []
    if kind == "channel":
        found += _source(show, strip)
    if kind in SOURCES:
        trim = show.number(f"{strip}/trim")
        turned = show.on(f"{strip}/polarity")
        says = value_text(show, f"{strip}/trim", trim) + (", turned" if turned else "")
        found.append(_bead("trim", "on" if trim or turned else "neutral", says))
    says = _text(show, f"{strip}/low_cut/frequency")
    found.append(_switched(show, strip, "low_cut", says))
    found.append(_insert(show, strip, 1))
    if KINDS[kind].gate:
        found.append(_switched(show, strip, "gate", _text(show, f"{strip}/gate/threshold")))
    found.append(_eq(show, strip))
    ratio = show.number(f"{strip}/compressor/ratio")
    threshold = _text(show, f"{strip}/compressor/threshold")
    found.append(_switched(show, strip, "compressor", f"{threshold}, {bare(said(ratio))}:1"))
    found.append(_insert(show, strip, 2))
    delay = show.number(f"{strip}/delay/ms")
    on = show.on(f"{strip}/delay/on")
    look: Look = "off" if not on else "on" if delay else "neutral"
    found.append(_bead("delay", look, value_text(show, f"{strip}/delay/ms", delay)))
    if strip in CROSSED:
        found.append(_crossing(show, strip))
    sharing = _sharing(show, strip)
    if sharing and sharing[0]:
        found.append(sharing[1])
    by = ruled(show, strip)
    muted: Look = "shut" if by.muted else "neutral"
    found.append(_bead("mute", muted, "muted" if by.muted else "open"))
    fader = show.number(f"{strip}/fader")
    shut: Look = "shut" if by.level_db == -math.inf else "on"
    found.append(_bead("fader", shut, value_text(show, f"{strip}/fader", fader)))
    if sharing and not sharing[0]:
        found.append(sharing[1])
    return found


def _sharing(show: Show, strip: str) -> tuple[bool, Bead] | None:
    """Whether it shares gain before its fader, and what that is at a glance; None: it does not."""
    group = group_of(show, strip)
    if group is None:
        return None
    weight = show.number(f"{strip}/sharing/weight")
    out, held = show.on(f"{strip}/sharing/out"), show.on(f"{strip}/sharing/held")
    says = "out" if out else "held open" if held else strip_name(show, group)
    if weight and not (out or held):
        says = f"{said(weight, signed=True)}, {says}"  # first: a long name is cut off
    look: Look = "shut" if out else "neutral" if held else "on"
    return show[f"{group}/place"] == "before_fader", _bead("sharing", look, says)


def _crossing(show: Show, strip: str) -> Bead:
    """The crossover that house and mono have in common."""
    on = show.on("mono/crossover/on")
    says = f"{'above' if strip == 'house' else 'below'} {_text(show, 'mono/crossover/frequency')}"
    return _bead("crossover", "on" if on else "off", says if on else "off")


def _text(show: Show, address: str) -> str:
    return value_text(show, address, show[address])


def _bead(key: str, look: Look, says: str) -> Bead:
    stage = PATH_STAGES[key]
    return Bead(key=key, word=stage.brief or stage.word, look=look, says=says)


def _switched(show: Show, strip: str, key: str, says: str) -> Bead:
    on = show.on(f"{strip}/{PATH_STAGES[key].switch}")
    return _bead(key, "on" if on else "off", says if on else "off")


def _insert(show: Show, strip: str, place: int) -> Bead:
    device = show.text(f"{strip}/insert_{place}/device")
    look: Look = "on" if show.on(f"{strip}/insert_{place}/on") else "off"
    if not device:
        return _bead(f"insert_{place}", "off", "free")
    says = device if look == "on" else f"{device}, off"
    return _bead(f"insert_{place}", look, says)


def _eq(show: Show, strip: str) -> Bead:
    gains = [show.number(f"{strip}/eq/{band}/gain") for band in BANDS]
    if not show.on(f"{strip}/eq/on"):
        return _bead("eq", "off", "off")
    most = max(gains, key=abs)
    if most == 0.0:
        return _bead("eq", "neutral", "flat")
    band = gains.index(most) + 1
    at = _text(show, f"{strip}/eq/{band}/frequency")
    return _bead("eq", "on", f"{said(most, signed=True)} at {at}")


def _source(show: Show, strip: str) -> list[Bead]:
    source = show.source_of(Thing.at(strip).number)
    if source is None:
        return [_bead("line", "shut", "no source")]
    beads = [_bead("line", "on", socket_name(show.desk, source))]
    if of_kind(source) == "input":
        box = show.desk.box(Thing.at(source).box)
        if box is not None and box.preamps:
            gain = f"{said(show.number(f'{source}/gain'), 0, signed=True)} dB"
            over = (expected_dbfs(show, strip) or -1.0) > 0.0
            beads.append(_bead("preamp", "shut" if over else "on", gain))
    return beads
