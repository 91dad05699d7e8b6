"""What a performer's phone moves: families as one, no place lost, and nothing beside its own mix.

The arithmetic of the rules is checked as worked by hand; the table of what a link may move is
written out here again, and every address of the catalogue is tried against it.
"""

import math
import random
import re

import pytest

from ombrel.core import (
    EVERYTHING,
    ConsoleError,
    NotYours,
    PhonesLocked,
    Value,
    check_phone,
    flow_of,
    made,
    phone_family,
    phone_louder,
    phone_mix,
    phone_pan,
    phone_start,
    show_of,
    take_starts,
)
from ombrel.core.catalogue import addresses_of, kind_on
from ombrel.core.ears.families import families_of, place_db, position_db
from tests.desks import TOURING
from tests.shows import value_for

OFF = -math.inf
MIX = "mix/1"


def band(levels, **more: Value):
    """Drums on channels 1 and up, sent to a stereo mix at these levels."""
    values: dict[str, Value] = {
        "mix/1/format": "stereo",
        "mix/1/name": "Ada",
        "mix/2/format": "stereo",
    }
    for n, level in enumerate(levels, 1):
        values |= {
            f"line/{n}/place": float(n), f"line/{n}/name": f"Drum {n}", f"line/{n}/family": "drums",
            f"line/{n}/socket": f"input/local/{n}", f"channel/{n}/source": f"input/local/{n}",
            f"channel/{n}/send/mix/1/level": level,
        }  # fmt: skip
    return show_of(TOURING, values | {k.replace("__", "/"): v for k, v in more.items()})


def after(show, moves):
    return made(show, moves)[0]


def started(levels, **more: Value):
    show = band(levels)
    return after(
        after(show, take_starts(show, [MIX])), {k.replace("__", "/"): v for k, v in more.items()}
    )


def levels(show, many):
    return [show.number(f"channel/{n}/send/mix/1/level") for n in range(1, many + 1)]


def to(show, by_db, family="drums"):
    """The show after a finger went so far."""
    strips = families_of(show, MIX).get(family, [family])
    here = place_db(show, MIX, strips)
    return after(show, phone_family(show, MIX, family, here + by_db))


def stands(show):
    return position_db(show, MIX, families_of(show, MIX)["drums"])


def test_where_a_family_stands_as_worked_by_hand():
    """Starts -8, -8; now -6, -9: (0.2512 + 0.1259) / (2 * 0.1585) is +0.75 dB."""
    show = after(started([-8.0, -8.0]), {"channel/1/send/mix/1/level": -6.0,
                                         "channel/2/send/mix/1/level": -9.0})  # fmt: skip
    assert round(stands(show), 2) == 0.75
    limited = after(show, {"mix/1/limit": 3.0})
    assert levels(to(limited, 5.0), 2) == pytest.approx([-5.0, -8.0])


def test_a_finger_past_the_end_and_back():
    """4 and -10, +3: 6 (place 7) and -7, the fader +2.04; it ends at +16; back by 16: as before."""
    show = started([4.0, -10.0])
    up = to(show, 3.0)
    assert levels(up, 2) == pytest.approx([6.0, -7.0])
    assert up.number("channel/1/send/mix/1/level/kept") == pytest.approx(7.0)
    assert round(stands(up), 2) == 2.04
    most = to(show, 99.0)
    assert levels(most, 2) == pytest.approx([6.0, 6.0])
    assert levels(to(most, -16.0), 2) == pytest.approx([4.0, -10.0], abs=1e-5)


def test_off_and_back_keeps_what_was_off_off():
    show = started([-5.0, -20.0, OFF])
    off = after(show, phone_family(show, MIX, "drums", OFF))
    assert levels(off, 3) == [OFF, OFF, OFF]
    back = after(off, phone_family(off, MIX, "drums", 0.0))
    assert levels(back, 3) == pytest.approx([-5.0, -20.0, OFF])
    assert stands(back) == pytest.approx(0.0, abs=1e-6)
    louder = after(off, phone_family(off, MIX, "drums", -6.0))
    assert levels(louder, 2) == pytest.approx([-11.0, -26.0])
    # without places the starts return
    hand = after(show, {f"channel/{n}/send/mix/1/level": OFF for n in (1, 2)})
    assert levels(after(hand, phone_family(hand, MIX, "drums", 0.0)), 2) == pytest.approx(
        [-5.0, -20.0]
    )


@pytest.mark.parametrize("seed", range(40))
def test_a_family_fader_up_and_down_gives_every_send_back(seed):
    draw = random.Random(seed)
    show = start = started([draw.choice([OFF, draw.uniform(-100, 6)]) for _ in range(5)] + [-30.0])
    if draw.random() < 0.5:
        show = start = after(show, {"mix/1/limit": draw.uniform(0, 40)})
    first = place_db(show, MIX, families_of(show, MIX)["drums"])
    for _ in range(8):
        wanted = draw.choice([OFF, draw.uniform(first - 60, first + 30)])
        show = after(show, phone_family(show, MIX, "drums", wanted))
        for n in range(1, 7):
            send = f"channel/{n}/send/mix/1"
            top = start.number(f"{send}/start") + start.number("mix/1/limit")
            assert show.number(f"{send}/level") <= max(top, start.number(f"{send}/level")) + 1e-6
    show = after(show, phone_family(show, MIX, "drums", first))
    assert levels(show, 6) == pytest.approx(levels(start, 6), abs=1e-4)


