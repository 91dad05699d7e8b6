"""The steps of one path: the stages and feeds that it passes, with what each adds to its level.

Stages and gains are those that the levels are computed from, so what the steps add up to is the
path's level by construction.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from ..catalogue import TAPS, Thing, of_kind, option_text, thing_of
from ..flow import Edge, Flow, Path, listener_name, strip_name
from ..sharing import group_of, share_told, shares_at
from ..show import Show, lines_on, socket_name
from ..strips import keyed, processing_said
from ..together import ruled
from ..values import bare, gain_to_db, predicted_dbfs, said, said_pan, sides_to_level_db
from ..wires import STAGES, gain_of, passed
from ..words import fitting_said, processor_said

__all__ = ["TAP_WORDS", "Step", "Tale", "head", "told"]

# a step is told where it stands: "at the input", not "input"
TAP_WORDS: Final = {tap: option_text(tap) for tap in TAPS} | {TAPS[0]: "at the input"}


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


@dataclass(slots=True)
class Tale:
    """A path being told: the steps so far, and what stands at each side as if all were open."""

    sides: np.ndarray
    steps: list[Step] = field(default_factory=list)
    edges: int = 0  # so many of the path's are behind
    after: list[tuple[int, np.ndarray]] = field(default_factory=list)  # each step: edges, sides
    shares_now: Mapping[str, float] = field(default_factory=dict)  # of who shares gain, in dB

    def level_db(self) -> float:
        return _level_db(self.sides)

    def add(self, step: Step) -> None:
        self.steps.append(step)
        self.after.append((self.edges, self.sides))

    def passed(self, sides: np.ndarray) -> None:
        """An edge is behind, by some of its sides."""
        self.sides = sides
        self.edges += 1
        self.after[-1] = (self.edges, sides)

    def scaled(self, gain: float, step: Step) -> None:
        """A stage that passes all sides alike."""
        if gain != 0.0:
            self.sides = self.sides * gain
        self.add(step)

    def spread(self, sides: np.ndarray, kind: str, title: str, detail: str, address: str | None,
               *, is_open: bool = True) -> None:  # fmt: skip
        """A stage behind which the sides stand anew; its step tells the difference in level."""
        before = self.level_db()
        self.sides = sides
        gain_db = -math.inf
        if is_open and before > -math.inf:
            gain_db = self.level_db() - before
        self.add(
            Step(kind=kind, title=title, detail=detail, gain_db=gain_db, open=is_open,
                 address=address)
        )  # fmt: skip


def _level_db(sides: np.ndarray) -> float:
    return float(sides_to_level_db(sides[0], sides[1]))


def told(
    show: Show,
    flow: Flow,
    row: int,
    column: int,
    paths: Sequence[Path],
    shares_now: Mapping[str, float],
) -> Tale:
    """A way from behind the input of its source, step by step; its `paths` pass the same strips.

    All sides are told together; where a strip is passed twice, by one side and then by the other,
    they are followed one by one and put together. `shares_now`: of who shares gain, as measured.
    """
    tales = [_followed(show, flow, row, column, path, shares_now) for path in paths]
    if len({len(tale.steps) for tale in tales}) > 1:  # they end otherwise: the loudest speaks
        del tales[1:]
    return tales[0] if len(tales) == 1 else _together(tales, paths, row < flow.layout.channels)


def _together(tales: Sequence[Tale], paths: Sequence[Path], mono: bool) -> Tale:
    """Paths by other sides of the same strips as one: what they have in common counts once."""

    def standing(at: int) -> np.ndarray:
        parts: dict[tuple[object, ...], np.ndarray] = {}
        for tale, path in zip(tales, paths, strict=False):
            edges, sides = tale.after[at]
            been = tuple(edge.start for edge in path.edges[: edges + 1])
            parts[(*been, path.edges[-1].ear if at == len(tale.steps) - 1 else None)] = sides
        return np.asarray(np.sum(list(parts.values()), axis=0))

    starts = {path.edges[0].start for path in paths}
    amount = 1.0 if mono else math.sqrt(0.5)
    before = _level_db(np.array([amount, amount if len(starts) > 1 else 0.0]))
    whole = Tale(tales[0].sides)
    for at, step in enumerate(tales[0].steps):
        whole.sides = standing(at)
        gain_db = step.gain_db
        if gain_db is not None and math.isfinite(gain_db):
            gain_db = whole.level_db() - before if before > -math.inf else -math.inf
        before = whole.level_db()
        whole.add(replace(step, gain_db=gain_db))
    return whole


def _followed(
    show: Show, flow: Flow, row: int, column: int, path: Path, shares_now: Mapping[str, float]
) -> Tale:
    """One path; if it passes a strip twice, by its own sides alone."""
    layout = flow.layout
    one_by_one = len(set(path.strips)) < len(path.strips)
    start = np.array([1.0, 0.0]) if row < layout.channels else np.full(2, math.sqrt(0.5))
    if one_by_one:
        start[1 - path.edges[0].start[1]] = 0.0
    tale = Tale(start, shares_now=shares_now)
    for number, edge in enumerate(path.edges):
        strip = edge.start[0]
        if edge.to is None:
            _end(tale, show, flow, column, edge, alone=one_by_one)
            break
        _stages(tale, show, flow, strip, edge.tap, first=number == 0)
        _feed(tale, show, flow, edge)
        sides = tale.sides.copy()
        if one_by_one:
            sides[1 - edge.to[1]] = 0.0
        tale.passed(sides)
    return tale


def _stages(tale: Tale, show: Show, flow: Flow, strip: int, tap: int, *, first: bool) -> None:
    """The stages of a strip before a tap; of the first strip also those that the tap leaves out."""
    name, address = strip_name(show, flow.layout.strips[strip]), flow.layout.strips[strip]
    kind = of_kind(address)
    reach = passed(tap)
    for place, stage in enumerate(STAGES):
        if kind not in stage.strips:
            continue
        if stage.leaf == "sharing/out":
            _sharing_stage(tale, show, flow, strip, place, tap, first=first)
            continue
        if stage.worked_out:
            _processing(tale, show, flow, address, tap, name, first=first)
            _make_up(tale, float(flow.arrays.stage[strip, place]), address, place < reach)
            continue
        if stage.leaf == "solo":
            _solo_stage(tale, float(flow.arrays.stage[strip, place]), name, heard=place < reach)
            continue
        if stage.ruled:
            _ruled_stage(tale, show, address, stage.leaf, "" if place < reach else TAPS[tap], first)
            continue
        gain, at = float(flow.arrays.stage[strip, place]), f"{address}/{stage.leaf}"
        neutral = gain == 1.0 and stage.leaf != "fader"
        if place >= reach:
            if first and not neutral:
                detail = f"not in this path: tap {TAP_WORDS[TAPS[tap]]}"
                tale.add(
                    Step(kind=stage.leaf, title=stage.title, detail=detail, in_path=False,
                         address=at)
                )  # fmt: skip
            continue
        if neutral:
            continue
        said = {"polarity": "inverted", "mute": "muted"}.get(stage.leaf, "")
        title = stage.title if first else f"{name} {stage.title.lower()}"
        place_of = name if first else address.replace("/", " ")
        detail = f"{place_of} {said}".strip() if first or not said else f"{place_of}, {said}"
        if whose := fitting_said(show, at):
            detail = f"{detail}, {whose}"
        tale.scaled(
            gain,
            Step(kind=stage.leaf, title=title, detail=detail,
                 gain_db=None if stage.leaf == "polarity" else float(gain_to_db(gain)),
                 open=gain != 0.0, address=at),
        )  # fmt: skip


def _processing(
    tale: Tale, show: Show, flow: Flow, strip: str, tap: int, name: str, *, first: bool
) -> None:
    """Processors that shape what passes; the broadband level leaves them out. A gate that another

    strip opens says which, and what follows that.
    """
    for bead in processing_said(show, strip, tap):
        word = bead.word if first or bead.word.isupper() else bead.word.lower()  # EQ stays
        title = word if first else f"{name} {word}"
        leaf = "delay/ms" if bead.key == "delay" else f"{bead.key}/on"
        at = "mono" if bead.key == "crossover" else strip
        by = keyed(show, flow, strip) if bead.key == "gate" else None
        detail = f"{bead.says}. {by.says}" if by else bead.says
        if whose := processor_said(show, strip, bead.key):
            detail = f"{detail}, {whose}"
        tale.add(Step(kind=bead.key, title=title, detail=detail, address=f"{at}/{leaf}"))


def _make_up(tale: Tale, gain: float, strip: str, heard: bool) -> None:
    """What a compressor adds below its threshold."""
    if gain != 1.0 and heard:
        step = Step(kind="compressor", title="Compressor", detail="make-up; counted as open",
                    gain_db=float(gain_to_db(gain)), open=True,
                    address=f"{strip}/compressor/make_up")  # fmt: skip
        tale.scaled(gain, step)


def _sharing_stage(
    tale: Tale, show: Show, flow: Flow, number: int, place: int, tap: int, *, first: bool
) -> None:
    """What sharing gain is to a strip, where its group has that stage; it counts as alone."""
    strip = flow.layout.strips[number]
    group = group_of(show, strip)
    if group is None or not shares_at(flow, number, place):
        return
    gain, heard = float(flow.arrays.stage[number, place]), place < passed(tap)
    if not heard and not first:
        return
    title = strip_name(show, group)
    detail = share_told(show, flow, strip, tale.shares_now)
    detail = detail if first else f"{strip_name(show, strip)} {detail}"
    if not heard:
        detail = f"{detail}; not in this path: tap {TAP_WORDS[TAPS[tap]]}"
        tale.add(Step(kind="sharing", title=title, detail=detail, in_path=False,
                      address=f"{strip}/sharing/weight"))  # fmt: skip
        return
    leaf = "out" if gain == 0.0 else "weight"
    step = Step(kind="sharing", title=title, detail=detail, gain_db=float(gain_to_db(gain)),
                open=gain != 0.0, address=f"{strip}/sharing/{leaf}")  # fmt: skip
    tale.scaled(gain, step)


def _solo_stage(tale: Tale, gain: float, name: str, *, heard: bool) -> None:
    """Solo in place, where it silences the strip: for a tap before it that is no step."""
    if gain == 0.0 and heard:
        step = Step(kind="ruled", title="Solo in place", detail=f"{name} is not soloed",
                    gain_db=-math.inf, open=False, address="show/solo")  # fmt: skip
        tale.scaled(gain, step)


def _ruled_stage(
    tale: Tale, show: Show, strip: str, stage: str, left_out_by: str, first: bool
) -> None:
    """DCAs and mute groups of a strip, a step each. `left_out_by`: the tap that leaves them out."""
    if left_out_by and not first:
        return
    name = strip_name(show, strip)
    by = ruled(show, strip)
    if stage == "dca":
        steps = [(f"{dca}/fader", level_db) for dca, level_db in by.parts]
    else:
        stage_of = {a: "hard_mute" if a in by.hard else "mute_group" for a in by.muted}
        stage_of |= {a: "dca_mute" for a in by.muted if of_kind(a) == "dca"}
        stage_of.pop(f"{strip}/mute", None)
        steps = [(address, -math.inf) for address, its in stage_of.items() if its == stage]
    for address, level_db in steps:
        ruler = thing_of(address)
        word = "DCA" if of_kind(ruler) == "dca" else "mute group"
        said = {"dca": word, "dca_mute": f"{word}, muted"}.get(stage, f"{word}, on")
        detail = said if first else f"{said}, rules {name}"
        if left_out_by:
            step = Step(kind="ruled", title=strip_name(show, ruler), in_path=False,
                        detail=f"{said}; not in this path: tap {TAP_WORDS[left_out_by]}",
                        address=address)  # fmt: skip
            tale.add(step)
            continue
        gain = gain_of(level_db)
        step = Step(kind="ruled", title=strip_name(show, ruler), detail=detail,
                    gain_db=level_db, open=gain != 0.0, address=address)  # fmt: skip
        tale.scaled(gain, step)


def _pan_words(pan: float) -> str:
    return "centre" if pan == 0.0 else said_pan(pan)


def _feed(tale: Tale, show: Show, flow: Flow, edge: Edge) -> None:
    """The feed from one strip to the next: an assignment, a send, a patch, an effect."""
    assert edge.to is not None
    layout = flow.layout
    start, to = edge.start[0], edge.to[0]
    source, target = layout.strips[start], layout.strips[to]
    if to < layout.first_bus:
        _patched(tale, show, flow, start, to)
        return
    column = to - layout.first_bus
    send = f"{source}/send/{target}"
    is_send = f"{send}/level" in flow.homes
    live = flow.arrays.amp[start, column] * flow.arrays.on[start, column]
    share = flow.wiring.share[start, :, column, :]
    sides, is_open = tale.sides @ share, not edge.off
    if is_open or live > 0.0:
        sides = sides * live
    if not sides.any():  # panned away, or off: go on as if it were open in the centre
        sides = np.array([tale.sides.max(), 0.0])
    detail = TAP_WORDS[TAPS[edge.tap]]
    if flow.arrays.sides[to] == 2:
        pan = flow.arrays.pan[start, column] if is_send else flow.arrays.strip_pan[start]
        detail += f", {_pan_words(float(pan))}"
    title = f"Send to {strip_name(show, target)}" if is_send else f"To {strip_name(show, target)}"
    address = f"{send}/level" if is_send else f"{source}/{target}/on"
    if not is_send and f"{source}/{target}/level" in flow.homes:
        level_db = show.number(f"{source}/{target}/level")
        if level_db != 0.0:  # what it adds is told with the pan's: said by itself too
            words = "off" if level_db == -math.inf else f"{said(level_db, signed=True)} dB into it"
            detail, address = f"{detail}, {words}", f"{source}/{target}/level"
    tale.spread(sides, "send", title, detail, address, is_open=is_open)


def _patched(tale: Tale, show: Show, flow: Flow, bus: int, to: int) -> None:
    """A bus that feeds a channel, or an effect its return."""
    layout, fed = flow.layout, flow.fed
    target = layout.strips[to]
    sides = np.zeros(2)
    for place in np.flatnonzero(fed.row == to):
        side = int(fed.node[place] - layout.channels) % 2 if to >= layout.channels else 0
        sides[side] += float(tale.sides @ fed.share[place])
    if not sides.any():  # it takes the side that what is off ahead is panned away from
        sides[0] = tale.sides.max()
    wet = of_kind(target) == "return"
    engine = show.text(f"{target}/source") if wet else ""
    title = strip_name(show, engine) if wet else strip_name(show, target)
    detail = "effect, wholly wet" if wet else f"fed by {strip_name(show, layout.strips[bus])}"
    tale.spread(sides, "effect" if wet else "fed", title, detail, f"{target}/source")


def _end(tale: Tale, show: Show, flow: Flow, column: int, edge: Edge, *, alone: bool) -> None:
    """The last strip's stages, and the sockets that carry it."""
    layout, strip = flow.layout, edge.start[0]
    if column >= layout.buses:
        _stages(tale, show, flow, strip, edge.tap, first=True)
        socket = layout.outputs[column - layout.buses]
        tale.spread(tale.sides * edge.gain, "output", listener_name(show, socket),
                    socket_name(show.desk, socket), f"{socket}/trim")  # fmt: skip
        return
    bus = layout.strips[strip]
    carrying = flow.sockets_of(column)
    if alone:
        kept = np.zeros(2)
        kept[edge.start[1]] = tale.sides[edge.start[1]]
        tale.sides = kept
    if edge.socket is None:
        _stages(tale, show, flow, strip, edge.tap, first=False)
        tale.add(
            Step(kind="output", title="Output", detail=f"{strip_name(show, bus)} goes to no output",
                 gain_db=-math.inf, open=False)
        )  # fmt: skip
        return
    ears = tale.sides @ flow.ears.gain[column]
    taps = {tap for side, _, tap, _ in carrying}
    title, detail = _output_words(show, flow, column, carrying)
    address = next((f"{socket}/trim" for _, socket, _, _ in carrying if socket), None)
    if ears.any() and len(taps) > 1:
        detail += f"; taps differ: {', '.join(TAP_WORDS[TAPS[tap]] for tap in sorted(taps))}"
        tale.spread(ears, "output", title, detail, address)
        return
    _stages(tale, show, flow, strip, edge.tap, first=False)
    if not ears.any():
        ears = tale.sides * edge.gain
    tale.spread(ears, "output", title, detail, address)


