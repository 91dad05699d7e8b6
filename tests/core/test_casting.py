"""The company by example: a double cast over three scenes with every value worked by hand; and what

findings, Why, paper and preview say of it.
"""

import pytest

from ombrel.core import (
    CARRIED,
    EntryTaken,
    NothingLeft,
    OnOnePair,
    SomebodyElseOn,
    Typed,
    UnreadableText,
    add_cast,
    add_part,
    blank_show,
    capture_as,
    check_go_to,
    check_same_person,
    choose_cast,
    copy_fitting,
    drop,
    entries,
    findings,
    fitting_for,
    fitting_in_one_line,
    fitting_seen,
    flow_of,
    in_one_line,
    keep,
    laid_together,
    late_change,
    look_ahead,
    made,
    on_in_words,
    part_on,
    recall,
    remove_fitting,
    remove_part,
    set_cells,
    set_players,
    sheet_of,
    side_by_side,
    store_scene,
    undoing,
    why,
)
from ombrel.core.casting import vacant_parts
from ombrel.core.casting.fittings import capture, take_off
from ombrel.core.scenes.order import following_scene
from ombrel.core.words import fitting_said
from tests.desks import SMALL


def after(show, moves):
    return made(show, moves, own=True)[0]


def company():
    """A gull, double-cast, and a captain, whose radio is the stranger's later."""
    show = made(
        blank_show(SMALL),
        {f"channel/{n}/source": f"input/local/{n}" for n in (1, 2)}
        | {f"channel/{n}/name": name for n, name in ((1, "Radio 1"), (2, "Radio 2"))}
        | {"channel/1/fader": 0.0, "channel/2/fader": 0.0, "output/local/1/source": "house/left"},
    )[0]
    for name, channels, players in (
        ("Gull", ["channel/1"], "Ada, Bo"),
        ("Captain", ["channel/2"], "Cy"),
        ("Stranger", ["channel/2"], "Di"),
    ):
        part, moves = add_part(show, name, channels)
        show = after(show, moves)
        show = after(show, set_players(show, part, players))
    show = after(show, add_cast(show, "Dry")[1])
    show = after(show, add_cast(show, "Wet")[1])
    return after(show, {"cast/2/part/1": "performer/2"})


def settled(show, gain_db, eq_db, channel=1):
    """Whoever is on gets these by hand, and they are kept."""
    moves = {f"input/local/{channel}/gain": gain_db, f"channel/{channel}/eq/1/gain": eq_db}
    show = made(show, moves)[0]
    fitting = show.text(f"channel/{channel}/fitting")
    return after(show, keep(show, fitting, by="ann", at_s=1.0))


def the_evening():
    """Own: gain 10, EQ 0 on both. Ada 31 and 1.0, Bo 32 and 2.0, Cy 33 and 3.0, Di 34 and 4.0."""
    show = made(company(), {"input/local/1/gain": 10.0, "input/local/2/gain": 10.0})[0]
    show = after(show, choose_cast(show, "cast/2", since_s=1.0).moves)
    show = settled(show, 32.0, 2.0)
    show = after(show, choose_cast(show, "cast/1", since_s=2.0).moves)
    show = settled(settled(show, 31.0, 1.0), 33.0, 3.0, channel=2)
    show = after(show, part_on(show, "channel/2", "part/3", since_s=3.0))
    show = settled(show, 34.0, 4.0, channel=2)
    return after(show, part_on(show, "channel/2", "part/2", since_s=4.0))


def three_scenes(show):
    """1: the gull and the captain; 2: the stranger has the radio; 3: nobody has it. Each has an EQ

    of its own beneath: -1, -2, -3 on channel 2.
    """
    cells = {"channel/1": ["part"], "channel/2": ["part", "eq"]}
    for number, part in ((1, "part/2"), (2, "part/3"), (3, None)):
        then = after(show, {"channel/2/part": part, "channel/2/eq/1/gain": -float(number)})
        stored = after(then, store_scene(then, f"Scene {number}", cells))
        if part is None:  # storing names nobody: a hand does
            nobody = set_cells(stored, f"scene/{number}", {"channel/2": ["part"]}, on=True)
            stored = after(stored, nobody)
        show = after(show, {a: v for a, v in stored.own.items() if a.startswith("scene/")})
    return show


