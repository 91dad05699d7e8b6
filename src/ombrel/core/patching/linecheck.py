"""Line check: what arrives from the stage, at which channel, and whether a cable is swapped."""

import math
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from typing import Final

from ..catalogue import Thing
from ..show import Show, channels_on, check_lines, lines_on, socket_name, sockets_of_line
from ..values import Asked, predicted_dbfs, said
from .patch import move_sockets
from .preamps import source_dbfs

__all__ = ["Arrival", "arrival_of", "channel_meters", "swap_lines"]

# Below this a meter shows what a quiet stage leaks, not a signal: Ombrel's own bound.
SILENT_DBFS: Final = -60.0
# How far from the expected level still counts as the expected signal: a finger tap is no standard.
_NEAR_DB: Final = 9.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Arrival:
    """What arrives of one line that is fed from the stage.

    `dbfs`: level at its own socket (-inf: nothing); `expected_dbfs`: what its preamp should make of
    it (None: no preamp or no socket); `elsewhere`: another socket where a signal arrives, and
    `suspect`: the line that should be there. `good`: it arrives where it should, about as loud as
    it should. `says`: all that in words.
    """

    line: int
    dbfs: float
    expected_dbfs: float | None
    elsewhere: str | None
    suspect: int | None
    good: bool
    says: str


def _dbfs(show: Show, socket: str, level_dbu: float) -> float:
    box = show.desk.box(Thing.at(socket).box)
    preamp = box is not None and box.preamps
    pad_db = show.desk.pad_db if preamp and show.on(f"{socket}/pad") else 0.0
    gain_db = show.number(f"{socket}/gain") if preamp else 0.0
    return predicted_dbfs(
        line_dbu=level_dbu,
        gain_db=gain_db,
        pad_db=pad_db,
        full_scale_dbu=show.desk.full_scale_dbu,
    )


def channel_meters(show: Show, levels_dbu: Mapping[str, float]) -> dict[int, float]:
    """Input meter of each channel that a fed socket reaches, in dBFS, by channel number.

    `levels_dbu`: level at each socket where a signal is; others are silent.
    """
    return {
        channel: _dbfs(show, socket, level_dbu)
        for socket, level_dbu in levels_dbu.items()
        for channel in channels_on(show, socket)
    }


def arrival_of(
    show: Show, line: int, levels_dbu: Mapping[str, float], *, fed: Set[int] = frozenset()
) -> Arrival:
    """What arrives of a line; `levels_dbu` as for `channel_meters`.

    `fed`: lines that somebody is feeding. What arrives elsewhere is put down to this line only if
    it is among them, or if none is (somebody taps it); what the others explain never is. A line
    that has left the list is said to have.
    """
    if line not in show.lines():
        return Arrival(
            line=line, dbfs=-math.inf, expected_dbfs=None, elsewhere=None, suspect=None, good=False,
            says="This line is no longer in the list: choose another.",
        )  # fmt: skip
    own = sockets_of_line(show, line)
    played = _played(show, own)
    own = played or own  # where its channels hear the recorder, that is what is checked
    name = show.text(f"line/{line}/name") or f"Line {line}"
    heard = {socket: _dbfs(show, socket, dbu) for socket, dbu in sorted(levels_dbu.items())}
    heard = {socket: dbfs for socket, dbfs in heard.items() if dbfs > SILENT_DBFS}
    dbfs = max((heard[socket] for socket in own if socket in heard), default=-math.inf)
    explained = {socket for other in fed - {line} for socket in sockets_of_line(show, other)}
    if fed and line not in fed:
        explained |= set(heard)
    strays = sorted(set(heard) - set(own) - explained, key=lambda socket: (-heard[socket], socket))
    elsewhere = strays[0] if strays and dbfs == -math.inf else None
    owners = lines_on(show, elsewhere) if elsewhere else []
    expected = source_dbfs(show, own[0]) if own else None
    good = False
    back = ", played back" if played else ""
    if not own:
        says = f"{name} has no socket yet."
    elif elsewhere and owners:
        other = show.text(f"line/{owners[0]}/name")
        says = (
            f"Nothing at {socket_name(show.desk, own[0])}; it arrives at"
            f" {socket_name(show.desk, elsewhere)}, where {other} should be. Swapped cables?"
        )
    elif elsewhere:
        where = socket_name(show.desk, elsewhere)
        says = f"Nothing at {socket_name(show.desk, own[0])}; it arrives at {where}."
    elif dbfs == -math.inf:
        says = f"Nothing arrives at {socket_name(show.desk, own[0])}{back}."
    elif dbfs > 0.0:
        says = f"Arrives at {said(dbfs, 0, signed=True)} dBFS: past full scale."
    elif expected is not None and abs(dbfs - expected) > _NEAR_DB:
        way = "louder" if dbfs > expected else "quieter"
        by = said(abs(dbfs - expected), 0)
        says = f"Arrives at {said(dbfs, 0)} dBFS, {by} dB {way} than expected."
    else:
        where = " from its track" if played else ""
        good, says = True, f"Arrives{where} at {said(dbfs, 0)} dBFS, as expected."
    return Arrival(
        line=line,
        dbfs=dbfs,
        expected_dbfs=expected,
        elsewhere=elsewhere,
        suspect=owners[0] if owners else None,
        good=good,
        says=says,
    )


def _played(show: Show, sockets: Sequence[str]) -> list[str]:
    """Where the tracks of a line's channels come back, while the key for playback is on."""
    found = []
    for number in show.channels():
        channel = f"channel/{number}"
        source = show.source_of(number)
        if show.on(f"{channel}/played") and show[f"{channel}/source"] in sockets and source:
            found.append(source)
    return list(dict.fromkeys(found))


def swap_lines(show: Show, one: int, other: int) -> dict[str, Asked]:
    """Moves that exchange the sockets of two lines, for cables that are swapped on the stage.

    Each channel goes on hearing the line that it heard by plan: sources and spares on the sockets
    change places too, and so do gain and pad. Phantom power stays as it is at each socket. Raises
    NotThere.
    """
    check_lines(show, (one, other))
    pairs = list(zip(sockets_of_line(show, one), sockets_of_line(show, other), strict=False))
    sockets = [socket for pair in pairs for socket in pair]
    return move_sockets(show, sockets, [socket for pair in pairs for socket in reversed(pair)])
