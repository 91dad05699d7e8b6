"""What each input socket's preamp makes of the line on it, and the gain that would suit."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..catalogue import Thing, kind_on, of_kind
from ..show import Show, check_lines, lines_on
from ..values import Asked, Number, predicted_dbfs

__all__ = ["Preamp", "preamp_of", "preamps", "source_dbfs", "suggested_gains"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Preamp:
    """A socket with a preamp and a line. `dbfs`: level expected behind it; `over`: past full scale.

    `suggested_db`: gain that brings the line to the show's target, within the desk's range.
    """

    socket: str
    line: int
    dbfs: float
    over: bool
    suggested_db: float


def preamp_of(show: Show, socket: str) -> Preamp | None:
    """The preamp of a socket, or None where there is no preamp or no line on it."""
    box = show.desk.box(Thing.at(socket).box) if of_kind(socket) == "input" else None
    lines = lines_on(show, socket) if box is not None and box.preamps else []
    return _preamp(show, socket, lines[0]) if lines else None


def recorded_from(show: Show, source: str) -> str | None:
    """Of an input where a recorder plays a track back: the input that the track was recorded from

    raw, through a channel's direct out; None for anything else.
    """
    if of_kind(source) != "input":
        return None
    at = Thing.at(source)
    box = show.desk.box(at.box)
    if box is None or box.preamps or at.number > box.outputs or lines_on(show, source):
        return None
    output = f"output/{at.box}/{at.number}"
    carried = show[f"{output}/source"]
    if not isinstance(carried, str) or of_kind(carried) != "channel":
        return None
    origin = show[f"{Thing.at(carried).thing}/source"]
    raw = show[f"{output}/tap"] == "input" and isinstance(origin, str) and origin != source
    return str(origin) if raw else None


def source_dbfs(show: Show, source: str) -> float | None:
    """The level that a source is expected to bring to a channel; None where none is known."""
    if source == "oscillator":
        return show.number("oscillator/level")
    preamp = preamp_of(show, source) or preamp_of(show, recorded_from(show, source) or source)
    return None if preamp is None else preamp.dbfs


def _preamp(show: Show, socket: str, line: int) -> Preamp:
    line_dbu = show.number(f"line/{line}/level_dbu")
    pad_db = show.desk.pad_db if show.on(f"{socket}/pad") else 0.0
    full_scale_dbu = show.desk.full_scale_dbu
    dbfs = predicted_dbfs(
        line_dbu=line_dbu,
        gain_db=show.number(f"{socket}/gain"),
        pad_db=pad_db,
        full_scale_dbu=full_scale_dbu,
    )
    wanted_db = show.number("show/target_dbfs") + full_scale_dbu + pad_db - line_dbu
    gain = kind_on(show.desk, f"{socket}/gain")
    assert isinstance(gain, Number)  # by the catalogue
    return Preamp(
        socket=socket,
        line=line,
        dbfs=dbfs,
        over=dbfs > 0.0,
        suggested_db=gain.suggested(wanted_db),
    )


def suggested_gains(show: Show, lines: Sequence[int]) -> dict[str, Asked]:
    """Moves that set the preamps of these lines to their suggested gains. Raises NotThere."""
    check_lines(show, lines)
    wanted = set(lines)
    return {f"{p.socket}/gain": p.suggested_db for p in preamps(show) if p.line in wanted}


def preamps(show: Show) -> list[Preamp]:
    """Every preamp with a line on it, in the lines' order; a socket once, by its first line."""
    found: dict[str, Preamp] = {}
    for line in show.lines():
        for side in ("socket", "socket_right"):
            socket = show[f"line/{line}/{side}"]
            box = show.desk.box(Thing.at(socket).box) if isinstance(socket, str) else None
            if isinstance(socket, str) and box is not None and box.preamps and socket not in found:
                found[socket] = _preamp(show, socket, line)
    return list(found.values())