# channel 1: who, gain, EQ; channel 2: who, gain, EQ, own EQ beneath
BY_HAND = {
    ("cast/1", 1): ("Ada", 31.0, 1.0, "Cy", 33.0, 3.0, -1.0),
    ("cast/1", 2): ("Ada", 31.0, 1.0, "Di", 34.0, 4.0, -2.0),
    ("cast/1", 3): ("Ada", 31.0, 1.0, "", 10.0, -3.0, -3.0),
    ("cast/2", 1): ("Bo", 32.0, 2.0, "Cy", 33.0, 3.0, -1.0),
    ("cast/2", 2): ("Bo", 32.0, 2.0, "Di", 34.0, 4.0, -2.0),
    ("cast/2", 3): ("Bo", 32.0, 2.0, "", 10.0, -3.0, -3.0),
}


def stands(show):
    names = [on_in_words(show, f"channel/{n}").split(" as ")[0] for n in (1, 2)]
    one, two = (
        (show.number(f"input/local/{n}/gain"), show.number(f"channel/{n}/eq/1/gain"))
        for n in (1, 2)
    )
    return (names[0], *one, names[1], *two, show.own_value("channel/2/eq/1/gain"))


def test_a_double_cast_over_three_scenes_as_worked_by_hand():
    show = three_scenes(the_evening())
    for cast in ("cast/1", "cast/2"):
        tonight = after(show, choose_cast(show, cast, since_s=5.0).moves)
        for number in (1, 2, 3):
            tonight = after(tonight, recall(tonight, f"scene/{number}", since_s=6.0).moves)
            assert stands(tonight) == BY_HAND[cast, number]
        # and by a jump
        jumped = after(tonight, recall(tonight, "scene/2", since_s=7.0).moves)
        assert stands(jumped) == BY_HAND[cast, 2]
    assert not any("performer" in str(v) for a, v in show.own.items() if a.startswith("scene/"))


def test_what_a_recall_brings_is_told_beforehand():
    show = three_scenes(the_evening())
    show = after(show, recall(show, "scene/1").moves)
    looked = look_ahead(show, flow_of(show), "scene/2")
    assert looked.recall.on == (("channel/2", "Di as Stranger"),)
    assert in_one_line(looked).startswith("Di as Stranger comes on")
    assert looked.beneath == 1  # the own EQ, beneath Di's
    told = {one.address: (one.was, one.now) for one in looked.values}
    assert told["channel/2/eq/1/gain"] == ("3 dB", "4 dB")
    assert told["input/local/2/gain"] == ("33 dB", "34 dB")
    vacant = after(show, late_change(show, "part/3", None, since_s=1.0).moves)
    assert "Nobody plays Stranger tonight" in look_ahead(vacant, flow_of(vacant), "scene/2").warns
    assert vacant_parts(vacant) == ["part/3"]


def test_scenes_for_a_cast_or_a_performer_are_passed_by_without_them():
    show = three_scenes(the_evening())
    assert following_scene(show, "scene/1") == "scene/2"
    only = after(show, {"scene/2/cast/2": True})
    assert following_scene(only, "scene/1") == "scene/3"
    wet = after(only, choose_cast(only, "cast/2", since_s=1.0).moves)
    assert following_scene(wet, "scene/1") == "scene/2"
    for_di = after(show, {"scene/2/performer/4": True})
    assert following_scene(for_di, "scene/1") == "scene/2"
    without = after(for_di, late_change(for_di, "part/3", None, since_s=1.0).moves)
    assert following_scene(without, "scene/1") == "scene/3"


