"""Cues from outside: what comes, what it does, once and no flood, and the same as by hand."""

import random
from functools import lru_cache

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import (
    ConsoleError,
    CueRefused,
    HandsOnly,
    NotNext,
    Typed,
    UnreadableText,
    add_cues,
    blank_show,
    choose_cast,
    cues,
    cues_for_scenes,
    deed_text,
    effect,
    findings,
    lift_singers,
    machine_sheet,
    made,
    read_comes,
    recall,
    remove_cues,
    remove_scene,
    renumber_scene,
    set_cue,
    sheet_of,
    store_scene,
)
from ombrel.core.casting import casts, fittings, part_on, parts
from ombrel.core.cues import Deed, Gate, check_hands_only
from ombrel.core.cues.deeds import read_deed
from ombrel.core.cues.listed import cue_for
from ombrel.core.cues.own import own_deed
from ombrel.core.jobs import singers_of
from ombrel.core.scenes import previous_scene
from ombrel.demo import demo_show
from tests.desks import SMALL, TINY, TOURING
from tests.shows import SEEDS

NOW_S = 1_000_000.0


@lru_cache(maxsize=1)
def demo():
    return demo_show(TOURING)


def after(show, deed, at_s=NOW_S, **known):
    found = effect(show, deed, at_s=at_s, **known)
    return made(show, found.moves, own=found.own)[0] if found.moves else show


# ---- what comes


@pytest.mark.parametrize(
    ("typed", "comes"),
    [
        ("  /show/go   4.50 ", "/show/go 4.5"),
        ('/go "two  words" TRUE nothing -1e3', '/go "two words" true nothing -1000'),
        (r'/go "a \"b\" \\"', r'/go "a \"b\" \\"'),
        ("Program change 5 ch 16", "program 5 on 16"),
        ("note 60", "note 60 on 1"),
        ("CC 7", "control 7 on 1"),
        ("msc go 12.5 list 2", "show control go 12.5 list 2"),
        ("GO 12", "show control go 12"),
    ],
)
def test_what_comes_has_one_spelling(typed, comes):
    assert read_comes(typed) == comes == read_comes(comes)


@pytest.mark.parametrize(
    "typed",
    ["", "go", "program 128", "program 1 on 17", "control 7 at 200", "/a/*", "/a//b", "/a b", "12",
     "/", '/a "b', "/a" * 150, "/a" + " 1" * 17],
)  # fmt: skip
def test_what_never_comes_is_refused_with_what_would(typed):
    with pytest.raises(UnreadableText):
        read_comes(typed)


# ---- the list


def every_deed(show):
    yield from (Deed(does="go"), Deed(does="back"), Deed(does="note", note="Stand by"))
    yield from (Deed(does="scene", what=one) for one in show.scenes)
    yield from (Deed(does="cast", what=one) for one in casts(show))
    yield from (Deed(does="person", what=one, strip="channel/3") for one in parts(show))
    yield from (Deed(does="person", what=one, strip="channel/3") for one in fittings(show))
    for ruler in ("mute_group/1", "mute_group/2", "dca/1", "dca/8"):
        yield from (Deed(does="mute", what=ruler, on=on) for on in (True, False))
    for one in ["", *singers_of(show, "lift/1")]:
        yield from (Deed(does="lift", what="lift/1", strip=one, on=on) for on in (True, False))


def test_what_a_cue_does_is_read_as_it_is_said():
    show = demo()
    deeds = list(every_deed(show))
    assert {one.does for one in deeds} == {
        "go", "back", "note", "scene", "cast", "person", "mute", "lift"
    }  # fmt: skip
    for deed in deeds:
        assert read_deed(show, deed_text(show, deed)) == deed


def test_all_scenes_have_their_cue_at_once_and_by_number():
    show = demo()
    show = made(show, remove_cues(show, [one.cue for one in cues(show)]))[0]
    show = made(show, add_cues(show, "/cue 4 -> go"))[0]  # it stays as it is
    show = made(show, cues_for_scenes(show))[0]
    assert len(cues(show)) == len(show.scenes) == 24
    numbered = {one.comes: one.deed for one in cues(show)}
    assert numbered.pop("/cue 4") == Deed(does="go")
    for comes, deed in numbered.items():
        assert float(comes.removeprefix("/cue ")) == show.number(f"{deed.what}/number")
    assert [one.comes for one in cues(show)][:3] == ["/cue 1", "/cue 2", "/cue 3"]
    assert made(show, cues_for_scenes(show))[0] == show
    with pytest.raises(UnreadableText, match="whole numbers"):
        cues_for_scenes(show, "program")  # 20.5 is among them


