import pytest
from hypothesis import given
from hypothesis import strategies as st

from ombrel.core import BadFile
from ombrel.formats import stage_osc
from ombrel.formats.stage_osc import Command, read_command, read_levels

LEVELS = st.dictionaries(
    st.integers(1, 48).map(lambda n: f"input/a/{n}"), st.floats(-120, 24, width=32), max_size=20
)


@given(LEVELS)
def test_levels_read_back_as_they_were_told(levels_dbu):
    assert read_levels(stage_osc.levels(levels_dbu)) == levels_dbu


def test_a_message_is_laid_out_as_osc_1_0_says():
    """OSC 1.0: address and type tags as strings padded to 4 bytes, then big-endian arguments."""
    assert stage_osc.listen() == b"/stage/listen\0\0\0,\0\0\0"
    assert stage_osc.levels({"input/a/7": 1.0}) == (
        b"/stage/levels\0\0\0" b",sf\0" b"input/a/7\0\0\0" b"\x3f\x80\x00\x00"
    )  # fmt: skip


def test_commands_read_back():
    fed = Command(verb="feed", sockets=("input/a/7",), signal="tone", dbu=-20.0)
    assert read_command(stage_osc.feed("input/a/7", "tone", -20.0)) == fed
    swapped = Command(verb="swap", sockets=("input/a/7", "input/a/8"))
    assert read_command(stage_osc.swap("input/a/7", "input/a/8")) == swapped
    assert read_command(stage_osc.straight()).verb == "straight"
    assert read_command(stage_osc.listen()).verb == "listen"


WHOLE = stage_osc.levels({"input/a/7": 1.0})


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"/stage/feed",
        b"/stage/levels\0\0\0,s\0\0",
        *(WHOLE[:length] for length in range(1, len(WHOLE))),
        b"/stage/feed\0,sf\0input/a/7\0\0\0\x3f\x80\x00\x00",
    ],
)
def test_damaged_and_cut_off_messages_are_refused(content):
    for read in (read_command, read_levels):
        with pytest.raises(BadFile):
            read(content)


@given(st.binary(max_size=80))
def test_any_bytes_are_read_or_refused(content):
    def outcome(read):
        try:
            return read(content) is not None
        except BadFile:
            return True

    assert outcome(read_levels)
    assert outcome(read_command)


@pytest.mark.parametrize("dbu", [float("nan"), float("inf"), float("-inf"), 250.0])
def test_what_is_no_level_is_not_fed(dbu):
    with pytest.raises(BadFile):
        read_command(stage_osc.feed("input/a/7", "tone", dbu))
