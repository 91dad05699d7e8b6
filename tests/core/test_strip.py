"""A strip from top to bottom: its curves, its beads, who takes it where; processing in gangs."""

import math
import random
from typing import Any

import numpy as np
import pytest

from ombrel.core import (
    CATALOGUE,
    Carry,
    EditRefused,
    UnreadableText,
    Value,
    blank_show,
    copied,
    curves,
    flow_of,
    made,
    neutral,
    show_of,
    strip_path,
    why,
)
from ombrel.core.catalogue import kind_on
from ombrel.core.patching.copying import COPIED
from ombrel.core.patching.crossover import crossover_at
from ombrel.core.processing.dynamics import compressed_db
from ombrel.core.processing.filters import eq_band, low_cut, response_db
from ombrel.core.values.asked import Typed
from ombrel.demo import demo_show
from tests.desks import TINY, TOURING
from tests.shows import often

DEMO = demo_show(TOURING)


def test_off_is_flat_and_what_is_on_adds_up():
    values: dict[str, Value] = {
        "channel/1/low_cut/on": True, "channel/1/low_cut/frequency": 100.0,
        "channel/1/eq/2/gain": -6.0, "channel/1/eq/3/gain": 4.0,
    }  # fmt: skip
    show = show_of(TINY, values)
    found = curves(show, "channel/1")
    parts = [found.bands_db[band] for band in ("low_cut", "1", "2", "3", "4")]
    assert found.total_db == pytest.approx(np.sum(parts, axis=0))
    assert found.bands_db["1"] == pytest.approx([0.0] * len(found.frequencies_hz))
    off, _ = made(show, {"channel/1/eq/on": False, "channel/1/low_cut/on": False})
    flat = curves(off, "channel/1")
    assert flat.total_db == pytest.approx([0.0] * len(flat.frequencies_hz))
    assert min(flat.bands_db["2"]) == pytest.approx(-6.0, abs=0.01)  # seen, if faintly


def test_the_expected_level_stands_on_the_curves_and_the_gate_comes_before_the_compressor():
    """A line of -40 dBu, 22 dB of gain, +22 dBu full scale: -40 dBFS; the gate takes 4 dB more of

    the 5 below its threshold at 2:1, so -45 is what the compressor sees.
    """
    show = show_of(
        TINY,
        {
            "line/1/place": 1.0, "line/1/name": "Fiddle", "line/1/socket": "input/a/1",
            "line/1/level_dbu": -40.0, "input/a/1/gain": 22.0, "channel/1/source": "input/a/1",
            "channel/1/gate/threshold": -35.0, "channel/1/gate/ratio": 2.0,
            "channel/1/gate/on": True, "channel/1/compressor/make_up": 3.0,
            "channel/1/compressor/on": True,
        },
    )  # fmt: skip
    found = curves(show, "channel/1")
    assert found.gate is not None
    assert (found.gate.stands_db, found.gate.comes_db) == pytest.approx((-40.0, -45.0))
    assert found.compressor.stands_db == pytest.approx(-45.0)
    assert found.compressor.comes_db == pytest.approx(-42.0)
    off, _ = made(show, {"channel/1/compressor/on": False})
    assert curves(off, "channel/1").compressor.comes_db == pytest.approx(-45.0)
    bus = curves(show, "mix/1")
    assert (bus.gate, bus.compressor.stands_db) == (None, None)


def test_a_keyed_compressor_stands_where_its_key_does():
    show = show_of(
        TINY,
        {
            "line/1/place": 1.0, "line/1/name": "Kick", "line/1/socket": "input/a/1",
            "line/1/level_dbu": -20.0, "input/a/1/gain": 22.0, "channel/1/source": "input/a/1",
            "line/2/place": 2.0, "line/2/name": "Bass", "line/2/socket": "input/a/2",
            "line/2/level_dbu": -50.0, "input/a/2/gain": 22.0, "channel/2/source": "input/a/2",
            "channel/2/compressor/on": True, "channel/2/compressor/key": "channel/1",
            "channel/2/compressor/threshold": -30.0, "channel/2/compressor/ratio": 2.0,
            "channel/2/compressor/knee": 0.0,
        },
    )  # fmt: skip
    drawn = curves(show, "channel/2", flow_of(show)).compressor
    # -20 dBu + 22 dB - 22 dBu: 10 dB over the threshold, of which 2:1 takes five
    assert (drawn.stands_db, drawn.comes_db) == pytest.approx((-20.0, -25.0))


