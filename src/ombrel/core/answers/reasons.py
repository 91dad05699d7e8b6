"""Reasons for silence and their remedies: what is in the way, and the move that opens it."""

from dataclasses import replace

import numpy as np

from ..catalogue import FORMATTED, Address, Thing, named_kind, of_kind, thing_of
from ..edit import check_edit, edited
from ..flow import Flow, listener_name, strip_name
from ..patching import patch_missing
from ..sharing import group_of
from ..show import Show, lines_on, socket_name
from ..together import RULING, closers_of, joining
from ..values import Asked, ConsoleError, FeedbackLoop, NothingLeft, said
from ..wires import START_LEVEL_DB, Cause
from ..words import refusal
from .reason import Code, Reason, Remedy, setting
from .ruled import by_name, ruled_out

__all__ = ["Reason", "Reasons", "Remedy"]


class Reasons:
    """The reasons of one show, each worked out once."""

    def __init__(self, show: Show, flow: Flow) -> None:
        self.show, self.flow = show, flow
        self._known: dict[tuple[Code, str], Reason] = {}

    def of(self, code: Code | Cause, address: str) -> Reason:
        """The reason that something at an address stands in the way.

        Its remedy is left out, and the reason says why, where it would be refused.
        """
        known = _CODES[code] if isinstance(code, Cause) else code
        if (known, address) not in self._known:
            self._known[known, address] = _reason(self.show, self.flow, known, address)
        return self._known[known, address]


def _reason(show: Show, flow: Flow, code: Code, address: str) -> Reason:
    reason = _WORDS[code](show, flow, address)
    if reason.remedy and (joins := joining(show, reason.remedy.moves)):
        says = f"{reason.remedy.says}, and so to {joins}"
        reason = replace(reason, remedy=replace(reason.remedy, says=says))
    if reason.remedy is None or not (flow.fed.node.size or code == "no_source"):
        return reason  # where nothing feeds itself, nothing that opens a path is refused
    refused = _refusal(show, flow, reason.remedy)
    if refused is None:
        return reason
    why = (
        " To open it would close a loop."
        if isinstance(refused, FeedbackLoop)
        else f" {refusal(refused, show)}"
    )
    return Reason(code=reason.code, address=address, says=reason.says + why)


def _refusal(show: Show, flow: Flow, remedy: Remedy) -> ConsoleError | None:
    try:
        check_edit(show, flow, remedy.moves)
    except ConsoleError as error:
        return error
    return None


def _muted(show: Show, flow: Flow, address: str) -> Reason:
    if address == "show/solo" or of_kind(address) in RULING:
        return ruled_out(show, address)
    name = strip_name(show, thing_of(address))
    if Address.at(address).leaf == "sharing/out":
        group = strip_name(show, str(show[f"{thing_of(address)}/sharing/group"]))
        return Reason(
            code="muted",
            address=address,
            says=f"{name} is out of {group}, where it shares gain.",
            remedy=setting(f"Take {name} into {group} again", address, False),
        )
    return Reason(
        code="muted",
        address=address,
        says=f"{name} is muted by its own key.",
        remedy=setting(f"Unmute {name}", address, False),
    )


def _down(show: Show, flow: Flow, address: str) -> Reason:
    if of_kind(address) == "dca":
        return ruled_out(show, address)
    name = strip_name(show, thing_of(address))
    return Reason(
        code="down",
        address=address,
        says=f"The fader of {name} is off.",
        remedy=setting(f"Bring {name} up to {said(START_LEVEL_DB, 0)} dB", address, START_LEVEL_DB),
    )


def _no_output(show: Show, flow: Flow, address: str) -> Reason:
    bus = thing_of(address)
    name = listener_name(show, bus)
    side = Thing.at(address).side
    says = f"The {side} side of {name} goes to no output." if side else f"{name} goes to no output."
    try:
        moves = patch_missing(show, bus)
    except NothingLeft as error:
        return Reason(code="no_output", address=address, says=f"{says} {error}")
    where = "Patch it to the next free output" + ("" if len(moves) == 1 else "s")
    return Reason(
        code="no_output", address=address, says=says, remedy=Remedy(says=where, moves=moves)
    )


