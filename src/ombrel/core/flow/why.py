"""Why: every step from a source to a listener, and every reason for silence with its remedy."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from ..edits import Asked
from ..errors import NothingLeft
from ..kinds import Value
from ..laws import constant_power_pan, db_to_gain, predicted_dbfs, sides_to_level_db
from ..parameters import TAPS
from ..patch import lines_on, outputs_of, patch_bus, socket_name
from ..show import Show
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
    socket = show[f"{channel}/source"]
    name = source_name(show, channel)
    if not isinstance(socket, str):
        walk.steps.append(
            Step(kind="line", title="No source", detail="the channel takes no input", open=False,
                 address=f"{channel}/source")
        )  # fmt: skip
        walk.stop("no_source", f"{name} has no source. Give it one in Patch.", None)
        return
    where = socket_name(show.desk, socket)
    lines = lines_on(show, socket)
    title = show.text(f"line/{lines[0]}/name") if lines else "Nothing plugged in"
    line_dbu = show.number(f"line/{lines[0]}/level_dbu") if lines else None
    walk.steps.append(
        Step(kind="line", title=title, detail=f"socket {where}", dbu=line_dbu,
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


def _master(walk: _Walk, show: Show, bus: str) -> None:
    name = listener_name(show, bus)
    if show.on(f"{bus}/mute"):
        walk.steps.append(
            Step(kind="mute", title="Mute", detail=f"{name} is muted", open=False,
                 address=f"{bus}/mute")
        )  # fmt: skip
        walk.stop("muted", f"{name} is muted.", _set(f"Unmute {name}", f"{bus}/mute", False))
    level_db = show.number(f"{bus}/fader")
    walk.scale("master", f"{name} master", bus.replace("/", " "), level_db, f"{bus}/fader")
    if level_db == -math.inf:
        says = f"Bring {name} up to {START_LEVEL_DB:.0f} dB"
        walk.stop(
            "down", f"The master of {name} is off.", _set(says, f"{bus}/fader", START_LEVEL_DB)
        )


def _output(walk: _Walk, show: Show, bus: str, stereo: bool) -> None:
    """What the output sockets carry of the bus, side by side."""
    carried: dict[str, list[str]] = {"left": [], "right": [], "whole": []}
    labels: list[str] = []
    for socket, side in outputs_of(show, bus).items():
        carried[side].append(socket_name(show.desk, socket))
        label = show.text(f"{socket}/label")
        if label and label not in labels:
            labels.append(label)
    sockets = [name for side in carried.values() for name in side]
    title = ", ".join(labels) or "Output"
    name = listener_name(show, bus)

    def blocked(says: str) -> None:
        try:
            moves = patch_bus(show, bus, stereo=stereo)
            remedy = Remedy(says="Patch it to the next free outputs", moves=moves)
        except NothingLeft:
            remedy = None
        step = Step(kind="output", title=title, detail=says, open=False, address=None)
        walk.steps.append(step)
        walk.stop("no_output", says, remedy)

    if not sockets:
        blocked(f"{name} goes to no output.")
        return
    where = ", ".join(sockets)
    left, right = walk.left, walk.right
    if not stereo:
        walk.stage("output", title, where, (left, 0.0), None)
    elif carried["left"] or carried["right"]:
        sides = (left if carried["left"] else 0.0, right if carried["right"] else 0.0)
        if (left or right) and not any(sides):
            side = "right" if carried["left"] else "left"
            blocked(f"The {side} side of {name}, where this is panned, goes to no output.")
            return
        missing = "" if all((carried["left"], carried["right"])) else " (one side only)"
        walk.stage("output", title, where + missing, sides, None)
    else:
        walk.stage("output", title, f"{where}, mono sum", ((left + right) / 2.0, 0.0), None)


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
        _master(walk, show, bus)
        _output(walk, show, bus, stereo)
    level_db = walk.level_db()
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
        says=_summary(state, walk.reasons, rank, heard),
        steps=tuple(walk.steps),
        reasons=tuple(walk.reasons),
        rank=rank,
        heard=heard,
    )


def _summary(state: State, reasons: list[Reason], rank: int | None, heard: int) -> str:
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
