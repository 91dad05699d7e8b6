"""Recalls: a referee by the rule book, storing and recalling, undo, pins, what does not fit."""

import random
from functools import lru_cache

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from ombrel.core import (
    ConsoleError,
    FeedbackLoop,
    NoSuchCell,
    NoSuchScene,
    NumberTaken,
    SourcesUnasked,
    Typed,
    UnreadableText,
    blank_show,
    carried_cells,
    cells_by_preset,
    cells_of_aspects,
    choose_cast,
    duplicate_scene,
    flow_of,
    look_ahead,
    made,
    read_scenes,
    recall,
    remove_scene,
    renumber_scene,
    set_cells,
    set_in_scenes,
    store_again,
    store_scene,
    undoing,
)
from ombrel.core.catalogue import cells_of, pins_of
from ombrel.core.scenes.order import following_scene, previous_scene
from tests.desks import SMALL, TINY
from tests.shows import SEEDS, SHOW_SEEDS, edit_of_seed, show_of_seed

from .recalling import addresses_in, expected
from .test_casting_machine import company_show

RUN = ("run/now", "run/next", "run/since", "run/gone")


def unlinked(show):
    """Without linked pairs: what one side is given, the other takes, carried or not."""
    return made(show, {a: False for a in show.values if a.endswith("/linked")})[0]


def some_cells(show, seed):
    """A part of everything in use, by strip."""
    draw = random.Random(seed)
    found = {}
    for holder, cells in cells_by_preset(show, "everything").items():
        chosen = [cell for cell in sorted(cells) if draw.random() < 0.7]
        if chosen and draw.random() < 0.8:
            found[holder] = chosen
    return found


@lru_cache(maxsize=200)
def scene_of(seed):
    """A random show in which a scene of a part of it was stored, and much was moved since."""
    show = unlinked(show_of_seed(seed, TINY))
    stored = made(show, store_scene(show, "One", some_cells(show, seed)))[0]
    for one in range(4):
        edit = edit_of_seed(stored, seed + one, most=60)
        stored = made(stored, {a: v for a, v in edit.items() if not a.endswith("/linked")})[0]
    return stored


def recalled(show, scene):
    """The show after a recall, if it is not refused."""
    try:
        return made(show, recall(show, scene).moves)
    except ConsoleError:
        assume(False)


def pin_some(show, seed):
    draw = random.Random(seed)
    strips = [f"channel/{n}" for n in range(1, 5)] + ["mix/1", "house", "group/1", "dca/1"]
    moves = {}
    for strip in draw.sample(strips, 4):
        leaf = draw.choice(["pinned", *(f"pinned_{one}" for one in pins_of(strip.split("/")[0]))])
        moves[f"{strip}/{leaf}"] = True
    if draw.random() < 0.5:
        moves["mix/2/pinned_whole"] = True
    return made(show, moves)[0]


@settings(max_examples=25)
@given(SHOW_SEEDS)
def test_a_recall_comes_to_what_the_rule_book_says_and_touches_nothing_else(seed):
    show = pin_some(scene_of(seed), seed)
    after, change = recalled(show, "scene/1")
    wanted = expected(show, "scene/1")
    for address, value in wanted.items():
        assert after[address] == value, address
    moved = {a for a in change.new if a not in RUN and not a.endswith("/kept")}
    assert moved == {a for a, value in wanted.items() if show[a] != value}


@settings(max_examples=15)
@given(SHOW_SEEDS)
def test_a_recall_undone_is_the_identity_and_what_is_looked_at_beforehand_is_what_happens(seed):
    show = scene_of(seed)
    flow = flow_of(show)
    looked = look_ahead(show, flow, "scene/1")
    after, change = recalled(show, "scene/1")
    back, left = undoing(after, change)
    assert left == ()
    assert made(after, back)[0].values == show.values
    assert {one.address for one in looked.values} == {
        a for a in change.new if a not in RUN and not a.endswith("/kept")
    }
    there = flow_of(after)
    for one in looked.heard:
        now = there.level(one.source, one.listener) if one.how != "falls_silent" else None
        assert now is None or now == pytest.approx(one.now_db)


