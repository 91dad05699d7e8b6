from collections import Counter

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from ombrel.core import (
    Asked,
    LineDraft,
    NothingLeft,
    OnlyInBlocks,
    UnreadableText,
    add_lines,
    blank_show,
    fill,
    fill_channels,
    flow_of,
    lines_on,
    made,
    move_lines,
    one_socket,
    patch_bus_to,
    patch_buses,
    patch_lines,
    patch_output,
    plug_line,
    preview,
    read_numbers,
    read_sockets,
    remove_lines,
    show_of,
    socket_name,
    undoing,
)
from ombrel.core.patching import free_outputs, is_stereo, outputs_of
from ombrel.core.patching.patch import move_sockets
from ombrel.core.show import channels_from, channels_on, socket_spellings
from tests.desks import FESTIVAL, SMALL, TINY, TOURING
from tests.shows import show_of_seed, shows

BLANK = blank_show(TOURING)


def with_lines(*drafts, show=BLANK):
    return made(show, add_lines(show, drafts))[0]


@pytest.mark.parametrize(
    ("text", "first", "count"),
    [
        ("Harbour 1-16", "input/a/1", 16),
        ("a7", "input/a/7", 1),
        ("Stage box Quay 3, 5", "input/b/3", 2),
        ("box a 4-1", "input/a/4", 4),
        ("Local-2", "input/local/2", 1),
        ("tap 1-32", "input/recorder/1", 32),
        ("Deck 5-6, a 1, 3; Quay 2", "input/local/5", 5),
    ],
)
def test_sockets_are_typed_as_people_write_them(text, first, count):
    sockets = read_sockets(TOURING, text)
    assert (sockets[0], len(sockets)) == (first, count)


@pytest.mark.parametrize(
    "text", ["", "A", "Z 1", "Harbour 0", "Harbour 33", "Harbour 1-", "7", "Q 1,1", "H 1, Z 2"]
)
def test_text_that_names_no_sockets_is_refused(text):
    with pytest.raises(UnreadableText):
        read_sockets(TOURING, text)


@pytest.mark.parametrize("desk", [TOURING, FESTIVAL, SMALL, TINY], ids=lambda desk: desk.key)
def test_a_socket_is_read_back_by_its_name_and_by_every_short_spelling(desk):
    """By the profiles as they are: on Festival 128 two places begin with one letter or none do."""
    firsts = Counter(box.short[0].lower() for box in desk.boxes)
    for box in desk.boxes:
        for number in range(1, box.inputs + 1):
            socket = f"input/{box.key}/{number}"
            spelt = socket_spellings(desk, socket)
            assert len(spelt) == (2 if firsts[box.short[0].lower()] == 1 else 1)
            for text in (socket_name(desk, socket), f"{box.name} {number}", *spelt):
                assert read_sockets(desk, text) == [socket], text


@given(st.lists(st.integers(1, 48), min_size=1, unique=True))
def test_numbers_read_back_as_they_were_typed(numbers):
    assert read_numbers(", ".join(map(str, numbers)), highest=48) == numbers


@example(show_of_seed(1876), [1, 2, 3, 4], 1)  # a DCA takes what comes: an undo brings nothing
@given(shows(), st.permutations([1, 2, 3, 4]), st.integers(1, 4))
def test_filling_then_undoing_is_the_identity(show, channels, count):
    sockets = [f"input/a/{n}" for n in range(1, count + 1)]
    after, change = made(show, fill_channels(show, sockets, channels))
    assert [after[f"channel/{c}/source"] for c in channels[:count]] == sockets
    assert made(after, undoing(after, change)[0], own=True)[0] == show


def test_filling_from_where_one_already_stands_changes_nothing_there():
    show, _ = made(BLANK, {f"channel/{n}/source": f"input/a/{n}" for n in (1, 2)})
    _, change = made(show, fill_channels(show, read_sockets(TOURING, "Harbour 1-4"), [1, 2, 3, 4]))
    assert sorted(change.new) == ["channel/3/source", "channel/4/source"]


