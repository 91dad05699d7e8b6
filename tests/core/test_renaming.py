"""Strips get other numbers: everything that says their names follows, and nothing else moves."""

import json
import re

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ombrel.core import (
    Asked,
    ConsoleError,
    LineDraft,
    NothingLeft,
    State,
    UnreadableText,
    Ways,
    blank_show,
    choose_cast,
    duplicate_bus,
    flow_of,
    keep,
    made,
    merge,
    move_bus,
    part_on,
    recall,
    remove_bus,
    renumber_channels,
    store_scene,
    strips_in,
)
from ombrel.core.edit import renamed
from ombrel.core.scenes import usual_cells
from ombrel.core.wires import layout_of
from tests.desks import TINY
from tests.shows import SEEDS, SHOW_SEEDS, permitted, raw_edit_of_seed, show_of_seed

from .test_casting_machine import company_show

KINDS = ("channel", "mix", "group")


def evening(seed, edit_seed):
    """A random show with somebody on, two scenes of all strips (one cell of each asleep), pins."""
    show = show_of_seed(seed)
    company = company_show().own
    people = {a: v for a, v in company.items() if a.startswith(("performer/", "part/", "cast/"))}
    show = permitted(show, dict(people))
    show = made(show, {"channel/1/linked": False, "channel/3/linked": False})[0]
    show = made(show, choose_cast(show, "cast/2", since_s=5.0).moves, own=True)[0]
    on = next(iter(show.layers.on.values()), None)
    if on is not None:
        carries = {f"{on.fitting}/carries_sends": True, f"{on.fitting}/carries_members": True}
        show = made(show, carries)[0]
        channel = show.layers.at[on.fitting]
        show = permitted(
            show, {f"{channel}/send/mix/1/level": -7.0, f"{channel}/pinned_sends": True}
        )
        show = made(show, keep(show, on.fitting, by="ann", at_s=7.0), own=True)[0]
    for name in ("One", "Two"):
        strips = layout_of(show.desk).strips
        cells = {strip: usual_cells(show, strip.split("/")[0]) for strip in strips}
        show = made(show, store_scene(show, name, cells), own=True)[0]
        show = permitted(show, raw_edit_of_seed(show, edit_seed, most=8))
    return show


def text_of(show):
    """All own values of a show as JSON, what is packed unfolded, in no order."""
    found = {}
    for address, value in show.own.items():
        if "/holds/" in address or "/version/" in address:
            value = json.loads(value)
            for cells in ("cells", "asleep"):
                value[cells] = {cell: True for cell in value.get(cells, ())}
        elif address.endswith("/held_back"):
            value = {cell: True for cell in value.split()}
        if not address.endswith(("/linked", "/fixed")):
            found[address] = value
    return json.dumps(found, sort_keys=True)


def said(text, to):
    """The referee: names in a text replaced, whatever the text is about. Boxes have other names."""
    pattern = re.compile(rf"(?<![\w-])({'|'.join(KINDS)})/(\d+)(?!\d)")
    return pattern.sub(lambda m: to.get(m[0], m[0]), text)


def orders(draw_from):
    return st.fixed_dictionaries(
        {kind: st.permutations(range(1, TINY.count(kind) + 1)) for kind in draw_from}
    )


def names_of(order):
    return {
        f"{kind}/{old}": f"{kind}/{new}"
        for kind, numbers in order.items()
        for old, new in enumerate(numbers, start=1)
        if old != new
    }


@settings(max_examples=20, deadline=None)
@given(SHOW_SEEDS, SEEDS, orders(KINDS))
def test_every_name_in_a_show_follows_and_nothing_else_moves(seed, edit_seed, order):
    show, to = evening(seed, edit_seed), names_of(order)
    after = show.with_values(renamed(show, to))
    assert json.loads(text_of(after)) == json.loads(said(text_of(show), to))
    back = after.with_values(renamed(after, {new: old for old, new in to.items()}))
    assert json.loads(text_of(back)) == json.loads(text_of(show))


