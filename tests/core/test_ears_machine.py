"""Ears in any order: the desk's hands, gangs, pairs, fittings, trims, swaps, starts, recipes, undo,

and phones beside them. Whatever was before, a phone moves its own mix alone, raises
nothing past its ends, keeps distances, and each change has its way back.
"""

import math
import re

import pytest
from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, precondition, rule

from ombrel.core import (
    EVERYTHING,
    Carry,
    ConsoleError,
    Show,
    Value,
    check_phone,
    copy_mix,
    ears,
    edited,
    expanded,
    flow_of,
    join_mixes,
    made,
    phone_family,
    phone_louder,
    phone_mix,
    phone_start,
    show_of,
    start_mixes,
    start_over,
    swap_mixes,
    take_starts,
    trim_ears,
    trim_mixes,
)
from ombrel.core.ears.families import families_of
from tests.desks import TOURING

from .test_found_once import facts

OFF = -math.inf
MIXES = ("mix/1", "mix/2")
CHANNELS = [f"channel/{n}" for n in range(1, 7)]
LEVELS = st.one_of(st.just(OFF), st.integers(-1200, 60).map(lambda n: n / 10))
STEPS = st.integers(-400, 400).map(lambda n: n / 10)
MIX, CHANNEL = st.sampled_from(MIXES), st.sampled_from(CHANNELS)
SENDS = re.compile(
    r"(channel|return|group|fitting)/\d+/(value/)?send/(mix/\d+)/(level|pan)(/kept)?"
)


def company():
    """Six channels with lines of three families, two mixes, a pair, a gang, and a fitting on."""
    values: dict[str, Value] = {
              "part/1/place": 1.0, "part/1/name": "Host", "performer/1/name": "Maro",
              "part/1/microphone/1/channel": "channel/6", "part/1/mix": "mix/2",
              "fitting/1/performer": "performer/1", "fitting/1/part": "part/1",
              "fitting/1/carries_sends": True, "fitting/1/value/send/mix/1/level": -20.0,
              "channel/6/part": "part/1", "channel/6/fitting": "fitting/1",
              "channel/1/linked": True, "gang/1/carries_sends": True}  # fmt: skip
    for n, family in enumerate(("drums", "drums", "drums", "bass", "voices", "voices"), 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/name": f"Line {n}", f"line/{n}/family": family,
            f"line/{n}/socket": f"input/local/{n}", f"channel/{n}/source": f"input/local/{n}",
            f"channel/{n}/send/mix/1/level": -6.0 * n, f"channel/{n}/send/mix/2/level": -3.0 * n,
            f"channel/{n}/fader": -10.0,
        }  # fmt: skip
    for mix in MIXES:
        values |= {f"{mix}/format": "stereo", f"{mix}/serves": "ears"}
    for channel in CHANNELS[2:4]:
        values[f"{channel}/gang/1/on"] = True
    return show_of(TOURING, values)


BAND = company()


def undone(show, change):
    """As an undo turns a change back: what it opens begins nothing."""
    return expanded(show, dict(change.old), None, own=True, begins=False).show