def test_filling_more_sockets_than_channels_is_refused():
    with pytest.raises(NothingLeft) as caught:
        fill_channels(BLANK, read_sockets(TOURING, "Harbour 1-4"), [47, 48])
    assert (caught.value.wanted, caught.value.left) == (4, 2)


def test_a_socket_holds_one_plug_so_the_line_that_had_it_loses_it():
    show = with_lines(
        LineDraft(name="Fiddle", socket="input/a/1"), LineDraft(name="Kora", socket="input/a/2")
    )
    shown = preview(show, flow_of(show), plug_line(show, 2, "input/a/1"))
    assert [(loss.who, loss.loses, loss.to) for loss in shown.losses] == [
        ("Fiddle", "socket Harbour 1", "Kora"),
        ("Kora", "socket Harbour 2", "nobody"),
    ]
    after, _ = made(show, plug_line(show, 2, "input/a/1"))
    assert lines_on(after, "input/a/1") == [2]


def test_taking_a_channels_source_says_whom_it_silences():
    show, _ = made(
        BLANK,
        {"channel/1/source": "input/a/1", "channel/1/name": "Fiddle", "channel/1/fader": 0.0,
         "output/local/1/source": "house/left", "output/local/2/source": "house/right"},
    )  # fmt: skip
    shown = preview(show, flow_of(show), {"channel/1/source": None})
    assert shown.silenced == (("Fiddle", "House"),)
    assert shown.losses[0].loses == "its source Harbour 1"


def test_lines_are_patched_to_their_own_sockets_or_the_next_free_and_stereo_takes_odd_even():
    show = with_lines(
        LineDraft(name="Fiddle", socket="input/a/2"),
        LineDraft(name="Accordion", stereo=True),
        LineDraft(name="Kora"),
    )
    after, _ = made(show, patch_lines(show, [1, 2, 3]))
    assert after["channel/1/source"] == "input/a/2"
    assert after["channel/1/name"] == "Fiddle"
    assert [after[f"channel/{n}/source"] for n in (3, 4)] == ["input/a/3", "input/a/4"]
    assert [after.text(f"channel/{n}/name") for n in (3, 4)] == ["Accordion L", "Accordion R"]
    assert [after.number(f"channel/{n}/pan") for n in (3, 4)] == [-1.0, 1.0]
    assert after["channel/2/source"] == "input/a/1"  # the mono line takes the gap
    assert not made(after, patch_lines(after, [1, 2, 3]))[1]  # again: nothing to do


def test_lines_are_moved_and_removed():
    show = with_lines(*(LineDraft(name=name) for name in "abcd"))
    show, _ = made(show, move_lines(show, [4], 2))
    assert [show.text(f"line/{n}/name") for n in show.lines()] == ["a", "d", "b", "c"]
    show, _ = made(show, remove_lines(show, [2, 1]))
    assert [show.text(f"line/{n}/name") for n in show.lines()] == ["d", "c"]
    show = with_lines(LineDraft(name="e"), show=show)
    assert [show.text(f"line/{n}/name") for n in show.lines()] == ["d", "c", "e"]


def test_a_fill_passes_fixed_channels_by_from_a_start_and_within_a_range():
    show, _ = made(BLANK, {"channel/2/fixed": True})
    assert channels_from(show, "1", count=3) == [1, 3, 4]
    assert channels_from(show, "4-1", count=3) == [4, 3, 1]
    with pytest.raises(NothingLeft):
        channels_from(show, "1-3", count=3)
    with pytest.raises(NothingLeft):
        channels_from(show, "47", count=3)


