"""Nets without holes: what comes later is in them by the same edit; what starts elsewhere."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    ConsoleError,
    LineDraft,
    Value,
    Ways,
    add_lines,
    blank_show,
    duplicate_channel,
    flow_of,
    made,
    make_mixes,
    members_of,
    merge,
    mute_all,
    patch_lines,
    promises,
    put_between,
    undoing,
    undoing_renumbered,
)
from tests.desks import TINY, TOURING
from tests.shows import SHOW_SEEDS, channels_renamed, show_of_seed

KINDS = ["radio", "talkback", "line", "playback", "dynamic"]
FAMILIES = ["voices", "drums", "cues", "playback", "unsorted"]


def with_lines(show, *drafts):
    show = made(show, add_lines(show, list(drafts)))[0]
    return made(show, patch_lines(show, show.lines()))[0]


def channels_of(show, name):
    return [f"channel/{n}" for n in show.channels() if show[f"channel/{n}/name"] == name]


def test_what_comes_later_is_in_all_inputs_and_all_ears_by_the_same_edit():
    show = with_lines(blank_show(TOURING), LineDraft(name="Voice"), LineDraft(name="Kick"))
    show = made(show, make_mixes(show, ["Ada"], stereo=False))[0]
    for what in ("inputs", "ears"):
        show = made(show, mute_all(show, what))[0]
    assert members_of(show, "mute_group/1") == ["channel/1", "channel/2"]
    before = show
    show, change = made(show, add_lines(show, [LineDraft(name="Fiddle", kind="radio")]))
    show = made(show, patch_lines(show, show.lines()))[0]
    assert members_of(show, "mute_group/1") == ["channel/1", "channel/2", "channel/3"]
    more = made(show, make_mixes(show, ["Bo"], stereo=False))[0]
    assert members_of(more, "mute_group/2") == ["mix/1", "mix/2"]
    # talkback is no input of a band: somebody must be able to talk
    talk = with_lines(more, LineDraft(name="Talk", kind="talkback"))
    assert channels_of(talk, "Talk")[0] not in members_of(talk, "mute_group/1")
    # who is taken out by hand stays out, whatever comes ("all but")
    out = made(talk, {"channel/1/mute_group/1/on": False})[0]
    later = with_lines(out, LineDraft(name="Kora"))
    assert "channel/1" not in members_of(later, "mute_group/1")
    assert channels_of(later, "Kora")[0] in members_of(later, "mute_group/1")
    copy = made(later, duplicate_channel(later, 2))[0]
    assert before.channels() == [1, 2]
    assert copy["channel/2/mute_group/1/on"] is True
    del change


def test_a_family_that_a_dca_takes_joins_when_it_is_chosen_and_when_it_comes():
    show = with_lines(blank_show(TOURING), LineDraft(name="Voice", family="voices"))
    show = made(show, {"dca/1/name": "Voices", "dca/1/takes": "voices"})[0]
    assert members_of(show, "dca/1") == ["channel/1"]
    show = with_lines(show, LineDraft(name="Kick", family="drums"))
    show = with_lines(show, LineDraft(name="Choir", family="voices"))
    assert members_of(show, "dca/1") == ["channel/1", "channel/3"]
    turned = made(show, {"line/2/family": "voices"})[0]
    assert members_of(turned, "dca/1") == ["channel/1", "channel/2", "channel/3"]


def test_nothing_passes_a_group_in_between_unseen_not_even_what_comes_later():
    show = with_lines(blank_show(TOURING), LineDraft(name="Voice"), LineDraft(name="Kick"))
    show = made(show, {"output/local/1/source": "house/left"})[0]
    show = made(show, put_between(show, ["channel/1", "channel/2"], name="Limited").moves)[0]
    assert [one.kept for one in promises(show, flow_of(show))] == [True]
    later = with_lines(show, LineDraft(name="Late guest"))
    [judged] = promises(later, flow_of(later))
    assert [breach.source for breach in judged.breaches] == ["channel/3"]


@pytest.mark.parametrize("way", ["patched", "imported"])
@settings(max_examples=30)
@given(st.sampled_from(KINDS), st.sampled_from(FAMILIES), st.booleans(), st.data())
def test_what_a_line_is_says_whether_its_channel_starts_in_the_house(
    way, kind, family, other, data
):
    table: dict[str, Value] = {
        f"show/house_{what}": data.draw(st.booleans()) if other else starts
        for what, starts in (("talkback", False), ("cues", False), ("playback", True))
    }
    show = made(blank_show(TINY), table)[0]
    draft = LineDraft(name="It", kind=kind, family=family, socket="input/local/1")
    if way == "patched":
        after = with_lines(show, draft)
    else:
        merged = merge(show, [draft], Ways())
        after = made(show, merged.moves, own=True)[0]
    names = {
        "talkback": kind == "talkback",
        "cues": family == "cues",
        "playback": kind == "playback",
    }
    starts = all(table[f"show/house_{what}"] for what, is_one in names.items() if is_one)
    assert after.on("channel/1/house/on") is starts
    if way == "imported":
        told = any("out of the house" in one for one in merged.fates[0].told)
        assert told is not starts
    # by hand it goes there all the same, and a source that is patched anew moves nothing
    by_hand = made(after, {"channel/1/house/on": True})[0]
    again = made(by_hand, {"channel/1/source": None})[0]
    assert made(again, {"channel/1/source": "input/local/1"})[0].on("channel/1/house/on") in (
        True, starts,
    )  # fmt: skip
    # undo and redo are exact
    gone, change = made(after, {"channel/1/source": None})
    back = made(gone, undoing(gone, change)[0], own=True)[0]
    assert back == after


def test_what_a_recorder_plays_back_starts_out_of_the_house():
    show = blank_show(TOURING)
    tape = next(box for box in TOURING.boxes if not box.preamps and box.inputs)
    fed = made(show, {"channel/9/source": f"input/{tape.key}/1"})[0]
    assert fed["channel/9/house/on"] is False
    asked = made(show, {"channel/9/source": f"input/{tape.key}/1", "channel/9/house/on": True})[0]
    assert asked["channel/9/house/on"] is True


NET_MOVES: dict[str, list[Value]] = {
    **{f"channel/{n}/source": [None, "input/local/1", "input/local/2", "talkback", "mix/1/left"]
       for n in (1, 2, 3)},
    **{f"channel/{n}/spare": [None, "input/local/3"] for n in (1, 2)},
    **{f"channel/{n}/on_spare": [True, False] for n in (1, 2)},
    **{f"mix/{n}/format": ["unused", "mono", "stereo"] for n in (1, 2)},
    **{f"mix/{n}/serves": ["ears", "effect", "wedge"] for n in (1, 2)},
    **{f"line/{n}/kind": ["talkback", "radio"] for n in (1, 2)},
    **{f"mute_group/{n}/takes": ["chosen", "inputs", "ears"] for n in (1, 2)},
    **{f"{strip}/mute_group/1/on": [True, False] for strip in ("channel/1", "channel/2", "mix/1")},
}  # fmt: skip


def those(show, takes):
    """Who a rule takes, read from addresses alone."""
    if takes == "ears":
        mixes = [n for n in range(1, show.desk.mixes + 1) if show[f"mix/{n}/format"] != "unused"]
        return {f"mix/{n}" for n in mixes if show[f"mix/{n}/serves"] == "ears"}
    if takes != "inputs":
        return set()
    talks = {show[f"line/{n}/socket"] for n in (1, 2) if show[f"line/{n}/kind"] == "talkback"}
    found = set()
    for n in range(1, show.desk.channels + 1):
        fed = show[f"channel/{n}/{'spare' if show[f'channel/{n}/on_spare'] else 'source'}"]
        if str(fed).startswith("input/") and fed not in talks:
            found.add(f"channel/{n}")
    return found


@settings(max_examples=60)
@given(st.lists(st.dictionaries(st.sampled_from(sorted(NET_MOVES)), st.randoms(), min_size=1,
                                max_size=4), min_size=2, max_size=8))  # fmt: skip
def test_who_comes_to_be_one_of_them_is_in_by_that_edit_and_nobody_else_moves(edits):
    lines: dict[str, Value] = {"line/1/place": 1.0, "line/1/socket": "input/local/1",
             "line/2/place": 2.0, "line/2/socket": "input/local/2"}  # fmt: skip
    show = made(blank_show(TINY), lines)[0]
    for edit in edits:
        asked = {address: draw.choice(NET_MOVES[address]) for address, draw in edit.items()}
        before = show
        try:
            show = made(show, asked)[0]
        except ConsoleError:
            continue  # a loop, or a source in use: nothing of it happened
        for net in ("mute_group/1", "mute_group/2"):
            was, now = set(members_of(before, net)), set(members_of(show, net))
            by_hand = {a.removesuffix(f"/{net}/on") for a in asked if a.endswith(f"/{net}/on")}
            takes = show[f"{net}/takes"]
            chosen = takes != before[f"{net}/takes"] and not by_hand
            came = those(show, takes) - (set() if chosen else those(before, takes))
            assert came - by_hand <= now
            assert now - was <= came | by_hand
            assert was - now <= by_hand


def out_of_the_nets():
    """A click that is in the house all the same, and a voice that is out of all inputs."""
    lines = [LineDraft(name="Click", family="cues", socket="input/local/1", channel=1),
             LineDraft(name="Voice", socket="input/local/2", channel=2)]  # fmt: skip
    show = made(blank_show(TINY), {"mute_group/1/takes": "inputs", "mute_group/1/name": "All"})[0]
    show = made(show, merge(show, lines, Ways(numbered=True)).moves, own=True)[0]
    return made(show, {"channel/1/house/on": True, "channel/2/mute_group/1/on": False})[0]


def stands_out(show, click, voice):
    return (show[f"channel/{click}/name"], show.on(f"channel/{click}/house/on"),
            show[f"channel/{voice}/name"], show.on(f"channel/{voice}/mute_group/1/on"),
            )  # fmt: skip


OUT = ("Click", True, "Voice", False)


def test_under_another_number_nobody_comes_anew_and_undo_brings_nobody_in():
    show = out_of_the_nets()
    assert stands_out(show, 1, 2) == OUT
    moved = made(show, channels_renamed(show, {1: 3, 2: 4}), own=True)[0]
    assert stands_out(moved, 3, 4) == OUT
    to = {"channel/1": "channel/3", "channel/2": "channel/4"}
    back, left = undoing_renumbered(moved, show, moved, to)
    assert left == ()
    assert made(moved, back, own=True)[0].own == show.own


def test_a_list_that_moves_lines_moves_nobody_into_a_net_but_what_is_new():
    show = out_of_the_nets()
    lines = [LineDraft(name="New", socket="input/local/3", channel=1),
             LineDraft(name="Click", family="cues", socket="input/local/1", channel=3),
             LineDraft(name="Voice", socket="input/local/2", channel=4)]  # fmt: skip
    merged = merge(show, lines, Ways(numbered=True))
    after = made(show, merged.moves, own=True)[0]
    assert stands_out(after, 3, 4) == OUT
    assert after["channel/1/name"] == "New"
    assert after.on("channel/1/mute_group/1/on")


@settings(max_examples=25)
@given(SHOW_SEEDS, st.permutations(range(1, TINY.channels + 1)))
def test_renumbering_by_an_edit_is_renumbering_and_nothing_beside(seed, order):
    show = show_of_seed(seed)
    show = show.with_values({a: False for a in show.own if a.endswith("/linked")})
    moves = channels_renamed(show, dict(zip(show.channels(), order, strict=False)))
    after = made(show, moves, own=True)[0]
    assert after.own == show.with_values(moves).own
