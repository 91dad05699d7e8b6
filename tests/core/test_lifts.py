"""Lifts: the step known beforehand, trimmed, and told truly; what moves over time, as planned."""

import math
import random

import pytest
from hypothesis import assume, given, reject, settings
from hypothesis import strategies as st

from ombrel.core import (
    Asked,
    FeedbackLoop,
    NothingLeft,
    StepOutOfReach,
    UnreadableText,
    Value,
    blank_show,
    edited,
    fading,
    flow_of,
    lift_singers,
    lifts,
    made,
    make_lift,
    remove_lift,
    set_singers,
    show_of,
    trim_lift,
)
from ombrel.core.values import fader_db_to_travel
from tests.desks import TINY, TOURING
from tests.shows import SEEDS, SHOW_SEEDS, edit_of_seed, show_of_seed

from .walk import Referee

VOICES = {f"channel/{n}/{leaf}": value for n in range(1, 5)
          for leaf, value in (("source", f"input/a/{n}"), ("name", f"Voice {n}"),
                              ("fader", -3.0 * n))}  # fmt: skip
EARS = {"mix/1/format": "mono", "mix/1/name": "Ears", "output/local/3/source": "mix/1"}
HOUSE = {"output/local/1/source": "house/left", "output/local/2/source": "house/right"}


def choir(**more):
    """Four voices with a lift; in the ears the first by its own send, all by the two groups."""
    show = show_of(TOURING, VOICES | EARS | HOUSE)
    show = made(show, make_lift(show, [f"channel/{n}" for n in range(1, 5)], name="Voices"))[0]
    sends = {f"group/{n}/send/mix/1/level": 0.0 for n in (1, 2)}
    taps = {f"group/{n}/send/mix/1/tap": "after_fader" for n in (1, 2)}
    return made(show, sends | taps | more)[0]


def steps(show):
    """{(singer, listener): step in dB}"""
    [lift] = lifts(show, flow_of(show))
    return {(s.strip, x.listener): x.step_db for s in lift.singers for x in s.steps}


def lifted(show, strip, *, on=True):
    return made(show, lift_singers(show, "lift/1", [strip], on=on))[0]


def test_a_lead_at_0_db_beside_the_backing_at_0_db_steps_up_by_6_02_db():
    """Two equal ways in phase: 20 log10(2), whatever the fader says."""
    show = choir()
    told = steps(show)
    assert list(told.values()) == [pytest.approx(20 * math.log10(2))] * 8  # house and ears of four
    before = flow_of(show).cell(1, flow_of(show).layout.column("house")).level_db
    after = flow_of(lifted(show, "channel/2"))
    assert after.cell(1, after.layout.column("house")).level_db - before == pytest.approx(6.0206)
    assert before == pytest.approx(-6.0)  # the second voice's fader


def test_making_a_lift_leaves_the_house_as_it_was_and_lifting_back_too():
    plain = show_of(TOURING, VOICES | EARS | HOUSE)
    moves = make_lift(plain, ["channel/1", "channel/2"], name="Voices")
    show = made(plain, moves)[0]
    column = flow_of(plain).layout.column("house")
    for row in range(4):
        assert flow_of(show).cell(row, column).level_db == pytest.approx(
            flow_of(plain).cell(row, column).level_db
        )
    up = lifted(show, "channel/1")
    assert lifted(up, "channel/1", on=False) == show


def test_who_is_not_straight_in_the_house_is_no_singer_of_a_new_group():
    """They would be heard twice, by their group and the new one, or for the first time."""
    plain = show_of(TOURING, VOICES | HOUSE | {"channel/2/house/on": False})
    with pytest.raises(UnreadableText, match="Voice 2"):
        make_lift(plain, ["channel/1", "channel/2"], name="Voices")
    grouped = choir()
    with pytest.raises(UnreadableText, match="their group"):
        make_lift(grouped, ["channel/1"], name="More")
    again = made(grouped, make_lift(grouped, [], name="More", backing="group/1"))[0]
    column = flow_of(again).layout.column("house")
    assert flow_of(again).cell(0, column).level_db == pytest.approx(-3.0)


