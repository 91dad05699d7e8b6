"""A show on another desk and back: nothing is lost, what fits sounds as it was, hands count."""

import json
import random
import re
from dataclasses import replace

import pytest

from ombrel.core import (
    Desk,
    Show,
    aside_from_wire,
    aside_to_wire,
    left_words,
    made,
    moved,
    recall,
    renumbered_asides,
    show_of,
    store_scene,
)
from ombrel.core.catalogue import default_of
from ombrel.core.edit import renamed
from ombrel.core.moving import default_boxes
from ombrel.demo import demo_show
from tests.core.walk import Referee
from tests.desks import FESTIVAL, SMALL, TINY, TOURING
from tests.shows import often, permitted, show_of_seed, value_for

DESKS = {one.key: one for one in (FESTIVAL, SMALL, TINY, TOURING)}
# as TINY, with less of everything, and its box under another key
LESS = replace(
    TINY, key="less", name="Less", channels=3, groups=2, mixes=1, dcas=2, mute_groups=1,
    gain_db=(0.0, 20.0), boxes=tuple(
        replace(box, key=f"{box.key}z", inputs=max(box.inputs - 1, 0)) for box in TINY.boxes
    ),
)  # fmt: skip
KNOWN = {**DESKS, "less": LESS}


def to(show: Show, desk: Desk, asides=(), boxes=None):
    return moved(show, asides, desk, boxes, known=KNOWN.get)


def read_again(asides):
    """As a file or the store gives it back."""
    return tuple(aside_from_wire(json.loads(json.dumps(aside_to_wire(one)))) for one in asides)


@pytest.mark.parametrize("first", range(0, 12, 6))
def test_to_a_smaller_desk_and_back_is_the_identity_whatever_the_show(first):
    lost = 0
    for seed in range(first, first + often(6)):
        show = show_of_seed(seed)
        there = to(show, LESS)
        assert not there.back
        back = to(there.show, TINY, read_again(there.asides))
        assert back.show.own == show.own, seed
        assert back.asides == () or all(one.desk == "less" for one in back.asides)
        lost += len(there.left)
        again = to(back.show, LESS, back.asides)
        assert again.show.own == there.show.own  # and once more
    assert lost > often(100)


def test_what_fits_is_heard_there_as_it_was_where_nothing_that_rules_it_stays_behind():
    """The referee reads both shows; DCAs, mute groups and ways by what is gone are left out."""
    desk = replace(LESS, dcas=TINY.dcas, mute_groups=TINY.mute_groups, groups=TINY.groups,
                   boxes=TINY.boxes, gain_db=TINY.gain_db)  # fmt: skip
    told = 0
    for seed in range(6):
        show = show_of_seed(seed)
        there = to(show, desk)
        if there.refused:
            continue  # what its rules refuse is told, and changes what is heard
        before, after = Referee(show), Referee(there.show)
        for source in [f"channel/{n}" for n in range(1, desk.channels + 1)]:
            for listener in ("house", "mix/1"):
                ways = before.paths(source, listener, off=True)
                if any(
                    gone in str(way) for way in ways for gone in ("mix/2", "mix/3", "channel/4")
                ):
                    continue
                state, level, _ = before.answer(source, listener)
                there_state, there_level, _ = after.answer(source, listener)
                assert there_state == state, (seed, source, listener)
                assert there_level == pytest.approx(level, abs=1e-9)
                told += 1
    assert told > often(10)


