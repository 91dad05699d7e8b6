"""Why: every step from a source to a listener, and every reason for silence with its remedy."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from ..edits import Asked
from ..errors import NothingLeft
from ..kinds import Value
from ..laws import constant_power_pan, db_to_gain, predicted_dbfs, sides_to_level_db
from ..outputs import outputs_of, patch_bus
from ..parameters import TAPS
from ..show import Show
from ..sockets import lines_on, socket_name
from .strips import bus_index, bus_of, listener_name, source_name
from .table import Flow, State, flow_of

__all__ = ["Reason", "Remedy", "START_LEVEL_DB", "Step", "Why", "why"]

START_LEVEL_DB: Final = -20.0  # where a remedy opens a fader or send: audible, never a surprise

TAP_WORDS: Final = dict(
    zip(
        TAPS,
        ("at the input", "before EQ", "before fader", "before fader, after mute", "after fader"),
        strict=True,
    )
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One stage of the path. `gain_db`: what it adds (None: it adds nothing to tell).

    `dbu`, `dbfs`: absolute level predicted behind it, where that is known. `in_path` False: the
    stage exists, and this path does not pass it. `open` False: nothing gets through it.
    `address`: what to move there, or None.
    """

    kind: str
    title: str
    detail: str
    gain_db: float | None = None
    dbu: float | None = None
    dbfs: float | None = None
    in_path: bool = True
    open: bool = True
    address: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """The one action that takes a reason away: what its button says, and its moves."""

    says: str
    moves: Mapping[str, Asked] = field(hash=False)


@dataclass(frozen=True, slots=True, kw_only=True)
class Reason:
    """One reason for silence. `code` is stable: muted, no_source, no_output, down, unrouted."""

    code: str
    says: str
    remedy: Remedy | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Why:
    """The explanation of one cell of who hears what. `rank` of `heard` sources, 1 the loudest."""

    source: str
    listener: str
    source_name: str
    listener_name: str
    level_db: float
    state: State
    says: str
    steps: tuple[Step, ...]
    reasons: tuple[Reason, ...]
    rank: int | None
    heard: int


class _Walk:
    """Goes along one path, carrying the gain of each side, and notes steps and reasons."""

    def __init__(self) -> None:
        self.left, self.right = 1.0, 0.0
        self.bus = (0.0, 0.0)  # the sides as they stand in the bus, before its mute and master
        self.steps: list[Step] = []
        self.reasons: list[Reason] = []

    def level_db(self) -> float:
        return float(sides_to_level_db(self.left, self.right))

    def stage(
        self, kind: str, title: str, detail: str, sides: tuple[float, float], address: str | None
    ) -> None:
        """A stage behind which the sides stand at new gains. Its step tells the difference."""
        before = self.level_db()
        self.left, self.right = sides
        gain_db = self.level_db() - before if math.isfinite(before) else None
        self.steps.append(
            Step(kind=kind, title=title, detail=detail, gain_db=gain_db, address=address)
        )

    def scale(
        self, kind: str, title: str, detail: str, level_db: float, address: str | None
    ) -> None:
        gain = float(db_to_gain(level_db))
        self.left *= gain
        self.right *= gain
        self.steps.append(
            Step(
                kind=kind,
                title=title,
                detail=detail,
                gain_db=level_db,
                open=gain > 0.0,
                address=address,
            )
        )

    def passed_by(self, kind: str, title: str, detail: str, address: str) -> None:
        self.steps.append(
            Step(kind=kind, title=title, detail=detail, in_path=False, address=address)
        )

    def stop(self, code: str, says: str, remedy: Remedy | None) -> None:
        self.left = self.right = 0.0
        self.reasons.append(Reason(code=code, says=says, remedy=remedy))


def _set(says: str, address: str, value: Value) -> Remedy:
    return Remedy(says=says, moves={address: value})


def _head(walk: _Walk, show: Show, channel: str) -> None:
    """The line, its socket and the preamp: absolute levels, which the table leaves out."""
    number = int(channel.split("/")[1])
    socket, on_spare = show.source_of(number), show.on(f"{channel}/on_spare")
    name = source_name(show, channel)
    if socket is None and on_spare:
        title = "No spare"
        step = Step(kind="line", title=title, detail="the channel is switched to its spare",
                    open=False, address=f"{channel}/spare")  # fmt: skip
        walk.steps.append(step)
        remedy = _set("Switch to its own source", f"{channel}/on_spare", False)
        told = remedy if isinstance(show[f"{channel}/source"], str) else None
        walk.stop("no_source", f"{name} is switched to a spare that it has not.", told)
        return
    if socket is None:
        walk.steps.append(
            Step(kind="line", title="No source", detail="the channel takes no input", open=False,
                 address=f"{channel}/source")
        )  # fmt: skip
        walk.stop("no_source", f"{name} has no source. Give it one in Patch.", None)
        return
    where = socket_name(show.desk, socket)
    detail = f"spare, socket {where}" if on_spare else f"socket {where}"
    if not socket.startswith("input/"):
        walk.steps.append(
            Step(kind="line", title=where, detail="inside the desk", address=f"{channel}/source")
        )
        return
    lines = lines_on(show, socket)
    title = show.text(f"line/{lines[0]}/name") if lines else "Nothing plugged in"
    line_dbu = show.number(f"line/{lines[0]}/level_dbu") if lines else None
    walk.steps.append(
        Step(kind="line", title=title, detail=detail, dbu=line_dbu,
             address=f"{channel}/source")
    )  # fmt: skip
    box = show.desk.box(socket.split("/")[1])
    if box is None or not box.preamps:
        return
    pad_db = show.desk.pad_db if show.on(f"{socket}/pad") else 0.0
    gain_db = show.number(f"{socket}/gain")
    dbfs = None
    if line_dbu is not None:
        dbfs = predicted_dbfs(
            line_dbu=line_dbu,
            gain_db=gain_db,
            pad_db=pad_db,
            full_scale_dbu=show.desk.full_scale_dbu,
        )
    details = [f"{gain_db:+.1f} dB"]
    if pad_db:
        details.append(f"pad {-pad_db:.0f} dB")
    details.append("48 V on" if show.on(f"{socket}/phantom") else "48 V off")
    walk.steps.append(
        Step(
            kind="preamp",
            title="Preamp",
            detail=", ".join(details),
            dbfs=dbfs,
            address=f"{socket}/gain",
        )
    )


