"""Fades of recalls against their plan: what takes its time and what jumps, hands, undo, and where

it sounds in between, by the formulas of the rule book.
"""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import (
    CLOSING,
    Asked,
    blank_show,
    fade_seconds,
    fading,
    made,
    recall,
    standing_at,
    store_scene,
)
from ombrel.core.values import fader_db_to_travel, fader_travel_to_db
from tests.desks import TINY

CELLS = {"channel/1": ["fader", "mute", "pan", "eq", "delay", "send/mix/1", "dca/1", "house"]}
FROM: dict[str, Asked] = {"channel/1/fader": -20.0, "channel/1/pan": -1.0,
        "channel/1/eq/2/frequency": 200.0,
        "channel/1/delay/ms": 1.0, "channel/1/send/mix/1/level": -10.0,
        "channel/1/name": "Fiddle", "mix/1/format": "mono"}  # fmt: skip
TO: dict[str, Asked] = {"channel/1/fader": 0.0, "channel/1/pan": 1.0,
      "channel/1/eq/2/frequency": 800.0,
      "channel/1/delay/ms": 9.0, "channel/1/send/mix/1/level": -40.0, "channel/1/mute": True,
      "channel/1/dca/1/on": True, "channel/1/house/on": False}  # fmt: skip


def about_to(seconds=4.0, **own):
    """A show as in FROM with a scene as in TO, and the recall of that as a change."""
    show = made(blank_show(TINY), FROM)[0]
    there = made(show, TO)[0]
    moves = store_scene(there, "There", CELLS)
    times = {f"scene/1/seconds_{kind}": time for kind, time in own.items()}
    show = made(show, {**moves, **times, "scene/1/seconds": seconds})[0]
    found = recall(show, "scene/1")
    return show, made(show, found.moves)[1], fade_seconds(show, "scene/1", found.values)


def test_faders_sends_pans_and_processing_take_their_time_and_the_rest_jumps():
    show, change, seconds = about_to()
    plan = fading(show, change, {}, seconds=seconds, at_s=100.0)
    assert set(plan) == {"channel/1/fader", "channel/1/pan", "channel/1/eq/2/frequency",
                         "channel/1/send/mix/1/level", "channel/1/mute",
                         "channel/1/house/on"}  # fmt: skip
    assert plan["channel/1/mute"].law == CLOSING
    assert plan["channel/1/house/on"].law == CLOSING
    show, change, seconds = about_to(4.0, faders=1.5, pans=0.0)
    plan = fading(show, change, {}, seconds=seconds, at_s=100.0)
    assert "channel/1/pan" not in plan  # a time of its own: none
    assert plan["channel/1/fader"].seconds == 1.5
    assert plan["channel/1/send/mix/1/level"].seconds == 4.0


@given(st.floats(0.0, 1.0))
def test_each_sounds_where_its_law_has_it_and_switches_close_at_the_end(part):
    """Faders evenly in travel, pans evenly, frequencies by equal ratios."""
    show, change, seconds = about_to()
    plan = fading(show, change, {}, seconds=seconds, at_s=0.0)
    at = {address: one.at(4.0 * part) for address, one in plan.items()}
    here, there = fader_db_to_travel(-20.0), fader_db_to_travel(0.0)
    level = fader_travel_to_db(here + part * (there - here))
    assert at["channel/1/fader"] == pytest.approx(level, abs=1e-9)
    assert at["channel/1/pan"] == pytest.approx(-1.0 + 2.0 * part)
    assert at["channel/1/eq/2/frequency"] == pytest.approx(200.0 * math.pow(4.0, part))
    assert at["channel/1/mute"] == (1.0 if part == 1.0 else 0.0)
    assert at["channel/1/house/on"] == (0.0 if part == 1.0 else 1.0)


@given(st.floats(0.5, 3.9))
def test_a_second_recall_goes_on_from_where_it_sounds_and_a_hand_takes_its_own_out(at_s):
    show, change, seconds = about_to()
    first = fading(show, change, {}, seconds=seconds, at_s=0.0)
    stands = show.with_values(change.new)
    back = made(stands, {"channel/1/fader": -20.0})[1]
    second = fading(stands, back, first, seconds={"channel/1/fader": 2.0}, at_s=at_s)
    assert second["channel/1/fader"].start == first["channel/1/fader"].at(at_s)
    assert second["channel/1/pan"] is first["channel/1/pan"]  # the first's others finish
    hand = fading(stands, back, first, seconds=0.0, at_s=at_s)
    assert set(hand) == set(first) - {"channel/1/fader"}
    sounding = standing_at(stands, first, at_s)
    assert sounding["channel/1/fader"] == first["channel/1/fader"].at(at_s)
    assert sounding["channel/1/mute"] is True  # no number: it stands as it is kept


def test_undo_jumps():
    show, change, seconds = about_to()
    plan = fading(show, change, {}, seconds=seconds, at_s=0.0)
    stands = show.with_values(change.new)
    assert fading(stands, change.inverse(), plan, seconds=0.0, at_s=1.0) == {}
