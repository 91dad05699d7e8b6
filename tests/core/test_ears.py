"""Ears and wedges: self over the rest, whole mixes moved as one, starts; each against arithmetic of

its own, or against powers of who hears what.
"""

import math
import random

import pytest

from ombrel.core import (
    Carry,
    ConsoleError,
    Typed,
    UnreadableText,
    Value,
    clear_solos,
    copy_mix,
    ears,
    edited,
    expanded,
    flow_of,
    join_mixes,
    listen_as,
    made,
    read_step,
    set_self,
    show_of,
    start_mixes,
    start_over,
    swap_mixes,
    take_starts,
    trim_ears,
    trim_mixes,
)
from ombrel.core.catalogue import SENDERS, strips_of
from ombrel.core.ears import selves_of
from ombrel.core.together import Hand, carried_with, hand_after
from tests.desks import TINY, TOURING
from tests.shows import show_of_seed

OFF = -math.inf
OPEN = "before_fader_after_mute"


def band(**more: Value):
    """Vox, Guitar and Keys, all expected at -18 dBFS, in a mono mix called as who sings."""
    values: dict[str, Value] = {
        "mix/1/format": "mono", "mix/1/name": "Ada", "mix/2/format": "stereo",
        "output/local/1/source": "mix/1", "output/local/1/label": "Pack 1",
    }  # fmt: skip
    for n, (name, level) in enumerate({"Vox": -3.0, "Guitar": -9.0, "Keys": -12.0}.items(), 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/name": name, f"line/{n}/level_dbu": -40.0,
            f"line/{n}/socket": f"input/local/{n}", f"channel/{n}/source": f"input/local/{n}",
            f"input/local/{n}/gain": 40.0 - TOURING_SCALE, f"channel/{n}/name": name,
            f"channel/{n}/send/mix/1/level": level,
        }  # fmt: skip
    values |= {"line/1/performer": "Ada", "channel/4/name": "Click", "line/4/place": 4.0,
               "line/4/family": "cues", "line/4/socket": "input/local/4",
               "channel/4/source": "input/local/4"}  # fmt: skip
    return show_of(TOURING, values | {k.replace("__", "/"): v for k, v in more.items()})


TOURING_SCALE = 18.0 - TOURING.full_scale_dbu  # so that -40 dBu and the gain come to -18 dBFS


def ear(show, mix="mix/1"):
    return next(one for one in ears(show, flow_of(show)) if one.mix == mix)


def levels(show, mix="mix/1", many=3):
    return [show.number(f"channel/{n}/send/{mix}/level") for n in range(1, many + 1)]


def after(show, moves):
    return made(show, moves)[0]


# ---- self over the rest


def test_self_over_the_rest_as_worked_by_hand():
    """-18-3 = -21.00 against 10*log10(0.001995 + 0.001000) = -25.24: +4.24 dB."""
    one = ear(band())
    assert one.balance.stands == "over"
    assert one.balance.over_db == pytest.approx(-21.0 - 10 * math.log10(0.0019953 + 0.0010), 1e-3)
    assert round(one.balance.over_db, 2) == 4.24
    assert one.short_db == 0.0
    # 0.007943 + 0.001995 + 0.001000 = 0.010938
    assert one.balance.dbfs == pytest.approx(10 * math.log10(0.010938), abs=1e-3)
    assert [name for name, _ in one.balance.loudest] == ["channel/1", "channel/2", "channel/3"]
    assert one.packs == ("Pack 1",)


@pytest.mark.parametrize(
    ("more", "stands", "silent"),
    [
        ({"channel__1__mute": True}, "over", ("channel/1",)),
        ({"channel__1__send__mix__1__level": OFF}, "missing", ()),
        ({f"channel__{n}__send__mix__1__level": OFF for n in (1, 2, 3)}, "nothing", ()),
        ({f"channel__{n}__send__mix__1__level": OFF for n in (2, 3)}, "alone", ()),
        ({"line__1__performer": "Bo"}, "none", ()),
        ({"line__1__place": 0.0, "channel__1__send__mix__1__self": True}, "unknown", ()),
    ],
)
def test_what_may_be_said_instead_of_a_number(more, stands, silent):
    one = ear(band(**more))
    assert (one.balance.stands, one.silent_now) == (stands, silent)