def test_a_late_change_is_one_edit_and_undone_as_one():
    show = the_evening()
    bo = late_change(show, "part/1", "performer/2", since_s=9.0)
    late, change = made(show, bo.moves, own=True)
    assert stands(late)[:3] == ("Bo", 32.0, 2.0)
    assert after(late, undoing(late, change)[0]) == show
    again = after(late, late_change(late, "part/1", "performer/1", since_s=9.0).moves)
    assert stands(again) == stands(show)


def test_names_follow_who_is_on_until_they_are_typed_or_pinned():
    show = after(company(), {"part/1/mix": "mix/1", "mix/1/format": "stereo"})
    show = after(show, choose_cast(show, "cast/1", since_s=1.0).moves)
    assert (show.text("channel/1/name"), show.text("mix/1/name")) == ("Ada", "Ada")
    assert show.own_value("channel/1/name") == "Radio 1"
    typed, change = made(show, {"channel/1/name": Typed("Gull radio")})
    wet = after(typed, choose_cast(typed, "cast/2", since_s=2.0).moves)
    assert (wet.text("channel/1/name"), wet.text("mix/1/name")) == ("Gull radio", "Bo")
    assert after(typed, undoing(typed, change)[0]) == show
    off = after(show, take_off(show, "channel/1"))
    assert off.text("channel/1/name") == "Radio 1"


def test_what_is_said_of_a_fitting_and_of_its_values():
    show = made(the_evening(), {"input/local/1/gain": 33.0})[0]
    assert fitting_said(show, "input/local/1/gain") == "Ada's fitting, +2.0 dB not kept"
    assert fitting_said(show, "channel/1/eq/1/gain") == "Ada's fitting"
    assert fitting_said(show, "channel/1/fader") == ""
    assert "Ada's fitting, +2.0 dB not kept" in str(why(show, "channel/1", "house"))
    ada, bo = (str(fitting_for(show, f"performer/{n}", "part/1")) for n in (1, 2))
    seen = fitting_seen(show, ada)
    assert (seen.name, seen.channel, seen.since_s) == ("Ada as Gull", "channel/1", 2.0)
    assert [(one.label, one.kept, one.now) for one in seen.loose] == [("Gain", "31 dB", "33 dB")]
    assert {(one.label, one.kept) for one in seen.beneath} == {("Gain", "10 dB"),
                                                             ("EQ 1: gain", "0 dB")}  # fmt: skip
    assert side_by_side(show, ada, bo) == [
        ("Gain", "33 dB", "32 dB"), ("EQ 1: gain", "1 dB", "2 dB"),
    ]  # fmt: skip
    # the channel's own low cut counts too
    cut, *_ = made(take_all_off(show), {"channel/1/low_cut/on": True})
    assert laid_together(cut, ada, bo)[0].total_db[0] < -20.0
    # a low shelf of 1 dB lifts what is well below its corner by 1 dB: the shelf's definition
    assert laid_together(show, ada, bo)[0].total_db[0] == pytest.approx(1.0, abs=0.05)
    # 2:1 from -20 on: at full scale 10 dB less comes out; where it is off, all of it
    squeezed, *_ = made(show, {"channel/1/compressor/on": True, "channel/1/compressor/ratio": 2.0,
                               "channel/1/compressor/threshold": -20.0,
                               "channel/1/compressor/knee": 0.0})  # fmt: skip
    one, other = laid_together(squeezed, ada, bo)
    assert (one.name, other.name) == ("Ada as Gull", "Bo as Gull")
    assert one.compressor[-1] == pytest.approx((0.0, -10.0))
    assert other.compressor == other.gate == ((-80.0, -80.0), (0.0, 0.0))
    back = after(show, drop(show, ada, at_s=3.0))
    assert back["input/local/1/gain"] == 31.0