def _unrouted(show: Show, flow: Flow, address: str) -> Reason:
    at = Address.at(address)
    source = at.thing
    if at.last == "pan":
        return _panned_away(show, address)
    if not at.of_send:  # an assignment: <strip>/<bus>/on, or its level
        bus, leaf = at.target, at.last
        one, other = strip_name(show, source), strip_name(show, bus)
        if leaf == "level":
            return Reason(
                code="unrouted",
                address=address,
                says=f"{one} goes into {other} at off.",
                remedy=setting("Bring it to 0 dB", address, 0.0),
            )
        says, remedy = f"{one} is not assigned to {other}.", f"Assign {one} to {other}"
        return Reason(
            code="unrouted", address=address, says=says, remedy=setting(remedy, address, True)
        )
    engine = show[f"{source}/source"] if of_kind(source) == "return" else None
    if named_kind(engine) == "engine" and show[f"{engine}/source"] == at.target:
        says = f"{strip_name(show, source)} is not sent into its own effect: it would go round."
        return Reason(code="unrouted", address=address, says=says)
    one, other = strip_name(show, source), strip_name(show, at.target)
    if at.last == "on":
        return Reason(
            code="unrouted",
            address=address,
            says=f"The send from {one} to {other} is switched off.",
            remedy=setting("Switch the send on", address, True),
        )
    return Reason(
        code="unrouted",
        address=address,
        says=f"The send from {one} to {other} is off.",
        remedy=setting(f"Open the send at {said(START_LEVEL_DB, 0)} dB", address, START_LEVEL_DB),
    )


def _panned_away(show: Show, address: str) -> Reason:
    source = thing_of(address)
    side = "left" if show.number(address) < 0 else "right"
    name = strip_name(show, source)
    return Reason(
        code="unrouted",
        address=address,
        says=f"{name} is panned fully {side}, away from the side that leads on.",
        remedy=setting("Pan it to the centre", address, 0.0),
    )


def _turned(show: Show, flow: Flow, address: str) -> Reason:
    name = strip_name(show, thing_of(address))
    return Reason(
        code="turned",
        address=address,
        says=f"The polarity of {name} is inverted, and its paths take one another away.",
        remedy=setting(f"Turn {name} back", address, False),
    )


def _not_in_use(show: Show, flow: Flow, address: str) -> Reason:
    kind = of_kind(address)
    return Reason(
        code="not_in_use",
        address=address,
        says=f"{strip_name(show, address)} is not in use: no {kind} is made there yet.",
    )


def _no_way(show: Show, flow: Flow, address: str) -> Reason:
    source = show[f"{address}/source"]
    if not isinstance(source, str):
        says = f"{listener_name(show, address)} carries nothing."
    else:
        says = f"{listener_name(show, address)} carries only {strip_name(show, thing_of(source))}."
    return Reason(code="no_way", address=address, says=says)


def _no_source(show: Show, flow: Flow, address: str) -> Reason:
    name = strip_name(show, address)
    if of_kind(address) == "return":
        return _return_without_source(show, flow, address, name)
    on_spare = show.on(f"{address}/on_spare")
    used, other = ("spare", "source") if on_spare else ("source", "spare")
    source = show[f"{address}/{used}"]
    if isinstance(source, str):
        return _bus_brings_nothing(show, flow, address, name, source)
    says = (
        f"{name} is switched to a spare that it has not." if on_spare else f"{name} has no source."
    )
    there = show[f"{address}/{other}"]
    if isinstance(there, str) and of_kind(there) == "input" and not lines_on(show, there):
        says += f" Nothing is plugged into its {'own source' if on_spare else 'spare'} either."
    elif isinstance(there, str) and not _brings(show, flow, address, f"{address}/on_spare"):
        says += f" Its {'own source' if on_spare else 'spare'} brings nothing either."
    elif isinstance(there, str):
        words = "Switch to its own source" if on_spare else "Switch to its spare"
        remedy = setting(words, f"{address}/on_spare", not on_spare)
        return Reason(code="no_source", address=address, says=says, remedy=remedy)
    return Reason(code="no_source", address=address, says=f"{says} Give it one in Patch.")


