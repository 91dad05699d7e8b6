"""Who is silent in the house, and why: what an engineer looks for while the evening runs."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from ..catalogue import thing_of
from ..flow import Flow, State, listeners, source_name, sources
from ..show import Show
from .answer import reasons_of
from .reason import Reason
from .reasons import Reasons

__all__ = ["Silent", "Silents", "silent"]

_HOUSE: Final = ("house", "mono")
MOST: Final = 40  # that are told; a reason is looked for, for each


# where each is silent by something of its own
_OWN: Final[Mapping[str, str]] = {
    "muted": "Muted by their own keys.",
    "down": "Their own faders are off.",
    "no_source": "They have no source.",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Silent:
    """A source that the house does not hear; `why`: the first of the reasons. `listener`: where

    Why answers for it. `together`: words for all that are silent for the same.
    """

    source: str
    name: str
    listener: str
    why: Reason
    together: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Silents:
    """The first of all that are silent, who could be heard first; `count`: how many there are."""

    told: tuple[Silent, ...]
    count: int


def silent(show: Show, flow: Flow) -> Silents:
    """The sources in use that go to the house or mono and arrive at neither, or that nobody hears.

    One that is heard elsewhere and goes to neither is meant so (a click, talkback), and not told.
    What has no source comes last, in the desk's order within.
    """
    layout = flow.layout
    every = sources(show)
    if not every:
        return Silents(told=(), count=0)
    rows = [layout.row(one) for one in every]
    house = [layout.column(one) for one in _HOUSE]
    at_house = flow.part(rows, house)[1]
    heard = flow.part(rows, [layout.column(one) for one in listeners(show)])[1] == State.HEARD
    routed = at_house != State.UNROUTED
    arrives = (at_house == State.HEARD).any(axis=1)
    found = ~arrives & (routed.any(axis=1) | ~heard.any(axis=1))
    at = np.where(routed[:, 0] | ~routed[:, 1], 0, 1)  # the house, unless mono alone is meant
    states = at_house[np.arange(len(every)), at]
    order = sorted(np.flatnonzero(found).tolist(), key=lambda n: states[n] == State.NO_SOURCE)
    known = Reasons(show, flow)
    told = []
    for n in order[:MOST]:
        reasons = reasons_of(known, rows[n], house[at[n]], State(int(states[n])))
        if reasons:
            name = source_name(show, every[n])
            told.append(
                Silent(
                    source=every[n],
                    name=name,
                    listener=_HOUSE[at[n]],
                    why=reasons[0],
                    together=_together(every[n], reasons[0]),
                )
            )
    return Silents(told=tuple(told), count=len(order))


def _together(source: str, why: Reason) -> str:
    return _OWN.get(why.code, why.says) if thing_of(why.address) == source else why.says
