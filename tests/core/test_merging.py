"""Lists laid against shows: nothing doubled, numbers kept or told, what stays set stays set."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    LINES,
    LineDraft,
    NothingLeft,
    Ways,
    blank_show,
    flow_of,
    made,
    merge,
    preview,
    remove_lines,
    sockets_of_line,
)
from ombrel.core.show import channels_on
from tests.desks import SMALL, TOURING
from tests.shows import channels_renamed, shows

BLANK = blank_show(TOURING)


def taken(show, drafts, **ways):
    merged = merge(show, drafts, Ways(**ways))
    return made(show, merged.moves)[0], merged


def drafts_of(*names, start=1, **more):
    return [LineDraft(name=name, channel=start + turn, **more) for turn, name in enumerate(names)]


def names(show):
    """Names by channel."""
    return {n: show.text(f"channel/{n}/name") for n in show.channels()}


DRAFTS = st.lists(
    st.builds(
        LineDraft,
        name=st.sampled_from(["Kick", "Snare", "Fiddle", "Kora", "Keys", "Voice", "Voice "]),
        stereo=st.booleans(),
        channel=st.one_of(st.none(), st.integers(1, 60)),
        socket=st.one_of(st.none(), st.integers(1, 8).map(lambda n: f"input/a/{n}")),
        microphone=st.sampled_from(["", "clip"]),
        said=st.sampled_from([frozenset(), frozenset({"microphone"}), frozenset({"kind"})]),
    ),
    min_size=1,
    max_size=6,
)


@settings(max_examples=50)
@given(DRAFTS, st.booleans(), st.booleans(), st.sampled_from([None, True, False]))
def test_a_list_taken_twice_changes_nothing_the_second_time(drafts, patch, odd_pairs, numbered):
    ways = {"patch": patch, "odd_pairs": odd_pairs, "numbered": numbered}
    once, first = taken(BLANK, drafts, **ways)
    assert {fate.state for fate in first.fates} == {"new"}
    twice, second = taken(once, drafts, **ways)
    assert twice == once
    assert {fate.state for fate in second.fates} == {"same"}
    assert second.gone == ()


@settings(max_examples=50)
@given(DRAFTS, DRAFTS)
def test_what_is_told_of_a_list_is_what_happens(drafts, more):
    """Each fate against the show that the edit then gives, reckoned from the show alone."""
    show, _ = taken(BLANK, drafts)
    after, merged = taken(show, more)
    assert len({fate.line for fate in merged.fates}) == len(more)
    for draft, fate in zip(more, merged.fates, strict=True):
        assert after.text(f"line/{fate.line}/name") == draft.name
        sockets = sockets_of_line(after, fate.line)
        assert [s for s in fate.sockets if s] == sockets
        for socket, channel in zip(sockets, fate.channels, strict=False):
            assert channel == next(iter(channels_on(after, socket)), 0)
    assert set(after.lines()) == {f.line for f in merged.fates} | set(merged.gone) - set(
        merged.leaving
    )
    plugged = [s for line in after.lines() for s in sockets_of_line(after, line)]
    assert len(plugged) == len(set(plugged))


@settings(max_examples=50)
@given(DRAFTS, DRAFTS)
def test_numbers_of_a_list_are_kept_or_it_is_told_why_not(drafts, more):
    show, _ = taken(BLANK, drafts)
    _, merged = taken(show, more, numbered=True)
    for draft, fate in zip(more, merged.fates, strict=True):
        if draft.channel and fate.channels[0] != draft.channel:
            assert fate.told


def test_numbers_keep_their_gaps_and_doubles_and_ends_are_told():
    drafts = [
        LineDraft(name="Kick", channel=3),
        LineDraft(name="Snare", channel=3),
        LineDraft(name="Fiddle", channel=90),
        LineDraft(name="Keys", stereo=True, channel=8, channel_right=9),
    ]
    after, merged = taken(BLANK, drafts)
    assert names(after) == {1: "Snare", 2: "Fiddle", 3: "Kick", 8: "Keys L", 9: "Keys R"}
    told = [" ".join(fate.told) for fate in merged.fates]
    assert told[0] == told[3] == ""
    assert "channel 3 is Kick's already" in told[1]
    assert "no 90" in told[2]
    assert merged.even_pairs == 1
    # without sockets of its own, a numbered list is patched one to one
    assert [after[f"channel/{n}/source"] for n in (3, 8, 9)] == [f"input/a/{n}" for n in (3, 8, 9)]
    odd, _ = taken(BLANK, drafts, odd_pairs=True)
    assert (names(odd)[5], names(odd)[6]) == ("Keys L", "Keys R")


def test_in_order_passes_by_what_the_list_says():
    after, _ = taken(BLANK, drafts_of("Kick", "Snare", start=20), numbered=False)
    assert names(after) == {1: "Kick", 2: "Snare"}


def test_a_newer_list_moves_channels_with_all_that_is_set_of_them():
    show, _ = taken(BLANK, drafts_of("Kick", "Snare", "Fiddle"))
    show, _ = made(
        show,
        {"channel/2/fader": -7.0, "channel/2/send/mix/4/level": -3.0, "channel/3/mute": True,
         "output/local/3/source": "channel/2/direct"},
    )  # fmt: skip
    newer = [*drafts_of("Kick", "Snare top", start=1), *drafts_of("Snare", "Fiddle", start=3)]
    after, merged = taken(show, newer)
    assert names(after) == {1: "Kick", 2: "Snare top", 3: "Snare", 4: "Fiddle"}
    assert after["channel/3/fader"] == -7.0
    assert after["channel/3/send/mix/4/level"] == -3.0
    assert after["channel/2/send/mix/4/level"] == -math.inf
    assert after.on("channel/4/mute")
    assert after["output/local/3/source"] == "channel/3/direct"
    assert [fate.state for fate in merged.fates] == ["same", "new", "changed", "changed"]
    assert "channel 2 \u2192 3, with its fader and sends" in merged.fates[2].changes


def test_a_new_name_on_the_channel_of_a_line_that_left_is_that_line_renamed():
    show, _ = taken(BLANK, drafts_of("Kick", "Snare", "Fiddle"))
    show, _ = made(show, {"channel/3/fader": -2.0})
    after, merged = taken(show, drafts_of("Kick", "Snare", "Violin"))
    assert names(after)[3] == "Violin"
    assert after["channel/3/fader"] == -2.0
    assert merged.fates[2].changes == ("name Fiddle \u2192 Violin",)
    assert merged.gone == ()


def test_what_a_list_does_not_speak_of_stays_as_somebody_set_it():
    said = frozenset({"microphone"})
    show, _ = taken(BLANK, drafts_of("Kick", microphone="clip", said=said))
    show, _ = made(show, {"line/1/kind": "radio", "line/1/notes": "mine", "line/1/level_dbu": -9.0})
    after, merged = taken(show, drafts_of("Kick", microphone="plate", kind="condenser", said=said))
    assert (after["line/1/kind"], after["line/1/notes"], after["line/1/level_dbu"]) == (
        "radio", "mine", -9.0,
    )  # fmt: skip
    assert merged.fates[0].changes == ("mic or DI clip \u2192 plate",)


def test_lines_that_a_newer_list_no_longer_names_leave_and_it_is_said_what_becomes_of_them():
    show, _ = taken(BLANK, drafts_of("Kick", "Snare", "Fiddle", "Kora"))
    show, _ = made(show, {"mix/1/format": "mono", "channel/4/send/mix/1/level": 0.0})
    newer = drafts_of("Kick", "Snare", "Fiddle")
    after, merged = taken(show, newer)
    assert merged.gone == (4,)
    assert merged.leaving == {
        4: "Channel 4 loses its source and name; 1 send stays set, with nothing to send."
    }
    assert 4 not in after.lines()
    assert after["channel/4/source"] is None
    kept, merged = taken(show, newer, leaving=frozenset())
    assert 4 in kept.lines()
    assert kept["channel/4/source"] == "input/a/4"
    assert merged.leaving == {}


def test_another_bands_list_takes_nobody_off_and_no_channel_away():
    show, _ = taken(BLANK, drafts_of("Kick", "Snare", "Fiddle", "Kora"))
    after, merged = taken(show, drafts_of("Tuba", "Horn", "Voice"))
    assert not merged.ways.numbered
    assert names(after) == dict(
        enumerate(["Kick", "Snare", "Fiddle", "Kora", "Tuba", "Horn", "Voice"], start=1)
    )
    forced, merged = taken(show, drafts_of("Tuba", "Horn", "Voice"), numbered=True)
    assert names(forced)[1] == "Tuba"
    assert "takes channel 1 from Kick" in merged.fates[0].told


def test_as_many_as_fit_are_patched_and_which_are_not_is_said():
    small = blank_show(SMALL)
    drafts = [LineDraft(name=f"Line {n}") for n in range(30)]
    after, merged = taken(small, drafts)
    assert len(after.lines()) == 30
    assert len(after.channels()) == 24
    assert merged.unpatched == (24, 25, 26, 27, 28, 29)
    assert "not patched" in merged.fates[24].told[0]
    with pytest.raises(NothingLeft, match="lines"):
        merge(small, [LineDraft(name="x")] * (LINES + 1), Ways())


def test_a_socket_is_taken_from_whoever_has_it_and_within_the_list_by_the_first():
    show, _ = taken(BLANK, [LineDraft(name="Kora", socket="input/a/1")])
    drafts = [
        LineDraft(name="Fiddle", socket="input/a/1"),
        LineDraft(name="Oud", socket="input/a/1"),
    ]
    after, merged = taken(show, drafts, patch=False)
    assert sockets_of_line(after, merged.fates[0].line) == ["input/a/1"]
    assert merged.fates[0].told == ("takes Harbour 1 from Kora",)
    assert "Harbour 1 is Fiddle's already" in merged.fates[1].told[0]


def test_an_import_is_one_change_and_one_undo():
    drafts = [LineDraft(name=f"Line {n}", kind="radio") for n in range(40)]
    after, change = made(BLANK, merge(BLANK, drafts, Ways()).moves)
    assert len(after.lines()) == 40
    assert after["line/1/level_dbu"] == -20.0
    assert [len(channels_on(after, f"input/a/{n}")) for n in range(1, 33)] == [1] * 32
    assert made(after, change.old)[0] == BLANK


@settings(max_examples=30)
@given(shows(), st.permutations(list(range(1, 7))))
def test_channels_that_are_moved_and_moved_back_are_as_they_were(show, order):
    # a pair whose sides part ways is parted, and stays so
    show = show.with_values({f"channel/{n}/linked": False for n in (1, 3, 5)})
    there = dict(zip(range(1, 7), order, strict=True))
    moved = show.with_values(channels_renamed(show, there))
    back = moved.with_values(channels_renamed(moved, {new: old for old, new in there.items()}))
    assert back == show


def test_removing_a_line_frees_its_channel_only_when_asked_to():
    show, _ = taken(BLANK, drafts_of("Kick", "Snare"))
    kept, _ = made(show, remove_lines(show, [1]))
    assert kept["channel/1/source"] == "input/a/1"
    freed, _ = made(show, remove_lines(show, [1], free=True))
    assert freed["channel/1/source"] is None
    assert names(freed) == {2: "Snare"}


def test_a_preview_says_of_a_leaving_line_what_its_channel_and_sends_become():
    show, _ = taken(BLANK, drafts_of("Kick", "Snare"))
    show, _ = made(show, {"mix/2/format": "stereo", "channel/1/send/mix/2/level": -4.0})
    kept = preview(show, flow_of(show), remove_lines(show, [1]))
    assert kept.leaving == (("Kick", "Channel 1 keeps its socket and name; 1 send stays set."),)
    assert kept.losses == ()
    freed = preview(show, flow_of(show), remove_lines(show, [1], free=True))
    says = "Channel 1 loses its source and name; 1 send stays set, with nothing to send."
    assert freed.leaving == (("Kick", says),)