@settings(max_examples=15, deadline=None)
@given(SHOW_SEEDS, SEEDS, orders(KINDS), st.sampled_from(["scene/1", "scene/2"]))
def test_a_scene_stored_before_is_heard_by_the_same_people(seed, edit_seed, order, scene):
    """What each source comes to at each listener after a recall, whatever their numbers are."""
    show, to = evening(seed, edit_seed), names_of(order)
    show = show.with_values({a: False for a in show.own if a.endswith("/linked")})
    after = show.with_values(renamed(show, to))
    try:
        here = flow_of(made(show, recall(show, scene).moves, own=True)[0])
    except ConsoleError as refused:  # a loop at 0 dB is one by whatever numbers
        with pytest.raises(type(refused)):
            made(after, recall(after, scene).moves, own=True)
        return
    there = flow_of(made(after, recall(after, scene).moves, own=True)[0])
    layout = layout_of(TINY)
    sources = [layout.source(row) for row in range(layout.rows)]
    listeners = [layout.listener(n) for n in range(len(layout.strips) - layout.rows)]
    rows = [layout.row(to.get(one, one)) for one in sources]
    columns = [layout.column(to.get(one, one)) for one in listeners]
    every = [list(range(len(some))) for some in (sources, listeners)]
    level, state = here.part(*every)
    level_there, state_there = there.part(rows, columns)
    np.testing.assert_allclose(level, level_there, atol=1e-6, rtol=0)
    # which of equal reasons is named first goes by number
    np.testing.assert_array_equal(state == State.HEARD, state_there == State.HEARD)


@settings(max_examples=15, deadline=None)
@given(SHOW_SEEDS, SEEDS, st.sampled_from(["mix/1", "group/1", "matrix/1"]))
def test_of_a_bus_that_is_removed_nothing_stays_in_any_scene(seed, edit_seed, bus):
    show = evening(seed, edit_seed)
    after = made(show, remove_bus(show, bus), own=True)[0]
    assert not re.search(rf"(?<!\w){bus}(?!\d)", text_of(after))
    assert not [a for a in after.own if bus in strips_in(a)]
    # and what comes to its number later is in no scene of before
    new = made(after, {f"{bus}/format": "stereo", f"{bus}/fader": -3.0})[0]
    assert not [a for a in recall(new, "scene/1").values if bus in strips_in(a)]


def test_a_mix_that_is_moved_keeps_what_scenes_hold_of_it():
    show = made(blank_show(TINY), {"channel/1/source": "input/local/1", "mix/1/format": "mono",
                                   "mix/2/format": "mono", "channel/1/send/mix/1/level": -5.0,
                                   "channel/1/send/mix/2/level": -20.0})[0]  # fmt: skip
    cells = {"channel/1": ["send/mix/1", "send/mix/2"]}
    show = made(show, store_scene(show, "One", cells), own=True)[0]
    show = made(show, {"channel/1/send/mix/1/level": 0.0, "channel/1/send/mix/2/level": 0.0})[0]
    moved = made(show, move_bus(show, "mix/1", None), own=True)[0]
    again = made(moved, recall(moved, "scene/1").moves, own=True)[0]
    assert again["channel/1/send/mix/2/level"] == -5.0
    assert again["channel/1/send/mix/1/level"] == -20.0
    copied = made(again, duplicate_bus(again, "mix/1"), own=True)[0]
    copy = next(m for m in copied.in_use("mix") if m not in ("mix/1", "mix/2"))
    assert not [a for a in recall(copied, "scene/1").values if copy in strips_in(a)]


def imported(show, *rows):
    drafts = [LineDraft(name=name, channel=number) for number, name in rows]
    merged = merge(show, drafts, Ways())
    return made(show, merged.moves, own=True)[0], merged


def test_a_list_that_moves_a_voice_takes_scenes_and_settings_along():
    """The kick takes the voice's channel: an older scene still finds the voice, and her EQ."""
    show, _ = imported(blank_show(TINY), (1, "Voice"), (2, "Snare"))
    people: dict[str, Asked] = {
        "performer/1/name": "Ada",
        "part/1/name": "Singer",
        "part/1/place": 1.0,
        "part/1/microphone/1/channel": "channel/1",
        "tonight/part/1": "performer/1",
    }
    show = made(show, people | {"channel/1/fader": -4.0})[0]
    show = made(show, part_on(show, "channel/1", "part/1", since_s=1.0), own=True)[0]
    show = made(show, {"channel/1/eq/1/gain": 5.0})[0]
    cells = {"channel/1": ["name", "fader", "eq"], "channel/2": ["name", "fader"]}
    show = made(show, store_scene(show, "One", cells), own=True)[0]
    after, merged = imported(show, (1, "Kick"), (2, "Snare"), (3, "Voice"))
    assert after["channel/3/eq/1/gain"] == 5.0
    assert after.own_value("channel/3/eq/1/gain") == 0.0  # hers, not the channel's own
    assert after["part/1/microphone/1/channel"] == "channel/3"
    assert merged.renumbered == {"channel/1": "channel/3"}
    then = made(after, recall(after, "scene/1").moves, own=True)[0]
    assert then.own_value("channel/1/name") == "Kick"
    assert then["channel/1/fader"] == after["channel/1/fader"]
    assert then["channel/3/fader"] == -4.0
    assert then.own_value("channel/3/name") == "Voice"