def test_ends_hold_what_rises_and_let_fall_what_stands_above():
    show = started([-5.0], mix__1__ceiling=-3.0, mix__1__limit=2.0)
    assert phone_louder(show, MIX, by_db=2.0) == {"mix/1/fader": 0.0}  # it stands above already
    down = after(show, phone_louder(show, MIX, to_db=-10.0))
    assert phone_louder(down, MIX, to_db=5.0) == {"mix/1/fader": -3.0}
    desk = after(show, {"channel/1/send/mix/1/level": 3.0})
    assert levels(to(desk, 4.0), 1) == [3.0]
    assert levels(to(desk, -4.0), 1) == pytest.approx([-1.0])
    assert after(desk, phone_start(desk, MIX, EVERYTHING)).number("mix/1/fader") == -3.0
    assert levels(after(desk, phone_start(desk, MIX, "drums")), 1) == [-5.0]


# ---- what a link may move: every address of the catalogue

NAMED = re.compile(r"(channel|return|group)/\d+/send/mix/1/(level|pan)|mix/1/fader")


def test_every_address_is_refused_but_those_of_the_table():
    show = started([-5.0, -8.0, -9.0], channel__3__send__mix__1__on=False,
                   return__1__send__mix__1__level=-20.0, mix__1__shows_effects=False)  # fmt: skip
    draw = random.Random(5)
    passed = set()
    # of each key those of the first three things and of the first two mixes
    every = (a for a in addresses_of(TOURING) if not re.search(r"/([4-9]|\d\d+)(/|$)", a))
    for address in every:
        if re.search(r"/mix/3/|/(line|bank|scene|fitting|part|cast|performer)/[23]/", address):
            continue
        try:
            value = value_for(address, TOURING, draw)
            then, change = made(show, {address: kind_on(TOURING, address).checked(value, address)})
        except ConsoleError:
            continue
        try:
            check_phone(show, [MIX], [address], then, change.new)
        except NotYours:
            continue
        passed.add(address)
    assert all(NAMED.fullmatch(one) for one in passed), passed
    # of strips that are shown: not what is switched off, not sent, of a family that is not shown
    assert {one for one in passed if "send" in one} <= {
        f"channel/{n}/send/mix/1/{leaf}" for n in (1, 2) for leaf in ("level", "pan")
    }
    assert "channel/1/send/mix/1/level" in passed or "channel/2/send/mix/1/level" in passed


def test_what_an_edit_brings_with_it_is_in_the_table_too():
    show = started([-5.0, -8.0], channel__1__linked=True)
    moves = phone_family(show, MIX, "drums", -3.0)
    then, change = made(show, moves)
    check_phone(show, [MIX], [a for a in moves if not a.endswith("/kept")], then, change.new)
    pan = phone_pan(show, MIX, "channel/1", 0.4)
    then, change = made(show, pan)
    assert "channel/2/send/mix/1/pan" in change.new
    check_phone(show, [MIX], pan, then, change.new)
    mono = after(show, {"mix/1/format": "mono"})
    with pytest.raises(NotYours):
        check_phone(mono, [MIX], pan, made(mono, pan)[0], pan)
    with pytest.raises(NotYours):
        check_phone(show, ["mix/2"], pan, then, change.new)
    for lock in ("mix/1/locked", "show/ears_locked"):
        locked = after(show, {lock: True})
        with pytest.raises(PhonesLocked):
            check_phone(locked, [MIX], pan, then, change.new)
    above = {"channel/1/send/mix/1/level": 6.0}
    limited = after(show, {"mix/1/limit": 3.0})
    with pytest.raises(NotYours):
        check_phone(limited, [MIX], above, made(limited, above)[0], above)


def test_a_phone_is_told_of_its_own_mix_and_of_what_it_shows():
    show = after(started([-5.0, -8.0]), {
        "channel/9/name": "Secret", "channel/9/send/mix/2/level": 0.0, "mix/2/name": "Bo",
        "channel/1/mute": True, "channel/2/send/mix/1/self": True,
    })  # fmt: skip
    told = phone_mix(show, flow_of(show), MIX)
    assert [(one.family, [x.name for x in one.sends]) for one in told.families] == [
        ("me", ["Channel 2"]), ("drums", ["Channel 1"]),
    ]  # fmt: skip
    assert told.families[1].sends[0].silent
    assert "Secret" not in repr(told)
    assert "Bo" not in repr(told)
