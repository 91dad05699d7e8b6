"""Shared gain amid all else: hands, gangs, pairs, DCAs, mutes, scenes, pins, new numbers, other

desks, undo, in any order; judged from addresses alone.
"""

import math

import numpy as np
import pytest
from hypothesis import Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from ombrel.core import (
    AT_REST,
    Carry,
    ConsoleError,
    Value,
    after_step,
    clear_sharing,
    expanded,
    findings,
    flow_of,
    join_sharing,
    leave_sharing,
    left_words,
    made,
    make_sharing,
    moved,
    overview,
    recall,
    renumber_channels,
    set_cells,
    sharings,
    show_of,
    store_scene,
)
from tests.desks import SMALL, TINY, TOURING

from .test_found_once import facts
from .walk import is_out

CHANNELS = [f"channel/{n}" for n in range(1, 5)]
STRIPS = st.sampled_from([*CHANNELS, "group/1", "mix/1", "mono"])
GROUPS = st.sampled_from(["sharing/1", "sharing/2"])
CHANNEL = st.sampled_from(CHANNELS)
WEIGHTS = st.integers(-200, 200).map(lambda n: n / 10)
DESKS = {desk.key: desk for desk in (TINY, SMALL, TOURING)}


def table():
    """Four who sit at a table, in two gangs of weights, on a DCA, with a scene."""
    values: dict[str, Value] = {
        "group/1/format": "mono", "mix/1/format": "mono", "mix/1/serves": "ears",
        "gang/1/carries_sharing": True, "output/local/1/source": "house/left",
    }  # fmt: skip
    for n, channel in enumerate(CHANNELS, 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/socket": f"input/local/{n}",
            f"input/local/{n}/gain": 20.0, f"{channel}/source": f"input/local/{n}",
            f"{channel}/fader": 0.0, f"{channel}/group/1/on": n < 3, f"{channel}/dca/1/on": n > 2,
            f"{channel}/gang/1/on": n in (1, 2), f"{channel}/sharing/group": "sharing/1",
        }  # fmt: skip
    show = show_of(TINY, values)
    cells = {channel: ["sharing"] for channel in CHANNELS[:2]} | {"sharing/1": ["sharing"]}
    return made(show, store_scene(show, "Round table", cells))[0]


TABLE = table()
SETTINGS = [TABLE["sharing/1/place"], TABLE["sharing/1/time"]]