def test_a_new_line_on_the_channel_of_one_that_left_begins_anew():
    show, _ = imported(blank_show(TINY), (1, "Voice"), (3, "Snare"))
    show = made(show, {"channel/3/fader": -4.0, "channel/3/eq/1/gain": 3.0})[0]
    show = made(show, store_scene(show, "One", {"channel/3": ["name", "fader"]}), own=True)[0]
    drafts = [LineDraft(name="Voice", channel=1), LineDraft(name="Kora", channel=3, stereo=True)]
    merged = merge(show, drafts, Ways())
    assert merged.renumbered == {"channel/3": None}
    after = made(show, merged.moves, own=True)[0]
    assert after.text("channel/3/name") == "Kora L"
    assert after["channel/3/eq/1/gain"] == 0.0
    assert recall(after, "scene/1").values == {}
    # a channel that no line of the list had keeps what a template set of it
    plain = made(blank_show(TINY), {"channel/3/name": "Vox", "channel/3/eq/1/gain": 3.0})[0]
    after, _ = imported(plain, (3, "Kora"))
    assert after["channel/3/eq/1/gain"] == 3.0


@settings(max_examples=25, deadline=None)
@given(SHOW_SEEDS, SEEDS, st.permutations([1, 2, 3, 4]), st.integers(1, 3), st.integers(1, 4),
       st.booleans())  # fmt: skip
def test_channels_that_move_are_heard_as_before_and_nobody_is_lost(
    seed, edit_seed, order, many, to, swap
):
    """Put at a number, or changed with who is there: by scenes and casts of before, too."""
    show = evening(seed, edit_seed)
    chosen = order[:many]
    try:
        found = renumber_channels(show, chosen, to, swap=swap)
    except (NothingLeft, UnreadableText):
        sides = {n for one in chosen for n in sides_of(show, one)}
        assert to + len(sides) - 1 > 4 or swap
        return
    whole = [n for one in chosen for n in sides_of(show, one)]
    whole = list(dict.fromkeys(whole))
    names = {f"channel/{n}": f"channel/{to + turn}" for turn, n in enumerate(whole)}
    assert {old: found.to.get(old, old) for old in names} == names
    there = [found.to.get(f"channel/{n}", f"channel/{n}") for n in range(1, 5)]
    if any(show.uses(f"channel/{n}") for n in range(to, to + len(whole)) if n not in whole):
        assert sorted(there) == [f"channel/{n}" for n in range(1, 5)]  # nobody is lost
    elif len(set(there)) < 4:
        assert not any(
            show.uses(f"channel/{n}") for n in range(1, 5)
            if there.count(there[n - 1]) > 1 and f"channel/{n}" not in names
        )  # fmt: skip
    if not swap:  # who does not move keeps the order
        rest = [there[n - 1] for n in range(1, 5) if n not in whole]
        assert rest == sorted(rest)
    after = show.with_values(found.moves)
    here = flow_of(show), flow_of(after)
    layout = layout_of(TINY)
    gone = {f"channel/{to + turn}" for turn in range(len(whole))} - set(found.to)
    rows = [r for r in range(layout.rows) if layout.source(r) not in gone - set(names)]
    other = [layout.row(found.to.get(layout.source(r), layout.source(r))) for r in rows]
    every = list(range(layout.buses))
    level, state = here[0].part(rows, every)
    moved, its_state = here[1].part(other, every)
    np.testing.assert_allclose(level, moved, atol=1e-6, rtol=0)
    np.testing.assert_array_equal(state == State.HEARD, its_state == State.HEARD)
    if len(set(there)) == 4:
        back = after.with_values(renamed(after, {new: old for old, new in found.to.items()}))
        assert json.loads(text_of(back)) == json.loads(text_of(show))
    for odd in found.apart:  # pairs that come apart are told, and no other does
        assert show.on(f"{odd}/linked")
    kept = sum(show.on(f"channel/{odd}/linked") for odd in (1, 3)) - len(found.apart)
    assert sum(after.on(f"channel/{odd}/linked") for odd in (1, 3)) == kept


def sides_of(show, channel):
    odd = channel - (channel + 1) % 2
    return (odd, odd + 1) if show.on(f"channel/{odd}/linked") else (channel,)
