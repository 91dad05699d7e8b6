"""What opens a gate: worked by hand at the gate's threshold, ratio and range."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    NothingLeft,
    OscillatorTaken,
    UnreadableText,
    Value,
    curves,
    flow_of,
    made,
    reinforced,
    show_of,
    why,
)
from ombrel.core.strips import keyed
from tests.desks import TINY

# a line of -40 dBu on 42 dB of gain and 22 dBu at full scale: -20 dBFS at the drum's channel
DRUM: dict[str, Value] = {
    "line/1/place": 1.0, "line/1/name": "Frame drum", "line/1/socket": "input/a/1",
    "line/1/level_dbu": -40.0, "input/a/1/gain": 42.0, "channel/1/source": "input/a/1",
    "channel/1/name": "Frame drum", "channel/1/fader": 0.0, "channel/1/mono/on": True,
}  # fmt: skip
TONE: dict[str, Value] = {
    "channel/2/source": "oscillator", "channel/2/name": "Tone", "channel/2/fader": 0.0,
    "channel/2/gate/on": True, "channel/2/gate/key": "channel/1",
    "channel/2/gate/key_tap": "after_fader", "channel/2/gate/threshold": -26.0,
    "channel/2/gate/ratio": 3.0, "channel/2/gate/range": 40.0,
}  # fmt: skip


def found(moves=()):
    show, _ = made(show_of(TINY, {**DRUM, **TONE}), dict(moves))
    return keyed(show, flow_of(show), "channel/2")


def test_behind_the_fader_the_tone_follows_it_by_the_gates_curve():
    """-20 dBFS is 6 dB over the threshold: open. 10 dB lower it is 4 under: (3-1)*4 = 8 dB less."""
    key = found()
    assert (key.dbfs, key.takes_db) == (pytest.approx(-20.0), 0.0)
    assert (key.fader_db, key.mute_db) == (pytest.approx(8.0), pytest.approx(40.0))
    assert key.says == (
        "Frame drum opens it, behind its fader, expected at \u221220 dBFS, 6 dB over the threshold:"
        " open. With Frame drum's fader 10 dB lower it falls by 8 dB; muted, by 40 dB."
    )
    lower = found({"channel/1/fader": -10.0})
    assert lower.takes_db == pytest.approx(8.0)
    assert lower.fader_db == pytest.approx(20.0)  # from 8 to 28 dB
    assert "4 dB under the threshold: 8 dB are taken away" in lower.says
    off = found({"channel/1/fader": -math.inf})
    assert (off.dbfs, off.takes_db, off.fader_db, off.mute_db) == (-math.inf, 40.0, 0.0, 0.0)


def test_ahead_of_the_fader_it_follows_neither_or_the_mute_alone():
    before = found({"channel/2/gate/key_tap": "before_fader", "channel/1/mute": True})
    assert (before.takes_db, before.fader_db, before.mute_db) == (0.0, 0.0, 0.0)
    assert before.says.endswith("It does not follow Frame drum's fader, nor its mute.")
    behind_mute = found({"channel/2/gate/key_tap": "before_fader_after_mute"})
    assert (behind_mute.fader_db, behind_mute.mute_db) == (0.0, pytest.approx(40.0))
    assert behind_mute.says.endswith("Frame drum's fader; muted, it falls by 40 dB.")


def test_a_key_by_a_group_follows_the_group_and_what_is_unknown_is_said():
    group = {"group/1/format": "mono", "group/1/name": "Drums", "channel/1/group/1/on": True,
             "channel/2/gate/key": "group/1"}  # fmt: skip
    assert found(group).dbfs == pytest.approx(-20.0)
    assert found({**group, "group/1/fader": -10.0}).dbfs == pytest.approx(-30.0)
    assert "no level of it is known" in found({"channel/1/source": "talkback"}).says
    assert found({"channel/2/gate/key": None}) is None
    assert found({"channel/2/gate/on": False}) is None


@settings(max_examples=40)
@given(
    level=st.floats(-60.0, 6.0), threshold=st.floats(-60.0, 0.0), ratio=st.floats(1.0, 20.0),
    depth=st.floats(0.0, 80.0),
)  # fmt: skip
def test_what_follows_is_what_the_curve_says_between_the_two_levels(level, threshold, ratio, depth):
    gate = "channel/2/gate"
    values = {"channel/1/fader": round(level, 1), f"{gate}/threshold": round(threshold, 1),
              f"{gate}/ratio": round(ratio, 1), f"{gate}/range": round(depth, 1)}  # fmt: skip
    key = found(values)
    stands = -20.0 + values["channel/1/fader"]
    takes = [
        min((values[f"{gate}/ratio"] - 1.0) * max(0.0, values[f"{gate}/threshold"] - at),
            values[f"{gate}/range"])
        for at in (stands, stands - 10.0)
    ]  # fmt: skip
    assert key.takes_db == pytest.approx(takes[0], abs=1e-6)
    assert key.fader_db == pytest.approx(takes[1] - takes[0], abs=1e-6)


def test_one_plan_reinforces_a_drum_and_why_says_what_opens_it():
    left = {"channel/4/send/mix/1/level": 0.0}  # on the free channel: nobody hears the tone by it
    show = show_of(TINY, {**DRUM, **left, "output/local/1/source": "mono"})
    show, _ = made(show, reinforced(show, flow_of(show), "channel/1", "50 Hz"))
    tone = "channel/4"  # the highest that is free
    assert show[f"{tone}/send/mix/1/level"] == -math.inf
    assert show.text(f"{tone}/name") == "Frame drum tone"
    assert (show[f"{tone}/source"], show["oscillator/frequency"]) == ("oscillator", 50.0)
    assert (show[f"{tone}/house/on"], show[f"{tone}/mono/on"]) == (True, True)
    key = keyed(show, flow_of(show), tone)
    assert key is not None
    assert (key.takes_db, key.fader_db, key.mute_db) == (
        0.0,
        pytest.approx(10.0),
        pytest.approx(80.0),
    )
    assert curves(show, tone, flow_of(show)).gate.stands_db == pytest.approx(-20.0)
    steps = [step for way in why(show, tone, "mono").ways for step in way.steps]
    (gate,) = [step for step in steps if step.kind == "gate"]
    assert key.says in gate.detail
    with pytest.raises(OscillatorTaken, match="Frame drum tone has the oscillator at 50 Hz"):
        reinforced(show, flow_of(show), "channel/1", "60")
    other, _ = made(show, reinforced(show, flow_of(show), "channel/1", "50", on=2))
    assert other["channel/2/source"] == "oscillator"
    with pytest.raises(UnreadableText, match="a free channel, such as 3"):
        reinforced(show, flow_of(show), "channel/1", "50", on=1)
    full, _ = made(show, {f"channel/{n}/name": "x" for n in (2, 3)})
    with pytest.raises(NothingLeft):
        reinforced(full, flow_of(full), "channel/1", "50")


def test_who_opens_it_is_whom_one_thinks_of_also_by_a_bus_and_what_a_bus_feeds_and_muted():
    by_group: dict[str, Value] = {
        "group/1/format": "mono", "group/1/name": "Drums", "channel/1/group/1/on": True,
        "channel/2/gate/key": "group/1", "output/local/1/source": "mono", "channel/2/mono/on": True,
    }  # fmt: skip
    assert "Drums opens it, behind its fader, Frame drum the loudest in it" in found(by_group).says
    fed: dict[str, Value] = {
        **by_group, "channel/3/source": "group/1", "channel/3/name": "Key", "channel/3/trim": 3.0,
        "channel/2/gate/key": "channel/3", "channel/2/gate/key_tap": "before_fader",
    }  # fmt: skip
    key = found(fed)
    assert key.dbfs == pytest.approx(-17.0)
    assert key.says.startswith("Key opens it, before its fader, Frame drum the loudest in it")
    for keyed_by in (by_group, fed):
        muted = found({**keyed_by, "channel/1/mute": True})
        assert (muted.dbfs, muted.takes_db) == (-math.inf, 40.0)
    assert (
        "nothing of it arrives (Frame drum is muted)"
        in found({**by_group, "channel/1/mute": True}).says
    )
    assert "(Drums has its fader off)" in found({**by_group, "group/1/fader": -math.inf}).says
    show, _ = made(show_of(TINY, {**DRUM, **TONE}), {**by_group, "channel/1/mute": True})
    answer = why(show, "channel/2", "mono")
    assert answer.says.endswith("; the gate of Tone takes 40 dB of it away now")
    assert "gate" not in why(show_of(TINY, {**DRUM, **TONE, **by_group}), "channel/2", "mono").says
