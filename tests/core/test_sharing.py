"""Microphones that share one gain: by hand-worked examples, by algebra, by a second reckoning."""

import math
import random
from functools import lru_cache

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import (
    AT_REST,
    InsertsSpent,
    Mean,
    NotThere,
    OneSideOnly,
    SharingSpent,
    Show,
    UnreadableText,
    Value,
    after_step,
    blank_show,
    clear_sharing,
    edited,
    findings,
    flow_of,
    foretold,
    join_sharing,
    leave_sharing,
    made,
    make_sharing,
    over_full_scale,
    overview,
    sharings,
    sheet_of,
    strip_path,
    why,
)
from ombrel.core.processing import shared_gains, smoothed_power, sum_db
from ombrel.core.strips import expected_at
from tests.desks import SMALL, TINY, TOURING

WEIGHTS = st.floats(-20.0, 20.0)
LEVELS = st.floats(-70.0, 10.0)


def power(db: float) -> float:
    return 10.0 ** (db / 10.0)


def db(gain: float) -> float:
    return 10.0 * math.log10(gain)


def gains_db(levels: list[float], weights: list[float] | None = None, limit=-math.inf):
    found = shared_gains(
        np.array([power(one) for one in levels]),
        np.array(weights or [0.0] * len(levels)),
        limit_db=limit,
    )
    return [db(one) for one in found]


# ---- the rule, worked out by hand (gain sharing: D. Dugan, AES 1975; value from memory)


def test_examples_worked_out_by_hand() -> None:
    # eight equal: each 1/8; 10 log10 0.125 = -9.03
    assert gains_db([-20.0] * 8) == pytest.approx([-9.031] * 8, abs=1e-3)
    # 0.01 and 0.001: 0.01 / 0.011 = -0.41, 0.001 / 0.011 = -10.41
    assert gains_db([-20.0, -30.0]) == pytest.approx([-0.414, -10.414], abs=1e-3)
    # five at 0.01; the chair 0.00251 * 10 = 0.02512; of 0.07512: -4.76 and -8.76
    chair = gains_db([-20.0] * 5 + [-26.0], [0.0] * 5 + [10.0])
    assert chair[5] == pytest.approx(-4.757, abs=1e-3)
    assert chair[0] == pytest.approx(-8.757, abs=1e-3)
    # a limit of -6: all eight stand there, and 8 * 0.2512 = 2.0095 is +3.03
    limited = shared_gains(np.full(8, 0.01), np.zeros(8), limit_db=-6.0)
    assert [db(one) for one in limited] == pytest.approx([-6.0] * 8)
    assert sum_db(limited) == pytest.approx(3.031, abs=1e-3)


def test_a_second_voice_rises_with_the_time_constant() -> None:
    time_s = 0.1
    # 1 - 1/e = 0.632 of the power is there after one: 0.632 / 1.632 = -4.12
    later = smoothed_power(np.zeros(1), np.array([0.01]), elapsed_s=time_s, time_s=time_s)[0]
    joined = shared_gains(np.array([0.01, later]), np.zeros(2))
    assert db(joined[1]) == pytest.approx(-4.12, abs=5e-3)
    # one stops as another begins: 0.632 against 0.368 is a share of 0.632, -1.99
    left = smoothed_power(np.array([0.01]), np.zeros(1), elapsed_s=time_s, time_s=time_s)[0]
    assert db(shared_gains(np.array([left, later]), np.zeros(2))[1]) == pytest.approx(-1.99, 5e-3)
    # they are level when e^(-t/T) is a half: after 0.693 T
    half = {"elapsed_s": math.log(2.0) * time_s, "time_s": time_s}
    one = smoothed_power(np.array([0.01, 0.0]), np.array([0.0, 0.01]), **half)
    assert shared_gains(one, np.zeros(2)) == pytest.approx([0.5, 0.5], rel=1e-6)
    # from -20 dBFS to the floor at -100: 8 ln 10 = 18.4 time constants
    falls = smoothed_power(np.array([0.01]), np.zeros(1), elapsed_s=18.43 * time_s, time_s=time_s)
    assert falls[0] == pytest.approx(1e-10)
    before = smoothed_power(np.array([0.01]), np.zeros(1), elapsed_s=18.3 * time_s, time_s=time_s)
    assert before[0] > 1.1e-10


