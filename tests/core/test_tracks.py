"""The track plan in a show: what is typed, what a plan makes of the desk, the way back.

Judged from addresses and from who hears what; the search itself by test_track_programme.py.
"""

import contextlib
import math
from dataclasses import replace

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from ombrel.core import (
    WISHES,
    Box,
    Carry,
    ConsoleError,
    EditRefused,
    NothingLeft,
    NotRecordable,
    PlanMovedOn,
    State,
    UnreadableText,
    Value,
    add_wishes,
    arrival_of,
    channel_meters,
    expanded,
    findings,
    flow_of,
    given_moves,
    hold_back,
    lay_playback,
    left_words,
    listen_channels,
    made,
    move_wish,
    moved,
    no_plan,
    plan_tracks,
    playback_told,
    recall,
    recording,
    remove_lines,
    remove_wishes,
    renumber_channels,
    sheet_of,
    show_of,
    store_scene,
    switch_playback,
    takes,
    track_names,
    wishes,
)
from ombrel.core.strips import expected_at
from tests.desks import SMALL, TINY, TOURING

from .test_found_once import facts

TAPE = Box(key="recorder", name="Tape", short="Tape", inputs=8, outputs=8, preamps=False)
DESK = replace(TINY, key="tiny-tape", boxes=(*TINY.boxes, TAPE), direct_returns=())
LINES = ("Kick", "Vox", "Keys", "Keys far")
CHANNELS = [f"channel/{n}" for n in range(1, 5)]
DESKS = {desk.key: desk for desk in (DESK, SMALL, TOURING)}


def stage():
    """Four lines on four channels, of which two are a pair; a return; a stereo mix; the house."""
    values: dict[str, Value] = {
        "mix/1/format": "stereo", "mix/1/name": "Ears", "mix/1/serves": "ears",
        "return/1/source": "input/a/1", "return/1/name": "Hall", "return/1/fader": 0.0,
        "output/local/1/source": "house/left", "output/local/2/source": "house/right",
        "output/local/3/source": "mix/1/left", "output/local/4/source": "mix/1/right",
        "group/1/format": "stereo", "group/1/name": "Band",
        "channel/3/linked": True, "gang/1/carries_sends": True,
    }  # fmt: skip
    for n, channel in enumerate(CHANNELS, 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/name": LINES[n - 1],
            f"line/{n}/family": "voices" if n == 2 else "drums",
            f"line/{n}/socket": f"input/local/{n}", f"{channel}/source": f"input/local/{n}",
            f"{channel}/name": ("Kick", "Vox", "Keys L", "Keys R")[n - 1], f"{channel}/fader": -6.0,
            f"{channel}/gang/1/on": n < 3, f"{channel}/send/mix/1/level": -10.0,
        }  # fmt: skip
    return show_of(DESK, values)


STAGE = stage()


def asked(show, text):
    return made(show, add_wishes(show, text))[0]


def planned(show):
    """The show with the best plan taken."""
    plan = plan_tracks(show)
    assert plan is not None
    given = [(row.wish.wish, row.track, row.mix) for row in plan.rows]
    return made(show, given_moves(show, given), own=True)[0], plan


def carried(show, tracks=8):
    return [show[f"output/recorder/{n}/source"] for n in range(1, tracks + 1)]


# ---- as typed


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("all lines", [("line/1", "input", False), ("line/2", "input", False),
                       ("line/3", "input", False), ("line/4", "input", False)]),
        ("1-2 processed", [("channel/1", "before_fader", False),
                           ("channel/2", "before_fader", False)]),
        ("Kick, return 1", [("line/1", "input", False), ("return/1", "after_fader", True)]),
        ("voices as heard", [("line/2", "after_fader", False)]),
        ("return 1 mono", [("return/1", "after_fader", False)]),
        ("3-4", [("channel/3", "input", True)]),
        ("Keys processed", [("line/3", "before_fader", False)]),
        ("house; talkback", [("house", "after_fader", True), ("talkback", "after_fader", False)]),
        ("mix 1 before the fader", [("mix/1", "before_fader", True)]),
        ("all except 2", [("channel/1", "input", False), ("channel/3", "input", True)]),
    ],
)  # fmt: skip
def test_wishes_as_they_are_typed(text, found):
    listed = wishes(asked(STAGE, text))
    assert [(one.source, one.tap, one.stereo) for one in listed] == found


