"""Ears and wedges: for each mix who hears it, how it stands, and what is wrong; the worst first."""

import math
from collections import Counter
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Final

from ..catalogue import SENDERS, TAPS, Thing, named_kind, strips_of
from ..flow import Flow, State, strip_name
from ..patching import outputs_of
from ..show import Show, socket_name, strips_of_family
from ..strips import strip_ms
from ..together import member_for
from ..values import UnreadableText
from .levels import Balance, Balances
from .opened import opened
from .recipes import deciding, read_recipe
from .selves import selves_of, who_hears

__all__ = ["Beside", "Ear", "beside", "cues_missing", "ears"]

_AFTER_FADER: Final = TAPS.index("after_fader")


@dataclass(frozen=True, slots=True, kw_only=True)
class Ear:
    """A mix for ears or a wedge. `who`: whoever hears it; `outputs`: where it goes, `packs`: what

    is connected there. `balance`: with nothing muted; `silent_now`: channels of self that do not
    arrive as it stands, though they would. `cues`: cues that it counts on and lacks. `short_db`:
    how far below its aim, 0 from there on. `ceiling_dbfs`: its level with the fader at its ceiling,
    None where there is none. `taps`: sends whose tap is not that of the others. `late_ms`: the
    latest of self, from its socket to the mix's; None where that is not known.
    """

    mix: str
    name: str
    who: str
    serves: str
    stereo: bool
    outputs: tuple[str, ...]
    packs: tuple[str, ...]
    selves: tuple[str, ...]
    balance: Balance
    aim_db: float
    silent_now: tuple[str, ...]
    cues: tuple[str, ...]
    ceiling_db: float
    ceiling_dbfs: float | None
    taps: tuple[str, ...]
    late_ms: float | None
    started: bool
    locked: bool
    lock_reason: str

    @property
    def short_db(self) -> float:
        over = self.balance.stands == "over"
        return max(0.0, self.aim_db - self.balance.over_db) if over else 0.0

    @property
    def is_bad(self) -> bool:
        """Whether somebody should look at it."""
        return self.badness[0] > 1

    @property
    def badness(self) -> tuple[int, float]:
        """What orders mixes, the worst first: overload, self missing, cues missing, below its aim

        by how much; then what is well; then what is of nobody.
        """
        stands = self.balance.stands
        if self.balance.dbfs > 0.0:
            return 5, self.balance.dbfs
        if stands in ("missing", "nothing") or (self.balance.missing and stands != "none"):
            return 4, float(len(self.balance.missing))
        if self.cues:
            return 3, float(len(self.cues))
        if self.short_db > 0.0:
            return 2, self.short_db
        return (0, 0.0) if stands == "none" else (1, 0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Beside:
    """A strip's sends to two mixes: levels in dB (-inf: off), pans, and how far the second is above

    the first (None where either is off).
    """

    strip: str
    one_db: float
    other_db: float
    one_pan: float
    other_pan: float

    @property
    def by_db(self) -> float | None:
        both = self.one_db > -math.inf and self.other_db > -math.inf
        return round(self.other_db - self.one_db, 6) if both else None


def beside(show: Show, one: str, other: str) -> tuple[Beside, ...]:
    """Every strip that either of two mixes has, what only one has first, then by distance. Raises

    UnknownAddress.
    """
    found = [
        Beside(
            strip=strip,
            one_db=_sent_db(show, strip, one),
            other_db=_sent_db(show, strip, other),
            one_pan=show.number(f"{strip}/send/{one}/pan"),
            other_pan=show.number(f"{strip}/send/{other}/pan"),
        )
        for strip in strips_of(show.desk, *SENDERS)
    ]
    heard = [row for row in found if max(row.one_db, row.other_db) > -math.inf]
    return tuple(sorted(heard, key=lambda row: -math.inf if row.by_db is None else -abs(row.by_db)))


def _sent_db(show: Show, strip: str, mix: str) -> float:
    send = f"{strip}/send/{mix}"
    return show.number(f"{send}/level") if show.on(f"{send}/on") else -math.inf


def ears(show: Show, flow: Flow) -> tuple[Ear, ...]:
    """Every mix in use for ears or a wedge (of a linked pair the odd), the worst first."""
    then, through = opened(show, flow)
    balances = Balances(then, through)
    found = [
        _ear(show, flow, balances, mix)
        for mix in show.in_use("mix")
        if show[f"{mix}/serves"] in ("ears", "wedge") and member_for(show, mix) == mix
    ]
    return tuple(sorted(found, key=lambda one: (*(-n for n in one.badness), _number(one.mix))))


def _number(mix: str) -> int:
    return Thing.at(mix).number


def _ear(show: Show, flow: Flow, balances: Balances, mix: str) -> Ear:
    selves = selves_of(show, mix)
    balance = balances.of(mix, selves)
    sockets = list(outputs_of(show, mix))
    labels = [show.text(f"{socket}/label") for socket in sockets]
    ceiling_db = show.number(f"{mix}/ceiling")
    under = ceiling_db < 6.0 and balance.in_dbfs > -math.inf
    locked_all = show.on("show/ears_locked")
    reason = show.text("show/ears_lock_reason") if locked_all else show.text(f"{mix}/lock_reason")
    return Ear(
        mix=mix,
        name=strip_name(show, mix),
        who=who_hears(show, mix),
        serves=show.text(f"{mix}/serves"),
        stereo=show[f"{mix}/format"] == "stereo",
        outputs=tuple(socket_name(show.desk, one) for one in sockets),
        packs=tuple(dict.fromkeys(one for one in labels if one)),
        selves=tuple(selves),
        balance=balance,
        aim_db=show.number(f"{mix}/aim"),
        silent_now=_silent_now(flow, mix, balance.arriving),
        cues=cues_missing(show, flow, mix),
        ceiling_db=ceiling_db,
        ceiling_dbfs=_with_fader(show, mix, balance, ceiling_db) if under else None,
        taps=_other_taps(show, mix),
        late_ms=_late_ms(show, mix, balance.arriving, sockets),
        started=show.on(f"{mix}/started"),
        locked=locked_all or show.on(f"{mix}/locked"),
        lock_reason=reason,
    )


def _with_fader(show: Show, mix: str, balance: Balance, fader_db: float) -> float:
    """What a mix would be expected at, with its fader there: what lies behind stays."""
    now_db = show.number(f"{mix}/fader")
    if now_db == -math.inf or balance.dbfs == -math.inf:
        return balance.in_dbfs + fader_db
    return balance.dbfs - now_db + fader_db


def _silent_now(flow: Flow, mix: str, selves: Sequence[str]) -> tuple[str, ...]:
    return tuple(
        one for one in selves
        if flow.state_of(one, mix) not in (State.HEARD, State.NO_OUTPUT)
    )  # fmt: skip


def cues_missing(show: Show, flow: Flow, mix: str) -> tuple[str, ...]:
    """The cues that whoever hears a mix counts on, by its start or its recipe, and that do not

    reach it by any feed that is on.
    """
    cues = strips_of_family(show, "cues")
    counted = [one for one in cues if show.number(f"{one}/send/{mix}/start") > -math.inf]
    if cues and (recipe := show.text(f"{mix}/recipe")):
        with suppress(UnreadableText):  # written for other names: it counts on nothing
            items = read_recipe(show, recipe, mix)
            by_recipe = ((one, deciding(items, one)) for one in cues)
            counted += [one for one, item in by_recipe if item and item.rank and item.opens]
    column = flow.layout.column(mix)
    return tuple(
        one for one in dict.fromkeys(counted)
        if flow.state[flow.layout.row(one), column] in (State.UNROUTED, State.NO_SOURCE)
    )  # fmt: skip


def _other_taps(show: Show, mix: str) -> tuple[str, ...]:
    """The strips whose open sends tap otherwise than most of the mix's do."""
    taps = {
        strip: show.text(f"{strip}/send/{mix}/tap")
        for strip in strips_of(show.desk, *SENDERS)
        if _sent_db(show, strip, mix) > -math.inf
    }
    usual = Counter(taps.values()).most_common(1)
    return tuple(strip for strip, tap in taps.items() if tap != usual[0][0])


def _late_ms(show: Show, mix: str, selves: Sequence[str], sockets: Sequence[str]) -> float | None:
    """By the latest of self's own sends, behind its converter and before the mix's."""
    sent = [one for one in selves if _sent_db(show, one, mix) > -math.inf]
    if not sent or not sockets:
        return None
    figures, rate = show.desk.latency, show.desk.sample_rate_hz
    ways = []
    for one in sent:
        comes_in = named_kind(show.source_of(Thing.at(one).number)) == "input"
        tap = TAPS.index(show.text(f"{one}/send/{mix}/tap"))
        samples = (figures.converter_in if comes_in else 0) + figures.converter_out
        ways.append(strip_ms(show, one, tap) + samples * 1_000.0 / rate)
    out_ms = max(show.number(f"{socket}/delay_ms") for socket in sockets)
    return max(ways) + strip_ms(show, mix, _AFTER_FADER) + out_ms
