"""What is told in words, and ends of ranges: one small case each, where a slip would mislead."""

import pytest

from ombrel.core import (
    NothingLeft,
    RemedyMoves,
    SeveralPaths,
    UnknownAddress,
    UnreadableText,
    Value,
    blank_show,
    edited,
    fill_channels,
    find,
    findings,
    flow_of,
    hear,
    made,
    make_effect,
    read_strips,
    show_of,
    store_scene,
    why,
)
from ombrel.core.casting.parts import add_performer
from ombrel.core.catalogue import MICROPHONES, PERFORMERS, check_on_desk
from ombrel.core.paper import sheet_of
from ombrel.core.scenes import cells_by_preset
from ombrel.core.scenes.order import made_room
from ombrel.core.show import returns_on
from ombrel.core.strips.curves import bears_on_curves, curves
from ombrel.core.strips.strip_path import processing_said
from ombrel.core.together import compensation, ruled, rulers_in_use
from ombrel.demo import demo_show
from tests.desks import TINY, TOURING

LINE: dict[str, Value] = {
    "line/1/place": 1.0, "line/1/name": "Fiddle", "line/1/socket": "input/a/1",
    "line/1/level_dbu": -40.0, "channel/1/source": "input/a/1", "channel/1/name": "Fiddle",
    "channel/1/fader": 0.0, "output/local/1/source": "house/left",
    "output/local/2/source": "house/right",
}  # fmt: skip
DEMO = demo_show(TOURING)
DEMO_FLOW = flow_of(DEMO)


def reason(values):
    """Why a channel that a bus feeds has no source."""
    show = show_of(TINY, LINE | {"mix/1/name": "Ears", "channel/2/name": "Loop",
                                 "channel/2/source": "mix/1/right"} | values)  # fmt: skip
    return [one.says for one in why(show, "channel/2", "house").reasons if one.code == "no_source"]


def test_why_a_bus_brings_nothing():
    stereo: dict[str, Value] = {"mix/1/format": "stereo"}
    assert reason(stereo) == ["Loop is fed by Ears, on which nothing arrives."]
    assert reason(stereo | {"mix/1/mute": True}) == [
        "Loop is fed by Ears, which is muted, and nothing arrives at it."
    ]
    sent = stereo | {"channel/1/send/mix/1/level": 0.0, "mix/1/mute": True}
    assert reason(sent) == ["Loop is fed by Ears, which is muted."]
    # all of it on the other side than the one that feeds the channel
    assert reason(sent | {"channel/1/send/mix/1/pan": -1.0}) == [
        "Loop is fed by Ears, which is muted, and nothing arrives at it."
    ]


def details(values, listener="house"):
    show = show_of(TOURING, LINE | values)
    answer = why(show, "channel/1", listener)
    ways = [step for way in answer.ways for step in way.steps]
    return {step.title: step.detail for step in (*answer.head, *ways)}


def test_steps_say_what_stands_there():
    assert details({"input/a/1/pad": True})["Preamp"] == "0.0 dB, pad \u221220 dB, 48 V off"
    assert details({"channel/1/mute": True})["Mute"] == "Fiddle muted"
    grouped = {"group/1/format": "stereo", "group/1/name": "Band", "channel/1/group/1/on": True,
               "channel/1/house/on": False, "group/1/mute": True}  # fmt: skip
    assert details(grouped)["Band mute"] == "group 1, muted"
    assert details(grouped)["To Band"] == "after fader, centre"
    mono = grouped | {"group/1/format": "mono"}
    assert details(mono)["To Band"] == "after fader"


def test_the_cells_of_a_balance_are_levels_and_nothing_of_the_sound():
    cells = cells_by_preset(DEMO, "balance")["channel/9"]
    assert {"mute", "fader", "pan", "send/mix/1"} <= cells
    assert not {"eq", "source", "name", "preamp", "dca/1"} & cells


def test_find_names_the_band_that_a_value_is_of():
    titles = [one.title for one in find(DEMO, DEMO_FLOW, "kick eq 2 gain -3").answers]
    assert any("EQ 2 gain" in title for title in titles), titles


def test_what_is_called_nothing_like_a_word_does_not_answer_to_it():
    named = {f"{kind}/1/name": "Brass" for kind in ("channel", "dca", "mute_group", "gang", "bank")}
    show = show_of(TINY, named | {"group/1/format": "stereo", "matrix/1/format": "mono"})
    assert not find(show, flow_of(show), "zebra").answers
    assert not find(show, flow_of(show), "zebra quagga").answers


def test_who_comes_when_all_places_are_taken_is_told_how_many_were_wanted():
    named = {f"performer/{n}/name": f"Singer {n}" for n in range(1, PERFORMERS + 1)}
    full = blank_show(TINY).with_values(named)
    with pytest.raises(NothingLeft, match="1 performers wanted, 0 left"):
        add_performer(full, "One more")


