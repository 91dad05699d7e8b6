"""Why, second half: from a bus through its master and outputs to whoever listens."""

import math
from dataclasses import dataclass

from ..errors import NothingLeft
from ..laws import db_to_gain
from ..outputs import outputs_of, patch_bus
from ..parameters import TAPS
from ..show import Show
from ..sockets import socket_name
from .steps import START_LEVEL_DB, TAP_WORDS, Remedy, Step, Walk, setting
from .strips import listener_name

__all__ = ["to_listener"]


@dataclass(frozen=True, slots=True)
class _Socket:
    """An output socket that carries a bus: its name, side, tap and what it adds to the bus."""

    name: str
    side: str
    tap: str
    gain: float
    details: tuple[str, ...]
    label: str


def _sockets_of(show: Show, bus: str) -> list[_Socket]:
    fader = float(db_to_gain(show.number(f"{bus}/fader")))
    found = []
    for socket, side in outputs_of(show, bus).items():
        tap, trim_db = show.text(f"{socket}/tap"), show.number(f"{socket}/trim")
        gain = float(db_to_gain(trim_db))
        if TAPS.index(tap) >= TAPS.index("before_fader_after_mute") and show.on(f"{bus}/mute"):
            gain = 0.0
        if tap == "after_fader":
            gain *= fader
        delay_ms = show.number(f"{socket}/delay_ms")
        details = [] if tap == "after_fader" else [TAP_WORDS[tap]]
        details += [f"trim {trim_db:+.1f}"] if trim_db else []
        details += [f"delay {delay_ms:g} ms"] if delay_ms else []
        details += ["polarity turned over"] if show.on(f"{socket}/polarity") else []
        name, label = socket_name(show.desk, socket), show.text(f"{socket}/label")
        found.append(_Socket(name, side, tap, gain, tuple(details), label))
    return found


def _loudest(sockets: list[_Socket], sides: tuple[str, ...]) -> _Socket | None:
    """Of the sockets that carry one of `sides`, the loudest: that is what is heard of it."""
    found = [socket for socket in sockets if socket.side in sides]
    return max(found, key=lambda socket: socket.gain, default=None)


def to_listener(walk: Walk, show: Show, bus: str, stereo: bool) -> None:
    """The bus's mute and master, as far as its outputs lie behind them, and the outputs."""
    sockets = _sockets_of(show, bus)
    left = _loudest(sockets, ("left",) if stereo else ("left", "right", "whole"))
    right = _loudest(sockets, ("right",)) if stereo else None
    whole = _loudest(sockets, ("whole",)) if stereo and not (left or right) else None
    heard = [socket for socket in (left, right, whole) if socket]
    reached = max((TAPS.index(socket.tap) for socket in heard), default=TAPS.index("after_fader"))
    _master(walk, show, bus, TAPS[reached], silent=all(socket.gain == 0.0 for socket in heard))
    name = listener_name(show, bus)
    title = ", ".join(dict.fromkeys(socket.label for socket in sockets if socket.label)) or "Output"
    if not heard:
        _no_output(walk, show, bus, stereo, title, f"{name} goes to no output.")
        return
    before_left, before_right = walk.bus
    if whole:
        sides = ((before_left + before_right) / 2.0 * whole.gain, 0.0)
    else:
        sides = (
            before_left * (left.gain if left else 0.0),
            before_right * (right.gain if right else 0.0),
        )
    panned_away = (stereo and not whole and bool(before_left or before_right)) and not any(
        (before_left and left, before_right and right)
    )
    if panned_away:
        side = "right" if left else "left"
        says = f"The {side} side of {name}, where this is panned, goes to no output."
        _no_output(walk, show, bus, stereo, title, says)
        return
    details = [", ".join(socket.name for socket in sockets)]
    details += ["mono sum"] if whole else []
    details += ["one side only"] if stereo and not whole and not (left and right) else []
    details += sorted({detail for socket in sockets for detail in socket.details})
    walk.stage("output", title, ", ".join(details), sides, None)


def _no_output(walk: Walk, show: Show, bus: str, stereo: bool, title: str, says: str) -> None:
    try:
        moves = patch_bus(show, bus, stereo=stereo)
        remedy = Remedy(says="Patch it to the next free outputs", moves=moves)
    except NothingLeft:
        remedy = None
    step = Step(kind="output", title=title, detail=says, open=False, address=None)
    walk.steps.append(step)
    walk.stop("no_output", says, remedy)


def _master(walk: Walk, show: Show, bus: str, tap: str, *, silent: bool) -> None:
    """Mute and fader of the bus, for outputs whose last tap is `tap`.

    `silent`: none of the outputs carries anything, so that mute and fader count as reasons.
    """
    name = listener_name(show, bus)
    walk.bus = (walk.left, walk.right)
    passed = f"not in this path: outputs tap {TAP_WORDS[tap]}"
    if show.on(f"{bus}/mute"):
        if TAPS.index(tap) < TAPS.index("before_fader_after_mute"):
            walk.passed_by("mute", "Mute", passed, f"{bus}/mute")
        else:
            walk.steps.append(
                Step(kind="mute", title="Mute", detail=f"{name} is muted", open=not silent,
                     address=f"{bus}/mute")
            )  # fmt: skip
            if silent:
                walk.stop(
                    "muted", f"{name} is muted.", setting(f"Unmute {name}", f"{bus}/mute", False)
                )
    level_db = show.number(f"{bus}/fader")
    if tap != "after_fader":
        walk.passed_by("master", f"{name} master", passed, f"{bus}/fader")
        return
    walk.scale("master", f"{name} master", bus.replace("/", " "), level_db, f"{bus}/fader")
    if level_db == -math.inf and silent:
        says = f"Bring {name} up to {START_LEVEL_DB:.0f} dB"
        walk.stop(
            "down", f"The master of {name} is off.", setting(says, f"{bus}/fader", START_LEVEL_DB)
        )
