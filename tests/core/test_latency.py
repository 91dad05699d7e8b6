"""How late a signal arrives, against a walk of every simple path; combs, and what aligns them."""

import cmath
import math
from itertools import pairwise

import pytest
from hypothesis import given, settings

from ombrel.core import Value, findings, flow_of, made, show_of, why
from ombrel.core.strips import aligned, apart
from ombrel.core.strips.latency import comb_hz
from tests.desks import TINY
from tests.shows import SHOW_SEEDS, show_of_seed

from .test_promises import ways_past
from .walk import TAPS, Referee, kind

RATE = 48.0  # samples in a millisecond


def late(show, strips):
    """By hand, what the strips of a path add before the taps that it takes, in ms."""
    found = 0.0
    for one, other in pairwise(strips):
        send = f"{one}/send/{other}"
        assigned = kind(other) in ("group", "house", "mono")
        reach = TAPS.index("after_fader" if assigned else show[f"{send}/tap"])
        for place, least in ((1, 1), (2, 2)):
            insert = f"{one}/insert_{place}"
            if reach >= least and show[f"{insert}/device"] and show[f"{insert}/on"]:
                found += show.desk.latency.insert / RATE
        found += show.desk.latency.strip / RATE if reach >= 1 else 0.0
        if reach >= 2 and show[f"{one}/delay/on"]:
            found += show[f"{one}/delay/ms"]
    return found


@settings(max_examples=12)
@given(seed=SHOW_SEEDS)
def test_ways_are_as_far_apart_as_the_walk_of_all_simple_paths_finds(seed):
    """Without channels that buses feed, and without effects: these are told in Why alone."""
    show = show_of_seed(seed)
    quiet = {f"channel/{n}/{leaf}": "input/local/1" for n in range(1, 5)
             for leaf in ("source", "spare")}  # fmt: skip
    show, _ = made(show, {**quiet, "return/1/source": "input/a/1", "return/2/source": "input/a/3"})
    found = {(one.source, one.bus): one.by_ms for one in apart(show, flow_of(show))}
    alive = Referee(show).alive
    for source in ("channel/1", "channel/3", "return/1"):
        for bus in ("house", "mix/2", "matrix/1"):
            ways = [
                late(show, strips) for strips, clear in ways_past(show, source, bus, "") if clear
            ]
            by = max(ways) - min(ways) if ways and source in alive else 0.0
            assert found.get((source, bus), 0.0) == pytest.approx(by if by > 0.1 else 0.0, abs=1e-9)


TWICE: dict[str, Value] = {
    "line/1/place": 1.0, "line/1/name": "Snare", "line/1/socket": "input/a/1",
    "channel/1/source": "input/a/1", "channel/1/name": "Snare", "channel/1/fader": 0.0,
    "channel/1/house/on": False, "output/local/1/source": "house/left",
    **{f"group/{n}/{leaf}": value for n in (1, 2)
       for leaf, value in (("format", "stereo"), ("name", f"Group {n}"))},
    **{f"channel/1/group/{n}/on": True for n in (1, 2)},
    "group/2/insert_2/device": "Press", "group/2/delay/on": True, "group/2/delay/ms": 1.0,
}  # fmt: skip


def test_a_drum_through_two_groups_combs_and_the_sooner_one_is_let_wait():
    """60 samples of an insert at 48 kHz are 1.25 ms, and 1 ms of delay: 2.25 ms; 1/(2 dt) = 222 Hz.

    (Comb filter of a sum with itself: first notch at half a period, common practice.)
    """
    show = show_of(TINY, TWICE)
    flow = flow_of(show)
    (one,) = [found for found in apart(show, flow) if found.bus == "house"]
    assert (one.by_ms, one.comb_hz) == (pytest.approx(2.25), pytest.approx(1000 / 4.5))
    assert comb_hz(2.25) == pytest.approx(222.2, abs=0.1)
    nulls = [comb_hz(1.0) * odd for odd in (1, 3, 5)]  # 1 ms: 500, 1 500, 2 500 Hz
    assert [abs(1 + cmath.exp(-2j * math.pi * hertz / 1000)) for hertz in nulls] == pytest.approx(
        [0.0, 0.0, 0.0], abs=1e-9
    )
    assert nulls == [500.0, 1_500.0, 2_500.0]
    assert aligned(show, flow, "channel/1", "house") == ("group/1", 2.25)
    (finding,) = [f for f in findings(show) if f.rule == "ways_apart"]
    assert finding.says == (
        "Snare reaches House by ways 2.3 ms apart: the sum combs from 222 Hz up."
    )
    settled, _ = made(show, finding.moves)
    assert not [f for f in findings(settled) if f.rule == "ways_apart"]
    # converters in and out, two strips on the way and the house: (24+24+4+4+4)/48, and the delays
    lates = sorted(way.late_ms or math.nan for way in why(show, "channel/1", "house").ways)
    assert lates == pytest.approx([60 / 48, 60 / 48 + 2.25])


def test_where_the_sooner_way_has_nothing_that_could_wait_no_remedy_is_offered():
    straight, _ = made(show_of(TINY, TWICE), {"channel/1/house/on": True,
                                              "channel/1/group/1/on": False})  # fmt: skip
    (finding,) = [f for f in findings(straight) if f.rule == "ways_apart"]
    assert (finding.remedy, finding.moves) == ("", {})