class Talk(RuleBasedStateMachine):
    def __init__(self):
        super().__init__()
        self.show, self.means, self.stack = TABLE, AT_REST, []

    def take(self, moves, carry=None):
        try:
            after, change = made(self.show, moves, carry)
            flow_of(after)
        except ConsoleError:
            return
        if change:
            undone = expanded(after, dict(change.old), None, own=True, begins=False).show
            assert undone == self.show
            self.stack.append(self.show)
            self.show = after

    def ask(self, plan, *asked):
        try:
            moves = plan(self.show, *asked)
        except ConsoleError:
            return
        self.take(moves)

    @rule(strips=st.sampled_from(["1-4", "1, 3", "mono", "2, group 1", "mix 1", "house", "drums"]))
    def a_group(self, strips):
        self.ask(make_sharing, strips)

    @rule(group=GROUPS, strip=STRIPS)
    def a_member_more(self, group, strip):
        self.ask(join_sharing, group, strip.replace("/", " "))

    @rule(strip=STRIPS)
    def a_member_less(self, strip):
        self.ask(leave_sharing, [strip])

    @rule(group=GROUPS)
    def an_end(self, group):
        self.ask(clear_sharing, group)

    @rule(channel=CHANNEL, weight=WEIGHTS)
    def a_weight(self, channel, weight):
        """By hand: of those that a gang holds together the distances stay."""
        leaf = "sharing/weight"
        before = {c: self._place(c) for c in CHANNELS[:2]}
        self.take({f"{channel}/{leaf}": weight}, Carry())
        if channel in before:
            after = {c: self._place(c) for c in CHANNELS[:2]}
            by = after[channel] - before[channel]
            if not self.show.on("gang/1/suspended") and self._ganged():
                assert after == pytest.approx({c: was + by for c, was in before.items()})

    def _ganged(self):
        held = all(self.show.on(f"{c}/gang/1/on") for c in CHANNELS[:2])
        return held and not self.show.on("channel/1/linked")

    def _place(self, channel):
        kept = self.show[f"{channel}/sharing/weight/kept"]
        return kept if kept > -math.inf else self.show[f"{channel}/sharing/weight"]

    @rule(strip=STRIPS, leaf=st.sampled_from(["held", "out"]), on=st.booleans())
    def a_switch(self, strip, leaf, on):
        self.take({f"{strip}/sharing/{leaf}": on})

    @rule(place=st.sampled_from(["behind_fader", "before_fader"]), group=GROUPS)
    def a_place(self, place, group):
        self.take({f"{group}/place": place})

    @rule(group=GROUPS, time=st.sampled_from([2.0, 100.0, 500.0]))
    def a_time(self, group, time):
        self.take({f"{group}/time": time})

    @rule(group=GROUPS, limit=st.sampled_from([-math.inf, -40.0, -9.0, -3.0]))
    def a_limit(self, group, limit):
        self.take({f"{group}/limit": limit})

    @rule(what=st.sampled_from(["channel/1/mute", "dca/1/mute", "channel/1/linked",
                                "gang/1/suspended", "mix/1/linked"]), on=st.booleans())  # fmt: skip
    def a_key(self, what, on):
        self.take({what: on})

    @rule(
        sides=st.sampled_from(["mono", "stereo", "unused"]),
        bus=st.sampled_from(["group/1", "mix/1"]),
    )
    def a_format(self, sides, bus):
        self.take({f"{bus}/format": sides})

    @rule(channel=CHANNEL, level=st.sampled_from([-math.inf, -6.0, 0.0]))
    def a_fader(self, channel, level):
        self.take({f"{channel}/fader": level}, Carry())

    @rule(channel=CHANNEL, on=st.booleans())
    def a_pin(self, channel, on):
        self.take({f"{channel}/pinned_sharing": on})

    @rule()
    def a_recall(self):
        if "scene/1" not in self.show.scenes:
            return
        pinned = {
            c: {a: self.show[f"{c}/sharing/{a}"] for a in ("group", "weight", "held", "out")}
            for c in CHANNELS
            if self.show.on(f"{c}/pinned_sharing")
        }
        before = self.show
        try:
            moves = recall(self.show, "scene/1").moves
        except ConsoleError:
            return
        self.take(moves)
        linked = before.on("channel/1/linked")
        if self.show is not before:  # what the scene has of the group itself stands again
            assert [self.show[f"sharing/1/{leaf}"] for leaf in ("place", "time")] == SETTINGS
        for channel, was in pinned.items():
            if not linked:
                assert {a: self.show[f"{channel}/sharing/{a}"] for a in was} == was

    @rule()
    def a_store(self):
        self.ask(lambda show: set_cells(show, "scene/1", {"channel/3": ["sharing"]}, on=True))

    @rule(channel=st.integers(1, 4), to=st.integers(1, 4))
    def other_numbers(self, channel, to):
        """Renumbered they share as before, under their new names."""
        try:
            order = renumber_channels(self.show, [channel], to)
        except ConsoleError:
            return
        told = {order.to.get(m, m): g.group for g in sharings(self.show) for one in g.members
                for m in one.sides}  # fmt: skip
        after = made(self.show, order.moves, own=True)[0]
        assert {m: g.group for g in sharings(after) for one in g.members for m in one.sides} == told
        self.stack, self.show, self.means = [], after, AT_REST

    @rule(desk=st.sampled_from(["small-24", "touring-48"]))
    def another_desk(self, desk):
        """There and back nothing of it is lost: what does not fit is kept aside."""
        there = moved(self.show, (), DESKS[desk], known=DESKS.get)
        assert left_words(self.show, there) or not there.left
        back = moved(there.show, there.asides, TINY, known=DESKS.get)
        assert sharings(back.show) == sharings(self.show)

    @rule()
    def back(self):
        if self.stack:
            self.show = self.stack.pop()

    @rule(levels=st.lists(st.floats(-70.0, 0.0), min_size=4, max_size=4), step=st.floats(0.0, 2.0))
    def a_word(self, levels, step):
        """A step of the stage: shares of one group are one, and who is silent has none."""
        dbu = {f"input/local/{n}": level for n, level in enumerate(levels, 1)}
        flow = flow_of(self.show)
        self.means, groups = after_step(self.show, flow, self.means, dbu, step)
        for group, told in zip(sharings(self.show), groups, strict=True):
            some = [one for one in told.members if one.standing == "shares"]
            total = sum(one.share for one in some)
            if some and group.limit_db == -math.inf:
                assert total == pytest.approx(1.0)
            if some:
                most = 1.0 + (len(some) - 1) * 10.0 ** (group.limit_db / 10.0)
                assert total <= max(most, 10.0 ** (group.limit_db / 10.0) * len(some)) + 1e-9
                assert told.over_db == pytest.approx(max(0.0, 10.0 * np.log10(total)), abs=1e-6)
            assert all(one.gain_db <= 1e-9 for one in told.members)
            assert {*self.means} >= {one.strip for one in some}

    @invariant()
    def members_are_what_addresses_say(self):
        held: dict[str, set[str]] = {}
        for strip in [*CHANNELS, *(f"group/{n}" for n in (1, 2, 3)), "mix/1", "mix/2", "mix/3",
                      "matrix/1", "matrix/2", "mono"]:  # fmt: skip
            if group := self.show[f"{strip}/sharing/group"]:
                held.setdefault(group, set()).add(strip)
                if strip.split("/")[0] in ("group", "mix", "matrix"):
                    assert self.show[f"{strip}/format"] != "stereo"
        assert sum(map(len, held.values())) <= TINY.sharing_places
        found = {g.group: {s for one in g.members for s in one.sides} for g in sharings(self.show)}
        assert {g: strips for g, strips in found.items() if strips} == held

    @invariant()
    def what_is_out_is_silent_in_the_flow(self):
        flow = flow_of(self.show)
        for channel in CHANNELS:
            if is_out(self.show, channel):
                level = flow.level(channel, "house")
                assert level == -math.inf

    @invariant()
    def all_is_told_without_fault(self):
        flow = flow_of(self.show)
        findings(self.show, flow)
        for one in overview(self.show, flow, {}).sharing:
            assert one.tried is not None
            assert one.behind
            assert one.before
        anew = show_of(TINY, self.show.own)
        assert facts(self.show) == facts(anew)


Talk.TestCase.settings = settings(
    max_examples=25, stateful_step_count=30, deadline=None, phases=[Phase.generate]
)
TestTalk = Talk.TestCase