def referee(show, mix, selves):
    """Self over the rest from the powers of who hears what, every mute opened: no code shared."""
    values = {a: v for a, v in show.own.items() if not (a.endswith("/mute") and v is True)}
    values = {
        a: v for a, v in values.items() if not (a.startswith("mute_group/") and a.endswith("/on"))
    }
    values["show/solo"] = "before_fader"
    values |= {"output/local/16/source": None}
    flow = flow_of(show_of(show.desk, values))
    column = flow.layout.column(mix)
    own = rest = 0.0
    for row in range(flow.layout.channels):
        source = flow.layout.source(row)
        level = flow.at_input_db(row, column)
        if level > OFF:
            trim = show.number(f"{source}/trim")
            power = 10 ** ((level + trim - 18.0) / 10)
            own, rest = (own + power, rest) if source in selves else (own, rest + power)
    return own, rest


@pytest.mark.parametrize("seed", range(12))
def test_the_balance_is_that_of_powers_of_who_hears_what(seed):
    draw = random.Random(seed)
    more: dict[str, Value] = {}
    for n in range(1, 4):
        more |= {
            f"channel/{n}/send/mix/1/level": draw.uniform(-40, 6),
            f"channel/{n}/trim": draw.choice([0.0, draw.uniform(-9, 9)]),
            f"channel/{n}/mute": draw.random() < 0.4,
            f"channel/{n}/fader": draw.choice([OFF, draw.uniform(-20, 6)]),
            f"channel/{n}/send/mix/1/tap": draw.choice([OPEN, "after_fader", "input"]),
        }
    more["mute_group/1/on"] = more["channel/2/mute_group/1/on"] = draw.random() < 0.5
    more["channel/3/solo"], more["show/solo"] = True, "in_place"
    show = band(**more)
    one = ear(show)
    own, rest = referee(show, "mix/1", ["channel/1"])
    if own and rest:
        assert one.balance.over_db == pytest.approx(10 * math.log10(own / rest), abs=1e-6)
    else:
        assert one.balance.stands == ("missing" if rest else "alone" if own else "nothing")


def test_self_is_who_is_named_and_else_who_is_called_so():
    show = band()
    assert selves_of(show, "mix/1") == ["channel/1"]
    named = after(show, set_self(show, "mix/1", "2-3"))
    assert selves_of(named, "mix/1") == ["channel/2", "channel/3"]
    assert selves_of(after(named, set_self(named, "mix/1", "")), "mix/1") == ["channel/1"]
    with pytest.raises(UnreadableText):
        set_self(show, "mix/1", "mix 2")


def test_the_worst_stand_first_and_cues_that_are_counted_on_are_missed():
    show = band(mix__2__serves="wedge", mix__1__recipe="click = -5, self +3")
    assert ear(show).cues == ("channel/4",)
    heard = after(show, {"channel/4/send/mix/1/level": -5.0})
    assert ear(heard).cues == ()
    started = after(heard, take_starts(heard, ["mix/1"]) | {"mix/1/recipe": ""})
    closed = after(started, {"channel/4/send/mix/1/on": False})
    assert ear(closed).cues == ("channel/4",)
    low = after(show, {"channel/1/send/mix/2/level": -20.0, "mix/2/name": "Ada",
                       "channel/2/send/mix/2/level": 0.0})  # fmt: skip
    assert [one.mix for one in ears(low, flow_of(low))] == ["mix/1", "mix/2"]
    assert ear(low, "mix/2").short_db == pytest.approx(23.0)
    loud = after(low, {"channel/2/trim": 20.0, "channel/2/send/mix/2/level": 6.0})
    assert [one.mix for one in ears(loud, flow_of(loud))] == ["mix/2", "mix/1"]


def test_a_ceiling_is_told_as_the_level_that_it_leaves():
    show = band(mix__1__fader=-10.0, mix__1__ceiling=-4.0)
    one = ear(show)
    assert one.ceiling_dbfs == pytest.approx(one.balance.dbfs + 6.0)
    assert ear(band()).ceiling_dbfs is None


# ---- moved as one