def test_of_a_group_that_there_is_those_who_were_named_are_lifted_and_nobody_else():
    """A kick and a reverb in the group stay there, and no key falls on them."""
    values = VOICES | HOUSE | {"group/1/format": "stereo", "group/1/house/on": True}
    for n in range(1, 5):
        values |= {f"channel/{n}/group/1/on": True, f"channel/{n}/house/on": False}
    show = show_of(TOURING, values)
    show = made(show, make_lift(show, ["channel/1", "channel/3"], name="V", backing="group/1"))[0]
    [told] = lifts(show, flow_of(show))
    assert ([one.strip for one in told.singers], told.named) == (["channel/1", "channel/3"], "1, 3")
    up = lifted(show, "channel/3")
    # another list: who can be lifted no more goes back, who is new is in the group already
    other = made(up, set_singers(up, "lift/1", ["channel/1", "channel/2"]))[0]
    assert other["channel/3/group/2/on"] is False
    assert other["channel/3/group/1/on"] is True
    assert [one.strip for one in lifts(other, flow_of(other))[0].singers] == [
        "channel/1",
        "channel/2",
    ]
    everybody = made(other, set_singers(other, "lift/1", []))[0]
    assert len(lifts(everybody, flow_of(everybody))[0].singers) == 4
    gone = made(up, remove_lift(up, "lift/1"))[0]
    assert lifts(gone, flow_of(gone)) == ()
    assert not [a for a in gone.own if "lift/" in a]
    assert gone["channel/3/group/2/on"] is True  # who leads goes on leading
    assert made(gone, dict(made(up, remove_lift(up, "lift/1"))[1].old))[0] == up


def test_one_at_a_time_takes_the_place_of_another_and_together_does_not():
    show = lifted(lifted(choir(), "channel/1"), "channel/3")
    assert (show["channel/1/group/2/on"], show["channel/3/group/2/on"]) == (False, True)
    both = lifted(lifted(choir(**{"lift/1/alone": False}), "channel/1"), "channel/3")
    assert (both["channel/1/group/2/on"], both["channel/3/group/2/on"]) == (True, True)
    with pytest.raises(UnreadableText, match="Voice 1"):
        lift_singers(show, "lift/1", ["channel/9"], on=True)


@pytest.mark.parametrize("wanted_db", [0.5, 3.0, 6.0])
@pytest.mark.parametrize("strip", ["", "channel/2"])
@pytest.mark.parametrize("listener", ["house", "mix/1"])
def test_a_trimmed_step_is_the_step_that_is_then_heard(wanted_db, strip, listener):
    show = choir(**{"channel/1/send/mix/1/level": -6.0, "group/1/fader": -2.0})
    flow = flow_of(show)
    moves = trim_lift(show, flow, "lift/1", str(wanted_db), strip=strip, listener=listener)
    after = made(show, moves)[0]
    measure = strip or "channel/1"
    assert steps(after)[measure, listener] == pytest.approx(wanted_db, abs=0.01)
    others = {key for key in steps(show) if steps(after)[key] != pytest.approx(steps(show)[key])}
    if strip:  # for one: nobody else's step is another
        assert {who for who, _ in others} == {strip}
    elif listener == "mix/1":  # for all in the ears: the house's is not
        assert {where for _, where in others} == {"mix/1"}


def test_a_step_out_of_reach_says_how_far_it_goes():
    show = choir()
    with pytest.raises(StepOutOfReach) as refused:
        trim_lift(show, flow_of(show), "lift/1", "20", strip="channel/2")
    # the backing and its way through a lead at +6 dB: 20 log10(1 + 10^(6/20)) = 9.53 dB
    assert refused.value.most_db == pytest.approx(20 * math.log10(1 + 10 ** (6 / 20)))
    with pytest.raises(UnreadableText, match="above 0"):
        trim_lift(show, flow_of(show), "lift/1", "-1")


def test_the_step_is_known_while_all_is_muted_and_down():
    quiet = {"channel/1/fader": -math.inf, "channel/2/mute": True, "house/mute": True,
             "mute_group/1/on": True, "channel/3/mute_group/1/on": True}  # fmt: skip
    assert steps(choir(**quiet)) == pytest.approx(steps(choir()))


def test_when_every_lift_is_taken_it_is_said_how_many_were_wanted():
    show = blank_show(TOURING)
    groups = {f"group/{n}/format": "mono" for n in (1, 2)}
    taken = {
        f"lift/{n}/{leaf}": group
        for n in range(1, TOURING.count("lift") + 1)
        for leaf, group in (("backing", "group/1"), ("lead", "group/2"))
    }
    full, _ = made(show, {**groups, **taken})
    with pytest.raises(NothingLeft, match="1 lifts wanted, 0 left"):
        make_lift(full, ["channel/1"], name="Voices", backing="group/1")


def test_what_a_lift_lacks_is_said():
    show = choir()
    lacks: list[tuple[dict[str, Asked], str]] = [
        ({"lift/1/lead": None}, "lead group"),
        ({"lift/1/lead": "group/1"}, "another"),
        ({"group/2/format": "unused"}, "not in use"),
        ({f"channel/{n}/group/1/on": False for n in range(1, 5)}, "singers"),
    ]
    for moves, says in lacks:
        other = made(show, moves)[0]
        [lift] = lifts(other, flow_of(other))
        assert says in lift.vain
        assert lift.singers == ()
    deaf = made(show, {"group/2/house/on": False, "group/2/send/mix/1/on": False})[0]
    assert "adds nothing" in lifts(deaf, flow_of(deaf))[0].singers[0].says