@settings(max_examples=15)
@given(SHOW_SEEDS)
def test_storing_what_stands_and_recalling_it_changes_nothing(seed):
    show = unlinked(show_of_seed(seed, TINY))
    cells = {h: c - {"source"} for h, c in cells_by_preset(show, "everything").items()}
    stored = made(show, store_scene(show, "As it is", cells))[0]
    assert recall(stored, "scene/1").values == {}
    again = made(stored, store_again(stored, "scene/1"))[1]
    assert not again.new


@settings(max_examples=15)
@given(SHOW_SEEDS)
def test_a_cell_taken_out_sleeps_and_wakes_with_its_values(seed):
    show = scene_of(seed)
    held = carried_cells(show, "scene/1")
    draw = random.Random(seed)
    some = {h: [c for c in sorted(held[h]) if draw.random() < 0.5] for h in held}
    asleep = made(show, set_cells(show, "scene/1", some, on=False))[0]
    for holder, cells in some.items():
        assert carried_cells(asleep, "scene/1").get(holder, set()) == held[holder] - set(cells)
        values = recall(asleep, "scene/1").values
        assert not values.keys() & {a for c in cells for a in addresses_in(show.desk, holder, c)}
    moved = made(asleep, edit_of_seed(asleep, seed + 9, most=40))[0]
    awake = made(moved, set_cells(moved, "scene/1", some, on=True))[0]
    texts = {a: v for a, v in show.values.items() if "/holds/" in a}
    assert {a: v for a, v in awake.values.items() if "/holds/" in a} == texts


@settings(max_examples=15)
@given(SEEDS, st.sampled_from(["same", "onward", "chosen"]))
def test_an_update_changes_exactly_the_scenes_told(seed, scope):
    """Four scenes, the third of other values, the fourth without the cell."""
    show = blank_show(TINY)
    cells = {"channel/1": ["fader", "mute"], "mix/1": ["fader"]}
    without = {"mix/1": ["fader"]}
    for number, (fader, carried) in enumerate(
        [(-6.0, cells), (-6.0, cells), (-9.0, cells), (0.0, without)], start=1
    ):
        show = made(show, {"channel/1/fader": fader})[0]
        show = made(show, store_scene(show, f"Scene {number}", carried))[0]
    chosen = ["scene/1", "scene/3", "scene/4"]
    step = random.Random(seed).choice(["up 2", "-3", "off"])
    many = set_in_scenes(
        show, "scene/1", "channel/1", "fader", Typed(step), scope=scope, chosen=chosen
    )
    reached = {"same": [1, 2], "onward": [1, 2, 3], "chosen": [1, 3]}[scope]
    assert [one[0] for one in many.changed] == [f"scene/{n}" for n in reached]
    assert many.without == (() if scope == "same" else ("scene/4",))
    after = made(show, many.moves)[0]
    assert after["channel/1/fader"] == show["channel/1/fader"]  # the live show stays
    was = {1: -6.0, 2: -6.0, 3: -9.0}
    for number, fader in was.items():
        now = {"up 2": fader + 2.0, "-3": -3.0, "off": float("-inf")}[step]
        stands = made(after, recall(after, f"scene/{number}").moves)[0]["channel/1/fader"]
        assert stands == (now if number in reached else fader)


def test_a_run_of_four_scenes_with_all_values_listed():
    """Full storing: after any jump a scene comes out alike, and what none carries stays.

    Channel 1's fader and mute and its send into mix 1; the pan is in no scene.
    """
    cells = {"channel/1": ["fader", "mute", "send/mix/1"]}
    show = made(blank_show(TINY), {"mix/1/format": "mono"})[0]
    told = [(-10.0, False, -20.0), (-5.0, False, -20.0), (-5.0, True, -12.0), (0.0, False, -6.0)]
    for n, (fader, mute, send) in enumerate(told, start=1):
        moves = {"channel/1/fader": fader, "channel/1/mute": mute,
                 "channel/1/send/mix/1/level": send, "channel/1/pan": 0.1 * n}  # fmt: skip
        show = made(show, moves)[0]
        show = made(show, store_scene(show, f"Scene {n}", cells))[0]
    for jump in ([1, 2, 3, 4], [4, 1, 3], [3, 3, 2], [2, 4]):
        for n in jump:
            show = made(show, recall(show, f"scene/{n}").moves)[0]
            fader, mute, send = told[n - 1]
            assert show["channel/1/fader"] == fader
            assert show["channel/1/mute"] is mute
            assert show["channel/1/send/mix/1/level"] == send
            assert show["channel/1/pan"] == pytest.approx(0.4)
            assert show["run/now"] == f"scene/{n}"
            assert show["run/next"] == (f"scene/{n + 1}" if n < 4 else None)


