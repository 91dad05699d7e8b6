"""Two states of a show: what differs, who hears otherwise, and the way back."""

import math

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from ombrel.core import (
    FeedbackLoop,
    Value,
    belongs_to,
    compared,
    differences,
    edited,
    flow_of,
    restored,
    show_of,
)
from ombrel.core.words import value_text
from tests.core.walk import Referee
from tests.desks import TINY
from tests.shows import SHOW_SEEDS, often, show_of_seed


def moving(show, moves):
    """What moves change: what would join a mix by them is named as it stands, and stays."""
    return {address for address, value in moves.items() if value != show.own_value(address)}


def feeds_back_by_itself(show):
    try:
        flow_of(show)
    except FeedbackLoop:
        return True
    return False


@given(SHOW_SEEDS, SHOW_SEEDS)
@settings(max_examples=often(25), deadline=None)
@example(10448, 1)  # the way back is refused: a safe mute group stays off
def test_the_way_back_leads_back_and_nothing_differs_then(one, other):
    before, after = show_of_seed(one), show_of_seed(other)
    moves = restored(after, before)
    differing = {d.address for d in differences(before, after)}
    keys = {a for a in differing if a.startswith("mute_group/") and a.endswith("/on")}
    held = {a for a in keys if after[a.replace("/on", "/safe")]}  # nothing moves a safe key
    assert differing - held == moving(after, moves)
    expected = before.with_values({address: after[address] for address in held})
    if feeds_back_by_itself(expected):  # what was muted then is not, by a key that nothing moves
        with pytest.raises(FeedbackLoop):
            edited(after, flow_of(after), moves)
        return
    back = edited(after, flow_of(after), moves).show
    assert back == expected
    assert {d.address for d in differences(before, back)} == held


@given(SHOW_SEEDS, SHOW_SEEDS, st.sampled_from(["channel/1", "mix/1", "mix/2", "house", "group/1"]))
@settings(max_examples=often(25), deadline=None)
def test_one_strip_goes_back_alone(one, other, strip):
    before, after = show_of_seed(one), show_of_seed(other)
    moves = moving(after, restored(after, before, [strip]))
    # read plainly: an address is a strip's if the strip's words stand in it one after another
    words = strip.split("/")
    for difference in differences(before, after):
        parts = difference.address.split("/")
        runs = [parts[at : at + len(words)] for at in range(len(parts))]
        at_end = parts[-len(words) :] == words
        assert (difference.address in moves) == (words in runs and not at_end)


@pytest.mark.parametrize(("one", "other"), [(1, 2), (3, 4), (5, 6), (7, 8)][: often(4)])
def test_who_hears_otherwise_is_what_two_walks_differ_in(one, other):
    before, after = show_of_seed(one), show_of_seed(other)
    found = {
        (c.source, c.listener): (c.was_db, c.now_db)
        for c in compared(before, after, flow_of(before), flow_of(after))
    }
    referees = Referee(before), Referee(after)
    pairs = [(c, m) for c in ("channel/1", "channel/2", "return/1") for m in ("mix/1", "house")]
    for source, listener in pairs:
        told = [one.answer(source, listener) for one in referees]
        # what does not arrive in both has nothing to differ in
        was, now = (level if state == "heard" else -math.inf for state, level, _ in told)
        if was == now or abs(was - now) < 0.04:
            assert (source, listener) not in found
        elif abs(was - now) > 0.06:
            assert found[source, listener] == pytest.approx((was, now), abs=1e-6)


def test_values_read_as_people_say_them():
    show = show_of(TINY, {})
    said: list[tuple[str, Value, str]] = [
        ("channel/1/fader", -math.inf, "off"),
        ("channel/1/fader", -6.5, "−6.5 dB"),
        ("channel/1/mute", True, "on"),
        ("channel/1/send/mix/1/tap", "before_fader_after_mute", "before fader, after mute"),
        ("channel/1/source", None, "nothing"),
        ("channel/1/source", "mix/1/left", "Mix 1 L"),
        ("channel/1/name", "", "nothing"),
        ("line/1/place", 3.0, "3"),
    ]
    for address, value, text in said:
        assert value_text(show, address, value) == text
    assert belongs_to("channel/1/send/mix/2/level", "mix/2")
    assert not belongs_to("channel/12/fader", "channel/1")
    assert not belongs_to("channel/1/send/mix/2/level", "mix/20")
