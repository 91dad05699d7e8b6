"""What screens are told after a move, worked out in threads and once for all of them, as text."""

import json
from collections.abc import Iterable, Mapping
from functools import cached_property, lru_cache
from typing import Any, NamedTuple

from ombrel import core
from ombrel.core import Fade

from ..keeping.frames import Frame
from ..keeping.states import State
from .casting import company_message, fitting_message, mic_check_message
from .cues import cue_list_message
from .ears import beside_message, ears_message
from .from_screen import WatchedCell
from .hears import (
    cells_message,
    loudest_message,
    reach_message,
    silent_message,
    table_message,
    why_message,
)
from .noticed import noticed_message
from .phone import phone_message
from .rides import rides_message
from .rulers import ruled_message, unfolded_message
from .scenes import held_message, scene_message, scenes_message
from .sharing import sharing_message
from .strips import curves_message, lifts_message, strip_message
from .tracks import tracks_message
from .values import snapshot_message

__all__ = [
    "Update",
    "bears_on_why",
    "beside_text",
    "cells_text",
    "cue_list_text",
    "closing_text",
    "sharing_text",
    "silent_text",
    "company_text",
    "curves_text",
    "drawn_text",
    "ears_text",
    "fading_text",
    "found_by_levels",
    "fitting_text",
    "held_text",
    "lifts_text",
    "loudest_text",
    "mic_check_text",
    "noticed_told",
    "phone_told",
    "reach_text",
    "rides_told",
    "ruled_again_text",
    "ruled_text",
    "scene_text",
    "scenes_text",
    "snapshot_text",
    "strip_text",
    "table_text",
    "tracks_text",
    "text_of",
    "unfolded_text",
    "why_told",
]


def text_of(message: dict[str, Any]) -> str:
    """A message as it goes over the wire."""
    return json.dumps(message, allow_nan=False, separators=(",", ":"))


class Update:
    """What moved the show on, as one screen is told of it; a key for what is cached."""

    def __init__(self, frame: Frame) -> None:
        self.before, self.revision, self.values = frame.before, frame.revision, frame.values
        self.cells, self.layout, self.noticed = frame.cells, frame.layout, frame.noticed
        self.held, self.fades = frame.held, frame.fades

    @staticmethod
    @lru_cache(maxsize=16)
    def of(frame: Frame) -> "Update":
        """The one `Update` of a frame, for all screens that are told of it."""
        return Update(frame)

    def may_rule(self, *, in_place: bool) -> bool:
        """Whether a true level or what mutes a strip may have moved. A send's level or a source

        does that only while solos are in place.
        """
        return core.bears("muting", self.values) or (
            in_place and core.bears("solo_in_place", self.values)
        )

    def __hash__(self) -> int:
        return hash((self.before, self.revision))

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Update):
            return False
        mine = (self.before, self.revision, self.cells, self.layout)
        return mine == (other.before, other.revision, other.cells, other.layout)

    @cached_property
    def text(self) -> str:
        """The values that moved."""
        moved = {"before": self.before, "revision": self.revision, "values": self.values}
        return text_of({"type": "moved", **moved})


def fading_text(fades: Iterable[Fade], now_s: float) -> str:
    """What is on its way, as points, each (ms from now, what it is then): no clock is shared."""
    told = []
    for fade in fades:
        wire = core.parameter_at(fade.address).kind.to_wire
        since_s = now_s - fade.begun_s
        points = [(round((s - since_s) * 1000), wire(round(at, 2))) for s, at in fade.points()]
        told.append({"address": fade.address, "points": points})
    return text_of({"type": "fading", "fades": told})


def bears_on_why(told: Update, state: State, cell: WatchedCell) -> bool:
    """Whether a move may have changed the explanation of a cell; in doubt it may have."""
    return (
        told.layout
        or told.noticed
        or core.may_explain_otherwise(
            state.show, state.flow, cell.source, cell.listener, told.values
        )
    )


@lru_cache(maxsize=4)
def snapshot_text(state: State) -> str:
    """All values of a show."""
    return text_of(snapshot_message(state))


@lru_cache(maxsize=4)
def table_text(state: State) -> str:
    """The whole table."""
    return text_of(table_message(state))


@lru_cache(maxsize=8)
def cells_text(state: State, told: Update) -> str:
    """The cells that a move changed."""
    return text_of(cells_message(state, told.cells))


_MOST_FEEDS = 40  # of those that break promises, whose setters are looked up


class Explained(NamedTuple):
    """Why, as text; the keys of mute groups in it that no remedy may move (`feeds`); and whether it

    hangs on the shares that are measured.
    """

    text: str
    feeds: tuple[str, ...]
    shares: bool


@lru_cache(maxsize=64)
def why_told(
    state: State, source: str, listener: str, shares: tuple[tuple[str, float], ...] = ()
) -> Explained:
    """The explanation of a cell, with what is measured of who shares gain (dB by strip).

    Raises UnknownAddress.
    """
    message = why_message(state, source, listener, dict(shares))
    keys = {
        f"{reason['ruler']}/on"
        for reason in message["reasons"]
        if core.named_kind(reason["ruler"]) == "mute_group" and reason["remedy"] is None
    }
    steps = (step for way in message["ways"] for step in way["steps"])
    return Explained(
        text_of(message), tuple(sorted(keys)), any(step["kind"] == "sharing" for step in steps)
    )


@lru_cache(maxsize=64)
def loudest_text(state: State, source: str, listener: str) -> str:
    """Who is loudest at a listener. Raises UnknownAddress."""
    return text_of(loudest_message(state, source, listener))


