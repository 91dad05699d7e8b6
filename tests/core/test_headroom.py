"""The level expected at a bus: worked by hand, and against the referee's walk of every path."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import Show, Value, edited, findings, flow_of, made, over_full_scale, show_of
from ombrel.core.strips import expected_at
from tests.desks import TINY
from tests.shows import SHOW_SEEDS, show_of_seed

from .walk import Referee, at_tap, source_of

# two lines of -40 dBu on 42 dB of gain and 22 dBu at full scale: -20 dBFS each
TWO: dict[str, Value] = {
    **{f"line/{n}/{leaf}": value for n in (1, 2)
       for leaf, value in (("place", float(n)), ("name", f"Line {n}"), ("level_dbu", -40.0),
                           ("socket", f"input/a/{n}"))},
    **{f"input/a/{n}/gain": 42.0 for n in (1, 2)},
    **{f"channel/{n}/{leaf}": value for n in (1, 2)
       for leaf, value in (("source", f"input/a/{n}"), ("name", f"Voice {n}"), ("fader", 0.0),
                           ("pan", -1.0))},
}  # fmt: skip


def test_powers_add_and_in_the_worst_case_amplitudes():
    """Two equal sources: 10 log 2 = 3.01 dB more; peaks that meet: 20 log 2 = 6.02 dB more."""
    show = show_of(TINY, TWO)
    found = expected_at(show, flow_of(show), "house")
    assert found.dbfs == pytest.approx(-20.0 + 10 * math.log10(2))
    assert found.worst_dbfs == pytest.approx(-20.0 + 20 * math.log10(2))
    assert [(one.name, round(one.dbfs, 6)) for one in found.loudest] == [
        ("Voice 1", -20.0), ("Voice 2", -20.0),
    ]  # fmt: skip
    # the bus's own fader counts behind it, not at its input; a mute silences what comes behind
    lower, _ = made(show, {"house/fader": -10.0, "channel/2/mute": True})
    found = expected_at(lower, flow_of(lower), "house")
    assert (found.in_dbfs, found.dbfs) == (pytest.approx(-20.0), pytest.approx(-30.0))


def test_what_an_effect_sends_back_counts_and_what_nobody_knows_is_named():
    """One source of -20 dBFS at -6 into an effect that comes back at 0 dB on both sides: -26 dBFS

    shared by two sides, beside the dry -20 on the left alone.
    """
    wet: dict[str, Value] = {
        **{address: value for address, value in TWO.items() if "/2/" not in address},
        "mix/1/format": "mono", "mix/1/serves": "effect", "engine/1/source": "mix/1",
        "return/1/source": "engine/1", "return/1/fader": 0.0, "return/1/name": "Hall",
        "channel/1/send/mix/1/level": -6.0, "channel/1/send/mix/1/tap": "after_fader",
        "channel/3/source": "talkback", "channel/3/name": "Tone", "channel/3/fader": -10.0,
    }  # fmt: skip
    show = show_of(TINY, wet)
    found = expected_at(show, flow_of(show), "house")
    assert found.unknown == ("Tone",)
    side = 10 ** (-20 / 10) + 10 ** (-26 / 10) / 2
    assert found.dbfs == pytest.approx(10 * math.log10(side), abs=1e-6)
    assert [one.name for one in found.loudest] == ["Voice 1", "Hall"]


def test_a_bus_past_full_scale_is_a_finding_and_its_remedy_leaves_it_below():
    hot = {f"channel/{n}/fader": 6.0 for n in (1, 2)} | {f"input/a/{n}/gain": 60.0 for n in (1, 2)}
    show = show_of(TINY, {**TWO, **hot})
    (finding,) = [f for f in findings(show) if f.rule == "bus_past_full_scale"]
    assert "House is expected at +7.0 dBFS, Voice 1, Voice 2 the loudest" in finding.says
    settled = edited(show, flow_of(show), finding.moves)
    assert over_full_scale(settled.show, settled.flow) == ()
    assert expected_at(settled.show, settled.flow, "house").dbfs == pytest.approx(-1.0, abs=0.06)


def with_nobody_sharing(show: Show) -> Show:
    return made(show, {a: None for a in show.values if a.endswith("/sharing/group")})[0]


@settings(max_examples=25)
@given(seed=SHOW_SEEDS, limit=st.sampled_from([-math.inf, -6.0]))
def test_who_shares_gain_counts_as_one_by_shows_whose_faders_do_it(seed, limit):
    """Behind its fader a share is the fader lower by as much: the walk hears a show where it is.

    Channels 1 to 3 share; the loudest alone, or all with their shares, beside channel 4.
    """
    show = with_nobody_sharing(show_of_seed(seed))
    levels = {1: -20.0, 2: -26.0, 3: -35.0, 4: -30.0}
    values: dict[str, Value] = {f"line/{n}/place": 0.0 for n in show.lines()}
    values |= {f"{one}/source": None for one in ("engine/1", "engine/2", "return/1", "return/2")}
    values |= {"channel/1/linked": False, "channel/3/linked": False, "sharing/1/limit": limit}
    values |= {"sharing/1/place": "behind_fader"}
    for n, level in levels.items():
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/socket": f"input/a/{n}",
            f"line/{n}/socket_right": None, f"input/a/{n}/gain": 40.0, f"input/a/{n}/pad": False,
            f"line/{n}/level_dbu": level + 22.0 - 40.0, f"channel/{n}/source": f"input/a/{n}",
            f"channel/{n}/on_spare": False, f"channel/{n}/sharing/held": False,
            f"channel/{n}/sharing/out": False, f"channel/{n}/sharing/weight": 2.0 * n,
            **({f"channel/{n}/sharing/group": "sharing/1"} if n < 4 else {}),
        }  # fmt: skip
    show, _ = made(show, values)
    plain = with_nobody_sharing(show)
    behind = {n: abs(at_tap(plain, f"channel/{n}", "after_fader")[0]) for n in levels}
    counts = {
        n: 10 ** ((levels[n] + 2.0 * n) / 10) * behind[n] ** 2 for n in (1, 2, 3) if behind[n] > 0.0
    }
    shares = {n: one / sum(counts.values()) for n, one in counts.items()}
    gains = {n: max(10 * math.log10(one), limit) for n, one in shares.items()}
    lower = {
        f"channel/{n}/fader": max(plain.number(f"channel/{n}/fader") + gain, -119.9)
        for n, gain in gains.items()
    }
    heard = Referee(plain), Referee(made(plain, lower)[0])

    def power(walk: Referee, n: int, bus: str) -> np.ndarray:
        sides = walk.at_bus(f"channel/{n}", bus)
        return np.array([abs(one) ** 2 * 10 ** (levels[n] / 10) for one in sides])

    for bus in ("house", "mix/1", "group/1", "matrix/1"):
        beside = sum(power(heard[0], n, bus) for n in levels if n not in shares)
        alone = [power(heard[0], n, bus) for n in shares]
        together = sum(power(heard[1], n, bus) for n in shares)
        cases = [np.asarray(one) + beside for one in (*alone, together, 0.0)]
        found = expected_at(show, flow_of(show), bus)
        loudest = max(float(np.max(one, initial=0.0)) for one in cases)
        assert 10 ** (found.dbfs / 10) == pytest.approx(loudest, rel=2e-3, abs=1e-12)


@settings(max_examples=25)
@given(seed=SHOW_SEEDS)
def test_one_source_alone_is_as_loud_at_a_bus_as_the_walk_of_its_paths_says(seed):
    """Only channel 1's line has a level, and no return brings anything; nobody shares gain."""
    show = with_nobody_sharing(show_of_seed(seed))
    lines = {f"line/{n}/place": 0.0 for n in show.lines()}
    quiet = ("engine/1", "engine/2", "return/1", "return/2")
    off: dict[str, Value] = {f"{one}/source": None for one in quiet}
    line: dict[str, Value] = {
        "line/9/place": 1.0, "line/9/name": "One", "line/9/socket": "input/a/1",
        "line/9/level_dbu": -30.0, "input/a/1/gain": 30.0, "input/a/1/pad": False,
        "channel/1/source": "input/a/1", "channel/1/on_spare": False,
    }  # fmt: skip
    others = {f"channel/{n}/{leaf}": None for n in (2, 3, 4) for leaf in ("source", "spare")
              if source_of(show, f"channel/{n}") == "input/a/1"}  # fmt: skip
    show, _ = made(show, {**lines, **off, **others, **line})
    flow, referee = flow_of(show), Referee(show)
    for bus in ("house", "mix/1", "group/1", "matrix/1"):
        sides = referee.at_bus("channel/1", bus)
        found = expected_at(show, flow, bus)
        loudest = max((abs(one) for one in sides), default=0.0)
        assert found.dbfs == pytest.approx(
            -22.0 + 20 * math.log10(loudest) if loudest > 1e-9 else -math.inf, abs=1e-4
        ) or (loudest <= 1e-6 and found.dbfs < -130)  # fmt: skip


@pytest.mark.parametrize("once_around_db", [-1.0, -0.1, -12.0])
def test_an_effect_that_feeds_itself_is_expected_with_all_its_rounds(once_around_db):
    """Rounds of an effect add as powers: the source rises by 1 / (1 - g^2); at -1 dB by 6.87 dB."""
    wet: dict[str, Value] = {
        **TWO, "mix/1/format": "stereo", "mix/1/serves": "effect", "engine/1/source": "mix/1",
        "return/1/source": "engine/1", "return/1/fader": 0.0, "mix/1/fader": 0.0,
        "channel/1/send/mix/1/level": 0.0, "channel/1/send/mix/1/tap": "input",
        "return/1/send/mix/1/tap": "after_fader",
    }  # fmt: skip
    levels = [
        expected_at(show, flow_of(show), "mix/1").in_dbfs
        for back_db in (-math.inf, once_around_db)
        for show in [show_of(TINY, {**wet, "return/1/send/mix/1/level": back_db})]
    ]
    rise = -10 * math.log10(1 - 10 ** (once_around_db / 10))
    assert levels[1] - levels[0] == pytest.approx(rise)
    if once_around_db == -1.0:
        assert rise == pytest.approx(6.87, abs=0.005)  # geometric series of powers, by hand