def run_of(count):
    show = made(blank_show(TINY), {"channel/1/name": "Fiddle", "channel/1/fader": -6.0})[0]
    for n in range(1, count + 1):
        show = made(show, store_scene(show, f"Scene {n}", {"channel/1": ["fader"]}))[0]
    return show


def test_scenes_lie_in_the_order_of_their_numbers_and_one_between_takes_the_shortest():
    show = run_of(3)
    for behind, number in (("scene/1", 1.5), ("scene/1", 1.2), ("scene/3", 4.0)):
        show = made(show, store_scene(show, "New", {"channel/1": ["fader"]}, after=behind))[0]
        new = f"scene/{len(show.scenes)}"
        assert show[f"{new}/number"] == number
    assert show.scenes == ("scene/1", "scene/5", "scene/4", "scene/2", "scene/3", "scene/6")
    with pytest.raises(NumberTaken, match=r"2 is the number of Scene 2"):
        made(show, renumber_scene(show, "scene/1", "2"))
    show = made(show, {**renumber_scene(show, "scene/1", "9.125"), "scene/2/skipped": True})[0]
    assert following_scene(show, "scene/4") == "scene/3"  # 2 is passed by
    assert previous_scene(show, "scene/3") == "scene/4"
    assert following_scene(show, "scene/1") is None  # no wrap
    after, change = made(show, remove_scene(show, ["scene/4"]))
    assert "scene/4" not in after.scenes
    assert made(after, undoing(after, change)[0])[0].scenes == show.scenes


def test_scenes_are_typed_by_numbers_and_ranges():
    show = run_of(4)
    show = made(show, renumber_scene(show, "scene/3", "2.5"))[0]
    assert read_scenes(show, "2-3, 4") == ("scene/2", "scene/3", "scene/4")
    assert read_scenes(show, "1") == ("scene/1",)
    for wrong, error in (("7", NoSuchScene), ("a", UnreadableText), ("1-2-3", UnreadableText)):
        with pytest.raises(error):
            read_scenes(show, wrong)


def test_a_copy_is_alike_and_lies_behind_and_only_it_changes():
    show = run_of(2)
    show = made(show, duplicate_scene(show, "scene/1"))[0]
    assert show.scenes == ("scene/1", "scene/3", "scene/2")
    assert show["scene/3/holds/channel/1"] == show["scene/1/holds/channel/1"]
    many = set_in_scenes(
        show, "scene/3", "channel/1", "fader", Typed("0"), scope="chosen", chosen=["scene/3"]
    )
    assert list(many.moves) == ["scene/3/holds/channel/1"]


def test_an_update_stops_at_the_ends_and_leaves_off_where_it_is():
    show = run_of(1)
    show = made(show, {"channel/1/fader": 5.0})[0]
    show = made(show, store_scene(show, "Loud", {"channel/1": ["fader"]}))[0]
    show = made(show, {"channel/1/fader": float("-inf")})[0]
    show = made(show, store_scene(show, "Off", {"channel/1": ["fader"]}))[0]
    many = set_in_scenes(show, "scene/1", "channel/1", "fader", Typed("up 3"), scope="onward")
    assert many.changed == (("scene/1", -6.0, -3.0), ("scene/2", 5.0, 6.0))
    assert many.stopped == ("scene/2",)
    with pytest.raises(NoSuchCell):
        set_in_scenes(show, "scene/1", "channel/2", "fader", Typed("0"), scope="same")