@given(st.lists(st.tuples(LEVELS, WEIGHTS), min_size=1, max_size=32), st.floats(-30.0, 30.0))
def test_what_holds_of_every_group(members: list[tuple[float, float]], more: float) -> None:
    levels, weights = [one for one, _ in members], [two for _, two in members]
    found = gains_db(levels, weights)
    assert sum(power(one) for one in found) == pytest.approx(1.0)
    assert max(found) <= 1e-9
    # as loud for all changes nothing (while nobody is at the floor)
    assert gains_db([one + more for one in levels], weights) == pytest.approx(found, abs=1e-6)
    # gains differ by weights and levels
    first = weights[0] + levels[0]
    for gain, weight, level in zip(found, weights, levels, strict=True):
        assert gain - found[0] == pytest.approx(weight + level - first, abs=1e-6)
    # a limit moves nobody who is above it, and the sum by no more than it may
    limited = gains_db(levels, weights, -12.0)
    assert limited == pytest.approx([max(one, -12.0) for one in found])
    most = 1.0 + (len(members) - 1) * power(-12.0)
    assert sum(power(one) for one in limited) <= most + 1e-9


@given(st.lists(st.floats(0.001, 3.0), min_size=1, max_size=6), st.floats(0.002, 0.5))
def test_steps_of_any_length_lead_to_the_same(steps: list[float], time_s: float) -> None:
    mean = start = np.array([1e-3, 1e-9])
    for step in steps:
        mean = smoothed_power(mean, np.array([1e-2, 0.0]), elapsed_s=step, time_s=time_s)
    whole = smoothed_power(start, np.array([1e-2, 0.0]), elapsed_s=sum(steps), time_s=time_s)
    assert mean == pytest.approx(whole, rel=1e-6)


def test_one_alone_is_at_0_db_and_silence_shares_by_weights() -> None:
    assert gains_db([-20.0] + [-200.0] * 7)[0] == pytest.approx(0.0, abs=1e-3)
    assert gains_db([-300.0] * 4, [0.0, 0.0, 0.0, 6.0])[3] == pytest.approx(db(3.981 / 6.981), 1e-3)


# ---- in a show


@lru_cache(maxsize=8)
def panel(many: int = 8, desk=TOURING) -> Show:
    """A table of so many: each on a line at -40 dBu, faders at 0, shared behind the fader."""
    values: dict = {}
    for n in range(1, many + 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/name": f"Guest {n}",
            f"line/{n}/socket": f"input/a/{n}", f"input/a/{n}/gain": 40.0,
            f"channel/{n}/source": f"input/a/{n}", f"channel/{n}/name": f"Guest {n}",
            f"channel/{n}/fader": 0.0,
        }  # fmt: skip
    show = made(blank_show(desk), values)[0]
    return made(show, make_sharing(show, f"1-{many}"))[0]


def after(show: Show, **moves) -> Show:
    return made(show, {a.replace("__", "/"): v for a, v in moves.items()})[0]


def stepped(show: Show, levels: dict[int, float], seconds: float, means=AT_REST):
    """Shares after levels, in dBFS at the inputs, stood for some seconds."""
    full, gain = show.desk.full_scale_dbu, 40.0
    dbu = {f"input/a/{n}": level + full - gain for n, level in levels.items()}
    return after_step(show, flow_of(show), means, dbu, seconds)


def shares(show: Show, levels: dict[int, float], seconds: float = 60.0) -> dict[str, float]:
    _, groups = stepped(show, levels, seconds)
    return {one.strip: one.gain_db for group in groups for one in group.members}


def test_shares_follow_what_arrives_behind_the_faders() -> None:
    show = after(panel(2), channel__2__fader=-10.0)
    assert shares(show, {1: -20.0, 2: -20.0}) == pytest.approx(
        {"channel/1": -0.414, "channel/2": -10.414}, abs=1e-3
    )
    # a DCA counts as the fader does
    ruled = made(panel(2), {"dca/1/fader": -10.0, "channel/2/dca/1/on": True})[0]
    assert shares(ruled, {1: -20.0, 2: -20.0}) == pytest.approx(shares(show, {1: -20.0, 2: -20.0}))