def test_a_hand_since_is_the_newer_and_the_rest_comes_back_with_its_new_number():
    show = show_of(TINY, {
        "channel/1/name": "Harp", "channel/1/source": "input/a/1", "input/a/1/gain": 40.0,
        "channel/1/send/mix/2/level": -6.0, "mix/2/format": "stereo", "mix/1/format": "mono",
        "channel/4/name": "Far", "channel/2/name": "Horn", "channel/2/send/mix/2/level": -9.0,
        "input/a/2/gain": 30.0, "channel/2/source": "input/a/2",
    })  # fmt: skip
    there = to(show, LESS)
    assert there.show["input/az/1/gain"] == 20.0
    # one gain is moved there, the other is not; the harp goes to another channel
    small = made(there.show, {"input/az/1/gain": 12.0})[0]
    small = made(small, renamed(small, {"channel/1": "channel/3"}), own=True)[0]
    asides = renumbered_asides(there.asides, {"channel/1": "channel/3"})
    back = to(small, TINY, read_again(asides)).show
    assert back["input/a/1/gain"] == 12.0
    assert back["input/a/2/gain"] == 30.0
    assert back["channel/3/send/mix/2/level"] == -6.0
    assert back["channel/2/send/mix/2/level"] == -9.0
    assert back.text("channel/4/name") == "Far"


def test_what_scenes_hold_of_what_is_beyond_comes_back_beside_what_they_hold_since():
    show = show_of(TINY, {
        "mix/1/format": "stereo", "mix/2/format": "stereo", "channel/1/send/mix/1/level": -3.0,
        "channel/1/name": "Harp", "channel/1/send/mix/2/level": -6.0, "channel/4/name": "Far",
    })  # fmt: skip
    cells = {"channel/1": ["send/mix/1", "send/mix/2"], "channel/4": ["fader"]}
    show = made(show, store_scene(show, "One", cells))[0]
    there = to(show, LESS)
    held = "scene/1/holds/channel/1"
    assert "mix/2" not in str(there.show.own[held])
    assert "scene/1/holds/channel/4" not in there.show.own
    assert to(there.show, TINY, there.asides).show.own == show.own
    now = json.loads(str(there.show.own[held]))
    now["values"]["send/mix/1/level"] = -40.0
    text = json.dumps(now, ensure_ascii=False, separators=(",", ":"))
    small = made(there.show, {held: text}, own=True)[0]
    back = to(small, TINY, there.asides)
    was = json.loads(str(show.own[held]))
    was["values"]["send/mix/1/level"] = -40.0
    assert json.loads(str(back.show.own[held])) == was
    assert back.asides == () or all(one.desk == "less" for one in back.asides)
    gone = made(there.show, {a: default_of(a) for a in there.show.own if a.startswith("scene/")})[0]
    assert not [a for a in to(gone, TINY, there.asides).show.own if a.startswith("scene/")]


def test_what_was_removed_since_does_not_come_back():
    show = show_of(TINY, {
        "gang/1/name": "Strings", "channel/4/gang/1/on": True, "channel/1/gang/1/on": True,
        "channel/4/name": "Far", "channel/1/name": "Near",
    })  # fmt: skip
    there = to(show, LESS)
    small = made(there.show, {"gang/1/name": "", "channel/1/gang/1/on": False})[0]
    back = to(small, TINY, there.asides).show
    assert "channel/4/gang/1/on" not in back.own
    assert back.text("channel/4/name") == "Far"


def test_it_is_told_before_in_words_what_is_heard_of_it_first():
    demo = demo_show(TOURING)
    closed = made(demo, {"mute_group/6/on": True, "mute_group/6/name": "Late"})[0]
    told = left_words(closed, to(closed, SMALL))
    says = [one.says for one in told]
    assert told[0].tone == "heard"
    assert "The mute group Late is closed: without it its members are open." in says
    assert any(
        one.startswith("Small 24 has 24 channels. Kept aside: channels 25-40") for one in says
    )
    assert any(one.startswith("Harbour stands for none there") for one in says)
    assert "values in all are kept aside" in says[-1]
    whole = left_words(demo, to(demo, FESTIVAL))
    assert not [one for one in whole if one.tone != "aside"]