def _brings(show: Show, flow: Flow, strip: str, switch: str) -> bool:
    """Whether a channel has a source once it is switched over; a switch that is refused says so."""
    try:
        after = edited(show, flow, {switch: not show.on(switch)}).flow
    except ConsoleError:
        return True
    return bool(after.sourced[after.layout.index[strip]])


def _return_without_source(show: Show, flow: Flow, address: str, name: str) -> Reason:
    source = show[f"{address}/source"]
    if not isinstance(source, str):
        says = f"{name} has no source. Give it an effect engine, or a pair of sockets."
        return Reason(code="no_source", address=address, says=says)
    mix = show[f"{source}/source"]
    if not isinstance(mix, str):
        says = f"{name} takes {strip_name(show, source)}, which no mix feeds."
        return Reason(code="no_source", address=address, says=says)
    return _bus_brings_nothing(show, flow, address, name, mix)


def _bus_brings_nothing(show: Show, flow: Flow, address: str, name: str, source: str) -> Reason:
    """A bus feeds it and nothing comes: for the bus's own reason."""
    bus = thing_of(source)
    bus_name, shown = strip_name(show, bus), socket_name(show.desk, source)
    if of_kind(bus) in FORMATTED and show.text(f"{bus}/format") == "unused":
        says = f"{name} is fed by {shown}, which is not in use."
        return Reason(code="no_source", address=address, says=says)
    moves: dict[str, Asked] = {}
    words = []
    held = False
    if show.on(f"{bus}/mute"):
        moves[f"{bus}/mute"] = False
        words.append("is muted")
    if show.number(f"{bus}/fader") == float("-inf"):
        moves[f"{bus}/fader"] = START_LEVEL_DB
        words.append("has its fader off")
    if (group := group_of(show, bus)) and show.on(f"{bus}/sharing/out"):
        moves[f"{bus}/sharing/out"] = False
        words.append(f"is out of {strip_name(show, group)}")
    for closer in sorted(closers_of(show, bus)):
        opened = ruled_out(show, closer)
        words.append(f"is silenced by {by_name(show, closer)}")
        moves.update(opened.remedy.moves if opened.remedy else {})
        held |= opened.remedy is None
    if not words or not _anything_at(flow, address):
        what = "on which nothing arrives"
        words.append("and nothing arrives at it" if words else what)
        joined = " ".join(words) if words[0] == what else "which " + ", ".join(words)
        says = f"{name} is fed by {bus_name}, {joined}."
        return Reason(code="no_source", address=address, says=says)
    says = f"{name} is fed by {bus_name}, which {' and '.join(words)}."
    return Reason(
        code="no_source",
        address=address,
        says=says,
        remedy=None if held else Remedy(says=f"Open {bus_name}", moves=moves),
    )


def _anything_at(flow: Flow, strip: str) -> bool:
    """Whether anything that has a source arrives at the sides of the bus that feed a strip."""
    layout, fed = flow.layout, flow.fed
    places = np.flatnonzero(fed.row == layout.index[strip])
    if not places.size:
        return False
    rows = np.flatnonzero(flow.sourced)
    nodes = [node for row in rows for node in layout.node_rows(int(row))]
    arrives = np.asarray(flow.open_to[nodes].any(axis=0))
    at = arrives[fed.bus[places]]
    return bool((at & (fed.share[places] > 0.0)).any())


_CODES: dict[Cause, Code] = {
    Cause.NO_SOURCE: "no_source",
    Cause.MUTED: "muted",
    Cause.DOWN: "down",
    Cause.NO_OUTPUT: "no_output",
}
_WORDS = {
    "no_source": _no_source,
    "muted": _muted,
    "down": _down,
    "no_output": _no_output,
    "unrouted": _unrouted,
    "turned": _turned,
    "not_in_use": _not_in_use,
    "no_way": _no_way,
}