def test_where_and_how_much():
    listed = wishes(
        asked(STAGE, "1-2 raw to 5; return 1 to track 2 if there is room 3; house must")
    )
    assert [(one.track, one.rank) for one in listed] == [(5, 0), (6, 0), (3, 3), (0, 0)]


@pytest.mark.parametrize(
    ("text", "error"),
    [
        ("", UnreadableText),
        ("trombone", UnreadableText),
        ("1 raw processed", UnreadableText),
        ("1 stereo", NotRecordable),
        ("return 1 raw", NotRecordable),
        ("mix 2", NotRecordable),
        ("house raw", NotRecordable),
    ],
)
def test_what_cannot_be_recorded_is_refused_by_name(text, error):
    with pytest.raises(error):
        add_wishes(STAGE, text)


def test_a_line_on_no_channel_is_refused_and_nothing_is_wished_twice():
    show = made(STAGE, {"channel/1/source": None})[0]
    with pytest.raises(NotRecordable, match="Kick"):
        add_wishes(show, "Kick")
    once = asked(STAGE, "all lines")
    assert not add_wishes(once, "all lines")
    full = {f"wish/{n}/{leaf}": value for n in range(1, WISHES + 1)
            for leaf, value in (("place", float(n)), ("source", "channel/1"))}  # fmt: skip
    with pytest.raises(NothingLeft):
        add_wishes(made(STAGE, full)[0], "2")


def test_what_can_be_recorded_no_more_is_told_and_takes_nothing_else_with_it():
    show, _ = planned(asked(STAGE, "3-4 stereo; 1"))
    apart = made(show, {"channel/3/linked": False})[0]
    told = recording(apart, flow_of(apart))
    assert [bool(one.refused) for one in told.wishes] == [True, False]
    assert (told.back.able, len(told.tracks)) == (1, 8)
    assert lay_playback(apart) == {"channel/1/spare": "input/recorder/3"}
    bare, _ = planned(asked(STAGE, "Kick; 2"))
    bare = made(bare, {"channel/1/source": None})[0]
    assert recording(bare, flow_of(bare)).back.able == 1


def test_a_line_that_left_the_list_is_wished_for_no_more_whoever_takes_its_number():
    show, _ = planned(asked(STAGE, "Kick; 2"))
    gone = made(show, remove_lines(show, [1]))[0]
    again = made(gone, {"line/1/place": 9.0, "line/1/name": "Bassoon",
                        "line/1/socket": "input/local/1"})[0]  # fmt: skip
    assert [one.source for one in wishes(again)] == ["", "channel/2"]
    assert "gone" in no_plan(again).clashes[0].why
    assert "wish_moved_on" in {one.rule for one in findings(again)}


def test_the_list_in_another_order():
    show = asked(STAGE, "1; 2; house")
    first, second, third = (one.wish for one in wishes(show))
    show = made(show, move_wish(show, third, first))[0]
    assert [one.wish for one in wishes(show)] == [third, first, second]
    show = made(show, remove_wishes(show, [first]))[0]
    assert [one.wish for one in wishes(show)] == [third, second]


# ---- a plan as one edit


def test_a_return_has_a_mix_of_its_own_at_0_db_and_nobody_else_hears_a_change():
    show = asked(STAGE, "1-2 processed; return 1; house")
    before = flow_of(show)
    after, plan = planned(show)
    flow = flow_of(after)
    assert carried(after) == ["channel/1/direct", "channel/2/direct", "mix/2/left", "mix/2/right",
                              "house/left", "house/right", None, None]  # fmt: skip
    assert [after[f"output/recorder/{n}/tap"] for n in (1, 2, 3)] == [
        "before_fader", "before_fader", "after_fader",
    ]  # fmt: skip
    assert plan.mixes == 1
    heard = {
        s for s in (*CHANNELS, "return/1", "return/2") if flow.state_of(s, "mix/2") == State.HEARD
    }
    assert heard == {"return/1"}
    assert flow.level("return/1", "mix/2") == pytest.approx(flow.level("return/1", "house"))
    for listener in ("house", "mono", "mix/1", "output/local/5"):
        for source in (*CHANNELS, "return/1"):
            assert flow.level(source, listener) == before.level(source, listener)
    assert track_names(after)[:6] == ("Kick", "Vox", "Hall L", "Hall R", "House L", "House R")


