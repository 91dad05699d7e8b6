"""Shared effects: note values by formula, many sends at once, what is likely wrong with them."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import (
    UnreadableText,
    Value,
    bears_on_findings,
    edited,
    findings,
    flow_of,
    made,
    make_effect,
    send_strips,
    set_note,
    set_tempo,
    show_of,
    tapped_bpm,
)
from ombrel.core.values import NOTES, NothingLeft, note_ms
from tests.desks import TINY, TOURING

EIGHT: dict[str, Value] = {f"channel/{n}/{leaf}": value for n in range(1, 9)
                           for leaf, value in (("source", f"input/a/{n}"), ("name", f"Voice {n}"),
                                               ("fader", 0.0))}  # fmt: skip


def hall():
    """Eight voices and a hall."""
    show = show_of(TOURING, EIGHT)
    return made(show, make_effect(show, "Hall"))[0]


@given(bpm=st.floats(30.0, 300.0))
def test_note_values_follow_from_the_tempo(bpm):
    """A beat lasts 60 000/B ms, a dotted eighth 45 000/B (common practice); three triplets make two

    plain notes, a dotted one is one and a half.
    """
    assert note_ms("quarter", bpm) == pytest.approx(60_000 / bpm)
    assert note_ms("eighth_dotted", bpm) == pytest.approx(45_000 / bpm)
    for note in ("whole", "half", "quarter", "eighth", "sixteenth"):
        assert 3 * note_ms(f"{note}_triplet", bpm) == pytest.approx(2 * note_ms(note, bpm))
        assert note_ms(f"{note}_dotted", bpm) == pytest.approx(1.5 * note_ms(note, bpm))
    assert len(NOTES) == 15


@given(bpm=st.floats(40.0, 240.0), late=st.lists(st.floats(-4.0, 4.0), min_size=5, max_size=12))
def test_taps_give_their_tempo_also_when_a_hand_is_not_a_clock(bpm, late):
    gap = 60_000 / bpm
    taps = [n * gap + wrong for n, wrong in enumerate(late)]
    assert tapped_bpm(taps) == pytest.approx(bpm, rel=0.04)
    # what was tapped before a pause does not count
    assert tapped_bpm([0.0, 100.0, *(t + 60_000 for t in taps)]) == tapped_bpm(taps)


def test_taps_that_are_none_are_refused():
    for taps in ([], [5.0], [5.0, 5.0], [9.0, 5.0], [0.0, 9_000.0]):
        with pytest.raises(UnreadableText, match="two taps"):
            tapped_bpm(taps)


def test_eight_voices_are_sent_to_a_hall_behind_their_faders_in_one():
    show = hall()
    strips = [f"channel/{n}" for n in range(1, 9)]
    show, change = made(show, {**send_strips(show, strips, ["mix/1"], "-12")})
    flow = flow_of(show)
    for strip in strips:
        assert flow.level(strip, "mix/1") == pytest.approx(-12.0)
    lower = edited(show, flow, {f"{strip}/fader": -math.inf for strip in strips})
    assert all(lower.flow.level(strip, "mix/1") == -math.inf for strip in strips)
    assert not [f for f in findings(show) if f.rule == "effect_send_before_fader"]
    assert len(change.new) >= 8
    # a return into monitor mixes: as any send to a performer, ahead of the fader
    ears, _ = made(show, {"mix/2/format": "stereo", "mix/2/name": "Ears"})
    back, _ = made(ears, send_strips(ears, ["return/1"], ["mix/2"], "-14"))
    assert back["return/1/send/mix/2/tap"] == "before_fader_after_mute"
    with pytest.raises(UnreadableText, match="to mixes"):
        send_strips(show, ["mix/1"], ["mix/2"], "0")


def test_a_delay_follows_the_tempo_and_says_when_it_does_not():
    show, _ = made(hall(), {"engine/1/kind": "delay"})
    show, _ = made(show, set_note(show, "engine/1", "eighth_dotted"))
    assert show["engine/1/time"] == 375.0  # 45 000 / 120
    show, _ = made(show, set_tempo(show, 90.0))
    assert show["engine/1/time"] == 500.0
    assert not [f for f in findings(show) if f.rule == "delay_off_tempo"]
    nudged, _ = made(show, {"engine/1/time": 480.0})
    (finding,) = [f for f in findings(nudged) if f.rule == "delay_off_tempo"]
    assert finding.says == "Hall is 480 ms; the eighth dotted at 90 bpm is 500 ms."
    assert made(nudged, finding.moves)[0]["engine/1/time"] == 500.0
    free, _ = made(nudged, set_note(nudged, "engine/1", "free"))
    assert not [f for f in findings(free) if f.rule == "delay_off_tempo"]
    with pytest.raises(UnreadableText):
        set_note(show, "engine/1", "ninth")


# each wrong thing of a shared effect: what makes it, and the words that settle it
WRONG = [
    ("effect_not_wet", {"engine/1/wet": 60.0}, "Set Hall fully wet"),
    ("effect_send_before_fader",
     {"channel/1/send/mix/1/level": -12.0, "channel/1/send/mix/1/tap": "before_fader"},
     "Tap it after the fader"),
    ("monitor_send_after_fader",
     {"mix/2/format": "mono", "mix/2/name": "Wedge", "mix/2/serves": "wedge",
      "channel/1/send/mix/2/level": 0.0, "channel/1/send/mix/2/tap": "after_fader"},
     "Tap it before the fader"),
    ("return_feeds_its_own_effect", {"return/1/send/mix/1/level": -20.0}, "Take Hall out of it"),
    ("effect_half_wired", {"return/1/source": None}, ""),
]  # fmt: skip


@pytest.mark.parametrize(("rule", "moves", "remedy"), WRONG, ids=[one[0] for one in WRONG])
def test_what_is_wrong_with_an_effect_is_found_at_once_and_settled_in_one(rule, moves, remedy):
    show = hall()
    flow = flow_of(show)
    assert rule not in {finding.rule for finding in findings(show, flow)}
    wrong = edited(show, flow, moves)
    assert bears_on_findings(wrong.change.new, flow, wrong.flow)
    found = next(f for f in findings(wrong.show, wrong.flow) if f.rule == rule)
    assert found.remedy == remedy
    if remedy:
        settled, _ = made(wrong.show, found.moves)
        assert rule not in {finding.rule for finding in findings(settled)}


def test_an_engine_more_than_there_are_is_refused_by_name():
    show = show_of(TINY, {})
    for name in ("One", "Two"):
        show, _ = made(show, make_effect(show, name))
    with pytest.raises(NothingLeft, match="effect engines"):
        make_effect(show, "Three")


def test_a_note_that_lasts_longer_than_any_delay_says_so():
    """A whole note and a half at 40 beats a minute: 6 * 60 / 40 = 9 s; a delay ends at 8 s."""
    values: dict[str, Value] = {
        "mix/1/format": "mono", "mix/1/serves": "effect", "engine/1/source": "mix/1",
        "engine/1/kind": "delay", "engine/1/note": "whole_dotted", "engine/1/time": 8_000.0,
        "engine/1/name": "Long", "show/tempo": 40.0, "return/1/source": "engine/1",
    }  # fmt: skip
    (finding,) = [one for one in findings(show_of(TINY, values)) if one.rule == "delay_off_tempo"]
    assert finding.says == (
        "The whole dotted at 40 bpm lasts 9 s; Long ends at 8 s: choose a shorter note."
    )
    assert not finding.moves
    shorter = {**values, "engine/1/note": "whole", "engine/1/time": 6_000.0}
    assert not [f for f in findings(show_of(TINY, shorter)) if f.rule == "delay_off_tempo"]
