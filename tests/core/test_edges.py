"""Where a rule ends: the last channel and engine, one too many in a sentence, a socket without a

preamp, a value that is just not shown.
"""

import pytest

from ombrel.core import (
    GangJumps,
    NothingLeft,
    RemedyMoves,
    Renumbered,
    Value,
    WrongValue,
    differences,
    duplicate_channel,
    findings,
    flow_of,
    made,
    set_tempo,
    show_of,
    why,
)
from ombrel.core.casting import casts
from ombrel.core.catalogue import kind_on
from ombrel.core.catalogue.desk import CASTS
from ombrel.core.strips.effects import off_tempo
from tests.desks import TINY, TOURING

from .test_casting import the_evening

LAST = TINY.channels


def test_a_copy_takes_the_last_channel_where_only_that_is_free_and_none_where_none_is():
    full = {f"channel/{n}/name": f"C{n}" for n in range(1, LAST)}
    show = show_of(TINY, full)
    after, change = made(show, duplicate_channel(show, 1))
    assert after.channels()[-1] == LAST
    assert any(address.startswith(f"channel/{LAST}/") for address in change.new)
    with pytest.raises(NothingLeft):
        duplicate_channel(after, 1)


def said_and_more(text, names):
    """How many of some names a sentence says, and how many more it tells of."""
    said = sum(name in text for name in names)
    _, _, rest = text.partition(" and ")
    more = next((int(word) for word in rest.split() if word.isdigit()), 0)
    return said, more


@pytest.mark.parametrize("many", [1, 3, 4, 5, 9])
def test_who_moves_is_told_by_name_or_counted_and_nobody_twice(many):
    names = [f"Strip{chr(65 + n)}" for n in range(many)]
    jumps = GangJumps({}, [(name, -8.0) for name in names], "Kick", "Toms")
    assert sum(said_and_more(str(jumps), names)) == many
    remedy = RemedyMoves({}, [(name, "House", 9.0) for name in names])
    assert sum(said_and_more(str(remedy), names)) == many
    assert sum(name in str(Renumbered(names)) for name in names) == min(many, 3)


def test_a_preamp_is_shared_only_where_there_is_one_and_two_take_it():
    taps = {"output/local/1/source": "house/left", "output/local/2/source": "house/right"}
    two = {"channel/1/source": "input/a/1", "channel/2/source": "input/a/1", **taps}
    rules = [one.rule for one in findings(show_of(TOURING, two))]
    assert rules.count("shared_preamp") == 1
    alone = show_of(TOURING, {"channel/1/source": "input/a/1", **taps})
    assert "shared_preamp" not in [one.rule for one in findings(alone)]
    player = {
        "channel/1/source": "input/recorder/1",
        "channel/2/source": "input/recorder/1",
        **taps,
    }
    assert "shared_preamp" not in [one.rule for one in findings(show_of(TOURING, player))]


def test_the_last_engine_is_held_to_the_tempo_too():
    last = f"engine/{TOURING.effect_engines}"
    show = show_of(TOURING, {"mix/1/format": "mono", "mix/1/serves": "effect",
                             f"{last}/source": "mix/1",
                             f"{last}/kind": "delay", f"{last}/note": "quarter",
                             f"{last}/time": 500.0})  # fmt: skip
    assert off_tempo(show) == []
    moves = set_tempo(show, 100.0)
    assert moves[f"{last}/time"] == 600.0


def test_values_closer_than_is_shown_are_told_apart_and_others_are_not_told_longer():
    show = show_of(TINY, {"channel/1/fader": -3.0})
    for level, told in ((-3.001, "\u22123.001 dB"), (-4.123456, "\u22124.12 dB")):
        moved, _ = made(show, {"channel/1/fader": level})
        (one,) = differences(show, moved)
        assert (one.was, one.now) == ("\u22123 dB", told)


def test_a_q_is_typed_in_octaves_and_nothing_else_is():
    q = kind_on(TINY, "channel/1/eq/1/q")
    assert q.typed("1 oct", 1.0, "channel/1/eq/1/q") == pytest.approx(1.4142, abs=0.02)
    assert q.typed("2", 1.0, "channel/1/eq/1/q") == 2.0


def test_a_return_reaches_both_sides_and_its_way_is_its_level():
    show = show_of(TOURING, {
        "return/1/source": "input/a/1", "return/1/house/on": True, "return/1/fader": -4.0,
        "output/local/1/source": "house/left", "output/local/2/source": "house/right",
    })  # fmt: skip
    flow = flow_of(show)
    assert flow.level("return/1", "house") == pytest.approx(-4.0)
    (way,) = why(show, "return/1", "house").ways
    assert way.level_db == pytest.approx(-4.0)


def test_the_last_cast_that_can_be_is_one():
    show = show_of(TINY, {f"cast/{CASTS}/name": "Last"})
    assert casts(show) == [f"cast/{CASTS}"]


def test_a_gang_of_gains_on_one_preamp_is_in_vain_and_on_two_it_is_not():
    gang: dict[str, Value] = {
            "gang/1/name": "Gains", "gang/1/carries_fader": False, "gang/1/carries_mute": False,
            "channel/1/gang/1/on": True, "channel/2/gang/1/on": True,
            **{f"gang/1/carries_{what}": False for what in
               ("pan", "trim", "sends", "low_cut", "gate", "eq", "compressor")},
            "gang/1/carries_gain": True, "channel/1/source": "input/a/1"}  # fmt: skip
    for other, in_vain in (("input/a/1", True), ("input/a/2", False)):
        show = show_of(TOURING, {**gang, "channel/2/source": other})
        rules = [one.rule for one in findings(show)]
        assert ("gang_in_vain" in rules) is in_vain, other


def test_a_performer_whose_settings_go_by_the_name_keeps_one():
    show = the_evening()
    bound = show.text("channel/1/fitting") and next(
        address for address in show.own if address.endswith("/name") and show.own[address] == "Ada"
    )
    with pytest.raises(WrongValue):
        made(show, {bound: ""})
    assert made(show, {bound: "Adah"})[0].text(bound) == "Adah"


def test_a_gain_that_is_offered_is_told_with_its_sign():
    show = show_of(TOURING, {
        "line/1/place": 1.0, "line/1/name": "Kick", "line/1/socket": "input/a/1",
        "line/1/level_dbu": 0.0, "channel/1/source": "input/a/1", "input/a/1/gain": 60.0,
    })  # fmt: skip
    found = [one for one in findings(show) if one.moves.get("input/a/1/gain") is not None]
    assert found
    for one in found:
        told = one.moves["input/a/1/gain"]
        assert isinstance(told, float)
        assert f"{abs(told):.0f} dB" in one.remedy
        assert (f"+{told:.0f} dB" in one.remedy) is (told > 0.0)