@pytest.mark.parametrize("first", range(0, 60, 20))
def test_lines_between_the_points_are_the_curves_wherever_one_looks(first):
    """Random strips, held against the formulas at 2 000 places: nowhere off by 0.1 dB."""
    for seed in range(first, first + often(20)):
        draw = random.Random(seed)
        strip = draw.choice(["channel/1", "mix/1", "house", "mono"])
        values: dict[str, Value] = {}
        for band in range(1, 5):
            at = f"{strip}/eq/{band}"
            values[f"{at}/kind"] = draw.choice(["bell", "bell", "low_shelf", "high_shelf"])
            values[f"{at}/frequency"] = 20.0 * 1000.0 ** draw.random()
            values[f"{at}/gain"] = draw.choice([-18.0, 18.0, draw.uniform(-18, 18)])
            values[f"{at}/q"] = draw.choice([0.3, 16.0, draw.uniform(0.3, 16)])
        values[f"{strip}/low_cut/on"] = draw.random() < 0.5
        values[f"{strip}/low_cut/frequency"] = draw.uniform(20.0, 400.0)
        values[f"{strip}/low_cut/slope"] = draw.choice(["12", "24"])
        values["mono/crossover/on"] = draw.random() < 0.5
        comp = f"{strip}/compressor"
        values |= {f"{comp}/threshold": draw.uniform(-50, 0), f"{comp}/ratio": draw.uniform(1, 20),
                   f"{comp}/knee": draw.choice([0.0, 6.0]), f"{comp}/make_up": draw.uniform(0, 18),
                   f"{comp}/blend": draw.choice([100.0, 40.0])}  # fmt: skip
        show = show_of(TINY, values)
        drawn = curves(show, strip)
        hertz = np.geomspace(20.0, 20_000.0, 2_000)
        rate = show.desk.sample_rate_hz
        true: dict[str, np.ndarray] = {}
        for number in range(1, 5):
            at = f"{strip}/eq/{number}"
            kind: Any = show[f"{at}/kind"]
            figures = [show.number(f"{at}/{leaf}") for leaf in ("frequency", "gain", "q")]
            true[str(number)] = response_db(
                eq_band(kind, figures[0], figures[1], figures[2], rate), hertz, rate
            )
        octaves = np.log2(drawn.frequencies_hz)
        for one, db in true.items():
            lines = np.interp(np.log2(hertz), octaves, drawn.bands_db[one])
            assert np.abs(lines - db).max() < 0.1, (seed, one)
        total = np.sum(list(true.values()), axis=0)
        if show.on(f"{strip}/low_cut/on"):
            slope = int(show.text(f"{strip}/low_cut/slope"))
            cut = low_cut(show.number(f"{strip}/low_cut/frequency"), slope, rate)
            total = total + response_db(cut, hertz, rate)
        if strip in ("house", "mono") and show.on("mono/crossover/on"):
            both = crossover_at(show, hertz)
            total = total + np.array(both.house_db if strip == "house" else both.mono_db)
        lines = np.interp(np.log2(hertz), octaves, drawn.total_db)
        inside = np.abs(total) < 60.0
        assert np.abs(lines - total)[inside].max(initial=0.0) < 0.1, seed
        assert len(octaves) < 1_000
        levels = np.linspace(-80.0, 0.0, 2_000)
        out = compressed_db(
            levels, threshold_db=show.number(f"{comp}/threshold"),
            ratio=show.number(f"{comp}/ratio"), knee_db=show.number(f"{comp}/knee"),
            make_up_db=show.number(f"{comp}/make_up"), blend=show.number(f"{comp}/blend") / 100.0,
        )  # fmt: skip
        static = drawn.compressor
        assert np.abs(np.interp(levels, static.in_db, static.out_db) - out).max() < 0.1, seed


def test_a_narrow_bell_is_drawn_through_its_peak():
    bell: dict[str, Value] = {
        "channel/1/eq/2/gain": 18.0, "channel/1/eq/2/q": 16.0, "channel/1/eq/2/frequency": 417.0,
    }  # fmt: skip
    assert max(curves(show_of(TINY, bell), "channel/1").total_db) == pytest.approx(18.0, abs=0.01)