def test_a_pair_in_one_side_is_its_sum():
    after, plan = planned(asked(STAGE, "3 mono processed"))
    assert plan.taken[0] == recording(after, flow_of(after)).tracks[0].taken == "processed"
    flow = flow_of(after)
    assert carried(after)[0] == "mix/2"
    assert flow.level("channel/3", "mix/2") == pytest.approx(-6.0)
    assert flow.level("channel/4", "mix/2") == pytest.approx(-6.0)


def test_what_is_held_stays_and_what_was_there_is_told():
    show = made(STAGE, {"output/recorder/1/source": "house/left",
                        "output/recorder/2/source": "channel/4/direct"})[0]  # fmt: skip
    show = made(show, hold_back(show, tracks="1, 8", mixes="2"))[0]
    after, plan = planned(asked(show, "1; return 1"))
    assert carried(after) == ["house/left", "channel/1/direct", "mix/3/left", "mix/3/right",
                              None, None, None, None]  # fmt: skip
    assert plan.told == ("Set up anew: mix 3 for Hall.",)
    assert recording(after, flow_of(after)).held == ("1, 8", "2")
    assert not hold_back(after, tracks="1, 8", mixes="mix 2")


def test_a_plan_taken_late_is_refused():
    show = asked(STAGE, "1; return 1")
    plan = plan_tracks(show)
    given = [(row.wish.wish, row.track, row.mix) for row in plan.rows]
    taken = made(show, {"mix/2/format": "mono", "mix/2/name": "Aunt Wilhelmina"})[0]
    with pytest.raises(PlanMovedOn, match="mix 2"):
        given_moves(taken, given)
    with pytest.raises(PlanMovedOn, match="wishes"):
        given_moves(asked(show, "2"), given)
    with pytest.raises(PlanMovedOn, match="track 1"):
        given_moves(made(show, hold_back(show, tracks="1"))[0], given)


def test_why_there_is_none_and_what_would_do():
    show = asked(STAGE, "all lines; return 1; house processed")
    show = made(show, hold_back(show, tracks="8"))[0]
    found = no_plan(show)
    assert found.counts == ("8 of 7 tracks",)
    assert plan_tracks(show) is None
    assert found.fewest is not None or found.would_do
    for one in (*found.would_do, *([found.fewest] if found.fewest else [])):
        if one.moves:
            assert plan_tracks(made(show, one.moves)[0]) is not None, one.says


def test_one_too_many_is_settled_by_any_of_what_would_do():
    show = made(STAGE, {"mix/3/format": "mono", "return/2/source": "input/a/3",
                        "return/2/name": "Plate"})[0]  # fmt: skip
    show = made(show, hold_back(show, mixes="2"))[0]
    show = made(show, {"mix/2/for_tracks/held": False, "mix/1/for_tracks/held": True})[0]
    show = asked(show, "return 1; return 2")
    found = no_plan(show)
    assert [one.names for one in found.clashes] == [
        ("Hall as heard, stereo", "Plate as heard, stereo"),
    ]  # fmt: skip
    assert "one is spare" in found.clashes[0].why
    assert {one.says for one in found.would_do} == {
        "Leave out Hall as heard, stereo", "Leave out Plate as heard, stereo",
    }  # fmt: skip