def test_a_stage_box_that_moved_takes_lines_channels_and_preamps_along_but_not_phantom():
    show = with_lines(
        LineDraft(name="Fiddle", socket="input/a/1"), LineDraft(name="Kora", socket="input/b/1")
    )
    show, _ = made(
        show,
        {"channel/1/source": "input/a/1", "channel/2/spare": "input/a/1", "input/a/1/gain": 30.0,
         "input/a/1/phantom": True},
    )  # fmt: skip
    moved, change = made(show, fill(show, "Harbour 1-32", "Quay 1"))
    assert (moved["line/1/socket"], moved["line/2/socket"]) == ("input/b/1", None)
    assert (moved["channel/1/source"], moved["channel/2/spare"]) == ("input/b/1", "input/b/1")
    assert (moved["input/b/1/gain"], moved["input/b/1/phantom"]) == (30.0, False)
    assert made(moved, change.old)[0] == show
    with pytest.raises(NothingLeft):
        fill(show, "Harbour 1-32", "Quay 2")


def test_sockets_that_change_places_keep_their_lines():
    show = with_lines(
        LineDraft(name="Fiddle", socket="input/a/1"), LineDraft(name="Kora", socket="input/a/2")
    )
    after, _ = made(
        show, move_sockets(show, ["input/a/1", "input/a/2"], ["input/a/2", "input/a/1"])
    )
    assert (after["line/1/socket"], after["line/2/socket"]) == ("input/a/2", "input/a/1")


def test_a_channel_on_its_spare_is_fed_by_it_and_by_the_desks_own_sources():
    show, _ = made(BLANK, {"channel/1/source": "input/a/1", "channel/1/spare": "oscillator"})
    assert channels_on(show, "input/a/1") == [1]
    show, _ = made(show, {"channel/1/on_spare": True})
    assert channels_on(show, "input/a/1") == []
    assert show.source_of(1) == "oscillator"
    assert one_socket(TOURING, " Talkback ") == "talkback"
    assert one_socket(TOURING, "") is None
    assert [one_socket(TOURING, text) for text in ("Mix 5 L", "house right", "mono", "mix 12")] == [
        "mix/5/left", "house/right", "mono", "mix/12"]  # fmt: skip
    assert [socket_name(TOURING, one) for one in ("mix/5/left", "house", "mono")] == [
        "Mix 5 L", "House", "Mono"]  # fmt: skip


@given(shows(), st.lists(st.sampled_from(["mix/1", "mix/2", "mix/3", "house"]), max_size=4))
def test_no_sequence_of_patches_leaves_a_bus_half_patched_or_an_output_with_two(show, buses):
    for bus in buses:
        try:
            show, _ = made(show, patch_bus_to(show, bus, ""))
        except NothingLeft:
            return
        sides = set(outputs_of(show, bus).values())
        assert sides >= ({"left", "right"} if is_stereo(show, bus) else {"whole"})
    held = [show[f"{socket}/source"] for socket in show.outputs()]
    assert len(held) == len(list(show.outputs()))  # one address, one value: never two


def test_several_mixes_go_to_the_next_free_pairs_and_those_patched_stay():
    show, _ = made(
        blank_show(TINY),
        {"mix/1/format": "stereo", "mix/2/format": "mono", "mix/3/format": "stereo",
         "output/local/2/source": "mix/2"},
    )  # fmt: skip
    show, _ = made(show, patch_buses(show, ["mix/1", "mix/2", "mix/3"]))
    assert list(outputs_of(show, "mix/1")) == ["output/local/3", "output/local/4"]
    assert list(outputs_of(show, "mix/2")) == ["output/local/2"]
    assert list(outputs_of(show, "mix/3")) == ["output/local/5", "output/local/6"]