def test_the_path_shows_every_stage_in_order_off_as_off_and_neutral_as_neutral():
    plain, _ = made(DEMO, neutral(DEMO, ["channel/19"], ["low_cut", "eq"]))
    show, _ = made(plain, {"channel/19/eq/3/gain": 3.0, "channel/19/compressor/on": True})
    path = strip_path(show, flow_of(show), "channel/19")
    looks = {bead.key: bead.look for bead in path.beads}
    assert list(looks) == [
        "line", "preamp", "trim", "low_cut", "insert_1", "gate", "eq", "compressor", "insert_2",
        "delay", "mute", "fader",
    ]  # fmt: skip
    assert [looks[key] for key in ("line", "trim", "low_cut", "gate", "eq", "compressor")] == [
        "on", "neutral", "off", "off", "on", "on"
    ]  # fmt: skip
    says = {bead.key: bead.says for bead in path.beads}
    assert says["eq"] == "+3.0 at 2.5 kHz"
    assert says["compressor"] == "\u221218 dB, 3:1"
    taps = {leaves.tap: leaves for leaves in path.leaves}
    assert taps["before_fader_after_mute"].names[0] == "Ears host"
    assert "Band" in taps["after_fader"].names
    for closed in ({"level": -math.inf}, {"on": False}):
        away, _ = made(show, {f"channel/19/send/mix/1/{leaf}": v for leaf, v in closed.items()})
        told = strip_path(away, flow_of(away), "channel/19").leaves
        assert "Ears host" not in {name for leaves in told for name in leaves.names}
    levels = [level for _, _, level in path.reaches]
    assert levels == sorted(levels, reverse=True)
    muted, _ = made(show, {"channel/19/mute": True})
    shut = {bead.key: bead.look for bead in strip_path(muted, flow_of(muted), "channel/19").beads}
    assert shut["mute"] == "shut"
    early, _ = made(show, {"return/1/send/mix/1/level": -6.0, "return/1/send/mix/1/tap": "input"})
    hall = strip_path(early, flow_of(early), "return/1")
    keys = {bead.key for bead in hall.beads}
    assert {leaves.behind for leaves in hall.leaves} <= keys  # below a stage that it has
    bus = strip_path(show, flow_of(show), "mix/3")
    assert [bead.key for bead in bus.beads][:3] == ["low_cut", "insert_1", "eq"]


@pytest.mark.parametrize(
    ("leaf", "text", "value"),
    [
        ("eq/2/frequency", "2k5", 2500.0), ("eq/2/frequency", "2.5k", 2500.0),
        ("eq/2/frequency", "250 Hz", 250.0), ("eq/2/frequency", "up 1 oct", 800.0),
        ("eq/2/frequency", "down 2 oct", 100.0), ("eq/2/q", "1 oct", 1.41),
        ("eq/2/gain", "+3", 3.0), ("compressor/ratio", "4:1", 4.0), ("gate/attack", "1.4 ms", 1.4),
        ("delay/ms", "3.432 m", 10.0), ("delay/ms", "48 samples", 1.0), ("delay/ms", "2.5", 2.5),
    ],
)  # fmt: skip
def test_values_are_typed_with_their_units(leaf, text, value):
    show, _ = made(blank_show(TINY), {f"channel/1/{leaf}": Typed(text)})
    assert show[f"channel/1/{leaf}"] == value


@pytest.mark.parametrize("text", ["2.5k5", "1/0 oct", "k", "2k5k", "1.2.3", "..", "-"])
def test_what_is_neither_one_number_nor_another_is_refused(text):
    for leaf in ("eq/2/frequency", "eq/2/q"):
        with pytest.raises(EditRefused, match="Cannot read"):
            made(blank_show(TINY), {f"channel/1/{leaf}": Typed(text)})


def test_an_outputs_delay_is_typed_as_a_distance_and_an_effects_as_a_note():
    at_90, _ = made(blank_show(TINY), {"show/tempo": 90.0})
    show, _ = made(at_90, {
        "output/local/1/delay_ms": Typed("3.432 m"),
        "engine/1/time": Typed("1/8 dotted"), "engine/2/note": Typed("1/4 triplet"),
    })  # fmt: skip
    # 10 ms at 20 degrees; an eighth and a half at 90 beats a minute: 60 000 / 90 * 0.75
    assert (show["output/local/1/delay_ms"], show["engine/1/time"]) == (10.0, 500.0)
    assert show["engine/2/note"] == "quarter_triplet"


def test_what_is_no_frequency_is_refused():
    for text in ("k5", "2k5k", "+1 oct", "1 oct", "up 1 dB"):
        with pytest.raises(UnreadableText):
            kind_on(TINY, "channel/1/eq/1/frequency").typed(text, 400.0, "x")