@lru_cache(maxsize=4)
def noticed_told(state: State) -> tuple[str, tuple[str, ...]]:
    """Findings and promises, found once for a state (it is compared by identity), and the feeds by

    which promises are broken, for who set them.
    """
    message = noticed_message(state)
    breaches = [one for promise in message["promises"] for one in promise["breaches"]]
    feeds = dict.fromkeys(feed for breach in breaches for feed in breach["feeds"])
    return text_of(message), tuple(feeds)[:_MOST_FEEDS]


@lru_cache(maxsize=4)
def found_by_levels(state: State) -> tuple[str, ...]:
    """What levels alone can bring about: buses expected past full scale, and who weighs most of a

    group that shares gain and does not win.
    """
    over = (bus for bus, _ in core.over_full_scale(state.show, state.flow))
    return (*over, *(chair.strip for chair in core.chairs_in_vain(state.show, state.flow)))


@lru_cache(maxsize=4)
def ruled_text(state: State) -> str:
    """What all ruled strips truly come to."""
    return text_of(ruled_message(state))


@lru_cache(maxsize=8)
def ruled_again_text(state: State, told: Update) -> str:
    """What those come to that a move bears on; "" for none."""
    strips = core.ruled_by_these(state.show, told.values)
    if strips is None:
        return ruled_text(state)
    return text_of(ruled_message(state, strips)) if strips else ""


@lru_cache(maxsize=4)
def silent_text(state: State) -> str:
    """Who is silent in the house, and why."""
    return text_of(silent_message(state))


@lru_cache(maxsize=16)
def ears_text(state: State) -> str:
    """How every mix for ears and wedges stands."""
    return text_of(ears_message(state))


@lru_cache(maxsize=16)
def beside_text(state: State, one: str, other: str) -> str:
    """Two mixes side by side. Raises UnknownAddress."""
    return text_of(beside_message(state, one, other))


@lru_cache(maxsize=64)
def phone_told(state: State, mixes: tuple[str, ...]) -> tuple[list[dict[str, Any]], str]:
    """The mixes as a phone of these is told them, and the text that tells it."""
    message = phone_message(state, mixes)
    return message["mixes"], text_of(message)


@lru_cache(maxsize=64)
def rides_told(state: State, given: tuple[core.Given, ...]) -> tuple[dict[str, Any], str]:
    """What a volunteer who rides these is told, its revision aside, and the text of it."""
    message = rides_message(state, given)
    return {**message, "revision": 0}, text_of(message)


@lru_cache(maxsize=16)
def closing_text(state: State) -> str:
    """How many cells each mute group's key closes."""
    cells = core.closing(state.show, state.flow)
    return text_of({"type": "closing", "cells": cells})


@lru_cache(maxsize=16)
def reach_text(state: State, ruler: str) -> str:
    """How far a DCA or mute group reaches. Raises UnknownAddress."""
    return text_of(reach_message(state, ruler))


@lru_cache(maxsize=16)
def strip_text(state: State, strip: str) -> str:
    """A strip from top to bottom. Raises UnknownAddress."""
    return text_of(strip_message(state, strip))


@lru_cache(maxsize=16)
def curves_text(state: State, strip: str) -> str:
    """The curves of a strip. Raises UnknownAddress."""
    return text_of(curves_message(state.show, strip, state.flow))


def drawn_text(state: State, strip: str, moves: Mapping[str, core.Asked]) -> str:
    """The curves of a strip as they would be after some moves. Raises what the edit would.

    What arrives at it is told as it stands: no processor of its own moves that.
    """
    show = core.looked_at(state.show, moves)
    return text_of(curves_message(show, strip, state.flow))


@lru_cache(maxsize=8)
def sharing_text(state: State, typed: tuple[tuple[str, str], ...]) -> str:
    """How groups that share gain stand, at levels typed for some of them."""
    return text_of(sharing_message(state, dict(typed)))


@lru_cache(maxsize=4)
def tracks_text(state: State) -> str:
    """What is recorded on which track, and the way back."""
    return text_of(tracks_message(state))


@lru_cache(maxsize=4)
def cue_list_text(state: State) -> str:
    """Cues from outside: what comes, and what it does."""
    return text_of(cue_list_message(state))


@lru_cache(maxsize=4)
def lifts_text(state: State) -> str:
    """Every lift, with the step of every singer for every listener."""
    return text_of(lifts_message(state))


@lru_cache(maxsize=4)
def company_text(state: State) -> str:
    """Parts, casts, performers."""
    return text_of(company_message(state))


@lru_cache(maxsize=4)
def mic_check_text(state: State, order: core.CheckOrder, by: str) -> str:
    """The entries of the mic check, for an operator."""
    return text_of(mic_check_message(state, order, by))


@lru_cache(maxsize=8)
def fitting_text(state: State, channel: str) -> str:
    """Who is on a channel."""
    return text_of(fitting_message(state, channel))


@lru_cache(maxsize=4)
def scenes_text(state: State) -> str:
    """The list of scenes."""
    return text_of(scenes_message(state))


@lru_cache(maxsize=16)
def scene_text(state: State, scene: str) -> str:
    """A scene and what its recall would do. Raises NoSuchScene."""
    return text_of(scene_message(state, scene))


@lru_cache(maxsize=16)
def held_text(state: State, scene: str, holder: str) -> str:
    """What a scene has of a strip. Raises NoSuchScene."""
    return text_of(held_message(state, scene, holder))


def unfolded_text(state: State, things: tuple[str, ...]) -> str:
    """What unfolds of some DCAs, groups and mixes. Raises UnknownAddress."""
    return text_of(unfolded_message(state, things))
