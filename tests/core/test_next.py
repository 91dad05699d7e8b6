"""What go leads to, whatever happens to the scenes meanwhile: against a referee of plain lists."""

import random

import pytest
from hypothesis import Phase, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, precondition, rule

from ombrel.core import (
    Asked,
    NotNext,
    blank_show,
    check_next_scene,
    choose_cast,
    made,
    next_told,
    numbered_anew,
    part_on,
    recall,
    remove_scene,
    renumber_scene,
    set_cells,
    store_again,
    store_scene,
    undoing,
)
from ombrel.core.scenes import number_text
from tests.desks import TINY

from .test_casting_machine import company_show

PHASES = [Phase.generate]


class Run(RuleBasedStateMachine):
    """A run of scenes that people insert, remove, number anew, skip and choose while it goes on.

    The referee keeps a list of (number, id, conditions); what is next it works out by hand.
    """

    def __init__(self):
        super().__init__()
        self.show = made(company_show(), {"channel/1/name": "One"})[0]
        self.scenes = {"scene/1": {"number": 1.0, "skipped": False, "cast": None}}
        self.now = None
        self.chosen = None
        self.cast = None
        self.log = []

    def do(self, moves):
        before = self.show
        self.show, change = made(self.show, moves, own=True)
        kept = {scene: dict(one) for scene, one in self.scenes.items()}, self.now, self.chosen
        self.log.append((change, before, kept, self.cast))

    def fits(self, scene):
        one = self.scenes[scene]
        return not one["skipped"] and one["cast"] in (None, self.cast)

    def there(self):
        return sorted(
            (one["number"], scene) for scene, one in self.scenes.items() if "removed" not in one
        )

    def found(self):
        at = self.scenes[self.now]["number"] if self.now else 0.0
        behind = (scene for number, scene in self.there() if number > at)
        return next((scene for scene in behind if self.fits(scene)), None)

    def settle(self, fitted):
        """A chosen one that goes, or stops fitting, is let go of."""
        if self.chosen and "removed" in self.scenes[self.chosen]:
            self.chosen = None
        if self.chosen and fitted and not self.fits(self.chosen):
            self.chosen = None

    def chosen_fits(self):
        return self.chosen is not None and self.fits(self.chosen)

    def any_scene(self, data):
        return data.draw(st.sampled_from([scene for _, scene in self.there()]))

    @rule(data=st.data())
    def inserted(self, data):
        after = self.any_scene(data) if self.there() else None
        moves = store_scene(self.show, "New", {"channel/1": ["fader"]}, after=after)
        self.do(moves)
        for address in moves:
            if address.endswith("/number"):
                scene = address.removesuffix("/number")
                one = self.scenes.setdefault(scene, {"skipped": False, "cast": None})
                one["number"] = self.show.number(address)
        if after:
            order = [scene for _, scene in self.there()]
            assert order[order.index(after) + 1] == f"scene/{len(self.scenes)}"

    @rule(data=st.data())
    @precondition(lambda self: len(self.there()) > 1)
    def removed(self, data):
        scene = self.any_scene(data)
        self.do(remove_scene(self.show, [scene]))
        self.scenes[scene]["removed"] = True
        self.settle(False)

    @rule(data=st.data(), anew=st.booleans())
    @precondition(lambda self: self.there())
    def renumbered(self, data, anew):
        scene = self.any_scene(data)
        moves: dict[str, Asked] = {}
        if anew:
            moves |= numbered_anew(self.show, scene)
        else:
            taken = {number for number, _ in self.there()}
            number = data.draw(st.integers(1, 60).filter(lambda n: float(n) not in taken))
            moves |= renumber_scene(self.show, scene, str(number))
        self.do(moves)
        for address in moves:
            self.scenes[address.removesuffix("/number")]["number"] = self.show.number(address)

    @rule(data=st.data(), on=st.booleans())
    @precondition(lambda self: self.there())
    def skipped(self, data, on):
        scene, fitted = self.any_scene(data), self.chosen_fits()
        self.do({f"{scene}/skipped": on})
        self.scenes[scene]["skipped"] = on
        self.settle(fitted)

    @rule(data=st.data(), cast=st.sampled_from(["cast/1", "cast/2"]), on=st.booleans())
    @precondition(lambda self: self.there())
    def for_a_cast(self, data, cast, on):
        scene, fitted = self.any_scene(data), self.chosen_fits()
        self.do({f"{scene}/cast/1": False, f"{scene}/cast/2": False} | {f"{scene}/{cast}": on})
        self.scenes[scene]["cast"] = cast if on else None
        self.settle(fitted)

    @rule(cast=st.sampled_from(["cast/1", "cast/2"]))
    def tonight(self, cast):
        fitted = self.chosen_fits()
        self.do(choose_cast(self.show, cast, since_s=1.0).moves)
        self.cast = cast
        self.settle(fitted)

    @rule()
    def go(self):
        there = self.show.text("run/next")
        if not there:
            return
        check_next_scene(self.show, there)
        self.do(recall(self.show, there).moves)
        self.now, self.chosen = there, None

    @rule(data=st.data())
    @precondition(lambda self: self.there())
    def jumped(self, data):
        scene = self.any_scene(data)
        self.do(recall(self.show, scene).moves)
        self.now, self.chosen = scene, None

    @rule(data=st.data())
    @precondition(lambda self: self.there())
    def chose(self, data):
        scene = data.draw(st.none() | st.sampled_from([scene for _, scene in self.there()]))
        self.do({"run/next": scene})
        self.chosen = None if scene in (None, self.found()) else scene

    @rule(data=st.data())
    def late_go(self, data):
        """A go that was meant for another scene: the network was away."""
        meant = data.draw(st.sampled_from(sorted(self.scenes)))
        if meant != self.show["run/next"]:
            with pytest.raises(NotNext):
                check_next_scene(self.show, meant)

    @rule()
    @precondition(lambda self: self.log and self.log[-1][0])
    def undone(self):
        change, before, kept, cast = self.log.pop()
        moves, left = undoing(self.show, change)
        assert not left
        self.show = made(self.show, moves, own=True)[0]
        assert self.show == before
        self.scenes, self.now, self.chosen = kept
        self.cast = cast

    @invariant()
    def next_is_as_worked_out(self):
        assert self.show["run/next"] == (self.chosen or self.found())
        assert self.show.on("run/chosen") == (self.chosen is not None)