def test_gangs_carry_frequencies_in_octaves_times_by_ratio_and_return_from_the_ends():
    values: dict[str, Value] = {f"channel/{n}/gang/1/on": True for n in (1, 2)}
    values |= {f"gang/1/carries_{what}": True for what in ("eq", "gate", "low_cut", "compressor")}
    values |= {"channel/1/eq/2/frequency": 400.0, "channel/2/eq/2/frequency": 8_000.0}
    show = show_of(TINY, values)
    up, _ = made(show, {"channel/1/eq/2/frequency": 1_600.0}, Carry())
    assert up["channel/2/eq/2/frequency"] == 20_000.0
    assert up["channel/2/eq/2/frequency/kept"] == pytest.approx(32_000.0)
    back, _ = made(up, {"channel/1/eq/2/frequency": 400.0}, Carry())
    assert back["channel/2/eq/2/frequency"] == pytest.approx(8_000.0)
    slower, _ = made(show, {"channel/1/gate/release": 300.0}, Carry())
    assert slower["channel/2/gate/release"] == pytest.approx(300.0)
    shelf, _ = made(show, {"channel/1/eq/2/kind": "low_shelf"}, Carry())
    assert shelf["channel/2/eq/2/kind"] == "low_shelf"
    keyed, _ = made(show, {"channel/1/gate/key": "channel/3", "channel/1/delay/ms": 5.0}, Carry())
    assert keyed["channel/2/gate/key"] is None
    assert keyed["channel/2/delay/ms"] == 0.0
    assert not any(CATALOGUE[key].gang for key in CATALOGUE if key.endswith(("/key", "/key_tap")))


def test_settings_are_copied_aspect_by_aspect_as_far_as_a_strip_has_them_and_cleared():
    values: dict[str, Value] = {
        "channel/1/eq/2/gain": -4.0, "channel/1/eq/on": False, "channel/1/gate/on": True,
        "channel/1/compressor/ratio": 6.0, "channel/2/eq/3/gain": 5.0, "channel/1/fader": -3.0,
    }  # fmt: skip
    show = show_of(TINY, values)
    moves = copied(show, "channel/1", ["channel/2", "mix/1"], ["eq", "gate"])
    after, change = made(show, moves)
    for leaf in ("eq/2/gain", "eq/3/gain", "eq/on"):
        assert after[f"channel/2/{leaf}"] == after[f"mix/1/{leaf}"] == show[f"channel/1/{leaf}"]
    assert after["channel/2/gate/on"] is True
    assert not any("compressor" in address or "fader" in address for address in change.new)
    back, _ = made(after, neutral(after, ["channel/2"], ["eq", "gate"]))
    assert not [a for a in back.values if a.startswith("channel/2/")]
    with pytest.raises(UnreadableText):
        copied(show, "channel/1", ["channel/2"], ["source"])
    with pytest.raises(UnreadableText):
        neutral(show, ["channel/1"], ["fader"])  # nobody's fader falls to its default by a key
    whole, _ = made(show, copied(show, "channel/1", ["channel/2", "mix/1"], COPIED))
    assert whole["channel/2/fader"] == whole["mix/1/fader"] == -3.0
    assert (whole["channel/2/source"], whole["mix/1/format"]) == (None, "unused")
    with pytest.raises(UnreadableText):
        neutral(show, ["channel/1"], [])


def test_a_key_is_typed_by_the_number_of_its_strip():
    show, _ = made(blank_show(TINY), {"channel/1/gate/key": Typed("3")})
    assert show["channel/1/gate/key"] == "channel/3"
    show, _ = made(show, {"channel/1/gate/key": Typed("group 1")})
    assert show["channel/1/gate/key"] == "group/1"
    show, _ = made(show, {"channel/1/gate/key": Typed("")})
    assert show["channel/1/gate/key"] is None


def test_why_tells_what_shapes_the_signal_before_the_tap_and_the_level_leaves_it_out():
    values: dict[str, Value] = {
        "channel/1/source": "input/a/1", "channel/1/fader": 0.0, "output/local/1/source": "house",
        "channel/1/eq/2/gain": -6.0, "channel/1/low_cut/on": True, "channel/1/compressor/on": True,
        "channel/1/compressor/make_up": 4.0, "mix/1/format": "mono", "output/a/1/source": "mix/1",
        "channel/1/send/mix/1/level": 0.0, "channel/1/send/mix/1/tap": "before_eq",
    }  # fmt: skip
    show = show_of(TINY, values)
    house = why(show, "channel/1", "house")
    titles = [step.title for step in house.ways[0].steps]
    assert [one for one in titles if one in ("Low cut", "EQ", "Comp")] == ["Low cut", "EQ", "Comp"]
    ears = why(show, "channel/1", "mix/1")
    titles = [step.title for step in ears.ways[0].steps]
    assert "Low cut" in titles
    assert "EQ" not in titles
    assert ears.level_db == pytest.approx(0.0)  # before the compressor: no make-up
    # the whole of a stereo bus on one socket is (L + R) / 2: -3.01 dB of a centred channel
    assert house.level_db == pytest.approx(-3.0103 + 4.0, abs=1e-4)