def test_lines_are_typed_and_the_one_that_cannot_be_read_is_named():
    show = demo()
    show = made(show, add_cues(show, '12.5 -> scene 4; note 60 => mute Band\n/x "y" → back'))[0]
    [one] = cue_for(show, "/cue 12.5")
    assert deed_text(show, one.deed).startswith("scene 4 ")
    assert [c.deed.does for c in cue_for(show, '/x "y"')] == ["back"]
    with pytest.raises(UnreadableText, match="pear"):
        add_cues(show, "1 -> go; 2 -> pear")
    with pytest.raises(UnreadableText, match="work by themselves"):
        add_cues(show, "/ombrel/go -> back")
    again = made(show, add_cues(show, "/cue 12.5 -> go"))[0]
    assert [c.deed.does for c in cue_for(again, "/cue 12.5")] == ["go"]
    quoted = made(show, add_cues(show, '/q "a; b" -> note: "one; two"; 8 -> go'))[0]
    assert cue_for(quoted, '/q "a; b"')[0].deed.note == "one; two"
    assert cue_for(quoted, "/cue 8")[0].deed.does == "go"
    moved = made(show, set_cue(show, one.cue, "note 61", None))[0]
    assert cue_for(moved, "/cue 12.5") == ()
    assert cue_for(moved, "note 61 on 1")[0].cue == one.cue


def test_the_most_exact_spelling_is_heard():
    show = made(blank_show(TINY), add_cues(blank_show(TINY), "cc 7 -> go; cc 7 at 0 -> back"))[0]
    assert [c.deed.does for c in cue_for(show, "control 7 at 0 on 1")] == ["back"]
    assert [c.deed.does for c in cue_for(show, "control 7 at 5 on 1")] == ["go"]
    assert cue_for(show, "control 7 at 5 on 2") == ()


# ---- what it comes to


def test_each_does_what_a_hand_would():
    show = demo()
    scene = show.scenes[6]
    assert after(show, Deed(does="scene", what=scene)) == made(
        show, recall(show, scene, since_s=NOW_S).moves, own=True)[0]  # fmt: skip
    cast = casts(show)[-1]
    assert after(show, Deed(does="cast", what=cast)) == made(
        show, choose_cast(show, cast, since_s=NOW_S).moves, own=True)[0]  # fmt: skip
    part = parts(show)[0]
    assert after(show, Deed(does="person", what=part, strip="channel/3")) == made(
        show, part_on(show, "channel/3", part, since_s=NOW_S), own=True)[0]  # fmt: skip
    singer = singers_of(show, "lift/1")[0]
    assert after(show, Deed(does="lift", what="lift/1", strip=singer)) == made(
        show, lift_singers(show, "lift/1", [singer], on=True))[0]  # fmt: skip
    assert after(show, Deed(does="mute", what="dca/2")) == made(show, {"dca/2/mute": True})[0]


def walked(show, steps):
    """Where go and back lead from the first scene on, by the order of numbers alone."""
    order = [one for one in show.scenes if not show.on(f"{one}/skipped")]
    place = -1
    for step in steps:
        place = min(max(place + (1 if step == "go" else -1), 0), len(order) - 1)
    return order[place]


@pytest.mark.parametrize("seed", range(12))
def test_go_and_back_walk_the_order(seed):
    show, draw = demo(), random.Random(seed)
    steps = ["go", *draw.choices(["go", "go", "back"], k=12)]
    now, done = show, []
    for count, step in enumerate(steps):
        try:
            now = after(now, Deed(does=step), NOW_S + count)
        except CueRefused:
            assert (step, previous_scene(now, now["run/now"])) == ("back", None)
            continue
        done.append(step)
    assert now["run/now"] == walked(show, done)