def test_why_a_value_stands_otherwise_than_it_was_kept():
    show = the_evening()
    ada = show.text("channel/1/fitting")

    def whys(now):
        return {one.label: one.why for one in fitting_seen(now, ada).altered}

    assert whys(show) == {}
    assert whys(made(show, {"channel/1/eq/1/gain": 5.0})[0]) == {"EQ 1: gain": "by hand"}
    pinned = made(show, {"channel/1/pinned_eq": True})[0]
    moved = made(pinned, {"channel/1/eq/1/gain": 5.0})[0]
    assert whys(moved) == {"EQ 1: gain": "by a pin"}
    patched = made(show, {"channel/1/source": "input/local/7"})[0]
    assert patched["input/local/1/gain"] == 31.0  # a patch moves no preamp
    assert whys(patched) == {"Gain": "patched since"}
    shared = made(show, {"channel/1/source": "input/local/2"})[0]
    shared = after(shared, part_on(shared, "channel/1", "part/1", since_s=1.0))
    held = {fitting_seen(shared, shared.text(f"channel/{n}/fitting")).altered for n in (1, 2)}
    assert {one.why for some in held for one in some} == {"the preamp is shared"}
    assert shared["input/local/2/gain"] == 31.0  # of two with a gain the lower channel's


def test_the_spare_is_nobodys_and_a_pair_takes_no_fitting():
    show = after(the_evening(), {"channel/1/spare": "input/local/8"})
    on_spare = made(show, {"channel/1/on_spare": True, "input/local/8/gain": 44.0})[0]
    assert fitting_seen(on_spare, on_spare.text("channel/1/fitting")).loose == ()
    with pytest.raises(OnOnePair, match="pair"):
        made(show, {"channel/1/linked": True})
    linked = made(take_all_off(show), {"channel/1/linked": True})[0]
    with pytest.raises(OnOnePair):
        part_on(linked, "channel/1", "part/1", since_s=1.0)
    found = choose_cast(linked, "cast/1", since_s=1.0)
    assert [channel for channel, _ in found.left] == ["channel/1", "channel/2"]


def take_all_off(show):
    for channel in ("channel/1", "channel/2"):
        show = after(show, take_off(show, channel))
    return show


def test_a_part_on_two_channels_has_a_fitting_for_each_microphone():
    show = company()
    show = after(show, {"part/1/microphone/2/channel": "channel/3",
                        "part/1/microphone/2/name": "handheld",
                        "channel/3/source": "input/local/3"})  # fmt: skip
    show = after(show, choose_cast(show, "cast/1", since_s=1.0).moves)
    assert on_in_words(show, "channel/1") == "Ada as Gull, microphone 1"
    assert on_in_words(show, "channel/3") == "Ada as Gull, handheld"
    show = made(show, {"channel/3/eq/1/gain": 6.0})[0]
    assert show["channel/1/eq/1/gain"] == 0.0
    assert [one.key for one in entries(show)] == [
        "part/1/microphone/1", "part/1/microphone/2", "part/2/microphone/1", "part/3/microphone/1",
    ]  # fmt: skip


def test_what_a_fitting_carries_sleeps_and_wakes():
    show = the_evening()
    ada = show.text("channel/1/fitting")
    without = after(show, {f"{ada}/carries_eq": False})
    assert without["channel/1/eq/1/gain"] == 0.0
    own = made(without, {"channel/1/eq/1/gain": -6.0})[0]
    assert own.own_value("channel/1/eq/1/gain") == -6.0
    woken = after(own, {f"{ada}/carries_eq": True})
    assert woken["channel/1/eq/1/gain"] == 1.0
    # what a pin holds stays held when the fitting comes to carry it
    pinned = made(without, {"channel/1/pinned_eq": True})[0]
    held = after(pinned, {f"{ada}/carries_eq": True})
    assert held["channel/1/eq/1/gain"] == 0.0
    bare = after(pinned, part_on(pinned, "channel/1", "part/1", since_s=1.0))
    assert after(bare, {f"{ada}/carries_eq": True})["channel/1/eq/1/gain"] == 0.0
    fader = after(show, {f"{ada}/carries_fader": True})
    assert fader == made(fader, {"channel/1/fader": 0.0})[0]
    ridden = made(fader, {"channel/1/fader": -7.0})[0]
    assert (ridden["channel/1/fader"], ridden.own_value("channel/1/fader")) == (-7.0, 0.0)
    off = made(fader, {"channel/1/fader": float("-inf")})[0]
    again = after(off, choose_cast(off, "cast/2", since_s=3.0).moves)
    assert again["channel/1/fader"] == 0.0
    assert set(CARRIED) >= {"preamp", "eq", "fader"}