@pytest.mark.parametrize(
    "moves",
    [
        {"channel/3/mute": True},
        {"channel/3/fader": -math.inf},
        {"channel/3/sharing/out": True},
        {"channel/3/mute_group/1/on": True, "mute_group/1/on": True},
        {"channel/3/dca/1/on": True, "dca/1/fader": -math.inf},
        {"show/solo": "in_place", "channel/1/solo": True, "channel/2/solo": True},
        {"channel/3/sharing/held": True},
    ],
)
def test_who_is_silent_out_or_held_open_is_in_no_sum_at_once(moves: dict) -> None:
    show = panel(3)
    means, _ = stepped(show, {1: -20.0, 2: -20.0, 3: 0.0}, 60.0)
    then = made(show, moves)[0]
    means, groups = stepped(then, {1: -20.0, 2: -20.0, 3: 0.0}, 0.0, means)
    gains = {one.strip: one.gain_db for one in groups[0].members}
    assert gains["channel/1"] == gains["channel/2"] == pytest.approx(-3.0103, abs=1e-3)
    assert gains["channel/3"] == (0.0 if "channel/3/sharing/held" in moves else -math.inf)
    assert "channel/3" not in means
    # it comes back at the floor, however loud it was
    _, groups = stepped(show, {1: -20.0, 2: -20.0, 3: 0.0}, 0.0, means)
    assert groups[0].members[2].level_dbfs == pytest.approx(-100.0)


def test_a_pair_is_one_member_with_the_power_of_both_sides() -> None:
    show = made(panel(4), {"channel/3/linked": True})[0]
    assert [one.strip for one in sharings(show)[0].members] == [f"channel/{n}" for n in (1, 2, 3)]
    # 0.01 + 0.01 against twice 0.01: a half, and two quarters
    gains = shares(show, dict.fromkeys(range(1, 5), -20.0))
    assert gains["channel/3"] == pytest.approx(-3.0103, abs=1e-3)
    assert gains["channel/1"] == pytest.approx(-6.0206, abs=1e-3)


def test_a_group_that_is_a_member_takes_what_comes_with_its_shares() -> None:
    """Guests 1 and 2 share in one group and go into a subgroup, which shares with guest 3."""
    values: dict[str, Value] = {
        "group/1/format": "mono", "channel/1/group/1/on": True, "channel/2/group/1/on": True,
        "channel/1/house/on": False, "channel/2/house/on": False,
        "channel/3/sharing/group": "sharing/2", "group/1/sharing/group": "sharing/2",
    }  # fmt: skip
    show = made(panel(3), values)[0]
    # each at a half in power: together as loud as one, 0.01; guest 3 as loud
    gains = shares(show, {1: -20.0, 2: -20.0, 3: -20.0})
    assert gains["channel/1"] == pytest.approx(-3.0103, abs=1e-3)
    assert gains["group/1"] == pytest.approx(gains["channel/3"]) == pytest.approx(-3.0103, 1e-3)


def test_random_talkers_never_leave_the_range_by_a_second_reckoning() -> None:
    """Ten minutes of who speaks, mutes and weighs otherwise; reckoned again from addresses."""
    draw, show = random.Random(34), after(panel(6), sharing__1__time=120.0)
    limit, means = -math.inf, AT_REST
    own: dict[int, float] = {}
    levels = dict.fromkeys(range(1, 7), -60.0)
    for turn in range(6_000):
        if turn % 40 == 0:
            levels = {n: draw.choice([-60.0, draw.uniform(-45.0, -6.0)]) for n in levels}
        if turn % 500 == 0:
            n = draw.randrange(1, 7)
            limit = draw.choice([-math.inf, -15.0])
            moves: dict[str, Value] = {
                f"channel/{n}/mute": draw.random() < 0.4,
                f"channel/{n}/fader": draw.choice([0.0, -6.0, -math.inf]),
                f"channel/{n}/sharing/weight": draw.uniform(-6.0, 10.0),
                f"channel/{n}/sharing/held": draw.random() < 0.2,
                "sharing/1/limit": limit,
            }
            show = made(show, moves)[0]
            flow = flow_of(show)
        dbu = {
            f"input/a/{n}": level + show.desk.full_scale_dbu - 40.0 for n, level in levels.items()
        }
        means, (group,) = after_step(show, flow, means, dbu, 0.1)
        own = _reckoned(show, own, levels, 0.1)
        total = sum(
            10.0 ** (show[f"channel/{n}/sharing/weight"] / 10.0) * mean for n, mean in own.items()
        )
        for one in group.members:
            n = int(one.strip.rpartition("/")[2])
            if n in own:
                weighed = 10.0 ** (show[f"channel/{n}/sharing/weight"] / 10.0) * own[n]
                wanted = max(db(weighed / total), limit)
                assert one.gain_db == pytest.approx(wanted, abs=1e-6)
                assert one.gain_db <= 1e-9
            else:
                held = show[f"channel/{n}/sharing/held"] and not _is_shut(show, n)
                assert one.gain_db == (0.0 if held else -math.inf)
        if own and limit == -math.inf:
            assert sum(one.share for one in group.members) == pytest.approx(1.0)


