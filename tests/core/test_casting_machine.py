"""Never the wrong name: hands, gangs, pins, patches, recalls, casts, mic checks by two operators,

undo and hands that come late, in any order, against a referee of plain dictionaries.
"""

import copy
import json
import re

import pytest
from hypothesis import Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from ombrel.core import (
    Carry,
    ConsoleError,
    CueRefused,
    Deed,
    EntryTaken,
    Given,
    HandsOnly,
    NoSuchFitting,
    NotAllowed,
    NotTheirName,
    Show,
    SomebodyElseOn,
    Value,
    blank_show,
    bring_back,
    check_access,
    check_go_to,
    check_next,
    check_same_person,
    check_skip,
    check_take_over,
    choose_cast,
    copy_fitting,
    drop,
    effect,
    expanded,
    fitting_for,
    flow_of,
    keep,
    late_change,
    made,
    of_kind,
    part_on,
    recall,
    remove_fitting,
    renumbered_given,
    ride_fader,
    set_cells,
    store_scene,
    strips_in,
    undoing,
    undoing_renumbered,
    unguarded,
)
from ombrel.core.casting import newest_version, values_of, versions
from ombrel.core.casting.fittings import capture
from ombrel.core.edit import renamed
from tests.desks import TINY
from tests.shows import often

from .casting import ASPECT, CARRIED, Company
from .test_found_once import facts

NAMES = {"performer/1": "Ada", "performer/2": "Bo", "performer/3": "Cy", "performer/4": "Di"}
HOMES = {"part/1": ["channel/1"], "part/2": ["channel/1"], "part/3": ["channel/2"],
         "part/4": ["channel/3"]}  # fmt: skip
CASTS: dict[str, dict[str, str | None]] = {
    "cast/1": {"part/1": "performer/1", "part/2": "performer/2", "part/3": "performer/3",
               "part/4": None},
    "cast/2": {"part/1": "performer/2", "part/2": "performer/1", "part/3": "performer/3",
               "part/4": "performer/4"},
}  # fmt: skip
SOURCES = {"channel/1": "input/local/1", "channel/2": "input/local/1", "channel/3": "input/local/2"}
GANG = {"channel/2", "channel/3"}  # their EQ moves together
# what the one scene carries: own values, and who is on
SCENE = {("channel/1", "eq/1/gain"): 6.0, ("channel/2", "low_cut/frequency"): 150.0}
SCENE_PARTS = {"channel/1": "part/2", "channel/3": None}
PHASES = [Phase.generate]
RIDDEN_DB = (-12.0, -3.0)
IS_THERE = r"fitting/\d+/performer"
WATCHED = ("/fitting", "/attached", "/check", "/carries_preamp", "/newest", "/dropped_s")
OPERATORS = ("ann", "ben")
VALUES = {
    "eq/1/gain": [-3.0, 0.0, 2.0, 4.0],
    "low_cut/frequency": [80.0, 100.0, 150.0],
    "preamp/gain": [0.0, 20.0, 35.0],
    "fader": [-6.0, 0.0],
}


def company_show():
    """A small company on a small desk, with one scene."""
    values: dict[str, Value] = {f"{channel}/source": socket for channel, socket in SOURCES.items()}
    values |= {f"{performer}/name": name for performer, name in NAMES.items()}
    for place, (part, channels) in enumerate(HOMES.items(), start=1):
        values |= {f"{part}/place": float(place), f"{part}/name": f"Part {place}"}
        values |= {f"{part}/microphone/{n}/channel": c for n, c in enumerate(channels, start=1)}
    for cast, plays in CASTS.items():
        values |= {f"{cast}/name": cast} | {f"{cast}/{part}": who for part, who in plays.items()}
    values |= {"channel/2/gang/1/on": True, "channel/3/gang/1/on": True}
    values |= {"gang/1/carries_eq": True, "gang/1/carries_fader": False}
    show = made(blank_show(TINY), values)[0]
    stands: dict[str, Value] = {
        f"{channel}/{leaf}": value for (channel, leaf), value in SCENE.items()
    }
    stands |= {f"{channel}/part": part for channel, part in SCENE_PARTS.items()}
    then = made(show, stands)[0]
    cells = {"channel/1": ["eq", "part"], "channel/2": ["low_cut"], "channel/3": ["part"]}
    stored = made(then, store_scene(then, "One", cells))[0]
    # storing names nobody: a hand does
    stored = made(stored, set_cells(stored, "scene/1", {"channel/3": ["part"]}, on=True))[0]
    scene = {a: v for a, v in stored.own.items() if a.startswith("scene/")}
    return made(show, scene)[0]


