"""Outputs typed in one line, and what direct outs of returns, solo and talkback do to who hears."""

import random
import re
from dataclasses import replace

import pytest
from hypothesis import given, settings

from ombrel.core import (
    NothingLeft,
    UnreadableText,
    Value,
    WrongValue,
    flow_of,
    hear,
    made,
    patch_output,
    patch_outputs,
    show_of,
    table_heads,
    why,
)
from ombrel.core.catalogue import TAPS
from tests.desks import TOURING
from tests.shows import SEEDS, SHOW_SEEDS, show_of_seed

# as Touring 48, with direct outs of returns too
DIRECT = replace(TOURING, key="touring-direct", direct_returns=TAPS)

SHOW: dict[str, Value] = {
    "mix/9/format": "stereo", "mix/9/name": "Halle", "mix/9/serves": "effect",
    "engine/1/source": "mix/9", "return/1/source": "engine/1", "return/1/name": "Halle",
    "mix/1/format": "mono", "mix/1/name": "Ears", "channel/3/name": "Raw guitar",
    "channel/4/name": "Direct before EQ", "channel/1/source": "input/a/1",
    "channel/1/fader": 0.0, "channel/1/send/mix/9/level": 0.0,
}  # fmt: skip


def carried(text, **more):
    """{socket: (source, tap)} of what is typed."""
    show = show_of(DIRECT, SHOW | more)
    after = made(show, patch_outputs(show, text))[0]
    sockets = [s for s in after.outputs() if after[f"{s}/source"] != show[f"{s}/source"]]
    return {
        f"{s.split('/')[1]} {s.split('/')[2]}": (after[f"{s}/source"], after[f"{s}/tap"])
        for s in sockets
    }


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("1-2 direct to Tape 1, before the fader",
         {"recorder 1": ("channel/1/direct", "before_fader"),
          "recorder 2": ("channel/2/direct", "before_fader")}),
        ("1-2 to Tape 5-6 before fader, after mute",
         {"recorder 5": ("channel/1/direct", "before_fader_after_mute"),
          "recorder 6": ("channel/2/direct", "before_fader_after_mute")}),
        ("2, 1 direct outs processed to t 31",  # in the order typed
         {"recorder 31": ("channel/2/direct", "before_fader"),
          "recorder 32": ("channel/1/direct", "before_fader")}),
        ("Raw guitar raw to Deck 1", None),
        ("Raw guitar, raw to Deck 1", {"local 1": ("channel/3/direct", "input")}),
        ("Direct before EQ to Deck 1", None),  # a name that reads as a tap goes in quotes
        ('"Direct before EQ" to Deck 1 behind the fader',
         {"local 1": ("channel/4/direct", "after_fader")}),
        ("house to Deck 7", {"local 7": ("house/left", "after_fader"),
                             "local 8": ("house/right", "after_fader")}),
        ("mix Halle L to Deck 1", {"local 1": ("mix/9/left", "after_fader")}),
        ("Halle R to Deck 1 raw", {"local 1": ("return/1/right", "input")}),
        ("return Halle to Deck 3", {"local 3": ("return/1/left", "after_fader"),
                                    "local 4": ("return/1/right", "after_fader")}),
        ("return 1 mono to Deck 3", {"local 3": ("return/1", "after_fader")}),
        ("solo to Deck 15; talkback to Deck 14",
         {"local 15": ("solo/left", "after_fader"), "local 16": ("solo/right", "after_fader"),
          "local 14": ("talkback", "after_fader")}),
        ("Ears", {"local 1": ("mix/1", "after_fader")}),  # the next free
        ("Ears\noscillator", {"local 1": ("mix/1", "after_fader"),
                              "local 2": ("oscillator", "after_fader")}),
    ],
)  # fmt: skip
def test_outputs_carry_what_is_typed(text, found):
    if found is None:
        with pytest.raises(UnreadableText):
            carried(text)
    else:
        assert carried(text) == found


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("1-40 to Deck 1", "40 outputs from Deck 1 wanted, 16 left"),
        ("1 to Deck 1-2", "one output, one for each"),
        ("1 to Deck 1; 2 to Deck 1", "each output once"),
        ("channel 1 L to Deck 1", "a side of what has two"),
        ("Ears L to Deck 1", "a side of what has two"),
        ("mix 5 to Deck 1", "strips that are in use"),
        ("1, raw to Tape 1 processed", "one tap"),
        ("nobody to Deck 1", "strips such as"),
        ("mix 1, raw to Deck 1", "is no channel or return"),
        ("1 to Moon 3", "boxes: Deck"),
        (" ; ", "what goes where"),
    ],
)
def test_what_cannot_be_is_refused_with_words_and_nothing_is_half_done(text, says):
    with pytest.raises((UnreadableText, NothingLeft, WrongValue), match=re.escape(says)):
        carried(text)