@given(st.floats(0.0, 0.5), st.booleans())
def test_two_who_mean_the_same_step_make_one(gap_s, by_name):
    """A hand goes to the next scene; a go that comes within the window is the same step."""
    show = after(demo(), Deed(does="go"), NOW_S)
    following = show["run/next"]
    gone = made(show, recall(show, following, since_s=NOW_S + 10).moves, own=True)[0]
    at_s = NOW_S + 10 + gap_s
    if by_name:
        assert after(gone, Deed(does="go", what=following), at_s) == gone
    elif gap_s < 0.2:
        assert after(gone, Deed(does="go"), at_s) == gone
    elif gap_s > 0.2001:
        assert after(gone, Deed(does="go"), at_s)["run/now"] == gone["run/next"]


def test_a_go_by_name_is_refused_where_it_is_not_next():
    show = after(demo(), Deed(does="go"))
    with pytest.raises(NotNext):
        effect(show, Deed(does="go", what=show.scenes[5]), at_s=NOW_S + 9)


def test_a_direct_recall_just_before_is_no_step():
    show = after(demo(), Deed(does="scene", what=demo().scenes[9]))
    assert after(show, Deed(does="go"), NOW_S + 0.1)["run/now"] == show["run/next"]


def test_pins_hold_and_hands_keep_what_they_have():
    show = demo()
    pinned = made(show, {"mute_group/1/pinned": True})[0]
    with pytest.raises(CueRefused, match="pinned"):
        effect(pinned, Deed(does="mute", what="mute_group/1"), at_s=NOW_S)
    with pytest.raises(CueRefused, match="a hand is on it"):
        effect(show, Deed(does="mute", what="dca/2"), at_s=NOW_S, hands={"dca/2/mute"})
    on = made(show, {"channel/3/pinned_part": True})[0]
    with pytest.raises(CueRefused, match="who is on stays"):
        effect(on, Deed(does="person", what=parts(show)[0], strip="channel/3"), at_s=NOW_S)
    scene = show.scenes[6]
    held = next(a for a in recall(show, scene).values if a.endswith("/mute"))
    found = effect(show, Deed(does="scene", what=scene), at_s=NOW_S, hands={held})
    assert held not in found.moves
    assert "under a hand" in found.says


def test_sources_and_phantom_power_take_a_hand():
    show = made(blank_show(SMALL), {"channel/1/source": "input/local/1"})[0]
    held = {"channel/1": ["source"]}
    show = made(show, store_scene(show, "One", held))[0]
    show = made(show, {"channel/1/source": "input/local/2"})[0]
    with pytest.raises(HandsOnly, match="1 source"):
        effect(show, Deed(does="scene", what=show.scenes[0]), at_s=NOW_S)
    with pytest.raises(HandsOnly, match=r"phantom power of 2 inputs"):
        check_hands_only(["input/local/1/phantom", "channel/1/fader", "input/local/2/phantom"])
    check_hands_only(["channel/1/fader", "input/local/1/gain"])


@pytest.mark.parametrize(
    "deed",
    [Deed(does="scene"), Deed(does="mute"), Deed(does="note"), Deed(does="person", what="part/1"),
     Deed(does="scene", what="dca/1"), Deed(does="cast", what="cast/20"),
     Deed(does="scene", what="scene/900")],
)  # fmt: skip
def test_what_names_nothing_is_refused(deed):
    with pytest.raises(CueRefused):
        effect(demo(), deed, at_s=NOW_S)


# ---- Ombrel's own addresses


@pytest.mark.parametrize(
    ("address", "arguments", "deed"),
    [
        ("go", (), Deed(does="go")),
        ("back", (), Deed(does="back")),
        ("mute_group", (2.0, 1.0), Deed(does="mute", what="mute_group/2")),
        ("dca", (3.0, False), Deed(does="mute", what="dca/3", on=False)),
        ("note", ("Stand  by",), Deed(does="note", note="Stand by")),
    ],
)
def test_own_addresses_need_no_list(address, arguments, deed):
    assert own_deed(demo(), f"/ombrel/{address}", arguments) == deed