def test_a_preamp_goes_to_the_source_after_the_recall_and_never_to_the_spare():
    show = made(
        blank_show(SMALL),
        {"channel/1/source": "input/local/1", "channel/1/spare": "input/local/9",
         "channel/1/on_spare": True, "input/local/1/gain": 30.0, "input/local/1/pad": True},
    )[0]  # fmt: skip
    show = made(show, store_scene(show, "Radio", {"channel/1": ["preamp"]}))[0]
    show = made(show, {"channel/1/source": "input/local/5", "input/local/1/gain": 12.0})[0]
    assert recall(show, "scene/1").values == {"input/local/5/gain": 30.0, "input/local/5/pad": True}
    show = made(show, {"channel/1/source": None})[0]
    (left,) = recall(show, "scene/1").left_out
    assert (left.holder, left.why) == ("channel/1", "its source has no preamp")


def test_a_socket_of_several_channels_is_set_for_the_lowest_and_the_others_are_told():
    show = made(
        blank_show(SMALL),
        {"channel/1/source": "input/local/1", "input/local/1/gain": 20.0},
    )[0]
    show = made(show, store_scene(show, "Both", {"channel/1": ["preamp"]}))[0]
    show = made(show, {"channel/2/source": "input/local/1", "input/local/1/gain": 40.0})[0]
    show = made(show, set_cells(show, "scene/1", {"channel/2": ["preamp"]}, on=True))[0]
    found = recall(show, "scene/1")
    assert found.values == {"input/local/1/gain": 20.0}
    assert [one.holder for one in found.left_out] == ["channel/2"]


def test_sources_are_asked_for_and_a_loop_is_refused_whole():
    show = made(
        blank_show(TINY),
        {"mix/1/format": "mono", "channel/1/source": "mix/1", "channel/1/name": "Round",
         "channel/1/fader": 0.0},
    )[0]  # fmt: skip
    show = made(show, store_scene(show, "Round", {"channel/1": ["source"]}))[0]
    show = made(show, {"channel/1/source": "input/local/1", "channel/1/send/mix/1/level": 6.0})[0]
    found = recall(show, "scene/1")
    with pytest.raises(SourcesUnasked):
        found.checked(sources=False)
    with pytest.raises(FeedbackLoop):
        made(show, found.checked(sources=True))
    looked = look_ahead(show, flow_of(show), "scene/1")
    assert looked.refused
    assert looked.values == ()


def test_a_strip_held_on_a_larger_desk_is_left_out_by_name_and_the_rest_goes():
    """As when a show moved to a smaller desk; the text is as the larger one wrote it."""
    small = made(blank_show(SMALL), {"channel/1/name": "Fiddle"})[0]
    show = made(small, store_scene(small, "All", {"channel/1": ["fader", "send/mix/2"]}))[0]
    tiny = blank_show(TINY).with_values(
        {**show.values, "scene/1/holds/channel/1":
         show["scene/1/holds/channel/1"].replace("send/mix/2", "send/mix/9")}
    )  # fmt: skip
    found = recall(tiny.with_values({"channel/1/fader": -3.0}), "scene/1")
    assert found.values == {"channel/1/fader": float("-inf")}
    assert [(one.holder, one.what) for one in found.left_out] == [("channel/1", "send/mix/9")]


def test_a_recalled_source_tells_of_phantom_power_that_does_not_suit_its_line():
    """No scene moves 48 V: it is said, for a deliberate hand."""
    show = made(
        blank_show(SMALL),
        {"line/1/place": 1.0, "line/1/name": "Kora", "line/1/socket": "input/local/1",
         "line/1/phantom": True, "channel/1/source": "input/local/1"},
    )[0]  # fmt: skip
    show = made(show, store_scene(show, "Kora", {"channel/1": ["source"]}))[0]
    show = made(show, {"channel/1/source": "input/local/2"})[0]
    assert look_ahead(show, flow_of(show), "scene/1").warns == ("Kora needs 48 V on Deck 1",)
    show = made(show, {"input/local/1/phantom": True})[0]
    assert look_ahead(show, flow_of(show), "scene/1").warns == ()