def _is_shut(show: Show, n: int) -> bool:
    return bool(show[f"channel/{n}/mute"]) or show[f"channel/{n}/fader"] == -math.inf


def _reckoned(show: Show, before: dict, levels: dict, elapsed: float) -> dict[int, float]:
    """Mean powers of those that share, by the rule's own words."""
    time = show["sharing/1/time"] / 1000.0
    found = {}
    for n, level in levels.items():
        if _is_shut(show, n) or show[f"channel/{n}/sharing/held"]:
            continue
        now = 10.0 ** ((level + show[f"channel/{n}/fader"]) / 10.0)
        was = before.get(n, 1e-10)
        found[n] = max(now + (was - now) * math.exp(-elapsed / time), 1e-10)
    return found


# ---- made, refused, undone


def test_a_group_is_made_joined_left_and_ended() -> None:
    show = panel(3)
    (group,) = sharings(show)
    assert (group.name, group.group, len(group.members)) == ("Panel", "sharing/1", 3)
    left = made(show, leave_sharing(show, ["channel/2"]))[0]
    assert len(sharings(left)[0].members) == 2
    again = made(left, join_sharing(left, "sharing/1", "2"))[0]
    assert again.values == show.values
    ended = made(show, clear_sharing(show, "sharing/1"))[0]
    assert not sharings(ended)
    assert not [a for a in ended.values if "sharing" in a]


def test_insert_points_are_counted_with_those_that_share() -> None:
    used = {f"channel/{n}/source": f"input/local/{n}" for n in range(1, 6)}
    show = made(blank_show(SMALL), used)[0]  # eight insert points; each side that shares takes two
    with pytest.raises(InsertsSpent, match=r"8 insert points.*Channel 1"):
        edited(show, flow_of(show), make_sharing(show, "1-5"))
    four = made(show, make_sharing(show, "1-4"))[0]
    with pytest.raises(InsertsSpent):
        made(four, {"channel/9/insert_1/device": "Box"})


def test_places_and_sides_are_refused_with_names() -> None:
    show = made(blank_show(TINY), {"group/1/format": "stereo", "group/1/name": "Choir"})[0]
    with pytest.raises(OneSideOnly, match=r"Choir.*one side"):
        made(show, {"group/1/sharing/group": "sharing/1"})
    with pytest.raises(OneSideOnly):
        make_sharing(show, "house")
    mono = made(show, {"group/1/format": "mono", "group/1/sharing/group": "sharing/1"})[0]
    with pytest.raises(OneSideOnly, match="Choir"):
        made(mono, {"group/1/format": "stereo"})
    strips = [*(f"channel/{n}" for n in range(1, 5)), "mix/1", "mix/2"]
    full = made(mono, {f"{one}/sharing/group": "sharing/1" for one in strips})[0]
    with pytest.raises(SharingSpent, match=r"7 places.*Channel 1"):
        made(full, {"mono/sharing/group": "sharing/2"})


# ---- what counts it


def test_headroom_counts_a_group_as_one_microphone() -> None:
    show = panel(8)
    level = expected_at(show, flow_of(show), "house").dbfs
    alone = panel(2)
    one = after(alone, channel__2__mute=True)
    assert level == pytest.approx(expected_at(one, flow_of(one), "house").dbfs, abs=1e-6)
    # without sharing eight are 9 dB more
    plain = made(show, leave_sharing(show, [f"channel/{n}" for n in range(1, 9)]))[0]
    assert expected_at(plain, flow_of(plain), "house").dbfs == pytest.approx(
        level + 9.031, abs=1e-3
    )
    # a limit of -6 lets eight be 8 * 0.2512 of one
    limited = after(show, sharing__1__limit=-6.0)
    assert expected_at(limited, flow_of(limited), "house").dbfs == pytest.approx(
        level + 3.031, 1e-3
    )
    # who is held open counts beside: as loud again
    held = after(show, channel__8__sharing__held=True)
    assert expected_at(held, flow_of(held), "house").dbfs == pytest.approx(level + 3.0103, abs=1e-3)