CHANNELS = st.sampled_from(sorted(SOURCES))
LEAVES = st.sampled_from(sorted(VALUES))
PARTS = st.sampled_from(sorted(HOMES))
ASPECTS = st.sampled_from(["eq", "low_cut", "preamp", "part"])
BY = st.sampled_from(OPERATORS)


class Evening(RuleBasedStateMachine):
    """An evening with a company: what the show holds, and what the referee says it should."""

    def __init__(self):
        super().__init__()
        self.show = company_show()
        self.referee = Company(SOURCES, HOMES, GANG, SCENE, SCENE_PARTS)
        self.log = []  # (change, show before, referee before, new numbers by old ones)
        self.given = {}  # values that came to a fitting by a hand or a name, by (who, leaf)
        self.clock = 1_000.0
        # a volunteer rides one fader, whatever number its channel gets
        self.rides: tuple[Given, ...] = (Given("channel/2/fader", *RIDDEN_DB),)
        self.ridden_at = "channel/2"

    # ---- doing

    def do(self, moves, *, own=True, carry=None, to=None):
        before = self.show, copy.deepcopy(self.referee)
        self.show, change = made(self.show, moves, carry, own=own)
        flow_of(self.show)
        self.log.append((change, *before, to or {}))
        self.clock += 1.0
        self.follow(to or {})

    def follow(self, to):
        """Channels have other numbers: what is ridden goes with its own."""
        self.rides = renumbered_given(self.rides, to)
        self.ridden_at = to.get(self.ridden_at, self.ridden_at)

    def judged(self, role, moves, *, own=False, carry=None):
        """Ask whether somebody may. Raises NotAllowed."""
        after = expanded(self.show, moves, carry, own=own)
        changed = {*after.change.new, *after.stood.new}
        check_access(role, self.rides, self.show, after.show, moves, changed)

    def give(self, who, leaf, value):
        if who is not None:
            self.given.setdefault((who, leaf), set()).add(value)

    def at(self, channel, leaf):
        if leaf == "preamp/gain":
            return f"{self.show[f'{channel}/source']}/gain"
        return f"{channel}/{leaf}"

    def fitting(self, who):
        return fitting_for(self.show, *who)

    def move(self, channel, leaf, value):
        """A hand's move, with what its gang does."""
        moved = {channel: value}
        if leaf == "eq/1/gain" and channel in self.referee.gang:
            (mate,) = self.referee.gang - {channel}
            far = value - self.referee.stands(channel, leaf)
            there = self.referee.stands(mate, leaf) + far
            if abs(there) > 18.0:
                return
            moved[mate] = there
        self.do({self.at(channel, leaf): value}, own=False, carry=Carry())
        lies = {one: self.referee.lies(one, leaf) for one in moved}
        for one, there in moved.items():
            self.give(lies[one], leaf, there)
            self.referee.hand(one, leaf, there)

    # ---- what may happen

    @initialize()
    def evening_begins(self):
        """Somebody is on everywhere, and hands have moved: else most would be about nothing."""
        self.choose("cast/2")
        for channel, value in zip(sorted(SOURCES), (2.0, -3.0, 4.0), strict=True):
            self.move(channel, "eq/1/gain", value)
            self.move(channel, "low_cut/frequency", 100.0)
        self.move("channel/3", "preamp/gain", 20.0)
        # one sets the shared preamp until another comes to: she carries none of it at first
        for who, aspect in (
            (("performer/3", "part/3"), "preamp"),
            (("performer/4", "part/4"), "eq"),
        ):
            self.do({f"{self.fitting(who)}/carries_{aspect}": False}, own=False)
            self.referee.fitting(who).carries.discard(aspect)

    @rule(channel=CHANNELS, leaf=LEAVES, data=st.data())
    def hand(self, channel, leaf, data):
        self.move(channel, leaf, data.draw(st.sampled_from(VALUES[leaf])))

    @rule(to_db=st.sampled_from([float("-inf"), -40.0, -9.0, 0.0]))
    def ridden(self, to_db):
        """A volunteer moves what is theirs: it stays between its ends, or comes back to them."""
        lowest, highest = RIDDEN_DB
        now = self.referee.stands(self.ridden_at, "fader")
        there = min(max(to_db, min(lowest, now)), max(highest, now))
        moves = ride_fader(self.show, self.rides, f"{self.ridden_at}/fader", to_db)
        assert moves == {f"{self.ridden_at}/fader": there}
        self.judged("volunteer", moves, carry=Carry())
        self.do(moves, own=False, carry=Carry())
        self.referee.hand(self.ridden_at, "fader", there)

    @rule(channel=CHANNELS, leaf=LEAVES, cast=st.sampled_from(sorted(CASTS)), data=st.data())
    def not_theirs(self, channel, leaf, cast, data):
        """Nobody with a small role moves anything else, by a hand, a scene or a cast."""
        hand = {self.at(channel, leaf): data.draw(st.sampled_from(VALUES[leaf]))}
        others = [
            (choose_cast(self.show, cast, since_s=self.clock).moves, True),
            (recall(self.show, "scene/1", since_s=self.clock).moves, True),
        ]
        for role in ("volunteer", "assistant", "onlooker"):
            theirs = role == "volunteer" and (channel, leaf) == (self.ridden_at, "fader")
            for moves, own in others if theirs else [(hand, False), *others]:
                if not moves:
                    continue
                with pytest.raises(NotAllowed):
                    self.judged(role, moves, own=own)

    @rule(channel=CHANNELS, leaf=st.sampled_from(CARRIED), data=st.data())
    @precondition(lambda self: self.log)
    def late_hand(self, channel, leaf, data):
        """A hand that began some changes ago: the network was away, or it held its fader."""
        since = data.draw(st.integers(max(len(self.log) - 5, 0), len(self.log) - 1))
        value = data.draw(st.sampled_from(VALUES[leaf]))
        if any(to for *_, to in self.log[since:]):
            return  # the door refuses it: the strip has another number (tests/server/test_door)
        moves = {self.at(channel, leaf): value}
        later = {address for change, *_ in self.log[since:] for address in change.new}
        then = self.log[since][2]
        now = self.referee
        same = all(
            (a.on.get(c), a.attached.get(c)) == (b.on.get(c), b.attached.get(c))
            for a, b in [(then, now)] + [(r, now) for _, _, r, _ in self.log[since:]]
            for c in now.sources
            if c == channel or (leaf == "preamp/gain" and now.sources[c] == now.sources[channel])
        )
        try:
            check_same_person(self.show, moves, lambda at: self.since(since, at))
        except SomebodyElseOn:
            # put on twice, or off and on, is a change too: the hand is asked to look again
            assert not same or any(a.endswith(WATCHED) for a in later)
            return
        assert same or not self.concerned(since, channel, leaf)
        # nobody's who was not in charge when the hand began, unless that was nobody's
        assert then.lies(channel, leaf) in (None, now.lies(channel, leaf)) or not now.lies(
            channel, leaf
        )
        self.move(channel, leaf, value)

    def concerned(self, since, channel, leaf):
        """Whether anybody who was on a channel since then carries a leaf."""
        if leaf == "preamp/gain":
            return True
        referees = [*(r for _, _, r, _ in self.log[since:]), self.referee]
        on = {r.on[channel] for r in referees if channel in r.on}
        known = [self.referee.fittings[who] for who in on if who in self.referee.fittings]
        return leaf in CARRIED and any(ASPECT[leaf] in one.carries for one in known)

    def since(self, since, addresses):
        """Which of some addresses moved since, with the values that they had, as a log tells it."""
        found: dict[str, set] = {}
        for change, *_ in self.log[since:]:
            for address in set(change.old) & set(addresses):
                found.setdefault(address, set()).add(change.old[address])
        return found

    @rule(channel=CHANNELS, part=st.none() | PARTS)
    def put(self, channel, part):
        self.do(part_on(self.show, channel, part, since_s=self.clock))
        pins, self.referee.pins = (
            self.referee.pins,
            {p for p in self.referee.pins if p[1] != "part"},
        )
        self.referee.part_on(channel, part)
        self.referee.pins = pins

    @rule(cast=st.sampled_from(sorted(CASTS)))
    def choose(self, cast):
        self.do(choose_cast(self.show, cast, since_s=self.clock).moves)
        self.referee.choose(CASTS[cast])

    @rule(part=PARTS, performer=st.none() | st.sampled_from(sorted(NAMES)))
    def late(self, part, performer):
        self.do(late_change(self.show, part, performer, since_s=self.clock).moves)
        self.referee.late(part, performer)

    @rule()
    def recalled(self):
        self.do(recall(self.show, "scene/1", since_s=self.clock).moves)
        self.referee.recall(self.referee.scene, self.referee.scene_parts)

    @rule(what=st.sampled_from(["scene/1", *sorted(CASTS)]))
    def cued(self, what):
        """A cue from outside comes to what a hand's press does; sources it leaves to hands."""
        deed = Deed(does=of_kind(what), what=what)
        try:
            found = effect(self.show, deed, at_s=self.clock)
        except HandsOnly:
            assert recall(self.show, what).sources
            return
        self.do(found.moves)
        if what in CASTS:
            self.referee.choose(CASTS[what])
        else:
            self.referee.recall(self.referee.scene, self.referee.scene_parts)

    @rule(channel=CHANNELS, part=PARTS)
    def cued_on(self, channel, part):
        """A pin holds against a cue, though not against a hand."""
        deed = Deed(does="person", what=part, strip=channel)
        if (channel, "part") in self.referee.pins:
            with pytest.raises(CueRefused):
                effect(self.show, deed, at_s=self.clock)
            return
        self.do(effect(self.show, deed, at_s=self.clock).moves)
        self.referee.part_on(channel, part)

    @rule(channel=CHANNELS, aspect=ASPECTS, on=st.booleans())
    def pin(self, channel, aspect, on):
        self.do({f"{channel}/pinned_{aspect}": on}, own=False)
        (self.referee.pin if on else self.referee.unpin)(channel, aspect)

    @rule(channel=CHANNELS, socket=st.sampled_from([1, 2, 3]))
    def patch(self, channel, socket):
        self.do({f"{channel}/source": f"input/local/{socket}"}, own=False)
        self.referee.patch(channel, f"input/local/{socket}")

    @rule(data=st.data(), drops=st.booleans())
    @precondition(lambda self: self.referee.fittings)
    def kept(self, data, drops):
        who = data.draw(st.sampled_from(sorted(self.referee.fittings)))
        if drops:
            self.do(drop(self.show, self.fitting(who), at_s=self.clock))
            self.referee.drop(who)
        else:
            self.do(keep(self.show, self.fitting(who), by="ann", at_s=self.clock))
            self.referee.keep(who)

    def says(self, data, who):
        """The name that somebody says of whom they mean, mostly the right one."""
        return data.draw(st.sampled_from([NAMES[who[0]]] * 4 + sorted(NAMES.values())))

    @rule(channel=CHANNELS, data=st.data())
    @precondition(lambda self: self.referee.fittings)
    def captured(self, channel, data):
        who = data.draw(st.sampled_from(sorted(self.referee.fittings)))
        said = self.says(data, who)
        try:
            moves = capture(self.show, channel, self.fitting(who), said, by="ann", at_s=self.clock)
        except NotTheirName:
            assert said != NAMES[who[0]]
            return
        assert said == NAMES[who[0]]
        for leaf in CARRIED:
            self.give(who, leaf, self.referee.stands(channel, leaf))
        everything = self.referee.fitting(who).carried(values_in(self.show, channel))
        self.do(moves)
        assert values_of(self.show, self.fitting(who)).keys() >= everything.keys()
        self.referee.take_all(channel, who)

    @rule(data=st.data())
    @precondition(lambda self: self.referee.fittings)
    def copied(self, data):
        whose = st.sampled_from(sorted(self.referee.fittings))
        who, to = data.draw(whose), data.draw(whose)
        said = self.says(data, to)
        try:
            moves = copy_fitting(
                self.show, self.fitting(who), self.fitting(to), said, by="ann", at_s=self.clock
            )
        except NotTheirName:
            assert said != NAMES[to[0]]
            return
        assert said == NAMES[to[0]]
        for leaf, value in self.referee.fitting(who).now.items():
            self.give(to, leaf, value)
        self.do(moves)
        self.referee.copy(who, to)

    @rule(data=st.data())
    @precondition(lambda self: any(one.versions for one in self.referee.fittings.values()))
    def brought_back(self, data):
        known = [who for who, one in sorted(self.referee.fittings.items()) if one.versions]
        who = data.draw(st.sampled_from(known))
        number = data.draw(st.sampled_from(sorted(self.referee.fitting(who).versions)))
        self.do(bring_back(self.show, self.fitting(who), number, by="ann", at_s=self.clock))
        self.referee.bring_back(who, number)

    @rule(data=st.data(), aspect=st.sampled_from(["eq", "low_cut", "preamp"]), on=st.booleans())
    @precondition(lambda self: self.referee.fittings)
    def carries(self, data, aspect, on):
        who = data.draw(st.sampled_from(sorted(self.referee.fittings)))
        self.do(unguarded({f"{self.fitting(who)}/carries_{aspect}": on}), own=False)
        (set.add if on else set.discard)(self.referee.fitting(who).carries, aspect)

    @rule(data=st.data())
    @precondition(lambda self: len(self.referee.fittings) > 2)
    def removed(self, data):
        who = data.draw(st.sampled_from(sorted(self.referee.fittings)))
        self.do(remove_fitting(self.show, self.fitting(who)))
        self.referee.remove(who)

    @rule(by=BY, how=st.sampled_from(["next", "skip"]))
    def checked(self, by, how):
        step = check_next if how == "next" else check_skip
        self.do(step(self.show, by=by, at_s=self.clock))
        self.leave(by, "done" if how == "next" else "skipped")
        every = self.entries()
        own = self.was
        order = every if own not in every else [*every[every.index(own) + 1 :],
                                                *every[: every.index(own) + 1]]  # fmt: skip
        for channel, who in order:
            there = self.referee.fittings.get(who)
            waits = there is None or there.check == "waiting"
            if (
                waits
                and (channel, "part") not in self.referee.pins
                and not self.barred(channel, by, who)
            ):
                self.comes_on(channel, who, by)
                return

    @rule(by=BY, data=st.data(), said=st.sampled_from(["", *OPERATORS]))
    def went(self, by, data, said):
        every = self.entries()
        if not every:
            return
        channel, who = data.draw(st.sampled_from(every))
        key, there = f"{who[1]}/microphone/1", self.referee.fittings.get(who)
        taken = there is not None and there.check == "on" and there.by != by
        try:
            if said:
                moves = check_take_over(self.show, key, said, by=by, at_s=self.clock)
            else:
                moves = check_go_to(self.show, key, by=by, at_s=self.clock)
        except EntryTaken:
            pinned = (channel, "part") in self.referee.pins
            assert pinned or taken or self.barred(channel, by, who)
            return
        self.do(moves)
        if taken:
            assert said == there.by
            self.leave(by, "done")
            self.referee.fitting(who).by = by
        elif there is None or there.check != "on":
            self.leave(by, "done")
            self.comes_on(channel, who, by)

    # ---- the mic check, by the referee

    def entries(self):
        tonight = self.referee.tonight
        return [
            (channels[0], (tonight[part], part))
            for part, channels in self.referee.homes.items()
            if tonight.get(part)
        ]

    def leave(self, by, phase):
        held = self.referee.fittings
        mine = [who for who, there in held.items() if (there.check, there.by) == ("on", by)]
        self.was = None
        for who in mine:
            if phase == "done":
                self.referee.keep(who)
            self.referee.fitting(who).check, self.referee.fitting(who).by = phase, ""
            self.was = next((one for one in self.entries() if one[1] == who), None)

    def barred(self, channel, by, coming=None):
        socket = self.referee.sources[channel]
        for other, who in self.referee.on.items():
            there = self.referee.fittings[who]
            same = other == channel or self.referee.sources[other] == socket
            if there.check == "on" and there.by != by and who != coming and same:
                return True
        return False

    def comes_on(self, channel, who, by):
        self.referee.put_on(channel, who)
        self.referee.fitting(who).check, self.referee.fitting(who).by = "on", by

    # ---- undo

    @rule()
    @precondition(lambda self: self.log and self.log[-1][0])
    def undone_at_once(self):
        change, before, referee, _ = self.log[-1]
        moves, left = undoing(self.show, change)
        assert not left
        try:
            self.show = made(self.show, moves, own=True)[0]
        except EntryTaken:
            return  # a patch had brought two under check onto one preamp: one of them left
        assert self.show == before
        *_, to = self.log.pop()
        self.follow({new: old for old, new in to.items()})
        self.referee = copy.deepcopy(referee)

    @rule(order=st.permutations(sorted(SOURCES)))
    def renumbered(self, order):
        """A list, or a hand, gives channels other numbers: who is on, pins and scenes follow."""
        to = {old: new for old, new in zip(sorted(SOURCES), order, strict=True) if old != new}
        self.do(renamed(self.show, to), to=to)
        self.referee.renumber(to)

    @rule(data=st.data())
    @precondition(lambda self: any(to for *_, to in self.log))
    def numbers_undone_later(self, data):
        """They get their old numbers back, with all that happened to them since."""
        known = [at for at, (*_, to) in enumerate(self.log) if to]
        at = data.draw(st.sampled_from(known))
        _, before, _, to = self.log[at]
        after = self.log[at + 1][1] if at + 1 < len(self.log) else self.show
        since = {a for later, *_ in self.log[at + 1 :] for a in later.new}
        moves, left = undoing_renumbered(self.show, before, after, to, since)
        assert not left
        back = {new: old for old, new in to.items()}
        self.do(moves, to=back)
        self.referee.renumber(back)

    @rule(data=st.data())
    @precondition(lambda self: len(self.log) > 1)
    def undone_later(self, data):
        """Of an older change only what nobody changed since; and nobody's settings go astray."""
        plain = [at for at, (*_, to) in enumerate(self.log) if not to]
        if not plain:
            return
        at = data.draw(st.sampled_from(plain))
        change = self.log[at][0]
        since = {a for later, *_ in self.log[at + 1 :] for a in later.new}
        other = self.renumbered_after(at)
        since |= {a for a in change.new if not other.isdisjoint(strips_in(a))}
        moves, left = undoing(self.show, change, since)
        assert since.isdisjoint(moves)
        # what hangs on others settles with them: where a preamp is attached, whom the check holds
        settles = ("/attached", "/held_back", "/fitted_s", "/check", "/checker")
        kept = {a: self.show.own.get(a) for a in left if not a.endswith(settles)}
        off = {
            a for a in change.new
            if "/value/" in a and a.split("/value/")[0] not in self.show.layers.at
        }  # fmt: skip
        if all("/value/" in a for a in change.new):
            assert off <= set(left)  # a hand's move under a fitting that is off
        try:
            self.do(moves)
        except ConsoleError:
            return  # as the door does: what the show refuses now is passed by
        assert kept == {a: self.show.own.get(a) for a in kept}
        self.read_anew()

    def renumbered_after(self, at):
        """The names that mean another channel than they did after an entry of the log."""
        where = {channel: channel for channel in SOURCES}
        for *_, to in self.log[at + 1 :]:
            where = {channel: to.get(there, there) for channel, there in where.items()}
        return {channel for channel, there in where.items() if channel != there}

    def read_anew(self):
        """The referee goes on from what undo left: own values, read one by one."""
        own, one = self.show.own, self.referee
        one.own = {}
        one.sources = {c: own.get(f"{c}/source") for c in SOURCES}
        for channel in SOURCES:
            for leaf in ("eq/1/gain", "low_cut/frequency", "fader"):
                if f"{channel}/{leaf}" in own:
                    one.own[channel, leaf] = own[f"{channel}/{leaf}"]
        for socket in (f"input/local/{n}" for n in (1, 2, 3)):
            if f"{socket}/gain" in own:
                one.own[socket, "preamp/gain"] = own[f"{socket}/gain"]
        one.on, one.part, one.attached, one.back = {}, {}, {}, {}
        for channel in SOURCES:
            if part := own.get(f"{channel}/part"):
                one.part[channel] = part
            if fitting := own.get(f"{channel}/fitting"):
                one.on[channel] = (own[f"{fitting}/performer"], own[f"{fitting}/part"])
                one.attached[channel] = own.get(f"{channel}/attached")
                one.back[channel] = set(own.get(f"{channel}/held_back", "").split())
        one.pins = {(c, a) for c in SOURCES for a in ("eq", "low_cut", "preamp", "part")
                    if own.get(f"{c}/pinned_{a}")}  # fmt: skip
        one.tonight = {part: own.get(f"tonight/{part}") for part in HOMES}
        one.homes = {part: [own[f"{part}/microphone/1/channel"]] for part in HOMES}
        one.gang = {c for c in SOURCES if own.get(f"{c}/gang/1/on")}
        held = {c: json.loads(own.get(f"scene/1/holds/{c}") or '{"cells":[]}') for c in SOURCES}
        one.scene = {(c, leaf): held[c]["values"][leaf] for c in SOURCES
                     for leaf in ("eq/1/gain", "low_cut/frequency")
                     if leaf in held[c].get("values", ())}  # fmt: skip
        one.scene_parts = {c: held[c]["values"].get("part") for c in SOURCES
                           if "part" in held[c]["cells"]}  # fmt: skip
        known = [a.removesuffix("/performer") for a in own if re.fullmatch(IS_THERE, a)]
        there = [fitting for fitting in known if f"{fitting}/removed" not in own]
        one.fittings = {}
        for fitting in there:
            found = one.fitting((own[f"{fitting}/performer"], own.get(f"{fitting}/part")))
            found.every = {leaf: own[f"{fitting}/value/{leaf}"] for leaf in CARRIED
                           if f"{fitting}/value/{leaf}" in own}  # fmt: skip
            found.versions = {v.number: here(v.values) for v in versions(self.show, fitting)}
            found.carries = {aspect for aspect in ("eq", "low_cut", "preamp")
                             if own.get(f"{fitting}/carries_{aspect}", True)}  # fmt: skip
            found.check = own.get(f"{fitting}/check", "waiting")
            found.by = own.get(f"{fitting}/checker", "")

    # ---- what holds always

    @invariant()
    def what_is_found_once_still_holds(self):
        show = self.show
        assert facts(show) == facts(Show(show.desk, show.own, show.values, show.layers))

    @invariant()
    def as_the_referee_says(self):
        for channel in SOURCES:
            for leaf in VALUES:
                expected = self.referee.stands(channel, leaf)
                assert self.show[self.at(channel, leaf)] == expected, (channel, leaf)
            fitting = self.show[f"{channel}/fitting"]
            who = self.referee.on.get(channel)
            assert fitting == (self.fitting(who) if who else None)
        for (where, leaf), value in self.referee.own.items():
            at = f"{where}/{leaf.removeprefix('preamp/')}"
            assert self.show.own_value(at) == value, at
        for who, there in self.referee.fittings.items():
            fitting = self.fitting(who)
            assert here(values_of(self.show, fitting)) == there.now
            assert here(newest_version(self.show, fitting).values) == there.kept
            assert self.show[f"{fitting}/check"] == there.check
            assert self.show[f"{fitting}/checker"] == there.by

    @invariant()
    def nobody_has_what_is_not_theirs(self):
        for who in self.referee.fittings:
            fitting = self.fitting(who)
            for values in (
                values_of(self.show, fitting),
                newest_version(self.show, fitting).values,
            ):
                for leaf, value in here(values).items():
                    assert value in self.given.get((who, leaf), ()), (who, leaf, value)

    @invariant()
    def who_is_on_is_one_matter(self):
        own = self.show.own
        for channel, on in self.show.layers.on.items():
            assert own.get(f"{channel}/part") == own.get(f"{on.fitting}/part")
            assert f"{on.fitting}/removed" not in own

    @invariant()
    def one_entry_each(self):
        on = [(c, self.referee.fitting(w)) for c, w in self.referee.on.items()
              if self.referee.fitting(w).check == "on"]  # fmt: skip
        assert len({there.by for _, there in on}) == len(on)
        assert len({channel for channel, _ in on}) == len(on)

    @invariant()
    def nothing_else_leads_in(self):
        for address in ("fitting/1/value/eq/1/gain", "channel/1/fitting", "fitting/1/newest"):
            try:
                unguarded({address: None})
            except ConsoleError:
                continue
            raise AssertionError(address)