def test_a_socket_that_a_box_has_not_is_refused_with_what_it_has():
    with pytest.raises(UnknownAddress, match="Stage box A has 4 inputs"):
        check_on_desk(TINY, "input/a/5/gain", 0.0)
    with pytest.raises(UnknownAddress, match="Local has 8 outputs"):
        check_on_desk(TINY, "output/local/9/trim", 0.0)


def test_a_new_effect_takes_the_first_return_and_both_sides_of_its_mix_count_as_carried():
    show, _ = made(blank_show(TINY), make_effect(blank_show(TINY), "Hall"))
    assert show["return/1/source"] == "engine/1"
    sockets = flow_of(show).sockets_of(flow_of(show).layout.column("mix/1"))
    assert {side for side, *_ in sockets} == {0, 1}


def test_the_first_return_is_told_of_its_sockets_too():
    show = show_of(TINY, {"return/1/source": "input/a/1", "return/2/source": "input/a/3"})
    assert returns_on(show) == {
        "input/a/1": [1], "input/a/2": [1], "input/a/3": [2], "input/a/4": [2],
    }  # fmt: skip


def test_curves_hang_on_their_own_strip_and_on_the_crossover_for_house_and_mono():
    assert not bears_on_curves("channel/1/fader", "house")
    assert not bears_on_curves("mono/crossover/on", "channel/1")
    assert bears_on_curves("mono/crossover/on", "house")
    assert bears_on_curves("channel/1/eq/1/gain", "channel/1")
    assert not bears_on_curves("channel/1/send/mix/1/level", "channel/1")


def test_a_compressor_behind_a_gate_that_another_opens_stands_below_by_what_the_gate_takes():
    values = LINE | {
        "input/a/1/gain": 42.0, "channel/2/source": "input/a/1", "channel/2/name": "Low",
        "channel/2/gate/on": True, "channel/2/gate/key": "channel/1",
        "channel/2/gate/key_tap": "before_fader", "channel/2/gate/range": 20.0,
        "channel/2/gate/ratio": 20.0, "channel/2/compressor/on": True,
    }  # fmt: skip
    opened = show_of(TINY, values | {"channel/2/gate/threshold": -80.0})
    shut = show_of(TINY, values | {"channel/2/gate/threshold": 0.0})
    open_db, shut_db = (
        curves(show, "channel/2", flow_of(show)).compressor.stands_db for show in (opened, shut)
    )
    assert open_db == pytest.approx(-20.0)  # -40 dBu + 42 dB against 22 dBu at full scale
    assert shut_db == pytest.approx(-40.0)


def test_kinds_are_words_before_names_where_dcas_are_no_members():
    show = show_of(TINY, {"mix/2/name": "Hall", "mix/2/format": "mono", "return/1/name": "Hall"})
    assert read_strips(show, "mix Hall", dcas=False) == ["mix/2"]
    with pytest.raises(UnreadableText):
        read_strips(show, "dca 1", dcas=False)


def test_a_socket_in_use_without_a_line_has_a_dash_on_the_patch_sheet():
    show = show_of(TOURING, LINE | {"channel/2/source": "input/a/2"})
    rows = {row[1]: row[2] for row in sheet_of(show, "patch-sheet").rows}
    assert rows == {1: "Fiddle", 2: "\u2014"}


def test_a_mix_of_a_part_with_its_last_microphone_on_a_channel_is_not_called_after_the_list():
    """Names follow who is on; tonight's list names those parts alone that have no channel."""
    of_part: dict[str, Value] = {
        "part/1/place": 1.0, "part/1/name": "Gull", "part/1/mix": "mix/1", "mix/1/format": "mono",
        "performer/1/name": "Ada", "tonight/part/1": "performer/1",
    }  # fmt: skip
    without = blank_show(TINY).with_values(of_part)
    assert without.text("mix/1/name") == "Ada"
    last: dict[str, Value] = {f"part/1/microphone/{MICROPHONES}/channel": "channel/1"}
    assert blank_show(TINY).with_values(of_part | last).text("mix/1/name") == ""


def test_levels_are_kept_though_sums_of_floats_differ_in_their_last_digits():
    tenths = {"dca/1/fader": 0.1, "dca/2/fader": 0.2, "channel/1/fader": -7.7}
    show = show_of(TINY, tenths | {"channel/1/dca/1/on": True, "dca/3/fader": 0.0})
    after = edited(show, flow_of(show), {"channel/1/dca/2/on": True}).show
    told = compensation(show, after)
    assert told.moves
    kept = edited(after, flow_of(after), told.moves)
    was, now = (ruled(one, "channel/1").level_db for one in (show, kept.show))
    assert was == pytest.approx(now, abs=1e-6)


def test_the_sheet_of_radios_says_which_scenes_put_a_part_on():
    of_part: dict[str, Value] = {
        "part/1/place": 1.0, "part/1/name": "Gull", "part/1/microphone/1/channel": "channel/1",
        "channel/1/source": "input/a/1", "performer/1/name": "Ada", "channel/1/part": "part/1",
    }  # fmt: skip
    show = blank_show(TINY).with_values(of_part)
    for name, cells in (("With", ["part", "fader"]), ("Without", ["fader"])):
        show, _ = made(show, store_scene(show, name, {"channel/1": cells}), own=True)
    (row,) = sheet_of(show, "radios").rows
    assert row[-1] == "1"