def test_a_bus_that_taps_before_the_stage_adds_all_of_them() -> None:
    sends = {f"channel/{n}/send/mix/1/level": 0.0 for n in range(1, 9)}
    show = made(panel(8), sends | {"mix/1/format": "mono"})[0]
    before = expected_at(show, flow_of(show), "mix/1").in_dbfs
    moved = after(show, sharing__1__place="before_fader")
    assert expected_at(moved, flow_of(moved), "mix/1").in_dbfs == pytest.approx(
        before - 9.031, abs=1e-3
    )


def test_buses_past_full_scale_go_by_it() -> None:
    loud = {f"input/a/{n}/gain": 55.0 for n in range(1, 9)}  # -6 dBFS each: one alone is below
    show = made(panel(8), loud)[0]
    assert not [bus for bus, _ in over_full_scale(show, flow_of(show)) if bus == "house"]
    plain = made(show, leave_sharing(show, [f"channel/{n}" for n in range(1, 9)]))[0]
    assert "house" in [bus for bus, _ in over_full_scale(plain, flow_of(plain))]


def test_why_has_the_stage_and_its_steps_still_add_up() -> None:
    show = made(
        panel(8), {"output/local/1/source": "house/left", "output/local/2/source": "house/right"}
    )[0]
    answer = why(show, "channel/1", "house", shares_now={"channel/1": -9.1})
    (step,) = [step for way in answer.ways for step in way.steps if step.kind == "sharing"]
    assert step.detail == (
        "shares gain in Panel: \N{MINUS SIGN}9.1 dB now, 0 alone,"
        " \N{MINUS SIGN}9.0 when all eight speak"
    )
    assert step.gain_db == 0.0
    gains = [s.gain_db for s in answer.ways[0].steps if s.gain_db is not None]
    assert sum(gains) == pytest.approx(answer.level_db)
    out = after(show, channel__1__sharing__out=True)
    said = why(out, "channel/1", "house")
    assert [reason.says for reason in said.reasons] == [
        "Guest 1 is out of Panel, where it shares gain."
    ]
    assert said.reasons[0].remedy is not None
    assert made(out, said.reasons[0].remedy.moves)[0].values == show.values
    assert [bead.key for bead in strip_path(show, flow_of(show), "channel/1").beads][
        -1
    ] == "sharing"


def test_weights_are_tried_with_typed_levels() -> None:
    show = after(panel(6), channel__6__sharing__weight=10.0, channel__6__name="Chair")

    def said(text: str):
        (group,) = overview(show, flow_of(show), {"sharing/1": text}).sharing
        return group

    found = said("all at -20, Chair at -26").tried
    assert found is not None
    assert (found.wins, found.says) == ("channel/6", "Chair wins by 4.0 dB.")
    assert {one.strip: round(one.gain_db, 2) for one in found.members}["channel/6"] == -4.76
    loses = said("1-5 at -20, 6 at -31").tried
    assert loses is not None
    assert loses.says == "Nobody wins: 5 members are level."
    assert {one.strip: one.needs_db for one in loses.members}["channel/6"] == pytest.approx(11.0)
    assert said("guest").refused
    assert "members of Panel" in said("7 at -20").refused


@pytest.mark.parametrize(
    "text", ["all at", "at -20", "1 at 2 at 3", "9999999999 at -2", ",,,", "1-6 at x"]
)
def test_typed_levels_that_are_none_are_refused_in_words(text: str) -> None:
    show = panel(6)
    (group,) = overview(show, flow_of(show), {"sharing/1": text}).sharing
    assert group.refused or group.tried is not None


def test_who_hears_it_shared_is_told_before_it_is_made() -> None:
    plain = made(panel(2), clear_sharing(panel(2), "sharing/1"))[0]
    values: dict[str, Value] = {
        "mix/1/format": "mono", "mix/1/name": "Ears of Host", "channel/1/send/mix/1/level": 0.0,
        "output/recorder/1/source": "channel/1/direct", "output/recorder/1/tap": "input",
        "output/recorder/2/source": "channel/2/direct",
    }  # fmt: skip
    show = made(plain, values)[0]
    told, cost = foretold(show, flow_of(show), ["channel/1", "channel/2"])
    assert told == (
        "Shared at House and Tape 2. As they are at Ears of Host and Tape 1: they take them before."
    )
    assert cost == "Takes 2 places: 2 of 24, and 2 insert points."


# ---- findings