def test_capture_and_copy_go_where_they_are_said():
    show = the_evening()
    ada = show.text("channel/1/fitting")
    bo = str(fitting_for(show, "performer/2", "part/1"))
    copied = after(show, copy_fitting(show, ada, bo, "bo", by="ann", at_s=1.0))
    wet = after(copied, choose_cast(copied, "cast/2", since_s=2.0).moves)
    assert stands(wet)[:3] == ("Bo", 31.0, 1.0)
    caught = after(show, capture(show, "channel/2", bo, "Bo", by="ann", at_s=1.0))
    wet = after(caught, choose_cast(caught, "cast/2", since_s=2.0).moves)
    assert stands(wet)[:3] == ("Bo", 33.0, 3.0)
    new = after(show, capture_as(show, "channel/1", "Zoe", by="ann", at_s=1.0))
    zoe = str(fitting_for(new, "performer/5", "part/1"))
    assert fitting_seen(new, zoe).name == "Zoe as Gull"
    with pytest.raises(UnreadableText):
        capture_as(show, "channel/1", "  ", by="ann", at_s=1.0)


def test_a_place_that_was_a_fittings_is_never_anothers():
    show = the_evening()
    bo = str(fitting_for(show, "performer/2", "part/1"))
    gone = after(show, remove_fitting(show, bo))
    wet = after(gone, choose_cast(gone, "cast/2", since_s=2.0).moves)
    assert wet.text("channel/1/fitting") != bo
    assert stands(wet)[:3] == ("Bo", 10.0, 0.0)  # nothing kept: own settings, nobody's
    # nor one that was removed, and whose making was undone behind that
    first = company()
    cast, change = made(first, choose_cast(first, "cast/1", since_s=1.0).moves, own=True)
    ada = str(fitting_for(cast, "performer/1", "part/1"))
    removing = remove_fitting(cast, ada)
    without = after(cast, removing)
    undone = after(without, undoing(without, change, set(removing))[0])
    anew = after(undone, choose_cast(undone, "cast/1", since_s=3.0).moves)
    assert anew.text("channel/1/fitting") not in ("", ada)
    assert stands(anew)[0] == "Ada"
    parted = after(show, remove_part(show, "part/1"))
    part, _ = add_part(parted, "Owl", ["channel/1"])
    assert part != "part/1"  # its fittings are the gull's for good


def test_a_hand_on_a_shared_preamp_is_asked_again_when_another_comes_to_set_it():
    """Both stay on, yet what Ada's hand began would end in Cy's fitting."""
    show = made(the_evening(), {"channel/2/source": "input/local/1"})[0]
    show = after(show, part_on(show, "channel/2", "part/2", since_s=5.0))
    ada, cy = (show.text(f"channel/{n}/fitting") for n in (1, 2))
    assert show["input/local/1/gain"] == 31.0  # both have a gain: the lowest channel's

    then, change = made(show, {f"{ada}/carries_preamp": False})
    assert then["input/local/1/gain"] == 33.0

    def hand(address, *moved):
        check_same_person(
            then, [address], lambda asked: {one: {None} for one in set(asked) & set(moved)}
        )

    for moved in (change.new, [f"{cy}/check"], [f"{cy}/newest"], [f"{ada}/dropped_s"]):
        with pytest.raises(SomebodyElseOn, match="Cy as Captain"):
            hand("input/local/1/gain", *moved)
    hand("channel/1/eq/1/gain", *change.new)  # what is not shared is still Ada's


def test_the_mic_check_says_why_an_entry_cannot_come():
    show = made(the_evening(), {"channel/1/pinned_part": True})[0]
    with pytest.raises(EntryTaken, match="pinned"):
        check_go_to(show, "part/1/microphone/1", by="ann", at_s=1.0)
    on = after(show, check_go_to(show, "part/2/microphone/1", by="ann", at_s=1.0))
    with pytest.raises(EntryTaken, match=r"checked by ann.*same channel"):
        check_go_to(on, "part/3/microphone/1", by="ben", at_s=2.0)