def _output_words(
    show: Show, flow: Flow, column: int, carrying: list[tuple[int, str, int, float]]
) -> tuple[str, str]:
    bus = flow.layout.listener(column)
    sockets = [(side, socket, trim) for side, socket, _, trim in carrying if socket]
    if not sockets:
        if flow.ears.by_matrix[column]:
            return "Behind its fader", f"{strip_name(show, bus)} is heard by way of a matrix"
        if flow.ears.inner[column]:
            return "Behind its fader", "a group in between: no socket carries it"
        return "Effect engine", "behind the fader"
    labels = [show.text(f"{socket}/label") for _, socket, _ in sockets]
    title = ", ".join(dict.fromkeys(label for label in labels if label)) or "Output"
    details = [", ".join(socket_name(show.desk, socket) for _, socket, _ in sockets)]
    if (
        any(side == 2 for side, _, _ in sockets)
        and flow.arrays.sides[flow.layout.first_bus + column] == 2
    ):
        details.append("mono sum")
    for _, socket, _ in sockets:
        trim_db, delay_ms = show.number(f"{socket}/trim"), show.number(f"{socket}/delay_ms")
        details += [f"trim {said(trim_db, signed=True)}"] if trim_db else []
        details += [f"delay {bare(said(delay_ms, 2))} ms"] if delay_ms else []
        details += ["polarity inverted"] if show.on(f"{socket}/polarity") else []
    return title, ", ".join(dict.fromkeys(details))