# what `do` keeps for undo is the referee before the move: rules change it behind
TestRun = Run.TestCase
TestRun.settings = settings(
    max_examples=60, stateful_step_count=30, phases=PHASES, report_multiple_bugs=False
)


def run_of(*numbers):
    show = made(blank_show(TINY), {"channel/1/name": "One"})[0]
    for number in numbers:
        moves = store_scene(show, f"S{number}", {"channel/1": ["fader"]}, number=str(number))
        show = made(show, moves, own=True)[0]
    return show


def test_a_chosen_next_that_goes_is_told_and_the_one_in_order_is_next():
    show = made(run_of(1, 2, 3), recall(run_of(1, 2, 3), "scene/1").moves, own=True)[0]
    chosen = made(show, {"run/next": "scene/3"})[0]
    assert chosen["run/next"] == "scene/3"
    gone = made(chosen, remove_scene(chosen, ["scene/3"]), own=True)[0]
    assert gone["run/next"] == "scene/2"
    assert next_told(chosen, gone) == "next is 2 S2 again, in order"
    assert next_told(show, chosen) == next_told(gone, gone) == ""


def test_a_scene_right_behind_another_fits_however_often():
    """Twenty after the first, as people insert them; no number is met twice, and none ends it."""
    show = run_of(1, 2, 3)
    for turn in range(40):
        moves = store_scene(show, f"New {turn}", {"channel/1": ["fader"]}, after="scene/1")
        show = made(show, moves, own=True)[0]
        assert show.text(f"{show.scenes[1]}/name") == f"New {turn}"
    numbers = [show.number(f"{scene}/number") for scene in show.scenes]
    assert numbers == sorted(set(numbers))
    assert [show.text(f"{s}/name") for s in show.scenes][-2:] == ["S2", "S3"]
    anew = made(show, dict(numbered_anew(show, show.scenes[1])))[0]
    told = [number_text(anew.number(f"{scene}/number")) for scene in anew.scenes]
    assert told == [str(n) for n in range(1, 44)]
    assert anew.scenes == show.scenes


@pytest.mark.parametrize("seed", range(6))
def test_storing_names_the_parts_that_are_on_and_nobody_only_by_hand(seed):
    """Scenes stored before the company came take nobody off."""
    draw = random.Random(seed)
    cells = {f"channel/{n}": ["fader", "part"] for n in (1, 2, 3)}
    show = company_show()
    early = made(show, store_scene(show, "Early", cells), own=True)[0]
    scene = early.scenes[-1]
    tonight = made(early, choose_cast(early, "cast/2", since_s=1.0).moves, own=True)[0]
    on = dict(tonight.layers.at)
    assert len(on) == 3
    then = made(tonight, recall(tonight, scene).moves, own=True)[0]
    assert dict(then.layers.at) == on
    # what is on is named, and storing again without anybody names nobody
    named = made(tonight, store_scene(tonight, "Named", cells), own=True)[0]
    off = draw.choice(["channel/1", "channel/2", "channel/3"])
    gone = made(named, part_on(named, off, None, since_s=2.0), own=True)[0]
    again = made(gone, store_again(gone, gone.scenes[-1]), own=True)[0]
    assert off not in dict(recall(again, again.scenes[-1]).on)
    # a hand puts it there, and it stays when stored again
    empty = show_without(again, off)
    by_hand = made(empty, set_cells(empty, scene, {off: ["part"]}, on=True), own=True)[0]
    kept = made(by_hand, store_again(by_hand, scene), own=True)[0]
    back = made(kept, choose_cast(kept, "cast/2", since_s=3.0).moves, own=True)[0]
    assert (off, "") in recall(back, scene).on


def show_without(show, channel):
    return made(show, part_on(show, channel, None, since_s=2.0), own=True)[0]