class Ears(RuleBasedStateMachine):
    def __init__(self):
        super().__init__()
        self.show = BAND
        self.before = []  # what stood, each with the change that led on

    def take(self, moves, carry=None):
        """An edit of the desk; one that is refused changes nothing."""
        try:
            after, change = made(self.show, moves, carry)
        except ConsoleError:
            return
        if change:
            assert undone(after, change) == self.show
            self.before.append((self.show, change))
            self.show = after

    def ask(self, plan, *asked, **more):
        try:
            moves = plan(self.show, *asked, **more)
        except ConsoleError:
            return
        self.take(moves if isinstance(moves, dict) else moves.moves)

    # ---- the desk

    @rule(channel=CHANNEL, mix=MIX, level=LEVELS, alone=st.booleans())
    def a_hand(self, channel, mix, level, alone):
        self.take({f"{channel}/send/{mix}/level": level}, Carry(alone=alone))

    @rule(channel=CHANNEL, mix=MIX, on=st.booleans())
    def a_switch(self, channel, mix, on):
        self.take({f"{channel}/send/{mix}/on": on})

    @rule(channel=CHANNEL, mix=MIX, pan=st.integers(-10, 10))
    def a_place(self, channel, mix, pan):
        self.take({f"{channel}/send/{mix}/pan": pan / 10})

    @rule(mix=MIX, step=STEPS)
    def a_trim(self, mix, step):
        self.ask(trim_mixes, [mix], step)

    @rule(step=STEPS)
    def all_ears(self, step):
        self.ask(trim_ears, step)

    @rule(mix=MIX)
    def a_start(self, mix):
        self.ask(take_starts, [mix])

    @rule(mix=MIX)
    def over(self, mix):
        self.ask(start_over, [mix])

    @rule()
    def a_swap(self):
        was = self.show
        self.ask(swap_mixes, *MIXES)
        for channel in CHANNELS:
            assert self.show[f"{channel}/send/mix/1/level"] in (
                was[f"{channel}/send/mix/2/level"], was[f"{channel}/send/mix/1/level"],
            )  # fmt: skip

    @rule(mix=MIX)
    def a_copy(self, mix):
        self.ask(copy_mix, mix, [one for one in MIXES if one != mix])

    @rule(channel=CHANNEL)
    def a_late_one(self, channel):
        self.ask(join_mixes, [channel], MIXES, "-12")

    @rule(mix=MIX, recipe=st.sampled_from(["self +6", "drums off, bass = -3", "rest = -20"]))
    def a_recipe(self, mix, recipe):
        self.ask(start_mixes, [mix], "house", recipe)

    @rule(mix=MIX, limit=st.sampled_from([126.0, 0.0, 3.0, 12.0]), ceiling=LEVELS)
    def ends(self, mix, limit, ceiling):
        self.take({f"{mix}/limit": limit, f"{mix}/ceiling": ceiling})

    @rule(on=st.booleans())
    def a_fitting(self, on):
        self.take({"channel/6/fitting": "fitting/1" if on else None,
                   "channel/6/part": "part/1" if on else None})  # fmt: skip

    @rule(rests=st.booleans())
    def a_gang(self, rests):
        self.take({"gang/1/suspended": rests})

    @rule(linked=st.booleans())
    def a_pair(self, linked):
        self.take({"channel/1/linked": linked})

    @precondition(lambda self: self.before)
    @rule()
    def back(self):
        """What was done last is turned back."""
        was, change = self.before.pop()
        self.show = undone(self.show, change)
        assert self.show == was

    # ---- phones

    @rule(mix=MIX, of=st.sampled_from(["me", "drums", "bass", "voices", EVERYTHING, *CHANNELS]),
          place=st.one_of(st.just(OFF), STEPS), start=st.booleans())  # fmt: skip
    def a_finger(self, mix, of, place, start):
        try:
            moves = phone_start(self.show, mix, of) if start else phone_family(
                self.show, mix, of, place
            )  # fmt: skip
        except ConsoleError:
            return
        self.by_phone(mix, moves)

    @rule(mix=MIX, step=STEPS)
    def louder(self, mix, step):
        self.by_phone(mix, phone_louder(self.show, mix, by_db=step))

    def by_phone(self, mix, moves):
        was = self.show
        shown = {strip for strips in families_of(was, mix).values() for strip in strips}
        try:
            found = expanded(was, moves, None, begins=False)
            named = [a for a in moves if not a.endswith("/kept")]
            check_phone(was, [mix], named, found.show, {*found.change.new, *found.stood.new})
        except ConsoleError:
            return
        for address in found.change.new:
            sent = SENDS.fullmatch(address)
            assert (sent and sent[3] == mix) or address in (f"{mix}/fader", f"{mix}/fader/kept")
        for channel in CHANNELS:
            send = f"{channel}/send/{mix}"
            new, old = found.show.number(f"{send}/level"), was.number(f"{send}/level")
            start = was.number(f"{send}/start")
            top = (-12.0 if start == OFF else start) + was.number(f"{mix}/limit")
            assert new <= max(top, old) + 1e-6, (channel, old, new, top)
            linked = was.on("channel/1/linked") and channel in CHANNELS[:2]
            assert new == old or channel in shown or linked
        fader = f"{mix}/fader"
        ceiling = max(was.number(f"{mix}/ceiling"), was.number(fader))
        assert found.show.number(fader) <= ceiling + 1e-6
        assert undone(found.show, found.change) == was
        self.before.append((was, found.change))
        self.show = found.show

    # ---- whatever comes

    @invariant()
    def what_is_found_once_still_holds(self):
        show = self.show
        assert facts(show) == facts(Show(show.desk, show.own, show.values, show.layers))

    @invariant()
    def places_lie_beyond_the_ends_or_under_what_is_off(self):
        for mix in MIXES:
            for channel in CHANNELS:
                address = f"{channel}/send/{mix}/level"
                kept, level = self.show.number(f"{address}/kept"), self.show.number(address)
                if kept != OFF:
                    assert level == OFF or (level == 6.0 and kept > 6.0), (address, level, kept)

    @invariant()
    def it_is_told_without_fault_and_as_the_show_stands(self):
        flow = flow_of(self.show)
        for one in ears(self.show, flow):
            assert one.balance.stands != "over" or math.isfinite(one.balance.over_db)
        for mix in MIXES:
            told = phone_mix(self.show, flow, mix)
            for family in told.families:
                for send in family.sends:
                    level, start, place = (
                        self.show.number(f"{send.strip}/send/{mix}/{leaf}")
                        for leaf in ("level", "start", "level/kept")
                    )
                    zero = start if send.started else 0.0
                    assert send.started == (start > OFF)
                    assert send.position_db + zero == pytest.approx(level, abs=1e-9)
                    if level > OFF:
                        there = level if place == OFF else place
                        assert send.place_db + zero == pytest.approx(there, abs=1e-9)


Ears.TestCase.settings = settings(max_examples=40, stateful_step_count=25, deadline=None)
TestEars = Ears.TestCase


def test_a_hand_beside_a_fade_and_a_phone_holds_its_gang():
    """A hand's edit of what sounds half way goes on from there, with its gang; a phone has none."""
    show = BAND
    target = made(show, {"channel/3/send/mix/1/level": -40.0})[0]
    sounding = target.sounding({"channel/3/send/mix/1/level": -25.0})
    hand = edited(target, flow_of(target), {"channel/3/send/mix/1/level": -20.0}, Carry(),
                  sounding=sounding)  # fmt: skip
    assert hand.show.number("channel/4/send/mix/1/level") == -19.0
    phone = made(show, phone_family(show, "mix/1", "channel/3", -15.0))[0]
    assert phone.number("channel/4/send/mix/1/level") == -24.0