def test_own_addresses_name_scenes_by_number():
    show = demo()
    fourth = Deed(does="scene", what=show.scenes[3])
    assert own_deed(show, "/ombrel/scene", (4.0,)) == fourth == own_deed(
        show, "/ombrel/scene", ("4",))  # fmt: skip
    other = made(show, renumber_scene(show, show.scenes[3], "99"))[0]
    assert own_deed(other, "/ombrel/scene", (99.0,)) == fourth
    for address, arguments in (("scene", ()), ("scene", (77.0,)), ("dca", (300.0, 1.0)),
                               ("dca", (1.0, 0.5)), ("store", (1.0,)), ("note", ("",)),
                               ("cast", ("nobody",))):  # fmt: skip
        with pytest.raises(ConsoleError):
            own_deed(show, f"/ombrel/{address}", arguments)


# ---- once, and no flood


@given(
    st.lists(st.tuples(st.sampled_from("AB"), st.sampled_from("xy"),
                       st.sampled_from([0.0, 0.01, 0.03, 0.19, 0.2, 0.21, 1.0, 1.1])),
             max_size=120),
)  # fmt: skip
def test_the_gate_takes_what_the_rules_take(came):
    """Against the rules read word by word over all that came."""
    gate, at_s, log = Gate(0.2), 0.0, []
    for sender, heard, wait_s in came:
        at_s = round(at_s + wait_s, 3)
        verdict = gate.judge(sender, heard, at_s)
        before = [t for who, _, t in log if who == sender]
        lately = sum(at_s - t < 1.0 for t in before) + 1
        same = [t for who, what, t in log if (who, what) == (sender, heard)]
        wanted = "flood" if lately > 20 else "once" if same and at_s - same[-1] < 0.2 else "take"
        assert verdict == wanted
        log.append((sender, heard, at_s))


def test_the_gate_forgets_senders_that_were_long_silent():
    gate = Gate(0.2)
    for number in range(5_000):
        gate.judge(f"sender {number}", f"{number}", number / 1_000)
    assert len(gate._came) <= 256
    assert len(gate._said) <= 1_024


# ---- beside them


def test_what_is_odd_about_cues_is_found():
    show = blank_show(SMALL)
    for name in ("One", "Two"):
        show = made(show, store_scene(show, name, {}))[0]
    show = made(show, add_cues(show, "1 -> scene 1; 2 -> scene 2; note 1 -> scene 2"))[0]
    show = made(show, {"cue/9/comes": "/cue 1", "cue/9/does": "back"})[0]
    show = made(show, {"cue/8/comes": "/never sent", "cue/7/comes": "/x", "cue/7/does": "scene"})[0]
    show = made(show, remove_scene(show, [show.scenes[0]]))[0]
    found = {}
    for one in findings(show):
        if one.rule.startswith("cue"):
            found.setdefault(one.rule, []).append(one.says)
    [twice], [alike] = found["cue_twice"], found["cues_alike"]
    assert "/cue 1" in twice
    assert "note 1 on 1" in alike
    assert len(found["cue_in_vain"]) == 3


def test_the_list_is_printed_and_a_machine_can_play_the_evening():
    show = demo()
    sheet = sheet_of(show, "outside")
    assert len(sheet.rows) == len(cues(show)) == 24
    rows = machine_sheet(show)
    assert [float(row[0]) for row in rows] == [2.0 * place for place in range(24)]
    assert [cue_for(show, row[1])[0].deed.what for row in rows] == list(show.scenes)
    bare = made(show, remove_cues(show, [one.cue for one in cues(show)]))[0]
    assert machine_sheet(bare)[3][1] == "/ombrel/scene 4"


@given(SEEDS)
def test_a_list_of_any_lines_is_read_or_refused(seed):
    draw = random.Random(seed)
    words = ["12", "/a", "->", "scene", "4", "go", ";", "note", "60", "mute", "dca", "on", "\n",
             '"', "cast", "lift", "=>", "-", ":", "20.5", "x"]  # fmt: skip
    text = " ".join(draw.choices(words, k=draw.randint(1, 12)))
    try:
        moves = add_cues(demo(), text, draw.choice(["osc", "show_control", "program"]))
    except ConsoleError:
        return
    show = made(demo(), moves)[0]
    for one in cues(show):
        assert read_comes(one.comes) == one.comes
        assert read_deed(show, deed_text(show, one.deed)).does == one.deed.does


def test_a_typed_value_is_no_way_around():
    show = made(demo(), {"cue/900/comes": Typed("anything at all")})[0]
    assert any(one.rule == "cue_in_vain" for one in findings(show))