def _processing(walk: _Walk, show: Show, channel: str, tap: int) -> None:
    """Polarity and trim, which every tap but the input lies behind."""
    trim_db, turned = show.number(f"{channel}/trim"), show.on(f"{channel}/polarity")
    if not trim_db and not turned:
        return
    if tap == TAPS.index("input"):
        walk.passed_by("trim", "Trim", "not in this path: tap at the input", f"{channel}/trim")
        return
    detail = "polarity turned over" if turned else "digital gain"
    walk.scale("trim", "Trim", detail, trim_db, f"{channel}/trim")
    if turned:
        walk.left, walk.right = -walk.left, -walk.right


def _mute_and_fader(walk: _Walk, show: Show, channel: str, tap: int) -> None:
    name = source_name(show, channel)
    said = f"not in this path: tap {TAP_WORDS[TAPS[tap]]}"
    if show.on(f"{channel}/mute"):
        if tap >= TAPS.index("before_fader_after_mute"):
            walk.steps.append(
                Step(kind="mute", title="Mute", detail=f"{name} is muted", open=False,
                     address=f"{channel}/mute")
            )  # fmt: skip
            remedy = _set(f"Unmute {name}", f"{channel}/mute", False)
            walk.stop("muted", f"{name} is muted by its own key.", remedy)
        else:
            walk.passed_by("mute", "Mute", said, f"{channel}/mute")
    level_db = show.number(f"{channel}/fader")
    if tap < TAPS.index("after_fader"):
        walk.passed_by("fader", "Fader", said, f"{channel}/fader")
        return
    walk.scale("fader", "Fader", name, level_db, f"{channel}/fader")
    if level_db == -math.inf:
        remedy = _set(
            f"Bring the fader up to {START_LEVEL_DB:.0f} dB", f"{channel}/fader", START_LEVEL_DB
        )
        walk.stop("down", f"The fader of {name} is off.", remedy)


def _pan_words(pan: float) -> str:
    if pan == 0.0:
        return "centre"
    return f"{'L' if pan < 0 else 'R'}{abs(pan) * 100:.0f}"


def _into_bus(walk: _Walk, show: Show, channel: str, bus: str, stereo: bool) -> None:
    """The send, or the assignment to the house or mono, with its pan."""
    names = f"{source_name(show, channel)} to {listener_name(show, bus)}"
    if bus in ("house", "mono"):
        address, level_db, how = f"{channel}/{bus}/on", 0.0, "after fader"
        is_open, pan_address, title = show.on(address), f"{channel}/pan", f"To {bus}"
        closed = f"{source_name(show, channel)} is not assigned to {bus}."
        remedy = _set(f"Assign it to {bus}", address, True)
    else:
        address = f"{channel}/send/{bus}/level"
        on_address = f"{channel}/send/{bus}/on"
        level_db, how = show.number(address), TAP_WORDS[show.text(f"{channel}/send/{bus}/tap")]
        pan_address, title, is_open = f"{channel}/send/{bus}/pan", "Send", True
        if level_db == -math.inf:
            is_open, closed = False, f"The send from {names} is off."
            remedy = Remedy(
                says=f"Open the send at {START_LEVEL_DB:.0f} dB",
                moves={address: START_LEVEL_DB, on_address: True},
            )
        elif not show.on(on_address):
            is_open, closed = False, f"The send from {names} is switched off."
            remedy = _set("Switch the send on", on_address, True)
    pan = show.number(pan_address) if stereo else 0.0
    detail = f"{how}, {_pan_words(pan)}" if stereo else how
    if not is_open:
        walk.steps.append(
            Step(kind="send", title=title, detail=detail, gain_db=-math.inf, open=False,
                 address=address)
        )  # fmt: skip
        walk.stop("unrouted", closed, remedy)
        return
    signal, gain = walk.left, float(db_to_gain(level_db))
    if stereo:
        left, right = (float(side) for side in constant_power_pan(pan))
        walk.stage("send", title, detail, (signal * gain * left, signal * gain * right), address)
    else:
        walk.stage("send", title, detail, (signal * gain, 0.0), address)
    if walk.steps[-1].gain_db is None:  # silent before: tell the send's own level all the same
        walk.steps[-1] = Step(
            kind="send", title=title, detail=detail, gain_db=level_db, address=address
        )


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


