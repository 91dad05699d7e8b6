"""What is refused is told by names: no address in it, of whatever is on a desk."""

import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    EditRefused,
    OutOfRange,
    UnknownAddress,
    WrongValue,
    edited,
    flow_of,
    refusal,
)
from ombrel.demo import demo_show
from tests.desks import TINY, TOURING
from tests.shows import SHOW_SEEDS, show_of_seed, strip_addresses

DEMO = demo_show(TOURING)
ADDRESS = re.compile(r"[a-z_]+/[0-9a-z]")


@settings(max_examples=80)
@given(seed=SHOW_SEEDS, pick=st.integers(0, 10_000))
def test_no_refusal_tells_an_address(seed, pick):
    show = show_of_seed(seed)
    addresses = strip_addresses(TINY)
    address = addresses[pick % len(addresses)]
    for error in (
        WrongValue(address, "a number", "x"),
        OutOfRange(address, 99.0, 0.0, 1.0, "dB"),
        UnknownAddress(address, "this desk has fewer"),
    ):
        for known in (show, None):
            assert not ADDRESS.search(refusal(error, known))


def test_a_refusal_names_who_and_what_and_says_what_is_needed():
    assert refusal(WrongValue("channel/1/fader", "a number", "x"), DEMO) == (
        "Ring host, fader: a number is needed, not 'x'."
    )
    assert refusal(WrongValue("channel/1/fader", "a number", "x")).startswith("Channel 1, fader:")
    assert refusal(OutOfRange("input/a/3/gain", 99.0, 0.0, 60.0, "dB"), DEMO).startswith(
        "Harbour 3, gain:"
    )
    assert refusal(UnknownAddress("nonsense/1/x")).startswith("nonsense/1/x")
    with pytest.raises(EditRefused) as caught:
        edited(DEMO, flow_of(DEMO), {"channel/1/send/mix/2/level": "loud"})
    assert "Ring host to Ears tellers, send: a number" in refusal(caught.value, DEMO)