def test_a_desk_that_patches_in_blocks_takes_whole_blocks_in_order_and_nothing_else():
    show = blank_show(SMALL)
    show, _ = made(show, patch_output(show, "output/recorder/11", "channel/10/direct"))
    carried = [show[f"output/recorder/{n}/source"] for n in range(9, 13)]
    assert carried == [f"channel/{n}/direct" for n in range(9, 13)]
    with pytest.raises(OnlyInBlocks) as caught:
        made(show, {"output/recorder/11/source": None})
    assert (caught.value.first, caught.value.last) == (9, 12)
    with pytest.raises(OnlyInBlocks):
        made(show, {f"output/recorder/{n}/source": f"channel/{n + 1}/direct" for n in range(1, 5)})
    with pytest.raises(UnreadableText):
        patch_output(show, "output/recorder/1", "house/left")
    last, _ = made(show, patch_output(show, "output/recorder/1", "channel/24/direct"))
    assert last["output/recorder/4/source"] == "channel/24/direct"  # the desk's last block
    emptied, _ = made(show, patch_output(show, "output/recorder/12", None))
    assert emptied == blank_show(SMALL)
    show, _ = made(show, patch_output(show, "output/local/1", "house/left"))
    assert show["output/local/1/source"] == "house/left"
    assert show["output/local/2/source"] is None


def test_pairs_of_outputs_are_odd_and_the_even_above():
    """Common practice: a stereo pair is an odd and the even above it."""
    show, _ = made(blank_show(TINY), {"output/local/2/source": "mono"})
    assert free_outputs(show, 2, pairs=True) == ["output/local/3", "output/local/4"]
    assert free_outputs(show, 1) == ["output/local/1"]
    with pytest.raises(NothingLeft):
        free_outputs(show, 99)


def test_who_comes_to_share_a_preamp_is_said_before_and_who_shares_it_already_is_not():
    show = show_of(TINY, {"channel/1/source": "input/a/1", "channel/1/name": "Kick",
                          "channel/2/name": "Twin", "channel/4/source": "input/a/3"})  # fmt: skip
    told = preview(show, flow_of(show), {"channel/2/source": "input/a/1"})
    assert told.shares == ("Kick, Twin share the preamp of A 1 from now on.",)
    shared, _ = made(show, {"channel/2/source": "input/a/1"})
    assert not preview(shared, flow_of(shared), {"channel/3/source": "input/a/2"}).shares
    by_spare: dict[str, Asked] = {"channel/3/spare": "input/a/3", "channel/3/on_spare": True}
    assert preview(show, flow_of(show), by_spare).shares == (
        "Channel 3, Channel 4 share the preamp of A 3 from now on.",
    )


def test_whose_48_v_an_edit_switches_is_said_before_it_who_may_be_harmed_first():
    """Common practice: 48 V may harm what has an output stage of its own; condensers need it."""
    kinds = ("dynamic", "condenser", "radio", "condenser")
    show = show_of(TINY, {
        key: value
        for n, kind in enumerate(kinds, 1)
        for key, value in (
            (f"line/{n}/place", float(n)), (f"line/{n}/name", f"L{n}"), (f"line/{n}/kind", kind),
            (f"line/{n}/socket", f"input/a/{n}"), (f"line/{n}/phantom", n == 4),
        )
    } | {"input/a/2/phantom": True})  # fmt: skip
    sockets = [f"input/a/{n}" for n in (4, 3, 2, 1)]
    on = preview(show, flow_of(show), {f"{one}/phantom": True for one in sockets})
    assert on.powered == (
        "48 V on at A 3: L3 needs none, and may be harmed by it.",
        "48 V on at A 1: L1 needs none.",
        "48 V on at A 4: L4 needs it.",
    )  # A 2 has it
    powered, _ = made(show, {f"{one}/phantom": True for one in sockets})
    off = preview(powered, flow_of(powered), {f"{one}/phantom": False for one in sockets})
    assert off.powered == (
        "48 V off at A 2: L2 may need it.",
        "48 V off at A 4: L4 needs it.",
        "48 V off at A 1: L1 needs none.",
        "48 V off at A 3: L3 needs none.",
    )
    assert not preview(show, flow_of(show), {"input/a/1/gain": 3.0}).powered