def test_findings_tell_what_moved_since():
    show, _ = planned(asked(STAGE, "Kick; house; return 1"))
    rules = {one.rule for one in findings(show)}
    assert not rules & {"wish_moved_on", "wish_on_no_track", "stereo_split", "track_twice"}
    # Kick comes in on another channel
    other = made(show, {"channel/1/source": None, "channel/2/source": "input/local/1"})[0]
    (moved_on,) = [one for one in findings(other) if one.rule == "wish_moved_on"]
    assert not [
        one for one in findings(made(other, moved_on.moves)[0]) if one.rule == "wish_moved_on"
    ]
    # a hand puts something into the mix of the plan
    crowded = made(show, {"channel/2/send/mix/2/level": 0.0}, Carry())[0]
    assert "wish_moved_on" in {one.rule for one in findings(crowded)}
    again, plan = planned(crowded)
    assert plan.changes == 1
    assert again["channel/2/send/mix/2/level"] == -math.inf
    split = made(show, {"output/recorder/3/source": None})[0]
    assert "stereo_split" in {one.rule for one in findings(split)}
    twice = made(show, {"output/recorder/8/source": "channel/1/direct",
                        "output/recorder/8/tap": "input"})[0]  # fmt: skip
    (found,) = [one for one in findings(twice) if one.rule == "track_twice"]
    assert made(twice, found.moves)[0]["output/recorder/8/source"] is None
    loud = made(show, {"input/local/1/gain": 60.0, "line/1/level_dbu": 0.0})[0]
    assert "track_past_full_scale" in {one.rule for one in findings(loud)}


def test_scenes_leave_a_spare_mix_and_those_that_would_not_are_found():
    cells = {"return/1": ["send/mix/2"]}
    stored = made(STAGE, store_scene(STAGE, "Before", cells))[0]
    show, _ = planned(asked(stored, "return 1"))
    assert not recall(show, "scene/1").values  # as a plan sets a mix up, no scene holds it
    silent = made(show, {"return/1/send/mix/2/level": -math.inf})[0]
    silent = made(silent, store_scene(silent, "Silent", cells))[0]
    back = made(silent, {"return/1/send/mix/2/level": 0.0})[0]
    (found,) = [one for one in findings(back) if one.rule == "scene_moves_a_track"]
    assert "Silent" in found.says


def test_the_track_sheet_says_what_goes_where():
    show, _ = planned(asked(STAGE, "all lines; house"))
    show = made(show, lay_playback(show))[0]
    sheet = sheet_of(show, "tracks")
    assert sheet is not None
    assert [row[:2] for row in sheet.rows][:3] == [(1, "Kick"), (2, "Vox"), (3, "Keys")]
    assert sheet.rows[0][5] == "Kick"


# ---- the way back


def test_the_key_switches_all_that_has_a_track_and_back_restores_what_stood():
    show, _ = planned(asked(STAGE, "1-2; return 1"))
    show = made(show, lay_playback(show))[0]
    assert [show[f"{c}/spare"] for c in CHANNELS] == ["input/recorder/1", "input/recorder/2",
                                                      None, None]  # fmt: skip
    on = made(show, {"channel/2/on_spare": True})[0]  # by a hand, before the key
    played = made(on, switch_playback(on, on=True))[0]
    assert [played.on(f"{c}/on_spare") for c in CHANNELS] == [True, True, False, False]
    moved_by = {a for a in played.own if played.own[a] != on.own.get(a)}
    assert moved_by == {"channel/1/on_spare", "channel/1/played"}
    assert made(played, switch_playback(played, on=False))[0] == on
    with pytest.raises(NothingLeft):
        switch_playback(on, on=False)
    with pytest.raises(NothingLeft):
        switch_playback(played, on=True)


def test_played_back_the_levels_expected_stand_and_the_line_check_sees_the_track():
    show = made(STAGE, {f"line/{n}/level_dbu": -20.0 for n in (1, 2)})[0]
    show, _ = planned(asked(show, "1-2"))
    show = made(show, lay_playback(show))[0]
    played = made(show, switch_playback(show, on=True))[0]
    before, after = (expected_at(one, flow_of(one), "house") for one in (show, played))
    assert after.dbfs == pytest.approx(before.dbfs)
    assert {one.source for one in after.loudest} == {one.source for one in before.loudest}
    levels = {socket: dbfs + DESK.full_scale_dbu for socket, _, dbfs in takes(show, flow_of(show))}
    assert channel_meters(played, levels)[1] == pytest.approx(-42.0)
    arrival = arrival_of(played, 1, levels)
    assert arrival.good
    assert arrival.says == "Arrives from its track at \N{MINUS SIGN}42 dBFS, as expected."
    assert not arrival_of(played, 1, {"input/local/1": -20.0}).good  # the stage is not listened to
    assert arrival_of(show, 1, {"input/local/1": -20.0}).good


