"""What opens a gate: the strip that keys it, how loud it is there, and what follows its hand.

What a key does to a signal is told by the gate's static curve: its level decides how much is taken
away. A key behind its strip's fader follows the fader and the mute; one ahead does not.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from ..catalogue import ALONE, SOURCES, TAPS, check_strip, of_kind, parameter_at
from ..flow import Flow, strip_name
from ..processing import gated_db
from ..show import Show
from ..values import Asked, OscillatorTaken, Typed, UnreadableText, said
from ..wires import CLOSES, Cause, passed
from .channels import free_channel
from .headroom import expected_at, expected_into

__all__ = ["Keyed", "key_dbfs", "keyed", "reinforced"]

_USUAL_DBFS: Final = -24.0  # of a key of which nothing is known, or arrives yet
_LESS_DB: Final = 10.0  # the move of a fader by which it is told what follows
_TAP_WORD: Final = {
    "input": "at its input",
    "before_eq": "before its EQ",
    "before_fader": "before its fader",
    "before_fader_after_mute": "before its fader, behind its mute",
    "after_fader": "behind its fader",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Keyed:
    """What opens a gate. `key`: the strip; `dbfs`: its level at the gate, None where none is known.

    `takes_db`: what the gate takes away now (0: open). `fader_db`, `mute_db`: by how much what
    comes out falls when the key's strip goes 10 dB down, and when it is muted. `says`: in words.
    """

    strip: str
    key: str
    tap: str
    dbfs: float | None
    takes_db: float | None
    fader_db: float | None
    mute_db: float
    says: str


def keyed(show: Show, flow: Flow, strip: str) -> Keyed | None:
    """What opens a channel's gate; None where the gate is off, or opened by the channel itself.

    Raises UnknownAddress.
    """
    key = show[f"{strip}/gate/key"]
    if not show.on(f"{strip}/gate/on") or not isinstance(key, str):
        return None
    tap = show.text(f"{strip}/gate/key_tap")
    dbfs = key_dbfs(show, flow, key, tap)
    now = None if dbfs is None else _takes(show, strip, dbfs)
    follows_fader = tap == "after_fader"
    follows_mute = tap in ("before_fader_after_mute", "after_fader")
    closed = _takes(show, strip, -math.inf)
    fader: float | None = 0.0
    if follows_fader:
        fader = None if dbfs is None or now is None else _takes(show, strip, dbfs - _LESS_DB) - now
    mute = (closed - (now or 0.0)) if follows_mute else 0.0
    name = strip_name(show, key)
    says = f"{name} opens it, {_TAP_WORD[tap]}{_loudest_there(show, flow, key)}"
    silent = _silenced_by(show, flow, key, tap) if dbfs == -math.inf else ""
    says += _level_says(show, strip, dbfs, now, silent)
    says += _follows_says(name, fader, mute, follows_fader=follows_fader, follows_mute=follows_mute)
    return Keyed(
        strip=strip,
        key=key,
        tap=tap,
        dbfs=dbfs,
        takes_db=now,
        fader_db=fader,
        mute_db=mute,
        says=says,
    )


def _loudest_there(show: Show, flow: Flow, key: str) -> str:
    """Whom one thinks of where a bus, or what a bus feeds, opens a gate: the loudest in it."""
    row = flow.layout.index[key]
    buses = flow.fed.bus[: flow.fed.dry][flow.fed.row[: flow.fed.dry] == row]
    bus = flow.layout.listener(int(buses[0])) if buses.size else key
    if of_kind(bus) in SOURCES:
        return ""
    loudest = expected_at(show, flow, bus).loudest
    return f", {loudest[0].name} the loudest in it" if loudest else ""


def _silenced_by(show: Show, flow: Flow, key: str, tap: str) -> str:
    """Why nothing of a key arrives: what closes its strip, or all that leads into its bus."""
    layout = flow.layout
    if words := _closed_words(flow, layout.index[key], tap):
        return f"{strip_name(show, key)} {words}"
    if layout.index[key] < layout.first_bus:
        return ""
    columns = np.array([layout.column(key)])
    rows = np.flatnonzero(flow.sides_on(layout.every_row, columns).any(axis=(1, 2)))
    sourced = [row for row in rows.tolist() if flow.sourced[row]]
    if not sourced:
        return "nothing with a source leads there"
    own = [(row, _closed_words(flow, row, "after_fader")) for row in sourced]
    named = [f"{strip_name(show, layout.source(row))} {words}" for row, words in own if words]
    if not named:
        return ""
    return named[0] if len(sourced) == 1 else f"{named[0]}, and the rest of it is silent too"


def _closed_words(flow: Flow, strip: int, tap: str) -> str:
    """What closes a strip before a tap, in words; "" for nothing."""
    closed = np.flatnonzero(flow.arrays.stage[strip, : passed(TAPS.index(tap))] == 0.0)
    causes = {Cause(int(CLOSES[place])) for place in closed.tolist()}
    if Cause.MUTED in causes:
        return "is muted"
    return "has its fader off" if causes else ""


def _level_says(show: Show, strip: str, dbfs: float | None, now: float | None, silent: str) -> str:
    if dbfs is None or now is None:
        return ": no level of it is known."
    if dbfs == -math.inf:
        why = f" ({silent})" if silent else ""
        return f": nothing of it arrives{why}, and {said(now, 0)} dB are taken away."
    over = dbfs - show.number(f"{strip}/gate/threshold")
    side = f"{said(abs(over), 0)} dB {'over' if over >= 0.0 else 'under'} the threshold"
    taken = "open" if now < 0.05 else f"{said(now, 0)} dB are taken away"
    return f", expected at {said(dbfs, 0)} dBFS, {side}: {taken}."


def _follows_says(
    name: str, fader: float | None, mute: float, *, follows_fader: bool, follows_mute: bool
) -> str:
    if not follows_fader:
        words = f" It does not follow {name}'s fader"
        return words + (
            f"; muted, it falls by {said(mute, 0)} dB." if follows_mute else ", nor its mute."
        )
    words = ""
    if fader is not None:
        words = f" With {name}'s fader 10 dB lower it falls by {said(fader, 0)} dB;"
    return f"{words} muted, by {said(mute, 0)} dB."


def _takes(show: Show, strip: str, dbfs: float) -> float:
    """What a gate takes away, in dB, while its key stands at a level."""
    at = f"{strip}/gate"
    if dbfs == -math.inf:
        return show.number(f"{at}/range") if show.number(f"{at}/ratio") > 1.0 else 0.0
    level = max(dbfs, -300.0)
    out = gated_db(
        np.array([level]),
        threshold_db=show.number(f"{at}/threshold"),
        ratio=show.number(f"{at}/ratio"),
        range_db=show.number(f"{at}/range"),
    )
    return float(level - out[0])


def key_dbfs(show: Show, flow: Flow, key: str, tap: str) -> float | None:
    """The level of a strip at one of its taps; -inf for silence, None where none is known."""
    gain = abs(float(flow.wiring.tap[flow.layout.index[key], TAPS.index(tap)]))
    known = expected_into(show, flow, key)
    if known is None:
        return None
    return known + 20.0 * math.log10(gain) if gain > 0.0 else -math.inf


def reinforced(
    show: Show, flow: Flow, strip: str, frequency: str, *, on: int | None = None
) -> Mapping[str, Asked]:
    """Moves that reinforce a channel by a keyed tone: a channel (the highest free one, or the one

    that it is to be `on`) takes the oscillator at a frequency as typed, goes where the channel
    goes, and its gate is opened by the channel behind its fader and follows it dB for dB, so that
    one fader rules both. Raises NothingLeft, UnreadableText for no channel and for one that is not
    free, and OscillatorTaken where another channel has the oscillator at another frequency.
    """
    if of_kind(strip) != "channel":
        raise UnreadableText(strip, "a channel, whose sound opens the tone")
    check_strip(show.desk, strip, "gate/key")
    channels = [f"channel/{n}" for n in range(1, show.desk.channels + 1)]
    users = [
        one for one in channels if "oscillator" in (show[f"{one}/source"], show[f"{one}/spare"])
    ]
    hertz = _hertz(frequency)
    if users and show.number("oscillator/frequency") != hertz:
        raise OscillatorTaken(strip_name(show, users[0]), show.number("oscillator/frequency"))
    highest = max((n for n in range(1, show.desk.channels + 1) if not show.uses(f"channel/{n}")),
                  default=None)  # fmt: skip
    number, cleared = free_channel(show, wanted=highest if on is None else on)
    tone, stands = f"channel/{number}", key_dbfs(show, flow, strip, "after_fader")
    # at 2:1 from the level expected on, each dB less of the key is one dB less of the tone
    threshold = stands if stands is not None and -60.0 < stands < 0.0 else _USUAL_DBFS
    moves: dict[str, Asked] = {
        **cleared,
        f"{tone}/name": f"{strip_name(show, strip)[:50]} tone",
        f"{tone}/colour": show[f"{strip}/colour"],
        f"{tone}/source": "oscillator",
        f"{tone}/fader": -10.0,
        f"{tone}/gate/on": True,
        f"{tone}/gate/key": strip,
        f"{tone}/gate/key_tap": "after_fader",
        f"{tone}/gate/threshold": round(threshold * 2.0) / 2.0,
        f"{tone}/gate/range": 80.0,
        f"{tone}/gate/ratio": 2.0,
        f"{tone}/gate/attack": 2.0,
        f"{tone}/gate/hold": 60.0,
        f"{tone}/gate/release": 120.0,
        "oscillator/kind": "sine",
        "oscillator/frequency": Typed(frequency),
    }
    groups = [f"group/{n}" for n in range(1, show.desk.groups + 1)]
    moves |= {f"{tone}/{bus}/on": show.on(f"{strip}/{bus}/on") for bus in (*ALONE, *groups)}
    return moves


def _hertz(typed: str) -> float:
    kind = parameter_at("oscillator/frequency").kind
    value = kind.typed(typed, 0.0, "oscillator/frequency")
    assert isinstance(value, float)  # the kind is a number
    return value