def test_a_trim_goes_past_the_end_and_comes_back():
    """Kick 4, Snare -10, +3: 6 (place 7), -7; it ends at +16 (6, 6); back by 16: 4, -10."""
    show = after(band(), {"channel/1/send/mix/1/level": 4.0, "channel/2/send/mix/1/level": -10.0,
                          "channel/3/send/mix/1/level": OFF})  # fmt: skip
    up = after(show, trim_mixes(show, ["mix/1"], 3.0))
    assert levels(up) == [6.0, -7.0, OFF]
    assert up.number("channel/1/send/mix/1/level/kept") == 7.0
    most = after(show, trim_mixes(show, ["mix/1"], 40.0))
    assert levels(most) == [6.0, 6.0, OFF]
    assert levels(after(most, trim_mixes(most, ["mix/1"], -16.0))) == [4.0, -10.0, OFF]


@pytest.mark.parametrize("seed", range(30))
def test_trims_that_come_to_nothing_give_every_send_back(seed):
    """There and back by steps inside the way; every open send keeps its distances throughout."""
    draw = random.Random(seed)
    moves = {f"channel/{n}/send/mix/1/level": draw.choice([OFF, draw.uniform(-110, 6)])
             for n in range(1, 8)}  # fmt: skip
    moves["channel/1/send/mix/1/level"] = draw.uniform(-100, 0)
    show = start = after(band(), moves)
    open_db = [v for v in levels(show, many=7) if v > OFF]
    highest, lowest = 6.0 - min(open_db), -120.0 - max(open_db)
    went = 0.0
    for _ in range(6):
        step = draw.uniform(lowest - went, highest - went)
        show, went = after(show, trim_mixes(show, ["mix/1"], step)), went + step
    show = after(show, trim_mixes(show, ["mix/1"], -went))
    assert levels(show, many=7) == pytest.approx(levels(start, many=7), abs=1e-5)


def test_some_strips_alone_are_trimmed():
    show = band()
    some = after(show, trim_mixes(show, ["mix/1"], 2.0, ["channel/1", "channel/3"]))
    assert levels(some) == [-1.0, -9.0, -10.0]


def test_a_place_ends_with_a_hand_and_with_another_layer():
    show = after(band(), {"channel/1/send/mix/1/level": 4.0})
    up = after(show, trim_mixes(show, ["mix/1"], 5.0))
    assert "channel/1/send/mix/1/level/kept" in up.values
    hand = edited(up, flow_of(up), {"channel/1/send/mix/1/level": Typed("6")}, Carry())
    assert "channel/1/send/mix/1/level/kept" not in hand.show.values
    gang = after(up, {"channel/1/gang/1/on": True, "gang/1/carries_sends": True})
    rested = after(gang, {"gang/1/suspended": True})
    assert rested.number("channel/1/send/mix/1/level/kept") == 9.0


def test_all_ears_move_their_faders_and_no_wedge():
    show = after(band(), {"mix/1/fader": 5.0, "mix/2/fader": -8.0, "mix/2/serves": "wedge",
                          "mix/3/format": "stereo", "mix/3/fader": -1.0})  # fmt: skip
    up = after(show, trim_ears(show, 2.0))
    faders = [up.number(f"mix/{n}/fader") for n in (1, 2, 3)]
    assert faders == [6.0, -8.0, 1.0]
    back = after(up, trim_ears(up, -2.0))
    assert [back.number(f"mix/{n}/fader") for n in (1, 2, 3)] == [5.0, -8.0, -1.0]


@pytest.mark.parametrize(
    ("text", "db"), [("+2", 2.0), ("-1.5", -1.5), ("up 2", 2.0), ("\u22123", -3.0)]
)
def test_steps_are_signed(text, db):
    assert read_step(text) == db
    with pytest.raises(UnreadableText):
        read_step("2")


# ---- swapped, copied, joined


@pytest.mark.parametrize("seed", range(15))
def test_swapped_twice_is_as_before_and_a_copy_is_heard_as_its_original(seed):
    show = show_of_seed(seed)
    mixes = [mix for mix in show.in_use("mix")]
    if len(mixes) < 2:
        show = after(show, {"mix/1/format": "stereo", "mix/2/format": "stereo"})
        mixes = show.in_use("mix")
    one, other = mixes[0], mixes[-1]
    try:
        swapped = after(show, swap_mixes(show, one, other))
    except ConsoleError:  # a loop, or one pair: nothing moved
        return
    sends = [f"{strip}/send/" for strip in strips_of(show.desk, *SENDERS)]
    for send in sends:
        assert swapped[f"{send}{one}/level"] == show[f"{send}{other}/level"]
    twice = after(swapped, swap_mixes(swapped, one, other))
    assert {a: v for a, v in twice.values.items()} == {a: v for a, v in show.values.items()}
    copied = after(show, copy_mix(show, one, [other]))
    assert copied.number(f"{other}/fader") == show.number(f"{one}/fader")
    assert copied[f"{other}/name"] == show[f"{other}/name"]


