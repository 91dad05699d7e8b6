"""Mixes started from a base by a recipe: the worked example of the rules, and the rest."""

import math
import random

import pytest

from ombrel.core import UnreadableText, Value, boost_selves, flow_of, made, show_of, start_mixes
from ombrel.core.ears import read_recipe, selves_of
from ombrel.demo import demo_show
from tests.desks import TOURING

OFF = -math.inf
BAND = {"kick": -5.0, "bass": -6.0, "vox": 0.0, "click": OFF}


def band(**more):
    values: dict[str, Value] = {
        "mix/1/name": "Bo",
        "mix/1/format": "stereo",
        "mix/2/format": "mono",
    }
    for n, (name, level) in enumerate(BAND.items(), 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/name": name.title(),
            f"line/{n}/socket": f"input/local/{n}", f"channel/{n}/source": f"input/local/{n}",
            f"channel/{n}/name": name.title(), f"channel/{n}/fader": level,
            f"channel/{n}/house/on": True,
        }  # fmt: skip
    values |= {"line/1/family": "drums", "line/2/family": "bass", "line/2/performer": "Bó",
               "line/3/family": "voices", "line/4/family": "cues",
               "output/local/1/source": "house/left",
               "output/local/2/source": "house/right"}  # fmt: skip
    return show_of(TOURING, values | {k.replace("__", "/"): v for k, v in more.items()})


def levels(show, found, mix="mix/1"):
    after = made(show, found.moves)[0]
    return [after.number(f"channel/{n}/send/{mix}/level") for n in range(1, 5)]


def test_the_worked_example_of_the_rules():
    """Kick -5-2, bass by self and not by its family, vox cut at 6 by 3, click off in the base."""
    show = band()
    assert selves_of(show, "mix/1") == ["channel/2"]  # accents aside
    found = start_mixes(show, ["mix/1"], "house", "self +6, bass +3, drums -2, click -5, vox +9")
    assert levels(show, found) == [-7.0, 0.0, 6.0, OFF]
    assert found.told == (
        "Cut at +6: Vox; 3.0 dB lower all would fit.",
        "Off in the base, so a step opens nothing: Click.",
    )
    assert levels(show, start_mixes(show, ["mix/1"], "house", "drums +3, kick +2"))[0] == -3.0


@pytest.mark.parametrize(
    ("recipe", "expected"),
    [
        ("", [-5.0, -6.0, 0.0, OFF]),
        ("rest = -12", [-12.0] * 4),
        ("rest off, bass = -3", [OFF, -3.0, OFF, OFF]),
        ("click = -5; kick = house -2\nvox off", [-7.0, -6.0, OFF, -5.0]),
        ("strip 1-2 = \u22129", [-9.0, -9.0, 0.0, OFF]),
        ('line "Kick" +1.5', [-3.5, -6.0, 0.0, OFF]),
        ("self = mix 2 +1", [-5.0, -19.0, 0.0, OFF]),
        ("kick -130", [OFF, -6.0, 0.0, OFF]),
    ],
)
def test_what_items_mean(recipe, expected):
    show = band(channel__2__send__mix__2__level=-20.0)
    assert levels(show, start_mixes(show, ["mix/1"], "house", recipe)) == pytest.approx(expected)


@pytest.mark.parametrize(
    ("recipe", "says"),
    [
        ("bass 3", "a sign for a step"),
        ("bass", "items such as"),
        ("bass+3", "items such as"),
        ("kikc +3", "self, rest, a family"),
        ("drms +3, Klick = 2", "self, rest"),
        ("vxo = mix 9", "self, rest"),
        ("vox = mix 9", "a mix that is in use"),
        ('"vox +3', "a quote at the end"),
    ],
)
def test_what_is_no_item_is_refused_with_what_is_meant(recipe, says):
    with pytest.raises(UnreadableText, match=says):
        start_mixes(band(), ["mix/1"], "house", recipe)