def test_findings_and_paper_tell_of_the_company():
    show = the_evening()
    rules = {one.rule: one.says for one in findings(show)}
    assert not {"part_vacant", "pulled_both_ways", "fitting_unused"} & rules.keys()
    vacant = after(show, late_change(show, "part/1", None, since_s=1.0).moves)
    assert "Nobody plays Gull tonight" in {o.rule: o.says for o in findings(vacant)}["part_vacant"]
    other = after(show, set_players(show, "part/1", "Ada, Eve"))
    told = {o.rule: o.says for o in findings(other)}
    assert told["performer_without_fitting"] == "Eve has no settings kept as Gull."
    assert told["fitting_unused"] == "No part uses the fitting of Bo as Gull."
    shared = made(show, {"channel/1/source": "input/local/2"})[0]
    assert "different gains" in {o.rule: o.says for o in findings(shared)}["pulled_both_ways"]
    cast, radios = sheet_of(show, "cast"), sheet_of(show, "radios")
    assert cast is not None
    assert radios is not None
    assert cast.rows[0] == ("Gull", "1", "", "Ada", "Ada", "Bo", "Ada, Bo")
    assert [row[4:7] for row in radios.rows] == [
        ("Gull", "Ada", 31.0), ("Captain", "Cy", 33.0), ("Stranger", "Di", 34.0),
    ]  # fmt: skip


def test_a_company_has_bounds():
    show = blank_show(SMALL)
    with pytest.raises(UnreadableText, match="at most 4"):
        add_part(show, "Many", [f"channel/{n}" for n in range(1, 6)])
    part, moves = add_part(show, "One", [])
    show = after(show, moves)
    with pytest.raises(UnreadableText, match="at most 8"):
        set_players(show, part, ", ".join(f"P{n}" for n in range(9)))
    for number in range(20):
        show = after(show, add_cast(show, f"Cast {number}")[1])
    with pytest.raises(NothingLeft):
        add_cast(show, "One more")


def test_put_on_twice_is_once_and_off_gives_back_what_was_there():
    show = the_evening()
    on = part_on(show, "channel/1", "part/1", since_s=99.0)
    assert after(show, on) == show
    bare = after(show, take_off(show, "channel/1"))
    assert (bare["input/local/1/gain"], bare["channel/1/eq/1/gain"]) == (10.0, 0.0)
    assert stands(after(bare, part_on(bare, "channel/1", "part/1", since_s=99.0))) == stands(show)


def test_undo_leaves_whose_settings_they_are_with_who_stays_on():
    """Patched by another since, so that who is on the channel is not this undo's to take off."""
    show = company()
    chosen, change = made(show, choose_cast(show, "cast/1", since_s=1.0).moves, own=True)
    ada, cy = (chosen.text(f"channel/{n}/fitting") for n in (1, 2))
    patched, since = made(chosen, {"channel/1/source": "input/local/5"})
    moves, left = undoing(patched, change, since.new)
    back = after(patched, moves)
    assert f"{ada}/performer" in left
    assert (back["channel/1/fitting"], back[f"{ada}/performer"]) == (ada, "performer/1")
    assert (back["channel/2/fitting"], f"{cy}/performer" in back.own) == (None, False)


def test_another_microphone_is_listed():
    show = made(company(), {"line/1/place": 1.0, "line/1/socket": "input/local/1",
                            "line/1/microphone": "headset"})[0]  # fmt: skip
    show = settled(after(show, choose_cast(show, "cast/1", since_s=1.0).moves), 30.0, 1.0)
    ada = show.text("channel/1/fitting")
    assert fitting_in_one_line(fitting_seen(show, ada)) == "As kept."
    other = made(show, {"line/1/microphone": "handheld"})[0]
    assert fitting_in_one_line(fitting_seen(other, ada)) == "Kept with headset, handheld here."