def test_what_is_warned_of_a_performer_without_themselves_a_cue_and_far_louder_ears():
    show = made(
        blank_show(SMALL),
        {"line/1/place": 1.0, "line/1/name": "Fiddle", "line/1/socket": "input/local/1",
         "line/1/performer": "Ilka", "line/2/place": 2.0, "line/2/name": "Click",
         "line/2/family": "cues", "line/2/socket": "input/local/2",
         "channel/1/source": "input/local/1", "channel/2/source": "input/local/2",
         "channel/1/name": "Fiddle", "channel/2/name": "Click", "channel/2/house/on": True,
         "mix/1/format": "mono", "mix/1/name": "Ilka", "output/local/1/source": "mix/1",
         "output/local/3/source": "house/left", "output/local/4/source": "house/right",
         "channel/1/send/mix/1/on": False, "channel/1/send/mix/1/level": -6.0,
         "channel/2/send/mix/1/level": -4.0, "channel/2/fader": -10.0},
    )[0]  # fmt: skip
    cells = {"channel/1": ["send/mix/1"], "channel/2": ["send/mix/1", "fader"]}
    show = made(show, store_scene(show, "Wrong", cells))[0]
    show = made(
        show,
        {"channel/1/send/mix/1/on": True, "channel/2/send/mix/1/level": -12.0,
         "channel/2/fader": float("-inf")},
    )[0]  # fmt: skip
    warns = look_ahead(show, flow_of(show), "scene/1").warns
    assert set(warns) == {
        "Ilka loses Fiddle, themselves",
        "Click is heard in House",
        "Click is 8.0 dB louder for Ilka",
    }


def test_all_of_a_strip_is_what_is_usual_and_what_somebody_asks_for():
    show = made(blank_show(SMALL), {"channel/1/source": "input/local/1"})[0]
    show = made(show, store_scene(show, "One", {"channel/1": ["mute", "source"]}))[0]

    def of(*aspects, on=True):
        return cells_of_aspects(show, "scene/1", "channel/1", aspects, on=on)

    assert of("all") == cells_by_preset(show, "everything")["channel/1"]
    assert of("all", "preamp") - of("all") == {"preamp"}
    assert of("preamp") == {"preamp"}
    assert of("all", on=False) == {"mute", "source"}
    with pytest.raises(NoSuchCell):
        of("all", "phantom")


@pytest.mark.parametrize("kind", ["channel", "return", "group", "mix", "matrix", "house", "dca"])
def test_no_scene_carries_what_the_rule_book_keeps_out(kind):
    leaves = {leaf for leaves in cells_of(SMALL, kind).values() for leaf in leaves}
    never = ("phantom", "on_spare", "tap", "format", "linked", "pan_mirrored", "solo", "key_tap")
    assert not [leaf for leaf in leaves if leaf.split("/")[-1] in never or "gang/" in leaf]


@pytest.mark.parametrize("way", ["cast", "recall"])
def test_what_a_hand_holds_stays_whoever_comes_on_and_is_told(way):
    """A hand on an EQ gain that the next performer's fitting would lie over."""
    show = company_show()
    show = made(show, choose_cast(show, "cast/1", since_s=1.0).moves, own=True)[0]
    show = made(show, {"channel/1/eq/1/gain": 3.0, "channel/1/eq/2/gain": 1.0})[0]
    held = {"channel/1/eq/1/gain", "input/local/1/gain", "channel/2/low_cut/frequency"}
    show = made(show, {"input/local/1/gain": 20.0})[0]
    if way == "cast":
        found = choose_cast(show, "cast/2", since_s=2.0).beside_hands(show, held)
        moves, told = found.moves, {one for one, why in found.left if "hand" in why}
    else:
        recalled = recall(show, "scene/1", hands=held)
        moves, told = recalled.moves, {x.what for x in recalled.left_out if "hand" in x.why}
    after = made(show, moves, own=True)[0]
    assert after["channel/1/fitting"] != show["channel/1/fitting"]
    for address in held:
        assert after[address] == show[address], address
    assert "channel/1/eq/1/gain" in told
    # moved on by the hand it is nobody's but the channel's own
    again = made(after, {"channel/1/eq/1/gain": 4.0})[0]
    assert again.own_value("channel/1/eq/1/gain") == 4.0