def test_a_word_one_letter_wrong_is_told_with_what_is_near():
    with pytest.raises(UnreadableText, match="near is Click"):
        read_recipe(band(channel__1__name="Snare"), "Clcik +3", "mix/1")


def test_mutes_and_solos_count_as_open_dcas_by_choice_and_groups_and_taps_stay():
    show = band(channel__1__mute=True, mute_group__1__on=True, channel__3__mute_group__1__on=True,
                channel__2__dca__1__on=True, dca__1__fader=-10.0, show__solo="in_place",
                channel__4__solo=True)  # fmt: skip
    assert levels(show, start_mixes(show, ["mix/1"], "house")) == [-5.0, -16.0, 0.0, OFF]
    assert levels(show, start_mixes(show, ["mix/1"], "house", dcas=False))[1] == -6.0
    found = start_mixes(show, ["mix/1"], "house")
    assert not [a for a in found.moves if a.endswith("/tap")]
    groups = {v for a, v in found.moves.items() if a.startswith("group/") and a.endswith("level")}
    assert groups == {OFF}
    bare = start_mixes(show, ["mix/1"], "house", pans=False)
    assert not [a for a in bare.moves if a.endswith("/pan")]


@pytest.mark.parametrize("seed", range(6))
def test_a_step_for_all_keeps_the_houses_balance_for_each_source_at_the_listener(seed):
    """What arrives differs from the house by the step, the same for everybody."""
    draw = random.Random(seed)
    demo = demo_show(TOURING)
    mix = f"mix/{draw.randint(1, 8)}"
    step = draw.choice([-9.0, -6.0, -3.0])
    open_now = {f"channel/{n}/mute": False for n in demo.channels()}
    show = made(demo, open_now)[0]
    found = start_mixes(show, [mix], "house", f"rest {step:+g}")
    after = made(show, {**found.moves, f"{mix}/fader": 0.0, "house/fader": 0.0})[0]
    flow = flow_of(after)
    house, row = flow.layout.column("house"), flow.layout.row
    told = 0
    for n in show.channels():
        source = f"channel/{n}"
        in_house = flow.at_input_db(row(source), house)
        send = after.number(f"{source}/send/{mix}/level")
        if in_house == OFF or is_fed_by_bus(show, n):
            assert send == OFF or is_fed_by_bus(show, n) is False
            continue
        assert send == pytest.approx(max(in_house + step, -1000), abs=1e-6)
        told += 1
    assert told > 15


def test_a_muted_loop_through_a_channel_that_a_bus_feeds_refuses_no_start():
    show = band(mix__3__format="mono", mix__3__fader=0.0, channel__9__source="mix/3",
                channel__9__fader=0.0, channel__9__mute=True, channel__1__mute=True,
                channel__9__send__mix__3__level=0.0,
                channel__9__send__mix__3__tap="after_fader")  # fmt: skip
    assert levels(show, start_mixes(show, ["mix/1"], "house")) == [-5.0, -6.0, 0.0, OFF]


def test_a_boost_is_a_mono_mix_of_oneself_at_0_db_on_the_next_free_output():
    show = band(channel__3__send__mix__3__level=-9.0)  # left in a mix that nobody uses
    found = boost_selves(show, ["mix/1", "mix/2"])
    assert found.told == ("Without channels of their own: Mix 2.",)
    after = made(show, found.moves)[0]
    assert (after["mix/3/format"], after.text("mix/3/name")) == ("mono", "Bo boost")
    assert [after.number(f"channel/{n}/send/mix/3/level") for n in range(1, 5)] == [
        OFF,
        0,
        OFF,
        OFF,
    ]
    carried = [a for a, v in after.own.items() if v == "mix/3"]
    assert len(carried) == 1
    assert not after["mix/1/linked"]
    with pytest.raises(UnreadableText, match="performer has channels"):
        boost_selves(show, ["mix/2"])


def is_fed_by_bus(show, n):
    return str(show.source_of(n) or "").split("/")[0] in ("group", "mix", "matrix", "house", "mono")