def _to_listener(walk: _Walk, show: Show, bus: str, stereo: bool) -> None:
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


def _no_output(walk: _Walk, show: Show, bus: str, stereo: bool, title: str, says: str) -> None:
    try:
        moves = patch_bus(show, bus, stereo=stereo)
        remedy = Remedy(says="Patch it to the next free outputs", moves=moves)
    except NothingLeft:
        remedy = None
    step = Step(kind="output", title=title, detail=says, open=False, address=None)
    walk.steps.append(step)
    walk.stop("no_output", says, remedy)


def _master(walk: _Walk, show: Show, bus: str, tap: str, *, silent: bool) -> None:
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
                    "muted", f"{name} is muted.", _set(f"Unmute {name}", f"{bus}/mute", False)
                )
    level_db = show.number(f"{bus}/fader")
    if tap != "after_fader":
        walk.passed_by("master", f"{name} master", passed, f"{bus}/fader")
        return
    walk.scale("master", f"{name} master", bus.replace("/", " "), level_db, f"{bus}/fader")
    if level_db == -math.inf and silent:
        says = f"Bring {name} up to {START_LEVEL_DB:.0f} dB"
        walk.stop(
            "down", f"The master of {name} is off.", _set(says, f"{bus}/fader", START_LEVEL_DB)
        )


def why(show: Show, source: str, listener: str, *, flow: Flow | None = None) -> Why:
    """Explain one cell of who hears what.

    `source`: a channel such as `channel/7`; `listener`: `house`, `mono` or a mix such as `mix/5`.
    `flow`: the show's flow if it is at hand. The steps' gains add to the level, in dB, unless a
    reason stops the path; every reason is given, not only the first.
    Raises UnknownAddress for a source or listener that the desk does not have.
    """
    name, heard_by = source_name(show, source), listener_name(show, listener)
    column, row = bus_index(show.desk, listener), int(source.split("/")[1]) - 1
    bus = bus_of(show.desk, column)
    flow = flow or flow_of(show)
    walk = _Walk()
    _head(walk, show, source)
    if bus == "house" or bus == "mono":
        stereo, tap = bus == "house", TAPS.index("after_fader")
    else:
        stereo = show.text(f"{bus}/format") == "stereo"
        tap = TAPS.index(show.text(f"{source}/send/{bus}/tap"))
    _processing(walk, show, source, tap)
    _mute_and_fader(walk, show, source, tap)
    _into_bus(walk, show, source, bus, stereo)
    if bus.startswith("mix/") and show.text(f"{bus}/format") == "unused":
        walk.stop("unrouted", f"{heard_by} is not in use. Make it in Mixes.", None)
    else:
        _to_listener(walk, show, bus, stereo)
    level_db, reasons = walk.level_db(), tuple(walk.reasons)
    detours = flow.through.detours(row, column) if flow.through else []
    for fed, detour_db in detours:
        way = f"channel/{fed + 1}"
        source_bus = show.source_of(fed + 1) or ""
        walk.steps.append(
            Step(
                kind="detour",
                title=f"By way of {source_name(show, way)}",
                detail=f"fed by {socket_name(show.desk, source_bus)}: this much arrives that way",
                gain_db=detour_db,
                address=f"{way}/source",
            )
        )
    if detours:
        level_db = float(flow.level_db[row, column])
        reasons = () if math.isfinite(level_db) else reasons
    in_column = flow.level_db[:, column]
    heard = int((flow.state[:, column] == State.HEARD).sum())
    rank = int((in_column > in_column[row]).sum()) + 1 if math.isfinite(level_db) else None
    state = State(int(flow.state[row, column]))
    return Why(
        source=source,
        listener=bus,
        source_name=name,
        listener_name=heard_by,
        level_db=level_db,
        state=state,
        says=_summary(state, reasons, rank, heard) + (", by way of a bus" if detours else ""),
        steps=tuple(walk.steps),
        reasons=reasons,
        rank=rank,
        heard=heard,
    )


def _summary(state: State, reasons: tuple[Reason, ...], rank: int | None, heard: int) -> str:
    if state is State.HEARD:
        if heard == 1:
            return "heard, the only source here"
        place = "loudest" if rank == 1 else f"{_ordinal(rank or 0)} loudest"
        return f"heard, {place} of {heard} here"
    if state is State.UNROUTED:
        return "not sent here"
    count = len(reasons)
    return f"nothing arrives: {count} reason{'s' if count > 1 else ''}"


def _ordinal(number: int) -> str:
    if number % 100 in (11, 12, 13):
        return f"{number}th"
    return f"{number}{ {1: 'st', 2: 'nd', 3: 'rd'}.get(number % 10, 'th') }"