def test_what_joins_later_opens_where_it_was_closed_and_is_told_where_not():
    show = band()
    found = join_mixes(show, ["channel/2", "channel/4"], [], "-15")
    joined = after(show, found.moves)
    assert [joined.number(f"channel/{n}/send/mix/{m}/level") for n in (2, 4) for m in (1, 2)] == [
        -9.0, -15.0, -15.0, -15.0,
    ]  # fmt: skip
    assert found.told == ("Guitar is open already in Ada.",)


@pytest.mark.parametrize("seed", range(20))
def test_nobodys_ears_change_when_one_listens_as_another(seed):
    """With solo in place ended beforehand, which is what gives everybody their sound back."""
    show = show_of_seed(seed)
    mixes = show.in_use("mix")
    if not mixes:
        return
    plain = after(show, clear_solos(show))
    heard = after(show, listen_as(show, mixes[-1]))
    before, then = flow_of(plain), flow_of(heard)
    assert (before.level_db == then.level_db).all()
    assert (before.state == then.state).all()
    assert heard.on(f"{mixes[-1]}/solo")
    assert after(heard, listen_as(heard, mixes[-1], on=False)) == plain


# ---- starts


def test_start_over_is_as_it_was_taken_and_twice_is_once():
    show = band(mix__1__fader=-2.0)
    started = after(show, take_starts(show, ["mix/1"]))
    moved = after(started, {"channel/1/send/mix/1/level": -30.0, "mix/1/fader": 3.0,
                            "channel/2/send/mix/1/level": OFF})  # fmt: skip
    back = after(moved, start_over(moved, ["mix/1"]))
    assert levels(back) == levels(show)
    assert back.number("mix/1/fader") == -2.0
    assert not made(back, start_over(back, ["mix/1"]))[1]
    low = after(moved, {"mix/1/ceiling": -10.0})
    assert after(low, start_over(low, ["mix/1"])).number("mix/1/fader") == -10.0
    with pytest.raises(UnreadableText):
        start_over(show, ["mix/1"])


def test_what_the_desk_opens_later_has_a_start_by_it_and_a_hand_takes_it_along():
    show = after(band(), take_starts(band(), ["mix/1"]))
    send = "channel/4/send/mix/1"
    hands: dict[str, Hand] = {}
    flow = flow_of(show)
    for level in (-80.0, -30.0, -7.0):
        carry = carried_with(show, hands, "g", [f"{send}/level"], Carry())
        found = expanded(show, {f"{send}/level": level}, carry)
        hands["g"] = hand_after(show, [f"{send}/level"], carry, found.carried)
        show = found.show
        assert show.number(f"{send}/start") == level
    rested = edited(show, flow_of(show), {f"{send}/level": -20.0}, Carry()).show
    assert rested.number(f"{send}/start") == -7.0
    over = after(rested, start_over(rested, ["mix/1"]))
    assert over.number(f"{send}/level") == -7.0
    # without a start nothing has one, and closing forgets none
    assert "channel/4/send/mix/1/start" not in after(band(), {f"{send}/level": -3.0}).values
    closed = after(rested, {f"{send}/on": False})
    assert closed.number(f"{send}/start") == -7.0
    assert flow is not None


def test_a_recipe_is_kept_with_its_mix_and_starts_it_again():
    show = band(channel__1__fader=-5.0, channel__2__fader=-5.0)
    first = after(show, start_mixes(show, ["mix/1"], "house", "self +6,\nguitar off").moves)
    assert first.text("mix/1/recipe") == "self +6, guitar off"
    moved = after(first, {"channel/1/send/mix/1/level": -40.0})
    again = after(moved, start_mixes(moved, ["mix/1", "mix/2"], "house", None).moves)
    assert levels(again) == levels(first)
    assert levels(again, "mix/2") == [-5.0, -5.0, OFF]


def test_show_of_seeds_are_looked_at_without_fault():
    for seed in range(20):
        show = show_of_seed(seed, TINY)
        for one in ears(show, flow_of(show)):
            assert one.balance.stands != "over" or math.isfinite(one.balance.over_db)