@settings(max_examples=30)
@given(seed=SHOW_SEEDS)
def test_every_step_is_what_the_walk_hears_before_and_after(seed):
    """On any show: what a lift tells of a singer is what two walks by networkx hear."""
    draw = random.Random(seed)
    show = show_of_seed(seed, TINY)
    keep: dict[str, Value] = {"lift/1/backing": "group/1", "lift/1/lead": "group/2"}
    keep |= {f"group/{n}/format": draw.choice(["mono", "stereo"]) for n in (1, 2)}
    keep |= {f"group/{n}/sharing/group": None for n in (1, 2)}  # what shares gain has one side
    keep |= {"channel/2/group/1/on": True, "channel/2/lift/1/on": True, "show/solo": "after_fader"}
    muted = {
        a: False
        for a, v in show.values.items()
        if v is True and (a.endswith(("/mute", "/safe")) or a.startswith("mute_group/"))
    }
    # a lift is told as if its singers' faders were up: here they are
    faders = [f"{kind}/{n}/fader" for kind in ("channel", "return")
              for n in range(1, TINY.count(kind) + 1)]  # fmt: skip
    up = {fader: 0.0 for fader in faders if show[fader] == -math.inf}
    try:
        show = made(show, muted | keep | up)[0]
        found = {one.strip: one for one in lifts(show, flow_of(show))[0].singers}
    except FeedbackLoop:  # a howl: a show that cannot be
        reject()
    singer = found["channel/2"]
    assume(singer.steps or not singer.says)
    walks = [Referee(made(show, {"channel/2/group/2/on": on})[0]) for on in (False, True)]
    for step in singer.steps:
        heard = [walk.answer("channel/2", step.listener)[1] for walk in walks]
        assert [step.back_db, step.lead_db] == pytest.approx(heard, abs=1e-6)


# ---- over time


def moved(show, moves, now=None, seconds=2.0, at_s=0.0):
    after = edited(show, flow_of(show), moves)
    return after.show, fading(show, after.change, now or {}, seconds=seconds, at_s=at_s)


def test_a_lift_rises_from_off_evenly_in_travel_and_falls_to_it():
    show, plan = moved(choir(), lift_singers(choir(), "lift/1", ["channel/1"], on=True))
    assert set(plan) == {"channel/1/group/2/level"}
    rise = plan["channel/1/group/2/level"]
    assert (rise.at(0.0), rise.at(2.0), rise.at(9.0)) == (-math.inf, 0.0, 0.0)
    whole = float(fader_db_to_travel(0.0))
    for time, level_db in rise.points()[1:-1]:
        assert float(fader_db_to_travel(level_db)) == pytest.approx(whole * time / 2.0, abs=1e-9)
    # a second press half-way goes on from where it sounds
    half = rise.at(1.0)
    _, back = moved(show, lift_singers(show, "lift/1", ["channel/1"], on=False), plan, at_s=1.0)
    assert back["channel/1/group/2/level"].at(1.0) == half
    assert back["channel/1/group/2/level"].at(3.0) == -math.inf


def test_a_hand_takes_its_address_out_and_others_finish():
    show = choir(**{"lift/1/alone": False})
    singers = ["channel/1", "channel/2"]
    show, plan = moved(show, lift_singers(show, "lift/1", singers, on=True))
    _, left = moved(show, {"channel/1/group/2/level": -4.0}, plan, seconds=0.0, at_s=1.0)
    assert left == {"channel/2/group/2/level": plan["channel/2/group/2/level"]}
    assert moved(show, {"channel/9/fader": 0.0}, plan, seconds=0.0, at_s=2.5)[1] == {}


@settings(max_examples=40)
@given(seed=SHOW_SEEDS, other=SEEDS, part=st.floats(0.0, 1.0))
def test_every_plan_starts_where_it_sounds_ends_where_the_edit_leads_and_never_leaves_between(
    seed, other, part
):
    show = show_of_seed(seed, TINY)
    change = made(show, edit_of_seed(show, other))[1]
    for address, fade in fading(show, change, {}, seconds=3.0, at_s=10.0).items():
        low, high = sorted((fade.start, fade.target))
        assert fade.at(10.0) == fade.start
        assert fade.at(13.0) == fade.target
        now = fade.at(10.0 + 3.0 * part)
        assert low - 1e-9 <= now <= high + 1e-9
        again = fading(show, change, {address: fade}, seconds=1.0, at_s=10.0 + 3.0 * part)
        if address in again:
            assert again[address].start == pytest.approx(now)