def test_only_a_family_is_switched():
    show, _ = planned(asked(STAGE, "all lines"))
    show = made(show, lay_playback(show))[0]
    played = made(show, switch_playback(show, on=True, family="voices"))[0]
    assert [played.on(f"{c}/on_spare") for c in CHANNELS] == [False, True, False, False]
    assert recording(played, flow_of(played)).back.families == ("voices", "drums")


def test_a_spare_that_is_something_else_stays_unless_it_is_named():
    show, _ = planned(asked(made(STAGE, {"channel/1/spare": "input/a/4"})[0], "1-2"))
    assert lay_playback(show) == {"channel/2/spare": "input/recorder/2"}
    assert lay_playback(show, ["channel/1"])["channel/1/spare"] == "input/recorder/1"
    back = recording(show, flow_of(show)).back
    assert [channel for channel, _ in back.taken] == ["channel/1"]


def test_before_the_key_it_is_told_what_playback_would_do():
    show, _ = planned(asked(STAGE, "1-2; group 1 to 5"))
    # the band's group is played back too, into a channel that goes to the house
    values: dict[str, Value] = {"channel/1/group/1/on": True, "channel/3/spare": "input/recorder/5",
              "channel/3/fader": 0.0, "group/1/house/on": True,
              }  # fmt: skip
    show = made(made(show, values)[0], lay_playback(made(show, values)[0]))[0]
    told = playback_told(show, flow_of(show), switch_playback(show, on=True))
    assert [one.tone for one in told] == ["loop", "twice", "live"]
    assert "Tracks 1-2" in told[0].says
    assert "Kick" in told[1].says
    # and into the group itself: it would go round
    round_ = made(show, {"channel/3/group/1/on": True})[0]
    told = playback_told(round_, flow_of(round_), switch_playback(round_, on=True))
    assert [one.tone for one in told][:2] == ["loop", "loop"] or "Track 5" in told[0].says


def test_a_broken_promise_is_told_with_its_way():
    """The click is in the drummer's ears; the track of these, played into Vox, is in the house."""
    show, _ = planned(asked(STAGE, "mix 1 to 1"))
    show = made(show, {
        "channel/2/spare": "input/recorder/1", "channel/1/house/on": False,
        "promise/1/kind": "never", "channel/1/promise/1/on": True, "house/promise/1/on": True,
    })[0]  # fmt: skip
    told = playback_told(show, flow_of(show), switch_playback(show, on=True))
    (one,) = [one for one in told if one.tone == "promise"]
    assert "Kick" in one.says
    assert "track 1 (Ears), which plays into Vox" in one.says
    muted = made(show, {"channel/2/house/on": False})[0]
    told = playback_told(muted, flow_of(muted), switch_playback(muted, on=True))
    assert "promise" not in {one.tone for one in told}


def test_two_tracks_for_the_engineer_alone():
    blank = made(STAGE, {f"{c}/{leaf}": None for c in CHANNELS[:2] for leaf in ("source",)})[0]
    blank = made(blank, {f"{c}/name": "" for c in CHANNELS[:2]})[0]
    after = made(blank, listen_channels(blank, "7-8"), own=True)[0]
    assert after.on("channel/1/linked")
    flow = flow_of(after)
    for channel in CHANNELS[:2]:
        for listener in ("house", "mono", "mix/1"):
            assert flow.state_of(channel, listener) != State.HEARD
    with pytest.raises(NothingLeft):
        listen_channels(STAGE, "7-8")
    with pytest.raises(UnreadableText):
        listen_channels(blank, "7")


# ---- amid all else

TEXTS = st.sampled_from(["all lines", "3-4 stereo", "3-4 stereo to 5", "1 processed", "3 mono",
                         "return 1", "return 1 mono to 7", "house", "group 1", "mix 1",
                         "Vox as heard if there is room", "2 raw to 4",
                         "talkback if there is room 2"])  # fmt: skip