def here(values):
    """Of a fitting's values those that the referee knows."""
    return {leaf: value for leaf, value in values.items() if leaf in CARRIED}


def values_in(show, channel):
    return {leaf: show[f"{channel}/{leaf}"] for leaf in ("eq/1/gain", "low_cut/frequency")}


TestEvening = Evening.TestCase
TestEvening.settings = settings(
    max_examples=often(60), stateful_step_count=40, phases=PHASES, report_multiple_bugs=False
)


def test_cast_a_b_a_is_a():
    show = company_show()
    a = made(show, choose_cast(show, "cast/1", since_s=5.0).moves, own=True)[0]
    a = made(a, {"channel/1/eq/1/gain": 3.0, "input/local/1/gain": 20.0})[0]
    b = made(a, choose_cast(a, "cast/2", since_s=6.0).moves, own=True)[0]
    assert b["channel/1/eq/1/gain"] == 0.0
    again = made(b, choose_cast(b, "cast/1", since_s=7.0).moves, own=True)[0]
    since = {f"channel/{n}/fitted_s" for n in (1, 2, 3)}
    empty = {"fitting/3/performer", "fitting/3/part", "fitting/4/performer", "fitting/4/part"}
    differ = {x for x in {*a.own, *again.own} if a.own.get(x) != again.own.get(x)} - since
    assert {x for x in differ if not x.startswith(("fitting/3", "fitting/4"))} == set(), empty


def test_versions_come_back():
    show = company_show()
    show = made(show, choose_cast(show, "cast/1", since_s=5.0).moves, own=True)[0]
    fitting = show.text("channel/1/fitting")
    for number in range(1, 13):
        show = made(show, {"channel/1/eq/1/gain": number / 2.0})[0]
        show = made(show, keep(show, fitting, by="ann", at_s=float(number)), own=True)[0]
    back = made(show, bring_back(show, fitting, 4, by="ann", at_s=99.0), own=True)[0]
    assert back["channel/1/eq/1/gain"] == 2.0
    assert newest_version(back, fitting).how == "version 4 brought back"
    with pytest.raises(NoSuchFitting, match="version 2"):  # only ten are kept
        bring_back(show, fitting, 2, by="ann", at_s=99.0)


def test_what_sleeps_in_a_scene_names_no_part():
    show = company_show()
    woken = made(show, set_cells(show, "scene/1", {"channel/1": ["part"]}, on=False), own=True)[0]
    assert not [a for a in recall(woken, "scene/1").moves if a.startswith("channel/1/fitting")]