def head(show: Show, source: str) -> list[Step]:
    """The line, its socket and the preamp: absolute levels, which the table leaves out."""
    if of_kind(source) == "return":
        return _return_head(show, source)
    on_spare = show.on(f"{source}/on_spare")
    socket = show.source_of(Thing.at(source).number)
    at = f"{source}/{'spare' if on_spare else 'source'}"
    if socket is None:
        title = "No spare" if on_spare else "No source"
        detail = "switched to its spare" if on_spare else "the channel takes no input"
        return [Step(kind="line", title=title, detail=detail, open=False, address=at)]
    where = socket_name(show.desk, socket)
    detail = f"spare, socket {where}" if on_spare else f"socket {where}"
    if of_kind(socket) != "input":
        return [Step(kind="line", title=where, detail="inside the desk", address=at)]
    lines = lines_on(show, socket)
    title = show.text(f"line/{lines[0]}/name") if lines else "Nothing plugged in"
    line_dbu = show.number(f"line/{lines[0]}/level_dbu") if lines else None
    steps = [Step(kind="line", title=title, detail=detail, dbu=line_dbu, address=at)]
    box = show.desk.box(Thing.at(socket).box)
    if box is None or not box.preamps:
        return steps
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
    details = [f"{said(gain_db, signed=True)} dB", f"pad {said(-pad_db, 0)} dB" if pad_db else ""]
    details.append("48 V on" if show.on(f"{socket}/phantom") else "48 V off")
    details.append(fitting_said(show, f"{socket}/gain"))
    detail = ", ".join(one for one in details if one)
    return [*steps, Step(kind="preamp", title="Preamp", detail=detail, dbfs=dbfs,
                         address=f"{socket}/gain")]  # fmt: skip


def _return_head(show: Show, source: str) -> list[Step]:
    fed_by, at = show[f"{source}/source"], f"{source}/source"
    if not isinstance(fed_by, str):
        detail = "the return takes neither an engine nor sockets"
        return [Step(kind="line", title="No source", detail=detail, open=False, address=at)]
    if of_kind(fed_by) == "engine":
        mix = show[f"{fed_by}/source"]
        detail = f"fed by {strip_name(show, mix)}" if isinstance(mix, str) else "fed by no mix"
        title = strip_name(show, fed_by)
        return [Step(kind="line", title=title, detail=detail, open=isinstance(mix, str),
                     address=at)]  # fmt: skip
    at_socket = Thing.at(fed_by)
    first = socket_name(show.desk, fed_by)
    return [Step(kind="line", title=f"{first}-{at_socket.number + 1}", detail=f"{at_socket.box}, a"
                 " pair of sockets", address=at)]  # fmt: skip
