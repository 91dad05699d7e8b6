"""Banks: what lies under which fader, and what unfolds there."""

import pytest

from ombrel.core import (
    EditRefused,
    NothingLeft,
    UnknownAddress,
    UnreadableText,
    blank_show,
    clear_bank,
    fill_bay,
    fix_strips,
    made,
    make_banks,
    unfolded,
)
from ombrel.core.together.banks import banks_in_use, on_bay, pages_of
from ombrel.demo import demo_show
from tests.desks import TINY, TOURING

DEMO = demo_show(TOURING)


def test_strips_are_put_on_a_bay_in_order_as_often_as_wanted_and_fixed_ones_win():
    show = blank_show(TINY)
    show, _ = made(show, make_banks(show, ["Voices", "Band"]))
    show, _ = made(show, fill_bay(show, 1, 1, "1-2, 1"))
    assert on_bay(show, 1, 1) == ["channel/1", "channel/2", "channel/1"]
    show, _ = made(show, fix_strips(show, 1, "house"))
    assert on_bay(show, 1, 1) == ["channel/1", "channel/2", "house"]
    assert on_bay(show, 2, 1) == [None, None, "house"]
    show, _ = made(show, fill_bay(show, 2, 1, "dca 1, mix 2"))
    assert on_bay(show, 2, 1) == ["dca/1", "mix/2", "house"]
    with pytest.raises(NothingLeft, match="Left"):
        fill_bay(show, 2, 1, ", ".join(["1"] * 163))
    show, _ = made(show, fix_strips(show, 1, ""))
    assert on_bay(show, 1, 1) == ["channel/1", "channel/2", "channel/1"]  # it was only covered
    assert banks_in_use(show) == [1, 2]
    show, _ = made(show, clear_bank(show, 1))
    assert banks_in_use(show) == [2]


def test_a_bank_of_more_strips_than_faders_goes_on_page_after_page_past_what_is_fixed():
    show = blank_show(TINY)  # three faders a side, four channels
    show, _ = made(show, fix_strips(show, 1, "house"))
    show, _ = made(show, fill_bay(show, 1, 1, "1-4, mix 1, channel 1"))
    pages = [on_bay(show, 1, 1, page) for page in (1, 2, 3, 4)]
    assert pages == [
        ["channel/1", "channel/2", "house"],
        ["channel/3", "channel/4", "house"],
        ["mix/1", "channel/1", "house"],
        [None, None, "house"],
    ]
    assert pages_of(show, 1, 1) == 3
    assert pages_of(show, 2, 1) == 1
    freed, _ = made(show, fix_strips(show, 1, ""))  # nothing is lost by more room
    assert pages_of(freed, 1, 1) == 3
    assert on_bay(freed, 1, 1, 2) == ["channel/3", "channel/4", "mix/1"]
    fewer, _ = made(show, fill_bay(show, 1, 1, "4"))
    assert pages_of(fewer, 1, 1) == 1
    assert len(made(show, fill_bay(show, 1, 1, "1, " * 80 + "2"))[1].new) > 70


def test_what_a_bay_or_bank_is_not_is_refused_by_name():
    show = blank_show(TINY)
    with pytest.raises(UnknownAddress, match="2 bays"):
        fill_bay(show, 1, 3, "1")
    with pytest.raises(UnreadableText):
        make_banks(show, [])
    with pytest.raises(EditRefused, match="3 faders"):
        made(show, {"bay/1/fixed/4": "channel/1"})
    with pytest.raises(EditRefused, match="160 places"):
        made(show, {"bank/1/1/161": "channel/1"})
    with pytest.raises(EditRefused):
        made(show, {"bank/1/1/1": "input/a/1"})
    with pytest.raises(NothingLeft):
        make_banks(show, [f"Bank {n}" for n in range(31)])


def test_a_dca_unfolds_to_its_direct_members_dcas_first_a_mix_to_what_is_sent_there():
    """By the demo's own making: Band holds Drums and Brass, basses and strings (21-22 a pair)."""
    assert unfolded(DEMO, "dca/6") == ["dca/3", "dca/4", *(f"channel/{n}" for n in range(17, 22))]
    assert unfolded(DEMO, "dca/9") == ["return/1", "return/2"]
    heard = unfolded(DEMO, "mix/9")  # the hall
    assert all(DEMO.number(f"{s}/send/mix/9/level") > -100.0 for s in heard)
    rights = [n + 1 for n in DEMO.channels() if DEMO.on(f"channel/{n}/linked")]
    silent = [n for n in DEMO.channels() if n not in rights and f"channel/{n}" not in heard]
    assert all(DEMO.number(f"channel/{n}/send/mix/9/level") == float("-inf") for n in silent)
    off, _ = made(DEMO, {f"{heard[0]}/send/mix/9/on": False})
    assert unfolded(off, "mix/9") == heard[1:]
    assert set(unfolded(DEMO, "group/2")) == {
        f"channel/{n}"
        for n in DEMO.channels()
        if DEMO.on(f"channel/{n}/group/2/on") and n not in rights
    }
    with pytest.raises(UnknownAddress):
        unfolded(DEMO, "channel/1")