@settings(max_examples=60)
@given(seed=SEEDS)
def test_nothing_typed_is_answered_but_by_moves_or_words(seed):
    draw = random.Random(seed)
    words = ["1-3", "Halle", "to", "Deck", "1", "direct", ",", ";", "raw", "before the fader"]
    words += ["house", "L", "mono", "solo", '"', "mix", "return 1", "99999", "Tape 1-", "all", "é"]
    text = " ".join(draw.choice(words) for _ in range(draw.randint(1, 9)))
    show = show_of(DIRECT, SHOW)
    try:
        moves = patch_outputs(show, text)
    except (UnreadableText, NothingLeft):
        return
    assert moves
    assert {a.rsplit("/", 1)[1] for a in moves} <= {"source", "tap"}


def test_twenty_direct_outs_are_one_edit_and_a_socket_keeps_a_tap_that_its_source_has():
    show = show_of(
        DIRECT, SHOW | {"output/recorder/2/tap": "input", "output/recorder/1/tap": "input"}
    )
    show, change = made(show, patch_outputs(show, "1-20 direct to Tape 1, before the fader"))
    assert len(change.new) == 40
    assert [show[f"output/recorder/{n}/source"] for n in (1, 20)] == [
        "channel/1/direct", "channel/20/direct",
    ]  # fmt: skip
    show, _ = made(show, {"output/recorder/3/tap": "input", "output/recorder/4/tap": "input"})
    assert patch_output(show, "output/recorder/3", "return/1/left") == {
        "output/recorder/3/source": "return/1/left"
    }
    show, _ = made(show, patch_output(show, "output/recorder/4", "house/left"))
    assert show["output/recorder/4/tap"] == "after_fader"  # a bus has no input


@pytest.mark.parametrize(("source", "gain_db"), [("return/1/left", -3.0103), ("return/1", -3.0103)])
def test_a_return_on_a_track_is_a_listener_and_hears_itself_alone(source, gain_db):
    """Of unit power, shared by two sides in phase: each has half of it, and so has their mean."""
    values = SHOW | {"output/recorder/1/source": source, "output/recorder/1/trim": -2.0,
                     "return/1/source": "input/a/3", "return/1/fader": 0.0}  # fmt: skip
    show = show_of(DIRECT, values)
    flow, at = flow_of(show), "output/recorder/1"
    rows, heads = table_heads(show, flow)
    assert "return/1" in rows
    assert [head.serves for head in heads if head.listener == at] == ["direct"]
    assert flow.level("return/1", at) == pytest.approx(gain_db - 2.0, abs=1e-4)
    assert flow.state_of("channel/1", at).name == "UNROUTED"
    typed, _ = made(show, hear(show, flow, [("return/1", at)], "-20"))
    assert flow_of(typed).level("return/1", at) == pytest.approx(-20.0)
    assert why(show, "return/1", at, flow=flow).level_db == pytest.approx(gain_db - 2.0, abs=1e-4)
    muted, _ = made(show, {"return/1/mute": True})
    reasons = why(muted, "return/1", at, flow=flow_of(muted)).reasons
    assert [one.address for one in reasons] == ["return/1/mute"]


@settings(max_examples=20)
@given(seed=SHOW_SEEDS)
def test_solo_talkback_and_oscillator_on_sockets_change_nothing_for_any_listener(seed):
    show = show_of_seed(seed)
    free = [s for s in show.outputs() if show[f"{s}/source"] is None][:3]
    inner = dict(
        zip((f"{s}/source" for s in free), ("solo/left", "talkback", "oscillator"), strict=False)
    )
    with_them, _ = made(show, inner)
    before, after = flow_of(show), flow_of(with_them)
    assert (before.level_db == after.level_db).all()
    assert (before.state == after.state).all()
    assert (before.sockets == after.sockets).all()
    assert set(TAPS) >= {with_them[f"{s}/tap"] for s in free}