def test_boxes_are_mapped_once_and_two_are_never_one():
    demo = demo_show(TOURING)
    keys = {box.short: box.key for box in TOURING.boxes}
    mapping = default_boxes(TOURING, SMALL) | {keys["Deck"]: "", keys["Harbour"]: "local"}
    there = to(demo, SMALL, boxes=mapping)
    line = next(n for n in demo.lines() if str(demo[f"line/{n}/socket"]).startswith("input/a/"))
    assert there.show[f"line/{line}/socket"] == str(demo[f"line/{line}/socket"]).replace(
        "/a/", "/local/"
    )
    assert to(there.show, TOURING, there.asides).show.own == demo.own
    with pytest.raises(Exception, match="two cannot be one"):
        to(demo, SMALL, boxes={"local": "local", "a": "local"})


def test_every_scene_can_be_recalled_on_a_desk_whose_preamps_go_less_far():
    show = show_of(TINY, {"channel/1/source": "input/a/1", "input/a/1/gain": 50.0})
    show = made(show, store_scene(show, "Hot", {"channel/1": ["preamp"]}))[0]
    there = to(show, LESS).show
    found = recall(there, "scene/1")
    assert made(
        there, {**found.moves, "input/az/1/gain": found.values.get("input/az/1/gain", 20.0)}
    )
    quiet = made(there, {"input/az/1/gain": 0.0})[0]
    assert made(quiet, recall(quiet, "scene/1").moves)[0]["input/az/1/gain"] == 20.0


def test_through_a_third_desk_and_by_chance_nothing_is_lost():
    demo = demo_show(TOURING)
    draw = random.Random(3)
    for _ in range(3):
        show, asides = demo, ()
        for key in draw.sample(["small-24", "festival-128", "small-24"], 3):
            found = to(show, DESKS[key], asides)
            show, asides = found.show, read_again(found.asides)
        assert to(show, TOURING, asides).show.own == demo.own


BOXES = {"local": "localz", "a": "az"}


def there_of(address):
    """Where an address of the tiny desk stands on the lesser one, read off its text."""
    return re.sub(
        r"^(input|output)/([a-z]+)/", lambda m: f"{m[1]}/{BOXES.get(m[2], m[2])}/", address
    )


@pytest.mark.parametrize("first", range(0, 12, 6))
def test_whatever_is_done_meanwhile_each_value_is_as_it_was_or_as_a_hand_left_it(first):
    """Of plain values, by their texts alone: what nobody moved there is what it was here; what

    somebody moved is what they left, whether it was held to an end or not; what had no place comes
    back if what it is of is there still.
    """
    moved_by_hand = came_back = 0
    for seed in range(first, first + often(6)):
        show = show_of_seed(seed)
        there = to(show, LESS)
        draw = random.Random(seed)
        plain = sorted(a for a, v in there.show.own.items() if isinstance(v, float | bool))
        hand_on = draw.sample(plain, min(25, len(plain)))
        hands = permitted(there.show, {a: value_for(a, LESS, draw) for a in hand_on})
        back = to(hands, TINY, read_again(there.asides))
        for address, value in show.own.items():
            if not isinstance(value, float | bool) or address in back.refused:
                continue
            at = there_of(address)
            stood, now = (one.own.get(at) for one in (there.show, hands))
            if stood != now:
                assert back.show.own.get(address) == now, (seed, address)
                moved_by_hand += 1
            elif stood is not None:
                assert back.show.own.get(address) == value, (seed, address)
            elif is_linked_even(back.show, address):
                continue  # its pair's odd side was moved meanwhile, and a pair is equal
            elif strip_of(address) and address not in hands.own:
                assert back.show.own.get(address) in (value, None), (seed, address)
                came_back += back.show.own.get(address) == value
    assert moved_by_hand > often(20)
    assert came_back > often(100)


def strip_of(address):
    return address.split("/")[0] in ("channel", "return", "group", "mix", "matrix")


def is_linked_even(show, address):
    kind, number = address.split("/")[:2] if strip_of(address) else ("", "0")
    even = number.isdigit() and int(number) % 2 == 0 and kind in ("channel", "mix")
    return even and show.on(f"{kind}/{int(number) - 1}/linked")