class Evening(RuleBasedStateMachine):
    def __init__(self):
        super().__init__()
        self.show, self.stack = STAGE, []
        self.before_key = None

    def take(self, moves, carry=None, *, own=False):
        try:
            after, change = made(self.show, moves, carry, own=own)
            flow_of(after)
        except ConsoleError:
            return False
        if change:
            undone = expanded(after, dict(change.old), None, own=True, begins=False).show
            assert undone == self.show
            self.stack.append((self.show, self.before_key))
            self.show = after
        return True

    def ask(self, plan, *args, own=False, **fields):
        try:
            moves = plan(self.show, *args, **fields)
        except ConsoleError:
            return False
        return self.take(moves, own=own)

    @rule(text=TEXTS)
    def a_wish(self, text):
        self.ask(add_wishes, text)

    @rule(at=st.integers(0, 5))
    def a_wish_less(self, at):
        listed = wishes(self.show)
        if at < len(listed):
            self.ask(remove_wishes, [listed[at].wish])

    @rule(tracks=st.sampled_from(["", "1", "3-4", "8"]), mixes=st.sampled_from(["", "2", "2-3"]))
    def held_back(self, tracks, mixes):
        self.ask(hold_back, tracks=tracks, mixes=mixes)

    @rule(on=st.booleans())
    def keep_last(self, on):
        self.take({"plan/keep": on})

    @rule()
    def a_plan(self):
        """Taken, every served wish is carried, and planning again changes nothing."""
        plan = plan_tracks(self.show)
        if plan is None:
            told = no_plan(self.show)
            assert told.clashes
            return
        given = [(row.wish.wish, row.track, row.mix) for row in plan.rows]
        held = {n: (self.show[f"output/recorder/{n}/source"], self.show[f"output/recorder/{n}/tap"])
                for n in range(1, 9) if self.show.on(f"output/recorder/{n}/held")}  # fmt: skip
        before, flow = self.show, flow_of(self.show)
        assert self.take(given_moves(self.show, given), own=True)
        after = flow_of(self.show)
        spare = {f"mix/{n}" for n in (2, 3)}
        for listener in {"house", "mono", "mix/1", "mix/2", "mix/3", "group/1"} - spare | {
            mix for mix in spare if not self.show.on(f"{mix}/for_tracks/made")
        }:
            for source in (*CHANNELS, "return/1"):
                assert after.level(source, listener) == flow.level(source, listener)
        for n, was in held.items():
            now = self.show[f"output/recorder/{n}/source"], self.show[f"output/recorder/{n}/tap"]
            assert now == was
        for one in recording(self.show, after).wishes:
            assert one.stands == bool(one.wish.given)
        for mix in spare:
            used = {row.mix for row in plan.rows}
            if mix in used:
                some = [s for s in (*CHANNELS, "return/1", "return/2")
                        if after.level(s, mix) > -math.inf]  # fmt: skip
                assert len(some) <= 2
        again = plan_tracks(self.show)
        assert again is not None
        assert again.changes == 0
        assert (again.mixes, len(again.rows)) == (plan.mixes, len(plan.rows))
        if before.own == self.show.own:
            assert plan.changes == 0

    @rule(channel=st.sampled_from(CHANNELS), level=st.sampled_from([-math.inf, -6.0, 0.0]),
          mix=st.integers(1, 3))  # fmt: skip
    def a_send(self, channel, level, mix):
        self.take({f"{channel}/send/mix/{mix}/level": level}, Carry())

    @rule(mix=st.integers(2, 3), form=st.sampled_from(["unused", "mono", "stereo"]))
    def a_format(self, mix, form):
        self.take({f"mix/{mix}/format": form})

    @rule(what=st.sampled_from(["channel/3/linked", "mix/2/linked", "channel/1/mute",
                                "gang/1/suspended"]), on=st.booleans())  # fmt: skip
    def a_key(self, what, on):
        self.take({what: on})

    @rule(line=st.integers(1, 4), channel=st.integers(1, 4))
    def a_patch(self, line, channel):
        self.take({f"channel/{channel}/source": f"input/local/{line}"})

    @rule(channel=st.integers(1, 4), to=st.integers(1, 4))
    def other_numbers(self, channel, to):
        """Renumbered, the plan stands as it did: tracks and mixes follow."""
        try:
            order = renumber_channels(self.show, [channel], to)
        except ConsoleError:
            return
        stood = {w.wish.wish for w in recording(self.show, flow_of(self.show)).wishes if w.stands}
        lines = {one.wish for one in wishes(self.show) if one.source.startswith("line")}
        after = made(self.show, order.moves, own=True)[0]
        stands = {w.wish.wish for w in recording(after, flow_of(after)).wishes if w.stands}
        pairs = self.show.on("channel/3/linked") or self.show.on("channel/1/linked")
        if not pairs and not lines:
            assert stands == stood
        self.stack, self.show, self.before_key = [], after, None

    @rule()
    def a_scene(self):
        cells = {c: ["send/mix/2", "send/mix/3", "fader"] for c in (*CHANNELS, "return/1")}
        if len(self.show.scenes) < 2:
            self.ask(lambda show: store_scene(show, f"Scene {len(show.scenes)}", cells))

    @rule()
    def a_recall(self):
        for scene in self.show.scenes[:1]:
            self.ask(lambda show, one=scene: recall(show, one).moves, own=True)

    @rule()
    def laid(self):
        self.ask(lay_playback)

    @rule(family=st.sampled_from(["", "voices"]))
    def the_key(self, family):
        standing = {c: self.show.on(f"{c}/on_spare") for c in CHANNELS}
        fresh = not any(self.show.on(f"{c}/played") for c in CHANNELS)
        if self.ask(switch_playback, on=True, family=family) and fresh:
            self.before_key = standing
            sockets = [self.show[f"{c}/source"] for c in CHANNELS]
            assert sockets == [self.stack[-1][0][f"{c}/source"] for c in CHANNELS]

    @rule()
    def the_key_back(self):
        """What the key did not switch stays; what it did stands as before."""
        marked = [c for c in CHANNELS if self.show.on(f"{c}/played")]
        others = {c: self.show.on(f"{c}/on_spare") for c in CHANNELS if c not in marked}
        if self.ask(switch_playback, on=False):
            assert not any(self.show.on(f"{c}/played") for c in CHANNELS)
            assert not any(self.show.on(f"{c}/on_spare") for c in marked)
            assert {c: self.show.on(f"{c}/on_spare") for c in others} == others

    @rule(desk=st.sampled_from(["small-24", "touring-48"]))
    def another_desk(self, desk):
        """There and back nothing of it is lost."""
        there = moved(self.show, (), DESKS[desk], known=DESKS.get)
        assert left_words(self.show, there) or not there.left
        back = moved(there.show, there.asides, DESK, known=DESKS.get)
        assert wishes(back.show) == wishes(self.show)
        assert carried(back.show) == carried(self.show)

    @rule()
    def back(self):
        if self.stack:
            self.show, self.before_key = self.stack.pop()

    @invariant()
    def all_is_told_without_fault(self):
        flow = flow_of(self.show)
        findings(self.show, flow)
        told = recording(self.show, flow)
        assert len(told.tracks) == 8
        sheet_of(self.show, "tracks")
        names = [name for name in track_names(self.show) if name]
        assert len(names) == len(set(names))
        assert facts(self.show) == facts(show_of(DESK, self.show.own))


Evening.TestCase.settings = settings(
    max_examples=25, stateful_step_count=25, deadline=None, phases=[Phase.generate]
)
TestEvening = Evening.TestCase


@given(seed=st.integers(0, 10**6), text=TEXTS)
def test_edits_of_a_plan_are_taken_or_refused_by_name(seed, text):
    """What a plan gives the door takes; nothing is half done."""
    show = asked(STAGE, text)
    plan = plan_tracks(show)
    if plan is not None:
        given = [(row.wish.wish, (row.track + seed) % 9, row.mix) for row in plan.rows]
        with contextlib.suppress(PlanMovedOn, EditRefused):
            made(show, given_moves(show, given), own=True)