def _found(show: Show) -> list[str]:
    rules = {
        "shared_apart", "taken_before_it_is_shared", "music_shares_gain", "held_open_and_silent",
        "gate_where_gain_is_shared", "group_of_one", "limit_in_vain", "chair_never_wins",
    }  # fmt: skip
    return [one.rule for one in findings(show) if one.rule in rules]


@pytest.mark.parametrize(
    ("rule", "moves"),
    [
        ("shared_apart", {"channel/3/mono/on": True}),
        ("taken_before_it_is_shared", {"mix/1/format": "mono", "mix/1/serves": "feed",
                                       "channel/1/send/mix/1/level": 0.0,
                                       "channel/2/send/mix/1/level": 0.0}),
        ("music_shares_gain", {"line/3/family": "drums"}),
        ("gate_where_gain_is_shared", {"channel/2/gate/on": True}),
        ("gate_where_gain_is_shared", {"channel/2/compressor/on": True,
                                       "channel/2/compressor/key": "channel/1"}),
        ("held_open_and_silent", {"channel/2/sharing/held": True, "channel/2/dca/1/on": True,
                                  "dca/1/mute": True}),
        ("limit_in_vain", {"sharing/1/limit": -4.5}),
        ("chair_never_wins", {"channel/2/sharing/weight": 6.0, "channel/2/fader": -12.0}),
    ],
)  # fmt: skip
def test_findings_and_what_mends_them(rule: str, moves: dict) -> None:
    assert _found(panel(3)) == []
    show = made(panel(3), moves)[0]
    assert _found(show) == [rule]
    (one,) = [one for one in findings(show) if one.rule == rule]
    if one.moves:
        assert _found(made(show, one.moves)[0]) == []


def test_who_is_alone_in_a_group_is_found() -> None:
    show = panel(1)
    (one,) = [one for one in findings(show) if one.rule == "group_of_one"]
    assert not sharings(made(show, one.moves)[0])[0].members


def test_typing_what_is_no_strip_is_refused() -> None:
    with pytest.raises(UnreadableText):
        make_sharing(panel(2), "nobody here")


def test_a_step_takes_no_time_from_the_clock() -> None:
    show = panel(2)
    first = stepped(show, {1: -20.0}, 0.05)
    assert first == stepped(show, {1: -20.0}, 0.05)
    assert isinstance(next(iter(first[0].values())), Mean)


def test_it_stands_on_paper_with_its_weights() -> None:
    show = after(panel(3), channel__1__sharing__weight=6.0, channel__2__sharing__held=True)
    sheet = sheet_of(show, "rulers")
    assert sheet is not None
    assert sheet.rows == (
        ("Shared gain", 1, "Panel", "", "100 ms, behind the fader", "1-3",
         "Guest 1 (+6.0), Guest 2 (held open), Guest 3"),
    )  # fmt: skip


def test_two_who_share_have_a_limit_in_vain_too_and_new_groups_other_names() -> None:
    assert _found(after(panel(2), sharing__1__limit=-3.0)) == ["limit_in_vain"]
    assert _found(after(panel(2), sharing__1__limit=-3.5)) == []
    show = panel(4)
    for name in ("Panel 2", "Panel 3"):
        show = made(show, make_sharing(show, "1-2" if name == "Panel 2" else "3"))[0]
        assert name in [group.name for group in sharings(show)]


def test_who_is_in_no_sum_needs_no_weight_to_win() -> None:
    show = after(panel(3), channel__2__sharing__held=True, channel__3__mute=True)
    (group,) = overview(show, flow_of(show), {}).sharing
    assert group.tried is not None
    assert [one.needs_db for one in group.tried.members] == [None, None, None]
    assert [one.gain_db for one in group.tried.members] == [0.0, 0.0, -math.inf]
    assert group.tried.says == "Guest 1 is alone, at 0 dB."


def test_who_joins_a_group_that_somebody_ended_is_told_so() -> None:
    show = panel(3)
    ended = made(show, clear_sharing(show, "sharing/1"))[0]
    with pytest.raises(NotThere):
        join_sharing(ended, "sharing/1", "2")


def test_who_is_held_open_and_muted_is_silent_where_levels_are_tried() -> None:
    show = after(panel(3), channel__2__sharing__held=True, channel__2__mute=True)
    (group,) = overview(show, flow_of(show), {}).sharing
    assert group.tried is not None
    assert group.standing["channel/2"] == "muted"
    assert group.tried.members[1].gain_db == -math.inf