def test_scenes_make_room_for_one_behind_another_as_few_as_it_takes():
    show = blank_show(TINY)
    for number in ("1", "1.001", "1.002", "3", "4"):
        show, _ = made(show, store_scene(show, f"At {number}", {"house": ["fader"]}, number=number),
                       own=True)  # fmt: skip
    moved = made_room(show, "scene/1")
    assert list(moved) == ["scene/2/number", "scene/3/number"]
    first, second = moved.values()
    assert 1.001 < first < second < 3.0
    assert first - 1.0 == pytest.approx(2 * (3.0 - second), abs=0.01)  # evenly, with one between


def test_what_is_processed_before_a_tap():
    on: dict[str, Value] = {
        **{f"channel/1/{one}/on": True for one in ("low_cut", "gate", "compressor", "delay")},
        "channel/1/insert_1/device": "Press", "channel/1/insert_2/device": "Tape",
        "channel/1/eq/1/gain": 3.0, "channel/1/delay/ms": 2.0,
    }  # fmt: skip
    show = show_of(TINY, LINE | on)
    before = [{one.key for one in processing_said(show, "channel/1", tap)} for tap in (0, 1, 2)]
    assert before[0] == set()
    assert before[1] == {"low_cut", "insert_1", "gate"}
    assert before[2] == before[1] | {"eq", "compressor", "insert_2", "delay"}


def test_channels_that_are_filled_keep_the_names_that_they_have():
    show = show_of(TOURING, {**LINE, "channel/2/name": "Spare", "channel/1/name": ""})
    moves = fill_channels(show, ["input/a/1"], [2])
    assert "channel/2/name" not in moves
    assert fill_channels(show, ["input/a/1"], [3])["channel/3/name"] == "Fiddle"


def test_a_missing_source_is_the_first_reason_wherever_it_stands_on_the_desk():
    through: dict[str, Value] = {
        "channel/1/source": "mix/1", "channel/1/mute": True, "channel/1/fader": 0.0,
        "mix/1/format": "mono", "channel/4/send/mix/1/level": 0.0, "channel/4/name": "Guest",
        "channel/4/house/on": False, "output/local/1/source": "house/left",
    }  # fmt: skip
    reasons = why(show_of(TINY, through), "channel/4", "house").reasons
    assert [one.code for one in reasons] == ["no_source", "muted"]


def test_ways_to_a_level_are_told_with_their_sign_and_far_ones_with_how_many_more():
    twice: dict[str, Value] = {
        "group/1/format": "mono", "channel/1/group/1/on": True, "group/1/fader": -6.0,
        "channel/1/fader": -20.0,
    }  # fmt: skip
    show = show_of(TINY, LINE | twice)
    with pytest.raises(SeveralPaths) as caught:
        hear(show, flow_of(show), [("channel/1", "house")], "up 22")
    assert any("to +2.0 dB" in words for words, _ in caught.value.ways), caught.value.ways
    heard = [("Fiddle", f"Ears {n}", 7.0) for n in range(5)]
    assert str(RemedyMoves({}, heard[:4])).endswith("for Ears 3 by +7.0 dB.")
    assert str(RemedyMoves({}, heard)).endswith("for Ears 3 by +7.0 dB and 1 more.")


def test_the_trim_of_a_direct_outs_socket_is_the_last_step_of_its_way():
    direct: dict[str, Value] = {
        "output/local/8/source": "channel/1/direct",
        "output/local/8/trim": -6.0,
    }
    (way,) = why(show_of(TOURING, LINE | direct), "channel/1", "output/local/8").ways
    assert way.steps[-1].gain_db == pytest.approx(-6.0)
    assert way.level_db == pytest.approx(-6.0)
    assert [step.title for step in way.steps if step.kind == "fader"] == ["Fader"]


def test_a_shared_preamp_is_told_at_the_first_channel_of_those_who_share_it():
    show = show_of(TINY, LINE | {"channel/3/source": "input/a/1", "channel/3/name": "Twin"})
    (found,) = [one for one in findings(show) if one.rule == "shared_preamp"]
    assert (found.about, found.says) == (
        "channel/1", "Fiddle, Twin share the preamp of A 1.",
    )  # fmt: skip


@pytest.mark.parametrize("kind", ["dca", "mute_group", "gang", "promise"])
def test_the_first_of_its_kind_is_in_use_by_its_name_and_by_its_members(kind):
    named = show_of(TINY, {f"{kind}/1/name": "First"})
    joined = show_of(TINY, {f"channel/1/{kind}/1/on": True})
    for show in (named, joined):
        assert rulers_in_use(show, kind) == [f"{kind}/1"]
    assert rulers_in_use(blank_show(TINY), kind) == []
